//! Ticks on the lists of a hull: those of an outing, which die with its day, and those of
//! work on it, which stay until it is done.

use crate::form::Refusal;
use crate::survey::EditError;
use galvet_store::files::sheet::{Document, Sheet};
use galvet_store::files::ticked::{Answer, Ticked};
use galvet_store::{Catalogue, Kind, Record, Store};
use std::collections::BTreeMap;

/// The kind of record.
const KIND: Kind = Kind::of::<Ticked>();

/// Letters of a hull's key that stand in the key of its ticks.
const OF_KEY: usize = 48;
/// What ends the key of those that stay.
const WORK: &str = "-work";

/// Which ticks of a hull.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Ticks {
    /// Of an outing: they die with its day.
    Outing,
    /// Of work on it.
    Work,
}

/// The ticks of a hull that are under way: of several outings the one begun last.
#[must_use]
pub fn begun(catalogue: &Catalogue, hull: &str, which: Ticks) -> Option<Ticked> {
    let all = catalogue.sheets_of::<Ticked>();
    let ours = all.filter(|t| t.hull == hull && t.key.ends_with(WORK) == (which == Ticks::Work));
    ours.max_by(|a, b| a.begun.cmp(&b.begun)).cloned()
}

/// Whose list is ticked, and with which question it was drawn up.
#[derive(Debug, Clone, Copy)]
pub struct Whose<'a> {
    /// The hull's key.
    pub hull: &'a str,
    /// What it is called.
    pub name: &'a str,
    /// The question as an address's query.
    pub question: &'a str,
}

/// Takes answers over, for the outing of today or for work under way. Of two answers to a
/// line the later one holds, in whatever order they come. An outing that begins ends those
/// of other days: their ticks are dead.
///
/// # Errors
/// [`EditError`]; nothing is changed then.
pub fn tick(
    store: &Store,
    who: &str,
    whose: Whose<'_>,
    (which, today): (Ticks, &str),
    answers: &[(String, Answer)],
) -> Result<(), EditError> {
    let start = whose
        .hull
        .get(..OF_KEY.min(whose.hull.len()))
        .unwrap_or(whose.hull);
    let key = match which {
        Ticks::Outing => format!("{start}-{today}"),
        Ticks::Work => format!("{start}{WORK}"),
    };
    let label = format!("list of the {} ticked", whose.name);
    let put = |ticked: &mut Ticked| -> Result<(), EditError> {
        for (line, answer) in answers {
            ticked.take(line.clone(), answer.clone());
        }
        ticked
            .check()
            .map_err(|why| EditError::Refused(Refusal::from(why)))
    };
    let over = |record: &mut Record| {
        let Record::Sheet(sheet) = record else {
            return Err(EditError::Gone);
        };
        let mut ticked: Ticked = sheet.sheet().cloned().ok_or(EditError::Gone)?;
        put(&mut ticked)?;
        *sheet = Document::of(&ticked);
        Ok(())
    };
    if store.edit(who, &label, (KIND, &key), over)?.is_some() {
        return Ok(());
    }
    let mut ticked = Ticked {
        key: key.clone(),
        name: match which {
            Ticks::Outing => format!("{}, {today}", whose.name),
            Ticks::Work => format!("{}, work", whose.name),
        },
        hull: whose.hull.to_owned(),
        question: whose.question.to_owned(),
        begun: today.to_owned(),
        answers: BTreeMap::new(),
    };
    put(&mut ticked)?;
    let dead: Vec<Ticked> = store.sheets()?;
    let dead = dead
        .into_iter()
        .filter(|t| which == Ticks::Outing && t.hull == whose.hull && !t.key.ends_with(WORK));
    let dead: Vec<String> = dead.map(|t| t.key).filter(|k| *k != key).collect();
    store.write(who, &label, |door| {
        for old in &dead {
            if let Some(known) = door.find(KIND, old)? {
                door.throw_away(KIND, known)?;
            }
        }
        // Two phones that begin at once: the second finds the first one's.
        let known = door.find(KIND, &key)?;
        door.put(&Record::Sheet(Document::of(&ticked)), known)
    })?;
    Ok(())
}

/// Ends an outing, or work: its ticks go.
///
/// # Errors
/// [`EditError`].
pub fn end(store: &Store, who: &str, key: &str) -> Result<(), EditError> {
    match store.throw_away(who, (KIND, key), None)? {
        Some(_) => Ok(()),
        None => Err(EditError::Gone),
    }
}
