//! Points on the two axes.

use crate::brief::Brief;
use crate::evaluate::Setup;
use crate::hull::Survey;
use crate::quantity::{Quantity, Values};

/// A straight scale from no points to a hundred, held at both ends.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Scale {
    /// Value that earns nothing (SI).
    pub nothing: f64,
    /// Value that earns a hundred (SI).
    pub hundred: f64,
}

impl Scale {
    /// Points, 0-100.
    #[must_use]
    pub fn points(&self, value: f64) -> f64 {
        (100.0 * (value - self.nothing) / (self.hundred - self.nothing)).clamp(0.0, 100.0)
    }
}

/// The published scales. Guide values: handbook, chapter 4; the reserve's and
/// the stiffness's are our own, from the reach of the demo fleet.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Scales {
    /// Binding margin as a share of the counted load.
    pub margin: Scale,
    /// Standing support κ.
    pub support: Scale,
    /// Lean room, m.
    pub lean: Scale,
    /// Reserve, J.
    pub reserve: Scale,
    /// Initial stiffness, N·m/°.
    pub stiffness: Scale,
}

impl Default for Scales {
    fn default() -> Self {
        Self {
            margin: Scale {
                nothing: 0.0,
                hundred: 0.5,
            },
            support: Scale {
                nothing: 0.6,
                hundred: 1.3,
            },
            lean: Scale {
                nothing: 0.04,
                hundred: 0.20,
            },
            reserve: Scale {
                nothing: 0.0,
                hundred: 80.0,
            },
            stiffness: Scale {
                nothing: 1.0,
                hundred: 14.0,
            },
        }
    }
}

/// Points of one hull, or of one of its shapes.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Score {
    /// Points for the margin in hand.
    pub capacity: f64,
    /// Points for stability in the brief's posture.
    pub stability: f64,
    /// Weighted sum, which ranks.
    pub total: f64,
}

/// Points from figures, under the brief's schools. A figure that is not known
/// earns nothing.
#[must_use]
pub fn score(
    values: impl Fn(Quantity) -> Option<f64>,
    survey: &Survey,
    brief: &Brief,
    scales: &Scales,
) -> Score {
    let load = values(Quantity::Counted).unwrap_or(0.0).max(1.0);
    let margin = values(brief.capacity_school.margin()).unwrap_or(0.0);
    let capacity = scales.margin.points(margin / load);
    let stability = brief.stability_school.points(
        &values,
        survey,
        brief.posture,
        brief.water.reserve_share,
        scales,
    );
    let weight = brief.capacity_weight;
    Score {
        capacity,
        stability,
        total: weight * capacity + (1.0 - weight) * stability,
    }
}

/// Points of one shape of an assessment's sample.
#[must_use]
pub fn score_values(values: &Values, setup: &Setup<'_>, scales: &Scales) -> Score {
    score(|q| values.get(q), setup.survey, setup.brief, scales)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn scales_are_straight_and_held_at_the_ends() {
        let support = Scales::default().support;
        assert_eq!(support.points(0.6), 0.0);
        assert!((support.points(0.95) - 50.0).abs() < 1e-9);
        assert_eq!(support.points(2.0), 100.0);
        assert_eq!(support.points(-1.0), 0.0);
    }
}
