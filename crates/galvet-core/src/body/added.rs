//! Floats on arms: cylinders that lie along the hull at both sides of it.

use crate::base::Lanes;

/// A pair of cylinders that lie along the hull, one at each side.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct AddedFloats<const N: usize> {
    /// Where they begin and end, m from the bow's datum.
    pub along: [f64; 2],
    /// Their axes' distance from the middle, m.
    pub y: f64,
    /// Radius, m.
    pub radius: f64,
    /// Height of their axes above the baseline, m.
    pub z: Lanes<N>,
}

/// A circle cut by the water: area, and moments about its own centre.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Cut {
    /// Area under water, m².
    pub area: f64,
    /// Its first moment upward of the centre, m³.
    pub up: f64,
    /// Breadth at the water, m.
    pub breadth: f64,
}

impl Cut {
    /// A circle of `radius` m whose centre lies `depth` m under the water (below zero: over
    /// it). With half the wetted angle θ, `cos θ = −depth/r`: area `r² (θ − sin θ cos θ)`,
    /// moment `−⅔ r³ sin³ θ`, breadth `2 r sin θ` (circular segment).
    #[must_use]
    pub fn of(radius: f64, depth: f64) -> Self {
        if depth <= -radius {
            return Self::default();
        }
        if depth >= radius {
            return Self {
                area: std::f64::consts::PI * radius * radius,
                ..Self::default()
            };
        }
        let cos = -depth / radius;
        let sin = (1.0 - cos * cos).max(0.0).sqrt();
        Self {
            area: radius * radius * (cos.acos() - sin * cos),
            up: -2.0 / 3.0 * (radius * sin).powi(3),
            breadth: 2.0 * radius * sin,
        }
    }
}

impl<const N: usize> AddedFloats<N> {
    /// Places along the axis and weights, m: Gauss's three, exact for what grows no faster
    /// than the fifth power of the place.
    #[must_use]
    pub fn stations(&self) -> [(f64, f64); 3] {
        let [from, to] = self.along;
        let (middle, half) = (0.5 * (from + to), 0.5 * (to - from));
        let out = 0.6_f64.sqrt();
        [(-out, 5.0 / 9.0), (0.0, 8.0 / 9.0), (out, 5.0 / 9.0)]
            .map(|(at, weight)| (middle + at * half, weight * half))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use approx::assert_relative_eq;
    use std::f64::consts::PI;

    #[test]
    fn a_circle_is_cut_as_worked_by_hand() {
        let r = 0.1;
        let half = Cut::of(r, 0.0);
        assert_relative_eq!(half.area, 0.5 * PI * r * r, max_relative = 1e-12);
        // Centre of half a disc: 4 r / 3 π below.
        assert_relative_eq!(
            half.up / half.area,
            -4.0 * r / (3.0 * PI),
            max_relative = 1e-12
        );
        assert_relative_eq!(half.breadth, 0.2, max_relative = 1e-12);
        assert_eq!(Cut::of(r, -0.1).area, 0.0);
        let whole = Cut::of(r, 0.1);
        assert_relative_eq!(whole.area, PI * r * r, max_relative = 1e-12);
        assert_eq!((whole.up, whole.breadth), (0.0, 0.0));
        // The area grows by the breadth.
        let h = 1e-6;
        for depth in [-0.09, -0.03, 0.02, 0.08] {
            let by = (Cut::of(r, depth + h).area - Cut::of(r, depth - h).area) / (2.0 * h);
            assert_relative_eq!(by, Cut::of(r, depth).breadth, max_relative = 1e-5);
        }
    }
}
