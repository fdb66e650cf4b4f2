//! The hull record: what is known of a hull, from whom, and how sure.
//!
//! Records only; no geometry is made here and nothing is floated.

mod evidence;
mod finding;
mod findings;
mod fitout;
mod fitting;
mod kinds;
mod limits;
mod looked;
mod measure;
mod photo;
mod pin;
mod scupper;
mod sense;
mod set_up;
mod station;
mod survey;
mod template;
mod zone;

pub use evidence::{Aboard, Datum, Evidence, FloatReading};
pub use finding::{About, Finding};
pub use fitout::{
    Configuration, Fitout, FitoutError, Modification, Progress, SeatSetting, SeatUsed,
};
pub use fitting::{Facing, Fitting, FittingKind};
pub use kinds::{BottomShape, CapacityBasis, Construction, Origin, Propulsion, Source};
pub use limits::{LONGEST_NOTES, TooMany};
pub use looked::{Answer, Felt, Judgement, Kept, Looked, Trial};
pub use measure::{Error, Measure, MeasureRow};
pub use photo::{NoLength, PhotoLength, Spot, TapeInPhoto};
pub use pin::Pin;
pub use scupper::{Flooded, Recess, Scupper, ScupperState, Scuppers, drains, floods, holds_water};
pub use set_up::Fixed;
pub use station::Station;
pub use survey::{Reading, Survey};
pub use template::{fittings, template, zones};
pub use zone::{Dryness, Opening, Reach, Zone, ZoneKind};
