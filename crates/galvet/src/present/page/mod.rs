//! What the pages show, as plain owned values: every number already in the
//! reader's units, every choice already made. Templates only lay it out.

pub mod ask;
pub mod compare;
pub mod hulls;
pub mod kit;
pub mod log;
pub mod paged;
pub mod papers;
pub mod pond;
pub mod ranking;
pub mod reckons;
pub mod survey;
