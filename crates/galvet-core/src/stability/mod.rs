//! Stability: righting arms, and the figures read off them.

pub mod curve;
pub mod figures;
pub mod righting;

pub use curve::Curve;
pub use righting::{Arm, Flooding, HEELS_DEG, righting};
