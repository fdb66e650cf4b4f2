//! One sentence for each place, built from the numbers.

use super::{Binding, Ranked, Ranking, headline};
use crate::base::System;
use crate::figures::{Better, Quantity};
use crate::question::{Brief, DeckUse};

/// The stability figure that speaks for a brief's school and posture.
#[must_use]
pub const fn headline_stability(brief: &Brief) -> Quantity {
    headline(brief.stability_school, brief.posture)
}

/// Differences smaller than this (points) are not worth a clause.
const ALIKE: f64 = 1.5;

/// Why the hull at `index` stands where it stands.
#[must_use]
pub fn why(ranking: &Ranking, index: usize, system: System) -> String {
    let me = &ranking.ranked[index];
    let sentence = if index == 0 {
        why_first(ranking, system)
    } else {
        against(me, &ranking.ranked[index - 1], &ranking.brief, system)
    };
    let deck = deck(ranking, index, system);
    format!("{sentence}{deck}{}", warning(me, system))
}

/// What the deck adds to the sentence, where the brief counts it: the floor and the
/// well left, together.
fn deck(ranking: &Ranking, index: usize, system: System) -> String {
    if ranking.brief.deck == DeckUse::Aside {
        return String::new();
    }
    let left = |at: usize| {
        let deck = ranking.ranked[at]
            .assessment
            .setup
            .loads
            .layout
            .deck
            .as_ref();
        deck.map_or(0.0, |d| d.standing_floor.unwrap_or(0.0) + d.well_free)
    };
    let mine = left(index);
    if index == 0 {
        return format!(" Deck left clear: {}.", area(mine, system));
    }
    let apart = mine - left(index - 1);
    if area(apart.abs(), system) == area(0.0, system) {
        return " As much deck left clear.".to_owned();
    }
    let more = if apart > 0.0 { "more" } else { "less" };
    format!(
        " {} {more} of the deck left clear.",
        area(apart.abs(), system)
    )
}

/// An area in the reader's units: square metres, or square feet of 0.3048² m².
#[must_use]
pub fn area(m2: f64, system: System) -> String {
    match system {
        System::Metric => format!("{m2:.2}\u{a0}m²"),
        System::Imperial => format!("{:.1}\u{a0}sq\u{a0}ft", m2 / (0.3048 * 0.3048)),
    }
}

fn why_first(ranking: &Ranking, system: System) -> String {
    let me = &ranking.ranked[0];
    let rest = &ranking.ranked[1..];
    let leads = |f: fn(&Ranked) -> f64| rest.iter().all(|r| f(r) <= f(me));
    let margin = me
        .assessment
        .median(Quantity::BindingMargin)
        .map_or("margin not known".to_owned(), |kg| {
            format!("{} in hand", mass(kg, system))
        });
    let stability = figure(me, headline_stability(&ranking.brief), system);
    match (
        leads(|r| r.score.capacity),
        leads(|r| r.score.stability),
        rest.is_empty(),
    ) {
        (_, _, true) => format!("The only one left: {margin}, {stability}."),
        (true, true, _) => format!("Nothing beats it on either count: {margin}, {stability}."),
        (true, false, _) => format!(
            "Carries the most in reserve, {margin}, and is steady enough for it: {stability}."
        ),
        (false, true, _) => format!("The steadiest of them, {stability}, with {margin}."),
        (false, false, _) => format!("Best balance of the two: {margin}, {stability}."),
    }
}

fn mass(kg: f64, system: System) -> String {
    Quantity::BindingMargin.row().text(system, kg)
}

/// "standing support 1.12"
fn figure(entry: &Ranked, quantity: Quantity, system: System) -> String {
    let row = quantity.row();
    match entry.assessment.median(quantity) {
        Some(value) => format!("{} {}", row.label, row.text(system, value)),
        None => format!("{} not known", row.label),
    }
}

/// A clause such as "31 kg more in hand", and whether it speaks for `me`.
fn difference(
    me: &Ranked,
    other: &Ranked,
    quantity: Quantity,
    what: &str,
    system: System,
) -> Option<(bool, String)> {
    let row = quantity.row();
    let apart = me.assessment.median(quantity)? - other.assessment.median(quantity)?;
    let size = row.text(system, apart.abs());
    if size == row.text(system, 0.0) {
        return None;
    }
    let more = if apart > 0.0 { "more" } else { "less" };
    let good = (apart > 0.0) == (row.better == Better::Higher);
    Some((good, format!("{size} {more} {what}")))
}

fn against(me: &Ranked, other: &Ranked, brief: &Brief, system: System) -> String {
    let name = other.survey().name();
    let stability = headline_stability(brief);
    let what = stability.row().label;
    let clauses: Vec<(bool, String)> = [
        difference(me, other, Quantity::BindingMargin, "in hand", system),
        difference(me, other, stability, what, system),
    ]
    .into_iter()
    .flatten()
    .collect();
    let sentence = match clauses.as_slice() {
        [] => format!("Level with the {name} in both figures"),
        [(_, one)] => format!("{one} than the {name}"),
        [(a, one), (b, two), ..] => {
            let joint = if a == b { "and" } else { "but" };
            format!("{one} than the {name}, {joint} {two}")
        }
    };
    let close = (me.score.total - other.score.total).abs() < ALIKE;
    let tail = if close {
        "; next to nothing between them."
    } else {
        "."
    };
    format!("{sentence}{tail}")
}

/// What a buyer must hear even of a hull that ranks.
fn warning(me: &Ranked, system: System) -> String {
    let mut out = String::new();
    if let Some((Binding::WorkingShare, kg)) = me.binding
        && kg < 0.0
    {
        out.push_str(&format!(
            " Loaded {} past the share of the label this water allows.",
            mass(-kg, system)
        ));
    }
    if let Some(told) = super::reach_told(&me.assessment) {
        out.push_str(&format!(" Mind: {told}."));
    }
    let unmet: Vec<String> = me
        .demands
        .iter()
        .filter(|m| m.met != Some(true))
        .map(|m| m.text(system))
        .collect();
    if !unmet.is_empty() {
        out.push_str(&format!(" This water asks: {}.", unmet.join("; ")));
    }
    if !me.score.missing.is_empty() {
        let missing: Vec<&str> = me.score.missing.iter().map(|m| m.label()).collect();
        out.push_str(&format!(
            " Not known, so without points: {}.",
            missing.join(", ")
        ));
    }
    out
}

/// What is said in red beside the place; `None` where all shapes stay up.
#[must_use]
pub fn peril(me: &Ranked) -> Option<String> {
    me.peril.map(|p| p.text())
}
