//! Whole or refused, on pages: what cannot be done says why, with what would help, and
//! never with an error of the inside.
#![allow(clippy::unwrap_used, reason = "tests")]

use crate::desk;

use desk::Desk;
use galvet::demo_data;
use galvet_store::{Kind, Record, SavedBrief, StoreError};
use rocket::http::{ContentType, Method, Status};

const FORM: ContentType = ContentType::Form;

#[test]
fn every_table_that_goes_out_is_guarded_against_spreadsheets() {
    let mut all = demo_data::catalogue().unwrap();
    all.hulls[0].survey.maker = String::new();
    all.hulls[0].survey.model = "=HYPERLINK(1)".into();
    all.hulls[0].survey.notes = "+cmd".into();
    all.gear[0].name = "@SUM(1)".into();
    let desk = Desk::with(&all);
    let tables = desk
        .client
        .rocket()
        .routes()
        .filter(|route| route.method == Method::Get && route.uri.path().ends_with(".csv"));
    let key = &all.hulls[1].survey.key;
    let paths: Vec<String> = tables
        .map(|r| r.uri.path().replace("<slug>", key))
        .collect();
    assert!(paths.len() >= 3, "{paths:?}");
    let mut seen = 0;
    for path in paths {
        let text = desk.page(&path);
        let mut reader = csv::ReaderBuilder::new()
            .has_headers(false)
            .flexible(true)
            .from_reader(text.as_bytes());
        for row in reader.records() {
            for cell in &row.unwrap() {
                seen += usize::from(cell.contains("HYPERLINK") || cell.contains("SUM("));
                let number = cell.parse::<f64>().is_ok();
                let runs = cell.starts_with(['=', '+', '-', '@', '\t']);
                assert!(number || !runs, "{path}: {cell}");
            }
        }
    }
    assert!(seen >= 3, "{seen}");
}

#[test]
fn an_installation_without_waters_says_so_wherever_a_question_is_asked() {
    let mut all = demo_data::catalogue().unwrap();
    (all.waters, all.briefs) = (Vec::new(), Vec::new());
    let desk = Desk::with(&all);
    let hull = &all.hulls[0].survey.key;
    let mut said = 0;
    for path in [
        "/".to_owned(),
        "/ask".into(),
        "/hulls".into(),
        "/flip".into(),
        "/ranking.json".into(),
        "/new-hull".into(),
        format!("/hulls/{hull}"),
        format!("/hulls/{hull}/stow"),
        format!("/hulls/{hull}/changes"),
        format!("/hulls/{hull}/afloat"),
        "/kit".into(),
        "/waters".into(),
        format!("/rigs/{}", all.rigs[0].key),
    ] {
        let answer = desk.ask(&path);
        let status = answer.status();
        let page = answer.into_string().unwrap_or_default();
        let told = status == Status::Conflict && page.contains("There is no water to ask about");
        assert!(told || status == Status::Ok, "{path}: {status}");
        said += usize::from(told);
    }
    assert!(said >= 8, "{said}");
}

#[test]
fn the_trash_says_what_a_record_needs_and_gives_both() {
    let desk = Desk::demo();
    let all = desk.store.catalogue().unwrap();
    let rig = all.rigs.iter().find(|rig| {
        let names = |b: &SavedBrief| b.names("rig") == Some(&rig.key);
        all.briefs.iter().any(names)
    });
    let rig = rig.unwrap();
    let named = |b: &&SavedBrief| b.names("rig") == Some(&rig.key);
    let saved: Vec<_> = all.briefs.iter().filter(named).collect();
    for brief in &saved {
        let path = format!("/questions/{}/throw-away", brief.key);
        assert_eq!(desk.post(&path, ""), Status::SeeOther);
    }
    let path = format!("/rigs/{}", rig.key);
    assert_eq!(desk.post(&path, "action=throw-away"), Status::SeeOther);
    let page = desk.page("/trash");
    assert!(
        page.contains(&format!("it needs “{}”, which lies here too", rig.name)),
        "{page}"
    );
    let trash = desk.store.trash().unwrap();
    let one = trash.iter().find(|t| t.kind == Kind::Brief).unwrap();
    let form = format!("kind=question&id={}&back=/trash", one.known.id);
    assert_eq!(desk.post("/trash", &form), Status::SeeOther);
    assert!(desk.store.record(Kind::Rig, &rig.key).unwrap().is_some());
    // The other questions may be taken out alone now.
    assert!(!desk.page("/trash").contains("it needs"));
}

#[test]
fn what_another_changed_meanwhile_is_not_deleted_without_a_word() {
    let desk = Desk::demo();
    let all = desk.store.catalogue().unwrap();
    let key = all.hulls[0].survey.key.clone();
    let page = desk.page(&format!("/hulls/{key}/record"));
    let seen = page.split("name=\"seen\" value=\"").nth(1).unwrap();
    let seen = seen.split('"').next().unwrap().to_owned();
    let edit = desk
        .store
        .edit::<StoreError>("Ben", "noted", (Kind::Hull, &key), |record| {
            if let Record::Hull(hull) = record {
                hull.survey.notes.push_str(" and more");
            }
            Ok(())
        });
    edit.unwrap();
    let path = format!("/hulls/{key}/throw-away");
    let answer = desk.send(&path, FORM, &format!("seen={seen}"));
    assert_eq!(answer.status(), Status::Conflict);
    let told = answer.into_string().unwrap();
    assert!(
        told.contains("Ben changed it since this page was opened"),
        "{told}"
    );
    assert!(desk.store.record(Kind::Hull, &key).unwrap().is_some());
    // A thing a rig holds, a rig a question asks with: told where it was asked.
    let held = all
        .rigs
        .iter()
        .flat_map(|r| &r.lines)
        .find_map(|l| l.gear.clone());
    let answer = desk.send(&format!("/kit/{}", held.unwrap()), FORM, "action=forget");
    assert_eq!(answer.status(), Status::UnprocessableEntity);
    assert!(answer.into_string().unwrap().contains("rigs still use it"));
}

#[test]
fn a_name_that_is_none_is_told_and_nothing_is_kept() {
    let desk = Desk::demo();
    let before = desk.store.state().unwrap();
    for name in ["", "++", "a%07b", "a%0Ab", "%E2%80%AEtxt"] {
        for (path, form) in [
            ("/rigs", format!("name={name}")),
            (
                "/new-thing",
                format!("action=keep&name={name}&dry=1&kind=other"),
            ),
            ("/new-water", format!("action=keep&name={name}")),
            ("/questions", format!("name={name}")),
            (
                "/new-hull",
                format!("hull-model={name}&hull-length=3.4&hull-beam=80"),
            ),
        ] {
            let answer = desk.send(path, FORM, &form);
            assert_eq!(
                answer.status(),
                Status::UnprocessableEntity,
                "{path} {name}"
            );
            let page = answer.into_string().unwrap();
            let name = page.contains("give it a name") || page.contains("control characters");
            assert!(name, "{path} {form}");
        }
    }
    assert_eq!(desk.store.state().unwrap(), before);
}
