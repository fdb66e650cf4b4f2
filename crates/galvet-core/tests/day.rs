//! The worst of a day ranks: what comes and goes, and what it does to every figure.

#![allow(clippy::unwrap_used, reason = "tests")]

use crate::common;
use crate::stow_hull;

use common::{assess, box_hull, brief};
use galvet_core::crew::Posture;
use galvet_core::figures::{Afloat, Assessment, Quantity, Setup, Values, worse};
use galvet_core::float::{Accuracy, Fate};
use galvet_core::gear::{Category, Electric, Gear};
use galvet_core::hull::{Construction, Measure, Reading, Source, Survey, ZoneKind};
use galvet_core::load::Carriage;
use galvet_core::question::Brief;
use galvet_core::stow::Hour;
use stow_hull::{gear, hull, line, rig, zone};

const HOURS: [Hour; 3] = [Hour::Launch, Hour::Midday, Hour::Return];

/// A pumped well: 4 kg, and its water once it is afloat.
fn livewell(place: ZoneKind, water: f64) -> Gear {
    let mut well = gear("livewell", 4.0, [0.40, 0.30, 0.25]);
    well.category = Category::Fish;
    well.loaded_mass = 4.0 + water;
    well.zones = vec![place];
    well.electric = Electric::Draw {
        watts: 20.0,
        duty: 0.5,
        volts: None,
    };
    well
}

fn with(mass: f64, well: &Gear) -> Brief {
    brief(mass, 1.80, rig(vec![line(well)]))
}

#[test]
fn a_box_trims_at_launch_as_the_lever_of_her_loads_says_and_so_she_is_ranked() {
    // The well on the fore deck holds it level once it is full; before that it
    // lies by the stern.
    let mut board = box_hull(Construction::Board, 3.6, 0.9, 0.2);
    let seat = Reading::new(Measure::SeatPlace, 0.68, Source::Tape).unwrap();
    board.readings.insert(Measure::SeatPlace, vec![seat]);
    board.fitout = hull(
        vec![zone("fore deck", ZoneKind::BowDeck, [0.3, 1.2, 0.6])],
        Vec::new(),
    )
    .fitout;
    let a = assess(&board, &with(84.0, &livewell(ZoneKind::BowDeck, 60.0)), 16);
    assert_eq!(a.worst_at(Quantity::Trim), Some(Hour::Launch));
    let floated = [None, Some(Hour::Launch)].map(|hour| {
        let mut hours = a.hours().filter(|(h, _)| Some(*h) == hour);
        let setup = hours
            .next()
            .map_or_else(|| a.setup.clone(), |(_, setup)| setup);
        a.floated_as(&setup, Carriage::Seated)
    });
    // By hand: hull about 50 kg, angler 84 + 9 wet or 84 + 6 dry, the well 64 or 4 kg.
    let layout = &a.setup.loads.layout;
    let well = layout.stowed[0].x;
    let angler = 0.68 * 3.6;
    let own = a.floated_as(&a.setup, Carriage::Seated)[1];
    let bare = a.middle.hull_mass;
    let hull = (own * (bare + 157.0) - 93.0 * angler - 64.0 * well) / bare;
    let lever = |angler_kg: f64, well_kg: f64| {
        let mass = bare + angler_kg + well_kg;
        (
            mass,
            (bare * hull + angler_kg * angler + well_kg * well) / mass,
        )
    };
    let trim = |(mass, x): (f64, f64), kg: f64| {
        let draft = mass / (1000.0 * 3.6 * 0.9);
        let stiff = 3.6f64.powi(2) / (12.0 * draft) + 0.5 * draft - kg;
        ((x - 1.8) / stiff).atan().to_degrees()
    };
    let (full, launch) = (lever(93.0, 64.0), lever(90.0, 4.0));
    assert!((floated[0][0] - full.0).abs() < 1e-9 && (floated[1][0] - launch.0).abs() < 1e-9);
    assert!(
        (floated[1][1] - launch.1).abs() < 1e-9,
        "{floated:?} {launch:?}"
    );
    let (then, now) = (trim(launch, floated[1][3]), trim(full, floated[0][3]));
    let ranked = a.median(Quantity::Trim).unwrap();
    assert!((ranked - then).abs() < 0.01, "{ranked} {then}");
    assert!((then - now).abs() > 0.5, "{then} {now}");
}

/// Every figure of every shape is as it is at the worst of four points, floated one
/// by one.
fn each_is_the_worst(a: &Assessment) {
    assert!(a.hours().count() >= 1);
    let (mut tried, full) = (0, a.in_full());
    for (i, shape) in a.setup.posterior.shapes.iter().enumerate() {
        let shapes = [*shape];
        let figures = |setup: &Setup| {
            Afloat::new(setup, &shapes, Accuracy::SAMPLE).figures()[0]
                .0
                .clone()
        };
        let points = [figures(&a.setup)]
            .into_iter()
            .chain(HOURS.map(|hour| figures(&a.setup.at(hour))));
        let points: Vec<_> = points.collect();
        for &q in Quantity::ALL {
            let worst = points.iter().map(|p| p.raw(q));
            let worst = worst.reduce(|x, y| q.worse(x, y)).unwrap();
            let got = full[i].raw(q);
            assert_eq!(got.is_finite(), worst.is_finite(), "{q:?} of {i}");
            if worst.is_finite() {
                // As near as the sample's searches end from different starts; the
                // hours lie ten times as far apart.
                // Where an arm peaks is known to the root of how well the arm is.
                let flat = if q == Quantity::PeakAngle { 0.2 } else { 0.0 };
                let near = 5e-3 * worst.abs() + 5e-4 + flat;
                assert!((got - worst).abs() < near, "{q:?} of {i}: {got} {worst}");
                tried += 1;
            }
        }
    }
    assert!(tried > 500, "{tried}");
}

/// A walked hull with a well and a fore deck.
fn walked() -> Survey {
    let zones = vec![
        zone("well", ZoneKind::TankWell, [2.3, 3.2, 0.45]),
        zone("fore deck", ZoneKind::BowDeck, [0.3, 1.0, 0.5]),
    ];
    hull(zones, Vec::new())
}

#[test]
fn every_figure_of_every_shape_is_the_worst_of_the_points_floated_one_by_one() {
    let mut asked = with(84.0, &livewell(ZoneKind::TankWell, 30.0));
    asked.posture = Posture::SitsAndStands;
    let a = assess(&walked(), &asked, 32);
    each_is_the_worst(&a);
    // Lighter it floats higher, and has less to lean on.
    for q in [Quantity::LeanRoom, Quantity::Trim] {
        assert_eq!(a.worst_at(q), Some(Hour::Launch), "{q:?}");
    }
    for q in [Quantity::BindingMargin, Quantity::Draft, Quantity::Gm] {
        assert_eq!(a.worst_at(q), None, "{q:?}");
    }
}

#[test]
fn ice_in_the_bow_that_melts_may_leave_less_in_hand_on_the_way_back() {
    // A box of ice forward of a fish bag aft: once it has gone it lies by the stern.
    let mut ice = gear("ice box", 3.0, [0.40, 0.30, 0.25]);
    ice.category = Category::Fish;
    ice.loaded_mass = 15.0;
    ice.zones = vec![ZoneKind::BowDeck];
    ice.brings.inside = Some([0.36, 0.26, 0.20]);
    let mut fish = gear("fish bag", 1.0, [0.60, 0.40, 0.15]);
    fish.category = Category::Fish;
    fish.loaded_mass = 16.0;
    let mut asked = brief(84.0, 1.80, rig(vec![line(&ice), line(&fish)]));
    asked.posture = Posture::SitsAndStands;
    let a = assess(&walked(), &asked, 32);
    each_is_the_worst(&a);
    // In some of its shapes there is less in hand on the way back than with all of it
    // aboard.
    assert!(a.hours().any(|(hour, _)| hour == Hour::Return));
}

#[test]
fn without_what_comes_and_goes_one_point_is_floated() {
    let mut dry = livewell(ZoneKind::TankWell, 30.0);
    dry.category = Category::Other;
    let survey = hull(
        vec![zone("well", ZoneKind::TankWell, [2.3, 3.2, 0.45])],
        Vec::new(),
    );
    let a = assess(&survey, &with(84.0, &dry), 16);
    assert_eq!(a.hours().count(), 0);
    // Clothes alone are worst when wet.
    let shapes = [a.middle];
    let figures = |setup: &Setup| {
        Afloat::new(setup, &shapes, Accuracy::SAMPLE).figures()[0]
            .0
            .clone()
    };
    let (full, launch) = (figures(&a.setup), figures(&a.setup.at(Hour::Launch)));
    for q in [
        Quantity::LeanRoom,
        Quantity::StandingSupport,
        Quantity::Reserve,
        Quantity::Gm,
    ] {
        let (full, launch) = (full.raw(q), launch.raw(q));
        assert!(launch > full, "{q:?}: {full} {launch}");
    }
}

#[test]
fn of_two_values_the_worse_is_the_one_that_hurts() {
    use Quantity as Q;
    assert_eq!(Q::LeanRoom.worse(0.10, 0.08), 0.08);
    assert_eq!(Q::ReachHeel.worse(5.0, 7.0), 7.0);
    // Half a degree bow up is the middle of what is level.
    assert_eq!(Q::Trim.worse(1.4, -0.6), -0.6);
    assert_eq!(Q::Trim.worse(-0.2, 1.4), 1.4);
    assert_eq!(Q::Counted.worse(150.0, 120.0), 150.0);
    // What never goes under has no angle; what does not hold has none either.
    assert_eq!(Q::EdgeAngle.worse(f64::NAN, 30.0), 30.0);
    assert!(Q::ReachHeel.worse(f64::NAN, 7.0).is_nan());
    assert!(Q::ReachHeel.worse(7.0, f64::NAN).is_nan());
}

#[test]
fn what_does_not_rest_at_one_hour_does_not_rest() {
    let mut values = Values::default();
    for (q, v) in [
        (Quantity::Counted, 150.0),
        (Quantity::LabelMargin, 10.0),
        (Quantity::LeanRoom, 0.1),
        (Quantity::EdgeAngle, 30.0),
    ] {
        values.set(q, v);
    }
    let rests = (values.clone(), Fate::Rests { list: 0.0 });
    let mut lighter = Values::default();
    lighter.set(Quantity::Counted, 120.0);
    lighter.set(Quantity::LabelMargin, 40.0);
    let over = Fate::Capsizes {
        missing: 0.02,
        outside: 0.0,
    };
    for (values, fate) in [
        worse(rests.clone(), &(lighter.clone(), over)),
        worse((lighter.clone(), over), &rests),
    ] {
        assert_eq!(fate, over);
        assert_eq!(values.get(Quantity::LeanRoom), None);
        assert_eq!(values.get(Quantity::EdgeAngle), None);
    }
    let (both, _) = worse(rests, &(lighter, over));
    assert_eq!(both.get(Quantity::Counted), Some(150.0));
    assert_eq!(both.get(Quantity::LabelMargin), Some(10.0));
}
