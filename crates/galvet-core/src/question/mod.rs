//! The question: brief, water and schools. Words and numbers only; what they
//! mean for a hull is found in the rooms above.

mod brief;
mod demand;
mod rules;
mod schools;
mod varied;
mod water;
mod wishes;

pub use crate::hull::Felt;
pub use brief::{Brief, Day, MustHaves, Outing};
pub use demand::{Demand, DemandUse};
pub use rules::{Effect, Op, Proof, Rule, RuleKind, RuleSet};
pub use schools::{CapacitySchool, DeckUse, StabilitySchool};
pub use varied::{catch_line, with_batteries};
pub use water::{StandingUse, Water};
pub use wishes::{
    BatteryPlace, Drilling, Drive, Fishing, Joints, Known, Launch, Practice, Reverse, Wishes,
};
