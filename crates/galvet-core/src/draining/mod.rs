//! A deck full of water: scuppers as water meets them, a hull at rest with water in it, and
//! how long that takes to leave.
//!
//! Formulas and reference values: handbook, chapter 10. One shape at a time, in the body's
//! frame. This room knows no question: what a question makes of it is in
//! [`aboard`](crate::aboard), what a timed draining says of a hull in
//! [`plausible`](crate::plausible).

mod drain;
mod held;
mod inlet;
mod inlets;

pub use drain::{Deck, Draining, Filling, apart, hatch_volume};
pub use held::{Fill, Held, Space, Vessel};
pub use inlet::Inlet;
pub use inlets::{Usual, inlets};
