//! What was measured afloat, as JSON.

use super::{FileError, check_key, read_json, refused};
use galvet_core::evidence::{Aboard, Datum, Evidence, Reading};
use serde::{Deserialize, Serialize};

/// A file of measurements.
#[derive(Debug, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct EvidenceFile {
    evidence: Vec<HullEvidence>,
}

#[derive(Debug, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct HullEvidence {
    hull: String,
    #[serde(flatten)]
    entry: Entry,
}

/// One measurement with what lay aboard.
#[derive(Debug, Clone, Serialize, Deserialize)]
pub struct Entry {
    aboard_kg: f64,
    aboard_place: f64,
    aboard_height_m: f64,
    reading: ReadingEntry,
}

#[derive(Debug, Clone, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case", deny_unknown_fields)]
enum ReadingEntry {
    /// Tape from the cockpit floor to the water: place, height.
    FloorAboveWater(Vec<(f64, f64)>),
    /// Tape from the gunwale to the water: place, height.
    GunwaleAboveWater(Vec<(f64, f64)>),
    /// Length and beam at the water.
    Waterline { length_m: f64, beam_m: f64 },
    /// Metacentric height from a tilt test.
    Tilt { gm_m: f64, error_m: f64 },
}

impl Entry {
    /// The entry of a measurement.
    #[must_use]
    pub fn of(evidence: &Evidence) -> Self {
        Self {
            aboard_kg: evidence.aboard.mass,
            aboard_place: evidence.aboard.place,
            aboard_height_m: evidence.aboard.height,
            reading: match &evidence.reading {
                Reading::Float {
                    datum: Datum::Floor,
                    heights,
                } => ReadingEntry::FloorAboveWater(heights.clone()),
                Reading::Float {
                    datum: Datum::Gunwale,
                    heights,
                } => ReadingEntry::GunwaleAboveWater(heights.clone()),
                Reading::Waterline { length, beam } => ReadingEntry::Waterline {
                    length_m: *length,
                    beam_m: *beam,
                },
                Reading::Tilt { gm, error } => ReadingEntry::Tilt {
                    gm_m: *gm,
                    error_m: *error,
                },
            },
        }
    }

    /// The checked measurement of an entry.
    ///
    /// # Errors
    /// [`galvet_core::units::OutOfRange`] for the first number out of range.
    pub fn evidence(self) -> Result<Evidence, galvet_core::units::OutOfRange> {
        let float = |datum, heights| Reading::Float { datum, heights };
        Evidence {
            aboard: Aboard {
                mass: self.aboard_kg,
                place: self.aboard_place,
                height: self.aboard_height_m,
            },
            reading: match self.reading {
                ReadingEntry::FloorAboveWater(heights) => float(Datum::Floor, heights),
                ReadingEntry::GunwaleAboveWater(heights) => float(Datum::Gunwale, heights),
                ReadingEntry::Waterline { length_m, beam_m } => Reading::Waterline {
                    length: length_m,
                    beam: beam_m,
                },
                ReadingEntry::Tilt { gm_m, error_m } => Reading::Tilt {
                    gm: gm_m,
                    error: error_m,
                },
            },
        }
        .check()
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
                .map_err(|error| refused(file, &item.hull, error))?;
            Ok((item.hull, evidence))
        })
        .collect()
}
