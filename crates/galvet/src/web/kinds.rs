//! Kinds of records that have a list and a page each, and nothing of their own beside:
//! what their pages say.

use super::kept::{self, About, OnPage, Told, Words};
use super::shared::Shared;
use crate::kit::EventDraft;
use crate::present::page::ask::waters::{conditions, demand, facts};
use galvet_core::base::System;
use galvet_core::papers::{RuleKind, RuleSet};
use galvet_core::question::Water;
use galvet_store::Catalogue;
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

/// The pages of all of them.
pub(super) fn routes() -> Vec<Route> {
    [kept::listed::<Water>(), kept::listed::<EventDraft>()].concat()
}

/// Where each is listed, and what the list is called.
pub(super) fn lists() -> Vec<(&'static str, &'static str)> {
    vec![kept::list_of::<Water>(), kept::list_of::<EventDraft>()]
}
