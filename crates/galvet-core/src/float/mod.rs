//! Floating: what is under water, where its centre lies, and how a load settles.

pub mod clip;
pub mod equilibrium;
pub mod immersion;
pub mod limit_load;
pub mod rest;

pub use equilibrium::{Accuracy, Settled, Start, Weight, settle};
pub use immersion::{Attitude, Immersion, clearance, immerse, wetted_area, whole_volume};
pub use limit_load::further_load;
pub use rest::{FloatError, Rest, rest};
