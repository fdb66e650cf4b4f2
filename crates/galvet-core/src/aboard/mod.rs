//! Water aboard: how it drains off a deck, comes in through a scupper, and runs about
//! inside the hull.
//!
//! Formulas and reference values: handbook, chapter 10. One shape at a time; everything is
//! quasi-static (levels settle faster than they change) and in the body's frame: metres,
//! cubic metres, seconds, kilograms; heel to starboard.

mod course;
mod flooding;
mod loose;
mod room;

pub use crate::draining::{
    Deck, Draining, Fill, Filling, Held, Inlet, Space, Usual, Vessel, hatch_volume, inlets,
};
pub use course::{leaking, loosened, swamped, wetted_section};
pub use flooding::{Flooding, Wet, drain_times, flooding, scuppers_guessed, stays_up_swamped, wet};
pub use loose::{Leaking, Loose, Loosened, Swamped, Wetted};
pub use room::Shut;
