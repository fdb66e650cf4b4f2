//! Where a single body comes to rest when it may heel as well.

use super::equilibrium::{Accuracy, Settled, Start, Weight, settle};
use crate::hull::body::{Body, Outline};
use crate::lanes::Lanes;
use crate::stability::righting::arm;
use thiserror::Error;

/// Why a body has no rest.
#[derive(Debug, Clone, Copy, PartialEq, Error)]
pub enum FloatError {
    /// More than the whole body displaces.
    #[error("too heavy by {by_kg:.1} kg: the whole body displaces less than the load")]
    TooHeavy {
        /// By how much, kg.
        by_kg: f64,
    },
    /// It goes down by an end.
    #[error(
        "no equilibrium: it goes down by the {}", if *by_the_stern { "stern" } else { "bow" }
    )]
    Founders {
        /// Which end.
        by_the_stern: bool,
    },
    /// It does not stop heeling short of 90°.
    #[error("no equilibrium: it capsizes, the righting arm at 90° is {gz_m:.3} m")]
    Capsizes {
        /// Righting arm at 90°, m: negative.
        gz_m: f64,
    },
}

/// A body at rest.
#[derive(Debug, Clone, PartialEq)]
pub struct Rest {
    /// Heel at rest, rad, starboard down positive.
    pub heel: f64,
    /// Draft, trim and integrals there. For a list to port they are those of
    /// the mirrored body: heel, `eta` and `y` change sign.
    pub settled: Settled<1>,
    /// Draft, trim and integrals held upright.
    pub upright: Settled<1>,
}

/// Step of the search for the list, rad.
const STEP: f64 = 2.0 * std::f64::consts::PI / 180.0;

/// Settles `weight` on `outline` upright, or says why it cannot.
///
/// # Errors
/// [`FloatError::TooHeavy`], [`FloatError::Founders`].
pub fn upright(
    body: &Body<1>,
    outline: &Outline<1>,
    weight: &Weight<1>,
    density: f64,
) -> Result<Settled<1>, FloatError> {
    let settled = settle(
        body,
        outline,
        weight,
        density,
        0.0,
        Start::LEVEL,
        Accuracy::FINE,
    );
    let excess = settled.excess_volume.0[0];
    if excess > 0.0 {
        let by_kg = excess * density;
        return Err(FloatError::TooHeavy { by_kg });
    }
    if settled.foundered.0[0] > 0.0 {
        return Err(FloatError::Founders {
            by_the_stern: weight.x.0[0] > body.middle(),
        });
    }
    Ok(settled)
}

/// Finds draft, trim and list of `weight` (kg, m) on `outline`, in water of
/// `density` kg/m³.
///
/// The list is the first heel, from upright towards the heavier side, at which
/// the righting arm turns from negative to positive; a body that is unstable
/// upright lies at its angle of loll, to starboard.
///
/// # Errors
/// [`FloatError`] when there is no rest short of 90°.
pub fn rest(
    body: &Body<1>,
    outline: &Outline<1>,
    weight: &Weight<1>,
    density: f64,
) -> Result<Rest, FloatError> {
    let upright = upright(body, outline, weight, density)?;
    let side = if weight.y.0[0] < 0.0 { -1.0 } else { 1.0 };
    let mirrored = Weight {
        y: weight.y.abs(),
        ..*weight
    };
    let mut start = upright.as_start();
    let mut look = |heel: f64| {
        let settled = settle(
            body,
            outline,
            &mirrored,
            density,
            heel,
            start,
            Accuracy::FINE,
        );
        start = settled.as_start();
        start.foundered = Lanes::ZERO;
        (arm(&settled, &mirrored).0[0], settled)
    };
    let at_rest = |heel: f64, settled: Settled<1>, upright: Settled<1>| Rest {
        heel: side * heel,
        settled,
        upright,
    };
    // A hair off upright tells stable from unstable for a centred weight.
    let (first, _) = look(1e-4);
    if first >= 0.0 && mirrored.y.0[0] == 0.0 {
        return Ok(at_rest(0.0, upright.clone(), upright));
    }
    let mut low = 0.0;
    loop {
        let high: f64 = (low + STEP).min(std::f64::consts::FRAC_PI_2);
        let (gz, _) = look(high);
        if gz >= 0.0 {
            let heel = bisect(low, high, |heel| look(heel).0);
            let settled = look(heel).1;
            return Ok(at_rest(heel, settled, upright));
        }
        if high >= std::f64::consts::FRAC_PI_2 {
            return Err(FloatError::Capsizes { gz_m: gz });
        }
        low = high;
    }
}

/// Root of a function negative at `low` and not at `high`.
fn bisect(mut low: f64, mut high: f64, mut f: impl FnMut(f64) -> f64) -> f64 {
    for _ in 0..44 {
        let middle = 0.5 * (low + high);
        if f(middle) < 0.0 {
            low = middle;
        } else {
            high = middle;
        }
    }
    0.5 * (low + high)
}
