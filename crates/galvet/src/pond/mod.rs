//! The pond as it is asked for and handed out: moves as words in an address, a course as JSON
//! and as a table.

pub mod course;
pub mod moves;
