//! Galvet's records: open-format files and the SQLite database.
//!
//! The one crate that knows how things are kept. It turns files ([`files`])
//! and rows into the core's validated types and back; it computes nothing and
//! knows nothing of pages. Whatever it hands out has passed the core's checks.

mod error;
pub mod files;
mod rows;
mod schema;
mod store;

pub use error::StoreError;
pub use files::FileError;
pub use store::{Catalogue, Store};
