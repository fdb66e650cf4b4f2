//! The water's slope at the boat in time: Airy waves, beam-on, no steeper to a wide boat than
//! its beam and its depth in the water let them be.

use super::boat::Boat;
use super::dice::{Dice, Purpose};
use crate::base::GRAVITY;
use std::f64::consts::TAU;

/// What the water does.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub enum Sea {
    /// Nothing.
    #[default]
    Flat,
    /// Waves of one height, m, and period, s.
    Regular {
        /// Crest to trough, m.
        height: f64,
        /// Between two crests, s.
        period: f64,
    },
    /// A sea of a significant height, m.
    Chop(f64),
    /// Somebody's wake: its height, m, and when it begins to come, s.
    Wake {
        /// Crest to trough of its greatest waves, m.
        height: f64,
        /// It is highest six seconds later.
        at: f64,
    },
}

/// One of a sea's waves.
#[derive(Debug, Clone, Copy)]
struct Wave {
    /// Its steepest slope as the boat takes it, rad.
    slope: f64,
    /// rad/s.
    frequency: f64,
    phase: f64,
}

/// Slope of the water at a boat, rad, from beam-on waves.
#[derive(Debug, Clone)]
pub struct Swell {
    waves: Vec<Wave>,
    sea: Sea,
}

/// Waves of a sea: bands of equal energy.
const BANDS: usize = 24;
/// The bands' ends, of the peak's frequency.
const ENDS: [f64; 2] = [0.6, 2.6];
/// How sharp the peak is (Hasselmann et al., *Measurements of wind-wave growth and swell decay*,
/// 1973).
const PEAKED: f64 = 3.3;
/// Period of the peak, s, of a sea of 1 m: short inland seas. Guide value.
const PERIOD: f64 = 3.9;
/// Until a sea is as high as it gets, s.
const FADES_IN: f64 = 3.0;
/// Period of a wake, s, and how long before and after its highest it comes, s. Guide values.
const WAKE: [f64; 3] = [2.0, 6.0, 3.0];

/// Share of a wave's slope that a boat of a beam and draft, m, takes: the pressure fades with
/// depth, and a beam as wide as the wave lies on crest and trough at once.
fn taken(number: f64, beam: f64, draft: f64) -> f64 {
    let x = (0.5 * number * beam).min(2.5);
    let wide = if x < 1e-3 {
        1.0 - 0.1 * x * x
    } else {
        3.0 * (x.sin() - x * x.cos()) / x.powi(3)
    };
    (-number * draft).exp() * wide
}

/// Energy of a sea at a frequency, of the peak's, but for a factor (JONSWAP).
fn spectrum(x: f64) -> f64 {
    let width = if x <= 1.0 { 0.07 } else { 0.09 };
    let peak = (-(x - 1.0).powi(2) / (2.0 * width * width)).exp();
    x.powi(-5) * (-1.25 * x.powi(-4)).exp() * PEAKED.powf(peak)
}

/// Ends of bands of equal energy, of the peak's frequency.
fn bands() -> Vec<f64> {
    let steps = 2_000;
    let [low, high] = ENDS;
    let width = (high - low) / f64::from(steps);
    let mut sums = vec![0.0];
    for k in 0..steps {
        let at = low + width * (f64::from(k) + 0.5);
        sums.push(sums[k as usize] + width * spectrum(at));
    }
    let whole = sums[sums.len() - 1];
    (0..=BANDS)
        .map(|band| {
            let wanted = whole * band as f64 / BANDS as f64;
            let k = sums
                .partition_point(|s| *s < wanted)
                .clamp(1, sums.len() - 1);
            let share = (wanted - sums[k - 1]) / (sums[k] - sums[k - 1]);
            low + width * (k as f64 - 1.0 + share.clamp(0.0, 1.0))
        })
        .collect()
}

impl Swell {
    /// Of a sea at a boat; which one of such seas, by seed and try. `beam_on` is the sine of the
    /// angle between the boat's heading and the waves'.
    #[must_use]
    pub fn of(sea: Sea, boat: &Boat, beam_on: f64, by: (u64, u64)) -> Self {
        let wave = |amplitude: f64, frequency: f64, phase: f64| {
            let number = frequency * frequency / GRAVITY;
            Wave {
                slope: beam_on * amplitude * number * taken(number, boat.beam, boat.draft),
                frequency,
                phase,
            }
        };
        let waves = match sea {
            Sea::Flat => Vec::new(),
            Sea::Regular { height, period } => vec![wave(0.5 * height, TAU / period, 0.0)],
            Sea::Wake { height, at } => {
                let frequency = TAU / WAKE[0];
                vec![wave(0.5 * height, frequency, -frequency * at)]
            }
            Sea::Chop(height) => {
                let mut dice = Dice::of(by, Purpose::Sea);
                let peak = TAU / (PERIOD * height.max(1e-3).sqrt());
                let amplitude = (2.0 / BANDS as f64).sqrt() * height / 4.0;
                let ends = bands();
                let waves = ends.windows(2).map(|band| {
                    let at = band[0] + (band[1] - band[0]) * dice.share();
                    wave(amplitude, at * peak, TAU * dice.share())
                });
                waves.collect()
            }
        };
        Self { waves, sea }
    }

    /// At a time, s: rad, positive where the water is lower to starboard.
    #[must_use]
    pub fn slope(&self, time: f64) -> f64 {
        let sum = |t: f64| {
            let each = self.waves.iter();
            each.map(|w| w.slope * (w.frequency * t + w.phase).sin())
                .sum::<f64>()
        };
        match self.sea {
            Sea::Flat => 0.0,
            Sea::Regular { .. } | Sea::Chop(_) => (time / FADES_IN).clamp(0.0, 1.0) * sum(time),
            Sea::Wake { at, .. } => {
                let off = (time - at - WAKE[1]) / WAKE[2];
                (-0.5 * off * off).exp() * sum(time)
            }
        }
    }

    /// Whether it ever slopes.
    #[must_use]
    pub fn is_flat(&self) -> bool {
        self.waves.is_empty()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn bands_hold_the_same_energy_and_end_where_the_spectrum_does() {
        let ends = bands();
        assert!((ends[0] - 0.6).abs() < 1e-9 && (ends[BANDS] - 2.6).abs() < 2e-3);
        // By Simpson's rule, another route.
        let energy = |a: f64, b: f64| {
            let h = (b - a) / 200.0;
            let at = |k: u32| spectrum(a + h * f64::from(k));
            let inner: f64 = (1..200)
                .map(|k| if k % 2 == 1 { 4.0 } else { 2.0 } * at(k))
                .sum();
            (at(0) + inner + at(200)) * h / 3.0
        };
        let whole = energy(0.6, 1.0) + energy(1.0, 2.6);
        for band in ends.windows(2) {
            let (a, b) = (band[0], band[1]);
            let own = if a < 1.0 && b > 1.0 {
                energy(a, 1.0) + energy(1.0, b)
            } else {
                energy(a, b)
            };
            assert!(
                (own * BANDS as f64 / whole - 1.0).abs() < 0.01,
                "{own} {whole}"
            );
        }
    }

    #[test]
    fn a_wave_is_less_steep_to_a_wide_deep_boat() {
        // k = 1: at a beam of 2 m, x = 1: 3 (sin 1 − cos 1) = 0.9035; a depth of 0.1 m: e^−0.1.
        assert!((taken(1.0, 2.0, 0.0) - 0.903_506).abs() < 1e-5);
        assert!((taken(1.0, 2.0, 0.1) - 0.903_506 * 0.904_837).abs() < 1e-5);
        assert!((taken(1.0, 1e-4, 0.0) - 1.0).abs() < 1e-6);
    }
}
