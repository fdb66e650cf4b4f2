//! The engine: from a hull's space and a rig to a layout, and to a better
//! balanced one.

use super::bulk::At;
use super::choose::{Choice, Place, Refusal};
use super::chooser::Chooser;
use super::demand::{Item, Unpacked, items};
use super::layout::Layout;
use super::pins::{Pinned, pinned};
use super::reach::Arms;
use super::search::Search;
use super::space::Space;
use crate::guide::Guides;
use crate::hull::Pin;
use crate::rig::Rig;

/// Most single things laid into places; what a rig has beyond lies where it says.
pub const MOST: usize = 200;

/// How it lies with a layout, for levelling it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Balance {
    /// Trim, bow up positive, °.
    pub trim: f64,
    /// What one degree of trim takes, kg·m.
    pub per_degree: f64,
}

/// Bow down beyond this it ploughs and wanders, stern down beyond that it slaps
/// (handbook, chapter 3), °.
pub const LEVEL: (f64, f64) = (-0.5, 1.5);
/// Things lighter than this are not moved for its balance, kg.
const HEAVY: f64 = 2.5;

/// A rig and a space, ready to be laid out.
pub struct Engine<'a> {
    pub(super) rig: &'a Rig,
    pub(super) bow: f64,
    pub(super) chooser: Chooser<'a>,
    pub(super) pinned: Vec<Option<Pinned>>,
    pub(super) unpacked: Vec<Unpacked>,
    pub(super) choices: Vec<Vec<Choice>>,
    pub(super) refused: Vec<Vec<Refusal>>,
}

/// Items of a rig, kept while its engine is.
pub struct Demand<'a> {
    rig: &'a Rig,
    pub(super) items: Vec<Item<'a>>,
    unpacked: Vec<Unpacked>,
}

impl<'a> Demand<'a> {
    /// What a rig asks room for.
    #[must_use]
    pub fn of(rig: &'a Rig, guides: &Guides) -> Self {
        let (mut items, unpacked) = items(rig, guides);
        items.truncate(MOST);
        Self {
            rig,
            items,
            unpacked,
        }
    }
}

impl Demand<'_> {
    /// Whether any of it is laid into places: something has a known size.
    #[must_use]
    pub fn is_laid_out(&self) -> bool {
        self.items.iter().any(|item| item.size().is_some())
    }
}

impl<'a> Engine<'a> {
    /// Prepares an engine; the hull's bow lies at `bow` m.
    #[must_use]
    pub fn new(
        space: &'a Space,
        demand: &'a Demand<'a>,
        pins: &[Pin],
        bow: f64,
        guides: &'a Guides,
    ) -> Self {
        let items = &demand.items;
        let chooser = Chooser {
            space,
            guides,
            items,
            arms: Arms::of(space, guides),
        };
        let mut choices: Vec<Vec<Choice>> = Vec::with_capacity(items.len());
        let mut refused = Vec::with_capacity(items.len());
        for i in 0..items.len() {
            // Things of one line have the same choices, where neither is packed.
            let alike = i > 0
                && items[i - 1].line == items[i].line
                && items[i - 1].pose == items[i].pose
                && items[i - 1].inside.is_none()
                && items[i].inside.is_none();
            let (found, why) = if items[i].inside.is_some() {
                (Vec::new(), Vec::new())
            } else if alike {
                (choices[i - 1].clone(), Vec::new())
            } else {
                chooser.choices(i)
            };
            choices.push(found);
            refused.push(why);
        }
        for i in 1..items.len() {
            let alike = items[i - 1].line == items[i].line && items[i - 1].pose == items[i].pose;
            if alike && refused[i].is_empty() {
                refused[i] = refused[i - 1].clone();
            }
        }
        Self {
            rig: demand.rig,
            bow,
            pinned: pinned(pins, items, space),
            unpacked: demand.unpacked.clone(),
            chooser,
            choices,
            refused,
        }
    }

    /// Leaves out every way to hold a thing that takes a hole.
    pub fn leave_her_whole(&mut self) {
        for choices in &mut self.choices {
            choices.retain(|choice| choice.holes == 0);
        }
    }

    /// The best layout found.
    #[must_use]
    pub fn lay(&self) -> Layout {
        self.lay_all().0
    }

    /// Whether there is any place for a thing before anything else is aboard.
    pub(super) fn offers_a_place(&self, item: usize) -> bool {
        self.choices.get(item).is_some_and(|c| !c.is_empty())
    }

    /// The same with the items that found no place.
    pub(super) fn lay_all(&self) -> (Layout, Vec<usize>) {
        let mut search = Search::new(&self.chooser, &self.choices, &self.pinned);
        search.run();
        self.even_out(&mut search, None);
        let found = search.found();
        let at = self.places(&found);
        let out = |&i: &usize| {
            let item = &self.chooser.items[i];
            item.inside.is_none() && item.size().is_some() && at[i].is_none()
        };
        let out = (0..at.len()).filter(out).collect();
        (self.layout(&found), out)
    }

    /// The best layout found with its trim in mind: `balance` is how it lies with
    /// [`Engine::lay`], `band` between which trims it is level enough, °.
    #[must_use]
    pub fn lay_level(&self, balance: Balance, band: (f64, f64)) -> Layout {
        let mut search = Search::new(&self.chooser, &self.choices, &self.pinned);
        search.run();
        self.even_out(&mut search, None);
        self.even_out(&mut search, Some((balance, band)));
        self.layout(&search.found())
    }

    /// Moves things between places that are as good for them, as long as that
    /// brings it nearer to level, and takes list out of it.
    fn even_out(&self, search: &mut Search<'_>, balance: Option<(Balance, (f64, f64))>) {
        let items = self.chooser.items;
        let masses: Vec<f64> = (0..items.len())
            .map(|i| self.with_content(i, |item| item.loaded))
            .collect();
        let mass = |i: usize| masses[i];
        let moments = |at: &[Option<At>]| {
            let placed = at.iter().enumerate();
            placed.fold([0.0, 0.0], |m, (i, at)| match at {
                Some(at) => [m[0] + mass(i) * at.x, m[1] + mass(i) * at.y],
                None => m,
            })
        };
        let start = moments(&self.places(&search.found()));
        let unlevel = |m: [f64; 2]| {
            // Mass further aft trims it bow up.
            let trim = balance.map_or(0.0, |(b, _)| b.trim + (m[0] - start[0]) / b.per_degree);
            let (low, high) = balance.map_or(LEVEL, |(_, band)| band);
            let over = (low - trim).max(trim - high).max(0.0);
            // List weighs less than trim; neither for a hair.
            (100.0 * over).round() * 1e3 + m[1].abs()
        };
        let mut now = unlevel(start);
        let mut order: Vec<usize> = (0..items.len())
            .filter(|&i| search.chosen(i).is_some() && (balance.is_none() || mass(i) >= HEAVY))
            .collect();
        order.sort_by(|&a, &b| mass(b).total_cmp(&mass(a)).then(a.cmp(&b)));
        for i in order {
            let Some(was) = search.chosen(i).filter(|_| !search.carries(i)) else {
                continue;
            };
            if balance.is_none()
                && !matches!(
                    self.choices[i][was].place,
                    Place::Socket(_) | Place::Rail(_)
                )
            {
                continue;
            }
            for c in 0..self.choices[i].len() {
                let (a, b) = (&self.choices[i][was].cost, &self.choices[i][c].cost);
                // For trim alone a place liked less will do; for list none will.
                let alike = a[..3] == b[..3] && (balance.is_some() || a[3] == b[3]);
                let crowds = self.choices[i][c].crowds && !self.choices[i][was].crowds;
                if c == was || !alike || crowds || self.choices[i][c].stretched {
                    continue;
                }
                let Some(standing) = search.chosen(i) else {
                    break;
                };
                let mut trial = search.clone();
                trial.take(i, standing);
                if !trial.put(i, c) {
                    continue;
                }
                let then = unlevel(moments(&self.places(&trial.found())));
                if then < now - 1e-6 {
                    now = then;
                    *search = trial;
                }
            }
        }
    }

    /// A sum over an item and all that is packed in it, however deep. Containers stand
    /// before what is in them.
    pub(super) fn with_content(&self, i: usize, of: impl Fn(&Item<'_>) -> f64) -> f64 {
        let items = self.chooser.items;
        let mut within = vec![false; items.len()];
        within[i] = true;
        let mut sum = of(&items[i]);
        for (k, item) in items.iter().enumerate().skip(i + 1) {
            if item.inside.is_some_and(|c| within[c]) {
                within[k] = true;
                sum += of(item);
            }
        }
        sum
    }
}
