//! What is noted of a hull one by one: a reading of a measure, a test paddle, an odd figure
//! somebody stands by; their forms.

use crate::form::{
    Draft, Mistakes, Table, choice, day, line, maybe_choice, note, number, tick, whole,
};
use galvet_core::base::Keyed;
use galvet_core::hull::{Felt, Kept, Measure, Reading, Source, Trial};

/// Longest note of either, characters.
const LONGEST: usize = 1_000;

whole!(Reading);

/// A reading nobody has typed yet, of a day.
pub(crate) fn usual_reading(date: String) -> Reading {
    Reading {
        value: f64::NAN,
        source: Source::Tape,
        date,
        who: String::new(),
        note: String::new(),
        error: None,
    }
}

/// The form of a reading of a measure.
pub(crate) fn reading_form(measure: Measure) -> Table<Reading> {
    type R = Reading;
    Table::plain(vec![
        number("value", measure.label(), measure.bounds(), |r: &mut R| {
            &mut r.value
        }),
        choice("source", "from", |r: &mut R| &mut r.source),
        day("date", "day", |r: &mut R| &mut r.date),
        line("who", "who", |r: &mut R| &mut r.who),
        note("note", "note", LONGEST, |r: &mut R| &mut r.note),
    ])
}

/// A test paddle as it is typed: how it felt has to be said.
#[derive(Debug, Clone)]
pub(crate) struct TrialDraft {
    trial: Trial,
    felt: Option<Felt>,
}

impl Draft for TrialDraft {
    type Record = Trial;

    fn of(trial: &Trial) -> Self {
        Self {
            trial: trial.clone(),
            felt: None,
        }
    }

    fn made(self) -> Result<Trial, Mistakes> {
        let unsaid = || Mistakes::from([("felt".to_owned(), "say how it felt".to_owned())]);
        Ok(Trial {
            felt: self.felt.ok_or_else(unsaid)?,
            ..self.trial
        })
    }
}

/// A test paddle nobody has typed yet, of a day.
pub(crate) fn usual_trial(date: String) -> Trial {
    Trial {
        who: String::new(),
        date,
        stood: false,
        felt: Felt::Steady,
        note: String::new(),
    }
}

/// The form of a test paddle.
pub(crate) fn trial_form() -> Table<TrialDraft> {
    type T = TrialDraft;
    Table::plain(vec![
        line("who", "who", |t: &mut T| &mut t.trial.who),
        day("date", "day", |t: &mut T| &mut t.trial.date),
        maybe_choice("felt", "how it felt", "say how", |t: &mut T| &mut t.felt),
        note("note", "note", LONGEST, |t: &mut T| &mut t.trial.note),
        tick("stood", "stood in it", |t: &mut T| &mut t.trial.stood),
    ])
}

whole!(Kept);

/// The form of standing by an odd figure: who, and why.
pub(crate) fn stand_by_form() -> Table<Kept> {
    Table::plain(vec![
        line("who", "who", |k: &mut Kept| &mut k.who),
        note("why", "why", LONGEST, |k: &mut Kept| &mut k.why),
    ])
}
