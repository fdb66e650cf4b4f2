//! Fixtures shared by the store's tests.
#![allow(dead_code, reason = "each test file uses its own part")]
#![allow(
    clippy::unwrap_used,
    reason = "a fixture that does not build is a failed test"
)]

use galvet_core::hull::Measure;
use galvet_store::files::{evidence, hulls, rigs, waters};
use galvet_store::{Catalogue, Record, SavedBrief, Store};
use std::fs;
use std::path::PathBuf;

pub fn demo(name: &str) -> String {
    let path = PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("../../demo");
    fs::read_to_string(path.join(name)).unwrap()
}

pub fn catalogue() -> Catalogue {
    let question = serde_json::from_str(&demo("briefs/1-reed-edge.json")).unwrap();
    Catalogue {
        hulls: hulls::read("hulls.csv", &demo("hulls.csv")).unwrap().hulls,
        waters: waters::read("waters.json", &demo("waters.json")).unwrap(),
        rigs: rigs::read("rigs.json", &demo("rigs.json")).unwrap(),
        briefs: vec![SavedBrief {
            key: "reed-edge".to_owned(),
            name: "Reeds".to_owned(),
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
    hull.extra.insert("colour".into(), "reed green".into());
    Record::Hull(Box::new(hull))
}
