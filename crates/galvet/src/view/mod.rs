//! What the pages show, as plain owned values: every number already in the
//! reader's units, every choice already made. Templates only lay it out.

pub(crate) mod hull;
pub(crate) mod ranking;
pub(crate) mod sentence;

use galvet_core::assess::Assessment;
use galvet_core::quantity::Quantity;
use galvet_core::sample::Range;
use galvet_core::units::{Dimension, System};

/// A figure with its range, in words.
pub(crate) struct Figure {
    pub(crate) key: &'static str,
    pub(crate) symbol: &'static str,
    pub(crate) label: &'static str,
    pub(crate) meaning: &'static str,
    pub(crate) value: String,
    /// Whether the hull has such a figure at all.
    pub(crate) known: bool,
    /// Words of the guide band it lies in; empty where there is none.
    pub(crate) band: String,
    /// "5.1 to 7.3 cm"; empty where the range is no wider than the last digit.
    pub(crate) range: String,
}

/// A figure of an assessment; a margin says its share of the load as well.
pub(crate) fn figure_of(assessment: &Assessment<'_>, quantity: Quantity, system: System) -> Figure {
    let mut out = figure(quantity, assessment.range(quantity), system);
    let margin = matches!(
        quantity,
        Quantity::LabelMargin
            | Quantity::WorkingMargin
            | Quantity::WaterlineMargin
            | Quantity::BindingMargin
    );
    if margin && let Some(kg) = assessment.median(quantity) {
        let share = 100.0 * kg / assessment.setup.loads.counted_mass().max(1.0);
        out.band = format!(
            "{}\u{a0}% of the load",
            system.number(Dimension::Ratio, share, 0)
        );
    }
    out
}

/// Puts a figure into words; a figure not known says so.
fn figure(quantity: Quantity, range: Option<Range>, system: System) -> Figure {
    let row = quantity.row();
    let value = match range {
        Some(r) => row.text(system, r.p50),
        None => quantity.absent().to_owned(),
    };
    let width = range.and_then(|r| {
        let (lo, hi) = (row.number(system, r.p5), row.text(system, r.p95));
        (row.number(system, r.p5) != row.number(system, r.p95)).then(|| format!("{lo} to {hi}"))
    });
    Figure {
        key: row.key,
        symbol: row.symbol,
        label: row.label,
        meaning: row.meaning,
        value,
        known: range.is_some(),
        band: range
            .and_then(|r| quantity.band(r.p50))
            .unwrap_or_default()
            .to_owned(),
        range: width.unwrap_or_default(),
    }
}
