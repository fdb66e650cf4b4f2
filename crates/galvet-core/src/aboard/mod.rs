//! Water aboard: how it drains off a deck, comes in through a scupper, and runs about
//! inside the hull.
//!
//! Formulas and reference values: handbook, chapter 10. One shape at a time; everything is
//! quasi-static (levels settle faster than they change) and in the body's frame: metres,
//! cubic metres, seconds, kilograms; heel to starboard.

mod course;
mod drain;
mod flooding;
mod held;
mod inlet;
mod inlets;
mod loose;
mod room;

pub use course::{leaking, loosened, swamped, wetted_section};
pub use drain::{Deck, Draining, Filling, hatch_volume};
pub use flooding::{Flooding, Wet, drain_times, flooding, scuppers_guessed, stays_up_swamped, wet};
pub use held::{Fill, Held, Space, Vessel};
pub use inlet::Inlet;
pub use inlets::{Usual, inlets};
pub use loose::{Leaking, Loose, Loosened, Swamped, Wetted};
pub use room::Shut;
