//! What every room stands on: units and bounds, keyed enums, findings, and
//! numbers worked several at a time.

mod finding;
mod keyed;
mod lanes;
mod units;

pub use finding::Finding;
pub use keyed::Keyed;
pub(crate) use keyed::words;
pub use lanes::Lanes;
pub use units::{
    Bare, Bounds, Dimension, FOOT, GRAVITY, INCH, MILE, OutOfRange, POUND, QuantityError, System,
    feet_and_inches,
};
