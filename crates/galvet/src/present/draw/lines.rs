//! A hull's lines: plan, profile and body plan, from its stations.

use super::path;
use galvet_core::body::Lines;
use galvet_core::hull::Station;

/// Lines as paths.
pub struct LinesPlan {
    pub view_box: String,
    /// From above: gunwale and recess edge.
    pub plan: Vec<String>,
    /// From the side: sheer, keel, floors.
    pub profile: Vec<String>,
    /// Where the sections stand, in the profile.
    pub stations: Vec<String>,
    /// Sections: those ahead of the widest to the right, those behind it to the
    /// left, as shipwrights draw them.
    pub body: Vec<String>,
    pub centreline: String,
    pub labels: [(String, String, &'static str); 3],
}

/// Units a metre along, and in the body plan.
const SCALE: f64 = 200.0;
const BODY: f64 = 420.0;
const MARGIN: f64 = 10.0;
const GAP: f64 = 34.0;
/// Sections drawn at most: more are a grey field.
const MOST: usize = 21;

/// Draws the lines.
#[must_use]
pub fn lines_plan(lines: &Lines, stations: &[Station]) -> LinesPlan {
    let half = lines.plan.iter().map(|p| p.1).fold(0.0, f64::max);
    let bow = lines.plan.first().map_or(0.0, |p| p.0);
    let length = lines.plan.last().map_or(0.0, |p| p.0) - bow;
    let top = lines.sheer.iter().map(|p| p.1).fold(0.0, f64::max);
    let x = |at: f64| MARGIN + (at - bow) * SCALE;
    let plan_y = MARGIN + 14.0;
    let profile_y = plan_y + half * SCALE + GAP;
    let body_y = profile_y + top * SCALE + GAP;
    let above = |line: &[(f64, f64)]| {
        path(
            line.iter()
                .map(|&(a, y)| (x(a), plan_y + (half - y) * SCALE)),
            false,
        )
    };
    let aside = |line: &[(f64, f64)]| {
        path(
            line.iter()
                .map(|&(a, z)| (x(a), profile_y + (top - z) * SCALE)),
            false,
        )
    };
    let mut profile = vec![aside(&lines.sheer), aside(&lines.keel)];
    profile.extend(lines.floors.iter().map(|run| aside(run)));
    let step = stations.len().div_ceil(MOST).max(1);
    let shown: Vec<&Station> = stations.iter().step_by(step).collect();
    let breadth = |s: &Station| s.points.iter().map(|p| p.0).fold(0.0, f64::max);
    let widest = stations
        .iter()
        .max_by(|a, b| breadth(a).total_cmp(&breadth(b)))
        .map_or(0.0, |s| s.x);
    let centre = x(bow + 0.5 * length);
    let body = shown.iter().map(|station| {
        let side = if station.x <= widest { 1.0 } else { -1.0 };
        let points = station.points.iter();
        path(
            points.map(|&(y, z)| (centre + side * y * BODY, body_y + (top - z) * BODY)),
            false,
        )
    });
    let bottom = body_y + top * BODY;
    LinesPlan {
        view_box: format!(
            "0 0 {:.0} {:.0}",
            length * SCALE + 2.0 * MARGIN,
            bottom + MARGIN
        ),
        plan: [&lines.plan, &lines.recess]
            .into_iter()
            .filter(|line| !line.is_empty())
            .map(|line| above(line))
            .collect(),
        profile,
        stations: shown
            .iter()
            .map(|s| {
                path(
                    [(x(s.x), profile_y), (x(s.x), profile_y + top * SCALE)],
                    false,
                )
            })
            .collect(),
        body: body.collect(),
        centreline: path([(centre, body_y), (centre, bottom)], false),
        labels: [
            (plan_y, "from above, half of it"),
            (profile_y, "from the side, bow left"),
            (body_y, "sections: bow to the right, stern to the left"),
        ]
        .map(|(y, text)| (super::coordinate(MARGIN), super::coordinate(y - 6.0), text)),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn sections_ahead_lie_to_the_right() {
        let station = |x: f64, half: f64| Station {
            x,
            points: vec![(0.0, 0.0), (half, 0.1), (0.0, 0.3)],
        };
        let stations = [station(0.0, 0.1), station(2.0, 0.4), station(4.0, 0.2)];
        let lines = Lines {
            sheer: vec![(0.0, 0.3), (4.0, 0.3)],
            keel: vec![(0.0, 0.0), (4.0, 0.0)],
            plan: vec![(0.0, 0.1), (2.0, 0.4), (4.0, 0.2)],
            ..Lines::default()
        };
        let drawn = lines_plan(&lines, &stations);
        assert_eq!(drawn.body.len(), 3);
        // Middle at 10 + 400; half-breadths of 0.1 and 0.2 m at 420 a metre.
        assert!(drawn.body[0].contains("L452.0 "), "{}", drawn.body[0]);
        assert!(drawn.body[2].contains("L326.0 "), "{}", drawn.body[2]);
        assert_eq!(drawn.stations.len(), 3);
        assert!(drawn.profile[0].starts_with("M10.0 "));
    }
}
