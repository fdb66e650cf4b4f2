//! What the pages show, as plain owned values: every number already in the
//! reader's units, every choice already made. Templates only lay it out.

pub(crate) mod hull;
pub(crate) mod ranking;
pub(crate) mod sentence;

use galvet_core::quantity::Quantity;
use galvet_core::sample::Range;
use galvet_core::units::System;

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
    pub(crate) band: &'static str,
    /// "5.1 to 7.3 cm"; empty where the range is no wider than the last digit.
    pub(crate) range: String,
}

/// Puts a figure into words; a figure not known says so.
pub(crate) fn figure(quantity: Quantity, range: Option<Range>, system: System) -> Figure {
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
        band: range.and_then(|r| quantity.band(r.p50)).unwrap_or_default(),
        range: width.unwrap_or_default(),
    }
}
