//! A day with a rig on a hull: what comes and goes, what is lost when she goes
//! over, what the batteries give.

use crate::answer::{Board, Point, Power};
use galvet_core::base::{Dimension, Keyed, System};
use galvet_core::figures::Quantity;
use galvet_core::power::{Bank, BankError, Warning};
use galvet_core::stow::Loss;

/// A line of the day.
pub struct DayLine {
    pub label: &'static str,
    pub load: String,
    pub freeboard: String,
    pub trim: String,
    /// Height of the load's bar, of a hundred.
    pub share: f64,
    pub worst: bool,
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
    if !audit.aid_worn {
        out.push(
            "No flotation aid is worn on this rig. Its only place is on the person.".to_owned(),
        );
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

pub(super) fn day(points: &[Point], system: System) -> Vec<DayLine> {
    let most = points.iter().map(|p| p.load).fold(1.0, f64::max);
    let lowest = |p: &Point| {
        p.figures
            .get(Quantity::Freeboard)
            .unwrap_or(f64::NEG_INFINITY)
    };
    let worst = points.iter().map(lowest).fold(f64::INFINITY, f64::min);
    let text = |p: &Point, q: Quantity| {
        let value = p.figures.get(q);
        value.map_or("does not rest".to_owned(), |v| q.row().text(system, v))
    };
    points
        .iter()
        .map(|p| DayLine {
            label: p.hour.label(),
            load: system.text(Dimension::Mass, p.load, 0),
            freeboard: text(p, Quantity::Freeboard),
            trim: text(p, Quantity::Trim),
            share: (100.0 * p.load / most).round(),
            worst: lowest(p) <= worst,
        })
        .collect()
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
    PowerView {
        bank,
        warnings,
        draws: power
            .draws
            .iter()
            .map(|(name, watts, duty, motor)| {
                let kind = if *motor { ", a motor" } else { "" };
                format!(
                    "{name}: {watts:.0}\u{a0}W, {:.0}\u{a0}% of the time{kind}",
                    duty * 100.0
                )
            })
            .collect(),
        hours: power.hours.map_or(String::new(), |h| {
            format!("{h:.0} hours for all but a motor, three tenths kept back")
        }),
        cables: power
            .cables
            .iter()
            .map(|c| {
                format!(
                    "{} → {}: {} with slack",
                    c.from,
                    c.to,
                    system.text(Dimension::Length, c.length, 1)
                )
            })
            .collect(),
    }
}
