//! One shape's righting arms as curves, cut where water runs in.

use crate::base::Lanes;
use crate::stability::{Arm, Curve, KNOTS, Path, first_under};

/// Righting arms of a seated case: of the body as it lies, of the sealed one,
/// and of the one that has filled.
pub struct Seated<const N: usize> {
    /// On the body as its scuppers leave it open.
    pub lasting: Vec<Arm<N>>,
    /// On the sealed body; `None` where it is the same.
    pub brief: Option<Vec<Arm<N>>>,
    /// With every recess full; `None` where nothing fills over a rim.
    pub full: Option<Vec<Arm<N>>>,
}

/// The righting paths of one shape, and its watched lines over heel.
pub(super) struct Lane {
    pub(super) gm: f64,
    pub(super) lasting: Path,
    pub(super) brief: Path,
    pub(super) floor: Curve<KNOTS>,
    pub(super) gunwale: Curve<KNOTS>,
}

impl Lane {
    pub(super) fn of<const N: usize>(
        arms: &Seated<N>,
        heels: &[f64; KNOTS],
        gm: f64,
        i: usize,
    ) -> Self {
        let gz = |arms: &[Arm<N>], gm: f64| {
            let knots = std::array::from_fn(|k| arms[k].gz.0[i]);
            Curve::through(*heels, whole(knots, 0.0), gm)
        };
        let line = |arms: &[Arm<N>], of: fn(&Arm<N>) -> Lanes<N>| {
            let knots = std::array::from_fn(|k| of(&arms[k]).0[i]);
            falling(*heels, whole(knots, UNDER))
        };
        let lasting = gz(&arms.lasting, gm);
        let rim = |arms: &[Arm<N>]| first_under(&line(arms, |a| a.rim));
        let full = arms.full.as_ref().map(|full| gz(full, 0.0));
        let lasting = Path::new(lasting, full.and_then(|_| rim(&arms.lasting)), full);
        // A floor that is wet at rest holds water of its own, which runs to the
        // low side: never more than the open body takes in.
        let wet = arms.lasting[0].sill.0[i] <= 0.0;
        let brief = match &arms.brief {
            Some(sealed) if !wet => Path::new(gz(sealed, gm), rim(sealed), None),
            _ => lasting,
        };
        Self {
            gm,
            lasting,
            brief,
            floor: line(&arms.lasting, |a| a.floor),
            gunwale: line(&arms.lasting, |a| a.gunwale),
        }
    }
}

/// A watched line of a body that finds no trim at a heel lies under there, m.
const UNDER: f64 = -0.01;

/// Knots with everything from the first that is no number on replaced: past
/// what it can float at, a body has no arm.
fn whole(mut knots: [f64; KNOTS], beyond: f64) -> [f64; KNOTS] {
    if let Some(lost) = knots.iter().position(|v| v.is_nan()) {
        knots[lost..].fill(beyond);
    }
    // A line a body does not have is infinitely far from the water.
    knots.map(|v| v.min(1e3))
}

/// A clearance over heel: its first slope is that of its first knots.
pub(super) fn falling<const K: usize>(heels: [f64; K], value: [f64; K]) -> Curve<K> {
    let slope = (value[1] - value[0]) / (heels[1] - heels[0]);
    Curve::through(heels, value, slope)
}
