//! The plan with its zones, for the walk along a hull.

use super::path;
use galvet_core::body::Lines;
use galvet_core::hull::{Source, Zone};

/// A zone from above.
pub struct ZoneBox {
    pub x: String,
    pub y: String,
    pub width: String,
    pub height: String,
    pub name: String,
    /// Whether somebody measured it.
    pub measured: bool,
    /// Whether it is the one at hand.
    pub here: bool,
}

/// A hull from above with its zones.
pub struct ZonePlan {
    pub view_box: String,
    pub hull: String,
    pub recess: String,
    pub zones: Vec<ZoneBox>,
}

/// Units a metre, and left around.
const SCALE: f64 = 200.0;
const MARGIN: f64 = 8.0;

/// Draws a hull's lines and zones, bow to the left; the zone at `here` stands out.
#[must_use]
pub fn zone_plan(lines: &Lines, zones: &[Zone], here: Option<usize>) -> ZonePlan {
    let half = lines.plan.iter().map(|p| p.1).fold(0.0, f64::max);
    let length = lines.plan.last().map_or(0.0, |p| p.0);
    let at = |(x, y): (f64, f64)| (MARGIN + x * SCALE, MARGIN + (half + y) * SCALE);
    let around = |line: &[(f64, f64)]| {
        if line.is_empty() {
            return String::new();
        }
        let far = line.iter().map(|&(x, y)| at((x, -y)));
        path(far.chain(line.iter().rev().map(|&p| at(p))), true)
    };
    let number = |v: f64| format!("{v:.1}");
    let boxed = |(n, zone): (usize, &Zone)| {
        let (x, y) = at((zone.from, zone.offset - 0.5 * zone.width));
        ZoneBox {
            x: number(x),
            y: number(y),
            width: number((zone.to - zone.from) * SCALE),
            height: number(zone.width * SCALE),
            name: zone.name.clone(),
            measured: zone.source != Source::Guess,
            here: here == Some(n),
        }
    };
    ZonePlan {
        view_box: format!(
            "0 0 {:.0} {:.0}",
            length * SCALE + 2.0 * MARGIN,
            2.0 * half * SCALE + 2.0 * MARGIN
        ),
        hull: around(&lines.plan),
        recess: around(&lines.recess),
        zones: zones.iter().enumerate().map(boxed).collect(),
    }
}
