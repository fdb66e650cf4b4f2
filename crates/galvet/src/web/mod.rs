//! The server: what guards its pages, one file a page, and what is served
//! besides.

mod afloat;
mod ask;
mod assets;
mod caller;
mod errors;
mod guard;
mod hull;
mod hulls;
mod import;
mod new_hull;
mod pack;
mod questions;
mod queue;
mod ranking;
mod reader;
mod reckons;
mod record;
mod server;
mod set_aside;
mod shared;
mod walk;
mod who;

pub(crate) use reader::{units_from_key, units_key};
pub use server::{ServeError, Settings, build, serve};
