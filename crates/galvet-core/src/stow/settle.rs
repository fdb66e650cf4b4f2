//! A rig laid out with whatever gives: soft things pressed in, others on another side,
//! as far as that finds a place for what else would have none.

use super::demand::Item;
use super::engine::{Demand, Engine};
use super::layout::Layout;
use super::pose::Pose;
use super::space::Space;
use crate::guide::{Guide, Guides};
use crate::hull::Pin;

impl Item<'_> {
    /// Lays it otherwise.
    fn laid(&mut self, pose: Pose, guides: &Guides) {
        self.pose = pose;
        let size = self.gear.and_then(|g| g.size);
        self.size = size.map(|size| pose.size(size, guides));
    }
}

/// What a rig is laid out in.
#[derive(Debug)]
pub struct Stead<'a> {
    /// The space.
    pub space: &'a Space,
    /// What was put by hand.
    pub pins: &'a [Pin],
    /// Where the bow lies, m.
    pub bow: f64,
    /// The guide values.
    pub guides: &'a Guides,
    /// Whether holes may be drilled.
    pub drills: bool,
}

impl Stead<'_> {
    /// An engine for a rig here.
    #[must_use]
    pub fn engine<'a>(&'a self, demand: &'a Demand<'a>) -> Engine<'a> {
        let mut engine = Engine::new(self.space, demand, self.pins, self.bow, self.guides);
        if !self.drills {
            engine.leave_her_whole();
        }
        engine
    }

    /// The best layout, in which what found no place is laid otherwise as far as that
    /// gives it one and takes none from anything else.
    #[must_use]
    pub fn settle(&self, demand: &mut Demand<'_>) -> Layout {
        let (mut best, mut out) = self.engine(demand).lay_all();
        let flat = demand.items.clone();
        let mut kept = flat.clone();
        let mut helped = false;
        // Three poses beyond the first.
        for _ in 0..3 {
            let mut tried = false;
            for &i in &out {
                let item = &demand.items[i];
                let Some(next) = item.gear.and_then(|g| item.pose.next(g)) else {
                    continue;
                };
                if next == Pose::Pressed && !bears_pressing(&demand.items, i, self.guides) {
                    continue;
                }
                demand.items[i].laid(next, self.guides);
                tried = true;
            }
            if !tried {
                break;
            }
            let engine = self.engine(demand);
            // Laid so, none of them goes anywhere even on an empty boat.
            if !out.iter().any(|&i| engine.offers_a_place(i)) {
                continue;
            }
            let (then, still) = engine.lay_all();
            if left(&then) < left(&best) {
                (best, out) = (then, still);
                kept.clone_from(&demand.items);
                helped = true;
            }
        }
        if !helped {
            demand.items = flat;
            return best;
        }
        demand.items = kept;
        // What is still out is told with the size that was measured.
        let posed = out.iter().filter(|&&i| demand.items[i].pose != Pose::Flat);
        let posed: Vec<usize> = posed.copied().collect();
        if posed.is_empty() {
            return best;
        }
        for i in posed {
            demand.items[i].laid(Pose::Flat, self.guides);
        }
        self.engine(demand).lay()
    }
}

/// Whether what is packed in a soft thing still goes in when that is pressed.
fn bears_pressing(items: &[Item<'_>], i: usize, guides: &Guides) -> bool {
    let packed = |item: &&Item<'_>| item.inside == Some(i) && !item.ties;
    let inside = items[i].gear.and_then(|g| g.brings.inside);
    let Some(inside) = inside else {
        return !items.iter().any(|item| packed(&item));
    };
    let sorted = |mut size: [f64; 3]| {
        size.sort_by(f64::total_cmp);
        size
    };
    let room = sorted(Pose::Pressed.size(inside, guides));
    let litres = |size: [f64; 3]| size.iter().product::<f64>();
    let (mut taken, mut all_fit) = (0.0, true);
    for size in items.iter().filter(packed).filter_map(|item| item.size) {
        taken += litres(size);
        all_fit &= (0..3).all(|k| sorted(size)[k] <= room[k] + 1e-9);
    }
    all_fit && taken <= guides[Guide::PackingShare] * litres(room) + 1e-12
}

/// Musts and wants that find no place.
fn left(layout: &Layout) -> (u32, u32) {
    let of = |must: bool| {
        let left = layout.unplaced.iter().filter(move |u| u.must == must);
        left.map(|u| u.count).sum()
    };
    (of(true), of(false))
}
