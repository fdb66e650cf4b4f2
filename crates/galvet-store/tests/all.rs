//! All tests of the store's public face in one binary.
#![allow(clippy::unwrap_used, reason = "tests")]

mod common;

mod bad_files;
mod dealers;
mod exchange;
mod hostile;
mod journal;
mod log;
mod people;
mod pictures;
mod schema;
mod sheet;
mod shelf;
mod store;
mod tracks;
mod whole;
