//! Kinds of records that have a list and a page each, and nothing of their own beside:
//! what their pages say.

use super::kept::{self, About, OnPage, Told, Words};
use super::shared::Shared;
use crate::kit::{EventDraft, PlaceDraft};
use crate::present::page::ask::waters::{conditions, demand, facts};
use galvet_core::base::{Dimension, System};
use galvet_core::papers::{RuleKind, RuleSet};
use galvet_core::question::Water;
use galvet_store::Catalogue;
use galvet_store::files::place::PlaceEntry;
use rocket::Route;

impl OnPage for Water {
    const LIST: &'static str = "/waters";
    const NEW: &'static str = "/new-water";
    const PLACE: &'static str = "waters";
    const WORDS: Words = Words {
        list: ["Waters", "the waters"],
        hint: "What each kind of water asks of a hull. Guide values, yours to change; the local \
               forecast, rules and your own limits stand above them.",
        new: "A new water",
        acts: ["Add this water", "Delete"],
    };

    fn about(water: Option<&Self>, _: &Catalogue, _: &Shared) -> About {
        About {
            demand: water.map(demand),
            ..About::default()
        }
    }

    fn told(water: &Self, system: System) -> Told {
        Told {
            words: conditions(&water.conditions, system),
            facts: facts(water, system),
            notes: water.cautions.clone(),
            demand: Some(demand(water)),
        }
    }
}

impl OnPage for EventDraft {
    const LIST: &'static str = "/events";
    const NEW: &'static str = "/new-event";
    const PLACE: &'static str = "papers";
    const WORDS: Words = Words {
        list: ["Event rules", "the events"],
        hint: "What an event asks of a rig, as data: a rig on a hull is held against it on the \
               hull's paper “Event rules”. What nobody knows is never a pass. The event's own \
               words and its stewards decide.",
        new: "A new event",
        acts: ["Add this event", "Delete"],
    };

    fn told(set: &RuleSet, _: System) -> Told {
        let printed = set.rules.iter().filter(|r| r.kind == RuleKind::Conduct);
        let checked = set.rules.len() - printed.count();
        Told {
            words: set.note.clone(),
            facts: vec![
                ("rules", set.rules.len().to_string()),
                ("checked here", checked.to_string()),
            ],
            ..Told::default()
        }
    }
}

impl OnPage for PlaceDraft {
    const LIST: &'static str = "/places";
    const NEW: &'static str = "/new-place";
    const PLACE: &'static str = "log";
    const WORDS: Words = Words {
        list: ["Places", "the places"],
        hint: "Where you launch: the ramp, the tide as harmonic constants, what is foretold by \
               the hour. The tide table, the real forecast and the local warnings stand above it.",
        new: "A new place",
        acts: ["Add this place", "Delete"],
    };

    fn told(place: &PlaceEntry, system: System) -> Told {
        let depth = |m: f64| system.text(Dimension::Length, m, 1);
        let mut facts = Vec::new();
        if let Some(ramp) = place.ramp_m {
            facts.push(("ramp at datum", depth(ramp)));
        }
        if let Some(bar) = place.bar_m {
            facts.push(("bar at datum", depth(bar)));
        }
        facts.push(("parts of its tide", place.tide.len().to_string()));
        facts.push(("hours foretold", place.forecast.len().to_string()));
        Told {
            words: place.note.clone(),
            facts,
            notes: if place.simulated {
                vec!["Simulated: tide and forecast are made up.".to_owned()]
            } else {
                Vec::new()
            },
            ..Told::default()
        }
    }
}

/// The pages of all of them.
pub(super) fn routes() -> Vec<Route> {
    [
        kept::listed::<Water>(),
        kept::listed::<EventDraft>(),
        kept::listed::<PlaceDraft>(),
    ]
    .concat()
}

/// Where each is listed, and what the list is called.
pub(super) fn lists() -> Vec<(&'static str, &'static str)> {
    vec![
        kept::list_of::<Water>(),
        kept::list_of::<EventDraft>(),
        kept::list_of::<PlaceDraft>(),
    ]
}
