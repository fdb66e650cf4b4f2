//! The database: what goes in comes out, whole or not at all.
#![allow(clippy::unwrap_used, reason = "tests")]

use crate::common;

use common::{catalogue, demo, filled, first_rigs, first_shelf, fixture, rich};
use galvet_core::hull::Measure;
use galvet_core::question::Demand;
use galvet_core::rig::Rig;
use galvet_store::files::hull_doc::HullDoc;
use galvet_store::files::hulls::HullRecord;
use galvet_store::files::{evidence, rigs, waters};
use galvet_store::{Kind, Record, Store, StoreError};
use std::fs;
use std::path::PathBuf;

#[test]
fn a_catalogue_survives_the_round_trip_and_a_restart() {
    let directory = tempfile::tempdir().unwrap();
    let mut put_in = catalogue();
    put_in.hulls[0]
        .extra
        .insert("colour".into(), "reed green".into());
    {
        let store = Store::open(directory.path()).unwrap();
        assert!(store.is_empty().unwrap());
        store.fill("test", &put_in).unwrap();
        assert!(!store.is_empty().unwrap());
    }
    let out = Store::open(directory.path()).unwrap().catalogue().unwrap();
    put_in.hulls.sort_by(|a, b| a.survey.key.cmp(&b.survey.key));
    assert_eq!(out.hulls, put_in.hulls);
    assert_eq!(out.waters, put_in.waters);
    assert_eq!(out.rigs, put_in.rigs);
    assert_eq!(out.briefs, put_in.briefs);
}

#[test]
fn a_filling_that_fails_leaves_nothing_behind() {
    let directory = tempfile::tempdir().unwrap();
    let store = Store::open(directory.path()).unwrap();
    let mut broken = catalogue();
    let twice = broken.hulls[3].clone();
    broken.hulls.push(twice);
    assert!(matches!(
        store.fill("test", &broken),
        Err(StoreError::Taken { .. })
    ));
    assert!(store.is_empty().unwrap());
    // A question that names a rig nobody has is refused.
    let mut adrift = catalogue();
    adrift.rigs.retain(|rig| rig.key != "reed-edge-day");
    assert!(store.fill("test", &adrift).is_err());
    assert!(store.is_empty().unwrap());
}

#[test]
fn a_record_tampered_with_is_set_aside_and_the_rest_stands() {
    use diesel::connection::SimpleConnection;
    use diesel::prelude::*;
    let (directory, store) = filled();
    let path = directory.path().join("galvet.db");
    let mut other = SqliteConnection::establish(path.to_str().unwrap()).unwrap();
    other
        .batch_execute(
            "UPDATE readings SET value = 1e300 WHERE measure = 'length' \
             AND hull_id = (SELECT id FROM hulls WHERE slug = 'quarnel-pipkin')",
        )
        .unwrap();
    let out = store.catalogue().unwrap();
    assert_eq!(out.hulls.len(), catalogue().hulls.len() - 1);
    assert_eq!(out.set_aside.len(), 1);
    let problem = &out.set_aside[0].problem;
    assert!(
        problem.contains("quarnel-pipkin")
            && problem.contains("length must lie between 1.8 and 7 m"),
        "{problem}"
    );
    // The journal knows what it was.
    let lost = &out.set_aside[0];
    store.mend("Ana", lost.kind, lost.known).unwrap();
    let back = store.catalogue().unwrap();
    assert!(back.set_aside.is_empty());
    let mut whole = catalogue().hulls;
    whole.sort_by(|a, b| a.survey.key.cmp(&b.survey.key));
    assert_eq!(back.hulls, whole);
}

#[test]
fn measurements_out_of_range_are_refused_by_hull() {
    let text = demo("evidence.json").replace("\"gm_m\": 0.41", "\"gm_m\": 41");
    let error = evidence::read("e.json", &text).unwrap_err().to_string();
    assert!(
        error.contains("velmoor-oskarin: GM must lie between"),
        "{error}"
    );
}

/// The rigs as the first release wrote them: no shelf, and one battery printed
/// otherwise.
fn free_text(rigs: &[Rig]) -> Vec<Rig> {
    let mut rigs = rigs.to_vec();
    for line in rigs.iter_mut().flat_map(|rig| &mut rig.lines) {
        line.gear = None;
        line.thing = None;
        line.chemistry = None;
        line.item = line.item.replace("12 V 48 Ah", "12 V 50 Ah");
    }
    rigs
}

/// That release multiplied centimetres by 0.01, which differs in the last digit
/// of a double from dividing by 100.
fn to_the_micron(mut hulls: Vec<HullRecord>) -> Vec<HullRecord> {
    for reading in hulls
        .iter_mut()
        .flat_map(|h| h.survey.readings.values_mut().flatten())
    {
        reading.value = (reading.value * 1e6).round() / 1e6;
    }
    hulls
}

#[test]
fn a_database_of_the_first_release_is_copied_aside_and_taken_over_whole() {
    let directory = tempfile::tempdir().unwrap();
    let fixture = PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("tests/fixtures/release-1.db");
    fs::copy(&fixture, directory.path().join("galvet.db")).unwrap();
    let store = Store::open(directory.path()).unwrap();
    let out = store.catalogue().unwrap();
    assert!(out.set_aside.is_empty(), "{:?}", out.set_aside);
    // What that release's demo held: hulls with readings, evidence and gaps.
    let mut demo_hulls = catalogue().hulls;
    for (key, item) in evidence::read("e.json", &demo("evidence.json")).unwrap() {
        let hull = demo_hulls.iter_mut().find(|h| h.survey.key == key).unwrap();
        hull.survey.evidence.push(item);
    }
    demo_hulls.sort_by(|a, b| a.survey.key.cmp(&b.survey.key));
    // Three of its hulls have been given other figures since.
    let moved = ["osprith-kelda-two", "tindrel-vaskar", "velmoor-oskarin"];
    let same = |hulls: Vec<HullRecord>| -> Vec<HullRecord> {
        let kept = hulls.into_iter();
        let kept = kept.filter(|h| !moved.contains(&h.survey.key.as_str()));
        to_the_micron(kept.collect())
    };
    let count = out.hulls.len();
    assert_eq!(count, demo_hulls.len());
    let (was, now) = (same(out.hulls), same(demo_hulls));
    assert_eq!(was.len(), count - moved.len());
    assert!(
        was == now,
        "a hull of the first release is not taken over whole"
    );
    // Streams, depths to anchor in and what a coast asks of a deck came later.
    let waters = catalogue().waters.into_iter().map(|mut water| {
        (water.stream, water.anchor_depth) = (None, None);
        water.demands.retain(|d| *d != Demand::ClearsWave);
        water
    });
    assert_eq!(out.waters, waters.collect::<Vec<_>>());
    assert_eq!(out.rigs, free_text(&first_rigs()));
    let brief = out
        .briefs
        .iter()
        .find(|b| b.key == "heavy-stander")
        .unwrap();
    assert_eq!(brief.question["crew"]["mass_kg"], 120.0);
    assert_eq!(brief.question["must"]["heaviest_lift_kg"], 55.0);
    assert!(brief.question.get("capacity_weight").is_none());
    assert_eq!(store.setting("units").unwrap().as_deref(), Some("imperial"));
    // Its records have their first line in the journal, and nothing to undo.
    let known = store
        .record(Kind::Hull, "hobrin-cassel")
        .unwrap()
        .unwrap()
        .0;
    assert_eq!(
        store
            .history(Kind::Hull, known.id, (99, None))
            .unwrap()
            .len(),
        1
    );
    assert!(matches!(
        common::undo(&store, "test"),
        Err(StoreError::Nothing(_))
    ));
    let names: Vec<String> = fs::read_dir(directory.path())
        .unwrap()
        .map(|e| e.unwrap().file_name().into_string().unwrap())
        .collect();
    assert!(names.iter().any(|n| n.contains("before")), "{names:?}");
}

#[test]
fn whom_a_question_was_kept_for_is_taken_out_of_its_name() {
    use diesel::connection::SimpleConnection;
    use diesel::prelude::*;
    let directory = tempfile::tempdir().unwrap();
    let fixture = PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("tests/fixtures/release-1.db");
    let path = directory.path().join("galvet.db");
    fs::copy(&fixture, &path).unwrap();
    let mut other = SqliteConnection::establish(path.to_str().unwrap()).unwrap();
    for (slug, name) in [
        ("heavy-stander", "Torv Essen: Lake: far side"),
        ("reed-edge", "Reeds:"),
        ("outer-sound", ": nobody's"),
    ] {
        let rename = format!(
            "UPDATE briefs SET name = '{}' WHERE key = '{slug}'",
            name.replace('\'', "''")
        );
        other.batch_execute(&rename).unwrap();
    }
    drop(other);
    let out = Store::open(directory.path()).unwrap().catalogue().unwrap();
    let all = out
        .briefs
        .iter()
        .map(|b| (b.key.as_str(), b.customer.as_str(), b.name.as_str()));
    let mut all: Vec<_> = all.collect();
    all.sort_unstable();
    assert_eq!(
        all,
        [
            ("heavy-stander", "Torv Essen", "Lake: far side"),
            ("outer-sound", "", ": nobody's"),
            ("reed-edge", "", "Reeds:"),
        ]
    );
}

#[test]
fn a_database_from_the_future_is_refused_in_plain_words() {
    use diesel::connection::SimpleConnection;
    use diesel::prelude::*;
    let (directory, store) = filled();
    drop(store);
    let path = directory.path().join("galvet.db");
    let mut other = SqliteConnection::establish(path.to_str().unwrap()).unwrap();
    other
        .batch_execute("INSERT INTO __diesel_schema_migrations (version) VALUES ('20991231000001')")
        .unwrap();
    drop(other);
    let before = fs::read(&path).unwrap();
    let error = Store::open(directory.path()).unwrap_err().to_string();
    assert!(error.contains("written by a newer Galvet"), "{error}");
    assert_eq!(fs::read(&path).unwrap(), before, "not touched");
}

#[test]
fn one_directory_has_one_holder() {
    let directory = tempfile::tempdir().unwrap();
    let first = Store::open(directory.path()).unwrap();
    assert!(matches!(
        Store::open(directory.path()),
        Err(StoreError::InUse { .. })
    ));
    drop(first);
    Store::open(directory.path()).unwrap();
}

#[test]
fn a_file_that_is_no_database_is_said_to_be_none() {
    let directory = tempfile::tempdir().unwrap();
    fs::write(
        directory.path().join("galvet.db"),
        "not a database, ".repeat(200),
    )
    .unwrap();
    let error = Store::open(directory.path()).unwrap_err().to_string();
    assert!(error.contains("cannot be opened"), "{error}");
    assert_eq!(error.lines().count(), 1, "{error}");
}

#[test]
fn settings_are_set_and_set_again() {
    let directory = tempfile::tempdir().unwrap();
    let store = Store::open(directory.path()).unwrap();
    assert_eq!(store.setting("units").unwrap(), None);
    store.set_setting("test", "units", "metric").unwrap();
    store.set_setting("test", "units", "imperial").unwrap();
    assert_eq!(store.setting("units").unwrap().as_deref(), Some("imperial"));
}

#[test]
fn shipped_hulls_keep_both_readings_of_a_contradiction() {
    let hulls = catalogue().hulls;
    let cassel = hulls
        .iter()
        .find(|h| h.survey.key == "hobrin-cassel")
        .unwrap();
    assert_eq!(cassel.survey.readings[&Measure::Length].len(), 2);
    assert_eq!(cassel.survey.value(Measure::Length), Some(3.58));
}

#[test]
fn wrong_waters_and_rigs_are_named() {
    let damp = demo("waters.json").replace("\"working_share\": 0.85", "\"working_share\": 8.5");
    let error = waters::read("w.json", &damp).unwrap_err().to_string();
    assert!(
        error.contains("pond: working share must lie between 0.3 and 1"),
        "{error}"
    );
    let heavy = fixture("rigs-1.json").replace("\"dry_mass_kg\": 6.5", "\"dry_mass_kg\": 650");
    let error = rigs::read("r.json", &heavy, &first_shelf())
        .unwrap_err()
        .to_string();
    assert!(
        error.contains("reed-edge-day, line 1 (tackle crate"),
        "{error}"
    );
    let typo = fixture("rigs-1.json").replace("\"place\": 0.74", "\"palce\": 0.74");
    let error = rigs::read("r.json", &typo, &first_shelf())
        .unwrap_err()
        .to_string();
    assert!(error.contains("line") && error.contains("palce"), "{error}");
}

#[test]
fn a_rich_record_survives_database_and_document() {
    let (_directory, store) = filled();
    let record = rich();
    let slug = record.slug().to_owned();
    let (known, _) = store.record(Kind::Hull, &slug).unwrap().unwrap();
    store
        .write("test", "all of it", |door| door.put(&record, Some(known)))
        .unwrap();
    assert_eq!(store.record(Kind::Hull, &slug).unwrap().unwrap().1, record);
    let Record::Hull(hull) = &record else {
        unreachable!()
    };
    let text = serde_json::to_string(&HullDoc::of(hull)).unwrap();
    let back: HullDoc = serde_json::from_str(&text).unwrap();
    assert_eq!(back.record().unwrap(), **hull);
}

#[test]
fn after_a_write_only_what_changed_is_read_again() {
    use diesel::connection::SimpleConnection;
    use diesel::prelude::*;
    let (directory, store) = filled();
    let before = store.read(None).unwrap();
    assert_eq!(before.catalogue.hulls, store.catalogue().unwrap().hulls);
    assert_eq!(before.state, store.state().unwrap());
    // What a hand in the file does to a record nobody wrote since tells what is read.
    let path = directory.path().join("galvet.db");
    let mut other = SqliteConnection::establish(path.to_str().unwrap()).unwrap();
    other
        .batch_execute("UPDATE hulls SET model = 'Tampered' WHERE slug = 'quarnel-pipkin'")
        .unwrap();
    let renamed = |record: &mut Record| {
        let Record::Hull(hull) = record else {
            panic!("no hull")
        };
        hull.survey.model = "Renamed".to_owned();
        Ok::<_, StoreError>(())
    };
    let row = (Kind::Hull, "tindrel-vaskar");
    store.edit("test", "renamed", row, renamed).unwrap();
    let thrown = (Kind::Hull, "hobrin-wendle");
    store.throw_away("test", thrown, None).unwrap();
    let model = |read: &galvet_store::Read, key: &str| {
        let hull = read.catalogue.hulls.iter().find(|h| h.survey.key == key);
        hull.map(|h| h.survey.model.clone())
    };
    let after = store.read(Some(&before)).unwrap();
    assert_eq!(after.state, store.state().unwrap());
    assert_eq!(model(&after, "tindrel-vaskar").as_deref(), Some("Renamed"));
    assert_eq!(model(&after, "hobrin-wendle"), None);
    assert_eq!(
        model(&after, "quarnel-pipkin"),
        model(&before, "quarnel-pipkin")
    );
    let whole = store.read(None).unwrap();
    assert_eq!(model(&whole, "quarnel-pipkin").as_deref(), Some("Tampered"));
    assert_eq!(after.catalogue.known, whole.catalogue.known);
    // A rig tells what the things in it are by now.
    let thing = after.catalogue.gear.iter();
    let thing = thing.map(|g| g.key.clone()).find(|key| {
        let lines = after.catalogue.rigs.iter().flat_map(|r| &r.lines);
        lines.into_iter().any(|l| l.gear.as_ref() == Some(key))
    });
    let key = thing.unwrap();
    let renamed = |record: &mut Record| {
        let Record::Gear(gear) = record else {
            panic!("no thing")
        };
        gear.name.push_str(" two");
        Ok::<_, StoreError>(())
    };
    let row = (Kind::Gear, key.as_str());
    store.edit("test", "renamed", row, renamed).unwrap();
    let after = store.read(Some(&after)).unwrap();
    assert_eq!(after.catalogue.rigs, store.catalogue().unwrap().rigs);
    assert_ne!(after.catalogue.rigs, before.catalogue.rigs);
    // Of another epoch nothing is taken over.
    other.batch_execute("PRAGMA user_version = 4711").unwrap();
    let restored = store.read(Some(&after)).unwrap();
    assert_eq!(restored.state.epoch, 4711);
    assert_eq!(
        model(&restored, "quarnel-pipkin").as_deref(),
        Some("Tampered")
    );
}
