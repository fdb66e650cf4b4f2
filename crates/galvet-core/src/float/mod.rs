//! Floating: what is under water, where its centre lies, and how a load settles.

mod clip;
mod equilibrium;
mod fate;
mod immersion;
mod limit_load;
mod rest;
mod weight;

pub use equilibrium::{Accuracy, Settled, Start, settle};
pub use fate::Fate;
pub use immersion::{
    Attitude, Immersion, arm, clearance, deepest, immerse, immerse_hull, metacentric_height,
    wetted_area,
};
pub use limit_load::{Limit, further_load};
pub use rest::{Rest, bearable_share, rest, rim_angle};
pub use weight::Weight;
