//! Geometry: bodies drawn from estimates or from measured sections.
//!
//! Nothing here is floated; a body only knows its own outline, the lines along
//! it that matter when they meet the water, and its volume.

mod added;
pub mod estimate;
mod form;
pub mod offsets;
mod ruling;
mod section;
mod shape;
mod stations;

pub use added::{AddedFloats, Cut};
pub use estimate::{Frame, HalfSection, Lines, draw, gauss_legendre};
pub use form::Form;
pub use offsets::{OffsetError, Ruled};
pub use section::{breadth_at, corners, crown, outermost, outline, skin, swell};
pub use shape::Shape;
pub use stations::{Body, EdgePoint, Fan, Outline};
