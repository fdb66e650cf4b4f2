//! What a rig asks room for: its lines as single things, containers filled.

use super::pose::Pose;
use crate::gear::{Category, Fixing, Gear, Tether};
use crate::guide::{Guide, Guides};
use crate::rig::{Importance, Rig};

/// One thing to be stowed.
#[derive(Debug, Clone)]
pub struct Item<'r> {
    /// Its line of the rig.
    pub line: usize,
    /// What it is called.
    pub name: &'r str,
    /// The thing, where the shelf knows it.
    pub gear: Option<&'r Gear>,
    /// Whether it must come.
    pub must: bool,
    /// Mass packed at home, kg, of itself.
    pub dry: f64,
    /// Mass on the water, kg, of itself.
    pub loaded: f64,
    /// The item of this list it is packed in, or, of a leash, that it ties.
    pub inside: Option<usize>,
    /// Whether it is a leash that ties something.
    pub ties: bool,
    /// Whether a leash ties it to it.
    pub tied: bool,
    /// How it is laid.
    pub pose: Pose,
    /// Its size so: length, width, height, m.
    pub size: Option<[f64; 3]>,
}

impl Item<'_> {
    /// Its size as it is laid, where it is known: length, width, height, m.
    #[must_use]
    pub fn size(&self) -> Option<[f64; 3]> {
        self.size
    }
}

/// What could not be packed where the rig says, in words.
#[derive(Debug, Clone, PartialEq)]
pub struct Unpacked {
    /// The item of the list.
    pub item: usize,
    /// The container's name.
    pub container: String,
    /// By how much the longest side is too long, or the volume too large: m or l.
    pub words: String,
}

/// The items of a rig, containers before what is in them, and what did not go
/// into its container (it is stowed by itself then).
#[must_use]
pub fn items<'r>(rig: &'r Rig, guides: &Guides) -> (Vec<Item<'r>>, Vec<Unpacked>) {
    let mut all: Vec<Item<'r>> = Vec::new();
    let packed = |line: usize| !rig.lines[line].within.is_empty();
    let order = containers_first(rig);
    let mut unpacked = Vec::new();
    // Litres taken of each container so far.
    let mut taken: Vec<f64> = Vec::new();
    for line in order {
        let asked = &rig.lines[line];
        for _ in 0..asked.count {
            let mut item = Item {
                line,
                name: &asked.item,
                gear: asked.thing.as_deref(),
                must: asked.importance == Importance::Must,
                dry: asked.dry_mass,
                loaded: asked.loaded_mass,
                inside: None,
                ties: false,
                tied: false,
                pose: Pose::Flat,
                size: asked.thing.as_ref().and_then(|g| g.size),
            };
            if packed(line) {
                match into(&all, &mut taken, &item, &asked.within, guides) {
                    Ok(container) => {
                        item.inside = Some(container);
                        // What holds a must must come, and what that is in: else the
                        // must would stay ashore with it, and nobody be told.
                        let mut holds = item.must.then_some(container);
                        while let Some(c) = holds {
                            all[c].must = true;
                            holds = all[c].inside;
                        }
                    }
                    Err((container, words)) => unpacked.push(Unpacked {
                        item: all.len(),
                        container,
                        words,
                    }),
                }
            }
            all.push(item);
            taken.push(0.0);
        }
    }
    tie(&mut all);
    (all, unpacked)
}

/// Whether a line is one of leashes that are at hand to tie something.
fn leashes(rig: &Rig, line: usize) -> bool {
    let line = &rig.lines[line];
    line.within.is_empty() && line.thing.as_ref().is_some_and(|g| g.brings.tethers > 0)
}

/// Ties each leash to what would be lost, dearest first: it lies with that from then
/// on, and needs no place. Leashes stand after everything they may tie.
fn tie(all: &mut [Item<'_>]) {
    // What is worn goes where its wearer goes; nobody is tied to the boat.
    let worn = |g: &Gear| g.fixings.first() == Some(&Fixing::Worn) || g.is_flotation_aid();
    let lost = |item: &Item<'_>| {
        let tether = item.gear.map(|g| g.tether);
        let gear = item
            .gear
            .filter(|g| g.brings.tethers == 0 && !worn(g) && g.category != Category::Company);
        let goes = matches!(tether, Some(Tether::Floats | Tether::Sinks));
        let price = gear.and_then(|g| g.price).unwrap_or(0.0);
        (gear.is_some() && goes && item.inside.is_none() && item.size.is_some()).then_some(price)
    };
    let mut loose: Vec<(usize, f64)> = all
        .iter()
        .enumerate()
        .filter_map(|(i, item)| Some((i, lost(item)?)))
        .collect();
    loose.sort_by(|a, b| b.1.total_cmp(&a.1).then(a.0.cmp(&b.0)));
    let mut loose = loose.into_iter().map(|(i, _)| i);
    for leash in 0..all.len() {
        if all[leash].inside.is_some() {
            continue;
        }
        let ties = all[leash].gear.map_or(0, |g| g.brings.tethers);
        for n in 0..ties {
            let Some(i) = loose.next() else { return };
            all[i].tied = true;
            if n == 0 {
                all[leash].inside = Some(i);
                all[leash].ties = true;
            }
        }
    }
}

/// The lines of a rig, each after the lines of what it may be packed in. Lines packed in
/// each other in a circle come last, in the rig's order: nothing holds them.
fn containers_first(rig: &Rig) -> Vec<usize> {
    let mut out: Vec<usize> = Vec::with_capacity(rig.lines.len());
    let mut left: Vec<usize> = (0..rig.lines.len()).collect();
    while !left.is_empty() {
        let key = |l: usize| rig.lines[l].gear.as_deref();
        let waits = |l: usize| {
            let within = rig.lines[l].within.as_str();
            !within.is_empty() && left.iter().any(|&o| o != l && key(o) == Some(within))
        };
        let (later, now): (Vec<usize>, Vec<usize>) = left.iter().partition(|&&l| waits(l));
        if now.is_empty() {
            out.extend(later);
            break;
        }
        out.extend(now);
        left = later;
    }
    // What ties others comes after all it may tie.
    out.sort_by_key(|&line| leashes(rig, line));
    out
}

/// The first container of a key with room for an item; else why there is none.
fn into(
    all: &[Item<'_>],
    taken: &mut [f64],
    item: &Item<'_>,
    key: &str,
    guides: &Guides,
) -> Result<usize, (String, String)> {
    let mut refused = (key.to_owned(), "it is not on the rig".to_owned());
    for (c, container) in all.iter().enumerate() {
        let Some(gear) = container.gear.filter(|g| g.key == key) else {
            continue;
        };
        let name = gear.name.clone();
        let Some(inside) = gear.brings.inside else {
            refused = (name, "it holds nothing".to_owned());
            continue;
        };
        // What nobody measured takes no room that can be told.
        let Some(size) = item.size() else {
            return Ok(c);
        };
        let (have, want) = (sorted(inside), sorted(size));
        let over = (0..3).map(|i| want[i] - have[i]).fold(0.0, f64::max);
        if over > 1e-9 {
            let words = format!("{:.0} mm too large for it", (1000.0 * over).ceil());
            refused = (name, words);
            continue;
        }
        let litres = |s: [f64; 3]| 1000.0 * s.iter().product::<f64>();
        let room = guides[Guide::PackingShare] * litres(inside) - taken[c];
        if litres(size) > room + 1e-9 {
            let words = format!("{:.1} l more than it still takes", litres(size) - room);
            refused = (name, words);
            continue;
        }
        taken[c] += litres(size);
        return Ok(c);
    }
    Err(refused)
}

fn sorted(mut size: [f64; 3]) -> [f64; 3] {
    size.sort_by(f64::total_cmp);
    size
}
