//! Kinds of records that have a list and a page each, and nothing of their own beside:
//! what their pages say.

use super::kept::{self, About, OnPage, Told, Words};
use super::shared::Shared;
use crate::present::page::ask::waters::{conditions, demand, facts};
use galvet_core::base::System;
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

/// The pages of all of them.
pub(super) fn routes() -> Vec<Route> {
    [kept::listed::<Water>()].concat()
}

/// Where each is listed, and what the list is called.
pub(super) fn lists() -> Vec<(&'static str, &'static str)> {
    vec![kept::list_of::<Water>()]
}
