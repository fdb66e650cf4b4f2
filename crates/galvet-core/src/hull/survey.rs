//! What is known of a hull, figure by figure, each with its source.

use super::evidence::Evidence;
use super::fitout::Fitout;
use super::kinds::{BottomShape, CapacityBasis, Construction, Origin, Propulsion, Source};
use super::looked::Looked;
use super::measure::Measure;
use super::station::Station;
use crate::base::{Bounds, OutOfRange};
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
    /// Its standard error, SI, where it came with one of its own; else its source's usual
    /// one holds.
    pub error: Option<f64>,
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
            error: None,
        })
    }
}

impl Reading {
    /// The same with a standard error of its own, SI.
    ///
    /// # Errors
    /// [`OutOfRange`] when it is none: less than nothing, or more than the measure spans.
    pub fn with_error(self, measure: Measure, error: Option<f64>) -> Result<Self, OutOfRange> {
        let within = measure.bounds();
        let accepted = Bounds::new("a reading's error", within.dimension, 0.0, within.hi);
        let error = error.map(|e| accepted.check(e)).transpose()?;
        Ok(Self { error, ..self })
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
    /// What was looked at and judged.
    pub looked: Looked,
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
}
