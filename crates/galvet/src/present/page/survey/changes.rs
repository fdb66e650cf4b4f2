//! What was or may be changed on a hull, how it is set up, and what each way of
//! it does under the question.

use crate::form::{FormView, NotTaken};
use crate::present::draw::plan::{AtHand, HullPlan, hull_plan};
use crate::present::page::compare::costs::Effect;
use crate::present::page::compare::variants::SideBySide;
use crate::survey::{
    Card, blank_card, card_form, configuration_form, modification_form, new_configuration,
    new_modification,
};
use galvet_core::base::{Dimension, Keyed, System};
use galvet_core::body::Lines;
use galvet_core::guide::Guides;
use galvet_core::hull::{Configuration, Modification, Progress, SeatUsed, Survey, zones};

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
    pub form: FormView,
}

/// What is at hand.
#[derive(Debug, Clone, Default)]
pub struct AtChange {
    /// A change on the record, or "" for a new one.
    pub change: Option<String>,
    /// A configuration on the record, or "" for a new one.
    pub set_up: Option<String>,
    /// A card to be filled in.
    pub card: Option<Card>,
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
    /// What it is set against, and what each other way does.
    pub base: String,
    pub effects: Vec<Effect>,
    pub change: Option<Form>,
    pub set_up: Option<Form>,
    /// A card at hand: its word, what it is called, its form.
    pub card: Option<(&'static str, &'static str, FormView)>,
}

/// Makes the page.
#[must_use]
pub fn changes(
    survey: &Survey,
    lines: Option<&Lines>,
    (mut table, base, effects): (SideBySide, String, Vec<Effect>),
    at: &AtChange,
    not_taken: &NotTaken,
    (guides, system): (&Guides, System),
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
        table: {
            // Told above, against one way of it.
            table.costs.clear();
            table
        },
        base,
        effects,
        change: named.map(|name| {
            let was = fitout.modifications.iter().find(|m| m.name == name);
            let table = modification_form(survey);
            Form {
                was: was.map_or(String::new(), |m| m.name.clone()),
                form: table.form_or_new(was, new_modification, not_taken, system),
            }
        }),
        card: at.card.map(|card| {
            let blank = blank_card(card, survey, guides);
            let form = card_form(card).form(&blank, true, not_taken, system);
            (card.word(), card.words()[0], form)
        }),
        set_up: set_up.map(|name| {
            let was = fitout.configurations.iter().find(|c| c.name == name);
            let usual = || new_configuration(survey);
            let table = configuration_form(survey);
            Form {
                was: was.map_or(String::new(), |c| c.name.clone()),
                form: table.form_or_new(was, usual, not_taken, system),
            }
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
