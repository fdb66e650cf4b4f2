//! The database: what goes in comes out, whole or not at all.
#![allow(clippy::unwrap_used, reason = "tests")]

use galvet_core::hull::Measure;
use galvet_store::files::hull_doc::HullDoc;
use galvet_store::files::{evidence, hulls, rigs, waters};
use galvet_store::{Catalogue, Kind, Known, Record, SavedBrief, Store, StoreError, merge};
use std::fs;
use std::path::PathBuf;

fn demo(name: &str) -> String {
    let path = PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("../../demo");
    fs::read_to_string(path.join(name)).unwrap()
}

fn catalogue() -> Catalogue {
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
fn filled() -> (tempfile::TempDir, Store) {
    let directory = tempfile::tempdir().unwrap();
    let store = Store::open(directory.path()).unwrap();
    store.fill("test", &catalogue()).unwrap();
    (directory, store)
}

/// A hull with everything a record can hold.
fn rich() -> Record {
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
    let problem = &out.set_aside[0];
    assert!(
        problem.contains("quarnel-pipkin")
            && problem.contains("length must lie between 1.8 and 7 m"),
        "{problem}"
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
    assert_eq!(out.hulls, demo_hulls);
    assert_eq!(out.waters, catalogue().waters);
    assert_eq!(out.rigs, catalogue().rigs);
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
    assert_eq!(store.history(Kind::Hull, known.id).unwrap().len(), 1);
    assert!(matches!(store.undo("test"), Err(StoreError::Nothing(_))));
    let names: Vec<String> = fs::read_dir(directory.path())
        .unwrap()
        .map(|e| e.unwrap().file_name().into_string().unwrap())
        .collect();
    assert!(names.iter().any(|n| n.contains("before")), "{names:?}");
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
    let heavy = demo("rigs.json").replace("\"dry_mass_kg\": 6.5", "\"dry_mass_kg\": 650");
    let error = rigs::read("r.json", &heavy).unwrap_err().to_string();
    assert!(error.contains("reed-edge-day, tackle crate"), "{error}");
    let typo = demo("rigs.json").replace("\"place\": 0.74", "\"palce\": 0.74");
    let error = rigs::read("r.json", &typo).unwrap_err().to_string();
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

fn renamed(hull: &Record, model: &str) -> Record {
    let Record::Hull(hull) = hull else {
        unreachable!()
    };
    let mut hull = hull.clone();
    hull.survey.model = model.to_owned();
    Record::Hull(hull)
}

fn model(store: &Store) -> String {
    let (_, record) = store.record(Kind::Hull, "quarnel-pipkin").unwrap().unwrap();
    let Record::Hull(hull) = record else {
        unreachable!()
    };
    hull.survey.model
}

#[test]
fn undo_and_redo_walk_the_changes_and_history_keeps_them_all() {
    let (_directory, store) = filled();
    let (mut known, first) = store.record(Kind::Hull, "quarnel-pipkin").unwrap().unwrap();
    for name in ["One", "Two"] {
        let next = renamed(&first, name);
        known = store
            .write("Ana", name, |door| door.put(&next, Some(known)))
            .unwrap();
    }
    assert_eq!(store.undo("Ana").unwrap(), "Two");
    assert_eq!(model(&store), "One");
    assert_eq!(store.undo("Ana").unwrap(), "One");
    assert_eq!(model(&store), "Pipkin");
    assert_eq!(store.redo("Ana").unwrap(), "One");
    assert_eq!(store.redo("Ana").unwrap(), "Two");
    assert_eq!(model(&store), "Two");
    assert!(matches!(store.redo("Ana"), Err(StoreError::Nothing(_))));
    // Something new after an undo: what was undone cannot be redone over it.
    store.undo("Ana").unwrap();
    let (now, _) = store.record(Kind::Hull, "quarnel-pipkin").unwrap().unwrap();
    let third = renamed(&first, "Three");
    store
        .write("Ben", "Three", |door| door.put(&third, Some(now)))
        .unwrap();
    assert!(matches!(store.redo("Ana"), Err(StoreError::Nothing(_))));
    let history = store.history(Kind::Hull, known.id).unwrap();
    let labels: Vec<&str> = history.iter().map(|c| c.label.as_str()).collect();
    assert_eq!(
        labels,
        [
            "Three",
            "undo: Two",
            "redo: Two",
            "redo: One",
            "undo: One",
            "undo: Two",
            "Two",
            "One",
            "catalogue put in"
        ]
    );
    assert_eq!(history[0].who, "Ben");
    assert_eq!(history[0].after.as_ref().unwrap()["model"], "Three");
    // Back to any earlier state, itself a change that can be undone.
    let now = Known {
        id: known.id,
        revision: history[0].known.revision,
    };
    store.back_to("Ana", Kind::Hull, now, 2).unwrap();
    assert_eq!(model(&store), "One");
    store.undo("Ana").unwrap();
    assert_eq!(model(&store), "Three");
}

#[test]
fn what_is_thrown_away_lies_in_the_trash_and_comes_back() {
    let (_directory, store) = filled();
    let count = store.catalogue().unwrap().hulls.len();
    let (known, first) = store.record(Kind::Hull, "quarnel-pipkin").unwrap().unwrap();
    store
        .write("Ana", "thrown away", |door| {
            door.throw_away(Kind::Hull, known)
        })
        .unwrap();
    assert_eq!(store.catalogue().unwrap().hulls.len(), count - 1);
    assert!(
        store
            .record(Kind::Hull, "quarnel-pipkin")
            .unwrap()
            .is_none()
    );
    let trash = store.trash().unwrap();
    assert_eq!(trash.len(), 1);
    assert_eq!(trash[0].document["model"], "Pipkin");
    store.take_back("Ana", &trash[0]).unwrap();
    let (back, record) = store.record(Kind::Hull, "quarnel-pipkin").unwrap().unwrap();
    assert_eq!((back.id, record), (known.id, first));
    assert!(store.trash().unwrap().is_empty());
    // Its name may be taken meanwhile: said, nothing lost.
    store
        .write("Ana", "again", |door| door.throw_away(Kind::Hull, back))
        .unwrap();
    let trash = store.trash().unwrap();
    let stranger = Record::of_document(Kind::Hull, trash[0].document.clone()).unwrap();
    store
        .write("Ben", "another", |door| door.put(&stranger, None))
        .unwrap();
    let taken = store.take_back("Ana", &trash[0]).unwrap_err();
    assert!(matches!(taken, StoreError::Taken { .. }), "{taken}");
    assert_eq!(store.trash().unwrap().len(), 1);
}

#[test]
fn a_rig_that_questions_use_is_not_thrown_away_under_them() {
    let (_directory, store) = filled();
    let (rig, _) = store.record(Kind::Rig, "reed-edge-day").unwrap().unwrap();
    let refused = store
        .write("Ana", "away", |door| door.throw_away(Kind::Rig, rig))
        .unwrap_err()
        .to_string();
    assert_eq!(refused, "saved questions still use it: Reeds");
    let (brief, _) = store.record(Kind::Brief, "reed-edge").unwrap().unwrap();
    store
        .write("Ana", "both", |door| {
            door.throw_away(Kind::Brief, brief)?;
            door.throw_away(Kind::Rig, rig)
        })
        .unwrap();
    // One group, one undo: both are back.
    store.undo("Ana").unwrap();
    assert!(store.record(Kind::Rig, "reed-edge-day").unwrap().is_some());
    assert!(store.record(Kind::Brief, "reed-edge").unwrap().is_some());
}

#[test]
fn two_writers_at_once_get_a_conflict_not_a_loss() {
    let (_directory, store) = filled();
    let (known, first) = store.record(Kind::Hull, "quarnel-pipkin").unwrap().unwrap();
    let mine = renamed(&first, "Mine");
    let Record::Hull(hull) = &first else {
        unreachable!()
    };
    let mut theirs = hull.clone();
    theirs.survey.notes = "a note of theirs".to_owned();
    let theirs = Record::Hull(theirs);
    store
        .write("Ben", "note", |door| door.put(&theirs, Some(known)))
        .unwrap();
    let conflict = store
        .write("Ana", "rename", |door| door.put(&mine, Some(known)))
        .unwrap_err();
    let StoreError::Conflict { theirs } = conflict else {
        panic!("{conflict}")
    };
    assert_eq!((theirs.revision, theirs.who.as_str()), (2, "Ben"));
    // Both shown; what only one touched is merged field by field.
    let merged = merge(
        theirs.base.as_ref().unwrap(),
        &mine.document().unwrap(),
        theirs.now.as_ref().unwrap(),
    );
    assert!(merged.clashes.is_empty(), "{merged:?}");
    assert_eq!(merged.document["model"], "Mine");
    assert_eq!(merged.document["notes"], "a note of theirs");
    let both = Record::of_document(Kind::Hull, merged.document).unwrap();
    let now = Known {
        id: theirs.id,
        revision: theirs.revision,
    };
    store
        .write("Ana", "both", |door| door.put(&both, Some(now)))
        .unwrap();
    assert_eq!(model(&store), "Mine");
}

#[test]
fn writers_in_parallel_lose_nothing() {
    let (_directory, store) = filled();
    const EACH: usize = 25;
    let conflicts: usize = std::thread::scope(|scope| {
        let writers: Vec<_> = (0..4)
            .map(|writer| {
                let store = store.clone();
                scope.spawn(move || {
                    let mut conflicts = 0;
                    for i in 0..EACH {
                        // Reads, and writes what it read with a line of its own.
                        loop {
                            let found = store.record(Kind::Hull, "quarnel-pipkin").unwrap();
                            let (known, record) = found.unwrap();
                            let Record::Hull(mut hull) = record else {
                                unreachable!()
                            };
                            hull.survey.notes.push_str(&format!(" {writer}.{i};"));
                            let next = Record::Hull(hull);
                            match store.write("w", "note", |d| d.put(&next, Some(known))) {
                                Ok(_) => break,
                                Err(StoreError::Conflict { .. }) => conflicts += 1,
                                Err(error) => panic!("{error}"),
                            }
                        }
                    }
                    conflicts
                })
            })
            .collect();
        writers.into_iter().map(|w| w.join().unwrap()).sum()
    });
    let (known, record) = store.record(Kind::Hull, "quarnel-pipkin").unwrap().unwrap();
    let Record::Hull(hull) = record else {
        unreachable!()
    };
    for writer in 0..4 {
        for i in 0..EACH {
            let mark = format!(" {writer}.{i};");
            assert_eq!(hull.survey.notes.matches(&mark).count(), 1, "{mark}");
        }
    }
    assert_eq!(known.revision, 1 + 4 * EACH as i64);
    println!("{conflicts} conflicts met and resolved");
}

#[test]
fn a_slug_may_be_renamed_and_the_record_stays_the_same() {
    let (_directory, store) = filled();
    let (known, first) = store.record(Kind::Hull, "quarnel-pipkin").unwrap().unwrap();
    let Record::Hull(mut hull) = first else {
        unreachable!()
    };
    hull.survey.key = "pipkin".to_owned();
    let before = store.change();
    store
        .write("Ana", "renamed", |door| {
            door.put(&Record::Hull(hull), Some(known))
        })
        .unwrap();
    assert!(store.change() > before, "a change is told by its number");
    let (now, _) = store.record(Kind::Hull, "pipkin").unwrap().unwrap();
    assert_eq!((now.id, now.revision), (known.id, known.revision + 1));
    assert!(
        store
            .record(Kind::Hull, "quarnel-pipkin")
            .unwrap()
            .is_none()
    );
}
