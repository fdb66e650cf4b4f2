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

/// Righting arms under one weight in one water, walked heel by heel: each
/// attitude is guessed from the last two.
pub struct Walk<'a, const N: usize> {
    body: &'a Body<N>,
    outline: &'a Outline<N>,
    weight: &'a Weight<N>,
    density: f64,
    accuracy: Accuracy,
    before: (f64, Start<N>),
    last: (f64, Start<N>),
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
        let start = (0.0, upright.as_start());
        Self {
            body,
            outline,
            weight,
            density,
            accuracy,
            before: start,
            last: start,
        }
    }

    /// The arm at `heel` rad, not less than the heel before it.
    pub fn step(&mut self, heel: f64) -> Arm<N> {
        let guess = extrapolate(self.before, self.last, heel);
        let settled = settle(
            self.body,
            self.outline,
            self.weight,
            self.density,
            heel,
            guess,
            self.accuracy,
        );
        self.note(heel, &settled);
        Arm::of(self.body, self.weight, &settled)
    }

    /// Takes over an attitude found elsewhere.
    pub fn note(&mut self, heel: f64, settled: &Settled<N>) {
        self.before = self.last;
        self.last = (heel, settled.as_start());
    }

    /// Takes over an arm found on an outline that floats the same here.
    pub fn follow(&mut self, arm: &Arm<N>) {
        self.before = self.last;
        let lost = (arm.attitude.draft * 0.0).map(|v| if v == 0.0 { 0.0 } else { 1.0 });
        let here = |v: Lanes<N>, level: Lanes<N>| (-lost).where_negative(level, v);
        let start = Start {
            draft: here(arm.attitude.draft, Start::LEVEL.draft),
            slope: here(arm.attitude.slope, Start::LEVEL.slope),
            foundered: lost,
        };
        self.last = (arm.heel, start);
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
    let mut walk = Walk::new(body, outline, weight, density, upright, accuracy);
    heels
        .iter()
        .map(|&heel| {
            if heel == 0.0 {
                Arm::of(body, weight, upright)
            } else {
                walk.step(heel)
            }
        })
        .collect()
}

fn extrapolate<const N: usize>(
    before: (f64, Start<N>),
    last: (f64, Start<N>),
    heel: f64,
) -> Start<N> {
    let known = last.0 - before.0;
    // From upright the draft starts level: its slope in heel is zero by symmetry.
    let ahead = if known > 0.0 {
        (heel - last.0) / known
    } else {
        0.0
    };
    let (one, two) = (before.1, last.1);
    Start {
        draft: two.draft + (two.draft - one.draft) * ahead,
        slope: two.slope + (two.slope - one.slope) * ahead,
        foundered: two.foundered,
    }
}

/// One body's righting arms up to where water runs in over the rim, and those
/// of the body that has filled from there on. Two curves: nothing is read or
/// drawn across the break between them.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Path {
    /// Arms, m, of the body before anything runs in. Only its part up to
    /// [`Path::fills_at`] means something.
    pub dry: Curve<KNOTS>,
    /// Heel at which the rim meets the water, rad; `None` where nothing fills
    /// before 90°.
    pub fills_at: Option<f64>,
    /// Arms, m, of the body with every recess full; only beyond
    /// [`Path::fills_at`].
    pub full: Option<Curve<KNOTS>>,
}

impl Path {
    /// A path on which nothing runs in.
    #[must_use]
    pub const fn dry(dry: Curve<KNOTS>) -> Self {
        Self {
            dry,
            fills_at: None,
            full: None,
        }
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
    pub fn peak(&self) -> (f64, f64) {
        self.dry.largest(self.end(), |_, gz| gz)
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
