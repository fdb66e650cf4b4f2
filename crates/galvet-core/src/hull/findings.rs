//! What a reader must know of a record before trusting it.

use super::finding::{About, Finding};
use super::kinds::{CapacityBasis, Construction};
use super::looked::Kept;
use super::measure::Measure;
use super::sense;
use super::survey::Survey;
use crate::base::{Keyed, System};

impl Survey {
    /// Gaps and contradictions, worst first, without those somebody stands by.
    #[must_use]
    pub fn findings(&self) -> Vec<Finding> {
        let mut found = self.disagreements();
        found.retain(|finding| self.looked.stands_by(finding).is_none());
        found.extend(self.gaps());
        found
    }

    /// Odd figures somebody stands by, with who and why.
    #[must_use]
    pub fn stood_by(&self) -> Vec<(Finding, &Kept)> {
        let found = self.disagreements().into_iter();
        found
            .filter_map(|finding| {
                let kept = self.looked.stands_by(&finding)?;
                Some((finding, kept))
            })
            .collect()
    }

    fn disagreements(&self) -> Vec<Finding> {
        let mut found = self.contradictions();
        found.extend(sense::odd(self));
        found
    }

    fn contradictions(&self) -> Vec<Finding> {
        let mut found = Vec::new();
        let mut say = |about, text| {
            found.push(Finding::contradiction(about, text));
        };
        for (&measure, readings) in &self.readings {
            let Some(best) = self.best(measure) else {
                continue;
            };
            for other in readings {
                let apart = (other.value - best.value).abs();
                if apart > measure.tolerance(best.value) {
                    say(
                        About::Measure(measure),
                        format!(
                            "{} reads {} by {} but {} by {}; the {} is used",
                            measure.label(),
                            measure.text(System::Metric, best.value),
                            best.source.label(),
                            measure.text(System::Metric, other.value),
                            other.source.label(),
                            best.source.label(),
                        ),
                    );
                }
            }
        }
        let value = |m| self.value(m);
        if let (Some(bare), Some(fitted)) =
            (value(Measure::BareWeight), value(Measure::FittedWeight))
            && bare > fitted
        {
            say(
                About::Measure(Measure::BareWeight),
                format!(
                    "the bare weight ({bare:.0} kg) is above the fitted weight ({fitted:.0} kg): one of them is wrong, and seat and drive cannot be told apart from the hull"
                ),
            );
        }
        let taken: f64 = self.fitout.fixed().map(|f| (-f.mass).max(0.0)).sum();
        if let Some(whole) = value(Measure::FittedWeight).or(value(Measure::BareWeight))
            && taken > 0.5 * whole
        {
            say(
                About::Modifications,
                format!(
                    "modifications are said to have taken {taken:.0} kg off a hull of {whole:.0} kg: half of it is counted as left"
                ),
            );
        }
        if let (Some(floor), Some(depth)) = (value(Measure::FloorHeight), value(Measure::Depth))
            && floor > depth - 0.03
            && self.construction != Construction::Board
        {
            say(
                About::Measure(Measure::FloorHeight),
                format!(
                    "the floor ({:.0} mm up) leaves no depth below the gunwale ({:.0} mm)",
                    floor * 1e3,
                    depth * 1e3
                ),
            );
        }
        if let (Some(transom), Some(beam)) = (value(Measure::TransomWidth), value(Measure::Beam))
            && transom > beam
        {
            say(
                About::Measure(Measure::TransomWidth),
                format!(
                    "the transom ({:.0} mm) is wider than the beam ({:.0} mm)",
                    transom * 1e3,
                    beam * 1e3
                ),
            );
        }
        if let (Some(low), Some(high)) = (value(Measure::SeatLow), value(Measure::SeatHigh))
            && low > high
        {
            say(
                About::Measure(Measure::SeatLow),
                "the low seat is noted higher than the high one".to_owned(),
            );
        }
        found
    }

    fn gaps(&self) -> Vec<Finding> {
        let mut found = Vec::new();
        let mut say = |about, text: &str| {
            found.push(Finding::gap(about, text));
        };
        let missing = |m| self.value(m).is_none();
        if missing(Measure::Length) {
            say(
                About::Measure(Measure::Length),
                "the length is not known: the hull cannot be floated",
            );
        }
        if missing(Measure::Beam) {
            say(
                About::Measure(Measure::Beam),
                "the beam is not known: the hull cannot be floated",
            );
        }
        if missing(Measure::RatedCapacity) {
            say(
                About::Measure(Measure::RatedCapacity),
                "no rated capacity: only the water decides what it carries",
            );
        } else if self.capacity_basis == CapacityBasis::Unknown {
            say(
                About::Basis,
                "the maker does not say what the rated capacity counts; seat and drive are counted as load",
            );
        }
        match (missing(Measure::FittedWeight), missing(Measure::BareWeight)) {
            (true, true) => say(
                About::Measure(Measure::FittedWeight),
                "no weight at all: guessed from the size, with a wide range",
            ),
            (true, false) => say(
                About::Measure(Measure::FittedWeight),
                "only a bare weight: seat and drive are guessed on top",
            ),
            _ => {}
        }
        // A board is a board, and measured sections have their bottom.
        let drawn = self.construction != Construction::Board && self.offsets.is_empty();
        if self.bottom.is_none() && drawn {
            say(
                About::Bottom,
                "nobody looked at the bottom: all that such a hull may have are counted",
            );
        }
        if missing(Measure::SeatLow) && missing(Measure::SeatHigh) {
            say(
                About::Measure(Measure::SeatLow),
                "no seat height: all that such a seat may have are counted",
            );
        }
        found
    }
}
