//! The ranking as a table for a spreadsheet: one hull a line, SI.

use super::columns::{COLUMNS, Filed, filed};
use crate::answer::{Afloat, Answered};
use galvet_core::base::{Keyed, System};
use galvet_core::beyond::Extra;
use galvet_core::figures::{Assessment, Quantity};
use galvet_core::hull::Survey;
use galvet_store::files::guarded;
use rayon::prelude::*;
use std::sync::Arc;

/// Writes the ranking; ruled-out hulls follow without a place, with their
/// reasons.
///
/// # Errors
/// What the writer says; writing to memory does not fail.
pub fn ranking(answered: &Answered) -> Result<String, csv::Error> {
    let ranking = &answered.ranking;
    let mut writer = csv::Writer::from_writer(Vec::new());
    let figures = Quantity::ALL.iter().map(|q| q.row().key.to_owned());
    let shares = Quantity::ALL
        .iter()
        .map(|q| format!("{}_share", q.row().key));
    let head = ["place", "hull", "name", "score", "reasons"].map(str::to_owned);
    let columns = COLUMNS.iter().map(|c| c.file).filter(|f| !f.is_empty());
    let columns = columns.map(str::to_owned);
    let extras = Extra::ALL.iter().map(|e| e.row().key.to_owned());
    let figures = figures.chain(shares).chain(columns).chain(extras);
    writer.write_record(head.into_iter().chain(figures))?;
    // What takes longer is worked out side by side first.
    let all: Vec<&Arc<Afloat>> = answered.afloat.values().collect();
    all.par_iter().for_each(|afloat| {
        afloat.beyond(&ranking.brief.day());
    });
    for (i, entry) in ranking.ranked.iter().enumerate() {
        let place = (i + 1).to_string();
        let score = entry.score.total.to_string();
        let cells = cells(answered, entry.survey(), Some(&entry.assessment));
        writer.write_record(line(place, entry.survey(), score, String::new(), cells))?;
    }
    for out in &ranking.ruled_out {
        let reasons: Vec<String> = out.reasons.iter().map(|r| r.text(System::Metric)).collect();
        let cells = cells(answered, &out.survey, out.assessment.as_deref());
        let none = String::new;
        writer.write_record(line(none(), &out.survey, none(), reasons.join("; "), cells))?;
    }
    let bytes = writer.into_inner().map_err(|e| e.into_error())?;
    Ok(String::from_utf8_lossy(&bytes).into_owned())
}

fn line(
    place: String,
    survey: &Survey,
    score: String,
    reasons: String,
    cells: Vec<String>,
) -> impl Iterator<Item = String> {
    // Texts of people, and words: no spreadsheet runs them.
    let [key, name, reasons] = [&survey.key, &survey.name(), &reasons].map(|t| guarded(t));
    [place, key, name, score, reasons].into_iter().chain(cells)
}

/// Medians, the shares of shapes that have the figure, and what stands beside the
/// points, its middle; empty for none.
fn cells(answered: &Answered, survey: &Survey, assessment: Option<&Assessment>) -> Vec<String> {
    let text = |value: Option<f64>| value.map_or(String::new(), |v| v.to_string());
    let medians = Quantity::ALL.iter().map(|&q| {
        let median = assessment.and_then(|a| a.median(q));
        text(median.map(|v| v * q.row().json_scale))
    });
    let shares = Quantity::ALL
        .iter()
        .map(|&q| text(assessment.and_then(|a| a.range(q)).map(|r| r.share)));
    let beside = filed(answered, survey).map(|(_, told)| match told {
        Some(Filed::Number(middle) | Filed::Range([_, middle, _])) => middle.to_string(),
        Some(Filed::Word(word)) => word.to_owned(),
        None => String::new(),
    });
    let afloat = answered.afloat.get(&survey.key);
    let beyond = afloat.map(|a| a.beyond(&answered.ranking.brief.day()));
    let extras = Extra::ALL.iter().map(|&extra| {
        let median = beyond.as_ref().and_then(|b| b.median(extra));
        text(median.map(|v| v * extra.row().scale))
    });
    let beside = medians.chain(shares).chain(beside);
    beside.chain(extras).collect()
}
