//! Who is aboard: the angler, and who comes along.

mod angler;
mod company;

pub use angler::{Crew, Hand, Posture, SeatHeight};
pub use company::{Companion, Company, Kin, Sat};
