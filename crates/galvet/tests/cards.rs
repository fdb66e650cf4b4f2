//! Changes made from a card, a figure in the wrong unit, the parts for whoever builds.
#![allow(clippy::unwrap_used, reason = "tests")]

use crate::desk;

use desk::Desk;
use rocket::http::{ContentType, Status};

#[test]
fn a_scupper_of_35_means_millimetres_and_is_asked_about() {
    let desk = Desk::demo();
    let path = "/hulls/fennick-dunmarrow/fittings?add=scupper";
    let form = "name=one+more&x=2+m&y=0&recess=cockpit&state=open&diameter=35";
    let refused = desk.send(path, ContentType::Form, form);
    assert_eq!(refused.status(), Status::UnprocessableEntity);
    let said = refused.into_string().unwrap();
    assert!(
        said.contains("scupper&#39;s hole must lie between"),
        "{said}"
    );
}

#[test]
fn a_change_is_made_from_a_card_and_told_against_how_it_stands() {
    let desk = Desk::demo();
    let path = "/hulls/fennick-dunmarrow/changes";
    assert!(desk.page(path).contains("card=track"));
    let blank = desk.page(&format!("{path}?card=track"));
    assert!(blank.contains("Save and see what it does"));
    let nowhere = desk.send(
        &format!("{path}?card=track"),
        ContentType::Form,
        "name=track",
    );
    assert_eq!(nowhere.status(), Status::UnprocessableEntity);
    let made = desk.send(
        &format!("{path}?card=track"),
        ContentType::Form,
        "name=bow+track&x=1.2+m&length=40+cm",
    );
    assert_eq!(made.status(), Status::SeeOther);
    let to = made.headers().get_one("Location").unwrap().to_owned();
    assert!(to.contains("change=bow"), "{to}");
    let page = desk.page(path);
    assert!(page.contains("<h3>with bow track</h3>"), "{page}");
    // The same name once more is refused, and nothing is lost.
    let twice = desk.send(
        &format!("{path}?card=track"),
        ContentType::Form,
        "name=bow+track&x=1.4+m",
    );
    assert_eq!(twice.status(), Status::UnprocessableEntity);
    assert!(
        twice
            .into_string()
            .unwrap()
            .contains("called “bow track” already")
    );
    assert_eq!(desk.undo(), Status::SeeOther);
    assert!(!desk.page(path).contains("<h3>with bow track</h3>"));
}

#[test]
fn the_parts_are_shown_by_a_demo_and_by_nothing_else() {
    let parts = Desk::throw_away().page("/parts");
    assert!(parts.contains("id=\"k-crate\"") && parts.contains("seated low"));
    assert_eq!(Desk::demo().ask("/parts").status(), Status::NotFound);
}
