//! What a thing does on the water: floats on arms, bags, pumps, what is towed.

use super::{D, Floats, needed};
use crate::form::{Field, Group, Mistakes, number, tick};
use galvet_core::base::Bounds;
use galvet_core::gear::{OnWater, Outriggers};
use galvet_core::hull::Fitting;

/// The fields of a pair of floats, in their order.
const FLOATS: [(&str, Bounds); 4] = [
    ("float-length", Fitting::FLOAT_LENGTH),
    ("float-across", Fitting::FLOAT),
    ("float-reach", Fitting::FLOAT_REACH),
    ("float-clear", Fitting::FLOAT_CLEAR),
];

/// Floats taken apart.
pub(super) fn apart(does: &OnWater) -> Floats {
    let sizes = |o: Outriggers| [o.length, o.diameter, o.reach, o.clear].map(Some);
    does.outriggers.map_or([None; 4], sizes)
}

/// Floats put together: all of their sizes, or none.
pub(super) fn outriggers(floats: Floats, mistakes: &mut Mistakes) -> Option<Outriggers> {
    if floats.iter().all(Option::is_none) {
        return None;
    }
    let mut size = |n: usize| needed(floats[n], FLOATS[n].0, FLOATS[n].1, mistakes);
    let [length, diameter, reach, clear] = [size(0), size(1), size(2), size(3)];
    Some(Outriggers {
        length: length?,
        diameter: diameter?,
        reach: reach?,
        clear: clear?,
    })
}

/// The fields.
pub(super) fn group() -> Group<D> {
    let float = |n: usize, label: &str, at: fn(&mut D) -> &mut Option<f64>| -> Field<D> {
        number(FLOATS[n].0, label, FLOATS[n].1, at)
    };
    Group {
        title: "What it does on the water",
        hint: "outriggers: a float each side; a bag or foam that keeps water out; what is towed holds the boat back",
        folded: true,
        fields: vec![
            float(0, "a float's length", |d| &mut d.floats[0]),
            float(1, "across a float", |d| &mut d.floats[1]),
            float(2, "from the middle to a float", |d| &mut d.floats[2]),
            float(3, "its underside over the water", |d| &mut d.floats[3])
                .hint("loaded and at rest; below zero: always wet"),
            number(
                "buoyancy",
                "keeps dry inside the hull",
                OnWater::BUOYANCY,
                |d: &mut D| &mut d.gear.on_water.buoyancy,
            )
            .hint("a bag or foam, litres"),
            number("pumps", "pumps, l/min", OnWater::PUMPS, |d: &mut D| {
                &mut d.gear.on_water.pumps
            })
            .hint("by hand 15 to 25"),
            number(
                "towed",
                "towed alongside: drag area, m²",
                OnWater::DRAG,
                |d: &mut D| &mut d.gear.on_water.towed,
            )
            .hint("a bait tube 0.01; fish on a line 0.005 each"),
            number(
                "sock",
                "drift sock: drag area, m²",
                OnWater::DRAG,
                |d: &mut D| &mut d.gear.on_water.sock,
            )
            .hint("its mouth's area times 1.3"),
            tick(
                "spray-deck",
                "closes the cockpit: a spray deck",
                |d: &mut D| &mut d.gear.on_water.spray_deck,
            ),
        ],
    }
}
