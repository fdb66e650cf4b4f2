//! Moving house: what of one hull's kit goes to another, with what, and what stays.
//!
//! Handbook, chapter 8.7. What holds a thing on either hull is what its layout there says;
//! what finds no place is first offered the cheapest change that would give it one. What
//! nobody measured is told as such: it may fit, and is neither moved nor sold unseen.

mod kept;
mod made;

pub use made::{into_rig, modification};

use super::facts::Facts;
use crate::base::{Keyed, System, words};
use crate::figures::{Change, Remedy, remedies};
use crate::gear::{Category, Fixing, Gear};
use crate::rig::{Rig, RigLine};
use crate::stow::{Lies, Stowed, Unplaced};
use kept::of_the_hull;

words! {
/// Where a thing goes.
pub enum Goes {
    /// As it is.
    #[strum(message = "moves")]
    Moves,
    /// With something to buy or to make.
    #[strum(message = "with an adapter or a change")]
    Adapter,
    /// It may: somebody must measure.
    #[strum(message = "not known: measure first")]
    Measure,
    /// It stays with the old hull.
    #[strum(message = "stays with the old hull")]
    Stays,
    /// It has no place there.
    #[strum(message = "sell")]
    Sell,
}
}

/// Something to buy for it.
#[derive(Debug, Clone, PartialEq)]
pub struct Buy {
    /// What.
    pub item: String,
    /// Its price; `None` where nobody knows, nought where it is owned.
    pub price: Option<f64>,
}

/// One thing or fitting that is asked where it goes.
#[derive(Debug, Clone, PartialEq)]
pub struct Move {
    /// What it is.
    pub item: String,
    /// Its key on the shelf; `None` for what belongs to the hull.
    pub gear: Option<String>,
    /// Its line of the rig.
    pub line: Option<usize>,
    /// How many.
    pub count: u32,
    /// What holds it on the old hull.
    pub from: String,
    /// What holds it on the new one; empty where nothing does.
    pub to: String,
    /// Where it goes.
    pub goes: Goes,
    /// Why; what is to be measured.
    pub because: String,
    /// What must be bought.
    pub buy: Vec<Buy>,
    /// Holes it leaves behind: plugged, and told to who buys it.
    pub holes_left: u16,
    /// Holes it makes.
    pub holes_made: u16,
    /// Mass of all of them as carried, kg.
    pub mass: f64,
    /// What one costs new.
    pub price: Option<f64>,
    /// Minutes it takes, guide value.
    pub minutes: f64,
    /// What would give it its place.
    pub remedy: Option<Remedy>,
    /// Outings it was carried on without being used once; `None` where it was used, nobody
    /// says, or it keeps somebody alive.
    pub idle: Option<usize>,
}

/// What a move comes to.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Sum {
    /// How many of each, in the order of [`Goes`].
    pub goes: [usize; 5],
    /// Holes left behind and made.
    pub holes: (u32, u32),
    /// To be bought as far as prices are known, and how many are not.
    pub buy: (f64, u32),
    /// Mass that goes along, kg.
    pub mass: f64,
    /// Minutes, guide value.
    pub minutes: f64,
}

/// Where everything goes, from one hull to another, both with the same rig on them under the
/// same question. `idle` tells of a thing's key how often it was carried and not used, where
/// the log says so.
#[must_use]
pub fn moving(old: &Facts<'_>, new: &Facts<'_>, idle: &dyn Fn(&str) -> Option<usize>) -> Vec<Move> {
    let lines = old.rig().lines.iter().enumerate();
    let things = lines
        .filter(|(_, line)| line.count > 0)
        .filter_map(|(n, line)| {
            let gear = line.thing.as_deref()?;
            // Who comes along needs no adapter.
            (gear.category != Category::Company).then(|| thing(old, new, (n, line, gear), idle))
        });
    let mut all: Vec<Move> = things.collect();
    with_their_boxes(old.rig(), new, &mut all);
    for m in &mut all {
        keep_alive(old.rig(), m);
    }
    all.extend(of_the_hull(old, new));
    all.sort_by_key(|m| std::cmp::Reverse(m.goes));
    all
}

/// What keeps somebody alive is never told to be sold: it is to be found a place.
fn keep_alive(rig: &Rig, m: &mut Move) {
    let line = m.line.and_then(|n| rig.lines.get(n));
    let alive = line
        .and_then(|l| l.thing.as_deref())
        .is_some_and(Gear::keeps_alive);
    if alive && m.goes == Goes::Sell {
        m.goes = Goes::Measure;
        let why = "it keeps somebody alive: find it a place, or wear it";
        m.because = joined(&m.because, why);
    }
}

/// What is packed in something goes with it: where that has a place only with a change, or
/// must be measured, so does what is in it. Out of a box that is sold it is to be found
/// another place.
fn with_their_boxes(rig: &Rig, new: &Facts<'_>, all: &mut [Move]) {
    let boxes: Vec<(String, Goes, String)> = all
        .iter()
        .filter_map(|m| Some((m.gear.clone()?, m.goes, m.item.clone())))
        .collect();
    for m in all {
        let Some(line) = m.line.and_then(|n| rig.lines.get(n).map(|l| (n, l))) else {
            continue;
        };
        let (n, line) = line;
        let lies = lying(new, n).is_some();
        let into = boxes.iter().find(|(key, ..)| *key == line.within);
        let Some((_, goes, name)) = into.filter(|_| !line.within.is_empty() && !lies) else {
            continue;
        };
        m.goes = match goes {
            Goes::Sell | Goes::Stays => Goes::Measure,
            other => *other,
        };
        m.because = match goes {
            Goes::Sell | Goes::Stays => {
                format!("the {name} does not come along: find another place for it")
            }
            _ => format!("goes with the {name}"),
        };
        m.to = format!("in the {name}");
        m.buy.clear();
        m.remedy = None;
    }
}

/// What it comes to.
#[must_use]
pub fn sum(moves: &[Move]) -> Sum {
    let mut all = Sum::default();
    for m in moves {
        let place = Goes::ALL.iter().position(|g| *g == m.goes).unwrap_or(0);
        all.goes[place] += 1;
        all.holes.0 += u32::from(m.holes_left);
        all.holes.1 += u32::from(m.holes_made);
        for buy in &m.buy {
            match buy.price {
                Some(price) => all.buy.0 += price,
                None => all.buy.1 += 1,
            }
        }
        if matches!(m.goes, Goes::Moves | Goes::Adapter) {
            all.mass += m.mass;
        }
        all.minutes += m.minutes;
    }
    all
}

/// Where a thing lies and how it is held: "tank well, strapped".
fn held(lies: &Lies) -> String {
    let how = match lies.fixing {
        Fixing::Worn => return "worn".to_owned(),
        Fixing::Holder => "in a holder",
        Fixing::Insert => "in the inserts",
        Fixing::Track => "on the track",
        Fixing::Plate => "on its plate",
        Fixing::Strap => "strapped",
        Fixing::Glue => "glued",
        Fixing::Drill => "bolted",
        Fixing::Loose => "loose",
    };
    match (&lies.within, &lies.adapter) {
        (Some(within), _) => format!("in the {within}"),
        (None, Some(adapter)) => format!("{}, {how} with {adapter}", lies.zone),
        (None, None) => format!("{}, {how}", lies.zone),
    }
}

/// How one thing of a line lies there.
fn lying<'a>(facts: &Facts<'a>, line: usize) -> Option<(&'a Stowed, &'a Lies)> {
    let own = facts.layout().stowed.iter().filter(|s| s.line == line);
    own.filter_map(|s| Some((s, s.lies.as_ref()?))).next()
}

/// What found no place of a line.
fn left<'a>(facts: &Facts<'a>, line: usize) -> Option<&'a Unplaced> {
    facts.layout().unplaced.iter().find(|u| u.line == line)
}

fn thing(
    old: &Facts<'_>,
    new: &Facts<'_>,
    (n, line, gear): (usize, &RigLine, &Gear),
    idle: &dyn Fn(&str) -> Option<usize>,
) -> Move {
    let was = lying(old, n).map(|(_, lies)| lies);
    let is = lying(new, n).map(|(_, lies)| lies);
    let each = |holes: u16| holes.saturating_mul(u16::try_from(line.count).unwrap_or(u16::MAX));
    let mut one = Move {
        item: line.item.clone(),
        gear: Some(gear.key.clone()),
        line: Some(n),
        count: line.count,
        from: was.map_or_else(|| said_place(old, n), held),
        to: is.map_or(String::new(), held),
        goes: Goes::Moves,
        because: String::new(),
        buy: Vec::new(),
        holes_left: was.map_or(0, |lies| each(lies.holes)),
        holes_made: is.map_or(0, |lies| each(lies.holes)),
        mass: f64::from(line.count) * line.loaded_mass,
        price: gear.price,
        minutes: gear.setup_minutes.unwrap_or(0.0),
        remedy: None,
        idle: idle(&gear.key).filter(|_| !gear.keeps_alive()),
    };
    if was.is_some_and(|lies| lies.fixing == Fixing::Glue) {
        one.goes = Goes::Stays;
        one.because = "glued: it stays where it is; another is bought for the new hull".to_owned();
        one.holes_left = 0;
        one.buy.push(Buy {
            item: line.item.clone(),
            price: gear.price.map(|p| p * f64::from(line.count)),
        });
        return one;
    }
    match (is, left(new, n)) {
        // Some of them find a place and some do not: those that do not decide.
        (_, Some(gone)) => displaced(new, &mut one, gone),
        (Some(lies), None) => placed(old, new, &mut one, (was, lies)),
        (None, None) => {
            one.to = said_place(new, n);
            one.goes = Goes::Measure;
            one.because = "its size is not known: measure it".to_owned();
        }
    }
    one
}

/// Where the rig says that something lies whose size nobody knows.
fn said_place(facts: &Facts<'_>, line: usize) -> String {
    let there = facts.layout().stowed.iter().any(|s| s.line == line);
    if there {
        "aboard, where nobody measured".to_owned()
    } else {
        "found no place".to_owned()
    }
}

/// A thing that has its place on the new hull.
fn placed(old: &Facts<'_>, new: &Facts<'_>, one: &mut Move, (was, is): (Option<&Lies>, &Lies)) {
    let doubt = new
        .layout()
        .doubts
        .iter()
        .find(|(item, _)| *item == one.item);
    if let Some((_, doubt)) = doubt {
        one.goes = Goes::Measure;
        one.because = doubt.text();
    }
    if let Some(adapter) = &is.adapter
        && was.and_then(|w| w.adapter.as_ref()) != Some(adapter)
    {
        one.goes = one.goes.max(Goes::Adapter);
        let why = match was {
            Some(was) => format!("it was {}; there it needs the {adapter}", held(was)),
            None => format!("there it needs the {adapter}"),
        };
        one.because = joined(&one.because, &why);
        let shelf = new.brief.at_hand.iter().find(|g| g.name == *adapter);
        let along = old.things().any(|(g, _)| g.name == *adapter);
        let price = match shelf {
            _ if along => Some(0.0),
            Some(g) if g.owned => Some(0.0),
            Some(g) => g.price,
            None => None,
        };
        one.buy.push(Buy {
            item: adapter.clone(),
            price,
        });
    }
    if one.holes_made > 0 {
        one.goes = one.goes.max(Goes::Adapter);
        let why = format!("new holes: {}", one.holes_made);
        one.because = joined(&one.because, &why);
        one.minutes = one.minutes.max(made::BOLTED);
    }
}

/// A thing that has none.
fn displaced(new: &Facts<'_>, one: &mut Move, gone: &Unplaced) {
    let system: System = new.system;
    one.because = gone.why.text(system);
    one.to = String::new();
    one.holes_made = 0;
    // Where a want may stay ashore is no way to move it.
    let setup = &new.assessment.setup;
    let found = remedies(setup, gone, 3).into_iter();
    let found = found.filter(|r| !matches!(r.change, Change::Ashore(_)));
    let Some(remedy) = found.into_iter().next() else {
        one.goes = if gone.sure { Goes::Sell } else { Goes::Measure };
        one.minutes = 0.0;
        return;
    };
    let bought = match &remedy.change {
        Change::Bring(gear) | Change::Swap(_, gear) => gear.name.clone(),
        Change::Fit(made) => made.name.clone(),
        Change::Ashore(_) => String::new(),
    };
    one.goes = match remedy.change {
        Change::Swap(..) => Goes::Sell,
        _ => Goes::Adapter,
    };
    one.because = joined(&one.because, &remedy.text(system));
    one.buy.push(Buy {
        item: bought,
        price: remedy.price,
    });
    one.to = remedy.zone.clone();
    one.holes_made = remedy.holes;
    one.minutes += remedy.minutes;
    one.remedy = Some(remedy);
}

fn joined(a: &str, b: &str) -> String {
    if a.is_empty() {
        b.to_owned()
    } else {
        format!("{a}; {b}")
    }
}
