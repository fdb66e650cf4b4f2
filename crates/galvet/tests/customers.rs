//! Customers: found, kept under their name, taken along.

use crate::desk::{Desk, text_of};
use crate::traced::{NAME, PIXELS, SPELLINGS, traced};
use galvet_store::files::customer::CustomerEntry;
use galvet_store::files::outing::OutingEntry;
use galvet_store::files::stock::BookingEntry;
use rocket::http::Status;
use std::io::Read;

#[test]
fn a_customer_is_found_while_typing_and_everything_stands_under_the_name() {
    let desk = traced();
    let list = |find: &str| {
        text_of(
            &desk.page(&format!("/customers?find={find}")),
            ".customers li",
        )
    };
    assert!(list("qui").contains(NAME) && list("").contains("Mereth Oskwin"));
    assert!(!list("qui").contains("Mereth") && list("nobody").is_empty());
    assert!(
        list("quill+%C3%B8y").contains("1 question, 1 test paddle, 1 outing, 1 booking"),
        "{}",
        list("quill")
    );
    let page = text_of(&desk.page("/customers/oyra-quillback"), ".under-name");
    for there in [
        "In the reeds",
        "Quarnel Pipkin",
        "2026-05-01",
        "Quote",
        "Drumlee Orvane",
        "Øyra Quillback light",
    ] {
        assert!(page.contains(there), "{there}: {page}");
    }
    // No second of one name.
    assert_eq!(
        desk.post(
            "/new-customer",
            "name=%C3%B8yra++quillback&since=2026-01-01"
        ),
        Status::UnprocessableEntity
    );
    // The shortlist is put under it, and taken off again.
    desk.post("/shortlist", "on=drumlee-orvane&back=/");
    desk.post("/customers/oyra-quillback", "action=shortlist");
    let hulls = |desk: &Desk| {
        let all = desk.store.sheets::<CustomerEntry>().unwrap();
        all.into_iter()
            .find(|c| c.key == "oyra-quillback")
            .unwrap()
            .hulls
    };
    assert_eq!(hulls(&desk), ["drumlee-orvane"]);
    desk.post(
        "/customers/oyra-quillback",
        "action=off-hull+drumlee-orvane",
    );
    assert!(hulls(&desk).is_empty());
    assert_eq!(desk.undo(), Status::SeeOther);
    assert_eq!(hulls(&desk), ["drumlee-orvane"]);
}

#[test]
fn who_is_renamed_is_renamed_everywhere_at_once_and_by_one_undo_nowhere() {
    let desk = traced();
    let done = desk.post(
        "/customers/oyra-quillback",
        "action=keep&name=%C3%98yra+Sund&since=2026-01-01",
    );
    assert_eq!(done, Status::SeeOther);
    let named = |name: &str| {
        let all = desk.store.catalogue().unwrap();
        let trials = all.hulls.iter().flat_map(|h| &h.survey.looked.trials);
        [
            all.briefs
                .iter()
                .filter(|b| b.customer.eq_ignore_ascii_case(name))
                .count(),
            trials.filter(|t| t.who == name).count(),
            all.sheets_of::<OutingEntry>()
                .filter(|o| o.who == name)
                .count(),
            all.sheets_of::<BookingEntry>()
                .filter(|b| b.who == name)
                .count(),
        ]
    };
    assert_eq!(named("Øyra Sund"), [1, 1, 1, 1]);
    assert_eq!(named(NAME), [0, 0, 0, 0]);
    assert_eq!(desk.undo(), Status::SeeOther);
    assert_eq!(named(NAME), [1, 1, 1, 1]);
}

#[test]
fn one_persons_data_leave_as_an_archive() {
    let desk = traced();
    let answer = desk.ask("/customers/oyra-quillback/data.zip");
    assert_eq!(answer.status(), Status::Ok);
    let bytes = answer.into_bytes().unwrap();
    let mut zip = zip::ZipArchive::new(std::io::Cursor::new(bytes)).unwrap();
    let mut text = |name: &str| {
        let mut out = String::new();
        zip.by_name(name).unwrap().read_to_string(&mut out).unwrap();
        out
    };
    let json = |text: String| serde_json::from_str::<serde_json::Value>(&text).unwrap();
    let list = |text: String| json(text).as_array().unwrap().len();
    assert_eq!(list(text("customer.json")), 1);
    // The one thrown away as well.
    assert_eq!(list(text("questions.json")), 2);
    assert_eq!(list(text("outings.json")), 1);
    assert_eq!(list(text("rigs.json")), 1);
    assert_eq!(list(text("photos.json")), 1);
    assert_eq!(text("photos/of-her.jpg").as_bytes(), PIXELS);
    assert!(text("test-paddles.json").contains("sore left knee"));
    assert!(text("also-named.json").contains("quarnel-pipkin"));
    assert!(list(text("history.json")) >= 7);
    let whole: String = ["customer.json", "questions.json", "history.json"]
        .map(&mut text)
        .concat();
    assert!(!whole.contains("Mereth"), "nobody else's");
}

#[test]
fn what_is_handed_on_names_no_customer() {
    let desk = traced();
    let mut handed = vec![
        ("everything.json".to_owned(), desk.page("/everything.json")),
        ("log.json".to_owned(), desk.page("/log.json")),
    ];
    let bytes = desk.ask("/everything.zip").into_bytes().unwrap();
    let mut zip = zip::ZipArchive::new(std::io::Cursor::new(bytes)).unwrap();
    for i in 0..zip.len() {
        let mut file = zip.by_index(i).unwrap();
        let mut bytes = Vec::new();
        file.read_to_end(&mut bytes).unwrap();
        assert_ne!(bytes, PIXELS, "a photo of her outing");
        let text = String::from_utf8_lossy(&bytes).into_owned();
        handed.push((format!("everything.zip: {i}"), text));
    }
    for what in ["all", "hulls", "gear", "rigs", "log"] {
        let told = std::process::Command::new(env!("CARGO_BIN_EXE_galvet"))
            .args(["export", "--what", what, "--format", "json", "--data"])
            .arg(desk.store.directory())
            .output()
            .unwrap();
        let text = String::from_utf8(told.stdout).unwrap();
        assert!(text.contains("galvet"), "{what}: {text}");
        handed.push((format!("export --what {what}"), text));
    }
    for (from, text) in handed {
        // A note is the hull's own.
        let text = text.replace("Øyra Quillback says it slaps", "");
        for name in SPELLINGS
            .into_iter()
            .chain(["Mereth Oskwin", "mereth@outer.example", "of-her"])
        {
            assert!(!text.contains(name), "{name} in {from}");
        }
    }
}
