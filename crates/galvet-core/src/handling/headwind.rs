//! Straight against a headwind: how fast at an effort, and what effort at a pace, by each
//! propulsion.

use super::drive::{Drive, Weather};
use super::way::{Bound, Going};
use crate::effort::lasting;
use crate::figures::Assessment;
use crate::hull::Propulsion;
use crate::question::Outing;

/// Speeds over the ground, m/s, straight against each of `winds` (m/s at the boat) and the
/// day's stream, of the middle shape at the usual effort; `None` for those that stop it.
#[must_use]
pub fn against(
    assessment: &Assessment,
    outing: &Outing,
    winds: &[f64],
) -> Option<Vec<Option<f64>>> {
    let setup = &assessment.setup;
    let bound = Bound::of(setup, outing)?;
    let propulsion = assessment.driven();
    let drive = Drive::of(propulsion, setup.brief.water.density, setup.guides());
    let effort = lasting(propulsion, setup.guides());
    let going = Going::of(setup, assessment.middle)?;
    Some(going.boat((setup, propulsion), &bound, |boat| {
        let speed =
            |&wind: &f64| boat.over_ground((&drive, effort), blowing(&bound, wind), [0.0; 2]);
        winds.iter().map(speed).collect()
    }))
}

/// The day's stream in another wind.
fn blowing(bound: &Bound, wind: f64) -> Weather {
    Weather {
        wind,
        ..bound.weather
    }
}

/// What a pace takes of one propulsion.
#[derive(Debug, Clone, PartialEq)]
pub struct Effort {
    /// By what.
    pub by: Propulsion,
    /// Effort kept up for hours so, at hand, foot or battery, W.
    pub lasting: f64,
    /// Effort against each wind, W.
    pub watts: Vec<f64>,
}

/// What it takes to pass the ground at `pace` m/s straight against each of `winds` (m/s at
/// the boat) and the day's stream, of the middle shape: by paddle with any drive up, by the
/// hull's own drive, and by a motor. `None` where no wind is named or it does not rest.
#[must_use]
pub fn efforts(
    assessment: &Assessment,
    outing: &Outing,
    winds: &[f64],
    pace: f64,
) -> Option<Vec<Effort>> {
    let setup = &assessment.setup;
    let (guides, density) = (setup.guides(), setup.brief.water.density);
    let bound = Bound::of(setup, outing)?;
    let going = Going::of(setup, assessment.middle)?;
    let own = assessment.driven();
    let mut all = vec![Propulsion::Paddle, own, Propulsion::Motor];
    all.dedup();
    let effort = |by: Propulsion| {
        let drive = Drive::of(by, density, guides);
        let through = pace + bound.weather.stream;
        going.boat((setup, by), &bound, |boat| {
            let watts = winds.iter().map(|&wind| {
                let thrust: f64 = boat.parts(through, pace, wind).iter().sum();
                drive.power(thrust.max(0.0), through)
            });
            Effort {
                by,
                lasting: lasting(by, guides),
                watts: watts.collect(),
            }
        })
    };
    Some(all.into_iter().map(effort).collect())
}
