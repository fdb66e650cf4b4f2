//! The bow in chop: what it has to lift itself with, and how high it stands.

use crate::base::GRAVITY;
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
    /// Period in which it pitches, s: `2π k √((1 + a) / (g GM_L))`, radius of gyration a
    /// quarter of the length, GM_L the waterplane's own second moment along over the volume.
    pub pitch: f64,
}

/// Length and period of a chop of `height` m, m and s: waves as steep as young ones are,
/// on deep water (`T = √(2π λ / g)`).
#[must_use]
pub fn chop_wave(height: f64) -> (f64, f64) {
    /// Height over length of short wind waves (guide value).
    const STEEP: f64 = 0.06;
    let length = height / STEEP;
    (length, (std::f64::consts::TAU * length / GRAVITY).sqrt())
}

/// Period, s, in which a boat at `speed` m/s meets waves of `wave` (length m, period s)
/// head on.
#[must_use]
pub fn meets(wave: (f64, f64), speed: f64) -> f64 {
    1.0 / (1.0 / wave.1 + speed / wave.0)
}

/// Inertia of the water that pitches with it, of its own (guide value; flat shallow bodies
/// carry about as much again).
const ADDED: f64 = 0.8;
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
    let im = &case.upright.immersion;
    let (area_under, first) = (im.area.0[0], im.area_x.0[0]);
    let second = im.area_xx.0[0] - first * first / area_under;
    let gm_along = second / im.volume.0[0];
    let radius = 0.25 * length;
    Some(Bow {
        pitch: std::f64::consts::TAU * radius * ((1.0 + ADDED) / (GRAVITY * gm_along)).sqrt(),
        volume: areas.sum::<f64>() * step * length,
        freeboard: form.half_section(&shape, 0.0).gunwale() - water(0.0),
    })
}
