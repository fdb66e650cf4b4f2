//! Draws estimated bodies from a survey and a set of shapes.
//!
//! Plan form `f(u) = t + (1-t)(1-|u|^p)`, `u` from -1 at the bow to 1 at the
//! stern; keel rise `r|u|³`; sheer quadratic from mid-length; the bottom's
//! half-section stretched between keel and gunwale (handbook, chapter 2).
//!
//! Stations are Gauss-Legendre nodes within segments that end wherever the
//! body is not smooth along its length: at the recess ends, at the change of
//! floor, and at mid-length where the exponents change. Within a segment the
//! sections vary smoothly, so a few nodes integrate far below the width of the
//! estimate (see the refinement test).

use super::body::{Body, EdgePoint, Recess};
use super::section::{BottomShape, breadth_at, swell};
use super::shape::Shape;
use super::survey::Construction;
use crate::lanes::Lanes;

/// What all shapes of one hull share.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Frame {
    /// Length over all, m.
    pub length: f64,
    /// Greatest beam, m.
    pub beam: f64,
    /// Bottom shape drawn.
    pub bottom: BottomShape,
    /// How the deck is made.
    pub construction: Construction,
}

/// Sheer at the bow and stern over mid-length, m. Guide value (prototype).
const SHEER: (f64, f64) = (0.08, 0.03);
/// Where the recess of a sit-on-top begins and ends, and its deep (cockpit)
/// part, as shares of the length. Guide values (prototype).
const RECESS: (f64, f64) = (0.18, 0.93);
const COCKPIT: (f64, f64) = (0.25, 0.62);
/// Where a sit-inside's cockpit opening begins and ends. Guide values.
const OPENING: (f64, f64) = (0.30, 0.66);
/// Half-breadth of the recess as a share of the section's half-breadth.
const RECESS_BREADTH: f64 = 0.80;
/// Half-breadth of a sit-inside's opening as a share of the half-breadth.
const OPENING_BREADTH: f64 = 0.72;
/// How much the well's and foot well's floor lies above the cockpit's, m.
const STEP: f64 = 0.04;
/// Least thickness left between a recess and the hull's skin, m.
const SKIN: f64 = 0.01;
/// Corners added above the bottom: rim, floor edge, floor centre.
const CLOSING: usize = 3;

/// One stretch of the length with smooth sections.
#[derive(Debug, Clone, Copy)]
struct Segment {
    from: f64,
    to: f64,
    recess: Option<Recess>,
    raised: bool,
    nodes: usize,
}

fn segments(construction: Construction) -> Vec<Segment> {
    let seg = |from, to, recess, raised, nodes| Segment {
        from,
        to,
        recess,
        raised,
        nodes,
    };
    let cockpit = Some(Recess::Cockpit);
    match construction {
        Construction::SitOnTop => vec![
            seg(0.0, RECESS.0, None, false, 3),
            seg(RECESS.0, COCKPIT.0, cockpit, true, 2),
            seg(COCKPIT.0, 0.5, cockpit, false, 3),
            seg(0.5, COCKPIT.1, cockpit, false, 2),
            seg(COCKPIT.1, RECESS.1, Some(Recess::TankWell), true, 4),
            seg(RECESS.1, 1.0, None, false, 2),
        ],
        Construction::SitInside => vec![
            seg(0.0, OPENING.0, None, false, 4),
            seg(OPENING.0, 0.5, cockpit, false, 4),
            seg(0.5, OPENING.1, cockpit, false, 3),
            seg(OPENING.1, 1.0, None, false, 5),
        ],
        Construction::Board => vec![seg(0.0, 0.5, None, false, 7), seg(0.5, 1.0, None, false, 8)],
    }
}

/// Gauss-Legendre nodes and weights on [0, 1] for 1 to 16 nodes, by Newton on
/// the Legendre recurrence (Abramowitz & Stegun 25.4.29).
#[must_use]
pub fn gauss_legendre(n: usize) -> Vec<(f64, f64)> {
    let count = n as f64;
    let mut nodes: Vec<(f64, f64)> = (0..n)
        .map(|i| {
            let mut x = (std::f64::consts::PI * (i as f64 + 0.75) / (count + 0.5)).cos();
            let mut slope = 1.0;
            for _ in 0..60 {
                let (mut p0, mut p1) = (1.0, x);
                for k in 2..=n {
                    let k = k as f64;
                    (p0, p1) = (p1, ((2.0 * k - 1.0) * x * p1 - (k - 1.0) * p0) / k);
                }
                slope = count * (x * p1 - p0) / (x * x - 1.0);
                let dx = p1 / slope;
                x -= dx;
                if dx.abs() < 1e-15 {
                    break;
                }
            }
            let weight = 2.0 / ((1.0 - x * x) * slope * slope);
            (0.5 * (1.0 - x), 0.5 * weight)
        })
        .collect();
    if n == 1 {
        nodes = vec![(0.5, 1.0)];
    }
    nodes
}

/// Section data of one shape at one place along the hull.
struct Cut {
    half: f64,
    keel: f64,
    gunwale: f64,
}

fn cut(frame: &Frame, shape: &Shape, share: f64) -> Cut {
    let u = 2.0 * share - 1.0;
    let (exponent, end, rise, sheer) = if u < 0.0 {
        (shape.bow_exponent, 0.0, shape.bow_rise, SHEER.0)
    } else {
        (
            shape.stern_exponent,
            shape.stern_end,
            shape.stern_rise,
            SHEER.1,
        )
    };
    let a = u.abs();
    let plan = end + (1.0 - end) * (1.0 - a.powf(exponent));
    Cut {
        half: 0.5 * frame.beam * plan,
        keel: rise * a * a * a,
        gunwale: shape.depth + sheer * a * a,
    }
}

/// Half-breadth and height of the floor's edge in a recess at this cut.
fn floor_edge(frame: &Frame, shape: &Shape, cut: &Cut, raised: bool) -> (f64, f64) {
    let height = cut.gunwale - cut.keel;
    let wanted = shape.floor + if raised { STEP } else { 0.0 };
    let z = wanted.clamp(cut.keel + SKIN, cut.gunwale - SKIN);
    let share = breadth_at(
        frame.bottom.corners(),
        shape.fullness,
        (z - cut.keel) / height,
    );
    let breadth = if frame.construction == Construction::SitInside {
        OPENING_BREADTH
    } else {
        RECESS_BREADTH
    };
    let skin = (share * cut.half - SKIN).max(0.0);
    ((breadth * cut.half).min(skin), z)
}

/// Draws `N` bodies of the same frame. `refine` multiplies the nodes in every
/// segment: 1 for use, more to measure the integration error.
#[must_use]
pub fn draw<const N: usize>(frame: &Frame, shapes: &[Shape; N], refine: usize) -> Body<N> {
    let points = frame.bottom.corners().len() + CLOSING;
    // A board's standing surface is its deck; a survey's floor height is its own.
    let board = frame.construction == Construction::Board;
    let standing = Lanes::from_fn(|i| {
        let s = &shapes[i];
        if board { s.floor.min(s.depth) } else { s.floor }
    });
    let mut body = Body::blank(frame.length, 0.0, points, standing);
    for segment in segments(frame.construction) {
        let span = segment.to - segment.from;
        for (node, weight) in gauss_legendre(segment.nodes * refine) {
            let share = segment.from + span * node;
            body.x.push(share * frame.length);
            body.weight.push(weight * span * frame.length);
            body.recess.push(segment.recess);
            add_station(&mut body, frame, shapes, &segment, share);
        }
        add_edges(&mut body, frame, shapes, &segment);
    }
    body.finished()
}

/// Appends one station's half-sections, solid and sealed.
fn add_station<const N: usize>(
    body: &mut Body<N>,
    frame: &Frame,
    shapes: &[Shape; N],
    segment: &Segment,
    share: f64,
) {
    let cuts = shapes.each_ref().map(|s| cut(frame, s, share));
    let corners = frame.bottom.corners();
    for &(share, height) in corners {
        let y = Lanes::from_fn(|i| swell(share, shapes[i].fullness) * cuts[i].half);
        let z = Lanes::from_fn(|i| cuts[i].keel + height * (cuts[i].gunwale - cuts[i].keel));
        for outline in [&mut body.solid, &mut body.sealed] {
            outline.y.push(y);
            outline.z.push(z);
        }
    }
    let top = Lanes::from_fn(|i| cuts[i].gunwale);
    let floors: [(f64, f64); N] = std::array::from_fn(|i| match segment.recess {
        Some(_) => floor_edge(frame, &shapes[i], &cuts[i], segment.raised),
        None => (0.0, cuts[i].gunwale),
    });
    let edge_y = Lanes::from_fn(|i| floors[i].0);
    let edge_z = Lanes::from_fn(|i| floors[i].1);
    body.solid.y.extend([edge_y, edge_y, Lanes::ZERO]);
    body.solid.z.extend([top, edge_z, edge_z]);
    body.sealed.y.extend([edge_y, edge_y, Lanes::ZERO]);
    body.sealed.z.extend([top, top, top]);
}

/// Appends the watched lines over a segment: both ends and two places between.
fn add_edges<const N: usize>(
    body: &mut Body<N>,
    frame: &Frame,
    shapes: &[Shape; N],
    segment: &Segment,
) {
    for step in 0..=3 {
        let share = segment.from + (segment.to - segment.from) * f64::from(step) / 3.0;
        let cuts = shapes.each_ref().map(|s| cut(frame, s, share));
        let x = share * frame.length;
        let rail = EdgePoint {
            x,
            y: Lanes::from_fn(|i| {
                cuts[i].half * frame.bottom.corners().last().map_or(1.0, |c| c.0)
            }),
            z: Lanes::from_fn(|i| cuts[i].gunwale),
        };
        body.gunwale.push(rail);
        if segment.recess.is_some() {
            body.rim.push(rail);
        }
        if segment.recess == Some(Recess::Cockpit) && !segment.raised {
            let edges: [(f64, f64); N] =
                std::array::from_fn(|i| floor_edge(frame, &shapes[i], &cuts[i], false));
            body.floor.push(EdgePoint {
                x,
                y: Lanes::from_fn(|i| edges[i].0),
                z: Lanes::from_fn(|i| edges[i].1),
            });
        }
    }
}

/// Lines of a body along its length, for drawing: places from the bow, m, with
/// heights or half-breadths, m.
#[derive(Debug, Clone, PartialEq)]
pub struct Lines {
    /// Gunwale in profile.
    pub sheer: Vec<(f64, f64)>,
    /// Bottom in profile, at its lowest across the section.
    pub keel: Vec<(f64, f64)>,
    /// Recess floors in profile: one run for each level.
    pub floors: Vec<Vec<(f64, f64)>>,
    /// Gunwale in plan.
    pub plan: Vec<(f64, f64)>,
    /// Recess edge in plan, bow to stern: empty for a board.
    pub recess: Vec<(f64, f64)>,
}

/// The lines of one shape.
#[must_use]
pub fn lines(frame: &Frame, shape: &Shape) -> Lines {
    const STEPS: u32 = 48;
    let mut out = Lines {
        sheer: Vec::new(),
        keel: Vec::new(),
        floors: Vec::new(),
        plan: Vec::new(),
        recess: Vec::new(),
    };
    for step in 0..=STEPS {
        let share = f64::from(step) / f64::from(STEPS);
        let x = share * frame.length;
        let here = cut(frame, shape, share);
        out.sheer.push((x, here.gunwale));
        out.keel.push((x, here.keel));
        out.plan.push((x, here.half));
    }
    for segment in segments(frame.construction) {
        if segment.recess.is_none() {
            continue;
        }
        let mut run = Vec::new();
        for step in 0..=8 {
            let share = segment.from + (segment.to - segment.from) * f64::from(step) / 8.0;
            let here = cut(frame, shape, share);
            let (y, z) = floor_edge(frame, shape, &here, segment.raised);
            run.push((share * frame.length, z));
            out.recess.push((share * frame.length, y));
        }
        out.floors.push(run);
    }
    out
}

/// Height of the gunwale at a share of the length, m.
#[must_use]
pub fn gunwale_at(frame: &Frame, shape: &Shape, share: f64) -> f64 {
    cut(frame, shape, share).gunwale
}

/// Beam at mid-length at `height` above the baseline, m.
#[must_use]
pub fn beam_at(frame: &Frame, shape: &Shape, height: f64) -> f64 {
    let here = cut(frame, shape, 0.5);
    let share = ((height - here.keel) / (here.gunwale - here.keel)).clamp(0.0, 1.0);
    2.0 * here.half * breadth_at(frame.bottom.corners(), shape.fullness, share)
}

/// The outer skin of one shape at a share of the length: half-breadth and
/// height, from the keel at the centreline up to the gunwale.
#[must_use]
pub fn skin_at(frame: &Frame, shape: &Shape, share: f64) -> Vec<(f64, f64)> {
    let here = cut(frame, shape, share);
    let corners = frame.bottom.corners().iter();
    corners
        .map(|&(y, z)| {
            (
                swell(y, shape.fullness) * here.half,
                here.keel + z * (here.gunwale - here.keel),
            )
        })
        .collect()
}

/// The closed section of one shape at a share of the length, starboard side
/// round to port, recess cut out.
#[must_use]
pub fn section_at(frame: &Frame, shape: &Shape, share: f64) -> Vec<(f64, f64)> {
    let segment = segments(frame.construction)
        .into_iter()
        .find(|s| share >= s.from && share <= s.to);
    let here = cut(frame, shape, share);
    let mut half = skin_at(frame, shape, share);
    if let Some(segment) = segment.filter(|s| s.recess.is_some()) {
        let (y, z) = floor_edge(frame, shape, &here, segment.raised);
        half.extend([(y, here.gunwale), (y, z)]);
    }
    let port = half.iter().rev().map(|&(y, z)| (-y, z));
    half.iter().copied().chain(port).collect()
}
