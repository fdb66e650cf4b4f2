//! Curves: righting arms over heel, effort over speed.

use super::{coordinate, path};
use galvet_core::base::{Dimension, System};
use galvet_core::figures::{Quantity, outlook::Outlook};
use galvet_core::portrait::Curves;

/// Righting curves: one for each way of leaning, none across flooding.
pub struct Curve {
    /// Lasting: as the scuppers leave the hull open.
    pub lasting: String,
    /// Brief: the sealed hull; empty where it is the same.
    pub brief: String,
    /// Full of water; empty where nothing fills.
    pub full: String,
    /// Where water runs in: its place, and the heel in words.
    pub fills: Option<(String, String)>,
    /// Level of no arm.
    pub zero: String,
    /// Tick place and label along the heel.
    pub heels: Vec<(String, String)>,
    /// Tick place and label along the arm.
    pub arms: Vec<(String, String)>,
    /// The whole in words.
    pub words: String,
}

const CURVE: (f64, f64) = (420.0, 170.0);

/// Draws the righting curves in a box of 496 × 214.
#[must_use]
pub fn curve(curves: &Curves, system: System) -> Curve {
    let all = || {
        let (lasting, brief, full) = (&curves.lasting, &curves.brief, &curves.full);
        lasting.iter().chain(brief).chain(full)
    };
    let most = all().map(|p| p.1).fold(0.02, f64::max);
    let least = all().map(|p| p.1).fold(-0.02, f64::min);
    let step = [0.02, 0.05, 0.1, 0.2, 0.5]
        .into_iter()
        .find(|s| (most - least) / s <= 6.0)
        .unwrap_or(1.0);
    let (lo, hi) = ((least / step).floor() * step, (most / step).ceil() * step);
    let x = |deg: f64| 50.0 + deg / 90.0 * CURVE.0;
    let y = |gz: f64| 12.0 + (hi - gz) / (hi - lo) * CURVE.1;
    let line = |points: &[(f64, f64)]| path(points.iter().map(|p| (x(p.0), y(p.1))), false);
    let peak = curves
        .lasting
        .iter()
        .copied()
        .max_by(|a, b| a.1.total_cmp(&b.1));
    let count = ((hi - lo) / step).round() as u32;
    Curve {
        lasting: line(&curves.lasting),
        brief: line(&curves.brief),
        full: line(&curves.full),
        fills: curves
            .fills_at
            .map(|deg| (coordinate(x(deg)), format!("water runs in at {deg:.0}°"))),
        zero: coordinate(y(0.0)),
        heels: (0..=6)
            .map(|i| {
                let deg = 15.0 * f64::from(i);
                (coordinate(x(deg)), format!("{deg:.0}°"))
            })
            .collect(),
        arms: (0..=count)
            .map(|i| {
                let gz = lo + step * f64::from(i);
                (
                    coordinate(y(gz)),
                    system.text(Dimension::ShortLength, gz, 0),
                )
            })
            .collect(),
        words: peak.map_or("No righting arm: it finds no rest".to_owned(), |p| {
            format!(
                "Righting arm against heel, seated, middle shape: largest {} at {:.0}°",
                Quantity::RightingPeak.row().text(system, p.1.max(0.0)),
                p.0
            )
        }),
    }
}

/// Effort over speed: a band for the range, a line for the middle.
pub struct EffortCurve {
    pub line: String,
    pub band: String,
    /// The effort that can be kept up, as a band across: y and height.
    pub kept_up: (String, String),
    pub speeds: Vec<(String, String)>,
    pub powers: Vec<(String, String)>,
    pub words: String,
}

/// Draws effort over speed in a box of 480 × 214.
pub fn effort_curve(outlook: &Outlook, system: System) -> EffortCurve {
    let most = 2.0 * outlook.effort[2];
    let shown: Vec<_> = outlook.curve.iter().filter(|p| p.1.p50 <= most).collect();
    let fastest = shown.last().map_or(1.0, |p| p.0).max(0.5);
    let x = |speed: f64| 50.0 + speed / fastest * CURVE.0;
    let y = |watts: f64| 12.0 + (1.0 - (watts / most).min(1.0)) * CURVE.1;
    let upper = shown.iter().map(|p| (x(p.0), y(p.1.p95)));
    let lower = shown.iter().rev().map(|p| (x(p.0), y(p.1.p5)));
    let top = y(outlook.effort[2]);
    EffortCurve {
        line: path(shown.iter().map(|p| (x(p.0), y(p.1.p50))), false),
        band: path(upper.chain(lower), true),
        kept_up: (coordinate(top), coordinate(y(outlook.effort[0]) - top)),
        speeds: (0..=4)
            .map(|i| {
                let speed = fastest * f64::from(i) / 4.0;
                (
                    coordinate(x(speed)),
                    system.text(Dimension::Speed, speed, 1),
                )
            })
            .collect(),
        powers: (0..=4)
            .map(|i| {
                let watts = most * f64::from(i) / 4.0;
                (coordinate(y(watts)), format!("{watts:.0}\u{a0}W"))
            })
            .collect(),
        words: format!(
            "Effort against speed: cruise about {}",
            system.text(Dimension::Speed, outlook.cruise.p50, 1)
        ),
    }
}
