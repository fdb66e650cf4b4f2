//! Comfort and manners: short choices.

use crate::form::NotTaken;
use crate::survey::judged_form;
use galvet_core::base::{Keyed, System};
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
    let form = judged_form().form(survey, false, not_taken, System::Metric);
    let asked = |judgement: Judgement| {
        let mut fields = form.groups.iter().flat_map(|group| &group.fields);
        let field = fields.find(|field| field.name == judgement.key());
        let chosen = field.map_or("", |field| field.value.as_str());
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
                "How it goes",
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
        shown: form.shown.clone(),
        trouble: form.trouble.clone(),
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
