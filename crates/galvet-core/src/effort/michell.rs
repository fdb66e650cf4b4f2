//! Wave resistance of a thin ship.
//!
//! J. H. Michell, "The wave-resistance of a ship", Philosophical Magazine 45
//! (1898), in the form of E. O. Tuck, "The wave resistance formula of
//! J. H. Michell (1898) and its significance to recent research in ship
//! hydrodynamics" (1989):
//!
//! ```text
//! R = 4 ρ g² / (π U²) ∫₁^∞ (I² + J²) λ² / √(λ² - 1) dλ
//! I + iJ = ∫∫ ∂y/∂x exp(κ ζ + i k x) dζ dx,   k = g λ / U²,  κ = g λ² / U²
//! ```
//!
//! `y` is the half-breadth, `ζ` the height above the water (negative below).
//! With λ = cosh u the root goes away. Over the depth each section's contour is
//! integrated exactly, `S(x) = ∮ y e^{κζ} dζ`, so tunnels and recesses count as
//! they should; along the length S is taken as straight between sections and
//! its slope times the wave is integrated exactly. S depends on the hull and on
//! κ alone, so that one table of it serves all speeds. A transom adds no term of
//! its own: the flow is taken to leave it dry.

use super::WettedHull;
use crate::base::GRAVITY;

/// Upper end of u: λ = cosh 3.2 ≈ 12, where the integrand has died away.
const LAST_U: f64 = 3.2;
/// Phase the fastest oscillation may turn in one step of u, rad.
const PHASE: f64 = 0.7;
/// Fewest and most steps in u.
const STEPS: (usize, usize) = (64, 900);

/// `(e^a - 1)/a` and `(a e^a - e^a + 1)/a²`, smooth through 0: the means of
/// `e^{at}` and `t e^{at}` over t from 0 to 1.
fn means(a: f64) -> (f64, f64) {
    if a.abs() < 1e-3 {
        return (1.0 + a / 2.0 + a * a / 6.0, 0.5 + a / 3.0 + a * a / 8.0);
    }
    let e = a.exp();
    ((e - 1.0) / a, (a * e - e + 1.0) / (a * a))
}

/// `∮ y e^{κζ} dζ` along a submerged half-section's contour.
fn depth_integral(contour: &[(f64, f64)], kappa: f64) -> f64 {
    contour
        .windows(2)
        .map(|pair| {
            let ((y0, z0), (y1, z1)) = (pair[0], pair[1]);
            let rise = z1 - z0;
            if rise == 0.0 {
                return 0.0;
            }
            // From the upper end down: the exponent never overflows.
            let (top, y_top, y_low, run) = if rise > 0.0 {
                (z1, y1, y0, rise)
            } else {
                (z0, y0, y1, -rise)
            };
            let (zeroth, first) = means(-kappa * run);
            let value = (kappa * top).exp() * run * (y_top * zeroth + (y_low - y_top) * first);
            if rise > 0.0 { value } else { -value }
        })
        .sum()
}

/// Step of the tables in `ln κ`.
const TABLE_STEP: f64 = 0.1;

/// The depth integrals of a hull's sections over κ, worked out once for all
/// speeds and read between by cubics in `ln κ`, which they are smooth in: good
/// to some 1e-5 of the section's own area (see the test).
#[derive(Debug, Clone, PartialEq)]
struct DepthTable {
    /// `ln κ` of the first row.
    first: f64,
    /// One row for each κ: the integrals of all sections.
    rows: Vec<Vec<f64>>,
}

impl DepthTable {
    /// Of `hull` for every κ from `least` to `most`, 1/m.
    fn of(hull: &WettedHull, least: f64, most: f64) -> Self {
        // One row more at either end, for the cubics there.
        let first = least.ln() - TABLE_STEP;
        let steps = ((most / least).ln() / TABLE_STEP).ceil() as usize + 3;
        let row = |step: usize| {
            let kappa = (first + TABLE_STEP * step as f64).exp();
            let contours = hull.sections.iter();
            contours.map(|(_, c)| depth_integral(c, kappa)).collect()
        };
        Self {
            first,
            rows: (0..=steps).map(row).collect(),
        }
    }

    /// The integrals at a κ: Lagrange's cubic through the four rows around it.
    fn read(&self, kappa: f64, out: &mut [f64]) {
        let place = (kappa.ln() - self.first) / TABLE_STEP;
        let at = (place as usize).clamp(1, self.rows.len() - 3);
        let t = place - at as f64;
        let weights = [
            -t * (t - 1.0) * (t - 2.0) / 6.0,
            (t + 1.0) * (t - 1.0) * (t - 2.0) / 2.0,
            -(t + 1.0) * t * (t - 2.0) / 2.0,
            (t + 1.0) * t * (t - 1.0) / 6.0,
        ];
        let [a, b, c, d] = [0, 1, 2, 3].map(|i| &self.rows[at + i - 1]);
        for (i, value) in out.iter_mut().enumerate() {
            *value = weights[0] * a[i] + weights[1] * b[i] + weights[2] * c[i] + weights[3] * d[i];
        }
    }
}

/// A hull ready to be asked for its waves at any speed of a range.
#[derive(Debug, Clone, PartialEq)]
pub struct Waves {
    /// Places of the sections, m.
    x: Vec<f64>,
    depth: DepthTable,
    /// Slowest and fastest speed it can be asked for, m/s.
    speeds: (f64, f64),
}

/// Slowest speed at which waves are computed, m/s.
const SLOWEST: f64 = 0.05;

impl Waves {
    /// The waves of `hull` at speeds from `slowest` to `fastest` m/s.
    #[must_use]
    pub fn of(hull: &WettedHull, slowest: f64, fastest: f64) -> Self {
        let slowest = slowest.max(SLOWEST);
        let fastest = fastest.max(slowest);
        let wave = |speed: f64| GRAVITY / (speed * speed);
        Self {
            x: hull.sections.iter().map(|s| s.0).collect(),
            depth: DepthTable::of(hull, wave(fastest), wave(slowest) * LAST_U.cosh().powi(2)),
            speeds: (slowest, fastest),
        }
    }

    /// Wave resistance, N, at `speed` m/s (held to the range asked for) in
    /// water of `density` kg/m³. Zero for a hull out of the water.
    #[must_use]
    pub fn resistance(&self, speed: f64, density: f64) -> f64 {
        let [first, .., last] = self.x[..] else {
            return 0.0;
        };
        let speed = speed.clamp(self.speeds.0, self.speeds.1);
        let wave = GRAVITY / (speed * speed);
        // The squared amplitude turns at twice the rate of k·L.
        let fastest = 2.0 * wave * (last - first) * LAST_U.min(2.2).sinh();
        let steps = ((LAST_U * fastest / PHASE) as usize).clamp(STEPS.0, STEPS.1) & !1;
        let du = LAST_U / steps as f64;
        let mut depth = vec![0.0; self.x.len()];
        let mut sum = 0.0;
        for step in 0..=steps {
            let lambda = (du * step as f64).cosh();
            self.depth.read(wave * lambda * lambda, &mut depth);
            let amplitude = self.amplitude(&depth, wave * lambda);
            // Simpson's weights.
            let weight = match step {
                0 => 1.0,
                s if s == steps => 1.0,
                s if s % 2 == 1 => 4.0,
                _ => 2.0,
            };
            sum += weight * amplitude * lambda * lambda;
        }
        4.0 * density * GRAVITY * GRAVITY / (std::f64::consts::PI * speed * speed) * sum * du / 3.0
    }

    /// `I² + J²` for the wave number `k`: between two sections the slope of the
    /// depth integral is constant, and `∫ e^{ikx} dx` is the difference of
    /// `e^{ikx}` over `ik`, which its square leaves as `1/k²`.
    fn amplitude(&self, depth: &[f64], k: f64) -> f64 {
        let (mut real, mut imaginary) = (0.0, 0.0);
        let (mut cos, mut sin) = (1.0, 0.0);
        // Sections mostly stand at one distance: the turn is kept.
        let (mut apart, mut turn) = (0.0, (0.0, 1.0));
        for (x, s) in self.x.windows(2).zip(depth.windows(2)) {
            let dx = x[1] - x[0];
            if dx <= 0.0 {
                continue;
            }
            if (dx - apart).abs() > 1e-12 {
                (apart, turn) = (dx, (k * dx).sin_cos());
            }
            let next = (cos * turn.1 - sin * turn.0, sin * turn.1 + cos * turn.0);
            let slope = (s[1] - s[0]) / dx;
            real += slope * (next.0 - cos);
            imaginary += slope * (next.1 - sin);
            (cos, sin) = next;
        }
        (real * real + imaginary * imaginary) / (k * k)
    }
}

/// Wave resistance, N, at one `speed` m/s in water of `density` kg/m³. Zero for
/// a hull out of the water or a speed not above 0.05 m/s.
#[must_use]
pub fn wave_resistance(hull: &WettedHull, speed: f64, density: f64) -> f64 {
    if speed <= SLOWEST {
        return 0.0;
    }
    Waves::of(hull, speed, speed).resistance(speed, density)
}

#[cfg(test)]
mod tests {
    use super::*;

    /// The Wigley body `y = B/2 (1-u²)(1-(z/T)²)`, L/B = 10, B/T = 1.6.
    fn wigley(length: f64) -> WettedHull {
        let (beam, draft) = (length / 10.0, length / 16.0);
        let sections = (0..=80)
            .map(|i| {
                let u = f64::from(i) / 40.0 - 1.0;
                let contour = (0..=40)
                    .map(|j| {
                        let z = 1.0 - f64::from(j) / 40.0;
                        (0.5 * beam * (1.0 - u * u) * (1.0 - z * z), -draft * z)
                    })
                    .collect();
                (0.5 * length * (1.0 + u), contour)
            })
            .collect();
        WettedHull::new(sections)
    }

    #[test]
    fn wigley_meets_the_published_table() {
        // Handbook, chapter 2: R / (½ ρ U² L²) × 10³, within one per cent.
        let length = 4.0;
        let hull = wigley(length);
        for (froude, table) in [
            (0.25, 0.158),
            (0.30, 0.319),
            (0.35, 0.186),
            (0.40, 0.407),
            (0.50, 0.672),
        ] {
            let speed = froude * (GRAVITY * length).sqrt();
            let r = wave_resistance(&hull, speed, 1000.0);
            let coefficient = r / (0.5 * 1000.0 * speed * speed * length * length) * 1e3;
            let off = (coefficient / table - 1.0).abs();
            // The table has three digits: half of the last one on top.
            assert!(
                off < 0.01 + 0.0005 / table,
                "Fn {froude}: {coefficient:.4} {table}"
            );
        }
    }

    #[test]
    fn direction_of_travel_does_not_matter() {
        let mut one = wigley(3.0);
        // Make it asymmetric first.
        for (i, (_, contour)) in one.sections.iter_mut().enumerate() {
            let swell = 1.0 + 0.004 * i as f64;
            contour.iter_mut().for_each(|p| p.0 *= swell);
        }
        let turned = one.sections.iter().rev();
        let other = WettedHull::new(turned.map(|(x, c)| (3.0 - x, c.clone())).collect());
        let (a, b) = (
            wave_resistance(&one, 1.7, 1000.0),
            wave_resistance(&other, 1.7, 1000.0),
        );
        assert!((a / b - 1.0).abs() < 1e-9, "{a} {b}");
    }

    #[test]
    fn twice_the_breadth_makes_four_times_the_waves() {
        let thin = wigley(3.0);
        let wide = thin
            .sections
            .iter()
            .map(|(x, c)| (*x, c.iter().map(|&(y, z)| (2.0 * y, z)).collect()));
        let wide = WettedHull::new(wide.collect());
        let ratio = wave_resistance(&wide, 1.9, 1000.0) / wave_resistance(&thin, 1.9, 1000.0);
        assert!((ratio - 4.0).abs() < 1e-9);
    }

    #[test]
    fn tables_and_turns_give_what_direct_sums_give() {
        let hull = wigley(3.7);
        let table = DepthTable::of(&hull, 0.3, 2000.0);
        let mut read = vec![0.0; hull.sections.len()];
        let dry = |(_, c): &(f64, Vec<(f64, f64)>)| depth_integral(c, 1e-9);
        let most = hull.sections.iter().map(dry).fold(0.0, f64::max);
        for step in 0..400 {
            let kappa = 0.3 * (0.022 * f64::from(step)).exp();
            table.read(kappa, &mut read);
            for (value, (_, contour)) in read.iter().zip(&hull.sections) {
                let off = (value - depth_integral(contour, kappa)).abs() / most;
                assert!(off < 2e-5, "κ {kappa}: {off}");
            }
        }
        // The amplitude against the slope's own integral, term by term.
        let waves = Waves::of(&hull, 0.8, 4.0);
        let k = 7.3;
        waves.depth.read(k * k / 3.0, &mut read);
        let (mut real, mut imaginary) = (0.0, 0.0);
        for (x, s) in waves.x.windows(2).zip(read.windows(2)) {
            let half = 0.5 * k * (x[1] - x[0]);
            let jump = (s[1] - s[0]) * half.sin() / half;
            let (sin, cos) = (0.5 * k * (x[0] + x[1])).sin_cos();
            real += jump * cos;
            imaginary += jump * sin;
        }
        let direct = real * real + imaginary * imaginary;
        let turned = waves.amplitude(&read, k);
        assert!((turned / direct - 1.0).abs() < 1e-9, "{turned} {direct}");
        // One table for many speeds, or one for each: the same waves.
        for speed in [1.1, 1.7, 2.4, 3.3] {
            let (many, one) = (
                waves.resistance(speed, 1000.0),
                wave_resistance(&hull, speed, 1000.0),
            );
            assert!((many / one - 1.0).abs() < 1e-4, "{speed}: {many} {one}");
        }
    }

    #[test]
    fn the_means_are_smooth_through_nothing() {
        for a in [-1e-3_f64, 1e-3] {
            let (inside, outside) = (means(a * 0.999), means(a * 1.001));
            assert!((inside.0 - outside.0).abs() < 1e-5);
            assert!((inside.1 - outside.1).abs() < 1e-5);
        }
        assert!((means(-2.0).0 - (1.0 - (-2.0_f64).exp()) / 2.0).abs() < 1e-12);
    }
}
