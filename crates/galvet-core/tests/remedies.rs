//! What holds, ties, gives or helps does what it is for; and what finds no place is
//! offered what would give it one.

#![allow(clippy::unwrap_used, clippy::panic, reason = "tests")]

use crate::common;
use crate::stow_hull;

use common::{asked, assess, brief, posterior};
use galvet_core::base::System;
use galvet_core::crew::Posture;
use galvet_core::figures::{Change, Quantity as Q, Remedy, Setup, remedies};
use galvet_core::gear::{Category, Fixing, Gear, Tether};
use galvet_core::guide::Guides;
use galvet_core::hull::{
    BottomShape, Construction, Fitting, FittingKind, Measure, Opening, Pin, Survey, ZoneKind,
};
use galvet_core::rig::{Importance, Rig};
use galvet_core::stow::{Doubt, Layout, Loss, Pose, RefusedBy, Unplaced, audit};
use std::sync::Arc;
use stow_hull::{LENGTH, checked, fitting, gear, hull, laid, line, rig, zone};

fn well(length: f64, width: f64) -> Survey {
    let well = zone("well", ZoneKind::TankWell, [2.3, 2.3 + length, width]);
    hull(vec![well], Vec::new())
}

fn lies(layout: &Layout, item: &str) -> Option<([f64; 3], String)> {
    let of = layout.stowed.iter().find(|s| s.item == item)?;
    of.lies.as_ref().map(|l| (l.size, l.zone.clone()))
}

fn bag(size: [f64; 3], soft: bool) -> Gear {
    Gear {
        soft,
        ..gear("bag", 6.0, size)
    }
}

#[test]
fn a_soft_thing_gives_by_a_tenth_and_it_is_said() {
    let hull = well(0.828, 0.45);
    let fish = |size, soft| laid(&hull, &rig(vec![line(&bag(size, soft))]));
    let pressed = fish([0.9, 0.4, 0.15], true);
    checked(&hull, &pressed);
    let (size, _) = lies(&pressed, "bag").unwrap();
    for (got, exact) in size.iter().zip([0.81, 0.36, 0.135]) {
        assert!((got - exact).abs() < 1e-9, "{size:?}");
    }
    assert_eq!(
        pressed.doubts,
        [("bag".to_owned(), Doubt::Laid(Pose::Pressed))]
    );
    assert_eq!(pressed.loaded(), 6.0);
    // 0.93 pressed is 0.837: its own size is told, along, not across.
    for (size, soft) in [([0.93, 0.4, 0.15], true), ([0.9, 0.4, 0.15], false)] {
        let left = &fish(size, soft).unplaced[0];
        assert_eq!(
            (left.why.code, left.why.needs),
            (RefusedBy::TooLong, size[0])
        );
        let words = format!(
            "bag: {:.0}\u{a0}mm long, well takes 828\u{a0}mm",
            1000.0 * size[0]
        );
        assert_eq!(left.text(System::Metric), words);
    }
    // What has room as it is is not pressed.
    let roomy = fish([0.8, 0.4, 0.15], true);
    assert!((lies(&roomy, "bag").unwrap().0[0] - 0.8).abs() < 1e-9);
    assert!(roomy.doubts.is_empty());
}

#[test]
fn a_soft_thing_with_something_hard_in_it_gives_no_further_than_that() {
    let hull = well(0.828, 0.45);
    let mut holder = bag([0.9, 0.4, 0.15], true);
    holder.brings.inside = Some([0.88, 0.38, 0.14]);
    let of = |length: f64| {
        let mut inner = line(&gear("rule", 0.5, [length, 0.1, 0.02]));
        inner.within = holder.key.clone();
        laid(&hull, &rig(vec![line(&holder), inner]))
    };
    // 0.88 pressed is 0.792.
    assert!(of(0.79).unplaced.is_empty());
    let left = of(0.80);
    assert_eq!(left.unplaced[0].item, "bag");
}

#[test]
fn what_may_lies_on_another_side_before_it_is_left() {
    let hull = well(0.6, 0.2);
    let free = |size| {
        let mut thing = gear("board", 2.0, size);
        thing.needs.upright = false;
        thing
    };
    let board = free([0.5, 0.3, 0.05]);
    let layout = laid(&hull, &rig(vec![line(&board)]));
    checked(&hull, &layout);
    assert_eq!(lies(&layout, "board").unwrap().0, [0.5, 0.05, 0.3]);
    let said = ("board".to_owned(), Doubt::Laid(Pose::OnEdge));
    assert_eq!(layout.doubts, [said]);
    // Neither what must stand, nor what runs out or falls over.
    let mut upright = board.clone();
    upright.needs.upright = true;
    let mut full = board.clone();
    full.loaded_mass = 5.0;
    let mut container = board.clone();
    container.brings.inside = Some([0.4, 0.2, 0.04]);
    for thing in [upright, full, container] {
        assert_eq!(laid(&hull, &rig(vec![line(&thing)])).unplaced.len(), 1);
    }
    // On its end at last.
    // On its end at last, where it is not so slender that it would not stand.
    let long = free([0.65, 0.24, 0.19]);
    assert_eq!(laid(&hull, &rig(vec![line(&long)])).unplaced.len(), 1);
    let short = free([0.65, 0.25, 0.22]);
    let small = well(0.6, 0.24);
    let layout = laid(&small, &rig(vec![line(&short)]));
    assert_eq!(lies(&layout, "board").unwrap().0, [0.25, 0.22, 0.65]);
}

fn rod() -> Gear {
    Gear {
        fixings: vec![Fixing::Holder],
        price: Some(90.0),
        ..Gear::plain("rod", "rod", Category::Rods, 0.4, Some([2.1, 0.12, 0.12]))
    }
}

#[test]
fn a_holder_on_a_track_offers_a_place_for_a_rod() {
    let track = FittingKind::Track {
        length: 0.4,
        slot: None,
    };
    let hull = hull(Vec::new(), vec![fitting("rail", track, 1.5, 0.35)]);
    let mut holder = gear("holder", 0.4, [0.09, 0.08, 0.28]);
    holder.fixings = vec![Fixing::Track];
    holder.brings.tubes = 1;
    let without = laid(&hull, &rig(vec![line(&rod())]));
    assert_eq!(without.unplaced.len(), 1);
    let with = laid(&hull, &rig(vec![line(&holder), line(&rod())]));
    assert!(with.unplaced.is_empty(), "{:?}", with.unplaced);
    assert_eq!(lies(&with, "rod").unwrap().1, "a tube of the holder");
}

#[test]
fn a_leash_ties_the_dearest_and_needs_no_place() {
    // A board: no pocket, no well, nothing a leash could lie in.
    let mut board = hull(Vec::new(), Vec::new());
    board.construction = Construction::Board;
    let holder = |n: f64| {
        let kind = FittingKind::RodHolder {
            flush: true,
            angle: None,
            facing: galvet_core::hull::Facing::Aft,
            reversible: false,
        };
        fitting(&format!("holder {n}"), kind, 2.4 + n, 0.3)
    };
    board.fitout.fittings.extend([holder(0.0), holder(0.1)]);
    let mut leash = Gear::plain(
        "leash",
        "leash",
        Category::Rods,
        0.05,
        Some([0.12, 0.06, 0.02]),
    );
    leash.fixings = vec![Fixing::Loose];
    leash.tether = Tether::Tethered;
    leash.brings.tethers = 1;
    let dear = Gear {
        key: "dear".into(),
        name: "dear rod".into(),
        price: Some(300.0),
        ..rod()
    };
    let lost = |rig: &Rig| {
        let layout = laid(&board, rig);
        assert!(layout.unplaced.is_empty(), "{:?}", layout.unplaced);
        assert!(layout.astray(rig).abs() < 1e-9);
        audit(&layout, rig)
    };
    let bare = lost(&rig(vec![line(&rod()), line(&dear)]));
    assert_eq!((bare.lost, bare.lines), (390.0, 0));
    // In whatever order the rig names them.
    for lines in [
        vec![line(&leash), line(&rod()), line(&dear)],
        vec![line(&rod()), line(&dear), line(&leash)],
    ] {
        let tied = lost(&rig(lines));
        assert_eq!((tied.lost, tied.lines), (90.0, 1));
        let ends = |item: &str| tied.things.iter().find(|t| t.item == item).unwrap().loss;
        assert_eq!(
            (ends("dear rod"), ends("leash")),
            (Loss::Stays, Loss::Stays)
        );
    }
}

#[test]
fn a_leash_ties_neither_people_nor_what_is_worn() {
    let mut leash = Gear::plain(
        "leash",
        "leash",
        Category::Rods,
        0.05,
        Some([0.1, 0.1, 0.1]),
    );
    leash.fixings = vec![Fixing::Strap];
    leash.brings.tethers = 2;
    let mut dog = gear("dog", 20.0, [0.5, 0.3, 0.4]);
    dog.category = Category::Company;
    let mut radio = gear("radio", 0.3, [0.1, 0.06, 0.04]);
    (radio.fixings, radio.price) = (vec![Fixing::Worn], Some(200.0));
    let kit = rig(vec![line(&dog), line(&radio), line(&leash)]);
    let layout = laid(&well(1.0, 0.6), &kit);
    assert!(layout.unplaced.is_empty(), "{:?}", layout.unplaced);
    // It lies by itself.
    let own = layout.stowed.iter().find(|s| s.item == "leash").unwrap();
    assert_eq!(own.lies.as_ref().unwrap().within, None);
    let tied = |s: &&galvet_core::stow::Stowed| {
        s.lies
            .as_ref()
            .is_some_and(|l| l.tether == Tether::Tethered)
    };
    assert_eq!(layout.stowed.iter().filter(tied).count(), 0);
}

#[test]
fn a_strap_lifts_getting_up_by_one_step() {
    let plain = brief(80.0, 1.8, rig(Vec::new()));
    let up = |hull: &Survey, rig: Rig| {
        let mut asked = plain.clone();
        asked.rig = rig;
        assess(hull, &asked, 16).median(Q::GettingUp).unwrap()
    };
    let seat = |height: f64| {
        let mut hull = well(0.8, 0.4);
        let reading = galvet_core::hull::Reading::new(
            Measure::SeatLow,
            height,
            galvet_core::hull::Source::Tape,
        );
        hull.readings
            .insert(Measure::SeatLow, vec![reading.unwrap()]);
        hull
    };
    let mut strap = gear("strap", 0.3, [0.3, 0.05, 0.03]);
    strap.brings.helps_up = true;
    // Knee 0.285 x 1.8 = 0.513 m; a tape's error leaves the median where it is, nearly.
    for (height, step) in [
        (0.205, 0.6 + 0.25 * (0.205 / 0.513) / 0.6),
        (0.36, 0.85 + 0.36 / 0.513 - 0.6),
    ] {
        let hull = seat(height);
        let alone = up(&hull, rig(Vec::new()));
        assert!((alone - height / 0.513).abs() < 0.01, "{alone}");
        let helped = up(&hull, rig(vec![line(&strap)]));
        assert!((helped - step).abs() < 0.01, "{helped} {step}");
        let bands = |v: f64| Q::GettingUp.band(v).unwrap();
        assert_ne!(bands(alone), bands(helped));
        // A strap on the hull does the same; one that finds no place does nothing.
        let mut railed = hull.clone();
        let rail = fitting("rail", FittingKind::AssistStrap, 1.8, 0.0);
        railed.fitout.fittings.push(rail);
        assert!((up(&railed, rig(Vec::new())) - helped).abs() < 1e-12);
        let mut huge = strap.clone();
        huge.size = Some([4.0, 0.5, 0.5]);
        assert!((up(&hull, rig(vec![line(&huge)])) - alone).abs() < 1e-12);
    }
}

fn stern_motor() -> Gear {
    let mut motor = Gear::plain(
        "motor",
        "stern motor",
        Category::Propulsion,
        7.8,
        Some([0.3, 0.22, 0.4]),
    );
    motor.fixings = vec![Fixing::Plate, Fixing::Drill];
    motor.holes = 4;
    motor.mount = "motor plate".into();
    motor.zones = vec![ZoneKind::SternDeck];
    motor.strain = galvet_core::gear::Strain::Anchor;
    motor
}

/// A plate of a motor's mount at a place.
fn plate(x: f64) -> Fitting {
    Fitting {
        mount: "motor plate".into(),
        ..fitting("plate", FittingKind::Plate, x, 0.0)
    }
}

fn setup(hull: &Survey, rig: Rig, at_hand: &[Gear]) -> Setup {
    let mut asked = brief(80.0, 1.8, rig);
    asked.at_hand = Arc::from(at_hand);
    Setup::new(posterior(hull, 8), Arc::new(asked))
}

fn left(setup: &Setup) -> Unplaced {
    setup.loads.layout.unplaced[0].clone()
}

/// Remedies of the first thing without a place.
fn offered(hull: &Survey, rig: Rig, at_hand: &[Gear]) -> Vec<Remedy> {
    let setup = setup(hull, rig, at_hand);
    remedies(&setup, &left(&setup), 9)
}

#[test]
fn a_stern_motor_goes_to_the_stern_or_is_told_where_it_was_meant_to() {
    let deck = zone("bow deck", ZoneKind::BowDeck, [0.1, 0.9, 0.4]);
    let bow = hull(vec![deck], vec![plate(0.3)]);
    let motors = || rig(vec![line(&stern_motor())]);
    let why = laid(&bow, &motors()).unplaced[0].clone();
    assert_eq!(
        why.text(System::Metric),
        "stern motor: meant for a motor plate or the stern deck, and there is none"
    );
    assert!(why.sure);
    // Where no fitting is on record there may be a plate that nobody noted.
    let mut unfitted = bow.clone();
    unfitted.fitout.fittings.clear();
    assert!(!laid(&unfitted, &motors()).unplaced[0].sure);
    let mut ready = bow.clone();
    ready.fitout.fittings.push(Fitting {
        name: "stern plate".into(),
        ..plate(3.4)
    });
    assert_eq!(
        lies(&laid(&ready, &motors()), "stern motor").unwrap().1,
        "stern plate"
    );
    // 15 min and 4 holes of 6 min each.
    let first = offered(&bow, motors(), &[]).remove(0);
    assert_eq!(
        (first.price, first.holes, first.minutes),
        (Some(55.0), 4, 39.0)
    );
    assert_eq!(
        first.text(System::Metric),
        "fits with a motor plate at the stern: 55, 4 holes, about 39 min (guide values)"
    );
    let Change::Fit(made) = first.change else {
        panic!("no change of the hull");
    };
    assert!((made.fittings[0].x - 0.94 * LENGTH).abs() < 1e-9);
}

#[test]
fn something_smaller_for_the_same_is_offered_before_what_costs_more() {
    let fish = |key: &str, size, price, owned| {
        let mut bag = gear(key, 6.0, size);
        bag.brings.fish = Some(0.9 * size[0]);
        bag.category = Category::Fish;
        (bag.price, bag.owned) = (Some(price), owned);
        bag
    };
    let large = fish("large", [0.9, 0.4, 0.15], 79.0, true);
    let bought = fish("bought", [0.5, 0.3, 0.12], 38.0, false);
    let owned = fish("owned", [0.55, 0.3, 0.12], 44.0, true);
    let too_long = fish("too long", [0.8, 0.3, 0.12], 20.0, true);
    let mut other = owned.clone();
    (other.key, other.brings.fish) = ("other".into(), None);
    let shelf = [bought, too_long, other, owned];
    let found = offered(&well(0.6, 0.45), rig(vec![line(&large)]), &shelf);
    let keys: Vec<String> = found.iter().map(Remedy::key).collect();
    assert_eq!(keys, ["swap-owned", "swap-bought"]);
    assert_eq!((found[0].price, found[1].price), (Some(0.0), Some(38.0)));
    // Three of them are three to buy.
    let mut three = line(&large);
    three.count = 3;
    let many = setup(&well(0.6, 1.2), rig(vec![three]), &shelf[..1]);
    let swap = remedies(&many, &left(&many), 1);
    assert_eq!(swap[0].price, Some(3.0 * 38.0));
    let words = found[1].text(System::Metric);
    assert_eq!(words, "instead of it fits (well) the bought: 38");
}

#[test]
fn a_want_put_by_hand_stays_ashore_for_a_must() {
    let mut hull = well(0.6, 0.45);
    let must = gear("cooler", 8.0, [0.5, 0.4, 0.3]);
    let want = gear("spare crate", 3.0, [0.4, 0.4, 0.3]);
    let mut spare = line(&want);
    spare.importance = Importance::Want;
    let both = rig(vec![line(&must), spare]);
    hull.looked.laid.insert(
        both.key.clone(),
        vec![Pin {
            thing: want.key.clone(),
            nth: 0,
            place: "well".into(),
            x: 2.6,
            y: 0.0,
            turned: false,
        }],
    );
    let found = offered(&hull, both.clone(), &[]);
    assert_eq!(
        found[0].text(System::Metric),
        "fits (well) if left ashore: spare crate"
    );
    assert_eq!((found[0].price, found[0].holes), (Some(0.0), 0));
    let then = found[0].rig(&both);
    assert_eq!(then.loaded(), 8.0);
}

#[test]
fn a_hatch_too_small_is_made_larger_where_its_place_is_measured() {
    let mut hatch = zone("hatch", ZoneKind::BowHatch, [0.3, 0.9, 0.4]);
    hatch.height = Some(0.25);
    hatch.opening = Some(Opening::Round(0.15));
    let mut thing = gear("box", 2.0, [0.3, 0.16, 0.12]);
    thing.zones = vec![ZoneKind::BowHatch];
    let hull = hull(vec![hatch], Vec::new());
    let found = offered(&hull, rig(vec![line(&thing)]), &[]);
    let Change::Fit(made) = &found[0].change else {
        panic!("{found:?}");
    };
    // The two smaller sides and a finger's breadth.
    let opening = made.zones[0].opening;
    assert_eq!(opening, Some(Opening::Rectangle(0.17, 0.13)));
    assert_eq!(
        (found[0].price, found[0].holes, found[0].minutes),
        (Some(95.0), 10, 75.0)
    );
    // Made, it goes in.
    let mut changed = hull.clone();
    changed.fitout.modifications.push((**made).clone());
    assert!(laid(&changed, &rig(vec![line(&thing)])).unplaced.is_empty());
}

#[test]
fn a_change_of_a_leaflets_hull_keeps_what_it_is_guessed_to_have() {
    let readings = [(Measure::Length, 3.7), (Measure::Beam, 0.86)];
    let hull = common::survey(Construction::SitOnTop, BottomShape::Flat, &readings);
    let names = |hull: &Survey| {
        let (all, guessed) = galvet_core::hull::fittings(hull, [3.7, 0.86]);
        let names: Vec<String> = all.into_iter().map(|f| f.name).collect();
        (names, guessed)
    };
    let (before, guessed) = names(&hull);
    assert!(guessed && before.len() == 6, "{before:?}");
    let setup = setup(&hull, rig(vec![line(&stern_motor())]), &[]);
    let found = remedies(&setup, &left(&setup), 1);
    let Change::Fit(made) = &found[0].change else {
        panic!("{found:?}");
    };
    let mut changed = hull.clone();
    changed.fitout.modifications.push((**made).clone());
    let (after, _) = names(&changed);
    assert_eq!(after.len(), 7);
    assert!(before.iter().all(|name| after.contains(name)));
    // What it takes off by name is gone.
    changed.fitout.modifications[0].removes = vec![before[0].clone()];
    assert!(!names(&changed).0.contains(&before[0]));
}

#[test]
fn a_ruled_out_hull_says_what_would_give_the_thing_its_place() {
    let deck = zone("bow deck", ZoneKind::BowDeck, [0.1, 0.9, 0.4]);
    let mut hull = hull(vec![deck], Vec::new());
    hull.readings.extend(
        common::needle()
            .readings
            .remove_entry(&Measure::RatedCapacity),
    );
    let mut question = asked(80.0, Posture::Sits);
    question.rig = rig(vec![line(&stern_motor())]);
    let answer = common::ranking(&[hull], &question, 16);
    let out = &answer.ruled_out[0].reasons;
    let words: Vec<String> = out.iter().map(|r| r.text(System::Metric)).collect();
    let all = words.join(" · ");
    assert!(
        all.contains("and there is none; fits with a motor plate at the stern: 55, 4 holes"),
        "{all}"
    );
    assert_eq!(
        Guides::default()[galvet_core::guide::Guide::PlatePrice],
        55.0
    );
}
