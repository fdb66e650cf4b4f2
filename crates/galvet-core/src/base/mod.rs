//! What every room stands on: units and bounds, keyed enums, and
//! numbers worked several at a time.

mod day;
mod fraction;
mod keyed;
mod lanes;
mod name;
mod range;
mod typed;
mod units;

pub use day::{NotADay, day};
pub use keyed::Keyed;
pub(crate) use keyed::words;
pub use lanes::Lanes;
pub use name::{LONGEST_NAME, NameError, name, one_line, typed_name};
pub use range::{Absent, Range, Shown};
pub use typed::{Bare, QuantityError};
pub use units::{
    Bounds, Dimension, FOOT, GRAVITY, INCH, MILE, OutOfRange, POUND, System, feet_and_inches,
};
