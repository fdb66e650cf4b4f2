//! Help with the trim: what moved, or the seat slid, lets a hull lie level; and a layout
//! without a hole.

use crate::body::Shape;
use crate::figures::{Afloat, Quantity, Setup, Wish};
use crate::float::Accuracy;
use crate::gear::Fixing;
use crate::guide::Guide;
use crate::hull::{FittingKind, Pin};
use crate::stow::Layout;
use std::sync::Arc;

/// A seat moved for the trim.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SeatMove {
    /// Aft, m (forward below zero).
    pub by: f64,
    /// Trim then, °.
    pub trim: f64,
}

/// A layout nearer to level than the one there is, as pins of what moves.
#[must_use]
pub fn better_trim(setup: &Setup, shape: &Shape, pins: &[Pin]) -> Option<(Vec<Pin>, f64)> {
    let guides = setup.guides();
    let (level, worth) = (guides[Guide::BestTrim], guides[Guide::TrimWorth]);
    let wish = Wish {
        // Some play, so that there is something to be found.
        band: (level - 5.0 / 3.0 * worth, level + 5.0 / 3.0 * worth),
        ..Wish::default()
    };
    let other = laid_anew(setup, pins, wish);
    let (trim, then) = (trim_of(setup, shape)?, trim_of(&other, shape)?);
    let off = |trim: f64| (trim - level).abs();
    (off(then) < off(trim) - worth).then(|| (moved(setup, &other), then))
}

fn trim_of(setup: &Setup, shape: &Shape) -> Option<f64> {
    let drawn = [*shape];
    let [(figures, _)] = Afloat::new(setup, &drawn, Accuracy::FINE).figures();
    figures.get(Quantity::Trim)
}

fn laid_anew(setup: &Setup, pins: &[Pin], wish: Wish) -> Setup {
    Setup::wished(setup.posterior.clone(), setup.brief.clone(), pins, wish)
}

/// The layout without a hole, and pins of what moves for it.
#[must_use]
pub fn without_holes(setup: &Setup, pins: &[Pin]) -> (Vec<Pin>, Arc<Layout>) {
    let wish = Wish {
        drills: false,
        ..Wish::default()
    };
    let other = laid_anew(setup, pins, wish);
    (moved(setup, &other), other.loads.layout)
}

/// Pins of what lies elsewhere in another layout.
fn moved(setup: &Setup, other: &Setup) -> Vec<Pin> {
    let mut pins = all_pins(other);
    let before = all_pins(setup);
    pins.retain(|pin| !before.contains(pin));
    pins
}

/// Where everything lies, as pins.
#[must_use]
pub fn all_pins(setup: &Setup) -> Vec<Pin> {
    let bow = setup.posterior.form.bow();
    let layout = &setup.loads.layout;
    let mut pins: Vec<Pin> = Vec::new();
    for stowed in &layout.stowed {
        let thing = setup
            .brief
            .rig
            .lines
            .get(stowed.line)
            .and_then(|l| l.thing.as_ref());
        let (Some(lies), Some(thing)) = (&stowed.lies, thing) else {
            continue;
        };
        if lies.within.is_some() {
            continue;
        }
        let nth = pins.iter().filter(|p| p.thing == thing.key).count() as u32;
        let turned = thing
            .size
            .is_some_and(|s| (lies.size[0] - s[0]).abs() > 1e-3);
        pins.push(Pin {
            thing: thing.key.clone(),
            nth,
            place: lies.zone.clone(),
            x: stowed.x - bow,
            y: stowed.y,
            turned: turned && lies.fixing != Fixing::Holder,
        });
    }
    pins
}

/// The seat moved within its slide so that the hull lies level.
#[must_use]
pub fn seat_move(setup: &Setup, trim: f64) -> Option<SeatMove> {
    let survey = &setup.posterior.survey;
    let slide = survey
        .fitout
        .fittings_now()
        .iter()
        .find_map(|f| match f.kind {
            FittingKind::Seat { slide, .. } if slide > 0.0 => Some(slide),
            _ => None,
        })?;
    let balance = setup.balance()?;
    let per_metre = setup.loads.crew_mass() / balance.per_degree;
    let guides = setup.guides();
    // A hair bow up is best; no further than half the slide either way.
    let by = ((guides[Guide::BestTrim] - trim) / per_metre).clamp(-0.5 * slide, 0.5 * slide);
    let by = (by * 100.0).round() / 100.0;
    let trim_then = trim + by * per_metre;
    ((trim_then - trim).abs() >= guides[Guide::TrimWorth]).then_some(SeatMove {
        by,
        trim: trim_then,
    })
}
