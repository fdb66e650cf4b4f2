//! Scuppers open, plugged, one-way and mixed on one hull.
#![allow(clippy::unwrap_used, reason = "tests")]

use crate::common;

use common::{assess, brief, float, gz, prototype_shape, rig, tunnel, weight};
use galvet_core::body::{Body, draw};
use galvet_core::figures::Quantity;
use galvet_core::float::{Accuracy, Settled, Start, rim_angle, settle};
use galvet_core::hull::{
    BottomShape, Construction, Flooded, Measure, Reading, Scuppers, Source, floods,
};
use galvet_core::question::Brief;
use galvet_core::rank::{Code, passes};
use galvet_core::stability::righting;

/// A low-floored hull loaded until its floor is well under water.
fn hull() -> Body<1> {
    let frame = common::frame(3.6, 0.88, Construction::SitOnTop);
    draw(
        &frame,
        &[prototype_shape(BottomShape::Flat, 0.36, 0.07, 40.0)],
        1,
    )
}

const MASS: f64 = 235.0;

fn at_rest(body: &Body<1>, scuppers: Scuppers) -> Settled<1> {
    let outline = body.outline(floods(&scuppers.fitted()));
    let w = weight(MASS, 1.82, 0.0, 0.35);
    settle(
        body,
        &outline,
        &w,
        1000.0,
        0.0,
        Start::LEVEL,
        Accuracy::FINE,
    )
}

#[test]
fn what_is_open_sinks_it_deeper_recess_by_recess() {
    let body = hull();
    let draft = |s| {
        let rest = at_rest(&body, s);
        assert_eq!(rest.foundered.0[0], 0.0, "{s:?}");
        rest.attitude.draft.0[0]
    };
    let open = draft(Scuppers::Open);
    let well = draft(Scuppers::CockpitPlugged);
    let plugged = draft(Scuppers::Plugged);
    assert!(open > well + 0.002, "{open} {well}");
    assert!(well >= plugged, "{well} {plugged}");
    // A valve floats as a plug does.
    assert_eq!(draft(Scuppers::OneWay), plugged);
    // The solid body is what floats open.
    let w = weight(MASS, 1.82, 0.0, 0.35);
    assert_eq!(float(&body, &w, 0.0).attitude.draft.0[0], open);
}

#[test]
fn an_open_well_trims_it_by_the_stern() {
    let body = hull();
    let slope = |s| at_rest(&body, s).attitude.slope.0[0];
    // Water in the well alone takes buoyancy away aft: bow up.
    assert!(slope(Scuppers::CockpitPlugged) > slope(Scuppers::Plugged));
}

#[test]
fn one_curve_is_never_drawn_across_flooding() {
    let body = hull();
    let w = weight(MASS, 1.82, 0.0, 0.35);
    let sealed = body.outline(Flooded::NONE);
    let fills = rim_angle(&body, &sealed, &w, 1000.0).unwrap();
    assert!((5.0..60.0).contains(&fills.to_degrees()), "{fills}");
    let arm = |outline, heel| {
        let settled = settle(
            &body,
            outline,
            &w,
            1000.0,
            heel,
            Start::LEVEL,
            Accuracy::FINE,
        );
        gz(&settled, &w)
    };
    // At the root of the rim's clearance the arm breaks: dry before, full after.
    let (dry, full) = (arm(&sealed, fills), arm(&body.solid, fills));
    assert!(dry > full + 0.01, "{dry} {full}");
    // A ranking's path keeps the two apart at the same angle, to a quarter of a
    // degree.
    let upright = settle(
        &body,
        &sealed,
        &w,
        1000.0,
        0.0,
        Start::LEVEL,
        Accuracy::FINE,
    );
    let heels = galvet_core::stability::HEELS_DEG.map(f64::to_radians);
    let arms = righting(&body, &sealed, &w, 1000.0, &upright, &heels, Accuracy::FINE);
    let rim = galvet_core::stability::Curve::through(
        heels,
        std::array::from_fn(|k| arms[k].rim.0[0]),
        (arms[1].rim.0[0] - arms[0].rim.0[0]) / (heels[1] - heels[0]),
    );
    let read = rim.falls_through_zero().unwrap();
    assert!(
        (read - fills).abs() < 0.25_f64.to_radians(),
        "{read} {fills}"
    );
}

fn asked(scuppers: Scuppers) -> Brief {
    let mut brief = brief(84.0, 1.8, rig(20.0, 0.58, 0.1));
    brief.scuppers = scuppers;
    brief
}

#[test]
fn figures_follow_the_scuppers() {
    let survey = tunnel(&[]);
    let median = |scuppers, q| {
        let brief = asked(scuppers);
        assess(&survey, &brief, 32).median(q)
    };
    use Quantity as Q;
    assert!(median(Scuppers::Open, Q::FloorWetAngle).is_some());
    assert_eq!(median(Scuppers::Open, Q::DownFlooding), None);
    for dry in [
        Scuppers::Plugged,
        Scuppers::OneWay,
        Scuppers::CockpitPlugged,
    ] {
        assert_eq!(median(dry, Q::FloorWetAngle), None, "{dry:?}");
        let runs_in = median(dry, Q::DownFlooding).unwrap();
        assert!((10.0..60.0).contains(&runs_in), "{dry:?} {runs_in}");
        assert!(median(dry, Q::SwampedFreeboard).unwrap() > 0.0);
        assert!(
            median(dry, Q::LastingLean) > median(Scuppers::Open, Q::LastingLean),
            "{dry:?}"
        );
    }
}

#[test]
fn valves_drain_only_a_floor_above_the_water() {
    let survey = tunnel(&[(Measure::FloorHeight, 0.11), (Measure::SeatLow, 0.05)]);
    let undrained = |scuppers, mass| {
        let mut brief = asked(scuppers);
        brief.crew = galvet_core::crew::Crew::new(mass, 1.8).unwrap();
        brief.water.must_drain = true;
        let a = assess(&survey, &brief, 32);
        let wet = a.median(Quantity::FloorAboveWater).unwrap() < 0.0;
        let text = passes(&a, &brief)
            .err()
            .unwrap_or_default()
            .iter()
            .find(|r| r.code == Code::DoesNotDrain)
            .map(|r| r.detail.clone());
        (wet, text)
    };
    assert_eq!(undrained(Scuppers::OneWay, 60.0), (false, None));
    let (wet, text) = undrained(Scuppers::OneWay, 150.0);
    assert!(
        wet && text.as_ref().unwrap().contains("valves cannot drain"),
        "{text:?}"
    );
    let (_, text) = undrained(Scuppers::Plugged, 60.0);
    assert!(text.as_ref().unwrap().contains("plugged"), "{text:?}");
    // Open, a wet floor is its own reason.
    assert_eq!(undrained(Scuppers::Open, 150.0), (true, None));
}

#[test]
fn a_label_the_body_cannot_carry_is_said() {
    // A box of 3.0 × 0.7 m: 100 mm deep it displaces 210 kg and is gone; it weighs
    // 50 kg itself.
    let said = |construction: Construction, depth: f64, label: f64| {
        let mut hull = common::box_hull(construction, 3.0, 0.7, depth);
        let reading = Reading::new(Measure::RatedCapacity, label, Source::Label).unwrap();
        hull.readings.insert(Measure::RatedCapacity, vec![reading]);
        let a = assess(&hull, &brief(60.0, 1.7, rig(5.0, 0.6, 0.1)), 8);
        a.remarks().join("; ")
    };
    assert!(said(Construction::Board, 0.10, 250.0).contains("the deck is under water"));
    assert!(said(Construction::SitInside, 0.10, 250.0).contains("the gunwale is under water"));
    // 140 kg aboard and 50 of hull sink it by 90 mm: above water yet. Twice as deep
    // there is room for the larger label too.
    assert!(!said(Construction::Board, 0.10, 140.0).contains("under water"));
    assert!(!said(Construction::Board, 0.20, 250.0).contains("under water"));
}
