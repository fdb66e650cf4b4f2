//! What can go wrong with the database.

use crate::db::Kind;
use galvet_core::hull::TooMany;
use serde_json::Value;
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
    /// Written by a newer Galvet.
    #[error(
        "the database {} was written by a newer Galvet: use that one, or a copy made before", path.display()
    )]
    Newer {
        /// The file.
        path: PathBuf,
    },
    /// A broken schema.
    #[error("the database could not be brought up to date: {0}")]
    Migrate(String),
    /// A record that should not be there.
    #[error("the {} “{key}” cannot be used: {problem}", kind.key())]
    BadRecord {
        /// Its kind.
        kind: Kind,
        /// Its slug.
        key: String,
        /// What is wrong.
        problem: String,
    },
    /// Someone else saved the record meanwhile.
    #[error("somebody saved revision {} of this {} meanwhile", theirs.revision, theirs.kind.key())]
    Conflict {
        /// What they saved.
        theirs: Box<Theirs>,
    },
    /// More in a record than it holds.
    #[error(transparent)]
    TooMuch(#[from] TooMany),
    /// A name that a living record has already.
    #[error("there is a {} “{slug}” already", kind.key())]
    Taken {
        /// Its kind.
        kind: Kind,
        /// The slug.
        slug: String,
    },
    /// Something a question names and nobody has, or that questions still name.
    #[error("{0}")]
    Reference(String),
    /// A name that somebody has already.
    #[error("“{0}” is somebody already")]
    Somebody(String),
    /// Nothing to undo or redo, no such record.
    #[error("{0}")]
    Nothing(&'static str),
    /// No free connection in time.
    #[error("the database is busy")]
    Busy(#[from] diesel::r2d2::PoolError),
    /// SQLite refused.
    #[error("the database refused: {0}")]
    Query(#[from] diesel::result::Error),
}

/// What somebody else saved meanwhile.
#[derive(Debug, Clone, PartialEq)]
pub struct Theirs {
    /// Kind of record.
    pub kind: Kind,
    /// Its id.
    pub id: i64,
    /// Its revision now.
    pub revision: i64,
    /// Who saved it.
    pub who: String,
    /// When, milliseconds since 1970.
    pub at: i64,
    /// What it was when the other one began: what both started from.
    pub base: Option<Value>,
    /// What it is now; `None` where it was thrown away.
    pub now: Option<Value>,
}

impl StoreError {
    /// A record that cannot be used, and what is wrong in it.
    #[must_use]
    pub fn bad(kind: Kind, key: &str, problem: impl ToString) -> Self {
        Self::BadRecord {
            kind,
            key: key.to_owned(),
            problem: problem.to_string(),
        }
    }
}
