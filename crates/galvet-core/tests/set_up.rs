//! A hull as it is set up: what a modification weighs and changes, scuppers one
//! by one, the seat that is used.
#![allow(clippy::unwrap_used, reason = "tests")]

use crate::common;

use common::{assess, box_hull, posterior, rig, survey};
use galvet_core::figures::Quantity;
use galvet_core::hull::{
    BottomShape, Configuration, Construction, Dryness, Fitting, FittingKind, Flooded, Measure,
    Modification, Opening, Progress, Propulsion, Reading, Recess, ScupperState, Scuppers,
    SeatSetting, SeatUsed, Source, Survey, Zone, ZoneKind, floods, zones,
};
use galvet_core::load::{Carriage, LoadKind};
use galvet_core::question::Brief;

fn brief() -> Brief {
    common::brief(78.0, 1.78, rig(12.0, 0.6, 0.2))
}

fn zone(name: &str, kind: ZoneKind, from: f64, to: f64) -> Zone {
    Zone {
        height: Some(0.2),
        opening: Some(Opening::Round(0.15)),
        dryness: Some(Dryness::Splash),
        source: Source::Tape,
        ..Zone::plain(name, kind, [from, to, 0.4])
    }
}

fn fitting(name: &str, kind: FittingKind, x: f64) -> Fitting {
    Fitting {
        name: name.into(),
        kind,
        x,
        y: 0.0,
        z: None,
        mount: String::new(),
        source: Source::Tape,
    }
}

fn modification(name: &str, mass: f64) -> Modification {
    Modification {
        name: name.into(),
        progress: Progress::Done,
        removes: Vec::new(),
        zones: Vec::new(),
        fittings: Vec::new(),
        dryness: Vec::new(),
        mass,
        x: 3.0,
        z: 0.5,
        holes: 4,
        price: None,
        can_be_undone: true,
        note: String::new(),
    }
}

fn pontoon() -> Survey {
    box_hull(Construction::Board, 4.0, 0.9, 0.3)
}

#[test]
fn what_was_added_weighs_where_it_is() {
    let before = assess(&pontoon(), &brief(), 8);
    let mut hull = pontoon();
    hull.fitout.modifications = vec![modification("rack", 6.0)];
    let after = assess(&hull, &brief(), 8);
    let [mass, x, y, z] = before.floated(Carriage::Seated);
    let [mass_now, x_now, y_now, z_now] = after.floated(Carriage::Seated);
    // 6 kg at 3 m and 0.5 m up, on the lever.
    assert!((mass_now - mass - 6.0).abs() < 1e-9);
    assert!((x_now - (mass * x + 6.0 * 3.0) / (mass + 6.0)).abs() < 1e-9);
    assert!((z_now - (mass * z + 6.0 * 0.5) / (mass + 6.0)).abs() < 1e-9);
    assert_eq!((y, y_now), (0.0, 0.0));
    // A box of 4.0 × 0.9 m in fresh water sinks by 6 / 3600 m, and less is left
    // to carry by as much.
    let median = |a: &galvet_core::figures::Assessment, q| a.median(q).unwrap();
    let deeper = median(&after, Quantity::Draft) - median(&before, Quantity::Draft);
    assert!((deeper - 6.0 / 3600.0).abs() < 2e-5, "{deeper}");
    let counted = median(&after, Quantity::Counted) - median(&before, Quantity::Counted);
    assert!((counted - 6.0).abs() < 1e-9, "{counted}");
    // What is only planned weighs nothing yet.
    let planned = assess(&hull.with_made(|_| false), &brief(), 8);
    assert_eq!(
        planned.floated(Carriage::Seated),
        before.floated(Carriage::Seated)
    );
}

#[test]
fn what_was_taken_off_is_lighter_and_earns_no_label() {
    let mut hull = pontoon();
    hull.fitout.modifications = vec![modification("rails off", -2.0)];
    let (before, after) = (assess(&pontoon(), &brief(), 8), assess(&hull, &brief(), 8));
    let mass = |a: &galvet_core::figures::Assessment| a.floated(Carriage::Seated)[0];
    assert!((mass(&before) - mass(&after) - 2.0).abs() < 1e-9);
    let kit = |a: &galvet_core::figures::Assessment| a.setup.loads.counted(5.0)[1];
    assert_eq!(kit(&after).0, LoadKind::FixedKit);
    assert_eq!(kit(&after).1, kit(&before).1);
}

#[test]
fn her_shape_is_the_same_whatever_was_changed_since() {
    let leaflet = || {
        let figures = [
            (Measure::Length, 3.6),
            (Measure::Beam, 0.88),
            (Measure::SeatLow, 0.2),
            (Measure::RatedCapacity, 200.0),
        ];
        survey(Construction::SitOnTop, BottomShape::Tunnel, &figures)
    };
    let mut hull = leaflet();
    hull.fitout.modifications = vec![modification("rack", 15.0)];
    let (before, after) = (posterior(&leaflet(), 32), posterior(&hull, 32));
    assert_eq!(before.weights, after.weights);
    assert_eq!(before.shapes, after.shapes);
}

#[test]
fn zones_and_fittings_are_those_of_delivery_changed_by_what_is_done() {
    let mut hull = survey(
        Construction::SitOnTop,
        BottomShape::Flat,
        &[(Measure::Length, 3.6), (Measure::Beam, 0.88)],
    );
    hull.fitout.zones = vec![zone("stern hatch", ZoneKind::SternHatch, 3.2, 3.45)];
    hull.fitout.fittings = vec![fitting("rail", FittingKind::PadEye, 2.0)];
    let mut swap = modification("larger hatch", 1.0);
    swap.removes = vec!["stern hatch".into(), "rail".into()];
    swap.zones = vec![zone("large hatch", ZoneKind::BowHatch, 3.0, 3.4)];
    let mut gasket = modification("gasket", 0.0);
    gasket.dryness = vec![("stern hatch".into(), Dryness::Wave)];
    hull.fitout.modifications = vec![gasket, swap];
    let named = |hull: &Survey, name: &str| zones(hull).into_iter().find(|z| z.name == name);
    // As delivered: the template's other zones, and the hatch as it was.
    let delivered = hull.with_made(|_| false);
    let hatch = named(&delivered, "stern hatch").unwrap();
    assert_eq!(hatch.dryness, Some(Dryness::Splash));
    assert_eq!(delivered.fitout.fittings_now().len(), 1);
    let sealed = hull.with_made(|m| m.name == "gasket");
    assert_eq!(
        named(&sealed, "stern hatch").unwrap().dryness,
        Some(Dryness::Wave)
    );
    // Taken out, it is no guess again.
    assert!(named(&hull, "stern hatch").is_none());
    assert!(named(&hull, "large hatch").is_some());
    assert!(hull.fitout.fittings_now().is_empty());
    // Nor is what somebody says it has not.
    assert!(named(&hull, "centre console").is_some());
    hull.looked.absent = vec!["centre console".into()];
    assert!(named(&hull, "centre console").is_none());
}

#[test]
fn scuppers_count_one_by_one_and_open_where_nobody_looked() {
    let mut hull = survey(Construction::SitOnTop, BottomShape::Flat, &[]);
    let found = |hull: &Survey| floods(&hull.scuppers(Scuppers::AsFound));
    assert_eq!(found(&hull), Flooded::ALL, "nobody looked");
    let scupper = |recess, state| FittingKind::Scupper {
        recess,
        diameter: 0.032,
        state,
        plug: true,
    };
    let plugged = scupper(Recess::Cockpit, ScupperState::Plugged);
    hull.fitout.fittings = vec![fitting("one", plugged.clone(), 1.5)];
    let only_well = Flooded {
        cockpit: false,
        tank_well: true,
    };
    assert_eq!(found(&hull), only_well);
    let open = scupper(Recess::Cockpit, ScupperState::Open);
    hull.fitout.fittings.push(fitting("two", open, 1.2));
    assert_eq!(found(&hull), Flooded::ALL, "one open one is enough");
    assert_eq!(floods(&hull.scuppers(Scuppers::Plugged)), Flooded::NONE);
    // The question goes by them.
    hull.fitout.fittings = vec![fitting("one", plugged, 1.5)];
    let measures = [(Measure::Length, 3.6), (Measure::Beam, 0.88)];
    hull.readings = survey(Construction::SitOnTop, BottomShape::Flat, &measures).readings;
    let mut asks = brief();
    asks.scuppers = Scuppers::AsFound;
    assert_eq!(assess(&hull, &asks, 8).setup.open, only_well);
}

#[test]
fn a_configuration_is_a_hull_of_its_own() {
    let mut hull = pontoon();
    hull.propulsion = Propulsion::RotaryPedal;
    let mut planned = modification("rack", 6.0);
    planned.progress = Progress::Planned;
    hull.fitout.modifications = vec![planned, modification("keel guard", 1.0)];
    let seat = || FittingKind::Seat {
        slide: 0.1,
        low: None,
        high: None,
    };
    hull.fitout.fittings = vec![fitting("rear", seat(), 2.6), fitting("front", seat(), 1.4)];
    let mut asked = Configuration {
        name: "paddled from the front".into(),
        seats: 1,
        seat_used: SeatUsed::Front,
        seat: SeatSetting::Travel,
        propulsion: Propulsion::Paddle,
        modifications: vec!["rack".into()],
    };
    let so = hull.configured(&asked);
    assert_eq!(so.propulsion, Propulsion::Paddle);
    let done: Vec<&str> = so.fitout.done().map(|m| m.name.as_str()).collect();
    assert_eq!(done, ["rack"]);
    assert!(!asked.sits_high());
    assert_eq!(asked.seat_place(&hull), Some(1.4));
    asked.seat_used = SeatUsed::Rear;
    assert_eq!(asked.seat_place(&hull), Some(2.6));
    // Seated there, the angler's weight is there.
    hull.readings.insert(
        Measure::Length,
        vec![Reading::new(Measure::Length, 4.0, Source::Tape).unwrap()],
    );
    let a = assess(&hull.configured(&asked), &brief(), 8);
    assert!((a.setup.loads.crew_place(Carriage::Seated) - 2.6).abs() < 1e-9);
    hull.fitout.fittings.pop();
    assert_eq!(
        asked.seat_place(&hull),
        None,
        "with one seat there is no rear one"
    );
}

#[test]
fn a_well_measured_ends_where_the_tape_says() {
    let figures = [(Measure::Length, 3.6), (Measure::Beam, 0.88)];
    let mut hull = survey(Construction::SitOnTop, BottomShape::Flat, &figures);
    let mut well = zone("tank well", ZoneKind::TankWell, 2.3, 3.06);
    let end = |hull: &Survey| posterior(hull, 16).middle().recess_to;
    hull.fitout.zones = vec![well.clone()];
    assert!((end(&hull) - 3.06 / 3.6).abs() < 0.01);
    // A guess says nothing.
    well.source = Source::Guess;
    let guessed = end(&survey(Construction::SitOnTop, BottomShape::Flat, &figures));
    hull.fitout.zones = vec![well];
    assert_eq!(end(&hull), guessed);
}

#[test]
fn a_hull_keeps_half_its_weight_whatever_was_taken_off() {
    let figures = [
        (Measure::Length, 3.6),
        (Measure::Beam, 0.88),
        (Measure::FittedWeight, 26.5),
    ];
    let stock = survey(Construction::SitOnTop, BottomShape::Flat, &figures);
    let made = |masses: &[f64]| {
        let mut hull = stock.clone();
        hull.fitout.modifications = masses
            .iter()
            .enumerate()
            .map(|(i, &mass)| modification(&format!("cut {i}"), mass))
            .collect();
        hull
    };
    let floated = |hull: &Survey| assess(hull, &brief(), 8);
    let whole = floated(&stock).fitted_mass();
    for masses in [&[-23.0][..], &[-20.0, -20.0, -20.0]] {
        let hull = made(masses);
        let a = floated(&hull);
        assert!(
            (a.fitted_mass() - 0.5 * whole).abs() < 0.2,
            "{}",
            a.fitted_mass()
        );
        let said = hull.findings();
        assert!(
            said.iter()
                .any(|f| f.contradiction && f.text.contains("half of it is counted"))
        );
    }
    // What is within reason counts as it says.
    let light = floated(&made(&[-4.0]));
    assert!((light.fitted_mass() - (whole - 4.0)).abs() < 0.01);
}
