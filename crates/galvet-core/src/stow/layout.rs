//! A rig laid out on one hull.

use super::choose::{Doubt, Refusal};
use super::deck::Deck;
use crate::gear::{Fixing, Tether};
use crate::hull::{Dryness, Reach};
use crate::rig::Rig;

/// How and where a thing of known size lies.
#[derive(Debug, Clone, PartialEq)]
pub struct Lies {
    /// The place's name, or the container's.
    pub zone: String,
    /// Length along the hull, width and height as it lies, m.
    pub size: [f64; 3],
    /// What it stands on, over the cockpit floor, m.
    pub base: f64,
    /// How it is held.
    pub fixing: Fixing,
    /// Holes that takes.
    pub holes: u16,
    /// From where it is reached.
    pub reach: Reach,
    /// The container it is packed in, by its name.
    pub within: Option<String>,
    /// The adapter it sits on, by its name.
    pub adapter: Option<String>,
    /// Whether a person put it there.
    pub pinned: bool,
    /// What becomes of it when it goes over.
    pub tether: Tether,
    /// Whether its place is shut: a hatch, a console.
    pub shut_in: bool,
    /// How dry its place stays, where anybody looked.
    pub dryness: Option<Dryness>,
}

/// One thing at its place on a hull. Heights count from the cockpit floor (a
/// board's deck).
#[derive(Debug, Clone, PartialEq)]
pub struct Stowed {
    /// What it is.
    pub item: String,
    /// Its line of the rig.
    pub line: usize,
    /// Mass packed at home, kg; of a thing without a known size all of the line's
    /// together.
    pub dry_mass: f64,
    /// Mass with ice, water, fish or fuel, kg.
    pub loaded_mass: f64,
    /// Its centre from the bow's datum, m.
    pub x: f64,
    /// Its centre to starboard, m.
    pub y: f64,
    /// Its centre above the floor, m.
    pub above_floor: f64,
    /// How it lies; `None` where its size is not known, or it found no place and
    /// is counted where the rig says.
    pub lies: Option<Lies>,
    /// Whether its mass and place are a guess.
    pub rough: bool,
}

impl Stowed {
    /// Its top above the floor, m.
    #[must_use]
    pub fn top(&self) -> f64 {
        let top = self.lies.as_ref().map(|l| l.base + l.size[2]);
        top.unwrap_or(self.above_floor)
    }
}

/// A thing that found no place.
#[derive(Debug, Clone, PartialEq)]
pub struct Unplaced {
    /// What it is.
    pub item: String,
    /// Its line of the rig.
    pub line: usize,
    /// How many of the line found none.
    pub count: u32,
    /// Whether it must come: it is counted in the load where the rig says then; a
    /// want stays ashore.
    pub must: bool,
    /// Why not where it would best have gone.
    pub why: Refusal,
    /// Whether every place it was refused was measured: then it does not fit;
    /// else it may, and there is something to measure.
    pub sure: bool,
}

/// A rig laid out on one hull.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Layout {
    /// Everything aboard, in the rig's order.
    pub stowed: Vec<Stowed>,
    /// Where the hull's bow lies, m.
    pub bow: f64,
    /// What found no place.
    pub unplaced: Vec<Unplaced>,
    /// What is not known, by the thing it concerns.
    pub doubts: Vec<(String, Doubt)>,
    /// What went not into its container but lies by itself: thing, container, why.
    pub unpacked: Vec<(String, String, String)>,
    /// Mass of what is left ashore, and of what is worn and counts with those who wear
    /// it, with their ice and water, kg.
    pub ashore: f64,
    /// See [`Layout::ashore`].
    pub worn: f64,
    /// What is left of the deck; `None` where nothing was laid into places.
    pub deck: Option<Deck>,
}

impl Layout {
    /// Lays a rig where its own fractions put it, on a hull whose bow lies at
    /// `bow` m and which is `length` m long.
    #[must_use]
    pub fn by_fractions(rig: &Rig, bow: f64, length: f64) -> Self {
        let stowed = (0..rig.lines.len()).map(|line| whole_line(rig, line, bow, length));
        Self {
            stowed: stowed.collect(),
            bow,
            ..Self::default()
        }
    }

    /// Mass with water and fish, kg.
    #[must_use]
    pub fn loaded(&self) -> f64 {
        self.stowed.iter().map(|s| s.loaded_mass).sum()
    }

    /// Mass of the water, ice and fish in it, kg.
    #[must_use]
    pub fn wet_part(&self) -> f64 {
        self.loaded() - self.stowed.iter().map(|s| s.dry_mass).sum::<f64>()
    }

    /// What of a rig is neither aboard nor ashore nor worn, kg: nothing, to the gram.
    #[must_use]
    pub fn astray(&self, rig: &Rig) -> f64 {
        rig.loaded() - (self.loaded() + self.ashore + self.worn)
    }

    /// Musts that surely find no place.
    pub fn missing(&self) -> impl Iterator<Item = &Unplaced> {
        self.unplaced.iter().filter(|u| u.must && u.sure)
    }
}

/// All of a line in one place, where its fractions put it.
pub(super) fn whole_line(rig: &Rig, line: usize, bow: f64, length: f64) -> Stowed {
    let asked = &rig.lines[line];
    Stowed {
        item: asked.item.clone(),
        line,
        dry_mass: asked.dry(),
        loaded_mass: asked.loaded(),
        x: bow + asked.place * length,
        y: asked.offset,
        above_floor: asked.height,
        lies: None,
        rough: asked.rough,
    }
}
