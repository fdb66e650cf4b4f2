//! A hull's section with someone in it, in its water, at true proportions.

use super::person::{Figure, figure};
use super::{coordinate, path};
use galvet_core::base::{Dimension, System};
use galvet_core::figures::Quantity;
use galvet_core::portrait::{Point, SectionView};

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
const HEIGHT: [f64; 2] = [0.62, 0.09];

/// Draws a section at `scale` units a metre; `full` shows the whole person and
/// adds the two centres.
#[must_use]
pub fn section(view: &SectionView, scale: f64, full: bool, system: System) -> Section {
    let head = view.person.head.1 + view.person.head_radius + 0.05;
    let above = if full { HEIGHT[0].max(head) } else { HEIGHT[0] };
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
    let (width, height) = (2.0 * half * scale, (above + HEIGHT[1]) * scale);
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
