//! Righting arms at heel, with free trim, on one outline.

use super::curve::Curve;
use crate::base::Lanes;
use crate::body::{Body, Outline};
use crate::float::{Accuracy, Attitude, Settled, Start, Weight, arm, clearance, settle};

/// Heel angles of a ranking's righting curve, degrees; the first is upright.
pub const HEELS_DEG: [f64; 9] = [0.0, 5.0, 10.0, 15.0, 20.0, 30.0, 40.0, 60.0, 90.0];
/// Number of angles on a ranking's curve.
pub const KNOTS: usize = HEELS_DEG.len();

/// One place on a righting curve. Lanes that find no trim at this heel have no
/// numbers here.
#[derive(Debug, Clone)]
pub struct Arm<const N: usize> {
    /// Heel, rad.
    pub heel: f64,
    /// Righting arm GZ, m: positive pushes back up.
    pub gz: Lanes<N>,
    /// How it lies.
    pub attitude: Attitude<N>,
    /// Least height of the floor's edge over the water, m (infinite where
    /// there is no floor).
    pub floor: Lanes<N>,
    /// Least height of any recess floor's edge over the water, m: while it is
    /// positive no recess holds outside water.
    pub sill: Lanes<N>,
    /// Least height of the gunwale over the water, m.
    pub gunwale: Lanes<N>,
    /// Least height of the recesses' rim over the water, m; infinite where
    /// nothing fills over it.
    pub rim: Lanes<N>,
}

impl<const N: usize> Arm<N> {
    /// Reads the arm and the watched lines off a settled body.
    #[must_use]
    pub fn of(body: &Body<N>, weight: &Weight<N>, settled: &Settled<N>) -> Self {
        let (at, middle) = (&settled.attitude, body.middle());
        Self {
            heel: at.heel,
            gz: arm(at, &settled.immersion, weight),
            attitude: *at,
            floor: clearance(&body.floor, middle, at),
            sill: clearance(&body.sill, middle, at),
            gunwale: clearance(&body.gunwale, middle, at),
            rim: clearance(&body.rim, middle, at),
        }
    }
}

/// Righting arms under one weight in one water, walked heel by heel.
///
/// The next attitude is guessed from the last: turned without change of volume
/// a body keeps the centre of its waterplane in the water (Euler's theorem), so
/// the plane through that centre at the new heel is right to first order; what
/// that guess missed the last time, scaled by the square of the step, is added.
pub struct Walk<'a, const N: usize> {
    body: &'a Body<N>,
    outline: &'a Outline<N>,
    weight: &'a Weight<N>,
    density: f64,
    accuracy: Accuracy,
    last: Footing<N>,
    /// Heel and slope before the last, and what the last guess missed.
    slope_before: (f64, Lanes<N>),
    missed: Option<(f64, Lanes<N>)>,
}

/// Where a walk stands.
#[derive(Debug, Clone, Copy)]
struct Footing<const N: usize> {
    heel: f64,
    start: Start<N>,
    /// Centre of the waterplane across, along the heeled horizontal, m.
    centre: Lanes<N>,
}

impl<const N: usize> Footing<N> {
    fn of(heel: f64, settled: &Settled<N>) -> Self {
        let im = &settled.immersion;
        let centre = im.area_eta / im.area.max(Lanes::splat(1e-12));
        Self {
            heel,
            start: settled.as_start(),
            // Lanes that find no rest have no centre; they are not searched.
            centre: centre.map(|c| if c.is_finite() { c } else { 0.0 }),
        }
    }

    /// Draft at another heel of the plane through the waterplane's centre.
    fn turned(&self, heel: f64) -> Lanes<N> {
        let (sin, cos) = (heel - self.heel).sin_cos();
        self.start.draft * cos - self.centre * sin
    }
}

impl<'a, const N: usize> Walk<'a, N> {
    /// Begins at `upright`, the equilibrium on `outline` at no heel.
    #[must_use]
    pub fn new(
        body: &'a Body<N>,
        outline: &'a Outline<N>,
        weight: &'a Weight<N>,
        density: f64,
        upright: &Settled<N>,
        accuracy: Accuracy,
    ) -> Self {
        let last = Footing::of(0.0, upright);
        Self {
            body,
            outline,
            weight,
            density,
            accuracy,
            slope_before: (0.0, last.start.slope),
            last,
            missed: None,
        }
    }

    /// The arm at `heel` rad, greater than the heel before it.
    pub fn step(&mut self, heel: f64) -> (Arm<N>, Settled<N>) {
        let settled = settle(
            self.body,
            self.outline,
            self.weight,
            self.density,
            heel,
            self.guess(heel),
            self.accuracy,
        );
        self.note(heel, &settled);
        (Arm::of(self.body, self.weight, &settled), settled)
    }

    /// The arms at `heels` rad, rising from 0 at `upright`, with the attitudes and
    /// integrals they were read off.
    #[must_use]
    pub fn along(mut self, heels: &[f64], upright: &Settled<N>) -> Vec<(Arm<N>, Settled<N>)> {
        let at = |&heel: &f64| {
            if heel == 0.0 {
                (Arm::of(self.body, self.weight, upright), upright.clone())
            } else {
                self.step(heel)
            }
        };
        heels.iter().map(at).collect()
    }

    fn guess(&self, heel: f64) -> Start<N> {
        let step = heel - self.last.heel;
        let mut draft = self.last.turned(heel);
        if let Some((before, missed)) = self.missed {
            draft += missed * (step / before).powi(2);
        }
        let known = self.last.heel - self.slope_before.0;
        // From upright the slope starts level in heel, by symmetry.
        let ahead = if known > 0.0 { step / known } else { 0.0 };
        let slope = self.last.start.slope;
        Start {
            draft,
            slope: slope + (slope - self.slope_before.1) * ahead,
            foundered: self.last.start.foundered,
        }
    }

    /// Takes over an attitude, found here or on an outline that floats the same.
    pub fn note(&mut self, heel: f64, settled: &Settled<N>) {
        let step = heel - self.last.heel;
        if step > 0.0 {
            let missed = settled.as_start().draft - self.last.turned(heel);
            self.missed = Some((step, missed));
        }
        self.slope_before = (self.last.heel, self.last.start.slope);
        self.last = Footing::of(heel, settled);
    }
}

/// Righting arms of `body` floating on `outline` under `weight` at each of
/// `heels` (rad, rising from 0), from the upright equilibrium `upright`.
#[must_use]
pub fn righting<const N: usize>(
    body: &Body<N>,
    outline: &Outline<N>,
    weight: &Weight<N>,
    density: f64,
    upright: &Settled<N>,
    heels: &[f64],
    accuracy: Accuracy,
) -> Vec<Arm<N>> {
    Walk::new(body, outline, weight, density, upright, accuracy)
        .along(heels, upright)
        .into_iter()
        .map(|(arm, _)| arm)
        .collect()
}

/// One body's righting arms up to where water runs in over the rim, and those
/// of the body that has filled from there on. Two curves: nothing is read or
/// drawn across the break between them.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Path {
    dry: Curve<KNOTS>,
    fills_at: Option<f64>,
    full: Option<Curve<KNOTS>>,
    peak: (f64, f64),
}

impl Path {
    /// A path along `dry` (arms, m) up to `fills_at` (rad), where water runs in
    /// over the rim; from there on along `full`. `None` where nothing fills
    /// before 90°.
    #[must_use]
    pub fn new(dry: Curve<KNOTS>, fills_at: Option<f64>, full: Option<Curve<KNOTS>>) -> Self {
        let end = fills_at.unwrap_or(std::f64::consts::FRAC_PI_2);
        Self {
            dry,
            fills_at,
            full,
            peak: dry.peak(end),
        }
    }

    /// Arms before anything runs in; only up to [`Path::end`].
    #[must_use]
    pub const fn dry(&self) -> &Curve<KNOTS> {
        &self.dry
    }

    /// Heel at which the rim meets the water, rad; `None` where nothing fills
    /// before 90°.
    #[must_use]
    pub const fn fills_at(&self) -> Option<f64> {
        self.fills_at
    }

    /// The last heel before water runs in, rad.
    #[must_use]
    pub fn end(&self) -> f64 {
        self.fills_at
            .unwrap_or(std::f64::consts::FRAC_PI_2)
            .min(std::f64::consts::FRAC_PI_2)
    }

    /// The heel at which it pushes back hardest before water runs in, rad, and
    /// the arm there, m.
    #[must_use]
    pub const fn peak(&self) -> (f64, f64) {
        self.peak
    }

    /// The heel at which stability vanishes, rad: where the arm falls through
    /// zero, or drops below it as water runs in. `None` when it still pushes
    /// back at 90°.
    #[must_use]
    pub fn vanishes_at(&self) -> Option<f64> {
        let end = self.end();
        if let Some(angle) = self.dry.falls_through_zero().filter(|&a| a <= end) {
            return Some(angle);
        }
        let (full, fills) = (self.full?, self.fills_at?);
        if full.at(fills) <= 0.0 {
            return Some(fills);
        }
        full.falls_through_zero_after(fills)
    }
}
