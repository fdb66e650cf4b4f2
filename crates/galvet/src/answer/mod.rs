//! Answers, free of units and pages: rankings and hulls' figures, computed once
//! and remembered.

mod board;
mod desk;
mod flip;
mod memory;
mod power;
mod variant;
mod watch;

pub use board::{Board, Point, SeatMove, all_pins};
pub use desk::{Afloat, Answered, Desk, Hull, Quick};
pub use flip::{Flips, FlipsLooked};
pub use memory::BUDGET;
pub(crate) use memory::Memory;
pub use power::{Cable, Fed, Power, STEERED_FROM};
pub use variant::{Outcome, Way, outcome, ways};
pub use watch::{Patient, Unwanted, Watch};
