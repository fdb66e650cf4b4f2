//! What a log decides: handbook, chapter 8.8.

use super::carried::CarriedKit;
use super::outing::Outing;
use super::upkeep::{Due, Standing};
use crate::papers::Care;
use std::collections::BTreeMap;

/// Outings a thing must have been missed on before it is bought.
const MISSED: usize = 3;
/// Times a part must have failed before its spare comes along.
const FAILED: usize = 2;
/// Outings a battery must have come home so empty before a bigger one is told of.
const EMPTY: usize = 2;
/// Share left under which it came home empty.
const LEFT: f64 = 0.30;

/// Something the log says to do.
#[derive(Debug, Clone, PartialEq)]
pub enum Decision<'a> {
    /// Do a service.
    Serve(&'a Due),
    /// Leave it ashore, or sell it.
    Ashore(&'a CarriedKit<'a>),
    /// Buy it: missed so often.
    Buy(String, usize),
    /// Carry a spare of a part that failed so often; what is known of it.
    Spare(String, usize, Option<&'static Care>),
    /// A bigger battery: came home under 30 % so often.
    Battery(usize),
    /// The wind that turned somebody back, m/s, the least of them, and how often.
    OwnLimit(f64, usize),
}

/// What a log says to do, what keeps people afloat first.
#[must_use]
pub fn decide<'a>(
    outings: &[Outing],
    dues: &'a [Due],
    kit: &'a [CarriedKit<'a>],
) -> Vec<Decision<'a>> {
    let mut all = Vec::new();
    let back: Vec<f64> = outings
        .iter()
        .filter(|o| o.turned_back)
        .filter_map(|o| o.wind)
        .collect();
    let least = back.iter().copied().fold(f64::INFINITY, f64::min);
    if least.is_finite() {
        all.push(Decision::OwnLimit(least, back.len()));
    }
    let up = dues.iter().filter(|d| d.standing == Standing::Due);
    all.extend(up.map(Decision::Serve));
    let parts = outings.iter().flat_map(|o| &o.faults);
    for (part, times) in counted(parts.map(|f| f.part.as_str())) {
        if times >= FAILED {
            let care = super::faults::mend(&part);
            all.push(Decision::Spare(part, times, care));
        }
    }
    let empty = outings
        .iter()
        .filter(|o| o.battery_left.is_some_and(|left| left < LEFT))
        .count();
    if empty >= EMPTY {
        all.push(Decision::Battery(empty));
    }
    let missed = outings.iter().flat_map(|o| &o.missed);
    for (thing, times) in counted(missed.map(String::as_str)) {
        if times >= MISSED {
            all.push(Decision::Buy(thing, times));
        }
    }
    all.extend(
        kit.iter()
            .filter(|k| k.stays_ashore())
            .map(Decision::Ashore),
    );
    all
}

/// Words with how often each stands there, whatever its case, the most often first.
fn counted<'w>(words: impl Iterator<Item = &'w str>) -> Vec<(String, usize)> {
    let mut all: BTreeMap<String, (String, usize)> = BTreeMap::new();
    for word in words {
        let word = word.trim();
        if word.is_empty() {
            continue;
        }
        let entry = all
            .entry(word.to_lowercase())
            .or_insert_with(|| (word.to_owned(), 0));
        entry.1 += 1;
    }
    let mut all: Vec<(String, usize)> = all.into_values().collect();
    all.sort_by(|a, b| b.1.cmp(&a.1).then_with(|| a.0.cmp(&b.0)));
    all
}
