//! One layout in the four modes of a day: rods, net, poles and lids lie elsewhere
//! when it is under way, fished from, a fish is landed, or the surf is run.

use super::layout::{Layout, Lies, Stowed};
use super::space::Space;
use crate::base::words;
use crate::gear::{Category, Fixing, Gear};
use crate::guide::{Guide, Guides};
use crate::hull::Reach;
use crate::rig::Rig;

words! {
/// What is being done.
pub enum Mode {
    /// Going: everything lies as it was laid out.
    #[strum(message = "under way")]
    UnderWay,
    /// Fishing: a rod in the hand, what holds it is out.
    Fishing,
    /// Landing a fish: the net in the hand over the side, the fish at the gunwale.
    #[strum(message = "landing a fish")]
    Landing,
    /// Through the surf: what comes off for it lies flat and low.
    #[strum(message = "through the surf")]
    Surf,
}
}

/// Where hands are above the floor, sitting and standing, share of stature.
const HANDS: (f64, f64) = (0.32, 0.60);
/// What is stripped for the surf lies this high above its place's floor, m.
const FLAT: f64 = 0.08;

impl Layout {
    /// The same in a mode. Fish comes aboard to starboard.
    #[must_use]
    pub fn in_mode(&self, mode: Mode, rig: &Rig, space: &Space, guides: &Guides) -> Self {
        let mut now = self.clone();
        let gear = |s: &Stowed| rig.lines.get(s.line).and_then(|l| l.thing.as_deref());
        match mode {
            Mode::UnderWay => {}
            Mode::Fishing => {
                now.stowed.retain(|s| !gear(s).is_some_and(holds_her));
                in_hand(&mut now, space, 0.0, |s| gear(s).is_some_and(is_rod));
            }
            Mode::Landing => {
                now.stowed.retain(|s| !gear(s).is_some_and(holds_her));
                let side = 0.5 * space.size[1];
                in_hand(&mut now, space, 0.0, |s| gear(s).is_some_and(is_rod));
                in_hand(&mut now, space, side, |s| gear(s).is_some_and(is_net));
                now.stowed.push(Stowed {
                    item: "the fish at the gunwale".to_owned(),
                    line: usize::MAX,
                    dry_mass: 0.0,
                    loaded_mass: guides[Guide::LandedFish],
                    x: now.bow + space.seat,
                    y: side,
                    above_floor: space.gunwale,
                    lies: None,
                    rough: false,
                });
            }
            Mode::Surf => {
                let strips = |s: &Stowed| gear(s).is_some_and(|g| g.strip_for_surf);
                let mut all: Vec<Stowed> = std::mem::take(&mut now.stowed);
                for stowed in all.iter_mut().filter(|s| strips(s)) {
                    lay_flat(stowed, space);
                }
                now.stowed = all;
            }
        }
        now
    }
}

/// Whether a thing is out when it is fished from: an anchor, a pole.
fn holds_her(gear: &Gear) -> bool {
    gear.category == Category::Anchoring && gear.electric == crate::gear::Electric::None
}

fn is_rod(gear: &Gear) -> bool {
    gear.category == Category::Rods && gear.size.is_some_and(|s| s[0] >= 1.2)
}

fn is_net(gear: &Gear) -> bool {
    gear.category == Category::Landing && gear.fixings.first() == Some(&Fixing::Holder)
}

/// Takes the first thing of a kind into the hand: `y` to starboard.
fn in_hand(layout: &mut Layout, space: &Space, y: f64, is: impl Fn(&Stowed) -> bool) {
    let (sits, stands) = HANDS;
    let share = if space.aboard.posture.stands() {
        stands
    } else {
        sits
    };
    let bow = layout.bow;
    let Some(taken) = layout.stowed.iter_mut().find(|s| is(s)) else {
        return;
    };
    taken.x = bow + space.seat - 0.3;
    taken.y = y;
    taken.above_floor = share * space.aboard.stature;
    if let Some(lies) = &mut taken.lies {
        let length = lies.size.iter().copied().fold(0.0, f64::max);
        *lies = Lies {
            zone: "in the hand".to_owned(),
            // Held out ahead, or over the side.
            size: if y == 0.0 {
                [0.8 * length, 0.1, 0.6 * length]
            } else {
                [0.3, length, 0.2]
            },
            base: share * space.aboard.stature,
            fixing: Fixing::Worn,
            reach: Reach::OneHanded,
            ..lies.clone()
        };
    }
}

/// Lays a thing flat and low where it is: nothing stands up in the surf.
fn lay_flat(stowed: &mut Stowed, space: &Space) {
    let Some(lies) = &mut stowed.lies else {
        stowed.above_floor = stowed.above_floor.min(FLAT);
        return;
    };
    let upright = matches!(lies.fixing, Fixing::Holder | Fixing::Track);
    if !upright {
        return;
    }
    let [a, b, c] = lies.size;
    let long = a.hypot(c).max(b);
    let thick = b.min(c).min(0.15);
    // Along the well, strapped flat; a long rod runs over it.
    let well = space
        .areas
        .iter()
        .find(|area| area.kind == crate::hull::ZoneKind::TankWell);
    let floor = well.map_or(space.gunwale, |area| area.floor);
    lies.zone = "flat and strapped down".to_owned();
    lies.fixing = Fixing::Strap;
    lies.size = [long, b.max(0.05), thick];
    lies.base = floor;
    stowed.above_floor = floor + FLAT.min(thick);
}
