//! The log as people keep it: outings begun and finished, service done, what each outing
//! was foretold and what was read.

mod draft;
mod judge;
mod keep;
mod plan;

pub(crate) use draft::{Thing, outing_table, ramp_table};
pub(crate) use judge::{Reading, judged, of_outing};
pub(crate) use keep::{OutingTyped, add_evidence, begin, edit_outing, put_all, serve, unserve};
pub(crate) use plan::{Laden, asked_on, laden, planned};

use galvet_core::log::{Outing, Served};
use galvet_store::Catalogue;
use galvet_store::files::outing::OutingEntry;
use galvet_store::files::place::PlaceEntry;
use galvet_store::files::served::ServedEntry;
use galvet_store::files::sheet::{Document, SheetKind};

/// Everything in the log, the newest first.
pub(crate) fn outings(catalogue: &Catalogue) -> Vec<&OutingEntry> {
    let mut all: Vec<_> = catalogue.sheets_of::<OutingEntry>().collect();
    all.sort_by(|a, b| b.day.cmp(&a.day).then_with(|| b.key.cmp(&a.key)));
    all
}

/// The same as the core takes them.
pub(crate) fn as_outings(entries: &[&OutingEntry]) -> Vec<Outing> {
    entries
        .iter()
        .map(|&entry| entry.clone().outing())
        .collect()
}

/// Service done.
pub(crate) fn services(catalogue: &Catalogue) -> Vec<Served> {
    let all = catalogue.sheets_of::<ServedEntry>();
    all.map(ServedEntry::served).collect()
}

/// The documents of the log: outings, services, places.
pub(crate) fn documents(catalogue: &Catalogue) -> Vec<Document> {
    let kinds = [
        SheetKind::of::<OutingEntry>(),
        SheetKind::of::<ServedEntry>(),
        SheetKind::of::<PlaceEntry>(),
    ];
    let own = catalogue.sheets.iter().filter(|s| kinds.contains(&s.kind));
    own.cloned().collect()
}
