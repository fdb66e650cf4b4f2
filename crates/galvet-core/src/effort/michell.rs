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
//! its slope times the wave is integrated exactly. A transom adds no term of
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

/// Wave resistance, N, at `speed` m/s in water of `density` kg/m³. Zero for a
/// hull out of the water or a speed not above 0.05 m/s.
#[must_use]
pub fn wave_resistance(hull: &WettedHull, speed: f64, density: f64) -> f64 {
    let sections = &hull.sections;
    if sections.len() < 2 || speed <= 0.05 {
        return 0.0;
    }
    let wave = GRAVITY / (speed * speed);
    let length = sections[sections.len() - 1].0 - sections[0].0;
    // The squared amplitude turns at twice the rate of k·L.
    let fastest = 2.0 * wave * length * LAST_U.min(2.2).sinh();
    let steps = ((LAST_U * fastest / PHASE) as usize).clamp(STEPS.0, STEPS.1) & !1;
    let du = LAST_U / steps as f64;
    let mut depth = vec![0.0; sections.len()];
    let mut sum = 0.0;
    for step in 0..=steps {
        let lambda = (du * step as f64).cosh();
        let (k, kappa) = (wave * lambda, wave * lambda * lambda);
        for (value, (_, contour)) in depth.iter_mut().zip(sections) {
            *value = depth_integral(contour, kappa);
        }
        let (mut real, mut imaginary) = (0.0, 0.0);
        for (pair, s) in sections.windows(2).zip(depth.windows(2)) {
            let (from, to) = (pair[0].0, pair[1].0);
            let half = 0.5 * k * (to - from);
            let spread = if half.abs() < 1e-6 {
                1.0
            } else {
                half.sin() / half
            };
            let (sin, cos) = (0.5 * k * (from + to)).sin_cos();
            let jump = (s[1] - s[0]) * spread;
            real += jump * cos;
            imaginary += jump * sin;
        }
        // Simpson's weights.
        let weight = match step {
            0 => 1.0,
            s if s == steps => 1.0,
            s if s % 2 == 1 => 4.0,
            _ => 2.0,
        };
        sum += weight * (real * real + imaginary * imaginary) * lambda * lambda;
    }
    4.0 * density * GRAVITY * GRAVITY / (std::f64::consts::PI * speed * speed) * sum * du / 3.0
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
    fn the_means_are_smooth_through_nothing() {
        for a in [-1e-3_f64, 1e-3] {
            let (inside, outside) = (means(a * 0.999), means(a * 1.001));
            assert!((inside.0 - outside.0).abs() < 1e-5);
            assert!((inside.1 - outside.1).abs() < 1e-5);
        }
        assert!((means(-2.0).0 - (1.0 - (-2.0_f64).exp()) / 2.0).abs() < 1e-12);
    }
}
