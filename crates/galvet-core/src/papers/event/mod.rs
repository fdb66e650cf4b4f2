//! A rig on a hull held against event kit rules: passes, fails with the
//! line and by how much, or not known, which never is a pass. Handbook, chapter 8.6.

mod outcome;

use super::facts::Facts;
use crate::question::{Rule, RuleSet};
use outcome::outcome;

/// How a rule comes out.
#[derive(Debug, Clone, PartialEq)]
pub enum Outcome {
    /// Kept: what was seen.
    Pass(String),
    /// Broken: what, by how much, by which thing.
    Fail(String),
    /// Nobody knows: what would settle it.
    Unknown(String),
    /// For those who run it.
    Printed,
}

/// A rule held against a rig.
#[derive(Debug, Clone, PartialEq)]
pub struct Checked<'r> {
    /// Which.
    pub rule: &'r Rule,
    /// How it comes out.
    pub outcome: Outcome,
}

/// Holds all rules of a set against a rig on a hull.
#[must_use]
pub fn check<'r>(facts: &Facts<'_>, set: &'r RuleSet) -> Vec<Checked<'r>> {
    let all = set.rules.iter().map(|rule| Checked {
        rule,
        outcome: outcome(facts, rule),
    });
    all.collect()
}

/// How many of a check fail, are not known.
#[must_use]
pub fn told(checked: &[Checked<'_>]) -> (usize, usize) {
    let of = |is: fn(&Outcome) -> bool| checked.iter().filter(|c| is(&c.outcome)).count();
    (
        of(|o| matches!(o, Outcome::Fail(_))),
        of(|o| matches!(o, Outcome::Unknown(_))),
    )
}
