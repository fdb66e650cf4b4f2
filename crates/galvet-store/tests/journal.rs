//! The journal: undo, redo, history, trash, and two writers at once.
#![allow(clippy::unwrap_used, reason = "tests")]

use crate::common;

use common::filled;
use diesel::connection::SimpleConnection;
use diesel::prelude::*;
use galvet_store::{Door, Kind, Known, Record, Store, StoreError, merge};

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
    assert_eq!(common::undo(&store, "Ana").unwrap(), "Two");
    assert_eq!(model(&store), "One");
    assert_eq!(common::undo(&store, "Ana").unwrap(), "One");
    assert_eq!(model(&store), "Pipkin");
    assert_eq!(common::redo(&store, "Ana").unwrap(), "One");
    assert_eq!(common::redo(&store, "Ana").unwrap(), "Two");
    assert_eq!(model(&store), "Two");
    assert!(matches!(
        common::redo(&store, "Ana"),
        Err(StoreError::Nothing(_))
    ));
    // Something new of somebody else after an undo: what was undone cannot be redone over
    // it, and it is said whose it is.
    common::undo(&store, "Ana").unwrap();
    let (now, _) = store.record(Kind::Hull, "quarnel-pipkin").unwrap().unwrap();
    let third = renamed(&first, "Three");
    store
        .write("Ben", "Three", |door| door.put(&third, Some(now)))
        .unwrap();
    let Err(StoreError::Conflict { theirs }) = common::redo(&store, "Ana") else {
        unreachable!()
    };
    assert_eq!(theirs.who, "Ben");
    // One's own new act, and there is nothing to do again.
    assert!(store.steps("Ben", None).unwrap().redo.is_none());
    let history = store.history(Kind::Hull, known.id, (99, None)).unwrap();
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
    common::undo(&store, "Ana").unwrap();
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
    assert_eq!((trash.len(), store.trashed().unwrap()), (1, 1));
    assert_eq!(trash[0].document["model"], "Pipkin");
    store.take_back("Ana", &trash[..1]).unwrap();
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
    let taken = store.take_back("Ana", &trash[..1]).unwrap_err();
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
    assert_eq!(refused, "saved questions still use it: Reeds: at dawn");
    let (brief, _) = store.record(Kind::Brief, "reed-edge").unwrap().unwrap();
    store
        .write("Ana", "both", |door| {
            door.throw_away(Kind::Brief, brief)?;
            door.throw_away(Kind::Rig, rig)
        })
        .unwrap();
    // One group, one undo: both are back.
    common::undo(&store, "Ana").unwrap();
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
    let before = store.state().unwrap();
    store
        .write("Ana", "renamed", |door| {
            door.put(&Record::Hull(hull), Some(known))
        })
        .unwrap();
    assert!(
        store.state().unwrap() > before,
        "a change is told by its number"
    );
    let (now, _) = store.record(Kind::Hull, "pipkin").unwrap().unwrap();
    assert_eq!((now.id, now.revision), (known.id, known.revision + 1));
    assert!(
        store
            .record(Kind::Hull, "quarnel-pipkin")
            .unwrap()
            .is_none()
    );
}

#[test]
fn a_clock_set_back_upsets_no_order() {
    let (directory, store) = filled();
    let rename = |to: &str| {
        let (known, hull) = store.record(Kind::Hull, "quarnel-pipkin").unwrap().unwrap();
        let renamed = renamed(&hull, to);
        let put = |door: &mut Door<'_>| door.put(&renamed, Some(known));
        store.write("Ana", to, put).unwrap()
    };
    rename("first");
    // As if all so far had been written by a clock far ahead.
    let path = directory.path().join("galvet.db");
    let mut raw = SqliteConnection::establish(path.to_str().unwrap()).unwrap();
    let ahead = 32_503_680_000_000_i64;
    raw.batch_execute(&format!(
        "UPDATE journal SET at = {ahead}; UPDATE hulls SET updated_at = {ahead}"
    ))
    .unwrap();
    let known = rename("second");
    let history = store.history(Kind::Hull, known.id, (99, None)).unwrap();
    assert!(history[0].at < history[1].at, "the clock is back");
    assert_eq!(
        (history[0].label.as_str(), history[1].label.as_str()),
        ("second", "first")
    );
    assert_eq!(common::undo(&store, "Ana").unwrap(), "second");
    assert_eq!(model(&store), "first");
    assert_eq!(common::redo(&store, "Ana").unwrap(), "second");
    assert_eq!(model(&store), "second");
}

fn gear(store: &Store, key: &str) -> (Known, Box<galvet_core::gear::Gear>) {
    let (known, record) = store.record(Kind::Gear, key).unwrap().unwrap();
    let Record::Gear(gear) = record else {
        unreachable!()
    };
    (known, gear)
}

/// Puts a price on a thing; the group it made.
fn price(store: &Store, who: &str, key: &str, price: f64) -> i64 {
    let (known, mut thing) = gear(store, key);
    thing.price = Some(price);
    let put = |door: &mut Door<'_>| door.put(&Record::Gear(thing.clone()), Some(known));
    store
        .write(who, &format!("priced at {price}"), put)
        .unwrap();
    store.steps(who, None).unwrap().undo.unwrap().group
}

#[test]
fn two_people_at_one_shelf_take_back_their_own() {
    let (_directory, store) = filled();
    let priced = |key| gear(&store, key).1.price;
    let was = [priced("open-crate"), priced("drift-sock")];
    let anas = price(&store, "Ana", "open-crate", 11.0);
    let bens = price(&store, "Ben", "drift-sock", 12.0);
    // Each is offered their own, with the thing's name, though Ben's came later.
    let offered = store.steps("Ana", None).unwrap().undo.unwrap();
    assert_eq!(offered.group, anas);
    assert!(
        offered.words.starts_with("priced at 11 ("),
        "{}",
        offered.words
    );
    assert!(store.steps("Cle", None).unwrap().undo.is_none());
    // Nobody takes back another's, whatever a page says.
    let refused = store.reverse("Ana", bens).unwrap_err();
    assert!(matches!(refused, StoreError::Nothing(_)));
    store.reverse("Ana", anas).unwrap();
    assert_eq!(
        (priced("open-crate"), priced("drift-sock")),
        (was[0], Some(12.0))
    );
    // Twice is told, not done.
    assert!(matches!(
        store.reverse("Ana", anas),
        Err(StoreError::Nothing("it was taken back already"))
    ));
    store.reverse("Ben", bens).unwrap();
    assert_eq!(priced("drift-sock"), was[1]);
}

#[test]
fn the_act_a_page_names_is_taken_back_and_stands_at_its_record() {
    let (_directory, store) = filled();
    let priced = |key| gear(&store, key).1.price;
    let was = priced("open-crate");
    let first = price(&store, "Ana", "open-crate", 11.0);
    let second = price(&store, "Ana", "drift-sock", 12.0);
    // Each record offers the last act on it.
    let at = |key| store.steps("Ana", Some((Kind::Gear, key))).unwrap();
    assert_eq!(at("open-crate").undo.unwrap().group, first);
    assert_eq!(at("drift-sock").undo.unwrap().group, second);
    assert_eq!(at("nothing"), galvet_store::Steps::default());
    // The earlier one alone; the later stands.
    store.reverse("Ana", first).unwrap();
    assert_eq!(
        (priced("open-crate"), priced("drift-sock")),
        (was, Some(12.0))
    );
    assert!(at("open-crate").undo.is_none());
    let again = at("open-crate").redo.unwrap();
    store.reverse("Ana", again.group).unwrap();
    assert_eq!(priced("open-crate"), Some(11.0));
    // Somebody else changed it since: said, with their name, and nothing is done.
    price(&store, "Ben", "open-crate", 13.0);
    let mine = at("open-crate").undo.unwrap();
    let Err(StoreError::Conflict { theirs }) = store.reverse("Ana", mine.group) else {
        unreachable!()
    };
    assert_eq!(theirs.who, "Ben");
    assert_eq!(priced("open-crate"), Some(13.0));
}

#[test]
fn what_the_command_line_did_anybody_takes_back_once() {
    let (_directory, store) = filled();
    let was = gear(&store, "open-crate").1.price;
    let act = price(&store, "command line", "open-crate", 11.0);
    for who in ["Ana", "Ben"] {
        assert_eq!(store.steps(who, None).unwrap().undo.unwrap().group, act);
    }
    store.reverse("Ana", act).unwrap();
    assert_eq!(gear(&store, "open-crate").1.price, was);
    assert!(store.steps("Ben", None).unwrap().undo.is_none());
}
