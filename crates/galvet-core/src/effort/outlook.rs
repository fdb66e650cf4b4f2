//! Speed and effort of a hull under a brief, with ranges: over plausible shapes
//! and over easy, usual and strong effort.

use super::WettedHull;
use super::power::{EFFORT, Going, MOTOR_CRUISE, PowerCurve, Resistance, efficiency, going};
use crate::assess::Assessment;
use crate::evaluate::Afloat;
use crate::float::{Accuracy, Attitude};
use crate::hull::Propulsion;
use crate::lanes::Lanes;
use crate::load::Carriage;
use crate::sample::Range;
use rayon::prelude::*;

/// Shapes the outlook is taken over: waves are dear, and their spread is small
/// beside that of effort.
const SHAPES: usize = 8;
/// Power up to which the curve is computed, W at the hull.
const MOST: f64 = 260.0;

/// What it costs to move.
#[derive(Debug, Clone, PartialEq)]
pub struct Outlook {
    /// Speed, m/s, and power at hand, foot or battery, W.
    pub curve: Vec<(f64, Range)>,
    /// Speed kept up, m/s.
    pub cruise: Range,
    /// Speed at twice the effort, m/s.
    pub top: Range,
    /// Energy for ten kilometres at cruise, J.
    pub energy_10_km: Range,
    /// Distance on the battery aboard, m; `None` without motor or battery.
    pub battery: Option<Range>,
    /// Efforts it is taken over, W: least, usual, most.
    pub effort: [f64; 3],
}

/// Takes the outlook of an assessed hull, seated. `None` when no shape floats.
#[must_use]
pub fn outlook(assessment: &Assessment<'_>) -> Option<Outlook> {
    let setup = &assessment.setup;
    let propulsion = setup.survey.propulsion;
    let effort = match propulsion {
        Propulsion::Motor => [0.6, 1.0, 1.6].map(|f| f * MOTOR_CRUISE),
        _ => EFFORT,
    };
    let battery = setup.brief.rig.energy();
    let order = assessment.evenly();
    let stride = (order.len() / SHAPES).max(1);
    let chosen: Vec<usize> = order.into_iter().step_by(stride).take(SHAPES).collect();
    let curves: Vec<PowerCurve> = chosen
        .par_iter()
        .filter_map(|&i| {
            let shapes = [assessment.weighed.shapes[i]];
            let afloat = Afloat::new(setup, &shapes, Accuracy::FINE);
            let rest = afloat.case(Carriage::Seated).upright;
            if rest.foundered.0[0] > 0.0 {
                return None;
            }
            let at = Attitude::<1> {
                heel: 0.0,
                draft: Lanes::splat(rest.attitude.draft.0[0]),
                slope: Lanes::splat(rest.attitude.slope.0[0]),
            };
            let hull = WettedHull::of_shape(&setup.frame, &shapes[0], &at);
            Some(PowerCurve::of(
                &Resistance::new(hull, setup.brief.water.density),
                MOST,
            ))
        })
        .collect();
    let goings: Vec<Going> = curves
        .iter()
        .flat_map(|curve| effort.map(|watts| going(curve, propulsion, watts, battery)))
        .collect();
    let range = |f: &dyn Fn(&Going) -> Option<f64>| {
        Range::of(goings.iter().filter_map(|g| Some((f(g)?, 1.0))).collect())
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
    let share = efficiency(propulsion);
    let curve = (0..=steps)
        .filter_map(|i| {
            let speed = 0.1 * f64::from(i);
            let powers = curves.iter().map(|c| (c.power_at(speed) / share, 1.0));
            Some((speed, Range::of(powers.collect())?))
        })
        .collect();
    Some(Outlook {
        curve,
        cruise: range(&|g| Some(g.cruise))?,
        top: range(&|g| Some(g.top))?,
        energy_10_km: range(&|g| Some(10.0 * g.energy_per_km))?,
        battery: range(&|g| g.battery_range),
        effort,
    })
}
