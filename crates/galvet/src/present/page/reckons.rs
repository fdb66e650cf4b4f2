//! "How Galvet reckons": every guide value with its unit, range and source.

use galvet_core::base::{Dimension, Keyed, System};
use galvet_core::guide::{Guide, Guides, Section};

/// A guide value as it is shown.
pub struct GuideLine {
    /// Name in the file of one's own values.
    pub key: &'static str,
    /// What it is.
    pub meaning: &'static str,
    /// Value in force.
    pub value: String,
    /// Accepted range.
    pub range: String,
    /// Where the shipped value comes from.
    pub source: &'static str,
    /// The shipped value, where another is in force.
    pub shipped: String,
}

/// A section of the table.
pub struct GuideSection {
    /// Its title.
    pub title: &'static str,
    /// Its lines.
    pub lines: Vec<GuideLine>,
}

/// Digits after the point that a guide value is shown with, in metric units.
fn decimals(dimension: Dimension, value: f64) -> usize {
    match dimension {
        Dimension::ShortLength | Dimension::Mass => 1,
        Dimension::FineLength | Dimension::Energy | Dimension::Power => 0,
        Dimension::Length => 2,
        Dimension::Ratio if value.abs() < 0.1 && value != 0.0 => 3,
        Dimension::Ratio => 2,
        _ => 1,
    }
}

/// The whole table.
#[must_use]
pub fn table(guides: &Guides, system: System) -> Vec<GuideSection> {
    Section::ALL
        .iter()
        .map(|&section| GuideSection {
            title: section.label(),
            lines: Guide::ALL
                .iter()
                .filter(|g| g.row().section == section)
                .map(|&guide| line(guide, guides, system))
                .collect(),
        })
        .collect()
}

fn line(guide: Guide, guides: &Guides, system: System) -> GuideLine {
    let row = guide.row();
    let digits = decimals(row.dimension, row.value);
    let text = |si| system.text(row.dimension, si, digits);
    let number = |si| system.number(row.dimension, si, digits);
    GuideLine {
        key: row.key,
        meaning: row.meaning,
        value: text(guides[guide]),
        range: format!("{} to {}", number(row.lo), text(row.hi)),
        source: row.source,
        shipped: if guides.is_changed(guide) {
            text(row.value)
        } else {
            String::new()
        },
    }
}
