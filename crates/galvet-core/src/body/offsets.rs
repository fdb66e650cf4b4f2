//! Bodies from measured offsets.
//!
//! A station is a half-section: corners in order from the bottom at the
//! centreline outward, up to the gunwale and back inward to the centreline, on
//! a deck or on a recess floor. It need not be monotone.
//!
//! Between two stations the skin is ruled: corners are matched by their share
//! of the way from keel to gunwale and from gunwale to centreline, all corners
//! of both stations kept, and the sections between are straight blends. Area
//! then varies as a square along the length, and three Gauss nodes a gap
//! integrate volume and its moments exactly (up to the kinks where the water
//! leaves a corner; the mesh test measures them).

use super::estimate::{HalfSection, PAD, PAD_BREADTH, gauss_legendre};
use super::ruling::{Blend, CENTRELINE, Gap, Section, recess_runs};
use super::stations::{Body, EdgePoint};
use crate::base::Lanes;
use crate::hull::{Recess, Station};
use thiserror::Error;

/// What is wrong with a set of stations, and at which corner.
#[derive(Debug, Clone, PartialEq, Error)]
#[error("{problem}")]
pub struct OffsetError {
    /// Station, from 0.
    pub station: usize,
    /// Corner, from 0.
    pub point: usize,
    /// What is wrong, and what would be accepted.
    pub problem: String,
}

/// Fewest and most stations, most corners in one.
const STATIONS: std::ops::RangeInclusive<usize> = 3..=400;
const MOST_POINTS: usize = 400;
/// Longest body and greatest breadth or height, m.
const LONGEST: f64 = 20.0;
const WIDEST: f64 = 5.0;
/// Gauss nodes between two stations.
const NODES: usize = 3;

/// A body ruled between measured stations.
#[derive(Debug, Clone, PartialEq)]
pub struct Ruled {
    /// Station places, m.
    places: Vec<f64>,
    /// What lies between each two of them.
    gaps: Vec<Gap>,
    /// The body it makes.
    body: Body<1>,
}

impl Ruled {
    /// Checks stations and rules the body between them.
    ///
    /// # Errors
    /// [`OffsetError`] for too few stations, stations out of order, numbers out
    /// of range, a gap at the centreline, or a section that crosses itself.
    pub fn new(stations: &[Station]) -> Result<Self, OffsetError> {
        check(stations)?;
        let sections: Vec<Section> = stations.iter().map(Section::of).collect();
        let gaps: Vec<Gap> = sections.windows(2).map(|p| Gap::of(&p[0], &p[1])).collect();
        let body = ruled_body(stations, &sections, &gaps);
        Ok(Self {
            places: stations.iter().map(|s| s.x).collect(),
            gaps,
            body,
        })
    }

    /// The body.
    #[must_use]
    pub const fn body(&self) -> &Body<1> {
        &self.body
    }

    /// Greatest beam, m.
    #[must_use]
    pub fn beam(&self) -> f64 {
        let most = self.body.solid.y.iter().map(|y| y.0[0]).fold(0.0, f64::max);
        let rail = self.body.gunwale.iter().map(|p| p.y.0[0]);
        2.0 * rail.fold(most, f64::max)
    }

    /// Half the section at a share of the length.
    #[must_use]
    pub fn half_section(&self, share: f64) -> HalfSection {
        let x = self.body.bow + share * self.body.length;
        let last = self.places.len() - 1;
        let i = self.places[1..last].partition_point(|&p| p < x);
        let (from, to) = (self.places[i], self.places[i + 1]);
        let t = ((x - from) / (to - from)).clamp(0.0, 1.0);
        let gap = &self.gaps[i];
        let at = |corner: &Blend| {
            let (y, z, _) = corner.at(t);
            (y, z)
        };
        HalfSection {
            skin: gap.blends[..gap.outer].iter().map(at).collect(),
            inner: gap.blends[gap.outer..].iter().skip(1).map(at).collect(),
        }
    }
}

/// Checks stations and draws the body they describe.
///
/// # Errors
/// As [`Ruled::new`].
pub fn body(stations: &[Station]) -> Result<Body<1>, OffsetError> {
    Ok(Ruled::new(stations)?.body)
}

fn ruled_body(stations: &[Station], sections: &[Section], gaps: &[Gap]) -> Body<1> {
    let bow = stations[0].x;
    let length = stations[stations.len() - 1].x - bow;
    let points = gaps.iter().map(|g| g.blends.len()).max().unwrap_or(0);
    let runs = recess_runs(sections);
    let standing = floor_amidships(stations, sections, bow + 0.5 * length);
    let mut body = Body::blank(length, bow, (0, points, 0), Lanes::splat(standing));
    for (i, gap) in gaps.iter().enumerate() {
        let (from, to) = (stations[i].x, stations[i + 1].x);
        for &(node, weight) in gauss_legendre(NODES).iter() {
            body.x.push(Lanes::splat(from + (to - from) * node));
            body.weight.push(Lanes::splat(weight * (to - from)));
            body.recess.push(runs[i].or(runs[i + 1]));
            for k in 0..points {
                // Shorter sections repeat their last corner.
                let corner = &gap.blends[k.min(gap.blends.len() - 1)];
                let (y, z, lid) = corner.at(node);
                body.solid.y.push(Lanes::splat(y));
                body.solid.z.push(Lanes::splat(z));
                body.sealed.y.push(Lanes::splat(y));
                body.sealed.z.push(Lanes::splat(lid));
            }
        }
    }
    let recessed = runs.iter().any(Option::is_some);
    for ((station, section), run) in stations.iter().zip(sections).zip(&runs) {
        let edge = |(y, z): (f64, f64)| EdgePoint {
            x: Lanes::splat(station.x),
            y: Lanes::splat(y),
            z: Lanes::splat(z),
        };
        body.gunwale.push(edge(section.gunwale));
        let lowest = station.points.iter().map(|p| p.1);
        body.keel
            .push(edge((0.0, lowest.fold(f64::INFINITY, f64::min))));
        if let Some(run) = run {
            body.rim.push(edge(section.gunwale));
            body.sill.push(edge(section.floor_edge()));
            if *run == Recess::Cockpit {
                body.floor.push(edge(section.floor_edge()));
            }
        }
    }
    if !recessed {
        body.floor = pad(stations, sections, bow, length);
    }
    body.finished()
}

/// The edge of the pad one stands on where there is no recess: at its own ends, however
/// the stations lie, and at the stations between.
fn pad(stations: &[Station], sections: &[Section], bow: f64, length: f64) -> Vec<EdgePoint<1>> {
    let (from, to) = (bow + PAD.0 * length, bow + PAD.1 * length);
    let of = |i: usize| {
        let (y, z) = sections[i].gunwale;
        (PAD_BREADTH * y, z.min(sections[i].inner.at(1.0).1))
    };
    let between = stations
        .iter()
        .map(|s| s.x)
        .filter(|x| (from..to).contains(x));
    let places = std::iter::once(from).chain(between).chain([to]);
    places
        .map(|x| {
            let after = stations.partition_point(|s| s.x < x);
            let after = after.clamp(1, stations.len() - 1);
            let (a, b) = (stations[after - 1].x, stations[after].x);
            let share = ((x - a) / (b - a)).clamp(0.0, 1.0);
            let ((y0, z0), (y1, z1)) = (of(after - 1), of(after));
            EdgePoint {
                x: Lanes::splat(x),
                y: Lanes::splat(y0 + (y1 - y0) * share),
                z: Lanes::splat(z0 + (z1 - z0) * share),
            }
        })
        .collect()
}

fn wrong(station: usize, point: usize, problem: impl Into<String>) -> OffsetError {
    OffsetError {
        station,
        point,
        problem: problem.into(),
    }
}

fn check(stations: &[Station]) -> Result<(), OffsetError> {
    if !STATIONS.contains(&stations.len()) {
        let last = stations.len().saturating_sub(1);
        let problem = format!(
            "{} stations; a body needs {} to {}",
            stations.len(),
            STATIONS.start(),
            STATIONS.end()
        );
        return Err(wrong(last, 0, problem));
    }
    for (i, station) in stations.iter().enumerate() {
        if !station.x.is_finite() || station.x.abs() > LONGEST {
            return Err(wrong(i, 0, format!("the station lies beyond ±{LONGEST} m")));
        }
        if i > 0 && station.x <= stations[i - 1].x {
            let before = stations[i - 1].x;
            let twice = stations[..i].iter().any(|s| s.x == station.x);
            let problem = if twice {
                format!(
                    "station {} m is given twice: its rows must stand together",
                    station.x
                )
            } else {
                format!(
                    "station {} m does not lie aft of the one before ({before} m)",
                    station.x
                )
            };
            return Err(wrong(i, 0, problem));
        }
        check_section(i, &station.points)?;
    }
    Ok(())
}

fn check_section(i: usize, points: &[(f64, f64)]) -> Result<(), OffsetError> {
    if !(3..=MOST_POINTS).contains(&points.len()) {
        let problem = format!("{} corners; a section has 3 to {MOST_POINTS}", points.len());
        return Err(wrong(i, 0, problem));
    }
    for (k, &(y, z)) in points.iter().enumerate() {
        if !(y.is_finite() && z.is_finite()) || y > WIDEST || z.abs() > WIDEST {
            return Err(wrong(i, k, format!("a corner lies beyond {WIDEST} m")));
        }
        if y < 0.0 {
            return Err(wrong(
                i,
                k,
                "a half-breadth is negative; give one side only",
            ));
        }
    }
    for k in [0, points.len() - 1] {
        if points[k].0 > CENTRELINE {
            let problem = format!(
                "the section leaves a gap of {} m at the centreline; it must start and end there",
                points[k].0
            );
            return Err(wrong(i, k, problem));
        }
    }
    for k in 1..points.len() {
        if (1..k).any(|j| points[j - 1..=j] == points[k - 1..=k]) {
            return Err(wrong(i, k, "the section is traced twice from here"));
        }
        for j in 0..k.saturating_sub(1) {
            if passes_through(points, j, k) {
                return Err(wrong(i, k, "the section crosses itself in this corner"));
            }
            if crosses(points[j], points[j + 1], points[k - 1], points[k]) {
                return Err(wrong(i, k, "the section crosses itself here"));
            }
        }
    }
    Ok(())
}

/// Whether two edges cross at an inner point of both.
fn crosses(a: (f64, f64), b: (f64, f64), c: (f64, f64), d: (f64, f64)) -> bool {
    let side = |p: (f64, f64), q: (f64, f64), r: (f64, f64)| {
        (q.0 - p.0) * (r.1 - p.1) - (q.1 - p.1) * (r.0 - p.0)
    };
    side(a, b, c) * side(a, b, d) < 0.0 && side(c, d, a) * side(c, d, b) < 0.0
}

/// Whether corner `k` lies on the edge from corner `j` on, and the way through
/// it leads from one side of that edge to the other.
fn passes_through(points: &[(f64, f64)], j: usize, k: usize) -> bool {
    let (Some(&next), true) = (points.get(k + 1), j + 2 < k + 1) else {
        return false;
    };
    let (a, b, here, before) = (points[j], points[j + 1], points[k], points[k - 1]);
    let side = |p: (f64, f64)| (b.0 - a.0) * (p.1 - a.1) - (b.1 - a.1) * (p.0 - a.0);
    let along = (here.0 - a.0) * (b.0 - a.0) + (here.1 - a.1) * (b.1 - a.1);
    let length = (b.0 - a.0).powi(2) + (b.1 - a.1).powi(2);
    let on = side(here).abs() <= 1e-12 && along >= 0.0 && along <= length && length > 0.0;
    on && side(before) * side(next) < 0.0
}

/// Height of the centreline's top at the station nearest the middle.
fn floor_amidships(stations: &[Station], sections: &[Section], middle: f64) -> f64 {
    let nearest = (0..stations.len()).min_by(|&a, &b| {
        let off = |i: usize| (stations[i].x - middle).abs();
        off(a).total_cmp(&off(b))
    });
    nearest.map_or(0.0, |i| sections[i].inner.at(1.0).1)
}

#[cfg(test)]
mod tests {
    use super::*;

    fn tray(x: f64) -> Station {
        Station {
            x,
            points: vec![
                (0.0, 0.0),
                (0.4, 0.0),
                (0.4, 0.5),
                (0.3, 0.5),
                (0.3, 0.14),
                (0.0, 0.14),
            ],
        }
    }

    fn problem(stations: &[Station]) -> (usize, usize, String) {
        let error = body(stations).unwrap_err();
        (error.station, error.point, error.problem)
    }

    #[test]
    fn a_tray_is_recessed_and_its_lid_is_level() {
        let body = body(&[tray(0.0), tray(1.0), tray(3.0)]).unwrap();
        assert!(body.has_recess());
        assert!((body.solid.volume.0[0] - 3.0 * (0.8 * 0.5 - 0.6 * 0.36)).abs() < 1e-12);
        assert!((body.sealed.volume.0[0] - 3.0 * 0.8 * 0.5).abs() < 1e-12);
        assert_eq!(body.floor[0].y.0[0], 0.3);
        assert!((body.standing_height.0[0] - 0.14).abs() < 1e-12);
    }

    #[test]
    fn what_cannot_be_a_section_is_named_as_such() {
        let said = |last: Station| problem(&[tray(0.0), tray(1.0), tray(2.0), last]).2;
        assert!(said(tray(1.0)).contains("station 1 m is given twice"));
        let mut doubled = tray(3.0);
        doubled.points.extend(tray(3.0).points);
        assert!(said(doubled).contains("traced twice"));
        // Out through the corner at 0.4 | 0.5 of a bow tie, not past it.
        let tie = Station {
            x: 3.0,
            points: vec![
                (0.0, 0.0),
                (0.4, 0.0),
                (0.4, 0.5),
                (0.2, 0.6),
                (0.6, 0.3),
                (0.4, 0.25),
                (0.2, 0.2),
                (0.0, 0.5),
            ],
        };
        assert!(said(tie).contains("crosses itself"));
        let mut back = tray(3.0);
        // A wall without thickness goes up and down the same line.
        back.points = vec![(0.0, 0.0), (0.4, 0.0), (0.4, 0.5), (0.4, 0.14), (0.0, 0.14)];
        assert!(body(&[tray(0.0), tray(1.0), back]).is_ok());
    }

    #[test]
    fn stations_with_different_corners_are_ruled_between() {
        // From a triangle to a square of the same height: every blend is a
        // trapezium, the volume that of the ruled solid (prismatoid rule).
        let triangle = |x| Station {
            x,
            points: vec![(0.0, 0.0), (0.5, 1.0), (0.0, 1.0)],
        };
        let middle = |x| Station {
            x,
            points: vec![(0.0, 0.0), (0.25, 0.0), (0.5, 1.0), (0.0, 1.0)],
        };
        let body = body(&[triangle(0.0), middle(1.0), middle(2.0)]).unwrap();
        let last = 1.0 * 0.75;
        // Simpson on the first gap, with the blend of matched corners half way.
        assert!(body.solid.volume.0[0] > last + 0.5);
        assert!(body.solid.volume.0[0] < last + 0.75);
    }

    #[test]
    fn what_is_ambiguous_is_refused_at_its_corner() {
        assert!(problem(&[tray(0.0), tray(1.0)]).2.contains("2 stations"));
        let (station, _, text) = problem(&[tray(0.0), tray(2.0), tray(1.0)]);
        assert_eq!(station, 2);
        assert!(text.contains("does not lie aft"), "{text}");
        let with = |points: Vec<(f64, f64)>| [tray(0.0), Station { x: 1.0, points }, tray(2.0)];
        let (station, point, text) = problem(&with(vec![(0.0, 0.0), (-0.1, 0.1), (0.0, 0.2)]));
        assert_eq!((station, point), (1, 1));
        assert!(text.contains("negative"), "{text}");
        let (_, point, text) = problem(&with(vec![(0.0, 0.0), (0.4, 0.1), (0.2, 0.4)]));
        assert_eq!(point, 2);
        assert!(text.contains("gap of 0.2 m"), "{text}");
        let bow_tie = vec![(0.0, 0.0), (0.4, 0.3), (0.4, 0.0), (0.0, 0.3)];
        assert!(problem(&with(bow_tie)).2.contains("crosses itself"));
        assert!(
            problem(&with(vec![(0.0, 0.0), (f64::NAN, 0.1), (0.0, 0.2)]))
                .2
                .contains("beyond")
        );
    }

    #[test]
    fn a_pad_ends_where_it_ends_however_the_stations_lie() {
        // A deck that falls 0.1 m over 4 m: the pad lies from 33 to 60 % of the length.
        let at = |x: f64| Station {
            x,
            points: vec![
                (0.0, 0.0),
                (0.4, 0.0),
                (0.4, 0.3 - 0.025 * x),
                (0.0, 0.3 - 0.025 * x),
            ],
        };
        for places in [vec![0.0, 2.0, 4.0], vec![0.0, 1.0, 1.5, 2.3, 3.0, 4.0]] {
            let body = body(&places.into_iter().map(at).collect::<Vec<_>>()).unwrap();
            let (first, last) = (body.floor[0], body.floor[body.floor.len() - 1]);
            for (end, share) in [(first, 0.33), (last, 0.60)] {
                assert!((end.x.0[0] - 4.0 * share).abs() < 1e-12);
                assert!((end.z.0[0] - (0.3 - 0.1 * share)).abs() < 1e-12);
                assert!((end.y.0[0] - 0.3).abs() < 1e-12);
            }
        }
    }

    #[test]
    fn a_cambered_deck_is_no_recess() {
        let decked = |x| Station {
            x,
            points: vec![(0.0, 0.0), (0.3, 0.05), (0.35, 0.3), (0.0, 0.36)],
        };
        let body = body(&[decked(0.0), decked(1.0), decked(2.0)]).unwrap();
        assert!(!body.has_recess());
        assert_eq!(body.gunwale[0].y.0[0], 0.35);
        assert_eq!(body.solid.volume, body.sealed.volume);
    }
}
