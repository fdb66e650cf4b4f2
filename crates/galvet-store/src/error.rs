//! What can go wrong with the database.

use std::path::PathBuf;
use thiserror::Error;

/// Why the store could not do it.
#[derive(Debug, Error)]
pub enum StoreError {
    /// The data directory cannot be made or written.
    #[error("the data directory {} cannot be written: {source}", path.display())]
    Unwritable {
        /// The directory.
        path: PathBuf,
        /// What the system said.
        source: std::io::Error,
    },
    /// Another Galvet holds it.
    #[error("the data directory {} is in use by another Galvet", path.display())]
    InUse {
        /// The directory.
        path: PathBuf,
    },
    /// The path has no form SQLite can open.
    #[error("the path {} is not valid Unicode; choose another data directory", path.display())]
    OddPath {
        /// The path.
        path: PathBuf,
    },
    /// The database cannot be opened.
    #[error("the database {} cannot be opened: {reason}", path.display())]
    Open {
        /// The file.
        path: PathBuf,
        /// In SQLite's words.
        reason: String,
    },
    /// A newer or broken schema.
    #[error("the database could not be brought up to date: {0}")]
    Migrate(String),
    /// A record that should not be there.
    #[error("a record in {table} cannot be used ({key}): {problem}")]
    BadRecord {
        /// Its table.
        table: &'static str,
        /// Its key.
        key: String,
        /// What is wrong.
        problem: String,
    },
    /// No free connection in time.
    #[error("the database is busy")]
    Busy(#[from] diesel::r2d2::PoolError),
    /// SQLite refused.
    #[error("the database refused: {0}")]
    Query(#[from] diesel::result::Error),
}
