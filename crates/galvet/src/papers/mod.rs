//! Papers in use: what is ticked for an outing, what is handed out by address.

mod handed;
mod ticks;

pub use handed::{day_after, hand_out, handed, is_over, keep_until};
pub use ticks::{Ticks, Whose, begun, end, tick};
