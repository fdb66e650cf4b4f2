//! What to measure next: which one measurement would settle most.
//!
//! For each quantity somebody could put a tape or a scale to, the sample is cut
//! into bins along it. Knowing the quantity means being in one bin: the mean
//! over the bins says what would then be known (the expected value of perfect
//! information on that quantity, taken from the sample itself).

use crate::base::Keyed;
use crate::figures::Assessment;
use crate::plausible::Target;
use crate::question::Brief;
use crate::rank::{Firmness, Ranking, Scales, score_shape};

/// One suggestion for one hull.
#[derive(Debug, Clone, PartialEq)]
pub struct Suggestion {
    /// What to measure.
    pub target: Target,
    /// Share of the score's variance that knowing it would take away, 0-1.
    pub narrows: f64,
}

/// One suggestion for a shortlist.
#[derive(Debug, Clone, PartialEq)]
pub struct Settles {
    /// Index of the hull in the ranking.
    pub hull: usize,
    /// What to measure on it.
    pub target: Target,
    /// The place above of the two it would tell apart (0 for first and second).
    pub upper: usize,
    /// How sure their order is now, 0.5-1.
    pub now: f64,
    /// How sure it would be on average.
    pub then: f64,
}

/// Bins a quantity is cut into.
const BINS: usize = 6;
/// Gains below this are not worth getting the tape for.
const WORTH: f64 = 0.02;
/// How far down the ranking a shortlist goes.
const SHORTLIST: usize = 5;

/// Bin of each entry of `order` (indices into the sample) along a coordinate,
/// equally filled.
fn bins(assessment: &Assessment, order: &[usize], target: Target) -> Vec<usize> {
    let j = target.coordinate(assessment.setup.brief.seat);
    let value = |n: usize| assessment.setup.posterior.normals[order[n]][j];
    let mut sorted: Vec<usize> = (0..order.len()).collect();
    sorted.sort_by(|&a, &b| value(a).total_cmp(&value(b)));
    let mut out = vec![0; order.len()];
    for (rank, &n) in sorted.iter().enumerate() {
        out[n] = rank * BINS / order.len();
    }
    out
}

fn points(assessment: &Assessment, order: &[usize], brief: &Brief, scales: &Scales) -> Vec<f64> {
    // What is asked and not met costs every shape the same: it narrows nothing.
    order
        .iter()
        .map(|&i| score_shape(assessment, i, brief, scales, 0.0).total)
        .collect()
}

/// Mean over bins of `f` of the members, weighted by their number.
fn over_bins(bins: &[usize], f: impl Fn(&[usize]) -> f64) -> f64 {
    (0..BINS)
        .map(|bin| {
            let members: Vec<usize> = (0..bins.len()).filter(|&n| bins[n] == bin).collect();
            if members.is_empty() {
                return 0.0;
            }
            members.len() as f64 * f(&members)
        })
        .sum::<f64>()
        / bins.len().max(1) as f64
}

/// What to measure on one hull: how much each would narrow its points; first what
/// narrows them most for the trouble it is ([`Target::trouble`]). Empty when everything worth it is known.
#[must_use]
pub fn for_hull(assessment: &Assessment, brief: &Brief, scales: &Scales) -> Vec<Suggestion> {
    if assessment.effective_size() < 2.0 * BINS as f64 {
        return Vec::new();
    }
    let order = assessment.evenly();
    let points = points(assessment, &order, brief, scales);
    let variance = |members: &[usize]| {
        let mean = members.iter().map(|&n| points[n]).sum::<f64>() / members.len() as f64;
        members
            .iter()
            .map(|&n| (points[n] - mean).powi(2))
            .sum::<f64>()
            / members.len() as f64
    };
    let whole = variance(&(0..points.len()).collect::<Vec<_>>());
    if whole < 0.25 {
        return Vec::new();
    }
    let mut found: Vec<Suggestion> = Target::ALL
        .iter()
        .filter(|t| !t.is_known(&assessment.setup.posterior, assessment.setup.brief.seat))
        .map(|&target| {
            let bins = bins(assessment, &order, target);
            let left = over_bins(&bins, variance);
            Suggestion {
                target,
                // A cut into bins of noise takes (BINS - 1)/(n - 1) away as well.
                narrows: 1.0 - left / whole - (BINS - 1) as f64 / (points.len() - 1) as f64,
            }
        })
        .filter(|s| s.narrows > WORTH)
        .collect();
    let worth = |s: &Suggestion| s.narrows / s.target.trouble();
    found.sort_by(|a, b| worth(b).total_cmp(&worth(a)));
    found
}

/// The one measurement that would best settle the order of the first few.
#[must_use]
pub fn for_shortlist(ranking: &Ranking) -> Option<Settles> {
    let entries = &ranking.ranked[..ranking.ranked.len().min(SHORTLIST)];
    let mut best: Option<(f64, Settles)> = None;
    for upper in 0..entries.len().saturating_sub(1) {
        let pair: [&Assessment; 2] = [&entries[upper].assessment, &entries[upper + 1].assessment];
        let orders = [0, 1].map(|i| pair[i].evenly_as(upper + i));
        let scored = [0, 1].map(|i| {
            let off = entries[upper + i].score.demands;
            let points = points(pair[i], &orders[i], &ranking.brief, &ranking.scales);
            points.into_iter().map(|p| p - off).collect::<Vec<f64>>()
        });
        let size = scored[0].len().min(scored[1].len());
        let wins = |members: &[usize]| {
            let won = members
                .iter()
                .filter(|&&n| n < size && scored[0][n] >= scored[1][n]);
            let share = won.count() as f64 / members.len() as f64;
            share.max(1.0 - share)
        };
        let now = wins(&(0..size).collect::<Vec<_>>());
        if Firmness::of(now) == Firmness::Firm {
            continue;
        }
        for side in 0..2 {
            for &target in Target::ALL
                .iter()
                .filter(|t| !t.is_known(&pair[side].setup.posterior, ranking.brief.seat))
            {
                let then = over_bins(&bins(pair[side], &orders[side], target), wins);
                // The first places matter more.
                let gain = (then - now) / (1.0 + 0.5 * upper as f64);
                if then - now > WORTH && best.as_ref().is_none_or(|b| gain > b.0) {
                    let settles = Settles {
                        hull: upper + side,
                        target,
                        upper,
                        now,
                        then,
                    };
                    best = Some((gain, settles));
                }
            }
        }
    }
    best.map(|b| b.1)
}
