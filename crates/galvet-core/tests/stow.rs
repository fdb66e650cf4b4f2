//! The stowing engine against brute force and hand-worked cases.

use crate::common;
use crate::stow_hull;

use common::survey;
use galvet_core::crew::{Hand, Posture};
use galvet_core::gear::{Fixing, Strain};
use galvet_core::guide::Guides;
use galvet_core::hull::{
    BottomShape, Construction, Fitting, FittingKind, Measure, Opening, Pin, Reach, Source, ZoneKind,
};
use galvet_core::rig::Importance;
use galvet_core::stow::{Aboard, Demand, Doubt, Engine, Layout, Piece, RefusedBy, Space};
use proptest::prelude::*;
use stow_hull::{Dice, LENGTH, by_force, checked, fitting, gear, hull, laid, lay, line, rig, zone};

/// Most of a rig's things that go into rooms, every way to share them out tried.
fn most_by_force(rooms: &[(i32, i32)], pieces: &[Piece]) -> usize {
    fn share(rooms: &[(i32, i32)], pieces: &[Piece], lots: &mut Vec<Vec<Piece>>) -> usize {
        let Some((piece, rest)) = pieces.split_first() else {
            let fits = lots
                .iter()
                .zip(rooms)
                .all(|(lot, room)| by_force(*room, &[], lot, &mut Vec::new()));
            return if fits {
                lots.iter().map(Vec::len).sum()
            } else {
                0
            };
        };
        let mut best = share(rooms, rest, lots);
        for r in 0..rooms.len() {
            lots[r].push(*piece);
            best = best.max(share(rooms, rest, lots));
            lots[r].pop();
        }
        best
    }
    share(rooms, pieces, &mut vec![Vec::new(); rooms.len()])
}

#[test]
fn the_engine_places_as_many_as_brute_force() {
    let mut dice = Dice(7_071);
    let mut crowded = 0;
    for case in 0..120 {
        // Decimetre cells: a well and a stern deck.
        let rooms = [
            (3 + dice.roll(3) as i32, 2 + dice.roll(3) as i32),
            (2 + dice.roll(2) as i32, 2 + dice.roll(2) as i32),
        ];
        let m = |cells: i32| f64::from(cells) / 10.0;
        let survey = hull(
            vec![
                zone(
                    "well",
                    ZoneKind::TankWell,
                    [2.2, 2.2 + m(rooms[0].0), m(rooms[0].1)],
                ),
                zone(
                    "deck",
                    ZoneKind::SternDeck,
                    [3.0, 3.0 + m(rooms[1].0), m(rooms[1].1)],
                ),
            ],
            Vec::new(),
        );
        let count = 3 + dice.roll(4) as usize;
        let cells: Vec<(i32, i32)> = (0..count)
            .map(|_| (1 + dice.roll(3) as i32, 1 + dice.roll(2) as i32))
            .collect();
        let lines = cells
            .iter()
            .enumerate()
            .map(|(n, &(l, w))| line(&gear(&format!("thing-{n}"), 1.0, [m(l), m(w), 0.1])));
        let rig = rig(lines.collect());
        let layout = laid(&survey, &rig);
        checked(&survey, &layout);
        let placed = layout.stowed.iter().filter(|s| s.lies.is_some()).count();
        assert_eq!(placed + layout.unplaced.len(), count);
        let pieces: Vec<Piece> = cells
            .iter()
            .map(|&(length, width)| Piece {
                length,
                width,
                turns: true,
                within: i32::MAX,
            })
            .collect();
        let most = most_by_force(&rooms, &pieces);
        assert_eq!(placed, most, "case {case}: {rooms:?} {cells:?}");
        crowded += usize::from(most < count);
    }
    assert!(crowded > 20, "{crowded}");
}

#[test]
fn what_is_five_millimetres_too_high_goes_elsewhere_or_is_told_by_how_much() {
    let mut low = zone("well", ZoneKind::TankWell, [2.3, 3.2, 0.45]);
    low.height = Some(0.330);
    let cooler = |height: f64| rig(vec![line(&gear("cooler", 4.0, [0.4, 0.3, height]))]);
    let only = hull(vec![low.clone()], Vec::new());
    assert_eq!(laid(&only, &cooler(0.330)).unplaced, []);
    let layout = laid(&only, &cooler(0.335));
    let [unplaced] = &layout.unplaced[..] else {
        panic!("{layout:?}");
    };
    assert_eq!(unplaced.why.code, RefusedBy::TooHigh);
    assert_eq!(unplaced.why.place, "well");
    let over = unplaced.why.needs - unplaced.why.gives;
    assert!((over - 0.005).abs() < 1e-9 && unplaced.sure && unplaced.must);
    // Counted all the same, where the rig says.
    assert_eq!(layout.loaded(), 4.0);
    // With a deck beside, it goes there.
    let deck = zone("deck", ZoneKind::SternDeck, [3.2, 3.65, 0.4]);
    let both = laid(&hull(vec![low.clone(), deck], Vec::new()), &cooler(0.335));
    assert_eq!(both.stowed[0].lies.as_ref().unwrap().zone, "deck");
    // A guess is no rule-out, but a thing to measure.
    low.source = Source::Guess;
    let guessed = laid(&hull(vec![low.clone()], Vec::new()), &cooler(0.335));
    let may = Doubt::MayNotFit("well".into());
    assert_eq!(guessed.doubts, [("cooler".to_owned(), may)]);
    assert!(guessed.unplaced.is_empty());
    let far = laid(&hull(vec![low], Vec::new()), &cooler(0.500));
    assert!(!far.unplaced[0].sure);
}

#[test]
fn an_opening_lets_pass_what_passes() {
    let mut hatch = zone("hatch", ZoneKind::BowHatch, [0.3, 0.9, 0.4]);
    hatch.height = Some(0.25);
    hatch.opening = Some(Opening::Round(0.20));
    let of = |opening, size| {
        let mut hatch = hatch.clone();
        hatch.opening = Some(opening);
        let layout = laid(
            &hull(vec![hatch], Vec::new()),
            &rig(vec![line(&gear("box", 2.0, size))]),
        );
        layout.unplaced.first().map(|u| (u.why.code, u.why.needs))
    };
    // 12 × 16 cm across: 20 cm by the diagonal.
    assert_eq!(of(Opening::Round(0.20), [0.3, 0.16, 0.12]), None);
    let (code, needs) = of(Opening::Round(0.199), [0.3, 0.16, 0.12]).unwrap();
    assert_eq!(code, RefusedBy::Opening);
    assert!((needs - 0.20).abs() < 1e-12);
    assert_eq!(of(Opening::Rectangle(0.17, 0.12), [0.3, 0.16, 0.12]), None);
    let (_, needs) = of(Opening::Rectangle(0.17, 0.11), [0.3, 0.16, 0.12]).unwrap();
    assert_eq!(needs, 0.12);
}

#[test]
fn nothing_lies_where_one_stands_or_where_legs_are() {
    let floor = zone("floor", ZoneKind::CockpitFloor, [1.0, 1.9, 0.45]);
    let mut bag = gear("bag", 2.0, [0.3, 0.2, 0.2]);
    bag.zones = vec![ZoneKind::CockpitFloor];
    let rig = rig(vec![line(&bag)]);
    let survey = hull(vec![floor], Vec::new());
    let (_, stands) = lay(&survey, &rig, Posture::Stands, &[]);
    assert!(stands.stowed[0].lies.is_none() && stands.unplaced[0].sure);
    // Seat at 1.961, inside leg 0.45 × 1.8: feet at 1.151, kept from 15 cm ahead.
    let (space, sits) = lay(&survey, &rig, Posture::Sits, &[]);
    assert!((space.feet - 1.151).abs() < 1e-9);
    assert!(sits.stowed[0].lies.is_none(), "no room ahead of the feet");
    let longer = zone("floor", ZoneKind::CockpitFloor, [0.6, 1.9, 0.45]);
    let survey = hull(vec![longer], Vec::new());
    let (_, ahead) = lay(&survey, &rig, Posture::Sits, &[]);
    let lies = ahead.stowed[0].lies.as_ref().unwrap();
    assert!(ahead.stowed[0].x + lies.size[0] / 2.0 <= 1.001 + 1e-9);
}

#[test]
fn what_must_be_reached_lies_within_reach() {
    // A long well, 2.3 to 3.5; arm 0.44 × 1.8 behind the seat at 1.961: 2.753.
    let well = zone("well", ZoneKind::TankWell, [2.3, 3.5, 0.4]);
    let mut near = gear("box", 1.0, [0.4, 0.4, 0.1]);
    near.needs.reach = Some(Reach::Turning);
    let far = gear("cooler", 6.0, [0.4, 0.4, 0.3]);
    let survey = hull(vec![well], Vec::new());
    let layout = laid(&survey, &rig(vec![line(&far), line(&near)]));
    checked(&survey, &layout);
    let at = |name: &str| layout.stowed.iter().find(|s| s.item == name).unwrap();
    assert!(at("box").x <= 1.961 + 0.44 * 1.8 && at("cooler").x > at("box").x);
    assert_eq!(layout.deck.as_ref().unwrap().out_of_reach, 0);
    assert_eq!(at("box").lies.as_ref().unwrap().reach, Reach::Turning);
    // Two of them: the second does not reach, and that is counted.
    let mut two = line(&near);
    two.count = 2;
    let layout = laid(&survey, &rig(vec![line(&far), two]));
    assert_eq!(layout.unplaced, []);
    assert_eq!(layout.deck.unwrap().out_of_reach, 1);
}

#[test]
fn the_ladder_is_climbed_from_its_best_rung() {
    let track = |slot: &str| Fitting {
        mount: slot.into(),
        ..fitting(
            "track",
            FittingKind::Track {
                length: 0.4,
                slot: None,
            },
            2.4,
            0.36,
        )
    };
    let well = zone("well", ZoneKind::TankWell, [2.3, 3.2, 0.40]);
    let mut arm = gear("arm", 0.8, [0.08, 0.06, 0.25]);
    arm.fixings = vec![Fixing::Track, Fixing::Strap, Fixing::Drill];
    arm.mount = "T-slot".into();
    arm.strain = Strain::Boom;
    arm.holes = 4;
    let lines = rig(vec![line(&arm)]);
    let with = |fittings| laid(&hull(vec![well.clone()], fittings), &lines);
    let held = |layout: &Layout| {
        let lies = layout.stowed[0].lies.clone();
        lies.map(|l| (l.fixing, l.holes))
    };
    assert_eq!(held(&with(vec![track("T-slot")])), Some((Fixing::Track, 0)));
    // A strap does not hold an arm, a well so low is not drilled: nothing holds it.
    let none = with(vec![track("dovetail")]);
    assert_eq!(held(&none), None);
    assert!(none.unplaced[0].sure);
    // A track whose slot nobody looked at may take it.
    let maybe = with(vec![track("")]);
    assert_eq!(maybe.doubts[0].1, Doubt::Mount("track".into()));
    // A deck high enough is drilled, at last.
    let deck = zone("deck", ZoneKind::SternDeck, [3.2, 3.6, 0.3]);
    let drilled = laid(&hull(vec![deck], Vec::new()), &lines);
    assert_eq!(held(&drilled), Some((Fixing::Drill, 4)));
    // An adapter saves the holes.
    let mut adapter = gear("adapter", 0.1, [0.05, 0.05, 0.02]);
    adapter.brings.adapts = Some(("dovetail".into(), "T-slot".into()));
    let lines = rig(vec![line(&arm), line(&adapter)]);
    let adapted = laid(&hull(vec![well], vec![track("dovetail")]), &lines);
    let lies = adapted.stowed.iter().find(|s| s.item == "arm").unwrap();
    assert_eq!(
        lies.lies.as_ref().unwrap().adapter.as_deref(),
        Some("adapter")
    );
}

#[test]
fn pins_hold_and_the_rest_goes_around_them() {
    let well = zone("well", ZoneKind::TankWell, [2.3, 3.3, 0.4]);
    let survey = hull(vec![well], Vec::new());
    let rig = rig(vec![
        line(&gear("crate", 5.0, [0.4, 0.3, 0.3])),
        line(&gear("cooler", 4.0, [0.4, 0.3, 0.3])),
    ]);
    let pins = vec![Pin {
        thing: "crate".into(),
        nth: 0,
        place: "well".into(),
        x: 2.75,
        y: 0.0,
        turned: true,
    }];
    let (_, layout) = lay(&survey, &rig, Posture::Sits, &pins);
    checked(&survey, &layout);
    let (pinned, other) = (&layout.stowed[0], &layout.stowed[1]);
    assert_eq!((pinned.x, pinned.y), (2.75, 0.0));
    let lies = pinned.lies.as_ref().unwrap();
    assert!(lies.pinned && lies.size == [0.3, 0.4, 0.3]);
    assert!(other.lies.is_some() && (other.x - 2.75).abs() > 0.299);
    // In the very middle it leaves room for none.
    let narrow = hull(
        vec![zone("well", ZoneKind::TankWell, [2.3, 3.0, 0.4])],
        Vec::new(),
    );
    let pins = vec![Pin {
        x: 2.65,
        ..pins[0].clone()
    }];
    let (_, layout) = lay(&narrow, &rig, Posture::Sits, &pins);
    assert_eq!(layout.unplaced[0].item, "cooler");
}

#[test]
fn two_alike_go_to_both_sides() {
    let holder = |name: &str, y: f64| {
        let kind = FittingKind::Tube {
            length: 0.3,
            diameter: 0.045,
        };
        fitting(name, kind, 2.2, y)
    };
    let holders = vec![
        holder("port a", -0.35),
        holder("port b", -0.30),
        holder("starboard", 0.35),
    ];
    let mut rod = gear("rod", 0.7, [2.0, 0.1, 0.1]);
    rod.fixings = vec![Fixing::Holder];
    let mut rods = line(&rod);
    rods.count = 2;
    let layout = laid(&hull(Vec::new(), holders), &rig(vec![rods]));
    let list: f64 = layout.stowed.iter().map(|s| s.loaded_mass * s.y).sum();
    assert!(list.abs() <= 0.7 * 0.05 + 1e-9, "{list}");
}

#[test]
fn wants_stay_ashore_before_musts() {
    let well = zone("well", ZoneKind::TankWell, [2.3, 2.8, 0.4]);
    let mut want = line(&gear("chair", 3.0, [0.5, 0.4, 0.2]));
    want.importance = Importance::Want;
    let must = line(&gear("crate", 5.0, [0.3, 0.3, 0.3]));
    let layout = laid(&hull(vec![well], Vec::new()), &rig(vec![want, must]));
    assert_eq!(layout.unplaced[0].item, "chair");
    assert_eq!(layout.unplaced[0].why.code, RefusedBy::NoRoom);
    // A want that stays ashore weighs nothing aboard.
    assert_eq!(layout.loaded(), 5.0);
}

#[test]
fn what_holds_a_must_is_a_must() {
    // No well at all: a box that may stay ashore, with a must in it, may not.
    let mut box_ = gear("box", 1.0, [0.4, 0.3, 0.3]);
    box_.brings.inside = Some([0.36, 0.26, 0.26]);
    let mut want = line(&box_);
    want.importance = Importance::Want;
    let mut must = line(&gear("battery", 6.0, [0.2, 0.17, 0.17]));
    must.within = "box".into();
    let none = hull(Vec::new(), Vec::new());
    let layout = laid(&none, &rig(vec![want.clone(), must]));
    assert!(layout.unplaced[0].must && layout.unplaced[0].sure);
    assert_eq!(layout.loaded(), 7.0);
    let alone = laid(&none, &rig(vec![want]));
    assert!(!alone.unplaced[0].must);
    assert_eq!(alone.loaded(), 0.0);
}

#[test]
fn the_same_rig_lies_the_same_on_any_thread() {
    let survey = hull(
        vec![
            zone("well", ZoneKind::TankWell, [2.3, 3.2, 0.45]),
            zone("deck", ZoneKind::BowDeck, [0.2, 0.8, 0.35]),
        ],
        Vec::new(),
    );
    let mut dice = Dice(3);
    let things = (0..14).map(|n| {
        let size = |d: &mut Dice| 0.08 + 0.02 * d.roll(12) as f64;
        let size = [size(&mut dice), size(&mut dice), 0.1];
        line(&gear(&format!("thing-{n}"), 1.0, size))
    });
    let rig = rig(things.collect());
    let first = laid(&survey, &rig);
    checked(&survey, &first);
    std::thread::scope(|scope| {
        let runs: Vec<_> = (0..4)
            .map(|_| scope.spawn(|| laid(&survey, &rig)))
            .collect();
        for run in runs {
            assert_eq!(run.join().unwrap(), first);
        }
    });
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(60))]
    #[test]
    fn no_rig_breaks_the_engine(
        sizes in prop::collection::vec((0.01f64..2.4, 0.01f64..0.9, 0.01f64..0.7, 1u32..6, 0usize..9), 0..14),
        stands in any::<bool>(),
        construction in 0usize..3,
        beam in 0.5f64..1.1,
    ) {
        let construction = [Construction::SitOnTop, Construction::SitInside, Construction::Board][construction];
        let survey = survey(construction, BottomShape::Flat, &[(Measure::Length, LENGTH), (Measure::Beam, beam)]);
        let ladder = [Fixing::Worn, Fixing::Holder, Fixing::Insert, Fixing::Track, Fixing::Plate, Fixing::Strap, Fixing::Glue, Fixing::Drill, Fixing::Loose];
        let lines = sizes.iter().enumerate().map(|(n, &(l, w, h, count, rung))| {
            let mut thing = gear(&format!("thing-{n}"), 1.0 + n as f64, [l, w, h]);
            thing.fixings = vec![ladder[rung], ladder[(rung + 4) % 9]];
            thing.brings.tubes = u16::from(n % 3 == 0);
            thing.brings.lid = n % 4 == 0;
            let mut line = line(&thing);
            line.count = count;
            line
        });
        let rig = rig(lines.collect());
        let guides = Guides::default();
        let posture = if stands { Posture::Stands } else { Posture::Sits };
        let aboard = Aboard { posture, stature: 1.8, hand: Hand::Right, others: Vec::new() };
        let space = Space::of(&survey, aboard, [LENGTH, beam], &guides);
        let demand = Demand::of(&rig, &guides);
        let layout = Engine::new(&space, &demand, &[], 0.0, &guides).lay();
        checked(&survey, &layout);
        // Every must is in the load, placed or not.
        prop_assert!((layout.loaded() - rig.loaded()).abs() < 1e-6);
        prop_assert!(layout.stowed.iter().all(|s| s.x.is_finite() && s.y.is_finite() && s.above_floor.is_finite()));
    }
}
