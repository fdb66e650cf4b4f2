//! A figure in words.

use galvet_core::base::{Dimension, System};
use galvet_core::figures::{Assessment, Quantity, Range};

/// A figure with its range, in words.
pub struct Figure {
    /// Name in JSON.
    pub key: &'static str,
    /// Symbol.
    pub symbol: &'static str,
    /// Short label.
    pub label: &'static str,
    /// What it means.
    pub meaning: &'static str,
    /// Middle value with its unit, or why there is none.
    pub value: String,
    /// Whether there is a middle value.
    pub known: bool,
    /// Words of the guide band it lies in, and the hour at which it is worst where that
    /// is not with everything aboard; empty where there is neither.
    pub band: String,
    /// "5.1 to 7.3 cm"; empty where the range is no wider than the last digit.
    pub range: String,
    /// "holds in 40 % of its shapes"; empty where all have it.
    pub share: String,
}

/// A share of shapes in whole per cent, never 0 or 100 for a part of them.
#[must_use]
pub fn percent(share: f64) -> String {
    let percent = (share * 100.0).round().clamp(0.0, 100.0);
    let percent = match percent {
        0.0 if share > 0.0 => 1.0,
        100.0 if share < 1.0 => 99.0,
        whole => whole,
    };
    format!("{percent:.0}\u{a0}%")
}

/// A share with its sign, "+8 %", "−2 %".
#[must_use]
pub fn signed_percent(percent: f64) -> String {
    let whole = percent.round();
    let sign = match whole {
        w if w > 0.0 => "+",
        w if w < 0.0 => "\u{2212}",
        _ => "",
    };
    format!("{sign}{:.0}\u{a0}%", whole.abs())
}

/// Shapes missing a figure by less than this share are not worth a word.
const ALL: f64 = 0.995;

/// A figure of an assessment; a margin says its share of the load as well.
#[must_use]
pub fn figure_of(assessment: &Assessment, quantity: Quantity, system: System) -> Figure {
    let mut out = figure(quantity, assessment.range(quantity), system);
    let margin = matches!(
        quantity,
        Quantity::LabelMargin
            | Quantity::WorkingMargin
            | Quantity::WaterlineMargin
            | Quantity::BindingMargin
    );
    if margin
        && let (Some(kg), Some(load)) = (
            assessment.median(quantity),
            assessment.median(Quantity::Counted),
        )
    {
        let share = 100.0 * kg / load.max(1.0);
        out.band = format!(
            "{}\u{a0}% of the load",
            system.number(Dimension::Ratio, share, 0)
        );
    }
    if let Some(hour) = assessment.worst_at(quantity) {
        let gap = if out.band.is_empty() { "" } else { " · " };
        out.band = format!("{}{gap}{}", out.band, hour.when());
    }
    out
}

/// Puts a figure into words. One that most shapes don't have has no middle: its
/// share is said first.
fn figure(quantity: Quantity, range: Option<Range>, system: System) -> Figure {
    let row = quantity.row();
    let middle = range.filter(|r| r.share >= 0.5).map(|r| r.p50);
    let value = match middle {
        Some(value) => row.text(system, value),
        None => quantity.absent().to_owned(),
    };
    let width = range.and_then(|r| {
        let (lo, hi) = (row.number(system, r.p5), row.text(system, r.p95));
        let wide = row.number(system, r.p5) != row.number(system, r.p95);
        (wide || middle.is_none()).then(|| format!("{lo} to {hi}"))
    });
    let share = range.filter(|r| r.share < ALL).map(|r| {
        let then = if width.is_some() { ", then" } else { "" };
        format!("in {} of its shapes{then}", percent(r.share))
    });
    Figure {
        key: row.key,
        symbol: row.symbol,
        label: row.label,
        meaning: row.meaning,
        value,
        known: middle.is_some(),
        band: middle
            .and_then(|v| quantity.band(v))
            .unwrap_or_default()
            .to_owned(),
        range: width.unwrap_or_default(),
        share: share.unwrap_or_default(),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn range(share: f64) -> Range {
        Range {
            p5: 0.12,
            p50: 0.15,
            p95: 0.17,
            share,
        }
    }

    #[test]
    fn a_figure_of_part_of_the_shapes_says_so_first() {
        let all = figure(Quantity::LeanRoom, Some(range(1.0)), System::Metric);
        assert_eq!(
            (all.value.as_str(), all.share.as_str()),
            ("15.0\u{a0}cm", "")
        );
        let most = figure(Quantity::LeanRoom, Some(range(0.9)), System::Metric);
        assert_eq!(most.share, "in 90\u{a0}% of its shapes, then");
        assert_eq!(most.range, "12.0 to 17.0\u{a0}cm");
        let few = figure(Quantity::SidewaysRoom, Some(range(0.4)), System::Metric);
        assert!(!few.known);
        assert_eq!(few.value, "not on this hull");
        assert_eq!(few.share, "in 40\u{a0}% of its shapes, then");
    }

    #[test]
    fn a_part_is_never_none_nor_all() {
        assert_eq!(percent(0.0001), "1\u{a0}%");
        assert_eq!(percent(0.9999), "99\u{a0}%");
        assert_eq!(percent(0.0), "0\u{a0}%");
        let signed = [8.4, -0.4, -2.0].map(signed_percent);
        assert_eq!(signed, ["+8\u{a0}%", "0\u{a0}%", "\u{2212}2\u{a0}%"]);
    }
}
