//! What the batteries of a rig give on one hull: wired together, for how long, how
//! far, and through which cables.

use galvet_core::body::Shape;
use galvet_core::figures::{Setup, outlook::motor_range};
use galvet_core::gear::{Category, Electric};
use galvet_core::guide::Guide;
use galvet_core::power::{Bank, BankError, Cell, Wiring};
use galvet_core::question::Brief;

/// Something that draws.
#[derive(Debug, Clone, PartialEq)]
pub struct Drawing {
    /// What it is.
    pub name: String,
    /// While on, W.
    pub watts: f64,
    /// Share of the time.
    pub duty: f64,
    /// What it must be fed with, V, where that is known.
    pub volts: Option<f64>,
    /// Whether it is a motor.
    pub motor: bool,
}

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

/// What the batteries aboard give.
#[derive(Debug, Clone)]
pub struct Power {
    /// All of them side by side.
    pub bank: Result<Bank, BankError>,
    /// The same one after the other, where there are several.
    pub series: Option<Result<Bank, BankError>>,
    /// What draws.
    pub draws: Vec<Drawing>,
    /// Hours all that is no motor runs, a share kept back.
    pub hours: Option<f64>,
    /// Energy left after a day of all that is no motor, Wh of those that can be used.
    pub left: Option<f64>,
    /// How long that day is, h.
    pub day: f64,
    /// Distance on the battery by motor, m: at full draw and gently.
    pub range: Option<(f64, f64)>,
    /// Cables to order.
    pub cables: Vec<Cable>,
}

/// Slack left on a cable, m.
const SLACK: f64 = 0.4;

/// What batteries and draws of a rig come to; `None` where it has neither.
pub(super) fn power(setup: &Setup, brief: &Brief, shape: &Shape) -> Option<Power> {
    let guides = setup.guides();
    let mut cells = Vec::new();
    let mut draws = Vec::new();
    for line in &brief.rig.lines {
        let Some(thing) = &line.thing else { continue };
        for _ in 0..line.count {
            match thing.electric {
                Electric::Battery {
                    volts,
                    amp_hours,
                    chemistry,
                } => cells.push(Cell {
                    name: thing.name.clone(),
                    volts,
                    amp_hours,
                    chemistry,
                }),
                Electric::Draw { watts, duty, volts } => draws.push(Drawing {
                    name: thing.name.clone(),
                    watts,
                    duty,
                    volts,
                    motor: thing.category == Category::Propulsion,
                }),
                Electric::None => {}
            }
        }
    }
    if cells.is_empty() && draws.is_empty() {
        return None;
    }
    let bank = Bank::wire(&cells, Wiring::Parallel, guides);
    let small = draws.iter().filter(|d| !d.motor);
    let small: Vec<(f64, f64)> = small.map(|d| (d.watts, d.duty)).collect();
    let hours = bank.as_ref().ok().and_then(|b| b.hours(&small, guides));
    let day = brief.outing.hours.unwrap_or(guides[Guide::DayHours]);
    let taken: f64 = small.iter().map(|(watts, duty)| watts * duty * day).sum();
    let left = bank.as_ref().ok().map(|b| (b.usable - taken).max(0.0));
    let series = (cells.len() > 1).then(|| Bank::wire(&cells, Wiring::Series, guides));
    let motors: Vec<&Drawing> = draws.iter().filter(|d| d.motor).collect();
    let watts: f64 = motors.iter().map(|d| d.watts).sum();
    let volts = motors.iter().map(|d| d.volts);
    let given = usable_for(volts, bank.as_ref().ok(), series.as_ref());
    let given = given.map(|usable| usable - taken);
    let range = given.filter(|left| watts > 0.0 && *left > 0.0);
    let range = range.and_then(|left| motor_range(setup, shape, watts, 3600.0 * left));
    Some(Power {
        series,
        cables: cables(setup, &draws),
        left,
        day,
        range,
        hours,
        bank,
        draws,
    })
}

/// What the batteries give motors of `volts`, Wh: of the ways to wire them that feed
/// every one the one that gives least, since nobody said how they are wired; `None`
/// where none feeds them.
fn usable_for(
    volts: impl Iterator<Item = Option<f64>> + Clone,
    parallel: Option<&Bank>,
    series: Option<&Result<Bank, BankError>>,
) -> Option<f64> {
    let series = series.and_then(|bank| bank.as_ref().ok());
    let ways = parallel.into_iter().chain(series);
    let feeds = |bank: &&Bank| volts.clone().flatten().all(|v| bank.feeds(v));
    ways.filter(feeds).map(|b| b.usable).reduce(f64::min)
}

/// From the heaviest battery aboard to each thing that draws.
fn cables(setup: &Setup, draws: &[Drawing]) -> Vec<Cable> {
    let layout = &setup.loads.layout;
    let is_battery = |line: usize| {
        let thing = setup
            .brief
            .rig
            .lines
            .get(line)
            .and_then(|l| l.thing.as_ref());
        thing.is_some_and(|t| matches!(t.electric, Electric::Battery { .. }))
    };
    let batteries = layout.stowed.iter().filter(|s| is_battery(s.line));
    let mut cables = steering(setup, draws);
    let Some(battery) = batteries.max_by(|a, b| a.loaded_mass.total_cmp(&b.loaded_mass)) else {
        return cables;
    };
    let mut names: Vec<&str> = draws.iter().map(|d| d.name.as_str()).collect();
    names.dedup();
    let drawn = layout
        .stowed
        .iter()
        .filter(|s| names.contains(&s.item.as_str()));
    let fed = drawn.filter(|s| s.lies.is_some()).map(|s| {
        let along = (s.x - battery.x).abs();
        let across = (s.y - battery.y).abs();
        let up = (s.above_floor - battery.above_floor).abs();
        Cable {
            from: battery.item.clone(),
            to: s.item.clone(),
            length: along + across + up + SLACK,
        }
    });
    cables.extend(fed);
    cables
}

/// A stern motor's steering cable, along the side from it to the feet.
fn steering(setup: &Setup, draws: &[Drawing]) -> Vec<Cable> {
    let (space, layout) = (setup.space(), &setup.loads.layout);
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
            length: along + space.size[1] + SLACK,
        }
    })
    .collect()
}

/// Where a steering cable ends.
pub const STEERED_FROM: &str = "the pedals, to steer";

#[cfg(test)]
mod tests {
    use super::*;
    use galvet_core::gear::Chemistry;
    use galvet_core::guide::Guides;

    #[test]
    fn a_motor_gets_what_the_wiring_that_feeds_it_gives() {
        let guides = Guides::default();
        let cell = |amp_hours: f64| Cell {
            name: "battery".to_owned(),
            volts: 12.8,
            amp_hours,
            chemistry: Chemistry::Lifepo4,
        };
        let cells = [cell(100.0), cell(60.0)];
        let parallel = Bank::wire(&cells, Wiring::Parallel, &guides).unwrap();
        let series = Some(Bank::wire(&cells, Wiring::Series, &guides));
        let given = |volts: &[Option<f64>]| {
            usable_for(volts.iter().copied(), Some(&parallel), series.as_ref())
        };
        let near = |a: Option<f64>, b: f64| a.is_some_and(|a| (a - b).abs() < 1e-9);
        // Side by side 160 Ah of 12.8 V, one after the other 60 Ah of 25.6 V.
        assert!(near(given(&[Some(12.0)]), 0.9 * 12.8 * 160.0));
        assert!(near(given(&[Some(24.0)]), 0.9 * 25.6 * 60.0));
        // Nobody said: what gives least.
        assert!(near(given(&[None]), 0.9 * 25.6 * 60.0));
        assert_eq!(given(&[Some(36.0)]), None);
        assert_eq!(given(&[Some(12.0), Some(24.0)]), None);
    }
}
