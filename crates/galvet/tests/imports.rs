//! Files looked over, put right and taken in: the page in process.
#![allow(clippy::unwrap_used, clippy::panic, reason = "tests")]

use crate::desk;

use desk::Desk;
use galvet_core::base::Keyed;
use galvet_core::hull::{Construction, Measure};
use galvet_store::files::hulls::HullRecord;
use rocket::http::Status;

fn hull(desk: &Desk, key: &str) -> Option<HullRecord> {
    let hulls = desk.store.catalogue().unwrap().hulls;
    hulls.into_iter().find(|h| h.survey.key == key)
}

fn send(desk: &Desk, fields: &[(&str, &str)], file: Option<(&str, &str)>) -> (Status, String) {
    let file = file.map(|(name, text)| (name, text.as_bytes()));
    send_to(desk, "/import", fields, file)
}

fn send_to(
    desk: &Desk,
    path: &str,
    fields: &[(&str, &str)],
    file: Option<(&str, &[u8])>,
) -> (Status, String) {
    let file = file.map(|(name, content)| ("file", name, content));
    desk.send_parts(path, fields, file)
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
    let (csv, json) = (
        desk.page("/hulls.csv"),
        desk.page("/everything.json?tracks=yes"),
    );
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

#[test]
fn everything_goes_out_as_one_archive_with_drawings_and_comes_in_again() {
    let desk = Desk::demo();
    let archive = desk.ask("/everything.zip").into_bytes().unwrap();
    assert!(archive.starts_with(b"PK"));
    let names = String::from_utf8_lossy(&archive);
    for name in [
        "hulls.csv",
        "gear.csv",
        "drawings/velmoor-oskarin-wide-profile.svg",
    ] {
        assert!(names.contains(name), "{name}");
    }
    let mine = desk.store.catalogue().unwrap();
    let other = Desk::with(&galvet_store::Catalogue {
        waters: mine.waters.clone(),
        ..galvet_store::Catalogue::default()
    });
    let sent = Some(("galvet.zip", archive.as_slice()));
    let (status, page) = send_to(&other, "/import", &[("action", "keep")], sent);
    assert_eq!(status, Status::SeeOther, "{page}");
    let theirs = other.store.catalogue().unwrap();
    assert_eq!(mine.hulls, theirs.hulls);
    assert_eq!(mine.rigs, theirs.rigs);
    assert_eq!(mine.gear, theirs.gear);
    // An archive that is none, and no spreadsheet either, says so.
    let (status, page) = send_to(&other, "/import", &[], Some(("x.zip", b"PK\x03\x04 no")));
    assert_eq!(status, Status::UnprocessableEntity);
    assert!(
        page.contains("not a spreadsheet that can be read"),
        "{page}"
    );
}

#[test]
fn hostile_tables_are_told_and_nothing_of_them_is_kept() {
    let desk = Desk::demo();
    let before = desk.store.catalogue().unwrap().hulls;
    let wide = format!("{}\n{}", "Length,".repeat(300), "3,".repeat(300));
    let long = format!("Model,Length (m)\n{}", "x,3.5\n".repeat(6_000));
    for table in [
        "Model;Length",
        "Model,Length\n<script>alert(1)</script>,<b>3</b>\n",
        "a,b\n\u{0},\u{1}\n",
        wide.as_str(),
        long.as_str(),
        "Model,Length (m),Model,Length (m)\nA,3.5,B,3.6\n",
        "|||||\n|||||",
        "Model,Weight\nA,=1+1\n",
    ] {
        let fields = [("text", table), ("action", "look")];
        let (status, page) = send(&desk, &fields, None);
        let fits = status == Status::Ok || status == Status::UnprocessableEntity;
        let shown: String = table.chars().take(40).collect();
        assert!(fits, "{shown}: {status}");
        assert!(!page.contains("<script>alert"), "{shown}");
        let fields = [
            ("text", table),
            ("name", "../../x.csv"),
            ("of", "hulls"),
            ("col[0].as", "no-such-thing"),
            ("col[99999].as", "length"),
            ("col[1].unit", "parsec"),
            ("all[construction]", "raft"),
            ("all[key]", "../x"),
            ("word[0].target", "propulsion"),
            ("word[0].theirs", "x"),
            ("word[0].ours", "rocket"),
            ("fix[0].at", "77777"),
            ("fix[0].column", "Length"),
            ("fix[0].value", "\u{202e}"),
            ("action", "keep"),
        ];
        let (status, page) = send_to(&desk, "/import/table", &fields, None);
        assert_ne!(status.code / 100, 5, "{shown}: {status}");
        assert!(!page.contains("<script>alert"), "{shown}");
    }
    assert_eq!(desk.store.catalogue().unwrap().hulls, before);
}
