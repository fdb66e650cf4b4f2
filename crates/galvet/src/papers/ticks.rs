//! Ticks of one outing with one hull. They die with it.

use crate::form::Refusal;
use crate::survey::EditError;
use galvet_store::files::sheet::{Document, Sheet};
use galvet_store::files::ticked::{Answer, Ticked};
use galvet_store::{Catalogue, Kind, Record, Store};

/// The kind of record.
const KIND: Kind = Kind::of::<Ticked>();

/// Letters of a hull's key that stand in the key of its outing.
const OF_KEY: usize = 48;

/// The outing begun last with a hull, which is the one under way.
#[must_use]
pub fn begun(catalogue: &Catalogue, hull: &str) -> Option<Ticked> {
    let all = catalogue.sheets_of::<Ticked>().into_iter();
    all.filter(|t| t.hull == hull)
        .max_by(|a, b| a.begun.cmp(&b.begun))
}

/// Takes answers over for the outing under way with a hull (key, name), or for one begun
/// today. Of two answers to a line the later one holds, in whatever order they come.
///
/// # Errors
/// [`EditError`]; nothing is changed then.
pub fn tick(
    store: &Store,
    who: &str,
    (hull, name): (&str, &str),
    (question, today): (&str, &str),
    under_way: Option<&str>,
    answers: Vec<(String, Answer)>,
) -> Result<(), EditError> {
    let made = format!(
        "{}-{today}",
        hull.get(..OF_KEY.min(hull.len())).unwrap_or(hull)
    );
    let key = under_way.unwrap_or(&made);
    let label = format!("list of the {name} ticked");
    let put = |ticked: &mut Ticked| -> Result<(), String> {
        for (line, answer) in answers.clone() {
            ticked.take(line, answer);
        }
        ticked.check()
    };
    let refused = |why: String| EditError::Refused(Refusal::from(why));
    let over = |record: &mut Record| {
        let Record::Sheet(sheet) = record else {
            return Err(EditError::Gone);
        };
        let mut ticked: Ticked = sheet.sheet().ok_or(EditError::Gone)?;
        put(&mut ticked).map_err(refused)?;
        *sheet = Document::of(&ticked);
        Ok(())
    };
    if store.edit(who, &label, (KIND, key), over)?.is_some() {
        return Ok(());
    }
    let mut ticked = Ticked {
        key: key.to_owned(),
        name: format!("{name}, {today}"),
        hull: hull.to_owned(),
        question: question.to_owned(),
        begun: today.to_owned(),
        answers: std::collections::BTreeMap::new(),
    };
    put(&mut ticked).map_err(refused)?;
    store.write(who, &label, |door| {
        // Two phones that begin at once: the second finds the first one's.
        let known = door.find(KIND, key)?;
        door.put(&Record::Sheet(Document::of(&ticked)), known)
    })?;
    Ok(())
}

/// Ends an outing: its ticks go.
///
/// # Errors
/// [`EditError`].
pub fn end(store: &Store, who: &str, key: &str) -> Result<(), EditError> {
    match store.throw_away(who, (KIND, key), None)? {
        Some(_) => Ok(()),
        None => Err(EditError::Gone),
    }
}
