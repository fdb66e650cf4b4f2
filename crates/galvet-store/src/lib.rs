//! Galvet's records: open-format files and the SQLite database.
//!
//! The one crate that knows how things are kept. It turns files ([`files`])
//! and rows into the core's validated types and back; it computes nothing and
//! knows nothing of pages. Whatever it hands out has passed the core's checks.

mod db;
mod error;
pub mod files;

pub use db::{
    Act, Catalogue, Change, Checked, Door, Forget, Forgotten, Kind, Known, Lately, Merged, NOTHING,
    NewPerson, Noted, Opened, Person, Read, Record, Restored, Role, SETTING_UP, SavedBrief,
    Session, SetAside, Share, Standing, State, Steps, Store, Trashed, Untouched, backup, check,
    is_left, merge, restore,
};
pub use error::{StoreError, Theirs};
pub use files::FileError;
