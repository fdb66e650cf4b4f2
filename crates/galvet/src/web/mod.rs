//! The server: what guards its pages, one file a page, and what is served
//! besides.

mod ask;
mod assets;
mod caller;
mod errors;
mod guard;
mod hull;
mod pack;
mod questions;
mod queue;
mod ranking;
mod reader;
mod reckons;
mod server;
mod set_aside;
mod shared;

pub(crate) use reader::{units_from_key, units_key};
pub use server::{ServeError, Settings, build, serve};
