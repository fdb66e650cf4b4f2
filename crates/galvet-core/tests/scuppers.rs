//! Scuppers open, plugged, one-way and mixed on one hull.
#![allow(clippy::unwrap_used, reason = "tests")]

mod common;

use common::{brief, float, prototype_shape, rig, survey, weight};
use galvet_core::assess::Assessment;
use galvet_core::brief::{Brief, Scuppers};
use galvet_core::float::{Accuracy, Settled, Start, settle};
use galvet_core::hull::body::{Body, Flooded};
use galvet_core::hull::{BottomShape, Construction, Frame, Measure, draw, scupper};
use galvet_core::quantity::Quantity;
use galvet_core::rank::rule_out;
use galvet_core::stability::{Flooding, righting};

/// A low-floored hull loaded until its floor is well under water.
fn hull() -> Body<1> {
    let frame = Frame {
        length: 3.6,
        beam: 0.88,
        bottom: BottomShape::Flat,
        construction: Construction::SitOnTop,
    };
    draw(&frame, &[prototype_shape(0.36, 0.07, false, 40.0)], 1)
}

const MASS: f64 = 235.0;

fn at_rest(body: &Body<1>, scuppers: Scuppers) -> Settled<1> {
    let outline = body.outline(scupper::floods(&scuppers.fitted()));
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
fn a_plugged_hull_loses_its_arm_where_the_rim_goes_under() {
    let body = hull();
    let w = weight(MASS, 1.82, 0.0, 0.35);
    let heels: Vec<f64> = (0..=12)
        .map(|i| (5.0 * f64::from(i)).to_radians())
        .collect();
    let arms = |open: Flooded, over_the_rim| {
        let outline = body.outline(open);
        let upright = settle(
            &body,
            &outline,
            &w,
            1000.0,
            0.0,
            Start::LEVEL,
            Accuracy::FINE,
        );
        let flooding = Flooding { open, over_the_rim };
        righting(
            &body,
            &w,
            1000.0,
            flooding,
            &upright,
            &heels,
            Accuracy::FINE,
        )
    };
    let plugged = arms(Flooded::NONE, true);
    let fills = plugged.iter().position(|a| a.swamped.0[0] > 0.0).unwrap();
    assert!(fills > 1, "not at once");
    assert!(plugged[fills].gz.0[0] < plugged[fills - 1].gz.0[0]);
    assert!(plugged[fills].rim.0[0] < 0.0 && plugged[fills - 1].rim.0[0] >= 0.0);
    // Swamped, it is the open hull.
    let open = arms(Flooded::ALL, false);
    let apart = plugged[fills].gz.0[0] - open[fills].gz.0[0];
    assert!(apart.abs() < 1e-7, "{apart}");
}

fn asked(scuppers: Scuppers) -> Brief {
    let mut brief = brief(84.0, 1.8, rig(20.0, 0.58, 0.1));
    brief.scuppers = scuppers;
    brief
}

#[test]
fn figures_follow_the_scuppers() {
    let survey = survey(
        Construction::SitOnTop,
        BottomShape::Tunnel,
        &[
            (Measure::Length, 3.7),
            (Measure::Beam, 0.88),
            (Measure::FittedWeight, 45.0),
        ],
    );
    let median = |scuppers, q| {
        let brief = asked(scuppers);
        Assessment::of(&survey, &brief, 32).unwrap().median(q)
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
            median(dry, Q::LeanRoom) > median(Scuppers::Open, Q::LeanRoom),
            "{dry:?}"
        );
    }
}

#[test]
fn valves_drain_only_a_floor_above_the_water() {
    let survey = survey(
        Construction::SitOnTop,
        BottomShape::Tunnel,
        &[
            (Measure::Length, 3.7),
            (Measure::Beam, 0.88),
            (Measure::FittedWeight, 45.0),
            (Measure::FloorHeight, 0.11),
        ],
    );
    let undrained = |scuppers, mass| {
        let mut brief = asked(scuppers);
        brief.crew = galvet_core::brief::Crew::new(mass, 1.8).unwrap();
        brief.water.must_drain = true;
        let a = Assessment::of(&survey, &brief, 32).unwrap();
        let wet = a.median(Quantity::FloorAboveWater).unwrap() < 0.0;
        let reasons = rule_out::reasons(&a);
        let text = reasons
            .iter()
            .find(|r| r.code == rule_out::Code::DoesNotDrain)
            .map(|r| r.detail);
        (wet, text)
    };
    assert_eq!(undrained(Scuppers::OneWay, 60.0), (false, None));
    let (wet, text) = undrained(Scuppers::OneWay, 150.0);
    assert!(
        wet && text.unwrap().contains("valves cannot drain"),
        "{text:?}"
    );
    let (_, text) = undrained(Scuppers::Plugged, 60.0);
    assert!(text.unwrap().contains("plugged"), "{text:?}");
    // Open, a wet floor is its own reason.
    assert_eq!(undrained(Scuppers::Open, 150.0), (true, None));
}
