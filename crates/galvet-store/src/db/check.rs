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
    // A path in a URI: what would end or escape it is written out.
    let escaped: String = path
        .chars()
        .map(|c| match c {
            '%' => "%25".to_owned(),
            '?' => "%3f".to_owned(),
            '#' => "%23".to_owned(),
            c => c.to_string(),
        })
        .collect();
    let opened = SqliteConnection::establish(&format!("file:{escaped}?mode=ro"));
    let connection = &mut opened.map_err(|e| StoreError::Open {
        path: (&path).into(),
        reason: e.to_string(),
    })?;
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
        let read = catalogue::read(connection)?;
        out.records = read.hulls.len()
            + read.waters.len()
            + read.gear.len()
            + read.rigs.len()
            + read.briefs.len()
            + read.set_aside.len();
        let aside = read.set_aside.into_iter();
        out.problems.extend(aside.map(|record| record.problem));
        Ok(out)
    })
}

/// Every record's revision is the last of its lines in the journal.
fn journal_agrees(connection: &mut SqliteConnection, out: &mut Checked) -> Result<(), StoreError> {
    use super::kind::Kind;
    for kind in Kind::ALL {
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
