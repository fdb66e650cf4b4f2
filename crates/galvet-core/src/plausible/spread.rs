//! A value with the width of our ignorance of it, and what readings are worth.

use crate::guide::{Guide, Guides};
use crate::hull::Reading;

/// A value with the width of our ignorance of it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Spread {
    /// Middle value.
    pub median: f64,
    /// One standard deviation.
    pub sd: f64,
    /// The same above the median, where the two sides differ.
    pub(super) sd_above: f64,
    /// Physical floor below which no sample goes.
    pub lo: f64,
    /// Physical ceiling above which no sample goes.
    pub hi: f64,
}

impl Spread {
    pub(super) const fn new(median: f64, sd: f64, lo: f64, hi: f64) -> Self {
        Self {
            median,
            sd,
            sd_above: sd,
            lo,
            hi,
        }
    }

    /// The same below the median, and wider above it.
    pub(super) const fn leaning_up(self, sd_above: f64) -> Self {
        Self { sd_above, ..self }
    }

    /// As wide to both sides: as a reading tells it.
    pub(super) const fn read(&mut self, median: f64, sd: f64) {
        (self.median, self.sd, self.sd_above) = (median, sd, sd);
    }

    /// Value `normal` standard deviations from the median, kept physical.
    #[must_use]
    pub fn at(&self, normal: f64) -> f64 {
        let sd = if normal > 0.0 { self.sd_above } else { self.sd };
        (self.median + sd * normal).min(self.hi).max(self.lo)
    }
}

/// Error of one reading of a length, m.
pub(super) fn length_sd(reading: &Reading, guides: &Guides) -> f64 {
    use crate::hull::Source;
    // Nothing that came with an error of its own is believed beyond a careful tape.
    if let Some(error) = reading.error {
        return error.max(guides[Guide::TapeSd]);
    }
    guides[match reading.source {
        s if s.is_measured() => Guide::TapeSd,
        Source::Brochure | Source::Label => Guide::SheetSd,
        _ => Guide::TalkSd,
    }]
}

/// Error of one reading of a weight, kg.
pub(super) fn weight_sd(reading: &Reading, guides: &Guides) -> f64 {
    use crate::hull::Source;
    if let Some(error) = reading.error {
        return error.max(reading.value * guides[Guide::ScaleShare]);
    }
    reading.value
        * guides[match reading.source {
            s if s.is_measured() => Guide::ScaleShare,
            Source::Brochure | Source::Label => Guide::SheetShare,
            _ => Guide::TalkShare,
        }]
}
