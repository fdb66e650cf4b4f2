//! What floats: its mass and where its centre lies.

use crate::base::Lanes;

/// A mass and its centre in the hull's frame.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Weight<const N: usize> {
    /// Mass, kg.
    pub mass: Lanes<N>,
    /// From the bow, m.
    pub x: Lanes<N>,
    /// To starboard, m.
    pub y: Lanes<N>,
    /// Above the baseline, m.
    pub z: Lanes<N>,
}
