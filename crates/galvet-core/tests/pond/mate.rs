//! Somebody seated beside the angler.

use super::{boats, of};
use galvet_core::crew::{Companion, Kin};
use galvet_core::figures::Setup;
use galvet_core::pond::{Angler, At, Boat, Mode, Push, Roll, TICK};
use galvet_core::question::Practice;
use std::f64::consts::TAU;
use std::sync::Arc;

const FEATHER: Angler = Angler {
    mass: 1e-6,
    stature: 1.7,
    seat: 0.1,
};

fn heeled(heel: f64) -> At {
    At {
        heel,
        legs: heel,
        trunk: heel,
        mate: [heel, 0.0, 0.0],
        ..At::default()
    }
}

fn run(roll: &mut Roll<'_>, seconds: f64) -> Vec<At> {
    let ticks = (seconds / TICK).round() as u32;
    let push = |t: f64| Push {
        moment: 30.0 * (1.3 * t).sin(),
        slope: 0.03 * (3.0 * t).sin(),
        ..Push::default()
    };
    let tick = |k: u32| {
        roll.tick(TICK * f64::from(k), &push);
        roll.now
    };
    (0..ticks).map(tick).collect()
}

#[test]
fn one_who_weighs_nothing_changes_nothing() {
    let alone = &boats()[0];
    let mut both = alone.clone();
    both.mate = Some(FEATHER);
    for (mode, sways) in [
        (Mode::Up, false),
        (Mode::Seated, false),
        (Mode::Up, true),
        (Mode::Seated, true),
    ] {
        let roll = |boat| {
            let roll = Roll::new(boat, of(Practice::Skilled), mode, heeled(0.02));
            if sways { roll.swaying() } else { roll }
        };
        let (mut one, mut other) = (roll(alone), roll(&both));
        for (a, b) in run(&mut one, 6.0).iter().zip(run(&mut other, 6.0)) {
            assert!(
                (a.heel - b.heel).abs() < 1e-6,
                "{mode:?} {sways}: {} {}",
                a.heel,
                b.heel
            );
            assert!((a.trunk - b.trunk).abs() < 1e-6);
        }
    }
}

#[test]
fn held_stiff_two_swing_with_their_closed_form() {
    let mut boat = boats()[0].clone();
    (boat.wets, boat.runs_in) = (2.0, 2.0);
    let mate = Angler {
        mass: 40.0,
        stature: 1.5,
        seat: 0.1,
    };
    boat.mate = Some(mate);
    let low = boat.angler.at(boat.angler.hips()[0]);
    let beside = mate.at(mate.hips()[0]);
    let k = boat.stiffness[0] - low.whole() - beside.whole();
    let j = boat.inertia + boat.added + low.stiff() + beside.stiff();
    let start = heeled(0.01);
    let mut roll = Roll::new(&boat, of(Practice::Some), Mode::Stiff, start).rigid(0.0);
    let mut rises = Vec::new();
    let mut before = start.heel;
    for n in 0..4_000 {
        roll.tick(TICK * f64::from(n), &|_| Push::default());
        let now = roll.now.heel;
        if before <= 0.0 && now > 0.0 {
            rises.push(TICK * (f64::from(n) - before / (now - before)));
        }
        before = now;
    }
    let period = (rises[rises.len() - 1] - rises[0]) / (rises.len() - 1) as f64;
    let closed = TAU * (j / k).sqrt();
    assert!((period / closed - 1.0).abs() < 0.005, "{period} {closed}");
}

#[test]
fn a_second_person_sits_upright_in_a_rolling_boat_and_weighs_what_they_do() {
    let rows = crate::common::prototype::table();
    let row = &rows[0];
    let alone = Boat::of(&super::setup(row), &row.shape).unwrap();
    let mut brief = row.brief.clone();
    brief.others = vec![Companion::new(Kin::Adult, 60.0, 1.7).unwrap()];
    let setup = Setup::new(crate::common::posterior(&row.survey, 1), Arc::new(brief));
    let both = Boat::of(&setup, &row.shape).unwrap();
    let mate = both.mate.unwrap();
    // Dressed and wet, as the angler is.
    assert!((mate.mass - 69.0).abs() < 1e-9, "{}", mate.mass);
    assert!((both.displaced - alone.displaced - 69.0).abs() < 1e-6);
    // Lying as the kit does, that weight would only be higher: with the weight at the floor the
    // arms are the better, and what the trunk pulls over stands in its own equation.
    let start = At {
        mate: [0.2, 0.0, 0.0],
        ..At::default()
    };
    let mut roll = Roll::new(&both, of(Practice::Some), Mode::Seated, start);
    for k in 0..800 {
        roll.tick(TICK * f64::from(k), &|_| Push::default());
        assert!(roll.now.is_finite());
    }
    assert!(roll.now.mate[0].abs() < 0.02, "{:?}", roll.now.mate);
    assert!(roll.now.heel.abs() < 0.02);
}
