//! What is asked beside floating well: exact at its boundary, and told by how much.
#![allow(clippy::unwrap_used, reason = "tests")]

use crate::common;
use crate::stow_hull;

use common::{assess, brief, ranking, rig as line_rig};
use galvet_core::base::System;
use galvet_core::crew::{Companion, Kin, Posture};
use galvet_core::figures::Quantity;
use galvet_core::gear::{Fixing, Strain};
use galvet_core::guide::Guides;
use galvet_core::hull::{FittingKind, Judgement, Measure, Propulsion, Reading, Source, ZoneKind};
use galvet_core::question::{
    Brief, Drilling, Drive, Felt, Fishing, Joints, Known, Launch, Practice,
};
use galvet_core::rank::{Code, minds, support_needed};
use stow_hull::{fitting, gear, hull, line, rig, zone};

fn codes(survey: &galvet_core::hull::Survey, asked: &Brief) -> Vec<(Code, f64)> {
    let judged = ranking(std::slice::from_ref(survey), asked, 16);
    let out = judged.ruled_out.first();
    out.map_or(Vec::new(), |o| {
        o.reasons.iter().map(|r| (r.code, r.by)).collect()
    })
}

#[test]
fn who_is_new_to_standing_needs_more_under_the_feet() {
    let guides = Guides::default();
    let of = |practice| {
        let mut asked = brief(77.0, 1.80, line_rig(5.0, 0.6, 0.1));
        asked.wishes.practice = practice;
        asked
    };
    let needed = |p| support_needed(&of(p), &guides);
    assert_eq!(
        [Practice::Skilled, Practice::Some, Practice::New].map(needed),
        [0.6, 0.8, 1.0]
    );
    let survey = hull(vec![], vec![]);
    let mut asked = brief(77.0, 1.80, line_rig(5.0, 0.6, 0.1));
    asked.posture = Posture::Stands;
    let support = assess(&survey, &asked, 16)
        .median(Quantity::StandingSupport)
        .unwrap();
    for practice in [Practice::Skilled, Practice::Some, Practice::New] {
        asked.wishes.practice = practice;
        let short = needed(practice) - support;
        let found = codes(&survey, &asked)
            .into_iter()
            .find(|c| c.0 == Code::StaySeated);
        match found {
            Some((_, by)) => assert!((by - short).abs() < 1e-9 && short > 0.0),
            None => assert!(short <= 0.0, "{practice:?}: {support}"),
        }
    }
}

#[test]
fn what_drives_her_must_be_what_is_asked() {
    let mut survey = hull(vec![], vec![]);
    let mut asked = brief(77.0, 1.80, line_rig(5.0, 0.6, 0.1));
    let every = [
        (Propulsion::Paddle, Drive::Paddle),
        (Propulsion::RotaryPedal, Drive::Pedal),
        (Propulsion::FinPedal, Drive::Pedal),
        (Propulsion::Motor, Drive::Motor),
    ];
    for (driven, suits) in every {
        survey.propulsion = driven;
        for drive in [Drive::Any, Drive::Paddle, Drive::Pedal, Drive::Motor] {
            asked.wishes.drive = drive;
            let out = codes(&survey, &asked)
                .iter()
                .any(|c| c.0 == Code::NotDriven);
            assert_eq!(
                out,
                drive != Drive::Any && drive != suits,
                "{driven:?} {drive:?}"
            );
        }
    }
}

#[test]
fn a_hull_the_rig_needs_holes_in_is_out_by_their_number_where_none_may_be() {
    let deck = zone("stern deck", ZoneKind::SternDeck, [3.2, 3.6, 0.4]);
    let survey = hull(vec![deck], vec![]);
    let mut motor = gear("motor", 4.0, [0.3, 0.2, 0.3]);
    motor.fixings = vec![Fixing::Drill];
    motor.zones = vec![ZoneKind::SternDeck];
    motor.holes = 4;
    motor.strain = Strain::Anchor;
    let mut asked = brief(77.0, 1.80, rig(vec![line(&motor)]));
    assert!(
        codes(&survey, &asked)
            .iter()
            .all(|c| c.0 != Code::NeedsHoles)
    );
    asked.wishes.drilling = Drilling::None;
    assert!(codes(&survey, &asked).contains(&(Code::NeedsHoles, 4.0)));
}

#[test]
fn what_a_buyer_must_mind_is_named() {
    let track = FittingKind::Track {
        length: 0.5,
        slot: None,
    };
    let mut survey = hull(vec![], vec![fitting("track", track, 1.5, -0.35)]);
    let mut sounder = gear("sounder", 1.5, [0.15, 0.15, 0.30]);
    sounder.fixings = vec![Fixing::Track];
    let mut asked = brief(77.0, 1.80, rig(vec![line(&sounder)]));
    let told = |survey: &_, asked: &Brief| minds(&assess(survey, asked, 16), asked, System::Metric);
    assert!(told(&survey, &asked).is_empty());
    asked.wishes.fishing = Fishing::Fly;
    assert!(told(&survey, &asked)[0].ends_with("stripped: 1"));
    asked.wishes.fishing = Fishing::Trolling;
    assert_eq!(told(&survey, &asked).is_empty(), survey.tracks_straight);
    asked.wishes.fishing = Fishing::Casting;
    asked.wishes.joints = Joints::Complain;
    // A seat 0.10 m high under knees of 0.285 × 1.80 m: a fifth.
    assert!(told(&survey, &asked)[0].contains("from the floor"));
    survey.looked.judged.insert(Judgement::Backrest, "low");
    assert!(told(&survey, &asked)[1].contains("backrest is low"));
    asked.wishes.joints = Joints::Fine;
    survey.seats = 2;
    asked.others = vec![Companion::new(Kin::Adult, 60.0, 1.7).unwrap()];
    assert!(told(&survey, &asked)[0].contains("other seat"));
    asked.others.clear();
    asked.wishes.launch = Launch::Steps;
    let heavy = Reading::new(Measure::FittedWeight, 57.0, Source::Scale).unwrap();
    survey.readings.insert(Measure::FittedWeight, vec![heavy]);
    assert!(told(&survey, &asked)[0].contains("57\u{a0}kg fitted is more than two"));
}

#[test]
fn a_hull_one_knows_is_the_yardstick() {
    let guides = Guides::default();
    let mut asked = brief(77.0, 1.80, line_rig(5.0, 0.6, 0.1));
    let mut needs = |practice, felt, support| {
        asked.wishes.practice = practice;
        asked.known = Some(Known {
            hull: "mine".into(),
            felt,
            support,
        });
        support_needed(&asked, &guides)
    };
    // What one stood in will do, but never less than 0.6 for anybody.
    assert_eq!(needs(Practice::New, Felt::Steady, Some(0.85)), 0.85);
    assert_eq!(needs(Practice::New, Felt::Care, Some(0.5)), 0.6);
    assert_eq!(needs(Practice::Skilled, Felt::Steady, Some(0.9)), 0.6);
    // What one sat down in will not, nor what is hardly steadier.
    assert!((needs(Practice::Skilled, Felt::SatDown, Some(0.9)) - 0.95).abs() < 1e-12);
    assert_eq!(needs(Practice::New, Felt::SatDown, Some(0.5)), 1.0);
    // One that is not on the list says nothing.
    assert_eq!(needs(Practice::Some, Felt::SatDown, None), 0.8);
    // Its own support is found among the hulls judged, and it is out by the step.
    let mut survey = hull(vec![], vec![]);
    survey.key = "mine".into();
    let mut asked = brief(77.0, 1.80, line_rig(5.0, 0.6, 0.1));
    asked.posture = Posture::Stands;
    asked.known = Some(Known {
        hull: "mine".into(),
        felt: Felt::SatDown,
        support: None,
    });
    let support = assess(&survey, &asked, 16)
        .median(Quantity::StandingSupport)
        .unwrap();
    let found = codes(&survey, &asked);
    let (_, by) = found.iter().find(|c| c.0 == Code::StaySeated).unwrap();
    let step = (0.6 - support).max(0.05);
    assert!((by - step).abs() < 1e-9, "{by} {step}");
}
