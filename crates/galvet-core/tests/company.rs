//! Who comes along: seats, room, load and what their moving leaves of a lean,
//! each by a hand calculation.

#![allow(clippy::unwrap_used, reason = "tests")]

use crate::common;
use crate::stow_hull;

use approx::assert_relative_eq;
use common::{brief, ranking, rig as line_rig};
use galvet_core::crew::{Companion, Company, Hand, Kin, Posture};
use galvet_core::figures::{Assessment, Quantity};
use galvet_core::guide::{Guide, Guides};
use galvet_core::hull::{FittingKind, Survey, ZoneKind};
use galvet_core::load::{Carriage, LoadKind};
use galvet_core::plausible::Posterior;
use galvet_core::question::Brief;
use galvet_core::rank::Code;
use std::sync::Arc;
use stow_hull::{LENGTH, fitting, gear, hull, laid_for, line, rig, zone};

fn who(kin: Kin, mass: f64) -> Companion {
    Companion::new(kin, mass, kin.usual_stature()).unwrap()
}

/// A two-seater: the angler's seat at 0.53 of 3.7 m, another measured at 0.95 m.
fn two_seater() -> Survey {
    let seat = FittingKind::Seat {
        low: Some(0.1),
        high: None,
        slide: 0.0,
    };
    let well = zone("tank well", ZoneKind::TankWell, [2.4, 3.2, 0.5]);
    let seats = vec![
        fitting("front seat", seat.clone(), 0.95, 0.0),
        fitting("rear seat", seat, 1.961, 0.0),
    ];
    let mut survey = hull(vec![well], seats);
    survey.seats = 2;
    survey
}

fn assess(survey: &Survey, brief: &Brief) -> Assessment {
    common::assess(survey, brief, 16)
}

fn with(mut asked: Brief, others: &[Companion]) -> Brief {
    let dogs = others.iter().filter(|c| !c.sits()).map(Companion::line);
    asked.rig.lines.extend(dogs);
    asked.others = others.to_vec();
    asked
}

#[test]
fn each_sits_where_there_is_a_seat() {
    let guides = Guides::default();
    let others = [who(Kin::Child, 28.0), who(Kin::Adult, 70.0)];
    let seated = Company::seat(&two_seater(), &others, LENGTH, &guides);
    // The seat that is not the angler's own, where it was measured; one short.
    assert_relative_eq!(seated.sat[0].x, 0.95, epsilon = 1e-9);
    assert!(!seated.sat[0].guessed);
    assert_eq!(seated.short, 1);
    // Nobody noted where it is: 1.1 m ahead of a seat at 0.53 × 3.7 m.
    let mut bare = hull(vec![], vec![]);
    bare.seats = 2;
    let seated = Company::seat(&bare, &others[..1], LENGTH, &guides);
    assert_relative_eq!(seated.sat[0].x, 0.53 * 3.7 - 1.1, epsilon = 1e-9);
    assert!(seated.sat[0].guessed && seated.short == 0);
}

#[test]
fn what_floats_is_what_sits_and_lies_in_her() {
    let survey = two_seater();
    let alone = brief(77.0, 1.80, line_rig(10.0, 0.6, 0.2));
    let child = Companion::new(Kin::Child, 27.0, 1.30).unwrap();
    let along = with(alone.clone(), &[child]);
    let (one, two) = (assess(&survey, &alone), assess(&survey, &along));
    let (a, b) = (one.floated(Carriage::Seated), two.floated(Carriage::Seated));
    // 27 kg and 9 kg of wet clothes, 0.95 m from the bow, 0.14 × 1.30 m over its seat.
    assert_relative_eq!(b[0] - a[0], 36.0, epsilon = 1e-9);
    let moment = |w: [f64; 4], n: usize| w[0] * w[n];
    let bow = two.setup.posterior.form.bow();
    assert_relative_eq!(
        moment(b, 1) - moment(a, 1),
        36.0 * (bow + 0.95),
        epsilon = 1e-6
    );
    let floor = one.middle.floor;
    // Over the low seat as guessed.
    let height = floor + one.middle.seats[0] + 0.14 * 1.30;
    assert_relative_eq!(moment(b, 3) - moment(a, 3), 36.0 * height, epsilon = 1e-6);
    // The label counts them with the crew.
    let crew = |of: &Assessment| of.setup.loads.counted(0.0)[0];
    assert_eq!(crew(&two).0, LoadKind::Crew);
    assert_relative_eq!(crew(&two).1 - crew(&one).1, 36.0, epsilon = 1e-9);
}

#[test]
fn what_others_may_lean_is_not_left_for_the_angler() {
    let survey = two_seater();
    let quiet = with(
        brief(77.0, 1.80, line_rig(10.0, 0.6, 0.2)),
        &[who(Kin::Child, 27.0)],
    );
    let now = assess(&survey, &quiet);
    // 36 kg × 0.12 m, over the angler's 86 kg: 5.02 cm of the lean.
    let mut still = Guides::default();
    still.set(Guide::ChildSway, 0.0).unwrap();
    let posterior = Posterior::of(Arc::new(survey.clone()), Arc::new(still), 16).unwrap();
    let without = Assessment::of(Arc::new(posterior), Arc::new(quiet));
    for figure in [Quantity::LeanRoom, Quantity::LastingLean] {
        let (less, more) = (now.median(figure).unwrap(), without.median(figure).unwrap());
        assert!(less > 0.0);
        assert_relative_eq!(more - less, 36.0 * 0.12 / 86.0, epsilon = 1e-9);
    }
    let heel = |of: &Assessment| of.median(Quantity::ReachHeel).unwrap();
    assert!(heel(&now) > heel(&without));
}

#[test]
fn a_person_without_a_seat_rules_out_and_a_dog_without_room_does() {
    let mut survey = hull(
        vec![zone("tank well", ZoneKind::TankWell, [2.4, 3.2, 0.5])],
        vec![],
    );
    let alone = brief(77.0, 1.80, rig(vec![]));
    let codes = |survey: &Survey, others: &[Companion]| {
        let asked = with(alone.clone(), others);
        let judged = ranking(std::slice::from_ref(survey), &asked, 16);
        let out = judged.ruled_out.first();
        out.map_or(Vec::new(), |o| {
            o.reasons.iter().map(|r| (r.code, r.by)).collect::<Vec<_>>()
        })
    };
    assert_eq!(
        codes(&survey, &[who(Kin::Adult, 60.0)])[0],
        (Code::NoSeat, 1.0)
    );
    // 20 kg of dog lie on 0.65 × 0.45 m of the well.
    assert!(codes(&survey, &[who(Kin::Dog, 20.0)]).is_empty());
    survey.fitout.zones[0].width = 0.40;
    let (code, by) = codes(&survey, &[who(Kin::Dog, 20.0)])[0];
    assert_eq!(code, Code::DoesNotFit);
    assert_relative_eq!(by, 0.05, epsilon = 1e-6);
}

#[test]
fn a_dog_weighs_with_the_crew_and_is_no_kit() {
    let survey = two_seater();
    let asked = with(
        brief(77.0, 1.80, line_rig(10.0, 0.6, 0.2)),
        &[who(Kin::Dog, 20.0)],
    );
    let counted = assess(&survey, &asked).setup.loads.counted(0.0);
    assert_relative_eq!(counted[0].1, 86.0 + 20.0, epsilon = 1e-9);
    assert_relative_eq!(counted[2].1, 10.0, epsilon = 1e-9);
}

#[test]
fn what_stands_up_goes_to_the_side_that_does_not_cast() {
    let track = || FittingKind::Track {
        length: 0.5,
        slot: None,
    };
    let survey = hull(
        vec![],
        vec![
            fitting("port", track(), 1.5, -0.35),
            fitting("starboard", track(), 1.5, 0.35),
        ],
    );
    let mut sounder = gear("sounder", 1.5, [0.15, 0.15, 0.30]);
    sounder.fixings = vec![galvet_core::gear::Fixing::Track];
    let rig = rig(vec![line(&sounder)]);
    let side = |hand: Hand| laid_for(&survey, &rig, Posture::Sits, hand).stowed[0].y;
    assert!(side(Hand::Right) < 0.0 && side(Hand::Left) > 0.0);
}
