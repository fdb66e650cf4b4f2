//! Water coming in litre by litre, and a cockpit full of it: one shape watched closely.

use super::loose::{Leaking, Loose, Loosened, Swamped, Wetted};
use super::room::Shut;
use crate::body::{Body, Outline, Shape};
use crate::draining::Space;
use crate::figures::{Afloat, Setup};
use crate::float::{Accuracy, Weight};
use crate::hull::{Construction, Flooded};
use crate::load::Carriage;

/// Steps of water looked at, m³, and how many.
const STEP: f64 = 0.005;
const STEPS: u32 = 8;

/// How a shape lies with 0 to 40 l loose inside; ends where it does not hold any more.
#[must_use]
pub fn leaking(setup: &Setup, shape: &Shape) -> Vec<Leaking> {
    let crew = setup.loads.crew_mass();
    watch(setup, shape, |loose| {
        let all = (0..=STEPS).map_while(|n| loose.leaking(STEP * f64::from(n), crew));
        Some(all.collect())
    })
    .unwrap_or_default()
}

/// A hull one sits in with its cockpit full to the rim: `None` where it goes down before,
/// or does not rest at all.
#[must_use]
pub fn swamped(setup: &Setup, shape: &Shape) -> Option<Swamped> {
    watch(setup, shape, |loose| loose.swamped())
}

/// The section of a shape with so much water loose inside, m³, held at `heel` rad; `None`
/// where it does not hold, or none of the water is amidships.
#[must_use]
pub fn wetted_section(setup: &Setup, shape: &Shape, water: f64, heel: f64) -> Option<Wetted> {
    watch(setup, shape, |loose| loose.section(water, heel))
}

/// What loose water costs one shape where so much is shut out; `None` where it does not
/// rest.
#[must_use]
pub fn loosened(setup: &Setup, shape: &Shape, shut: impl FnOnce(Shut) -> Shut) -> Option<Loosened> {
    watch_shut(setup, shape, shut, |loose| loose.limits())
}

/// Does something with one shape into which water comes.
fn watch<T>(setup: &Setup, shape: &Shape, act: impl FnOnce(&Loose<'_>) -> Option<T>) -> Option<T> {
    watch_shut(setup, shape, |shut| shut, act)
}

/// The same with more or less of it shut out.
fn watch_shut<T>(
    setup: &Setup,
    shape: &Shape,
    shut: impl FnOnce(Shut) -> Shut,
    act: impl FnOnce(&Loose<'_>) -> Option<T>,
) -> Option<T> {
    let shapes = [*shape];
    let afloat = Afloat::new(setup, &shapes, Accuracy::SAMPLE);
    let case = afloat.case(Carriage::Seated);
    if !case.upright.rests(0) {
        return None;
    }
    let body: &Body<1> = &afloat.body;
    let load = (case.weight, setup.brief.water.density);
    with_loose(setup, (body, load), &shut(Shut::of(setup, body)), act)
}

/// Does something with a hull into which water comes where it is not shut out: below the
/// floor of one with a recess, in the whole of one that one sits in.
pub(super) fn with_loose<T>(
    setup: &Setup,
    (body, load): (&Body<1>, (Weight<1>, f64)),
    shut: &Shut,
    act: impl FnOnce(&Loose<'_>) -> Option<T>,
) -> Option<T> {
    let sit_inside = setup.posterior.survey.construction == Construction::SitInside;
    let board = setup.posterior.survey.construction == Construction::Board;
    let (open, solid) = (body.outline(setup.open), body.outline(Flooded::ALL));
    let (displaces, inside): (&Outline<1>, &Outline<1>) = if sit_inside {
        (&body.sealed, &body.sealed)
    } else {
        (&open, &solid)
    };
    let room = shut.room(body, inside);
    let within = Space {
        within: &room,
        without: None,
    };
    let floor = !sit_inside && (board || setup.open.cockpit);
    act(&Loose::new((body, displaces), within, load, floor))
}
