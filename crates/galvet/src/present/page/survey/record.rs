//! A hull's record as it is worked on: every reading, words, history.

use crate::form::{self, FormView};
use crate::survey::{reading_form, usual_reading, words_form};
use galvet_core::base::{Keyed, System};
use galvet_core::hull::Finding;
use galvet_core::hull::{Measure, Reading};
use galvet_store::files::hulls::HullRecord;
use galvet_store::{Change, Known};

/// A reading on the record.
pub struct ReadingLine {
    pub value: String,
    /// "tape, 2026-04-12, Ana".
    pub from: String,
    pub note: String,
    /// Whether it is the one gone by.
    pub used: bool,
    /// What the form sends to name it.
    pub name: String,
}

/// A measure with its readings.
pub struct MeasureLine {
    pub key: &'static str,
    pub label: &'static str,
    pub readings: Vec<ReadingLine>,
    /// The form of another.
    pub form: FormView,
    /// Whether it was sent and not taken.
    pub open: bool,
}

/// A line of the history.
pub struct HistoryLine {
    pub label: String,
    pub who: String,
    pub when: String,
    pub revision: i64,
    /// Whether the record stands at it now.
    pub now: bool,
}

/// The page.
pub struct RecordView {
    pub key: String,
    pub name: String,
    /// Its revision, as it is shown.
    pub revision: i64,
    pub measures: Vec<MeasureLine>,
    pub words: FormView,
    pub history: Vec<HistoryLine>,
    pub findings: Vec<Finding>,
    /// Odd figures somebody stands by, and who says why.
    pub stood_by: Vec<(String, String)>,
}

/// What somebody typed that was not taken.
#[derive(Debug, Clone, Default)]
pub struct NotTaken {
    /// The measure whose reading it was; none for the words.
    pub measure: Option<Measure>,
    /// Why not.
    pub problem: String,
    /// As typed, and what was not understood of it.
    pub form: form::NotTaken,
    /// Where the form stood; empty for the record itself.
    pub back: String,
}

/// Makes the page.
#[must_use]
pub fn record(
    hull: &HullRecord,
    known: Known,
    history: &[Change],
    not_taken: &NotTaken,
    (today, system): (&str, System),
) -> RecordView {
    let survey = &hull.survey;
    let untouched = form::NotTaken::default();
    let words = match not_taken.measure {
        Some(_) => &untouched,
        None => &not_taken.form,
    };
    let measures = Measure::ALL.iter().map(|&m| {
        let best = survey.best(m);
        let readings = survey.readings.get(&m).map_or(&[][..], Vec::as_slice);
        let mine = not_taken.measure == Some(m);
        let not_taken = if mine { &not_taken.form } else { &untouched };
        MeasureLine {
            key: m.key(),
            label: m.label(),
            readings: readings
                .iter()
                .rev()
                .map(|r| reading(m, r, best, system))
                .collect(),
            form: reading_form(m).form(&usual_reading(today.to_owned()), true, not_taken, system),
            open: mine,
        }
    });
    RecordView {
        key: survey.key.clone(),
        name: survey.name(),
        revision: known.revision,
        measures: measures.collect(),
        words: words_form().form(survey, false, words, system),
        history: history.iter().map(|c| line(c, known)).collect(),
        findings: survey.findings(),
        stood_by: survey
            .stood_by()
            .into_iter()
            .map(|(finding, kept)| (finding.text, kept.words()))
            .collect(),
    }
}

fn reading(measure: Measure, r: &Reading, best: Option<&Reading>, system: System) -> ReadingLine {
    let error = r.error.map(|e| {
        let row = measure.row();
        format!("± {}", system.text(row.dimension, e, row.decimals))
    });
    let error = error.unwrap_or_default();
    let parts = [r.source.label(), &error, &r.date, &r.who];
    let parts: Vec<&str> = parts.into_iter().filter(|p| !p.is_empty()).collect();
    ReadingLine {
        value: measure.text(system, r.value),
        from: parts.join(", "),
        note: r.note.clone(),
        used: best.is_some_and(|b| std::ptr::eq(b, r)),
        name: reading_name(r),
    }
}

/// A reading told from its fellows: every field of it.
#[must_use]
pub fn reading_name(r: &Reading) -> String {
    format!(
        "{:?}",
        (r.value, r.source.key(), &r.date, &r.who, &r.note, r.error)
    )
}

fn line(change: &Change, known: Known) -> HistoryLine {
    HistoryLine {
        label: change.label.clone(),
        who: change.who.clone(),
        when: when(change.at),
        revision: change.known.revision,
        now: change.known.revision == known.revision,
    }
}

/// A moment, milliseconds since 1970, as date and time (UTC); empty for one
/// nobody noted.
#[must_use]
pub fn when(at: i64) -> String {
    use rocket::time::OffsetDateTime;
    if at == 0 {
        return String::new();
    }
    match OffsetDateTime::from_unix_timestamp(at.div_euclid(1000)) {
        Ok(t) => format!(
            "{:04}-{:02}-{:02} {:02}:{:02} UTC",
            t.year(),
            u8::from(t.month()),
            t.day(),
            t.hour(),
            t.minute()
        ),
        Err(_) => String::new(),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn moments_are_told_in_figures() {
        assert_eq!(when(0), "");
        assert_eq!(when(1_795_622_460_000), "2026-11-25 16:01 UTC");
        assert_eq!(when(i64::MAX), "");
    }
}
