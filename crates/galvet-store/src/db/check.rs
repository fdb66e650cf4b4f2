//! Looking a data directory over without changing it.

use super::open::{self, DATABASE};
use super::{catalogue, schema};
use crate::error::StoreError;
use diesel::prelude::*;
use diesel::sql_query;
use diesel::sql_types::{BigInt, Text};
use std::path::Path;

/// What was found in a data directory.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub struct Checked {
    /// Records looked at.
    pub records: usize,
    /// Everything that is wrong, in words; empty where nothing is.
    pub problems: Vec<String>,
    /// What of it is damage of the file itself or of its references.
    pub damage: Vec<String>,
}

#[derive(QueryableByName)]
struct Said {
    #[diesel(sql_type = Text)]
    said: String,
}

#[derive(QueryableByName)]
struct Row {
    #[diesel(sql_type = Text)]
    said: String,
    #[diesel(sql_type = BigInt)]
    n: i64,
}

/// Looks a data directory over: the file's integrity, its references, the
/// journal's lines against the records, and the bounds of every record. Nothing
/// is changed, and a server may be running on it.
///
/// # Errors
/// [`StoreError`] where there is no database that can be read.
pub fn check(directory: &Path) -> Result<Checked, StoreError> {
    let path = open::database_path(directory)?;
    if !directory.join(DATABASE).is_file() {
        return Err(StoreError::Open {
            path: path.into(),
            reason: "there is no such file".to_owned(),
        });
    }
    let connection = &mut open::read_only(&path)?;
    recognized(connection, Path::new(&path))?;
    let mut out = Checked::default();
    if open::is_behind(connection, Path::new(&path))? {
        out.problems.push(
            "written by an earlier Galvet: start this one on it once, which copies it first"
                .to_owned(),
        );
        return Ok(out);
    }
    connection.transaction(|connection| {
        let said: Vec<Said> =
            sql_query("SELECT integrity_check AS said FROM pragma_integrity_check LIMIT 20")
                .load(connection)?;
        let torn = said.into_iter().filter(|s| s.said != "ok");
        out.damage
            .extend(torn.map(|s| format!("the file is damaged: {}", s.said)));
        let lost: Vec<Row> = sql_query(
            "SELECT \"table\" AS said, count(*) AS n FROM pragma_foreign_key_check GROUP BY 1",
        )
        .load(connection)?;
        let lost = lost.into_iter();
        out.damage.extend(
            lost.map(|row| format!("{} rows of {} refer to what is not there", row.n, row.said)),
        );
        out.problems.clone_from(&out.damage);
        journal_agrees(connection, &mut out)?;
        let read = catalogue::read(connection, None)?.catalogue;
        out.records = read.hulls.len()
            + read.waters.len()
            + read.gear.len()
            + read.rigs.len()
            + read.briefs.len()
            + read.sheets.len()
            + read.set_aside.len();
        let aside = read.set_aside.into_iter();
        out.problems.extend(aside.map(|record| record.problem));
        Ok(out)
    })
}

/// Refuses a database that Galvet did not make: an empty file, another program's.
pub(super) fn recognized(connection: &mut SqliteConnection, path: &Path) -> Result<(), StoreError> {
    let ours = sql_query(
        "SELECT count(*) AS n, '' AS said FROM sqlite_schema WHERE type = 'table' \
         AND name IN ('__diesel_schema_migrations', 'hulls', 'waters', 'settings')",
    );
    let found: Result<Row, _> = ours.get_result(connection);
    let reason = match found {
        Ok(row) if row.n == 4 && !beyond(connection)? => return Ok(()),
        Ok(row) if row.n == 4 => "its journal has numbers out of range".to_owned(),
        Ok(_) => "it is no database of Galvet".to_owned(),
        Err(error) => error.to_string(),
    };
    Err(StoreError::Open {
        path: path.to_owned(),
        reason,
    })
}

/// Whether a journal, where there is one, has lines with numbers out of range.
fn beyond(connection: &mut SqliteConnection) -> Result<bool, StoreError> {
    let count = |connection: &mut SqliteConnection, query: String| -> Result<i64, StoreError> {
        let row: Row = sql_query(query).get_result(connection)?;
        Ok(row.n)
    };
    let there = "SELECT count(*) AS n, '' AS said FROM sqlite_schema WHERE name = 'journal'";
    if count(connection, there.to_owned())? == 0 {
        return Ok(false);
    }
    let lines = format!(
        "SELECT count(*) AS n, '' AS said FROM journal WHERE id NOT BETWEEN 1 AND {MOST} \
         OR change_group NOT BETWEEN 0 AND {MOST} OR revision NOT BETWEEN 1 AND {MOST} \
         OR record NOT BETWEEN 1 AND {MOST} OR at NOT BETWEEN 0 AND {MOST}"
    );
    Ok(count(connection, lines)? > 0)
}

/// Numbers of a journal beyond this are nobody's: the next would have no room.
const MOST: i64 = 1 << 52;

/// Every record's revision is the last of its lines in the journal.
fn journal_agrees(connection: &mut SqliteConnection, out: &mut Checked) -> Result<(), StoreError> {
    use super::kind::Kind;
    for kind in Kind::all() {
        let table = kind.table();
        let odd: Vec<Row> = sql_query(format!(
            "SELECT t.slug AS said, t.revision AS n FROM {table} t WHERE t.revision <> coalesce( \
             (SELECT max(j.revision) FROM journal j WHERE j.kind = ? AND j.record = t.id), 0)"
        ))
        .bind::<Text, _>(kind.key())
        .load(connection)?;
        out.problems.extend(odd.into_iter().map(|row| {
            format!(
                "the {} “{}” is at revision {}, which the journal does not know",
                kind.key(),
                row.said,
                row.n
            )
        }));
    }
    let lines: i64 = schema::journal::table.count().get_result(connection)?;
    if lines == 0 {
        out.problems.push("the journal is empty".to_owned());
    }
    Ok(())
}
