//! What it costs to go somewhere: resistance, power, speed, range.
//!
//! An estimate of an estimated body on flat water, always shown as a range.

mod michell;
mod power;

pub use michell::{Waves, wave_resistance};
pub use power::{Going, PowerCurve, Resistance, efficiency, froude, going, lasting};

use crate::body::{Form, Shape};
use crate::float::Attitude;

/// The submerged part of a hull as sections from bow to stern.
#[derive(Debug, Clone, PartialEq)]
pub struct WettedHull {
    /// Place along the hull, m, and the submerged half-section's contour
    /// (half-breadth, height above the water), from the keel outward and up.
    sections: Vec<(f64, Vec<(f64, f64)>)>,
    /// Wetted area of both sides, m².
    wetted_area: f64,
    /// Length in the water, m.
    waterline: f64,
}

/// Sections taken along an estimated body.
const SECTIONS: u32 = 36;

impl WettedHull {
    /// A hull of sections in order along its length.
    #[must_use]
    pub fn new(sections: Vec<(f64, Vec<(f64, f64)>)>) -> Self {
        let girth = |contour: &[(f64, f64)]| -> f64 {
            let edges = contour.windows(2);
            2.0 * edges
                .map(|e| (e[1].0 - e[0].0).hypot(e[1].1 - e[0].1))
                .sum::<f64>()
        };
        let wetted_area = sections
            .windows(2)
            .map(|p| 0.5 * (p[1].0 - p[0].0) * (girth(&p[0].1) + girth(&p[1].1)))
            .sum();
        let wet = |s: &&(f64, Vec<(f64, f64)>)| s.1.len() > 1;
        let ends = (sections.iter().find(wet), sections.iter().rev().find(wet));
        let waterline = match ends {
            (Some(bow), Some(stern)) => stern.0 - bow.0,
            _ => 0.0,
        };
        Self {
            sections,
            wetted_area,
            waterline,
        }
    }

    /// The submerged part of a shape lying as `at` (upright).
    #[must_use]
    pub fn of_shape(form: &Form, shape: &Shape, at: &Attitude<1>) -> Self {
        let (bow, length) = (form.bow(), form.length());
        let middle = bow + 0.5 * length;
        let sections = (0..=SECTIONS)
            .map(|i| {
                let share = f64::from(i) / f64::from(SECTIONS);
                let x = bow + share * length;
                let water = at.water_at(x, middle).0[0];
                (x, submerged(&form.half_section(shape, share).skin, water))
            })
            .collect();
        Self::new(sections)
    }

    /// Wetted area, m².
    #[must_use]
    pub fn wetted_area(&self) -> f64 {
        self.wetted_area
    }

    /// Length in the water, m.
    #[must_use]
    pub fn waterline(&self) -> f64 {
        self.waterline
    }
}

/// The outer skin's part below `water`, heights counted from the water.
fn submerged(skin: &[(f64, f64)], water: f64) -> Vec<(f64, f64)> {
    let mut out = Vec::new();
    for pair in skin.windows(2) {
        let ((y0, z0), (y1, z1)) = (pair[0], pair[1]);
        if out.is_empty() && z0 < water {
            out.push((y0, z0 - water));
        }
        let crossing = || {
            let t = (water - z0) / (z1 - z0);
            (y0 + (y1 - y0) * t, 0.0)
        };
        match (z0 < water, z1 < water) {
            (_, true) if z0 >= water => out.extend([crossing(), (y1, z1 - water)]),
            (true, true) => out.push((y1, z1 - water)),
            (true, false) => out.push(crossing()),
            _ => {}
        }
    }
    out
}
