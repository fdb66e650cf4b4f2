//! What was measured afloat, as JSON.

use super::{FileError, check_key, read_json, word};
use galvet_core::base::{Keyed, OutOfRange};
use galvet_core::hull::{Aboard, Datum, Evidence, FloatReading, Scuppers};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

/// A file of measurements.
#[derive(Debug, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
struct EvidenceFile {
    evidence: Vec<HullEvidence>,
}

#[derive(Debug, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
struct HullEvidence {
    hull: String,
    #[serde(flatten)]
    entry: Entry,
}

/// One measurement with what lay aboard.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema)]
pub struct Entry {
    aboard_kg: f64,
    aboard_place: f64,
    aboard_height_m: f64,
    /// The water it was made in; fresh when left out.
    #[serde(default = "fresh")]
    density_kg_m3: f64,
    /// The scuppers' state meanwhile; open when left out.
    #[serde(default = "open")]
    scuppers: String,
    #[serde(default, skip_serializing_if = "String::is_empty")]
    date: String,
    reading: ReadingEntry,
}

const fn fresh() -> f64 {
    Evidence::FRESH
}

fn open() -> String {
    Scuppers::Open.key().to_owned()
}

#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema)]
#[serde(rename_all = "kebab-case", deny_unknown_fields)]
enum ReadingEntry {
    /// Tape from the cockpit floor to the water: place, height.
    FloorAboveWater(Vec<(f64, f64)>),
    /// Tape from the gunwale to the water: place, height.
    GunwaleAboveWater(Vec<(f64, f64)>),
    /// Length and beam at the water.
    Waterline { length_m: f64, beam_m: f64 },
    /// Metacentric height from a tilt test.
    Tilt {
        gm_m: f64,
        error_m: f64,
        /// Each reading: moment moved over g, kg·m, and heel, °, the list taken off.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        shifts: Vec<(f64, f64)>,
    },
    /// Drift beam-on: over the water, in a wind at the boat, and what people and kit show
    /// to it, C·A in m².
    Drift {
        drift_mps: f64,
        wind_mps: f64,
        shows_m2: f64,
    },
    /// Speed through the water kept up in calm, with so much effort.
    Speed {
        speed_mps: f64,
        effort_w: f64,
        by: String,
    },
    /// From brim-full until the floor was clear.
    Drain { seconds: f64 },
}

impl Entry {
    /// The entry of a measurement.
    #[must_use]
    pub fn of(evidence: &Evidence) -> Self {
        Self {
            aboard_kg: evidence.aboard.mass,
            aboard_place: evidence.aboard.place,
            aboard_height_m: evidence.aboard.height,
            density_kg_m3: evidence.density,
            scuppers: evidence.scuppers.key().to_owned(),
            date: evidence.date.clone(),
            reading: match &evidence.reading {
                FloatReading::Heights {
                    datum: Datum::Floor,
                    heights,
                } => ReadingEntry::FloorAboveWater(heights.clone()),
                FloatReading::Heights {
                    datum: Datum::Gunwale,
                    heights,
                } => ReadingEntry::GunwaleAboveWater(heights.clone()),
                FloatReading::Waterline { length, beam } => ReadingEntry::Waterline {
                    length_m: *length,
                    beam_m: *beam,
                },
                FloatReading::Tilt { gm, error, shifts } => ReadingEntry::Tilt {
                    gm_m: *gm,
                    error_m: *error,
                    shifts: shifts.clone(),
                },
                &FloatReading::Drift { speed, wind, shows } => ReadingEntry::Drift {
                    drift_mps: speed,
                    wind_mps: wind,
                    shows_m2: shows,
                },
                &FloatReading::Speed { speed, watts, by } => ReadingEntry::Speed {
                    speed_mps: speed,
                    effort_w: watts,
                    by: by.key().to_owned(),
                },
                &FloatReading::Drain { seconds } => ReadingEntry::Drain { seconds },
            },
        }
    }

    /// The checked measurement of an entry.
    ///
    /// # Errors
    /// What is wrong: the first number out of range, or an unknown word.
    pub fn evidence(self) -> Result<Evidence, String> {
        let heights = |datum, heights| FloatReading::Heights { datum, heights };
        let scuppers = word("state of the scuppers", &self.scuppers)?;
        Evidence {
            aboard: Aboard {
                mass: self.aboard_kg,
                place: self.aboard_place,
                height: self.aboard_height_m,
            },
            density: self.density_kg_m3,
            scuppers,
            date: self.date,
            reading: match self.reading {
                ReadingEntry::FloorAboveWater(read) => heights(Datum::Floor, read),
                ReadingEntry::GunwaleAboveWater(read) => heights(Datum::Gunwale, read),
                ReadingEntry::Waterline { length_m, beam_m } => FloatReading::Waterline {
                    length: length_m,
                    beam: beam_m,
                },
                ReadingEntry::Tilt {
                    gm_m,
                    error_m,
                    shifts,
                } => FloatReading::Tilt {
                    gm: gm_m,
                    error: error_m,
                    shifts,
                },
                ReadingEntry::Drift {
                    drift_mps,
                    wind_mps,
                    shows_m2,
                } => FloatReading::Drift {
                    speed: drift_mps,
                    wind: wind_mps,
                    shows: shows_m2,
                },
                ReadingEntry::Speed {
                    speed_mps,
                    effort_w,
                    by,
                } => FloatReading::Speed {
                    speed: speed_mps,
                    watts: effort_w,
                    by: word("way it was driven", &by)?,
                },
                ReadingEntry::Drain { seconds } => FloatReading::Drain { seconds },
            },
        }
        .check()
        .map_err(|error: OutOfRange| error.to_string())
    }

    /// The word that names the kind of reading, and the reading itself as JSON.
    pub(crate) fn parts(&self) -> Result<(String, String), serde_json::Error> {
        let value = serde_json::to_value(&self.reading)?;
        let named = value.as_object().and_then(|o| o.iter().next());
        let (kind, reading) = named.map_or(("", &serde_json::Value::Null), |(k, v)| (k, v));
        Ok((kind.to_owned(), reading.to_string()))
    }

    /// An entry from what a database keeps apart.
    pub(crate) fn from_parts(
        aboard: Aboard,
        density: f64,
        scuppers: String,
        date: String,
        (kind, reading): (&str, &str),
    ) -> Result<Self, serde_json::Error> {
        let reading: serde_json::Value = serde_json::from_str(reading)?;
        let mut named = serde_json::Map::new();
        named.insert(kind.to_owned(), reading);
        Ok(Self {
            aboard_kg: aboard.mass,
            aboard_place: aboard.place,
            aboard_height_m: aboard.height,
            density_kg_m3: density,
            scuppers,
            date,
            reading: serde_json::from_value(named.into())?,
        })
    }
}

/// Reads measurements: the hull's key and the measurement.
///
/// # Errors
/// [`FileError`] naming hull and range.
pub fn read(file: &str, text: &str) -> Result<Vec<(String, Evidence)>, FileError> {
    let parsed: EvidenceFile = read_json(file, text)?;
    parsed
        .evidence
        .into_iter()
        .map(|item| {
            check_key(&item.hull).map_err(|problem| FileError::whole(file, problem))?;
            let evidence = item
                .entry
                .evidence()
                .map_err(|problem| FileError::whole(file, format!("{}: {problem}", item.hull)))?;
            Ok((item.hull, evidence))
        })
        .collect()
}
