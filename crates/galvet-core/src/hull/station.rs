//! Measured sections, as they are kept with the hull.

/// One measured half-section.
#[derive(Debug, Clone, PartialEq)]
pub struct Station {
    /// From the bow, m, aft positive.
    pub x: f64,
    /// Corners (half-breadth, height above the baseline), m, in order from the
    /// bottom at the centreline outward, up, and back to the centreline.
    pub points: Vec<(f64, f64)>,
}
