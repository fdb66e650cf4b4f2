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
    /// Outings on which more was met than the question they were planned with took for
    /// usual.
    pub unusual: usize,
}

/// Sums it up; `usual` gives the wind an outing's water was judged for. `None` where no
/// outing noted both.
#[must_use]
pub fn met(outings: &[Outing], usual: &dyn Fn(&Outing) -> Option<f64>) -> Option<Met> {
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
        unusual: outings
            .iter()
            .filter(|o| o.wind.zip(usual(o)).is_some_and(|(met, usual)| met > usual))
            .count(),
        worse: shares.iter().filter(|s| **s >= 1.25).count(),
    })
}
