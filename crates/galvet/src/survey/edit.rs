//! Records changed: each change is applied to the record as it stands, so that
//! two people who change different things both keep theirs.

use super::slug::{free_slug, slug_of};
use super::typed::Refusal;
use galvet_core::base::{Keyed, one_line, typed_name};
use galvet_core::hull::{Judgement, Kept, Measure, Reading};
use galvet_store::files::hulls::HullRecord;
use galvet_store::{Kind, Known, Record, Store, StoreError};
use std::collections::HashMap;
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

/// Puts what was typed in a form over the record as it stands: `put` puts what a form
/// reads as on a record. What reads the same from the form as it was shown stays as it is
/// kept, to the last digit, and with all the form does not show.
///
/// # Errors
/// What `put` says of what was typed.
pub fn put_over<T>(
    hull: &mut HullRecord,
    (shown, typed): (T, T),
    put: impl Fn(&mut HullRecord, T) -> Result<(), Refusal>,
) -> Result<(), Refusal> {
    let record = |value: T| {
        let mut with = hull.clone();
        put(&mut with, value).map(|()| Record::Hull(Box::new(with)))
    };
    let typed = record(typed)?;
    let kept = Record::Hull(Box::new(hull.clone()));
    // Where what is kept cannot be shown and read again, what was typed counts alone.
    let over = match record(shown) {
        Ok(shown) => kept.typed_over(&shown, &typed),
        Err(_) => Ok(typed),
    };
    if let Record::Hull(over) = over.map_err(|e| Refusal::from(e.to_string()))? {
        *hull = *over;
    }
    Ok(())
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

/// The words a person can change on a record, by their names in forms.
#[must_use]
pub fn words_of(hull: &HullRecord) -> Vec<(&'static str, String)> {
    let s = &hull.survey;
    let yes = |is: bool| if is { "yes" } else { "" }.to_owned();
    vec![
        ("maker", s.maker.clone()),
        ("model", s.model.clone()),
        ("year", s.year.map_or(String::new(), |y| y.to_string())),
        ("construction", s.construction.key().to_owned()),
        (
            "bottom",
            s.bottom.map_or(String::new(), |b| b.key().to_owned()),
        ),
        ("propulsion", s.propulsion.key().to_owned()),
        ("drive-lifts", yes(s.drive_lifts)),
        ("tracks-straight", yes(s.tracks_straight)),
        ("seats", s.seats.to_string()),
        ("basis", s.capacity_basis.key().to_owned()),
        ("origin", s.origin.key().to_owned()),
        ("includes", s.fitted_includes.clone()),
        ("notes", s.notes.clone()),
    ]
}

/// Sets what was judged: each judgement's word by its key; an empty word takes the
/// judgement off, one that is not sent stays.
///
/// # Errors
/// What would be accepted.
pub fn judge(hull: &mut HullRecord, answers: &HashMap<String, String>) -> Result<(), String> {
    let judged = &mut hull.survey.looked.judged;
    for &judgement in Judgement::ALL {
        let Some(word) = answers.get(judgement.key()) else {
            continue;
        };
        if word.is_empty() {
            judged.remove(&judgement);
            continue;
        }
        let answer = judgement.answer(word);
        let (word, _) = answer.ok_or_else(|| format!("{}: not an answer", judgement.label()))?;
        judged.insert(judgement, word);
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

/// Says that she has not a place of the template, or that she has it after all.
pub fn set_absent(hull: &mut HullRecord, place: &str, absent: bool) {
    let all = &mut hull.survey.looked.absent;
    all.retain(|name| name != place);
    if absent {
        all.push(place.to_owned());
    }
}

/// Longest notes taken.
const LONGEST: usize = 2_000;

/// Sets one of those words.
///
/// # Errors
/// What would be accepted.
pub fn set_words(hull: &mut HullRecord, name: &str, text: &str) -> Result<(), String> {
    fn chosen<T: Keyed>(text: &str) -> Result<T, String> {
        galvet_store::files::word("answer", text)
    }
    let text = text.trim();
    if text.chars().count() > LONGEST {
        return Err(format!("longer than {LONGEST} characters"));
    }
    let s = &mut hull.survey;
    match name {
        "maker" => s.maker = one_line(text).map_err(|e| e.to_string())?,
        "model" => s.model = typed_name(text).map_err(|e| e.to_string())?,
        "year" if text.is_empty() => s.year = None,
        "year" => {
            let year = text.parse().ok().filter(|y| (1900..=2100).contains(y));
            s.year = Some(year.ok_or("write a year such as 2024")?);
        }
        "construction" => s.construction = chosen(text)?,
        "bottom" if text.is_empty() => s.bottom = None,
        "bottom" => s.bottom = Some(chosen(text)?),
        "propulsion" => s.propulsion = chosen(text)?,
        "drive-lifts" => s.drive_lifts = !text.is_empty(),
        "tracks-straight" => s.tracks_straight = !text.is_empty(),
        "seats" => {
            let seats = text.parse().ok().filter(|n| (1..=4).contains(n));
            s.seats = seats.ok_or("a kayak has 1 to 4 seats")?;
        }
        "basis" => s.capacity_basis = chosen(text)?,
        "origin" => s.origin = chosen(text)?,
        "includes" => s.fitted_includes = text.to_owned(),
        "notes" => s.notes = text.to_owned(),
        _ => return Err("there is no such field".to_owned()),
    }
    Ok(())
}
