//! A hull from above and from the side with what is on it, bow to the left: for
//! the walk, its fittings, its changes, the printed card.

use super::hull::raked;
use super::path;
use crate::survey::key_of;
use galvet_core::body::Lines;
use galvet_core::hull::{Fitting, FittingKind, Source, Zone, ZoneKind};

/// A zone as a rectangle.
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

/// A fitting from above.
pub struct FittingMark {
    /// Its middle.
    pub x: String,
    pub y: String,
    /// Its shape about its middle.
    pub path: String,
    /// The word of its kind.
    pub kind: &'static str,
    pub name: String,
    pub here: bool,
}

/// A hull with its zones and fittings.
pub struct HullPlan {
    pub view_box: String,
    /// The same with nothing but what is seen from above.
    pub above_box: String,
    pub hull: String,
    pub recess: String,
    pub zones: Vec<ZoneBox>,
    pub fittings: Vec<FittingMark>,
    /// From the side: the hull's outline, its floors, its zones.
    pub profile: String,
    pub floors: Vec<String>,
    pub profile_zones: Vec<ZoneBox>,
    /// Units a metre, place of the bow, of the centreline: for the script that
    /// turns a pointer's place into metres.
    pub scale: String,
    pub bow: String,
    pub middle: String,
    /// The same as numbers, for what is drawn upon it.
    pub frame: Frame,
}

/// Where a place on the hull comes to lie in the drawing.
#[derive(Debug, Clone, Copy, Default)]
pub struct Frame {
    half: f64,
    top: f64,
    profile_top: f64,
}

impl Frame {
    /// Seen from above: `x` from the bow, `y` to starboard, m.
    #[must_use]
    pub fn above(&self, x: f64, y: f64) -> (f64, f64) {
        (MARGIN + x * SCALE, MARGIN + (self.half + y) * SCALE)
    }

    /// Seen from the side: `x` from the bow, `z` above the baseline, m.
    #[must_use]
    pub fn aside(&self, x: f64, z: f64) -> (f64, f64) {
        (
            MARGIN + x * SCALE,
            self.profile_top + (self.top - z) * SCALE,
        )
    }
}

/// Units a metre, and left around.
pub(super) const SCALE: f64 = 200.0;
const MARGIN: f64 = 16.0;
/// Between the two views.
const GAP: f64 = 22.0;

/// Value of a line at a place, between its points.
fn at(line: &[(f64, f64)], x: f64) -> Option<f64> {
    let pair = line.windows(2).find(|p| p[0].0 <= x && x <= p[1].0)?;
    let [(x0, y0), (x1, y1)] = [pair[0], pair[1]];
    let share = if x1 > x0 { (x - x0) / (x1 - x0) } else { 0.0 };
    Some(y0 + share * (y1 - y0))
}

fn number(v: f64) -> String {
    super::coordinate(v)
}

/// Height of a zone's bottom and top above the baseline, m.
fn heights(zone: &Zone, lines: &Lines) -> (f64, f64) {
    let x = 0.5 * (zone.from + zone.to);
    let deck = at(&lines.sheer, x).unwrap_or(0.3);
    let recess = lines.floors.iter().find_map(|run| at(run, x));
    let below_deck = matches!(
        zone.kind,
        ZoneKind::BowHatch | ZoneKind::CentreHatch | ZoneKind::SternHatch | ZoneKind::UnderTheDeck
    );
    let height = zone.height.unwrap_or(0.06);
    let floor = zone.floor.unwrap_or(if below_deck {
        deck - height
    } else {
        recess.unwrap_or(deck)
    });
    (floor, floor + height)
}

/// A fitting's shape about its middle, in view-box units.
fn shape(fitting: &Fitting) -> String {
    let rect = |length: f64, width: f64| {
        let (l, w) = (0.5 * length * SCALE, 0.5 * width * SCALE);
        path([(-l, -w), (l, -w), (l, w), (-l, w)], true)
    };
    match fitting.kind {
        FittingKind::Track { length, .. } => rect(length, 0.022),
        FittingKind::Tube { length, diameter } => rect(length, diameter),
        FittingKind::Bungee { length, .. } => {
            let half = 0.5 * length * SCALE;
            let zig = (0..=8).map(|n| {
                let side = if n % 2 == 0 { -6.0 } else { 6.0 };
                (-half + f64::from(n) * half / 4.0, side)
            });
            path(zig, false)
        }
        FittingKind::Seat { .. } => rect(0.40, 0.42),
        FittingKind::FootBraces { .. } => path(
            [(0.0, -34.0), (0.0, -18.0), (0.0, 18.0), (0.0, 34.0)],
            false,
        ),
        FittingKind::TransducerRecess { length, width } => rect(length, width),
        FittingKind::Handle => rect(0.12, 0.03),
        FittingKind::AssistStrap => rect(0.30, 0.03),
        FittingKind::Bulkhead => rect(0.012, 0.40),
        FittingKind::Outriggers {
            length,
            diameter,
            reach,
            ..
        } => {
            let (l, r) = (0.5 * length * SCALE, 0.5 * diameter * SCALE);
            let y = reach * SCALE;
            let float = |y: f64| {
                [
                    (0.0, y),
                    (-l, y),
                    (-l, y - r),
                    (l, y - r),
                    (l, y + r),
                    (-l, y + r),
                    (-l, y),
                    (0.0, y),
                ]
            };
            path(float(-y).into_iter().chain(float(y)), false)
        }
        FittingKind::Plate => rect(0.18, 0.12),
        FittingKind::Insert => path([(0.0, -6.0), (6.0, 0.0), (0.0, 6.0), (-6.0, 0.0)], true),
        FittingKind::PadEye | FittingKind::DRing => {
            path([(-6.0, 5.0), (0.0, -6.0), (6.0, 5.0)], true)
        }
        FittingKind::RodHolder { .. }
        | FittingKind::CupHolder { .. }
        | FittingKind::Scupper { .. }
        | FittingKind::DrainPlug => {
            let radius = match fitting.kind {
                FittingKind::CupHolder { .. } => 9.0,
                FittingKind::RodHolder { .. } => 6.0,
                _ => 5.0,
            };
            let round = (0..12).map(|n| {
                let turn = f64::from(n) * std::f64::consts::TAU / 12.0;
                (radius * turn.cos(), radius * turn.sin())
            });
            path(round, true)
        }
    }
}

/// What is at hand: it stands out.
#[derive(Debug, Clone, Copy, Default)]
pub struct AtHand<'a> {
    /// A zone, by its place in the list.
    pub zone: Option<usize>,
    /// A fitting, by its name.
    pub fitting: Option<&'a str>,
    /// Height of the tallest thing to be drawn upon it, m above the baseline.
    pub tallest: f64,
    /// Units left for names on either side of the plan.
    pub room: f64,
}

/// Units left around what is seen from above, for what hangs over its sides.
const AROUND: f64 = 26.0;

/// Draws a hull's lines with its zones and fittings.
#[must_use]
pub fn hull_plan(
    lines: &Lines,
    zones: &[Zone],
    fittings: &[Fitting],
    at_hand: AtHand<'_>,
) -> HullPlan {
    let half = lines.plan.iter().map(|p| p.1).fold(0.0, f64::max);
    let bow = lines.plan.first().map_or(0.0, |p| p.0);
    let length = lines.plan.last().map_or(0.0, |p| p.0) - bow;
    let sheer = lines.sheer.iter().map(|p| p.1).fold(0.0, f64::max);
    let top = sheer.max(at_hand.tallest);
    let from_above = |(x, y): (f64, f64)| (MARGIN + (x - bow) * SCALE, MARGIN + (half + y) * SCALE);
    let profile_top = 2.0 * (half * SCALE + MARGIN) + GAP + at_hand.room;
    let from_aside =
        |(x, z): (f64, f64)| (MARGIN + (x - bow) * SCALE, profile_top + (top - z) * SCALE);
    let around = |line: &[(f64, f64)]| {
        if line.is_empty() {
            return String::new();
        }
        let far = line.iter().map(|&(x, y)| from_above((x, -y)));
        path(far.chain(line.iter().rev().map(|&p| from_above(p))), true)
    };
    let boxed = |n: usize, zone: &Zone, (x, y): (f64, f64), height: f64| ZoneBox {
        x: number(x),
        y: number(y),
        width: number((zone.to - zone.from) * SCALE),
        height: number(height),
        name: zone.name.clone(),
        measured: zone.source != Source::Guess,
        here: at_hand.zone == Some(n),
    };
    let plan_zone = |(n, zone): (usize, &Zone)| {
        let corner = from_above((bow + zone.from, zone.offset - 0.5 * zone.width));
        boxed(n, zone, corner, zone.width * SCALE)
    };
    let side_zone = |(n, zone): (usize, &Zone)| {
        let (floor, ceiling) = heights(zone, lines);
        let corner = from_aside((bow + zone.from, ceiling));
        boxed(n, zone, corner, (ceiling - floor) * SCALE)
    };
    let mark = |fitting: &Fitting| {
        let (x, y) = from_above((bow + fitting.x, fitting.y));
        FittingMark {
            x: number(x),
            y: number(y),
            path: shape(fitting),
            kind: key_of(&fitting.kind),
            name: fitting.name.clone(),
            here: at_hand.fitting == Some(fitting.name.as_str()),
        }
    };
    let outline = raked(lines).0.into_iter().map(from_aside);
    let run = |run: &Vec<(f64, f64)>| path(run.iter().map(|&p| from_aside(p)), false);
    HullPlan {
        above_box: format!(
            "0 {:.0} {:.0} {:.0}",
            -AROUND,
            length * SCALE + 2.0 * MARGIN,
            2.0 * (half * SCALE + MARGIN + AROUND),
        ),
        view_box: format!(
            "0 {:.0} {:.0} {:.0}",
            -at_hand.room,
            length * SCALE + 2.0 * MARGIN,
            profile_top + top * SCALE + MARGIN + at_hand.room
        ),
        hull: around(&lines.plan),
        recess: around(&lines.recess),
        zones: zones.iter().enumerate().map(plan_zone).collect(),
        fittings: fittings.iter().map(mark).collect(),
        profile: path(outline, true),
        floors: lines.floors.iter().map(run).collect(),
        profile_zones: zones.iter().enumerate().map(side_zone).collect(),
        scale: number(SCALE),
        bow: number(MARGIN),
        middle: number(MARGIN + half * SCALE),
        frame: Frame {
            half,
            top,
            profile_top,
        },
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use galvet_core::hull::zones;

    #[test]
    fn what_is_drawn_lies_where_it_was_measured() {
        let survey = &crate::demo_data::hull("fennick-dunmarrow").survey;
        let lines = Lines {
            sheer: vec![(0.0, 0.4), (3.7, 0.36)],
            keel: vec![(0.0, 0.0), (3.7, 0.0)],
            floors: vec![vec![(0.7, 0.13), (3.4, 0.17)]],
            plan: vec![(0.0, 0.0), (1.8, 0.45), (3.7, 0.1)],
            recess: vec![(0.7, 0.3), (3.4, 0.3)],
        };
        let all = zones(survey);
        let well = all.iter().position(|z| z.name == "tank well").unwrap();
        let at_hand = AtHand {
            zone: Some(well),
            fitting: Some("port fore track"),
            ..AtHand::default()
        };
        let drawn = hull_plan(&lines, &all, &survey.fitout.fittings, at_hand);
        let value = |text: &str| text.parse::<f64>().unwrap();
        let zone = &drawn.zones[well];
        assert!(zone.here && zone.measured);
        assert!((value(&zone.x) - (16.0 + 200.0 * all[well].from)).abs() < 0.06);
        assert!((value(&zone.width) - 200.0 * (all[well].to - all[well].from)).abs() < 0.06);
        let top = 16.0 + 200.0 * (0.45 - 0.5 * all[well].width);
        assert!((value(&zone.y) - top).abs() < 0.06);
        // From the side the well's floor is the recess's.
        let side = &drawn.profile_zones[well];
        let x = 0.5 * (all[well].from + all[well].to);
        let floor = 0.13 + (x - 0.7) / 2.7 * 0.04;
        let bottom = 2.0 * (0.45 * 200.0 + 16.0) + 22.0 + (0.4 - floor) * 200.0;
        assert!((value(&side.y) + value(&side.height) - bottom).abs() < 0.11);
        let track = drawn.fittings.iter().find(|f| f.here).unwrap();
        let real = survey.fitout.fittings.iter();
        let real = real.clone().find(|f| f.name == track.name).unwrap();
        assert!((value(&track.x) - (16.0 + 200.0 * real.x)).abs() < 0.06);
        assert!((value(&track.y) - (106.0 + 200.0 * real.y)).abs() < 0.06);
        assert_eq!(track.kind, "track");
    }
}
