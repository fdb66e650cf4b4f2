//! One scupper, and what flows through it.

use crate::base::GRAVITY;
use crate::hull::{Recess, ScupperState};
use std::f64::consts::PI;

/// A scupper as water meets it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Inlet {
    /// The recess it drains.
    pub recess: Recess,
    /// What is done with it.
    pub state: ScupperState,
    /// From the bow's datum, m.
    pub x: f64,
    /// To starboard, m.
    pub y: f64,
    /// Height of its mouth in the floor, m.
    pub floor: f64,
    /// Height of its mouth in the bottom, m.
    pub bottom: f64,
    /// Diameter, m.
    pub diameter: f64,
}

impl Inlet {
    /// Whether water gets out through it.
    #[must_use]
    pub fn drains(&self) -> bool {
        self.state != ScupperState::Plugged
    }

    /// Flow out through it, m³/s, less than nothing where water comes in: `inside` and
    /// `outside` are the levels at its place, `floor` and `bottom` its mouths, all m along
    /// the vertical.
    pub(crate) fn flow(
        &self,
        (inside, outside): (f64, f64),
        turned: (f64, f64),
        discharge: f64,
    ) -> f64 {
        let (floor, bottom) = turned;
        let area = 0.25 * PI * self.diameter * self.diameter;
        let through = |head: f64| discharge * area * (2.0 * GRAVITY * head.max(0.0)).sqrt();
        if !self.drains() {
            0.0
        } else if inside > floor && inside > outside {
            through(inside - outside.max(bottom))
        } else if self.state == ScupperState::Open && outside > floor.max(inside) {
            -through(outside - inside.max(floor))
        } else {
            0.0
        }
    }

    /// Heights of its mouths along the vertical of a hull heeled by `heel`, m.
    pub(crate) fn turned(&self, heel: f64) -> (f64, f64) {
        let (sin, cos) = heel.sin_cos();
        let aside = self.y * sin;
        (self.floor * cos - aside, self.bottom * cos - aside)
    }
}
