//! The bow in chop: what it has to lift itself with, and how high it stands.

use crate::body::Shape;
use crate::figures::{Afloat, Setup};
use crate::float::Accuracy;
use crate::load::Carriage;

/// A bow over the water.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Bow {
    /// Volume in the foremost sixth between water and gunwale, m³.
    pub volume: f64,
    /// Height of the gunwale at the bow's end over the water, m.
    pub freeboard: f64,
}

/// Share of the length that counts as the bow.
const FOREMOST: f64 = 1.0 / 6.0;

/// The bow of one shape, seated; `None` where it does not rest.
#[must_use]
pub fn bow(setup: &Setup, shape: Shape) -> Option<Bow> {
    /// Sections and heights it is cut into.
    const STEPS: u32 = 12;
    let shapes = [shape];
    let afloat = Afloat::new(setup, &shapes, Accuracy::SAMPLE);
    let case = afloat.case(Carriage::Seated);
    if !case.upright.rests(0) {
        return None;
    }
    let form = &setup.posterior.form;
    let (length, middle) = (form.length(), afloat.body.middle());
    let water = |share: f64| {
        let x = form.bow() + share * length;
        case.upright.attitude.water_at(x, middle).0[0]
    };
    let area = |share: f64| {
        let half = form.half_section(&shape, share);
        let low = water(share);
        let over = (half.gunwale() - low).max(0.0);
        let step = over / f64::from(STEPS);
        let breadths = (0..STEPS).map(|k| half.breadth_at(low + (f64::from(k) + 0.5) * step));
        breadths.sum::<f64>() * step
    };
    let step = FOREMOST / f64::from(STEPS);
    let areas = (0..STEPS).map(|k| area((f64::from(k) + 0.5) * step));
    Some(Bow {
        volume: areas.sum::<f64>() * step * length,
        freeboard: form.half_section(&shape, 0.0).gunwale() - water(0.0),
    })
}
