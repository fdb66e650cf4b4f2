//! Small changes of a rig that a question asks for: fish kept, the battery elsewhere.

use super::wishes::BatteryPlace;
use crate::gear::{Category, Electric, Gear};
use crate::hull::ZoneKind;
use crate::rig::{Importance, Rig, RigLine};
use std::sync::Arc;

/// Fish kept, kg, as a line of the rig: come aboard by the day's end. How large the
/// bag is nobody said, so that it lies where kit usually does, and always counts.
#[must_use]
pub fn catch_line(mass: f64) -> RigLine {
    let thing = Gear {
        dry_mass: 0.0,
        zones: vec![ZoneKind::TankWell],
        ..Gear::plain("catch", "fish kept", Category::Fish, mass, None)
    };
    RigLine {
        thing: Some(Arc::new(thing)),
        importance: Importance::Want,
        dry_mass: 0.0,
        ..RigLine::plain("fish kept", mass)
    }
}

/// The rig with every battery that lies by itself wanted at one end.
#[must_use]
pub fn with_batteries(mut rig: Rig, place: BatteryPlace) -> Rig {
    let first: &[ZoneKind] = match place {
        BatteryPlace::AsLaid => return rig,
        BatteryPlace::Bow => &[ZoneKind::BowHatch, ZoneKind::BowDeck, ZoneKind::CentreHatch],
        BatteryPlace::Stern => &[
            ZoneKind::SternHatch,
            ZoneKind::TankWell,
            ZoneKind::SternDeck,
        ],
    };
    for line in rig.lines.iter_mut().filter(|l| l.within.is_empty()) {
        let Some(thing) = &mut line.thing else {
            continue;
        };
        if !matches!(thing.electric, Electric::Battery { .. }) {
            continue;
        }
        let rest = thing.zones.iter().filter(|z| !first.contains(z));
        let zones = first.iter().chain(rest).copied().collect();
        *thing = Arc::new(Gear {
            zones,
            ..(**thing).clone()
        });
    }
    rig
}
