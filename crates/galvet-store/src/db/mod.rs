//! The database. Reading is free; every write goes through one [`Door`], in one
//! immediate transaction, and leaves its line in the journal.

mod catalogue;
mod door;
mod journal;
mod merge;
mod open;
mod record;
mod rows;
mod schema;

pub use catalogue::Catalogue;
pub use door::{Door, Known};
pub use journal::{Change, SETTING_UP, Trashed};
pub use merge::{Merged, merge};
pub use open::Store;
pub use record::{Kind, Record, SavedBrief};
