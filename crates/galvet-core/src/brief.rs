//! The question asked: who fishes, how, with what, on which water.

use crate::hull::survey::keyed;
use crate::hull::{Recess, Scupper, ScupperState};
use crate::rank::schools::{CapacitySchool, StabilitySchool};
use crate::units::{Bounds, Dimension, OutOfRange};
use crate::water::Water;

/// How the angler fishes.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Posture {
    /// On the feet while fishing.
    Stands,
    /// Both.
    SitsAndStands,
    /// In the seat all day.
    Sits,
}

keyed!(Posture {
    Stands => "stands", "stands";
    SitsAndStands => "sits-and-stands", "sits and stands";
    Sits => "sits", "sits";
});

/// What is done with the scuppers of a sit-on-top.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Scuppers {
    /// Self-draining; water may come up through them.
    Open,
    /// Dry feet, more carried, nothing drains.
    Plugged,
    /// Valves that let water out and none in.
    OneWay,
    /// Plugged in the cockpit, open in the tank well.
    CockpitPlugged,
}

keyed!(Scuppers {
    Open => "open", "open";
    Plugged => "plugged", "plugged";
    OneWay => "one-way", "one-way valves";
    CockpitPlugged => "cockpit-plugged", "plugged in the cockpit only";
});

impl Scuppers {
    /// The scuppers this amounts to, one for each recess.
    #[must_use]
    pub const fn fitted(self) -> [Scupper; 2] {
        use ScupperState as S;
        let (cockpit, well) = match self {
            Self::Open => (S::Open, S::Open),
            Self::Plugged => (S::Plugged, S::Plugged),
            Self::OneWay => (S::OneWay, S::OneWay),
            Self::CockpitPlugged => (S::Plugged, S::Open),
        };
        [
            Scupper {
                recess: Recess::Cockpit,
                state: cockpit,
            },
            Scupper {
                recess: Recess::TankWell,
                state: well,
            },
        ]
    }

    /// Whether water standing in the cockpit has no way out.
    #[must_use]
    pub fn holds_water(self) -> bool {
        self.fitted()[0].state == ScupperState::Plugged
    }
}

/// Which of the hull's seat heights is used.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum SeatHeight {
    /// The lowest.
    Low,
    /// The highest.
    High,
}

keyed!(SeatHeight {
    Low => "low", "low";
    High => "high", "high";
});

/// The angler.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Crew {
    mass: f64,
    stature: f64,
}

impl Crew {
    /// Accepted body mass, kg.
    pub const MASS: Bounds = Bounds::new("the angler's weight", Dimension::Mass, 25.0, 220.0);
    /// Accepted stature, m.
    pub const STATURE: Bounds = Bounds::new("the angler's height", Dimension::Length, 1.1, 2.3);
    /// Clothing, flotation aid, boots, what is in the pockets, kg. Guide value
    /// (handbook, chapter 2).
    pub const DRESSED: f64 = 6.0;
    /// Body centre above the seat surface, share of the stature, seated. Guide
    /// value rounded from published body-segment data (Dempster, "Space
    /// requirements of the seated operator", 1955).
    pub const SEATED_CENTRE: f64 = 0.14;
    /// Body centre above the soles, share of the stature, standing (same source).
    pub const STANDING_CENTRE: f64 = 0.56;

    /// An angler of `mass` kg (undressed) and `stature` m.
    ///
    /// # Errors
    /// [`OutOfRange`] for either.
    pub fn new(mass: f64, stature: f64) -> Result<Self, OutOfRange> {
        Ok(Self {
            mass: Self::MASS.check(mass)?,
            stature: Self::STATURE.check(stature)?,
        })
    }

    /// Body mass, kg.
    #[must_use]
    pub const fn mass(&self) -> f64 {
        self.mass
    }

    /// Stature, m.
    #[must_use]
    pub const fn stature(&self) -> f64 {
        self.stature
    }

    /// Mass as it sits in the boat, kg.
    #[must_use]
    pub fn dressed_mass(&self) -> f64 {
        self.mass + Self::DRESSED
    }
}

/// One line of a rig: `count` of a thing at one place.
#[derive(Debug, Clone, PartialEq)]
pub struct RigLine {
    /// What it is, generic.
    pub item: String,
    /// How many.
    pub count: u32,
    /// Mass of one as packed at home, kg.
    pub dry_mass: f64,
    /// Mass of one with its ice, water, fish or fuel, kg.
    pub loaded_mass: f64,
    /// Place along the hull from the bow, share of the length.
    pub place: f64,
    /// Height of its centre above the cockpit floor (a board's deck), m.
    pub height: f64,
    /// Distance to starboard of the centreline, m.
    pub offset: f64,
    /// Energy one brings for a motor, Wh as printed on the battery.
    pub energy: f64,
}

impl RigLine {
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

    /// Battery energy aboard, J.
    #[must_use]
    pub fn energy(&self) -> f64 {
        let lines = self.lines.iter();
        3600.0 * lines.map(|l| f64::from(l.count) * l.energy).sum::<f64>()
    }

    /// Mass of the water, ice and fish in it, kg.
    #[must_use]
    pub fn wet_part(&self) -> f64 {
        self.loaded() - self.lines.iter().map(RigLine::dry).sum::<f64>()
    }
}

/// What a hull must meet besides floating well; `None` where it doesn't matter.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct MustHaves {
    /// Longest hull that can be stored, m.
    pub longest: Option<f64>,
    /// Heaviest single lift, kg (the hull as bare as it comes).
    pub heaviest_lift: Option<f64>,
    /// Most that may be spent.
    pub budget: Option<f64>,
}

impl MustHaves {
    /// Accepted storage lengths, m.
    pub const LONGEST: Bounds = Bounds::new("the longest storage", Dimension::Length, 1.8, 10.0);
    /// Accepted lifts, kg.
    pub const LIFT: Bounds = Bounds::new("the heaviest lift", Dimension::Mass, 5.0, 200.0);
    /// Accepted budgets.
    pub const BUDGET: Bounds = Bounds::new("the budget", Dimension::Money, 0.0, 100_000.0);
}

/// The whole question.
#[derive(Debug, Clone, PartialEq)]
pub struct Brief {
    /// Who.
    pub crew: Crew,
    /// How.
    pub posture: Posture,
    /// With what.
    pub rig: Rig,
    /// Where.
    pub water: Water,
    /// Scuppers open or plugged.
    pub scuppers: Scuppers,
    /// Which seat height.
    pub seat: SeatHeight,
    /// Share of capacity in the ranking, 0-1; stability has the rest.
    pub capacity_weight: f64,
    /// What capacity is judged by.
    pub capacity_school: CapacitySchool,
    /// What stability is judged by.
    pub stability_school: StabilitySchool,
    /// What a hull must meet.
    pub must: MustHaves,
}

#[cfg(test)]
mod tests {
    use super::*;

    fn line() -> RigLine {
        RigLine {
            item: "cooler".into(),
            count: 2,
            dry_mass: 3.0,
            loaded_mass: 8.0,
            place: 0.8,
            height: 0.15,
            offset: 0.0,
            energy: 0.0,
        }
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

    #[test]
    fn an_angler_must_be_a_person() {
        assert!(Crew::new(f64::INFINITY, 1.8).is_err());
        assert!(Crew::new(80.0, 18.0).is_err());
        assert_eq!(Crew::new(80.0, 1.8).unwrap().dressed_mass(), 86.0);
    }
}
