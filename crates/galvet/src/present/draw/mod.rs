//! Drawings as numbers for the SVG templates: metres become view-box units.
//!
//! One vocabulary at every size: the same hull, water, weight and buoyancy
//! marks in a row's glyph, on a card and on the hull page. The templates hold
//! the markup; this module only works out coordinates.

pub mod board;
pub mod bottom;
pub mod code;
pub mod curve;
mod drive;
pub mod gauge;
pub mod hull;
pub mod leak;
pub mod lines;
pub mod log;
pub mod map;
pub mod meter;
pub mod overlay;
pub mod paper;
pub mod person;
pub mod plan;
pub mod pond;
pub mod section;
pub mod symbol;
pub mod turn;

/// A path through points: `M x y L x y …`, one decimal, closed or open.
pub fn path(points: impl IntoIterator<Item = (f64, f64)>, closed: bool) -> String {
    use std::fmt::Write;
    let mut text = String::new();
    for (i, (x, y)) in points.into_iter().enumerate() {
        let command = if i == 0 { 'M' } else { 'L' };
        // What rounds to nothing has no sign.
        let tidy = |v: f64| if v.abs() < 0.05 { 0.0 } else { v };
        // Writing to a String cannot fail.
        let _ = write!(text, "{command}{:.1} {:.1}", tidy(x), tidy(y));
    }
    if closed {
        text.push('Z');
    }
    text
}

/// A smooth closed path around points: each is pulled towards, the way leads through the
/// middles between them.
pub fn around(points: &[(f64, f64)]) -> String {
    use std::fmt::Write;
    let middle = |a: (f64, f64), b: (f64, f64)| (0.5 * (a.0 + b.0), 0.5 * (a.1 + b.1));
    let (Some(&first), Some(&last)) = (points.first(), points.last()) else {
        return String::new();
    };
    let from = middle(last, first);
    let mut text = format!("M{:.1} {:.1}", from.0, from.1);
    for (i, &(x, y)) in points.iter().enumerate() {
        let next = points.get(i + 1).copied().unwrap_or(first);
        let to = middle((x, y), next);
        // Writing to a String cannot fail.
        let _ = write!(text, "Q{x:.1} {y:.1} {:.1} {:.1}", to.0, to.1);
    }
    text.push('Z');
    text
}

/// A limb's outline: a disc at each joint and what lies between two, all wound the same
/// way. `at` has each joint and its thickness, in drawing units.
pub fn tapered(at: &[((f64, f64), f64)]) -> String {
    use std::fmt::Write;
    let mut text = String::new();
    for &((x, y), width) in at {
        let r = 0.5 * width;
        // Writing to a String cannot fail.
        let _ = write!(
            text,
            "M{:.1} {y:.1}a{r:.1} {r:.1} 0 1 1 {:.1} 0a{r:.1} {r:.1} 0 1 1 {:.1} 0Z",
            x - r,
            width,
            -width
        );
    }
    for pair in at.windows(2) {
        let [((ax, ay), aw), ((bx, by), bw)] = [pair[0], pair[1]];
        let (dx, dy) = (bx - ax, by - ay);
        let length = dx.hypot(dy).max(1e-6);
        let (nx, ny) = (-0.5 * dy / length, 0.5 * dx / length);
        // With the discs: clockwise on screen.
        text += &path(
            [
                (ax - nx * aw, ay - ny * aw),
                (bx - nx * bw, by - ny * bw),
                (bx + nx * bw, by + ny * bw),
                (ax + nx * aw, ay + ny * aw),
            ],
            true,
        );
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

    #[test]
    fn outlines_are_closed_and_wound_one_way() {
        let square = [(0.0, 0.0), (10.0, 0.0), (10.0, 10.0), (0.0, 10.0)];
        let smooth = around(&square);
        assert!(smooth.starts_with("M0.0 5.0Q0.0 0.0 5.0 0.0"), "{smooth}");
        assert!(smooth.ends_with('Z') && around(&[]).is_empty());
        // Whichever way a limb lies, its sides go round clockwise as its discs do.
        for to in [(10.0, 0.0), (-10.0, 0.0), (0.0, 10.0), (3.0, -8.0)] {
            let text = tapered(&[((0.0, 0.0), 4.0), (to, 2.0)]);
            let sides = text.rsplit('M').next().unwrap();
            let numbers: Vec<f64> = sides
                .trim_end_matches('Z')
                .split(['L', ' '])
                .map(|n| n.parse().unwrap())
                .collect();
            let at = |i: usize| (numbers[2 * (i % 4)], numbers[2 * (i % 4) + 1]);
            let area: f64 = (0..4)
                .map(|i| at(i).0 * at(i + 1).1 - at(i + 1).0 * at(i).1)
                .sum();
            assert!(area > 0.0, "{to:?}: {sides}");
        }
    }
}
