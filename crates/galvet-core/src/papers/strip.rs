//! From home to fishing: what comes off for the road or the surf, in the order that works,
//! where it goes and how long it takes; setting up is the same backwards, with checks.

use super::facts::Facts;
use crate::gear::{Category, Fixing, Gear, Is, Serves};
use crate::stow::{Lies, Stowed};

/// What a thing is taken off for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Leg {
    /// The road.
    Road,
    /// Through surf.
    Surf,
}

/// How a kind of thing comes off: its turn, where it goes, minutes. Guide values: handbook,
/// chapter 8.3.
#[derive(Debug, Clone, Copy)]
struct Way {
    turn: u8,
    road: &'static str,
    surf: &'static str,
    minutes: f64,
}

const fn way(turn: u8, road: &'static str, surf: &'static str, minutes: f64) -> Way {
    Way {
        turn,
        road,
        surf,
        minutes,
    }
}

/// The way of a thing; `None` for what is no thing.
fn way_of(gear: Option<&Gear>) -> Way {
    const REST: Way = way(9, "in the car", "in a dry bag, strapped", 1.0);
    let Some(g) = gear else { return REST };
    let is = |what| g.serves_as(what) != Is::No;
    if is(Serves::LiveWell) {
        return way(0, "emptied; in the car", "emptied, strapped", 3.0);
    }
    match g.category {
        _ if is(Serves::Motor) => way(5, "padded, in the car", "out, or locked up", 8.0),
        _ if is(Serves::Flag) || is(Serves::WhiteLight) => {
            way(7, "with the rods", "down, strapped flat", 1.0)
        }
        Category::Rods if !is(Serves::RodHolder) => {
            way(1, "in tubes in the car", "flat, strapped or below", 1.0)
        }
        Category::Rods => way(7, "padded box", "below", 1.0),
        Category::Electronics => way(2, "padded box", "below", 3.0),
        Category::Power => way(
            3,
            "fixed upright, terminals capped, in the shade",
            "strapped, or ashore",
            2.0,
        ),
        Category::Crates | Category::Tackle | Category::Fish => {
            way(4, "in the car", "strapped, lid shut", 3.0)
        }
        Category::Propulsion => way(6, "flat, on a blanket", "out, or locked up", 2.0),
        Category::Anchoring => way(7, "in the car, line bagged", "bagged, strapped low", 1.0),
        Category::Landing if !is(Serves::Gaff) => way(7, "with the rods", "flat, strapped", 1.0),
        Category::Landing => way(
            7,
            "with the rods, points covered",
            "flat, points covered",
            1.0,
        ),
        Category::Transport => way(8, "in the car", "ashore", 1.0),
        _ => REST,
    }
}

/// One thing taken off.
#[derive(Debug, Clone, PartialEq)]
pub struct Off {
    /// What it is.
    pub item: String,
    /// Which of the layout it is; `None` for what is the hull's own.
    pub number: Option<usize>,
    /// Where it was.
    pub place: String,
    /// Where it goes.
    pub goes: &'static str,
    /// Minutes to take it off.
    pub minutes: f64,
    /// Minutes to put it back.
    pub back: f64,
    /// What lies over it or its lid and comes off before, by name.
    pub after: Vec<String>,
}

/// Everything that comes off, in order.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Strip {
    /// One after the other.
    pub steps: Vec<Off>,
}

/// How far minutes may be off either way, share: guide value.
pub const MINUTES_OFF: f64 = 0.3;

impl Strip {
    /// Minutes to take it all off.
    #[must_use]
    pub fn minutes(&self) -> f64 {
        self.steps.iter().map(|s| s.minutes).sum()
    }

    /// Minutes to put it all back.
    #[must_use]
    pub fn back(&self) -> f64 {
        self.steps.iter().map(|s| s.back).sum()
    }
}

/// Whether a thing of a layout comes off.
fn comes_off(gear: Option<&Gear>, lies: &Lies, leg: Leg) -> bool {
    if lies.within.is_some() || lies.fixing == Fixing::Worn {
        return false;
    }
    match leg {
        Leg::Surf => gear.is_some_and(|g| g.strip_for_surf),
        Leg::Road => match lies.fixing {
            Fixing::Drill | Fixing::Glue | Fixing::Insert | Fixing::Plate => {
                gear.is_some_and(|g| g.comes_off)
            }
            _ => true,
        },
    }
}

/// Whether `over` has to go before `under` can: it stands on it, or on the lid of its place.
fn blocks(facts: &Facts<'_>, over: &Stowed, under: &Stowed) -> bool {
    let (Some(above), Some(below)) = (&over.lies, &under.lies) else {
        return false;
    };
    let overlap = |a: f64, half_a: f64, b: f64, half_b: f64| (a - b).abs() < half_a + half_b - 1e-6;
    let along = overlap(over.x, 0.5 * above.size[0], under.x, 0.5 * below.size[0]);
    let across = overlap(over.y, 0.5 * above.size[1], under.y, 0.5 * below.size[1]);
    if along && across && above.base >= below.base + 0.5 * below.size[2] {
        return true;
    }
    if !below.shut_in || above.shut_in {
        return false;
    }
    // On the lid: over the opening's place, outside it.
    let bow = facts.layout().bow;
    let zones = facts.zones();
    let lid = zones.iter().find(|z| z.name == below.zone);
    lid.is_some_and(|z| {
        let (middle, half) = (bow + 0.5 * (z.from + z.to), 0.5 * (z.to - z.from));
        let on_it = overlap(over.x, 0.5 * above.size[0], middle, half)
            && overlap(over.y, 0.5 * above.size[1], z.offset, 0.5 * z.width);
        on_it && above.zone != below.zone && above.base > 0.0
    })
}

/// What comes off for a leg, in an order in which nothing is under what is still there.
#[must_use]
pub fn strip(facts: &Facts<'_>, leg: Leg) -> Strip {
    let stowed = &facts.layout().stowed;
    let leaves = |s: &&Stowed| {
        s.lies
            .as_ref()
            .is_some_and(|l| comes_off(facts.thing(s), l, leg))
    };
    let mut left: Vec<(usize, &Stowed)> = stowed
        .iter()
        .enumerate()
        .filter(|(_, s)| leaves(s))
        .collect();
    left.sort_by_key(|(number, s)| (way_of(facts.thing(s)).turn, *number));
    let leaving: Vec<&Stowed> = left.iter().map(|(_, s)| *s).collect();
    let mut steps = Vec::new();
    while !left.is_empty() {
        let free = left.iter().position(|(n, s)| {
            !left
                .iter()
                .any(|(m, other)| m != n && blocks(facts, other, s))
        });
        let (number, s) = left.remove(free.unwrap_or(0));
        let over = leaving.iter().filter(|o| blocks(facts, o, s));
        let mut after: Vec<String> = over.map(|o| o.item.clone()).collect();
        after.dedup();
        let gear = facts.thing(s);
        let way = way_of(gear);
        steps.push(Off {
            item: s.item.clone(),
            number: Some(number),
            place: s.lies.as_ref().map_or(String::new(), |l| l.zone.clone()),
            goes: match leg {
                Leg::Road => way.road,
                Leg::Surf => way.surf,
            },
            minutes: way.minutes,
            back: gear.and_then(|g| g.setup_minutes).unwrap_or(way.minutes),
            after,
        });
    }
    steps.extend(own(facts, leg));
    Strip { steps }
}

/// What of the hull itself comes off or is tied.
fn own(facts: &Facts<'_>, leg: Leg) -> Vec<Off> {
    let one = |item: &str, place: &str, goes, minutes, back| Off {
        item: item.to_owned(),
        number: None,
        place: place.to_owned(),
        goes,
        minutes,
        back,
        after: Vec::new(),
    };
    let mut all = Vec::new();
    if facts.drive().is_some() {
        all.push(match leg {
            Leg::Road => one("the drive", "drive well", "flat, on a blanket", 2.0, 2.0),
            Leg::Surf => one("the drive", "drive well", "out, or locked up", 1.0, 1.0),
        });
    }
    if leg == Leg::Road {
        all.push(one(
            "the seat",
            "cockpit",
            "in the car, or under two straps",
            3.0,
            3.0,
        ));
    }
    if facts.hull().tracks_straight {
        all.push(one("rudder or skeg", "stern", "up and tied", 1.0, 1.0));
    }
    if leg == Leg::Road {
        all.push(one(
            "lids and drain",
            "hull",
            "lids latched, drain open: heat swells a shut hull",
            1.0,
            1.0,
        ));
        all.push(one(
            "the hull",
            "ground",
            "on the car, two straps, bow and stern lines",
            8.0,
            5.0,
        ));
    }
    all
}
