//! Zones, fittings, modifications, configurations; the shelf and what refers to it.
#![allow(clippy::unwrap_used, reason = "tests")]

use crate::common;

use common::{catalogue, demo, filled, first_rigs, first_shelf, fitout, fixture};
use diesel::connection::SimpleConnection;
use diesel::prelude::*;
use galvet_core::hull::{FitoutError, Zone};
use galvet_core::rig::Rig;
use galvet_store::files::{gear, rigs};
use galvet_store::{Kind, Record, Store, StoreError};

fn rig_named<'a>(rigs: &'a [Rig], key: &str) -> &'a Rig {
    rigs.iter().find(|rig| rig.key == key).unwrap()
}

/// The record of a thing or rig, with what its revision is.
fn kept(store: &Store, kind: Kind, slug: &str) -> (galvet_store::Known, Record) {
    store.record(kind, slug).unwrap().unwrap()
}

#[test]
fn a_line_by_reference_weighs_what_the_shelf_says() {
    let rigs = first_rigs();
    let line = |rig: &str, gear: &str| {
        let lines = &rig_named(&rigs, rig).lines;
        let found = lines.iter().find(|l| l.gear.as_deref() == Some(gear));
        found.unwrap().clone()
    };
    let cooler = line("reed-edge-day", "soft-cooler-ice");
    assert_eq!((cooler.dry_mass, cooler.loaded_mass), (1.6, 4.6));
    assert_eq!(cooler.item, "soft cooler with ice");
    // 12 V × 48 Ah.
    assert_eq!(line("night-zander", "battery-12v-48ah").energy, 576.0);
    // Free text stays possible beside it.
    let lines = &rig_named(&rigs, "reed-edge-day").lines;
    assert!(
        lines
            .iter()
            .any(|l| l.gear.is_none() && l.item == "fish kept")
    );
}

#[test]
fn a_line_that_names_nothing_known_is_refused_and_never_weighs_nothing() {
    let shelf = first_shelf();
    let adrift =
        fixture("rigs-1.json").replace("\"gear\": \"landing-net\"", "\"gear\": \"lost-net\"");
    let error = rigs::read("r.json", &adrift, &shelf)
        .unwrap_err()
        .to_string();
    assert!(
        error.contains("reed-edge-day, line 8") && error.contains("“lost-net”"),
        "{error}"
    );
    let bare = fixture("rigs-1.json").replace("\"dry_mass_kg\": 6.5, ", "");
    let error = rigs::read("r.json", &bare, &shelf).unwrap_err().to_string();
    assert!(
        error.contains("needs an item with its dry_mass_kg"),
        "{error}"
    );
}

#[test]
fn the_shelf_refuses_what_no_thing_can_be() {
    for (was, becomes, says) in [
        (
            "\"loaded_mass_kg\": 28.0",
            "\"loaded_mass_kg\": 2.8",
            "loaded mass",
        ),
        ("\"volts\": 12", "\"volts\": 12000", "battery voltage"),
        ("\"duty\": 0.4", "\"duty\": 40", "share of the time"),
        (
            "\"category\": \"landing\"",
            "\"category\": \"nets\"",
            "accepted: rods",
        ),
        ("\"size_m\": [2.2,", "\"size_m\": [220,", "size must lie"),
    ] {
        let text = demo("gear.json").replace(was, becomes);
        assert_ne!(text, demo("gear.json"), "{was}");
        let error = gear::read("g.json", &text).unwrap_err().to_string();
        assert!(error.contains(says), "{says}: {error}");
    }
}

#[test]
fn a_thing_weighed_anew_changes_every_rig_that_holds_it() {
    let (_directory, store) = filled();
    let before = store.catalogue().unwrap();
    let was = rig_named(&before.rigs, "night-zander").loaded();
    let (known, record) = kept(&store, Kind::Gear, "livewell-full");
    let Record::Gear(mut livewell) = record else {
        unreachable!()
    };
    livewell.loaded_mass = 31.0;
    store
        .write("Ana", "weighed", |door| {
            door.put(&Record::Gear(livewell.clone()), Some(known))
        })
        .unwrap();
    let after = store.catalogue().unwrap();
    let now = rig_named(&after.rigs, "night-zander").loaded();
    assert!((now - was - 3.0).abs() < 1e-9, "28 → 31 kg: {was} → {now}");
    // And back.
    common::undo(&store, "Ana").unwrap();
    let back = store.catalogue().unwrap();
    assert_eq!(rig_named(&back.rigs, "night-zander").loaded(), was);
}

#[test]
fn what_a_rig_holds_is_not_thrown_away_under_it() {
    let (_directory, store) = filled();
    let (known, _) = kept(&store, Kind::Gear, "drift-sock");
    let throw = |known| store.write("Ana", "away", |door| door.throw_away(Kind::Gear, known));
    let error = throw(known).unwrap_err();
    assert!(
        matches!(&error, StoreError::Reference(text) if text.contains("Sound, trolling")),
        "{error}"
    );
    // Off the rig it may go, and come back with undo.
    let (rig_known, record) = kept(&store, Kind::Rig, "sound-trolling");
    let Record::Rig(mut rig) = record else {
        unreachable!()
    };
    rig.lines
        .retain(|line| line.gear.as_deref() != Some("drift-sock"));
    store
        .write("Ana", "lighter", |door| {
            door.put(&Record::Rig(rig.clone()), Some(rig_known))
        })
        .unwrap();
    throw(known).unwrap();
    assert_eq!(common::undo(&store, "Ana").unwrap(), "away");
    assert_eq!(common::undo(&store, "Ana").unwrap(), "lighter");
    let Record::Rig(back) = kept(&store, Kind::Rig, "sound-trolling").1 else {
        unreachable!()
    };
    assert_eq!(back, *rig_named(&catalogue().rigs, "sound-trolling"));
}

#[test]
fn a_bad_thing_sets_aside_itself_and_the_rigs_that_need_it() {
    let (directory, store) = filled();
    let path = directory.path().join("galvet.db");
    let mut other = SqliteConnection::establish(path.to_str().unwrap()).unwrap();
    // What the database can watch over, it refuses itself.
    let negative = "UPDATE gear SET document = json_set(document, '$.dry_mass_kg', -1) \
                    WHERE slug = 'drift-sock'";
    assert!(other.batch_execute(negative).is_err());
    let adrift = "UPDATE gear SET document = json_set(document, '$.tether', 'magnet') \
                  WHERE slug = 'drift-sock'";
    other.batch_execute(adrift).unwrap();
    let out = store.catalogue().unwrap();
    assert_eq!(out.gear.len(), catalogue().gear.len() - 1);
    assert_eq!(out.rigs.len(), catalogue().rigs.len() - 1);
    assert!(out.rigs.iter().all(|rig| rig.key != "sound-trolling"));
    assert!(
        out.set_aside
            .iter()
            .any(|p| p.problem.contains("sound-trolling") && p.problem.contains("magnet"))
    );
}

#[test]
fn a_space_that_contradicts_itself_is_refused_by_name() {
    let whole = fitout();
    assert_eq!(whole.clone().check().unwrap(), whole);
    let broken = |change: fn(&mut galvet_core::hull::Fitout)| {
        let mut wrong = fitout();
        change(&mut wrong);
        wrong.check().unwrap_err()
    };
    let twice = broken(|f| f.zones[1].name = "bow hatch".into());
    assert_eq!(twice, FitoutError::Twice("bow hatch".into()));
    let nameless = broken(|f| f.fittings[0].name = " ".into());
    assert_eq!(nameless, FitoutError::Nameless);
    let missing = broken(|f| f.modifications[0].removes[0] = "third hatch".into());
    assert!(matches!(missing, FitoutError::Missing { name, .. } if name == "third hatch"));
    let unmade = broken(|f| f.configurations[0].modifications[0] = "outriggers".into());
    assert!(matches!(unmade, FitoutError::Missing { by, .. } if by == "light"));
    // Without taking the old hatch off there would be two of one name.
    let doubled = broken(|f| f.modifications[0].removes.clear());
    assert_eq!(doubled, FitoutError::Twice("stern hatch".into()));
    let backwards = broken(|f| f.zones[0].to = f.zones[0].from - 0.1);
    assert!(
        backwards
            .to_string()
            .contains("“bow hatch”: a zone's length must lie between 0.02"),
        "{backwards}"
    );
    let endless = broken(|f| f.modifications[0].mass = f64::INFINITY);
    assert!(matches!(endless, FitoutError::Number { .. }));
    let zone: Zone = fitout().zones.remove(0);
    assert!(
        Zone {
            width: f64::NAN,
            ..zone
        }
        .check()
        .is_err()
    );
}

#[test]
fn the_database_itself_refuses_two_zones_of_one_name() {
    let (directory, store) = filled();
    let record = common::rich();
    let (known, _) = kept(&store, Kind::Hull, record.slug());
    store
        .write("test", "space", |door| door.put(&record, Some(known)))
        .unwrap();
    let path = directory.path().join("galvet.db");
    let mut other = SqliteConnection::establish(path.to_str().unwrap()).unwrap();
    let double =
        "INSERT INTO zones (hull_id, document) SELECT hull_id, document FROM zones LIMIT 1";
    let error = other.batch_execute(double).unwrap_err().to_string();
    assert!(error.contains("UNIQUE"), "{error}");
    // A hull destroyed takes its space with it.
    other
        .batch_execute(
            "PRAGMA foreign_keys = ON; DELETE FROM hulls WHERE id IN (SELECT hull_id FROM zones)",
        )
        .unwrap();
    let left: i64 = diesel::dsl::sql::<diesel::sql_types::BigInt>(
        "SELECT (SELECT count(*) FROM zones) + (SELECT count(*) FROM fittings) \
         + (SELECT count(*) FROM modifications) + (SELECT count(*) FROM configurations)",
    )
    .get_result(&mut other)
    .unwrap();
    assert_eq!(left, 0);
}
