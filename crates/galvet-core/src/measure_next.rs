//! What to measure next: which one measurement would settle most.
//!
//! For each quantity somebody could put a tape or a scale to, the sample is cut
//! into bins along it. Knowing the quantity means being in one bin: the mean
//! over the bins says what would then be known (the expected value of perfect
//! information on that quantity, taken from the sample itself).

use crate::assess::Assessment;
use crate::evidence::effective_size;
use crate::hull::survey::{Construction, Measure, keyed};
use crate::rank::score::{Scales, score_values};
use crate::rank::{Firmness, Ranking};

/// Something that can be measured.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Target {
    /// Depth amidships.
    Depth,
    /// Floor height.
    Floor,
    /// Width of the stern's end.
    Transom,
    /// Weight as fitted.
    Weight,
    /// Beam at the water with a known load.
    WaterlineBeam,
}

keyed!(Target {
    Depth => "depth", "the depth amidships, bottom to gunwale";
    Floor => "floor-height", "the floor height above the bottom";
    Transom => "transom-width", "the width of the stern's end";
    Weight => "fitted-weight", "the weight as launched, on a scale";
    WaterlineBeam => "waterline-beam", "the beam at the water with a known load aboard";
});

impl Target {
    /// Which coordinate of the sample it fixes.
    const fn coordinate(self) -> usize {
        match self {
            Self::Transom => 2,
            Self::Depth => 3,
            Self::Floor => 6,
            Self::WaterlineBeam => 7,
            Self::Weight => 8,
        }
    }

    /// Whether this hull's survey has measured it already, or has no use for it.
    fn is_known(self, assessment: &Assessment<'_>) -> bool {
        let survey = assessment.setup.survey;
        let measured = |m: Measure| survey.best(m).is_some_and(|r| r.source.is_measured());
        match self {
            Self::Depth => measured(Measure::Depth),
            Self::Floor => {
                measured(Measure::FloorHeight) || survey.construction == Construction::Board
            }
            Self::Transom => measured(Measure::TransomWidth),
            Self::Weight => measured(Measure::FittedWeight),
            Self::WaterlineBeam => survey
                .evidence
                .iter()
                .any(|e| matches!(e.reading, crate::evidence::Reading::Waterline { .. })),
        }
    }
}

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
fn bins(assessment: &Assessment<'_>, order: &[usize], target: Target) -> Vec<usize> {
    let j = target.coordinate();
    let value = |n: usize| assessment.weighed.normals[order[n]][j];
    let mut sorted: Vec<usize> = (0..order.len()).collect();
    sorted.sort_by(|&a, &b| value(a).total_cmp(&value(b)));
    let mut out = vec![0; order.len()];
    for (rank, &n) in sorted.iter().enumerate() {
        out[n] = rank * BINS / order.len();
    }
    out
}

fn points(assessment: &Assessment<'_>, order: &[usize], scales: &Scales) -> Vec<f64> {
    order
        .iter()
        .map(|&i| score_values(&assessment.sample[i], &assessment.setup, scales).total)
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

/// What to measure on one hull, best first: how much each would narrow its
/// points. Empty when everything worth it is known.
#[must_use]
pub fn for_hull(assessment: &Assessment<'_>, scales: &Scales) -> Vec<Suggestion> {
    if effective_size(&assessment.weighed.weights) < 2.0 * BINS as f64 {
        return Vec::new();
    }
    let order = assessment.evenly();
    let points = points(assessment, &order, scales);
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
        .filter(|t| !t.is_known(assessment))
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
    found.sort_by(|a, b| b.narrows.total_cmp(&a.narrows));
    found
}

/// The one measurement that would best settle the order of the first few.
#[must_use]
pub fn for_shortlist(ranking: &Ranking<'_>, scales: &Scales) -> Option<Settles> {
    let entries = &ranking.ranked[..ranking.ranked.len().min(SHORTLIST)];
    let mut best: Option<(f64, Settles)> = None;
    for upper in 0..entries.len().saturating_sub(1) {
        let pair = [&entries[upper].assessment, &entries[upper + 1].assessment];
        let orders = pair.map(Assessment::evenly);
        let scored = [0, 1].map(|i| points(pair[i], &orders[i], scales));
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
            for &target in Target::ALL.iter().filter(|t| !t.is_known(pair[side])) {
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
