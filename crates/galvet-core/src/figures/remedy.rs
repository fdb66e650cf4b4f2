//! What would give a thing a place that finds none on a hull: the rig is laid out again
//! with one thing changed, and what helps is told, cheapest first.
//!
//! What gives by itself (a soft bag, another side) the stowing engine does on its own:
//! see [`Pose`](crate::stow::Pose).

use super::changes::{self, Made};
use super::setup::Setup;
use crate::base::{Dimension, System};
use crate::gear::{Electric, Fixing, Gear};
use crate::hull::{Modification, Survey};
use crate::rig::{Importance, Rig, RigLine};
use crate::stow::{Demand, Layout, Space, Stead, Unplaced};
use std::sync::Arc;

/// Longer than this and thin, a thing goes in a holder or tube, m.
const ROD: f64 = 0.6;

/// What is changed.
#[derive(Debug, Clone, PartialEq)]
pub enum Change {
    /// Wants stay ashore: their lines of the rig, with their names.
    Ashore(Vec<(usize, String)>),
    /// Something of the shelf comes along: an adapter, a holder.
    Bring(Arc<Gear>),
    /// Something smaller of the shelf comes in its place: its line of the rig.
    Swap(usize, Arc<Gear>),
    /// The hull is changed.
    Fit(Box<Modification>),
}

/// One change that gives a thing its place.
#[derive(Debug, Clone, PartialEq)]
pub struct Remedy {
    /// What is changed.
    pub change: Change,
    /// What that costs; `None` where nobody knows.
    pub price: Option<f64>,
    /// Holes it takes.
    pub holes: u16,
    /// Minutes it takes.
    pub minutes: f64,
    /// Where the thing then lies.
    pub zone: String,
}

impl Remedy {
    /// A word by which it is asked for again.
    #[must_use]
    pub fn key(&self) -> String {
        match &self.change {
            Change::Ashore(wants) => {
                let lines: Vec<String> = wants.iter().map(|(line, _)| line.to_string()).collect();
                format!("ashore-{}", lines.join("-"))
            }
            Change::Bring(gear) => format!("bring-{}", gear.key),
            Change::Swap(_, gear) => format!("swap-{}", gear.key),
            Change::Fit(made) => format!("fit-{}", made.name.replace(' ', "-")),
        }
    }

    /// In words: "fits (tank well) if the gaff stays ashore".
    #[must_use]
    pub fn text(&self, system: System) -> String {
        let price = match self.price {
            None => "price not known".to_owned(),
            Some(price) if price > 0.0 => system.text(Dimension::Money, price, 0),
            Some(_) => "nothing to buy".to_owned(),
        };
        let zone = &self.zone;
        match &self.change {
            Change::Ashore(wants) => {
                let names: Vec<&str> = wants.iter().map(|(_, name)| name.as_str()).collect();
                format!("fits ({zone}) if left ashore: {}", names.join(", "))
            }
            Change::Bring(gear) => format!("fits ({zone}) with a {}: {price}", gear.name),
            Change::Swap(_, gear) => {
                format!("instead of it fits ({zone}) the {}: {price}", gear.name)
            }
            Change::Fit(made) => format!(
                "fits with {}: {price}, {} holes, about {:.0} min (guide values)",
                made.name, self.holes, self.minutes
            ),
        }
    }

    /// The rig with it; the same where it changes the hull.
    #[must_use]
    pub fn rig(&self, rig: &Rig) -> Rig {
        let mut rig = rig.clone();
        match &self.change {
            Change::Ashore(wants) => {
                for (line, _) in wants {
                    let key = rig.lines.get(*line).and_then(|l| l.gear.clone());
                    if let Some(line) = rig.lines.get_mut(*line) {
                        line.count = 0;
                    }
                    // What is packed in it stays ashore with it.
                    for l in &mut rig.lines {
                        if !l.within.is_empty() && Some(&l.within) == key.as_ref() {
                            l.count = 0;
                        }
                    }
                }
            }
            Change::Bring(gear) => rig.lines.push(RigLine::of(gear)),
            Change::Swap(line, gear) => {
                let Some(swapped) = rig.lines.get_mut(*line) else {
                    return rig;
                };
                let key = swapped.gear.clone();
                *swapped = swapped.clone().is(gear);
                for l in &mut rig.lines {
                    if !l.within.is_empty() && Some(&l.within) == key.as_ref() {
                        l.within.clone_from(&gear.key);
                    }
                }
            }
            Change::Fit(_) => {}
        }
        rig
    }
}

/// Whether another does the same job, if with less room: for the same, held the same way,
/// with the same gifts to others (and no less dry) and the same needs.
fn does_the_same(other: &Gear, thing: &Gear) -> bool {
    let volume = |g: &Gear| g.size.map(|s| s.iter().product::<f64>());
    let smaller = match (volume(other), volume(thing)) {
        (Some(a), Some(b)) => a < b,
        _ => false,
    };
    let gifts = |g: &Gear| {
        let b = &g.brings;
        (
            b.fish.is_some(),
            b.inside.is_some(),
            b.tubes > 0,
            b.adapts.is_some(),
        )
    };
    let draws = |g: &Gear| matches!(g.electric, Electric::Draw { .. });
    // What neither holds anything nor draws is told from others by its name alone.
    let told = gifts(thing) != (false, false, false, false) || draws(thing);
    smaller
        && told
        && thing.energy() == 0.0
        && other.energy() == 0.0
        && (other.category, &other.mount, &other.needs)
            == (thing.category, &thing.mount, &thing.needs)
        && other.fixings.first() == thing.fixings.first()
        && gifts(other) == gifts(thing)
        && other.brings.keeps >= thing.brings.keeps
        && draws(other) == draws(thing)
}

/// What gives a thing of a laid-out rig its place, cheapest first, at most `most`;
/// what there is to bring the question says.
#[must_use]
pub fn remedies(setup: &Setup, left: &Unplaced, most: usize) -> Vec<Remedy> {
    let rig = &setup.brief.rig;
    let Some(thing) = rig.lines.get(left.line).and_then(|l| l.thing.as_deref()) else {
        return Vec::new();
    };
    let bench = Bench::of(setup);
    let mut tries = tries(setup, &bench.space, left, thing);
    // Cheapest first: price, then holes, then minutes; no price is the dearest.
    let price = |r: &Remedy| r.price.unwrap_or(f64::INFINITY);
    tries.sort_by(|a, b| {
        let by_work = a.holes.cmp(&b.holes).then(a.minutes.total_cmp(&b.minutes));
        price(a).total_cmp(&price(b)).then(by_work)
    });
    let mut found: Vec<Remedy> = Vec::new();
    for mut remedy in tries {
        if found.len() >= most {
            break;
        }
        // Of changes to the hull that are alike the first that helps.
        let kind = |r: &Remedy| match &r.change {
            Change::Fit(m) => m.note.clone(),
            _ => r.key(),
        };
        if found.iter().any(|f| kind(f) == kind(&remedy)) {
            continue;
        }
        if let Some(zone) = bench.helps(setup, left, &remedy.change, rig) {
            remedy.zone = zone;
            found.push(remedy);
        }
    }
    found
}

/// Every change that might help.
fn tries(setup: &Setup, space: &Space, left: &Unplaced, thing: &Gear) -> Vec<Remedy> {
    let rig = &setup.brief.rig;
    let plain = |change, price, minutes| Remedy {
        change,
        price,
        holes: 0,
        minutes,
        zone: String::new(),
    };
    let mut all = Vec::new();
    if left.must {
        let lines = rig.lines.iter().enumerate();
        let wants: Vec<(usize, String)> = lines
            .filter(|(_, l)| l.importance == Importance::Want && l.count > 0)
            .map(|(n, l)| (n, l.item.clone()))
            .collect();
        let ashore = |wants: Vec<_>| plain(Change::Ashore(wants), Some(0.0), 0.0);
        all.extend(wants.iter().map(|want| ashore(vec![want.clone()])));
        if wants.len() > 1 {
            all.push(ashore(wants));
        }
    }
    for gear in setup.brief.at_hand.iter() {
        let mut lines = rig.lines.iter();
        if lines.any(|l| l.gear.as_deref() == Some(gear.key.as_str())) {
            continue;
        }
        let price = if gear.owned { Some(0.0) } else { gear.price };
        let minutes = gear.setup_minutes.unwrap_or(0.0);
        let adapts = gear.brings.adapts.as_ref();
        let adapts = adapts.is_some_and(|(_, offers)| !offers.is_empty() && *offers == thing.mount);
        let long = thing.size.is_some_and(|s| s[0] >= ROD);
        if adapts || long && gear.brings.tubes > 0 && thing.fixings.contains(&Fixing::Holder) {
            all.push(plain(Change::Bring(Arc::new(gear.clone())), price, minutes));
        }
        if does_the_same(gear, thing) {
            // Each of the line is swapped, and has to be bought.
            let count = rig.lines.get(left.line).map_or(1, |l| l.count);
            let all_of_them = price.map(|p| p * f64::from(count));
            let swap = Change::Swap(left.line, Arc::new(gear.clone()));
            all.push(plain(swap, all_of_them, minutes));
        }
    }
    let made = changes::possible(space, thing, left, setup.guides());
    all.extend(made.into_iter().map(|Made { change, minutes }| Remedy {
        price: change.price,
        holes: change.holes,
        minutes,
        zone: String::new(),
        change: Change::Fit(Box::new(change)),
    }));
    all
}

/// Where changes are tried.
struct Bench {
    space: Space,
    before: Arc<Layout>,
}

impl Bench {
    fn of(setup: &Setup) -> Self {
        Self {
            space: setup.space(),
            before: setup.loads.layout.clone(),
        }
    }

    /// Where the thing lies with a change; `None` where it does not help, or takes its
    /// place from something else.
    fn helps(&self, setup: &Setup, left: &Unplaced, change: &Change, rig: &Rig) -> Option<String> {
        let remedy = Remedy {
            change: change.clone(),
            price: None,
            holes: 0,
            minutes: 0.0,
            zone: String::new(),
        };
        let rig = remedy.rig(rig);
        let space = match change {
            Change::Fit(made) => setup.space_of(&with(&setup.posterior.survey, made)),
            _ => self.space.clone(),
        };
        let survey = &setup.posterior.survey;
        let pins = survey.looked.laid.get(&setup.brief.rig.key).cloned();
        let stead = Stead {
            space: &space,
            pins: &pins.unwrap_or_default(),
            bow: setup.posterior.form.bow(),
            guides: setup.guides(),
            drills: true,
        };
        let mut demand = Demand::of(&rig, setup.guides());
        let then = stead.settle(&mut demand);
        let short = |layout: &Layout, line: usize| {
            let of = layout.unplaced.iter().find(|u| u.line == line);
            of.map_or(0, |u| u.count)
        };
        let lines = 0..rig.lines.len();
        let worse = lines
            .filter(|&l| l != left.line)
            .any(|line| short(&then, line) > short(&self.before, line));
        // What was packed must stay packed.
        let loose = then.unpacked.len() > self.before.unpacked.len();
        if worse || loose || short(&then, left.line) > 0 {
            return None;
        }
        let mut stowed = then.stowed.iter();
        let lies = stowed.find(|s| s.line == left.line)?.lies.as_ref()?;
        Some(lies.zone.clone())
    }
}

/// The hull with a change made.
fn with(survey: &Survey, made: &Modification) -> Survey {
    let mut hull = survey.clone();
    hull.fitout.modifications.push(made.clone());
    hull
}
