//! Undo, redo and history: all read off the journal's lines.

use super::door::{Door, find};
use super::journal::{Change, Stored, entry};
use super::kind::{Kind, Known};
use super::record::Record;
use super::{Store, schema};
use crate::error::StoreError;
use diesel::prelude::*;
use std::collections::HashSet;

/// Acts of the command line, and of pages before each browser had a hand of its own:
/// anybody may take them back.
const ANYBODYS: [&str; 2] = ["command line", "page"];

/// So many of one's last acts can be taken back in order.
const REACH: i64 = 300;

/// Changes made together, which are taken back together.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Act {
    /// Their group in the journal.
    pub group: i64,
    /// What was done, in the words of the history, and to what.
    pub words: String,
}

/// What one can take back and do again.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub struct Steps {
    /// One's last act that stands.
    pub undo: Option<Act>,
    /// What one took back last, unless one did something new since.
    pub redo: Option<Act>,
}

/// Lines of acts somebody may take back.
#[derive(Debug, Clone, Copy)]
struct Line {
    group: i64,
    /// The group it took back.
    undoes: Option<i64>,
}

/// The last acts of `who`, and of nobody in particular, newest first; those of one
/// record where one is named.
fn acts(
    connection: &mut SqliteConnection,
    who: &str,
    about: Option<(Kind, i64)>,
) -> Result<Vec<Line>, StoreError> {
    use schema::journal::dsl;
    let mut all: Vec<(i64, Option<i64>)> = Vec::new();
    // One after the other: each is then read off the end of its index.
    for who in std::iter::once(who).chain(ANYBODYS) {
        let mut found = dsl::journal
            .filter(dsl::who.eq(who))
            .select((dsl::change_group, dsl::undoes))
            .distinct()
            .order(dsl::change_group.desc())
            .limit(REACH)
            .into_boxed();
        if let Some((kind, id)) = about {
            found = found
                .filter(dsl::kind.eq(kind.key()))
                .filter(dsl::record.eq(id));
        }
        all.extend(found.load::<(i64, Option<i64>)>(connection)?);
    }
    all.sort_unstable_by_key(|&(group, _)| std::cmp::Reverse(group));
    all.dedup();
    let line = |(group, undoes)| Line { group, undoes };
    Ok(all.into_iter().map(line).collect())
}

/// Which of some groups somebody has taken back.
fn reversed(connection: &mut SqliteConnection, groups: &[i64]) -> Result<HashSet<i64>, StoreError> {
    use schema::journal::dsl;
    let found: Vec<Option<i64>> = dsl::journal
        .filter(dsl::undoes.eq_any(groups))
        .select(dsl::undoes)
        .distinct()
        .load(connection)?;
    Ok(found.into_iter().flatten().collect())
}

/// Whether a group did something (again), rather than take it back.
fn does(connection: &mut SqliteConnection, mut line: Line) -> Result<bool, StoreError> {
    use schema::journal::dsl;
    let mut does = true;
    while let Some(group) = line.undoes {
        does = !does;
        let undoes: Option<Option<i64>> = dsl::journal
            .filter(dsl::change_group.eq(group))
            .select(dsl::undoes)
            .first(connection)
            .optional()?;
        line = Line {
            group,
            undoes: undoes.flatten(),
        };
    }
    Ok(does)
}

/// The groups to take back next and to do again next.
fn next(
    connection: &mut SqliteConnection,
    who: &str,
    about: Option<(Kind, i64)>,
) -> Result<[Option<i64>; 2], StoreError> {
    let acts = acts(connection, who, about)?;
    let groups: Vec<i64> = acts.iter().map(|line| line.group).collect();
    let gone = reversed(connection, &groups)?;
    let (mut undo, mut redo, mut new_since) = (None, None, false);
    for line in acts {
        let stands = !gone.contains(&line.group);
        if does(connection, line)? {
            undo = undo.or(Some(line.group).filter(|_| stands));
            // Something new: what was taken back before it stays so.
            new_since |= line.undoes.is_none();
        } else if stands && !new_since {
            redo = redo.or(Some(line.group));
        }
        if undo.is_some() && (redo.is_some() || new_since) {
            break;
        }
    }
    Ok([undo, redo])
}

/// An act in words.
fn act(connection: &mut SqliteConnection, group: i64) -> Result<Option<Act>, StoreError> {
    // Whether it is of one record or of more is all it takes: an import may be of thousands.
    let changes = last_changes(connection, group, 2)?;
    let Some(first) = changes.first() else {
        return Ok(None);
    };
    let label = plain(&first.label);
    let document = first.after.as_ref().or(first.before.as_ref());
    let record = document.map(|d| Record::of_document(first.kind, d.clone()));
    let words = match record.transpose()? {
        Some(record) if changes.len() == 1 => with_name(label, &record),
        _ => label.to_owned(),
    };
    Ok(Some(Act { group, words }))
}

/// A label with the name of what was changed.
fn with_name(label: &str, record: &Record) -> String {
    let (name, by_key) = (record.name(), record.slug().replace('-', " "));
    if label.contains(&name) {
        label.to_owned()
    } else if label.contains(&by_key) {
        label.replacen(&by_key, &name, 1)
    } else {
        format!("{label} ({name})")
    }
}

/// A label without what taking back put before it.
fn plain(label: &str) -> &str {
    label
        .trim_start_matches("undo: ")
        .trim_start_matches("redo: ")
}

/// All changes of a group, the last one first.
fn changes_of(connection: &mut SqliteConnection, group: i64) -> Result<Vec<Change>, StoreError> {
    last_changes(connection, group, i64::MAX)
}

/// The last changes of a group, at most so many.
fn last_changes(
    connection: &mut SqliteConnection,
    group: i64,
    most: i64,
) -> Result<Vec<Change>, StoreError> {
    use schema::journal::dsl;
    dsl::journal
        .filter(dsl::change_group.eq(group))
        .order(dsl::id.desc())
        .limit(most)
        .select(Stored::as_select())
        .load(connection)?
        .into_iter()
        .map(Stored::change)
        .collect()
}

impl Door<'_> {
    /// Puts a record back to what it was before a change, or into the trash for
    /// nothing, if it still is what the change made of it. Undoing and redoing
    /// in between gave it other revisions of the same text.
    fn put_back(&mut self, change: &Change) -> Result<(), StoreError> {
        let (kind, id) = (change.kind, change.known.id);
        let newest = newest(self.connection, kind, id)?;
        let known = match newest {
            Some(newest) if newest.after == change.after => newest.known,
            // Somebody changed it since: the door says so.
            _ => change.known,
        };
        match &change.before {
            Some(document) => {
                let record = Record::of_document(kind, document.clone())?;
                self.put(&record, Some(known))?;
            }
            None => {
                self.throw_away(kind, known)?;
            }
        }
        Ok(())
    }
}

/// The last change of a record.
fn newest(
    connection: &mut SqliteConnection,
    kind: Kind,
    id: i64,
) -> Result<Option<Change>, StoreError> {
    use schema::journal::dsl;
    dsl::journal
        .filter(dsl::kind.eq(kind.key()))
        .filter(dsl::record.eq(id))
        .order(dsl::revision.desc())
        .select(Stored::as_select())
        .first(connection)
        .optional()?
        .map(Stored::change)
        .transpose()
}

impl Store {
    /// What `who` can take back and do again: of a record, where one is named by its
    /// slug, else of anything. A person's own acts, and those of nobody in particular.
    ///
    /// # Errors
    /// [`StoreError`] when the journal cannot be read.
    pub fn steps(&self, who: &str, about: Option<(Kind, &str)>) -> Result<Steps, StoreError> {
        let connection = &mut *self.connection()?;
        let about = match about {
            None => None,
            Some((kind, slug)) => match find(connection, kind, slug)? {
                Some(known) => Some((kind, known.id)),
                None => return Ok(Steps::default()),
            },
        };
        let [undo, redo] = next(connection, who, about)?;
        let mut named = |group: Option<i64>| match group {
            Some(group) => act(connection, group),
            None => Ok(None),
        };
        Ok(Steps {
            undo: named(undo)?,
            redo: named(redo)?,
        })
    }

    /// Takes exactly one act back, or does again one that was taken back: its records are
    /// what they were before it. Returns what it was called.
    ///
    /// # Errors
    /// [`StoreError::Nothing`] for an act that is not there, is somebody else's, or was
    /// taken back already; [`StoreError::Conflict`] where one of its records was changed
    /// since: nothing is changed then.
    pub fn reverse(&self, who: &str, group: i64) -> Result<String, StoreError> {
        // Its label is the journal's: what it is called is known before what it does is.
        let changes = changes_of(&mut *self.connection()?, group)?;
        let Some(first) = changes.first() else {
            return Err(StoreError::Nothing("there is nothing to undo"));
        };
        if first.who != who && !ANYBODYS.contains(&first.who.as_str()) {
            return Err(StoreError::Nothing("that was done by somebody else"));
        }
        let name = plain(&first.label).to_owned();
        let word = if first.label.starts_with("undo: ") {
            "redo"
        } else {
            "undo"
        };
        self.write_group(who, &format!("{word}: {name}"), Some(group), |door| {
            if !reversed(door.connection, &[group])?.is_empty() {
                return Err(StoreError::Nothing("it was taken back already"));
            }
            changes.iter().try_for_each(|change| door.put_back(change))
        })?;
        Ok(name)
    }

    /// What happened to a record, newest first: at most so many changes, of those before a
    /// revision where one is named.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn history(
        &self,
        kind: Kind,
        id: i64,
        (most, before): (usize, Option<i64>),
    ) -> Result<Vec<Change>, StoreError> {
        use schema::journal::dsl;
        dsl::journal
            .filter(dsl::kind.eq(kind.key()))
            .filter(dsl::record.eq(id))
            .filter(dsl::revision.lt(before.unwrap_or(i64::MAX)))
            .order(dsl::revision.desc())
            .limit(i64::try_from(most).unwrap_or(i64::MAX))
            .select(Stored::as_select())
            .load(&mut self.connection()?)?
            .into_iter()
            .map(Stored::change)
            .collect()
    }

    /// Puts a record back to what it was at an earlier revision.
    ///
    /// # Errors
    /// [`StoreError::Conflict`]; [`StoreError::Nothing`] for a revision at
    /// which it was not there.
    pub fn back_to(
        &self,
        who: &str,
        kind: Kind,
        known: Known,
        revision: i64,
    ) -> Result<Known, StoreError> {
        let then = entry(&mut *self.connection()?, kind, known.id, revision)?;
        let document = then
            .and_then(|c| c.after)
            .ok_or(StoreError::Nothing("it was not there at that revision"))?;
        let record = Record::of_document(kind, document)?;
        self.write(who, "back to an earlier state", |door| {
            door.put(&record, Some(known))
        })
    }

    /// Puts a record that cannot be used back to what the journal last knew of
    /// it: what was done to it past the door is lost, and nothing else.
    ///
    /// # Errors
    /// [`StoreError::Nothing`] where the journal knows nothing of it;
    /// [`StoreError::BadRecord`] where that cannot be used either.
    pub fn mend(&self, who: &str, kind: Kind, known: Known) -> Result<Known, StoreError> {
        let last = newest(&mut *self.connection()?, kind, known.id)?;
        let document = last
            .and_then(|c| c.after)
            .ok_or(StoreError::Nothing("the journal knows nothing of it"))?;
        let record = Record::of_document(kind, document)?;
        self.write(who, "put back to what the journal knew", |door| {
            door.put(&record, Some(known))
        })
    }
}
