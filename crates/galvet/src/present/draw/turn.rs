//! Drawings of a day that turns: a deck draining, the way home by where the wind comes from.

use super::{coordinate, path};

/// A deck draining over time, in a box of 496 × 200.
pub struct DrainCurve {
    /// Water aboard.
    pub line: String,
    /// The same down to the base line.
    pub under: String,
    /// Until when it is unsteady: width of the band from the start; empty for never.
    pub tender: String,
    /// Where that is said.
    pub tender_ends: String,
    /// Where it is clear; empty where it never is.
    pub clear: String,
    /// Times along, with their words.
    pub times: Vec<(String, String)>,
}

/// Left edge and width, top and height of the part drawn in.
const DRAIN: (f64, f64, f64, f64) = (16.0, 460.0, 14.0, 146.0);

/// Draws `course`: seconds and cubic metres; marks are when it is steady and clear, s.
pub fn drain_curve(course: &[(f64, f64)], marks: [Option<f64>; 2]) -> Option<DrainCurve> {
    let (last, _) = *course.last()?;
    let most = course.iter().map(|c| c.1).fold(0.0, f64::max);
    if course.len() < 2 || last <= 0.0 || most <= 0.0 {
        return None;
    }
    let (left, wide, top, high) = DRAIN;
    let x = |t: f64| left + (t / last).clamp(0.0, 1.0) * wide;
    let y = |v: f64| top + (1.0 - v / most) * high;
    let points = || course.iter().map(|&(t, v)| (x(t), y(v)));
    let base = [(x(last), y(0.0)), (x(0.0), y(0.0))];
    let [tender, clear] = marks;
    let unsteady = tender.map_or(wide, |t| if t > 0.0 { x(t) - left } else { 0.0 });
    Some(DrainCurve {
        line: path(points(), false),
        under: path(points().chain(base), true),
        tender: if unsteady > 0.0 {
            coordinate(unsteady)
        } else {
            String::new()
        },
        tender_ends: coordinate(left + unsteady - 8.0),
        clear: clear.map_or_else(String::new, |t| coordinate(x(t))),
        times: (0..=4)
            .map(|i| {
                let t = last * f64::from(i) / 4.0;
                (coordinate(x(t)), format!("{t:.0}\u{a0}s"))
            })
            .collect(),
    })
}

/// The way home by where the wind comes from, in a box of 240 × 240 about its middle.
pub struct Rose {
    /// Round the places where it gets home.
    pub shape: String,
    /// Directions from which it does not get home: ends of strokes.
    pub lost: Vec<(String, String)>,
    /// Circles of equal time: radius, words.
    pub rings: Vec<(String, String)>,
}

/// Largest radius, of the box's half.
const REACH: f64 = 92.0;

/// Draws minutes back by direction, the first dead ahead (up), clockwise.
pub fn rose(minutes: &[Option<f64>]) -> Option<Rose> {
    let longest = minutes.iter().flatten().fold(0.0_f64, |a, &b| a.max(b));
    if longest <= 0.0 {
        return None;
    }
    let radius = |m: f64| m / longest * REACH;
    let at = |k: usize, r: f64| {
        let turn = std::f64::consts::TAU * k as f64 / minutes.len() as f64;
        (r * turn.sin(), -r * turn.cos())
    };
    let step = [5.0, 10.0, 15.0, 30.0, 60.0, 120.0, 240.0, 480.0]
        .into_iter()
        .find(|s| longest / s <= 4.0)
        .unwrap_or(960.0);
    let rings = (1..=4)
        .map(|i| step * f64::from(i))
        .filter(|m| *m <= longest);
    let held = minutes.iter().enumerate();
    Some(Rose {
        shape: path(
            held.clone()
                .map(|(k, m)| at(k, radius(m.unwrap_or(longest)))),
            true,
        ),
        lost: held
            .filter(|(_, m)| m.is_none())
            .map(|(k, _)| {
                let (x, y) = at(k, REACH + 8.0);
                (coordinate(x), coordinate(y))
            })
            .collect(),
        rings: rings
            .map(|m| (coordinate(radius(m)), format!("{m:.0}")))
            .collect(),
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_rose_is_longest_where_it_takes_longest() {
        let minutes = [Some(60.0), Some(30.0), Some(20.0), Some(30.0)];
        let rose = rose(&minutes).unwrap();
        // Dead ahead, up by the whole reach; a half to starboard.
        let far = |p: &str| rose.shape.contains(p);
        assert!(far("0.0 -92.0") && far("46.0 "), "{}", rose.shape);
        assert_eq!(rose.lost, []);
        assert_eq!(rose.rings.len(), 4);
        let stopped = super::rose(&[None, Some(30.0), Some(20.0), Some(30.0)]).unwrap();
        assert_eq!(stopped.lost, [("0.0".to_owned(), "-100.0".to_owned())]);
        assert!(super::rose(&[None; 4]).is_none());
    }

    #[test]
    fn a_drain_runs_down_to_the_right() {
        let course = [(0.0, 0.3), (30.0, 0.1), (60.0, 0.0)];
        let curve = drain_curve(&course, [Some(45.0), Some(60.0)]).unwrap();
        assert!(curve.line.contains("16.0 14.0"), "{}", curve.line);
        assert_eq!(curve.tender, "345.0");
        assert_eq!(curve.clear, "476.0");
        assert!(drain_curve(&course[..1], [None, None]).is_none());
    }
}
