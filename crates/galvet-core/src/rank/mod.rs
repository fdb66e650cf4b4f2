//! Ranking: rule out, score, order, say how firm it is and why.
//!
//! Medians rank; the sample says how firm. Shape `s` of one hull is set
//! against shape `s` of another: the samples are independent, so any pairing
//! would do.

mod beside;
mod demands;
pub mod explain;
mod peril;
mod reason;
mod rule_out;
mod score;
mod told;
mod verdict;
mod wishes;

pub use beside::{LOOKED_AT, SEAT, Seated, by_the_trip, comfort, seat};
pub use demands::{Met, demands};
pub use peril::Peril;
pub use reason::{Code, Reason, may};
pub use rule_out::{passes, unchecked};
pub use score::{
    Axis, Missing, Scale, Scales, Score, headline, margin, score, score_shape, tape_measure,
};
pub use told::told;
pub use verdict::{scale, steadiness, takes, verdict};
pub use wishes::{minds, own_band, reach_told, support_needed};

use crate::figures::{Assessment, Quantity};
use crate::guide::Guides;
use crate::hull::Survey;
use crate::plausible::{CannotFloat, Posterior};
use crate::question::Brief;
use rayon::prelude::*;
use std::sync::Arc;

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

    /// The tightest of the known median margins, and its size, kg. `None` where
    /// the water's own is not known: the true one may be tighter than any.
    #[must_use]
    pub fn of(assessment: &Assessment) -> Option<(Self, f64)> {
        assessment.median(Quantity::BindingMargin)?;
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
pub struct Ranked {
    /// Its figures.
    pub assessment: Arc<Assessment>,
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
    /// What the water and the launch ask, and whether it does.
    pub demands: Vec<Met>,
    /// Said in red beside the place: what some of its plausible shapes do.
    pub peril: Option<Peril>,
}

impl Ranked {
    /// Its record.
    #[must_use]
    pub fn survey(&self) -> &Survey {
        &self.assessment.setup.posterior.survey
    }
}

/// A hull below the line.
#[derive(Debug, Clone)]
pub struct RuledOut {
    /// Its record.
    pub survey: Arc<Survey>,
    /// Its figures, where it could be floated.
    pub assessment: Option<Arc<Assessment>>,
    /// Why, gravest first; never empty.
    pub reasons: Vec<Reason>,
}

/// The answer to a brief.
#[derive(Debug, Clone)]
pub struct Ranking {
    /// The question.
    pub brief: Arc<Brief>,
    /// The scales the points were given by.
    pub scales: Scales,
    /// Best first.
    pub ranked: Vec<Ranked>,
    /// The rest, nearest miss first.
    pub ruled_out: Vec<RuledOut>,
}

impl Ranking {
    /// Figures of a hull, ranked or ruled out; `None` where it has none, or is not here.
    #[must_use]
    pub fn assessment(&self, key: &str) -> Option<&Arc<Assessment>> {
        let ranked = self.ranked.iter().map(|r| &r.assessment);
        let out = self.ruled_out.iter();
        let out = out.filter_map(|o| o.assessment.as_ref());
        let mut all = ranked.chain(out);
        all.find(|a| a.setup.posterior.survey.key == key)
    }
}

/// A hull that is to be ranked: its record, and its figures under the floating
/// part of the brief or why it has none.
pub type Candidate = (Arc<Survey>, Result<Arc<Assessment>, CannotFloat>);

/// Draws, floats and ranks `hulls` for `brief` with `size` shapes each, from
/// nothing. A server remembers posteriors and assessments and calls [`judge`].
#[must_use]
pub fn rank(
    brief: &Arc<Brief>,
    hulls: &[Arc<Survey>],
    size: usize,
    guides: &Arc<Guides>,
) -> Ranking {
    let floating = Arc::new(brief.floating_part(guides));
    let candidates = hulls
        .par_iter()
        .map(|survey| {
            let assessed = Posterior::of(survey.clone(), guides.clone(), size)
                .map(|p| Arc::new(Assessment::of(Arc::new(p), floating.clone())));
            (survey.clone(), assessed)
        })
        .collect();
    judge(brief, candidates, guides)
}

/// Rules out, scores and orders hulls whose figures are known. Floats nothing
/// anew but what a foundering hull needs to say by how much.
#[must_use]
pub fn judge(brief: &Arc<Brief>, candidates: Vec<Candidate>, guides: &Guides) -> Ranking {
    let scales = Scales::of(guides);
    let brief = &wishes::with_known(brief, &candidates);
    let judged: Vec<Result<Ranked, RuledOut>> = candidates
        .into_par_iter()
        .map(|(survey, outcome)| match outcome {
            Err(problem) => Err(RuledOut {
                survey,
                assessment: None,
                reasons: vec![Reason::plain(Code::CannotFloat, problem.to_string())],
            }),
            Ok(assessment) => one(survey, assessment, brief, &scales),
        })
        .collect();
    let (mut ranked, mut ruled_out) = (Vec::new(), Vec::new());
    for hull in judged {
        match hull {
            Ok(hull) => ranked.push(hull),
            Err(hull) => ruled_out.push(hull),
        }
    }
    ranked.sort_by(|a, b| order(b, a));
    ruled_out.sort_by(|a, b| {
        // Reasons stand gravest first: the mildest first reason is nearest.
        let key = |r: &RuledOut| {
            (
                r.reasons.first().map(|r| std::cmp::Reverse(r.code)),
                r.reasons.len(),
            )
        };
        key(a)
            .cmp(&key(b))
            .then_with(|| a.survey.key.cmp(&b.survey.key))
    });
    firmness(&mut ranked, brief, &scales);
    mark_front(&mut ranked);
    Ranking {
        brief: brief.clone(),
        scales,
        ranked,
        ruled_out,
    }
}

fn one(
    survey: Arc<Survey>,
    assessment: Arc<Assessment>,
    brief: &Brief,
    scales: &Scales,
) -> Result<Ranked, RuledOut> {
    let peril = match passes(&assessment, brief) {
        Ok(peril) => peril,
        Err(reasons) => {
            return Err(RuledOut {
                survey,
                assessment: Some(assessment),
                reasons,
            });
        }
    };
    Ok(Ranked {
        score: score(&assessment, brief, scales),
        binding: Binding::of(&assessment),
        demands: demands(&assessment, brief),
        first_share: 0.0,
        beats_next: None,
        on_front: false,
        peril,
        assessment,
    })
}

/// Better is greater: something in hand before nothing, then points, then raw margin,
/// then raw GM, then the key backwards so that equals stand in alphabetical order.
fn order(a: &Ranked, b: &Ranked) -> std::cmp::Ordering {
    let raw = |r: &Ranked, q| r.assessment.median(q).unwrap_or(f64::NEG_INFINITY);
    // Nothing in hand never stands above something in hand; a margin nobody can tell is
    // none.
    let in_hand = |r: &Ranked| r.binding.is_some_and(|(_, kg)| kg >= 0.0);
    in_hand(a)
        .cmp(&in_hand(b))
        .then_with(|| a.score.total.total_cmp(&b.score.total))
        .then_with(|| raw(a, Quantity::BindingMargin).total_cmp(&raw(b, Quantity::BindingMargin)))
        .then_with(|| raw(a, Quantity::Gm).total_cmp(&raw(b, Quantity::Gm)))
        .then_with(|| b.survey().key.cmp(&a.survey().key))
}

fn firmness(ranked: &mut [Ranked], brief: &Brief, scales: &Scales) {
    let totals: Vec<Vec<f64>> = ranked
        .par_iter()
        .enumerate()
        .map(|(which, r)| {
            let points: Vec<f64> = (0..r.assessment.sample.len())
                .map(|shape| {
                    score_shape(&r.assessment, shape, brief, scales, r.score.demands).total
                })
                .collect();
            let order = r.assessment.evenly_as(which);
            order.iter().map(|&i| points[i]).collect()
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

fn mark_front(ranked: &mut [Ranked]) {
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
