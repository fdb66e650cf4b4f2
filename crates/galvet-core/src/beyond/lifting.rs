//! Lifting, dragging and carting an assessed hull.

use crate::base::Lanes;
use crate::body::Shape;
use crate::figures::{Assessment, Setup};
use crate::guide::Guide;
use crate::handling::{Ground, Mass, one_end};
use crate::hull::FittingKind;
use crate::question::Launch;

/// What it takes to move one shape ashore.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Lifting {
    /// Heaviest single thing with everything off, kg.
    pub heaviest: f64,
    /// To lift the heavier end of the bare hull, N.
    pub one_end: f64,
    /// At the bow handle, on a cart with its kit, N; `None` where it is carried.
    pub cart: Option<f64>,
    /// To drag the fitted hull, N; `None` where it is carried.
    pub drag: Option<f64>,
    /// The bare hull.
    pub bare: Mass,
    /// Seat, drive and rudder on it, kg.
    pub kit: f64,
    /// The fitted hull with all its kit.
    pub loaded: Mass,
    /// Handles nearest the ends, m from the bow.
    pub handles: [f64; 2],
}

/// Handles nearest the ends, m from the bow: those on record, or a fiftieth of the length
/// off either end.
fn handles(setup: &Setup) -> [f64; 2] {
    let form = &setup.posterior.form;
    let (bow, length) = (form.bow(), form.length());
    let fittings = setup.posterior.survey.fitout.fittings_now();
    let found = fittings.iter().filter(|f| f.kind == FittingKind::Handle);
    let places: Vec<f64> = found.map(|f| f.x - bow).collect();
    let near = |x: &&f64| **x < 0.25 * length;
    let far = |x: &&f64| **x > 0.75 * length;
    let fore = places.iter().filter(near).copied().reduce(f64::min);
    let aft = places.iter().filter(far).copied().reduce(f64::max);
    [fore.unwrap_or(0.02 * length), aft.unwrap_or(0.98 * length)]
}

/// What one shape takes, up from a launch.
#[must_use]
pub fn lifting(assessment: &Assessment, shape: &Shape, launch: Launch) -> Lifting {
    let setup = &assessment.setup;
    let (guides, form) = (setup.guides(), &setup.posterior.form);
    let (bow, length) = (form.bow(), form.length());
    let fitted = setup.loads.hull::<1>(Lanes::splat(shape.hull_mass));
    let hull = Mass {
        mass: fitted.mass.0[0],
        x: fitted.x.0[0] - bow,
    };
    let bare = Mass {
        mass: (hull.mass - shape.kit_mass).max(0.0),
        ..hull
    };
    let stowed = &setup.loads.layout.stowed;
    let kit = stowed.iter().map(|s| Mass {
        mass: s.dry_mass,
        x: s.x - bow,
    });
    let things = kit.clone().map(|m| m.mass);
    let [fore, aft] = handles(setup);
    let ground = Ground::of(launch, guides);
    let loaded = Mass::together(kit.chain([hull]));
    Lifting {
        heaviest: things.fold(bare.mass, f64::max),
        one_end: one_end(bare, length, [fore, aft]),
        cart: ground.map(|g| g.cart(loaded, length, fore, guides[Guide::CartHeight])),
        drag: ground.map(|g| g.drag(hull.mass)),
        bare,
        kit: hull.mass - bare.mass,
        loaded,
        handles: [fore, aft],
    }
}
