//! The conversation: one question a step, in the order practitioners ask.

use super::sentence::{Choice, Field, Pick, Sentence};
use crate::question::PartId;
use galvet_core::crew::Posture;
use galvet_core::question::Brief;

/// A step: its word in the address, what it is called, the question as it is put, and
/// the parts it asks.
struct Step {
    word: &'static str,
    name: &'static str,
    asks: &'static str,
    parts: &'static [PartId],
}

const fn step(
    word: &'static str,
    name: &'static str,
    asks: &'static str,
    parts: &'static [PartId],
) -> Step {
    Step {
        word,
        name,
        asks,
        parts,
    }
}

/// The steps in their order.
const STEPS: [Step; 17] = [
    step("water", "water", "Where is it fished?", &[PartId::Water]),
    step(
        "launch",
        "launch",
        "From what is it launched?",
        &[PartId::Launch],
    ),
    step(
        "fishing",
        "fishing",
        "How is it fished?",
        &[PartId::Fishing],
    ),
    step(
        "posture",
        "seated or standing",
        "Seated or standing?",
        &[PartId::Posture],
    ),
    step(
        "practice",
        "practice",
        "How practised on the feet?",
        &[PartId::Practice],
    ),
    step(
        "angler",
        "the angler",
        "How heavy and how tall is the angler?",
        &[PartId::Mass, PartId::Stature],
    ),
    step(
        "hand",
        "hand",
        "Which hand casts and lands?",
        &[PartId::Hand],
    ),
    step(
        "with",
        "who comes along",
        "Who comes along?",
        &[PartId::Others],
    ),
    step(
        "outing",
        "a day out",
        "What is a day out like?",
        &[PartId::Distance, PartId::Hours, PartId::Trips],
    ),
    step(
        "joints",
        "back and knees",
        "Do back or knees complain?",
        &[PartId::Joints],
    ),
    step("drive", "drive", "How may it be driven?", &[PartId::Drive]),
    step("rig", "what is carried", "What is carried?", &[PartId::Rig]),
    step(
        "limits",
        "store and lift",
        "How is it stored and lifted?",
        &[PartId::Longest, PartId::Lift],
    ),
    step(
        "vehicle",
        "car or truck",
        "What takes it to the water?",
        &[PartId::Roof, PartId::Bed],
    ),
    step("budget", "budget", "What may it cost?", &[PartId::Budget]),
    step(
        "musts",
        "must-haves",
        "What must it have?",
        &[PartId::Seats, PartId::Track],
    ),
    step(
        "drilling",
        "holes",
        "May holes be drilled?",
        &[PartId::Drilling],
    ),
];

/// A step in the list of all.
pub struct StepLink {
    pub word: &'static str,
    pub name: &'static str,
    pub here: bool,
}

/// One step's page.
pub struct Talk {
    /// Its number, from 1, and how many there are.
    pub number: usize,
    pub all: usize,
    pub title: &'static str,
    /// Answers to choose from; none where something is typed.
    pub choices: Vec<Choice>,
    /// Name of the part chosen for.
    pub name: &'static str,
    /// What is typed.
    pub fields: Vec<Field>,
    pub word: &'static str,
    /// The step after this; `None` for the last.
    pub next: Option<&'static str>,
    pub back: Option<&'static str>,
    pub steps: Vec<StepLink>,
}

/// Whether a step is asked at all: nobody who sits is asked how practised they stand.
fn asked(step: &Step, brief: &Brief) -> bool {
    step.word != "practice" || brief.posture != Posture::Sits
}

/// The page of a step, by its word; the first where there is none of that word.
#[must_use]
pub fn talk(word: &str, sentence: &mut Sentence, brief: &Brief) -> Talk {
    let steps: Vec<&Step> = STEPS.iter().filter(|s| asked(s, brief)).collect();
    // A step that is not asked any more gives way to the one after it.
    let wanted = STEPS.iter().position(|s| s.word == word).unwrap_or(0);
    let at = STEPS[..wanted].iter().filter(|s| asked(s, brief)).count();
    let at = at.min(steps.len() - 1);
    let here = steps[at];
    let mut out = Talk {
        number: at + 1,
        all: steps.len(),
        title: here.asks,
        choices: Vec::new(),
        name: here.parts[0].part().name,
        fields: Vec::new(),
        word: here.word,
        next: steps.get(at + 1).map(|s| s.word),
        back: at.checked_sub(1).map(|b| steps[b].word),
        steps: steps
            .iter()
            .map(|s| StepLink {
                word: s.word,
                name: s.name,
                here: s.word == here.word,
            })
            .collect(),
    };
    for part in here.parts {
        match ask(*part, sentence) {
            Asks::Pick(pick) => {
                out.choices = pick.choices;
            }
            Asks::Field(field) => {
                out.fields.push(field);
            }
            Asks::Nothing => {}
        }
    }
    out
}

enum Asks {
    Pick(Pick),
    Field(Field),
    Nothing,
}

/// Takes a part out of a sentence.
fn ask(part: PartId, sentence: &mut Sentence) -> Asks {
    use PartId as P;
    let name = part.part().name;
    let take = |pick: &mut Pick| Asks::Pick(std::mem::take(pick));
    match part {
        P::Water => take(&mut sentence.water),
        P::Posture => take(&mut sentence.posture),
        P::Hand => take(&mut sentence.hand),
        P::Rig => take(&mut sentence.rig),
        P::Mass => Asks::Field(std::mem::take(&mut sentence.mass)),
        P::Stature => Asks::Field(std::mem::take(&mut sentence.stature)),
        P::Others => Asks::Field(std::mem::take(&mut sentence.others)),
        P::Longest
        | P::Lift
        | P::Budget
        | P::Roof
        | P::Bed
        | P::Seats
        | P::Track
        | P::Distance
        | P::Hours
        | P::Trips => {
            let mut limits = sentence.limits.iter_mut();
            limits
                .find(|f| f.name == name)
                .map_or(Asks::Nothing, |f| Asks::Field(std::mem::take(f)))
        }
        _ => {
            let mut more = sentence.more.iter_mut();
            more.find(|p| p.name == name).map_or(Asks::Nothing, take)
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::present::page::sentence::sentence;
    use crate::question::Ask;
    use galvet_core::base::System;

    #[test]
    fn every_step_asks_something_and_leads_to_the_next() {
        let catalogue = crate::demo_data::catalogue().unwrap();
        let mut seen = Vec::new();
        let mut word = "water";
        loop {
            let asked = Ask::of(std::iter::empty::<(&str, String)>());
            let asked = asked.resolve(&catalogue);
            let asked = asked.map_err(|_| "nothing to ask").unwrap();
            let mut sentence = sentence(&asked, &catalogue, "/ask".to_owned(), System::Metric);
            let talk = talk(word, &mut sentence, &asked.brief);
            assert_eq!(talk.word, word);
            assert!(talk.title.ends_with('?'), "{word}");
            assert!(talk.choices.len() > 1 || !talk.fields.is_empty(), "{word}");
            seen.push(word);
            let Some(next) = talk.next else { break };
            word = next;
        }
        assert_eq!(seen.len(), STEPS.len());
    }
}
