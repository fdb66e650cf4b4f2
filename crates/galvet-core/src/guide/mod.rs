//! Guide values: every number that is judged rather than derived, once, with
//! its unit, its range and where it comes from.
//!
//! A [`Guides`] is handed to whoever computes; nothing reads a global. Values
//! may be overridden by a file (read elsewhere) within the range given here.

mod table;

pub use table::{Guide, Section};

use crate::base::{Bounds, Dimension, Keyed, OutOfRange};
use std::ops::Index;

/// One row of the guide table.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct GuideRow {
    /// Name in files, `section.name`.
    pub key: &'static str,
    /// Where it is shown.
    pub section: Section,
    /// What it is, in plain words.
    pub meaning: &'static str,
    /// What it measures.
    pub dimension: Dimension,
    /// Shipped value, SI.
    pub value: f64,
    /// Least accepted in its place, SI.
    pub lo: f64,
    /// Most accepted in its place, SI.
    pub hi: f64,
    /// Where it comes from.
    pub source: &'static str,
}

impl GuideRow {
    /// The accepted range under its own name.
    #[must_use]
    pub const fn bounds(&self) -> Bounds {
        Bounds::new(self.meaning, self.dimension, self.lo, self.hi)
    }
}

/// A value for every row of the table.
#[derive(Debug, Clone, PartialEq)]
pub struct Guides([f64; Guide::COUNT]);

impl Default for Guides {
    fn default() -> Self {
        let mut values = [0.0; Guide::COUNT];
        for &guide in Guide::ALL {
            values[guide as usize] = guide.row().value;
        }
        Self(values)
    }
}

impl Index<Guide> for Guides {
    type Output = f64;

    fn index(&self, guide: Guide) -> &f64 {
        &self.0[guide as usize]
    }
}

impl Guides {
    /// Puts another value in place of the shipped one.
    ///
    /// # Errors
    /// [`OutOfRange`] outside the row's range.
    pub fn set(&mut self, guide: Guide, value: f64) -> Result<(), OutOfRange> {
        self.0[guide as usize] = guide.row().bounds().check(value)?;
        Ok(())
    }

    /// Whether the value is not the shipped one.
    #[must_use]
    pub fn is_changed(&self, guide: Guide) -> bool {
        self[guide] != guide.row().value
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use std::collections::BTreeSet;

    #[test]
    fn every_row_is_whole_and_its_value_in_its_range() {
        let mut keys = BTreeSet::new();
        for &guide in Guide::ALL {
            let row = guide.row();
            assert!(keys.insert(row.key), "{} twice", row.key);
            assert!(row.key.contains('.'), "{} names its section", row.key);
            assert!(row.meaning.len() > 8 && row.source.len() > 4, "{}", row.key);
            assert_eq!(row.bounds().check(row.value), Ok(row.value), "{}", row.key);
            assert_eq!(Guide::named(row.key), Some(guide));
        }
    }

    #[test]
    fn a_value_is_put_in_place_within_its_range_only() {
        let mut guides = Guides::default();
        guides.set(Guide::DressedExtra, 9.0).unwrap();
        assert_eq!(guides[Guide::DressedExtra], 9.0);
        assert!(guides.is_changed(Guide::DressedExtra));
        assert!(guides.set(Guide::DressedExtra, 90.0).is_err());
        assert!(guides.set(Guide::DressedExtra, f64::NAN).is_err());
        assert_eq!(guides[Guide::DressedExtra], 9.0);
    }
}
