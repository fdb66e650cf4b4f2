//! What a layout leaves of the deck: figures hulls are compared by.

use super::choose::Place;
use super::pack::Rect;
use super::space::{Area, SocketKind, Space};
use crate::hull::ZoneKind;

/// Deck space left by a layout.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Deck {
    /// Floor left to stand on, m²; `None` where it has none.
    pub standing_floor: Option<f64>,
    /// Tank well left, m².
    pub well_free: f64,
    /// Largest free rectangle of any open place: length and width, m.
    pub largest_free: [f64; 2],
    /// Track left, m.
    pub track_left: f64,
    /// Boxes of the standard size that still go beneath and behind the seat.
    pub boxes: u32,
    /// Rods that stand in holders and tubes, or could.
    pub rods_upright: u32,
    /// Rods that lie along the sides or in tubes, or could.
    pub rods_flat: u32,
    /// Holes drilled.
    pub holes: u32,
    /// Things out of the reach they need.
    pub out_of_reach: u32,
    /// Things that stand up in the area where line is cast and stripped: ahead of
    /// the seat.
    pub projections: u32,
    /// Minutes to set up.
    pub setup_minutes: f64,
    /// Free floor of each place, by its name, m².
    pub free: Vec<(String, f64)>,
}

/// The box that is counted: nominal 36 × 22 × 5 cm, m.
pub const BOX: [f64; 3] = [0.36, 0.22, 0.05];
/// A rod that lies flat takes this much of a side, m.
const ROD: f64 = 2.1;

/// An area with what lies in it and is kept free of it, each m from its near end
/// and port side: from, to, port, starboard.
pub(super) struct Taken<'a> {
    pub(super) area: &'a Area,
    pub(super) rects: Vec<[f64; 4]>,
}

impl Taken<'_> {
    fn free(&self) -> f64 {
        free_area([self.area.length(), self.area.width()], &self.rects)
    }

    fn largest(&self) -> [f64; 2] {
        largest_free([self.area.length(), self.area.width()], &self.rects)
    }

    fn boxes(&self) -> u32 {
        if self.area.height.is_some_and(|h| h < BOX[2]) {
            return 0;
        }
        let [length, width] = self.largest();
        let layers = self.area.height.map_or(4, |h| (h / BOX[2] + 1e-9) as u32);
        let rows =
            |a: f64, b: f64| ((length / a + 1e-9).floor() * (width / b + 1e-9).floor()) as u32;
        layers * rows(BOX[0], BOX[1]).max(rows(BOX[1], BOX[0]))
    }
}

/// Free floor of a room with parts taken (they may overlap), in its own units.
#[must_use]
pub fn free_area(size: [f64; 2], taken: &[[f64; 4]]) -> f64 {
    let (xs, ys) = grid(size, taken);
    let mut free = 0.0;
    for x in xs.windows(2) {
        for y in ys.windows(2) {
            if !covered(0.5 * (x[0] + x[1]), 0.5 * (y[0] + y[1]), taken) {
                free += (x[1] - x[0]) * (y[1] - y[0]);
            }
        }
    }
    free
}

/// Largest rectangle of a room clear of what is taken: length and width.
fn largest_free(size: [f64; 2], taken: &[[f64; 4]]) -> [f64; 2] {
    let (xs, ys) = grid(size, taken);
    let clear = |x0: f64, x1: f64, y0: f64, y1: f64| {
        taken.iter().all(|t| {
            t[0] >= x1 - 1e-9 || t[1] <= x0 + 1e-9 || t[2] >= y1 - 1e-9 || t[3] <= y0 + 1e-9
        })
    };
    let mut best = [0.0, 0.0];
    for (i, &x0) in xs.iter().enumerate() {
        for &x1 in &xs[i + 1..] {
            for (j, &y0) in ys.iter().enumerate() {
                for &y1 in &ys[j + 1..] {
                    if (x1 - x0) * (y1 - y0) > best[0] * best[1] && clear(x0, x1, y0, y1) {
                        best = [x1 - x0, y1 - y0];
                    }
                }
            }
        }
    }
    best
}

fn grid(size: [f64; 2], taken: &[[f64; 4]]) -> (Vec<f64>, Vec<f64>) {
    let line = |n: usize| {
        let edges = taken.iter().flat_map(|t| [t[2 * n], t[2 * n + 1]]);
        let mut all: Vec<f64> = edges
            .map(|e| e.clamp(0.0, size[n]))
            .chain([0.0, size[n]])
            .collect();
        all.sort_by(f64::total_cmp);
        all.dedup_by(|a, b| (*a - *b).abs() < 1e-9);
        all
    };
    (line(0), line(1))
}

fn covered(x: f64, y: f64, taken: &[[f64; 4]]) -> bool {
    taken
        .iter()
        .any(|t| t[0] < x && x < t[1] && t[2] < y && y < t[3])
}

/// A rectangle of a packing in m.
pub(super) fn metres(rect: Rect) -> [f64; 4] {
    [rect.x, rect.end(), rect.y, rect.side()].map(|mm| f64::from(mm) / 1000.0)
}

/// One thing as the deck figures see it.
pub(super) struct Standing {
    pub(super) place: Place,
    pub(super) x: f64,
    /// Its top over the gunwale, m.
    pub(super) over_gunwale: f64,
    pub(super) holes: u16,
    pub(super) short_of_reach: bool,
    pub(super) minutes: f64,
}

/// What is left: of the areas, of rails (used length of each), of the tubes
/// containers bring.
pub(super) fn figures(
    space: &Space,
    areas: &[Taken<'_>],
    used: &[f64],
    tubes: u32,
    things: &[Standing],
) -> Deck {
    let free: Vec<(String, f64)> = areas
        .iter()
        .map(|t| (t.area.name.clone(), t.free()))
        .collect();
    let of_kind = |kind: ZoneKind| areas.iter().filter(move |t| t.area.kind == kind);
    let largest = areas
        .iter()
        .filter(|t| !t.area.enclosed && t.area.kind != ZoneKind::CockpitFloor)
        .map(Taken::largest)
        .fold(
            [0.0, 0.0],
            |a, b| if b[0] * b[1] > a[0] * a[1] { b } else { a },
        );
    let rails = space.rails.iter().zip(used);
    let track_left = rails
        .clone()
        .filter(|(r, _)| r.track)
        .map(|(r, used)| (r.to - r.from - used).max(0.0));
    let sides = rails
        .filter(|(r, _)| !r.track)
        .map(|(r, used)| ((r.to - r.from - used) / ROD + 1e-9).max(0.0) as u32);
    let holder = |up: bool| {
        let holds = move |s: &&super::space::Socket| match s.kind {
            SocketKind::Holder { angle, .. } => (angle > 20.0) == up,
            _ => false,
        };
        space.sockets.iter().filter(holds).count() as u32
    };
    let beneath = of_kind(ZoneKind::UnderSeatBay).chain(of_kind(ZoneKind::TankWell));
    Deck {
        standing_floor: space.standing_floor.map(|whole| {
            let stood = things.iter().filter(|t| match t.place {
                Place::Area(a) => space.areas[a].kind == ZoneKind::CockpitFloor,
                _ => false,
            });
            // Only ahead of the feet can anything lie on it at all.
            if stood.count() == 0 {
                whole
            } else {
                whole.min(of_kind(ZoneKind::CockpitFloor).map(Taken::free).sum())
            }
        }),
        // A sum of nothing is −0.
        well_free: of_kind(ZoneKind::TankWell)
            .map(Taken::free)
            .fold(0.0, |sum, free| sum + free),
        largest_free: largest,
        track_left: track_left.sum(),
        boxes: beneath.map(Taken::boxes).sum(),
        rods_upright: holder(true) + tubes,
        rods_flat: holder(false) + sides.sum::<u32>(),
        holes: things.iter().map(|t| u32::from(t.holes)).sum(),
        out_of_reach: things.iter().filter(|t| t.short_of_reach).count() as u32,
        projections: things
            .iter()
            .filter(|t| t.over_gunwale > 0.0 && t.x < space.seat)
            .count() as u32,
        setup_minutes: things.iter().map(|t| t.minutes).sum(),
        free,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_is_left_is_counted_once() {
        // Two that overlap take 0.10 together of one by one half.
        let taken = [[0.0, 0.2, 0.0, 0.3], [0.1, 0.3, 0.0, 0.2]];
        let free = free_area([1.0, 0.5], &taken);
        assert!((free - (0.5 - 0.06 - 0.02)).abs() < 1e-12, "{free}");
        let [length, width] = largest_free([1.0, 0.5], &taken);
        assert!((length - 0.7).abs() < 1e-12 && (width - 0.5).abs() < 1e-12);
        assert_eq!(free_area([1.0, 0.5], &[]), 0.5);
    }
}
