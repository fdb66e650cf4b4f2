//! What holds on every page there is, found by following links.
#![allow(clippy::unwrap_used, reason = "tests")]

use crate::desk::{Desk, all_of, css};
use rocket::http::{ContentType, Status};
use scraper::Html;
use std::collections::{BTreeMap, BTreeSet, VecDeque};

/// Pages of every kind, found by their links: two of each shape of address.
fn every_kind(desk: &Desk) -> Vec<String> {
    let shape = |at: &str| -> String {
        let path = at.split('?').next().unwrap_or_default();
        let places: Vec<&str> = path.split('/').collect();
        // The second place is a record's key.
        let named = |(i, place): (usize, &&str)| if i == 2 { "*" } else { place }.to_owned();
        places
            .iter()
            .enumerate()
            .map(|(i, p)| named((i, p)))
            .collect::<Vec<_>>()
            .join("/")
    };
    let mut seen: BTreeMap<String, usize> = BTreeMap::new();
    let mut found = BTreeSet::new();
    let mut next: VecDeque<String> = ["/".to_owned()].into();
    while let Some(at) = next.pop_front() {
        let times = seen.entry(shape(&at)).or_default();
        if *times >= 2 || found.contains(&at) {
            continue;
        }
        *times += 1;
        found.insert(at.clone());
        let response = desk.ask(&at);
        let html = response.content_type() == Some(ContentType::HTML);
        if response.status() != Status::Ok || !html {
            continue;
        }
        let page = Html::parse_document(&response.into_string().unwrap_or_default());
        let links = all_of(page.root_element(), "[href]", "href").into_iter();
        next.extend(links.filter(|link| link.starts_with('/') && !link.starts_with("/static")));
    }
    found.into_iter().collect()
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
    let desk = Desk::demo();
    let mut pages = 0;
    for at in every_kind(&desk) {
        let response = desk.ask(&at);
        if response.content_type() != Some(ContentType::HTML) {
            continue;
        }
        let page = Html::parse_document(&response.into_string().unwrap_or_default());
        let said: String = page.root_element().text().collect::<Vec<_>>().join(" ");
        assert!(!less_than_nothing(&said), "{at}");
        pages += 1;
    }
    // A board has no tank well.
    let board = desk.page("/hulls/velmoor-oskarin");
    assert!(board.contains("0.00\u{a0}m²") && !less_than_nothing(&board));
    assert!(pages > 40, "{pages}");
}

#[test]
fn every_form_in_which_figures_are_typed_sends_its_units() {
    /// Words, in which no figure is typed.
    const WORDS: [&str; 6] = ["name", "customer", "find", "from", "to", "pins"];
    let desk = Desk::demo();
    let (mut sends, mut silent) = (BTreeSet::new(), BTreeSet::new());
    for at in every_kind(&desk) {
        let response = desk.ask(&at);
        if response.content_type() != Some(ContentType::HTML) {
            continue;
        }
        let page = Html::parse_document(&response.into_string().unwrap_or_default());
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
