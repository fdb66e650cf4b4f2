//! The question: ONE table of the brief's parts, from which its address, its
//! file, its sentence and its JSON are made. To add a part, add a row to
//! [`parts::PARTS`] and put its answer into [`Answers::brief`].

mod address;
mod answers;
pub mod company;
mod file;
mod offers;
mod part;
mod parts;
pub mod rough;

pub use address::{Ask, Asked, Mistake, UNITS, units_from_key, units_key, units_said};
pub use answers::{Answer, Answers, NOTHING, NothingToAsk, given};
pub use file::{check, document, kept, read, resolve};
pub use offers::Offer;
pub use part::{Kind, MORE, Part, PartId};
pub use parts::PARTS;
