//! What a hull offers, how it was or may be changed, and how it is set up.

use super::fitting::Fitting;
use super::kinds::Propulsion;
use super::zone::{Dryness, Zone};
use crate::base::{Bounds, Dimension, words};
use std::collections::BTreeSet;
use thiserror::Error;

words! {
/// How far a modification has got.
pub enum Progress {
    /// Thought of.
    Planned,
    /// Made.
    Done,
}

/// Where in a hull of several seats the angler sits.
pub enum SeatUsed {
    /// The only one.
    Only,
    /// The front one.
    Front,
    /// The rear one.
    Rear,
    /// Both are taken.
    Both,
}

/// How the seat is set.
pub enum SeatSetting {
    /// At its lowest.
    Low,
    /// At its highest.
    High,
    /// As for travelling.
    Travel,
    /// As for fishing.
    Fishing,
}
}

/// A named set of changes to one hull.
#[derive(Debug, Clone, PartialEq)]
pub struct Modification {
    /// What it is called; its own on this hull.
    pub name: String,
    /// How far it has got.
    pub progress: Progress,
    /// Zones and fittings it takes away, by name.
    pub removes: Vec<String>,
    /// Zones it makes.
    pub zones: Vec<Zone>,
    /// Fittings it adds.
    pub fittings: Vec<Fitting>,
    /// Zones whose dryness it changes.
    pub dryness: Vec<(String, Dryness)>,
    /// Mass it adds, kg; below zero where it takes something off.
    pub mass: f64,
    /// Where that mass lies from the bow, m.
    pub x: f64,
    /// Its height above the baseline, m.
    pub z: f64,
    /// Holes it drills.
    pub holes: u16,
    /// What it costs; `None` where not known.
    pub price: Option<f64>,
    /// Whether the hull can be brought back to stock.
    pub can_be_undone: bool,
    /// Anything else.
    pub note: String,
}

/// One way of setting a hull up.
#[derive(Debug, Clone, PartialEq)]
pub struct Configuration {
    /// What it is called; its own on this hull.
    pub name: String,
    /// Seats that are in.
    pub seats: u8,
    /// The one used.
    pub seat_used: SeatUsed,
    /// How it is set.
    pub seat: SeatSetting,
    /// What drives it so: the drive is in, or it is paddled.
    pub propulsion: Propulsion,
    /// The modifications in it, by name.
    pub modifications: Vec<String>,
}

/// Everything a record knows of a hull's space.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Fitout {
    /// Zones, bow to stern.
    pub zones: Vec<Zone>,
    /// Fittings.
    pub fittings: Vec<Fitting>,
    /// Changes made or planned.
    pub modifications: Vec<Modification>,
    /// Ways of setting it up.
    pub configurations: Vec<Configuration>,
}

/// Why a fit-out cannot be one.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum FitoutError {
    /// Two things with one name: neither could be referred to.
    #[error("“{0}” stands there twice; every zone and fitting needs its own name")]
    Twice(String),
    /// A thing without a name.
    #[error("a zone, fitting, modification or configuration has no name")]
    Nameless,
    /// A modification or configuration names what is not there.
    #[error("“{by}” names “{name}”, which this hull has not")]
    Missing {
        /// Who names it.
        by: String,
        /// What it names.
        name: String,
    },
    /// A number out of range.
    #[error("“{name}”: {error}")]
    Number {
        /// Where.
        name: String,
        /// Which and what would be accepted.
        error: crate::base::OutOfRange,
    },
}

impl Modification {
    /// Accepted masses, kg.
    pub const MASS: Bounds = Bounds::new("a modification's mass", Dimension::Mass, -50.0, 80.0);
    /// Accepted prices.
    pub const PRICE: Bounds = Bounds::new("a price", Dimension::Money, 0.0, 50_000.0);

    fn check(&self) -> Result<(), FitoutError> {
        let number = |error| FitoutError::Number {
            name: self.name.clone(),
            error,
        };
        Self::MASS.check(self.mass).map_err(number)?;
        Fitting::X.check(self.x).map_err(number)?;
        Fitting::Z.check(self.z).map_err(number)?;
        if let Some(price) = self.price {
            Self::PRICE.check(price).map_err(number)?;
        }
        parts(&self.zones, &self.fittings)
    }
}

/// Checks numbers of zones and fittings.
fn parts(zones: &[Zone], fittings: &[Fitting]) -> Result<(), FitoutError> {
    let number = |name: &str, error| FitoutError::Number {
        name: name.to_owned(),
        error,
    };
    for zone in zones {
        let checked = zone.clone().check();
        checked.map_err(|error| number(&zone.name, error))?;
    }
    for fitting in fittings {
        let checked = fitting.clone().check();
        checked.map_err(|error| number(&fitting.name, error))?;
    }
    Ok(())
}

fn names<'a>(zones: &'a [Zone], fittings: &'a [Fitting]) -> impl Iterator<Item = &'a str> {
    let zones = zones.iter().map(|zone| zone.name.as_str());
    zones.chain(fittings.iter().map(|fitting| fitting.name.as_str()))
}

/// The names, if each stands once.
fn once<'a>(names: impl Iterator<Item = &'a str>) -> Result<BTreeSet<&'a str>, FitoutError> {
    let mut seen = BTreeSet::new();
    for name in names {
        if name.trim().is_empty() {
            return Err(FitoutError::Nameless);
        }
        if !seen.insert(name) {
            return Err(FitoutError::Twice(name.to_owned()));
        }
    }
    Ok(seen)
}

impl Fitout {
    /// Whether nothing is known.
    #[must_use]
    pub fn is_empty(&self) -> bool {
        *self == Self::default()
    }

    /// Checks numbers, names and what refers to them.
    ///
    /// # Errors
    /// The first [`FitoutError`] met.
    pub fn check(self) -> Result<Self, FitoutError> {
        parts(&self.zones, &self.fittings)?;
        let stock = once(names(&self.zones, &self.fittings))?;
        let made = once(self.modifications.iter().map(|m| m.name.as_str()))?;
        once(self.configurations.iter().map(|c| c.name.as_str()))?;
        for modification in &self.modifications {
            modification.check()?;
            let added = once(names(&modification.zones, &modification.fittings))?;
            let has = |name: &str| stock.contains(name) || added.contains(name);
            let removed = modification.removes.iter().map(String::as_str);
            let changed = modification.dryness.iter().map(|(name, _)| name.as_str());
            refer(&modification.name, removed.chain(changed), has)?;
            // What replaces a thing may bear its name; else it needs its own.
            let kept = stock
                .iter()
                .filter(|name| !modification.removes.iter().any(|r| r == *name));
            once(kept.chain(&added).copied())?;
        }
        for configuration in &self.configurations {
            let named = configuration.modifications.iter().map(String::as_str);
            refer(&configuration.name, named, |name| made.contains(name))?;
        }
        Ok(self)
    }
}

fn refer<'a>(
    by: &str,
    mut named: impl Iterator<Item = &'a str>,
    has: impl Fn(&str) -> bool,
) -> Result<(), FitoutError> {
    match named.find(|name| !has(name)) {
        None => Ok(()),
        Some(name) => Err(FitoutError::Missing {
            by: by.to_owned(),
            name: name.to_owned(),
        }),
    }
}
