//! Fixtures shared by the store's tests.
#![allow(dead_code, reason = "each test file uses its own part")]
#![allow(
    clippy::unwrap_used,
    reason = "a fixture that does not build is a failed test"
)]

use galvet_core::gear::Gear;
use galvet_core::hull::{
    Configuration, Dryness, Facing, Fitout, Fitting, FittingKind, Measure, Modification, Opening,
    Progress, Propulsion, Reach, Recess, ScupperState, SeatSetting, SeatUsed, Source, Zone,
    ZoneKind,
};
use galvet_core::rig::Rig;
use galvet_store::files::{evidence, gear, hulls, rigs, waters};
use galvet_store::{Catalogue, Record, SavedBrief, Store, StoreError};
use std::fs;
use std::path::PathBuf;

pub fn demo(name: &str) -> String {
    let path = PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("../../demo");
    fs::read_to_string(path.join(name)).unwrap()
}

/// A file kept as it was.
pub fn fixture(name: &str) -> String {
    let path = PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("tests/fixtures");
    fs::read_to_string(path.join(name)).unwrap()
}

/// The shelf of the first release's demo.
pub fn first_shelf() -> Vec<Gear> {
    gear::read("gear-1.json", &fixture("gear-1.json")).unwrap()
}

/// The rigs of the first release's demo: most things by free text, each with its
/// own place.
pub fn first_rigs() -> Vec<Rig> {
    rigs::read("rigs-1.json", &fixture("rigs-1.json"), &first_shelf()).unwrap()
}

pub fn catalogue() -> Catalogue {
    let question = serde_json::from_str(&demo("briefs/1-reed-edge.json")).unwrap();
    let shelf = gear::read("gear.json", &demo("gear.json")).unwrap();
    Catalogue {
        hulls: hulls::read("hulls.csv", &demo("hulls.csv")).unwrap().hulls,
        waters: waters::read("waters.json", &demo("waters.json")).unwrap(),
        rigs: rigs::read("rigs.json", &demo("rigs.json"), &shelf).unwrap(),
        gear: shelf,
        briefs: vec![SavedBrief {
            key: "reed-edge".to_owned(),
            name: "Reeds: at dawn".to_owned(),
            customer: "Torv Essen".to_owned(),
            question,
        }],
        ..Catalogue::default()
    }
}

/// A fresh data directory with the catalogue in it.
pub fn filled() -> (tempfile::TempDir, Store) {
    let directory = tempfile::tempdir().unwrap();
    let store = Store::open(directory.path()).unwrap();
    store.fill("test", &catalogue()).unwrap();
    (directory, store)
}

/// A hull with everything a record can hold.
pub fn rich() -> Record {
    let mut hull = catalogue().hulls[0].clone();
    for (_, item) in evidence::read("e.json", &demo("evidence.json")).unwrap() {
        hull.survey.evidence.push(item);
    }
    hull.survey.evidence[0].date = "2026-05-03".to_owned();
    hull.survey.evidence[0].density = 1010.0;
    let reading = &mut hull.survey.readings.get_mut(&Measure::Beam).unwrap()[0];
    reading.date = "2026-04-12".to_owned();
    reading.who = "Ana".to_owned();
    reading.note = "over the rail".to_owned();
    hull.survey.offsets = [0.0, 1.0, 3.7]
        .map(|x| galvet_core::hull::Station {
            x,
            points: vec![(0.0, 0.0), (0.4, 0.0), (0.4, 0.3), (0.0, 0.3)],
        })
        .to_vec();
    hull.survey.fitout = fitout();
    hull.extra.insert("colour".into(), "reed green".into());
    Record::Hull(Box::new(hull))
}

/// Space with every kind of thing in it.
pub fn fitout() -> Fitout {
    let zone = |name: &str, kind, from, to| Zone {
        name: name.to_owned(),
        kind,
        from,
        to,
        width: 0.42,
        offset: 0.05,
        height: Some(0.22),
        height_at_lid: Some(0.19),
        floor: Some(0.14),
        opening: Some(Opening::Rectangle(0.40, 0.26)),
        dryness: Some(Dryness::Splash),
        reach: Some(Reach::AshoreOnly),
        underside_reachable: Some(true),
        non_slip: Some(false),
        padded: None,
        source: Source::Tape,
        date: "2026-04-12".to_owned(),
    };
    let fitting = |name: &str, kind, y| Fitting {
        name: name.to_owned(),
        kind,
        x: 1.6,
        y,
        z: Some(0.34),
        mount: "25 mm slot".to_owned(),
        source: Source::Guess,
    };
    let round = Zone {
        opening: Some(Opening::Round(0.15)),
        ..zone("stern hatch", ZoneKind::SternHatch, 3.3, 3.5)
    };
    let scupper = FittingKind::Scupper {
        recess: Recess::TankWell,
        diameter: 0.032,
        state: ScupperState::OneWay,
        plug: true,
    };
    let track = FittingKind::Track {
        length: 0.4,
        slot: Some(0.008),
    };
    let holder = FittingKind::RodHolder {
        flush: true,
        angle: Some(30.0),
        facing: Facing::Aft,
        reversible: false,
    };
    Fitout {
        zones: vec![zone("bow hatch", ZoneKind::BowHatch, 0.3, 0.8), round],
        fittings: vec![
            fitting("track, port", track, -0.33),
            fitting("holder, starboard", holder, 0.33),
            fitting("well scupper 1", scupper, 0.1),
            fitting("stern handle", FittingKind::Handle, 0.0),
        ],
        modifications: vec![Modification {
            name: "bigger stern hatch".to_owned(),
            progress: Progress::Planned,
            removes: vec!["stern hatch".to_owned()],
            zones: vec![zone("stern hatch", ZoneKind::SternHatch, 3.2, 3.5)],
            fittings: vec![fitting("pad eye", FittingKind::PadEye, 0.2)],
            dryness: vec![("bow hatch".to_owned(), Dryness::Wave)],
            mass: 0.6,
            x: 3.3,
            z: 0.3,
            holes: 6,
            price: Some(48.0),
            can_be_undone: false,
            note: "cut once".to_owned(),
        }],
        configurations: vec![Configuration {
            name: "light".to_owned(),
            seats: 1,
            seat_used: SeatUsed::Only,
            seat: SeatSetting::Fishing,
            propulsion: Propulsion::Paddle,
            modifications: vec!["bigger stern hatch".to_owned()],
        }],
    }
}

/// Takes the last act of somebody back.
pub fn undo(store: &Store, who: &str) -> Result<String, StoreError> {
    let act = store.steps(who, None)?.undo;
    let act = act.ok_or(StoreError::Nothing("there is nothing to undo"))?;
    store.reverse(who, act.group)
}

/// Does again what somebody took back last.
pub fn redo(store: &Store, who: &str) -> Result<String, StoreError> {
    let act = store.steps(who, None)?.redo;
    let act = act.ok_or(StoreError::Nothing("there is nothing to redo"))?;
    store.reverse(who, act.group)
}
