//! Papers: what follows from a hull, a rig laid out on it and a question, as work in order.
//! Nobody types a list; every line says why it stands there and where it comes from.
//!
//! Guide values of the handbook's chapter 8. Maker, law and the user's own limit come first.

mod essentials;
mod facts;

pub use essentials::{Asks, Essential, Standing, essentials};
pub use facts::{Facts, Nine};
