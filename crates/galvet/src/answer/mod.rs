//! Answers, free of units and pages: rankings and hulls' figures, computed once
//! and remembered.

mod board;
mod desk;
mod variant;
mod watch;

pub use board::{Board, Cable, Point, Power, SeatMove, all_pins};
pub use desk::{Afloat, Answered, Desk, Hull};
pub use variant::{Outcome, Way, outcome, ways};
pub use watch::{Patient, Unwanted, Watch};
