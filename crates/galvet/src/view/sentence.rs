//! The brief as a sentence whose parts open in place.

use crate::ask::{self, Asked};
use galvet_core::brief::{Posture, Scuppers, SeatHeight};
use galvet_core::rank::schools::{CapacitySchool, StabilitySchool};
use galvet_core::units::{Dimension, System};
use galvet_core::water::Standing;
use galvet_store::Catalogue;

/// One answer a part offers.
pub(crate) struct Choice {
    pub(crate) key: String,
    pub(crate) label: String,
    pub(crate) note: String,
    pub(crate) chosen: bool,
}

/// A part in which one of several answers is chosen.
pub(crate) struct Pick {
    pub(crate) name: &'static str,
    pub(crate) title: &'static str,
    pub(crate) shown: String,
    pub(crate) choices: Vec<Choice>,
    pub(crate) error: String,
}

/// A part in which something is typed.
pub(crate) struct Field {
    pub(crate) name: &'static str,
    pub(crate) title: &'static str,
    pub(crate) shown: String,
    /// What stands in the field: what was typed when it was not understood.
    pub(crate) value: String,
    pub(crate) hint: &'static str,
    pub(crate) error: String,
}

/// The sentence.
pub(crate) struct Sentence {
    /// Where the form goes.
    pub(crate) action: String,
    pub(crate) mass: Field,
    pub(crate) stature: Field,
    pub(crate) posture: Pick,
    pub(crate) rig: Pick,
    pub(crate) rig_mass: String,
    pub(crate) rig_wet: String,
    pub(crate) water: Pick,
    pub(crate) scuppers: Pick,
    pub(crate) seat: Pick,
    pub(crate) capacity: Pick,
    pub(crate) stability: Pick,
    pub(crate) weight: u32,
    pub(crate) weight_rest: u32,
    pub(crate) weight_error: String,
    pub(crate) water_weight: u32,
    pub(crate) own_weight: bool,
    pub(crate) limits: Vec<Field>,
    pub(crate) limits_shown: String,
    pub(crate) limits_error: bool,
    pub(crate) conditions: String,
    pub(crate) cautions: Vec<String>,
    /// Saved questions to start from: address and name.
    pub(crate) starts: Vec<(String, String)>,
}

struct Maker<'a> {
    asked: &'a Asked,
    system: System,
}

impl Maker<'_> {
    fn error(&self, part: &str) -> String {
        let mistake = self.asked.errors.get(part);
        mistake.map_or(String::new(), |m| m.problem.clone())
    }

    fn field(
        &self,
        name: &'static str,
        title: &'static str,
        shown: String,
        hint: &'static str,
    ) -> Field {
        let typed = self.asked.errors.get(name).map(|m| m.typed.clone());
        Field {
            name,
            title,
            value: typed.unwrap_or_else(|| shown.replace('\u{a0}', " ")),
            shown,
            hint,
            error: self.error(name),
        }
    }

    fn pick(
        &self,
        name: &'static str,
        title: &'static str,
        shown: String,
        choices: Vec<Choice>,
    ) -> Pick {
        Pick {
            name,
            title,
            shown,
            choices,
            error: self.error(name),
        }
    }

    fn limits(&self) -> Vec<Field> {
        let must = self.asked.brief.must;
        let text =
            |d, v: Option<f64>, n| v.map_or(String::new(), |v| exact(self.system, d, v, n, n + 1));
        vec![
            self.field(
                ask::LONGEST,
                "longest that can be stored",
                text(Dimension::Length, must.longest, 2),
                "4.0 m or 13' 2\"; empty for no limit",
            ),
            self.field(
                ask::LIFT,
                "heaviest single lift, the hull stripped",
                text(Dimension::Mass, must.heaviest_lift, 0),
                "32 kg or 70 lb; empty for no limit",
            ),
            self.field(
                ask::BUDGET,
                "most that may be spent",
                text(Dimension::Money, must.budget, 0),
                "a number; empty for no limit",
            ),
        ]
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

fn choices<T: Copy + PartialEq>(
    all: &[T],
    now: T,
    key: impl Fn(T) -> &'static str,
    label: impl Fn(T) -> &'static str,
    note: impl Fn(T) -> &'static str,
) -> Vec<Choice> {
    all.iter()
        .map(|&v| Choice {
            key: key(v).to_owned(),
            label: label(v).to_owned(),
            note: note(v).to_owned(),
            chosen: v == now,
        })
        .collect()
}

/// Writes the sentence of a brief; the form goes to `action`.
pub(crate) fn sentence(
    asked: &Asked,
    catalogue: &Catalogue,
    action: String,
    system: System,
) -> Sentence {
    let brief = &asked.brief;
    let make = Maker { asked, system };
    let mass = |kg| system.text(Dimension::Mass, kg, 0);
    let percent = (brief.capacity_weight * 100.0).round() as u32;
    let limits = make.limits();
    let set: Vec<String> = limits
        .iter()
        .zip(["stored within", "lifted at", "for"])
        .filter(|(field, _)| !field.shown.is_empty())
        .map(|(field, word)| format!("{word} {}", field.shown))
        .collect();
    let mut cautions = brief.water.cautions.clone();
    if brief.posture != Posture::Sits && brief.water.standing == Standing::No {
        cautions.insert(
            0,
            format!("Standing is not done on this water ({}).", brief.water.name),
        );
    }
    if brief.scuppers.holds_water() && !brief.water.plugs_allowed {
        cautions.insert(
            0,
            "Plugged scuppers do not drain: on this water keep them open.".to_owned(),
        );
    }
    Sentence {
        action,
        mass: make.field(
            ask::MASS,
            "the angler's weight",
            exact(system, Dimension::Mass, brief.crew.mass(), 0, 1),
            "88 kg or 194 lb",
        ),
        stature: make.field(
            ask::STATURE,
            "the angler's height",
            exact(system, Dimension::Length, brief.crew.stature(), 2, 3),
            "1.83 m, 183 cm or 6' 0\"",
        ),
        posture: make.pick(
            ask::POSTURE,
            "how the angler fishes",
            brief.posture.label().to_owned(),
            choices(
                Posture::ALL,
                brief.posture,
                Posture::key,
                Posture::label,
                |p| match p {
                    Posture::Stands => "ranked by standing support",
                    Posture::SitsAndStands => "ranked by the weaker of the two",
                    Posture::Sits => "ranked by lean room and reserve",
                },
            ),
        ),
        rig: make.pick(
            ask::RIG,
            "what is carried",
            brief.rig.name.clone(),
            catalogue
                .rigs
                .iter()
                .map(|rig| Choice {
                    key: rig.key.clone(),
                    label: rig.name.clone(),
                    note: format!(
                        "{}, {} of it water and fish",
                        mass(rig.loaded()),
                        mass(rig.wet_part())
                    ),
                    chosen: rig.key == brief.rig.key,
                })
                .collect(),
        ),
        rig_mass: mass(brief.rig.loaded()),
        rig_wet: mass(brief.rig.wet_part()),
        water: make.pick(
            ask::WATER,
            "where",
            brief.water.name.clone(),
            catalogue
                .waters
                .iter()
                .map(|water| Choice {
                    key: water.key.clone(),
                    label: water.name.clone(),
                    note: water.conditions.clone(),
                    chosen: water.key == brief.water.key,
                })
                .collect(),
        ),
        scuppers: make.pick(
            ask::SCUPPERS,
            "what is done with the scuppers",
            brief.scuppers.label().to_owned(),
            choices(
                Scuppers::ALL,
                brief.scuppers,
                Scuppers::key,
                Scuppers::label,
                |s| match s {
                    Scuppers::Open => "water runs out, and comes up when the floor sinks below it",
                    Scuppers::Plugged => "dry feet and more carried, but nothing drains",
                    Scuppers::OneWay => {
                        "valves: float as plugged, drain while the floor is above the water"
                    }
                    Scuppers::CockpitPlugged => "dry feet; the well behind the seat still drains",
                },
            ),
        ),
        seat: make.pick(
            ask::SEAT,
            "which seat height",
            brief.seat.label().to_owned(),
            choices(
                SeatHeight::ALL,
                brief.seat,
                SeatHeight::key,
                SeatHeight::label,
                |s| match s {
                    SeatHeight::Low => "steadier",
                    SeatHeight::High => "sight and comfort, at a cost in lean room",
                },
            ),
        ),
        capacity: make.pick(
            ask::CAPACITY,
            "what capacity is judged by",
            brief.capacity_school.label().to_owned(),
            choices(
                CapacitySchool::ALL,
                brief.capacity_school,
                CapacitySchool::key,
                CapacitySchool::label,
                |s| match s {
                    CapacitySchool::Tightest => "whichever of the three is met first",
                    CapacitySchool::Label => "the maker's rated capacity, and nothing else",
                    CapacitySchool::WorkingShare => "the share of the label this water allows",
                    CapacitySchool::Waterline => "the water at the floor or the gunwale",
                },
            ),
        ),
        stability: make.pick(
            ask::STABILITY,
            "what stability is judged by",
            brief.stability_school.label().to_owned(),
            choices(
                StabilitySchool::ALL,
                brief.stability_school,
                StabilitySchool::key,
                StabilitySchool::label,
                |s| match s {
                    StabilitySchool::ByPosture => "standing support, or lean room and reserve",
                    StabilitySchool::TapeMeasure => {
                        "longer, wider, heavier: knows nothing of load, seat height or the section"
                    }
                    StabilitySchool::SeatedFeel => "how stiffly it starts to push back",
                    StabilitySchool::StandingSupport => "the platform under the feet",
                    StabilitySchool::RoughWater => "work to lean it until the gunwale goes under",
                },
            ),
        ),
        weight: percent,
        weight_rest: 100 - percent.min(100),
        weight_error: make.error(ask::WEIGHT),
        water_weight: (brief.water.capacity_weight * 100.0).round() as u32,
        own_weight: asked.own_weight,
        limits_error: limits.iter().any(|f| !f.error.is_empty()),
        limits_shown: if set.is_empty() {
            "no further limits".to_owned()
        } else {
            set.join(", ")
        },
        limits,
        conditions: brief.water.conditions.clone(),
        cautions,
        starts: catalogue
            .briefs
            .iter()
            .map(|saved| (format!("?brief={}", saved.key), saved.name.clone()))
            .collect(),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_the_form_sends_is_what_was_understood() {
        let mass = |kg| exact(System::Metric, Dimension::Mass, kg, 0, 1);
        assert_eq!(mass(88.0), "88\u{a0}kg");
        assert_eq!(mass(88.4), "88.4\u{a0}kg");
        // Pounds typed whole stay whole.
        let pounds = exact(
            System::Imperial,
            Dimension::Mass,
            194.0 * 0.453_592_37,
            0,
            1,
        );
        assert_eq!(pounds, "194\u{a0}lb");
        let tall = exact(System::Metric, Dimension::Length, 1.835, 2, 3);
        assert_eq!(tall, "1.835\u{a0}m");
    }
}
