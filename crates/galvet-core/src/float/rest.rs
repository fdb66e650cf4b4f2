//! What becomes of a single body that may heel as well.

use super::equilibrium::{Accuracy, Settled, Start, settle};
use super::fate::Fate;
use super::immersion::{arm, clearance, metacentric_height};
use super::weight::Weight;
use crate::base::Lanes;
use crate::body::{Body, Outline};
use roots::{SimpleConvergency, find_root_brent};
use std::f64::consts::FRAC_PI_2;

/// A single body under its load.
#[derive(Debug, Clone, PartialEq)]
pub struct Rest {
    /// What becomes of it.
    pub fate: Fate,
    /// Draft, trim and integrals held upright; `None` where it founders or
    /// sinks.
    pub upright: Option<Settled<1>>,
    /// Draft, trim and integrals where it rests or lolls, heeled. For a list to
    /// port they are those of the mirrored body: heel, `eta` and `y` change
    /// sign.
    pub settled: Option<Settled<1>>,
    /// Heel at rest, rad, starboard down positive.
    pub heel: f64,
}

/// Step of the search for the list, rad.
const STEP: f64 = 2.0 * std::f64::consts::PI / 180.0;
/// A hair off upright: tells stable from unstable for a centred weight, rad.
const HAIR: f64 = 1e-4;

/// A body held at a row of heels.
struct Heeling<'a> {
    body: &'a Body<1>,
    outline: &'a Outline<1>,
    weight: Weight<1>,
    density: f64,
    start: Start<1>,
}

impl Heeling<'_> {
    /// Settles at `heel`; `None` where it finds no trim there.
    fn at(&mut self, heel: f64) -> Option<Settled<1>> {
        let (body, outline) = (self.body, self.outline);
        let settled = settle(
            body,
            outline,
            &self.weight,
            self.density,
            heel,
            self.start,
            Accuracy::FINE,
        );
        settled.rests(0).then(|| {
            self.start = settled.as_start();
            settled
        })
    }

    fn arm(&mut self, heel: f64) -> Option<f64> {
        let weight = self.weight;
        self.at(heel)
            .map(|s| arm(&s.attitude, &s.immersion, &weight).0[0])
    }

    fn root(&mut self, low: f64, high: f64, f: impl Fn(&mut Self, f64) -> f64) -> f64 {
        let mut close = SimpleConvergency {
            eps: 1e-12,
            max_iter: 80,
        };
        find_root_brent(low, high, |x| f(self, x), &mut close).unwrap_or(high)
    }
}

/// Heel at which the rim first meets the water, rad; `None` when it does not
/// before 90°. `outline` floats before anything runs in.
#[must_use]
pub fn rim_angle(
    body: &Body<1>,
    outline: &Outline<1>,
    weight: &Weight<1>,
    density: f64,
) -> Option<f64> {
    if body.rim.is_empty() {
        return None;
    }
    let mut heeling = Heeling {
        body,
        outline,
        weight: *weight,
        density,
        start: Start::LEVEL,
    };
    let dry = |h: &mut Heeling<'_>, heel: f64| {
        let settled = h.at(heel);
        settled.map_or(-1.0, |s| {
            clearance(&body.rim, body.middle(), &s.attitude).0[0]
        })
    };
    if dry(&mut heeling, 0.0) < 0.0 {
        return Some(0.0);
    }
    let mut low = 0.0;
    while low < FRAC_PI_2 {
        let high = f64::min(low + STEP, FRAC_PI_2);
        if dry(&mut heeling, high) < 0.0 {
            return Some(heeling.root(low, high, dry));
        }
        low = high;
    }
    None
}

/// What becomes of `weight` (kg, m) on `outline`, in water of `density` kg/m³;
/// water runs in over the rim where `fills`.
///
/// The list is the first heel, from upright towards the heavier side, at which
/// the righting arm turns from negative to positive; a body unstable upright
/// lies at its angle of loll, to starboard.
#[must_use]
pub fn rest(
    body: &Body<1>,
    outline: &Outline<1>,
    weight: &Weight<1>,
    density: f64,
    fills: bool,
) -> Rest {
    let mirrored = Weight {
        y: weight.y.abs(),
        ..*weight
    };
    let side = if weight.y.0[0] < 0.0 { -1.0 } else { 1.0 };
    let upright = settle(
        body,
        outline,
        &mirrored,
        density,
        0.0,
        Start::LEVEL,
        Accuracy::FINE,
    );
    let lost = |fate| Rest {
        fate,
        upright: None,
        settled: None,
        heel: 0.0,
    };
    let excess = upright.excess_volume.0[0];
    if excess > 0.0 {
        return lost(Fate::Sinks {
            by: excess * density,
        });
    }
    if !upright.rests(0) {
        return lost(Fate::Founders {
            by_the_stern: weight.x.0[0] > body.middle(),
        });
    }
    let rim = if fills {
        rim_angle(body, outline, &mirrored, density)
    } else {
        None
    };
    let mut out = Rest {
        fate: Fate::Rests { list: 0.0 },
        settled: None,
        heel: 0.0,
        upright: Some(upright.clone()),
    };
    if rim == Some(0.0) {
        let by = -clearance(&body.rim, body.middle(), &upright.attitude).0[0];
        out.fate = Fate::Swamps { by };
        return out;
    }
    let missing = (-metacentric_height(&upright.immersion, &mirrored).0[0]).max(0.0);
    let mut heeling = Heeling {
        body,
        outline,
        weight: mirrored,
        density,
        start: upright.as_start(),
    };
    let centred = mirrored.y.0[0] == 0.0;
    if centred && heeling.arm(HAIR).is_some_and(|gz| gz >= 0.0) {
        out.settled = Some(upright);
        return out;
    }
    let last = rim.unwrap_or(FRAC_PI_2);
    let (mut low, mut best) = (if centred { HAIR } else { 0.0 }, f64::NEG_INFINITY);
    while low < last {
        let high = (low + STEP).min(last);
        let Some(gz) = heeling.arm(high) else { break };
        best = best.max(gz);
        if gz >= 0.0 {
            let heel = heeling.root(low, high, |h, x| h.arm(x).unwrap_or(0.0));
            out.settled = heeling.at(heel);
            out.heel = side * heel;
            out.fate = if missing > 0.0 {
                Fate::Lolls {
                    angle: heel,
                    missing,
                }
            } else {
                Fate::Rests { list: heel }
            };
            return out;
        }
        low = high;
    }
    out.fate = Fate::Capsizes {
        missing,
        outside: if centred { 0.0 } else { (-best).max(0.0) },
    };
    out
}

/// The heaviest share of `load` (kg, m), put on a hull of its own weight, with
/// which the whole still finds a rest upright; in 0-1. One lane.
#[must_use]
pub fn bearable_share(
    body: &Body<1>,
    outline: &Outline<1>,
    hull: &Weight<1>,
    load: &Weight<1>,
    density: f64,
) -> f64 {
    const HALVINGS: u32 = 12;
    /// Newton alone, to grams; a failure counts as foundering.
    const QUICK: Accuracy = Accuracy {
        relative: 1e-6,
        halvings: 0,
        carried: None,
        limit: Accuracy::SAMPLE.limit,
    };
    let floats = |share: f64| {
        let mass = load.mass * share;
        let whole = hull.mass + mass;
        let blend = |h: Lanes<1>, l: Lanes<1>| (h * hull.mass + l * mass) / whole;
        let weight = Weight {
            mass: whole,
            x: blend(hull.x, load.x),
            y: blend(hull.y, load.y),
            z: blend(hull.z, load.z),
        };
        settle(body, outline, &weight, density, 0.0, Start::LEVEL, QUICK).rests(0)
    };
    if floats(1.0) {
        return 1.0;
    }
    let (mut low, mut high) = (0.0, 1.0);
    for _ in 0..HALVINGS {
        let middle = 0.5 * (low + high);
        if floats(middle) {
            low = middle;
        } else {
            high = middle;
        }
    }
    low
}
