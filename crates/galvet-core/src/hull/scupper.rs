//! Recesses, and the scuppers that drain them, each with its state.

use crate::base::words;

/// Which recesses stand open to the water outside.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub struct Flooded {
    /// Water comes and goes in the cockpit.
    pub cockpit: bool,
    /// Water comes and goes in the tank well.
    pub tank_well: bool,
}

impl Flooded {
    /// Nothing has come in: the sealed body floats.
    pub const NONE: Self = Self {
        cockpit: false,
        tank_well: false,
    };
    /// Every recess open: the solid body floats.
    pub const ALL: Self = Self {
        cockpit: true,
        tank_well: true,
    };

    /// Whether this recess is open to the water.
    #[must_use]
    pub fn has(self, recess: Recess) -> bool {
        match recess {
            Recess::Cockpit => self.cockpit,
            Recess::TankWell => self.tank_well,
        }
    }
}

words! {
/// The two openings in a deck that can fill with water on their own.
pub enum Recess {
    /// Where the angler sits and stands.
    Cockpit,
    /// The cargo well behind the seat.
    #[strum(message = "tank well")]
    TankWell,
}

/// What is done with one scupper.
pub enum ScupperState {
    /// Water goes either way.
    Open,
    /// Nothing passes.
    Plugged,
    /// Lets water out, not in.
    OneWay,
}

/// What is done with the scuppers of a sit-on-top as a whole.
pub enum Scuppers {
    /// Self-draining; water may come up through them.
    Open,
    /// Dry feet, more carried, nothing drains.
    Plugged,
    /// Valves that let water out and none in.
    #[strum(message = "one-way valves")]
    OneWay,
    /// Plugged in the cockpit, open in the tank well.
    #[strum(message = "plugged in the cockpit only")]
    CockpitPlugged,
    /// One by one as each hull's record has them.
    #[strum(message = "as each is on it")]
    AsFound,
}
}

/// One scupper.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub struct Scupper {
    /// The recess it drains.
    pub recess: Recess,
    /// Its state.
    pub state: ScupperState,
}

/// Which recesses flood from below: those with any scupper open. One open
/// drain is enough, however many beside it are plugged.
#[must_use]
pub fn floods(scuppers: &[Scupper]) -> Flooded {
    let open = |recess| {
        scuppers
            .iter()
            .any(|s| s.recess == recess && s.state == ScupperState::Open)
    };
    Flooded {
        cockpit: open(Recess::Cockpit),
        tank_well: open(Recess::TankWell),
    }
}

/// Whether water standing in a recess has no way out at all.
#[must_use]
pub fn holds_water(scuppers: &[Scupper], recess: Recess) -> bool {
    let way_out = |s: &Scupper| s.recess == recess && s.state != ScupperState::Plugged;
    !scuppers.iter().any(way_out)
}

/// Whether water standing in a recess runs out: some scupper there is open or
/// one-way, and the floor lies `floor_above_water` > 0 m over the water.
#[must_use]
pub fn drains(scuppers: &[Scupper], recess: Recess, floor_above_water: f64) -> bool {
    floor_above_water > 0.0
        && scuppers
            .iter()
            .any(|s| s.recess == recess && s.state != ScupperState::Plugged)
}

impl Scuppers {
    /// The scuppers this amounts to, one for each recess; open where it depends on
    /// the hull (see [`Survey::scuppers`](super::Survey::scuppers)).
    #[must_use]
    pub const fn fitted(self) -> [Scupper; 2] {
        use ScupperState as S;
        let (cockpit, well) = match self {
            Self::Open | Self::AsFound => (S::Open, S::Open),
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

    /// Whether water standing in the cockpit has no way out, whatever the hull.
    #[must_use]
    pub fn holds_water(self) -> bool {
        holds_water(&self.fitted(), Recess::Cockpit)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn at(recess: Recess, state: ScupperState) -> Scupper {
        Scupper { recess, state }
    }

    #[test]
    fn one_open_scupper_floods_its_recess_and_no_other() {
        use Recess::{Cockpit, TankWell};
        use ScupperState::{OneWay, Open, Plugged};
        // Plugged under the seat, open under the feet; a valve in the well.
        let mixed = [
            at(Cockpit, Plugged),
            at(Cockpit, Open),
            at(TankWell, OneWay),
        ];
        let flooded = floods(&mixed);
        assert!(flooded.cockpit && !flooded.tank_well);
        assert!(drains(&mixed, Cockpit, 0.01) && drains(&mixed, TankWell, 0.01));
        assert!(!drains(&mixed, TankWell, -0.01), "a valve lifts no water");
        let plugged = [at(Cockpit, Plugged), at(TankWell, Plugged)];
        assert_eq!(floods(&plugged), Flooded::NONE);
        assert!(!drains(&plugged, Cockpit, 0.1));
    }
}
