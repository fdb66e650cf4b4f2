//! What is known of a hull, figure by figure, each with its source.

use super::evidence::Evidence;
use super::fitout::Fitout;
use super::kinds::{BottomShape, CapacityBasis, Construction, Origin, Propulsion, Source};
use super::measure::Measure;
use super::sense;
use super::station::Station;
use crate::base::{Finding, Keyed, OutOfRange, System};
use std::collections::BTreeMap;

/// One reading of one figure.
#[derive(Debug, Clone, PartialEq)]
pub struct Reading {
    /// Value, SI, within [`Measure::bounds`].
    pub value: f64,
    /// Where it comes from.
    pub source: Source,
    /// The day it was taken, ISO 8601; empty where not noted.
    pub date: String,
    /// Who took it; empty where not noted.
    pub who: String,
    /// Anything else.
    pub note: String,
}

impl Reading {
    /// A checked reading of `measure`.
    ///
    /// # Errors
    /// [`OutOfRange`] when the value cannot be one.
    pub fn new(measure: Measure, value: f64, source: Source) -> Result<Self, OutOfRange> {
        Ok(Self {
            value: measure.bounds().check(value)?,
            source,
            date: String::new(),
            who: String::new(),
            note: String::new(),
        })
    }
}

/// A hull record. Fields that are free text are kept as written.
#[derive(Debug, Clone, PartialEq)]
pub struct Survey {
    /// Stable key used in files and addresses.
    pub key: String,
    /// Maker.
    pub maker: String,
    /// Model.
    pub model: String,
    /// Model year, when known.
    pub year: Option<u16>,
    /// How the deck is made.
    pub construction: Construction,
    /// Bottom as named in the survey; `None` when nobody looked.
    pub bottom: Option<BottomShape>,
    /// What drives it as sold.
    pub propulsion: Propulsion,
    /// Whether the drive lifts clear without leaving the seat.
    pub drive_lifts: bool,
    /// Rudder or skeg fitted.
    pub tracks_straight: bool,
    /// Seats.
    pub seats: u8,
    /// What "fitted" includes, as written.
    pub fitted_includes: String,
    /// What the rated capacity counts.
    pub capacity_basis: CapacityBasis,
    /// Colour, outfitting, anything else.
    pub notes: String,
    /// Sold by a maker, or home-made.
    pub origin: Origin,
    /// All readings, best not yet chosen.
    pub readings: BTreeMap<Measure, Vec<Reading>>,
    /// What was measured afloat.
    pub evidence: Vec<Evidence>,
    /// Sections measured station by station, bow to stern; empty where nobody
    /// did. They stand in place of an estimate of the shape.
    pub offsets: Vec<Station>,
    /// Zones, fittings, modifications and configurations.
    pub fitout: Fitout,
}

impl Survey {
    /// Maker and model.
    #[must_use]
    pub fn name(&self) -> String {
        format!("{} {}", self.maker, self.model).trim().to_owned()
    }

    /// The reading to go by: the most trusted source; of equals the newest, of
    /// those the last noted.
    #[must_use]
    pub fn best(&self, measure: Measure) -> Option<&Reading> {
        self.readings
            .get(&measure)?
            .iter()
            .max_by(|a, b| (a.source, &a.date).cmp(&(b.source, &b.date)))
    }

    /// The value of [`Survey::best`], SI.
    #[must_use]
    pub fn value(&self, measure: Measure) -> Option<f64> {
        self.best(measure).map(|r| r.value)
    }

    /// Height of the seat's surface above the floor, m, at its low or high
    /// place; the other one where only that is known.
    #[must_use]
    pub fn seat_height(&self, high: bool) -> Option<f64> {
        let (low, top) = (self.value(Measure::SeatLow), self.value(Measure::SeatHigh));
        if high { top.or(low) } else { low.or(top) }
    }

    /// Gaps and contradictions, worst first.
    #[must_use]
    pub fn findings(&self) -> Vec<Finding> {
        let mut found = self.contradictions();
        found.extend(sense::odd(self));
        found.extend(self.gaps());
        found
    }

    fn contradictions(&self) -> Vec<Finding> {
        let mut found = Vec::new();
        let mut say = |text| {
            found.push(Finding::contradiction(text));
        };
        for (&measure, readings) in &self.readings {
            let Some(best) = self.best(measure) else {
                continue;
            };
            for other in readings {
                let apart = (other.value - best.value).abs();
                if apart > measure.tolerance(best.value) {
                    say(format!(
                        "{} reads {} by {} but {} by {}; the {} is used",
                        measure.label(),
                        measure.text(System::Metric, best.value),
                        best.source.label(),
                        measure.text(System::Metric, other.value),
                        other.source.label(),
                        best.source.label(),
                    ));
                }
            }
        }
        let value = |m| self.value(m);
        if let (Some(bare), Some(fitted)) =
            (value(Measure::BareWeight), value(Measure::FittedWeight))
            && bare > fitted
        {
            say(format!(
                "the bare weight ({bare:.0} kg) is above the fitted weight ({fitted:.0} kg): one of them is wrong, and seat and drive cannot be told apart from the hull"
            ));
        }
        if let (Some(floor), Some(depth)) = (value(Measure::FloorHeight), value(Measure::Depth))
            && floor > depth - 0.03
            && self.construction != Construction::Board
        {
            say(format!(
                "the floor ({:.0} mm up) leaves no depth below the gunwale ({:.0} mm)",
                floor * 1e3,
                depth * 1e3
            ));
        }
        if let (Some(transom), Some(beam)) = (value(Measure::TransomWidth), value(Measure::Beam))
            && transom > beam
        {
            say(format!(
                "the transom ({:.0} mm) is wider than the beam ({:.0} mm)",
                transom * 1e3,
                beam * 1e3
            ));
        }
        if let (Some(low), Some(high)) = (value(Measure::SeatLow), value(Measure::SeatHigh))
            && low > high
        {
            say("the low seat is noted higher than the high one".to_owned());
        }
        found
    }

    fn gaps(&self) -> Vec<Finding> {
        let mut found = Vec::new();
        let mut say = |text: &str| {
            found.push(Finding::gap(text));
        };
        let missing = |m| self.value(m).is_none();
        if missing(Measure::Length) {
            say("the length is not known: the hull cannot be floated");
        }
        if missing(Measure::Beam) {
            say("the beam is not known: the hull cannot be floated");
        }
        if missing(Measure::RatedCapacity) {
            say("no rated capacity: only the water decides what it carries");
        } else if self.capacity_basis == CapacityBasis::Unknown {
            say(
                "the maker does not say what the rated capacity counts; seat and drive are counted as load",
            );
        }
        match (missing(Measure::FittedWeight), missing(Measure::BareWeight)) {
            (true, true) => say("no weight at all: guessed from the size, with a wide range"),
            (true, false) => say("only a bare weight: seat and drive are guessed on top"),
            _ => {}
        }
        if self.bottom.is_none() {
            say("nobody looked at the bottom: a shallow arch is assumed");
        }
        if missing(Measure::SeatLow) && missing(Measure::SeatHigh) {
            say("no seat height: a low seat is assumed");
        }
        found
    }
}
