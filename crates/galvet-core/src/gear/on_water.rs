//! What a thing does to how the boat floats, drains and goes, beside being carried.

use crate::base::{Bounds, Dimension, OutOfRange};
use crate::hull::Fitting;

/// A pair of floats on arms, one at each side.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Outriggers {
    /// Length of one, m.
    pub length: f64,
    /// Diameter of one, m.
    pub diameter: f64,
    /// From the boat's middle to the axis of one, m.
    pub reach: f64,
    /// Height of their underside over the water as the boat lies loaded at rest, m; below
    /// zero where they are always wet.
    pub clear: f64,
}

impl Outriggers {
    /// Volume of one, m³.
    #[must_use]
    pub fn volume(&self) -> f64 {
        0.25 * std::f64::consts::PI * self.diameter * self.diameter * self.length
    }

    /// Upward force of one fully under, N, in water of `density` kg/m³: what its arm and
    /// mount must bear (handbook, chapter 10).
    #[must_use]
    pub fn force(&self, density: f64) -> f64 {
        density * crate::base::GRAVITY * self.volume()
    }
}

/// What a thing does on the water. What it does not do is `None`.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct OnWater {
    /// Floats it brings at both sides.
    pub outriggers: Option<Outriggers>,
    /// Air it keeps inside the hull where water would run, m³: a bag, foam.
    pub buoyancy: Option<f64>,
    /// Water it pumps, litres a minute, as pumps are sold by.
    pub pumps: Option<f64>,
    /// Drag area C·A of what is towed alongside under way, m².
    pub towed: Option<f64>,
    /// Drag area C·A of a sock let out to drift slower, m².
    pub sock: Option<f64>,
    /// Whether it closes the cockpit of a hull one sits in: a spray deck.
    pub spray_deck: bool,
}

impl OnWater {
    /// Accepted volumes of a bag or foam, m³.
    pub const BUOYANCY: Bounds = Bounds::new("litres kept dry", Dimension::Volume, 0.000_5, 0.4);
    /// Accepted rates of a pump, l/min.
    pub const PUMPS: Bounds = Bounds::new("pumped, l/min", Dimension::Ratio, 0.5, 200.0);
    /// Accepted drag areas of what is towed, m².
    pub const DRAG: Bounds = Bounds::new("drag area, m²", Dimension::Ratio, 0.000_5, 3.0);

    /// Whether it does nothing there.
    #[must_use]
    pub fn is_nothing(&self) -> bool {
        *self == Self::default()
    }

    /// Checks every number.
    ///
    /// # Errors
    /// The first [`OutOfRange`] met.
    pub fn check(&self) -> Result<(), OutOfRange> {
        if let Some(floats) = self.outriggers {
            Fitting::FLOAT_LENGTH.check(floats.length)?;
            Fitting::FLOAT.check(floats.diameter)?;
            Fitting::FLOAT_REACH.check(floats.reach)?;
            Fitting::FLOAT_CLEAR.check(floats.clear)?;
        }
        let rest = [
            (self.buoyancy, Self::BUOYANCY),
            (self.pumps, Self::PUMPS),
            (self.towed, Self::DRAG),
            (self.sock, Self::DRAG),
        ];
        for (value, bounds) in rest {
            value.map_or(Ok(0.0), |v| bounds.check(v))?;
        }
        Ok(())
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use approx::assert_relative_eq;

    #[test]
    fn a_float_pushes_as_worked_by_hand() {
        // Handbook, chapter 10: 0.75 × 0.20 m, 231 N.
        let float = Outriggers {
            length: 0.75,
            diameter: 0.20,
            reach: 0.75,
            clear: 0.03,
        };
        assert_relative_eq!(float.force(1000.0), 231.0, max_relative = 0.001);
    }

    #[test]
    fn what_no_float_can_be_is_refused() {
        let with = |clear, diameter| OnWater {
            outriggers: Some(Outriggers {
                length: 0.75,
                diameter,
                reach: 0.7,
                clear,
            }),
            ..OnWater::default()
        };
        assert!(with(0.03, 0.2).check().is_ok());
        assert!(with(2.0, 0.2).check().is_err());
        assert!(with(0.03, 0.0).check().is_err());
        let pump = OnWater {
            pumps: Some(f64::NAN),
            ..OnWater::default()
        };
        assert!(pump.check().is_err());
    }
}
