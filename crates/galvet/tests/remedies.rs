//! Remedies on the stow board: every one offered on the demo's hulls, taken at a tap,
//! gives the thing its place.
#![allow(clippy::unwrap_used, reason = "tests")]

use crate::desk;

use desk::Desk;
use rocket::http::{ContentType, Status};

/// What a board says finds no place, each with its reason.
fn left(page: &str) -> Vec<String> {
    let Some(after) = page.split("Finds no place").nth(1) else {
        return Vec::new();
    };
    let list = after.split("</section>").next().unwrap();
    let things = list.split("</strong> ").skip(1);
    things
        .map(|text| text.split(';').next().unwrap().to_owned())
        .collect()
}

/// What a board offers: line and word of each remedy, and its button.
fn offers(page: &str) -> Vec<(String, String)> {
    let value = |text: &str| text.split('"').next().unwrap().to_owned();
    let forms = page.split("/remedy").skip(1);
    forms
        .map(|form| {
            let mut values = form.split("value=\"").skip(1).map(value);
            (values.next().unwrap(), values.next().unwrap())
        })
        .collect()
}

#[test]
fn every_remedy_of_the_demo_gives_the_thing_its_place() {
    let (mut rigs_made, mut changes_planned) = (0, 0);
    for rig in ["creek-by-motor", "sound-trolling"] {
        let desk = Desk::demo();
        let hulls = desk.store.catalogue().unwrap().hulls;
        for hull in hulls {
            let key = &hull.survey.key;
            let query = format!("rig={rig}");
            let board = format!("/hulls/{key}/stow?{query}");
            if desk.ask(&board).status() != Status::Ok {
                continue;
            }
            // The cheapest of the first thing.
            let Some((line, word)) = offers(&desk.page(&board)).into_iter().next() else {
                continue;
            };
            let before = left(&desk.page(&board));
            let answer = desk.send(
                &format!("/hulls/{key}/remedy?{query}"),
                ContentType::Form,
                &format!("line={line}&remedy={word}"),
            );
            assert_eq!(answer.status(), Status::SeeOther, "{key} {word}");
            let to = answer.headers().get_one("Location").unwrap().to_owned();
            let named = before[0].split(": ").next().unwrap().to_owned();
            if to.contains("/changes") {
                changes_planned += 1;
                let kept = desk.store.catalogue().unwrap().hulls;
                let kept = kept.iter().find(|h| h.survey.key == *key).unwrap();
                let made = kept.survey.fitout.modifications.last().unwrap();
                assert!(made.note.contains("worked out"), "{key}: {}", made.note);
                // Planned: nothing of the answer moved.
                assert_eq!(left(&desk.page(&board)), before, "{key}");
                // The page that shows what it moves has it.
                assert!(desk.page(&to).contains(&made.name), "{key}: {}", made.name);
            } else {
                rigs_made += 1;
                let new = to.split("rig=").nth(1).unwrap().split('&').next().unwrap();
                let after = left(&desk.page(&format!("/hulls/{key}/stow?rig={new}")));
                let still = after.iter().any(|text| text.starts_with(&named));
                assert!(!still, "{key} {word}: {named} is left still");
                assert!(after.len() < before.len(), "{key} {word}");
                let page = desk.page(&to);
                assert!(page.contains("What the changes moved"), "{key} {word}");
            }
        }
    }
    assert!(
        rigs_made > 8 && changes_planned > 3,
        "{rigs_made} {changes_planned}"
    );
}

#[test]
fn a_remedy_taken_twice_makes_one_rig_and_can_be_undone() {
    let desk = Desk::demo();
    let board = "/hulls/osprith-kelda/stow?rig=sound-trolling";
    let (line, word) = offers(&desk.page(board)).remove(0);
    let take = || {
        let answer = desk.send(
            "/hulls/osprith-kelda/remedy?rig=sound-trolling",
            ContentType::Form,
            &format!("line={line}&remedy={word}"),
        );
        answer.headers().get_one("Location").unwrap().to_owned()
    };
    let before = desk.store.catalogue().unwrap().rigs.len();
    // What was put by hand stays put.
    let pinned = "thing=small-crate&nth=0&place=tank+well&x=2.25+m&y=0&action=pin";
    let stow = "/hulls/osprith-kelda/stow?rig=sound-trolling";
    assert_eq!(desk.post(stow, pinned), Status::SeeOther);
    let to = take();
    assert_eq!(to, take());
    let hulls = desk.store.catalogue().unwrap().hulls;
    let hull = hulls
        .iter()
        .find(|h| h.survey.key == "osprith-kelda")
        .unwrap();
    let laid = &hull.survey.looked.laid;
    let key = to.split("rig=").nth(1).unwrap().split('&').next().unwrap();
    assert_eq!(laid.get(key), laid.get("sound-trolling"));
    assert_eq!(laid[key].len(), 1);
    let rigs = desk.store.catalogue().unwrap().rigs;
    assert_eq!(rigs.len(), before + 1);
    // The rig it came from is as it was.
    let old = rigs.iter().find(|r| r.key == "sound-trolling").unwrap();
    assert!(old.lines.iter().any(|l| l.item.contains("0.9 m")));
    desk.undo();
    assert_eq!(desk.store.catalogue().unwrap().rigs.len(), before);
}

#[test]
fn a_word_that_is_no_remedy_changes_nothing() {
    let desk = Desk::demo();
    for body in [
        "line=0&remedy=ashore-99",
        "line=x&remedy=",
        "remedy=bring-gaff",
        "",
    ] {
        let before = desk.store.state().unwrap();
        let answer = desk.send(
            "/hulls/osprith-kelda/remedy?rig=sound-trolling",
            ContentType::Form,
            body,
        );
        // Back to the board, which says what helps now.
        assert_eq!(answer.status(), Status::SeeOther, "{body}");
        assert_eq!(desk.store.state().unwrap(), before, "{body}");
    }
    let nobody = desk.post("/hulls/no-such-hull/remedy", "line=0&remedy=x");
    assert_eq!(nobody, Status::NotFound);
}
