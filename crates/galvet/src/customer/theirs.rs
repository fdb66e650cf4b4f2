//! What stands under a customer's name.

use super::name::{customers, same};
use galvet_core::hull::Trial;
use galvet_store::files::customer::CustomerEntry;
use galvet_store::files::outing::OutingEntry;
use galvet_store::files::stock::BookingEntry;
use galvet_store::{Catalogue, SavedBrief};

/// What stands under a customer's name.
pub(crate) struct Theirs {
    /// What they asked.
    pub(crate) questions: Vec<SavedBrief>,
    /// Hulls they tried: key, name, and how it went.
    pub(crate) trials: Vec<(String, String, Trial)>,
    /// Their outings.
    pub(crate) outings: Vec<OutingEntry>,
    /// Demo boats they have or had.
    pub(crate) bookings: Vec<BookingEntry>,
    /// Hulls they look at: key and name; those that are there.
    pub(crate) hulls: Vec<(String, String)>,
    /// Rigs that are theirs: key and name; those that are there.
    pub(crate) rigs: Vec<(String, String)>,
}

impl Theirs {
    /// What stands under a customer's name in a catalogue.
    pub(crate) fn of(customer: &CustomerEntry, catalogue: &Catalogue) -> Self {
        let name = customer.name.as_str();
        let surveys = || catalogue.hulls.iter().map(|hull| &hull.survey);
        let trials = surveys().flat_map(|survey| {
            let of = move |trial: &Trial| (survey.key.clone(), survey.name(), trial.clone());
            let trials = survey.looked.trials.iter();
            trials.filter(|t| same(&t.who, name)).map(of)
        });
        let hull = |key: &String| {
            let found = surveys().find(|survey| survey.key == *key)?;
            Some((key.clone(), found.name()))
        };
        let rig = |key: &String| {
            let found = catalogue.rigs.iter().find(|rig| rig.key == *key)?;
            Some((key.clone(), found.name.clone()))
        };
        let bookings = catalogue.sheets_of::<BookingEntry>();
        let bookings = bookings.filter(|b| same(&b.who, name));
        let mut bookings: Vec<_> = bookings.cloned().collect();
        bookings.sort_by(|a, b| b.from.cmp(&a.from));
        let outings = catalogue.sheets_of::<OutingEntry>();
        let outings = outings.filter(|o| same(&o.who, name));
        let mut outings: Vec<_> = outings.cloned().collect();
        outings.sort_by(|a, b| b.day.cmp(&a.day));
        let questions = catalogue.briefs.iter();
        Self {
            questions: questions
                .filter(|b| same(&b.customer, name))
                .cloned()
                .collect(),
            trials: trials.collect(),
            outings,
            bookings,
            hulls: customer.hulls.iter().filter_map(hull).collect(),
            rigs: customer.rigs.iter().filter_map(rig).collect(),
        }
    }
}

/// Names that questions carry and no customer has.
pub(crate) fn unrecorded(catalogue: &Catalogue) -> Vec<String> {
    let known = customers(catalogue);
    let mut out: Vec<String> = Vec::new();
    for brief in &catalogue.briefs {
        let name = brief.customer.trim();
        let there = known.iter().any(|c| same(&c.name, name));
        if !name.is_empty() && !there && !out.iter().any(|o| same(o, name)) {
            out.push(name.to_owned());
        }
    }
    out
}
