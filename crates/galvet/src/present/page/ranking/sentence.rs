//! The brief as a sentence whose parts open in place.

pub use super::offered::Choice;

use super::beside::{cautions, tries};
use super::moved::Moved;
use super::offered;
use crate::present::page::ask::waters::conditions;
use crate::question::{
    Answer, Asked, Kind, MORE, NOTHING, PARTS, Part, PartId, company, given, rough, units_key,
};
use galvet_core::base::{Dimension, System};
use galvet_core::question::Brief;
use galvet_store::Catalogue;

/// A part in which one of several answers is chosen.
#[derive(Default, Clone)]
pub struct Pick {
    /// Name in the address.
    pub name: &'static str,
    /// What it asks.
    pub title: &'static str,
    /// The answer in the sentence.
    pub shown: String,
    /// The answers offered.
    pub choices: Vec<Choice>,
    /// Why the last one was not understood.
    pub error: String,
}

/// A part in which something is typed.
#[derive(Clone, Default)]
pub struct Field {
    /// Name in the address.
    pub name: &'static str,
    /// What it asks.
    pub title: &'static str,
    /// The answer in the sentence.
    pub shown: String,
    /// What stands in the field: what was typed when it was not understood.
    pub value: String,
    /// Whether it takes words rather than a figure alone.
    pub words: bool,
    /// What may be written.
    pub hint: &'static str,
    /// Why the last one was not understood.
    pub error: String,
}

/// The sentence.
pub struct Sentence {
    /// Where the form goes.
    pub action: String,
    /// Slug of the saved question it starts from; empty for none.
    pub start: String,
    /// The units it is shown in, which it sends.
    pub units: &'static str,
    /// What else stands in the page's address and stays in it: names and values.
    pub along: Vec<(&'static str, String)>,
    /// Whether the page's script takes that along by itself.
    pub scripted: bool,
    /// The angler's weight.
    pub mass: Field,
    /// The angler's height.
    pub stature: Field,
    /// How the angler fishes.
    pub posture: Pick,
    /// Who comes along.
    pub others: Field,
    /// Kit by guess.
    pub roughly: Field,
    /// Which hand casts and lands.
    pub hand: Pick,
    /// What is carried.
    pub rig: Pick,
    /// Its mass.
    pub rig_mass: String,
    /// How much of it is water and fish.
    pub rig_wet: String,
    /// Where.
    pub water: Pick,
    /// The scuppers' state.
    pub scuppers: Pick,
    /// Seat height.
    pub seat: Pick,
    /// Capacity school.
    pub capacity: Pick,
    /// Stability school.
    pub stability: Pick,
    /// How much the deck counts.
    pub deck: Pick,
    /// What the weight part asks.
    pub weight_title: &'static str,
    /// How much capacity counts, per cent.
    pub weight: u32,
    /// The rest.
    pub weight_rest: u32,
    /// Why the last weight was not understood.
    pub weight_error: String,
    /// This water's own weight, per cent.
    pub water_weight: u32,
    /// Whether another was set.
    pub own_weight: bool,
    /// Limits.
    pub limits: Vec<Field>,
    /// Limits in the sentence.
    pub limits_shown: String,
    /// Whether one of them was not understood.
    pub limits_error: bool,
    /// Launch, fishing, practice and the like.
    pub more: Vec<Pick>,
    /// Of these what asks something, in the sentence.
    pub more_shown: String,
    /// The question in a few words, for where there is room for one line.
    pub line: String,
    /// What differs from the usual, of what does not always stand in the sentence.
    pub differs: Vec<String>,
    /// Whether something was not understood: then all of it stands open.
    pub wrong: bool,
    /// Small changes to try: name and value in the address, words.
    pub tries: Vec<(&'static str, String, String)>,
    /// Typical wave and wind.
    pub conditions: String,
    /// Cautions of this question.
    pub cautions: Vec<String>,
    /// What was changed of the question it started from, and what that moved.
    pub moved: Moved,
    /// Saved questions to start from: address, name, whether it is a customer's.
    pub starts: Vec<(String, String, bool)>,
}

struct Maker<'a> {
    asked: &'a Asked,
    catalogue: &'a Catalogue,
    system: System,
}

impl Maker<'_> {
    fn error(&self, part: &Part) -> String {
        let mistake = self.asked.errors.get(part.name);
        mistake.map_or(String::new(), |m| m.problem.clone())
    }

    fn others(&self) -> Field {
        let part = PartId::Others.part();
        let shown = company::shown(&self.asked.brief.others, self.system);
        let typed = self.asked.errors.get(part.name).map(|m| m.typed.clone());
        Field {
            value: typed.unwrap_or_else(|| company::typed(&self.asked.brief.others, self.system)),
            shown,
            ..self.blank(part)
        }
    }

    /// Kit by guess, and the rig with it: "Reed-edge day and about 5 kg in the bow".
    fn roughly(&self, rig: &mut Pick) -> Field {
        let part = PartId::Roughly.part();
        let line = self.asked.brief.rig.lines.iter().find(|line| line.rough);
        let typed = self.asked.errors.get(part.name).map(|m| m.typed.clone());
        let shown = line.map_or(String::new(), |line| rough::shown(line, self.system));
        if !shown.is_empty() {
            rig.shown = if self.asked.brief.rig.key == NOTHING {
                shown.clone()
            } else {
                format!("{} and {shown}", rig.shown)
            };
        }
        let value = line.map_or(String::new(), |line| rough::typed(line, self.system));
        Field {
            value: typed.unwrap_or(value),
            shown,
            ..self.blank(part)
        }
    }

    fn field(&self, id: PartId) -> Field {
        let part = id.part();
        let (bounds, decimals) = match part.kind {
            Kind::Quantity(bounds, decimals) | Kind::Limit(bounds, decimals, _) => {
                (bounds, decimals)
            }
            // Not a field; shown as it is.
            _ => return self.blank(part),
        };
        let shown = quantity(&self.asked.brief, id).map_or(String::new(), |si| {
            exact(self.system, bounds.dimension, si, decimals, decimals + 1)
        });
        let typed = self.asked.errors.get(part.name).map(|m| m.typed.clone());
        Field {
            value: typed.unwrap_or_else(|| shown.replace('\u{a0}', " ")),
            shown,
            ..self.blank(part)
        }
    }

    fn blank(&self, part: &Part) -> Field {
        Field {
            name: part.name,
            title: part.title,
            shown: String::new(),
            value: String::new(),
            hint: part.hint,
            words: matches!(part.kind, Kind::Said(_)),
            error: self.error(part),
        }
    }

    fn pick(&self, id: PartId) -> Pick {
        let part = id.part();
        let now = word(&self.asked.brief, id);
        let choices = match part.kind {
            Kind::Words(offered) => offered()
                .iter()
                .map(|o| Choice {
                    key: o.key.to_owned(),
                    label: o.label.to_owned(),
                    note: o.note.to_owned(),
                    chosen: o.key == now,
                    private: false,
                })
                .collect(),
            Kind::Hull => offered::hulls(self.catalogue, &now),
            Kind::Event => offered::events(self.catalogue, &now),
            _ => offered::named(self.catalogue, id, &now, self.system),
        };
        let shown = choices.iter().find(|c| c.chosen);
        Pick {
            name: part.name,
            title: part.title,
            // A rig of one's own is not among the catalogue's.
            shown: shown.map_or(self.asked.brief.rig.name.clone(), |c| c.label.clone()),
            choices,
            error: self.error(part),
        }
    }
}

/// The number a brief has for a part, SI.
fn quantity(brief: &Brief, id: PartId) -> Option<f64> {
    match given(brief, id) {
        Some(Answer::Number(number)) => Some(number),
        _ => None,
    }
}

/// The word a brief has for a part; the usual one where it has none.
fn word(brief: &Brief, id: PartId) -> String {
    match given(brief, id) {
        Some(Answer::Word(word)) => word,
        _ => id.part().usual.to_owned(),
    }
}

/// A quantity with as many decimals, of `least` to `most`, as it takes to be
/// read back as it is: the sentence is also what the form sends.
fn exact(system: System, dimension: Dimension, si: f64, least: usize, most: usize) -> String {
    let shown = system.convert(dimension, si);
    let decimals = (least..most)
        .find(|&n| {
            let scale = 10_f64.powi(n as i32);
            ((shown * scale).round() / scale - shown).abs() < 1e-3 * shown.abs()
        })
        .unwrap_or(most);
    system.text(dimension, si, decimals)
}

/// Whether a part has its usual answer.
fn is_usual(id: PartId, pick: &Pick) -> bool {
    let now = pick.choices.iter().find(|c| c.chosen);
    now.is_none_or(|c| c.key == id.part().usual)
}

/// What differs from the usual, of what stands behind "more".
fn differs(sentence: &Sentence, alone: bool) -> Vec<String> {
    let mut out = Vec::new();
    if !is_usual(PartId::Hand, &sentence.hand) {
        out.push(sentence.hand.shown.clone());
    }
    if !alone {
        out.push(sentence.others.shown.clone());
    }
    let named = [
        (PartId::Scuppers, "scuppers", &sentence.scuppers),
        (PartId::Seat, "seat", &sentence.seat),
        (PartId::Capacity, "capacity by", &sentence.capacity),
        (PartId::Stability, "stability by", &sentence.stability),
        (PartId::Deck, "deck space", &sentence.deck),
    ];
    for (id, word, pick) in named {
        if !is_usual(id, pick) {
            out.push(format!("{word} {}", pick.shown));
        }
    }
    if sentence.own_weight {
        let (capacity, rest) = (sentence.weight, sentence.weight_rest);
        out.push(format!("capacity {capacity} : stability {rest}"));
    }
    let more = MORE.iter().zip(&sentence.more);
    let asked = more.filter(|(id, pick)| !is_usual(**id, pick));
    out.extend(asked.map(|(_, pick)| pick.shown.clone()));
    out
}

/// Those of the last parts that ask something of a hull.
fn more_shown(more: &[Pick]) -> String {
    let asks = MORE
        .iter()
        .zip(more)
        .filter(|(id, pick)| !is_usual(**id, pick));
    let asked: Vec<&str> = asks.map(|(_, pick)| pick.shown.as_str()).collect();
    if asked.is_empty() {
        "nothing else asked".to_owned()
    } else {
        asked.join(", ")
    }
}

/// Writes the sentence of a question; the form goes to `action`.
#[must_use]
pub fn sentence(asked: &Asked, catalogue: &Catalogue, action: String, system: System) -> Sentence {
    let brief = &asked.brief;
    let make = Maker {
        asked,
        catalogue,
        system,
    };
    let mass = |kg| system.text(Dimension::Mass, kg, 0);
    let percent = (brief.capacity_weight * 100.0).round() as u32;
    let limited: Vec<(&str, Field)> = PARTS
        .iter()
        .filter_map(|part| match part.kind {
            Kind::Limit(_, _, before) => Some((before, make.field(part.id))),
            _ => None,
        })
        .collect();
    let set: Vec<String> = limited
        .iter()
        .filter(|(_, field)| !field.shown.is_empty())
        .map(|(before, field)| format!("{before} {}", field.shown))
        .collect();
    let more: Vec<Pick> = MORE.iter().map(|&id| make.pick(id)).collect();
    let limits: Vec<Field> = limited.into_iter().map(|l| l.1).collect();
    let mut rig = make.pick(PartId::Rig);
    let roughly = make.roughly(&mut rig);
    let mut sentence = Sentence {
        roughly,
        line: String::new(),
        wrong: !asked.errors.is_empty(),
        differs: Vec::new(),
        units: units_key(system),
        action,
        start: asked.start.clone().unwrap_or_default(),
        along: Vec::new(),
        scripted: true,
        mass: make.field(PartId::Mass),
        stature: make.field(PartId::Stature),
        posture: make.pick(PartId::Posture),
        others: make.others(),
        hand: make.pick(PartId::Hand),
        rig,
        rig_mass: mass(brief.rig.kit()),
        rig_wet: mass(brief.rig.wet_part()),
        water: make.pick(PartId::Water),
        scuppers: make.pick(PartId::Scuppers),
        seat: make.pick(PartId::Seat),
        capacity: make.pick(PartId::Capacity),
        stability: make.pick(PartId::Stability),
        deck: make.pick(PartId::Deck),
        weight_title: PartId::Weight.part().title,
        weight: percent,
        weight_rest: 100 - percent.min(100),
        weight_error: make.error(PartId::Weight.part()),
        water_weight: (brief.water.capacity_weight * 100.0).round() as u32,
        own_weight: asked.own_weight,
        limits_error: limits.iter().any(|f| !f.error.is_empty()),
        limits_shown: if set.is_empty() {
            "no further limits".to_owned()
        } else {
            set.join(", ")
        },
        limits,
        tries: tries(brief, &catalogue.waters, system),
        more_shown: more_shown(&more),
        more,
        conditions: conditions(&brief.water.conditions, system),
        cautions: cautions(brief),
        moved: Moved::default(),
        starts: catalogue
            .briefs
            .iter()
            .map(|saved| {
                let address = format!("?brief={}", saved.key);
                (address, saved.titled(), !saved.customer.is_empty())
            })
            .collect(),
    };
    sentence.differs = differs(&sentence, brief.others.is_empty());
    sentence.line = format!(
        "{}, {}, {}, {}",
        sentence.mass.shown, sentence.posture.shown, sentence.rig.shown, sentence.water.shown
    );
    sentence
}

#[cfg(test)]
mod tests {
    use super::*;
    use galvet_core::base::POUND;

    #[test]
    fn what_the_form_sends_is_what_was_understood() {
        let mass = |kg| exact(System::Metric, Dimension::Mass, kg, 0, 1);
        assert_eq!(mass(88.0), "88\u{a0}kg");
        assert_eq!(mass(88.4), "88.4\u{a0}kg");
        // Pounds typed whole stay whole.
        let pounds = exact(System::Imperial, Dimension::Mass, 194.0 * POUND, 0, 1);
        assert_eq!(pounds, "194\u{a0}lb");
        let tall = exact(System::Metric, Dimension::Length, 1.835, 2, 3);
        assert_eq!(tall, "1.835\u{a0}m");
    }

    #[test]
    fn every_part_of_words_shows_an_answer_of_its_own() {
        let catalogue = crate::demo_data::catalogue().unwrap();
        let asked = crate::question::Ask::of(std::iter::empty::<(&str, String)>());
        let asked = asked.resolve(&catalogue);
        let asked = asked.map_err(|_| "nothing to ask").unwrap();
        let make = Maker {
            asked: &asked,
            catalogue: &catalogue,
            system: System::Metric,
        };
        for part in PARTS.iter().filter(|p| matches!(p.kind, Kind::Words(_))) {
            let pick = make.pick(part.id);
            assert!(pick.choices.iter().any(|c| c.chosen), "{}", part.name);
        }
    }
}
