//! The whole database as one file, out and back in, also while it is served.

use super::check::{Checked, check, recognized};
use super::open::{self, DATABASE, Store, customized};
use super::{journal, schema};
use crate::error::StoreError;
use diesel::connection::SimpleConnection;
use diesel::prelude::*;
use diesel::sql_query;
use diesel::sql_types::Text;
use std::fs::{self, File};
use std::io;
use std::path::{Path, PathBuf};

/// What a restore did.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Restored {
    /// What is in it now.
    pub checked: Checked,
    /// Where the database as it was before lies; `None` where there was none.
    pub before: Option<PathBuf>,
}

fn broken(path: &Path, reason: impl ToString) -> StoreError {
    StoreError::Open {
        path: path.to_owned(),
        reason: reason.to_string(),
    }
}

/// A path as an SQL text.
fn quoted(path: &Path) -> String {
    format!("'{}'", path.to_string_lossy().replace('\'', "''"))
}

/// Writes the database of a data directory to one file, as it stands at one
/// moment; whoever writes meanwhile is not disturbed. `file` must not be there
/// yet: a backup never overwrites one.
///
/// # Errors
/// [`StoreError`] where there is no database, or the file cannot be written.
pub fn backup(directory: &Path, file: &Path) -> Result<(), StoreError> {
    let path = existing(directory)?;
    let unwritable = |source: io::Error| StoreError::Unwritable {
        path: file.to_owned(),
        source,
    };
    if file.exists() {
        return Err(unwritable(io::ErrorKind::AlreadyExists.into()));
    }
    let place = file.parent().filter(|p| !p.as_os_str().is_empty());
    let place = place.unwrap_or(Path::new("."));
    // Whole under its name, or not there at all.
    let aside = tempfile::Builder::new()
        .prefix("galvet-backup-")
        .tempdir_in(place)
        .map_err(unwritable)?;
    let part = aside.path().join(DATABASE);
    let mut connection = open::read_only(&path)?;
    connection
        .batch_execute(&format!("VACUUM INTO {}", quoted(&part)))
        .map_err(|e| broken(file, format!("it cannot be written: {e}")))?;
    File::open(&part)
        .and_then(|written| written.sync_all())
        .map_err(unwritable)?;
    fs::hard_link(&part, file)
        // Where the file system has no links.
        .or_else(|_| fs::rename(&part, file))
        .map_err(unwritable)
}

/// Path of the database of a directory that has one.
fn existing(directory: &Path) -> Result<String, StoreError> {
    if !directory.join(DATABASE).is_file() {
        return Err(broken(&directory.join(DATABASE), "there is no such file"));
    }
    open::database_path(directory)
}

/// Puts a backup in the place of what is in a data directory, in one
/// transaction: all of it or nothing, also under a running server, which goes on
/// with it. What was there is copied aside first. A backup of an earlier Galvet
/// is brought up to date on the way.
///
/// # Errors
/// [`StoreError`] with nothing changed: a file that is no backup, damaged or
/// from a newer Galvet; a directory that cannot be written.
pub fn restore(directory: &Path, file: &Path) -> Result<Restored, StoreError> {
    let unwritable = |source| StoreError::Unwritable {
        path: directory.to_owned(),
        source,
    };
    fs::create_dir_all(directory).map_err(unwritable)?;
    let aside = tempfile::Builder::new()
        .prefix("restore-")
        .tempdir_in(directory)
        .map_err(unwritable)?;
    let new = aside.path().join(DATABASE);
    fs::copy(file, &new).map_err(|e| broken(file, e))?;
    // Named by the file given, not by our copy of it.
    let ours = |error| match error {
        StoreError::Newer { .. } => StoreError::Newer {
            path: file.to_owned(),
        },
        StoreError::Open { reason, .. } => broken(file, reason),
        other => other,
    };
    let copied = open::database_path(aside.path())?;
    let looked = open::read_only(&copied).and_then(|mut c| recognized(&mut c, Path::new(&copied)));
    looked.map_err(ours)?;
    drop(Store::open(aside.path()).map_err(ours)?);
    let checked = check(aside.path()).map_err(ours)?;
    if let Some(damage) = checked.damage.first() {
        return Err(broken(file, damage));
    }
    let fresh = !directory.join(DATABASE).exists();
    // Held while we write, unless a server holds it and goes on.
    let held = match Store::open(directory) {
        Ok(store) => Some(store),
        Err(StoreError::InUse { .. }) => None,
        Err(error) => return Err(error),
    };
    let path = open::database_path(directory)?;
    let mut connection = customized(&path)?;
    if held.is_none() && open::is_behind(&mut connection, Path::new(&path))? {
        return Err(StoreError::InUse {
            path: directory.to_owned(),
        });
    }
    let before = if fresh {
        None
    } else {
        let before = free_name(directory);
        backup(directory, &before)?;
        Some(before)
    };
    replace(&mut connection, &new)?;
    drop(held);
    Ok(Restored { checked, before })
}

/// A name for the copy of what was there.
fn free_name(directory: &Path) -> PathBuf {
    let name = |n: u32| directory.join(format!("galvet.before-restore-{n}.db"));
    (1..)
        .map(name)
        .find(|path| !path.exists())
        .unwrap_or_else(|| name(0))
}

#[derive(QueryableByName)]
struct Name {
    #[diesel(sql_type = Text)]
    name: String,
}

/// Whose accounts they are is this installation's: a backup of another day lets nobody in
/// who was shut out since, and brings no forgotten password back.
const OWN: [&str; 3] = ["people", "sessions", "account_log"];

fn has_people(connection: &mut SqliteConnection) -> Result<bool, StoreError> {
    let people: i64 = schema::people::table.count().get_result(connection)?;
    Ok(people > 0)
}

/// Replaces every row by those of the database at `new`, which is of the same
/// edition. Accounts stay as they are, where there are any.
fn replace(connection: &mut SqliteConnection, new: &Path) -> Result<(), StoreError> {
    connection.batch_execute(&format!("ATTACH {} AS restored", quoted(new)))?;
    let replaced = connection.immediate_transaction(|connection| {
        connection.batch_execute("PRAGMA defer_foreign_keys = ON")?;
        let tables: Vec<Name> = sql_query(
            "SELECT name FROM main.sqlite_schema WHERE type = 'table' \
             AND name NOT LIKE 'sqlite\\_%' ESCAPE '\\' AND name NOT LIKE '\\_\\_%' ESCAPE '\\'",
        )
        .load(connection)?;
        let ours = has_people(connection)?;
        for Name { name: table } in tables {
            if OWN.contains(&table.as_str()) && ours {
                continue;
            }
            // Not those that are generated.
            let columns: Vec<Name> = sql_query(format!(
                "SELECT '\"' || name || '\"' AS name FROM pragma_table_info('{table}')"
            ))
            .load(connection)?;
            let columns: Vec<String> = columns.into_iter().map(|c| c.name).collect();
            let columns = columns.join(", ");
            connection.batch_execute(&format!(
                "DELETE FROM main.\"{table}\"; \
                 INSERT INTO main.\"{table}\" ({columns}) SELECT {columns} FROM restored.\"{table}\""
            ))?;
        }
        if !ours {
            // Nobody is in by a session of another day.
            connection.batch_execute("DELETE FROM main.sessions")?;
        }
        let next = journal::epoch(connection)? + 1;
        connection.batch_execute(&format!("PRAGMA main.user_version = {next}"))?;
        Ok::<_, StoreError>(())
    });
    let detached = connection.batch_execute("DETACH restored");
    replaced?;
    Ok(detached?)
}
