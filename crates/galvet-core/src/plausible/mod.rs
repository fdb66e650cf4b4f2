//! Plausible shapes: what a record and its evidence leave possible.
//!
//! `Survey → Posterior`; nothing here knows what will be asked of the hull.

mod bottoms;
mod fitted;
mod foretold;
mod posterior;
mod predict;
mod prior;
mod sample;
mod sampled;
mod spread;
mod target;
pub mod tilt;
mod underway;

pub use foretold::{Foretold, foretold};
pub use posterior::{CannotFloat, Posterior, effective_size};
pub use prior::{DIMENSIONS, ShapePrior};
pub use sample::{DEFAULT_SIZE, normals};
pub use sampled::LANES;
pub use spread::Spread;
pub use target::Target;
