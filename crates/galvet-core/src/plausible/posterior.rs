//! What a hull may look like, given its record and what was measured of it.
//!
//! Each measurement predicts a number for every plausible shape; shapes that
//! predict it well gain weight (importance sampling, normal reading errors).
//! Where too few shapes are left with weight, the sample is moved to where the
//! weight is and weighed anew against prior and proposal (population Monte
//! Carlo: Cappé, Guillin, Marin, Robert, 2004).
//!
//! A posterior knows no question: each test carries its own water, load and
//! scuppers, the label its own basis. It is made once for a record and
//! evaluated under any brief.

use super::predict::{Kind, Predicted, moments, predict_all};
use super::prior::{DIMENSIONS, ShapePrior};
use super::sample;
use super::sampled::Sampled;
use crate::body::{Form, Frame, OffsetError, Ruled, Shape};
use crate::guide::{Guide, Guides};
use crate::hull::{Evidence, Measure, Origin, Survey};
use std::sync::Arc;
use thiserror::Error;

/// Why a hull cannot be floated at all.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum CannotFloat {
    /// A dimension without which there is no body.
    #[error("the {0} is not known")]
    NotKnown(&'static str),
    /// The measured sections make no body.
    #[error("the measured sections make no body: {0}")]
    Offsets(#[from] OffsetError),
}

/// Share of the sample that must be effective; below it is moved.
const ENOUGH: f64 = 0.25;
/// Times the sample is moved at most.
const MOVES: usize = 4;
/// A reading further than this from what is expected disagrees, in sd.
const DISAGREES: f64 = 3.0;
/// Shapes of a hull whose sections were measured: little is left to vary.
const MEASURED_SIZE: usize = 32;

/// A hull's plausible shapes with their weights.
#[derive(Debug, Clone)]
pub struct Posterior {
    /// The record.
    pub survey: Arc<Survey>,
    /// What its bodies are drawn from.
    pub form: Form,
    /// Guesses about what is not known.
    pub prior: ShapePrior,
    /// The guide values it was made with.
    pub guides: Arc<Guides>,
    /// Standard-normal coordinates of each shape.
    pub normals: Arc<[[f64; DIMENSIONS]]>,
    /// The shapes.
    pub shapes: Vec<Shape>,
    /// Their weights, which sum to one.
    pub weights: Vec<f64>,
    /// The weights without the evidence that the hull is sold at all: that one
    /// may sharpen a picture, never lift a hull that would be ruled out.
    pub unsold: Vec<f64>,
    /// Which measurements disagree and what is odd, in plain words.
    pub doubts: Vec<String>,
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

/// The shapes of a sample's points, each with how far off a guessed load is beside it.
fn shapes_of(prior: &ShapePrior, normals: &[[f64; DIMENSIONS]]) -> Vec<Shape> {
    let guesses = sample::guesses(normals.len());
    let shape = |(normal, guess): (&[f64; DIMENSIONS], &[f64; 3])| Shape {
        guess: *guess,
        ..prior.shape(normal)
    };
    normals.iter().zip(guesses.iter()).map(shape).collect()
}

impl Posterior {
    /// Draws `size` plausible shapes of `survey` and weighs them by the label,
    /// by what was measured afloat and by the hull's being sold.
    ///
    /// # Errors
    /// [`CannotFloat`] when length or beam is not known, or measured sections
    /// make no body.
    pub fn of(survey: Arc<Survey>, guides: Arc<Guides>, size: usize) -> Result<Self, CannotFloat> {
        let form = form(&survey, &guides)?;
        let measured = form.is_measured();
        let prior = ShapePrior::of(&survey, form.length(), form.beam(), measured, &guides);
        let size = if measured {
            size.min(MEASURED_SIZE)
        } else {
            size
        };
        let normals = sample::standard(size, prior.bottom_is_open());
        let mut out = Self {
            shapes: shapes_of(&prior, &normals),
            weights: vec![1.0 / size as f64; size],
            unsold: Vec::new(),
            doubts: Vec::new(),
            survey,
            form,
            prior,
            guides,
            normals,
        };
        out.weigh();
        Ok(out)
    }

    /// The shape whose parameters are the weighted medians, for drawing.
    #[must_use]
    pub fn middle(&self) -> Shape {
        let middle = std::array::from_fn(|j| {
            let column = self.normals.iter().zip(&self.weights);
            weighted_median(column.map(|(n, &w)| (n[j], w)).collect())
        });
        self.prior.shape(&middle)
    }

    /// The same hull in at most `size` shapes, drawn from these by their weights at even
    /// steps: for finding out quickly which hulls are worth working out in full, never for
    /// a figure that is told.
    #[must_use]
    pub fn coarse(&self, size: usize) -> Self {
        if size == 0 || size >= self.shapes.len() {
            return self.clone();
        }
        let step = 1.0 / size as f64;
        let (mut at, mut sum, mut chosen) = (0.5 * step, 0.0, Vec::new());
        for (i, weight) in self.weights.iter().enumerate() {
            sum += weight;
            while at < sum && chosen.len() < size {
                chosen.push(i);
                at += step;
            }
        }
        let last = self.shapes.len() - 1;
        chosen.resize(size, chosen.last().copied().unwrap_or(last));
        let unsold = |&i: &usize| self.unsold[i] / self.weights[i].max(f64::MIN_POSITIVE);
        let all: f64 = chosen.iter().map(unsold).sum();
        Self {
            normals: chosen.iter().map(|&i| self.normals[i]).collect(),
            shapes: chosen.iter().map(|&i| self.shapes[i]).collect(),
            weights: vec![step; size],
            unsold: chosen.iter().map(|i| unsold(i) / all).collect(),
            survey: self.survey.clone(),
            form: self.form.clone(),
            prior: self.prior.clone(),
            guides: self.guides.clone(),
            doubts: self.doubts.clone(),
        }
    }

    fn weigh(&mut self) {
        let standard = self.normals.clone();
        let size = standard.len();
        let mut predicted = predict_all(self.sampled());
        self.judge_sold(&mut predicted);
        self.doubts.extend(self.disagreements(&predicted));
        // Log of prior over proposal, 0 while they are the same.
        let mut ratio = vec![0.0; size];
        self.weights = weights_of(&predicted, &ratio, 1.0);
        for _ in 0..MOVES {
            if effective_size(&self.weights) >= ENOUGH * size as f64 {
                break;
            }
            // A flatter likelihood keeps the move from resting on one shape.
            let gentle = tempered(&predicted, &ratio, 0.1 * size as f64);
            let (mean, sd) = centre(&self.normals, &gentle);
            let moved =
                |point: &[f64; DIMENSIONS]| std::array::from_fn(|j| mean[j] + sd[j] * point[j]);
            self.normals = standard.iter().map(moved).collect();
            for (ratio, (point, moved)) in ratio.iter_mut().zip(standard.iter().zip(&*self.normals))
            {
                *ratio = (0..DIMENSIONS)
                    .map(|j| 0.5 * (point[j].powi(2) - moved[j].powi(2)) + sd[j].ln())
                    .sum();
            }
            self.shapes = shapes_of(&self.prior, &self.normals);
            let sold = predicted.iter().any(|p| p.kind == Kind::Sold);
            predicted = predict_all(self.sampled());
            predicted.retain(|p| sold || p.kind != Kind::Sold);
            self.weights = weights_of(&predicted, &ratio, 1.0);
        }
        predicted.retain(|p| p.kind != Kind::Sold);
        self.unsold = weights_of(&predicted, &ratio, 1.0);
    }

    fn sampled(&self) -> Sampled<'_> {
        Sampled {
            survey: &self.survey,
            guides: &self.guides,
            form: &self.form,
            shapes: &self.shapes,
        }
    }

    /// Keeps the evidence that the hull is sold only where it is a maker's and
    /// enough of its shapes agree with it; says so where they don't.
    fn judge_sold(&mut self, predicted: &mut Vec<Predicted>) {
        let Some(sold) = predicted.iter().find(|p| p.kind == Kind::Sold) else {
            return;
        };
        let agree = sold.predicted.iter().filter(|&&gm| gm >= sold.value);
        let share = agree.count() as f64 / sold.predicted.len().max(1) as f64;
        let odd = share < self.guides[Guide::SoldAgree];
        if odd && self.survey.origin == Origin::Maker {
            self.doubts.push(
                "odd for a hull that is sold: hardly one of its possible shapes would carry a seated person steadily; check its beam and seat height"
                    .to_owned(),
            );
        }
        if odd || self.survey.origin != Origin::Maker {
            predicted.retain(|p| p.kind != Kind::Sold);
        }
    }

    /// Names measurements that disagree: with the record, or with each other.
    fn disagreements(&self, predicted: &[Predicted]) -> Vec<String> {
        let size = self.normals.len();
        let even = vec![1.0 / size as f64; size];
        let ratio = vec![0.0; size];
        let name = |p: &Predicted| match p.kind {
            Kind::Afloat(i) => self.survey.evidence[i].name(),
            Kind::Label => "the rated capacity",
            Kind::Sold => "being sold",
        };
        let mut found: Vec<String> = Vec::new();
        let mut say = |text: String| {
            if !found.contains(&text) {
                found.push(text);
            }
        };
        let measured: Vec<&Predicted> = predicted
            .iter()
            .filter(|p| matches!(p.kind, Kind::Afloat(_)))
            .collect();
        for (i, one) in measured.iter().enumerate() {
            let distance = one.distance(&even);
            if distance > DISAGREES {
                say(format!(
                    "{} and the record of the {} disagree: it lies {distance:.0} standard deviations from what length, beam and depth allow",
                    name(one),
                    self.survey.model
                ));
                continue;
            }
            let given = weights_of(std::slice::from_ref(*one), &ratio, 1.0);
            for other in &measured[i + 1..] {
                let fits = other.distance(&even) <= DISAGREES;
                if fits && other.kind != one.kind && other.distance(&given) > DISAGREES {
                    say(format!("{} and {} disagree", name(one), name(other)));
                }
            }
        }
        found
    }

    /// What was measured afloat.
    #[must_use]
    pub fn evidence(&self) -> &[Evidence] {
        &self.survey.evidence
    }
}

/// What a survey's bodies are drawn from.
fn form(survey: &Survey, guides: &Guides) -> Result<Form, CannotFloat> {
    let construction = survey.construction;
    if !survey.offsets.is_empty() {
        return Ok(Form::Measured {
            ruled: Arc::new(Ruled::new(&survey.offsets)?),
            construction,
        });
    }
    let need = |m: Measure| survey.value(m).ok_or(CannotFloat::NotKnown(m.row().label));
    Ok(Form::Estimated(Frame::new(
        need(Measure::Length)?,
        need(Measure::Beam)?,
        construction,
        guides,
    )))
}

fn weighted_median(mut sample: Vec<(f64, f64)>) -> f64 {
    sample.sort_by(|a, b| a.0.total_cmp(&b.0));
    let half = 0.5 * sample.iter().map(|s| s.1).sum::<f64>();
    let mut before = 0.0;
    let mut last: Option<(f64, f64)> = None;
    for (value, weight) in sample {
        let middle = before + 0.5 * weight;
        if middle >= half {
            return match last {
                Some((at, low)) if middle > at => low + (value - low) * (half - at) / (middle - at),
                _ => value,
            };
        }
        last = Some((middle, value));
        before += weight;
    }
    last.map_or(0.0, |l| l.1)
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
            let misfit: f64 = predicted.iter().map(|p| p.misfit(i)).sum();
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
