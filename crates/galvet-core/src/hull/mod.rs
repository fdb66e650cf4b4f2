//! The hull record: what is known of a hull, from whom, and how sure.
//!
//! Records only; no geometry is made here and nothing is floated.

mod evidence;
mod kinds;
mod measure;
mod scupper;
mod station;
mod survey;

pub use evidence::{Aboard, Datum, Evidence, FloatReading};
pub use kinds::{BottomShape, CapacityBasis, Construction, Origin, Propulsion, Source};
pub use measure::{Error, Measure, MeasureRow};
pub use scupper::{Flooded, Recess, Scupper, ScupperState, Scuppers, drains, floods};
pub use station::Station;
pub use survey::{Reading, Survey};
