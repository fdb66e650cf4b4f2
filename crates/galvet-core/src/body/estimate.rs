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

use super::section::{breadth_at, corners, crown, outermost, outline, skin};
use super::shape::Shape;
use super::stations::{Body, EdgePoint};
use crate::base::Lanes;
use crate::guide::{Guide, Guides};
use crate::hull::{Construction, Recess, Station};
use gauss_quad::GaussLegendre;
use std::borrow::Cow;
use std::num::NonZeroUsize;
use std::sync::LazyLock;

/// What all shapes of one hull share.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Frame {
    /// Length over all, m.
    pub length: f64,
    /// Greatest beam, m.
    pub beam: f64,
    /// How the deck is made.
    pub construction: Construction,
    /// Rise of the gunwale at bow and stern over mid-length, m.
    pub sheer: (f64, f64),
    /// How much the foot well's and the tank well's floor lies above the
    /// cockpit's, m.
    pub step: f64,
}

impl Frame {
    /// A frame with the guide values' sheer and floor step.
    #[must_use]
    pub fn new(length: f64, beam: f64, construction: Construction, guides: &Guides) -> Self {
        Self {
            length,
            beam,
            construction,
            sheer: (guides[Guide::SheerBow], guides[Guide::SheerStern]),
            step: guides[Guide::FloorStep],
        }
    }
}

/// Where the deep (cockpit) part of a sit-on-top's recess begins and ends,
/// shares of the length. The prototype bodies.
const COCKPIT: (f64, f64) = (0.25, 0.62);
/// Where a board's standing pad lies, shares of the length, and its breadth as
/// a share of the hull's. Guide values (zone template).
pub(super) const PAD: (f64, f64) = (0.33, 0.60);
pub(super) const PAD_BREADTH: f64 = 0.75;
/// Least thickness left between a recess and the hull's skin, m.
const SKIN: f64 = 0.01;
/// Least height of a section from keel to gunwale, m: [`Shape`]s drawn keep it.
pub const LEAST_HEIGHT: f64 = 0.04;
/// Corners added above the bottom: rim, floor edge, floor centre.
const CLOSING: usize = 3;

/// One stretch of the length with smooth sections, shares of the length.
#[derive(Debug, Clone, Copy)]
struct Segment {
    from: f64,
    to: f64,
    recess: Option<Recess>,
    raised: bool,
    nodes: usize,
}

/// The stretches of one shape; every shape of a construction has as many.
fn segments(construction: Construction, shape: &Shape) -> Vec<Segment> {
    let seg = |from, to, recess, raised, nodes| Segment {
        from,
        to,
        recess,
        raised,
        nodes,
    };
    let cockpit = Some(Recess::Cockpit);
    let (from, to) = (shape.recess_from, shape.recess_to);
    match construction {
        Construction::SitOnTop => vec![
            seg(0.0, from, None, false, 3),
            seg(from, COCKPIT.0, cockpit, true, 2),
            seg(COCKPIT.0, 0.5, cockpit, false, 3),
            seg(0.5, COCKPIT.1, cockpit, false, 2),
            seg(COCKPIT.1, to, Some(Recess::TankWell), true, 4),
            seg(to, 1.0, None, false, 2),
        ],
        Construction::SitInside => vec![
            seg(0.0, from, None, false, 4),
            seg(from, 0.5, cockpit, false, 4),
            seg(0.5, to, cockpit, false, 3),
            seg(to, 1.0, None, false, 5),
        ],
        Construction::Board => vec![seg(0.0, 0.5, None, false, 7), seg(0.5, 1.0, None, false, 8)],
    }
}

/// Most nodes kept ready.
const READY: usize = 16;

static NODES: LazyLock<Vec<Vec<(f64, f64)>>> = LazyLock::new(|| (0..=READY).map(nodes).collect());

fn nodes(n: usize) -> Vec<(f64, f64)> {
    let Some(count) = NonZeroUsize::new(n) else {
        return Vec::new();
    };
    GaussLegendre::new(count)
        .iter()
        .map(|(x, w)| (0.5 * (1.0 - x), 0.5 * w))
        .collect()
}

/// Gauss-Legendre nodes and weights on [0, 1]; none for no nodes.
#[must_use]
pub fn gauss_legendre(n: usize) -> Cow<'static, [(f64, f64)]> {
    match NODES.get(n) {
        Some(ready) => Cow::Borrowed(ready),
        None => Cow::Owned(nodes(n)),
    }
}

/// Section data of one shape at one place along the hull.
#[derive(Debug, Clone, Copy)]
struct Cut {
    half: f64,
    keel: f64,
    gunwale: f64,
}

fn cut(frame: &Frame, shape: &Shape, share: f64) -> Cut {
    let u = 2.0 * share - 1.0;
    let (exponent, end, rise, sheer) = if u < 0.0 {
        (shape.bow_exponent, 0.0, shape.bow_rise, frame.sheer.0)
    } else {
        (
            shape.stern_exponent,
            shape.stern_end,
            shape.stern_rise,
            frame.sheer.1,
        )
    };
    let a = u.abs();
    let plan = end + (1.0 - end) * (1.0 - a.powf(exponent));
    let keel = rise * a * a * a;
    Cut {
        half: 0.5 * frame.beam * shape.breadth_scale * plan,
        keel,
        gunwale: (shape.depth + sheer * a * a).max(keel + LEAST_HEIGHT),
    }
}

/// Half-breadth and height of the floor's edge in a recess at this cut.
fn floor_edge(frame: &Frame, shape: &Shape, cut: &Cut, raised: bool) -> (f64, f64) {
    let height = cut.gunwale - cut.keel;
    let wanted = shape.floor + if raised { frame.step } else { 0.0 };
    // Above the bottom, its tunnels too; every section is higher than two skins.
    let z = wanted
        .min(cut.gunwale - SKIN)
        .max(cut.keel + SKIN + crown(shape.bottom) * height);
    let at = (z - cut.keel) / height;
    let share = breadth_at(shape.bottom, shape.fullness, shape.flare, at);
    let skin = (share * cut.half - SKIN).max(0.0);
    ((shape.recess_breadth * cut.half).min(skin), z)
}

/// Draws `N` bodies of the same frame. `refine` multiplies the nodes in every
/// segment: 1 for use, more to measure the integration error.
#[must_use]
pub fn draw<const N: usize>(frame: &Frame, shapes: &[Shape; N], refine: usize) -> Body<N> {
    let most = shapes.iter().map(|s| corners(s.bottom).len()).max();
    let outlines = shapes
        .each_ref()
        .map(|s| outline(s.bottom, s.fullness, s.flare, most.unwrap_or(0)));
    let points = outlines.first().map_or(0, |o| o.len()) + CLOSING;
    // A board's standing surface is its deck; a survey's floor height is its own.
    let board = frame.construction == Construction::Board;
    let standing = Lanes::from_fn(|i| {
        let s = &shapes[i];
        if board { s.floor.min(s.depth) } else { s.floor }
    });
    let lanes: [Vec<Segment>; N] = shapes.each_ref().map(|s| segments(frame.construction, s));
    let stations = refine * lanes[0].iter().map(|s| s.nodes).sum::<usize>();
    let edges = (EDGES + 1) * lanes[0].len();
    let room = (stations, points, edges);
    let mut body = Body::blank(frame.length, 0.0, room, standing);
    let mut end = None;
    for (k, first) in lanes[0].iter().enumerate() {
        let here: [Segment; N] =
            std::array::from_fn(|i| lanes[i].get(k).copied().unwrap_or(*first));
        for &(node, weight) in gauss_legendre(here[0].nodes * refine).iter() {
            let share = here.map(|s| s.from + (s.to - s.from) * node);
            body.x.push(Lanes(share) * frame.length);
            body.weight
                .push(Lanes(here.map(|s| weight * (s.to - s.from))) * frame.length);
            body.recess.push(here[0].recess);
            add_station(&mut body, frame, shapes, &outlines, &here[0], share);
        }
        end = Some(add_edges(&mut body, frame, shapes, &here, end));
    }
    if board {
        add_pad(&mut body, frame, shapes);
    }
    body.finished()
}

/// Appends one station's half-sections, solid and sealed.
fn add_station<const N: usize>(
    body: &mut Body<N>,
    frame: &Frame,
    shapes: &[Shape; N],
    outlines: &[Vec<(f64, f64)>; N],
    segment: &Segment,
    share: [f64; N],
) {
    let cuts: [Cut; N] = std::array::from_fn(|i| cut(frame, &shapes[i], share[i]));
    let corners = outlines.iter().map(Vec::len).min().unwrap_or(0);
    for k in 0..corners {
        let at: [(f64, f64); N] = outlines.each_ref().map(|o| o[k]);
        let y = Lanes::from_fn(|i| at[i].0 * cuts[i].half);
        let z = Lanes::from_fn(|i| cuts[i].keel + at[i].1 * (cuts[i].gunwale - cuts[i].keel));
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

/// Places at which the watched lines are known in a segment, besides its
/// beginning.
const EDGES: usize = 3;

/// The cuts at the end of a segment, and whether it lies in a recess.
type End<const N: usize> = ([Cut; N], bool);

/// Appends the watched lines over a segment: its end, two places between, and
/// its beginning unless the segment before ended there with the same line.
fn add_edges<const N: usize>(
    body: &mut Body<N>,
    frame: &Frame,
    shapes: &[Shape; N],
    segment: &[Segment; N],
    before: Option<End<N>>,
) -> End<N> {
    let top: [f64; N] =
        std::array::from_fn(|i| corners(shapes[i].bottom).last().map_or(1.0, |c| c.0));
    let Segment { recess, raised, .. } = segment[0];
    let shares: [[f64; N]; EDGES + 1] = std::array::from_fn(|step| {
        segment.map(|s| s.from + (s.to - s.from) * step as f64 / EDGES as f64)
    });
    let cuts: [[Cut; N]; EDGES + 1] = std::array::from_fn(|step| match before {
        Some((cuts, _)) if step == 0 => cuts,
        _ => std::array::from_fn(|i| cut(frame, &shapes[i], shares[step][i])),
    });
    for (step, (share, cuts)) in shares.iter().zip(&cuts).enumerate() {
        let x = Lanes(*share) * frame.length;
        let rail = EdgePoint {
            x,
            y: Lanes::from_fn(|i| cuts[i].half * top[i]),
            z: Lanes::from_fn(|i| cuts[i].gunwale),
        };
        let before = before.filter(|_| step == 0);
        if before.is_none() {
            body.gunwale.push(rail);
            body.keel.push(EdgePoint {
                x,
                y: Lanes::ZERO,
                z: Lanes::from_fn(|i| cuts[i].keel),
            });
        }
        let Some(recess) = recess else { continue };
        if before.is_none_or(|(_, recessed)| !recessed) {
            body.rim.push(rail);
        }
        let edges: [(f64, f64); N] =
            std::array::from_fn(|i| floor_edge(frame, &shapes[i], &cuts[i], raised));
        let edge = EdgePoint {
            x,
            y: Lanes::from_fn(|i| edges[i].0),
            z: Lanes::from_fn(|i| edges[i].1),
        };
        body.sill.push(edge);
        if recess == Recess::Cockpit && !raised {
            body.floor.push(edge);
        }
    }
    (cuts[EDGES], recess.is_some())
}

/// Appends the edge of a board's standing pad: its deck is its floor.
fn add_pad<const N: usize>(body: &mut Body<N>, frame: &Frame, shapes: &[Shape; N]) {
    for step in 0..=3 {
        let share = PAD.0 + (PAD.1 - PAD.0) * f64::from(step) / 3.0;
        let cuts = shapes.each_ref().map(|s| cut(frame, s, share));
        body.floor.push(EdgePoint {
            x: Lanes::splat(share * frame.length),
            y: Lanes::from_fn(|i| PAD_BREADTH * cuts[i].half),
            z: Lanes::from_fn(|i| body.standing_height.0[i].min(cuts[i].gunwale)),
        });
    }
}

/// Lines of a body along its length, for drawing: places from the bow, m, with
/// heights or half-breadths, m.
#[derive(Debug, Clone, PartialEq, Default)]
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
    let mut out = Lines::default();
    for step in 0..=STEPS {
        let share = f64::from(step) / f64::from(STEPS);
        let x = share * frame.length;
        let here = cut(frame, shape, share);
        out.sheer.push((x, here.gunwale));
        out.keel.push((x, here.keel));
        out.plan.push((x, here.half));
    }
    for segment in segments(frame.construction, shape) {
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

/// Half a section: the outer skin from the keel at the centreline up to the
/// gunwale, and the way back to the centreline over deck or recess.
#[derive(Debug, Clone, PartialEq)]
pub struct HalfSection {
    /// Half-breadths and heights, m, keel to gunwale.
    pub skin: Vec<(f64, f64)>,
    /// Half-breadths and heights, m, from after the gunwale to the centreline.
    pub inner: Vec<(f64, f64)>,
}

impl HalfSection {
    /// The closed section, starboard side round to port.
    #[must_use]
    pub fn closed(&self) -> Vec<(f64, f64)> {
        let half: Vec<(f64, f64)> = self.skin.iter().chain(&self.inner).copied().collect();
        let port = half.iter().rev().map(|&(y, z)| (-y, z));
        half.iter().copied().chain(port).collect()
    }

    /// Height of the gunwale, m.
    #[must_use]
    pub fn gunwale(&self) -> f64 {
        self.skin.last().map_or(0.0, |p| p.1)
    }

    /// Full breadth of the outer skin at a height, m: at its widest there, 0
    /// above and below it.
    #[must_use]
    pub fn breadth_at(&self, height: f64) -> f64 {
        2.0 * outermost(&self.skin, height)
    }
}

/// Half the section of one shape at a share of the length.
#[must_use]
pub fn half_section(frame: &Frame, shape: &Shape, share: f64) -> HalfSection {
    let segment = segments(frame.construction, shape)
        .into_iter()
        .find(|s| share >= s.from && share <= s.to);
    let here = cut(frame, shape, share);
    let skin = corners(shape.bottom)
        .iter()
        .map(|&corner| {
            let share = skin(shape.bottom, corner, shape.fullness, shape.flare);
            let height = corner.1 * (here.gunwale - here.keel);
            (share * here.half, here.keel + height)
        })
        .collect();
    let inner = match segment.filter(|s| s.recess.is_some()) {
        Some(segment) => {
            let (y, z) = floor_edge(frame, shape, &here, segment.raised);
            vec![(y, here.gunwale), (y, z), (0.0, z)]
        }
        None => vec![(0.0, here.gunwale)],
    };
    HalfSection { skin, inner }
}

/// Stations taken off a shape by tape: every few centimetres, closer where the
/// deck steps, the recess cut out. Drawn again as measured offsets they float
/// as the shape does.
#[must_use]
pub fn stations(frame: &Frame, shape: &Shape) -> Vec<Station> {
    const EVERY: u32 = 64;
    /// Distance kept from a step in the deck, and of the pair beside it.
    const APART: f64 = 2e-3;
    const BESIDE: f64 = 1e-5;
    let steps: Vec<f64> = segments(frame.construction, shape)
        .windows(2)
        .filter(|pair| (pair[0].recess, pair[0].raised) != (pair[1].recess, pair[1].raised))
        .map(|pair| pair[1].from)
        .collect();
    let mut places: Vec<f64> = (1..EVERY)
        .map(|i| f64::from(i) / f64::from(EVERY))
        .filter(|p| steps.iter().all(|s| (p - s).abs() > APART))
        .collect();
    places.extend(steps.iter().flat_map(|s| [s - BESIDE, s + BESIDE]));
    places.extend([1e-4, 1.0 - 1e-6]);
    places.sort_by(f64::total_cmp);
    places
        .iter()
        .map(|&share| {
            let half = half_section(frame, shape, share);
            Station {
                x: share * frame.length,
                points: half.skin.into_iter().chain(half.inner).collect(),
            }
        })
        .collect()
}
