//! The pond: a hull rolling in time with somebody in it who keeps their balance.
//!
//! Handbook, chapter 9. The roll axis lies at the floor, so that hull and standing body meet
//! in one torque; heave and pitch are left to the arms, which are those of free trim. Fitted,
//! not proven: a model for a feeling, never the ground of a rank.
//!
//! SI and radians; heel, lean and force positive to starboard.

mod angler;
mod arms;
mod boat;
mod control;
mod dice;
mod exercise;
mod help;
mod mate;
mod numbers;
mod play;
mod practice;
mod roll;
mod scene;
mod script;
mod state;
mod swell;
mod tries;

pub use angler::{Angler, Felt};
pub use arms::Arms;
pub use boat::Boat;
pub use exercise::{Done, Exercise};
pub use help::{Help, Helped, helps};
pub use numbers::{Numbers, Share, boats, ends, numbers, of_boats};
pub use play::{Course, End, Frame, Happened, Play, Setting};
pub use practice::Balance;
pub use roll::{Roll, STEP, TICK};
pub use scene::{Posed, Scene, scene};
pub use script::{Act, Moves};
pub use state::{Aim, At, Chance, Mode, Push};
pub use swell::{Sea, Swell};
pub use tries::{Tries, Try, spread, tries};
