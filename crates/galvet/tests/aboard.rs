//! Who comes along, what is weighed in, and the shelf as a table: in the browser's
//! place.
#![allow(clippy::unwrap_used, reason = "tests")]

use crate::desk;

use desk::Desk;
use galvet_store::{Kind, Record};
use rocket::http::{ContentType, Status};
use serde_json::Value;

fn answer(desk: &Desk, question: &str) -> Value {
    serde_json::from_str(&desk.page(&format!("/ranking.json?{question}"))).unwrap()
}

fn codes(answer: &Value, hull: &str) -> Vec<String> {
    let out = answer["ruled_out"].as_array().unwrap();
    let out = out.iter().filter(|o| o["hull"] == hull);
    let reasons = out.flat_map(|o| o["reasons"].as_array().unwrap().clone());
    reasons
        .map(|r| r["code"].as_str().unwrap().to_owned())
        .collect()
}

fn mass(answer: &Value, hull: &str) -> f64 {
    let all = ["ranked", "ruled_out"].into_iter();
    let mut all = all.flat_map(|list| answer[list].as_array().unwrap());
    let hull = all.find(|h| h["hull"] == hull).unwrap();
    hull["load"]["seated"]["mass_kg"].as_f64().unwrap()
}

#[test]
fn who_comes_along_is_asked_floated_and_kept() {
    let desk = Desk::demo();
    let alone = answer(&desk, "posture=sits");
    let child = answer(&desk, "posture=sits&with=child+28+kg");
    assert!(codes(&child, "fennick-dunmarrow").contains(&"no-seat".to_owned()));
    assert!(!codes(&alone, "fennick-dunmarrow").contains(&"no-seat".to_owned()));
    assert!(!codes(&child, "osprith-kelda-two").contains(&"no-seat".to_owned()));
    // 28 kg in clothes that count wet with 9 kg.
    let more = mass(&child, "osprith-kelda-two") - mass(&alone, "osprith-kelda-two");
    assert!((more - 37.0).abs() < 1e-6, "{more}");
    assert_eq!(child["brief"]["crew"]["others"], "child 28 kg 1.25 m");
    let dog = answer(&desk, "posture=sits&with=dog+20+kg");
    let more = mass(&dog, "osprith-kelda-two") - mass(&alone, "osprith-kelda-two");
    assert!((more - 20.0).abs() < 1e-6, "{more}");
    // Kept with a question, and the rig of the catalogue is none the heavier.
    desk.post(
        "/questions?posture=sits&with=dog+20+kg",
        "name=With+the+dog",
    );
    let again = answer(&desk, "brief=with-the-dog");
    assert_eq!(
        mass(&again, "osprith-kelda-two"),
        mass(&dog, "osprith-kelda-two")
    );
    let page = desk.page("/?brief=with-the-dog");
    assert!(page.contains("with a dog of 20\u{a0}kg") && page.contains("A dog moves"));
    let nonsense = desk.ask("/?with=a+goat");
    assert_eq!(nonsense.status(), Status::UnprocessableEntity);
    assert!(
        nonsense
            .into_string()
            .unwrap()
            .contains("“a goat” is not understood")
    );
}

#[test]
fn each_person_wears_an_aid_or_it_is_said_in_red() {
    let desk = Desk::demo();
    let board = |question: &str| desk.page(&format!("/hulls/osprith-kelda-two/stow?{question}"));
    assert!(board("with=child+28+kg").contains("2 people and 1 flotation aid worn"));
    assert!(!board("with=alone").contains("flotation aid worn:"));
}

#[test]
fn a_thing_is_weighed_in_on_the_scale_that_swings() {
    let desk = Desk::throw_away();
    let thing = || match desk.store.record(Kind::Gear, "open-crate").unwrap() {
        Some((_, Record::Gear(gear))) => gear,
        _ => unreachable!(),
    };
    let before = thing();
    let status = desk.post("/kit/open-crate/weigh", "what=dry");
    assert_eq!(status, Status::SeeOther);
    let after = thing();
    // To the scale's last digit, 50 g; it says so.
    assert!((after.dry_mass - before.dry_mass).abs() < 0.1);
    assert!(after.note.contains("by the simulated scale, steady after"));
    // Weighed again, its own note gives way and no other.
    desk.post("/kit/open-crate/weigh", "what=dry");
    assert_eq!(thing().note.matches("by the simulated scale").count(), 1);
    assert!(thing().note.starts_with(&before.note));
    assert!(
        (after.loaded_mass - after.dry_mass - before.loaded_mass + before.dry_mass).abs() < 1e-9
    );
    let status = desk.post("/kit/no-such-thing/weigh", "what=dry");
    assert_eq!(status, Status::NotFound);
}

#[test]
fn the_shelf_goes_out_as_a_table_and_comes_back_changed() {
    let desk = Desk::demo();
    let table = desk.page("/kit.csv");
    assert_eq!(table.lines().count(), 102);
    let import = |text: &str, action: &str| {
        let body = format!(
            "--B\r\nContent-Disposition: form-data; name=\"text\"\r\n\r\n{text}\r\n--B\r\n\
             Content-Disposition: form-data; name=\"action\"\r\n\r\n{action}\r\n--B--\r\n"
        );
        let kind = ContentType::new("multipart", "form-data").with_params(("boundary", "B"));
        let answer = desk.send("/import", kind, &body);
        answer.into_string().unwrap_or_default()
    };
    // As it went out: nothing changes.
    let before = desk.store.catalogue().unwrap().gear;
    import(&table, "keep");
    assert_eq!(desk.store.catalogue().unwrap().gear, before);
    // One weight changed in a spreadsheet, one thing new.
    let changed = table.replacen("open crate", "open crate blue", 1);
    let line = changed
        .lines()
        .find(|l| l.starts_with("open-crate,"))
        .unwrap();
    assert!(line.contains("blue"), "{line}");
    let page = import(&changed, "look");
    assert!(
        page.contains("those here already are brought up to date"),
        "{page}"
    );
    import(&changed, "keep");
    let gear = desk.store.catalogue().unwrap().gear;
    let named = gear.iter().find(|g| g.key == "open-crate").unwrap();
    assert!(named.name.contains("blue"));
    assert_eq!(gear.len(), before.len());
}
