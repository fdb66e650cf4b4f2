//! What was or may be changed on a hull, how she is set up, and what each way of
//! her does under the question.

use super::variants::{SideBySide, side_by_side};
use super::walk::{NotTaken, Words};
use crate::answer::Outcome;
use crate::present::draw::plan::{AtHand, HullPlan, hull_plan};
use crate::survey::{shown_across, shown_along};
use galvet_core::base::{Dimension, Keyed, System};
use galvet_core::body::Lines;
use galvet_core::hull::{
    Configuration, Dryness, Modification, Opening, Progress, Propulsion, SeatSetting, SeatUsed,
    Survey, ZoneKind, zones,
};

/// A change in the list.
pub struct ChangeLine {
    pub name: String,
    pub done: bool,
    /// Mass, holes, cost, whether it can be undone.
    pub words: String,
    pub removes: String,
    pub note: String,
    pub here: bool,
}

/// A configuration in the list.
pub struct SetUpLine {
    pub name: String,
    pub words: String,
    pub here: bool,
}

/// A field with what was typed and what was not understood.
pub struct Field {
    pub name: &'static str,
    pub label: &'static str,
    pub hint: &'static str,
    pub value: String,
    pub mistake: String,
}

/// The change or configuration at hand.
pub struct Form {
    /// Its name on the record; empty for a new one.
    pub was: String,
    pub fields: Vec<Field>,
    /// Fields of the place a change makes.
    pub zone: Vec<Field>,
    pub selects: Vec<(&'static str, &'static str, Words)>,
    /// Ticks: field, label, set.
    pub ticks: Vec<(String, String, bool)>,
    /// Things of delivery it takes off: field, label, set.
    pub removes: Vec<(String, String, bool)>,
    /// Zones of delivery whose dryness it changes: field, label, grades.
    pub seals: Vec<(String, String, Words)>,
    pub trouble: String,
}

/// What is at hand.
#[derive(Debug, Clone, Default)]
pub struct AtChange {
    /// A change on the record, or "" for a new one.
    pub change: Option<String>,
    /// A configuration on the record, or "" for a new one.
    pub set_up: Option<String>,
}

/// The page.
pub struct ChangesView {
    pub key: String,
    pub name: String,
    pub plan: Option<HullPlan>,
    pub changes: Vec<ChangeLine>,
    pub set_ups: Vec<SetUpLine>,
    pub back_to_stock: Vec<String>,
    pub table: SideBySide,
    pub change: Option<Form>,
    pub set_up: Option<Form>,
}

/// Makes the page.
#[must_use]
pub fn changes(
    survey: &Survey,
    lines: Option<&Lines>,
    outcomes: &[Outcome],
    at: &AtChange,
    not_taken: &NotTaken,
    system: System,
) -> ChangesView {
    let fitout = &survey.fitout;
    let named = at.change.as_deref();
    let set_up = at.set_up.as_deref();
    // The plan shows the change at hand as if it were made.
    let shown = match named {
        Some(name) => survey.with_made(|m| m.progress == Progress::Done || m.name == name),
        None => survey.clone(),
    };
    let all = zones(&shown);
    let here = fitout
        .modifications
        .iter()
        .filter(|m| named == Some(m.name.as_str()))
        .flat_map(|m| &m.zones)
        .find_map(|made| all.iter().position(|z| z.name == made.name));
    ChangesView {
        key: survey.key.clone(),
        name: survey.name(),
        plan: lines.map(|lines| {
            let hand = AtHand {
                zone: here,
                fitting: None,
            };
            hull_plan(lines, &all, &shown.fitout.fittings_now(), hand)
        }),
        changes: fitout
            .modifications
            .iter()
            .map(|m| change_line(m, named, system))
            .collect(),
        set_ups: fitout
            .configurations
            .iter()
            .map(|c| SetUpLine {
                name: c.name.clone(),
                words: set_up_words(c),
                here: set_up == Some(c.name.as_str()),
            })
            .collect(),
        back_to_stock: fitout
            .done()
            .filter(|m| m.can_be_undone)
            .map(|m| m.name.clone())
            .collect(),
        table: side_by_side(outcomes, system),
        change: named.map(|name| {
            let was = fitout.modifications.iter().find(|m| m.name == name);
            change_form(survey, was, not_taken, system)
        }),
        set_up: set_up.map(|name| {
            let was = fitout.configurations.iter().find(|c| c.name == name);
            set_up_form(survey, was, not_taken)
        }),
    }
}

fn change_line(m: &Modification, at: Option<&str>, system: System) -> ChangeLine {
    let mut words = vec![system.text(Dimension::Mass, m.mass, 1)];
    words.push(match m.holes {
        0 => "no hole".to_owned(),
        1 => "one hole".to_owned(),
        n => format!("{n} holes"),
    });
    if let Some(price) = m.price {
        words.push(system.text(Dimension::Money, price, 0));
    }
    let undone = if m.can_be_undone {
        "can be undone"
    } else {
        "cannot be undone"
    };
    words.push(undone.to_owned());
    for (zone, dryness) in &m.dryness {
        words.push(format!("{zone}: {}", dryness.label()));
    }
    for zone in &m.zones {
        let dry = zone.dryness.map_or("", Keyed::label);
        words.push(
            format!("makes a {} {dry}", zone.kind.label())
                .trim()
                .to_owned(),
        );
    }
    ChangeLine {
        name: m.name.clone(),
        done: m.progress == Progress::Done,
        words: words.join(", "),
        removes: m.removes.join(", "),
        note: m.note.clone(),
        here: at == Some(m.name.as_str()),
    }
}

fn set_up_words(c: &Configuration) -> String {
    let mut words = vec![
        c.propulsion.label().to_owned(),
        format!("seat {}", c.seat.label()),
    ];
    if c.seat_used != SeatUsed::Only {
        words.push(format!("{} seat used", c.seat_used.label()));
    }
    words.extend(c.modifications.iter().cloned());
    words.join(", ")
}

/// Fields as they stand, or as they were typed.
struct Filled<'a> {
    not_taken: &'a NotTaken,
}

impl Filled<'_> {
    fn sent(&self) -> bool {
        !self.not_taken.typed.is_empty()
    }

    fn value(&self, name: &str, now: String) -> String {
        if self.sent() {
            self.not_taken.typed.get(name).cloned().unwrap_or_default()
        } else {
            now
        }
    }

    fn field(
        &self,
        name: &'static str,
        label: &'static str,
        hint: &'static str,
        now: String,
    ) -> Field {
        Field {
            name,
            label,
            hint,
            value: self.value(name, now),
            mistake: self
                .not_taken
                .mistakes
                .get(name)
                .cloned()
                .unwrap_or_default(),
        }
    }

    fn tick(&self, name: String, label: String, now: bool) -> (String, String, bool) {
        let set = if self.sent() {
            self.not_taken.typed.contains_key(&name)
        } else {
            now
        };
        (name, label, set)
    }

    fn select<T: Keyed + PartialEq>(&self, name: &str, now: Option<T>) -> Words {
        let chosen = self.value(name, now.map_or(String::new(), |v| v.key().to_owned()));
        let all = T::ALL.iter();
        all.map(|&v| (v.key(), v.label(), v.key() == chosen))
            .collect()
    }
}

fn change_form(
    survey: &Survey,
    was: Option<&Modification>,
    not_taken: &NotTaken,
    system: System,
) -> Form {
    let filled = Filled { not_taken };
    let along = |m: f64| shown_along(system, m);
    let across = |m: f64| shown_across(system, m);
    let mass = |m: f64| system.text(Dimension::Mass, m, 1);
    let zone = was.and_then(|m| m.zones.first());
    let z = |get: &dyn Fn(&galvet_core::hull::Zone) -> Option<String>| {
        zone.and_then(get).unwrap_or_default()
    };
    let stock = survey.fitout.zones.iter().map(|zone| &zone.name);
    let stock = stock.chain(survey.fitout.fittings.iter().map(|f| &f.name));
    let ticks = vec![
        filled.tick(
            "done".to_owned(),
            "it is done".to_owned(),
            was.is_some_and(|m| m.progress == Progress::Done),
        ),
        filled.tick(
            "undoable".to_owned(),
            "it can be undone".to_owned(),
            was.is_none_or(|m| m.can_be_undone),
        ),
    ];
    let removes = stock.map(|name| {
        filled.tick(
            format!("removes-{name}"),
            name.clone(),
            was.is_some_and(|m| m.removes.contains(name)),
        )
    });
    let seals = survey.fitout.zones.iter().map(|zone| {
        let field = format!("seals-{}", zone.name);
        let now = was.and_then(|m| m.dryness.iter().find(|(name, _)| *name == zone.name));
        let mut grades = filled.select::<Dryness>(&field, now.map(|(_, grade)| *grade));
        let unchanged = grades.iter().all(|grade| !grade.2);
        grades.insert(0, ("", "as it is", unchanged));
        (field, zone.name.clone(), grades)
    });
    let text = |get: &dyn Fn(&Modification) -> String| was.map_or(String::new(), get);
    Form {
        was: text(&|m| m.name.clone()),
        fields: vec![
            filled.field("name", "called", "", text(&|m| m.name.clone())),
            filled.field(
                "mass",
                "weighs",
                "below zero where it takes weight off",
                text(&|m| mass(m.mass)),
            ),
            filled.field("x", "its place, from the bow", "", text(&|m| along(m.x))),
            filled.field("z", "above the bottom", "", text(&|m| across(m.z))),
            filled.field(
                "holes",
                "holes drilled",
                "none near or below the waterline",
                text(&|m| m.holes.to_string()),
            ),
            filled.field(
                "price",
                "costs",
                "",
                text(&|m| m.price.map_or(String::new(), |p| format!("{p:.0}"))),
            ),
            filled.field("note", "note", "", text(&|m| m.note.clone())),
        ],
        zone: vec![
            filled.field(
                "zone-from",
                "new place begins, from the bow",
                "leave empty for none",
                z(&|z| Some(along(z.from))),
            ),
            filled.field(
                "zone-to",
                "ends, from the bow",
                "",
                z(&|z| Some(along(z.to))),
            ),
            filled.field("zone-width", "wide", "", z(&|z| Some(across(z.width)))),
            filled.field("zone-height", "high", "", z(&|z| z.height.map(across))),
            filled.field(
                "zone-opening",
                "round opening, across",
                "",
                z(&|z| match z.opening {
                    Some(Opening::Round(d)) => Some(across(d)),
                    _ => None,
                }),
            ),
        ],
        selects: vec![
            (
                "zone-kind",
                "it is a",
                filled.select::<ZoneKind>(
                    "zone-kind",
                    zone.map(|z| z.kind).or(Some(ZoneKind::SternHatch)),
                ),
            ),
            (
                "zone-dryness",
                "how dry",
                filled.select::<Dryness>("zone-dryness", zone.and_then(|z| z.dryness)),
            ),
        ],
        removes: removes.collect(),
        seals: seals.collect(),
        ticks,
        trouble: not_taken.mistakes.get("").cloned().unwrap_or_default(),
    }
}

fn set_up_form(survey: &Survey, was: Option<&Configuration>, not_taken: &NotTaken) -> Form {
    let filled = Filled { not_taken };
    let changes = survey.fitout.modifications.iter().map(|m| {
        filled.tick(
            format!("with-{}", m.name),
            format!("with {}", m.name),
            was.map_or(m.progress == Progress::Done, |c| {
                c.modifications.contains(&m.name)
            }),
        )
    });
    Form {
        was: was.map_or(String::new(), |c| c.name.clone()),
        fields: vec![
            filled.field(
                "name",
                "called",
                "",
                was.map_or(String::new(), |c| c.name.clone()),
            ),
            filled.field(
                "seats",
                "seats in",
                "",
                was.map_or(survey.seats, |c| c.seats).to_string(),
            ),
        ],
        zone: Vec::new(),
        selects: vec![
            (
                "propulsion",
                "driven by",
                filled.select::<Propulsion>(
                    "propulsion",
                    was.map(|c| c.propulsion).or(Some(survey.propulsion)),
                ),
            ),
            (
                "seat",
                "the seat stands",
                filled.select::<SeatSetting>("seat", was.map(|c| c.seat)),
            ),
            (
                "seat-used",
                "the seat used",
                filled.select::<SeatUsed>("seat-used", was.map(|c| c.seat_used)),
            ),
        ],
        ticks: changes.collect(),
        removes: Vec::new(),
        seals: Vec::new(),
        trouble: not_taken.mistakes.get("").cloned().unwrap_or_default(),
    }
}
