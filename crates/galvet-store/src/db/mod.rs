//! The database. Reading is free; every write goes through one [`Door`], in one
//! immediate transaction, and leaves its line in the journal.

mod backup;
mod catalogue;
mod check;
mod door;
mod edit;
mod erase;
mod journal;
mod kind;
mod lately;
mod merge;
mod open;
mod people;
mod photos;
mod pictures;
mod record;
mod rows;
mod schema;
mod sessions;
mod trash;
mod undo;
mod untouched;

pub use backup::{Restored, backup, restore};
pub use catalogue::{Catalogue, Read, SetAside};
pub use check::{Checked, check};
pub use door::Door;
pub use erase::{Forget, Forgotten, Share};
pub use journal::{Change, SETTING_UP, State};
pub use kind::{Kind, Known};
pub use lately::Lately;
pub use merge::{Merged, merge};
pub use open::{Store, is_left};
pub use people::{NewPerson, Noted, Person, Role};
pub use record::{NOTHING, Record, SavedBrief};
pub use sessions::{Opened, Session, Standing};
pub use trash::Trashed;
pub use undo::{Act, Steps};
pub use untouched::Untouched;
