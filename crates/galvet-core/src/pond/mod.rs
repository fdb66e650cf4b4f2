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
mod practice;
mod roll;

pub use angler::{Angler, Felt};
pub use arms::Arms;
pub use boat::Boat;
pub use practice::{Balance, Skill};
pub use roll::{At, Mode, Push, Roll, STEP, TICK};
