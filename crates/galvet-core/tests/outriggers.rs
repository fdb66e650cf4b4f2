//! Floats on arms: closed forms, and what must hold of any of them.
#![allow(clippy::unwrap_used, reason = "tests")]

use crate::common;
use crate::on_water::{sit_inside, windy};

use approx::assert_relative_eq;
use common::{FRESH, assess, box_body, brief, rig, weight};
use galvet_core::aboard::stays_up_swamped;
use galvet_core::base::Lanes;
use galvet_core::body::AddedFloats;
use galvet_core::figures::{Afloat, Quantity};
use galvet_core::float::{Accuracy, Start, arm, metacentric_height, settle};
use galvet_core::handling::braked;
use galvet_core::hull::{Fitting, FittingKind, Source, Survey};

/// A pair of cylinders of 1 m and 0.3 m across beside a box, their axes at a height.
fn pair(z: f64, y: f64) -> AddedFloats<1> {
    AddedFloats {
        along: [1.5, 2.5],
        y,
        radius: 0.15,
        z: Lanes::splat(z),
    }
}

#[test]
fn floats_half_in_add_their_waterplane_by_the_parallel_axis() {
    let mut body = box_body(4.0, 0.8, 0.4);
    let (y, draft) = (1.0, 0.1);
    // Box and both half cylinders under water.
    let half = 0.5 * std::f64::consts::PI * 0.15 * 0.15;
    let volume = 4.0 * 0.8 * draft + 2.0 * half;
    let load = weight(FRESH * volume, 2.0, 0.0, 0.3);
    body.floats = vec![pair(draft, y)];
    let upright = settle(
        &body,
        &body.sealed,
        &load,
        FRESH,
        0.0,
        Start::LEVEL,
        Accuracy::FINE,
    );
    assert_relative_eq!(upright.attitude.draft.0[0], draft, epsilon = 1e-6);
    // BM: the box's own b³L/12, and of each float 0.3 × 1 at its distance and of itself.
    let inertia = 4.0 * 0.8f64.powi(3) / 12.0 + 2.0 * (0.3 * y * y + 0.3f64.powi(3) / 12.0);
    // KB: the box's half draft, each half disc 4r/3π below the water.
    let kb = (4.0 * 0.8 * draft * 0.5 * draft
        + 2.0 * half * (draft - 4.0 * 0.15 / (3.0 * std::f64::consts::PI)))
        / volume;
    let gm = metacentric_height(&upright.immersion, &load).0[0];
    assert_relative_eq!(gm, kb + inertia / volume - 0.3, epsilon = 1e-6);
}

#[test]
fn a_float_fully_under_rights_by_its_volume_times_its_arm() {
    // Clear at rest: no part in GM. At a heel that drowns one float, its lift acts at its
    // own distance; the box alone floats on so much less.
    let mut body = box_body(4.0, 0.8, 0.5);
    let load = weight(FRESH * 0.32, 2.0, 0.0, 0.3);
    let bare = settle(
        &body,
        &body.sealed,
        &load,
        FRESH,
        0.0,
        Start::LEVEL,
        Accuracy::FINE,
    );
    let without = metacentric_height(&bare.immersion, &load).0[0];
    body.floats = vec![AddedFloats {
        radius: 0.05,
        ..pair(0.30, 1.0)
    }];
    let with = settle(
        &body,
        &body.sealed,
        &load,
        FRESH,
        0.0,
        Start::LEVEL,
        Accuracy::FINE,
    );
    assert_relative_eq!(
        metacentric_height(&with.immersion, &load).0[0],
        without,
        epsilon = 1e-12
    );
    let heel = 20f64.to_radians();
    let at = |body: &galvet_core::body::Body<1>| {
        let s = settle(
            body,
            &body.sealed,
            &load,
            FRESH,
            heel,
            bare.as_start(),
            Accuracy::FINE,
        );
        (arm(&s.attitude, &s.immersion, &load).0[0], s)
    };
    let (righting, settled) = at(&body);
    let (sin, cos) = heel.sin_cos();
    let down = 0.30 * cos - sin;
    assert!(settled.attitude.draft.0[0] - down > 0.05, "one is under");
    let volume = std::f64::consts::PI * 0.05 * 0.05;
    let eta = 0.30 * sin + cos;
    // The box on what is left, at the same heel.
    let mut box_alone = body.clone();
    box_alone.floats.clear();
    let lifted = weight(FRESH * (0.32 - volume), 2.0, 0.0, 0.3);
    let rest = settle(
        &box_alone,
        &box_alone.sealed,
        &lifted,
        FRESH,
        heel,
        bare.as_start(),
        Accuracy::FINE,
    );
    let eta_box = arm(&rest.attitude, &rest.immersion, &lifted).0[0] + 0.3 * sin;
    let together = ((0.32 - volume) * eta_box + volume * eta) / 0.32 - 0.3 * sin;
    assert_relative_eq!(righting, together, epsilon = 1e-6);
}

pub(crate) fn outriggers(x: f64, clear: f64) -> Fitting {
    Fitting {
        name: "outriggers".into(),
        kind: FittingKind::Outriggers {
            length: 0.75,
            diameter: 0.20,
            reach: 0.75,
            clear,
        },
        x,
        y: 0.0,
        z: None,
        mount: String::new(),
        source: Source::Tape,
    }
}

#[test]
fn floats_never_tip_and_lower_ones_answer_sooner() {
    let asked = brief(85.0, 1.80, rig(15.0, 0.6, 0.1));
    let figure = |hull: &Survey, q| assess(hull, &asked, 32).median(q).unwrap_or(0.0);
    let bare = common::one_of_many("narrow", [3.6, 0.72], &[]);
    let with = |clear| {
        let mut hull = bare.clone();
        hull.fitout.fittings.push(outriggers(2.2, clear));
        hull
    };
    let lean = [bare.clone(), with(0.10), with(0.03)].map(|h| figure(&h, Quantity::LeanRoom));
    assert!(lean[0] < lean[1] && lean[1] <= lean[2] + 1e-9, "{lean:?}");
    let gm = [bare.clone(), with(0.03)].map(|h| figure(&h, Quantity::Gm));
    assert_relative_eq!(gm[0], gm[1], epsilon = 1e-9);
    // It is told what they hang on, wherever the hull is praised.
    let said = assess(&with(0.03), &asked, 16);
    let told = said.remarks().iter().any(|r| r.contains("231 N"));
    assert!(told, "{:?}", said.remarks());
}

#[test]
fn floats_stay_as_they_were_set_while_the_day_goes_on() {
    let mut asked = brief(85.0, 1.80, rig(15.0, 0.6, 0.1));
    // Fish that come aboard in the course of the day.
    asked.rig.lines[0].loaded_mass = 30.0;
    let mut hull = common::one_of_many("narrow", [3.6, 0.72], &[]);
    hull.fitout.fittings.push(outriggers(2.2, 0.03));
    let a = assess(&hull, &asked, 8);
    let shapes = [a.middle];
    let height = |setup: &galvet_core::figures::Setup| {
        Afloat::new(setup, &shapes, Accuracy::FINE).body.floats[0]
            .z
            .0[0]
    };
    for hour in [
        galvet_core::stow::Hour::Launch,
        galvet_core::stow::Hour::Midday,
    ] {
        assert_eq!(height(&a.setup), height(&a.setup.at(hour)), "{hour:?}");
    }
}

#[test]
fn floats_in_the_water_brake_as_their_wetted_section_says_and_clear_ones_do_not() {
    let asked = windy();
    let with = |clear: f64| {
        let mut hull = common::one_of_many("braked", [3.7, 0.86], &[]);
        hull.fitout.fittings.push(outriggers(2.2, clear));
        assess(&hull, &asked, 8)
    };
    let [free, clear] = braked(&with(0.03)).unwrap();
    assert_eq!(free, clear);
    let [free, wet] = braked(&with(-0.10)).unwrap();
    assert!(wet < free - 0.01, "{free} {wet}");
    assert_eq!(
        braked(&assess(
            &common::one_of_many("bare", [3.7, 0.86], &[]),
            &asked,
            8
        )),
        None
    );
}

#[test]
fn floats_against_the_hull_and_walls_nobody_saw_count_for_nothing() {
    let asked = brief(85.0, 1.80, rig(15.0, 0.6, 0.1));
    let bare = common::one_of_many("narrow", [3.6, 0.72], &[]);
    let mut against = bare.clone();
    against.fitout.fittings.push(Fitting {
        kind: FittingKind::Outriggers {
            length: 1.5,
            diameter: 0.4,
            reach: 0.40,
            clear: -0.1,
        },
        ..outriggers(2.0, 0.0)
    });
    let lean = |hull: &Survey| assess(hull, &asked, 16).median(Quantity::LeanRoom);
    assert_eq!(lean(&against), lean(&bare));
    let said = assess(&against, &asked, 16);
    assert!(
        said.remarks()
            .iter()
            .any(|r| r.contains("count for nothing"))
    );
    // A wall that is guessed keeps no water out.
    let mut guessed = sit_inside(&[1.5, 2.55]);
    for wall in &mut guessed.fitout.fittings {
        wall.source = Source::Guess;
    }
    let asked = brief(80.0, 1.78, rig(10.0, 0.55, 0.1));
    assert_eq!(stays_up_swamped(&assess(&guessed, &asked, 16)), 0.0);
}
