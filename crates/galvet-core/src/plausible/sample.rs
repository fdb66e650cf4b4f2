//! Plausible shapes of a hull: a fixed-seed low-discrepancy sample.
//!
//! The points are Richtmyer's additive recurrence, `u_n = frac(shift + n √p_j)`
//! with `p_j` the j-th prime (R. D. Richtmyer, "The evaluation of definite
//! integrals, and a quasi-Monte-Carlo method", 1951). Of the sequences tried in
//! nine dimensions at 128 points it kept mean and spread best (0.06 sd against
//! 0.27 for powers of the golden ratio, whose seventh step is nearly 5/8). The
//! shift is one and the same for all hulls: what becomes of a hull follows from
//! what is recorded of it, never from its name, and one reading more or less moves
//! its figures by what the reading says, not by the luck of another sample. Normal
//! quantiles turn the points into standard deviations.

use super::prior::{DIMENSIONS, coordinate};
use statrs::distribution::{ContinuousCDF, Normal};
use std::sync::{Arc, OnceLock};

/// Shapes in a hull's sample unless asked otherwise.
pub const DEFAULT_SIZE: usize = 128;

/// Where the shifts are drawn from: of 6,000 tried the one that keeps means, spreads and
/// independence best at 16, 32, 64 and 128 points.
const SEED: u64 = 0x6761_6c76_6574_0de9;

/// One step of the SplitMix64 generator (Steele, Lea, Flood 2014), as a number
/// in [0, 1).
fn next_share(state: &mut u64) -> f64 {
    *state = state.wrapping_add(0x9e37_79b9_7f4a_7c15);
    let mut z = *state;
    z = (z ^ (z >> 30)).wrapping_mul(0xbf58_476d_1ce4_e5b9);
    z = (z ^ (z >> 27)).wrapping_mul(0x94d0_49bb_1331_11eb);
    ((z ^ (z >> 31)) >> 11) as f64 / (1u64 << 53) as f64
}

/// One prime for each dimension.
const PRIMES: [f64; DIMENSIONS] = [
    2.0, 3.0, 5.0, 7.0, 11.0, 13.0, 17.0, 19.0, 23.0, 29.0, 31.0, 37.0, 41.0, 43.0, 47.0, 53.0,
    59.0, 61.0,
];

/// Points as a posterior holds them: all hulls whose record asks for no others share
/// these.
pub(super) type Points = Arc<[[f64; DIMENSIONS]]>;

/// `size` points of independent standard normals; where the bottom is `open`, those of
/// one bottom stand together, to be worked side by side. Those of the usual size are
/// drawn once.
pub(super) fn standard(size: usize, open: bool) -> Points {
    static USUAL: [OnceLock<Points>; 2] = [const { OnceLock::new() }; 2];
    let draw = || {
        let mut points = normals(size);
        if open {
            points.sort_by(|a, b| a[coordinate::BOTTOM].total_cmp(&b[coordinate::BOTTOM]));
        }
        points.into()
    };
    if size == DEFAULT_SIZE {
        USUAL[usize::from(open)].get_or_init(draw).clone()
    } else {
        draw()
    }
}

/// Primes beyond those of a shape's own dimensions, for what is guessed of the load.
const GUESS_PRIMES: [f64; 3] = [67.0, 71.0, 73.0];

/// `size` points of how far off a guessed load may be, in standard deviations: a sample of
/// its own, so that no figure of a hull depends on whether something aboard was guessed.
pub(super) fn guesses(size: usize) -> Arc<[[f64; 3]]> {
    static USUAL: OnceLock<Arc<[[f64; 3]]>> = OnceLock::new();
    let draw = || -> Arc<[[f64; 3]]> {
        let Ok(normal) = Normal::new(0.0, 1.0) else {
            return vec![[0.0; 3]; size].into();
        };
        let mut state = !SEED;
        let shift: [f64; 3] = std::array::from_fn(|_| next_share(&mut state));
        let point = |n: usize| {
            std::array::from_fn(|j| {
                let u = (shift[j] + (n as f64 + 1.0) * GUESS_PRIMES[j].sqrt()).fract();
                normal.inverse_cdf(u.clamp(5e-4, 1.0 - 5e-4))
            })
        };
        (0..size).map(point).collect()
    };
    if size == DEFAULT_SIZE {
        USUAL.get_or_init(draw).clone()
    } else {
        draw()
    }
}

/// `size` points of independent standard normals.
#[must_use]
pub fn normals(size: usize) -> Vec<[f64; DIMENSIONS]> {
    // A unit normal always exists; the fallback only spares a panic path.
    let Ok(normal) = Normal::new(0.0, 1.0) else {
        return vec![[0.0; DIMENSIONS]; size];
    };
    let mut state = SEED;
    let shift: [f64; DIMENSIONS] = std::array::from_fn(|_| next_share(&mut state));
    (0..size)
        .map(|n| {
            std::array::from_fn(|j| {
                let u = (shift[j] + (n as f64 + 1.0) * PRIMES[j].sqrt()).fract();
                // Keep clear of the ends: ±3.3 sd.
                normal.inverse_cdf(u.clamp(5e-4, 1.0 - 5e-4))
            })
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use approx::assert_relative_eq;

    #[test]
    fn guesses_are_normal_and_independent() {
        let all = guesses(DEFAULT_SIZE);
        let count = all.len() as f64;
        let mean = |f: &dyn Fn(&[f64; 3]) -> f64| all.iter().map(f).sum::<f64>() / count;
        for j in 0..3 {
            assert!(mean(&|g| g[j]).abs() < 0.06, "{j}");
            assert!((mean(&|g| g[j] * g[j]) - 1.0).abs() < 0.12, "{j}");
            assert!(mean(&|g| g[j] * g[(j + 1) % 3]).abs() < 0.12, "{j}");
        }
    }

    #[test]
    fn the_sample_is_normal_in_every_dimension() {
        let sample = normals(512);
        for j in 0..DIMENSIONS {
            let mean = sample.iter().map(|p| p[j]).sum::<f64>() / 512.0;
            let square = sample.iter().map(|p| p[j] * p[j]).sum::<f64>() / 512.0;
            assert_relative_eq!(mean, 0.0, epsilon = 0.03);
            assert_relative_eq!(square, 1.0, epsilon = 0.06);
        }
        // No two dimensions move together.
        for (i, j) in [(0, 1), (2, 7), (3, 6)] {
            let both = sample.iter().map(|p| p[i] * p[j]).sum::<f64>() / 512.0;
            assert_relative_eq!(both, 0.0, epsilon = 0.2);
        }
    }
}
