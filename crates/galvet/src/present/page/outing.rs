//! A day with a rig on a hull: what comes and goes, what is lost when she goes
//! over, what the batteries give.

use crate::answer::{Board, Point, Power, STEERED_FROM};
use crate::present::draw::{coordinate, path};
use galvet_core::base::{Dimension, Keyed, System};
use galvet_core::crew::{Crew, Posture};
use galvet_core::figures::Quantity;
use galvet_core::power::{Bank, BankError, Warning};
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
    /// Whether she is ranked by it.
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

/// Power in words.
pub struct PowerView {
    pub bank: String,
    pub warnings: Vec<String>,
    pub draws: Vec<String>,
    pub hours: String,
    /// What is left at the day's end.
    pub left: String,
    /// How far a motor goes.
    pub range: String,
    pub cables: Vec<String>,
}

pub(super) fn losses(board: &Board, system: System) -> Vec<LossLine> {
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

pub(super) fn lost(board: &Board, system: System) -> String {
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

pub(super) fn red(board: &Board) -> Vec<String> {
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
/// least and its most; left out where she does not rest at some point.
pub(super) fn curves(points: &[Point], system: System) -> Vec<DayCurve> {
    let points = || points.iter().filter(|p| p.hour.is_some());
    let curve = |label, values: Vec<Option<f64>>, text: &dyn Fn(f64) -> String| {
        let values: Vec<f64> = values.into_iter().collect::<Option<_>>()?;
        let least = values.iter().copied().fold(f64::INFINITY, f64::min);
        let most = values.iter().copied().fold(f64::NEG_INFINITY, f64::max);
        // A level line stands in the middle.
        let span = (most - least).max(1e-9);
        let at = |n: usize, v: f64| {
            let share = if most > least {
                (v - least) / span
            } else {
                0.5
            };
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

/// The day in lines; in each column the point by which she is ranked is marked.
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

/// Motors whose voltage the batteries do not give, and how they could.
fn unfed(power: &Power) -> Vec<String> {
    let banks = [
        ("side by side", Some(&power.bank)),
        ("one after the other", power.series.as_ref()),
    ];
    let feeding = |volts: f64| {
        let mut ways = banks.iter().filter_map(|(how, b)| Some((*how, (*b)?)));
        ways.find(|(_, b)| b.as_ref().is_ok_and(|b| b.feeds(volts)))
    };
    let mut out = Vec::new();
    for drawing in &power.draws {
        let Some(volts) = drawing.volts else { continue };
        let name = &drawing.name;
        match (feeding(volts), &power.series) {
            (None, _) if matches!(power.bank, Err(BankError::Empty)) => {
                out.push(format!("{name}: needs {volts:.0}\u{a0}V, and there is no battery"));
            }
            (None, _) => out.push(format!(
                "{name}: needs {volts:.0}\u{a0}V; these batteries do not give that however they are wired"
            )),
            (Some((how, _)), Some(_)) => out.push(format!(
                "{name}: needs {volts:.0}\u{a0}V; wire the batteries {how}"
            )),
            (Some(_), None) => {}
        }
    }
    out
}

/// What is left at the end of a day of all that is no motor.
fn left(power: &Power) -> String {
    let (Some(left), Ok(bank)) = (power.left, &power.bank) else {
        return String::new();
    };
    if bank.usable <= 0.0 {
        return String::new();
    }
    format!(
        "After {:.0} hours of all but a motor {left:.0}\u{a0}Wh are left, {:.0}\u{a0}% of what can be used",
        power.day,
        100.0 * left / bank.usable
    )
}

/// How far a motor goes on what is left.
fn range(power: &Power, system: System) -> String {
    let Some((full, gentle)) = power.range else {
        return String::new();
    };
    let far = |m: f64| system.text(Dimension::Distance, m, 0);
    format!(
        "By motor on that: {} at its full draw, {} gently, in still air and water, three tenths kept back (estimate)",
        far(full),
        far(gentle)
    )
}

pub(super) fn power(power: &Power, system: System) -> PowerView {
    let of_bank = |bank: &Result<Bank, BankError>| match bank {
        Ok(b) => format!(
            "{:.1}\u{a0}V, {:.0}\u{a0}Ah, {:.0}\u{a0}Wh, of which {:.0}\u{a0}Wh can be used",
            b.volts, b.amp_hours, b.energy, b.usable
        ),
        Err(problem) => problem.to_string(),
    };
    let mut warnings = Vec::new();
    let mut warn = |how: &str, bank: &Result<Bank, BankError>| {
        for warning in bank.iter().flat_map(|b| &b.warnings) {
            warnings.push(match warning {
                Warning::SmallestCounts {
                    name,
                    amp_hours,
                    lost,
                } => format!(
                    "{how}: as large as its smallest, {name} with {amp_hours:.0}\u{a0}Ah; {lost:.0}\u{a0}Wh of the others are carried for nothing"
                ),
                Warning::MixedChemistry => {
                    format!("{how}: different chemistries do not suit one charger and cut-off")
                }
                Warning::UnequalInParallel => {
                    format!("{how}: the larger one charges the smaller when they are joined")
                }
            });
        }
    };
    warn("side by side", &power.bank);
    let mut bank = match &power.bank {
        Err(BankError::Empty) => "No battery on this rig.".to_owned(),
        bank => of_bank(bank),
    };
    if let Some(series) = &power.series {
        warn("one after the other", series);
        bank = format!(
            "Side by side: {bank}. One after the other: {}",
            of_bank(series)
        );
    }
    warnings.extend(unfed(power));
    PowerView {
        bank,
        warnings,
        draws: power
            .draws
            .iter()
            .map(|d| {
                let kind = if d.motor { ", a motor" } else { "" };
                let at = d
                    .volts
                    .map_or(String::new(), |v| format!(" at {v:.0}\u{a0}V"));
                format!(
                    "{}: {:.0}\u{a0}W{at}, {:.0}\u{a0}% of the time{kind}",
                    d.name,
                    d.watts,
                    d.duty * 100.0
                )
            })
            .collect(),
        hours: power.hours.map_or(String::new(), |h| {
            format!("{h:.0} hours for all but a motor, three tenths kept back")
        }),
        left: left(power),
        range: range(power, system),
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
