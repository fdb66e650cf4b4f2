//! What was measured afloat, and what it says about a hull's shape.
//!
//! Each measurement predicts a number for every plausible shape; shapes that
//! predict it well gain weight (importance sampling, normal reading errors).
//! Where too few shapes are left with weight, the sample is moved to where the
//! weight is and weighed anew against prior and proposal (population Monte
//! Carlo: Cappé, Guillin, Marin, Robert, 2004).

mod predict;

use crate::evaluate::Setup;
use crate::hull::shape::{DIMENSIONS, Shape};
use crate::sample;
use crate::units::{Bounds, Dimension, OutOfRange};
use predict::{Predicted, moments, predict_all};

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
