//! Galvet: choose and rig a fishing kayak.
//!
//! This crate asks, shows and answers; the physics is in `galvet-core`, the
//! records are in `galvet-store`. Rooms, lower ones first:
//!
//! 1. `form`: what was typed: one table of fields for each kind of record.
//! 2. [`question`]: one table of the brief's parts, from which address, file,
//!    sentence and JSON are made.
//! 3. [`answer`]: rankings and figures, free of units, computed once.
//! 4. [`survey`] and [`kit`]: what people put in and change.
//!    `log`, `papers`: outings, service, ticks, pages handed out. `pond`: moves and courses.
//! 5. `present`: an answer as page, JSON, CSV, lines, drawing.
//! 6. [`web`] and [`commands`]: the server and the command line.
//!
//! It holds no physics, and no HTML or JavaScript in strings.

pub mod account;
pub mod answer;
pub mod commands;
mod customer;
pub mod demo_data;
mod form;
pub mod kit;
mod log;
mod papers;
mod pond;
mod present;
pub mod question;
mod shop;
pub mod survey;
mod terminal;
pub mod web;

pub use terminal::{say, warn};
