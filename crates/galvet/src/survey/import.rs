//! Files taken in: what is new, what is there already, all of it in one step.

use crate::form::free_slug;
use crate::question;
use galvet_core::gear::Gear;
use galvet_core::hull::{Measure, Survey};
use galvet_store::files::dealer::Matching;
use galvet_store::files::hulls::HullRecord;
use galvet_store::files::photo::Photo;
use galvet_store::files::sheet::Document;
use galvet_store::files::{exchange, gear_table, hulls};
use galvet_store::{Catalogue, Door, FileError, Kind, Record, Store, StoreError};
use serde_json::Value;
use std::collections::BTreeSet;

/// What to do with a hull that is there already.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum OnDouble {
    /// Its readings are added to those there, its words take their place.
    Update,
    /// It is put in beside the other.
    KeepBoth,
    /// It is left out.
    #[default]
    Skip,
}

/// What a file holds.
#[derive(Debug, Clone, Default)]
pub struct Incoming {
    /// Everything understood.
    pub catalogue: Catalogue,
    /// Columns nobody knows: kept, not understood.
    pub unknown_columns: Vec<String>,
    /// Of each hull of a table, the columns of words in which its row says something;
    /// empty for what is no table.
    pub told: Vec<BTreeSet<&'static str>>,
    /// Of each thing of a table, what its row says; empty for what is no table.
    pub told_things: Vec<Value>,
    /// How a dealer's table was read, to be remembered with the rows of it that wait.
    pub matching: Option<Matching>,
}

/// Reads hulls as a table, or an exchange file.
///
/// # Errors
/// Every mistake found, each at its line.
pub fn read(file: &str, text: &str) -> Result<Incoming, Vec<FileError>> {
    if text
        .trim_start_matches('\u{feff}')
        .trim_start()
        .starts_with(['{', '['])
    {
        let catalogue = exchange::read(file, text)?;
        for saved in &catalogue.briefs {
            question::check(&saved.question).map_err(|problem| {
                let key = galvet_store::files::echo(&saved.key);
                vec![FileError::whole(
                    file,
                    format!("question “{key}”: {problem}"),
                )]
            })?;
        }
        return Ok(Incoming {
            catalogue,
            ..Incoming::default()
        });
    }
    if gear_table::is_one(text) {
        let (told, unknown_columns) = gear_table::read_told(file, text)?;
        let (gear, told_things) = told.into_iter().unzip();
        let catalogue = Catalogue {
            gear,
            ..Catalogue::default()
        };
        return Ok(Incoming {
            catalogue,
            unknown_columns,
            told_things,
            ..Incoming::default()
        });
    }
    let read = hulls::read(file, text)?;
    Ok(Incoming {
        catalogue: Catalogue {
            hulls: read.hulls,
            ..Catalogue::default()
        },
        unknown_columns: read.unknown_columns,
        told: read.told,
        ..Incoming::default()
    })
}

/// The hull that is the same as `hull`, as far as anybody can tell: of its key,
/// or of its maker, model and size.
#[must_use]
pub fn double<'a>(hull: &HullRecord, there: &'a [HullRecord]) -> Option<&'a HullRecord> {
    let name = |h: &HullRecord| h.survey.name().to_lowercase();
    let alike = |other: &HullRecord, m: Measure| match (hull.survey.value(m), other.survey.value(m))
    {
        (Some(a), Some(b)) => (a - b).abs() <= m.tolerance(a),
        _ => true,
    };
    let by_key = there.iter().find(|h| h.survey.key == hull.survey.key);
    by_key.or_else(|| {
        there.iter().find(|other| {
            name(other) == name(hull)
                && alike(other, Measure::Length)
                && alike(other, Measure::Beam)
        })
    })
}

/// What an import did.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Imported {
    /// Records put in.
    pub added: usize,
    /// Records updated.
    pub updated: usize,
    /// Records left out.
    pub skipped: usize,
    /// Photos left out because their pictures did not come with them.
    pub unpictured: usize,
}

/// Takes a file's records in, in one step that is undone in one step. `choose`
/// says what becomes of the hull at a place that is there already.
///
/// # Errors
/// [`StoreError`], with nothing changed.
pub fn take_in(
    store: &Store,
    who: &str,
    file: &str,
    file_says: &Incoming,
    choose: impl Fn(usize) -> OnDouble,
) -> Result<Imported, StoreError> {
    let incoming = &file_says.catalogue;
    // As it was looked at: what others change meanwhile is a conflict.
    let mut there = store.catalogue()?;
    let mut done = Imported::default();
    let update = is_shelf(incoming);
    store.write(who, &format!("{file} imported"), |door| {
        for (at, gear) in incoming.gear.iter().enumerate() {
            let told = file_says.told_things.get(at);
            thing(door, (gear, told), (&there, update), &mut done)?;
        }
        let others = Kind::all().filter(|kind| !matches!(kind, Kind::Hull | Kind::Gear));
        for record in others.flat_map(|kind| incoming.of_kind(kind)) {
            other(door, &record, &mut done)?;
        }
        for (at, hull) in incoming.hulls.iter().enumerate() {
            let told = file_says.told.get(at);
            take_hull(door, (hull, told), &mut there, choose(at), &mut done)?;
        }
        if let Some(matching) = &file_says.matching {
            let known = door.find(Kind::of::<Matching>(), &matching.key)?;
            door.put(&Record::Sheet(Document::of(matching)), known)?;
        }
        Ok(())
    })?;
    Ok(done)
}

/// Whether a file is of the shelf and nothing else: then its things bring those
/// that are there already up to date, as a table sent round a spreadsheet should.
#[must_use]
pub fn is_shelf(incoming: &Catalogue) -> bool {
    let c = incoming;
    let others = c.hulls.len() + c.rigs.len() + c.waters.len() + c.briefs.len() + c.sheets.len();
    others == 0 && !c.gear.is_empty()
}

/// A thing of the shelf: put in where it is new; where it is there already, brought
/// up to date if `update` says so.
fn thing(
    door: &mut Door<'_>,
    (gear, told): (&Gear, Option<&Value>),
    (there, update): (&Catalogue, bool),
    done: &mut Imported,
) -> Result<(), StoreError> {
    let record = |gear: &Gear| Record::Gear(Box::new(gear.clone()));
    let kept = there.gear.iter().find(|g| g.key == gear.key);
    // What a table has no column for, or an empty cell, stays.
    let with = match (kept, told) {
        (Some(kept), Some(told)) => record(kept).told_over(told)?,
        _ => record(gear),
    };
    let same = kept.is_some_and(|kept| record(kept) == with);
    let known = door.find(Kind::Gear, &gear.key)?;
    if known.is_some() && (same || !update) {
        done.skipped += 1;
        return Ok(());
    }
    if known.is_some() {
        done.updated += 1;
    } else {
        done.added += 1;
    }
    door.put(&with, known)?;
    Ok(())
}

/// What is neither hull nor thing goes by its key: put in where it is new, left alone where not.
fn other(door: &mut Door<'_>, record: &Record, done: &mut Imported) -> Result<(), StoreError> {
    if door.find(record.kind(), record.slug())?.is_some() {
        done.skipped += 1;
        return Ok(());
    }
    if let Record::Sheet(document) = record
        && let Some(photo) = document.sheet::<Photo>()
        && !door.has_picture(photo)?
    {
        done.unpictured += 1;
        return Ok(());
    }
    door.put(record, None)?;
    done.added += 1;
    Ok(())
}

/// One hull; what it updates is updated in `there` as well, so that another of
/// the file that means the same hull adds to it.
fn take_hull(
    door: &mut Door<'_>,
    (hull, told): (&HullRecord, Option<&BTreeSet<&'static str>>),
    there: &mut Catalogue,
    choice: OnDouble,
    done: &mut Imported,
) -> Result<(), StoreError> {
    let same = double(hull, &there.hulls);
    let same = same.and_then(|same| there.hulls.iter().position(|h| std::ptr::eq(h, same)));
    match (same, choice) {
        (Some(_), OnDouble::Skip) => done.skipped += 1,
        (Some(at), OnDouble::Update) => {
            let merged = updated(&there.hulls[at], hull, told);
            let record = Record::Hull(Box::new(merged.clone()));
            there.known[at] = door.put(&record, Some(there.known[at]))?;
            there.hulls[at] = merged;
            done.updated += 1;
        }
        (None, _) | (Some(_), OnDouble::KeepBoth) => {
            let mut hull = hull.clone();
            hull.survey.key = free_slug(door, Kind::Hull, &hull.survey.key)?;
            door.put(&Record::Hull(Box::new(hull)), None)?;
            done.added += 1;
        }
    }
    Ok(())
}

/// Puts something of a record as it was on one that is to replace it.
type Stays = fn(&mut Survey, &Survey);

/// What a record says whatever stands there, by its column, and how it stays as it is.
const SAID: [(&str, Stays); 8] = [
    ("construction", |s, old| s.construction = old.construction),
    ("propulsion", |s, old| s.propulsion = old.propulsion),
    ("drive_lifts", |s, old| s.drive_lifts = old.drive_lifts),
    ("tracks_straight", |s, old| {
        s.tracks_straight = old.tracks_straight;
    }),
    ("seats", |s, old| s.seats = old.seats),
    ("capacity_basis", |s, old| {
        s.capacity_basis = old.capacity_basis;
    }),
    ("origin", |s, old| s.origin = old.origin),
    ("maker", |s, old| s.maker.clone_from(&old.maker)),
];

/// A record with what a file says of it: readings are added, never replaced;
/// what the file does not carry stays. `told` are the words a table's row says.
fn updated(
    there: &HullRecord,
    file: &HullRecord,
    told: Option<&BTreeSet<&'static str>>,
) -> HullRecord {
    let mut out = file.clone();
    let (s, old) = (&mut out.survey, &there.survey);
    s.key.clone_from(&old.key);
    let mut readings = old.readings.clone();
    for (&measure, new) in &s.readings {
        let all = readings.entry(measure).or_default();
        for reading in new {
            let known = |r: &galvet_core::hull::Reading| {
                (r.value, r.source, &r.date) == (reading.value, reading.source, &reading.date)
            };
            if !all.iter().any(known) {
                all.push(reading.clone());
            }
        }
    }
    s.readings = readings;
    let silent = |word: &str| told.is_some_and(|told| !told.contains(word));
    for (word, stays) in SAID {
        if silent(word) {
            stays(s, old);
        }
    }
    s.bottom = s.bottom.or(old.bottom);
    s.year = s.year.or(old.year);
    for (new, old) in [
        (&mut s.notes, &old.notes),
        (&mut s.fitted_includes, &old.fitted_includes),
    ] {
        if new.is_empty() {
            new.clone_from(old);
        }
    }
    if s.evidence.is_empty() {
        s.evidence.clone_from(&old.evidence);
    }
    if s.offsets.is_empty() {
        s.offsets.clone_from(&old.offsets);
    }
    if s.fitout == galvet_core::hull::Fitout::default() {
        s.fitout = old.fitout.clone();
    }
    if s.looked.is_empty() {
        s.looked = old.looked.clone();
    }
    for (name, value) in &there.extra {
        out.extra
            .entry(name.clone())
            .or_insert_with(|| value.clone());
    }
    out
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::demo_data;
    use galvet_core::hull::Source;

    const TABLE: &str = "key,maker,model,construction,length_m,beam_cm,notes\n\
        tindrel-vaskar,Tindrel,Vaskar,sit-inside,4.41 (tape),,\n\
        other,Fennick,Dunmarrow,sit-on-top,3.71,90,\n\
        mine,,Own,board,3.2,80,new\n";

    fn filled() -> (tempfile::TempDir, Store) {
        let directory = tempfile::tempdir().unwrap();
        let store = Store::open(directory.path()).unwrap();
        store
            .fill("test", &demo_data::catalogue().unwrap())
            .unwrap();
        (directory, store)
    }

    #[test]
    fn doubles_are_seen_by_key_or_by_name_and_size() {
        let there = demo_data::catalogue().unwrap().hulls;
        let read = read("t.csv", TABLE).unwrap().catalogue.hulls;
        let found = |at: usize| double(&read[at], &there).map(|h| h.survey.key.clone());
        assert_eq!(found(0).as_deref(), Some("tindrel-vaskar"));
        assert_eq!(found(1).as_deref(), Some("fennick-dunmarrow"));
        assert_eq!(found(2), None);
        let mut longer = read[1].clone();
        let length = longer.survey.readings.get_mut(&Measure::Length).unwrap();
        length[0].value = 4.1;
        assert!(double(&longer, &there).is_none());
    }

    #[test]
    fn an_update_adds_readings_and_loses_none_and_is_undone_in_one_step() {
        let (_directory, store) = filled();
        let before = store.catalogue().unwrap().hulls;
        let file = read("t.csv", TABLE).unwrap();
        let done = take_in(&store, "Ana", "t.csv", &file, |_| OnDouble::Update).unwrap();
        assert_eq!((done.added, done.updated, done.skipped), (1, 2, 0));
        let after = store.catalogue().unwrap().hulls;
        let of = |all: &[HullRecord], key: &str| {
            all.iter().find(|h| h.survey.key == key).cloned().unwrap()
        };
        let (old, new) = (of(&before, "tindrel-vaskar"), of(&after, "tindrel-vaskar"));
        assert_eq!(
            new.survey.best(Measure::Length).unwrap().source,
            Source::Tape
        );
        assert_eq!(new.survey.readings[&Measure::Length].len(), 2);
        assert_eq!(
            new.survey.readings[&Measure::Beam],
            old.survey.readings[&Measure::Beam]
        );
        assert_eq!(new.survey.evidence, old.survey.evidence);
        let act = store.steps("Ana", None).unwrap().undo.unwrap();
        assert_eq!(store.reverse("Ana", act.group).unwrap(), "t.csv imported");
        assert_eq!(store.catalogue().unwrap().hulls, before);
        // What the table has no column for stays, and so does what its cells leave empty.
        let words = |h: &HullRecord| {
            let s = &h.survey;
            let basis = (s.capacity_basis, s.origin, s.seats);
            (s.propulsion, s.drive_lifts, s.tracks_straight, basis)
        };
        for key in ["fennick-dunmarrow", "tindrel-vaskar"] {
            assert_eq!(words(&of(&after, key)), words(&of(&before, key)), "{key}");
        }
        // Two lines that mean one hull both add to it.
        let twice = "key,maker,model,construction,length_m\na,Tindrel,Vaskar,sit-on-top,4.41 (tape)\n\
            b,Tindrel,Vaskar,sit-on-top,4.42 (scale)\n";
        let file = read("two.csv", twice).unwrap();
        let done = take_in(&store, "Ana", "two.csv", &file, |_| OnDouble::Update).unwrap();
        assert_eq!(done.updated, 2);
        let both = of(&store.catalogue().unwrap().hulls, "tindrel-vaskar");
        assert_eq!(both.survey.readings[&Measure::Length].len(), 3);
    }

    #[test]
    fn skipping_and_keeping_both_do_as_they_say() {
        let (_directory, store) = filled();
        let count = store.catalogue().unwrap().hulls.len();
        let file = read("t.csv", TABLE).unwrap();
        let choose = |at| {
            if at == 0 {
                OnDouble::KeepBoth
            } else {
                OnDouble::Skip
            }
        };
        let done = take_in(&store, "Ana", "t.csv", &file, choose).unwrap();
        assert_eq!((done.added, done.updated, done.skipped), (2, 0, 1));
        let hulls = store.catalogue().unwrap().hulls;
        assert_eq!(hulls.len(), count + 2);
        assert!(hulls.iter().any(|h| h.survey.key == "tindrel-vaskar-2"));
    }
}
