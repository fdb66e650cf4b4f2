//! The pond over HTTP: what is played is what the core plays, every exercise of every hull is
//! answered, what is hostile is refused.
#![allow(clippy::unwrap_used, reason = "tests")]

use crate::desk::{Desk, text_of};

use galvet_core::base::Keyed;
use galvet_core::pond::Exercise;
use galvet_store::Catalogue;
use rocket::http::Status;
use scraper::{Html, Selector};
use serde_json::Value;

const ASKED: &str = "mass=88+kg&stature=1.83+m&posture=stands&rig=reed-edge-day&water=marsh";

fn course(desk: &Desk, rest: &str) -> Value {
    let text = desk.page(&format!("/pond/course.json?{ASKED}&{rest}"));
    serde_json::from_str(&text).unwrap()
}

fn heels(told: &Value) -> Vec<i64> {
    let heels = told["main"]["moving"]["heel"].as_array().unwrap();
    heels.iter().map(|h| h.as_i64().unwrap()).collect()
}

fn most(told: &Value) -> i64 {
    heels(told).iter().map(|h| h.abs()).max().unwrap()
}

#[test]
fn every_exercise_is_answered_first_and_told_in_stills() {
    let desk = Desk::demo();
    for exercise in Exercise::ALL {
        for on in ["feet", "seat"] {
            let page = desk.page(&format!(
                "/pond?{ASKED}&hull=osprith-kelda&do={}&on={on}",
                exercise.key()
            ));
            let lead = text_of(&page, ".pond-lead strong");
            assert!(lead.len() > 10, "{exercise:?} {on}: {lead}");
            if exercise.in_waves() {
                assert!(
                    lead.starts_with("Worse than flat water"),
                    "{exercise:?}: {lead}"
                );
            }
            let story = text_of(&page, "[data-pond-story]");
            assert!(
                story.contains("Greatest heel") && story.contains("Why:"),
                "{story}"
            );
            assert!(
                !page.contains("NaN") && !page.contains(">inf"),
                "{exercise:?}"
            );
            assert!(text_of(&page, ".caution").contains("A model, not a coach"));
            let stills = Html::parse_document(&page);
            let one = Selector::parse(".pond-strip svg > g").unwrap();
            assert!(stills.select(&one).count() >= 3, "{exercise:?} {on}");
        }
    }
}

#[test]
fn every_hull_of_the_demo_is_played_or_says_why_not() {
    let desk = Desk::demo();
    let catalogue = galvet::demo_data::catalogue().unwrap();
    for hull in &catalogue.hulls {
        let address = format!("/pond?{ASKED}&hull={}", hull.survey.key);
        let page = desk.page(&address);
        let lead = text_of(&page, ".pond-lead strong");
        let none = text_of(&page, ".nothing");
        assert!(
            !lead.is_empty() || none.contains("nothing to try"),
            "{address}"
        );
        let from = desk.ask(&format!("/hulls/{}/pond?{ASKED}", hull.survey.key));
        assert_eq!(from.status(), Status::SeeOther);
    }
}

#[test]
fn moves_of_ones_own_are_played_and_the_rest_of_a_course_is_the_whole_ones() {
    let desk = Desk::demo();
    let moves = "moves=1_stand*6_lean_1*8_lean_0*12_sit&up=false&sea=flat";
    let whole = course(&desk, &format!("hull=osprith-kelda&{moves}&until=16"));
    let rest = course(
        &desk,
        &format!("hull=osprith-kelda&{moves}&from=7&until=16"),
    );
    let (all, some) = (heels(&whole), heels(&rest));
    assert_eq!(all.len(), 801);
    assert_eq!(rest["main"]["moving"]["from"], 7.0);
    assert_eq!(all[350..], some[..]);
    // What is done later changes nothing before.
    let more = moves.replace("12_sit", "12_sit*14_dog_1");
    let more = course(&desk, &format!("hull=osprith-kelda&{more}&until=16"));
    assert_eq!(heels(&more)[..700], all[..700]);
    assert_ne!(heels(&more), all);
    // Who sits down of their own will is not told to have stood to the end.
    let told = course(
        &desk,
        "hull=osprith-kelda-two&moves=1_stand*8_sit&until=14&seed=2",
    );
    let story = told["story"][0].as_str().unwrap();
    assert_eq!(story, "Upright to the end.");
    // Leaning to starboard from the seat heels it there, to port there.
    for (side, sign) in [("1", 1), ("-1", -1)] {
        let moves = format!("moves=2_lean_{side}&up=false&sea=flat&until=5");
        let told = course(&desk, &format!("hull=osprith-kelda&{moves}"));
        let heel = sign * heels(&told)[250];
        assert!(heel > 100, "{side}: {heel}");
    }
}

#[test]
fn a_ghost_moves_alike_on_another_hull_and_risers_make_it_heel_more() {
    let desk = Desk::demo();
    let moves = "moves=2_dog_1&up=false&sea=flat&until=10";
    let told = course(&desk, &format!("hull=osprith-kelda&{moves}&beside=raised"));
    let ghost = &told["ghost"]["drawn"];
    let raised = ghost["still"]["seat"].as_i64().unwrap();
    let seat = told["main"]["still"]["seat"].as_i64().unwrap();
    assert_eq!(raised - seat, 100);
    let ghosts = ghost["moving"]["heel"].as_array().unwrap();
    let ghosts = ghosts
        .iter()
        .map(|h| h.as_i64().unwrap().abs())
        .max()
        .unwrap();
    assert!(ghosts > most(&told), "{ghosts} {}", most(&told));
    let told = course(
        &desk,
        &format!("hull=osprith-kelda&{moves}&beside=pellune-rusko"),
    );
    assert!(told["ghost"]["name"].as_str().unwrap().contains("Rusko"));
    // Two of its possible shapes beside it, the tenderer first.
    let faint = told["faint"].as_array().unwrap();
    assert_eq!(faint.len(), 2);
}

#[test]
fn what_is_hostile_is_refused_and_nothing_is_lost() {
    let desk = Desk::demo();
    let refused = |rest: &str| {
        let answer = desk.ask(&format!(
            "/pond/course.json?{ASKED}&hull=osprith-kelda&{rest}"
        ));
        answer.status()
    };
    for odd in [
        "moves=fly",
        "moves=1_fly",
        "moves=NaN_stand",
        "moves=1_lean_9",
        "moves=500_stand",
        "sea=lava",
        "mass=a+lot",
    ] {
        assert_eq!(refused(odd), Status::UnprocessableEntity, "{odd}");
    }
    assert_eq!(
        refused(&format!("moves={}", "1_cast*".repeat(500))),
        Status::UnprocessableEntity
    );
    // Times out of range are brought into it.
    for (odd, frames) in [
        ("until=1e300", 6_001),
        ("until=-5", 1),
        ("until=NaN", 1_201),
        ("from=inf&until=2", 101),
    ] {
        let told = course(
            &desk,
            &format!("hull=osprith-kelda&moves=&up=false&sea=flat&{odd}"),
        );
        assert_eq!(heels(&told).len(), frames, "{odd}");
    }
    assert_eq!(desk.ask("/pond?hull=nobody").status(), Status::NotFound);
    assert_eq!(
        desk.ask("/pond?hull=osprith-kelda&do=fly&seed=x&on=head")
            .status(),
        Status::Ok
    );
    assert_eq!(
        desk.ask("/pond?hull=osprith-kelda&mass=a+lot").status(),
        Status::UnprocessableEntity
    );
    assert_eq!(desk.ask("/hulls/nobody/pond").status(), Status::NotFound);
    // Without a hull it leads to where it is said how to begin.
    let empty = Desk::with(&Catalogue::default());
    assert_eq!(empty.ask("/pond").status(), Status::SeeOther);
}

#[test]
fn a_course_goes_out_as_a_table_and_as_a_drawing() {
    let desk = Desk::demo();
    let with = format!("{ASKED}&hull=osprith-kelda&do=casts&seed=3");
    let table = desk.page(&format!("/pond/trace.csv?{with}"));
    let mut lines = csv::Reader::from_reader(table.as_bytes());
    assert_eq!(lines.headers().unwrap().get(1), Some("heel_deg"));
    let told: Value =
        serde_json::from_str(&desk.page(&format!("/pond/course.json?{with}"))).unwrap();
    let heels = heels(&told);
    let mut count = 0;
    for (line, heel) in lines.records().zip(&heels) {
        let line = line.unwrap();
        let written: f64 = line[1].parse().unwrap();
        assert!(
            (100.0 * written - *heel as f64).abs() < 1.01,
            "{written} {heel}"
        );
        count += 1;
    }
    assert_eq!(count, heels.len());
    let strip = desk.page(&format!("/pond/strip.svg?{with}"));
    let groups = strip.matches("<g ").count();
    assert_eq!(groups, strip.matches("</g>").count());
    assert!(strip.contains("viewBox") && !strip.contains("var("));
    assert!(groups >= 8, "{groups}");
    let help = desk.page(&format!("/pond/help?{with}"));
    assert!(text_of(&help, ".pond-helps").contains("more practice"));
}
