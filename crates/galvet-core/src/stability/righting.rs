//! Righting arms at heel, with free trim, and with the water coming in.

use crate::float::{Accuracy, Attitude, Settled, Start, Weight, clearance, settle};
use crate::hull::{Body, Flooded};
use crate::lanes::Lanes;

/// Heel angles of a ranking's righting curve, degrees; the first is upright.
pub const HEELS_DEG: [f64; 9] = [0.0, 5.0, 10.0, 15.0, 20.0, 30.0, 40.0, 60.0, 90.0];

/// How water gets in, and what stands open to it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub struct Flooding {
    /// Recesses that stand open from below at every angle.
    pub open: Flooded,
    /// Whether a gunwale going under fills the recesses that are still dry.
    pub over_the_rim: bool,
}

/// One place on a righting curve.
#[derive(Debug, Clone)]
pub struct Arm<const N: usize> {
    /// Heel, rad.
    pub heel: f64,
    /// Righting arm GZ, m: positive pushes back up.
    pub gz: Lanes<N>,
    /// How it lies.
    pub attitude: Attitude<N>,
    /// Least height of the cockpit floor's edge over the water, m (infinite
    /// where there is no floor).
    pub floor: Lanes<N>,
    /// Least height of the gunwale over the water, m, before any flooding.
    pub gunwale: Lanes<N>,
    /// Least height of the rim of the recesses over the water, m, before any
    /// flooding; infinite where nothing fills over it.
    pub rim: Lanes<N>,
    /// 1 in lanes whose recess has filled over the rim.
    pub swamped: Lanes<N>,
}

/// Righting arm of a settled body: `eta_B - eta_G`, the horizontal distance by
/// which the buoyancy lies to the low side of the weight. Exact with trim,
/// since the transverse horizontal of the heeled section is horizontal.
#[must_use]
pub fn arm<const N: usize>(settled: &Settled<N>, weight: &Weight<N>) -> Lanes<N> {
    let (sin, cos) = settled.attitude.heel.sin_cos();
    let eta_g = weight.y * cos + weight.z * sin;
    let volume = settled.immersion.volume.max(Lanes::splat(1e-9));
    settled.immersion.eta_moment / volume - eta_g
}

/// Righting arms of `body` under `weight` at each of `heels` (rad, rising from
/// 0), starting from the upright equilibrium `upright`.
#[must_use]
pub fn righting<const N: usize>(
    body: &Body<N>,
    weight: &Weight<N>,
    density: f64,
    flooding: Flooding,
    upright: &Settled<N>,
    heels: &[f64],
    accuracy: Accuracy,
) -> Vec<Arm<N>> {
    let dry = body.outline(flooding.open);
    let mut arms: Vec<Arm<N>> = Vec::with_capacity(heels.len());
    // Attitudes of the last two angles, to guess the next from.
    let mut last = (0.0, upright.as_start());
    let mut before = last;
    for &heel in heels {
        let guess = extrapolate(before, last, heel);
        let intact = if heel == 0.0 {
            upright.clone()
        } else {
            settle(body, &dry, weight, density, heel, guess, accuracy)
        };
        before = last;
        last = (heel, intact.as_start());
        let middle = body.middle();
        let gunwale = clearance(&body.gunwale, middle, &intact.attitude);
        let mut out = Arm {
            heel,
            gz: arm(&intact, weight),
            attitude: intact.attitude,
            floor: clearance(&body.floor, middle, &intact.attitude),
            gunwale,
            rim: Lanes::splat(f64::INFINITY),
            swamped: Lanes::ZERO,
        };
        if flooding.over_the_rim && body.has_recess() {
            let earlier = arms.last().map_or(Lanes::ZERO, |a| a.swamped);
            let rim = clearance(&body.rim, middle, &intact.attitude);
            out.rim = rim;
            let swamped = rim.is_negative().max(earlier);
            if swamped.max_lane() > 0.0 {
                let from = intact.as_start();
                swamp(body, weight, density, accuracy, swamped, from, &mut out);
            }
        }
        arms.push(out);
    }
    arms
}

/// Replaces the swamped lanes by the body with every recess full.
fn swamp<const N: usize>(
    body: &Body<N>,
    weight: &Weight<N>,
    density: f64,
    accuracy: Accuracy,
    swamped: Lanes<N>,
    from: Start<N>,
    out: &mut Arm<N>,
) {
    let full = settle(body, &body.solid, weight, density, out.heel, from, accuracy);
    let pick = |full: Lanes<N>, dry: Lanes<N>| (-swamped).where_negative(full, dry);
    out.gz = pick(arm(&full, weight), out.gz);
    out.attitude.draft = pick(full.attitude.draft, out.attitude.draft);
    out.attitude.slope = pick(full.attitude.slope, out.attitude.slope);
    out.swamped = swamped;
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
