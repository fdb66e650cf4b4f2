//! What every plausible shape predicts for a measurement.

use super::{Aboard, Datum, Evidence, Reading};
use crate::assess::LANES;
use crate::evaluate::Setup;
use crate::float::{Accuracy, Settled, Start, Weight, further_load, settle};
use crate::hull::body::{Body, Flooded};
use crate::hull::shape::Shape;
use crate::hull::{CapacityBasis, Construction, Measure, draw, estimate};
use crate::lanes::Lanes;
use rayon::prelude::*;

/// Reading error of a tape to moving water, 1 sd, m. Guide value.
const FLOAT_SD: f64 = 0.006;
/// Reading errors of length and beam at the water, 1 sd, m. Guide values.
const WATERLINE_LENGTH_SD: f64 = 0.06;
const WATERLINE_BEAM_SD: f64 = 0.012;
/// Least relative error believed of a tilt test. Guide value.
const TILT_SHARE_SD: f64 = 0.05;
/// How loosely a label follows the wet-floor load: sd of the logarithm. Guide
/// value: makers choose floors so that the label load sits near it.
const LABEL_LOG_SD: f64 = 0.25;
/// A number read, its error, and what every shape of a sample predicts.
pub(super) struct Predicted {
    /// Index of the evidence; `None` for the label.
    pub(super) evidence: Option<usize>,
    pub(super) value: f64,
    pub(super) sd: f64,
    pub(super) predicted: Vec<f64>,
}

impl Predicted {
    /// Mean and sd of the prediction under `weights`.
    fn moments(&self, weights: &[f64]) -> (f64, f64) {
        moments(&self.predicted, weights)
    }

    /// How far the reading lies from what `weights` expect, in sd of both.
    pub(super) fn distance(&self, weights: &[f64]) -> f64 {
        let (mean, sd) = self.moments(weights);
        (self.value - mean).abs() / self.sd.hypot(sd)
    }
}

/// Mean and standard deviation under normalised weights.
pub(super) fn moments(values: &[f64], weights: &[f64]) -> (f64, f64) {
    let mean: f64 = values.iter().zip(weights).map(|(v, w)| v * w).sum();
    let square: f64 = values
        .iter()
        .zip(weights)
        .map(|(v, w)| w * (v - mean).powi(2))
        .sum();
    (mean, square.max(0.0).sqrt())
}

/// Every reading with what each shape predicts, the label's last.
pub(super) fn predict_all(
    setup: &Setup<'_>,
    shapes: &[Shape],
    evidence: &[Evidence],
) -> Vec<Predicted> {
    let mut out: Vec<Predicted> = evidence
        .iter()
        .enumerate()
        .flat_map(|(i, e)| {
            readings(e)
                .into_iter()
                .map(move |(value, sd)| (i, value, sd))
        })
        .map(|(i, value, sd)| Predicted {
            evidence: Some(i),
            value,
            sd,
            predicted: Vec::with_capacity(shapes.len()),
        })
        .collect();
    let label = label(setup);
    out.extend(label.map(|rated| Predicted {
        evidence: None,
        value: rated.ln(),
        sd: LABEL_LOG_SD,
        predicted: Vec::with_capacity(shapes.len()),
    }));
    if out.is_empty() {
        return out;
    }
    let groups: Vec<Vec<[f64; LANES]>> = shapes
        .par_chunks(LANES)
        .map(|group| {
            let lanes: [Shape; LANES] = std::array::from_fn(|i| group[i.min(group.len() - 1)]);
            let body = draw(&setup.frame, &lanes, 1);
            let mut rows = Vec::with_capacity(out.len());
            for e in evidence {
                rows.extend(predict(setup, &lanes, &body, e));
            }
            if label.is_some() {
                rows.push(wet_floor_load(setup, &lanes, &body).map(f64::ln));
            }
            rows
        })
        .collect();
    for (rows, group) in groups.into_iter().zip(shapes.chunks(LANES)) {
        for (p, row) in out.iter_mut().zip(rows) {
            p.predicted.extend(&row[..group.len()]);
        }
    }
    out
}

/// Values and errors of a measurement, in the order [`predict`] predicts them.
fn readings(e: &Evidence) -> Vec<(f64, f64)> {
    match &e.reading {
        Reading::Float { heights, .. } => heights.iter().map(|&(_, h)| (h, FLOAT_SD)).collect(),
        Reading::Waterline { length, beam } => {
            vec![(*length, WATERLINE_LENGTH_SD), (*beam, WATERLINE_BEAM_SD)]
        }
        Reading::Tilt { gm, error } => vec![(*gm, error.max(TILT_SHARE_SD * gm.abs()).max(0.005))],
    }
}

/// The rated capacity, where it says something about the floor.
fn label(setup: &Setup<'_>) -> Option<f64> {
    let scuppered = setup.survey.construction == Construction::SitOnTop;
    let rated = setup.survey.value(Measure::RatedCapacity)?;
    let stated = setup.survey.capacity_basis != CapacityBasis::Unknown;
    (scuppered && stated).then_some(rated)
}

/// Where a hull of these shapes floats with `aboard` in it.
fn afloat(
    setup: &Setup<'_>,
    shapes: &[Shape; LANES],
    body: &Body<LANES>,
    aboard: Aboard,
) -> (Weight<LANES>, Settled<LANES>) {
    let weight = setup.loads.hull_with(
        Lanes::from_fn(|i| shapes[i].hull_mass),
        Weight {
            mass: Lanes::splat(aboard.mass),
            x: Lanes::splat(aboard.place * setup.frame.length),
            y: Lanes::ZERO,
            z: body.standing_height + aboard.height,
        },
    );
    // Tests are done as the hull lies: a sit-on-top with its scuppers open.
    let flooded = match setup.survey.construction {
        Construction::SitOnTop => Flooded::ALL,
        _ => Flooded::NONE,
    };
    let settled = settle(
        body,
        &body.outline(flooded),
        &weight,
        setup.brief.water.density,
        0.0,
        Start::LEVEL,
        Accuracy::SAMPLE,
    );
    (weight, settled)
}

fn predict(
    setup: &Setup<'_>,
    shapes: &[Shape; LANES],
    body: &Body<LANES>,
    e: &Evidence,
) -> Vec<[f64; LANES]> {
    let (weight, settled) = afloat(setup, shapes, body, e.aboard);
    let (at, middle) = (&settled.attitude, body.middle());
    let frame = &setup.frame;
    match &e.reading {
        Reading::Float { datum, heights } => heights
            .iter()
            .map(|&(place, _)| {
                let water = at.water_at(place * frame.length, middle);
                std::array::from_fn(|i| {
                    let line = match datum {
                        Datum::Floor => shapes[i].floor,
                        Datum::Gunwale => estimate::gunwale_at(frame, &shapes[i], place),
                    };
                    line - water.0[i]
                })
            })
            .collect(),
        Reading::Waterline { .. } => {
            let (bow, stern) = (at.water_at(0.0, middle), at.water_at(frame.length, middle));
            let length = std::array::from_fn(|i| {
                let reach = |depth: f64, rise: f64| {
                    // Keel rises as r|u|³: the water leaves it where r|u|³ = depth.
                    let share = (depth.max(0.0) / rise.max(1e-3)).cbrt().min(1.0);
                    0.5 * frame.length * share
                };
                reach(bow.0[i], shapes[i].bow_rise) + reach(stern.0[i], shapes[i].stern_rise)
            });
            let beam = std::array::from_fn(|i| estimate::beam_at(frame, &shapes[i], at.draft.0[i]));
            vec![length, beam]
        }
        Reading::Tilt { .. } => {
            let im = &settled.immersion;
            let gm = im.zeta_moment / im.volume.max(Lanes::splat(1e-9)) + im.metacentric_radius()
                - weight.z;
            vec![gm.0]
        }
    }
}

/// Load at the seat that brings the floor level with the water, kg.
fn wet_floor_load(setup: &Setup<'_>, shapes: &[Shape; LANES], body: &Body<LANES>) -> [f64; LANES] {
    let load = Weight {
        mass: Lanes::ZERO,
        x: Lanes::splat(setup.loads.crew_place(crate::load::Carriage::Seated)),
        y: Lanes::ZERO,
        z: body.standing_height + 0.25,
    };
    let hull = setup
        .loads
        .hull_with(Lanes::from_fn(|i| shapes[i].hull_mass), load);
    let density = setup.brief.water.density;
    further_load(body, &body.solid, &body.floor, 0.0, &hull, &load, density)
        .map_or([1.0; LANES], |load| load.0.map(|kg| kg.max(1.0)))
}
