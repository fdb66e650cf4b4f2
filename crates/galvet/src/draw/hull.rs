//! Section, profile and plan.

use super::{coordinate, path};
use galvet_core::portrait::{SectionView, SideView};
use galvet_core::quantity::Quantity;
use galvet_core::units::{Dimension, System};

/// A section with its water, in view-box units; true proportions.
pub(crate) struct Section {
    pub(crate) view_box: String,
    pub(crate) hull: String,
    pub(crate) water: String,
    pub(crate) waterline: String,
    pub(crate) rotate: String,
    pub(crate) mass: (String, String),
    pub(crate) buoyancy: (String, String),
    /// Whether the marks of the two centres are drawn.
    pub(crate) marks: bool,
    pub(crate) words: String,
}

/// Half the width drawn around a section, m: the widest hull and some water.
const HALF_WIDTH: f64 = 0.56;
/// Height drawn above and below the baseline, m.
const ABOVE: f64 = 0.50;
const BELOW: f64 = 0.09;

/// Draws a section at `scale` units a metre; `marks` adds the two centres, and
/// as much height as they need.
pub(crate) fn section(view: &SectionView, scale: f64, marks: bool, system: System) -> Section {
    let above = if marks {
        ABOVE.max(view.mass_centre.1 + 0.08)
    } else {
        ABOVE
    };
    let (width, height) = (2.0 * HALF_WIDTH * scale, (above + BELOW) * scale);
    let at = |(y, z): (f64, f64)| ((HALF_WIDTH + y) * scale, (above - z) * scale);
    let origin = at((0.0, 0.0));
    let level = (above - view.water) * scale;
    let place = |p| {
        let (x, y) = at(p);
        (coordinate(x), coordinate(y))
    };
    let fine = |m| system.text(Dimension::FineLength, m, 0);
    let dry = view.floor - view.water;
    let state = if view.heel_deg > 0.0 {
        let arm = Quantity::RightingPeak.row().text(system, view.gz.abs());
        let way = if view.gz >= 0.0 {
            "back up"
        } else {
            "further over"
        };
        format!(
            "heeled {:.0}°: it pushes {way} with a lever of {arm}",
            view.heel_deg
        )
    } else if dry >= 0.0 {
        format!("upright: floor {} above the water", fine(dry))
    } else {
        format!("upright: floor {} below the water", fine(-dry))
    };
    Section {
        view_box: format!("0 0 {width:.0} {height:.0}"),
        hull: path(view.outline.iter().map(|&p| at(p)), true),
        water: format!("M0 {level:.1}H{width:.0}V{height:.0}H0Z"),
        waterline: format!("M0 {level:.1}H{width:.0}"),
        // Starboard is drawn to the right and goes down: clockwise on screen.
        rotate: format!(
            "rotate({:.1} {:.1} {:.1})",
            view.heel_deg, origin.0, origin.1
        ),
        mass: place(view.mass_centre),
        buoyancy: place(view.buoyancy),
        marks,
        words: state,
    }
}

/// Profile and plan at one scale, bow to the left.
pub(crate) struct Side {
    pub(crate) profile_box: String,
    pub(crate) hull: String,
    pub(crate) floors: Vec<String>,
    pub(crate) water: String,
    pub(crate) waterline: String,
    pub(crate) mass: (String, String),
    pub(crate) buoyancy: (String, String),
    pub(crate) seat: (String, String),
    pub(crate) plan_box: String,
    pub(crate) plan: String,
    pub(crate) recess: Option<String>,
    pub(crate) tape: Vec<(String, String)>,
    pub(crate) words: String,
}

/// Units a metre in the profile.
const SIDE_SCALE: f64 = 200.0;
const SIDE_MARGIN: f64 = 14.0;
/// Units left above the plan for the tape.
const TAPE_HEIGHT: f64 = 16.0;

/// Draws profile and plan.
pub(crate) fn side(view: &SideView, system: System) -> Side {
    let width = view.length * SIDE_SCALE + 2.0 * SIDE_MARGIN;
    let top = view
        .lines
        .sheer
        .iter()
        .map(|p| p.1)
        .fold(view.mass_centre.1 + 0.06, f64::max)
        .max(view.crew.1 + 0.06);
    let height = (top + 0.12) * SIDE_SCALE;
    let at = |(x, z): (f64, f64)| (SIDE_MARGIN + x * SIDE_SCALE, (top - z) * SIDE_SCALE);
    let place = |p| {
        let (x, y) = at(p);
        (coordinate(x), coordinate(y))
    };
    // Water runs on past both ends at the same slope.
    let slope = (view.water.1 - view.water.0) / view.length;
    let margin = SIDE_MARGIN / SIDE_SCALE;
    let left = at((-margin, view.water.0 - slope * margin));
    let right = at((view.length + margin, view.water.1 + slope * margin));
    let outline = view
        .lines
        .sheer
        .iter()
        .chain(view.lines.keel.iter().rev())
        .map(|&p| at(p));
    let half = 0.5 * view.beam + 0.02;
    let plan_at = |x: f64, y: f64| {
        let across = TAPE_HEIGHT + (half + y) * SIDE_SCALE;
        (SIDE_MARGIN + x * SIDE_SCALE, across)
    };
    let around = |line: &[(f64, f64)]| {
        let far = line.iter().map(|&(x, y)| plan_at(x, -y));
        let near = line.iter().rev().map(|&(x, y)| plan_at(x, y));
        path(far.chain(near), true)
    };
    let half_metres = (view.length * 2.0).floor() as u32;
    Side {
        profile_box: format!("0 0 {width:.0} {height:.0}"),
        hull: path(outline, true),
        floors: view
            .lines
            .floors
            .iter()
            .map(|run| path(run.iter().map(|&p| at(p)), false))
            .collect(),
        water: format!("{}V{height:.0}H0Z", path([left, right], false)),
        waterline: path([left, right], false),
        mass: place(view.mass_centre),
        buoyancy: place(view.buoyancy),
        seat: place(view.crew),
        plan_box: format!(
            "0 0 {width:.0} {:.0}",
            TAPE_HEIGHT + 2.0 * half * SIDE_SCALE
        ),
        plan: around(&view.lines.plan),
        recess: (!view.lines.recess.is_empty()).then(|| around(&view.lines.recess)),
        tape: (0..=half_metres)
            .map(|i| {
                let x = f64::from(i) * 0.5;
                let label = if i % 2 == 0 {
                    system.text(Dimension::Length, x, 0)
                } else {
                    String::new()
                };
                (coordinate(at((x, 0.0)).0), label)
            })
            .collect(),
        words: format!(
            "Seen from starboard, bow left, trim {}",
            Quantity::Trim.row().text(system, view.trim_deg),
        ),
    }
}
