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
//! bounded steps; where it fails, nested bisection decides whether there is a
//! rest at all.

use super::immersion::{Attitude, Immersion, immerse};
use super::weight::Weight;
use crate::base::Lanes;
use crate::body::{Body, Outline};

/// How closely an equilibrium is solved.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Accuracy {
    /// Residual volume and moment allowed, as a share of the displaced volume
    /// (moments also per length).
    pub relative: f64,
    /// Halvings of each bracket when Newton's method has to be given up; 0 for
    /// no second try heeled.
    pub halvings: u32,
    /// Residual, heeled, at which the last step is taken without looking again:
    /// volume and moments are carried along it by the waterplane, which leaves
    /// an error of second order. Upright, where the waterplane itself is read,
    /// a tenth of it. `None` to look again.
    pub carried: Option<f64>,
    /// Residual moment over volume and length at which a limit load's last step
    /// is taken without looking again; the error is again of second order.
    pub limit: f64,
}

impl Accuracy {
    /// For a single body: closed forms are met to about nine digits.
    pub const FINE: Self = Self {
        relative: 1e-10,
        halvings: 48,
        carried: None,
        limit: 1e-6,
    };
    /// For a sample of shapes, whose spread is ten thousand times wider. The
    /// last Newton step is still taken, so the attitude is far better than this.
    /// Heeled, a lane in which Newton's method fails has no arm; upright bisection
    /// decides (a property test holds the two against each other).
    pub const SAMPLE: Self = Self {
        relative: 2e-4,
        halvings: 0,
        carried: Some(2e-2),
        limit: 3e-4,
    };
}

/// A body at rest, or one that finds none.
#[derive(Debug, Clone, PartialEq)]
pub struct Settled<const N: usize> {
    /// Draft and trim found; not a number in lanes that find no rest.
    pub attitude: Attitude<N>,
    /// Integrals at that attitude; not numbers in lanes that find no rest.
    pub immersion: Immersion<N>,
    /// Lanes whose load exceeds what the whole body displaces: by how much, m³
    /// (0 where the load is carried).
    pub excess_volume: Lanes<N>,
    /// 1 in lanes that find no rest near upright trim: too heavy, or so low
    /// that bow or stern goes under and takes the rest along.
    pub foundered: Lanes<N>,
}

/// Where a search begins.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Start<const N: usize> {
    /// Draft, m.
    pub draft: Lanes<N>,
    /// Slope.
    pub slope: Lanes<N>,
    /// 1 in lanes known to founder already; they are not searched again.
    pub foundered: Lanes<N>,
}

impl<const N: usize> Start<N> {
    /// Level, a hand's breadth deep.
    pub const LEVEL: Self = Self {
        draft: Lanes::splat(0.1),
        slope: Lanes::ZERO,
        foundered: Lanes::ZERO,
    };
}

impl<const N: usize> Settled<N> {
    /// A start from this rest.
    #[must_use]
    pub fn as_start(&self) -> Start<N> {
        let here =
            |found: Lanes<N>, else_: Lanes<N>| (-self.foundered).where_negative(else_, found);
        Start {
            draft: here(self.attitude.draft, Start::LEVEL.draft),
            slope: here(self.attitude.slope, Start::LEVEL.slope),
            foundered: self.foundered,
        }
    }

    /// Whether a lane is at rest.
    #[must_use]
    pub fn rests(&self, lane: usize) -> bool {
        self.foundered.0[lane] == 0.0
    }
}

/// A load above this share of the whole volume sinks the body.
const AWASH: f64 = 0.995;
/// A slope beyond this (about 17°) is a hull going down by its end.
const FOUNDERING_SLOPE: f64 = 0.3;
/// Newton steps before bisection takes over.
const NEWTON_STEPS: usize = 16;
/// Largest change in one Newton step: of draft, m, and of slope.
const STEP: [f64; 2] = [0.08, 0.04];
/// Slopes beyond this (about 24°) are outside any resting kayak.
const SLOPE_LIMIT: f64 = 0.45;
/// Halvings at least, when upright the sure way has to decide.
const SECOND_TRY: u32 = 16;

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
/// (kg/m³) at `heel` (rad); a `start` near the rest speeds things up.
#[must_use]
pub fn settle<const N: usize>(
    body: &Body<N>,
    outline: &Outline<N>,
    weight: &Weight<N>,
    density: f64,
    heel: f64,
    start: Start<N>,
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
    let sinks = (-excess_volume).is_negative();
    let (at, im, foundered) = problem.search(&start, sinks.max(start.foundered), accuracy);
    let (attitude, immersion) = if foundered.max_lane() > 0.0 {
        // What finds no rest has no attitude: nothing may mistake it for one.
        let only = |v: Lanes<N>| (-foundered).where_negative(Lanes::splat(f64::NAN), v);
        let attitude = Attitude {
            heel,
            draft: only(at.draft),
            slope: only(at.slope),
        };
        (attitude, im.map(only))
    } else {
        (at, im)
    };
    Settled {
        attitude,
        immersion,
        excess_volume,
        foundered,
    }
}

impl<const N: usize> Problem<'_, N> {
    /// Newton's method on the lanes not yet `lost`; where it fails, once more
    /// from level, and then bisection: upright always, since there it decides
    /// what becomes of a hull, heeled where the accuracy asks for it. Returns the
    /// lanes lost in the end as well.
    fn search(
        &self,
        start: &Start<N>,
        lost: Lanes<N>,
        accuracy: Accuracy,
    ) -> (Attitude<N>, Immersion<N>, Lanes<N>) {
        let (at, im, failed) = self.newton(start, lost, accuracy);
        let upright = self.heel == 0.0;
        if failed.max_lane() == 0.0 || (!upright && accuracy.halvings == 0) {
            return (at, im, lost.max(failed));
        }
        let first = (at, im);
        let others = Lanes::splat(1.0) - failed;
        let (at, im, still) = self.newton(&Start::LEVEL, others, accuracy);
        let second = either(-(failed - still), (at, im), first);
        if still.max_lane() == 0.0 {
            return (second.0, second.1, lost);
        }
        let sure = bisect(self, accuracy.halvings.max(SECOND_TRY));
        let down = still * steep(sure.0.slope);
        let (at, im) = either(-still, sure, second);
        (at, im, lost.max(down))
    }

    /// Newton's method on the lanes not yet `lost`; returns 1 in those of them
    /// that it does not bring to rest.
    fn newton(
        &self,
        start: &Start<N>,
        lost: Lanes<N>,
        accuracy: Accuracy,
    ) -> (Attitude<N>, Immersion<N>, Lanes<N>) {
        let held = |v: Lanes<N>, limit: f64| v.clamp(Lanes::splat(-limit), Lanes::splat(limit));
        let sought = Lanes::splat(1.0) - lost;
        let (mut draft, mut slope) = (start.draft, start.slope);
        let mut left = Lanes::ZERO;
        for step in 0..NEWTON_STEPS {
            let (at, im) = self.look(draft, slope);
            let (d_draft, d_slope, error) = self.step(&at, &im);
            left = error * sought - accuracy.relative;
            if left.max_lane() <= 0.0 {
                return (at, im, steep(slope) * sought);
            }
            let near = if self.heel == 0.0 { 0.1 } else { 1.0 };
            if let Some(carried) = accuracy.carried
                && (error * sought).max_lane() <= carried * near
            {
                let (at, im) = carry(at, im, d_draft * sought, d_slope * sought);
                return (at, im, steep(at.slope) * sought);
            }
            // Steps that have not converged by now go round a kink: shorten them.
            let damping = if step < NEWTON_STEPS / 2 { 1.0 } else { 0.5 };
            draft += held(d_draft, STEP[0]) * sought * damping;
            slope = held(
                slope + held(d_slope, STEP[1]) * sought * damping,
                SLOPE_LIMIT,
            );
        }
        let (at, im) = self.look(draft, slope);
        // Whatever is not known to be close enough has failed, also what is no
        // number.
        let far = left.map(|v| if v <= 0.0 { 0.0 } else { 1.0 });
        (at, im, far.max(steep(slope) * sought))
    }
}

/// One place found where `condition` is negative, the other elsewhere.
fn either<const N: usize>(
    condition: Lanes<N>,
    (at, im): (Attitude<N>, Immersion<N>),
    (other, other_im): (Attitude<N>, Immersion<N>),
) -> (Attitude<N>, Immersion<N>) {
    let attitude = Attitude {
        heel: at.heel,
        draft: condition.where_negative(at.draft, other.draft),
        slope: condition.where_negative(at.slope, other.slope),
    };
    (attitude, im.where_negative(condition, other_im))
}

/// 1 where a slope is that of a hull going down by its end.
fn steep<const N: usize>(slope: Lanes<N>) -> Lanes<N> {
    (Lanes::splat(FOUNDERING_SLOPE) - slope.abs()).is_negative()
}

/// The attitude a small step further, with volume and moments carried along by
/// the waterplane's moments.
fn carry<const N: usize>(
    at: Attitude<N>,
    im: Immersion<N>,
    draft: Lanes<N>,
    slope: Lanes<N>,
) -> (Attitude<N>, Immersion<N>) {
    let area = im.area.max(Lanes::splat(1e-12));
    let added = im.area * draft + im.area_x * slope;
    // The new layer's centre in eta: that of the waterplane.
    let carried = Immersion {
        volume: im.volume + added,
        x_moment: im.x_moment + im.area_x * draft + im.area_xx * slope,
        eta_moment: im.eta_moment + im.area_eta / area * added,
        zeta_moment: im.zeta_moment + at.draft * added,
        ..im
    };
    let moved = Attitude {
        heel: at.heel,
        draft: at.draft + draft,
        slope: at.slope + slope,
    };
    (moved, carried)
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
