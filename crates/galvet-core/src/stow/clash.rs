//! Where what a person put by hand is in the way of something.

use super::bulk::{Bulk, over};
use super::layout::{Layout, Stowed};
use super::space::{Area, Space};
use crate::gear::Fixing;

/// Sizes closer than this are the same, m.
const HAIR: f64 = 5e-4;

/// What a thing is in the way of.
#[derive(Debug, Clone, PartialEq)]
pub enum Against {
    /// Another thing: its number in the layout.
    Thing(usize),
    /// A part of the hull that is kept free, and what for.
    Kept(&'static str),
    /// It stands out over the side by so much, m.
    Side(f64),
    /// It is larger than the place it was put in.
    TooLarge,
    /// A side better left clear, and what for.
    Reserve(&'static str),
}

/// A thing put by hand that is in the way.
#[derive(Debug, Clone, PartialEq)]
pub struct Clash {
    /// Its number in the layout.
    pub number: usize,
    /// Of what.
    pub against: Against,
}

/// Everything put by hand that is in the way of something, each pair once.
#[must_use]
pub fn clashes(layout: &Layout, space: &Space) -> Vec<Clash> {
    let mut found = Vec::new();
    for (number, stowed) in layout.stowed.iter().enumerate() {
        let Some(bulk) = room(stowed, layout.bow) else {
            continue;
        };
        let by_hand = stowed.lies.as_ref().is_some_and(|l| l.pinned);
        if !by_hand {
            continue;
        }
        let mut add = |against| found.push(Clash { number, against });
        for (other, at) in layout.stowed.iter().enumerate() {
            let later = other > number || !at.lies.as_ref().is_some_and(|l| l.pinned);
            let meets = room(at, layout.bow).is_some_and(|b| b.meets(&bulk));
            if other != number && later && meets {
                add(Against::Thing(other));
            }
        }
        let [(from, to), (port, starboard), (base, top)] = bulk.0;
        let mut told: Vec<&str> = Vec::new();
        let under = space.areas.iter().filter(|a| over(a, &bulk));
        for kept in under.flat_map(|a| &a.kept) {
            let along = from < kept.to && kept.from < to;
            let meets = along && port < kept.starboard && kept.port < starboard;
            if meets && kept.why != "another place" && !told.contains(&kept.why) {
                told.push(kept.why);
                add(Against::Kept(kept.why));
            }
        }
        let zone = stowed.lies.as_ref().map_or("", |l| l.zone.as_str());
        let area = space.areas.iter().find(|a| a.name == zone);
        // A guess may be out by as much as guesses are.
        let goes = |a: &Area| {
            let [more_long, more_wide] = a.slack;
            let long = to - from <= a.length() + more_long + HAIR;
            let wide = starboard - port <= a.width() + more_wide + HAIR;
            long && wide && a.height.is_none_or(|h| top - base <= h + HAIR)
        };
        if area.is_some_and(|a| a.walled && !goes(a)) {
            add(Against::TooLarge);
        }
        let half = 0.5 * space.size[1];
        let out = (starboard - half).max(-half - port);
        if area.is_some() && out > 0.005 {
            add(Against::Side(out));
        }
        let x = stowed.x - layout.bow;
        if let Some(why) = space.in_the_way(x, stowed.y, stowed.top()) {
            add(Against::Reserve(why));
        }
    }
    found
}

/// The room a thing takes, x from the bow; `None` for what is packed, worn or
/// leans in a holder.
fn room(stowed: &Stowed, bow: f64) -> Option<Bulk> {
    let lies = stowed.lies.as_ref()?;
    let takes = lies.within.is_none() && !matches!(lies.fixing, Fixing::Worn | Fixing::Holder);
    let about = |middle: f64, size: f64| (middle - 0.5 * size, middle + 0.5 * size);
    takes.then(|| {
        Bulk([
            about(stowed.x - bow, lies.size[0]),
            about(stowed.y, lies.size[1]),
            (lies.base, lies.base + lies.size[2]),
        ])
    })
}
