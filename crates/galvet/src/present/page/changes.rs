//! What was or may be changed on a hull, how she is set up, and what each way of
//! her does under the question.

use super::filled::{Field, Filled, NotTaken, Tick, Words};
use super::variants::SideBySide;
use crate::present::draw::plan::{AtHand, HullPlan, hull_plan};
use crate::survey::Shown;
use galvet_core::base::{Dimension, Keyed, System};
use galvet_core::body::Lines;
use galvet_core::hull::{
    Configuration, Dryness, Modification, Progress, Propulsion, SeatSetting, SeatUsed, Survey,
    ZoneKind, zones,
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

/// The change or configuration at hand.
pub struct Form {
    /// Its name on the record; empty for a new one.
    pub was: String,
    pub fields: Vec<Field>,
    /// Fields of the place a change makes.
    pub zone: Vec<Field>,
    pub selects: Vec<(&'static str, &'static str, Words)>,
    pub ticks: Vec<Tick>,
    /// Things of delivery it takes off.
    pub removes: Vec<Tick>,
    /// Zones of delivery whose dryness it changes: field, label, grades.
    pub seals: Vec<(String, String, Words)>,
    pub trouble: String,
    /// What the form shows, to be sent along; empty for a new one.
    pub shown: String,
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
    table: SideBySide,
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
                ..AtHand::default()
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
        table,
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

fn change_form(
    survey: &Survey,
    was: Option<&Modification>,
    not_taken: &NotTaken,
    system: System,
) -> Form {
    let form = Filled {
        shown: was.map_or_else(Shown::of_new_modification, |m| {
            Shown::of_modification(m, system)
        }),
        not_taken,
    };
    let stock = survey.fitout.zones.iter().map(|zone| &zone.name);
    let stock = stock.chain(survey.fitout.fittings.iter().map(|f| &f.name));
    let removes = stock.map(|name| form.tick(format!("removes-{name}"), name.clone()));
    let seals = survey.fitout.zones.iter().map(|zone| {
        let field = format!("seals-{}", zone.name);
        let grades = form.select::<Dryness>(&field, Some("as it is"));
        (field, zone.name.clone(), grades)
    });
    Form {
        was: was.map_or(String::new(), |m| m.name.clone()),
        fields: vec![
            form.field("name", "called", ""),
            form.field("mass", "weighs", "below zero where it takes weight off"),
            form.field("x", "its place, from the bow", ""),
            form.field("z", "above the bottom", ""),
            form.field("holes", "holes drilled", "none near or below the waterline"),
            form.field("price", "costs", ""),
            form.field("note", "note", ""),
        ],
        zone: vec![
            form.field(
                "zone-from",
                "new place begins, from the bow",
                "leave empty for none",
            ),
            form.field("zone-to", "ends, from the bow", ""),
            form.field("zone-width", "wide", ""),
            form.field("zone-height", "high", ""),
            form.field("zone-opening", "round opening, across", ""),
        ],
        selects: vec![
            (
                "zone-kind",
                "it is a",
                form.select::<ZoneKind>("zone-kind", None),
            ),
            (
                "zone-dryness",
                "how dry",
                form.select::<Dryness>("zone-dryness", Some("not said")),
            ),
        ],
        removes: removes.collect(),
        seals: seals.collect(),
        ticks: vec![
            form.tick("done".to_owned(), "it is done".to_owned()),
            form.tick("undoable".to_owned(), "it can be undone".to_owned()),
        ],
        trouble: form.trouble(),
        shown: was.map_or(String::new(), |_| form.shown.sent_along()),
    }
}

fn set_up_form(survey: &Survey, was: Option<&Configuration>, not_taken: &NotTaken) -> Form {
    let form = Filled {
        shown: was.map_or_else(
            || Shown::of_new_configuration(survey),
            Shown::of_configuration,
        ),
        not_taken,
    };
    let changes = survey.fitout.modifications.iter();
    let changes =
        changes.map(|m| form.tick(format!("with-{}", m.name), format!("with {}", m.name)));
    Form {
        was: was.map_or(String::new(), |c| c.name.clone()),
        fields: vec![
            form.field("name", "called", ""),
            form.field("seats", "seats in", ""),
        ],
        zone: Vec::new(),
        selects: vec![
            (
                "propulsion",
                "driven by",
                form.select::<Propulsion>("propulsion", None),
            ),
            (
                "seat",
                "the seat stands",
                form.select::<SeatSetting>("seat", None),
            ),
            (
                "seat-used",
                "the seat used",
                form.select::<SeatUsed>("seat-used", None),
            ),
        ],
        ticks: changes.collect(),
        removes: Vec::new(),
        seals: Vec::new(),
        trouble: form.trouble(),
        shown: was.map_or(String::new(), |_| form.shown.sent_along()),
    }
}
