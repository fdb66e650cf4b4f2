//! What a drive asks for its thrust, and the speed it makes against wind, stream and chop.
//!
//! A constant efficiency would let no wind stop anybody and hold a boat in wind for
//! nothing; an actuator disc gives thrust its price at rest (Carlton, *Marine Propellers*,
//! 2007): `P = T (v/2 + √(v²/4 + T/(2 ρ a))) / η_m`.

use crate::base::GRAVITY;
use crate::effort::efficiency;
use crate::guide::Guide::{DiscFin, DiscMotor, DiscPaddle, DiscRotary};
use crate::guide::Guides;
use crate::hull::Propulsion;

/// Speed and thrust at which a drive's efficiency is quoted, m/s and N (handbook,
/// chapter 10).
const QUOTED: (f64, f64) = (1.5, 20.0);

/// A paddle, pedals or a motor as an actuator disc.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Drive {
    /// Area of the disc, m².
    area: f64,
    /// Share of the power that reaches the disc.
    mechanical: f64,
    density: f64,
}

impl Drive {
    /// The drive of a kind in water of `density` kg/m³.
    #[must_use]
    pub fn of(propulsion: Propulsion, density: f64, guides: &Guides) -> Self {
        let area = guides[match propulsion {
            Propulsion::Paddle => DiscPaddle,
            Propulsion::RotaryPedal => DiscRotary,
            Propulsion::FinPedal => DiscFin,
            Propulsion::Motor => DiscMotor,
        }];
        let ideal = Self {
            area,
            mechanical: 1.0,
            density,
        };
        let (speed, thrust) = QUOTED;
        let quoted = thrust * speed / efficiency(propulsion, guides);
        Self {
            mechanical: ideal.power(thrust, speed) / quoted,
            ..ideal
        }
    }

    /// Power at hand, foot or battery for `thrust` N at `speed` m/s through the water, W.
    #[must_use]
    pub fn power(&self, thrust: f64, speed: f64) -> f64 {
        let half = 0.5 * speed;
        let disc = (half * half + thrust / (2.0 * self.density * self.area)).sqrt();
        thrust * (half + disc) / self.mechanical
    }

    /// Thrust that `power` W gives at `speed` m/s through the water, N.
    #[must_use]
    pub fn thrust(&self, power: f64, speed: f64) -> f64 {
        let enough = |thrust: f64| self.power(thrust, speed) >= power;
        let (mut low, mut high) = (0.0, 1.0);
        while !enough(high) && high < 1e5 {
            high *= 2.0;
        }
        for _ in 0..60 {
            let middle = 0.5 * (low + high);
            if enough(middle) {
                high = middle;
            } else {
                low = middle;
            }
        }
        0.5 * (low + high)
    }
}

/// Wind and stream over the ground, m/s.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Weather {
    /// Wind at the boat.
    pub wind: f64,
    /// Stream.
    pub stream: f64,
}

/// What a boat has to overcome.
pub struct Boat<'a> {
    /// Resistance in the water by speed, N, with what hangs below.
    pub water: &'a dyn Fn(f64) -> f64,
    /// Drag area from ahead, m²: C·A.
    pub ahead: f64,
    /// Drag areas from the side, m²: in the air and in the water.
    pub side: (f64, f64),
    /// What chop adds in the water's typical wind, N.
    pub chop: f64,
    /// The water's typical wind, m/s.
    pub typical: f64,
    /// Density of the water and of the air, kg/m³.
    pub density: (f64, f64),
}

/// Slowest headway that counts, m/s.
pub const LEAST: f64 = 0.3;
/// Fastest speed looked at, m/s.
const FASTEST: f64 = 6.0;

/// Share of a wind at which something with drag areas `air` and `water` (C·A, m²) drifts:
/// the drags balance in the wind felt from the drifting boat.
#[must_use]
pub fn leeway(air: f64, water: f64, (density, of_air): (f64, f64)) -> f64 {
    let k = (of_air * air / (density * water)).sqrt();
    k / (1.0 + k)
}

impl Boat<'_> {
    /// Chop against the boat in a headwind, N: it grows with the square of the waves, which
    /// grow with the wind at a fetch (Hasselmann et al., JONSWAP, 1973).
    fn chop(&self, headwind: f64) -> f64 {
        let share = headwind.max(0.0) / self.typical.max(0.1);
        self.chop * share * share
    }

    /// What holds it back at `speed` through the water and `over` the ground, N, straight
    /// against a wind of `headwind` m/s: hull, air, chop.
    #[must_use]
    pub(super) fn parts(&self, speed: f64, over: f64, headwind: f64) -> [f64; 3] {
        let felt = headwind + over;
        [
            (self.water)(speed),
            0.5 * self.density.1 * self.ahead * felt.abs() * felt,
            self.chop(headwind),
        ]
    }

    /// Thrust for `speed` through the water, N, the wind `headwind` m/s against over the
    /// ground and `side` across, the ground passing at `over` m/s.
    fn needed(&self, speed: f64, over: f64, (headwind, side): (f64, f64)) -> f64 {
        let felt = headwind + over;
        let air = 0.5 * self.density.1 * self.ahead * felt.hypot(side) * felt;
        (self.water)(speed) + air + self.chop(headwind)
    }

    /// Speed over the ground at an effort, m/s, with wind and stream coming from `from`
    /// (rad off the course ahead; both from the same side); `None` where it makes less
    /// than a slow walk's start of headway.
    #[must_use]
    pub fn over_ground(
        &self,
        (drive, effort): (&Drive, f64),
        weather: Weather,
        from: [f64; 2],
    ) -> Option<f64> {
        let (wind_sin, wind_cos) = from[0].sin_cos();
        let (stream_sin, stream_cos) = from[1].sin_cos();
        let wind = (weather.wind * wind_cos, weather.wind * wind_sin);
        let stream = (weather.stream * stream_cos, weather.stream * stream_sin);
        let aside = wind.1 * leeway(self.side.0, self.side.1, self.density) + stream.1;
        let over = |speed: f64| {
            let ahead = (speed * speed - aside * aside).max(0.0).sqrt();
            ahead - stream.0
        };
        let spare = |speed: f64| {
            let thrust = self.needed(speed, over(speed), wind).max(0.0);
            effort - drive.power(thrust, speed)
        };
        let (mut low, mut high) = (aside.abs(), FASTEST);
        if spare(low) < 0.0 {
            return None;
        }
        for _ in 0..50 {
            let middle = 0.5 * (low + high);
            if spare(middle) > 0.0 {
                low = middle;
            } else {
                high = middle;
            }
        }
        Some(over(low)).filter(|&v| v >= LEAST)
    }

    /// The headwind that leaves a slow headway at an effort against a stream, m/s; `None`
    /// where the stream alone is too much.
    #[must_use]
    pub fn home_wind(&self, drive: &Drive, effort: f64, stream: f64) -> Option<f64> {
        let speed = LEAST + stream;
        let available = drive.thrust(effort, speed);
        let holds = |wind: f64| self.needed(speed, LEAST, (wind, 0.0)) <= available;
        if !holds(0.0) {
            return None;
        }
        let (mut low, mut high) = (0.0, 60.0);
        for _ in 0..40 {
            let middle = 0.5 * (low + high);
            if holds(middle) {
                low = middle;
            } else {
                high = middle;
            }
        }
        Some(low)
    }

    /// Force on an anchor, pole or drift sock, N: bow or stern on, wind and stream from one
    /// side, `ahead` m² of drag area in the wind.
    #[must_use]
    pub fn hold(&self, weather: Weather, ahead: f64) -> f64 {
        let air = 0.5 * self.density.1 * ahead * weather.wind * weather.wind;
        (self.water)(weather.stream) + air
    }

    /// The same beam-on, with `side` m² in the wind, N.
    #[must_use]
    pub fn hold_beam_on(&self, weather: Weather, side: f64) -> f64 {
        let air = 0.5 * self.density.1 * side * weather.wind * weather.wind;
        0.5 * self.density.0 * self.side.1 * weather.stream * weather.stream + air
    }
}

/// What a chop of `height` m adds to a boat of `beam` and `length` m, N: half the steady
/// drift force of short waves on a blunt bow, guide value `share`.
#[must_use]
pub fn chop(height: f64, (beam, length): (f64, f64), density: f64, share: f64) -> f64 {
    share * density * GRAVITY * (0.5 * height).powi(2) * beam * beam / length
}

#[cfg(test)]
mod tests {
    use super::*;
    use approx::assert_relative_eq;

    const DENSITIES: (f64, f64) = (1000.0, 1.225);

    #[test]
    fn a_drift_is_a_balance_of_two_drags() {
        // Handbook, chapter 10: 1.5 on 0.35 m², 6.17 m/s: 0.417.
        let v = 6.17 * leeway(1.5, 0.35, DENSITIES);
        assert_relative_eq!(v, 0.417, max_relative = 0.002);
        let felt = 6.17 - v;
        let (air, water) = (0.5 * 1.225 * 1.5 * felt * felt, 0.5 * 1000.0 * 0.35 * v * v);
        assert_relative_eq!(air, water, max_relative = 1e-9);
    }

    #[test]
    fn eighty_watts_push_no_harder_at_rest_than_a_disc_allows() {
        let guides = Guides::default();
        let drive = Drive::of(Propulsion::RotaryPedal, 1000.0, &guides);
        assert_relative_eq!(drive.thrust(80.0, 0.0), 71.3, max_relative = 0.003);
        // Where efficiency is quoted it is what is quoted.
        for kind in [Propulsion::Paddle, Propulsion::FinPedal, Propulsion::Motor] {
            let drive = Drive::of(kind, 1000.0, &guides);
            let power = drive.power(20.0, 1.5);
            assert_relative_eq!(
                20.0 * 1.5 / power,
                efficiency(kind, &guides),
                epsilon = 1e-12
            );
            assert_relative_eq!(drive.thrust(power, 1.5), 20.0, epsilon = 1e-6);
        }
    }

    #[test]
    fn a_square_law_boat_comes_home_as_worked_by_hand() {
        // Handbook, chapter 10: R = 7.5 v², 0.55 m², 6.17 and 0.3 against.
        let guides = Guides::default();
        let drive = Drive::of(Propulsion::RotaryPedal, 1000.0, &guides);
        let boat = Boat {
            water: &|v| 7.5 * v * v,
            ahead: 0.55,
            side: (1.5, 0.35),
            chop: 0.0,
            typical: 6.17,
            density: DENSITIES,
        };
        let weather = Weather {
            wind: 6.17,
            stream: 0.3,
        };
        let over = boat.over_ground((&drive, 80.0), weather, [0.0; 2]).unwrap();
        assert_relative_eq!(over + 0.3, 1.41, max_relative = 0.01);
        let home = boat.home_wind(&drive, 80.0, 0.3).unwrap();
        assert_relative_eq!(home, 11.8, max_relative = 0.01);
        assert_eq!(boat.home_wind(&drive, 80.0, 4.0), None);
        // Of that wind nothing is left to spare, and a little more stops it.
        let at = |wind| {
            let weather = Weather { wind, stream: 0.3 };
            boat.over_ground((&drive, 80.0), weather, [0.0; 2])
        };
        assert!(at(home - 0.01).is_some() && at(home + 0.05).is_none());
    }

    #[test]
    fn no_headwind_is_quicker_and_no_following_wind_slower() {
        let guides = Guides::default();
        let drive = Drive::of(Propulsion::Paddle, 1000.0, &guides);
        let boat = Boat {
            water: &|v| 6.0 * v * v,
            ahead: 0.55,
            side: (1.5, 0.35),
            chop: 6.0,
            typical: 6.0,
            density: DENSITIES,
        };
        let speed = |wind: f64, from: f64| {
            let weather = Weather { wind, stream: 0.0 };
            boat.over_ground((&drive, 55.0), weather, [from, 0.0])
                .unwrap_or(0.0)
        };
        let mut last = f64::INFINITY;
        for step in 0..12 {
            let wind = f64::from(step);
            let now = speed(wind, 0.0);
            assert!(now <= last + 1e-9, "{wind}");
            assert!(speed(wind, std::f64::consts::PI) >= speed(0.0, 0.0) - 1e-9);
            last = now;
        }
        // From either side alike.
        assert_relative_eq!(speed(5.0, 1.0), speed(5.0, -1.0), epsilon = 1e-9);
    }

    #[test]
    fn chop_grows_with_the_square_of_its_height() {
        // ½ · 1000 · 9.80665 · 0.075² · 0.81 / 3.7.
        let one = chop(0.15, (0.9, 3.7), 1000.0, 0.5);
        assert_relative_eq!(one, 6.038, max_relative = 1e-3);
        assert_relative_eq!(
            chop(0.30, (0.9, 3.7), 1000.0, 0.5),
            4.0 * one,
            epsilon = 1e-9
        );
    }
}
