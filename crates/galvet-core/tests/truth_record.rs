//! What a record says, leaves out or contradicts never turns into a figure
//! that is too good. As in `truth.rs`, named after what was found.

#![allow(clippy::unwrap_used, clippy::panic, reason = "tests")]

use crate::common;

use common::{asked, assess, guides, needle, posterior, ranking, survey};
use galvet_core::crew::Posture;
use galvet_core::figures::Quantity as Q;
use galvet_core::guide::{Guide, Guides};
use galvet_core::hull::{
    BottomShape, CapacityBasis, Construction, Measure, Origin, Propulsion, Survey,
};
use galvet_core::load::LoadKind;
use galvet_core::plausible::Posterior;
use std::sync::Arc;

/// A tunnel-bottomed sit-on-top of which that is known.
fn tunnel_with(known: &[(Measure, f64)]) -> Survey {
    survey(Construction::SitOnTop, BottomShape::Tunnel, known)
}

#[test]
fn hiding_a_weight_never_raises_a_margin() {
    let full = |known: &[Measure]| {
        let mut hull = tunnel_with(&[
            (Measure::Length, 3.7),
            (Measure::Beam, 0.9),
            (Measure::BareWeight, 38.0),
            (Measure::FittedWeight, 49.0),
            (Measure::RatedCapacity, 200.0),
        ]);
        hull.propulsion = Propulsion::RotaryPedal;
        hull.capacity_basis = CapacityBasis::EverythingAboveBareHull;
        hull.readings.retain(|m, _| {
            known.contains(m) || ![Measure::BareWeight, Measure::FittedWeight].contains(m)
        });
        let a = assess(&hull, &asked(77.0, Posture::Sits), 64);
        let kit = a.setup.loads.counted(a.middle.kit_mass)[1];
        assert_eq!(kit.0, LoadKind::FixedKit);
        (
            a.median(Q::LabelMargin).unwrap(),
            kit.1,
            a.range(Q::LabelMargin).unwrap(),
        )
    };
    let (both, kit, _) = full(&[Measure::BareWeight, Measure::FittedWeight]);
    // 200 rated less 86 angler in wet clothes, 10 rig and 11 of seat and drive.
    assert!((both - (200.0 - 86.0 - 10.0 - 11.0)).abs() < 0.5, "{both}");
    assert!((kit - 11.0).abs() < 0.5);
    for known in [
        &[Measure::BareWeight][..],
        &[Measure::FittedWeight][..],
        &[][..],
    ] {
        let (margin, kit, range) = full(known);
        // A drive and a seat.
        let guides = Guides::default();
        let guess = guides[Guide::DriveMass] + guides[Guide::SeatMass];
        assert!((kit - guess).abs() < 0.5, "{kit}: guessed, never nothing");
        assert!(margin <= both + 0.5, "{margin} {both}");
        assert!(range.p95 - range.p5 > 4.0, "a guess has a width: {range:?}");
    }
}

#[test]
fn hull_mass_and_counted_load_are_on_one_account() {
    let mut hull = tunnel_with(&[
        (Measure::Length, 3.7),
        (Measure::Beam, 0.9),
        (Measure::BareWeight, 38.0),
    ]);
    hull.propulsion = Propulsion::FinPedal;
    let p = posterior(&hull, 64);
    for shape in &p.shapes {
        // The same seat and drive in what floats and in what the label counts.
        assert!(
            (shape.hull_mass - shape.kit_mass - 38.0).abs() < 1.0,
            "{shape:?}"
        );
    }
}

#[test]
fn a_posterior_does_not_depend_on_the_question() {
    use galvet_core::hull::{Aboard, Datum, Evidence, FloatReading};
    let mut hull = common::tunnel(&[(Measure::RatedCapacity, 190.0)]);
    let aboard = Aboard {
        mass: 106.0,
        place: 0.54,
        height: 0.3,
    };
    let reading = FloatReading::Heights {
        datum: Datum::Floor,
        heights: vec![(0.45, 0.035)],
    };
    hull.evidence.push(Evidence::fresh(aboard, reading));
    // One posterior, under any brief: the type takes none. Salt water where the
    // test was made is the test's own affair and moves the shapes.
    let fresh = posterior(&hull, 128);
    hull.evidence[0].density = 1025.0;
    let salt = posterior(&hull, 128);
    let floor = |p: &Posterior| -> f64 {
        let both = p.shapes.iter().zip(&p.weights);
        both.map(|(s, w)| s.floor * w).sum()
    };
    // Read in salt the hull lay higher: its floor is lower than it looked.
    let moved = floor(&fresh) - floor(&salt);
    assert!((0.0005..0.006).contains(&moved), "{moved}");
}

#[test]
fn a_label_is_weighed_by_its_basis() {
    let hull = |basis| {
        let mut hull = tunnel_with(&[
            (Measure::Length, 3.7),
            (Measure::Beam, 0.88),
            (Measure::BareWeight, 36.0),
            (Measure::FittedWeight, 60.0),
            (Measure::RatedCapacity, 150.0),
        ]);
        hull.capacity_basis = basis;
        let p = posterior(&hull, 128);
        let both = p.shapes.iter().zip(&p.weights);
        both.map(|(s, w)| s.floor * w).sum::<f64>()
    };
    // 150 kg of crew and gear beside 24 kg of drive wets a higher floor than
    // 150 kg with the drive in them.
    let crew = hull(CapacityBasis::GearAndCrew);
    let all = hull(CapacityBasis::EverythingAboveBareHull);
    assert!(crew > all + 5e-4, "{crew} {all}");
    assert_eq!(all, hull(CapacityBasis::Unknown));
}

#[test]
fn being_sold_lifts_no_hull_that_gm_rules_out() {
    // Over beams from hopeless to steady: what more than half of the shapes
    // rule out without that evidence stays out with it.
    let mut narrowed = false;
    for step in 0..24 {
        let mut hull = survey(
            Construction::SitOnTop,
            BottomShape::ShallowArch,
            &[
                (Measure::Length, 3.2),
                (Measure::Beam, 0.62 + 0.01 * f64::from(step)),
                (Measure::SeatLow, 0.18),
            ],
        );
        let brief = asked(82.0, Posture::Sits);
        let sold = ranking(std::slice::from_ref(&hull), &brief, 128);
        hull.origin = Origin::HomeMade;
        let made = assess(&hull, &brief, 128);
        let alone = made.share(|f| !f.is_rest());
        if alone > 0.5 {
            assert!(sold.ranked.is_empty(), "{alone} of its shapes go over");
        }
        let with = sold
            .ranked
            .first()
            .map(|r| r.assessment.clone())
            .or(sold.ruled_out.first().and_then(|r| r.assessment.clone()))
            .unwrap();
        let lifted = with.share(|f| !f.is_rest());
        narrowed |= lifted < alone - 0.05;
        assert!(lifted <= alone + 0.02, "{lifted} {alone}");
    }
    assert!(narrowed, "somewhere it spares a false alarm");
}

#[test]
fn what_is_odd_for_a_sold_hull_is_told_not_used() {
    let p = Posterior::of(Arc::new(needle()), guides(), 64).unwrap();
    assert!(
        p.doubts
            .iter()
            .any(|d| d.contains("odd for a hull that is sold"))
    );
    assert_eq!(p.weights, p.unsold);
    let mut own = needle();
    own.origin = Origin::HomeMade;
    let p = Posterior::of(Arc::new(own), guides(), 64).unwrap();
    assert!(p.doubts.is_empty(), "{:?}", p.doubts);
}

#[test]
fn recess_breadth_and_extent_vary_and_a_taped_floor_width_fixes_them() {
    let mut hull = tunnel_with(&[(Measure::Length, 3.7), (Measure::Beam, 0.9)]);
    let spread = |p: &Posterior, of: fn(&galvet_core::body::Shape) -> f64| {
        let v: Vec<f64> = p.shapes.iter().map(of).collect();
        let mean = v.iter().sum::<f64>() / v.len() as f64;
        let sd = (v.iter().map(|x| (x - mean).powi(2)).sum::<f64>() / v.len() as f64).sqrt();
        (mean, sd)
    };
    let guessed = posterior(&hull, 128);
    let (mean, sd) = spread(&guessed, |s| s.recess_breadth);
    assert!(
        (mean - 0.76).abs() < 0.01 && (sd - 0.06).abs() < 0.01,
        "{mean} {sd}"
    );
    let (_, sd) = spread(&guessed, |s| s.recess_to);
    assert!(sd > 0.015, "{sd}");
    let width =
        galvet_core::hull::Reading::new(Measure::FloorWidth, 0.63, galvet_core::hull::Source::Tape);
    hull.readings
        .insert(Measure::FloorWidth, vec![width.unwrap()]);
    let (mean, sd) = spread(&posterior(&hull, 128), |s| s.recess_breadth);
    assert!((mean - 0.70).abs() < 0.002 && sd < 0.006, "{mean} {sd}");
    // The largest lasting lean follows it.
    let lean = |breadth: f64| {
        let brief = asked(82.0, Posture::Sits);
        let a = assess(&hull, &brief, 1);
        let shapes = [galvet_core::body::Shape {
            recess_breadth: breadth,
            ..a.middle
        }];
        let values = a.afloat(&shapes).figures()[0].0.clone();
        values.get(Q::LastingLean).unwrap()
    };
    assert!(
        lean(0.65) > lean(0.80) + 0.02,
        "{} {}",
        lean(0.65),
        lean(0.80)
    );
}
