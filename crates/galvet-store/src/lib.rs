//! Galvet's records: open-format files and the SQLite database.
//!
//! The one crate that knows how things are kept. It turns files ([`files`])
//! and rows into the core's validated types and back; it computes nothing and
//! knows nothing of pages. Whatever it hands out has passed the core's checks.

mod db;
mod error;
pub mod files;

pub use db::{
    Act, Catalogue, Change, Checked, Door, Kind, Known, Merged, NOTHING, Read, Record, Restored,
    SETTING_UP, SavedBrief, SetAside, State, Steps, Store, Trashed, backup, check, is_left, merge,
    restore,
};
pub use error::{StoreError, Theirs};
pub use files::FileError;
