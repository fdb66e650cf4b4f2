//! A day with a rig on a hull: what comes and goes, what is lost when it goes
//! over, what the batteries give.

use crate::answer::{Closeup, Point};
use crate::present::draw::{coordinate, path};
use galvet_core::advise::power::{Fed, Power, STEERED_FROM};
use galvet_core::base::{Dimension, Keyed, System};
use galvet_core::circuit::{Circuit, Load};
use galvet_core::crew::{Crew, Posture};
use galvet_core::figures::Quantity;
use galvet_core::power::Wiring;
use galvet_core::stow::{LEVEL, Loss};

/// A line of the day.
pub struct DayLine {
    pub label: &'static str,
    pub load: String,
    /// Height of the load's bar, of a hundred.
    pub share: f64,
    pub cells: Vec<DayCell>,
}

/// A figure at a point of the day.
pub struct DayCell {
    pub value: String,
    /// Whether it is ranked by it.
    pub worst: bool,
    /// What is wrong with it; empty where nothing is.
    pub band: &'static str,
}

/// The figures told through the day.
fn day_figures(posture: Posture) -> [Quantity; 3] {
    let steady = if posture.stands() {
        Quantity::StandingSupport
    } else {
        Quantity::LeanRoom
    };
    [Quantity::Freeboard, Quantity::Trim, steady]
}

/// Their names, for the table's head.
pub(super) fn day_heads(posture: Posture) -> Vec<&'static str> {
    day_figures(posture).map(|q| q.row().label).to_vec()
}

/// One figure through the day, drawn.
pub struct DayCurve {
    pub label: &'static str,
    pub line: String,
    /// Where each point lies, and what it says.
    pub points: Vec<(String, String, String)>,
}

/// What is lost.
pub struct LossLine {
    pub name: String,
    pub loss: &'static str,
    pub wets: bool,
    pub price: String,
}

/// One circuit in words.
pub struct CircuitView {
    pub pack: String,
    pub loads: Vec<String>,
    /// Hours, what is left, how far.
    pub told: Vec<String>,
}

/// Power in words.
pub struct PowerView {
    pub warnings: Vec<String>,
    pub circuits: Vec<CircuitView>,
    pub cables: Vec<String>,
}

pub(super) fn losses(board: &Closeup, system: System) -> Vec<LossLine> {
    let gone = board.audit.things.iter();
    gone.filter(|t| t.loss != Loss::Stays || t.wets)
        .map(|t| LossLine {
            name: t.item.clone(),
            loss: t.loss.label(),
            wets: t.wets,
            price: t.price.map_or("price not known".to_owned(), |p| {
                system.text(Dimension::Money, p, 0)
            }),
        })
        .collect()
}

pub(super) fn lost(board: &Closeup, system: System) -> String {
    let audit = &board.audit;
    let sum = system.text(Dimension::Money, audit.lost, 0);
    let more = match audit.unpriced {
        0 => String::new(),
        1 => ", and one thing whose price is not known".to_owned(),
        n => format!(", and {n} things whose price is not known"),
    };
    format!(
        "{sum} lost or spoilt{more}; {} lines in the water one could hang in",
        audit.lines
    )
}

pub(super) fn red(board: &Closeup) -> Vec<String> {
    let audit = &board.audit;
    let mut out = Vec::new();
    let people = Crew::seats_with(&board.setup.brief.others);
    match (audit.aids_worn, people) {
        (0, _) => out.push(
            "No flotation aid is worn on this rig. Its only place is on the person.".to_owned(),
        ),
        (worn, people) if worn < people => out.push(format!(
            "{people} people and {worn} flotation aid worn: each wears one of the right size."
        )),
        _ => {}
    }
    for aid in &audit.aids_stowed {
        out.push(format!("The {aid} is stowed: wear it."));
    }
    for leash in &audit.leashed {
        out.push(format!(
            "{leash} is clipped to the person: never near current or an anchor line."
        ));
    }
    out
}

/// Load, freeboard and trim through the day, each in a box of 220 × 70 between its
/// least and its most; left out where it does not rest at some point.
pub(super) fn curves(points: &[Point], system: System) -> Vec<DayCurve> {
    let points = || points.iter().filter(|p| p.hour.is_some());
    let curve = |label, values: Vec<Option<f64>>, text: &dyn Fn(f64) -> String| {
        let values: Vec<f64> = values.into_iter().collect::<Option<_>>()?;
        let least = values.iter().copied().fold(f64::INFINITY, f64::min);
        let most = values.iter().copied().fold(f64::NEG_INFINITY, f64::max);
        // A level line stands in the middle.
        let span = (most - least).max(1e-9);
        // What is told as one and the same is drawn so.
        let moves = text(most) != text(least);
        let at = |n: usize, v: f64| {
            let share = if moves { (v - least) / span } else { 0.5 };
            let step = 160.0 / values.len().saturating_sub(1).max(1) as f64;
            (30.0 + step * n as f64, 54.0 - 30.0 * share)
        };
        let places: Vec<(f64, f64)> = values.iter().enumerate().map(|(n, &v)| at(n, v)).collect();
        let said = places.iter().zip(&values);
        Some(DayCurve {
            label,
            points: said
                .map(|(&(x, y), &v)| (coordinate(x), coordinate(y), text(v)))
                .collect(),
            line: path(places, false),
        })
    };
    let figure = |q: Quantity| points().map(move |p| p.figures.get(q)).collect();
    let row = |q: Quantity| move |v: f64| q.row().text(system, v);
    let all = [
        curve(
            "crew and kit",
            points().map(|p| Some(p.load)).collect(),
            &|kg| system.text(Dimension::Mass, kg, 0),
        ),
        curve(
            "least freeboard",
            figure(Quantity::Freeboard),
            &row(Quantity::Freeboard),
        ),
        curve("trim, bow up", figure(Quantity::Trim), &row(Quantity::Trim)),
    ];
    all.into_iter().flatten().collect()
}

/// The day in lines; in each column the point by which it is ranked is marked.
pub(super) fn day(points: &[Point], posture: Posture, system: System) -> Vec<DayLine> {
    let most = points.iter().map(|p| p.load).fold(1.0, f64::max);
    let worst = day_figures(posture).map(|q| {
        let values = points.iter().map(|p| p.figures.raw(q));
        values.reduce(|a, b| q.worse(a, b))
    });
    let cell = |p: &Point, (q, worst): (Quantity, Option<f64>)| {
        let value = p.figures.get(q);
        DayCell {
            value: value.map_or("does not rest".to_owned(), |v| q.row().text(system, v)),
            worst: worst == value,
            band: value
                .filter(|v| q == Quantity::Trim && !(LEVEL.0..=LEVEL.1).contains(v))
                .and_then(|v| q.band(v))
                .unwrap_or_default(),
        }
    };
    let figures = || day_figures(posture).into_iter().zip(worst);
    points
        .iter()
        .map(|p| DayLine {
            label: p.hour.map_or("all of it at once", |hour| hour.label()),
            load: system.text(Dimension::Mass, p.load, 0),
            share: (100.0 * p.load / most).round(),
            cells: figures().map(|figure| cell(p, figure)).collect(),
        })
        .collect()
}

/// A load in words.
fn drawing(load: &Load) -> String {
    let kind = if load.motor { ", a motor" } else { "" };
    let at = load.volts;
    let at = at.map_or(String::new(), |v| format!(" at {v:.0}\u{a0}V"));
    format!(
        "{}: {:.0}\u{a0}W{at}, {:.0}\u{a0}% of the time{kind}",
        load.name,
        load.watts,
        load.duty * 100.0
    )
}

/// What a pack is: "2 × battery, one after the other: 25.6 V, ...".
fn pack(circuit: &Circuit) -> String {
    let b = &circuit.bank;
    let name = match circuit.count {
        1 => circuit.battery.clone(),
        n => format!("{n} × {}", circuit.battery),
    };
    let how = match circuit.wiring {
        None => "",
        Some(Wiring::Parallel) => ", side by side",
        Some(Wiring::Series) => ", one after the other",
    };
    format!(
        "{name}{how}: {:.1}\u{a0}V, {:.0}\u{a0}Ah, {:.0}\u{a0}Wh, of which {:.0}\u{a0}Wh can be used",
        b.volts, b.amp_hours, b.energy, b.usable
    )
}

fn circuit(fed: &Fed, day: f64, system: System) -> CircuitView {
    let c = &fed.circuit;
    let far = |m: f64| system.text(Dimension::Distance, m, 0);
    let small = c.loads.iter().any(|l| !l.motor);
    let mut told = Vec::new();
    if let Some(hours) = fed.hours {
        told.push(format!(
            "{hours:.0} hours for all but a motor, three tenths kept back"
        ));
    }
    if small && c.bank.usable > 0.0 {
        told.push(format!(
            "after {day:.0} hours of all but a motor {:.0}\u{a0}Wh are left, {:.0}\u{a0}% of what can be used",
            fed.left,
            100.0 * fed.left / c.bank.usable
        ));
    }
    if let Some((full, gentle)) = fed.range {
        told.push(format!(
            "by motor on that: {} at its full draw, {} gently, in still air and water, three tenths kept back (estimate)",
            far(full),
            far(gentle)
        ));
    }
    if !c.loads.is_empty() {
        told.push(format!(
            "with all of it on {:.0}\u{a0}A: fuse at the battery and cables for no less, as their makers say",
            c.amperes().ceil()
        ));
    }
    CircuitView {
        pack: pack(c),
        loads: c.loads.iter().map(drawing).collect(),
        told,
    }
}

pub(super) fn power(power: &Power, system: System) -> PowerView {
    let mut warnings = Vec::new();
    for load in &power.unfed {
        let needs = load
            .volts
            .map_or(String::new(), |v| format!(" needs {v:.0}\u{a0}V, and"));
        warnings.push(if power.circuits.is_empty() {
            format!("{}:{needs} there is no battery", load.name)
        } else {
            format!(
                "{}:{needs} no battery here gives that, alone or with others like it",
                load.name
            )
        });
    }
    if power.circuits.iter().any(|f| f.circuit.asked) {
        warnings.push(
            "more than one battery would do: motors are taken to hang on the largest, all else on the smallest; is that so?"
                .to_owned(),
        );
    }
    PowerView {
        warnings,
        circuits: power
            .circuits
            .iter()
            .map(|fed| circuit(fed, power.day, system))
            .collect(),
        cables: power
            .cables
            .iter()
            .map(|c| {
                let length = system.text(Dimension::Length, c.length, 1);
                let first = if c.to == STEERED_FROM {
                    "; order it after the seat's place is settled"
                } else {
                    ""
                };
                format!("{} → {}: {length} with slack{first}", c.from, c.to)
            })
            .collect(),
    }
}
