//! What a move ends as: a rig, and a modification of the new hull.

use super::super::facts::Facts;
use super::{Goes, Move};
use crate::figures::Change;
use crate::hull::{Fitting, Modification, Progress, Source};
use crate::rig::Rig;

/// Minutes for something bolted on, the first of a kind: handbook, chapter 8.2, guide value.
pub(super) const BOLTED: f64 = 40.0;

/// The old hull's rig as it goes to the new one: without what is sold, with what is bought.
/// `leave` names keys of the shelf that do not come along.
#[must_use]
pub fn into_rig(rig: &Rig, moves: &[Move], leave: &[String]) -> Rig {
    let mut made = rig.clone();
    for m in moves {
        if let Some(remedy) = &m.remedy
            && !matches!(remedy.change, Change::Fit(_))
        {
            made = remedy.rig(&made);
        }
    }
    let gone = |n: usize| {
        let own = moves.iter().find(|m| m.line == Some(n));
        let swapped = |m: &Move| m.remedy.is_some();
        own.is_some_and(|m| m.goes == Goes::Sell && !swapped(m))
    };
    let left = |key: &Option<String>| key.as_ref().is_some_and(|key| leave.contains(key));
    for (n, line) in made.lines.iter_mut().enumerate() {
        if gone(n) || left(&line.gear) {
            line.count = 0;
        }
    }
    let dead: Vec<String> = made
        .lines
        .iter()
        .filter(|l| l.count == 0)
        .filter_map(|l| l.gear.clone())
        .collect();
    made.lines.retain(|line| line.count > 0);
    // What was packed in something that stays behind lies by itself.
    for line in &mut made.lines {
        if dead.contains(&line.within) {
            line.within = String::new();
        }
    }
    made
}

/// What is planned on the new hull for it, as one modification; `None` where nothing is.
/// Fittings of the old hull come at the same share of the length, as a guess.
#[must_use]
pub fn modification(old: &Facts<'_>, new: &Facts<'_>, moves: &[Move]) -> Option<Modification> {
    let mut all = Modification {
        name: format!("moved from the {}", old.hull().name())
            .chars()
            .take(crate::base::LONGEST_NAME)
            .collect(),
        progress: Progress::Planned,
        removes: Vec::new(),
        zones: Vec::new(),
        fittings: Vec::new(),
        dryness: Vec::new(),
        mass: 0.0,
        x: 0.5 * new.size().0,
        z: 0.2,
        holes: 0,
        price: Some(0.0),
        can_be_undone: true,
        note: "worked out from what the old hull carries; places and prices are guide values"
            .to_owned(),
    };
    let mut moment = 0.0;
    let mut add = |m: &Modification, x: f64| {
        moment += m.mass * x;
        all.mass += m.mass;
        all.holes = all.holes.saturating_add(m.holes);
        all.price = all.price.zip(m.price).map(|(a, b)| a + b);
        all.can_be_undone &= m.can_be_undone;
        for zone in &m.zones {
            if !all.zones.iter().any(|z| z.name == zone.name) {
                all.zones.push(zone.clone());
            }
        }
        let mut fittings = m.fittings.clone();
        fittings.retain(|f| !all.fittings.iter().any(|o| o.name == f.name));
        all.fittings.extend(fittings);
        for gone in &m.removes {
            if !all.removes.contains(gone) {
                all.removes.push(gone.clone());
            }
        }
        all.dryness.extend(m.dryness.iter().cloned());
    };
    for m in moves {
        if let Some(Change::Fit(made)) = m.remedy.as_ref().map(|r| &r.change) {
            add(made, made.x);
        }
    }
    let share = new.size().0 / old.size().0.max(0.1);
    let wide = new.size().1 / old.size().1.max(0.1);
    for done in &old.hull().fitout.modifications {
        let comes = |f: &&Fitting| {
            let own = moves.iter().find(|m| m.gear.is_none() && m.item == f.name);
            own.is_some_and(|m| m.goes == Goes::Adapter)
        };
        let fittings: Vec<Fitting> = done.fittings.iter().filter(comes).cloned().collect();
        if fittings.is_empty() {
            continue;
        }
        let moved = Modification {
            fittings: fittings
                .into_iter()
                .map(|f| Fitting {
                    x: f.x * share,
                    y: f.y * wide,
                    z: None,
                    source: Source::Guess,
                    ..f
                })
                .collect(),
            zones: Vec::new(),
            removes: Vec::new(),
            dryness: Vec::new(),
            // They are there already.
            price: Some(0.0),
            ..done.clone()
        };
        add(&moved, done.x * share);
    }
    if all.fittings.is_empty() && all.zones.is_empty() {
        return None;
    }
    if all.mass > 0.0 {
        all.x = moment / all.mass;
    }
    Some(all)
}
