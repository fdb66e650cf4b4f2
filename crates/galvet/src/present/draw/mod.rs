//! Drawings as numbers for the SVG templates: metres become view-box units.
//!
//! One vocabulary at every size: the same hull, water, weight and buoyancy
//! marks in a row's glyph, on a card and on the hull page. The templates hold
//! the markup; this module only works out coordinates.

pub mod board;
pub mod bottom;
pub mod curve;
pub mod gauge;
pub mod hull;
pub mod lines;
pub mod map;
pub mod meter;
pub mod overlay;
pub mod paper;
pub mod plan;

/// A path through points: `M x y L x y …`, one decimal, closed or open.
pub fn path(points: impl IntoIterator<Item = (f64, f64)>, closed: bool) -> String {
    use std::fmt::Write;
    let mut text = String::new();
    for (i, (x, y)) in points.into_iter().enumerate() {
        let command = if i == 0 { 'M' } else { 'L' };
        // Writing to a String cannot fail.
        let _ = write!(text, "{command}{x:.1} {y:.1}");
    }
    if closed {
        text.push('Z');
    }
    text
}

/// A number for an attribute: one decimal, never "-0.0".
pub fn coordinate(value: f64) -> String {
    let text = format!("{value:.1}");
    if text == "-0.0" {
        "0.0".to_owned()
    } else {
        text
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn paths_are_short_and_closed_on_request() {
        assert_eq!(path([(0.0, 1.0), (2.25, -3.0)], true), "M0.0 1.0L2.2 -3.0Z");
        assert_eq!(path([], false), "");
        assert_eq!(coordinate(-0.01), "0.0");
    }
}
