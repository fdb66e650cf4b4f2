//! The figures: one table, evaluated over plausible shapes, with their ranges.

mod assess;
mod evaluate;
pub mod outlook;
mod quantity;
mod range;

pub use assess::Assessment;
pub use evaluate::{Afloat, Case, Seated, Setup, WaterLimit};
pub use quantity::{Band, Better, Group, Quantity, Row, Values};
pub use range::Range;
