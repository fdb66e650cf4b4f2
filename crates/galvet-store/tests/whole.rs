//! Whole or refused: what is no backup is not restored, what is looked at is not
//! changed, and names and days that are none are told where they stand.
#![allow(clippy::unwrap_used, reason = "tests")]

use crate::common;

use common::filled;
use diesel::connection::SimpleConnection;
use diesel::prelude::*;
use galvet_store::files::{exchange, gear_table, hulls};
use galvet_store::{Kind, Record, Store, StoreError, backup, check, restore};
use std::collections::BTreeMap;
use std::fs;
use std::path::Path;

fn raw(path: &Path) -> SqliteConnection {
    SqliteConnection::establish(path.to_str().unwrap()).unwrap()
}

/// Every file of a directory with its bytes.
fn files(directory: &Path) -> BTreeMap<String, Vec<u8>> {
    let all = fs::read_dir(directory).unwrap().map(|e| e.unwrap());
    let all = all.filter(|e| e.file_type().unwrap().is_file());
    let named = |e: fs::DirEntry| {
        let name = e.file_name().into_string().unwrap();
        (name, fs::read(e.path()).unwrap())
    };
    all.map(named).collect()
}

#[test]
fn what_is_no_backup_is_refused_and_nothing_changes() {
    let (directory, store) = filled();
    let before = exchange::write(&store.catalogue().unwrap()).unwrap();
    drop(store);
    let aside = tempfile::tempdir().unwrap();
    let file = |name: &str| aside.path().join(name);
    let good = file("good.db");
    backup(directory.path(), &good).unwrap();
    let spoilt = |name: &str, sql: &str| {
        fs::copy(&good, file(name)).unwrap();
        raw(&file(name)).batch_execute(sql).unwrap();
    };
    fs::write(file("empty"), b"").unwrap();
    fs::write(file("text"), b"no database at all, just some words of text").unwrap();
    raw(&file("bare.db"))
        .batch_execute("CREATE TABLE t (x)")
        .unwrap();
    raw(&file("other.db"))
        .batch_execute("CREATE TABLE hulls (name); CREATE TABLE waters (name)")
        .unwrap();
    spoilt(
        "far.db",
        "UPDATE journal SET revision = 9223372036854775807 WHERE id = 1",
    );
    spoilt(
        "group.db",
        "UPDATE journal SET change_group = 9223372036854775807 WHERE id = 2",
    );
    spoilt("stripped.db", "DROP TABLE settings");
    for name in [
        "empty",
        "text",
        "bare.db",
        "other.db",
        "far.db",
        "group.db",
        "stripped.db",
    ] {
        let refused = restore(directory.path(), &file(name)).unwrap_err();
        assert!(
            matches!(refused, StoreError::Open { .. } | StoreError::Migrate(_)),
            "{name}: {refused}"
        );
        let kept = Store::open(directory.path()).unwrap().catalogue().unwrap();
        assert_eq!(exchange::write(&kept).unwrap(), before, "{name}");
    }
    assert_eq!(
        restore(directory.path(), &good).unwrap().checked.problems,
        [""; 0]
    );
}

#[test]
fn looking_at_a_directory_changes_no_byte_in_it() {
    let (directory, store) = filled();
    drop(store);
    let before = files(directory.path());
    assert!(check(directory.path()).unwrap().problems.is_empty());
    let aside = tempfile::tempdir().unwrap();
    backup(directory.path(), &aside.path().join("galvet.db")).unwrap();
    let after = files(directory.path());
    let names = |all: &BTreeMap<String, Vec<u8>>| all.keys().cloned().collect::<Vec<_>>();
    assert_eq!(names(&before), names(&after));
    assert_eq!(before, after);
    // An empty file is no data directory of anybody.
    fs::write(aside.path().join("galvet.db"), b"").unwrap();
    assert!(matches!(check(aside.path()), Err(StoreError::Open { .. })));
}

#[test]
fn names_and_days_that_are_none_are_told_in_json_and_tables_alike() {
    let (_directory, store) = filled();
    let all = store.catalogue().unwrap();
    let text = exchange::write(&all).unwrap();
    assert!(exchange::read("all.json", &text).is_ok());
    let first = |list: &str, name: &str, put: &str| {
        let mut document: serde_json::Value = serde_json::from_str(&text).unwrap();
        document[list][0][name] = put.into();
        exchange::read("all.json", &document.to_string()).unwrap_err()[0].to_string()
    };
    for (list, name) in [
        ("hulls", "model"),
        ("gear", "name"),
        ("rigs", "name"),
        ("waters", "name"),
        ("questions", "name"),
    ] {
        assert!(first(list, name, " ").contains("give it a name"), "{list}");
        let told = first(list, name, "a\u{7}b");
        assert!(
            told.contains("without control characters"),
            "{list}: {told}"
        );
    }
    let head = "key,model,construction,length_m\n";
    for (row, said) in [
        ("a,\"x\u{7}\",board,3.5", "without control characters"),
        ("a,  ,board,3.5", "must not be empty"),
        (
            "a,x,board,\"3.5 m (tape, 2026-02-31)\"",
            "“2026-02-31” is no day",
        ),
        ("a,x,board,\"3.5 m (tape, 9999-01-01)\"", "is no day"),
    ] {
        let told = hulls::read("h.csv", &format!("{head}{row}\n")).unwrap_err();
        assert!(told[0].to_string().contains(said), "{row}: {told:?}");
    }
    let table = gear_table::write(&all.gear).unwrap();
    let name = all.gear[0].name.clone();
    let spoilt = table.replacen(&name, "a\u{7}b", 1);
    assert!(gear_table::read("g.csv", &table).is_ok());
    let told = gear_table::read("g.csv", &spoilt).unwrap_err();
    assert!(
        told[0].to_string().contains("without control characters"),
        "{told:?}"
    );
    let mut dated: serde_json::Value = serde_json::from_str(&text).unwrap();
    let readings = dated["hulls"][0]["readings"].as_object_mut().unwrap();
    readings.values_mut().next().unwrap()[0]["date"] = "2026-02-31".into();
    let told = exchange::read("all.json", &dated.to_string()).unwrap_err();
    assert!(
        told[0].to_string().contains("“2026-02-31” is no day"),
        "{told:?}"
    );
}

#[test]
fn what_comes_out_of_the_trash_brings_what_it_needs() {
    let (_directory, store) = filled();
    let (_, rig) = store.record(Kind::Rig, "reed-edge-day").unwrap().unwrap();
    let Record::Rig(rig) = rig else {
        unreachable!()
    };
    let throw = |kind, slug: &str| store.throw_away("Ana", (kind, slug), None);
    // What is named stays; nothing is half done.
    assert!(matches!(
        throw(Kind::Rig, "reed-edge-day"),
        Err(StoreError::Reference(_))
    ));
    throw(Kind::Brief, "reed-edge").unwrap();
    let name = throw(Kind::Rig, "reed-edge-day").unwrap();
    assert_eq!(name.as_deref(), Some(rig.name.as_str()));
    assert_eq!(throw(Kind::Rig, "reed-edge-day").unwrap(), None);
    let others = store.catalogue().unwrap().rigs;
    let alone = |slug: &&String| {
        !others
            .iter()
            .any(|r| r.lines.iter().any(|l| l.gear.as_ref() == Some(slug)))
    };
    let gear: Vec<String> = rig.lines.iter().filter_map(|l| l.gear.clone()).collect();
    let thrown: Vec<&String> = gear.iter().filter(alone).collect();
    for slug in &thrown {
        throw(Kind::Gear, slug).unwrap();
    }
    let trash = store.trash().unwrap();
    let brief = trash.iter().find(|t| t.kind == Kind::Brief).unwrap();
    let needed = store.needed(brief, &trash).unwrap();
    // First what is named: the things, then the rig.
    assert_eq!(needed.len(), thrown.len() + 1, "{needed:?}");
    assert_eq!(needed.last().unwrap().kind, Kind::Rig);
    // Without them it is refused, with them it is back whole, in one act.
    let alone = store
        .take_back("Ana", std::slice::from_ref(brief))
        .unwrap_err();
    assert!(matches!(alone, StoreError::Reference(_)), "{alone}");
    let out: Vec<_> = needed.into_iter().chain([brief.clone()]).collect();
    store.take_back("Ana", &out).unwrap();
    assert!(store.trash().unwrap().is_empty());
    let (_, back) = store.record(Kind::Rig, "reed-edge-day").unwrap().unwrap();
    assert_eq!(back, Record::Rig(rig));
}

#[test]
fn what_somebody_changed_since_it_was_seen_is_not_thrown_away() {
    let (_directory, store) = filled();
    let hull = (Kind::Hull, "quarnel-pipkin");
    let (seen, _) = store.record(hull.0, hull.1).unwrap().unwrap();
    let renamed = store.edit::<StoreError>("Ben", "renamed", hull, |record| {
        if let Record::Hull(hull) = record {
            hull.survey.model = "Other".into();
        }
        Ok(())
    });
    renamed.unwrap().unwrap();
    let refused = store.throw_away("Ana", hull, Some(seen.revision));
    let Err(StoreError::Conflict { theirs }) = refused else {
        unreachable!()
    };
    assert_eq!(theirs.who, "Ben");
    assert!(store.record(hull.0, hull.1).unwrap().is_some());
    store
        .throw_away("Ana", hull, Some(seen.revision + 1))
        .unwrap();
    assert_eq!(
        common::undo(&store, "Ana").unwrap(),
        "hull “Quarnel Other” thrown away"
    );
    // What a change leaves as it was writes nothing.
    let before = store.state().unwrap();
    store
        .edit::<StoreError>("Ana", "nothing", hull, |_| Ok(()))
        .unwrap();
    assert_eq!(store.state().unwrap(), before);
}

#[test]
fn a_record_holds_so_much_and_says_how_much() {
    let (_directory, store) = filled();
    let hull = (Kind::Hull, "quarnel-pipkin");
    let fill = |count: usize| {
        store.edit::<StoreError>("Ana", "many", hull, |record| {
            if let Record::Hull(hull) = record {
                let readings = hull.survey.readings.values_mut().next().unwrap();
                let first = readings[0].clone();
                *readings = (0..count)
                    .map(|n| {
                        let mut one = first.clone();
                        one.note = n.to_string();
                        one
                    })
                    .collect();
            }
            Ok(())
        })
    };
    fill(60).unwrap();
    let before = store.state().unwrap();
    let refused = fill(61).unwrap_err();
    assert_eq!(
        refused.to_string(),
        "a hull has at most 60 readings of one figure, not 61"
    );
    assert_eq!(store.state().unwrap(), before);
    // The same in a file.
    let text = exchange::write(&store.catalogue().unwrap()).unwrap();
    let mut document: serde_json::Value = serde_json::from_str(&text).unwrap();
    document["hulls"][0]["notes"] = "n".repeat(10_001).into();
    let told = exchange::read("all.json", &document.to_string()).unwrap_err();
    let said = "at most 10000 characters of notes, not 10001";
    assert!(told[0].to_string().contains(said), "{told:?}");
}
