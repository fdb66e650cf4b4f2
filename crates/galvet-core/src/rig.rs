//! The rig: what is to be carried, belonging to no hull.

use crate::base::{Bounds, Dimension, Keyed, OutOfRange, words};
use crate::gear::{Category, Chemistry, Gear, OnWater};
use crate::guide::Guides;
use crate::power::usable_share;
use std::sync::Arc;

words! {
/// How much a line of a rig matters.
pub enum Importance {
    /// Without it the rig is not the rig.
    #[strum(message = "must come")]
    Must,
    /// It comes where there is room.
    #[strum(message = "if there is room")]
    Want,
}

/// Where kit lies that nobody has listed. Places along the hull and heights are guide
/// values, and spread as a guess is.
pub enum Stowage {
    /// In the tank well.
    #[strum(message = "behind the seat")]
    Behind,
    /// Under the seat.
    #[strum(message = "under the seat")]
    Under,
    /// Between the knees and the feet.
    #[strum(message = "at the feet")]
    Feet,
    /// Ahead of the feet.
    #[strum(message = "in the bow")]
    Bow,
    /// Behind the tank well.
    #[strum(message = "in the stern")]
    Stern,
}
}

impl Stowage {
    /// Place along the hull from the bow, share of the length: guide value.
    #[must_use]
    pub const fn place(self) -> f64 {
        match self {
            Self::Behind => 0.74,
            Self::Under => 0.54,
            Self::Feet => 0.38,
            Self::Bow => 0.18,
            Self::Stern => 0.90,
        }
    }
}

words! {
/// How high it lies.
#[derive(Default)]
pub enum Lying {
    /// On the floor.
    #[default]
    Low,
    /// In crates and holders, on top of others.
    High,
}
}

impl Lying {
    /// Height of its middle above the floor, m: guide value.
    #[must_use]
    pub const fn height(self) -> f64 {
        match self {
            Self::Low => 0.12,
            Self::High => 0.35,
        }
    }
}

/// One line of a rig: `count` of a thing at one place.
#[derive(Debug, Clone, PartialEq)]
pub struct RigLine {
    /// What it is, generic.
    pub item: String,
    /// Key of the thing on the shelf this is; `None` for free text. The shelf's
    /// name, masses and energy then stand in this line: see [`RigLine::is`].
    pub gear: Option<String>,
    /// The thing itself, as the shelf has it; with its size the hull's own space
    /// decides where it lies.
    pub thing: Option<Arc<Gear>>,
    /// Whether it must come.
    pub importance: Importance,
    /// Key of the container of the rig it is packed in; empty for none.
    pub within: String,
    /// How many.
    pub count: u32,
    /// Mass of one as packed at home, kg.
    pub dry_mass: f64,
    /// Mass of one with its ice, water, fish or fuel, kg.
    pub loaded_mass: f64,
    /// Place along the hull from the bow, share of the length: where it lies as
    /// long as nobody knows its size. Height and offset likewise.
    pub place: f64,
    /// Height of its centre above the cockpit floor (a board's deck), m.
    pub height: f64,
    /// Distance to starboard of the centreline, m.
    pub offset: f64,
    /// Energy one brings for a motor, Wh as printed on the battery.
    pub energy: f64,
    /// What is in that battery; `None` where nobody said, or it is none.
    pub chemistry: Option<Chemistry>,
    /// Whether its mass, place and height are a guess: then they are spread over the
    /// possible shapes.
    pub rough: bool,
}

impl RigLine {
    /// One thing of so many kg that must come, where a thing lies when nobody said.
    #[must_use]
    pub fn plain(item: &str, mass: f64) -> Self {
        let (place, height) = Self::USUAL;
        Self {
            item: item.to_owned(),
            gear: None,
            thing: None,
            importance: Importance::Must,
            within: String::new(),
            count: 1,
            dry_mass: mass,
            loaded_mass: mass,
            place,
            height,
            offset: 0.0,
            energy: 0.0,
            chemistry: None,
            rough: false,
        }
    }

    /// Kit that nobody has listed, about so heavy, kg.
    #[must_use]
    pub fn rough(mass: f64, stowage: Stowage, lying: Lying) -> Self {
        Self {
            place: stowage.place(),
            height: lying.height(),
            rough: true,
            ..Self::plain("kit, by guess", mass)
        }
    }

    /// Where it lies and how high, of what is a guess.
    #[must_use]
    pub fn guessed(&self) -> Option<(Stowage, Lying)> {
        let near = |s: &&Stowage| (s.place() - self.place).abs() < 1e-9;
        let stowage = Stowage::ALL.iter().find(near)?;
        let high = (self.height - Lying::High.height()).abs() < 1e-9;
        let lying = if high { Lying::High } else { Lying::Low };
        self.rough.then_some((*stowage, lying))
    }

    /// Where a thing lies when nobody said: low in the tank well. Share of the
    /// length; m above the floor.
    pub const USUAL: (f64, f64) = (0.72, 0.1);

    /// Accepted counts.
    pub const COUNT: Bounds = Bounds::new("count", Dimension::Ratio, 1.0, 50.0);
    /// Accepted masses, kg.
    pub const MASS: Bounds = Bounds::new("mass", Dimension::Mass, 0.0, 120.0);
    /// Accepted places.
    pub const PLACE: Bounds = Bounds::new("place along the hull", Dimension::Ratio, 0.0, 1.0);
    /// Accepted heights, m.
    pub const HEIGHT: Bounds = Bounds::new("height above the floor", Dimension::Length, -0.3, 2.5);
    /// Accepted offsets, m.
    pub const OFFSET: Bounds =
        Bounds::new("offset to starboard", Dimension::ShortLength, -0.8, 0.8);

    /// Accepted battery energies, Wh.
    pub const ENERGY: Bounds = Bounds::new("battery energy", Dimension::Ratio, 0.0, 20_000.0);

    /// Checks every number of the line.
    ///
    /// # Errors
    /// The first [`OutOfRange`] met; also when a thing is lighter loaded than dry.
    pub fn check(self) -> Result<Self, OutOfRange> {
        Self::COUNT.check(f64::from(self.count))?;
        Self::MASS.check(self.dry_mass)?;
        Bounds::new("loaded mass", Dimension::Mass, self.dry_mass, Self::MASS.hi)
            .check(self.loaded_mass)?;
        Self::PLACE.check(self.place)?;
        Self::HEIGHT.check(self.height)?;
        Self::OFFSET.check(self.offset)?;
        Self::ENERGY.check(self.energy)?;
        Ok(self)
    }

    /// A line for one of a thing on the shelf that must come, where things usually lie.
    #[must_use]
    pub fn of(gear: &Gear) -> Self {
        let (place, height) = Self::USUAL;
        let line = Self {
            item: String::new(),
            gear: None,
            thing: None,
            importance: Importance::Must,
            within: String::new(),
            count: 1,
            dry_mass: 0.0,
            loaded_mass: 0.0,
            place,
            height,
            offset: 0.0,
            energy: 0.0,
            chemistry: None,
            rough: false,
        };
        line.is(gear)
    }

    /// Takes name, masses and energy from the thing on the shelf this line is.
    #[must_use]
    pub fn is(self, gear: &Gear) -> Self {
        Self {
            item: gear.name.clone(),
            gear: Some(gear.key.clone()),
            thing: Some(Arc::new(gear.clone())),
            dry_mass: gear.dry_mass,
            loaded_mass: gear.loaded_mass,
            energy: gear.energy(),
            chemistry: gear.chemistry(),
            ..self
        }
    }

    /// Whether it stands for somebody who comes along rather than for a thing.
    #[must_use]
    pub fn is_company(&self) -> bool {
        let thing = self.thing.as_ref();
        self.gear.is_none() && thing.is_some_and(|t| t.category == Category::Company)
    }

    /// Loaded mass of the whole line, kg.
    #[must_use]
    pub fn loaded(&self) -> f64 {
        f64::from(self.count) * self.loaded_mass
    }

    /// Dry mass of the whole line, kg.
    #[must_use]
    pub fn dry(&self) -> f64 {
        f64::from(self.count) * self.dry_mass
    }
}

/// A rig: what is to be carried, belonging to no hull.
#[derive(Debug, Clone, PartialEq)]
pub struct Rig {
    /// Stable key.
    pub key: String,
    /// Its owner's name for it.
    pub name: String,
    /// What is in it.
    pub lines: Vec<RigLine>,
}

impl Rig {
    /// Mass with water and fish, kg.
    #[must_use]
    pub fn loaded(&self) -> f64 {
        self.lines.iter().map(RigLine::loaded).sum()
    }

    /// The same without who comes along, kg.
    #[must_use]
    pub fn kit(&self) -> f64 {
        let things = self.lines.iter().filter(|l| !l.is_company());
        things.map(RigLine::loaded).sum()
    }

    /// Battery energy aboard that can be used, J: of each battery the share its
    /// chemistry allows.
    #[must_use]
    pub fn usable_energy(&self, guides: &Guides) -> f64 {
        let usable = |l: &RigLine| {
            let share = usable_share(l.chemistry.unwrap_or(Chemistry::Other), guides);
            f64::from(l.count) * l.energy * share
        };
        3600.0 * self.lines.iter().map(usable).sum::<f64>()
    }

    /// What all its things come to together, as `of` tells it of one: drag areas, m².
    #[must_use]
    pub fn dragged(&self, of: impl Fn(&OnWater) -> Option<f64>) -> f64 {
        let one = |l: &RigLine| {
            let thing = l.thing.as_ref()?;
            Some(f64::from(l.count) * of(&thing.on_water)?)
        };
        self.lines.iter().filter_map(one).sum()
    }

    /// Mass of the water, ice and fish in it, kg.
    #[must_use]
    pub fn wet_part(&self) -> f64 {
        self.loaded() - self.lines.iter().map(RigLine::dry).sum::<f64>()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn line() -> RigLine {
        RigLine {
            count: 2,
            loaded_mass: 8.0,
            ..RigLine::plain("cooler", 3.0)
        }
    }

    #[test]
    fn of_a_battery_that_is_used_which_its_chemistry_allows() {
        let guides = Guides::default();
        let battery = |wh: f64, chemistry| RigLine {
            count: 1,
            energy: wh,
            chemistry,
            ..line()
        };
        let rig = |lines| Rig {
            key: "day".into(),
            name: "Day".into(),
            lines,
        };
        let of = |chemistry| rig(vec![battery(1000.0, chemistry)]).usable_energy(&guides) / 3600.0;
        assert!((of(Some(Chemistry::Lifepo4)) - 900.0).abs() < 1e-9);
        assert!((of(Some(Chemistry::Lead)) - 500.0).abs() < 1e-9);
        // Where nobody said, it is not taken for the best.
        assert!((of(None) - 800.0).abs() < 1e-9);
        let both = rig(vec![
            battery(1000.0, None),
            battery(100.0, Some(Chemistry::Lead)),
        ]);
        assert!((both.usable_energy(&guides) / 3600.0 - 850.0).abs() < 1e-9);
    }

    #[test]
    fn a_rig_tells_its_water_from_its_kit() {
        let rig = Rig {
            key: "day".into(),
            name: "Day".into(),
            lines: vec![line()],
        };
        assert_eq!(rig.loaded(), 16.0);
        assert_eq!(rig.wet_part(), 10.0);
    }

    #[test]
    fn a_thing_cannot_be_lighter_loaded_than_dry() {
        let wrong = RigLine {
            loaded_mass: 2.0,
            ..line()
        };
        assert_eq!(wrong.check().unwrap_err().what, "loaded mass");
        let adrift = RigLine {
            place: f64::NAN,
            ..line()
        };
        assert!(adrift.check().is_err());
    }
}
