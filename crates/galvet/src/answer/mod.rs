//! Answers, free of units and pages: rankings and hulls' figures, computed once
//! and remembered.

mod afloat;
mod closeup;
mod desk;
mod flip;
mod memory;
mod variant;
mod watch;
mod weight;

pub use afloat::{Afloat, Answered, Pond, Quick};
pub use closeup::{Closeup, Point};
pub use desk::{Desk, Hull};
pub(crate) use desk::{Digest, digest};
pub use flip::{Flips, flips};
pub use memory::BUDGET;
pub(crate) use memory::{Memory, held};
pub use variant::{Outcome, Way, outcome, ways};
pub use watch::{Patient, Unwanted, Watch};
