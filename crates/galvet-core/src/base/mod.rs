//! What every room stands on: units and bounds, keyed enums, findings, and
//! numbers worked several at a time.

mod finding;
mod keyed;
mod lanes;
mod typed;
mod units;

pub use finding::Finding;
pub use keyed::Keyed;
pub(crate) use keyed::words;
pub use lanes::Lanes;
pub use typed::{Bare, QuantityError};
pub use units::{
    Bounds, Dimension, FOOT, GRAVITY, INCH, MILE, OutOfRange, POUND, System, feet_and_inches,
};
