//! The log: what outings were like, and what the boat says back.
//!
//! Nothing here is a guess that calls itself known: hours nobody noted are told as not noted,
//! a thing nobody said was used is not one that was never used, and service nobody noted is
//! due until somebody says when it was done. Handbook, chapters 3 (Log) and 8.8.

mod carried;
mod decide;
mod evidence;
mod faults;
mod hours;
mod outing;
mod trust;
mod upkeep;
mod weather;

pub use carried::{CarriedKit, carried};
pub use decide::{Decision, decide};
pub use evidence::{Read, readings};
pub use faults::{Known, faults, mend};
pub use hours::{Hours, Month, cost_per_outing, hours, months};
pub use outing::{Carried, Fate, Fault, Fix, Outing, Tape};
pub use trust::{Judged, Trust, trust};
pub use upkeep::{Due, Served, Standing, upkeep};
pub use weather::{Met, met};
