//! Which thing goes where: the search over choices.
//!
//! Branch and bound over the items, hardest first, each tried at its choices in
//! order of cost; what is placed in one area is packed anew with each addition
//! (exactly, see [`super::pack()`]). Costs are compared gravest part first and add
//! up, so the sum of every remaining item's best choice is a lower bound. With
//! few items the search runs to its end; beyond [`WHOLE`] it stops after
//! [`NODES`] steps with the best layout so far, which is at least as good as
//! placing each item at its best free choice in turn. It knows no clock and no
//! thread: the same input gives the same layout.

use super::bulk::{Bulk, down, local, up};
use super::choose::{Choice, Place};
use super::chooser::Chooser;
use super::demand::Item;
use super::pack::{Piece, Rect};
use super::pins::{Pinned, takes_room};
use super::space::{Area, KeepOut, Space};
use rustc_hash::FxHashMap;
use std::cell::RefCell;
use std::collections::HashMap;
use std::rc::Rc;

/// Up to this many items with a size the search is carried to its end.
pub const WHOLE: usize = 8;
/// Steps allowed beyond that.
pub const NODES: u32 = 1_500;
/// Steps allowed for few items: more than their whole tree in practice.
const NODES_WHOLE: u32 = 60_000;
/// Corners a packing may try.
const EFFORT: u32 = 20_000;
/// The same where many items are laid.
const EFFORT_MANY: u32 = 1_500;

/// Cost of a layout, gravest first: musts not placed, grades of reach, grades of
/// dryness, holes, wants not placed, how little the places are liked.
pub type Total = [u32; 6];

/// An item standing on the hull: its box, and what it takes of areas' floors.
pub(super) type Standing = (usize, Bulk, Vec<(usize, Rect)>);
/// What was asked of a packing: the area, the pieces, what is kept free.
type Asked = (usize, Vec<Piece>, Vec<Rect>);
/// Where the pieces lie, and whether only in a stretched room; `None` for nowhere.
type Packing = Option<(Vec<Rect>, bool)>;

/// What the search found.
pub(super) struct Found {
    /// Which of its choices each item got; `None` for none.
    pub chosen: Vec<Option<usize>>,
    /// Where things along rails lie: item, from, to.
    pub rails: Vec<Vec<(usize, f64, f64)>>,
    /// How each area is packed.
    pub areas: Vec<PackedArea>,
}

/// How an area is packed.
#[derive(Debug, Clone)]
pub(super) struct PackedArea {
    /// Items with their rectangles, mm from the near end and the port side.
    pub items: Vec<(usize, Rect)>,
    /// Whether only in a stretched room.
    pub stretched: bool,
    /// Whether something that stands elsewhere, on a track or a plate, takes of its
    /// floor.
    pub stood_over: bool,
}

#[derive(Clone)]
pub(super) struct Search<'a> {
    pub(super) chooser: &'a Chooser<'a>,
    pub(super) choices: &'a [Vec<Choice>],
    pub(super) pinned: &'a [Option<Pinned>],
    pub(super) order: Vec<usize>,
    /// Least that the items from a step on can cost.
    pub(super) bound: Vec<Total>,
    pub(super) nodes: u32,
    pub(super) effort: u32,
    pub(super) chosen: Vec<Option<usize>>,
    pub(super) areas: Vec<Vec<usize>>,
    pub(super) sockets: Vec<bool>,
    pub(super) rails: Vec<Vec<(usize, f64, f64)>>,
    pub(super) tubes: HashMap<usize, u16>,
    pub(super) lids: HashMap<usize, Vec<usize>>,
    /// What is kept free of each area, in its own millimetres.
    pub(super) kept: Rc<Vec<Vec<Rect>>>,
    /// How near the seat each choice of each item must end, mm from its area's near
    /// end.
    pub(super) within: Rc<Vec<Vec<i32>>>,
    /// Length and width of each item, mm.
    pub(super) sizes: Rc<Vec<[i32; 2]>>,
    /// Packings tried before, shared with copies of this search.
    pub(super) packed: Rc<RefCell<FxHashMap<Asked, Packing>>>,
    /// Boxes standing on the hull, and the parts they take of areas' floors.
    pub(super) bulks: Vec<Standing>,
    pub(super) cost: Total,
    pub(super) best: Option<(Total, Vec<Option<usize>>)>,
}

/// What is kept free of an area, in its own millimetres.
fn kept(space: &Space, area: &Area) -> Vec<Rect> {
    let aft = is_aft(space, area);
    let rect = |k: &KeepOut| local(area, aft, [k.from, k.to, k.port, k.starboard]);
    area.kept.iter().map(rect).collect()
}

/// Whether an area is filled from its forward end: it lies behind the seat.
pub(super) fn is_aft(space: &Space, area: &Area) -> bool {
    0.5 * (area.from + area.to) > space.seat
}

/// How near the seat choices must end, whole millimetres.
fn within(choices: &[Choice]) -> Vec<i32> {
    choices.iter().map(|choice| down(choice.within)).collect()
}

/// An item's length and width, whole millimetres.
fn across(item: &Item<'_>) -> [i32; 2] {
    let [length, width, _] = item.size().unwrap_or_default();
    [up(length), up(width)]
}

/// Sum of two costs.
fn plus(a: Total, b: Total) -> Total {
    std::array::from_fn(|i| a[i] + b[i])
}

fn of_choice(choice: &Choice) -> Total {
    let [reach, dry, holes, liked] = choice.cost;
    [0, reach, dry, holes, 0, liked]
}

const fn of_nothing(must: bool) -> Total {
    if must {
        [1, 0, 0, 0, 0, 0]
    } else {
        [0, 0, 0, 0, 1, 0]
    }
}

impl<'a> Search<'a> {
    pub(super) fn new(
        chooser: &'a Chooser<'a>,
        choices: &'a [Vec<Choice>],
        pinned: &'a [Option<Pinned>],
    ) -> Self {
        let items = chooser.items;
        let plan = |i: usize| {
            let [l, w, _] = items[i].size().unwrap_or_default();
            (1e6 * l * w) as u64
        };
        let brings = |i: usize| {
            let brings = items[i].gear.map(|g| &g.brings);
            brings.is_some_and(|b| b.tubes > 0 || b.lid)
        };
        let free = |i: &usize| {
            items[*i].inside.is_none() && items[*i].size().is_some() && pinned[*i].is_none()
        };
        let mut order: Vec<usize> = (0..items.len()).filter(free).collect();
        // What others may sit on first, then musts, then what has least choice
        // and takes most room.
        order.sort_by_key(|&i| {
            let must = items[i].must;
            (
                !brings(i),
                !must,
                choices[i].len().min(4),
                u64::MAX - plan(i),
                i,
            )
        });
        let mut bound = vec![[0; 6]; order.len() + 1];
        for (n, &i) in order.iter().enumerate().rev() {
            let best = choices[i].first().map(of_choice);
            let best = best.map_or(of_nothing(items[i].must), |b| {
                b.min(of_nothing(items[i].must))
            });
            bound[n] = plus(bound[n + 1], best);
        }
        let whole = order.len() <= WHOLE;
        let space = chooser.space;
        let mut search = Self {
            kept: Rc::new(space.areas.iter().map(|a| kept(space, a)).collect()),
            within: Rc::new(choices.iter().map(|all| within(all)).collect()),
            sizes: Rc::new(items.iter().map(across).collect()),
            chooser,
            choices,
            pinned,
            bound,
            // Enough for one way down, whatever comes.
            nodes: 2 * order.len() as u32 + if whole { NODES_WHOLE } else { NODES },
            effort: if whole { EFFORT } else { EFFORT_MANY },
            chosen: vec![None; items.len()],
            areas: vec![Vec::new(); space.areas.len()],
            sockets: vec![false; space.sockets.len()],
            rails: vec![Vec::new(); space.rails.len()],
            tubes: HashMap::new(),
            lids: HashMap::new(),
            packed: Rc::default(),
            bulks: Vec::new(),
            cost: [0; 6],
            best: None,
            order,
        };
        search.pin();
        search
    }

    /// Takes what is pinned out of the room.
    fn pin(&mut self) {
        for (i, pinned) in self.pinned.iter().enumerate() {
            let Some(pinned) = pinned else { continue };
            match pinned.place {
                Place::Socket(s) => self.sockets[s] = true,
                Place::Rail(r) => {
                    let half = 0.5 * pinned.size[0];
                    self.rails[r].push((i, pinned.x - half, pinned.x + half));
                }
                _ => {}
            }
            if takes_room(pinned, self.chooser.space) {
                let bulk = pinned.bulk();
                let takes = self.taken_of_floors(&bulk);
                self.bulks.push((i, bulk, takes));
            }
        }
    }

    /// Runs the search; what it found stands then.
    pub(super) fn run(&mut self) {
        self.step(0);
        if let Some((_, chosen)) = self.best.take() {
            self.replay(&chosen);
        }
    }

    /// The choice an item has now.
    pub(super) fn chosen(&self, i: usize) -> Option<usize> {
        self.chosen[i]
    }

    /// What stands now, with every area packed.
    pub(super) fn found(&self) -> Found {
        let areas = (0..self.areas.len())
            .map(|a| {
                let (rects, stretched) = self.pack_area(a).unwrap_or_default();
                let items = self.areas[a].iter().copied();
                let mut takes = self.bulks.iter().flat_map(|(_, _, takes)| takes);
                PackedArea {
                    items: items.zip(rects).collect(),
                    stretched,
                    stood_over: takes.any(|(of, _)| *of == a),
                }
            })
            .collect();
        Found {
            chosen: self.chosen.clone(),
            rails: self.rails.clone(),
            areas,
        }
    }

    /// Puts everything where a finished search had it.
    fn replay(&mut self, chosen: &[Option<usize>]) {
        for n in 0..self.order.len() {
            let i = self.order[n];
            if let Some(c) = chosen[i] {
                let put = self.put(i, c);
                debug_assert!(put, "what was placed once is placed again");
            }
        }
    }

    /// Whether no better layout is left to be found.
    fn done(&self) -> bool {
        self.nodes == 0
            || self
                .best
                .as_ref()
                .is_some_and(|(cost, _)| *cost == self.bound[0])
    }

    fn step(&mut self, n: usize) {
        let hopeless = |best: &(Total, _)| plus(self.cost, self.bound[n]) >= best.0;
        if self.best.as_ref().is_some_and(hopeless) || self.done() {
            return;
        }
        self.nodes -= 1;
        let Some(&i) = self.order.get(n) else {
            self.best = Some((self.cost, self.chosen.clone()));
            return;
        };
        // Of the same line the later one is not tried before the earlier one.
        let twin = n.checked_sub(1).map(|m| self.order[m]);
        let twin = twin.filter(|&t| self.chooser.items[t].line == self.chooser.items[i].line);
        let first = match twin {
            Some(t) => self.chosen[t].unwrap_or(usize::MAX),
            None => 0,
        };
        let choices = self.choices;
        for (c, choice) in choices[i].iter().enumerate() {
            if c < first {
                continue;
            }
            if self.put(i, c) {
                let before = self.cost;
                self.cost = plus(self.cost, of_choice(choice));
                self.step(n + 1);
                self.cost = before;
                self.take(i, c);
            }
            if self.done() {
                return;
            }
        }
        let before = self.cost;
        self.cost = plus(self.cost, of_nothing(self.chooser.items[i].must));
        self.step(n + 1);
        self.cost = before;
    }
}
