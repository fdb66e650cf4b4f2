//! Answers, free of units and pages: rankings and hulls' figures, computed once
//! and remembered.

mod desk;

pub use desk::{Afloat, Answered, Desk, Hull};
