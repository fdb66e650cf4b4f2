//! A question that takes longer than a page should, of many hulls.
#![allow(clippy::unwrap_used, reason = "tests")]

use crate::desk::{Desk, text_of};
use galvet::demo_data;
use rocket::http::{Header, Status};
use rocket::local::blocking::LocalResponse;

/// More hulls than are waited for.
fn many() -> Desk {
    let mut demo = demo_data::catalogue().unwrap();
    let one = demo.hulls.clone();
    for copy in 1..5 {
        demo.hulls.extend(one.iter().cloned().map(|mut hull| {
            hull.survey.key = format!("{}-{copy}", hull.survey.key);
            hull.survey.model = format!("{} {copy}", hull.survey.model);
            hull
        }));
    }
    Desk::with(&demo)
}

/// Goes to an address as a browser does, or fetches it as a script that asks again.
fn go<'a>(desk: &'a Desk, path: &str, how: (&'static str, &'static str)) -> LocalResponse<'a> {
    let host = Header::new("Host", "localhost");
    let request = desk.client.get(path.to_owned()).header(host);
    request.header(Header::new(how.0, how.1)).dispatch()
}

const BROWSER: (&str, &str) = ("Sec-Fetch-Mode", "navigate");
const SCRIPT: (&str, &str) = ("Prefer", "respond-async");

/// How many hulls are looked at, of how many.
fn looked_at(page: &str) -> (usize, usize) {
    let said = text_of(page, "#so-far strong");
    let digits = |word: &str| word.parse().ok();
    let numbers: Vec<usize> = said.split(' ').filter_map(digits).collect();
    match numbers[..] {
        [done, all] => (done, all),
        _ => (0, usize::MAX),
    }
}

#[test]
fn a_page_that_takes_long_says_how_far_it_is_and_comes() {
    let desk = many();
    let all = desk.store.catalogue().unwrap().hulls.len();
    let (mut before, mut told, mut best) = (0, 0, Vec::new());
    let whole = loop {
        let answer = go(&desk, "/?mass=83", [BROWSER, SCRIPT][told % 2]);
        if answer.status() == Status::Ok {
            break answer.into_string().unwrap();
        }
        assert_eq!(answer.status(), Status::Accepted);
        let headers = answer.headers();
        assert_eq!(headers.get_one("Cache-Control"), Some("no-store"));
        assert_eq!(headers.get_one("ETag"), None);
        let page = answer.into_string().unwrap();
        assert!(text_of(&page, ".lead").contains("A 83\u{a0}kg angler"));
        let (done, of) = looked_at(&page);
        assert!(done >= before && (of == all || done == 0), "{done} of {of}");
        (before, told) = (done, told + 1);
        best.push(text_of(&page, "#so-far li > p:first-of-type"));
    };
    assert!(told > 0, "it came at once");
    assert!(text_of(&whole, "h2").contains("pass"));
    // What was said of a hull meanwhile is said of it in the end.
    let said = best.iter().rev().find(|b| !b.is_empty()).unwrap();
    let verdict = said.lines().next().unwrap();
    let rows = text_of(&whole, ".row-verdict");
    assert!(rows.contains(verdict.trim()), "{verdict} in {rows}");
}

#[test]
fn every_page_that_ranks_says_so_and_what_is_saved_or_read_by_programs_is_waited_for() {
    let desk = many();
    let pages = [
        "/?",
        "/part/ranking?",
        "/hulls?",
        "/part/hulls?",
        "/flip?",
        "/compare?hull=fennick-dunmarrow&",
        "/hulls/fennick-dunmarrow/changes?",
        "/ask?",
        "/summary?",
        "/tour?",
    ];
    let mut early = 0;
    for page in pages {
        let answer = go(&desk, &format!("{page}mass=84"), BROWSER);
        match answer.status() {
            Status::Accepted => early += 1,
            status => assert_ne!(status, Status::ServiceUnavailable, "{page}: {status}"),
        }
    }
    assert!(early > 1, "{early}");
    // What was not understood is not passed over meanwhile.
    for (asked, unclear) in [("-5", true), ("82.5", false)] {
        let answer = go(&desk, &format!("/?stature=1.71+m&mass={asked}"), BROWSER);
        assert_eq!(answer.status(), Status::Accepted, "{asked}");
        let page = answer.into_string().unwrap();
        let told = text_of(&page, ".mistake");
        assert_eq!(told.contains("was understood"), unclear, "{asked}: {told}");
    }
    // A file is whole, whoever asks for it.
    for (file, mass) in [
        ("/ranking.json?", 85),
        ("/ranking.csv?", 86),
        ("/?as=file&", 87),
    ] {
        let answer = go(&desk, &format!("{file}mass={mass}"), BROWSER);
        assert_eq!(answer.status(), Status::Ok, "{file}");
        let text = answer.into_string().unwrap();
        assert!(
            text.contains("Fennick") || text.contains("fennick"),
            "{file}"
        );
        assert!(!text.contains("hulls looked at"), "{file}");
    }
    // Nor is anybody put off who does not say that they ask again.
    let page = desk.page("/?mass=88");
    assert!(text_of(&page, "h2").contains("pass"));
}
