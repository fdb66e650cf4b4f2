//! What the batteries of a rig give on one hull: wired together, for how long, how
//! far, and through which cables.

use crate::body::Shape;
use crate::circuit::{Circuit, Circuits, Load};
use crate::figures::{Setup, outlook::motor_range};
use crate::guide::Guide;
use crate::question::Brief;

/// A cable from one thing to another.
#[derive(Debug, Clone, PartialEq)]
pub struct Cable {
    /// From.
    pub from: String,
    /// To.
    pub to: String,
    /// To be ordered, m: along, across and up, and slack.
    pub length: f64,
}

/// One circuit on the hull.
#[derive(Debug, Clone)]
pub struct Fed {
    /// The pack and what hangs on it.
    pub circuit: Circuit,
    /// Hours all on it that is no motor runs, a share kept back.
    pub hours: Option<f64>,
    /// Energy left after a day of all on it that is no motor, Wh of those that can be
    /// used.
    pub left: f64,
    /// Distance by the motors on it, m: at full draw and gently.
    pub range: Option<(f64, f64)>,
}

/// What the batteries aboard give.
#[derive(Debug, Clone)]
pub struct Power {
    /// Each pack a circuit.
    pub circuits: Vec<Fed>,
    /// What no pack feeds.
    pub unfed: Vec<Load>,
    /// How long the day is, h.
    pub day: f64,
    /// Cables to order.
    pub cables: Vec<Cable>,
}

/// What batteries and draws of a rig come to; `None` where it has neither.
#[must_use]
pub fn power(setup: &Setup, brief: &Brief, shape: &Shape) -> Option<Power> {
    let guides = setup.guides();
    let all = Circuits::of(&brief.rig, guides);
    if all == Circuits::default() {
        return None;
    }
    let day = brief.outing.hours.unwrap_or(Circuits::usual_day(guides));
    let cables = cables(setup, &all);
    let fed = |circuit: Circuit| {
        let (left, watts) = (circuit.left(day), circuit.motors());
        let range = (watts > 0.0 && left > 0.0)
            .then(|| motor_range(setup, shape, watts, 3600.0 * left))
            .flatten();
        Fed {
            hours: circuit.hours(guides),
            left,
            range,
            circuit,
        }
    };
    Some(Power {
        circuits: all.packs.into_iter().map(fed).collect(),
        unfed: all.unfed,
        day,
        cables,
    })
}

/// From the batteries of each circuit to each thing that hangs on it.
fn cables(setup: &Setup, all: &Circuits) -> Vec<Cable> {
    let (stowed, slack) = (
        &setup.loads.layout.stowed,
        setup.guides()[Guide::CableSlack],
    );
    let loads = all.packs.iter().flat_map(|c| &c.loads).chain(&all.unfed);
    let loads: Vec<&Load> = loads.collect();
    let mut cables = steering(setup, &loads);
    for circuit in &all.packs {
        let Some(battery) = stowed.iter().find(|s| s.item == circuit.battery) else {
            continue;
        };
        let mut names: Vec<&str> = circuit.loads.iter().map(|l| l.name.as_str()).collect();
        names.dedup();
        let fed = stowed.iter().filter(|s| names.contains(&s.item.as_str()));
        let fed = fed.filter(|s| s.lies.is_some()).map(|s| {
            let along = (s.x - battery.x).abs();
            let across = (s.y - battery.y).abs();
            let up = (s.above_floor - battery.above_floor).abs();
            Cable {
                from: battery.item.clone(),
                to: s.item.clone(),
                length: along + across + up + slack,
            }
        });
        cables.extend(fed);
    }
    cables
}

/// A stern motor's steering cable, along the side from it to the feet.
fn steering(setup: &Setup, draws: &[&Load]) -> Vec<Cable> {
    let (space, layout) = (setup.space(), &setup.loads.layout);
    let slack = setup.guides()[Guide::CableSlack];
    let motor = |name: &str| draws.iter().any(|d| d.motor && d.name == name);
    let aft = layout.stowed.iter().filter(|s| {
        let behind = s.x - layout.bow > space.seat;
        s.lies.is_some() && behind && motor(&s.item)
    });
    aft.map(|s| {
        let along = s.x - layout.bow - space.feet;
        Cable {
            from: s.item.clone(),
            to: STEERED_FROM.to_owned(),
            // To the side and back again.
            length: along + space.size[1] + slack,
        }
    })
    .collect()
}

/// Where a steering cable ends.
pub const STEERED_FROM: &str = "the pedals, to steer";
