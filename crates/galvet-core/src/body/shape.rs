//! The parameters of one plausible shape.

/// What is needed besides length, beam and bottom to draw a body, and what it
/// weighs.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Shape {
    /// Exponent of the plan form forward of mid-length.
    pub bow_exponent: f64,
    /// Exponent of the plan form aft of mid-length.
    pub stern_exponent: f64,
    /// Breadth left at the stern's end, as a share of the beam.
    pub stern_end: f64,
    /// Hull depth at mid-length, baseline to gunwale, m.
    pub depth: f64,
    /// Rise of the keel at the bow's end, m.
    pub bow_rise: f64,
    /// Rise of the keel at the stern's end, m.
    pub stern_rise: f64,
    /// Cockpit floor above the baseline, m (boards: the standing pad).
    pub floor: f64,
    /// Swell of the half-section, see [`super::swell`].
    pub fullness: f64,
    /// Half-breadth of the recess, share of the hull's there.
    pub recess_breadth: f64,
    /// Where the recess begins, share of the length.
    pub recess_from: f64,
    /// Where it ends, share of the length.
    pub recess_to: f64,
    /// Scale of measured breadths: 1 but for their error.
    pub breadth_scale: f64,
    /// Scale of measured heights: 1 but for their error.
    pub height_scale: f64,
    /// Mass of the fitted hull, kg.
    pub hull_mass: f64,
    /// Mass of what "fitted" adds to the bare hull, kg: part of
    /// [`Shape::hull_mass`].
    pub kit_mass: f64,
}
