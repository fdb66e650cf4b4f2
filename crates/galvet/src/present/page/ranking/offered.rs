//! What of the catalogue a part of the sentence offers.

use crate::present::page::ask::waters::conditions;
use crate::question::{NOTHING, PartId};
use galvet_core::base::{Dimension, System};
use galvet_store::Catalogue;
use galvet_store::files::event::EventEntry;

/// One answer a part offers.
#[derive(Default, Clone)]
pub struct Choice {
    /// Word in the address.
    pub key: String,
    /// Plain words.
    pub label: String,
    /// What it means.
    pub note: String,
    /// Whether it is the answer now.
    pub chosen: bool,
    /// Whether it is a customer's.
    pub private: bool,
}

fn choice(key: &str, label: &str, note: String, now: &str) -> Choice {
    Choice {
        key: key.to_owned(),
        label: label.to_owned(),
        note,
        chosen: key == now,
        private: false,
    }
}

/// No event, or one of the catalogue's.
pub(super) fn events(catalogue: &Catalogue, now: &str) -> Vec<Choice> {
    let one = |key: &str, label: &str| choice(key, label, String::new(), now);
    let events = catalogue.sheets_of::<EventEntry>();
    let events = events.map(|e| one(&e.key, &format!("keeps the rules of {}", e.name)));
    std::iter::once(one("", "no event's rules"))
        .chain(events)
        .collect()
}

/// No hull, or one of the catalogue's.
pub(super) fn hulls(catalogue: &Catalogue, now: &str) -> Vec<Choice> {
    let one = |key: &str, label: &str| choice(key, label, String::new(), now);
    let hulls = catalogue.hulls.iter();
    let hulls = hulls.map(|h| one(&h.survey.key, &format!("knows the {}", h.survey.name())));
    std::iter::once(one("", "none known"))
        .chain(hulls)
        .collect()
}

/// Rigs, with none; or waters.
pub(super) fn named(catalogue: &Catalogue, id: PartId, now: &str, system: System) -> Vec<Choice> {
    let mass = |kg| system.text(Dimension::Mass, kg, 0);
    if id != PartId::Rig {
        let waters = catalogue.waters.iter();
        let waters =
            waters.map(|w| choice(&w.key, &w.name, conditions(&w.conditions, system), now));
        return waters.collect();
    }
    let theirs = catalogue.rigs_of_customers();
    let rigs = catalogue.rigs.iter().map(|rig| {
        let (whole, wet) = (mass(rig.loaded()), mass(rig.wet_part()));
        let note = format!("{whole}, {wet} of it water and fish");
        Choice {
            private: theirs.contains_key(rig.key.as_str()),
            ..choice(&rig.key, &rig.name, note, now)
        }
    });
    let note = "but what is said by guess below".to_owned();
    rigs.chain([choice(NOTHING, "nothing", note, now)])
        .collect()
}
