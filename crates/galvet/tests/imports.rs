//! Files looked over, put right and taken in: the page in process.
#![allow(clippy::unwrap_used, clippy::panic, reason = "tests")]

#[path = "common/desk.rs"]
mod desk;

use desk::Desk;
use galvet_core::base::Keyed;
use galvet_core::hull::{Construction, Measure};
use galvet_store::files::hulls::HullRecord;
use rocket::http::{ContentType, Status};

fn hull(desk: &Desk, key: &str) -> Option<HullRecord> {
    let hulls = desk.store.catalogue().unwrap().hulls;
    hulls.into_iter().find(|h| h.survey.key == key)
}

/// What stands between the parts of a form.
const MARK: &str = "gunwale";

/// A form with several parts.
fn parts(fields: &[(&str, &str)], file: Option<(&str, &str)>) -> String {
    let mut body = String::new();
    for (name, value) in fields {
        body += &format!(
            "--{MARK}\r\nContent-Disposition: form-data; name=\"{name}\"\r\n\r\n{value}\r\n"
        );
    }
    if let Some((name, text)) = file {
        body += &format!(
            "--{MARK}\r\nContent-Disposition: form-data; name=\"file\"; filename=\"{name}\"\r\nContent-Type: text/csv\r\n\r\n{text}\r\n"
        );
    }
    body += &format!("--{MARK}--\r\n");
    body
}

fn send(desk: &Desk, fields: &[(&str, &str)], file: Option<(&str, &str)>) -> (Status, String) {
    let body = parts(fields, file);
    let kind = ContentType::new("multipart", "form-data").with_params(("boundary", MARK));
    let answer = desk.send("/import", kind, &body);
    (answer.status(), answer.into_string().unwrap_or_default())
}

const TABLE: &str = "Model;construction;beam;Length;key;colour\r\nOne;sit-on-top;85 cm;3,7 m;one;red\r\nTwo;raft;85 cm;3,7 m;two;\r\nThree;board;wide;long;three;\r\n";

#[test]
fn a_file_is_looked_over_put_right_and_taken_in_in_one_step() {
    let desk = Desk::demo();
    let count = desk.store.catalogue().unwrap().hulls.len();
    let (status, page) = send(&desk, &[("action", "look")], Some(("shop.csv", TABLE)));
    assert_eq!(status, Status::UnprocessableEntity);
    for said in [
        "3 things have to be put right",
        "line 3, construction",
        "line 4, beam",
        "line 4, length",
        "value=\"raft\"",
    ] {
        assert!(page.contains(said), "{said}");
    }
    // One is put right: two are left, and what was put right stays so.
    let fix = |n: usize, line: &'static str, column: &'static str, value: &'static str| {
        [("line", line), ("column", column), ("value", value)]
            .map(|(name, v)| (format!("fix[{n}].{name}"), v))
    };
    let post = |fixes: &[(String, &str)], text: &str, rest: &[(&str, &str)]| {
        let fields = fixes.iter().map(|(n, v)| (n.as_str(), *v));
        let fields: Vec<(&str, &str)> = fields
            .chain([("text", text), ("name", "shop.csv")])
            .chain(rest.iter().copied())
            .collect();
        send(&desk, &fields, None)
    };
    let (status, page) = post(
        &fix(0, "3", "construction", "board"),
        TABLE,
        &[("action", "look")],
    );
    assert_eq!(status, Status::UnprocessableEntity);
    assert!(page.contains("2 things have to be put right") && !page.contains("raft"));
    let fixes = [
        fix(0, "3", "construction", "board"),
        fix(1, "4", "beam", "84 cm"),
        fix(2, "4", "length", "3,2 m"),
    ]
    .concat();
    let (status, page) = post(&fixes, TABLE, &[("action", "look")]);
    assert_eq!(status, Status::Ok, "{page}");
    assert!(
        page.contains("3 hulls") && page.contains("colour"),
        "kept, not understood"
    );
    assert_eq!(
        desk.store.catalogue().unwrap().hulls.len(),
        count,
        "nothing kept yet"
    );
    let (status, _) = post(&fixes, TABLE, &[("action", "keep")]);
    assert_eq!(status, Status::SeeOther);
    assert_eq!(desk.store.catalogue().unwrap().hulls.len(), count + 3);
    let three = hull(&desk, "three").unwrap();
    assert_eq!(three.survey.value(Measure::Length), Some(3.2));
    assert_eq!(hull(&desk, "one").unwrap().extra["colour"], "red");
    // Once more: all are here already, and chosen one by one.
    let (_, page) = post(&fixes, TABLE, &[("action", "look")]);
    assert!(page.contains("3 of them here already"));
    let choices = [
        ("action", "keep"),
        ("double[0]", "both"),
        ("double[1]", "skip"),
    ];
    assert_eq!(post(&fixes, TABLE, &choices).0, Status::SeeOther);
    assert_eq!(desk.store.catalogue().unwrap().hulls.len(), count + 4);
    assert_eq!(desk.undo(), Status::SeeOther);
    assert_eq!(desk.undo(), Status::SeeOther);
    assert_eq!(desk.store.catalogue().unwrap().hulls.len(), count);
}

#[test]
fn what_goes_out_comes_in_again() {
    let desk = Desk::demo();
    let (csv, json) = (desk.page("/hulls.csv"), desk.page("/everything.json"));
    let other = Desk::with(&galvet_store::Catalogue {
        waters: desk.store.catalogue().unwrap().waters,
        ..galvet_store::Catalogue::default()
    });
    assert_eq!(other.ask("/hulls").status(), Status::Ok);
    let (status, page) = send(
        &other,
        &[("action", "keep")],
        Some(("everything.json", &json)),
    );
    assert_eq!(status, Status::SeeOther, "{page}");
    let (mine, theirs) = (
        desk.store.catalogue().unwrap(),
        other.store.catalogue().unwrap(),
    );
    assert_eq!(mine.hulls, theirs.hulls);
    assert_eq!(mine.rigs, theirs.rigs);
    assert_eq!(mine.briefs, theirs.briefs);
    let (_, page) = send(&other, &[("action", "look")], Some(("hulls.csv", &csv)));
    assert!(
        page.contains(&format!(
            "{0} hulls, {0} of them here already",
            mine.hulls.len()
        )),
        "{page}"
    );
    for bad in [
        "",
        "\u{0}\u{1}",
        "{",
        "{\"galvet\": 2}",
        "key\n",
        "<script>alert(1)</script>,key\n1,2",
    ] {
        let (status, page) = send(&other, &[("action", "keep")], Some(("bad.csv", bad)));
        assert!(
            status == Status::UnprocessableEntity || status == Status::Ok,
            "{bad:?}: {status}"
        );
        assert!(!page.contains("<script>alert"), "{bad:?}");
    }
    assert_eq!(other.store.catalogue().unwrap().hulls, mine.hulls);
    assert!(Construction::from_key("raft").is_none());
}
