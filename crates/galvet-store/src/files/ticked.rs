//! Lists ticked for one outing: which hull, rig and water, and what was answered. Ticks die
//! with the outing.

use super::sheet::Sheet;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;

/// Lists of one outing, as far as they are ticked.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Ticked {
    /// Its key.
    pub key: String,
    /// What it is called: hull and day.
    pub name: String,
    /// The hull's key.
    pub hull: String,
    /// The question as an address's query.
    pub question: String,
    /// The day it was begun, ISO 8601.
    pub begun: String,
    /// Answers by list and line, `launch/drain-shut`.
    #[serde(default)]
    pub answers: BTreeMap<String, Answer>,
}

/// What somebody said of a line.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Answer {
    /// How it stands.
    pub state: State,
    /// Why it does not apply; a note.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub why: String,
    /// When it was said, ms since 1970 on the clock of who said it: of two the later holds.
    #[serde(default)]
    pub at: i64,
}

/// How a line stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum State {
    /// Done.
    Done,
    /// Not done.
    Open,
    /// Does not apply.
    No,
}

/// Most answers of an outing.
pub const MOST: usize = 2_000;
/// Longest reason, characters.
pub const LONGEST: usize = 300;

impl Ticked {
    /// Takes an answer over, unless a later one stands.
    pub fn take(&mut self, line: String, answer: Answer) {
        let older = self.answers.get(&line).is_some_and(|a| a.at > answer.at);
        if !older {
            self.answers.insert(line, answer);
        }
    }
}

impl Sheet for Ticked {
    const KEY: &'static str = "ticked list";
    const PLURAL: &'static str = "ticked_lists";
    const PERSONAL: bool = true;

    fn slug(&self) -> &str {
        &self.key
    }

    fn name(&self) -> &str {
        &self.name
    }

    fn check(&self) -> Result<(), String> {
        if self.answers.len() > MOST {
            return Err(format!("more than {MOST} answers"));
        }
        let long = |text: &str, most: usize| text.chars().count() > most;
        for (line, answer) in &self.answers {
            if long(line, 200) || long(&answer.why, LONGEST) {
                return Err(format!("an answer longer than {LONGEST} characters"));
            }
            if answer.state == State::No && answer.why.trim().is_empty() {
                return Err("what does not apply says why".to_owned());
            }
        }
        if long(&self.question, 4_000) {
            return Err("a question longer than 4,000 characters".to_owned());
        }
        Ok(())
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn of_two_answers_the_later_holds_whatever_comes_first() {
        let mut list = Ticked {
            key: "a".into(),
            name: "a".into(),
            hull: "h".into(),
            question: String::new(),
            begun: "2026-11-30".into(),
            answers: BTreeMap::new(),
        };
        let said = |state, at| Answer {
            state,
            why: String::new(),
            at,
        };
        list.take("launch/drain-shut".into(), said(State::Done, 20));
        list.take("launch/drain-shut".into(), said(State::Open, 10));
        assert_eq!(list.answers["launch/drain-shut"].state, State::Done);
        list.take("launch/drain-shut".into(), said(State::Open, 30));
        assert_eq!(list.answers["launch/drain-shut"].state, State::Open);
        list.take("launch/aid-on".into(), said(State::No, 5));
        assert!(
            list.check().is_err(),
            "a hard line set aside without a word"
        );
    }
}
