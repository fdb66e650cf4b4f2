//! Shares over possible shapes: as wide as what is not known.

use crate::common::{brief, posterior, rig, survey};
use galvet_core::figures::{Afloat, Quantity, Setup};
use galvet_core::float::Accuracy;
use galvet_core::hull::{BottomShape, Construction, Measure};
use galvet_core::pond::{Boat, Exercise, Setting, numbers, tries};
use galvet_core::question::Practice;
use std::sync::Arc;

/// A hull known by its leaflet.
fn leaflet(length: f64, beam: f64, weight: f64, bottom: BottomShape) -> Setup {
    let survey = survey(
        Construction::SitOnTop,
        bottom,
        &[
            (Measure::Length, length),
            (Measure::Beam, beam),
            (Measure::FittedWeight, weight),
        ],
    );
    Setup::new(
        posterior(&survey, 64),
        Arc::new(brief(80.0, 1.78, rig(15.0, 0.6, 0.1))),
    )
}

#[test]
fn hulls_people_stand_in_pass_with_some_practice_and_narrow_ones_do_not() {
    let many = |setup: &Setup, boat: &Boat, exercise: Exercise, practice| {
        let done = exercise.done(true, setup.guides());
        let setting = Setting::of(&setup.brief, practice, done.sea, setup.guides());
        tries(std::slice::from_ref(boat), &setting, &done, 100).upright()
    };
    for (length, beam, weight) in [(3.2, 0.92, 38.0), (3.7, 0.96, 46.0), (4.2, 1.04, 58.0)] {
        for bottom in [BottomShape::Tunnel, BottomShape::Flat] {
            let setup = leaflet(length, beam, weight, bottom);
            for exercise in [Exercise::Casts, Exercise::Turn] {
                let middle = Boat::of(&setup, &setup.posterior.middle()).unwrap();
                let upright = many(&setup, &middle, exercise, Practice::Some);
                assert!(upright > 0.85, "{beam} {bottom:?} {exercise:?}: {upright}");
            }
        }
    }
    for (beam, bottom) in [
        (0.76, BottomShape::ShallowArch),
        (0.72, BottomShape::ShallowVee),
    ] {
        let setup = leaflet(4.0, beam, 30.0, bottom);
        let told = numbers(&setup, Exercise::Casts, true, Practice::Some);
        assert!(
            told.upright.found < 0.1 && told.upright.least < 0.05,
            "{beam}: {told:?}"
        );
    }
}

#[test]
fn what_is_not_known_widens_and_what_does_not_rest_counts_as_lost() {
    let setup = leaflet(3.3, 0.84, 30.0, BottomShape::Tunnel);
    let told = numbers(&setup, Exercise::Casts, true, Practice::Some);
    let share = told.upright;
    assert_eq!(told.count, 200);
    assert!(
        share.least <= share.found && share.found <= share.most,
        "{share:?}"
    );
    assert!(
        share.most - share.least > 0.1,
        "nobody measured it: {share:?}"
    );
    assert!(told.over.found + share.found <= 1.0 + 1e-12);
    // Waves: never more than both ends say.
    let wake = numbers(&setup, Exercise::Wake, true, Practice::Some);
    assert!(wake.in_waves && wake.upright.most - wake.upright.least > 0.1);
    // An angler so heavy that nothing floats: nobody is told to stand.
    let heavy = survey(
        Construction::SitOnTop,
        BottomShape::Tunnel,
        &[
            (Measure::Length, 2.0),
            (Measure::Beam, 0.6),
            (Measure::FittedWeight, 15.0),
        ],
    );
    let heavy = Setup::new(
        posterior(&heavy, 16),
        Arc::new(brief(180.0, 1.9, rig(60.0, 0.6, 0.1))),
    );
    let told = numbers(&heavy, Exercise::Casts, true, Practice::Skilled);
    assert!(
        told.upright.found < 0.01 && told.upright.least < 0.01,
        "{told:?}"
    );
}

/// Hulls of a leaflet over the classes people look at, in their middle shape: what the figures
/// say of each, and the tries.
#[test]
fn tries_agree_with_support_and_lean_room() {
    let mut told = Vec::new();
    for length in [2.9, 3.3, 3.7, 4.1] {
        for (k, beam) in [0.70, 0.76, 0.82, 0.88, 0.94, 1.00].into_iter().enumerate() {
            let bottom = [BottomShape::ShallowArch, BottomShape::Tunnel][k % 2];
            let setup = leaflet(length, beam, 15.0 * length * beam, bottom);
            let shape = setup.posterior.middle();
            let Some(boat) = Boat::of(&setup, &shape) else {
                continue;
            };
            let share = |exercise: Exercise, stands, practice| {
                let done = exercise.done(stands, setup.guides());
                let setting = Setting::of(&setup.brief, practice, done.sea, setup.guides());
                tries(std::slice::from_ref(&boat), &setting, &done, 100)
            };
            let stands = [Practice::New, Practice::Some, Practice::Skilled]
                .map(|p| share(Exercise::Casts, true, p).upright());
            let land = share(Exercise::Landing, false, Practice::Some);
            let shapes = [shape];
            let afloat = Afloat::new(&setup, &shapes, Accuracy::FINE);
            let figures = &afloat.figures()[0].0;
            let lean = figures.get(Quantity::LeanRoom).unwrap_or(-0.05);
            told.push((boat.support(), lean, stands, land.reached(), land.over()));
        }
    }
    assert!(told.len() > 20);
    for (kappa, lean, [new, some, skilled], reached, over) in told {
        // Sure to fail below, and to pass above: half get through between.
        for (share, fails, passes) in [(new, 0.90, 1.30), (some, 0.68, 0.92), (skilled, 0.45, 0.60)]
        {
            assert!(kappa > fails || share < 0.05, "{kappa}: {share}");
            assert!(kappa < passes || share > 0.70, "{kappa}: {share}");
        }
        assert!(lean > 0.055 || reached < 0.05, "{lean}: {reached}");
        assert!(lean < 0.115 || reached > 0.95, "{lean}: {reached}");
        assert_eq!(over, 0.0, "nobody reaches until it goes over");
    }
}
