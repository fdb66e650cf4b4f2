//! The scuppers of a hull as water meets them: those on record, or such as are usual.

use super::inlet::Inlet;
use crate::body::{Form, Shape};
use crate::hull::{Construction, FittingKind, Recess, ScupperState, Scuppers, Survey};

/// Usual scuppers, where nobody recorded any: places as shares of the length, the recess.
const USUAL: [(f64, Recess); 4] = [
    (0.33, Recess::Cockpit),
    (0.45, Recess::Cockpit),
    (0.54, Recess::Cockpit),
    (0.74, Recess::TankWell),
];
/// How far to either side they stand, share of the beam.
const ASIDE: f64 = 0.17;

/// What nobody recorded of them: how wide they are, m, and how many pairs there are.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Usual {
    /// Diameter, m.
    pub diameter: f64,
    /// Pairs, 2 to 4: those ahead go first.
    pub pairs: usize,
}

impl Usual {
    /// Eight of 32 mm: the template's.
    pub const MIDDLE: Self = Self {
        diameter: 0.032,
        pairs: 4,
    };

    /// One of `of` cases spread over what is usual, narrow and few to wide and many.
    #[must_use]
    pub fn case(k: usize, of: usize) -> Self {
        let share = (k as f64 + 0.5) / of.max(1) as f64;
        // Few holes are as often wide as narrow: the second spread runs across the first.
        let across = (share * 5.0).fract();
        Self {
            diameter: 0.025 + 0.015 * share,
            pairs: 2 + ((across * 3.0) as usize).min(2),
        }
    }
}

/// The scuppers of a hull with the question's setting; `usual` stands in where none is on
/// record. Empty for what has none.
#[must_use]
pub fn inlets(
    survey: &Survey,
    (form, shape): (&Form, &Shape),
    asked: Scuppers,
    usual: Usual,
) -> Vec<Inlet> {
    if survey.construction != Construction::SitOnTop {
        return Vec::new();
    }
    let (length, beam, bow) = (form.length(), form.beam(), form.bow());
    let fitted = asked.fitted();
    let state = |recess: Recess, own: ScupperState| match asked {
        Scuppers::AsFound => own,
        _ => fitted
            .iter()
            .find(|s| s.recess == recess)
            .map_or(own, |s| s.state),
    };
    let put = |x: f64, y: f64, diameter: f64, recess: Recess, own: ScupperState| {
        let half = form.half_section(shape, ((x - bow) / length).clamp(0.0, 1.0));
        let floor = half.inner.last().map_or(half.gunwale(), |p| p.1);
        let bottom = under(&half.skin, y.abs()).min(floor);
        Inlet {
            recess,
            state: state(recess, own),
            x,
            y,
            floor,
            bottom,
            diameter,
        }
    };
    let recorded = survey.fitout.fittings_now();
    let mut all: Vec<Inlet> = recorded
        .iter()
        .filter_map(|f| match f.kind {
            FittingKind::Scupper {
                recess,
                diameter,
                state,
                ..
            } => Some(put(f.x, f.y, diameter, recess, state)),
            _ => None,
        })
        .collect();
    if all.is_empty() {
        // The well's pair is always there; the others go from the bow's side.
        let skip = USUAL.len() - usual.pairs.clamp(1, USUAL.len());
        for (share, recess) in USUAL.into_iter().skip(skip) {
            for side in [-1.0, 1.0] {
                let (x, y) = (bow + share * length, side * ASIDE * beam);
                all.push(put(x, y, usual.diameter, recess, ScupperState::Open));
            }
        }
    }
    all
}

/// Height of the bottom's skin at a half-breadth, m: the first place of it so far out.
fn under(skin: &[(f64, f64)], aside: f64) -> f64 {
    for pair in skin.windows(2) {
        let ((y0, z0), (y1, z1)) = (pair[0], pair[1]);
        if y1 >= aside && y1 > y0 {
            return z0 + (z1 - z0) * ((aside - y0) / (y1 - y0)).clamp(0.0, 1.0);
        }
    }
    skin.last().map_or(0.0, |p| p.1)
}
