//! x
#![allow(missing_docs)]
pub mod assess;
pub mod brief;
pub mod evaluate;
pub mod float;
pub mod hull;
pub mod lanes;
pub mod load;
pub mod quantity;
pub mod rank;
pub mod sample;
pub mod stability;
pub mod units;
pub mod water;
