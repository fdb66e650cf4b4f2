//! A whole hull record as one JSON document: everything Galvet knows of it,
//! readings with their circumstances, evidence and measured sections too.

use super::evidence::Entry;
use super::fitout::FitoutDoc;
use super::hulls::HullRecord;
use super::looked::LookedDoc;
use super::{check_key, keyed, word};
use galvet_core::base::Keyed;
use galvet_core::body::offsets;
use galvet_core::hull::{
    BottomShape, CapacityBasis, Construction, Measure, Origin, Propulsion, Reading, Source,
    Station, Survey,
};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;

/// A hull document.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct HullDoc {
    /// Stable key.
    pub key: String,
    maker: String,
    model: String,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    year: Option<u16>,
    #[schemars(with = "keyed::Word<Construction>")]
    construction: String,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schemars(with = "Option<keyed::Word<BottomShape>>")]
    bottom: Option<String>,
    #[schemars(with = "keyed::Word<Propulsion>")]
    propulsion: String,
    #[serde(default)]
    drive_lifts: bool,
    #[serde(default)]
    tracks_straight: bool,
    #[serde(default = "one")]
    seats: u8,
    #[serde(default)]
    fitted_includes: String,
    #[schemars(with = "keyed::Word<CapacityBasis>")]
    capacity_basis: String,
    #[serde(default = "maker")]
    #[schemars(with = "keyed::Word<Origin>")]
    origin: String,
    #[serde(default)]
    notes: String,
    #[serde(default)]
    readings: BTreeMap<String, Vec<ReadingDoc>>,
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    evidence: Vec<Entry>,
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    offsets: Vec<StationDoc>,
    #[serde(default, skip_serializing_if = "FitoutDoc::is_empty")]
    fitout: FitoutDoc,
    #[serde(default, skip_serializing_if = "LookedDoc::is_empty")]
    looked: LookedDoc,
    /// Columns of a file Galvet does not know.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    extra: BTreeMap<String, String>,
}

#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
struct ReadingDoc {
    value: f64,
    #[schemars(with = "keyed::Word<Source>")]
    source: String,
    #[serde(default, skip_serializing_if = "String::is_empty")]
    date: String,
    #[serde(default, skip_serializing_if = "String::is_empty")]
    who: String,
    #[serde(default, skip_serializing_if = "String::is_empty")]
    note: String,
    /// Standard error, SI, where the reading came with one of its own.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    error: Option<f64>,
}

#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
struct StationDoc {
    x_m: f64,
    /// Half-breadths and heights, m.
    points_m: Vec<(f64, f64)>,
}

const fn one() -> u8 {
    1
}

fn maker() -> String {
    Origin::Maker.key().to_owned()
}

impl HullDoc {
    /// The document of a record.
    #[must_use]
    pub fn of(record: &HullRecord) -> Self {
        let s = &record.survey;
        let reading = |r: &Reading| ReadingDoc {
            value: r.value,
            source: r.source.key().to_owned(),
            date: r.date.clone(),
            who: r.who.clone(),
            note: r.note.clone(),
            error: r.error,
        };
        Self {
            key: s.key.clone(),
            maker: s.maker.clone(),
            model: s.model.clone(),
            year: s.year,
            construction: s.construction.key().to_owned(),
            bottom: s.bottom.map(|b| b.key().to_owned()),
            propulsion: s.propulsion.key().to_owned(),
            drive_lifts: s.drive_lifts,
            tracks_straight: s.tracks_straight,
            seats: s.seats,
            fitted_includes: s.fitted_includes.clone(),
            capacity_basis: s.capacity_basis.key().to_owned(),
            origin: s.origin.key().to_owned(),
            notes: s.notes.clone(),
            readings: s
                .readings
                .iter()
                .map(|(m, all)| (m.key().to_owned(), all.iter().map(reading).collect()))
                .collect(),
            evidence: s.evidence.iter().map(Entry::of).collect(),
            offsets: s
                .offsets
                .iter()
                .map(|station| StationDoc {
                    x_m: station.x,
                    points_m: station.points.clone(),
                })
                .collect(),
            fitout: FitoutDoc::of(&s.fitout),
            looked: LookedDoc::of(&s.looked),
            extra: record.extra.clone(),
        }
    }

    /// The checked record of a document.
    ///
    /// # Errors
    /// What is wrong and what would be accepted.
    pub fn record(self) -> Result<HullRecord, String> {
        check_key(&self.key)?;
        if !(1..=4).contains(&self.seats) {
            return Err("a kayak has 1 to 4 seats".to_owned());
        }
        let mut readings: BTreeMap<Measure, Vec<Reading>> = BTreeMap::new();
        for (name, all) in self.readings {
            let measure: Measure = word("measure", &name)?;
            for doc in all {
                let source = word("source", &doc.source)?;
                let reading =
                    Reading::new(measure, doc.value, source).map_err(|e| e.to_string())?;
                let reading = reading.with_error(measure, doc.error);
                let reading = reading.map_err(|e| e.to_string())?;
                readings.entry(measure).or_default().push(Reading {
                    date: doc.date,
                    who: doc.who,
                    note: doc.note,
                    ..reading
                });
            }
        }
        let stations: Vec<Station> = self
            .offsets
            .into_iter()
            .map(|doc| Station {
                x: doc.x_m,
                points: doc.points_m,
            })
            .collect();
        if !stations.is_empty() {
            offsets::body(&stations).map_err(|e| format!("station {}: {e}", e.station + 1))?;
        }
        Ok(HullRecord {
            survey: Survey {
                key: self.key,
                maker: self.maker,
                model: self.model,
                year: self.year,
                construction: word("construction", &self.construction)?,
                bottom: self.bottom.map(|b| word("bottom", &b)).transpose()?,
                propulsion: word("propulsion", &self.propulsion)?,
                drive_lifts: self.drive_lifts,
                tracks_straight: self.tracks_straight,
                seats: self.seats,
                fitted_includes: self.fitted_includes,
                capacity_basis: word("capacity basis", &self.capacity_basis)?,
                origin: word("origin", &self.origin)?,
                notes: self.notes,
                readings,
                evidence: self
                    .evidence
                    .into_iter()
                    .map(Entry::evidence)
                    .collect::<Result<_, _>>()?,
                offsets: stations,
                fitout: self.fitout.fitout()?,
                looked: self.looked.looked()?,
            },
            extra: self.extra,
        })
    }
}
