//! The database: what goes in comes out, whole or not at all.
#![allow(clippy::unwrap_used, reason = "tests")]

use galvet_core::hull::Measure;
use galvet_store::files::{briefs, evidence, hulls, rigs, waters};
use galvet_store::{Catalogue, Store, StoreError};
use std::fs;
use std::path::PathBuf;

fn demo(name: &str) -> String {
    let path = PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("../../demo");
    fs::read_to_string(path.join(name)).unwrap()
}

fn catalogue() -> Catalogue {
    Catalogue {
        hulls: hulls::read("hulls.csv", &demo("hulls.csv")).unwrap().hulls,
        waters: waters::read("waters.json", &demo("waters.json")).unwrap(),
        rigs: rigs::read("rigs.json", &demo("rigs.json")).unwrap(),
        briefs: vec![briefs::read("b.json", &demo("briefs/1-reed-edge.json")).unwrap()],
    }
}

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
        store.fill(&put_in).unwrap();
        assert!(!store.is_empty().unwrap());
    }
    let out = Store::open(directory.path()).unwrap().catalogue().unwrap();
    put_in.hulls.sort_by(|a, b| a.survey.key.cmp(&b.survey.key));
    assert_eq!(out.hulls, put_in.hulls);
    assert_eq!(out.waters, put_in.waters);
    assert_eq!(out.rigs, put_in.rigs);
    let (back, saved) = (&out.briefs[0], &put_in.briefs[0]);
    assert_eq!(
        serde_json::to_value(back).unwrap(),
        serde_json::to_value(saved).unwrap()
    );
}

#[test]
fn a_filling_that_fails_leaves_nothing_behind() {
    let directory = tempfile::tempdir().unwrap();
    let store = Store::open(directory.path()).unwrap();
    let mut broken = catalogue();
    let twice = broken.hulls[3].clone();
    broken.hulls.push(twice);
    assert!(matches!(store.fill(&broken), Err(StoreError::Query(_))));
    assert!(store.is_empty().unwrap());
    // A brief that names a rig nobody has is refused by the foreign key.
    let mut adrift = catalogue();
    adrift.rigs.retain(|rig| rig.key != "reed-edge-day");
    assert!(store.fill(&adrift).is_err());
    assert!(store.is_empty().unwrap());
}

#[test]
fn a_record_tampered_with_is_named_not_used() {
    use diesel::connection::SimpleConnection;
    use diesel::prelude::*;
    let directory = tempfile::tempdir().unwrap();
    let store = Store::open(directory.path()).unwrap();
    store.fill(&catalogue()).unwrap();
    let path = directory.path().join("galvet.db");
    let mut other = SqliteConnection::establish(path.to_str().unwrap()).unwrap();
    other
        .batch_execute("UPDATE readings SET value = 1e300 WHERE measure = 'length'")
        .unwrap();
    let error = store.catalogue().unwrap_err().to_string();
    assert!(
        error.contains("length must lie between 1.8 and 7 m"),
        "{error}"
    );
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

#[test]
fn an_older_database_is_copied_aside_before_it_is_changed() {
    use diesel::connection::SimpleConnection;
    use diesel::prelude::*;
    let directory = tempfile::tempdir().unwrap();
    Store::open(directory.path())
        .unwrap()
        .fill(&catalogue())
        .unwrap();
    // Back to the first schema, as an older Galvet would have left it.
    let path = directory.path().join("galvet.db");
    let mut old = SqliteConnection::establish(path.to_str().unwrap()).unwrap();
    let down = include_str!("../migrations/2026-11-25-000002_afloat/down.sql");
    old.batch_execute(down).unwrap();
    old.batch_execute("DELETE FROM __diesel_schema_migrations WHERE version = '20261125000002'")
        .unwrap();
    drop(old);
    let store = Store::open(directory.path()).unwrap();
    assert_eq!(
        store.catalogue().unwrap().hulls.len(),
        catalogue().hulls.len()
    );
    let copies = fs::read_dir(directory.path()).unwrap();
    let names: Vec<String> = copies
        .map(|e| e.unwrap().file_name().into_string().unwrap())
        .collect();
    assert!(names.iter().any(|n| n.contains("before")), "{names:?}");
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
    store.set_setting("units", "metric").unwrap();
    store.set_setting("units", "imperial").unwrap();
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
    let heavy = demo("rigs.json").replace("\"dry_mass_kg\": 6.5", "\"dry_mass_kg\": 650");
    let error = rigs::read("r.json", &heavy).unwrap_err().to_string();
    assert!(error.contains("reed-edge-day, tackle crate"), "{error}");
    let typo = demo("rigs.json").replace("\"place\": 0.74", "\"palce\": 0.74");
    let error = rigs::read("r.json", &typo).unwrap_err().to_string();
    assert!(error.contains("line") && error.contains("palce"), "{error}");
}
