//! Scuppers: drains through the hull, each with its state.

use super::body::{Flooded, Recess};
use super::survey::keyed;

/// What is done with one scupper.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum ScupperState {
    /// Water goes either way.
    Open,
    /// Nothing passes.
    Plugged,
    /// Lets water out, not in.
    OneWay,
}

keyed!(ScupperState {
    Open => "open", "open";
    Plugged => "plugged", "plugged";
    OneWay => "one-way", "one-way";
});

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

/// Whether water standing in a recess runs out: some scupper there is open or
/// one-way, and the floor lies `floor_above_water` > 0 m over the water.
#[must_use]
pub fn drains(scuppers: &[Scupper], recess: Recess, floor_above_water: f64) -> bool {
    floor_above_water > 0.0
        && scuppers
            .iter()
            .any(|s| s.recess == recess && s.state != ScupperState::Plugged)
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
