//! What follows from a layout: moments, legs, modes, and who comes along.

use crate::stow_hull;

use galvet_core::crew::{Crew, Posture};
use galvet_core::gear::{Brings, Category, Fixing, Strain};
use galvet_core::guide::Guides;
use galvet_core::hull::{FittingKind, Pin, ZoneKind};
use galvet_core::stow::{
    Against, Demand, Engine, LegRoom, Mode, clashes, leg_room, paddle_length, work,
};
use stow_hull::{fitting, gear, hull, laid, lay, line, rig, zone};

#[test]
fn a_crate_with_three_rods_upright_raises_the_load_by_its_moments() {
    let well = zone("well", ZoneKind::TankWell, [2.3, 3.2, 0.45]);
    let mut crate_ = gear("crate", 3.0, [0.4, 0.33, 0.28]);
    crate_.centre_height = Some(0.12);
    crate_.brings = Brings {
        inside: Some([0.36, 0.3, 0.26]),
        tubes: 3,
        ..Brings::default()
    };
    let mut rod = gear("rod", 0.4, [2.1, 0.12, 0.12]);
    rod.centre_height = Some(0.55);
    rod.fixings = vec![Fixing::Holder];
    let box_ = gear("box", 0.9, [0.36, 0.22, 0.05]);
    let mut rods = line(&rod);
    rods.count = 3;
    let mut boxes = line(&box_);
    boxes.count = 2;
    boxes.within = "crate".into();
    let survey = hull(vec![well], Vec::new());
    let layout = laid(&survey, &rig(vec![line(&crate_), rods, boxes]));
    assert_eq!((layout.unplaced.len(), layout.unpacked.len()), (0, 0));
    let moment: f64 = layout
        .stowed
        .iter()
        .map(|s| s.loaded_mass * s.above_floor)
        .sum();
    // Well floor 0.04 over the cockpit's: crate at 0.16, boxes half way up 0.26
    // inside, rods 0.55 up from the crate's foot.
    let by_hand = 3.0 * 0.16 + 1.8 * (0.04 + 0.13) + 1.2 * (0.04 + 0.55);
    assert!((moment - by_hand).abs() < 1e-9, "{moment} {by_hand}");
    assert!((layout.loaded() - 6.0).abs() < 1e-9);
    // All in one place: the crate's.
    let x = layout.stowed[0].x;
    assert!(layout.stowed.iter().all(|s| (s.x - x).abs() < 1e-12));
    // Three rods and no fourth.
    let mut four = line(&rod);
    four.count = 4;
    let layout = laid(&survey, &rig(vec![line(&crate_), four]));
    assert_eq!(layout.unplaced.len(), 1);
    // A box that does not go in lies by itself, and that is said.
    let mut long = line(&gear("long box", 1.0, [0.5, 0.2, 0.1]));
    long.within = "crate".into();
    let layout = laid(&survey, &rig(vec![line(&crate_), long]));
    assert_eq!(layout.unpacked[0].2, "140 mm too large for it");
    assert_eq!(layout.stowed.iter().filter(|s| s.lies.is_some()).count(), 2);
}

#[test]
fn an_angler_is_set_up_or_told_by_how_much_not() {
    let seat = FittingKind::Seat {
        slide: 0.10,
        low: None,
        high: None,
    };
    let braces = FittingKind::FootBraces { slide: 0.20 };
    let survey = hull(
        Vec::new(),
        vec![
            fitting("seat", seat, 1.90, 0.0),
            fitting("braces", braces, 1.10, 0.0),
        ],
    );
    let guides = Guides::default();
    let fit = |stature| leg_room(&survey, Crew::new(80.0, stature).unwrap(), &guides);
    // 0.80 m apart, 0.15 m of play either way: 0.65 to 0.95 m of leg, 0.45 × stature.
    let LegRoom::SetUp { apart } = fit(1.80) else {
        panic!("{:?}", fit(1.80));
    };
    assert!((apart - 0.81).abs() < 1e-12);
    assert!(matches!(fit(2.11), LegRoom::SetUp { .. }));
    let LegRoom::TooTall(by) = fit(2.2) else {
        panic!("{:?}", fit(2.2));
    };
    assert!((by - 0.04).abs() < 1e-12, "{by}");
    let LegRoom::TooShort(by) = fit(1.4) else {
        panic!("{:?}", fit(1.4));
    };
    assert!((by - 0.02).abs() < 1e-12, "{by}");
    let bare = hull(Vec::new(), Vec::new());
    let crew = Crew::new(80.0, 1.8).unwrap();
    assert_eq!(leg_room(&bare, crew, &guides), LegRoom::NotKnown);
    // 2.30 + 0.8 × 0.15 + 0.5 × 0.22 + 0.4 × 0.05.
    assert!((paddle_length(0.90, 0.22, 1.80, &guides) - 2.55).abs() < 1e-12);
}

#[test]
fn in_each_mode_masses_and_heights_follow() {
    let well = zone("well", ZoneKind::TankWell, [2.3, 3.2, 0.45]);
    let tube = FittingKind::Tube {
        length: 0.3,
        diameter: 0.045,
    };
    let mut rod = gear("rod", 0.4, [2.1, 0.12, 0.12]);
    rod.category = Category::Rods;
    rod.fixings = vec![Fixing::Holder];
    rod.centre_height = Some(0.5);
    rod.strip_for_surf = true;
    let mut anchor = gear("anchor", 3.4, [0.36, 0.14, 0.14]);
    anchor.category = Category::Anchoring;
    let rig = rig(vec![line(&rod), line(&anchor)]);
    let holder = vec![fitting("tube", tube, 2.2, 0.35)];
    let guides = Guides::default();
    let (space, layout) = lay(&hull(vec![well], holder), &rig, Posture::Stands, &[]);
    let mode = |mode| layout.in_mode(mode, &rig, &space, &guides);
    assert_eq!(mode(Mode::UnderWay), layout);
    // Fishing: the anchor is out, the rod in a standing hand, 0.6 × 1.8 m up.
    let fishing = mode(Mode::Fishing);
    assert_eq!(fishing.loaded(), 0.4);
    assert!((fishing.stowed[0].above_floor - 1.08).abs() < 1e-12);
    assert!((fishing.stowed[0].x - (space.seat - 0.3)).abs() < 1e-12);
    // Landing: 3 kg at the gunwale, 0.45 m to starboard.
    let landing = mode(Mode::Landing);
    let list: f64 = landing.stowed.iter().map(|s| s.loaded_mass * s.y).sum();
    assert!((list - 3.0 * 0.45).abs() < 1e-12, "{list}");
    // Surf: the rod lies low, the anchor stays where it is strapped.
    let surf = mode(Mode::Surf);
    assert_eq!(surf.loaded(), layout.loaded());
    assert!(surf.stowed[0].top() < 0.3 && surf.stowed[0].above_floor < 0.15);
    assert_eq!(surf.stowed[1], layout.stowed[1]);
}

#[test]
fn what_is_put_in_the_way_is_told_by_what_and_by_how_much() {
    let survey = hull(
        vec![
            zone("tank well", ZoneKind::TankWell, [2.4, 3.2, 0.5]),
            zone("floor", ZoneKind::CockpitFloor, [1.1, 1.8, 0.4]),
        ],
        vec![],
    );
    let boxes = gear("box", 2.0, [0.3, 0.2, 0.2]);
    let mut two = line(&boxes);
    two.count = 2;
    let rig = rig(vec![two]);
    let put = |nth: u32, place: &str, x: f64, y: f64| Pin {
        thing: "box".into(),
        nth,
        place: place.into(),
        x,
        y,
        turned: false,
    };
    let told = |pins: &[Pin]| {
        let (space, layout) = lay(&survey, &rig, Posture::Stands, pins);
        let all = clashes(&layout, &space).into_iter();
        all.map(|c| (c.number, c.against)).collect::<Vec<_>>()
    };
    // 0.3 m long, their middles 0.25 m apart: told once.
    let both = [
        put(0, "tank well", 2.6, 0.0),
        put(1, "tank well", 2.85, 0.0),
    ];
    assert_eq!(told(&both), [(0, Against::Thing(1))]);
    let apart = [put(0, "tank well", 2.6, 0.0), put(1, "tank well", 2.9, 0.0)];
    assert!(told(&apart).is_empty());
    // Where one stands.
    let standing = [put(0, "floor", 1.4, -0.05)];
    assert_eq!(
        told(&standing),
        [(0, Against::Kept("the floor one stands on"))]
    );
    // 0.2 m wide at 0.40 m off the middle of a hull 0.9 m wide: 5 cm over the side.
    let out = told(&[put(0, "tank well", 2.8, -0.40)]);
    let [(0, Against::Side(by))] = out[..] else {
        panic!("{out:?}")
    };
    assert!((by - 0.05).abs() < 1e-9);
}

#[test]
fn what_a_layout_takes_is_counted_and_a_hull_can_be_left_whole() {
    let mut deck = zone("stern deck", ZoneKind::SternDeck, [3.2, 3.6, 0.4]);
    deck.underside_reachable = Some(true);
    let survey = hull(vec![deck], vec![]);
    let mut motor = gear("motor", 8.0, [0.3, 0.2, 0.3]);
    motor.fixings = vec![Fixing::Drill];
    motor.zones = vec![ZoneKind::SternDeck];
    motor.holes = 4;
    motor.strain = Strain::Anchor;
    let rig = rig(vec![line(&motor)]);
    let (space, layout) = lay(&survey, &rig, Posture::Sits, &[]);
    let needs = work(&layout, &space);
    assert_eq!((needs.bolts, needs.from_above, needs.sealed), (4, 0, 4));
    let [job] = &needs.jobs[..] else { panic!() };
    assert_eq!(
        (job.item.as_str(), job.place.as_str(), job.backed),
        ("motor", "stern deck", Some(true))
    );
    // Nobody looked beneath: what holds from above is bought.
    let mut unseen = survey.clone();
    unseen.fitout.zones[0].underside_reachable = None;
    let (space, layout) = lay(&unseen, &rig, Posture::Sits, &[]);
    let needs = work(&layout, &space);
    assert_eq!((needs.bolts, needs.from_above), (0, 4));
    // Without holes it finds no place on it.
    let guides = Guides::default();
    let demand = Demand::of(&rig, &guides);
    let mut engine = Engine::new(&space, &demand, &[], 0.0, &guides);
    engine.leave_her_whole();
    let whole = engine.lay();
    assert_eq!(whole.unplaced.len(), 1);
    assert_eq!(work(&whole, &space), galvet_core::stow::Work::default());
}

#[test]
fn what_is_put_into_too_small_a_place_is_told_so() {
    let mut console = zone("console", ZoneKind::Console, [1.3, 1.6, 0.16]);
    console.height = Some(0.15);
    let floor = zone("floor", ZoneKind::CockpitFloor, [1.1, 1.8, 0.4]);
    let survey = hull(vec![console, floor], vec![]);
    let rig = rig(vec![line(&gear("box", 2.0, [0.3, 0.16, 0.2]))]);
    let pin = Pin {
        thing: "box".into(),
        nth: 0,
        place: "console".into(),
        x: 1.45,
        y: 0.0,
        turned: false,
    };
    let (space, layout) = lay(&survey, &rig, Posture::Stands, &[pin]);
    let all = clashes(&layout, &space).into_iter().map(|c| c.against);
    let all: Vec<Against> = all.collect();
    // 5 cm too high for it, and it stands where one stands.
    assert!(all.contains(&Against::TooLarge), "{all:?}");
    assert!(
        all.contains(&Against::Kept("the floor one stands on")),
        "{all:?}"
    );
}
