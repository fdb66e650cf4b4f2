//! The next outing: tide, light, wind by the hour, and when to launch.
//!
//! Where the figures come from is behind a trait each ([`Tides`], [`Forecast`]), so that a
//! real service can stand where a made-up one stands now. What is not foretold is no calm:
//! an hour without a forecast is told as one without.

mod forecast;
mod light;
mod tide;
mod window;

pub use forecast::{Forecast, Foretold, Hour, Sheet};
pub use light::{Light, light};
pub use tide::{Constituent, Harmonic, Tides, turns};
pub use window::{Asked, At, Look, Window, Wrong, look};
