//! Changes a hull could take so that a thing finds a hold on it: a track, a plate, a
//! holder, eyes to strap to, a larger hatch. Prices and minutes are guide values.

use crate::gear::{Fixing, Gear};
use crate::guide::{Guide, Guides};
use crate::hull::{
    Facing, Fitting, FittingKind, Modification, Opening, Progress, Source, Zone, ZoneKind,
};
use crate::stow::{Area, RefusedBy, Space, Unplaced};

/// A change, and how long it takes, min.
pub(super) struct Made {
    pub change: Modification,
    pub minutes: f64,
}

/// Shortest track worth screwing down, m.
const SHORTEST: f64 = 0.30;
/// Screws of a track stand this far apart, m.
const SCREWS: f64 = 0.15;
/// What a track, a plate, a holder weighs with its bolts, kg (guide value).
const MASS: f64 = 0.3;
/// Share of the beam at which a track or holder stands on the gunwale.
const GUNWALE: f64 = 0.42;
/// How far an opening stays from the ends of its place, m.
const FRAME: f64 = 0.03;

/// What is put on, without its place.
struct Part<'a> {
    /// What is changed, in a word: changes with one word are alike.
    word: &'static str,
    kind: FittingKind,
    mount: &'a str,
    holes: u16,
    price: Guide,
}

/// Every change that might hold a thing.
pub(super) fn possible(space: &Space, thing: &Gear, left: &Unplaced, guides: &Guides) -> Vec<Made> {
    let mut all = Vec::new();
    let add = |all: &mut Vec<Made>, part: &Part<'_>, name: String, x: f64, y: f64| {
        all.push(add_part(space, part, name, (x, y), guides));
    };
    let [length, beam] = space.size;
    let size = thing.size.unwrap_or_default();
    let sides = [("starboard", GUNWALE * beam), ("port", -GUNWALE * beam)];
    let ends = [
        ("ahead of the seat", space.seat - 0.45),
        ("behind the seat", space.seat + 0.40),
    ];
    for fixing in &thing.fixings {
        match fixing {
            Fixing::Track => {
                let long = (size[0].min(size[1]) + 0.06).max(SHORTEST);
                let part = Part {
                    word: "track",
                    kind: FittingKind::Track {
                        length: long,
                        slot: None,
                    },
                    mount: &thing.mount,
                    holes: (long / SCREWS).ceil() as u16 + 1,
                    price: Guide::TrackPrice,
                };
                for (end, x) in ends {
                    for (side, y) in sides {
                        add(&mut all, &part, format!("a track {end} to {side}"), x, y);
                    }
                }
            }
            Fixing::Holder if size[0] >= 0.6 => {
                let kind = FittingKind::RodHolder {
                    flush: true,
                    angle: None,
                    facing: Facing::Aft,
                    reversible: false,
                };
                let part = Part {
                    word: "holder",
                    kind,
                    mount: &thing.mount,
                    holes: 4,
                    price: Guide::HolderPrice,
                };
                for (side, y) in sides {
                    let name = format!("a flush holder behind the seat to {side}");
                    add(&mut all, &part, name, space.seat + 0.30, 0.95 * y);
                }
            }
            Fixing::Plate | Fixing::Insert => {
                let part = Part {
                    word: "plate",
                    kind: if *fixing == Fixing::Plate {
                        FittingKind::Plate
                    } else {
                        FittingKind::Insert
                    },
                    mount: &thing.mount,
                    holes: thing.holes.max(4),
                    price: Guide::PlatePrice,
                };
                let what = if thing.mount.is_empty() {
                    "plate"
                } else {
                    &thing.mount
                };
                let fore = |k: &ZoneKind| matches!(k, ZoneKind::BowDeck | ZoneKind::BowHatch);
                let (end, x) = if thing.zones.first().is_some_and(fore) {
                    ("bow", 0.06 * length)
                } else {
                    ("stern", 0.94 * length)
                };
                add(&mut all, &part, format!("a {what} at the {end}"), x, 0.0);
            }
            Fixing::Strap => {
                let part = Part {
                    word: "eyes",
                    kind: FittingKind::PadEye,
                    mount: "",
                    holes: 4,
                    price: Guide::EyesPrice,
                };
                let unheld = |a: &&Area| a.straps == Some(false) && thing.zones.contains(&a.kind);
                for area in space.areas.iter().filter(unheld) {
                    let name = format!("two pad eyes at the {}", area.name);
                    add(&mut all, &part, name, 0.5 * (area.from + area.to), 0.0);
                }
            }
            _ => {}
        }
    }
    let tight = left.why.code == RefusedBy::Opening;
    // Of a guessed place nobody knows what passes: that is to be measured first.
    let hatches = space
        .areas
        .iter()
        .filter(|a| a.enclosed && !a.guessed && thing.zones.contains(&a.kind));
    all.extend(
        hatches
            .filter(|_| tight)
            .filter_map(|a| hatch(space, a, size, guides)),
    );
    all
}

fn minutes(holes: u16, guides: &Guides) -> f64 {
    guides[Guide::ChangeMinutes] + f64::from(holes) * guides[Guide::HoleMinutes]
}

/// A change that puts one fitting on.
fn add_part(
    space: &Space,
    part: &Part<'_>,
    name: String,
    (x, y): (f64, f64),
    guides: &Guides,
) -> Made {
    let z = space.floor_height + space.gunwale;
    let fitting = Fitting {
        name: format!("{} (new)", name.trim_start_matches("a ")),
        kind: part.kind.clone(),
        x,
        y,
        z: Some(z),
        mount: part.mount.to_owned(),
        source: Source::Guess,
    };
    Made {
        minutes: minutes(part.holes, guides),
        change: Modification {
            name,
            progress: Progress::Done,
            removes: Vec::new(),
            zones: Vec::new(),
            fittings: vec![fitting],
            dryness: Vec::new(),
            mass: MASS,
            x,
            z,
            holes: part.holes,
            price: Some(guides[part.price]),
            can_be_undone: false,
            note: part.word.to_owned(),
        },
    }
}

/// A hatch through which the thing passes, where its place is large enough for one.
fn hatch(space: &Space, area: &Area, mut size: [f64; 3], guides: &Guides) -> Option<Made> {
    size.sort_by(f64::total_cmp);
    let [across, along, _] = size.map(|s| ((s + 0.01) * 100.0).ceil() / 100.0);
    let (long, wide) = (area.length() - 2.0 * FRAME, area.width() - 2.0 * FRAME);
    let opening = if along <= long && across <= wide {
        Opening::Rectangle(along, across)
    } else if across <= long && along <= wide {
        Opening::Rectangle(across, along)
    } else {
        return None;
    };
    let holes = 10;
    let middle = 0.5 * (area.from + area.to);
    let zone = Zone {
        name: format!("{}, larger", area.name),
        kind: area.kind,
        from: area.from,
        to: area.to,
        width: area.width(),
        offset: 0.5 * (area.port + area.starboard),
        height: area.height,
        height_at_lid: None,
        floor: Some(area.floor + space.floor_height),
        opening: Some(opening),
        dryness: area.dryness,
        reach: area.reach,
        underside_reachable: area.underside,
        non_slip: None,
        padded: None,
        source: Source::Guess,
        date: String::new(),
    };
    Some(Made {
        minutes: minutes(holes, guides),
        change: Modification {
            name: format!("a larger hatch for the {}", area.name),
            progress: Progress::Done,
            removes: vec![area.name.clone()],
            zones: vec![zone],
            fittings: Vec::new(),
            dryness: Vec::new(),
            mass: 2.0 * MASS,
            x: middle,
            z: space.floor_height + space.gunwale,
            holes,
            price: Some(guides[Guide::HatchPrice]),
            can_be_undone: false,
            note: "hatch".to_owned(),
        },
    })
}
