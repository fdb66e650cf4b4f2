//! The question: brief, water and schools. Words and numbers only; what they
//! mean for a hull is found in the rooms above.

mod brief;
mod schools;
mod water;
mod wishes;

pub use brief::{Brief, MustHaves};
pub use schools::{CapacitySchool, DeckUse, StabilitySchool};
pub use water::{StandingUse, Water};
pub use wishes::{Drilling, Drive, Felt, Fishing, Joints, Known, Launch, Practice, Wishes};
