//! Draft and trim at which a load floats.
//!
//! For a given heel two conditions hold: the displaced mass is the load, and
//! the centre of buoyancy lies under the centre of mass along the hull. With
//! the water plane `zeta = T + τ X` (`X` from mid-length) the residuals are
//!
//! ```text
//! F1 = ∇ - V            V  = M/ρ
//! F2 = ∫X dV + τ ∫ζ dV - V (X_G + τ ζ_G)
//! ```
//!
//! since B - G must lie along the plane's normal `(-τ, 0, 1)`. Their
//! derivatives are waterplane moments (Reynolds transport over the surface):
//! `∂∇/∂T = A`, `∂∇/∂τ = A_x`, and so on, all analytic. Newton's method with
//! bounded steps; a lane that has not settled goes to nested bisection, which
//! cannot fail for a load the body can carry.

use super::immersion::{Attitude, Immersion, immerse};
use crate::hull::body::{Body, Outline};
use crate::lanes::Lanes;

/// A mass and its centre in the hull's frame.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Weight<const N: usize> {
    /// Mass, kg.
    pub mass: Lanes<N>,
    /// From the bow, m.
    pub x: Lanes<N>,
    /// To starboard, m.
    pub y: Lanes<N>,
    /// Above the baseline, m.
    pub z: Lanes<N>,
}

/// How closely an equilibrium is solved.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Accuracy {
    /// Residual volume and moment allowed, as a share of the displaced volume
    /// (moments also per length).
    pub relative: f64,
    /// Halvings of each bracket when Newton's method has to be given up.
    pub halvings: u32,
}

impl Accuracy {
    /// For a single body: closed forms are met to about nine digits.
    pub const FINE: Self = Self {
        relative: 1e-10,
        halvings: 48,
    };
    /// For a sample of shapes, whose spread is ten thousand times wider. The
    /// last Newton step is still taken, so the attitude is far better than this.
    /// Sixteen halvings leave a draft within 0.05 mm.
    pub const SAMPLE: Self = Self {
        relative: 2e-4,
        halvings: 16,
    };
}

/// A body at rest.
#[derive(Debug, Clone, PartialEq)]
pub struct Settled<const N: usize> {
    /// Draft and trim found.
    pub attitude: Attitude<N>,
    /// Integrals at that attitude.
    pub immersion: Immersion<N>,
    /// Lanes whose load exceeds what the whole body displaces: by how much, m³
    /// (0 where the load is carried). Such a lane is reported just awash.
    pub excess_volume: Lanes<N>,
}

/// Share of the whole volume taken as "just awash" for an overloaded lane.
const AWASH: f64 = 0.995;
/// Newton steps before bisection takes over.
const NEWTON_STEPS: usize = 16;
/// Largest change of draft in one Newton step, m, and of slope.
const DRAFT_STEP: f64 = 0.08;
const SLOPE_STEP: f64 = 0.04;
/// Slopes beyond this (about 24°) are outside any resting kayak.
const SLOPE_LIMIT: f64 = 0.45;

/// One equilibrium problem: what is fixed while draft and trim are sought.
struct Problem<'a, const N: usize> {
    body: &'a Body<N>,
    outline: &'a Outline<N>,
    heel: f64,
    volume: Lanes<N>,
    x_g: Lanes<N>,
    zeta_g: Lanes<N>,
}

impl<const N: usize> Problem<'_, N> {
    fn look(&self, draft: Lanes<N>, slope: Lanes<N>) -> (Attitude<N>, Immersion<N>) {
        let attitude = Attitude {
            heel: self.heel,
            draft,
            slope,
        };
        (attitude, immerse(self.body, self.outline, &attitude))
    }

    fn trim_residual(&self, slope: Lanes<N>, im: &Immersion<N>) -> Lanes<N> {
        im.x_moment + slope * im.zeta_moment - self.volume * (self.x_g + slope * self.zeta_g)
    }

    /// One Newton step; returns the step and the largest relative residual.
    fn step(&self, at: &Attitude<N>, im: &Immersion<N>) -> (Lanes<N>, Lanes<N>, Lanes<N>) {
        let f1 = im.volume - self.volume;
        let f2 = self.trim_residual(at.slope, im);
        let water_area = at.draft * im.area + at.slope * im.area_x;
        let water_area_x = at.draft * im.area_x + at.slope * im.area_xx;
        let a = im.area;
        let b = im.area_x;
        let c = im.area_x + at.slope * water_area;
        let d = im.area_xx + at.slope * water_area_x + im.zeta_moment - self.volume * self.zeta_g;
        let det = a * d - b * c;
        // A vanishing determinant (no waterplane left) gives a bounded step
        // and, if it persists, bisection.
        let det = det.map(|v| if v.abs() < 1e-9 { 1e-9 } else { v });
        let d_draft = (b * f2 - d * f1) / det;
        let d_slope = (c * f1 - a * f2) / det;
        let size = self.volume;
        let error = (f1 / size)
            .abs()
            .max((f2 / (size * self.body.length)).abs());
        (d_draft, d_slope, error)
    }
}

/// Finds draft and trim for `weight` on `outline` in water of `density`
/// (kg/m³) at `heel` (rad). `guess` speeds things up when a near attitude is
/// known.
#[must_use]
pub fn settle<const N: usize>(
    body: &Body<N>,
    outline: &Outline<N>,
    weight: &Weight<N>,
    density: f64,
    heel: f64,
    guess: Option<(Lanes<N>, Lanes<N>)>,
    accuracy: Accuracy,
) -> Settled<N> {
    let wanted = weight.mass / Lanes::splat(density);
    let whole = outline.volume;
    let excess_volume = (wanted - whole * AWASH).max(Lanes::ZERO);
    let (sin, cos) = heel.sin_cos();
    let problem = Problem {
        body,
        outline,
        heel,
        volume: wanted.min(whole * AWASH),
        x_g: weight.x - Lanes::splat(body.middle()),
        zeta_g: weight.z * cos - weight.y * sin,
    };
    let (mut draft, mut slope) = guess.unwrap_or((Lanes::splat(0.1), Lanes::ZERO));
    let mut settled = None;
    for _ in 0..NEWTON_STEPS {
        let (at, im) = problem.look(draft, slope);
        let (d_draft, d_slope, error) = problem.step(&at, &im);
        if error.max_lane() <= accuracy.relative {
            settled = Some((at, im));
            break;
        }
        let bound = |v: Lanes<N>, limit: f64| v.clamp(Lanes::splat(-limit), Lanes::splat(limit));
        draft += bound(d_draft, DRAFT_STEP);
        slope = bound(slope + bound(d_slope, SLOPE_STEP), SLOPE_LIMIT);
    }
    let (attitude, immersion) = settled.unwrap_or_else(|| bisect(&problem, accuracy.halvings));
    Settled {
        attitude,
        immersion,
        excess_volume,
    }
}

/// Lowest and highest level of the outline along the heeled vertical, m.
fn levels<const N: usize>(outline: &Outline<N>, heel: f64) -> (Lanes<N>, Lanes<N>) {
    let (sin, cos) = heel.sin_cos();
    let reach = sin.abs();
    let mut low = Lanes::splat(f64::INFINITY);
    let mut high = Lanes::splat(f64::NEG_INFINITY);
    for (&y, &z) in outline.y.iter().zip(&outline.z) {
        low = low.min(z * cos - y.abs() * reach);
        high = high.max(z * cos + y.abs() * reach);
    }
    (low, high)
}

/// Nested bisection: volume fixes the draft for each slope, the trim residual
/// then fixes the slope. Slow and sure; every lane keeps its own brackets.
fn bisect<const N: usize>(problem: &Problem<'_, N>, halvings: u32) -> (Attitude<N>, Immersion<N>) {
    let reach = 0.5 * problem.body.length * SLOPE_LIMIT;
    let (low, high) = levels(problem.outline, problem.heel);
    let float_at = |slope: Lanes<N>| {
        let mut lo = low - Lanes::splat(reach);
        let mut hi = high + Lanes::splat(reach);
        for _ in 0..halvings {
            let mid = (lo + hi) * 0.5;
            let over = problem.look(mid, slope).1.volume - problem.volume;
            lo = over.where_negative(mid, lo);
            hi = over.where_negative(hi, mid);
        }
        problem.look((lo + hi) * 0.5, slope)
    };
    let mut lo = Lanes::splat(-SLOPE_LIMIT);
    let mut hi = Lanes::splat(SLOPE_LIMIT);
    for _ in 0..halvings {
        let mid = (lo + hi) * 0.5;
        let (at, im) = float_at(mid);
        // Bow up moves the buoyancy aft: the residual grows with the slope.
        let over = problem.trim_residual(at.slope, &im);
        lo = over.where_negative(mid, lo);
        hi = over.where_negative(hi, mid);
    }
    float_at((lo + hi) * 0.5)
}
