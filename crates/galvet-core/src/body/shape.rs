//! The parameters of one plausible shape.

use crate::hull::BottomShape;

/// What is needed besides length and beam to draw a body, what it weighs, and how
/// high its seats are.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Shape {
    /// Its bottom: as named on the record, or one of those it may be.
    pub bottom: BottomShape,
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
    /// Share of the beam lost at the water because the side leans out, see
    /// [`super::skin`]; below zero where the section keeps its width.
    pub flare: f64,
    /// Half-breadth of the recess, share of the hull's there.
    pub recess_breadth: f64,
    /// Where the recess begins, share of the length.
    pub recess_from: f64,
    /// Where it ends, share of the length.
    pub recess_to: f64,
    /// Scale of breadths: 1 but for the error of the beam, or of measured sections.
    pub breadth_scale: f64,
    /// Scale of measured heights: 1 but for their error.
    pub height_scale: f64,
    /// Mass of the fitted hull, kg.
    pub hull_mass: f64,
    /// Mass of what "fitted" adds to the bare hull, kg: part of
    /// [`Shape::hull_mass`].
    pub kit_mass: f64,
    /// Surface of the seat over the floor at its low and its high place, m.
    pub seats: [f64; 2],
    /// How far off a load somebody guessed is beside this shape: its mass, place along the
    /// hull and height, in standard deviations. Nothing of the hull itself.
    pub guess: [f64; 3],
}
