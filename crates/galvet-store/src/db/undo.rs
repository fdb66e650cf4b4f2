//! Undo, redo, history and trash: all read off the journal's lines.

use super::door::Door;
use super::journal::{Change, SETTING_UP, Stored, entry};
use super::kind::{Kind, Known};
use super::record::Record;
use super::{Store, schema};
use crate::error::StoreError;
use diesel::prelude::*;
use diesel::sql_query;
use diesel::sql_types::BigInt;
use serde_json::Value;

/// A record in the trash.
#[derive(Debug, Clone, PartialEq)]
pub struct Trashed {
    /// Its kind.
    pub kind: Kind,
    /// The record.
    pub known: Known,
    /// What it was.
    pub document: Value,
    /// When it was thrown away, milliseconds since 1970.
    pub at: i64,
}

/// What can be taken back and done again, in the words of the history.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub struct Steps {
    /// What [`Store::undo`] takes back.
    pub undo: Option<String>,
    /// What [`Store::redo`] does again.
    pub redo: Option<String>,
}

/// Groups that can be undone and redone, oldest first, by walking the journal.
fn stacks(connection: &mut SqliteConnection) -> Result<(Vec<i64>, Vec<i64>), StoreError> {
    use schema::journal::dsl;
    let groups: Vec<(i64, Option<i64>)> = dsl::journal
        .filter(dsl::at.gt(0))
        .filter(dsl::who.ne(SETTING_UP))
        .select((dsl::change_group, dsl::undoes))
        .distinct()
        .order(dsl::change_group)
        .load(connection)?;
    let (mut done, mut undone): (Vec<i64>, Vec<i64>) = (Vec::new(), Vec::new());
    for (group, undoes) in groups {
        match undoes {
            // Something new: what was undone before it stays undone.
            None => {
                done.push(group);
                undone.clear();
            }
            Some(target) if done.last() == Some(&target) => {
                done.pop();
                undone.push(group);
            }
            Some(target) if undone.last() == Some(&target) => {
                undone.pop();
                done.push(group);
            }
            Some(_) => {}
        }
    }
    Ok((done, undone))
}

fn changes_of(connection: &mut SqliteConnection, group: i64) -> Result<Vec<Change>, StoreError> {
    use schema::journal::dsl;
    dsl::journal
        .filter(dsl::change_group.eq(group))
        .order(dsl::id.desc())
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
    /// What [`Store::undo`] would undo; `None` where there is nothing.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn undoable(&self) -> Result<Option<String>, StoreError> {
        Ok(self.steps()?.undo)
    }

    /// What [`Store::undo`] and [`Store::redo`] would take back or do again.
    ///
    /// # Errors
    /// [`StoreError`] when the journal cannot be read.
    pub fn steps(&self) -> Result<Steps, StoreError> {
        let connection = &mut *self.connection()?;
        let (mut undo, mut redo) = stacks(connection)?;
        let mut label = |group: Option<i64>| -> Result<Option<String>, StoreError> {
            let Some(group) = group else { return Ok(None) };
            let changes = changes_of(connection, group)?;
            Ok(changes.first().map(|c| {
                let plain = c.label.trim_start_matches("undo: ");
                plain.trim_start_matches("redo: ").to_owned()
            }))
        };
        Ok(Steps {
            undo: label(undo.pop())?,
            redo: label(redo.pop())?,
        })
    }

    /// Undoes the last group of changes not undone yet; returns its label.
    ///
    /// # Errors
    /// [`StoreError::Nothing`] when there is none.
    pub fn undo(&self, who: &str) -> Result<String, StoreError> {
        let group = stacks(&mut *self.connection()?)?.0.pop();
        self.reverse(who, group, "there is nothing to undo", "undo")
    }

    /// Does again what was undone last; returns its label.
    ///
    /// # Errors
    /// [`StoreError::Nothing`] when there is none.
    pub fn redo(&self, who: &str) -> Result<String, StoreError> {
        let group = stacks(&mut *self.connection()?)?.1.pop();
        self.reverse(who, group, "there is nothing to redo", "redo")
    }

    fn reverse(
        &self,
        who: &str,
        group: Option<i64>,
        nothing: &'static str,
        word: &str,
    ) -> Result<String, StoreError> {
        let group = group.ok_or(StoreError::Nothing(nothing))?;
        let changes = changes_of(&mut *self.connection()?, group)?;
        let label = changes.first().map_or(String::new(), |c| c.label.clone());
        let plain = label
            .trim_start_matches("undo: ")
            .trim_start_matches("redo: ")
            .to_owned();
        self.write_group(who, &format!("{word}: {plain}"), Some(group), |door| {
            changes.iter().try_for_each(|change| door.put_back(change))
        })?;
        Ok(plain)
    }

    /// Everything that happened to a record, newest first.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn history(&self, kind: Kind, id: i64) -> Result<Vec<Change>, StoreError> {
        use schema::journal::dsl;
        dsl::journal
            .filter(dsl::kind.eq(kind.key()))
            .filter(dsl::record.eq(id))
            .order(dsl::revision.desc())
            .select(Stored::as_select())
            .load(&mut self.connection()?)?
            .into_iter()
            .map(Stored::change)
            .collect()
    }

    /// What lies in the trash, newest first.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn trash(&self) -> Result<Vec<Trashed>, StoreError> {
        #[derive(QueryableByName)]
        struct Row {
            #[diesel(sql_type = BigInt)]
            id: i64,
            #[diesel(sql_type = BigInt)]
            revision: i64,
            #[diesel(sql_type = BigInt)]
            deleted_at: i64,
        }
        let mut connection = self.connection()?;
        let mut out = Vec::new();
        for kind in Kind::ALL {
            let rows: Vec<Row> = sql_query(format!(
                "SELECT id, revision, deleted_at FROM {} WHERE deleted_at IS NOT NULL",
                kind.table()
            ))
            .load(&mut connection)?;
            for row in rows {
                let gone = entry(&mut connection, kind, row.id, row.revision)?;
                out.extend(gone.and_then(|c| c.before).map(|document| Trashed {
                    kind,
                    known: Known {
                        id: row.id,
                        revision: row.revision,
                    },
                    document,
                    at: row.deleted_at,
                }));
            }
        }
        out.sort_by_key(|t| std::cmp::Reverse(t.at));
        Ok(out)
    }

    /// Takes a record out of the trash.
    ///
    /// # Errors
    /// [`StoreError::Taken`] when another has its slug by now.
    pub fn take_back(&self, who: &str, trashed: &Trashed) -> Result<Known, StoreError> {
        let record = Record::of_document(trashed.kind, trashed.document.clone())?;
        self.write(who, "taken out of the trash", |door| {
            door.put(&record, Some(trashed.known))
        })
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
