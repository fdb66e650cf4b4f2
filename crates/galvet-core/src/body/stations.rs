//! A hull as the floating core sees it: a row of stations in flat arrays.

use super::added::AddedFloats;
use crate::base::Lanes;
use crate::hull::{Flooded, Recess};
use std::borrow::Cow;

/// Half-sections of all stations, one after another: `points` corners each,
/// from the bottom at the centreline outward, up, and back to the centreline.
#[derive(Debug, Clone, PartialEq)]
pub struct Outline<const N: usize> {
    /// Half-breadths, m, starboard positive.
    pub y: Vec<Lanes<N>>,
    /// Heights above the baseline, m.
    pub z: Vec<Lanes<N>>,
    /// Running sums up to each corner of its half-section.
    pub fan: Vec<Fan<N>>,
    /// Volume of the whole outline, m³: what it displaces when it goes under.
    pub volume: Lanes<N>,
}

impl<const N: usize> Outline<N> {
    /// An outline without stations yet.
    pub const EMPTY: Self = Self {
        y: Vec::new(),
        z: Vec::new(),
        fan: Vec::new(),
        volume: Lanes::ZERO,
    };
}

/// Sums over the edges of a half-section from its first corner up to one of
/// its corners, of the triangles between the baseline's origin and the edge.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Fan<const N: usize> {
    /// Twice the area, m².
    pub area: Lanes<N>,
    /// Six times the first moment in `y`, m³.
    pub y_moment: Lanes<N>,
    /// Six times the first moment in `z`, m³.
    pub z_moment: Lanes<N>,
}

impl<const N: usize> Fan<N> {
    /// Before the first edge.
    pub const NONE: Self = Self {
        area: Lanes::ZERO,
        y_moment: Lanes::ZERO,
        z_moment: Lanes::ZERO,
    };

    /// The running sums along one half-section.
    pub fn along(y: &[Lanes<N>], z: &[Lanes<N>]) -> impl Iterator<Item = Self> {
        let mut sum = Self::NONE;
        y.iter().zip(z).enumerate().map(move |(i, (&y1, &z1))| {
            if i > 0 {
                let (y0, z0) = (y[i - 1], z[i - 1]);
                let twice = y0 * z1 - y1 * z0;
                sum.area += twice;
                sum.y_moment += twice * (y0 + y1);
                sum.z_moment += twice * (z0 + z1);
            }
            sum
        })
    }
}

/// A point of a line along the hull that matters when it meets the water.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct EdgePoint<const N: usize> {
    /// From the bow, m, aft positive.
    pub x: Lanes<N>,
    /// Half-breadth, m; the mirrored point is meant as well.
    pub y: Lanes<N>,
    /// Height above the baseline, m.
    pub z: Lanes<N>,
}

/// `N` bodies of one topology.
///
/// Frame: `x` from the bow, aft positive; `y` to starboard; `z` up from the
/// baseline. All lengths in metres. The integral along the hull is
/// `Σ weight[i] · f(x[i])`.
#[derive(Debug, Clone, PartialEq)]
pub struct Body<const N: usize> {
    /// Length over all, m.
    pub length: f64,
    /// Place of the bow's end, m: 0 unless offsets were measured from elsewhere.
    pub bow: f64,
    /// Corners in each half-section.
    pub points: usize,
    /// Station places, m from the bow.
    pub x: Vec<Lanes<N>>,
    /// Weight of each station in the integral along the hull, m.
    pub weight: Vec<Lanes<N>>,
    /// The recess each station lies in.
    pub recess: Vec<Option<Recess>>,
    /// Recesses cut out.
    pub solid: Outline<N>,
    /// Recesses filled up to the gunwale.
    pub sealed: Outline<N>,
    /// The gunwale (or the deck edge of a board), bow to stern.
    pub gunwale: Vec<EdgePoint<N>>,
    /// The part of the gunwale over which water runs into a recess: empty for
    /// a hull without recess.
    pub rim: Vec<EdgePoint<N>>,
    /// The outer edge of the cockpit floor, or of a board's standing pad.
    pub floor: Vec<EdgePoint<N>>,
    /// The outer edge of every recess floor, raised ones too: empty where there
    /// is no recess. While it is dry, no water stands in any recess.
    pub sill: Vec<EdgePoint<N>>,
    /// Lowest points of the bottom, bow to stern.
    pub keel: Vec<EdgePoint<N>>,
    /// Height of the surface the angler's feet stand on, m.
    pub standing_height: Lanes<N>,
    /// Floats on arms beside it.
    pub floats: Vec<AddedFloats<N>>,
}

impl<const N: usize> Body<N> {
    /// A body without stations yet, its bow at `bow` m; room is made for
    /// `stations` of `points` corners and lines of `edges` points.
    #[must_use]
    pub fn blank(
        length: f64,
        bow: f64,
        (stations, points, edges): (usize, usize, usize),
        standing_height: Lanes<N>,
    ) -> Self {
        let outline = || Outline {
            y: Vec::with_capacity(stations * points),
            z: Vec::with_capacity(stations * points),
            ..Outline::EMPTY
        };
        Self {
            length,
            bow,
            points,
            x: Vec::with_capacity(stations),
            weight: Vec::with_capacity(stations),
            recess: Vec::with_capacity(stations),
            solid: outline(),
            sealed: outline(),
            gunwale: Vec::with_capacity(edges),
            rim: Vec::with_capacity(edges),
            floor: Vec::with_capacity(edges),
            sill: Vec::with_capacity(edges),
            keel: Vec::with_capacity(edges),
            standing_height,
            floats: Vec::new(),
        }
    }

    /// Mid-length, where drafts are measured, m from the bow.
    #[must_use]
    pub fn middle(&self) -> f64 {
        self.bow + 0.5 * self.length
    }

    /// The half-sections that displace water when `flooded` recesses are open.
    #[must_use]
    pub fn outline(&self, flooded: Flooded) -> Cow<'_, Outline<N>> {
        if flooded == Flooded::ALL || self.recess.iter().flatten().all(|&r| flooded.has(r)) {
            return Cow::Borrowed(&self.solid);
        }
        if flooded == Flooded::NONE {
            return Cow::Borrowed(&self.sealed);
        }
        let mut mixed = self.sealed.clone();
        for (i, recess) in self.recess.iter().enumerate() {
            if recess.is_some_and(|r| flooded.has(r)) {
                let span = i * self.points..(i + 1) * self.points;
                mixed.y[span.clone()].copy_from_slice(&self.solid.y[span.clone()]);
                mixed.z[span.clone()].copy_from_slice(&self.solid.z[span.clone()]);
                mixed.fan[span.clone()].copy_from_slice(&self.solid.fan[span]);
            }
        }
        mixed.volume = self.whole_volume(&mixed);
        Cow::Owned(mixed)
    }

    /// Sums up both outlines: the last step of drawing a body.
    #[must_use]
    pub fn finished(mut self) -> Self {
        for outline in [&mut self.solid, &mut self.sealed] {
            let sections = outline.y.chunks_exact(self.points);
            let sections = sections.zip(outline.z.chunks_exact(self.points));
            outline.fan = Vec::with_capacity(outline.y.len());
            for (y, z) in sections {
                outline.fan.extend(Fan::along(y, z));
            }
        }
        self.solid.volume = self.whole_volume(&self.solid);
        self.sealed.volume = self.whole_volume(&self.sealed);
        self
    }

    /// Volume of a whole outline, m³.
    fn whole_volume(&self, outline: &Outline<N>) -> Lanes<N> {
        let whole = outline.fan.chunks_exact(self.points);
        let whole = whole.filter_map(<[Fan<N>]>::last);
        self.weight
            .iter()
            .zip(whole)
            .fold(Lanes::ZERO, |sum, (&weight, last)| sum + last.area * weight)
    }

    /// Whether the hull has any recess at all.
    #[must_use]
    pub fn has_recess(&self) -> bool {
        !self.sill.is_empty()
    }
}
