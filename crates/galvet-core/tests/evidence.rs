//! Measurements afloat: they narrow, they move, they contradict.

#![allow(clippy::unwrap_used, reason = "tests")]

use crate::common;

use common::{assess, brief, ranking, rig, survey};
use galvet_core::advise::measure_next::{for_hull, for_shortlist};
use galvet_core::crew::SeatHeight;
use galvet_core::figures::Quantity;
use galvet_core::guide::Guides;
use galvet_core::hull::{
    Aboard, BottomShape, Construction, Datum, Evidence, FloatReading, Measure, Reading, Source,
    Survey,
};
use galvet_core::plausible::{Target, effective_size};
use galvet_core::rank::Scales;

const ABOARD: Aboard = Aboard {
    mass: 106.0,
    place: 0.54,
    height: 0.3,
};

fn scales() -> Scales {
    Scales::of(&Guides::default())
}

fn hull() -> Survey {
    survey(
        Construction::SitOnTop,
        BottomShape::Tunnel,
        &[
            (Measure::Length, 3.7),
            (Measure::Beam, 0.88),
            (Measure::FittedWeight, 45.0),
            (Measure::SeatLow, 0.15),
        ],
    )
}

fn float_test(height: f64) -> Evidence {
    Evidence::fresh(
        ABOARD,
        FloatReading::Heights {
            datum: Datum::Floor,
            heights: vec![(0.3, height - 0.001), (0.45, height), (0.6, height + 0.001)],
        },
    )
}

fn width(survey: &Survey, quantity: Quantity) -> (f64, f64) {
    let brief = brief(80.0, 1.8, rig(20.0, 0.58, 0.1));
    // Many shapes: the width of a range is read off its few outermost ones.
    let a = assess(survey, &brief, 512);
    let r = a.range(quantity).unwrap();
    (r.p50, r.p95 - r.p5)
}

#[test]
fn a_float_test_narrows_and_moves_the_floor() {
    let blank = hull();
    let (usual, wide) = width(&blank, Quantity::FloorAboveWater);
    for (height, higher) in [(0.012, false), (0.06, true)] {
        let mut tested = hull();
        tested.evidence.push(float_test(height));
        let (median, narrow) = width(&tested, Quantity::FloorAboveWater);
        assert!(narrow < 0.4 * wide, "{narrow} {wide}");
        assert_eq!(median > usual, higher, "{median} {usual}");
        // The same load but for a few kilograms: near what the tape said.
        assert!((median - height).abs() < 0.012, "{median} {height}");
    }
}

#[test]
fn an_unlikely_floor_is_reached_by_moving_the_sample() {
    let mut tested = hull();
    // Two and a half sd above the guess: hardly a shape of the first sample.
    tested.evidence.push(float_test(0.085));
    let brief = brief(80.0, 1.8, rig(20.0, 0.58, 0.1));
    let a = assess(&tested, &brief, 128);
    assert!(effective_size(&a.setup.posterior.weights) > 25.0);
    let (median, _) = width(&tested, Quantity::FloorAboveWater);
    assert!((median - 0.085).abs() < 0.015, "{median}");
}

#[test]
fn waterline_and_tilt_tests_narrow_stability() {
    let (gm, wide) = width(&hull(), Quantity::Gm);
    let mut tested = hull();
    tested.evidence.push(Evidence::fresh(
        ABOARD,
        FloatReading::Tilt {
            gm: gm - 0.04,
            error: 0.01,
            shifts: Vec::new(),
        },
    ));
    let (after, narrow) = width(&tested, Quantity::Gm);
    assert!(narrow < 0.7 * wide, "{narrow} {wide}");
    assert!(after < gm, "{after} {gm}");
    // A tunnel's section is full whatever it is; an arch's is worth measuring.
    let mut arch = hull();
    arch.bottom = Some(BottomShape::ShallowArch);
    let mut tested = arch.clone();
    tested.evidence.push(Evidence::fresh(
        ABOARD,
        FloatReading::Waterline {
            length: 3.45,
            beam: 0.80,
        },
    ));
    assert!(width(&tested, Quantity::Gm).1 < 0.9 * width(&arch, Quantity::Gm).1);
    // What it speaks of is how the side leans out: prior sd 1.
    let brief = brief(80.0, 1.8, rig(20.0, 0.58, 0.1));
    let weighed = assess(&tested, &brief, 128).setup.posterior;
    let both = weighed.normals.iter().zip(&weighed.weights);
    let of = Target::WaterlineBeam.coordinate(SeatHeight::Low);
    let mean: f64 = both.clone().map(|(n, w)| w * n[of]).sum();
    let sd = both
        .map(|(n, w)| w * (n[of] - mean).powi(2))
        .sum::<f64>()
        .sqrt();
    assert!(sd < 0.75, "{sd}");
}

#[test]
fn contradictions_are_named() {
    let said = |evidence: Vec<Evidence>| {
        let mut tested = hull();
        tested.evidence = evidence;
        let brief = brief(80.0, 1.8, rig(20.0, 0.58, 0.1));
        let a = assess(&tested, &brief, 128);
        assert!(a.median(Quantity::Gm).unwrap().is_finite());
        a.setup.posterior.doubts.join("; ")
    };
    assert_eq!(said(vec![float_test(0.03)]), "");
    let impossible = said(vec![float_test(0.30)]);
    assert!(
        impossible.contains("the float test and the record"),
        "{impossible}"
    );
    let other = Evidence::fresh(
        ABOARD,
        FloatReading::Heights {
            datum: Datum::Floor,
            heights: vec![(0.45, 0.065)],
        },
    );
    let tilt = Evidence::fresh(
        ABOARD,
        FloatReading::Waterline {
            length: 3.5,
            beam: 0.82,
        },
    );
    let both = said(vec![float_test(0.01), other, tilt]);
    assert!(
        both.contains("the float test and the float test disagree"),
        "{both}"
    );
    assert!(!both.contains("waterline"), "{both}");
}

#[test]
fn the_floor_is_what_to_measure_when_the_floor_decides() {
    let brief = brief(88.0, 1.8, rig(24.0, 0.58, 0.1));
    let blank = hull();
    let a = assess(&blank, &brief, 128);
    let first = &for_hull(&a, &brief, &scales())[0];
    assert_eq!(first.target, Target::Floor);
    assert!(first.narrows > 0.4, "{first:?}");
    // Once measured it is not asked for again.
    let mut known = hull();
    let reading = Reading::new(Measure::FloorHeight, 0.14, Source::Tape);
    known
        .readings
        .insert(Measure::FloorHeight, vec![reading.unwrap()]);
    let a = assess(&known, &brief, 128);
    assert!(
        for_hull(&a, &brief, &scales())
            .iter()
            .all(|s| s.target != Target::Floor)
    );
}

#[test]
fn a_shortlist_too_close_to_call_is_told_how_to_settle_it() {
    let brief = brief(80.0, 1.8, rig(20.0, 0.58, 0.1));
    let mut twins = vec![hull(), hull()];
    for (i, twin) in twins.iter_mut().enumerate() {
        twin.key = format!("twin-{i}");
        twin.model = format!("twin {i}");
    }
    let answer = ranking(&twins, &brief, 128);
    let settles = for_shortlist(&answer).expect("twins are close");
    assert_eq!(settles.upper, 0);
    assert!(settles.then > settles.now + 0.05, "{settles:?}");
    assert!((0.5..=1.0).contains(&settles.now) && settles.then <= 1.0);
}
