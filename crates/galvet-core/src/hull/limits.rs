//! How much a record may hold: more than anybody notes of one hull, and so little that
//! its page and its figures stay quick. What is more is refused with the number.

use super::{FloatReading, Survey};
use thiserror::Error;

/// More of something than a record holds.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Error)]
#[error("a hull has at most {most} {what}, not {count}")]
pub struct TooMany {
    /// Of what, in the plural.
    pub what: &'static str,
    /// How many there may be.
    pub most: usize,
    /// How many there are.
    pub count: usize,
}

/// What is counted, how many there may be, and how it is counted.
type Limit = (&'static str, usize, fn(&Survey) -> usize);

/// Longest text of notes, characters.
pub const LONGEST_NOTES: usize = 10_000;

/// Every limit of a hull's record.
const LIMITS: [Limit; 11] = [
    ("places", 60, |s| s.fitout.zones.len()),
    ("fittings", 200, |s| s.fitout.fittings.len()),
    ("changes", 60, |s| s.fitout.modifications.len()),
    ("places that its changes add", 120, |s| {
        s.fitout.modifications.iter().map(|m| m.zones.len()).sum()
    }),
    ("fittings that its changes add", 200, |s| {
        let made = s.fitout.modifications.iter();
        made.map(|m| m.fittings.len()).sum()
    }),
    ("ways of setting it up", 40, |s| {
        s.fitout.configurations.len()
    }),
    ("readings of one figure", 60, |s| {
        s.readings.values().map(Vec::len).max().unwrap_or(0)
    }),
    ("tests afloat", 60, |s| s.evidence.len()),
    ("figures in one test afloat", 60, |s| {
        let figures = s.evidence.iter().map(|e| match &e.reading {
            FloatReading::Heights { heights, .. } => heights.len(),
            FloatReading::Waterline { .. } => 2,
            FloatReading::Drift { .. }
            | FloatReading::Speed { .. }
            | FloatReading::Drain { .. } => 1,
            FloatReading::Tilt { shifts, .. } => shifts.len(),
        });
        figures.max().unwrap_or(0)
    }),
    ("measured sections", 200, |s| s.offsets.len()),
    ("characters of notes", LONGEST_NOTES, |s| {
        s.notes.chars().count()
    }),
];

impl Survey {
    /// The first limit it is over.
    ///
    /// # Errors
    /// [`TooMany`].
    pub fn within_limits(&self) -> Result<(), TooMany> {
        let over = |&(what, most, count): &Limit| {
            let count = count(self);
            (count > most).then_some(TooMany { what, most, count })
        };
        LIMITS.iter().find_map(over).map_or(Ok(()), Err)
    }
}
