//! The journal's lines: what changed, when, by whom.

use super::kind::{Kind, Known};
use super::{rows, schema};
use crate::error::StoreError;
use diesel::dsl::max;
use diesel::prelude::*;
use diesel::sql_query;
use diesel::sql_types::{BigInt, Text};
use serde_json::Value;

/// Who sets an installation up: what it puts in is not for people to undo.
pub const SETTING_UP: &str = "galvet";

/// A line as it is written.
#[derive(Debug, Insertable)]
#[diesel(table_name = schema::journal)]
pub(super) struct Line {
    pub(super) at: i64,
    pub(super) who: String,
    pub(super) change_group: i64,
    pub(super) label: String,
    pub(super) undoes: Option<i64>,
    pub(super) kind: String,
    pub(super) record: i64,
    pub(super) revision: i64,
    pub(super) before: Option<String>,
    pub(super) after: Option<String>,
}

#[derive(Debug, Queryable, Selectable)]
#[diesel(table_name = schema::journal)]
pub(super) struct Stored {
    at: i64,
    who: String,
    change_group: i64,
    label: String,
    kind: String,
    record: i64,
    revision: i64,
    before: Option<String>,
    after: Option<String>,
}

/// One change of one record.
#[derive(Debug, Clone, PartialEq)]
pub struct Change {
    /// When, milliseconds since 1970.
    pub at: i64,
    /// By whom.
    pub who: String,
    /// Changes made together share a group.
    pub group: i64,
    /// What the group was called.
    pub label: String,
    /// The record's kind.
    pub kind: Kind,
    /// The record, at the revision this change made.
    pub known: Known,
    /// What it was; `None` where it was not there.
    pub before: Option<Value>,
    /// What it became; `None` where it was thrown away.
    pub after: Option<Value>,
}

impl Stored {
    pub(super) fn change(self) -> Result<Change, StoreError> {
        let kind = Kind::from_key(&self.kind)
            .ok_or(StoreError::Nothing("the journal names an unknown kind"))?;
        let parsed = |text: Option<String>| {
            text.map(|t| serde_json::from_str(&t))
                .transpose()
                .map_err(|e| StoreError::bad(kind, "journal", e))
        };
        Ok(Change {
            at: self.at,
            who: self.who,
            group: self.change_group,
            label: self.label,
            kind,
            known: Known {
                id: self.record,
                revision: self.revision,
            },
            before: parsed(self.before)?,
            after: parsed(self.after)?,
        })
    }
}

pub(super) fn write(connection: &mut SqliteConnection, line: &Line) -> Result<(), StoreError> {
    diesel::insert_into(schema::journal::table)
        .values(line)
        .execute(connection)?;
    Ok(())
}

/// Which records there are, in which revisions.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub struct State {
    /// How often the whole database was replaced: revisions of different epochs
    /// have nothing to do with each other.
    pub epoch: i64,
    /// The last line of the journal.
    pub change: i64,
}

/// The state of the records.
pub(super) fn state(connection: &mut SqliteConnection) -> Result<State, StoreError> {
    Ok(State {
        epoch: epoch(connection)?,
        change: last(connection)?,
    })
}

/// Whether a kind of record stands in it that is not known here: a later Galvet wrote it.
pub(super) fn names_unknown(connection: &mut SqliteConnection) -> Result<bool, StoreError> {
    let kinds: Vec<String> = schema::journal::table
        .select(schema::journal::kind)
        .distinct()
        .load(connection)?;
    Ok(kinds.iter().any(|kind| Kind::from_key(kind).is_none()))
}

/// Number of the last line; 0 for an empty journal.
pub(super) fn last(connection: &mut SqliteConnection) -> Result<i64, StoreError> {
    let last: Option<i64> = schema::journal::table
        .select(max(schema::journal::id))
        .first(connection)?;
    Ok(last.unwrap_or(0))
}

/// How often the whole of a database was replaced.
pub(super) fn epoch(connection: &mut SqliteConnection) -> Result<i64, StoreError> {
    #[derive(QueryableByName)]
    struct Number {
        #[diesel(sql_type = BigInt)]
        user_version: i64,
    }
    let number: Number = sql_query("PRAGMA user_version").get_result(connection)?;
    Ok(number.user_version)
}

pub(super) fn last_group(connection: &mut SqliteConnection) -> Result<i64, StoreError> {
    let last: Option<i64> = schema::journal::table
        .select(max(schema::journal::change_group))
        .first(connection)?;
    Ok(last.unwrap_or(0))
}

/// The change that made a revision.
pub(super) fn entry(
    connection: &mut SqliteConnection,
    kind: Kind,
    record: i64,
    revision: i64,
) -> Result<Option<Change>, StoreError> {
    use schema::journal::dsl;
    dsl::journal
        .filter(dsl::kind.eq(kind.key()))
        .filter(dsl::record.eq(record))
        .filter(dsl::revision.eq(revision))
        .select(Stored::as_select())
        .first(connection)
        .optional()?
        .map(Stored::change)
        .transpose()
}

/// Gives records that came from an edition without a journal their first line.
pub(super) fn adopt(connection: &mut SqliteConnection) -> Result<(), StoreError> {
    #[derive(QueryableByName)]
    struct Orphan {
        #[diesel(sql_type = BigInt)]
        id: i64,
    }
    let group = last_group(connection)? + 1;
    for kind in Kind::all() {
        let orphans: Vec<Orphan> = sql_query(format!(
            "SELECT id FROM {} t WHERE NOT EXISTS \
             (SELECT 1 FROM journal j WHERE j.kind = ? AND j.record = t.id) ORDER BY id",
            kind.table()
        ))
        .bind::<Text, _>(kind.key())
        .load(connection)?;
        for orphan in orphans {
            // A record that cannot be read is adopted without its text.
            let document = match rows::load(connection, kind, orphan.id) {
                Ok(record) => record.map(|r| r.document()).transpose()?,
                Err(StoreError::BadRecord { .. }) => None,
                Err(error) => return Err(error),
            };
            let line = Line {
                at: 0,
                who: String::new(),
                change_group: group,
                label: "kept by an earlier Galvet".to_owned(),
                undoes: None,
                kind: kind.key().to_owned(),
                record: orphan.id,
                revision: 1,
                before: None,
                after: document.map(|d| d.to_string()),
            };
            write(connection, &line)?;
        }
    }
    Ok(())
}
