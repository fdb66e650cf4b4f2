//! Hulls: what a survey says of them and the bodies drawn from it.

pub mod body;
pub mod estimate;
pub mod offsets;
pub mod scupper;
pub mod section;
pub mod shape;
pub mod survey;

pub use body::{Body, Flooded, Outline, Recess};
pub use estimate::{Frame, draw};
pub use scupper::{Scupper, ScupperState};
pub use section::BottomShape;
pub use shape::{Shape, ShapePrior};
pub use survey::{
    CapacityBasis, Construction, Finding, Measure, Propulsion, Reading, Source, Survey,
};
