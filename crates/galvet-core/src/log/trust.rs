//! How well what was foretold held: what trust rests on.

use super::evidence::Read;
use crate::plausible::Foretold;

/// A number read on an outing, with what was foretold of it without it.
#[derive(Debug, Clone, PartialEq)]
pub struct Judged {
    /// The outing's key.
    pub outing: String,
    /// Its day.
    pub day: String,
    /// The hull's key.
    pub hull: String,
    /// What was read.
    pub read: Read,
    /// Read and foretold.
    pub foretold: Foretold,
}

/// How well one kind of reading was foretold.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Trust {
    /// What was read.
    pub read: Read,
    /// How many numbers.
    pub count: usize,
    /// Median of read less foretold, in its own unit: below zero it was foretold too high.
    pub bias: f64,
    /// Median of how far off, whichever way.
    pub error: f64,
    /// Share read between the ends of what was foretold; of many nine in ten should be.
    pub within: f64,
}

/// Sums up what was judged, kind by kind.
#[must_use]
pub fn trust(judged: &[Judged]) -> Vec<Trust> {
    use strum::VariantArray;
    let of = |&read: &Read| {
        let own: Vec<&Judged> = judged.iter().filter(|j| j.read == read).collect();
        let off: Vec<f64> = own.iter().map(|j| j.foretold.off()).collect();
        let far = off.iter().map(|v| v.abs()).collect();
        let held = own.iter().filter(|j| j.foretold.holds()).count();
        Some(Trust {
            read,
            count: own.len(),
            bias: median(off)?,
            error: median(far)?,
            within: held as f64 / own.len() as f64,
        })
    };
    Read::VARIANTS.iter().filter_map(of).collect()
}

/// The middle one, or the mean of the middle two.
pub(super) fn median(mut values: Vec<f64>) -> Option<f64> {
    values.retain(|v| v.is_finite());
    values.sort_unstable_by(f64::total_cmp);
    let half = values.len() / 2;
    match values.len() {
        0 => None,
        n if n % 2 == 1 => Some(values[half]),
        _ => Some(0.5 * (values[half - 1] + values[half])),
    }
}
