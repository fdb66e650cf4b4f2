//! What was looked at and judged on a hull, as JSON.

use super::word;
use galvet_core::base::Keyed;
use galvet_core::hull::{Judgement, Kept, Looked};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;

/// Longest text taken.
const LONGEST: usize = 2_000;

/// What was looked at.
#[derive(Debug, Clone, Default, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub(crate) struct LookedDoc {
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    absent: Vec<String>,
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    judged: BTreeMap<String, String>,
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    kept: Vec<KeptDoc>,
}

#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
struct KeptDoc {
    finding: String,
    #[serde(default, skip_serializing_if = "String::is_empty")]
    who: String,
    #[serde(default, skip_serializing_if = "String::is_empty")]
    date: String,
    #[serde(default, skip_serializing_if = "String::is_empty")]
    why: String,
}

impl LookedDoc {
    /// The document of what was looked at.
    pub(crate) fn of(looked: &Looked) -> Self {
        let kept = |k: &Kept| KeptDoc {
            finding: k.finding.clone(),
            who: k.who.clone(),
            date: k.date.clone(),
            why: k.why.clone(),
        };
        Self {
            absent: looked.absent.clone(),
            judged: looked
                .judged
                .iter()
                .map(|(judgement, answer)| (judgement.key().to_owned(), (*answer).to_owned()))
                .collect(),
            kept: looked.kept.iter().map(kept).collect(),
        }
    }

    /// Whether it says nothing.
    pub(crate) fn is_empty(&self) -> bool {
        self.absent.is_empty() && self.judged.is_empty() && self.kept.is_empty()
    }

    /// What a document says was looked at.
    ///
    /// # Errors
    /// What is wrong and what would be accepted.
    pub(crate) fn looked(self) -> Result<Looked, String> {
        let texts = self
            .kept
            .iter()
            .flat_map(|k| [&k.finding, &k.who, &k.date, &k.why]);
        if texts
            .chain(&self.absent)
            .any(|t| t.chars().count() > LONGEST)
        {
            return Err(format!("a text is longer than {LONGEST} characters"));
        }
        let judged = self.judged.into_iter().map(|(name, text)| {
            let judgement: Judgement = word("judgement", &name)?;
            let answers = judgement.answers();
            let answer = judgement.answer(&text).ok_or_else(|| {
                let all: Vec<&str> = answers.iter().map(|a| a.0).collect();
                format!("“{name}” takes {}, not “{text}”", all.join(", "))
            })?;
            Ok((judgement, answer.0))
        });
        Ok(Looked {
            absent: self.absent,
            judged: judged.collect::<Result<_, String>>()?,
            kept: self
                .kept
                .into_iter()
                .map(|k| Kept {
                    finding: k.finding,
                    who: k.who,
                    date: k.date,
                    why: k.why,
                })
                .collect(),
        })
    }
}
