//! The skin between two measured stations: corners matched along their ways.

use crate::hull::{Recess, Station};

/// A section must start and end this near the centreline, m.
pub(super) const CENTRELINE: f64 = 1e-3;
/// A deck whose middle lies this far below the gunwale is a recess, m.
const RECESS_DEPTH: f64 = 0.02;
/// Corners this near the floor's height belong to the floor, m.
const FLOOR_BAND: f64 = 0.005;

/// A station cut into its two ways: keel to gunwale, gunwale to centreline.
pub(super) struct Section {
    pub(super) outer: Way,
    pub(super) inner: Way,
    pub(super) gunwale: (f64, f64),
    pub(super) recessed: bool,
}

/// A polyline with each corner's share of the way along it.
pub(super) struct Way(Vec<(f64, (f64, f64))>);

impl Way {
    pub(super) fn of(points: &[(f64, f64)]) -> Self {
        let mut along = vec![0.0];
        for pair in points.windows(2) {
            let step = (pair[1].0 - pair[0].0).hypot(pair[1].1 - pair[0].1);
            along.push(along[along.len() - 1] + step);
        }
        let whole = along[along.len() - 1];
        let share = |s: f64, i: usize| {
            if whole > 0.0 {
                s / whole
            } else {
                // A way of no length: its corners still have an order.
                i as f64 / (points.len().max(2) - 1) as f64
            }
        };
        Self(
            along
                .iter()
                .zip(points)
                .enumerate()
                .map(|(i, (&s, &p))| (share(s, i), p))
                .collect(),
        )
    }

    pub(super) fn at(&self, share: f64) -> (f64, f64) {
        let last = self.0.len() - 1;
        let i = self.0[..last].partition_point(|c| c.0 < share).max(1);
        let i = i.min(last);
        let ((s0, a), (s1, b)) = (self.0[i - 1], self.0[i]);
        if s1 - s0 <= 0.0 {
            return b;
        }
        let t = ((share - s0) / (s1 - s0)).clamp(0.0, 1.0);
        (a.0 + (b.0 - a.0) * t, a.1 + (b.1 - a.1) * t)
    }
}

impl Section {
    pub(super) fn of(station: &Station) -> Self {
        let points = &station.points;
        // The outermost of the highest corners.
        let top = (0..points.len())
            .max_by(|&a, &b| {
                let (a, b) = (points[a], points[b]);
                a.1.total_cmp(&b.1).then(a.0.total_cmp(&b.0))
            })
            .unwrap_or(0);
        // A cambered deck is highest at the centreline: its gunwale is where
        // the section is widest, the highest such corner.
        let end = points.len() - 1;
        let gunwale = if points[top].0 <= CENTRELINE {
            (0..points.len())
                .max_by(|&a, &b| {
                    let (a, b) = (points[a], points[b]);
                    a.0.total_cmp(&b.0).then(a.1.total_cmp(&b.1))
                })
                .unwrap_or(0)
        } else {
            top
        };
        // A point of a section (a sharp bow) may have all corners in one place.
        let gunwale = gunwale.clamp(1, end.max(2) - 1);
        let lowest = points[gunwale..]
            .iter()
            .map(|p| p.1)
            .fold(f64::INFINITY, f64::min);
        Self {
            outer: Way::of(&points[..=gunwale]),
            inner: Way::of(&points[gunwale..]),
            gunwale: points[gunwale],
            recessed: points[gunwale].1 - lowest > RECESS_DEPTH,
        }
    }

    /// Outermost corner of the floor.
    pub(super) fn floor_edge(&self) -> (f64, f64) {
        let inner = self.inner.0.iter().map(|c| c.1);
        let lowest = inner.clone().map(|p| p.1).fold(f64::INFINITY, f64::min);
        inner
            .filter(|p| p.1 <= lowest + FLOOR_BAND)
            .fold((0.0, lowest), |best, p| if p.0 > best.0 { p } else { best })
    }
}

/// A corner on its way from one station to the next: solid at both ends, and
/// the lid's height over it.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Blend {
    from: (f64, f64, f64),
    to: (f64, f64, f64),
}

impl Blend {
    pub(super) fn at(&self, t: f64) -> (f64, f64, f64) {
        let mix = |a: f64, b: f64| a + (b - a) * t;
        let (a, b) = (self.from, self.to);
        (mix(a.0, b.0), mix(a.1, b.1), mix(a.2, b.2))
    }
}

/// The corners between two stations.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Gap {
    pub(super) blends: Vec<Blend>,
    /// How many of them lie between keel and gunwale.
    pub(super) outer: usize,
}

impl Gap {
    pub(super) fn of(one: &Section, two: &Section) -> Self {
        let (outer, inner) = blend(one, two);
        let count = outer.len();
        Self {
            blends: outer.into_iter().chain(inner).collect(),
            outer: count,
        }
    }
}

fn blend(one: &Section, two: &Section) -> (Vec<Blend>, Vec<Blend>) {
    let shares = |a: &Way, b: &Way| {
        let mut all: Vec<f64> = a.0.iter().chain(&b.0).map(|c| c.0).collect();
        all.sort_by(f64::total_cmp);
        all.dedup_by(|x, y| (*x - *y).abs() < 1e-9);
        all
    };
    let outer = shares(&one.outer, &two.outer).into_iter().map(|s| {
        let (a, b) = (one.outer.at(s), two.outer.at(s));
        Blend {
            from: (a.0, a.1, a.1),
            to: (b.0, b.1, b.1),
        }
    });
    // Sealed, a recess is lidded level with the gunwale; a deck stays a deck.
    let lid = |section: &Section, z: f64| {
        if section.recessed {
            section.gunwale.1.max(z)
        } else {
            z
        }
    };
    let inner = shares(&one.inner, &two.inner).into_iter().map(|s| {
        let (a, b) = (one.inner.at(s), two.inner.at(s));
        Blend {
            from: (a.0, a.1, lid(one, a.1)),
            to: (b.0, b.1, lid(two, b.1)),
        }
    });
    (outer.collect(), inner.collect())
}

/// The recess each station lies in: the longest run of recessed stations is
/// the cockpit, any other a well.
pub(super) fn recess_runs(sections: &[Section]) -> Vec<Option<Recess>> {
    let mut runs: Vec<(usize, usize)> = Vec::new();
    for (i, section) in sections.iter().enumerate() {
        match (section.recessed, runs.last_mut()) {
            (true, Some(run)) if run.1 == i => run.1 = i + 1,
            (true, _) => runs.push((i, i + 1)),
            (false, _) => {}
        }
    }
    let longest = runs
        .iter()
        .copied()
        .max_by_key(|r| (r.1 - r.0, usize::MAX - r.0));
    let mut out = vec![None; sections.len()];
    for run in runs {
        let recess = if Some(run) == longest {
            Recess::Cockpit
        } else {
            Recess::TankWell
        };
        out[run.0..run.1].fill(Some(recess));
    }
    out
}
