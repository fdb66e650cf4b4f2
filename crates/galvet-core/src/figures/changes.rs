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

/// A track long enough for the thing's foot.
fn track<'a>(thing: &'a Gear, size: [f64; 3]) -> Part<'a> {
    let length = (size[0].min(size[1]) + 0.06).max(SHORTEST);
    Part {
        word: "track",
        kind: FittingKind::Track { length, slot: None },
        mount: &thing.mount,
        holes: (length / SCREWS).ceil() as u16 + 1,
        price: Guide::TrackPrice,
    }
}

/// A flush holder for a rod.
fn holder(thing: &Gear) -> Part<'_> {
    Part {
        word: "holder",
        kind: FittingKind::RodHolder {
            flush: true,
            angle: None,
            facing: Facing::Aft,
            reversible: false,
        },
        mount: &thing.mount,
        holes: 4,
        price: Guide::HolderPrice,
    }
}

/// A plate or insert with the thing's own mount.
fn plate<'a>(thing: &'a Gear, fixing: &Fixing) -> Part<'a> {
    Part {
        word: "plate",
        kind: if *fixing == Fixing::Plate {
            FittingKind::Plate
        } else {
            FittingKind::Insert
        },
        mount: &thing.mount,
        holes: thing.holes.max(4),
        price: Guide::PlatePrice,
    }
}

/// Two eyes to strap to.
const EYES: Part<'static> = Part {
    word: "eyes",
    kind: FittingKind::PadEye,
    mount: "",
    holes: 4,
    price: Guide::EyesPrice,
};

/// Every change that might hold a thing.
pub(super) fn possible(space: &Space, thing: &Gear, left: &Unplaced, guides: &Guides) -> Vec<Made> {
    let mut all: Vec<Made> = thing
        .fixings
        .iter()
        .flat_map(|fixing| holds(space, thing, fixing, guides))
        .collect();
    if left.why.code == RefusedBy::Opening {
        // Of a guessed place nobody knows what passes: that is to be measured first.
        let fits = |a: &&Area| a.enclosed && !a.guessed && thing.zones.contains(&a.kind);
        let size = thing.size.unwrap_or_default();
        let hatches = space.areas.iter().filter(fits);
        all.extend(hatches.filter_map(|a| hatch(space, a, size, guides)));
    }
    all
}

/// The changes that offer one way of holding, at every place where people put it.
fn holds(space: &Space, thing: &Gear, fixing: &Fixing, guides: &Guides) -> Vec<Made> {
    let add =
        |part: &Part<'_>, name: String, x: f64, y: f64| add_part(space, part, name, (x, y), guides);
    let [length, beam] = space.size;
    let size = thing.size.unwrap_or_default();
    let sides = [("starboard", GUNWALE * beam), ("port", -GUNWALE * beam)];
    match fixing {
        Fixing::Track => {
            let part = track(thing, size);
            let ends = [
                ("ahead of the seat", space.seat - 0.45),
                ("behind the seat", space.seat + 0.40),
            ];
            let places = ends
                .into_iter()
                .flat_map(|end| sides.map(|side| (end, side)));
            places
                .map(|((end, x), (side, y))| add(&part, format!("a track {end} to {side}"), x, y))
                .collect()
        }
        Fixing::Holder if size[0] >= 0.6 => {
            let part = holder(thing);
            let named = |side| format!("a flush holder behind the seat to {side}");
            let x = space.seat + 0.30;
            sides
                .map(|(side, y)| add(&part, named(side), x, 0.95 * y))
                .into()
        }
        Fixing::Plate | Fixing::Insert => {
            let part = plate(thing, fixing);
            let what = Some(part.mount)
                .filter(|m| !m.is_empty())
                .unwrap_or("plate");
            let fore = |k: &ZoneKind| matches!(k, ZoneKind::BowDeck | ZoneKind::BowHatch);
            let (end, x) = if thing.zones.first().is_some_and(fore) {
                ("bow", 0.06 * length)
            } else {
                ("stern", 0.94 * length)
            };
            vec![add(&part, format!("a {what} at the {end}"), x, 0.0)]
        }
        Fixing::Strap => {
            let unheld = |a: &&Area| a.straps == Some(false) && thing.zones.contains(&a.kind);
            let name = |a: &Area| format!("two pad eyes at the {}", a.name);
            let areas = space.areas.iter().filter(unheld);
            areas
                .map(|a| add(&EYES, name(a), 0.5 * (a.from + a.to), 0.0))
                .collect()
        }
        _ => Vec::new(),
    }
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
    let place = [area.from, area.to, area.width()];
    let zone = Zone {
        offset: 0.5 * (area.port + area.starboard),
        height: area.height,
        floor: Some(area.floor + space.floor_height),
        opening: Some(opening),
        dryness: area.dryness,
        reach: area.reach,
        underside_reachable: area.underside,
        ..Zone::plain(&format!("{}, larger", area.name), area.kind, place)
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
