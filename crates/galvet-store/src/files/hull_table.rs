//! Hulls out as CSV, to be read back the same, also after a spreadsheet had them.
//!
//! Zones, fittings, evidence, sections, and who took a reading travel in JSON.

use super::guard::guarded;
use super::hulls::{HullRecord, WORD_COLUMNS};
use galvet_core::base::{Dimension, Keyed};
use galvet_core::hull::{Measure, Reading};
use std::collections::BTreeSet;

/// Column of a measure: its name with the unit its numbers are in.
pub(super) fn column(measure: Measure) -> String {
    match measure.bounds().dimension {
        Dimension::Mass => format!("{}_kg", measure.key()),
        Dimension::Length | Dimension::ShortLength | Dimension::FineLength => {
            format!("{}_m", measure.key())
        }
        _ => measure.key().to_owned(),
    }
}

/// `3.76 (brochure) | 3.81 (tape, 2026-04-12) | 3.79 (photo, ±0.03)`.
fn cell(readings: &[Reading]) -> String {
    let one = |r: &Reading| {
        let date = if r.date.is_empty() {
            String::new()
        } else {
            format!(", {}", r.date)
        };
        let error = r.error.map_or(String::new(), |e| format!(", ±{e}"));
        format!("{} ({}{date}{error})", r.value, r.source.key())
    };
    readings.iter().map(one).collect::<Vec<_>>().join(" | ")
}

/// Writes hulls as a table.
///
/// # Errors
/// None that writing to memory could have; in the CSV writer's words.
pub fn write(hulls: &[HullRecord]) -> Result<String, csv::Error> {
    let measures: Vec<Measure> = Measure::ALL
        .iter()
        .copied()
        .filter(|m| hulls.iter().any(|h| h.survey.readings.contains_key(m)))
        .collect();
    let extra: BTreeSet<&str> = hulls
        .iter()
        .flat_map(|h| h.extra.keys().map(String::as_str))
        .collect();
    let words: Vec<&str> = WORD_COLUMNS.into_iter().filter(|w| !w.is_empty()).collect();
    let mut out = csv::Writer::from_writer(Vec::new());
    let headers = words.iter().map(|&w| w.to_owned());
    let headers = headers.chain(measures.iter().map(|&m| column(m)));
    out.write_record(headers.chain(extra.iter().map(|&e| e.to_owned())))?;
    for hull in hulls {
        let words = words.iter().map(|word| text(hull, word));
        let readings = |m: &Measure| {
            hull.survey
                .readings
                .get(m)
                .map_or(String::new(), |r| cell(r))
        };
        let figures = measures.iter().map(readings);
        let extra = extra.iter().map(|&name| {
            let value = hull.extra.get(name).map_or("", String::as_str);
            guarded(value)
        });
        out.write_record(words.chain(figures).chain(extra))?;
    }
    let bytes = out
        .into_inner()
        .map_err(|e| csv::Error::from(e.into_error()))?;
    Ok(String::from_utf8_lossy(&bytes).into_owned())
}

/// What stands in a column of words.
fn text(hull: &HullRecord, column: &str) -> String {
    let s = &hull.survey;
    let yes = |is: bool| if is { "yes" } else { "no" }.to_owned();
    match column {
        "key" => guarded(&s.key),
        "maker" => guarded(&s.maker),
        "model" => guarded(&s.model),
        "year" => s.year.map_or(String::new(), |y| y.to_string()),
        "construction" => s.construction.key().to_owned(),
        "bottom" => s.bottom.map_or(String::new(), |b| b.key().to_owned()),
        "propulsion" => s.propulsion.key().to_owned(),
        "drive_lifts" => yes(s.drive_lifts),
        "tracks_straight" => yes(s.tracks_straight),
        "seats" => s.seats.to_string(),
        "fitted_includes" => guarded(&s.fitted_includes),
        "capacity_basis" => s.capacity_basis.key().to_owned(),
        "origin" => s.origin.key().to_owned(),
        "notes" => guarded(&s.notes),
        _ => String::new(),
    }
}
