//! What a rig weighs is what is floated, what lies ashore and what is worn, to the gram.

#![allow(clippy::unwrap_used, reason = "tests")]

use crate::common;

use common::families::{Dice, cases};
use common::{assess, brief, survey};
use galvet_core::figures::{Assessment, Quantity};
use galvet_core::gear::{Category, Fixing, Gear};
use galvet_core::guide::{Guide, Guides};
use galvet_core::hull::{BottomShape, CapacityBasis, Construction, Measure, Pin, Survey};
use galvet_core::rig::{Importance, Lying, Rig, RigLine, Stowage};

fn hull() -> Survey {
    survey(
        Construction::SitOnTop,
        BottomShape::Flat,
        &[
            (Measure::Length, 3.8),
            (Measure::Beam, 0.9),
            (Measure::FittedWeight, 42.0),
            (Measure::SeatLow, 0.12),
        ],
    )
}

fn thing(key: &str, mass: f64, size: Option<[f64; 3]>, inside: Option<[f64; 3]>) -> Gear {
    let mut gear = Gear::plain(key, key, Category::Other, mass, size);
    gear.fixings = vec![Fixing::Strap, Fixing::Loose];
    gear.brings.inside = inside;
    gear
}

fn line(gear: &Gear, count: u32, within: &str, importance: Importance) -> RigLine {
    let within = within.to_owned();
    RigLine {
        importance,
        within,
        count,
        ..RigLine::plain("kit", 1.0)
    }
    .is(gear)
}

fn of(lines: Vec<RigLine>) -> Rig {
    Rig {
        key: "r".into(),
        name: "R".into(),
        lines,
    }
}

fn laid(hull: &Survey, rig: Rig) -> Assessment {
    assess(hull, &brief(80.0, 1.8, rig), 4)
}

/// What is floated beside hull and crew, kg.
fn floated(a: &Assessment) -> f64 {
    a.setup.loads.layout.loaded()
}

fn accounted(a: &Assessment) {
    let (layout, rig) = (&a.setup.loads.layout, &a.setup.brief.rig);
    assert!(
        layout.astray(rig).abs() < 1e-3,
        "{} kg astray of {}",
        layout.astray(rig),
        rig.loaded()
    );
    // The load plan floats what the layout says.
    let whole = a.floated(galvet_core::load::Carriage::Seated)[0];
    let crew = a.setup.loads.crew_mass();
    assert!((whole - a.middle.hull_mass - crew - layout.loaded()).abs() < 1e-6);
}

const BIG: [f64; 3] = [0.40, 0.35, 0.30];
const BAG: [f64; 3] = [0.25, 0.20, 0.15];
const TIN: [f64; 3] = [0.10, 0.08, 0.05];
const MUST: Importance = Importance::Must;

#[test]
fn a_thing_in_a_bag_in_a_crate_counts() {
    let (crate_, bag) = (
        thing("crate", 2.0, Some(BIG), Some(BIG)),
        thing("bag", 0.5, Some(BAG), Some(BAG)),
    );
    let lead = thing("lead", 20.0, Some(TIN), None);
    // In any order of the lines.
    for order in [[0, 1, 2], [2, 1, 0], [1, 2, 0]] {
        let lines = [
            line(&crate_, 1, "", MUST),
            line(&bag, 1, "crate", MUST),
            line(&lead, 1, "bag", MUST),
        ];
        let rig = of(order.iter().map(|&i| lines[i].clone()).collect());
        let a = laid(&hull(), rig);
        accounted(&a);
        assert!(
            (floated(&a) - 22.5).abs() < 1e-9,
            "{order:?}: {}",
            floated(&a)
        );
        assert!(a.setup.loads.layout.unpacked.is_empty());
    }
}

#[test]
fn two_bags_one_in_the_crate_and_thirty_kilograms_in_the_free_one() {
    let crate_ = thing("crate", 2.0, Some(BIG), Some(BIG));
    let bag = thing("bag", 0.4, Some(BAG), Some(BAG));
    let lead = thing("lead", 30.0, Some(TIN), None);
    for bags in [2, 1] {
        let rig = of(vec![
            line(&crate_, 1, "", MUST),
            line(&bag, bags, "crate", MUST),
            line(&lead, 1, "bag", MUST),
        ]);
        let a = laid(&hull(), rig);
        accounted(&a);
        assert!((floated(&a) - 32.0 - 0.4 * f64::from(bags)).abs() < 1e-9);
    }
}

#[test]
fn a_container_without_an_outer_size_is_asked_for_it_and_counted() {
    let sack = thing("sack", 1.0, None, Some(BIG));
    let lead = thing("lead", 30.0, Some(TIN), None);
    let a = laid(
        &hull(),
        of(vec![line(&sack, 1, "", MUST), line(&lead, 2, "sack", MUST)]),
    );
    accounted(&a);
    assert!((floated(&a) - 61.0).abs() < 1e-9, "{}", floated(&a));
    assert!(a.setup.loads.layout.doubts.iter().any(|d| d.0 == "sack"));
}

#[test]
fn one_aid_for_each_person_is_worn_and_every_other_is_cargo() {
    let mut aid = thing("flotation-aid-foam", 1.2, Some([0.5, 0.4, 0.12]), None);
    aid.fixings = vec![Fixing::Worn];
    let a = laid(&hull(), of(vec![line(&aid, 21, "", MUST)]));
    accounted(&a);
    assert!((floated(&a) - 20.0 * 1.2).abs() < 1e-9, "{}", floated(&a));
    // One heavier than anybody's dressing counts with what it is heavier.
    let heavy = Gear {
        dry_mass: 30.0,
        loaded_mass: 30.0,
        ..aid
    };
    let a = laid(&hull(), of(vec![line(&heavy, 5, "", MUST)]));
    accounted(&a);
    let dressed = Guides::default()[Guide::DressedExtra];
    assert!(
        (floated(&a) - (150.0 - dressed)).abs() < 1e-9,
        "{}",
        floated(&a)
    );
}

#[test]
fn what_is_in_the_second_crate_is_there_when_the_first_fits_nowhere() {
    // Two crates no place takes; one is pinned where a person put it.
    let huge = thing("crate", 3.0, Some([1.9, 0.7, 0.6]), Some([1.8, 0.6, 0.5]));
    let lead = thing("lead", 5.0, Some([0.5, 0.4, 0.4]), None);
    let mut hull = hull();
    hull.looked.laid.insert(
        "r".into(),
        vec![Pin {
            thing: "crate".into(),
            nth: 1,
            place: "tank well".into(),
            x: 2.9,
            y: 0.0,
            turned: false,
        }],
    );
    let a = laid(
        &hull,
        of(vec![
            line(&huge, 2, "", MUST),
            line(&lead, 6, "crate", MUST),
        ]),
    );
    accounted(&a);
    assert!((floated(&a) - 36.0).abs() < 1e-9, "{}", floated(&a));
}

#[test]
fn random_rigs_are_accounted_for_to_the_gram() {
    let mut dice = Dice::new(77);
    for _ in 0..cases(120) {
        let mut lines: Vec<RigLine> = Vec::new();
        let kinds = 2 + (dice.share() * 6.0) as usize;
        for k in 0..kinds {
            let scale = dice.between(0.15, 1.6);
            let outer = BIG.map(|s| s * scale);
            let key = format!("thing-{k}");
            let size = (dice.share() > 0.2).then_some(outer);
            let inside = (dice.share() > 0.4).then_some(outer.map(|s| 0.95 * s));
            let mut gear = thing(&key, dice.between(0.1, 12.0), size, inside);
            gear.loaded_mass = gear.dry_mass
                + if dice.share() > 0.6 {
                    dice.between(0.0, 9.0)
                } else {
                    0.0
                };
            let within = match dice.share() {
                w if w < 0.5 => String::new(),
                // Also in itself, or in what comes later.
                _ => format!("thing-{}", (dice.share() * kinds as f64) as usize),
            };
            let must = dice.pick(&[Importance::Must, Importance::Want]);
            lines.push(line(&gear, 1 + (dice.share() * 4.0) as u32, &within, must));
        }
        accounted(&laid(&hull(), of(lines)));
    }
}

/// A load somebody guessed: what follows from it has a range that holds it, and the middle
/// is what was said. The same load weighed has none but the hull's own.
#[test]
fn a_guessed_load_widens_what_follows_from_it() {
    let mut survey = hull();
    survey.capacity_basis = CapacityBasis::GearAndCrew;
    survey
        .readings
        .extend(common::tunnel(&[(Measure::RatedCapacity, 190.0)]).readings);
    let afloat = |line: RigLine| assess(&survey, &brief(80.0, 1.8, of(vec![line])), 128);
    let rough = RigLine::rough(27.0, Stowage::Behind, Lying::High);
    let weighed = RigLine {
        rough: false,
        ..rough.clone()
    };
    let (a, b) = (afloat(rough), afloat(weighed));
    let spread = |a: &Assessment, q| {
        let range = a.range(q).unwrap();
        (range.p5, range.p50, range.p95)
    };
    let (low, middle, high) = spread(&a, Quantity::Counted);
    let (least, exact, most) = spread(&b, Quantity::Counted);
    assert!((middle - exact).abs() < 0.3, "{middle} for {exact}");
    // 1.645 standard deviations of 15 % of 27 kg, either way.
    let by = 1.645 * 0.15 * 27.0;
    let own = (most - least) / 2.0;
    let wanted = (by * by + own * own).sqrt();
    assert!(
        ((high - low) / 2.0 - wanted).abs() < 0.7,
        "{low} to {high}, {wanted} either way"
    );
    for q in [
        Quantity::LabelMargin,
        Quantity::WaterlineMargin,
        Quantity::Gm,
    ] {
        let wide = |of: (f64, f64, f64)| of.2 - of.0;
        assert!(wide(spread(&a, q)) > wide(spread(&b, q)), "{q:?}");
    }
}
