//! The figures: one table, evaluated over plausible shapes, with their ranges.

mod afloat;
mod assess;
mod changes;
mod deciding;
mod evaluate;
mod lane;
pub mod outlook;
mod outriggers;
mod quantity;
mod remarks;
mod remedy;
mod setup;
mod stowage;
mod worst;

pub use crate::base::{Absent, Range, Shown};
pub use afloat::{Afloat, Case};
pub use assess::Assessment;
pub use deciding::{Deciding, Kept};
pub use lane::Seated;
pub use quantity::{Band, Better, Group, Quantity, Row, Values};
pub use remedy::{Change, Remedy, remedies};
pub use setup::{Setup, WaterLimit};
pub use stowage::Wish;
pub use worst::{Found, worse};
