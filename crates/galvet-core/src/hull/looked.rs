//! What was looked at and judged rather than measured: comfort, quiet, what
//! catches a line, how it steers; places it has not; odd figures somebody
//! stands by.

use super::finding::Finding;
use super::pin::Pin;
use crate::base::words;
use std::collections::BTreeMap;

words! {
/// A judgement asked for on the walk.
pub enum Judgement {
    /// The seat's back.
    #[strum(message = "backrest")]
    Backrest,
    /// What holds the small of the back.
    #[strum(message = "lumbar support")]
    Lumbar,
    /// Whether the back leans.
    #[strum(message = "recline")]
    Recline,
    /// What one sits on.
    #[strum(message = "padding")]
    Padding,
    /// Whether one sits above water that stands in the cockpit.
    #[strum(message = "seat base")]
    SeatBase,
    /// What knocks on the hull.
    #[strum(message = "quiet")]
    Quiet,
    /// What catches a line.
    #[strum(message = "line catchers")]
    Snag,
    /// What steers.
    #[strum(message = "steering gear")]
    Steering,
    /// With what it is steered.
    #[strum(message = "steered by")]
    SteeredBy,
    /// How it turns.
    #[strum(message = "turning")]
    Turning,
    /// Whether it holds a place.
    #[strum(message = "holding a place")]
    Holding,
    /// Whether it goes backwards.
    #[strum(message = "going back")]
    Reverse,
    /// How it is moved ashore.
    #[strum(message = "ashore")]
    Ashore,
}
}

words! {
/// How a hull one has stood in felt.
#[derive(Default)]
pub enum Felt {
    /// Steady.
    #[default]
    Steady,
    /// Fine, with care.
    #[strum(message = "fine with care")]
    Care,
    /// One sat down again.
    #[strum(message = "sat down again")]
    SatDown,
}
}

/// A trial paddle: somebody was in it, and said how it felt.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Trial {
    /// Who.
    pub who: String,
    /// When, ISO 8601.
    pub date: String,
    /// Whether they stood in it.
    pub stood: bool,
    /// How it felt.
    pub felt: Felt,
    /// What else was said.
    pub note: String,
}

/// An answer to a judgement: its word in files, and plain words.
pub type Answer = (&'static str, &'static str);

impl Judgement {
    /// The answers it takes.
    #[must_use]
    pub const fn answers(self) -> &'static [Answer] {
        match self {
            Self::Backrest => &[("none", "none"), ("low", "low"), ("high", "high")],
            Self::Lumbar => &[("none", "none"), ("fixed", "fixed"), ("adjusts", "adjusts")],
            Self::Recline => &[
                ("fixed", "fixed"),
                ("steps", "in steps"),
                ("free", "freely"),
            ],
            Self::Padding => &[
                ("bare", "bare"),
                ("pad", "a pad"),
                ("mesh", "mesh on a frame"),
            ],
            Self::SeatBase => &[
                ("in-water", "in the water that stands"),
                ("above", "above it"),
            ],
            Self::Quiet => &[
                ("hard", "hard contacts"),
                ("some", "padded in places"),
                ("padded", "padded throughout"),
            ],
            Self::Snag => &[
                ("clear", "a clear deck"),
                ("few", "a few"),
                ("many", "many"),
            ],
            Self::Steering => &[
                ("none", "none"),
                ("skeg", "a skeg"),
                ("kick-up", "a short rudder that kicks up"),
                ("large", "a large rudder"),
            ],
            Self::SteeredBy => &[("paddle", "the paddle"), ("hand", "hand"), ("foot", "foot")],
            Self::Turning => &[
                ("slow", "slowly"),
                ("middling", "middling"),
                ("quick", "quickly"),
            ],
            Self::Holding => &[
                ("no", "only at anchor"),
                ("works", "with steady work"),
                ("by-itself", "by itself"),
            ],
            Self::Reverse => &[
                ("no", "no"),
                ("paddle", "with the paddle"),
                ("drive", "with the drive"),
            ],
            Self::Ashore => &[
                ("lifts", "lifts by one end"),
                ("rolls", "rolls on a cart"),
                ("drags", "drags"),
            ],
        }
    }

    /// The answer of a word.
    #[must_use]
    pub fn answer(self, word: &str) -> Option<Answer> {
        self.answers().iter().copied().find(|a| a.0 == word)
    }
}

/// An odd figure somebody stands by.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Kept {
    /// What was found odd, word for word: where a figure changes, the finding
    /// does, and is asked about anew.
    pub finding: String,
    /// Who stands by it; may be empty.
    pub who: String,
    /// The day, ISO 8601; may be empty.
    pub date: String,
    /// Why; may be empty.
    pub why: String,
}

impl Kept {
    /// "kept by Ana, 2026-11-25: weighed twice".
    #[must_use]
    pub fn words(&self) -> String {
        let mut out = "kept".to_owned();
        if !self.who.is_empty() {
            out.push_str(" by ");
            out.push_str(&self.who);
        }
        if !self.date.is_empty() {
            out.push_str(", ");
            out.push_str(&self.date);
        }
        if !self.why.is_empty() {
            out.push_str(": ");
            out.push_str(&self.why);
        }
        out
    }
}

/// What was looked at rather than measured.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Looked {
    /// Places of the template it has not, by name.
    pub absent: Vec<String>,
    /// Judgements with their answers' words, each one that [`Judgement::answers`]
    /// knows.
    pub judged: BTreeMap<Judgement, &'static str>,
    /// Odd figures somebody stands by.
    pub kept: Vec<Kept>,
    /// Kit put somewhere by hand, by the key of the rig it belongs to.
    pub laid: BTreeMap<String, Vec<Pin>>,
    /// Trial paddles, oldest first.
    pub trials: Vec<Trial>,
}

impl Looked {
    /// Whether nobody looked.
    #[must_use]
    pub fn is_empty(&self) -> bool {
        *self == Self::default()
    }

    /// Who stands by a finding, if somebody does.
    #[must_use]
    pub fn stands_by(&self, finding: &Finding) -> Option<&Kept> {
        self.kept.iter().find(|k| k.finding == finding.text)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::base::Keyed;
    use std::collections::BTreeSet;

    #[test]
    fn every_answer_has_its_own_word() {
        for &judgement in Judgement::ALL {
            let words: BTreeSet<_> = judgement.answers().iter().map(|a| a.0).collect();
            assert_eq!(words.len(), judgement.answers().len(), "{judgement:?}");
            for &(word, label) in judgement.answers() {
                assert!(!label.is_empty());
                assert_eq!(judgement.answer(word), Some((word, label)));
            }
            assert_eq!(judgement.answer("of course"), None);
        }
    }
}
