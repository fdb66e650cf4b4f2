//! Papers handed out by an address that nobody guesses: read-only, until withdrawn.

use crate::form::Refusal;
use crate::survey::EditError;
use galvet_store::files::handed::Handed;
use galvet_store::files::sheet::{Document, Sheet};
use galvet_store::{Catalogue, Kind, Record, Store};
use rocket::time::{Date, Duration, Month};

/// Random bytes of an address: 128 bits.
const BYTES: usize = 16;

/// All that are out, the newest first.
#[must_use]
pub fn handed(catalogue: &Catalogue) -> Vec<Handed> {
    let mut all: Vec<Handed> = catalogue.sheets_of().cloned().collect();
    all.sort_by(|a, b| b.made.cmp(&a.made).then_with(|| a.name.cmp(&b.name)));
    all
}

/// Whether the time of an address is over.
#[must_use]
pub fn is_over(paper: &Handed, today: &str) -> bool {
    paper.until.as_deref().is_some_and(|last| last < today)
}

/// The day so many days after one, both ISO 8601; `None` for what is no day.
#[must_use]
pub fn day_after(day: &str, days: f64) -> Option<String> {
    let mut parts = day.splitn(3, '-');
    let year = parts.next()?.parse().ok()?;
    let month = Month::try_from(parts.next()?.parse::<u8>().ok()?).ok()?;
    let day = Date::from_calendar_date(year, month, parts.next()?.parse().ok()?).ok()?;
    let last = day.checked_add(Duration::days(days.round() as i64))?;
    let (year, month, day) = (last.year(), u8::from(last.month()), last.day());
    Some(format!("{year:04}-{month:02}-{day:02}"))
}

/// Sets the last day on which an address is read.
///
/// # Errors
/// [`EditError`] for no such address and for no day; nothing is changed then.
pub fn keep_until(store: &Store, who: &str, key: &str, last: &str) -> Result<(), EditError> {
    let known = (Kind::of::<Handed>(), key);
    let label = "the last day of an address set";
    let set = store.edit(who, label, known, |record| {
        let Record::Sheet(sheet) = record else {
            return Ok(());
        };
        let Some(mut paper) = sheet.sheet::<Handed>().cloned() else {
            return Ok(());
        };
        paper.until = Some(last.trim().to_owned());
        paper
            .check()
            .map_err(|why| EditError::Refused(why.into()))?;
        *sheet = Document::of(&paper);
        Ok::<_, EditError>(())
    })?;
    set.map(|_| ()).ok_or(EditError::Gone)
}

/// Hands a page out for days up to the `last`; returns the part of its address that nobody guesses.
///
/// # Errors
/// [`EditError`]; nothing is handed out then.
pub fn hand_out(
    store: &Store,
    who: &str,
    (name, page, of_customer): (&str, &str, bool),
    (today, last): (&str, &str),
) -> Result<String, EditError> {
    let refused = |why: String| EditError::Refused(Refusal::from(why));
    let mut random = [0u8; BYTES];
    getrandom::fill(&mut random)
        .map_err(|e| refused(format!("this machine gives no random numbers: {e}")))?;
    let key: String = random.iter().map(|b| format!("{b:02x}")).collect();
    let paper = Handed {
        key: key.clone(),
        name: name.to_owned(),
        page: page.to_owned(),
        made: today.to_owned(),
        until: Some(last.to_owned()),
        of_customer,
    };
    paper.check().map_err(refused)?;
    let label = format!("“{name}” handed out");
    store.write(who, &label, |door| {
        debug_assert!(door.find(Kind::of::<Handed>(), &key)?.is_none());
        door.put(&Record::Sheet(Document::of(&paper)), None)
    })?;
    Ok(key)
}
