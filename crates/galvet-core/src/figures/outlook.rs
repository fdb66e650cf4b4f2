//! Speed and effort of a hull under a brief, with ranges: over plausible shapes
//! and over easy, usual and strong effort.

use super::afloat::Afloat;
use super::assess::Assessment;
use super::setup::Setup;
use crate::base::Range;
use crate::body::{Cut, Shape};
use crate::circuit::Circuits;
use crate::effort::{Going, PowerCurve, Resistance, WettedHull, efficiency, going};
use crate::float::Accuracy;
use crate::guide::{Guide, Guides};
use crate::hull::Propulsion;
use crate::load::Carriage;
use crate::question::Outing;
use rayon::prelude::*;

/// Shapes the outlook is taken over: waves are dear, and their spread is small
/// beside that of effort.
const SHAPES: usize = 8;

/// What it costs to move.
#[derive(Debug, Clone, PartialEq)]
pub struct Outlook {
    /// Speed, m/s, and power at hand, foot or battery, W.
    pub curve: Vec<(f64, Range)>,
    /// Speed kept up, m/s.
    pub cruise: Range,
    /// Speed at twice the effort, m/s; its share is of the shapes that reach
    /// it below the fastest speed computed.
    pub top: Option<Range>,
    /// Energy for ten kilometres at cruise, J.
    pub energy_10_km: Option<Range>,
    /// Distance on the battery aboard, m; `None` without motor or battery.
    pub battery: Option<Range>,
    /// Efforts it is taken over, W: least, usual, most.
    pub effort: [f64; 3],
}

/// Gentle, usual and brisk use of a motor, shares of the usual.
const MOTOR_EFFORTS: [f64; 3] = [0.6, 1.0, 1.6];

/// Resistance of one shape of a hull, seated; `None` where it does not rest.
pub(crate) fn resistance(setup: &Setup, shape: Shape) -> Option<Resistance> {
    let shapes = [shape];
    let afloat = Afloat::new(setup, &shapes, Accuracy::SAMPLE);
    let rest = afloat.case(Carriage::Seated).upright;
    if !rest.rests(0) {
        return None;
    }
    let hull = WettedHull::of_shape(&setup.posterior.form, &shapes[0], &rest.attitude);
    let density = setup.brief.water.density;
    // Floats that lie in the water are dragged through it as what is towed is.
    let guides = setup.guides();
    let middle = afloat.body.middle();
    let wet = afloat.body.floats.iter().map(|floats| {
        let at = 0.5 * (floats.along[0] + floats.along[1]);
        let depth = rest.attitude.water_at(at, middle).0[0] - floats.z.0[0];
        2.0 * guides[Guide::FloatDrag] * Cut::of(floats.radius, depth).area
    });
    let dragged = setup.towed() + wet.sum::<f64>();
    Some(Resistance::new(hull, density, guides).towing(dragged))
}

/// Power over speed of one shape of a hull, seated, up to `most` W in the water;
/// `None` where it does not rest.
fn power_curve(setup: &Setup, shape: Shape, most: f64) -> Option<PowerCurve> {
    Some(PowerCurve::of(&resistance(setup, shape)?, most))
}

/// Distance by a motor of `watts` W on `energy` J that can be used, m: at its full
/// draw and gently, a share kept back, whatever else drives it; `None` where it
/// does not rest or move.
#[must_use]
pub fn motor_range(setup: &Setup, shape: &Shape, watts: f64, energy: f64) -> Option<(f64, f64)> {
    let guides = setup.guides();
    let gentle = (MOTOR_EFFORTS[0] * guides[Guide::MotorCruise]).min(watts);
    let most = efficiency(Propulsion::Motor, guides) * watts;
    let curve = power_curve(setup, *shape, most)?;
    let far = |watts| going(&curve, Propulsion::Motor, watts, energy, guides).battery_range;
    Some((far(watts)?, far(gentle)?))
}

/// Speed the middle shape keeps up, m/s: at the least, the usual and the most effort
/// of those an outlook is taken over. Seated; `None` where it does not rest or
/// the least effort drives it beyond the speeds computed.
///
/// A quick look beside [`outlook`]: one shape, since the spread of effort is the
/// greater part of the range.
#[must_use]
pub fn cruise(assessment: &Assessment) -> Option<[f64; 3]> {
    let setup = &assessment.setup;
    let guides = setup.guides();
    let propulsion = assessment.driven();
    let effort = efforts(propulsion, guides);
    let most = efficiency(propulsion, guides) * effort[2];
    let curve = power_curve(setup, assessment.middle, 1.05 * most)?;
    let [a, b, c] = effort.map(|watts| going(&curve, propulsion, watts, 0.0, guides).cruise);
    Some([a?, b?, c?])
}

/// What holds the middle shape back at the speed it keeps up with the usual effort.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct HeldBack {
    /// Efforts at hand, foot or battery, W: least, usual, most.
    pub effort: [f64; 3],
    /// Share of it that arrives in the water.
    pub efficiency: f64,
    /// Speed kept up at each of them, m/s, as [`cruise`] tells it.
    pub speed: [f64; 3],
    /// Wetted area, m².
    pub wetted_area: f64,
    /// Length in the water, m.
    pub waterline: f64,
    /// Friction, waves and still air at the usual speed, N.
    pub parts: [f64; 3],
    /// What is towed at that speed, N.
    pub towed: f64,
}

/// How [`cruise`] comes about; `None` where that is.
#[must_use]
pub fn held_back(assessment: &Assessment) -> Option<HeldBack> {
    let setup = &assessment.setup;
    let (guides, propulsion) = (setup.guides(), assessment.driven());
    let speed = cruise(assessment)?;
    let resistance = resistance(setup, assessment.middle)?;
    let towed = resistance.of_towed(speed[1]);
    let [friction, water, total] = [
        resistance.friction(speed[1]),
        resistance.water(speed[1]),
        resistance.total(speed[1]),
    ];
    Some(HeldBack {
        effort: efforts(propulsion, guides),
        efficiency: efficiency(propulsion, guides),
        speed,
        wetted_area: resistance.hull().wetted_area(),
        waterline: resistance.hull().waterline(),
        parts: [friction, water - friction - towed, total - water],
        towed,
    })
}

/// Efforts an outlook is taken over, W: least, usual, most.
fn efforts(propulsion: Propulsion, guides: &Guides) -> [f64; 3] {
    match propulsion {
        Propulsion::Motor => MOTOR_EFFORTS.map(|f| f * guides[Guide::MotorCruise]),
        _ => [Guide::EffortEasy, Guide::EffortUsual, Guide::EffortStrong].map(|g| guides[g]),
    }
}

/// Takes the outlook of an assessed hull, seated. `None` when no shape floats.
#[must_use]
pub fn outlook(assessment: &Assessment, outing: &Outing) -> Option<Outlook> {
    let setup = &assessment.setup;
    let guides = setup.guides();
    let propulsion = assessment.driven();
    let effort = efforts(propulsion, guides);
    let share = efficiency(propulsion, guides);
    // The same circuits as on the board: see [`Circuits`].
    let day = outing.hours.unwrap_or(Circuits::usual_day(guides));
    let battery = Circuits::of(&setup.brief.rig, guides).for_driving(day);
    let order = assessment.evenly();
    let stride = (order.len() / SHAPES).max(1);
    let chosen: Vec<usize> = order.into_iter().step_by(stride).take(SHAPES).collect();
    let curves: Vec<PowerCurve> = chosen
        .par_iter()
        .filter_map(|&i| {
            // As far as the strongest effort goes, doubled for the top speed.
            power_curve(setup, setup.posterior.shapes[i], 2.0 * share * effort[2])
        })
        .collect();
    let goings: Vec<Going> = curves
        .iter()
        .flat_map(|curve| effort.map(|watts| going(curve, propulsion, watts, battery, guides)))
        .collect();
    let range = |f: &dyn Fn(&Going) -> Option<f64>| {
        Range::of(goings.iter().map(|g| (f(g).unwrap_or(f64::NAN), 1.0)))
    };
    let fastest = curves
        .iter()
        .filter_map(|c| c.speed.last().copied())
        .fold(f64::INFINITY, f64::min);
    let steps = if fastest.is_finite() {
        (fastest / 0.1) as u32
    } else {
        0
    };
    let curve = (0..=steps)
        .filter_map(|i| {
            let speed = 0.1 * f64::from(i);
            let powers = curves.iter().map(|c| (c.power_at(speed) / share, 1.0));
            Some((speed, Range::of(powers)?))
        })
        .collect();
    Some(Outlook {
        curve,
        cruise: range(&|g| g.cruise)?,
        top: range(&|g| g.top),
        energy_10_km: range(&|g| g.energy_per_km.map(|e| 10.0 * e)),
        battery: range(&|g| g.battery_range),
        effort,
    })
}
