//! A meter: where a figure lies on its scale, with its range and what the scale says.

use super::coordinate;
use galvet_core::figures::Range;

/// Units across.
const WIDTH: f64 = 300.0;

/// A part of the scale that has a name.
pub struct Part {
    pub x: String,
    pub width: String,
    pub words: &'static str,
    /// Whether the middle lies in it.
    pub here: bool,
}

/// A figure on its scale.
pub struct Meter {
    pub label: &'static str,
    /// The figure in words, and its range.
    pub value: String,
    pub range: String,
    pub parts: Vec<Part>,
    /// Where nine of ten shapes lie: from, width.
    pub soft: (String, String),
    /// The middle.
    pub at: String,
}

/// Draws a figure on a scale from `lowest` to `highest`, whose parts end at `edges` and
/// are called `words`: one more than there are edges.
pub fn meter(
    label: &'static str,
    (value, told): (Range, (String, String)),
    (lowest, highest): (f64, f64),
    edges: &[f64],
    words: &[&'static str],
) -> Meter {
    let share = |v: f64| ((v - lowest) / (highest - lowest)).clamp(0.0, 1.0);
    let x = |v: f64| share(if v.is_finite() { v } else { lowest }) * WIDTH;
    let ends = edges.iter().copied().chain([highest]);
    let mut from = lowest;
    let parts = ends.zip(words).map(|(to, words)| {
        let part = Part {
            x: coordinate(x(from)),
            width: coordinate(x(to) - x(from)),
            words,
            here: (from == lowest || value.p50 >= from) && (to == highest || value.p50 < to),
        };
        from = to;
        part
    });
    let parts = parts.collect();
    Meter {
        label,
        value: told.0,
        range: told.1,
        parts,
        soft: (
            coordinate(x(value.p5)),
            coordinate((x(value.p95) - x(value.p5)).max(2.0)),
        ),
        at: coordinate(x(value.p50)),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_figure_stands_where_its_scale_says() {
        let range = Range {
            p5: 0.5,
            p50: 0.9,
            p95: 1.2,
            share: 1.0,
        };
        let told = (String::new(), String::new());
        let words = ["sit", "short", "practice", "steady"];
        let drawn = meter(
            "support",
            (range, told),
            (0.0, 1.5),
            &[0.6, 0.8, 1.0],
            &words,
        );
        assert_eq!(drawn.at, coordinate(180.0));
        assert_eq!(drawn.soft, (coordinate(100.0), coordinate(140.0)));
        let here: Vec<bool> = drawn.parts.iter().map(|p| p.here).collect();
        assert_eq!(here, [false, false, true, false]);
        assert_eq!(drawn.parts[3].x, coordinate(200.0));
        // What does not exist at its worst stands at the worse end.
        let lost = Range {
            p5: f64::NEG_INFINITY,
            ..range
        };
        let told = (String::new(), String::new());
        let drawn = meter(
            "support",
            (lost, told),
            (0.0, 1.5),
            &[0.6, 0.8, 1.0],
            &words,
        );
        assert_eq!(drawn.soft.0, coordinate(0.0));
    }
}
