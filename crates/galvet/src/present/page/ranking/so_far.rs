//! A ranking that is still being worked out: how far it is, and the best of those looked
//! at so far. What is told of a hull is all that is ever told of it; its place is not.

use super::unmet;
use galvet_core::base::System;
use galvet_core::guide::Guides;
use galvet_core::question::Brief;
use galvet_core::rank::{Candidate, Ranked, explain, judge, reach_told, verdict};
use std::sync::Arc;

/// Hulls told of meanwhile.
const TOLD: usize = 5;

/// How far a ranking is.
#[derive(Debug)]
pub struct SoFar {
    /// Hulls looked at, and how many there are.
    pub done: usize,
    /// See `done`.
    pub all: usize,
    /// Of those looked at, how many pass.
    pub passed: usize,
    brief: Arc<Brief>,
    best: Vec<Ranked>,
}

/// A hull told of meanwhile.
#[derive(Debug)]
pub struct Best {
    /// Its key and name.
    pub key: String,
    /// See `key`.
    pub name: String,
    /// What is said of it first.
    pub verdict: String,
    /// What it may do; empty for nothing.
    pub peril: String,
    /// What else is to be minded before it is praised.
    pub minded: Vec<String>,
}

impl SoFar {
    /// Of `all` hulls, those looked at so far.
    #[must_use]
    pub fn of(brief: &Arc<Brief>, seen: Vec<Candidate>, all: usize, guides: &Guides) -> Self {
        let done = seen.len();
        let ranking = judge(brief, seen, guides);
        let mut best = ranking.ranked;
        let passed = best.len();
        best.truncate(TOLD);
        Self {
            done,
            all,
            passed,
            brief: ranking.brief,
            best,
        }
    }

    /// The best of them in words.
    #[must_use]
    pub fn best(&self, system: System) -> Vec<Best> {
        let told = |r: &Ranked| Best {
            key: r.survey().key.clone(),
            name: r.survey().name(),
            verdict: verdict(&r.assessment, &self.brief, system),
            peril: explain::peril(r).unwrap_or_default(),
            minded: reach_told(&r.assessment)
                .into_iter()
                .chain(unmet(r, system))
                .collect(),
        };
        self.best.iter().map(told).collect()
    }
}
