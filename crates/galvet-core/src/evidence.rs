//! What was measured afloat, and what it says about a hull's shape.
//!
//! Each measurement predicts a number for every plausible shape; shapes that
//! predict it well gain weight (importance sampling, normal reading errors).
//! Where too few shapes are left with weight, the sample is moved to where the
//! weight is and weighed anew against prior and proposal (population Monte
//! Carlo: Cappé, Guillin, Marin, Robert, 2004).

use crate::assess::LANES;
use crate::evaluate::Setup;
use crate::float::{Accuracy, Settled, Start, Weight, further_load, settle};
use crate::hull::body::{Body, Flooded};
use crate::hull::shape::{DIMENSIONS, Shape};
use crate::hull::{CapacityBasis, Construction, Measure, draw, estimate};
use crate::lanes::Lanes;
use crate::sample;
use crate::units::{Bounds, Dimension, OutOfRange};
use rayon::prelude::*;

/// What lay aboard besides the hull itself while it was measured.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Aboard {
    /// Mass, kg.
    pub mass: f64,
    /// Its centre's place from the bow, share of the length.
    pub place: f64,
    /// Its centre above the cockpit floor, m.
    pub height: f64,
}

/// What the tape was held against.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Datum {
    /// The cockpit floor.
    Floor,
    /// The gunwale.
    Gunwale,
}

/// One measurement afloat.
#[derive(Debug, Clone, PartialEq)]
pub enum Reading {
    /// Height of floor or gunwale over the water at places along the hull
    /// (share of the length, m), three by custom.
    Float {
        /// From what.
        datum: Datum,
        /// Places and heights.
        heights: Vec<(f64, f64)>,
    },
    /// Length and beam at the water, m.
    Waterline {
        /// Length at the water.
        length: f64,
        /// Beam at the water amidships.
        beam: f64,
    },
    /// Metacentric height from a tilt test, m, with its standard error.
    Tilt {
        /// GM with the crew and kit aboard as given.
        gm: f64,
        /// Standard error.
        error: f64,
    },
}

/// A measurement with what lay aboard.
#[derive(Debug, Clone, PartialEq)]
pub struct Evidence {
    /// The load.
    pub aboard: Aboard,
    /// The reading.
    pub reading: Reading,
}

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
/// Share of the sample that must be effective; below it is moved.
const ENOUGH: f64 = 0.25;
/// Times the sample is moved at most.
const MOVES: usize = 4;
/// A reading further than this from what is expected disagrees, in sd.
const DISAGREES: f64 = 3.0;

impl Evidence {
    /// Accepted masses aboard, kg.
    pub const MASS: Bounds = Bounds::new("the mass aboard", Dimension::Mass, 0.0, 400.0);
    /// Accepted places.
    pub const PLACE: Bounds = Bounds::new("the place along the hull", Dimension::Ratio, 0.0, 1.0);
    /// Accepted heights, m.
    pub const HEIGHT: Bounds = Bounds::new("a height", Dimension::FineLength, -0.5, 1.5);
    /// Accepted dimensions at the water, m.
    pub const WATERLINE: Bounds = Bounds::new("a waterline dimension", Dimension::Length, 0.2, 8.0);
    /// Accepted metacentric heights, m.
    pub const GM: Bounds = Bounds::new("GM", Dimension::ShortLength, -1.0, 2.0);

    /// Checks every number.
    ///
    /// # Errors
    /// The first [`OutOfRange`] met.
    pub fn check(self) -> Result<Self, OutOfRange> {
        Self::MASS.check(self.aboard.mass)?;
        Self::PLACE.check(self.aboard.place)?;
        Self::HEIGHT.check(self.aboard.height)?;
        match &self.reading {
            Reading::Float { heights, .. } => {
                for &(place, height) in heights {
                    Self::PLACE.check(place)?;
                    Self::HEIGHT.check(height)?;
                }
            }
            Reading::Waterline { length, beam } => {
                Self::WATERLINE.check(*length)?;
                Self::WATERLINE.check(*beam)?;
            }
            Reading::Tilt { gm, error } => {
                Self::GM.check(*gm)?;
                Bounds::new("the standard error of GM", Dimension::ShortLength, 0.0, 1.0)
                    .check(*error)?;
            }
        }
        Ok(self)
    }

    /// Its name in sentences.
    #[must_use]
    pub const fn name(&self) -> &'static str {
        match self.reading {
            Reading::Float { .. } => "the float test",
            Reading::Waterline { .. } => "the waterline test",
            Reading::Tilt { .. } => "the tilt test",
        }
    }
}

/// A number read, its error, and what every shape of a sample predicts.
struct Predicted {
    /// Index of the evidence; `None` for the label.
    evidence: Option<usize>,
    value: f64,
    sd: f64,
    predicted: Vec<f64>,
}

impl Predicted {
    /// Mean and sd of the prediction under `weights`.
    fn moments(&self, weights: &[f64]) -> (f64, f64) {
        moments(&self.predicted, weights)
    }

    /// How far the reading lies from what `weights` expect, in sd of both.
    fn distance(&self, weights: &[f64]) -> f64 {
        let (mean, sd) = self.moments(weights);
        (self.value - mean).abs() / self.sd.hypot(sd)
    }
}

/// Mean and standard deviation under normalised weights.
fn moments(values: &[f64], weights: &[f64]) -> (f64, f64) {
    let mean: f64 = values.iter().zip(weights).map(|(v, w)| v * w).sum();
    let square: f64 = values
        .iter()
        .zip(weights)
        .map(|(v, w)| w * (v - mean).powi(2))
        .sum();
    (mean, square.max(0.0).sqrt())
}

/// A sample of shapes with weights that sum to one.
#[derive(Debug, Clone, PartialEq)]
pub struct Weighed {
    /// Standard-normal coordinates of each shape.
    pub normals: Vec<[f64; DIMENSIONS]>,
    /// The shapes.
    pub shapes: Vec<Shape>,
    /// Their weights.
    pub weights: Vec<f64>,
    /// Which measurements disagree, in plain words.
    pub disagreements: Vec<String>,
}

/// Effective sample size `(Σw)²/Σw²` (Kish).
#[must_use]
pub fn effective_size(weights: &[f64]) -> f64 {
    let (sum, square) = weights
        .iter()
        .fold((0.0, 0.0), |(s, q), w| (s + w, q + w * w));
    if square > 0.0 {
        sum * sum / square
    } else {
        0.0
    }
}

/// Weighs a hull's plausible shapes by its label and by `evidence`.
#[must_use]
pub fn weigh(setup: &Setup<'_>, evidence: &[Evidence], size: usize) -> Weighed {
    let standard = sample::normals(&setup.survey.key, size);
    let mut normals = standard.clone();
    let mut shapes: Vec<Shape> = normals.iter().map(|n| setup.prior.shape(n)).collect();
    let mut predicted = predict_all(setup, &shapes, evidence);
    // Log of prior over proposal, 0 while they are the same.
    let mut ratio = vec![0.0; size];
    let mut weights = weights_of(&predicted, &ratio, 1.0);
    let disagreements = disagreements(setup, evidence, &predicted, size);
    for _ in 0..MOVES {
        if effective_size(&weights) >= ENOUGH * size as f64 {
            break;
        }
        // A flatter likelihood keeps the move from resting on one shape.
        let gentle = tempered(&predicted, &ratio, 0.1 * size as f64);
        let (mean, sd) = centre(&normals, &gentle);
        for (i, point) in standard.iter().enumerate() {
            normals[i] = std::array::from_fn(|j| mean[j] + sd[j] * point[j]);
            ratio[i] = (0..DIMENSIONS)
                .map(|j| 0.5 * (point[j].powi(2) - normals[i][j].powi(2)) + sd[j].ln())
                .sum();
        }
        shapes = normals.iter().map(|n| setup.prior.shape(n)).collect();
        predicted = predict_all(setup, &shapes, evidence);
        weights = weights_of(&predicted, &ratio, 1.0);
    }
    Weighed {
        normals,
        shapes,
        weights,
        disagreements,
    }
}

/// Mean and sd of every coordinate under weights, never narrower than a tenth.
fn centre(
    normals: &[[f64; DIMENSIONS]],
    weights: &[f64],
) -> ([f64; DIMENSIONS], [f64; DIMENSIONS]) {
    let mut mean = [0.0; DIMENSIONS];
    let mut sd = [1.0; DIMENSIONS];
    for j in 0..DIMENSIONS {
        let column: Vec<f64> = normals.iter().map(|n| n[j]).collect();
        let (m, s) = moments(&column, weights);
        mean[j] = m;
        // A little wider than it looks: the tails must be covered.
        sd[j] = (1.2 * s).clamp(0.1, 1.2);
    }
    (mean, sd)
}

/// Normalised weights of prior ratio times likelihood to the power `heat`.
fn weights_of(predicted: &[Predicted], ratio: &[f64], heat: f64) -> Vec<f64> {
    let logs: Vec<f64> = ratio
        .iter()
        .enumerate()
        .map(|(i, r)| {
            let misfit: f64 = predicted
                .iter()
                .map(|p| ((p.predicted[i] - p.value) / p.sd).powi(2))
                .sum();
            r - 0.5 * heat * misfit
        })
        .collect();
    let most = logs.iter().copied().fold(f64::NEG_INFINITY, f64::max);
    let raw: Vec<f64> = logs.iter().map(|l| (l - most).exp()).collect();
    let sum: f64 = raw.iter().sum();
    raw.into_iter().map(|w| w / sum).collect()
}

/// Weights with the likelihood flattened until about `wanted` shapes count.
fn tempered(predicted: &[Predicted], ratio: &[f64], wanted: f64) -> Vec<f64> {
    let (mut low, mut high) = (0.0, 1.0);
    for _ in 0..24 {
        let heat = 0.5 * (low + high);
        if effective_size(&weights_of(predicted, ratio, heat)) < wanted {
            high = heat;
        } else {
            low = heat;
        }
    }
    weights_of(predicted, ratio, low)
}

/// Names measurements that disagree: with the record, or with each other.
fn disagreements(
    setup: &Setup<'_>,
    evidence: &[Evidence],
    predicted: &[Predicted],
    size: usize,
) -> Vec<String> {
    let even = vec![1.0 / size as f64; size];
    let alone = |p: &Predicted| {
        let ratio = vec![0.0; size];
        let one = Predicted {
            evidence: p.evidence,
            value: p.value,
            sd: p.sd,
            predicted: p.predicted.clone(),
        };
        weights_of(&[one], &ratio, 1.0)
    };
    let name = |p: &Predicted| match p.evidence {
        Some(i) => evidence[i].name().to_owned(),
        None => "the rated capacity".to_owned(),
    };
    let mut found: Vec<String> = Vec::new();
    let mut say = |text: String| {
        if !found.contains(&text) {
            found.push(text);
        }
    };
    let measured: Vec<&Predicted> = predicted.iter().filter(|p| p.evidence.is_some()).collect();
    for (i, one) in measured.iter().enumerate() {
        let distance = one.distance(&even);
        if distance > DISAGREES {
            say(format!(
                "{} and the record of the {} disagree: it lies {distance:.0} standard deviations from what length, beam and depth allow",
                name(one),
                setup.survey.model
            ));
            continue;
        }
        let given = alone(one);
        for other in &measured[i + 1..] {
            let fits = other.distance(&even) <= DISAGREES;
            if fits && other.evidence != one.evidence && other.distance(&given) > DISAGREES {
                say(format!("{} and {} disagree", name(one), name(other)));
            }
        }
    }
    found
}

fn predict_all(setup: &Setup<'_>, shapes: &[Shape], evidence: &[Evidence]) -> Vec<Predicted> {
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
