//! The conversation: six steps, in the order practitioners ask, and what more can be said.

use crate::present::page::ranking::sentence::{Field, Pick, Sentence};
use crate::question::PartId;
use galvet_core::base::{Dimension, System};
use galvet_core::crew::Posture;
use galvet_core::guide::{Guide, Guides};
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

/// Six steps in their order, and what more can be said.
const STEPS: [Step; 7] = [
    step(
        "water",
        "water and launch",
        "Where is it fished, and launched?",
        &[PartId::Water, PartId::Launch],
    ),
    step(
        "fishing",
        "how you fish",
        "How is it fished?",
        &[PartId::Posture, PartId::Practice, PartId::Fishing],
    ),
    step(
        "angler",
        "you",
        "Who sits in it?",
        &[
            PartId::Mass,
            PartId::Stature,
            PartId::Others,
            PartId::Joints,
        ],
    ),
    step(
        "rig",
        "what you carry",
        "What is carried, and what drives it?",
        &[PartId::Rig, PartId::Roughly, PartId::Drive],
    ),
    step(
        "travel",
        "how it travels",
        "How does it get to the water?",
        &[PartId::Roof, PartId::Bed, PartId::Lift, PartId::Longest],
    ),
    step(
        "budget",
        "budget",
        "What may it cost?",
        &[PartId::Budget, PartId::Whole],
    ),
    step(
        "more",
        "more",
        "What else matters?",
        &[
            PartId::Distance,
            PartId::Wind,
            PartId::Dark,
            PartId::Hours,
            PartId::Trips,
            PartId::Seats,
            PartId::Track,
            PartId::Hand,
            PartId::Drilling,
            PartId::Reverse,
            PartId::Event,
        ],
    ),
];

/// How far a step is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum StepState {
    /// Something of it was answered.
    Done,
    /// It is the one shown.
    Here,
    /// Nothing of it was answered yet.
    Open,
}

impl StepState {
    /// In a word, for whoever does not see it.
    #[must_use]
    pub const fn word(self) -> &'static str {
        match self {
            Self::Done => "answered",
            Self::Here => "here",
            Self::Open => "open",
        }
    }
}

/// A step in the list of all.
pub struct StepLink {
    pub word: &'static str,
    pub name: &'static str,
    pub state: StepState,
}

/// One question of a step: something to choose, or to type.
pub enum Question {
    /// One of several answers.
    Pick(Pick),
    /// A figure or words.
    Field(Field),
}

impl Question {
    /// Its part's name in addresses.
    #[must_use]
    pub const fn name(&self) -> &'static str {
        match self {
            Self::Pick(pick) => pick.name,
            Self::Field(field) => field.name,
        }
    }
}

/// An answer that stands for a few limits: a small car, a truck.
pub struct Preset {
    pub name: &'static str,
    pub note: String,
    /// What it sets: name and value of each part.
    pub sets: Vec<(&'static str, String)>,
}

/// One step's page.
pub struct Talk {
    pub title: &'static str,
    pub questions: Vec<Question>,
    pub presets: Vec<Preset>,
    pub word: &'static str,
    /// The step after this; `None` for the last.
    pub next: Option<&'static str>,
    pub back: Option<&'static str>,
    pub steps: Vec<StepLink>,
}

/// What takes it to the water, as limits (guide values).
fn vehicles(guides: &Guides, system: System) -> Vec<Preset> {
    let roof = |guide| system.text(Dimension::Mass, guides[guide], 0);
    let bed = system.text(Dimension::Length, guides[Guide::BedUsual], 2);
    let preset = |name, note: String, roof: String, bed: String| Preset {
        name,
        note,
        sets: vec![("roof", roof), ("bed", bed)],
    };
    let bears = |kg: &str| format!("its roof bears about {kg} with bars; its handbook says");
    let (small, large) = (roof(Guide::RoofSmall), roof(Guide::RoofLarge));
    vec![
        preset("a small car", bears(&small), small, String::new()),
        preset("an estate or a van", bears(&large), large, String::new()),
        preset(
            "a truck",
            format!("a bed of about {bed}"),
            String::new(),
            bed,
        ),
        preset(
            "a trailer, or on foot",
            "no roof and no bed to mind".to_owned(),
            String::new(),
            String::new(),
        ),
    ]
}

/// The page of a step, by its word; the first where there is none of that word. `said` are
/// the names of parts that were answered.
#[must_use]
pub fn talk(
    word: &str,
    sentence: &mut Sentence,
    brief: &Brief,
    said: &[String],
    (guides, system): (&Guides, System),
) -> Talk {
    let at = STEPS.iter().position(|s| s.word == word).unwrap_or(0);
    let here = &STEPS[at];
    // Nobody who sits is asked how practised they stand.
    let asked = |part: &&PartId| **part != PartId::Practice || brief.posture != Posture::Sits;
    let questions = here.parts.iter().filter(asked);
    let answered = |step: &Step| {
        let mut names = step.parts.iter().map(|part| part.part().name);
        names.any(|name| said.iter().any(|s| s == name))
    };
    Talk {
        title: here.asks,
        questions: questions.filter_map(|part| ask(*part, sentence)).collect(),
        presets: if here.word == "travel" {
            vehicles(guides, system)
        } else {
            Vec::new()
        },
        word: here.word,
        next: STEPS.get(at + 1).map(|s| s.word),
        back: at.checked_sub(1).map(|b| STEPS[b].word),
        steps: STEPS
            .iter()
            .map(|s| StepLink {
                word: s.word,
                name: s.name,
                state: if s.word == here.word {
                    StepState::Here
                } else if answered(s) {
                    StepState::Done
                } else {
                    StepState::Open
                },
            })
            .collect(),
    }
}

/// Takes a part out of a sentence.
fn ask(part: PartId, sentence: &mut Sentence) -> Option<Question> {
    use PartId as P;
    let name = part.part().name;
    let take = |pick: &mut Pick| Question::Pick(std::mem::take(pick));
    match part {
        P::Water => Some(take(&mut sentence.water)),
        P::Posture => Some(take(&mut sentence.posture)),
        P::Hand => Some(take(&mut sentence.hand)),
        P::Rig => Some(take(&mut sentence.rig)),
        P::Mass => Some(Question::Field(std::mem::take(&mut sentence.mass))),
        P::Stature => Some(Question::Field(std::mem::take(&mut sentence.stature))),
        P::Others => Some(Question::Field(std::mem::take(&mut sentence.others))),
        P::Roughly => Some(Question::Field(std::mem::take(&mut sentence.roughly))),
        P::Longest
        | P::Lift
        | P::Budget
        | P::Whole
        | P::Roof
        | P::Bed
        | P::Seats
        | P::Track
        | P::Distance
        | P::Wind
        | P::Dark
        | P::Hours
        | P::Trips => {
            let mut limits = sentence.limits.iter_mut();
            let found = limits.find(|f| f.name == name);
            found.map(|f| Question::Field(std::mem::take(f)))
        }
        _ => {
            let mut more = sentence.more.iter_mut();
            more.find(|p| p.name == name).map(take)
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::present::page::ranking::sentence::sentence;
    use crate::question::Ask;

    #[test]
    fn every_step_asks_something_and_leads_to_the_next() {
        let catalogue = crate::demo_data::catalogue().unwrap();
        let asked = Ask::of(std::iter::empty::<(&str, String)>());
        let asked = asked.resolve(&catalogue);
        let asked = asked.map_err(|_| "nothing to ask").unwrap();
        let guides = Guides::default();
        let said = ["mass".to_owned()];
        let mut seen = Vec::new();
        let mut word = "water";
        loop {
            let mut sentence = sentence(&asked, &catalogue, "/ask".to_owned(), System::Metric);
            let how = (&guides, System::Metric);
            let talk = talk(word, &mut sentence, &asked.brief, &said, how);
            assert_eq!(talk.word, word);
            assert!(talk.title.ends_with('?'), "{word}");
            let parts = STEPS.iter().find(|s| s.word == word).unwrap().parts.len();
            assert_eq!(talk.questions.len(), parts, "{word}");
            let states: Vec<StepState> = talk.steps.iter().map(|s| s.state).collect();
            assert_eq!(states.iter().filter(|s| **s == StepState::Here).count(), 1);
            let done = talk.steps.iter().filter(|s| s.state == StepState::Done);
            let done: Vec<&str> = done.map(|s| s.word).collect();
            assert_eq!(
                done,
                if word == "angler" {
                    vec![]
                } else {
                    vec!["angler"]
                }
            );
            seen.push(word);
            let Some(next) = talk.next else { break };
            word = next;
        }
        assert_eq!(seen.len(), STEPS.len());
    }

    #[test]
    fn a_small_car_is_a_limit_in_the_readers_units() {
        let all = vehicles(&Guides::default(), System::Metric);
        let sets = &all[0].sets;
        assert_eq!(sets[0], ("roof", "50\u{a0}kg".to_owned()));
        assert_eq!(sets[1], ("bed", String::new()));
        let truck = &vehicles(&Guides::default(), System::Imperial)[2];
        assert_eq!(truck.sets[0].1, "");
        assert!(truck.sets[1].1.contains('′'), "{:?}", truck.sets);
    }
}
