//! What a shape predicts for readings made under way: drift, speed kept up, draining.
//!
//! They say little of a shape, and that little is believed no more than what they hang on
//! beside it: coefficients, effort, the wind met by eye. All are taken by their logarithms,
//! with the guide values' spread.

use super::sampled::{LANES, Sampled};
use crate::base::Lanes;
use crate::body::Shape;
use crate::draining::{Deck, Usual, apart, inlets};
use crate::effort::{PowerCurve, Resistance, WettedHull, efficiency};
use crate::float::{Attitude, Weight};
use crate::guide::{Guide, Guides};
use crate::hull::{Construction, Evidence, FittingKind, FloatReading, Measure, Survey};

/// The logarithm of such a reading and its error.
pub(super) fn readings(survey: &Survey, e: &Evidence, guides: &Guides) -> Vec<(f64, f64)> {
    let (value, sd) = match e.reading {
        FloatReading::Drift { speed, .. } => (speed, Guide::DriftLogSd),
        FloatReading::Speed { speed, .. } => (speed, Guide::SpeedLogSd),
        FloatReading::Drain { seconds } => {
            let noted = survey.fitout.fittings_now();
            let noted = noted
                .iter()
                .any(|f| matches!(f.kind, FittingKind::Scupper { .. }));
            let sd = if noted {
                Guide::DrainLogSd
            } else {
                Guide::DrainGuessLogSd
            };
            (seconds, sd)
        }
        _ => return Vec::new(),
    };
    vec![(value.ln(), guides[sd])]
}

/// The logarithm of what each shape predicts for it; no number where a shape has no answer.
pub(super) fn predict(
    hull: Sampled<'_>,
    (at, weight): (&Attitude<LANES>, &Weight<LANES>),
    e: &Evidence,
) -> [f64; LANES] {
    std::array::from_fn(|i| {
        let shape = &hull.shapes[i];
        let rest = one(at, i);
        let found = match e.reading {
            FloatReading::Drift { wind, shows, .. } => {
                Some(drift(hull, shape, &rest, (wind, shows, e.density)))
            }
            FloatReading::Speed { watts, by, .. } => {
                let wet = WettedHull::of_shape(hull.form, shape, &rest);
                let water = efficiency(by, hull.guides) * watts;
                let resistance = Resistance::new(wet, e.density, hull.guides);
                PowerCurve::of(&resistance, 1.05 * water).speed_at(water)
            }
            FloatReading::Drain { .. } => drain(hull, shape, &lane(weight, i), e),
            _ => None,
        };
        found.filter(|v| *v > 0.0).map_or(f64::NAN, f64::ln)
    })
}

/// One lane of an attitude.
fn one(at: &Attitude<LANES>, i: usize) -> Attitude<1> {
    Attitude {
        heel: at.heel,
        draft: Lanes([at.draft.0[i]]),
        slope: Lanes([at.slope.0[i]]),
    }
}

/// One lane of a weight.
fn lane(weight: &Weight<LANES>, i: usize) -> Weight<1> {
    Weight {
        mass: Lanes([weight.mass.0[i]]),
        x: Lanes([weight.x.0[i]]),
        y: Lanes([weight.y.0[i]]),
        z: Lanes([weight.z.0[i]]),
    }
}

/// Drift beam-on, m/s: the drags of the sides above and below the water balance in the wind
/// felt from the drifting boat, `v = U k / (1 + k)`, `k = √(ρ_a (CA)_a / ρ (CA)_w)`
/// (handbook, chapter 10).
fn drift(
    hull: Sampled<'_>,
    shape: &Shape,
    at: &Attitude<1>,
    (wind, shows, density): (f64, f64, f64),
) -> f64 {
    let (form, guides) = (hull.form, hull.guides);
    let middle = form.bow() + 0.5 * form.length();
    let lines = form.lines(shape);
    let rows: Vec<[f64; 3]> = lines
        .sheer
        .iter()
        .zip(&lines.keel)
        .map(|(&(x, sheer), &(_, keel))| {
            let water = at.water_at(form.bow() + x, middle).0[0];
            let dry = (sheer - water.max(keel)).max(0.0);
            [x, dry, (water.min(sheer) - keel).max(0.0)]
        })
        .collect();
    let (mut above, mut below) = (0.0, 0.0);
    for pair in rows.windows(2) {
        let step = 0.5 * (pair[1][0] - pair[0][0]);
        above += step * (pair[0][1] + pair[1][1]);
        below += step * (pair[0][2] + pair[1][2]);
    }
    if hull.survey.value(Measure::DriveDepth).is_some() {
        below += guides[Guide::DriveArea];
    }
    if hull.survey.tracks_straight {
        below += guides[Guide::RudderArea];
    }
    let air = guides[Guide::AirDrag] * above + shows;
    let water = guides[Guide::SideDrag] * below;
    let k = (guides[Guide::AirDensity] * air / (density * water)).sqrt();
    wind * k / (1.0 + k)
}

/// Seconds from brim-full until the floor is clear; `None` for what has no recess that
/// drains.
fn drain(hull: Sampled<'_>, shape: &Shape, weight: &Weight<1>, e: &Evidence) -> Option<f64> {
    if hull.survey.construction != Construction::SitOnTop {
        return None;
    }
    let body = hull.form.draw(&[*shape]);
    if !body.has_recess() {
        return None;
    }
    let apart = apart(&body);
    let apart = apart.as_ref().map(|[a, b]| [&**a, &**b]);
    let form = (hull.form, shape);
    let all = inlets(hull.survey, form, e.scuppers, Usual::MIDDLE);
    Deck::new(&body, apart, (*weight, e.density), &all, hull.guides).clears()
}
