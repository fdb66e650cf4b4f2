//! The tide, from harmonic constants.
//!
//! `h(t) = Z₀ + Σ A cos(ω t − g)`, with t in hours since the epoch of the constants and g the
//! lag there (Doodson and Warburg, *Admiralty Manual of Tides*, 1941). The slow change of A
//! and g over 18.6 years is left out: constants are those of their epoch, which is enough for
//! a made-up port and not for a real one, whose table stands above this.

use time::PrimitiveDateTime;
use time::macros::datetime;

/// Where the height of the water comes from.
pub trait Tides {
    /// Height over chart datum at a moment of the place's own clock, m.
    fn height(&self, at: PrimitiveDateTime) -> f64;
}

/// One part of a tide.
#[derive(Debug, Clone, PartialEq)]
pub struct Constituent {
    /// Its name, as M2.
    pub name: String,
    /// Speed, ° an hour.
    pub speed: f64,
    /// Amplitude, m.
    pub amplitude: f64,
    /// Lag at the epoch, °.
    pub lag: f64,
}

/// A port's tide.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Harmonic {
    /// Mean level over chart datum, m.
    pub mean: f64,
    /// Its parts.
    pub parts: Vec<Constituent>,
}

impl Harmonic {
    /// The epoch of the lags, on the place's own clock.
    pub const EPOCH: PrimitiveDateTime = datetime!(2026-01-01 00:00);

    /// Whether the water rises and falls at all.
    #[must_use]
    pub fn is_tidal(&self) -> bool {
        self.parts.iter().any(|p| p.amplitude > 0.0)
    }
}

impl Tides for Harmonic {
    fn height(&self, at: PrimitiveDateTime) -> f64 {
        let hours = (at - Self::EPOCH).as_seconds_f64() / 3600.0;
        let part = |p: &Constituent| {
            let turned = (p.speed * hours - p.lag).rem_euclid(360.0);
            p.amplitude * turned.to_radians().cos()
        };
        self.mean + self.parts.iter().map(part).sum::<f64>()
    }
}

/// High and low water between two moments: when, how high, whether high. Found where the
/// height turns between steps of six minutes, by the parabola through three of them.
#[must_use]
pub fn turns(
    tide: &dyn Tides,
    from: PrimitiveDateTime,
    to: PrimitiveDateTime,
) -> Vec<(PrimitiveDateTime, f64, bool)> {
    const STEP: time::Duration = time::Duration::minutes(6);
    let mut all = Vec::new();
    let mut at = from;
    let mut before = tide.height(from - STEP);
    let mut here = tide.height(from);
    while at <= to {
        let after = tide.height(at + STEP);
        let high = here >= before && here > after;
        let low = here <= before && here < after;
        if high || low {
            let bend = before - 2.0 * here + after;
            let off = if bend == 0.0 {
                0.0
            } else {
                0.5 * (before - after) / bend
            };
            let height = here - 0.25 * (before - after) * off;
            all.push((at + STEP * off, height, high));
        }
        (before, here) = (here, after);
        at += STEP;
    }
    all
}
