//! Resistance and what a person or a battery makes of it.

use super::WettedHull;
use super::michell::Waves;
use crate::base::GRAVITY;
use crate::guide::Guide::{
    EfficiencyFin, EfficiencyMotor, EfficiencyPaddle, EfficiencyRotary, MotorCruise, PaddleLasting,
    PedalLasting,
};
use crate::guide::{Guide, Guides};
use crate::hull::Propulsion;

/// Kinematic viscosity of fresh water at 15 °C, m²/s (ITTC 7.5-02-01-03).
const VISCOSITY: f64 = 1.139e-6;
/// Density of air at 15 °C, kg/m³ (ISO 2533).
const AIR_DENSITY: f64 = 1.225;
/// Froude number below which waves are left out: they are under a hundredth of
/// the friction there.
const STILL: f64 = 0.15;
/// Fastest speed computed, m/s: no kayak of these powers comes near it.
const FASTEST: f64 = 8.0;

/// Share of the effort that arrives in the water.
#[must_use]
pub fn efficiency(propulsion: Propulsion, guides: &Guides) -> f64 {
    guides[match propulsion {
        Propulsion::Paddle => EfficiencyPaddle,
        Propulsion::RotaryPedal => EfficiencyRotary,
        Propulsion::FinPedal => EfficiencyFin,
        Propulsion::Motor => EfficiencyMotor,
    }]
}

/// Effort kept up for hours, W.
#[must_use]
pub fn lasting(propulsion: Propulsion, guides: &Guides) -> f64 {
    guides[match propulsion {
        Propulsion::Paddle => PaddleLasting,
        Propulsion::RotaryPedal | Propulsion::FinPedal => PedalLasting,
        Propulsion::Motor => MotorCruise,
    }]
}

/// Resistance of a hull at rest's attitude, speed by speed.
#[derive(Debug, Clone, PartialEq)]
pub struct Resistance {
    hull: WettedHull,
    waves: Waves,
    density: f64,
    form_factor: f64,
    drag_area: f64,
    /// Drag area in the water of what is towed, m².
    towed: f64,
}

impl Resistance {
    /// Of `hull` in water of `density` kg/m³.
    #[must_use]
    pub fn new(hull: WettedHull, density: f64, guides: &Guides) -> Self {
        // Below that there are no waves to speak of.
        let slowest = STILL * (GRAVITY * hull.waterline()).sqrt();
        Self {
            waves: Waves::of(&hull, slowest, FASTEST),
            hull,
            density,
            form_factor: guides[Guide::FormFactor],
            drag_area: guides[Guide::DragArea],
            towed: 0.0,
        }
    }

    /// The same with something more of so much drag area, m², towed through the water;
    /// below zero with less.
    #[must_use]
    pub fn towing(mut self, area: f64) -> Self {
        self.towed += area;
        self
    }

    /// Pull of something of so much drag area, m², N: `½ ρ C A v²`.
    #[must_use]
    pub fn pull(&self, area: f64, speed: f64) -> f64 {
        0.5 * self.density * area * speed * speed
    }

    /// Pull of all that is towed, N.
    #[must_use]
    pub fn of_towed(&self, speed: f64) -> f64 {
        self.pull(self.towed, speed)
    }

    /// The hull in the water.
    #[must_use]
    pub const fn hull(&self) -> &WettedHull {
        &self.hull
    }

    /// Frictional resistance, N, at `speed` m/s: the ITTC-1957 line on the
    /// wetted area, with the form factor.
    #[must_use]
    pub fn friction(&self, speed: f64) -> f64 {
        let reynolds = (speed * self.hull.waterline() / VISCOSITY).max(1e4);
        let line = 0.075 / (reynolds.log10() - 2.0).powi(2);
        0.5 * self.density
            * speed
            * speed
            * self.hull.wetted_area()
            * line
            * (1.0 + self.form_factor)
    }

    /// Friction, waves and what is towed, N.
    #[must_use]
    pub fn water(&self, speed: f64) -> f64 {
        let waves = if froude(speed, self.hull.waterline()) < STILL {
            0.0
        } else {
            self.waves.resistance(speed, self.density)
        };
        self.friction(speed) + waves + self.of_towed(speed)
    }

    /// Friction, waves, what is towed and still air, N.
    #[must_use]
    pub fn total(&self, speed: f64) -> f64 {
        self.water(speed) + 0.5 * AIR_DENSITY * self.drag_area * speed * speed
    }

    /// Power to move at `speed`, W, before any loss in drive or paddle.
    #[must_use]
    pub fn power(&self, speed: f64) -> f64 {
        self.total(speed) * speed
    }
}

/// Power over speed on a grid, to read speeds off without computing waves again.
#[derive(Debug, Clone, PartialEq)]
pub struct PowerCurve {
    /// Speeds, m/s, rising from 0.
    pub speed: Vec<f64>,
    /// Power in the water and air, W, not falling.
    pub power: Vec<f64>,
}

/// Step of the grid, m/s. Where waves begin the power rises so steeply that with twice
/// the step it was read off a twelfth too low, and the speed too high.
const STEP: f64 = 0.125;

impl PowerCurve {
    /// The curve of a hull up to where `most` W are reached.
    #[must_use]
    pub fn of(resistance: &Resistance, most: f64) -> Self {
        let (mut speed, mut power) = (vec![0.0], vec![0.0]);
        let mut last = 0.0_f64;
        for i in 1.. {
            let u = STEP * f64::from(i);
            // Thin-ship humps may dip; nobody slows down by pushing harder.
            last = resistance.power(u).max(last);
            speed.push(u);
            power.push(last);
            if last > most || u >= FASTEST {
                break;
            }
        }
        Self { speed, power }
    }

    /// The curve of the water alone, up to the fastest speed anybody keeps up.
    #[must_use]
    pub fn in_water(resistance: &Resistance) -> Self {
        /// Fastest that is asked, m/s.
        const ASKED: f64 = 4.0;
        let steps = (ASKED / STEP) as u32;
        let speed: Vec<f64> = (0..=steps).map(|i| STEP * f64::from(i)).collect();
        let mut last = 0.0_f64;
        let power = speed.iter().map(|&u| {
            last = (resistance.water(u) * u).max(last);
            last
        });
        Self {
            power: power.collect(),
            speed,
        }
    }

    /// Force at `speed` m/s, N; beyond the curve's end it goes on growing as there.
    #[must_use]
    pub fn force_at(&self, speed: f64) -> f64 {
        let last = self.speed.last().copied().unwrap_or(1.0);
        if speed > last {
            let over = speed / last;
            return self.power_at(last) / last * over * over;
        }
        // Below the first knot friction alone holds it back, as the square of the speed.
        let first = self.speed[1];
        if speed < first {
            return self.power[1] / first * (speed / first).powi(2);
        }
        self.power_at(speed) / speed
    }

    /// Speed at which `watts` in the water are used, m/s; the power is taken
    /// as a cube between the knots. `None` beyond the curve's end: how fast
    /// that is has not been computed.
    #[must_use]
    pub fn speed_at(&self, watts: f64) -> Option<f64> {
        let i = self.power.partition_point(|&p| p < watts);
        if i == 0 {
            return Some(0.0);
        }
        let above = *self.power.get(i)?;
        let root = |p: f64| p.max(0.0).cbrt();
        let (a, b) = (root(self.power[i - 1]), root(above));
        let t = if b > a {
            (root(watts) - a) / (b - a)
        } else {
            1.0
        };
        Some(self.speed[i - 1] + (self.speed[i] - self.speed[i - 1]) * t)
    }

    /// Power at `speed` m/s, W.
    #[must_use]
    pub fn power_at(&self, speed: f64) -> f64 {
        let i = self
            .speed
            .partition_point(|&u| u < speed)
            .clamp(1, self.speed.len() - 1);
        let (u0, u1) = (self.speed[i - 1], self.speed[i]);
        let (a, b) = (self.power[i - 1].cbrt(), self.power[i].cbrt());
        (a + (b - a) * ((speed - u0) / (u1 - u0)).clamp(0.0, 1.0)).powi(3)
    }
}

/// What a hull does with an effort.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Going {
    /// Speed kept up, m/s; `None` beyond the speeds computed.
    pub cruise: Option<f64>,
    /// Speed at twice the effort, m/s; likewise.
    pub top: Option<f64>,
    /// Energy at hand, foot or battery for a kilometre at cruise, J; `None` for
    /// a boat that does not move.
    pub energy_per_km: Option<f64>,
    /// Distance on the battery at cruise, m, a share kept back; `None` without.
    pub battery_range: Option<f64>,
}

/// Cruise, top, energy and range at `effort` W (at hand or foot, or electric
/// input), with `battery` J aboard.
#[must_use]
pub fn going(
    curve: &PowerCurve,
    propulsion: Propulsion,
    effort: f64,
    battery: f64,
    guides: &Guides,
) -> Going {
    let share = efficiency(propulsion, guides);
    let cruise = curve.speed_at(share * effort);
    let moves = cruise.filter(|&v| v > 0.0);
    let motor = propulsion == Propulsion::Motor && battery > 0.0;
    let used = guides[Guide::BatteryShare] * battery;
    Going {
        cruise,
        top: curve.speed_at(share * 2.0 * effort),
        energy_per_km: moves.map(|v| 1000.0 / v * effort),
        battery_range: moves.filter(|_| motor).map(|v| used / effort * v),
    }
}

/// Speed over the square root of waterline and gravity (Froude's number).
#[must_use]
pub fn froude(speed: f64, waterline: f64) -> f64 {
    speed / (GRAVITY * waterline.max(1e-3)).sqrt()
}
