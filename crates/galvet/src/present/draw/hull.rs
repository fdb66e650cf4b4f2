//! Profile and plan: a boat with someone in it, at true proportions.

use super::drive::drive;
use super::person::{Figure, figure};
use super::symbol::symbol;
use super::{around, coordinate, path};
use galvet_core::base::{Dimension, System};
use galvet_core::body::Lines;
use galvet_core::figures::Quantity;
use galvet_core::portrait::{Lid, Point, SideView, Thing};

/// A thing of the rig: a box and its name.
pub struct Box {
    /// Left edge.
    pub x: String,
    /// Upper edge.
    pub y: String,
    /// Width and height of the box.
    pub width: String,
    pub height: String,
    /// Of what leans in a holder, its line instead.
    pub line: Option<String>,
    /// Which symbol stands for it.
    pub symbol: &'static str,
    /// Whether its size is known: else it is drawn by its mass.
    pub known: bool,
    /// What it is.
    pub name: String,
}

/// Profile and plan at one scale, bow to the left.
pub struct Side {
    /// View box of the profile.
    pub profile_box: String,
    /// The hull, ends raked.
    pub hull: String,
    /// What of its edge is guessed.
    pub guessed: String,
    /// Recess floors.
    pub floors: Vec<String>,
    /// Water below its surface; empty where it does not float.
    pub water: String,
    /// The water's surface.
    pub waterline: String,
    /// Centre of mass.
    pub mass: (String, String),
    /// Centre of buoyancy.
    pub buoyancy: Option<(String, String)>,
    /// The seat.
    pub seat: String,
    /// Whoever is in it.
    pub person: Figure,
    /// The rig, from the side.
    pub things: Vec<Box>,
    /// Where rods are broken off for the picture.
    pub breaks: Vec<(String, String)>,
    /// Drive or motor below the hull, and the rudder; empty for none.
    pub drive: String,
    pub rudder: String,
    /// The rail along the side.
    pub rail: String,
    /// Lids of hatches.
    pub lids: Vec<LidMark>,
    /// Scuppers from above: place and half the hole.
    pub scuppers: Vec<[String; 3]>,
    /// View box of the plan, and its size.
    pub plan_box: String,
    pub plan_size: [f64; 2],
    /// The hull from above.
    pub plan: String,
    /// Its recess.
    pub recess: Option<String>,
    /// The rig, from above.
    pub plan_things: Vec<Box>,
    /// Whoever is in it, from above.
    pub plan_person: Figure,
    /// Ticks along the length.
    pub tape: Vec<(String, String)>,
    /// The whole in words.
    pub words: String,
}

/// A hatch's lid.
pub struct LidMark {
    /// From above.
    pub above: String,
    /// From the side, on the deck.
    pub aside: String,
    /// Whether nobody measured it.
    pub guessed: bool,
}

/// How far below the edge the rail is drawn, and how high lids stand on the deck, m.
const RAIL: f64 = 0.035;
const LID: f64 = 0.018;

fn lid_of(view: &SideView, lid: &Lid, plan: &Plan, at: impl Fn(Point) -> Point) -> LidMark {
    let ((from, to), (middle, width)) = (lid.ends, lid.across);
    let deck = |x: f64| {
        let sheer = &view.lines.sheer;
        let next = sheer.iter().find(|p| p.0 >= x).or(sheer.last());
        next.map_or(0.0, |p| p.1)
    };
    let half = 0.5 * width;
    let corners = [
        (from, middle - half),
        (to, middle - half),
        (to, middle + half),
        (from, middle + half),
    ];
    let corners = corners.map(|(x, y)| plan.at(x, y));
    let side = [
        (from, deck(from)),
        (from, deck(from) + LID),
        (to, deck(to) + LID),
        (to, deck(to)),
    ];
    LidMark {
        above: if lid.round {
            around(&corners)
        } else {
            path(corners, true)
        },
        aside: path(side.map(at), true),
        guessed: lid.guessed,
    }
}

/// Units a metre in the profile.
const SIDE_SCALE: f64 = 200.0;
const SIDE_MARGIN: f64 = 14.0;
/// Units left above the plan for the tape.
const TAPE_HEIGHT: f64 = 26.0;
/// How far stem and stern are drawn raked, shares of the length. The record
/// says nothing of it: dashed.
const RAKE: [f64; 2] = [0.055, 0.03];

/// Draws profile and plan.
#[must_use]
pub fn side(view: &SideView, system: System) -> Side {
    let width = view.length * SIDE_SCALE + 2.0 * SIDE_MARGIN;
    // Rods end in a break mark over everybody's head.
    let highest = view
        .things
        .iter()
        .filter(|t| !t.slender)
        .map(|t| t.base + t.size[2])
        .chain(view.lines.sheer.iter().map(|p| p.1))
        .fold(view.person.head.1 + view.person.head_radius, f64::max);
    let top = highest + 0.06;
    let below = view.drive.map_or(0.12, |d| d.depth.max(0.06) + 0.08);
    let height = (top + below) * SIDE_SCALE;
    let at = |(x, z): Point| (SIDE_MARGIN + x * SIDE_SCALE, (top - z) * SIDE_SCALE);
    let place = |p| {
        let (x, y) = at(p);
        (coordinate(x), coordinate(y))
    };
    let (outline, ends) = raked(&view.lines);
    let (surface, body) = water(view, at, height);
    let seat_half = 0.22;
    let plan = Plan::of(view);
    Side {
        profile_box: format!("0 0 {width:.0} {height:.0}"),
        hull: path(outline.iter().map(|&p| at(p)), true),
        guessed: if view.measured {
            String::new()
        } else {
            let parts = ends.iter();
            parts
                .map(|end| path(end.iter().map(|&p| at(p)), false))
                .collect()
        },
        floors: view
            .lines
            .floors
            .iter()
            .map(|run| path(run.iter().map(|&p| at(p)), false))
            .collect(),
        water: body,
        waterline: surface,
        mass: place(view.mass_centre),
        buoyancy: view.buoyancy.map(place),
        seat: path(
            [
                at((view.seat.0 - seat_half, view.seat.1)),
                at((view.seat.0 + 0.5 * seat_half, view.seat.1)),
                at((view.seat.0 + 0.8 * seat_half, view.seat.1 + 0.32)),
            ],
            false,
        ),
        person: figure(&view.person, at, SIDE_SCALE),
        things: view
            .things
            .iter()
            .map(|t| {
                let [length, _, height] = t.size;
                let foot = at((t.x, t.base));
                let cut = share_below(t, top - BREAK);
                let tip = at((t.x + cut * length, t.base + cut * height));
                let corner = at((t.x - 0.5 * length, t.base + height));
                boxed(t, corner, [length, height], [foot, tip])
            })
            .collect(),
        breaks: view
            .things
            .iter()
            .filter(|t| t.slender && share_below(t, top - BREAK) < 1.0)
            .map(|t| place((t.x + share_below(t, top - BREAK) * t.size[0], top - BREAK)))
            .collect(),
        drive: view.drive.map_or(String::new(), |hung| drive(hung, at)),
        rudder: if view.rudder {
            let (x, [hip, low]) = (view.length, [0.24, -0.10]);
            let blade = [
                (x - 0.02, hip),
                (x + 0.03, hip),
                (x + 0.05, low),
                (x - 0.07, low),
            ];
            around(&blade.map(at))
        } else {
            String::new()
        },
        rail: path(
            view.lines.sheer.iter().map(|&(x, z)| at((x, z - RAIL))),
            false,
        ),
        lids: view
            .lids
            .iter()
            .map(|lid| lid_of(view, lid, &plan, at))
            .collect(),
        scuppers: view
            .scuppers
            .iter()
            .map(|&[x, y, half]| {
                let (x, y) = plan.at(x, y);
                [x, y, half * SIDE_SCALE].map(coordinate)
            })
            .collect(),
        plan_box: format!("0 0 {width:.0} {:.0}", plan.height),
        plan_size: [width, plan.height],
        plan: plan.around(&view.lines.plan),
        recess: (!view.lines.recess.is_empty()).then(|| plan.around(&view.lines.recess)),
        plan_things: view
            .things
            .iter()
            .map(|t| {
                let [length, width, _] = t.size;
                let foot = plan.at(t.x, t.y);
                let tip = plan.at(t.x + length, t.y);
                let corner = plan.at(t.x - 0.5 * length, t.y - 0.5 * width);
                boxed(t, corner, [length, width], [foot, tip])
            })
            .collect(),
        plan_person: figure(&view.above, |(x, y)| plan.at(x, y), SIDE_SCALE),
        tape: tape(view, system),
        words: if view.water.is_some() {
            format!(
                "Seen from starboard, bow left, trim {}",
                Quantity::Trim.row().text(system, view.trim_deg),
            )
        } else {
            "Seen from starboard, bow left: it finds no rest in the water".to_owned()
        },
    }
}

/// Room left over a break mark, m.
const BREAK: f64 = 0.05;

/// How much of a leaning thing lies below a height: 1 where all of it does.
fn share_below(thing: &Thing, height: f64) -> f64 {
    let over = thing.size[2].max(1e-6);
    ((height - thing.base) / over).clamp(0.0, 1.0)
}

/// A thing as a box from its upper left corner, or as its line.
fn boxed(
    thing: &Thing,
    (x, y): (f64, f64),
    [width, height]: [f64; 2],
    line: [(f64, f64); 2],
) -> Box {
    Box {
        x: coordinate(x),
        y: coordinate(y),
        width: coordinate(width * SIDE_SCALE),
        height: coordinate(height * SIDE_SCALE),
        line: thing.slender.then(|| path(line, false)),
        symbol: symbol(&thing.item, None),
        known: thing.known,
        name: thing.item.clone(),
    }
}

/// The profile with stem and stern raked, and the two ends by themselves.
pub(super) fn raked(lines: &Lines) -> (Vec<Point>, [Vec<Point>; 2]) {
    let ends = lines.sheer.first().zip(lines.sheer.last());
    let (from, to) = ends.map_or((0.0, 0.0), |(bow, stern)| (bow.0, stern.0));
    let (stem, stern) = (RAKE[0] * (to - from), RAKE[1] * (to - from));
    let keel = |x: &f64| *x > from + stem && *x < to - stern;
    let bottom: Vec<Point> = lines.keel.iter().copied().filter(|p| keel(&p.0)).collect();
    let (Some(&bow), Some(&end)) = (lines.sheer.first(), lines.sheer.last()) else {
        return (Vec::new(), [Vec::new(), Vec::new()]);
    };
    let foot = |side: Option<&Point>, other: Point| side.copied().unwrap_or(other);
    // A quarter of an arc from gunwale to keel, bulging outward.
    let arc = |from: Point, to: Point| -> Vec<Point> {
        (0..=8)
            .map(|i| {
                let t = std::f64::consts::FRAC_PI_2 * f64::from(i) / 8.0;
                (
                    from.0 + (to.0 - from.0) * (1.0 - t.cos()),
                    from.1 + (to.1 - from.1) * t.sin(),
                )
            })
            .collect()
    };
    let bow_end = arc(bow, foot(bottom.first(), bow));
    let stern_end = arc(end, foot(bottom.last(), end));
    let mut outline = lines.sheer.clone();
    outline.extend(&stern_end);
    outline.extend(bottom.iter().rev());
    outline.extend(bow_end.iter().rev());
    (outline, [bow_end, stern_end])
}

/// The water's surface and what is under it, run on past both ends.
fn water(view: &SideView, at: impl Fn(Point) -> Point, height: f64) -> (String, String) {
    let Some((bow, stern)) = view.water else {
        return (String::new(), String::new());
    };
    let slope = (stern - bow) / view.length;
    let margin = SIDE_MARGIN / SIDE_SCALE;
    let left = at((-margin, bow - slope * margin));
    let right = at((view.length + margin, stern + slope * margin));
    let surface = path([left, right], false);
    let body = format!("{surface}V{height:.0}H0Z");
    (surface, body)
}

/// A tick each half metre or foot, a label each metre or each second foot: round in the
/// reader's units.
fn tape(view: &SideView, system: System) -> Vec<(String, String)> {
    let step = match system {
        System::Metric => 0.5,
        System::Imperial => 0.3048,
    };
    let ticks = (view.length / step).floor() as u32;
    (0..=ticks)
        .map(|i| {
            let x = f64::from(i) * step;
            let label = match system {
                _ if i % 2 == 1 => String::new(),
                System::Metric => system.text(Dimension::Length, x, 0),
                System::Imperial => format!("{i}\u{2032}"),
            };
            (coordinate(SIDE_MARGIN + x * SIDE_SCALE), label)
        })
        .collect()
}

/// The view from above: starboard is drawn below.
struct Plan {
    half: f64,
    height: f64,
}

impl Plan {
    fn of(view: &SideView) -> Self {
        // What hangs alongside is in the picture.
        let out = view.things.iter().map(|t| t.y.abs() + 0.5 * t.size[1]);
        let half = out.fold(0.5 * view.beam, f64::max) + 0.02;
        Self {
            half,
            height: TAPE_HEIGHT + 2.0 * half * SIDE_SCALE,
        }
    }

    fn at(&self, x: f64, y: f64) -> Point {
        let across = TAPE_HEIGHT + (self.half + y) * SIDE_SCALE;
        (SIDE_MARGIN + x * SIDE_SCALE, across)
    }

    fn around(&self, line: &[Point]) -> String {
        let far = line.iter().map(|&(x, y)| self.at(x, -y));
        let near = line.iter().rev().map(|&(x, y)| self.at(x, y));
        path(far.chain(near), true)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use galvet_core::portrait::Person;

    #[test]
    fn ends_are_raked_inside_the_length() {
        let line = |z: f64| {
            (0..=40)
                .map(|i| (0.1 * f64::from(i), z))
                .collect::<Vec<_>>()
        };
        let view = SideView {
            length: 4.0,
            beam: 0.8,
            lines: Lines {
                sheer: line(0.36),
                keel: line(0.0),
                plan: line(0.4),
                ..Lines::default()
            },
            measured: false,
            water: Some((0.1, 0.1)),
            trim_deg: 0.0,
            mass_centre: (2.0, 0.3),
            buoyancy: Some((2.0, 0.05)),
            person: Person {
                head: (2.0, 1.0),
                head_radius: 0.1,
                ..Person::default()
            },
            above: Person::default(),
            seat: (2.1, 0.2),
            floor: 0.1,
            things: Vec::new(),
            drive: None,
            rudder: false,
            lids: Vec::new(),
            scuppers: Vec::new(),
        };
        let (outline, [bow, stern]) = raked(&view.lines);
        assert!(outline.iter().all(|p| (0.0..=4.0).contains(&p.0)));
        // The stem starts at the gunwale's end and meets the keel further aft.
        assert_eq!(bow[0], (0.0, 0.36));
        assert!(bow[8].0 > 0.2 && bow[8].1.abs() < 1e-9);
        assert!(stern[8].0 < 3.95 && stern[0].0 == 4.0);
    }
}
