//! Comfort and manners: short choices.

use super::filled::{Filled, NotTaken};
use crate::survey::Shown;
use galvet_core::base::Keyed;
use galvet_core::hull::{Judgement, Survey};

/// One judgement with its answers.
pub struct Asked {
    pub key: &'static str,
    pub label: &'static str,
    /// Word, label, what is drawn, whether chosen.
    pub answers: Vec<(&'static str, &'static str, String, bool)>,
    pub open: bool,
}

/// Judgements under a heading.
pub struct Theme {
    pub title: &'static str,
    pub asked: Vec<Asked>,
}

/// The page.
pub struct ComfortView {
    pub key: String,
    pub name: String,
    pub themes: Vec<Theme>,
    /// What the form shows, to be sent along.
    pub shown: String,
    /// Why what was sent was not kept.
    pub trouble: String,
    pub answered: usize,
    pub all: usize,
}

/// Makes the page.
#[must_use]
pub fn comfort(survey: &Survey, not_taken: &NotTaken) -> ComfortView {
    use Judgement as J;
    let form = Filled {
        shown: Shown::of_judged(survey),
        not_taken,
    };
    let asked = |judgement: Judgement| {
        let chosen = form.value(judgement.key());
        Asked {
            key: judgement.key(),
            label: judgement.label(),
            answers: judgement
                .answers()
                .iter()
                .map(|&(word, label)| {
                    let drawn = format!("{}:{word}", judgement.key());
                    (word, label, drawn, chosen == word)
                })
                .collect(),
            open: chosen.is_empty(),
        }
    };
    let theme = |title, all: &[Judgement]| Theme {
        title,
        asked: all.iter().copied().map(asked).collect(),
    };
    ComfortView {
        key: survey.key.clone(),
        name: survey.name(),
        themes: vec![
            theme(
                "The seat",
                &[J::Backrest, J::Lumbar, J::Recline, J::Padding, J::SeatBase],
            ),
            theme("Quiet, and what catches a line", &[J::Quiet, J::Snag]),
            theme(
                "How she goes",
                &[
                    J::Steering,
                    J::SteeredBy,
                    J::Turning,
                    J::Holding,
                    J::Reverse,
                ],
            ),
            theme("Ashore", &[J::Ashore]),
        ],
        shown: form.shown.sent_along(),
        trouble: form.trouble(),
        answered: survey.looked.judged.len(),
        all: J::ALL.len(),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_judgement_is_asked_once() {
        let demo = crate::demo_data::catalogue().unwrap();
        let view = comfort(&demo.hulls[0].survey, &NotTaken::default());
        let keys = view.themes.iter().flat_map(|t| &t.asked).map(|a| a.key);
        let mut keys: Vec<&str> = keys.collect();
        keys.sort_unstable();
        let mut all: Vec<&str> = Judgement::ALL.iter().map(|j| j.key()).collect();
        all.sort_unstable();
        assert_eq!(keys, all);
    }
}
