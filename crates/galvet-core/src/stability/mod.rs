//! Stability: righting arms, and the figures read off them.

mod curve;
mod figures;
mod righting;

pub use curve::Curve;
pub use figures::{Leaning, OnTheFeet, fate, first_under, levelled, reserve, roll_period};
pub use righting::{Arm, HEELS_DEG, KNOTS, Path, Walk, righting};
