//! Boxes in the hull's frame, and a place's own millimetres.

use super::pack::Rect;
use super::space::Area;

/// A thing's place worked out: its middle and what it stands on, its size as it
/// lies.
#[derive(Debug, Clone, Copy)]
pub(super) struct At {
    pub(super) x: f64,
    pub(super) y: f64,
    pub(super) z: f64,
    pub(super) size: [f64; 3],
}

/// A box in the hull's frame, m: x, y and height over the cockpit floor, from and
/// to.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Bulk(pub [(f64, f64); 3]);

impl Bulk {
    /// Whether two share space, beyond a hair.
    #[must_use]
    pub fn meets(&self, other: &Self) -> bool {
        let hair = 1e-6;
        (0..3).all(|i| self.0[i].0 < other.0[i].1 - hair && other.0[i].0 < self.0[i].1 - hair)
    }
}

/// Whether a box stands in the space over an area's floor.
pub(super) fn over(area: &Area, bulk: &Bulk) -> bool {
    over_so_much(area, [0.0; 2], bulk)
}

/// The same of an area as far as it may reach where it is guessed: what is packed may
/// lie there. It stretches away from the seat and to starboard.
pub(super) fn over_stretched(area: &Area, bulk: &Bulk) -> bool {
    let slack = if area.guessed { area.slack } else { [0.0; 2] };
    over_so_much(area, slack, bulk)
}

fn over_so_much(area: &Area, [long, wide]: [f64; 2], bulk: &Bulk) -> bool {
    let top = area.floor + area.height.unwrap_or(2.0);
    bulk.meets(&Bulk([
        (area.from - long, area.to + long),
        (area.port, area.starboard + wide),
        (area.floor, top),
    ]))
}

/// A rectangle of the hull in an area's own millimetres: from the end nearer the
/// seat, and from the port side; widened to whole ones.
pub(super) fn local(area: &Area, aft: bool, [from, to, port, starboard]: [f64; 4]) -> Rect {
    let (near, far) = if aft {
        (from - area.from, to - area.from)
    } else {
        (area.to - to, area.to - from)
    };
    let x = (1000.0 * near + 1e-6).floor() as i32;
    let y = (1000.0 * (port - area.port) + 1e-6).floor() as i32;
    Rect {
        x,
        y,
        length: up(far) - x,
        width: up(starboard - area.port) - y,
    }
}

/// Whole millimetres, rounded up (a hair over is not another millimetre).
pub(super) fn up(m: f64) -> i32 {
    (1000.0 * m - 1e-6).ceil() as i32
}

/// Whole millimetres, rounded down; bounded.
pub(super) fn down(m: f64) -> i32 {
    (1000.0 * m + 1e-6).floor().clamp(-1e9, 1e9) as i32
}
