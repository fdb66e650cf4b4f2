//! The tilt (inclining) test: a known mass moved a known way sideways, the
//! heel read from a level or a phone.
//!
//! `m d = Δ GM tan φ` (any naval architecture text, e.g. Tupper, "Introduction
//! to Naval Architecture", the inclining experiment): a line through the shifts
//! has the slope `Δ GM`. The line is fitted with its own zero, since the hull
//! may list and the level may be off.

use crate::base::{Bounds, Dimension, OutOfRange};
use thiserror::Error;

/// One shift and the heel it made.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Shift {
    /// Mass moved, kg.
    pub mass: f64,
    /// Distance moved, m, to starboard positive.
    pub distance: f64,
    /// Heel read, degrees, to starboard positive.
    pub heel_deg: f64,
}

/// What a tilt test gives.
#[derive(Debug, Clone, PartialEq)]
pub struct Tilt {
    /// Metacentric height, m.
    pub gm: f64,
    /// Its standard error, m.
    pub error: f64,
    /// Heel at no shift, degrees: a list, or a level not set to zero.
    pub zero_deg: f64,
    /// Each reading: the moment moved over g, kg·m, and the heel it made, °, the list
    /// taken off.
    pub readings: Vec<(f64, f64)>,
    /// What may be wrong with the readings, in plain words.
    pub remarks: Vec<&'static str>,
}

/// Why a tilt test gives nothing.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum TiltError {
    /// Too few shifts for a line with a scatter.
    #[error("{0} shifts; a tilt test needs at least three, better five, some to each side")]
    TooFew(usize),
    /// A number out of range.
    #[error(transparent)]
    OutOfRange(#[from] OutOfRange),
    /// All shifts the same.
    #[error("the shifts are all the same: move the mass to both sides and by different ways")]
    NoSpread,
    /// Heel against the shift, or no heel.
    #[error(
        "the hull heels the other way, or not at all: check which side counts as positive, and that no line or bank holds it"
    )]
    WrongWay,
    /// Scatter as large as the effect.
    #[error(
        "the readings scatter too much to tell anything (GM {gm:.2} ± {error:.2} m): wait until the hull lies still, and read again"
    )]
    Scatter {
        /// What the line gives, m.
        gm: f64,
        /// Its standard error, m.
        error: f64,
    },
}

/// Accepted masses moved, kg, distances, m, and heels, degrees.
const MASS: Bounds = Bounds::new("the mass moved", Dimension::Mass, 0.5, 150.0);
const DISTANCE: Bounds = Bounds::new("the way moved", Dimension::ShortLength, -1.5, 1.5);
const HEEL: Bounds = Bounds::new("the heel", Dimension::Angle, -25.0, 25.0);
/// Masses afloat, kg.
const AFLOAT: Bounds = Bounds::new("the mass afloat", Dimension::Mass, 10.0, 800.0);
/// Largest heel below this, degrees, is too small to read well; above the
/// other the hull is no longer wall-sided. Guide values.
const SMALL_DEG: f64 = 1.0;
const LARGE_DEG: f64 = 10.0;
/// A zero beyond this, degrees, is worth a word.
const ZERO_DEG: f64 = 1.0;

/// Reduces the shifts of a test with `afloat` kg in the water in all.
///
/// # Errors
/// [`TiltError`] that says what to do about it.
pub fn reduce(shifts: &[Shift], afloat: f64) -> Result<Tilt, TiltError> {
    AFLOAT.check(afloat)?;
    if shifts.len() < 3 {
        return Err(TiltError::TooFew(shifts.len()));
    }
    for shift in shifts {
        MASS.check(shift.mass)?;
        DISTANCE.check(shift.distance)?;
        HEEL.check(shift.heel_deg)?;
    }
    let count = shifts.len() as f64;
    let points: Vec<(f64, f64)> = shifts
        .iter()
        .map(|s| (s.mass * s.distance, s.heel_deg.to_radians().tan()))
        .collect();
    let mean = |f: fn(&(f64, f64)) -> f64| points.iter().map(f).sum::<f64>() / count;
    let (mean_x, mean_y) = (mean(|p| p.0), mean(|p| p.1));
    let spread: f64 = points.iter().map(|p| (p.0 - mean_x).powi(2)).sum();
    let joint: f64 = points.iter().map(|p| (p.0 - mean_x) * (p.1 - mean_y)).sum();
    if spread < 1e-9 {
        return Err(TiltError::NoSpread);
    }
    // Heel over moment: the moments are known well, the heels carry the error.
    let slope = joint / spread;
    if slope <= 0.0 {
        return Err(TiltError::WrongWay);
    }
    let left: Vec<f64> = points
        .iter()
        .map(|p| p.1 - mean_y - slope * (p.0 - mean_x))
        .collect();
    let square: f64 = left.iter().map(|r| r * r).sum();
    let slope_error = (square / (count - 2.0).max(1.0) / spread).sqrt();
    let gm = 1.0 / (afloat * slope);
    let error = gm * slope_error / slope;
    if error > 0.5 * gm {
        return Err(TiltError::Scatter { gm, error });
    }
    let zero_deg = (mean_y - slope * mean_x).atan().to_degrees();
    Ok(Tilt {
        gm,
        error,
        zero_deg,
        readings: shifts
            .iter()
            .map(|s| (s.mass * s.distance, s.heel_deg - zero_deg))
            .collect(),
        remarks: remarks(shifts, &points, &left, zero_deg, error / gm),
    })
}

fn remarks(
    shifts: &[Shift],
    points: &[(f64, f64)],
    left: &[f64],
    zero_deg: f64,
    share: f64,
) -> Vec<&'static str> {
    let largest = shifts.iter().map(|s| s.heel_deg.abs()).fold(0.0, f64::max);
    let mut out = Vec::new();
    if largest < SMALL_DEG {
        out.push("the angles are very small: move more mass, or further, so that the level reads a few degrees");
    }
    if largest > LARGE_DEG {
        out.push("the angles are large: the sides are not straight that far, move less");
    }
    let one_sided = points.iter().all(|p| p.0 >= 0.0) || points.iter().all(|p| p.0 <= 0.0);
    if one_sided {
        out.push("all shifts went to one side: go to the other as well, so that a list cancels");
    }
    if zero_deg.abs() > ZERO_DEG {
        out.push("the hull lists, or the level is not set to zero");
    }
    // Water running to the low side heels it further the more it heels: the
    // outer readings lie beyond the line of the inner ones, on both sides.
    let outer = points.iter().zip(left).filter(|(p, _)| {
        let most = points.iter().map(|q| q.0.abs()).fold(0.0, f64::max);
        p.0.abs() > 0.7 * most
    });
    let beyond: Vec<f64> = outer.map(|(p, r)| r * p.0.signum()).collect();
    let noise = 0.1_f64.to_radians();
    if !beyond.is_empty() && beyond.iter().all(|b| *b > noise) {
        out.push("the heel grows faster than the shift: water moving in the bilge? drain it and read again");
    }
    if !beyond.is_empty() && beyond.iter().all(|b| *b < -noise) {
        out.push("the heel grows slower than the shift: are mooring lines tight, or does the bottom touch?");
    }
    if share > 0.15 {
        out.push("the readings scatter: wait until the hull lies still, out of wind and wash");
    }
    out
}

#[cfg(test)]
mod tests {
    use super::*;
    use approx::assert_relative_eq;

    /// Readings of a hull with `gm`, list and a wobble of the level.
    fn readings(gm: f64, afloat: f64, list_deg: f64, wobble: f64) -> Vec<Shift> {
        [-0.3, -0.15, 0.0, 0.15, 0.3]
            .iter()
            .enumerate()
            .map(|(i, &distance)| {
                let moment = 15.0 * distance;
                let tan = moment / (afloat * gm) + list_deg.to_radians().tan();
                let noise = wobble * [0.6, -1.0, 0.3, 0.9, -0.7][i];
                Shift {
                    mass: 15.0,
                    distance,
                    heel_deg: tan.atan().to_degrees() + noise,
                }
            })
            .collect()
    }

    #[test]
    fn clean_readings_give_the_metacentric_height_back() {
        let tilt = reduce(&readings(0.28, 150.0, 0.0, 0.0), 150.0).unwrap();
        assert_relative_eq!(tilt.gm, 0.28, max_relative = 1e-9);
        assert!(tilt.error < 1e-9 && tilt.remarks.is_empty(), "{tilt:?}");
    }

    #[test]
    fn a_list_cancels_and_is_reported() {
        let tilt = reduce(&readings(0.28, 150.0, 2.0, 0.0), 150.0).unwrap();
        assert_relative_eq!(tilt.gm, 0.28, max_relative = 1e-9);
        assert_relative_eq!(tilt.zero_deg, 2.0, epsilon = 1e-9);
        assert!(tilt.remarks.iter().any(|r| r.contains("lists")), "{tilt:?}");
    }

    #[test]
    fn scatter_becomes_a_standard_error_that_covers_the_truth() {
        let tilt = reduce(&readings(0.28, 150.0, 0.0, 0.4), 150.0).unwrap();
        assert!(tilt.error > 0.005, "{tilt:?}");
        assert!((tilt.gm - 0.28).abs() < 3.0 * tilt.error, "{tilt:?}");
    }

    #[test]
    fn nonsense_is_refused_with_advice() {
        let good = readings(0.28, 150.0, 0.0, 0.0);
        let say = |shifts: &[Shift]| reduce(shifts, 150.0).unwrap_err().to_string();
        assert!(say(&good[..2]).contains("at least three"));
        let mut turned = good.clone();
        turned.iter_mut().for_each(|s| s.heel_deg = -s.heel_deg);
        assert!(say(&turned).contains("the other way"));
        let mut same = good.clone();
        same.iter_mut().for_each(|s| s.distance = 0.2);
        assert!(say(&same).contains("all the same"));
        let mut wild = good.clone();
        for (shift, heel) in wild.iter_mut().zip([3.0, -9.0, 8.0, -2.0, 5.0]) {
            shift.heel_deg = heel;
        }
        assert!(say(&wild).contains("scatter"), "{}", say(&wild));
        let mut broken = good;
        broken[0].heel_deg = f64::NAN;
        assert!(say(&broken).contains("the heel must lie between"));
    }

    #[test]
    fn what_bends_the_line_is_named() {
        let bent = |bend: f64| -> Vec<Shift> {
            let mut shifts = readings(0.28, 150.0, 0.0, 0.0);
            for s in &mut shifts {
                s.heel_deg += bend * s.heel_deg.powi(3);
            }
            shifts
        };
        let remarks = |bend| reduce(&bent(bend), 150.0).unwrap().remarks.join("; ");
        assert!(remarks(0.02).contains("bilge"), "{}", remarks(0.02));
        assert!(
            remarks(-0.008).contains("mooring lines"),
            "{}",
            remarks(-0.008)
        );
    }
}
