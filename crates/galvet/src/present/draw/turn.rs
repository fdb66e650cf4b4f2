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

/// A boat left alone in the wind, which blows from above, in a box of 200 × 150.
pub struct Drifting {
    /// By how much the bow is turned off beam-on: above zero into the wind, °.
    pub turned: String,
    /// How fast it goes, in words.
    pub speed: String,
    /// What is seen, in words.
    pub words: String,
}

/// Draws how it lies: beam on, the bow falling off or coming up as its helm at rest says
/// (% of the length; above zero it comes up into the wind).
pub fn drifting_boat(helm: f64, speed: String) -> Drifting {
    /// Degrees a per cent of the length turns it, and the most drawn (for the eye only).
    const EACH: (f64, f64) = (4.0, 35.0);
    let turned = (helm * EACH.0).clamp(-EACH.1, EACH.1);
    let bow = match helm {
        h if h > 1.0 => "its bow comes up into the wind",
        h if h < -1.0 => "its bow falls off the wind",
        _ => "it lies beam on",
    };
    Drifting {
        turned: coordinate(turned),
        words: format!("Adrift {bow}, and goes {speed} downwind"),
        speed,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_boat_that_falls_off_shows_its_bow_downwind() {
        let off = drifting_boat(-7.0, "1.5 km/h".to_owned());
        assert_eq!(off.turned, "-28.0");
        assert!(off.words.contains("falls off"), "{}", off.words);
        assert_eq!(drifting_boat(30.0, String::new()).turned, "35.0");
    }

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
