//! What is said of a hull in words, and how it was judged: their forms.

use crate::form::{
    Field, Table, answer, choice, count, line, maybe_choice, name, note, tick, whole,
};
use galvet_core::base::Keyed;
use galvet_core::hull::{Judgement, Survey};

/// Longest notes taken.
const LONGEST: usize = 10_000;
/// Years a hull can be of, and seats it can have.
const YEARS: (u16, u16, bool) = (1900, 2100, true);
const SEATS: (u16, u16, bool) = (1, 4, false);

whole!(Survey);

/// The form of a hull's words.
pub(crate) fn words_form() -> Table<Survey> {
    type S = Survey;
    Table::plain(vec![
        line("maker", "maker", |s: &mut S| &mut s.maker),
        name("model", "model", |s: &mut S| &mut s.model),
        count("year", "year", YEARS, |s: &mut S| &mut s.year),
        choice("construction", "construction", |s: &mut S| {
            &mut s.construction
        }),
        maybe_choice("bottom", "bottom", "nobody looked", |s: &mut S| {
            &mut s.bottom
        }),
        choice("propulsion", "driven by", |s: &mut S| &mut s.propulsion),
        tick(
            "drive-lifts",
            "the drive lifts clear without leaving the seat",
            |s: &mut S| &mut s.drive_lifts,
        ),
        tick("tracks-straight", "rudder or skeg fitted", |s: &mut S| {
            &mut s.tracks_straight
        }),
        count("seats", "seats", SEATS, |s: &mut S| &mut s.seats),
        choice("basis", "the rated capacity counts", |s: &mut S| {
            &mut s.capacity_basis
        }),
        choice("origin", "made by", |s: &mut S| &mut s.origin),
        note(
            "includes",
            "what the fitted weight includes",
            LONGEST,
            |s: &mut S| &mut s.fitted_includes,
        ),
        note("notes", "notes", LONGEST, |s: &mut S| &mut s.notes),
    ])
}

fn judgement(judgement: Judgement) -> Field<Survey> {
    let offered = [("", "nobody looked")];
    let offered = offered
        .into_iter()
        .chain(judgement.answers().iter().copied());
    let shown = move |s: &mut Survey| {
        let word = s.looked.judged.get(&judgement);
        word.map_or(String::new(), |word| (*word).to_owned())
    };
    let set = move |s: &mut Survey, typed: &str| {
        if typed.is_empty() {
            s.looked.judged.remove(&judgement);
            return Ok(());
        }
        let (word, _) = judgement.answer(typed).ok_or("that is not an answer")?;
        s.looked.judged.insert(judgement, word);
        Ok(())
    };
    answer(
        judgement.key(),
        judgement.label(),
        offered.collect(),
        shown,
        set,
    )
}

/// The form of what is judged of it.
pub(crate) fn judged_form() -> Table<Survey> {
    Table::plain(Judgement::ALL.iter().copied().map(judgement).collect())
}
