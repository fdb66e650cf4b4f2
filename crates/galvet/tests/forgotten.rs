//! Customers forgotten: what goes, what stays, and what of it is told.

use crate::desk::text_of;
use crate::traced::{PIXELS, stands, traced};
use galvet_core::hull::Felt;
use galvet_store::Kind;
use galvet_store::files::customer::CustomerEntry;
use galvet_store::files::photo::Photo;
use rocket::http::Status;

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
