//! Methods: every guide value with its unit, range and source.

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

/// Most digits after the point.
const FINEST: usize = 5;

/// Digits after the point, in metric units, that show every one of `values` as
/// it is: what reckons must not be rounded on the page that says so.
fn decimals(dimension: Dimension, values: [f64; 4]) -> usize {
    let least = match dimension {
        Dimension::FineLength | Dimension::Energy | Dimension::Power => 0,
        Dimension::Length | Dimension::Ratio => 2,
        _ => 1,
    };
    let shown = values.map(|si| System::Metric.convert(dimension, si));
    let whole = |digits: usize| {
        let scale = 10_f64.powi(i32::try_from(digits).unwrap_or(0));
        let off = |v: f64| (v * scale - (v * scale).round()).abs();
        shown.iter().all(|&v| off(v) < 1e-6)
    };
    (least..FINEST).find(|&d| whole(d)).unwrap_or(FINEST)
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
    let digits = decimals(row.dimension, [guides[guide], row.value, row.lo, row.hi]);
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

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_value_is_shown_as_it_reckons() {
        let lines = table(&Guides::default(), System::Metric);
        let lines: Vec<_> = lines.iter().flat_map(|s| &s.lines).collect();
        assert_eq!(lines.len(), Guide::ALL.len());
        for line in &lines {
            let guide = Guide::ALL.iter().find(|g| g.row().key == line.key);
            let row = guide.unwrap().row();
            let number = line.value.split(['\u{a0}', '°']).next().unwrap();
            let number: f64 = number.replace('\u{2009}', "").parse().unwrap();
            let exact = System::Metric.convert(row.dimension, row.value);
            let off = (number - exact).abs();
            assert!(off < 1e-6 * exact.max(1.0), "{}: {}", row.key, line.value);
        }
        let knee = lines.iter().find(|l| l.key == "crew.knee_height").unwrap();
        assert_eq!(
            (knee.value.as_str(), knee.range.as_str()),
            ("0.285", "0.250 to 0.320")
        );
    }
}
