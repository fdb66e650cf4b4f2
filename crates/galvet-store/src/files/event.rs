//! Event kit rules as a document.

use super::keyed;
use super::sheet::Sheet;
use galvet_core::base::{Bounds, Dimension};
use galvet_core::gear::{Fixing, Serves};
use galvet_core::papers::{Effect, Op, Proof, Rule, RuleKind, RuleSet};
use serde::{Deserialize, Serialize};
use std::collections::BTreeSet;

/// Rules of one event. Lengths in m, masses in kg, power in W, insides in m³.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct EventEntry {
    /// Stable key.
    pub key: String,
    /// What it is called.
    pub name: String,
    /// The rules.
    #[serde(default)]
    pub rules: Vec<RuleEntry>,
    /// Anything else.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub note: String,
}

/// One rule.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct RuleEntry {
    id: String,
    #[serde(default, skip_serializing_if = "String::is_empty")]
    text: String,
    #[serde(with = "keyed::one")]
    kind: RuleKind,
    #[serde(with = "keyed::list", default, skip_serializing_if = "Vec::is_empty")]
    of: Vec<Serves>,
    #[serde(with = "keyed::list", default, skip_serializing_if = "Vec::is_empty")]
    held: Vec<Fixing>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    from_length_m: Option<f64>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    to_length_m: Option<f64>,
    #[serde(with = "keyed::one", default)]
    op: Op,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    value: Option<f64>,
    #[serde(default, skip_serializing_if = "String::is_empty")]
    when: String,
    #[serde(with = "keyed::one", default)]
    effect: Effect,
    #[serde(with = "keyed::one", default)]
    proof: Proof,
}

/// Most rules of one event.
pub const MOST_RULES: usize = 200;
/// Longest words of a rule, characters.
pub const LONGEST_RULE: usize = 400;
/// Accepted limits.
pub const LIMIT: Bounds = Bounds::new("a rule's limit", Dimension::Ratio, 0.0, 100_000.0);
/// Accepted lengths that pick things, m.
pub const PICKS: Bounds = Bounds::new("a length", Dimension::Length, 0.0, 10.0);

impl EventEntry {
    /// The document of a rule set.
    #[must_use]
    pub fn of(set: &RuleSet) -> Self {
        let rule = |r: &Rule| RuleEntry {
            id: r.id.clone(),
            text: r.text.clone(),
            kind: r.kind,
            of: r.of.clone(),
            held: r.held.clone(),
            from_length_m: r.from_length,
            to_length_m: r.to_length,
            op: r.op,
            value: r.value,
            when: r.when.clone(),
            effect: r.effect,
            proof: r.proof,
        };
        Self {
            key: set.key.clone(),
            name: set.name.clone(),
            rules: set.rules.iter().map(rule).collect(),
            note: set.note.clone(),
        }
    }

    /// The rule set of a document.
    #[must_use]
    pub fn rules(self) -> RuleSet {
        let rule = |r: RuleEntry| Rule {
            id: r.id,
            text: r.text,
            kind: r.kind,
            of: r.of,
            held: r.held,
            from_length: r.from_length_m,
            to_length: r.to_length_m,
            op: r.op,
            value: r.value,
            when: r.when,
            effect: r.effect,
            proof: r.proof,
        };
        RuleSet {
            key: self.key,
            name: self.name,
            rules: self.rules.into_iter().map(rule).collect(),
            note: self.note,
        }
    }
}

impl Sheet for EventEntry {
    const KEY: &'static str = "event";
    const PLURAL: &'static str = "events";

    fn slug(&self) -> &str {
        &self.key
    }

    fn name(&self) -> &str {
        &self.name
    }

    fn check(&self) -> Result<(), String> {
        if self.rules.len() > MOST_RULES {
            return Err(format!("more than {MOST_RULES} rules"));
        }
        let mut seen = BTreeSet::new();
        for rule in &self.rules {
            if rule.id.is_empty() || !seen.insert(&rule.id) {
                return Err(format!("“{}”: every rule needs a word of its own", rule.id));
            }
            let long = [&rule.text, &rule.when, &rule.id];
            if long.iter().any(|t| t.chars().count() > LONGEST_RULE) {
                return Err(format!(
                    "“{}” is longer than {LONGEST_RULE} characters",
                    rule.id
                ));
            }
            let told = |e: galvet_core::base::OutOfRange| format!("“{}”: {e}", rule.id);
            if let Some(value) = rule.value {
                LIMIT.check(value).map_err(told)?;
            }
            for length in [rule.from_length_m, rule.to_length_m].into_iter().flatten() {
                PICKS.check(length).map_err(told)?;
            }
        }
        Ok(())
    }
}
