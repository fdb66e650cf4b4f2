//! What comes along and is never used.

use super::outing::{Carried, Fate, Outing};
use crate::gear::Gear;
use std::collections::BTreeMap;

/// Outings on which a thing must have been carried and not used before it is told to stay
/// ashore (handbook, chapter 8.8).
const TRIPS: usize = 8;

/// A thing over the log.
#[derive(Debug, Clone, PartialEq)]
pub struct CarriedKit<'a> {
    /// What it is.
    pub item: String,
    /// The thing on the shelf; `None` for what is not on it.
    pub gear: Option<&'a Gear>,
    /// Outings it was aboard.
    pub carried: usize,
    /// Outings of them it was used on: what broke or was lost was in use.
    pub used: usize,
    /// Outings of them somebody said it was not.
    pub unused: usize,
    /// Outings of them nobody said.
    pub unsaid: usize,
    /// Outings it was lost, broke or got wet on.
    pub harmed: usize,
    /// Outings it was on the plan for and stayed ashore.
    pub ashore: usize,
    /// Outings since it was last used on which somebody said it was not.
    pub idle: usize,
    /// Its price over the years the log spans; `None` where nobody knows the price.
    pub a_year: Option<f64>,
    /// Whether it is kit that keeps somebody alive, or may be.
    pub safety: bool,
}

impl CarriedKit<'_> {
    /// Whether it is told to stay ashore, or to be sold: not used on eight outings, and never
    /// safety kit. What is not on the shelf nobody knows enough of.
    #[must_use]
    pub fn stays_ashore(&self) -> bool {
        self.gear.is_some() && !self.safety && self.used == 0 && self.unused >= TRIPS
    }
}

/// Everything that was ever aboard, longest not used first. `shelf` gives the thing of a key.
#[must_use]
pub fn carried<'a>(
    outings: &[Outing],
    shelf: &dyn Fn(&str) -> Option<&'a Gear>,
) -> Vec<CarriedKit<'a>> {
    let mut by_day: Vec<&Outing> = outings.iter().filter(|o| o.done).collect();
    by_day.sort_by(|a, b| a.day.cmp(&b.day));
    let years = years(&by_day);
    let mut all: BTreeMap<String, CarriedKit<'a>> = BTreeMap::new();
    for outing in by_day {
        // Two of a thing on one outing are one thing carried once: used if either was.
        let mut today: BTreeMap<String, Vec<&Carried>> = BTreeMap::new();
        for c in &outing.carried {
            let key = c.gear.clone().unwrap_or_else(|| c.item.to_lowercase());
            today.entry(key).or_default().push(c);
        }
        for (key, things) in today {
            let gear = things[0].gear.as_deref().and_then(shelf);
            let entry = all.entry(key).or_insert_with(|| CarriedKit {
                item: gear.map_or_else(|| things[0].item.clone(), |g| g.name.clone()),
                gear,
                carried: 0,
                used: 0,
                unused: 0,
                unsaid: 0,
                harmed: 0,
                ashore: 0,
                idle: 0,
                a_year: gear.and_then(|g| g.price).map(|price| price / years),
                safety: gear.is_some_and(Gear::keeps_alive),
            });
            entry.count(&things);
        }
    }
    let mut all: Vec<CarriedKit<'a>> = all.into_values().collect();
    all.sort_by(|a, b| {
        let mass = |k: &CarriedKit<'_>| k.gear.map_or(0.0, |g| g.loaded_mass);
        let first = (b.stays_ashore(), b.idle).cmp(&(a.stays_ashore(), a.idle));
        first
            .then_with(|| mass(b).total_cmp(&mass(a)))
            .then_with(|| a.item.cmp(&b.item))
    });
    all
}

impl CarriedKit<'_> {
    /// Counts an outing.
    fn count(&mut self, things: &[&Carried]) {
        let fates: Vec<Option<Fate>> = things.iter().map(|c| c.fate).collect();
        let any = |f: Fate| fates.contains(&Some(f));
        if fates.iter().all(|f| *f == Some(Fate::Ashore)) {
            self.ashore += 1;
            return;
        }
        self.carried += 1;
        let harmed = any(Fate::Lost) || any(Fate::Broke) || any(Fate::Wet);
        if harmed {
            self.harmed += 1;
        }
        if any(Fate::Used) || any(Fate::Broke) {
            self.used += 1;
            self.idle = 0;
        } else if fates.contains(&None) || any(Fate::Lost) || any(Fate::Wet) {
            self.unsaid += 1;
        } else {
            self.unused += 1;
            self.idle += 1;
        }
    }
}

/// Years the log spans, at least one.
fn years(by_day: &[&Outing]) -> f64 {
    let ends = by_day.first().zip(by_day.last());
    let ends = ends.and_then(|(a, b)| a.date().zip(b.date()));
    ends.map_or(1.0, |(a, b)| {
        ((b - a).whole_days() as f64 / 365.25).max(1.0)
    })
}
