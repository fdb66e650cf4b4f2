//! What a hull's bodies are drawn from: an estimate, or measured sections.

use super::estimate::{self, Frame, HalfSection, Lines};
use super::offsets::Ruled;
use super::shape::Shape;
use super::stations::{Body, EdgePoint, Outline};
use crate::base::Lanes;
use crate::hull::{Construction, Station};
use std::sync::Arc;

/// Where a hull's plausible bodies come from.
#[derive(Debug, Clone, PartialEq)]
pub enum Form {
    /// Length, beam and bottom are known; the rest varies with the shape.
    Estimated(Frame),
    /// Sections were measured; only their error and the mass vary.
    Measured {
        /// The ruled body.
        ruled: Arc<Ruled>,
        /// How the deck is made.
        construction: Construction,
    },
}

impl Form {
    /// Length over all, m.
    #[must_use]
    pub fn length(&self) -> f64 {
        match self {
            Self::Estimated(frame) => frame.length,
            Self::Measured { ruled, .. } => ruled.body().length,
        }
    }

    /// Place of the bow's end, m.
    #[must_use]
    pub fn bow(&self) -> f64 {
        match self {
            Self::Estimated(_) => 0.0,
            Self::Measured { ruled, .. } => ruled.body().bow,
        }
    }

    /// Greatest beam, m.
    #[must_use]
    pub fn beam(&self) -> f64 {
        match self {
            Self::Estimated(frame) => frame.beam,
            Self::Measured { ruled, .. } => ruled.beam(),
        }
    }

    /// How the deck is made.
    #[must_use]
    pub const fn construction(&self) -> Construction {
        match self {
            Self::Estimated(frame) => frame.construction,
            Self::Measured { construction, .. } => *construction,
        }
    }

    /// Whether the sections were measured.
    #[must_use]
    pub const fn is_measured(&self) -> bool {
        matches!(self, Self::Measured { .. })
    }

    /// Draws `N` bodies.
    #[must_use]
    pub fn draw<const N: usize>(&self, shapes: &[Shape; N]) -> Body<N> {
        match self {
            Self::Estimated(frame) => estimate::draw(frame, shapes, 1),
            Self::Measured { ruled, .. } => scaled(ruled.body(), shapes),
        }
    }

    /// Half the section of one shape at a share of the length.
    #[must_use]
    pub fn half_section(&self, shape: &Shape, share: f64) -> HalfSection {
        match self {
            Self::Estimated(frame) => estimate::half_section(frame, shape, share),
            Self::Measured { ruled, .. } => {
                let mut half = ruled.half_section(share);
                for p in half.skin.iter_mut().chain(&mut half.inner) {
                    *p = (p.0 * shape.breadth_scale, p.1 * shape.height_scale);
                }
                half
            }
        }
    }

    /// Lines of one shape along its length, for drawing.
    #[must_use]
    pub fn lines(&self, shape: &Shape) -> Lines {
        match self {
            Self::Estimated(frame) => estimate::lines(frame, shape),
            Self::Measured { .. } => self.measured_lines(shape),
        }
    }

    fn measured_lines(&self, shape: &Shape) -> Lines {
        const STEPS: u32 = 60;
        /// An inner corner this far below the gunwale is a recess floor, m.
        const SUNK: f64 = 0.02;
        let mut out = Lines::default();
        let mut run = Vec::new();
        for step in 0..=STEPS {
            let share = f64::from(step) / f64::from(STEPS);
            let x = share * self.length();
            let half = self.half_section(shape, share);
            let low = half.skin.iter().map(|p| p.1).fold(f64::INFINITY, f64::min);
            let wide = half.skin.iter().map(|p| p.0).fold(0.0, f64::max);
            out.sheer.push((x, half.gunwale()));
            out.keel.push((x, low));
            out.plan.push((x, wide));
            let floor = half.inner.last().copied().unwrap_or_default();
            let edge = half
                .inner
                .iter()
                .filter(|p| p.1 < floor.1 + 0.5 * SUNK)
                .map(|p| p.0);
            if half.gunwale() - floor.1 > SUNK {
                run.push((x, floor.1));
                out.recess.push((x, edge.fold(0.0, f64::max)));
            } else if !run.is_empty() {
                out.floors.push(std::mem::take(&mut run));
            }
        }
        if !run.is_empty() {
            out.floors.push(run);
        }
        out
    }

    /// Stations that draw one shape again, bow to stern.
    #[must_use]
    pub fn stations(&self, shape: &Shape, measured: &[Station]) -> Vec<Station> {
        match self {
            Self::Estimated(frame) => estimate::stations(frame, shape),
            Self::Measured { .. } => measured
                .iter()
                .map(|s| Station {
                    x: s.x,
                    points: s
                        .points
                        .iter()
                        .map(|p| (p.0 * shape.breadth_scale, p.1 * shape.height_scale))
                        .collect(),
                })
                .collect(),
        }
    }
}

/// The measured body in `N` lanes, each with its own error of breadth and height.
fn scaled<const N: usize>(body: &Body<1>, shapes: &[Shape; N]) -> Body<N> {
    let wide = Lanes::from_fn(|i| shapes[i].breadth_scale);
    let high = Lanes::from_fn(|i| shapes[i].height_scale);
    let spread = |v: &Lanes<1>| Lanes::<N>::splat(v.0[0]);
    let outline = |o: &Outline<1>| Outline {
        y: o.y.iter().map(|v| spread(v) * wide).collect(),
        z: o.z.iter().map(|v| spread(v) * high).collect(),
        ..Outline::EMPTY
    };
    let line = |points: &[EdgePoint<1>]| {
        points
            .iter()
            .map(|p| EdgePoint {
                x: spread(&p.x),
                y: spread(&p.y) * wide,
                z: spread(&p.z) * high,
            })
            .collect()
    };
    Body {
        length: body.length,
        bow: body.bow,
        points: body.points,
        x: body.x.iter().map(spread).collect(),
        weight: body.weight.iter().map(spread).collect(),
        recess: body.recess.clone(),
        solid: outline(&body.solid),
        sealed: outline(&body.sealed),
        gunwale: line(&body.gunwale),
        rim: line(&body.rim),
        floor: line(&body.floor),
        sill: line(&body.sill),
        keel: line(&body.keel),
        standing_height: spread(&body.standing_height) * high,
        floats: Vec::new(),
    }
    .finished()
}
