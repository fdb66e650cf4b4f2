//! Section, profile and plan: a boat with someone in it, at true proportions.

use super::{coordinate, path};
use galvet_core::base::{Dimension, System};
use galvet_core::figures::Quantity;
use galvet_core::portrait::{Person, Point, SectionView, SideView, Thing};

/// A person in view-box units.
pub struct Figure {
    /// Paths of trunk and limbs, and how thick they are drawn.
    pub limbs: Vec<(String, String)>,
    /// Centre of the head.
    pub head: (String, String),
    /// Its radius.
    pub radius: String,
}

pub(super) fn figure(person: &Person, at: impl Fn(Point) -> Point, scale: f64) -> Figure {
    let head = at(person.head);
    Figure {
        limbs: person
            .limbs
            .iter()
            .map(|limb| {
                let line = path(limb.joints.iter().map(|&p| at(p)), false);
                (line, coordinate(limb.width * scale))
            })
            .collect(),
        head: (coordinate(head.0), coordinate(head.1)),
        radius: coordinate(person.head_radius * scale),
    }
}

/// A section with its water, in view-box units; true proportions.
pub struct Section {
    /// The view box.
    pub view_box: String,
    /// The hull.
    pub hull: String,
    /// Water below its surface; empty where it does not float so.
    pub water: String,
    /// The water's surface.
    pub waterline: String,
    /// How the hull and whoever is in it are turned.
    pub rotate: String,
    /// Whoever is in it.
    pub person: Figure,
    /// The seat; empty for one who stands.
    pub seat: String,
    /// Centre of mass.
    pub mass: (String, String),
    /// Centre of buoyancy.
    pub buoyancy: Option<(String, String)>,
    /// Whether the marks of the two centres are drawn.
    pub marks: bool,
    /// The whole in words.
    pub words: String,
}

/// Half a seat's width, m.
const SEAT_HALF: f64 = 0.22;
/// Half the width drawn around a section, m: the widest hull and some water.
const HALF_WIDTH: f64 = 0.56;
/// Height drawn above and below the baseline, m: a glyph shows the hull and
/// the lower body.
const ABOVE: f64 = 0.62;
const BELOW: f64 = 0.09;

/// Draws a section at `scale` units a metre; `full` shows the whole person and
/// adds the two centres.
#[must_use]
pub fn section(view: &SectionView, scale: f64, full: bool, system: System) -> Section {
    let head = view.person.head.1 + view.person.head_radius + 0.05;
    let above = if full { ABOVE.max(head) } else { ABOVE };
    let half = if full {
        HALF_WIDTH.max(0.38 * above)
    } else {
        HALF_WIDTH
    };
    Section {
        marks: full,
        ..section_within(view, scale, [half, above], system)
    }
}

/// Draws a section with the two centres in a frame of `half` its width and a height
/// `above` the baseline, m: several in one frame are at one scale.
#[must_use]
pub fn section_within(
    view: &SectionView,
    scale: f64,
    [half, above]: [f64; 2],
    system: System,
) -> Section {
    let (width, height) = (2.0 * half * scale, (above + BELOW) * scale);
    let at = |(y, z): Point| ((half + y) * scale, (above - z) * scale);
    let origin = at((0.0, 0.0));
    let place = |p| {
        let (x, y) = at(p);
        (coordinate(x), coordinate(y))
    };
    let level = view.water.map(|water| (above - water) * scale);
    Section {
        view_box: format!("0 0 {width:.0} {height:.0}"),
        hull: path(view.outline.iter().map(|&p| at(p)), true),
        water: level.map_or(String::new(), |l| {
            format!("M0 {l:.1}H{width:.0}V{height:.0}H0Z")
        }),
        waterline: level.map_or(String::new(), |l| format!("M0 {l:.1}H{width:.0}")),
        // Starboard is drawn to the right and goes down: clockwise on screen.
        rotate: format!(
            "rotate({:.1} {:.1} {:.1})",
            view.heel_deg, origin.0, origin.1
        ),
        person: figure(&view.person, at, scale),
        seat: view.seat.map_or(String::new(), |z| {
            let leg = |y: f64| path([at((y, view.floor)), at((y, z))], false);
            let top = path([at((-SEAT_HALF, z)), at((SEAT_HALF, z))], false);
            top + &leg(-0.8 * SEAT_HALF) + &leg(0.8 * SEAT_HALF)
        }),
        mass: place(view.mass_centre),
        buoyancy: view.buoyancy.map(place),
        marks: true,
        words: section_words(view, system),
    }
}

fn section_words(view: &SectionView, system: System) -> String {
    let fine = |m| system.text(Dimension::FineLength, m, 0);
    let (Some(water), Some(gz)) = (view.water, view.gz) else {
        return format!("at {:.0}° it finds no rest", view.heel_deg);
    };
    let dry = view.floor - water;
    if view.heel_deg > 0.0 {
        let arm = Quantity::RightingPeak.row().text(system, gz.abs());
        let way = if gz >= 0.0 { "back up" } else { "further over" };
        let feet = if view.seat.is_none() {
            ", the weight taken at the feet"
        } else {
            ""
        };
        format!(
            "heeled {:.0}°: it pushes {way} with a lever of {arm}{feet}",
            view.heel_deg
        )
    } else if dry >= 0.0 {
        format!("upright: floor {} above the water", fine(dry))
    } else {
        format!("upright: floor {} below the water", fine(-dry))
    }
}

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
    /// Drive or motor below the hull.
    pub drive: Option<String>,
    /// View box of the plan.
    pub plan_box: String,
    /// The hull from above.
    pub plan: String,
    /// Its recess.
    pub recess: Option<String>,
    /// The rig, from above.
    pub plan_things: Vec<Box>,
    /// Whoever is in it, from above: ellipse of the shoulders and the head.
    pub plan_person: (String, String, String, String, String),
    /// Ticks along the length.
    pub tape: Vec<(String, String)>,
    /// The whole in words.
    pub words: String,
}

/// Units a metre in the profile.
const SIDE_SCALE: f64 = 200.0;
const SIDE_MARGIN: f64 = 14.0;
/// Units left above the plan for the tape.
const TAPE_HEIGHT: f64 = 16.0;
/// How far stem and stern are drawn raked, share of the length. The record
/// says nothing of it: dashed.
const STEM_RAKE: f64 = 0.055;
const STERN_RAKE: f64 = 0.03;

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
    let below = view.drive.map_or(0.12, |d| d.1.max(0.06) + 0.08);
    let height = (top + below) * SIDE_SCALE;
    let at = |(x, z): Point| (SIDE_MARGIN + x * SIDE_SCALE, (top - z) * SIDE_SCALE);
    let place = |p| {
        let (x, y) = at(p);
        (coordinate(x), coordinate(y))
    };
    let (outline, ends) = raked(view);
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
        drive: view.drive.map(|(x, depth)| {
            path([at((x, 0.06)), at((x, -depth))], false)
                + &path([at((x - 0.09, -depth)), at((x + 0.09, -depth))], false)
        }),
        plan_box: format!("0 0 {width:.0} {:.0}", plan.height),
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
        plan_person: plan.person(view),
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
        known: thing.known,
        name: thing.item.clone(),
    }
}

/// The profile with stem and stern raked, and the two ends by themselves.
fn raked(view: &SideView) -> (Vec<Point>, [Vec<Point>; 2]) {
    let lines = &view.lines;
    let (stem, stern) = (STEM_RAKE * view.length, STERN_RAKE * view.length);
    let keel = |x: &f64| *x > stem && *x < view.length - stern;
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

/// Half a metre a tick, a label a metre.
fn tape(view: &SideView, system: System) -> Vec<(String, String)> {
    let half_metres = (view.length * 2.0).floor() as u32;
    (0..=half_metres)
        .map(|i| {
            let x = f64::from(i) * 0.5;
            let label = if i % 2 == 0 {
                system.text(Dimension::Length, x, 0)
            } else {
                String::new()
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
        let half = 0.5 * view.beam + 0.02;
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

    /// Centre, radii of the shoulders, radius of the head.
    fn person(&self, view: &SideView) -> (String, String, String, String, String) {
        let (x, y) = self.at(view.person.head.0, 0.0);
        let head = view.person.head_radius * SIDE_SCALE;
        let [x, y, deep, wide, head] = [x, y, 1.25 * head, 2.1 * head, head].map(coordinate);
        (x, y, deep, wide, head)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use galvet_core::body::Lines;

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
                limbs: Vec::new(),
                head: (2.0, 1.0),
                head_radius: 0.1,
            },
            seat: (2.1, 0.2),
            floor: 0.1,
            things: Vec::new(),
            drive: None,
        };
        let (outline, [bow, stern]) = raked(&view);
        assert!(outline.iter().all(|p| (0.0..=4.0).contains(&p.0)));
        // The stem starts at the gunwale's end and meets the keel further aft.
        assert_eq!(bow[0], (0.0, 0.36));
        assert!(bow[8].0 > 0.2 && bow[8].1.abs() < 1e-9);
        assert!(stern[8].0 < 3.95 && stern[0].0 == 4.0);
    }
}
