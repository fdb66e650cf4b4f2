//! Ranking: rule out, score, order, say how firm it is and why.
//!
//! Medians rank; the sample says how firm. Shape `s` of one hull is set
//! against shape `s` of another: the samples are independent, so any pairing
//! would do.

pub mod explain;
pub mod rule_out;
pub mod schools;
pub mod score;

use crate::assess::Assessment;
use crate::brief::Brief;
use crate::evaluate::CannotFloat;
use crate::hull::Survey;
use crate::quantity::Quantity;
use rayon::prelude::*;
use rule_out::{Code, Reason};
use score::{Scales, Score};

/// How sure a place is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Firmness {
    /// Beats the next in at least nine shapes of ten.
    Firm,
    /// In at least seven.
    Likely,
    /// In fewer.
    TooClose,
}

impl Firmness {
    /// From the share of shapes in which the hull beats the one below.
    #[must_use]
    pub fn of(share: f64) -> Self {
        match share {
            s if s >= 0.9 => Self::Firm,
            s if s >= 0.7 => Self::Likely,
            _ => Self::TooClose,
        }
    }

    /// The word shown.
    #[must_use]
    pub const fn label(self) -> &'static str {
        match self {
            Self::Firm => "firm",
            Self::Likely => "likely",
            Self::TooClose => "too close to call",
        }
    }
}

/// Which of the three limits is the tightest.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Binding {
    /// The rated capacity.
    Label,
    /// The working share of it.
    WorkingShare,
    /// The water at the floor or gunwale.
    Waterline,
}

impl Binding {
    /// The word used in JSON.
    #[must_use]
    pub const fn key(self) -> &'static str {
        match self {
            Self::Label => "label",
            Self::WorkingShare => "working",
            Self::Waterline => "waterline",
        }
    }

    /// The tightest of the known median margins, and its size, kg.
    #[must_use]
    pub fn of(assessment: &Assessment<'_>) -> Option<(Self, f64)> {
        [
            (Self::WorkingShare, Quantity::WorkingMargin),
            (Self::Waterline, Quantity::WaterlineMargin),
            (Self::Label, Quantity::LabelMargin),
        ]
        .into_iter()
        .filter_map(|(binding, q)| Some((binding, assessment.median(q)?)))
        .min_by(|a, b| a.1.total_cmp(&b.1))
    }
}

/// A hull in the order.
#[derive(Debug, Clone)]
pub struct Ranked<'a> {
    /// Its figures.
    pub assessment: Assessment<'a>,
    /// Points at the medians.
    pub score: Score,
    /// Tightest limit and its margin, kg.
    pub binding: Option<(Binding, f64)>,
    /// Share of shapes in which it comes first of all ranked.
    pub first_share: f64,
    /// Share of shapes in which it beats the hull below; `None` for the last.
    pub beats_next: Option<f64>,
    /// Whether no other ranked hull is better on both axes.
    pub on_front: bool,
}

/// A hull below the line.
#[derive(Debug, Clone)]
pub struct RuledOut<'a> {
    /// Its record.
    pub survey: &'a Survey,
    /// Its figures, where it could be floated.
    pub assessment: Option<Assessment<'a>>,
    /// Why, gravest first; never empty.
    pub reasons: Vec<Reason>,
}

/// The answer to a brief.
#[derive(Debug, Clone)]
pub struct Ranking<'a> {
    /// The question.
    pub brief: &'a Brief,
    /// Best first.
    pub ranked: Vec<Ranked<'a>>,
    /// The rest, nearest miss first.
    pub ruled_out: Vec<RuledOut<'a>>,
}

/// Ranks `hulls` for `brief` with `size` shapes each.
#[must_use]
pub fn rank<'a>(
    brief: &'a Brief,
    hulls: &'a [Survey],
    size: usize,
    scales: &Scales,
) -> Ranking<'a> {
    let assessed: Vec<(&Survey, Result<Assessment<'a>, CannotFloat>)> = hulls
        .par_iter()
        .map(|survey| (survey, Assessment::of(survey, brief, size)))
        .collect();
    let mut ranked = Vec::new();
    let mut ruled_out = Vec::new();
    for (survey, outcome) in assessed {
        match outcome {
            Err(CannotFloat::NotKnown(what)) => ruled_out.push(RuledOut {
                survey,
                assessment: None,
                reasons: vec![Reason::plain(Code::NotKnown, what)],
            }),
            Ok(assessment) => {
                let reasons = rule_out::reasons(&assessment);
                if reasons.is_empty() {
                    ranked.push(entry(assessment, brief, scales));
                } else {
                    ruled_out.push(RuledOut {
                        survey,
                        assessment: Some(assessment),
                        reasons,
                    });
                }
            }
        }
    }
    ranked.sort_by(|a, b| order(b, a));
    ruled_out.sort_by(|a, b| {
        let key = |r: &RuledOut<'_>| (r.assessment.is_none(), r.reasons.len());
        key(a)
            .cmp(&key(b))
            .then_with(|| a.survey.key.cmp(&b.survey.key))
    });
    firmness(&mut ranked, scales);
    mark_front(&mut ranked);
    Ranking {
        brief,
        ranked,
        ruled_out,
    }
}

fn entry<'a>(assessment: Assessment<'a>, brief: &Brief, scales: &Scales) -> Ranked<'a> {
    let score = score::score(
        |q| assessment.median(q),
        assessment.setup.survey,
        brief,
        scales,
    );
    Ranked {
        score,
        binding: Binding::of(&assessment),
        assessment,
        first_share: 0.0,
        beats_next: None,
        on_front: false,
    }
}

/// Better is greater: points, then raw margin, then raw support, then the key
/// backwards so that equals stand in alphabetical order.
fn order(a: &Ranked<'_>, b: &Ranked<'_>) -> std::cmp::Ordering {
    let raw = |r: &Ranked<'_>, q| r.assessment.median(q).unwrap_or(f64::NEG_INFINITY);
    a.score
        .total
        .total_cmp(&b.score.total)
        .then_with(|| raw(a, Quantity::BindingMargin).total_cmp(&raw(b, Quantity::BindingMargin)))
        .then_with(|| raw(a, Quantity::Gm).total_cmp(&raw(b, Quantity::Gm)))
        .then_with(|| {
            b.assessment
                .setup
                .survey
                .key
                .cmp(&a.assessment.setup.survey.key)
        })
}

fn firmness(ranked: &mut [Ranked<'_>], scales: &Scales) {
    let totals: Vec<Vec<f64>> = ranked
        .iter()
        .map(|r| {
            let sample = &r.assessment.sample;
            let points: Vec<f64> = sample
                .iter()
                .map(|values| score::score_values(values, &r.assessment.setup, scales).total)
                .collect();
            r.assessment.evenly().iter().map(|&i| points[i]).collect()
        })
        .collect();
    let size = totals.iter().map(Vec::len).min().unwrap_or(0);
    if size == 0 {
        return;
    }
    let share = |count: usize| count as f64 / size as f64;
    let mut firsts = vec![0usize; ranked.len()];
    for s in 0..size {
        let best = (0..totals.len()).max_by(|&a, &b| {
            // Of equals the one ranked higher.
            totals[a][s].total_cmp(&totals[b][s]).then(b.cmp(&a))
        });
        if let Some(best) = best {
            firsts[best] += 1;
        }
    }
    for i in 0..ranked.len() {
        ranked[i].first_share = share(firsts[i]);
        ranked[i].beats_next = totals
            .get(i + 1)
            .map(|next| share((0..size).filter(|&s| totals[i][s] >= next[s]).count()));
    }
}

fn mark_front(ranked: &mut [Ranked<'_>]) {
    let axes: Vec<(f64, f64)> = ranked
        .iter()
        .map(|r| (r.score.capacity, r.score.stability))
        .collect();
    for (entry, &(capacity, stability)) in ranked.iter_mut().zip(&axes) {
        entry.on_front = !axes
            .iter()
            .any(|&(c, s)| c >= capacity && s >= stability && (c > capacity || s > stability));
    }
}
