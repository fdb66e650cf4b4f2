//! What was looked at and judged on a hull, as JSON.

use super::word;
use galvet_core::base::Keyed;
use galvet_core::hull::{Judgement, Kept, Looked, Pin, Trial};
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
    /// Kit put somewhere by hand, by the key of the rig it belongs to.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    laid: BTreeMap<String, Vec<PinDoc>>,
    /// Trial paddles, oldest first.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    trials: Vec<TrialDoc>,
}

/// A trial paddle.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
struct TrialDoc {
    #[serde(default, skip_serializing_if = "String::is_empty")]
    who: String,
    #[serde(default, skip_serializing_if = "String::is_empty")]
    date: String,
    /// Whether they stood in it.
    #[serde(default)]
    stood: bool,
    /// `steady`, `care` or `sat-down`.
    felt: String,
    #[serde(default, skip_serializing_if = "String::is_empty")]
    note: String,
}

/// Most trial paddles kept of one hull.
const MOST_TRIALS: usize = 500;

impl TrialDoc {
    fn of(trial: &Trial) -> Self {
        Self {
            who: trial.who.clone(),
            date: trial.date.clone(),
            stood: trial.stood,
            felt: trial.felt.key().to_owned(),
            note: trial.note.clone(),
        }
    }

    fn trial(self) -> Result<Trial, String> {
        Ok(Trial {
            felt: word("felt", &self.felt)?,
            who: self.who,
            date: self.date,
            stood: self.stood,
            note: self.note,
        })
    }
}

/// A thing put somewhere by hand.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
struct PinDoc {
    /// Key of the thing on the shelf.
    gear: String,
    /// Which of those on the rig, from 0.
    #[serde(default)]
    nth: u32,
    /// The place's name.
    place: String,
    x_m: f64,
    y_m: f64,
    /// Whether it lies with its length across.
    #[serde(default)]
    turned: bool,
}

impl PinDoc {
    fn of(pin: &Pin) -> Self {
        Self {
            gear: pin.thing.clone(),
            nth: pin.nth,
            place: pin.place.clone(),
            x_m: pin.x,
            y_m: pin.y,
            turned: pin.turned,
        }
    }

    fn pin(self) -> Result<Pin, String> {
        let pin = Pin {
            thing: self.gear,
            nth: self.nth,
            place: self.place,
            x: self.x_m,
            y: self.y_m,
            turned: self.turned,
        };
        pin.check().map_err(|e| e.to_string())
    }
}

/// Most things put by hand on one hull for one rig.
const MOST_PINS: usize = 400;

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
            laid: looked
                .laid
                .iter()
                .map(|(rig, pins)| (rig.clone(), pins.iter().map(PinDoc::of).collect()))
                .collect(),
            trials: looked.trials.iter().map(TrialDoc::of).collect(),
        }
    }

    /// Whether it says nothing.
    pub(crate) fn is_empty(&self) -> bool {
        self.absent.is_empty()
            && self.judged.is_empty()
            && self.kept.is_empty()
            && self.laid.is_empty()
            && self.trials.is_empty()
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
        let trials = self.trials.iter().flat_map(|t| [&t.who, &t.date, &t.note]);
        if self.trials.len() > MOST_TRIALS {
            return Err(format!("more than {MOST_TRIALS} test paddles"));
        }
        if texts
            .chain(trials)
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
        let laid = self.laid.into_iter().map(|(rig, pins)| {
            let named = |p: &PinDoc| [&p.gear, &p.place].map(|t| t.chars().count());
            if pins.len() > MOST_PINS || pins.iter().flat_map(named).any(|n| n > LONGEST) {
                return Err(format!(
                    "more than {MOST_PINS} things put by hand, or a name too long"
                ));
            }
            let pins = pins.into_iter().map(PinDoc::pin);
            Ok((rig, pins.collect::<Result<_, String>>()?))
        });
        let trials = self.trials.into_iter().map(TrialDoc::trial);
        Ok(Looked {
            trials: trials.collect::<Result<_, String>>()?,
            laid: laid.collect::<Result<_, String>>()?,
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
