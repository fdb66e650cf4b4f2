//! Chances: streams of their own by the numbers of seed, try and purpose, never by the order in
//! which they are asked for.

use super::roll::TICK;
use std::f64::consts::TAU;

/// What a stream is for.
#[derive(Debug, Clone, Copy)]
pub(super) enum Purpose {
    /// Noise of the lean felt.
    Lean = 1,
    /// Noise of what the feet are told.
    Asked,
    /// Push misjudged in rising.
    Push,
    /// Strength and side of casts.
    Casts,
    /// Noise of the trunk, seated.
    Trunk,
    /// The sea.
    Sea,
    /// Noise of the trunk of who sits beside.
    Mate,
}

/// Shares and normals (`SplitMix64`: Steele, Lea and Flood, *Fast splittable pseudorandom number
/// generators*, 2014).
#[derive(Debug, Clone)]
pub(super) struct Dice(u64);

/// The generator's step: 2⁶⁴ over the golden ratio.
const GAMMA: u64 = 0x9e37_79b9_7f4a_7c15;

/// The generator's finish.
const fn mixed(mut z: u64) -> u64 {
    z = (z ^ (z >> 30)).wrapping_mul(0xbf58_476d_1ce4_e5b9);
    z = (z ^ (z >> 27)).wrapping_mul(0x94d0_49bb_1331_11eb);
    z ^ (z >> 31)
}

impl Dice {
    pub(super) const fn of((seed, attempt): (u64, u64), purpose: Purpose) -> Self {
        let one = mixed(seed.wrapping_add(GAMMA));
        let two = mixed((one ^ attempt).wrapping_add(GAMMA));
        Self(mixed((two ^ purpose as u64).wrapping_add(GAMMA)))
    }

    /// In (0, 1).
    pub(super) fn share(&mut self) -> f64 {
        self.0 = self.0.wrapping_add(GAMMA);
        ((mixed(self.0) >> 11) as f64 + 0.5) / (1_u64 << 53) as f64
    }

    /// Standard normal (Box and Muller).
    pub(super) fn normal(&mut self) -> f64 {
        let (u, v) = (self.share(), self.share());
        (-2.0 * u.ln()).sqrt() * (TAU * v).cos()
    }
}

/// A noise that wanders tick by tick, sd 1 (Ornstein and Uhlenbeck, 1930).
#[derive(Debug, Clone)]
pub(super) struct Wander {
    dice: Dice,
    at: f64,
    keeps: f64,
    adds: f64,
}

/// How long it remembers, s. Guide value.
const REMEMBERS: f64 = 0.5;

impl Wander {
    pub(super) fn of(mut dice: Dice) -> Self {
        let keeps = (-TICK / REMEMBERS).exp();
        let at = dice.normal();
        Self {
            dice,
            at,
            keeps,
            adds: (1.0 - keeps * keeps).sqrt(),
        }
    }

    pub(super) fn next(&mut self) -> f64 {
        self.at = self.keeps * self.at + self.adds * self.dice.normal();
        self.at
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn chances_are_as_wide_as_they_say_and_each_purpose_has_its_own() {
        let mut dice = Dice::of((1, 0), Purpose::Lean);
        let all: Vec<f64> = (0..100_000).map(|_| dice.normal()).collect();
        let mean = all.iter().sum::<f64>() / 1e5;
        let square = all.iter().map(|v| v * v).sum::<f64>() / 1e5;
        assert!(
            mean.abs() < 0.015 && (square - 1.0).abs() < 0.02,
            "{mean} {square}"
        );
        let mut wander = Wander::of(Dice::of((1, 0), Purpose::Lean));
        let course: Vec<f64> = (0..400_000).map(|_| wander.next()).collect();
        let square = course.iter().map(|v| v * v).sum::<f64>() / 4e5;
        // A second on, e⁻² of it is left.
        let later = course.windows(101).map(|w| w[0] * w[100]).sum::<f64>() / 4e5;
        assert!((square - 1.0).abs() < 0.06, "{square}");
        assert!((later / square - (-2.0_f64).exp()).abs() < 0.04, "{later}");
        let first = |at, purpose| Dice::of(at, purpose).share();
        let here = first((1, 0), Purpose::Lean);
        for other in [
            first((1, 1), Purpose::Lean),
            first((2, 0), Purpose::Lean),
            first((0, 1), Purpose::Lean),
            first((1, 0), Purpose::Asked),
        ] {
            assert!((here - other).abs() > 1e-9);
        }
        assert_eq!(here, first((1, 0), Purpose::Lean));
    }
}
