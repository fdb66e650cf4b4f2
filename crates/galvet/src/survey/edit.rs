//! Records changed: each change is applied to the record as it stands, so that
//! two people who change different things both keep theirs.

use crate::form::{Refusal, Sent, free_slug, slug_of};
use galvet_core::hull::{Kept, Measure, Reading};
use galvet_store::files::hulls::HullRecord;
use galvet_store::{Kind, Known, Record, Store, StoreError};
use thiserror::Error;

/// Why a record was not changed.
#[derive(Debug, Error)]
pub enum EditError {
    /// There is no such hull (any more).
    #[error("there is no such hull any more")]
    Gone,
    /// The change makes no sense for it.
    #[error("{0}")]
    Refused(Refusal),
    /// The database.
    #[error(transparent)]
    Store(StoreError),
}

impl From<StoreError> for EditError {
    fn from(error: StoreError) -> Self {
        match error {
            // What was typed is at fault, not the database.
            StoreError::TooMuch(over) => Self::Refused(over.to_string().into()),
            other => Self::Store(other),
        }
    }
}

/// Keeps a new hull under a slug made of its name; returns the slug.
///
/// # Errors
/// [`StoreError`].
pub fn put_hull(store: &Store, who: &str, mut hull: HullRecord) -> Result<String, StoreError> {
    let name = hull.survey.name();
    store.write(who, &format!("hull “{name}” put in"), |door| {
        hull.survey.key = free_slug(door, Kind::Hull, &slug_of(&name, "hull"))?;
        let key = hull.survey.key.clone();
        door.put(&Record::Hull(Box::new(hull)), None)?;
        Ok(key)
    })
}

/// Changes the hull of a slug as it stands now; `label` names the change in the
/// history.
///
/// # Errors
/// [`EditError`]; nothing is changed then.
pub fn edit_hull<E: Into<Refusal>>(
    store: &Store,
    who: &str,
    slug: &str,
    label: &str,
    change: impl FnOnce(&mut HullRecord) -> Result<(), E>,
) -> Result<Known, EditError> {
    let change = |record: &mut Record| match record {
        Record::Hull(hull) => change(hull).map_err(|e| EditError::Refused(e.into())),
        _ => Err(EditError::Gone),
    };
    let done = store.edit(who, label, (Kind::Hull, slug), change)?;
    done.ok_or(EditError::Gone)
}

/// Said of a thing that is not on the record any more.
pub(super) const GONE: &str =
    "somebody took this off meanwhile; what was typed stands here, keeping it puts it on anew";

/// The one of a name among what is on a record; `None` for a new one's form.
///
/// # Errors
/// [`GONE`], where it was there when the form was shown.
pub(super) fn same<'a, T>(
    all: &'a [T],
    was: &str,
    form: &Sent,
    name: impl Fn(&T) -> &str,
) -> Result<Option<&'a T>, Refusal> {
    let there = all.iter().find(|one| name(one) == was);
    if there.is_none() && form.contains_key("shown") {
        return Err(GONE.into());
    }
    Ok(there)
}

/// Adds a reading; the others stay.
pub fn add_reading(hull: &mut HullRecord, measure: Measure, reading: Reading) {
    let readings = hull.survey.readings.entry(measure).or_default();
    if !readings.contains(&reading) {
        readings.push(reading);
    }
}

/// Takes a reading off the record; the history keeps it.
///
/// # Errors
/// In words, when it is not there (any more).
pub fn forget_reading(
    hull: &mut HullRecord,
    measure: Measure,
    reading: &Reading,
) -> Result<(), String> {
    let readings = hull.survey.readings.entry(measure).or_default();
    let Some(at) = readings.iter().position(|r| r == reading) else {
        return Err("that reading is not on the record any more".to_owned());
    };
    readings.remove(at);
    if readings.is_empty() {
        hull.survey.readings.remove(&measure);
    }
    Ok(())
}

/// Stands by an odd figure, or no longer, named word for word.
///
/// # Errors
/// In words, when that is not found (any more).
pub fn stand_by(hull: &mut HullRecord, kept: Kept) -> Result<(), String> {
    let found = hull.survey.findings();
    if !found
        .iter()
        .any(|f| f.contradiction && f.text == kept.finding)
    {
        return Err("that is not found odd any more".to_owned());
    }
    hull.survey.looked.kept.push(kept);
    Ok(())
}

/// Asks about an odd figure again.
pub fn doubt_again(hull: &mut HullRecord, finding: &str) {
    hull.survey.looked.kept.retain(|k| k.finding != finding);
}

/// Says that it has not a place of the template, or that it has it after all.
pub fn set_absent(hull: &mut HullRecord, place: &str, absent: bool) {
    let all = &mut hull.survey.looked.absent;
    all.retain(|name| name != place);
    if absent {
        all.push(place.to_owned());
    }
}

/// Puts something on a list in the place of the one named `was`, or at its end.
pub(super) fn put<T>(list: &mut Vec<T>, was: Option<&str>, item: T, name: impl Fn(&T) -> &str) {
    let there = was.and_then(|was| list.iter().position(|other| name(other) == was));
    match there {
        Some(at) => list[at] = item,
        None => list.push(item),
    }
}

/// Holds the record's space against itself.
///
/// # Errors
/// In words, where it contradicts itself.
pub(super) fn checked(hull: &HullRecord) -> Result<(), String> {
    let fitout = hull.survey.fitout.clone().check();
    fitout.map(|_| ()).map_err(|e| e.to_string())
}
