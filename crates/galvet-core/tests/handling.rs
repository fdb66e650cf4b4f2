//! Side areas, drift and helm, against boxes by hand.

use crate::common;
use crate::stow_hull;

use common::{assess, box_hull, brief, rig};
use galvet_core::guide::Guides;
use galvet_core::handling::{bow, drift, helm, side_areas, windage};
use galvet_core::hull::{Construction, Measure, Pin, Reading, Source, ZoneKind};
use galvet_core::rig::RigLine;
use stow_hull::{gear, hull, line, zone};

#[test]
fn a_box_shows_the_wind_and_the_water_its_sides() {
    let board = box_hull(Construction::Board, 3.6, 0.9, 0.3);
    let a = assess(&board, &brief(84.0, 1.8, rig(10.0, 0.5, 0.1)), 16);
    let areas = side_areas(&a.setup, a.middle).unwrap();
    // By Archimedes: 93 kg of angler, 10 of kit, the box; 3.24 m² of waterplane.
    let draft = (103.0 + a.middle.hull_mass) / 3240.0;
    assert!(
        (areas.below.size - 3.6 * draft).abs() < 2e-3,
        "{areas:?} {draft}"
    );
    assert!(
        (areas.hull.size - 3.6 * (0.3 - draft)).abs() < 2e-3,
        "{areas:?}"
    );
    // Kit nobody measured shows nothing.
    assert_eq!(areas.kit.size, 0.0);
    // On a deck the whole person shows: limbs as drawn and the head's disc, shares
    // of the stature squared: trunk 0.29 × 0.115 less its round ends, head π × 0.062²,
    // legs 0.49 × 0.065, arms 0.43 × 0.045; hidden behind the rim is none of it.
    let by_hand = 1.8f64.powi(2) * (0.020 + 0.0121 + 0.0319 + 0.0194 + 0.006);
    assert!(
        (areas.people.size - by_hand).abs() < 0.12 * by_hand,
        "{areas:?} {by_hand}"
    );
}

#[test]
fn drift_is_the_balance_of_two_drags() {
    let guides = Guides::default();
    let board = box_hull(Construction::Board, 3.6, 0.9, 0.3);
    let a = assess(&board, &brief(84.0, 1.8, rig(10.0, 0.5, 0.1)), 16);
    let areas = side_areas(&a.setup, a.middle).unwrap();
    let v = drift(6.0, &areas, 1000.0, &guides);
    // The wind felt from the drifting boat: 0.35 m² of somebody seated, by stature.
    let people = 0.35 * (1.8_f64 / 1.75).powi(2);
    let push = 1.225 * (1.1 * areas.hull.size + people) * (6.0 - v).powi(2);
    let hold = 1000.0 * 0.9 * areas.below.size * v * v;
    assert!((push - hold).abs() < 1e-9, "{push} {hold}");
    // Twice the wind, twice the drift.
    assert!((drift(12.0, &areas, 1000.0, &guides) - 2.0 * v).abs() < 1e-12);
    // From ahead: half its beam times freeboard, and who sits on it.
    let freeboard = areas.hull.size / 3.6;
    let ahead = 0.5 * 0.9 * freeboard + 0.40 * (1.8_f64 / 1.75).powi(2);
    assert!((areas.drag(&guides).ahead - ahead).abs() < 2e-3);
}

#[test]
fn the_helm_is_the_lever_between_the_two_centres() {
    // The hull's own centre lies 0.51 of the way aft, the seat a little forward: it
    // lies nearly level, and what it shows is even about the middle.
    let mut board = box_hull(Construction::Board, 3.6, 0.9, 0.3);
    let seat = Reading::new(Measure::SeatPlace, 0.495, Source::Tape).unwrap();
    board.readings.insert(Measure::SeatPlace, vec![seat]);
    let a = assess(&board, &brief(84.0, 1.8, rig(10.0, 0.5, 0.1)), 16);
    let guides = Guides::default();
    let areas = side_areas(&a.setup, a.middle).unwrap();
    let people = areas.people;
    let pushed = 0.35 * (1.8_f64 / 1.75).powi(2);
    let lever = pushed * (people.centre() - 1.8) / (pushed + 1.1 * areas.hull.size);
    let (rest, way) = helm(&areas, 3.6, &guides);
    assert!((rest - 100.0 * lever / 3.6).abs() < 0.5, "{rest} {lever}");
    // A tenth of the length more under way.
    assert!((way - rest - 10.0).abs() < 1e-9);
    // Legs forward of the hip: the people's centre lies ahead of the seat.
    assert!(
        people.centre() < 0.495 * 3.6 && people.centre() > 1.2,
        "{areas:?}"
    );
}

#[test]
fn a_boxs_bow_is_a_sixth_of_what_stands_over_the_water() {
    // The hull's own centre lies 0.51 of the way aft, the seat a little forward: level.
    let mut board = box_hull(Construction::Board, 3.6, 0.9, 0.3);
    let seat = Reading::new(Measure::SeatPlace, 0.495, Source::Tape).unwrap();
    board.readings.insert(Measure::SeatPlace, vec![seat]);
    let a = assess(&board, &brief(84.0, 1.8, rig(10.0, 0.5, 0.1)), 16);
    let over = 0.3 - (103.0 + a.middle.hull_mass) / 3240.0;
    let bow = bow(&a.setup, a.middle).unwrap();
    assert!((bow.freeboard - over).abs() < 4e-3, "{bow:?} {over}");
    assert!(
        (bow.volume - 0.6 * 0.9 * over).abs() < 2e-3,
        "{bow:?} {over}"
    );
}

#[test]
fn a_drive_let_down_and_a_rudder_hold_her() {
    let board = box_hull(Construction::Board, 3.6, 0.9, 0.3);
    let asked = brief(84.0, 1.8, rig(10.0, 0.5, 0.1));
    let bare = assess(&board, &asked, 16);
    let mut fitted = board.clone();
    let drive = Reading::new(Measure::DriveDepth, 0.4, Source::Tape).unwrap();
    fitted.readings.insert(Measure::DriveDepth, vec![drive]);
    fitted.tracks_straight = true;
    let more = assess(&fitted, &asked, 16);
    let below =
        |a: &galvet_core::figures::Assessment| side_areas(&a.setup, a.middle).unwrap().below.size;
    assert!((below(&more) - below(&bare) - 0.09).abs() < 1e-3);
    let drifts = |a| windage(a, 6.0).unwrap().drift.p50;
    assert!(drifts(&more) < drifts(&bare));
}

#[test]
fn kit_shows_its_outline_once() {
    let deck = |things: Vec<RigLine>| {
        let mut board = box_hull(Construction::Board, 3.6, 0.9, 0.3);
        board.fitout = hull(
            vec![zone("aft", ZoneKind::TankWell, [2.3, 3.3, 0.8])],
            Vec::new(),
        )
        .fitout;
        let a = assess(&board, &brief(84.0, 1.8, stow_hull::rig(things)), 16);
        let stowed = &a.setup.loads.layout.stowed;
        assert!(stowed.iter().all(|s| s.lies.is_some()), "{stowed:?}");
        // Above the rim, which is the deck of a box.
        let base = stowed[0].lies.as_ref().unwrap().base;
        (side_areas(&a.setup, a.middle).unwrap().kit.size, base)
    };
    let box_ = gear("box", 2.0, [0.40, 0.30, 0.25]);
    let (one, base) = deck(vec![line(&box_)]);
    assert!((one - 0.40 * (0.25 + base)).abs() < 0.006, "{one} {base}");
    // Beside each other they hide each other; a lower one adds nothing.
    let low = gear("low", 2.0, [0.40, 0.30, 0.10]);
    let pinned = |y: f64, of: &str| Pin {
        thing: of.into(),
        nth: 0,
        place: "aft".into(),
        x: 2.8,
        y,
        turned: false,
    };
    let mut board = box_hull(Construction::Board, 3.6, 0.9, 0.3);
    board.fitout = hull(
        vec![zone("aft", ZoneKind::TankWell, [2.3, 3.3, 0.8])],
        Vec::new(),
    )
    .fitout;
    let pins = vec![pinned(-0.2, "box"), pinned(0.2, "low")];
    board.looked.laid.insert("fixture".into(), pins);
    let things = stow_hull::rig(vec![line(&box_), line(&low)]);
    let a = assess(&board, &brief(84.0, 1.8, things), 16);
    let both = side_areas(&a.setup, a.middle).unwrap().kit.size;
    assert!((both - one).abs() < 0.006, "{both} {one}");
}
