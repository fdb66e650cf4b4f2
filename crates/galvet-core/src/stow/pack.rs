//! Rectangles packed into a rectangle, exactly.
//!
//! Pieces lie with their sides along the room's, turned by 90° where they may
//! be, clear of one another and of what is kept free. Lengths are whole
//! millimetres: what touches does not overlap.
//!
//! The search is exact. Disjoint rectangles in the plane can always be put in an
//! order in which each lies wholly right of, or wholly above, all before it that
//! it could meet (Guibas and Yao, "On translating a set of rectangles", 1983);
//! pushed left and down each then stands in a corner of the staircase around
//! those before it (Martello, Pisinger and Vigo, "The three-dimensional bin
//! packing problem", 2000, section 2). Trying every order, turn and corner finds
//! a packing where there is one. What is kept free is a piece whose place is
//! given.

/// A piece to be placed, mm.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub struct Piece {
    /// Along the room's length.
    pub length: i32,
    /// Across.
    pub width: i32,
    /// Whether it may be turned by 90°.
    pub turns: bool,
    /// Its far end must not lie beyond this, mm from the room's origin: what has
    /// to be within reach.
    pub within: i32,
}

/// A rectangle in a room, mm: from its origin.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub struct Rect {
    /// Near end, along.
    pub x: i32,
    /// Near side, across.
    pub y: i32,
    /// Along.
    pub length: i32,
    /// Across.
    pub width: i32,
}

impl Rect {
    /// Far end, along.
    #[must_use]
    pub const fn end(self) -> i32 {
        self.x + self.length
    }

    /// Far side, across.
    #[must_use]
    pub const fn side(self) -> i32 {
        self.y + self.width
    }

    /// Whether the two share more than an edge.
    #[must_use]
    pub const fn overlaps(self, other: Self) -> bool {
        self.x < other.end()
            && other.x < self.end()
            && self.y < other.side()
            && other.y < self.side()
    }
}

/// A room: a rectangle with parts kept free.
#[derive(Debug, Clone, Copy)]
pub struct Room<'a> {
    /// Along.
    pub length: i32,
    /// Across.
    pub width: i32,
    /// What is kept free.
    pub kept: &'a [Rect],
}

/// Outcome of a search.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Packed {
    /// Where each piece lies, in the order they were given.
    At(Vec<Rect>),
    /// There is no packing.
    Never,
    /// None was found within the effort allowed.
    GaveUp,
}

/// Most pieces searched for exactly; more are tried in one order only.
pub const EXACT: usize = 12;

/// Packs pieces into a room; `effort` bounds the corners tried.
#[must_use]
pub fn pack(room: Room<'_>, pieces: &[Piece], effort: u32) -> Packed {
    if !may_fit(room, pieces) {
        return Packed::Never;
    }
    let kept: Vec<Rect> = room.kept.iter().filter_map(|k| clipped(*k, room)).collect();
    // Large ones first: they decide.
    let mut order: Vec<usize> = (0..pieces.len()).collect();
    order.sort_by_key(|&i| {
        let p = pieces[i];
        (
            std::cmp::Reverse(i64::from(p.length) * i64::from(p.width)),
            i,
        )
    });
    let mut search = Search {
        room,
        pieces,
        order,
        kept,
        placed: Vec::with_capacity(pieces.len() + room.kept.len()),
        at: vec![None; pieces.len()],
        kept_done: 0,
        left: if pieces.len() > EXACT {
            effort.min(2_000)
        } else {
            effort
        },
    };
    if search.run() {
        return Packed::At(search.at.into_iter().flatten().collect());
    }
    if search.left == 0 {
        Packed::GaveUp
    } else {
        Packed::Never
    }
}

/// A kept part as far as it lies in the room.
fn clipped(kept: Rect, room: Room<'_>) -> Option<Rect> {
    let (x, y) = (kept.x.max(0), kept.y.max(0));
    let length = kept.end().min(room.length) - x;
    let width = kept.side().min(room.width) - y;
    (length > 0 && width > 0).then_some(Rect {
        x,
        y,
        length,
        width,
    })
}

/// What must hold of any packing: each piece fits alone, their areas together,
/// and those too wide to lie side by side fit one behind the other.
fn may_fit(room: Room<'_>, pieces: &[Piece]) -> bool {
    let area: i64 = pieces
        .iter()
        .map(|p| i64::from(p.length) * i64::from(p.width))
        .sum();
    if area > i64::from(room.length) * i64::from(room.width) {
        return false;
    }
    let mut in_row = 0i64;
    for p in pieces {
        let (short, long) = (p.length.min(p.width), p.length.max(p.width));
        let straight = p.length <= room.length.min(p.within) && p.width <= room.width;
        let turned = p.turns && p.width <= room.length.min(p.within) && p.length <= room.width;
        if !straight && !turned {
            return false;
        }
        let least_across = if p.turns { short } else { p.width };
        if 2 * least_across > room.width {
            // However it is turned, nothing of its kind lies beside it.
            in_row += i64::from(match (straight, turned) {
                (true, true) => short,
                (true, false) => p.length,
                _ => p.width,
            });
        }
        debug_assert!(long >= short);
    }
    in_row <= i64::from(room.length)
}

struct Search<'a> {
    room: Room<'a>,
    pieces: &'a [Piece],
    order: Vec<usize>,
    kept: Vec<Rect>,
    placed: Vec<Rect>,
    at: Vec<Option<Rect>>,
    /// Kept parts that are behind the staircase already, one bit each.
    kept_done: u64,
    /// Corners still to be tried.
    left: u32,
}

impl Search<'_> {
    fn run(&mut self) -> bool {
        if self.at.iter().all(Option::is_some) {
            return true;
        }
        let corners = self.corners();
        let mut tried: Vec<Piece> = Vec::new();
        for n in 0..self.order.len() {
            let i = self.order[n];
            let piece = self.pieces[i];
            // Of pieces alike one stands for all.
            if self.at[i].is_some() || tried.contains(&piece) {
                continue;
            }
            tried.push(piece);
            let turns = piece.turns && piece.length != piece.width;
            for turned in [false, true].into_iter().take(1 + usize::from(turns)) {
                let (length, width) = if turned {
                    (piece.width, piece.length)
                } else {
                    (piece.length, piece.width)
                };
                for &(x, y) in &corners {
                    if self.left == 0 {
                        return false;
                    }
                    self.left -= 1;
                    let rect = Rect {
                        x,
                        y,
                        length,
                        width,
                    };
                    let inside = rect.end() <= self.room.length.min(piece.within)
                        && rect.side() <= self.room.width;
                    if !inside || self.kept.iter().any(|k| k.overlaps(rect)) {
                        continue;
                    }
                    self.at[i] = Some(rect);
                    self.placed.push(rect);
                    if self.run() {
                        return true;
                    }
                    self.placed.pop();
                    self.at[i] = None;
                }
            }
        }
        self.pass_kept(&corners)
    }

    /// Puts a kept part behind the staircase: what follows lies beyond it.
    fn pass_kept(&mut self, corners: &[(i32, i32)]) -> bool {
        for k in 0..self.kept.len().min(64) {
            let rect = self.kept[k];
            let done = self.kept_done & (1 << k) != 0;
            let beyond = corners.iter().any(|&(x, y)| x <= rect.x && y <= rect.y);
            if done || !beyond {
                continue;
            }
            self.kept_done |= 1 << k;
            self.placed.push(rect);
            if self.run() {
                return true;
            }
            self.placed.pop();
            self.kept_done &= !(1 << k);
        }
        false
    }

    /// Corners of the staircase around what is placed: nearest the origin first.
    fn corners(&self) -> Vec<(i32, i32)> {
        if self.placed.is_empty() {
            return vec![(0, 0)];
        }
        // From the far side inward, the furthest end seen so far.
        let mut steps: Vec<(i32, i32)> = self.placed.iter().map(|r| (r.side(), r.end())).collect();
        steps.sort_unstable_by(|a, b| b.cmp(a));
        let mut corners = Vec::with_capacity(steps.len() + 1);
        let (mut end, mut low) = (0, None);
        for (side, reach) in steps {
            if reach <= end && low.is_some() {
                continue;
            }
            if low != Some(side) {
                corners.push((end, side));
            }
            end = end.max(reach);
            low = Some(side);
        }
        corners.push((end, 0));
        corners.retain(|&(x, y)| x < self.room.length && y < self.room.width);
        corners.sort_unstable();
        corners
    }
}
