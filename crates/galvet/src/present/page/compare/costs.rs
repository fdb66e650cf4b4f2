//! What choosing one hull costs against another, in words a dealer can say aloud.

use crate::answer::Outcome;
use galvet_core::base::{Dimension, System};
use galvet_core::figures::{Better, Quantity};
use galvet_core::hull::Measure;
use galvet_core::rank::explain::{area, headline_stability};

/// One against another.
pub struct Cost {
    /// "Dunmarrow instead of Vaskar".
    pub title: String,
    /// What one gains.
    pub gains: Vec<String>,
    /// What one gives.
    pub gives: Vec<String>,
}

/// Every pair of those that pass, the better placed one first.
#[must_use]
pub fn costs(outcomes: &[Outcome], system: System) -> Vec<Cost> {
    let mut standing: Vec<&Outcome> = outcomes.iter().filter(|o| o.place.is_some()).collect();
    standing.sort_by_key(|o| o.place);
    let mut out = Vec::new();
    for (n, one) in standing.iter().enumerate() {
        for other in &standing[n + 1..] {
            out.extend(cost(one, other, system));
        }
    }
    out
}

/// What each way of one hull gains and gives against one of them, and what finds no place
/// on it any more.
#[must_use]
pub fn effects(outcomes: &[Outcome], base: usize, system: System) -> Vec<Effect> {
    let Some(as_it_is) = outcomes.get(base) else {
        return Vec::new();
    };
    let left = |o: &Outcome| -> Vec<String> {
        let afloat = o.afloat.as_ref().ok();
        let all = afloat.map_or(&[][..], |a| &a.assessment.setup.loads.layout.unplaced);
        all.iter().map(|u| u.text(system)).collect()
    };
    let before = left(as_it_is);
    let others = outcomes.iter().enumerate().filter(|(n, _)| *n != base);
    let told = others.map(|(_, way)| {
        let cost = cost(way, as_it_is, system);
        let lost = left(way).into_iter().filter(|l| !before.contains(l));
        Effect {
            name: way.way.name.clone(),
            gains: cost.as_ref().map_or(String::new(), |c| c.gains.join(", ")),
            gives: cost.as_ref().map_or(String::new(), |c| c.gives.join(", ")),
            lost: lost.collect(),
        }
    });
    told.collect()
}

/// What another way of a hull does.
pub struct Effect {
    /// What it is called.
    pub name: String,
    pub gains: String,
    pub gives: String,
    /// What finds no place on it any more, with the reason.
    pub lost: Vec<String>,
}

fn cost(one: &Outcome, other: &Outcome, system: System) -> Option<Cost> {
    let (a, b) = (one.afloat.as_ref().ok()?, other.afloat.as_ref().ok()?);
    let (a, b) = (&a.assessment, &b.assessment);
    let headline = headline_stability(&a.setup.brief);
    let mut cost = Cost {
        title: format!("{} instead of {}", one.way.name, other.way.name),
        gains: Vec::new(),
        gives: Vec::new(),
    };
    let mut tell = |good: bool, words: String| {
        if good {
            cost.gains.push(words);
        } else {
            cost.gives.push(words);
        }
    };
    let figures = [
        (Quantity::BindingMargin, "margin"),
        (headline, headline.row().label),
        (Quantity::LeanRoom, "of lean room"),
        (Quantity::Draft, "of draft"),
    ];
    for (n, (quantity, what)) in figures.into_iter().enumerate() {
        let told_before = figures[..n].iter().any(|f| f.0 == quantity);
        let (Some(x), Some(y)) = (a.median(quantity), b.median(quantity)) else {
            continue;
        };
        let row = quantity.row();
        let size = row.text(system, (x - y).abs());
        if told_before || size == row.text(system, 0.0) {
            continue;
        }
        let more = x > y;
        let word = if more { "more" } else { "less" };
        tell(
            more == (row.better == Better::Higher),
            format!("{size} {word} {what}"),
        );
    }
    let deck = |of: &galvet_core::figures::Assessment| {
        let deck = of.setup.loads.layout.deck.as_ref()?;
        Some(deck.standing_floor.unwrap_or(0.0) + deck.well_free)
    };
    if let (Some(x), Some(y)) = (deck(a), deck(b))
        && area((x - y).abs(), system) != area(0.0, system)
    {
        let word = if x > y { "more" } else { "less" };
        tell(
            x > y,
            format!("{} {word} deck left clear", area((x - y).abs(), system)),
        );
    }
    let survey = |o: &Outcome, m: Measure| o.way.hull.survey.value(m);
    let kept = [
        (Measure::FittedWeight, Dimension::Mass, "to lift, fitted"),
        (Measure::Length, Dimension::Length, "of length to store"),
        (Measure::Price, Dimension::Money, "to pay"),
    ];
    for (measure, dimension, what) in kept {
        let (Some(x), Some(y)) = (survey(one, measure), survey(other, measure)) else {
            continue;
        };
        let decimals = if dimension == Dimension::Length { 2 } else { 0 };
        let size = system.text(dimension, (x - y).abs(), decimals);
        if size == system.text(dimension, 0.0, decimals) {
            continue;
        }
        let word = if x > y { "more" } else { "less" };
        tell(x < y, format!("{size} {word} {what}"));
    }
    (!cost.gains.is_empty() || !cost.gives.is_empty()).then_some(cost)
}
