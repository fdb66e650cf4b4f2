//! The wind really met against the one foretold.

use super::outing::Outing;
use super::trust::median;

/// Wind met as shares of what was foretold.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Met {
    /// Outings that noted both.
    pub count: usize,
    /// The least, the middle and the greatest share.
    pub share: [f64; 3],
    /// Outings on which more was met than foretold by a quarter or more.
    pub worse: usize,
}

/// Sums it up; `None` where no outing noted both.
#[must_use]
pub fn met(outings: &[Outing]) -> Option<Met> {
    let shares = outings.iter().filter_map(|o| {
        let foretold = o.forecast.filter(|w| *w > 0.1)?;
        Some(o.wind? / foretold)
    });
    let mut shares: Vec<f64> = shares.collect();
    shares.sort_unstable_by(f64::total_cmp);
    let middle = median(shares.clone())?;
    Some(Met {
        count: shares.len(),
        share: [*shares.first()?, middle, *shares.last()?],
        worse: shares.iter().filter(|s| **s >= 1.25).count(),
    })
}
