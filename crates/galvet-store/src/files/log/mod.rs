//! The log in files of others: tracks as GPX, days as iCalendar, tables.

pub mod calendar;
mod columns;
pub mod gpx;
pub mod table;
