//! Lifting, dragging and carting a hull: levers and slopes, N and kg.
//!
//! Handbook, chapter 10. Guidance: 25 kg for one person (ISO 11228-1), 200 N to start a
//! cart and 100 N to keep it up (HSE L23); one's own limits stand above them.

use crate::base::GRAVITY;
use crate::guide::{Guide, Guides};
use crate::question::Launch;

/// A thing with a weight and a centre along the hull.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Mass {
    /// kg.
    pub mass: f64,
    /// From the bow, m.
    pub x: f64,
}

impl Mass {
    /// Several as one.
    #[must_use]
    pub fn together(all: impl IntoIterator<Item = Self>) -> Self {
        let (mass, moment) = all.into_iter().fold((0.0, 0.0), |(mass, moment), one| {
            (mass + one.mass, moment + one.mass * one.x)
        });
        Self {
            mass,
            x: if mass > 0.0 { moment / mass } else { 0.0 },
        }
    }
}

/// Force to lift one end of a hull of `length` m by the handles at `handles` (bow and
/// stern, m from the bow), the other end on the ground, N: the heavier end.
#[must_use]
pub fn one_end(hull: Mass, length: f64, handles: [f64; 2]) -> f64 {
    let weight = hull.mass * GRAVITY;
    let [bow, stern] = handles;
    let by_the_bow = weight * (hull.x - length).abs() / (bow - length).abs().max(1e-3);
    let by_the_stern = weight * hull.x.abs() / stern.abs().max(1e-3);
    by_the_bow.max(by_the_stern)
}

/// What the ground at a launch does to who drags or carts over it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Ground {
    /// Slope, rad.
    pub slope: f64,
    /// Share of the weight that dragging costs on the level.
    pub drags: f64,
    /// The same of a cart's rolling.
    pub rolls: f64,
}

impl Ground {
    /// The ground of a launch; `None` where a hull is carried.
    #[must_use]
    pub fn of(launch: Launch, guides: &Guides) -> Option<Self> {
        let [slope, drags, rolls] = match launch {
            Launch::Ramp => [Guide::RampSlope, Guide::RampDrag, Guide::RampRoll],
            Launch::Beach | Launch::Surf => [Guide::BeachSlope, Guide::BeachDrag, Guide::BeachRoll],
            Launch::Bank => [Guide::BankSlope, Guide::BankDrag, Guide::BankRoll],
            Launch::Steps => return None,
        };
        Some(Self {
            slope: guides[slope].to_radians(),
            drags: guides[drags],
            rolls: guides[rolls],
        })
    }

    /// Force to drag `mass` kg up it, N.
    #[must_use]
    pub fn drag(&self, mass: f64) -> f64 {
        let (sin, cos) = self.slope.sin_cos();
        mass * GRAVITY * (self.drags * cos + sin)
    }

    /// Force at the bow handle, `handle` m from the bow, of a hull on a cart pulled up it,
    /// N: the axle a twentieth of `length` behind the centre, the centre `height` m over
    /// the axle.
    #[must_use]
    pub fn cart(&self, hull: Mass, length: f64, handle: f64, height: f64) -> f64 {
        const BEHIND: f64 = 0.05;
        let weight = hull.mass * GRAVITY;
        let (sin, cos) = self.slope.sin_cos();
        let axle = hull.x + BEHIND * length;
        let along = weight * (sin + self.rolls * cos);
        let lever = (axle - handle).abs().max(1e-3);
        let across = weight * (BEHIND * length * cos - height * sin) / lever;
        along.hypot(across)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use approx::assert_relative_eq;

    /// Bare, fitted, kit at 0.6 of the length; what a launch asks.
    fn forces(masses: [f64; 3], length: f64, launch: Launch) -> [f64; 3] {
        let at = |mass: f64, share: f64| Mass {
            mass,
            x: share * length,
        };
        let [bare, fitted, kit] = masses;
        let ground = Ground::of(launch, &Guides::default()).unwrap();
        let loaded = Mass::together([at(fitted, 0.51), at(kit, 0.60)]);
        [
            one_end(at(bare, 0.51), length, [0.02 * length, 0.98 * length]),
            ground.cart(loaded, length, 0.02 * length, 0.25),
            ground.drag(fitted),
        ]
    }

    #[test]
    fn two_hulls_are_lifted_carted_and_dragged_as_worked_by_hand() {
        let first = forces([39.0, 50.0, 24.0], 3.70, Launch::Ramp);
        for (got, want) in first.into_iter().zip([199.0, 123.0, 280.0]) {
            assert_relative_eq!(got, want, max_relative = 0.01);
        }
        let second = forces([21.0, 23.0, 14.0], 2.90, Launch::Beach);
        for (got, want) in second.into_iter().zip([107.0, 129.0, 146.0]) {
            assert_relative_eq!(got, want, max_relative = 0.01);
        }
    }

    #[test]
    fn down_steps_nothing_rolls() {
        assert_eq!(Ground::of(Launch::Steps, &Guides::default()), None);
    }
}
