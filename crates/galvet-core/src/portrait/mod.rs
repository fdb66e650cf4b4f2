//! What the drawings show: outlines, people, kit, water and centres of a hull
//! under a brief.
//!
//! Geometry only, in metres and in the hull's frame; how it is drawn is the
//! application's affair. Glyph, card and full size come from here alike.

mod painter;
mod person;

use painter::Painter;
pub use person::{
    Limb, Person, Point, Stick, from_above, from_ahead, seated, seated_hip, standing,
};

use crate::body::{AddedFloats, Lines};
use crate::figures::{Assessment, Quantity};
use crate::gear::Fixing;
use crate::guide::Guide;
use crate::hull::{Opening, Propulsion, Source, Survey, ZoneKind, zones};
use crate::load::Carriage;
use crate::stow::Stowed;

/// A section with the water across it.
#[derive(Debug, Clone, PartialEq)]
pub struct SectionView {
    /// Closed outline, starboard side round to port, (y, z).
    pub outline: Vec<Point>,
    /// Heel, degrees, starboard down.
    pub heel_deg: f64,
    /// Height of the water above the baseline along the heeled vertical, m;
    /// `None` where it does not float so.
    pub water: Option<f64>,
    /// Centre of mass of everything afloat (y, z).
    pub mass_centre: Point,
    /// Centre of buoyancy (y, z), where it floats.
    pub buoyancy: Option<Point>,
    /// Righting arm at this heel, m, where it floats.
    pub gz: Option<f64>,
    /// Height the feet stand on, m.
    pub floor: f64,
    /// Whoever is in it, seen from ahead.
    pub person: Person,
    /// Height of the seat's surface, m; `None` for one who stands: the lever is
    /// then that of the weight taken at the feet.
    pub seat: Option<f64>,
}

/// One thing of the rig at its place.
#[derive(Debug, Clone, PartialEq)]
pub struct Thing {
    /// What it is.
    pub item: String,
    /// Centre from the bow, m.
    pub x: f64,
    /// Centre to starboard, m.
    pub y: f64,
    /// Centre above the baseline, m.
    pub z: f64,
    /// Length along, width and height as it lies, m; of what nobody measured, a
    /// cube of its mass.
    pub size: [f64; 3],
    /// What it stands on, above the baseline, m.
    pub base: f64,
    /// A rod, a net: leaning aft in a holder, not a box.
    pub slender: bool,
    /// Whether its size is known.
    pub known: bool,
}

impl Thing {
    fn of(stowed: &Stowed, bow: f64, floor: f64) -> Self {
        let z = floor + stowed.above_floor;
        let cube = (stowed.loaded_mass / KIT_DENSITY).cbrt();
        let lies = stowed.lies.as_ref();
        Self {
            item: stowed.item.clone(),
            x: stowed.x - bow,
            y: stowed.y,
            z,
            size: lies.map_or([cube; 3], |l| l.size),
            base: lies.map_or(z - 0.5 * cube, |l| floor + l.base),
            slender: lies.is_some_and(|l| l.fixing == Fixing::Holder),
            known: lies.is_some(),
        }
    }
}

/// Both floats of a pair, and the arm across.
fn floats(pair: &AddedFloats<1>, bow: f64) -> [Thing; 3] {
    /// Length along and height of an arm, m.
    const ARM: [f64; 2] = [0.05, 0.03];
    let [from, to] = pair.along;
    let (z, radius) = (pair.z.0[0], pair.radius);
    let thing = |y: f64, size: [f64; 3], base: f64| Thing {
        item: "float on an arm".to_owned(),
        x: 0.5 * (from + to) - bow,
        y,
        z: base + 0.5 * size[2],
        size,
        base,
        slender: false,
        known: true,
    };
    let float = |y| thing(y, [to - from, 2.0 * radius, 2.0 * radius], z - radius);
    let arm = thing(0.0, [ARM[0], 2.0 * pair.y, ARM[1]], z + radius);
    [arm, float(-pair.y), float(pair.y)]
}

/// A hull seen from starboard and from above, at rest.
#[derive(Debug, Clone, PartialEq)]
pub struct SideView {
    /// Length, m.
    pub length: f64,
    /// Greatest beam, m.
    pub beam: f64,
    /// Lines along the hull.
    pub lines: Lines,
    /// Whether they were measured.
    pub measured: bool,
    /// Height of the water at bow and stern, m, where it floats.
    pub water: Option<(f64, f64)>,
    /// Trim, degrees, bow up positive.
    pub trim_deg: f64,
    /// Centre of mass (x, z).
    pub mass_centre: Point,
    /// Centre of buoyancy (x, z), where it floats.
    pub buoyancy: Option<Point>,
    /// Whoever is in it, from the side and from above.
    pub person: Person,
    /// The same from above (x, y).
    pub above: Person,
    /// Place of the seat (x, height of its surface).
    pub seat: Point,
    /// Height of the floor, m.
    pub floor: f64,
    /// The rig.
    pub things: Vec<Thing>,
    /// Drive or motor below the hull.
    pub drive: Option<Hung>,
    /// Whether a rudder or skeg is fitted.
    pub rudder: bool,
    /// Lids of hatches.
    pub lids: Vec<Lid>,
    /// Scuppers: place along and to starboard, and half the width of the hole, m.
    pub scuppers: Vec<[f64; 3]>,
}

/// What hangs below the hull and drives it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Hung {
    /// Place from the bow, m.
    pub x: f64,
    /// How far it reaches below the baseline, m.
    pub depth: f64,
    /// What it is.
    pub kind: Propulsion,
}

/// The lid of a hatch.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Lid {
    /// Its ends from the bow, m.
    pub ends: (f64, f64),
    /// Its middle to starboard, and its width, m.
    pub across: (f64, f64),
    /// Whether it is round.
    pub round: bool,
    /// Whether nobody measured it.
    pub guessed: bool,
}

/// The lids of a hull's hatches, as recorded or guessed.
fn lids(survey: &Survey) -> Vec<Lid> {
    let hatch = |kind| {
        matches!(
            kind,
            ZoneKind::BowHatch | ZoneKind::CentreHatch | ZoneKind::SternHatch
        )
    };
    let all = zones(survey).into_iter().filter(|z| hatch(z.kind));
    all.map(|zone| {
        let middle = 0.5 * (zone.from + zone.to);
        let (length, width, round) = match zone.opening {
            Some(Opening::Round(across)) => (across, across, true),
            Some(Opening::Rectangle(length, width)) => (length, width, false),
            None => (zone.to - zone.from, zone.width, false),
        };
        Lid {
            ends: (middle - 0.5 * length, middle + 0.5 * length),
            across: (zone.offset, width),
            round,
            guessed: zone.source == Source::Guess,
        }
    })
    .collect()
}

/// Righting arms against heel in degrees, seated. Each curve stops where what
/// it is about stops.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Curves {
    /// On the body as its scuppers leave it open, up to water running in.
    pub lasting: Vec<Point>,
    /// On the sealed body, where that differs, up to water running in.
    pub brief: Vec<Point>,
    /// Full of water, from there on.
    pub full: Vec<Point>,
    /// Heel at which water runs in, degrees.
    pub fills_at: Option<f64>,
}

/// Everything drawn of a hull: the middle shape under the brief.
#[derive(Debug, Clone, PartialEq)]
pub struct Portrait {
    /// From the side and above.
    pub side: SideView,
    /// Sections at the angler's place: upright, then heeled.
    pub sections: Vec<SectionView>,
    /// Righting arms.
    pub curves: Curves,
}

/// Heel of the second section drawn, degrees.
const SHOWN_HEEL_DEG: f64 = 10.0;
/// Density kit is drawn with, kg/m³: that of a packed crate.
const KIT_DENSITY: f64 = 250.0;
/// Where a drive hangs, shares of the length. Guide values.
const PEDAL_PLACE: f64 = 0.40;
const MOTOR_PLACE: f64 = 0.97;

/// The section at the angler's place, upright: the glyph of a row.
#[must_use]
pub fn glyph(assessment: &Assessment) -> SectionView {
    let shapes = [assessment.middle];
    Painter::of(assessment, &shapes).section(0.0)
}

/// The whole portrait, for a hull's own page.
#[must_use]
pub fn portrait(assessment: &Assessment) -> Portrait {
    let shapes = [assessment.middle];
    let painter = Painter::of(assessment, &shapes);
    Portrait {
        side: painter.side(),
        sections: vec![painter.section(0.0), painter.section(SHOWN_HEEL_DEG)],
        curves: painter.curves(),
    }
}

/// The section as somebody seated leans out to land a fish, a brief lean: at the heel
/// that the figure [`Quantity::ReachHeel`] tells, at the hour at which that is worst.
/// `None` where most plausible shapes do not hold it.
#[must_use]
pub fn landing(assessment: &Assessment) -> Option<SectionView> {
    let heel_deg = assessment.median(Quantity::ReachHeel)?;
    let setup = assessment.setup_at(Quantity::ReachHeel);
    let shapes = [assessment.middle];
    let painter = Painter::so(&setup, assessment.middle, &shapes, Carriage::Seated);
    let heel = heel_deg.to_radians();
    let settled = painter.afloat.settle_briefly(&painter.case, heel);
    let mut view = painter.seen(heel_deg, &settled);
    let hip = person::seated_hip(painter.surface(), setup.loads.crew().stature());
    let lean = setup.guides()[Guide::ReachLean].to_radians();
    view.person = view.person.leaned((0.0, hip), lean);
    // All that is aboard, with what leans out: over the middle of the water pushed aside.
    view.mass_centre.0 += setup.landing_moment() / painter.case.weight.mass.0[0];
    Some(view)
}
