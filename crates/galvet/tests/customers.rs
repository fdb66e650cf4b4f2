//! Customers: found, kept under their name, taken along, forgotten.

use crate::desk::{Desk, text_of};
use galvet_core::hull::{Felt, Trial};
use galvet_store::files::customer::CustomerEntry;
use galvet_store::files::outing::OutingEntry;
use galvet_store::files::photo::{Photo, Picture};
use galvet_store::files::sheet::Document;
use galvet_store::files::stock::BookingEntry;
use galvet_store::{Kind, Record, Store};
use rocket::http::Status;
use std::io::Read;

/// A name no other word has in it, with a letter that keys and addresses write otherwise.
const NAME: &str = "Øyra Quillback";
const SPELLINGS: [&str; 5] = [
    "Øyra Quillback",
    "øyra quillback",
    "oyra-quillback",
    "oyra quillback",
    "%C3%98yra+Quillback",
];

/// Of a photo taken on her outing.
const PIXELS: &[u8] = b"pixels of a made-up picture 7311";

fn hull(store: &Store, change: impl FnOnce(&mut galvet_store::files::hulls::HullRecord)) {
    store
        .edit::<galvet_store::StoreError>("page", "changed", (Kind::Hull, "quarnel-pipkin"), |r| {
            if let Record::Hull(hull) = r {
                change(hull);
            }
            Ok(())
        })
        .unwrap();
}

fn sheet<S: galvet_store::files::sheet::Sheet>(store: &Store, one: &S) {
    store
        .write("page", &format!("{} put in", one.name()), |door| {
            door.put(&Record::Sheet(Document::of(one)), None)
        })
        .unwrap();
}

/// A shop in which one customer has left traces everywhere they can.
fn traced() -> Desk {
    let desk = Desk::demo();
    let store = &desk.store;
    // A question, by the page; the customer is on record by it.
    let saved = "name=In+the+reeds&customer=%C3%98yra+Quillback";
    assert_eq!(desk.post("/questions?mass=71+kg", saved), Status::SeeOther);
    assert_eq!(
        desk.post(
            "/questions?mass=72+kg",
            "name=Thrown&customer=%C3%B8yra+quillback"
        ),
        Status::SeeOther
    );
    let all = store.catalogue().unwrap();
    let keys: Vec<String> = all
        .briefs
        .iter()
        .filter(|b| b.customer.to_lowercase() == NAME.to_lowercase())
        .map(|b| b.key.clone())
        .collect();
    assert_eq!(keys.len(), 2);
    desk.post(&format!("/questions/{}/throw-away", keys[1]), "");
    // A test paddle with a note, and a note of somebody else that names them.
    hull(store, |hull| {
        hull.survey.looked.trials.push(Trial {
            who: NAME.to_owned(),
            date: "2026-05-01".to_owned(),
            stood: true,
            felt: Felt::Steady,
            note: "sore left knee".to_owned(),
        });
    });
    hull(store, |hull| {
        hull.survey.notes = "Øyra Quillback says it slaps".to_owned()
    });
    // An outing, a booking, a rig, a page handed out, a kept page.
    let mut outing = store.sheets::<OutingEntry>().unwrap().remove(0);
    outing.key = "hers".to_owned();
    outing.who = NAME.to_owned();
    sheet(store, &outing);
    // A photo taken on it, and one of another day she took.
    let mut photo = store.sheets::<Photo>().unwrap().remove(0);
    photo.who = NAME.to_owned();
    photo.key = "by-her".to_owned();
    sheet(store, &photo);
    let pixels = Picture {
        jpeg: PIXELS.to_vec(),
        width: 4,
        height: 3,
    };
    photo.picture = store.keep_picture(&pixels).unwrap();
    photo.key = "of-her".to_owned();
    photo.outing = "hers".to_owned();
    sheet(store, &photo);
    sheet(
        store,
        &BookingEntry {
            key: "booked".to_owned(),
            name: "Drumlee Orvane, 2026-12-07 10:00".to_owned(),
            hull: "drumlee-orvane".to_owned(),
            who: NAME.to_owned(),
            from: "2026-12-07T10:00".to_owned(),
            hours: 2,
            note: String::new(),
        },
    );
    let rigs = desk.post(
        "/rigs",
        "name=%C3%98yra+Quillback+light&from=light-and-quick",
    );
    assert_eq!(rigs, Status::SeeOther);
    let shared = format!("page=/summary%3Fbrief%3D{}&of_customer=true", keys[0]);
    assert_eq!(desk.post("/shared", &shared), Status::SeeOther);
    let rig = store
        .catalogue()
        .unwrap()
        .rigs
        .iter()
        .find(|r| r.name.contains("Quillback"))
        .unwrap()
        .key
        .clone();
    let path = "/customers/oyra-quillback";
    assert_eq!(
        desk.post(path, &format!("action=rig&rig={rig}")),
        Status::SeeOther
    );
    let page = format!(
        "action=page&called=Quote&page=/hulls/quarnel-pipkin/papers/quote%3Fbrief%3D{}",
        keys[0]
    );
    assert_eq!(desk.post(path, &page), Status::SeeOther);
    desk
}

/// Whether a name in any of its spellings stands in the database's files: looked for here,
/// byte by byte.
fn stands(store: &Store) -> Vec<&'static str> {
    let mut bytes = Vec::new();
    for file in ["galvet.db", "galvet.db-wal"] {
        let path = store.directory().join(file);
        if path.exists() {
            std::fs::File::open(path)
                .unwrap()
                .read_to_end(&mut bytes)
                .unwrap();
        }
    }
    let low = bytes.to_ascii_lowercase();
    let there = |name: &&str| {
        let name = name.to_ascii_lowercase();
        low.windows(name.len()).any(|w| w == name.as_bytes())
    };
    SPELLINGS.into_iter().filter(there).collect()
}

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
fn who_is_forgotten_is_in_no_byte_of_the_file() {
    let desk = traced();
    assert!(stands(&desk.store).len() >= 3, "{:?}", stands(&desk.store));
    let before = desk.store.catalogue().unwrap();
    let state = desk.store.state().unwrap();
    // Looking at what would go changes nothing.
    let page = desk.page("/customers/oyra-quillback/forget");
    for told in [
        "2 questions",
        "1 outing",
        "1 booking",
        "1 rig",
        "1 photo",
        "1 customer",
        "hull “Quarnel Pipkin”",
        "backups kept elsewhere",
    ] {
        assert!(page.contains(told), "{told}: {}", text_of(&page, "main"));
    }
    assert_eq!(desk.store.state().unwrap(), state);
    let page = desk
        .send(
            "/customers/oyra-quillback/forget",
            rocket::http::ContentType::Form,
            "notes=true",
        )
        .into_string()
        .unwrap();
    assert!(page.contains("byte by byte"), "{}", text_of(&page, "main"));
    assert_eq!(stands(&desk.store), Vec::<&str>::new());
    // The photo of her outing is gone, pixels and all; the one she took is nobody's now.
    let file = std::fs::read(desk.store.directory().join("galvet.db")).unwrap();
    assert!(!file.windows(PIXELS.len()).any(|bytes| bytes == PIXELS));
    let photos = desk.store.sheets::<Photo>().unwrap();
    assert!(photos.iter().all(|photo| photo.key != "of-her"));
    let by_her = photos.iter().find(|photo| photo.key == "by-her").unwrap();
    assert_eq!(by_her.who, "somebody");
    assert!(desk.store.picture(&by_her.picture).unwrap().is_some());
    // What stays stays as it was, but for the name.
    let after = desk.store.catalogue().unwrap();
    let trials = &after
        .hulls
        .iter()
        .find(|h| h.survey.key == "quarnel-pipkin")
        .unwrap()
        .survey;
    let hers = trials
        .looked
        .trials
        .iter()
        .find(|t| t.date == "2026-05-01")
        .unwrap();
    assert_eq!(
        (hers.who.as_str(), hers.note.as_str(), hers.felt, hers.stood),
        ("somebody", "", Felt::Steady, true)
    );
    assert_eq!(trials.notes, "somebody says it slaps");
    assert_eq!(after.hulls.len(), before.hulls.len());
    assert_eq!(after.rigs.len(), before.rigs.len() - 1);
    assert_eq!(after.briefs.len(), before.briefs.len() - 1);
    assert_eq!(
        after.sheets_of::<CustomerEntry>().count(),
        before.sheets_of::<CustomerEntry>().count() - 1
    );
    // The history of the others is whole, and readable.
    let (known, _) = desk
        .store
        .record(Kind::Hull, "quarnel-pipkin")
        .unwrap()
        .unwrap();
    let history = desk
        .store
        .history(Kind::Hull, known.id, (50, None))
        .unwrap();
    assert_eq!(history.len() as i64, known.revision);
    let checked = galvet_store::check(desk.store.directory()).unwrap();
    assert_eq!(checked.problems, Vec::<String>::new());
    // The pages go on, also the one that was told about them.
    desk.page("/hulls/quarnel-pipkin/record");
    desk.page("/lately");
    assert_eq!(
        desk.ask("/customers/oyra-quillback").status(),
        Status::NotFound
    );
    assert_eq!(
        desk.ask("/customers/oyra-quillback/forget").status(),
        Status::NotFound
    );
    // Somebody of that name may come again, under another number.
    assert_eq!(
        desk.post("/new-customer", "name=%C3%98yra+Quillback&since=2026-12-01"),
        Status::SeeOther
    );
}

#[test]
fn who_was_called_otherwise_once_is_forgotten_under_that_name_too() {
    let desk = traced();
    let path = "/customers/oyra-quillback";
    let call = |name: &str| desk.post(path, &format!("action=keep&name={name}&since=2026-01-01"));
    // Mistyped once, which is somebody else's name now; then as it is.
    assert_eq!(call("Tove+Lind"), Status::SeeOther);
    assert_eq!(call("%C3%98yra+Sund"), Status::SeeOther);
    assert_eq!(
        desk.post("/new-customer", "name=Tove+Lind&since=2026-01-01"),
        Status::SeeOther
    );
    let saved = "name=Another&customer=Tove+Lind";
    assert_eq!(desk.post("/questions?mass=72+kg", saved), Status::SeeOther);
    let page = text_of(&desk.page(&format!("{path}/forget")), "main");
    // The one that was thrown away before has the name it had then.
    assert!(
        page.contains("2 questions") && page.contains("“Øyra Quillback”"),
        "{page}"
    );
    assert!(!page.contains("Tove"), "{page}");
    let answer = desk.send(
        &format!("{path}/forget"),
        rocket::http::ContentType::Form,
        "notes=true",
    );
    let page = answer.into_string().unwrap();
    assert!(page.contains("byte by byte"), "{}", text_of(&page, "main"));
    assert_eq!(stands(&desk.store), Vec::<&str>::new());
    let left = desk.store.catalogue().unwrap();
    assert!(
        left.briefs.iter().any(|b| b.customer == "Tove Lind"),
        "not theirs"
    );
}

#[test]
fn what_is_not_gone_through_is_told() {
    let desk = traced();
    let page = desk
        .send(
            "/customers/oyra-quillback/forget",
            rocket::http::ContentType::Form,
            "notes=false",
        )
        .into_string()
        .unwrap();
    assert!(page.contains("still stands"), "{}", text_of(&page, "main"));
    assert!(!stands(&desk.store).is_empty());
}

#[test]
fn a_rig_others_use_stays_and_is_told() {
    let desk = traced();
    let rig = desk
        .store
        .catalogue()
        .unwrap()
        .rigs
        .iter()
        .find(|r| r.name.contains("Quillback"))
        .unwrap()
        .key
        .clone();
    let saved = format!("/questions?rig={rig}");
    assert_eq!(desk.post(&saved, "name=Somebody+elses"), Status::SeeOther);
    let page = desk.page("/customers/oyra-quillback/forget");
    assert!(
        text_of(&page, "main").contains("others still use it"),
        "{}",
        text_of(&page, "main")
    );
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

#[test]
fn nothing_is_let_go_unless_somebody_says_so() {
    let desk = traced();
    let count = || desk.store.sheets::<CustomerEntry>().unwrap().len();
    let page = desk.page("/retention");
    assert!(!page.contains("would go now"));
    assert_eq!(
        desk.post(
            "/retention",
            "customers=&questions=&outings=&bookings=&action=go"
        ),
        Status::SeeOther
    );
    assert_eq!(count(), 4);
    for wrong in ["0", "-1", "241", "soon", "1.5"] {
        assert_eq!(
            desk.post("/retention", &format!("customers={wrong}")),
            Status::UnprocessableEntity,
            "{wrong}"
        );
    }
    assert_eq!(
        desk.post("/retention", "customers=12&questions=6"),
        Status::SeeOther
    );
    assert_eq!(
        desk.post("/retention", "customers=12&questions=6&action=go"),
        Status::SeeOther
    );
    assert_eq!(count(), 4, "nothing is a month old");
    // What a form did not ask stays.
    assert_eq!(desk.post("/retention", "outings=24"), Status::SeeOther);
    let page = desk.page("/retention");
    for kept in ["value=\"12\"", "value=\"6\"", "value=\"24\""] {
        assert!(page.contains(kept), "{kept}");
    }
}
