//! Somebody forgotten: what is theirs goes, with what the journal knew of it; what only
//! mentions them stays without the mention, also in what it was before.
//!
//! Nothing of this can be undone, which is what it is for.

use super::door::{Door, now};
use super::journal::{self, Change, Stored};
use super::kind::{Kind, Known};
use super::record::Record;
use super::{Store, pictures, rows, schema};
use crate::error::StoreError;
use diesel::connection::SimpleConnection;
use diesel::prelude::*;
use diesel::sql_query;
use diesel::sql_types::BigInt;
use serde_json::Value;
use std::collections::{BTreeMap, BTreeSet};
use std::io::{BufReader, Read};
use std::path::Path;

/// What a record is to somebody who is to be forgotten.
#[derive(Debug, Clone, PartialEq)]
pub enum Share {
    /// Nothing of theirs.
    None,
    /// All of it.
    All,
    /// It speaks of them; so it stands without that.
    Without(Value),
}

/// Who is to be forgotten.
pub trait Forget {
    /// What a record of a kind and number is to them, as it stands or stood.
    fn share(&self, record: (Kind, i64), document: &Value) -> Share;

    /// A line of text without them; `None` where it does not speak of them.
    fn without(&self, text: &str) -> Option<String>;
}

/// What was forgotten.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub struct Forgotten {
    /// How many records of each kind are gone.
    pub gone: BTreeMap<&'static str, usize>,
    /// What stays, without them: kind and name.
    pub changed: Vec<(&'static str, String)>,
    /// What was theirs and stays, since others still use it: kind and name.
    pub needed: Vec<(&'static str, String)>,
    /// Lines of the journal that are gone, and that were changed.
    pub lines: (usize, usize),
}

/// A record's row: living or thrown away.
#[derive(QueryableByName)]
pub(super) struct Row {
    #[diesel(embed)]
    pub(super) known: Known,
    #[diesel(sql_type = diesel::sql_types::Bool)]
    pub(super) lives: bool,
}

impl Store {
    /// Forgets somebody, in one transaction. Afterwards the file still has the bytes:
    /// [`Store::sweep_file`] rewrites it.
    ///
    /// # Errors
    /// [`StoreError`], with nothing changed.
    pub fn forget(&self, who: &str, forget: &dyn Forget) -> Result<Forgotten, StoreError> {
        self.write(who, "somebody forgotten", |door| door.forget(forget))
    }

    /// What [`Store::forget`] would do.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn would_forget(&self, who: &str, forget: &dyn Forget) -> Result<Forgotten, StoreError> {
        let mut found = Forgotten::default();
        let tried = self.write(who, "tried", |door| {
            found = door.forget(forget)?;
            // Not kept: everything is as it was.
            Err::<(), _>(StoreError::Query(
                diesel::result::Error::RollbackTransaction,
            ))
        });
        match tried {
            Ok(()) | Err(StoreError::Query(diesel::result::Error::RollbackTransaction)) => {
                Ok(found)
            }
            Err(error) => Err(error),
        }
    }

    /// Everything somebody's share is of, as it stands: kind and document; living first.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn theirs(&self, forget: &dyn Forget) -> Result<Vec<(Kind, Value, Share)>, StoreError> {
        let connection = &mut *self.connection()?;
        let mut out = Vec::new();
        for kind in Kind::all() {
            for row in rows_of(connection, kind)? {
                let Some(document) = document(connection, kind, row.known)? else {
                    continue;
                };
                match forget.share((kind, row.known.id), &document) {
                    Share::None => {}
                    share => out.push((kind, document, share)),
                }
            }
        }
        Ok(out)
    }

    /// Rewrites the database's file without what was deleted from it, and empties its log.
    ///
    /// # Errors
    /// [`StoreError`] when somebody else holds it for too long.
    pub fn sweep_file(&self) -> Result<(), StoreError> {
        let mut connection = self.connection()?;
        connection.batch_execute("VACUUM; PRAGMA wal_checkpoint(TRUNCATE);")?;
        Ok(())
    }

    /// Whether any of some texts stands anywhere in the database's files, as bytes; letters
    /// of ASCII are one whether small or capital.
    ///
    /// # Errors
    /// [`StoreError::Unwritable`] where they cannot be read.
    pub fn stands_in_file(&self, texts: &[String]) -> Result<bool, StoreError> {
        let files = ["galvet.db", "galvet.db-wal"];
        for file in files.map(|name| self.directory().join(name)) {
            if file.exists() && stands_in(&file, texts)? {
                return Ok(true);
            }
        }
        Ok(false)
    }
}

/// Whether any of some texts stands in a file.
fn stands_in(file: &Path, texts: &[String]) -> Result<bool, StoreError> {
    let unreadable = |source| StoreError::Unwritable {
        path: file.to_owned(),
        source,
    };
    let longest = texts.iter().map(String::len).max().unwrap_or(0);
    let mut open = BufReader::new(std::fs::File::open(file).map_err(unreadable)?);
    let mut seen: Vec<u8> = Vec::new();
    let mut chunk = vec![0; 1 << 20];
    loop {
        let read = open.read(&mut chunk).map_err(unreadable)?;
        if read == 0 {
            return Ok(false);
        }
        seen.extend(chunk[..read].iter().map(u8::to_ascii_lowercase));
        for text in texts.iter().filter(|text| !text.is_empty()) {
            let sought = text.to_ascii_lowercase();
            if seen.windows(sought.len()).any(|w| w == sought.as_bytes()) {
                return Ok(true);
            }
        }
        // What may go on in the next part stays.
        let keep = seen.len().saturating_sub(longest);
        seen.drain(..keep);
    }
}

fn rows_of(connection: &mut SqliteConnection, kind: Kind) -> Result<Vec<Row>, StoreError> {
    let table = kind.table();
    let rows = sql_query(format!(
        "SELECT id, revision, deleted_at IS NULL AS lives FROM {table} ORDER BY deleted_at IS NOT NULL, id"
    ));
    Ok(rows.load(connection)?)
}

/// The document of a row; of one that cannot be read, what the journal last knew.
fn document(
    connection: &mut SqliteConnection,
    kind: Kind,
    known: Known,
) -> Result<Option<Value>, StoreError> {
    match rows::load(connection, kind, known.id) {
        Ok(record) => record.map(|record| record.document()).transpose(),
        Err(StoreError::BadRecord { .. }) => {
            let last = journal::entry(connection, kind, known.id, known.revision)?;
            Ok(last.and_then(|change| change.after.or(change.before)))
        }
        Err(error) => Err(error),
    }
}

/// What a document is called.
fn called(document: &Value) -> String {
    let part = |name: &str| document.get(name).and_then(Value::as_str);
    let hull = part("maker").zip(part("model"));
    let hull = hull.map(|(maker, model)| format!("{maker} {model}"));
    hull.or_else(|| part("name").map(str::to_owned))
        .or_else(|| part("key").map(str::to_owned))
        .unwrap_or_default()
}

impl Door<'_> {
    fn forget(&mut self, forget: &dyn Forget) -> Result<Forgotten, StoreError> {
        let mut out = Forgotten::default();
        let mut gone: BTreeSet<(&'static str, i64)> = BTreeSet::new();
        let mut pictures: Vec<String> = Vec::new();
        // What names others goes before them: questions before rigs.
        let kinds: Vec<Kind> = Kind::all().collect();
        for kind in kinds.into_iter().rev() {
            for row in rows_of(self.connection, kind)? {
                let Some(document) = document(self.connection, kind, row.known)? else {
                    continue;
                };
                match forget.share((kind, row.known.id), &document) {
                    Share::None => {}
                    Share::All if self.goes(kind, row.known.id)? => {
                        gone.insert((kind.key(), row.known.id));
                        let picture = document.get("picture").and_then(Value::as_str);
                        pictures.extend(picture.map(str::to_owned));
                        *out.gone.entry(kind.key()).or_default() += 1;
                    }
                    Share::All => out.needed.push((kind.key(), called(&document))),
                    Share::Without(without) => {
                        self.put_without(kind, &row, without)?;
                        out.changed.push((kind.key(), called(&document)));
                    }
                }
            }
        }
        out.lines = self.forget_lines(forget, &gone)?;
        pictures::let_go(self.connection, &pictures)?;
        for (kind, id) in gone {
            self.leave_a_stone(kind, id)?;
        }
        // Nobody shows what was remembered of it.
        let next = journal::epoch(self.connection)? + 1;
        self.connection
            .batch_execute(&format!("PRAGMA user_version = {next}"))?;
        Ok(out)
    }

    /// Deletes a row for good; not one that others name.
    fn goes(&mut self, kind: Kind, id: i64) -> Result<bool, StoreError> {
        if matches!(kind, Kind::Rig | Kind::Water | Kind::Gear) && self.unnamed(kind, id).is_err() {
            return Ok(false);
        }
        let deleted = sql_query(format!("DELETE FROM {} WHERE id = ?", kind.table()))
            .bind::<BigInt, _>(id)
            .execute(self.connection);
        match deleted {
            Ok(_) => Ok(true),
            // Something in the trash names it.
            Err(diesel::result::Error::DatabaseError(
                diesel::result::DatabaseErrorKind::ForeignKeyViolation,
                _,
            )) => Ok(false),
            Err(error) => Err(error.into()),
        }
    }

    /// Puts a record without them in the place of what it was: as a change like any other
    /// where it lives, else as the trash has it.
    fn put_without(&mut self, kind: Kind, row: &Row, without: Value) -> Result<(), StoreError> {
        let record = Record::of_document(kind, without)?;
        if row.lives {
            self.put(&record, Some(row.known))?;
            return Ok(());
        }
        self.write_rows(&record, row.known.id, true)
    }

    /// The journal without them: lines of what is gone go, others are said without them.
    fn forget_lines(
        &mut self,
        forget: &dyn Forget,
        gone: &BTreeSet<(&'static str, i64)>,
    ) -> Result<(usize, usize), StoreError> {
        use schema::journal::dsl;
        let (mut deleted, mut changed) = (0, 0);
        let ids: Vec<i64> = dsl::journal.select(dsl::id).load(self.connection)?;
        for id in ids {
            let change = dsl::journal
                .find(id)
                .select(Stored::as_select())
                .first(self.connection)?
                .change()?;
            let theirs = |document: &Option<Value>| match document {
                Some(document) => forget.share((change.kind, change.known.id), document),
                None => Share::None,
            };
            let shares = [theirs(&change.before), theirs(&change.after)];
            let is_gone = gone.contains(&(change.kind.key(), change.known.id));
            // Also of what was theirs once, and is somebody else's now.
            if is_gone || shares.contains(&Share::All) {
                diesel::delete(dsl::journal.find(id)).execute(self.connection)?;
                deleted += 1;
                continue;
            }
            let label = forget.without(&change.label);
            let [before, after] = shares.map(|share| match share {
                Share::Without(value) => Some(value.to_string()),
                _ => None,
            });
            if label.is_none() && before.is_none() && after.is_none() {
                continue;
            }
            changed += 1;
            let text = |new: Option<String>, old: Option<Value>| new.or(old.map(|v| v.to_string()));
            diesel::update(dsl::journal.find(id))
                .set((
                    dsl::label.eq(label.unwrap_or(change.label)),
                    dsl::before.eq(text(before, change.before)),
                    dsl::after.eq(text(after, change.after)),
                ))
                .execute(self.connection)?;
        }
        Ok((deleted, changed))
    }

    /// A line that says that there was something: its number is not used again.
    fn leave_a_stone(&mut self, kind: &'static str, id: i64) -> Result<(), StoreError> {
        journal::write(
            self.connection,
            &journal::Line {
                at: now(),
                who: self.who.to_owned(),
                change_group: self.group,
                label: "forgotten".to_owned(),
                undoes: None,
                kind: kind.to_owned(),
                record: id,
                // Past every revision it had.
                revision: i64::from(i32::MAX),
                before: None,
                after: None,
            },
        )
    }
}

impl Store {
    /// Every change of what is somebody's, oldest first.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn history_of(&self, forget: &dyn Forget) -> Result<Vec<Change>, StoreError> {
        use schema::journal::dsl;
        let connection = &mut *self.connection()?;
        let ids: Vec<i64> = dsl::journal
            .order(dsl::id)
            .select(dsl::id)
            .load(connection)?;
        let mut out = Vec::new();
        for id in ids {
            let change = dsl::journal
                .find(id)
                .select(Stored::as_select())
                .first(connection)?
                .change()?;
            let all = |document: &Option<Value>| {
                let record = (change.kind, change.known.id);
                let share = document.as_ref().map(|d| forget.share(record, d));
                share == Some(Share::All)
            };
            if all(&change.before) || all(&change.after) {
                out.push(change);
            }
        }
        Ok(out)
    }
}
