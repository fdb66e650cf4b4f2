//! What holds on every page there is, found by following links.
#![allow(clippy::unwrap_used, reason = "tests")]

use crate::desk::{Desk, all_of, css};
use rocket::http::{ContentType, Status};
use scraper::Html;
use std::collections::{BTreeMap, BTreeSet, VecDeque};
use std::sync::LazyLock;

/// The question all pages are asked with: none the demo has.
const ASKED: &str = "mass=77+kg";

/// Pages of every kind and what they are, found by their links from one question on: two
/// of each shape of address.
static PAGES: LazyLock<Vec<(String, String)>> = LazyLock::new(|| {
    let desk = Desk::demo();
    let shape = |at: &str| -> String {
        let path = at.split(['?', '#']).next().unwrap_or_default();
        // The second place is a record's key.
        let named = |(i, place)| if i == 2 { "*" } else { place };
        let places = path.split('/').enumerate().map(named);
        places.collect::<Vec<_>>().join("/")
    };
    let mut seen: BTreeMap<String, usize> = BTreeMap::new();
    let mut found: Vec<(String, String)> = Vec::new();
    let mut next: VecDeque<String> = [format!("/?{ASKED}")].into();
    while let Some(at) = next.pop_front() {
        let times = seen.entry(shape(&at)).or_default();
        if *times >= 2 || found.iter().any(|(there, _)| *there == at) {
            continue;
        }
        *times += 1;
        let response = desk.ask(&at);
        let html = response.content_type() == Some(ContentType::HTML);
        if response.status() != Status::Ok || !html {
            continue;
        }
        let body = response.into_string().unwrap_or_default();
        let page = Html::parse_document(&body);
        next.extend(ways(&page).into_iter().map(|way| match asks(&way) {
            true => way,
            false if way.contains('?') => format!("{way}&{ASKED}"),
            false => format!("{way}?{ASKED}"),
        }));
        found.push((at, body));
    }
    assert!(found.len() > 80, "{}", found.len());
    found
});

/// Addresses of ours a page leads to.
fn ways(page: &Html) -> Vec<String> {
    let links = all_of(page.root_element(), "a[href]", "href").into_iter();
    let ours = links.filter(|link| link.starts_with('/'));
    ours.map(|link| link.split('#').next().unwrap_or_default().to_owned())
        .collect()
}

/// Whether an address has a question of its own.
fn asks(way: &str) -> bool {
    let (_, query) = way.split_once('?').unwrap_or((way, ""));
    form_urlencoded::parse(query.as_bytes()).any(|(name, _)| name == "mass" || name == "brief")
}

/// Whether somewhere in a text stands a nought below nought: "-0", "−0.00".
fn less_than_nothing(text: &str) -> bool {
    ["-0", "−0"].iter().any(|minus| {
        text.match_indices(minus).any(|(at, _)| {
            let before = text[..at].chars().next_back();
            let sign = minus.len() - 1;
            let digits = text[at + sign..].chars();
            let number: String = digits
                .take_while(|c| c.is_ascii_digit() || *c == '.')
                .collect();
            let nought = number.trim_end_matches('.').parse() == Ok(0.0);
            nought && !before.is_some_and(char::is_alphanumeric)
        })
    })
}

#[test]
fn no_page_says_less_than_nothing() {
    assert!(less_than_nothing("well −0.00 m²") && less_than_nothing("in -0 minutes."));
    assert!(!less_than_nothing("−0.4°, 2026-11-0, lake-0, -0.05"));
    for (at, body) in PAGES.iter() {
        let page = Html::parse_document(body);
        let said: String = page.root_element().text().collect::<Vec<_>>().join(" ");
        assert!(!less_than_nothing(&said), "{at}");
    }
    // A board has no tank well.
    let board = Desk::demo().page("/hulls/velmoor-oskarin");
    assert!(board.contains("0.00\u{a0}m²") && !less_than_nothing(&board));
}

#[test]
fn every_form_in_which_figures_are_typed_sends_its_units() {
    /// Words, in which no figure is typed.
    const WORDS: [&str; 6] = ["name", "customer", "find", "from", "to", "pins"];
    let (mut sends, mut silent) = (BTreeSet::new(), BTreeSet::new());
    for (_, body) in PAGES.iter() {
        let page = Html::parse_document(body);
        for form in page.select(&css("form")) {
            let typed = all_of(form, "input[type=text], input:not([type])", "name");
            if typed.iter().all(|name| WORDS.contains(&name.as_str())) {
                continue;
            }
            let action = form.value().attr("action").unwrap_or_default();
            let says = if form.value().attr("method") == Some("post") {
                action.contains("units=metric")
            } else {
                !all_of(form, "[name=units][value=metric]", "value").is_empty()
            };
            let path = action.split('?').next().unwrap_or_default().to_owned();
            if says { &mut sends } else { &mut silent }.insert(path);
        }
    }
    assert_eq!(silent, BTreeSet::new());
    assert!(sends.len() > 20, "{sends:?}");
}

#[test]
fn the_question_goes_along_on_every_way() {
    /// Links that ask something else, and say so.
    const ELSE: &str = "[data-anew]";
    let mut lost = BTreeSet::new();
    let mut kept = 0;
    for (at, body) in PAGES.iter() {
        let page = Html::parse_document(body);
        let anew = all_of(page.root_element(), ELSE, "href");
        for way in ways(&page).into_iter().filter(|way| !anew.contains(way)) {
            let path = way.split('?').next().unwrap_or_default();
            // A file is the same whatever is asked, or has its question in it.
            let is_file = path
                .rsplit('/')
                .next()
                .is_some_and(|last| last.contains('.'));
            if is_file || path.starts_with("/shared/") {
                continue;
            }
            if asks(&way) {
                kept += 1;
            } else {
                lost.insert(format!("{way} on {at}"));
            }
        }
    }
    for (at, body) in PAGES.iter() {
        let page = Html::parse_document(body);
        for form in page.select(&css("form")) {
            let action = form.value().attr("action").unwrap_or_default();
            // Beside what it asks itself, without a script as well; one that changes
            // something comes back with it.
            let comes_back = all_of(form, "[name=back]", "value").iter().any(|b| asks(b));
            let carries = match form.value().attr("method") {
                Some("post") => comes_back || action.is_empty() || asks(action),
                _ => form.html().contains("name=\"mass\""),
            };
            if !carries {
                lost.insert(format!("form {action} on {at}"));
            }
        }
    }
    assert_eq!(lost, BTreeSet::new());
    assert!(kept > 2_000, "{kept}");
}
