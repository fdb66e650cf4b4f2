//! Papers in use: what is ticked for an outing, what is handed out by address.

mod handed;
mod ticks;

pub use handed::{hand_out, handed};
pub use ticks::{Ticks, Whose, begun, end, tick};
