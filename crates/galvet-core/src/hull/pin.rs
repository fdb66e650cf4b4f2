//! Kit put somewhere on a hull by hand.

use super::fitting::Fitting;
use crate::base::OutOfRange;

/// A thing put somewhere by hand: the stowing engine works around it.
#[derive(Debug, Clone, PartialEq)]
pub struct Pin {
    /// Key of the thing on the shelf.
    pub thing: String,
    /// Which of those on the rig, from 0.
    pub nth: u32,
    /// The place's name: a zone, a track, a side or a socket of the hull.
    pub place: String,
    /// Its middle along, m from the bow.
    pub x: f64,
    /// Its middle across, m to starboard.
    pub y: f64,
    /// Whether it lies with its length across.
    pub turned: bool,
}

impl Pin {
    /// Checks every number.
    ///
    /// # Errors
    /// The first [`OutOfRange`] met.
    pub fn check(self) -> Result<Self, OutOfRange> {
        Fitting::X.check(self.x)?;
        Fitting::Y.check(self.y)?;
        Ok(self)
    }
}
