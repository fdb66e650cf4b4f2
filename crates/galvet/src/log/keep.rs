//! Outings and services written through the one door.

use super::draft::{Thing, outing_table};
use crate::form::{Refusal, Sent, free_slug, slug_of};
use crate::kit;
use crate::survey::{EditError, edit_hull};
use galvet_core::base::System;
use galvet_core::hull::Evidence;
use galvet_core::papers::CARE;
use galvet_store::files::outing::OutingEntry;
use galvet_store::files::served::ServedEntry;
use galvet_store::files::sheet::{Document, Sheet};
use galvet_store::{Door, Kind, Record, Store, StoreError};

/// The kind of record.
const KIND: Kind = Kind::of::<OutingEntry>();

/// Keeps an outing that was begun, under a slug made of its day and hull; returns the slug.
/// What a phone sends twice (it had no connection, and tries again) is kept once.
///
/// # Errors
/// [`EditError`]; nothing is changed then.
pub(crate) fn begin(store: &Store, who: &str, mut entry: OutingEntry) -> Result<String, EditError> {
    let label = format!("outing “{}” begun", entry.name);
    if !entry.once.is_empty() {
        let mut kept = store.sheets::<OutingEntry>()?.into_iter();
        if let Some(there) = kept.find(|o| o.once == entry.once) {
            return Ok(there.key);
        }
    }
    // Two that are sent at once would both not be there yet: the key tells the second.
    let wanted = match entry.once.as_str() {
        "" => slug_of(&format!("{} {}", entry.day, entry.hull), "outing"),
        once => slug_of(&format!("{} {once}", entry.day), "outing"),
    };
    Ok(store.write(who, &label, |door| {
        if !entry.once.is_empty() && door.find(KIND, &wanted)?.is_some() {
            return Ok(wanted.clone());
        }
        put_new(door, &wanted, &mut entry)
    })?)
}

fn put_new(
    door: &mut Door<'_>,
    wanted: &str,
    entry: &mut OutingEntry,
) -> Result<String, StoreError> {
    let key = free_slug(door, KIND, wanted)?;
    entry.key.clone_from(&key);
    door.put(&Record::Sheet(Document::of(entry)), None)?;
    Ok(key)
}

/// Puts outings of a table in, in one step; those that stand there already, of the same day,
/// hull and place, are left out. How many went in, and how many did not.
///
/// # Errors
/// [`StoreError`], with nothing changed.
pub(crate) fn put_all(
    store: &Store,
    who: &str,
    file: &str,
    all: &[OutingEntry],
) -> Result<(usize, usize), StoreError> {
    let there: Vec<OutingEntry> = store.sheets()?;
    let same = |a: &OutingEntry, b: &OutingEntry| {
        (a.day == b.day, a.hull == b.hull, a.name == b.name) == (true, true, true)
    };
    store.write(who, &format!("{file} imported into the log"), |door| {
        let (mut added, mut left) = (0, 0);
        for entry in all {
            if there.iter().any(|o| same(o, entry)) {
                left += 1;
                continue;
            }
            let mut entry = entry.clone();
            let wanted = slug_of(&format!("{} {}", entry.day, entry.hull), "outing");
            put_new(door, &wanted, &mut entry)?;
            added += 1;
        }
        Ok((added, left))
    })
}

/// Changes an outing as it stands now: what was typed, and what comes with it.
///
/// # Errors
/// [`EditError`]; nothing is changed then.
pub(crate) fn edit_outing(
    store: &Store,
    (who, label): (&str, &str),
    key: &str,
    change: impl FnOnce(&mut OutingEntry) -> Result<(), Refusal>,
) -> Result<(), EditError> {
    kit::edit(store, (who, label), (KIND, key), |record| {
        let Record::Sheet(sheet) = record else {
            return Err(Refusal::from("that is no outing".to_owned()));
        };
        let Some(mut entry) = sheet.sheet::<OutingEntry>().cloned() else {
            return Err(Refusal::from("that is no outing".to_owned()));
        };
        change(&mut entry)?;
        entry.check().map_err(Refusal::from)?;
        *sheet = Document::of(&entry);
        Ok(())
    })
}

impl OutingTyped<'_> {
    /// Puts what was typed over an outing.
    ///
    /// # Errors
    /// What was not understood.
    pub(crate) fn over(&self, entry: &mut OutingEntry) -> Result<(), Refusal> {
        let carried = entry.clone().outing().carried;
        let things: Vec<Thing> = carried.iter().map(Thing::of).collect();
        let table = outing_table(&things, self.waters);
        table.put(entry, self.sent, self.system)
    }
}

/// What was typed of an outing.
pub(crate) struct OutingTyped<'a> {
    /// Fields as sent.
    pub(crate) sent: &'a Sent,
    /// Kinds of water there are.
    pub(crate) waters: &'a [(String, String)],
    /// Whose units.
    pub(crate) system: System,
}

/// Puts a reading of an outing on its hull's record, as if it had been typed on its page of
/// float tests; one that stands there already is not put there twice.
///
/// # Errors
/// [`EditError`].
pub(crate) fn add_evidence(
    store: &Store,
    who: &str,
    hull: &str,
    evidence: &Evidence,
) -> Result<(), EditError> {
    let label = format!("{} of an outing noted", evidence.name());
    edit_hull(store, who, hull, &label, |record| {
        if !record.survey.evidence.contains(evidence) {
            record.survey.evidence.push(evidence.clone());
        }
        Ok::<(), Refusal>(())
    })
    .map(|_| ())
}

/// Notes that a service was done on a day.
///
/// # Errors
/// [`EditError`]; nothing is changed then.
pub(crate) fn serve(
    store: &Store,
    who: &str,
    (hull, name): (&str, &str),
    (care, day, note): (&str, &str, &str),
) -> Result<(), EditError> {
    let what = CARE.iter().find(|c| c.id == care).map_or(care, |c| c.what);
    let mut entry = ServedEntry {
        key: "service".to_owned(),
        name: format!("{what} of the {name}, {day}"),
        hull: hull.to_owned(),
        care: care.to_owned(),
        day: day.to_owned(),
        note: note.to_owned(),
    };
    entry
        .check()
        .map_err(|why| EditError::Refused(Refusal::from(why)))?;
    let label = format!("service noted: {what} of the {name}");
    store.write(who, &label, |door| {
        let kind = Kind::of::<ServedEntry>();
        entry.key = free_slug(
            door,
            kind,
            &slug_of(&format!("{day} {care} {hull}"), "service"),
        )?;
        door.put(&Record::Sheet(Document::of(&entry)), None)
    })?;
    Ok(())
}

/// Takes a service that was noted back.
///
/// # Errors
/// [`EditError`].
pub(crate) fn unserve(store: &Store, who: &str, key: &str) -> Result<(), EditError> {
    match store.throw_away(who, (Kind::of::<ServedEntry>(), key), None)? {
        Some(_) => Ok(()),
        None => Err(EditError::Gone),
    }
}
