//! The server: what guards its pages, one file a page, and what is served
//! besides.

mod afloat;
mod ask;
mod assets;
mod caller;
mod card;
mod changes;
mod comfort;
mod compare;
mod derivation;
mod drawing;
mod edit;
mod errors;
mod fittings;
mod flip;
mod guard;
mod hull;
mod hulls;
mod import;
mod kit;
mod lines;
mod moved;
mod new_hull;
mod pack;
mod questions;
mod queue;
mod ranking;
mod reader;
mod reckons;
mod record;
mod rigs;
mod server;
mod set_aside;
mod shared;
mod shortlist;
mod stow;
mod summary;
mod talk;
mod tour;
mod trials;
mod walk;
mod waters;
mod weigh;
mod who;

pub(crate) use reader::{units_from_key, units_key};
pub use server::{ServeError, Settings, build, serve};
