//! A righting curve and what is read off it.

/// A quantity known at rising heel angles, smooth in between.
///
/// Between the knots a cubic with three-point slopes (Bessel's tangents); the
/// slope at the first knot is given, since GM is known.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Curve<const K: usize> {
    /// Angles, rad, rising.
    pub angle: [f64; K],
    /// Values.
    pub value: [f64; K],
    slope: [f64; K],
}

impl<const K: usize> Curve<K> {
    /// A curve through the knots with `first_slope` per rad at the first.
    /// `K` is at least 3 and the angles rise.
    #[must_use]
    pub fn through(angle: [f64; K], value: [f64; K], first_slope: f64) -> Self {
        let mut slope = [0.0; K];
        for i in 1..K - 1 {
            let (h0, h1) = (angle[i] - angle[i - 1], angle[i + 1] - angle[i]);
            let s0 = (value[i] - value[i - 1]) / h0;
            let s1 = (value[i + 1] - value[i]) / h1;
            slope[i] = (s0 * h1 + s1 * h0) / (h0 + h1);
        }
        slope[0] = first_slope;
        let (i, h) = (K - 1, angle[K - 1] - angle[K - 2]);
        slope[i] = 2.0 * (value[i] - value[i - 1]) / h - slope[i - 1];
        Self {
            angle,
            value,
            slope,
        }
    }

    /// Value at `angle`, held at the ends.
    #[must_use]
    pub fn at(&self, angle: f64) -> f64 {
        let angle = angle.clamp(self.angle[0], self.angle[K - 1]);
        let i = self.angle[1..K - 1].partition_point(|&a| a < angle);
        let h = self.angle[i + 1] - self.angle[i];
        let t = (angle - self.angle[i]) / h;
        let (t2, t3) = (t * t, t * t * t);
        self.value[i] * (2.0 * t3 - 3.0 * t2 + 1.0)
            + self.slope[i] * h * (t3 - 2.0 * t2 + t)
            + self.value[i + 1] * (3.0 * t2 - 2.0 * t3)
            + self.slope[i + 1] * h * (t3 - t2)
    }

    /// Angles at which a piece is looked at: its ends and `STEPS - 1` places
    /// between them.
    fn fine_angles_of(&self, piece: usize) -> impl Iterator<Item = f64> + use<K> {
        const STEPS: u32 = 6;
        let (a, b) = (self.angle[piece], self.angle[piece + 1]);
        (0..=STEPS).map(move |s| a + (b - a) * f64::from(s) / f64::from(STEPS))
    }

    /// First angle at which the curve falls through zero, from a place where
    /// it is above it. `None` when it never does.
    #[must_use]
    pub fn falls_through_zero(&self) -> Option<f64> {
        self.falls_through_zero_after(self.angle[0])
    }

    /// As [`Curve::falls_through_zero`], looking only beyond `from`.
    #[must_use]
    pub fn falls_through_zero_after(&self, from: f64) -> Option<f64> {
        self.first_change(from, |before, after| before > 0.0 && after <= 0.0)
    }

    /// First angle at which the curve rises through zero after lying below it.
    /// `None` when it never does.
    #[must_use]
    pub fn rises_through_zero(&self) -> Option<f64> {
        self.first_change(self.angle[0], |before, after| before < 0.0 && after >= 0.0)
    }

    /// First angle beyond `from` between two fine angles whose values `change`;
    /// read off the chord between them.
    fn first_change(&self, from: f64, change: impl Fn(f64, f64) -> bool) -> Option<f64> {
        let mut last = (from, self.at(from));
        for i in 0..K - 1 {
            if self.angle[i + 1] <= from {
                continue;
            }
            // A cubic lies within the hull of its control points: where they
            // are all on one side nothing changes within the piece.
            let ends = (self.value[i], self.value[i + 1]);
            let third = (self.angle[i + 1] - self.angle[i]) / 3.0;
            let inner = (
                ends.0 + self.slope[i] * third,
                ends.1 - self.slope[i + 1] * third,
            );
            let hull = [last.1, ends.0, inner.0, inner.1, ends.1];
            if hull.iter().all(|&v| v > 0.0) || hull.iter().all(|&v| v < 0.0) {
                last = (self.angle[i + 1], ends.1);
                continue;
            }
            for angle in self.fine_angles_of(i).filter(|&a| a > from) {
                let value = self.at(angle);
                let (a, v) = last;
                if change(v, value) {
                    return Some(a + (angle - a) * v / (v - value));
                }
                last = (angle, value);
            }
        }
        None
    }

    /// Largest value up to `limit` and its angle: at a knot, at the limit, or
    /// where the slope of a cubic piece vanishes.
    #[must_use]
    pub fn peak(&self, limit: f64) -> (f64, f64) {
        let limit = limit.clamp(self.angle[0], self.angle[K - 1]);
        let mut best = (self.angle[0], self.value[0]);
        let mut look = |angle: f64| {
            let value = self.at(angle);
            if value > best.1 {
                best = (angle, value);
            }
        };
        for i in 0..K - 1 {
            let (from, h) = (self.angle[i], self.angle[i + 1] - self.angle[i]);
            if from >= limit {
                break;
            }
            // Value over t in [0, 1]: the slope is a t² + b t + c.
            let (m0, m1) = (self.slope[i] * h, self.slope[i + 1] * h);
            let rise = self.value[i + 1] - self.value[i];
            let (a, b, c) = (
                3.0 * (m0 + m1 - 2.0 * rise),
                2.0 * (3.0 * rise - 2.0 * m0 - m1),
                m0,
            );
            for t in quadratic_roots(a, b, c).into_iter().flatten() {
                if (0.0..=1.0).contains(&t) && from + h * t <= limit {
                    look(from + h * t);
                }
            }
            look(self.angle[i + 1].min(limit));
        }
        best
    }

    /// `∫ value dangle` from the first knot to `limit` (Simpson between the
    /// fine angles; the cubic pieces are integrated exactly).
    #[must_use]
    pub fn area(&self, limit: f64) -> f64 {
        let limit = limit.clamp(self.angle[0], self.angle[K - 1]);
        self.angle
            .windows(2)
            .map(|pair| {
                let (a, b) = (pair[0], pair[1].min(limit));
                if b <= a {
                    return 0.0;
                }
                (b - a) / 6.0 * (self.at(a) + 4.0 * self.at(0.5 * (a + b)) + self.at(b))
            })
            .sum()
    }
}

/// Real roots of `a t² + b t + c`, without cancellation.
fn quadratic_roots(a: f64, b: f64, c: f64) -> [Option<f64>; 2] {
    let root = (b * b - 4.0 * a * c).sqrt();
    if root.is_nan() {
        return [None, None];
    }
    let q = -0.5 * (b + root.copysign(b));
    let some = |x: f64| x.is_finite().then_some(x);
    [some(q / a), some(c / q)]
}

#[cfg(test)]
mod tests {
    use super::*;
    use approx::assert_relative_eq;

    fn sine() -> Curve<10> {
        let angle: [f64; 10] = std::array::from_fn(|i| 0.35 * i as f64);
        Curve::through(angle, angle.map(f64::sin), 1.0)
    }

    #[test]
    fn a_sine_is_followed_between_its_knots() {
        let c = sine();
        for i in 0..300 {
            let a = 0.01 * f64::from(i);
            assert_relative_eq!(c.at(a), a.sin(), epsilon = 4e-3);
        }
        assert_relative_eq!(c.area(1.5), 1.0 - 1.5_f64.cos(), epsilon = 1e-3);
        let (angle, value) = c.peak(3.0);
        assert_relative_eq!(value, 1.0, epsilon = 2e-3);
        assert_relative_eq!(angle, std::f64::consts::FRAC_PI_2, epsilon = 0.02);
    }

    #[test]
    fn crossings_are_found_on_the_right_side() {
        let c = sine();
        assert_relative_eq!(
            c.falls_through_zero().unwrap(),
            std::f64::consts::PI,
            epsilon = 2e-2
        );
        // It starts at zero and goes up: it has never lain below.
        assert_eq!(c.rises_through_zero(), None);
        let shifted = Curve::through(c.angle, c.value.map(|v| v - 0.5), 1.0);
        assert_relative_eq!(
            shifted.rises_through_zero().unwrap(),
            0.5_f64.asin(),
            epsilon = 5e-3
        );
    }

    #[test]
    fn pieces_passed_over_hide_no_crossing() {
        // The same search through every fine angle of every piece.
        let plain = |c: &Curve<5>, falls: bool| {
            let all = (0..4).flat_map(|i| c.fine_angles_of(i).skip(usize::from(i > 0)));
            let seen: Vec<(f64, f64)> = all.map(|a| (a, c.at(a))).collect();
            seen.windows(2).find_map(|pair| {
                let [(a, v), (b, w)] = [pair[0], pair[1]];
                let there = if falls {
                    v > 0.0 && w <= 0.0
                } else {
                    v < 0.0 && w >= 0.0
                };
                there.then(|| a + (b - a) * v / (v - w))
            })
        };
        let angle = [0.0, 0.2, 0.5, 0.9, 1.4];
        let mut crossings = 0;
        for n in 0..4096_u32 {
            // Eight levels at each of four knots, both signs.
            let value = std::array::from_fn(|k| match k {
                0 => 0.1,
                k => 0.05 * (f64::from((n >> (3 * (k - 1))) & 7) - 3.4),
            });
            let c = Curve::through(angle, value, -0.6);
            assert_eq!(c.falls_through_zero(), plain(&c, true), "{value:?}");
            assert_eq!(c.rises_through_zero(), plain(&c, false), "{value:?}");
            crossings += usize::from(c.rises_through_zero().is_some());
        }
        assert!(crossings > 1000, "{crossings}");
    }

    #[test]
    fn a_limit_stops_the_search() {
        let (angle, value) = sine().peak(0.5);
        assert_relative_eq!(angle, 0.5);
        assert_relative_eq!(value, 0.5_f64.sin(), epsilon = 2e-3);
    }
}
