//! Scales and tilt meters, each behind a small trait, with simulated ones that
//! stand in for them in a demo. A real device takes their place by its own
//! implementation; nothing else changes.

use std::f64::consts::TAU;

/// A hanging scale: what it shows at this moment.
pub trait HangingScale {
    /// The next reading, kg.
    fn kilograms(&mut self) -> f64;
}

/// A tilt meter: a level or a phone laid across the hull.
pub trait TiltMeter {
    /// The next reading, °, starboard down positive.
    fn degrees(&mut self) -> f64;
}

/// A device that came to rest.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Steady {
    /// Mean of the readings it was steady over.
    pub value: f64,
    /// Readings taken until then.
    pub readings: usize,
}

/// Readings that must agree.
const AGREE: usize = 6;
/// Readings after which it is given up.
const PATIENCE: usize = 400;

/// Reads until `AGREE` readings in a row lie within `within` of each other;
/// `None` where they never do (a swinging load, a boat in waves).
pub fn steady(mut read: impl FnMut() -> f64, within: f64) -> Option<Steady> {
    let mut last: Vec<f64> = Vec::new();
    for readings in 1..=PATIENCE {
        last.push(read());
        if last.len() > AGREE {
            last.remove(0);
        }
        let (lo, hi) = last
            .iter()
            .fold((f64::INFINITY, f64::NEG_INFINITY), |(lo, hi), &v| {
                (lo.min(v), hi.max(v))
            });
        if last.len() == AGREE && hi - lo <= within {
            let value = last.iter().sum::<f64>() / AGREE as f64;
            return Some(Steady { value, readings });
        }
    }
    None
}

/// A swing that dies away about a true value, shown to the device's last digit:
/// what any such device does after it is touched.
#[derive(Debug, Clone)]
pub struct Simulated {
    truth: f64,
    swing: f64,
    digit: f64,
    reading: u32,
}

impl Simulated {
    /// A hanging scale with `mass` kg on its hook: swings by a tenth of it, shows
    /// 50 g.
    #[must_use]
    pub fn scale(mass: f64) -> Self {
        Self {
            truth: mass,
            swing: 0.1 * mass,
            digit: 0.05,
            reading: 0,
        }
    }

    /// A tilt meter on a hull heeled by `heel` degrees: it rolls by 2° at first, it
    /// shows a tenth.
    #[must_use]
    pub fn tilt_meter(heel: f64) -> Self {
        Self {
            truth: heel,
            swing: 2.0,
            digit: 0.1,
            reading: 0,
        }
    }

    fn next(&mut self) -> f64 {
        self.reading += 1;
        let n = f64::from(self.reading);
        // Seven readings a swing, half of it gone after eight.
        let swing = self.swing * (-n / 11.5).exp() * (TAU * n / 7.0).cos();
        ((self.truth + swing) / self.digit).round() * self.digit
    }
}

impl HangingScale for Simulated {
    fn kilograms(&mut self) -> f64 {
        self.next()
    }
}

impl TiltMeter for Simulated {
    fn degrees(&mut self) -> f64 {
        self.next()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_device_is_waited_for_until_it_is_steady() {
        for mass in [1.2, 23.4, 59.0] {
            let mut scale = Simulated::scale(mass);
            let first = scale.kilograms();
            assert!((first - mass).abs() > 0.03 * mass, "it swings at first");
            let rest = steady(|| scale.kilograms(), 0.1).unwrap();
            assert!((rest.value - mass).abs() <= 0.06, "{mass}: {rest:?}");
            assert!(rest.readings > AGREE);
        }
        let mut meter = Simulated::tilt_meter(-4.3);
        let rest = steady(|| meter.degrees(), 0.2).unwrap();
        assert!((rest.value + 4.3).abs() <= 0.11, "{rest:?}");
    }

    #[test]
    fn what_never_rests_is_given_up() {
        let mut up = false;
        let restless = || {
            up = !up;
            f64::from(u8::from(up))
        };
        assert_eq!(steady(restless, 0.5), None);
    }
}
