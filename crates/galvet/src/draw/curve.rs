//! Curves: righting arms over heel, effort over speed.

use super::{coordinate, path};
use galvet_core::effort::outlook::Outlook;
use galvet_core::portrait::CurvePoint;
use galvet_core::quantity::Quantity;
use galvet_core::units::{Dimension, System};

/// A righting curve.
pub(crate) struct Curve {
    pub(crate) line: String,
    pub(crate) zero: String,
    /// Tick place and label along the heel.
    pub(crate) heels: Vec<(String, String)>,
    /// Tick place and label along the arm.
    pub(crate) arms: Vec<(String, String)>,
    pub(crate) words: String,
}

const CURVE: (f64, f64) = (420.0, 170.0);

/// Draws the righting curve in a box of 480 × 220.
pub(crate) fn curve(points: &[CurvePoint], system: System) -> Curve {
    let most = points.iter().map(|p| p.gz).fold(0.02, f64::max);
    let least = points.iter().map(|p| p.gz).fold(-0.02, f64::min);
    let step = [0.02, 0.05, 0.1, 0.2]
        .into_iter()
        .find(|s| (most - least) / s <= 6.0)
        .unwrap_or(0.5);
    let (lo, hi) = ((least / step).floor() * step, (most / step).ceil() * step);
    let x = |deg: f64| 50.0 + deg / 90.0 * CURVE.0;
    let y = |gz: f64| 12.0 + (hi - gz) / (hi - lo) * CURVE.1;
    let peak = points.iter().copied().max_by(|a, b| a.gz.total_cmp(&b.gz));
    let count = ((hi - lo) / step).round() as u32;
    Curve {
        line: path(points.iter().map(|p| (x(p.heel_deg), y(p.gz))), false),
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
        words: peak.map_or(String::new(), |p| {
            format!(
                "Righting arm against heel, seated, median shape: largest {} at {:.0}°",
                Quantity::RightingPeak.row().text(system, p.gz.max(0.0)),
                p.heel_deg
            )
        }),
    }
}

/// Effort over speed: a band for the range, a line for the middle.
pub(crate) struct EffortCurve {
    pub(crate) line: String,
    pub(crate) band: String,
    /// The effort that can be kept up, as a band across: y and height.
    pub(crate) kept_up: (String, String),
    pub(crate) speeds: Vec<(String, String)>,
    pub(crate) powers: Vec<(String, String)>,
    pub(crate) words: String,
}

/// Draws effort over speed in a box of 480 × 214.
pub(crate) fn effort_curve(outlook: &Outlook, system: System) -> EffortCurve {
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
