//! Volume, centres and waterplane of a body cut by a water surface.

use super::clip::{Half, SectionIntegrals, Turn, heeled_section, upright_section, wetted_girth};
use super::weight::Weight;
use crate::base::Lanes;
use crate::body::{AddedFloats, Body, Cut, EdgePoint, Outline};

/// How a body lies to the water.
///
/// The water surface is the plane `zeta = draft + slope · (x - middle)`, where
/// `zeta` is the height above the baseline along the vertical of the heeled
/// section. `slope` is the tangent of the trim: positive is bow up, the stern
/// deeper. The plane is exact at any heel and trim.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Attitude<const N: usize> {
    /// Heel, rad, starboard down positive. The same in every lane.
    pub heel: f64,
    /// Height of the water above the baseline at mid-length, m.
    pub draft: Lanes<N>,
    /// Tangent of the trim angle, bow up positive.
    pub slope: Lanes<N>,
}

impl<const N: usize> Attitude<N> {
    /// Height of the water at `x`, m, along the heeled vertical.
    #[inline(always)]
    #[must_use]
    pub fn water_at(&self, x: f64, middle: f64) -> Lanes<N> {
        self.draft + self.slope * (x - middle)
    }

    /// As [`Attitude::water_at`], at a place of its own in every lane.
    #[inline(always)]
    #[must_use]
    pub fn water_over(&self, x: Lanes<N>, middle: f64) -> Lanes<N> {
        self.draft + self.slope * (x - middle)
    }
}

/// Integrals over the submerged body and its waterplane. Longitudinal moments
/// are taken about mid-length.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Immersion<const N: usize> {
    /// Displaced volume ∇, m³.
    pub volume: Lanes<N>,
    /// `∫(x - middle) dV`, m⁴.
    pub x_moment: Lanes<N>,
    /// `∫eta dV`, m⁴ (horizontal, to starboard of the centreline's foot).
    pub eta_moment: Lanes<N>,
    /// `∫zeta dV`, m⁴, from the baseline along the heeled vertical.
    pub zeta_moment: Lanes<N>,
    /// Waterplane area, m² (its projection along the heeled vertical).
    pub area: Lanes<N>,
    /// `∫(x - middle) dA`, m³.
    pub area_x: Lanes<N>,
    /// `∫(x - middle)² dA`, m⁴.
    pub area_xx: Lanes<N>,
    /// `∫eta dA`, m³.
    pub area_eta: Lanes<N>,
    /// `∫eta² dA`, m⁴: the transverse inertia about the origin of `eta`.
    pub area_eta_eta: Lanes<N>,
}

impl<const N: usize> Immersion<N> {
    const EMPTY: Self = Self {
        volume: Lanes::ZERO,
        x_moment: Lanes::ZERO,
        eta_moment: Lanes::ZERO,
        zeta_moment: Lanes::ZERO,
        area: Lanes::ZERO,
        area_x: Lanes::ZERO,
        area_xx: Lanes::ZERO,
        area_eta: Lanes::ZERO,
        area_eta_eta: Lanes::ZERO,
    };

    /// Every integral with `f` applied to it.
    #[must_use]
    pub(super) fn map(self, f: impl Fn(Lanes<N>) -> Lanes<N>) -> Self {
        Self {
            volume: f(self.volume),
            x_moment: f(self.x_moment),
            eta_moment: f(self.eta_moment),
            zeta_moment: f(self.zeta_moment),
            area: f(self.area),
            area_x: f(self.area_x),
            area_xx: f(self.area_xx),
            area_eta: f(self.area_eta),
            area_eta_eta: f(self.area_eta_eta),
        }
    }

    /// These integrals in lanes where `condition` is negative, elsewhere those
    /// of `other`.
    pub(super) fn where_negative(self, condition: Lanes<N>, other: Self) -> Self {
        let or = |a: Lanes<N>, b: Lanes<N>| condition.where_negative(a, b);
        Self {
            volume: or(self.volume, other.volume),
            x_moment: or(self.x_moment, other.x_moment),
            eta_moment: or(self.eta_moment, other.eta_moment),
            zeta_moment: or(self.zeta_moment, other.zeta_moment),
            area: or(self.area, other.area),
            area_x: or(self.area_x, other.area_x),
            area_xx: or(self.area_xx, other.area_xx),
            area_eta: or(self.area_eta, other.area_eta),
            area_eta_eta: or(self.area_eta_eta, other.area_eta_eta),
        }
    }

    #[inline(always)]
    fn add(&mut self, weight: Lanes<N>, arm: Lanes<N>, water: Lanes<N>, s: &SectionIntegrals<N>) {
        self.volume += s.area * weight;
        self.x_moment += s.area * (weight * arm);
        self.eta_moment += s.eta_moment * weight;
        self.zeta_moment += (s.zeta_moment + water * s.area) * weight;
        self.area += s.breadth * weight;
        self.area_x += s.breadth * (weight * arm);
        self.area_xx += s.breadth * (weight * arm * arm);
        self.area_eta += s.breadth_first * weight;
        self.area_eta_eta += s.breadth_second * weight;
    }

    /// Adds both of a pair of floats. A circle keeps its shape as the boat heels; only its
    /// centre moves.
    fn add_floats(&mut self, floats: &AddedFloats<N>, at: &Attitude<N>, middle: f64) {
        let (sin, cos) = at.heel.sin_cos();
        for side in [-1.0, 1.0] {
            let y = side * floats.y;
            for (x, weight) in floats.stations() {
                let water = at.water_at(x, middle);
                let (mut area, mut up) = (Lanes::ZERO, Lanes::ZERO);
                let mut breadth = Lanes::ZERO;
                for i in 0..N {
                    let centre = floats.z.0[i] * cos - y * sin;
                    let cut = Cut::of(floats.radius, water.0[i] - centre);
                    (area.0[i], up.0[i], breadth.0[i]) = (cut.area, cut.up, cut.breadth);
                }
                let eta = floats.z * sin + y * cos;
                let zeta = floats.z * cos - y * sin;
                let section = SectionIntegrals {
                    area,
                    eta_moment: area * eta,
                    zeta_moment: up + area * (zeta - water),
                    breadth,
                    breadth_first: breadth * eta,
                    breadth_second: breadth * eta * eta
                        + breadth * breadth * breadth * (1.0 / 12.0),
                };
                let arm = Lanes::splat(x - middle);
                self.add(Lanes::splat(weight), arm, water, &section);
            }
        }
    }

    /// Transverse metacentric radius BM = I_T/∇ about the waterplane's own
    /// centre line, m.
    #[must_use]
    pub fn metacentric_radius(&self) -> Lanes<N> {
        let area = self.area.max(Lanes::splat(1e-12));
        let own = self.area_eta_eta - self.area_eta * self.area_eta / area;
        own / self.volume.max(Lanes::splat(1e-12))
    }
}

/// One immersion to be integrated, in the widest registers the machine has.
struct Task<'a, const N: usize> {
    body: &'a Body<N>,
    outline: &'a Outline<N>,
    at: &'a Attitude<N>,
}

impl<const N: usize> pulp::WithSimd for Task<'_, N> {
    type Output = Immersion<N>;

    #[inline(always)]
    fn with_simd<S: pulp::Simd>(self, _: S) -> Immersion<N> {
        integrate(self.body, self.outline, self.at)
    }
}

/// Integrates the submerged part of `outline` (one of `body`'s own), and of the floats
/// beside it.
///
/// Lanes never mix and nothing is fused, so that the figures are the same in
/// registers of any width.
#[must_use]
pub fn immerse<const N: usize>(
    body: &Body<N>,
    outline: &Outline<N>,
    at: &Attitude<N>,
) -> Immersion<N> {
    let mut sum = immerse_hull(body, outline, at);
    for floats in &body.floats {
        sum.add_floats(floats, at, body.middle());
    }
    sum
}

/// The same without the floats: what of `outline` lies under a plane.
#[must_use]
pub fn immerse_hull<const N: usize>(
    body: &Body<N>,
    outline: &Outline<N>,
    at: &Attitude<N>,
) -> Immersion<N> {
    pulp::Arch::new().dispatch(Task { body, outline, at })
}

#[inline(always)]
fn integrate<const N: usize>(
    body: &Body<N>,
    outline: &Outline<N>,
    at: &Attitude<N>,
) -> Immersion<N> {
    let turn = Turn::of(at.heel);
    let upright = at.heel == 0.0;
    let middle = body.middle();
    let k = body.points;
    let mut sum = Immersion::EMPTY;
    let sections = outline.y.chunks_exact(k).zip(outline.z.chunks_exact(k));
    let sections = sections.zip(outline.fan.chunks_exact(k));
    for ((&x, &weight), ((y, z), fan)) in body.x.iter().zip(&body.weight).zip(sections) {
        let water = at.water_over(x, middle);
        let half = Half { y, z, fan };
        let s = if upright {
            upright_section(&half, water)
        } else {
            heeled_section(&half, turn, water)
        };
        sum.add(weight, x - middle, water, &s);
    }
    sum
}

/// Wetted area of the outline, m²: wetted girths along the length. The skin's
/// slope along the hull is left out, which makes it one or two per cent small
/// on a kayak, and so are flat ends.
#[must_use]
pub fn wetted_area<const N: usize>(
    body: &Body<N>,
    outline: &Outline<N>,
    at: &Attitude<N>,
) -> Lanes<N> {
    let turn = Turn::of(at.heel);
    let k = body.points;
    let sections = outline.y.chunks_exact(k).zip(outline.z.chunks_exact(k));
    body.x.iter().zip(&body.weight).zip(sections).fold(
        Lanes::ZERO,
        |sum, ((&x, &weight), (y, z))| {
            let water = at.water_over(x, body.middle());
            sum + wetted_girth(y, z, turn, water) * weight
        },
    )
}

/// Least height above the water over a line along the hull and its mirror
/// image, m; negative when some of it is under. Infinite for an empty line.
#[must_use]
pub fn clearance<const N: usize>(line: &[EdgePoint<N>], middle: f64, at: &Attitude<N>) -> Lanes<N> {
    let (sin, cos) = at.heel.sin_cos();
    let low_side = sin.abs();
    line.iter().fold(Lanes::splat(f64::INFINITY), |least, p| {
        least.min(p.z * cos - p.y * low_side - at.water_over(p.x, middle))
    })
}

/// Righting arm of a body in equilibrium: `eta_B - eta_G`, m, the horizontal
/// distance by which the buoyancy lies to the low side of the weight. Exact
/// with trim, since the transverse horizontal of the heeled section is
/// horizontal.
#[must_use]
pub fn arm<const N: usize>(
    at: &Attitude<N>,
    immersion: &Immersion<N>,
    weight: &Weight<N>,
) -> Lanes<N> {
    let (sin, cos) = at.heel.sin_cos();
    let eta_g = weight.y * cos + weight.z * sin;
    let volume = immersion.volume.max(Lanes::splat(1e-9));
    immersion.eta_moment / volume - eta_g
}

/// Metacentric height KB + BM - KG of a body in upright equilibrium, m.
#[must_use]
pub fn metacentric_height<const N: usize>(
    immersion: &Immersion<N>,
    weight: &Weight<N>,
) -> Lanes<N> {
    let volume = immersion.volume.max(Lanes::splat(1e-9));
    immersion.zeta_moment / volume + immersion.metacentric_radius() - weight.z
}

/// Depth of the deepest point of the bottom under water, upright and as
/// trimmed, m.
#[must_use]
pub fn deepest<const N: usize>(body: &Body<N>, at: &Attitude<N>) -> Lanes<N> {
    let middle = body.middle();
    let below = |p: &EdgePoint<N>| at.water_over(p.x, middle) - p.z;
    body.keel
        .iter()
        .map(below)
        .fold(Lanes::splat(f64::NEG_INFINITY), Lanes::max)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::body::{Frame, Shape, draw};
    use crate::guide::Guides;
    use crate::hull::{BottomShape, Construction};

    #[test]
    fn registers_of_any_width_give_the_same_figures_to_the_last_bit() {
        let guides = Guides::default();
        let frame = Frame::new(3.7, 0.9, Construction::SitOnTop, &guides);
        let lanes: [Shape; 4] = std::array::from_fn(|i| {
            let off = 0.01 * i as f64;
            Shape {
                bottom: BottomShape::Tunnel,
                bow_exponent: 2.6 + off,
                stern_exponent: 2.9 - off,
                stern_end: 0.12 + off,
                depth: 0.36 - off,
                bow_rise: 0.09,
                stern_rise: 0.06 + off,
                floor: 0.135 + 0.5 * off,
                fullness: off,
                flare: 0.01,
                recess_breadth: 0.76 - off,
                recess_from: 0.18 + off,
                recess_to: 0.93,
                breadth_scale: 1.0,
                height_scale: 1.0,
                hull_mass: 50.0,
                kit_mass: 9.0,
                seats: [0.10, 0.26],
                guess: [0.0; 3],
            }
        });
        let body = draw(&frame, &lanes, 1);
        for step in 0..19 {
            let at = Attitude {
                heel: 0.08 * f64::from(step),
                draft: Lanes([0.08, 0.1, 0.13, 0.17]),
                slope: Lanes::splat(0.01),
            };
            for outline in [&body.solid, &body.sealed] {
                let task = || Task {
                    body: &body,
                    outline,
                    at: &at,
                };
                let plain = pulp::Arch::Scalar.dispatch(task());
                assert_eq!(pulp::Arch::new().dispatch(task()), plain, "{}", at.heel);
            }
        }
    }
}
