//! Customers of the shop: who they are, what stands under their name, and how it leaves.
//!
//! A name is what links: questions, outings, test paddles and bookings carry it, so that a
//! file says whose they are. Two customers never have one name, and one who is renamed is
//! renamed everywhere at once.

mod keep;
mod leaving;
mod name;
mod person;
mod retain;
mod theirs;
mod written;

pub(crate) use keep::{change, form_of, keep, known_by_name};
pub(crate) use leaving::archive;
pub(crate) use name::{KIND, customers};
pub(crate) use person::Person;
pub(crate) use retain::{LONGEST, Retained, keep_months, months, over_now, retain};
pub(crate) use theirs::{Theirs, unrecorded};
pub(crate) use written::{Written, says_much};
