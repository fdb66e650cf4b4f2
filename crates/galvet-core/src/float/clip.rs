//! The submerged part of one section, by Green's theorem.
//!
//! A section is a closed polygon. Turned by the heel it lies in coordinates
//! `eta` (horizontal, to starboard) and `zeta` (vertical, up); with `zeta`
//! measured from the water at that station the submerged part is `zeta < 0`.
//! By Green's theorem the integrals over the submerged part are sums over the
//! polygon's edges, and the pieces of the new boundary that lie *on* the water
//! contribute nothing, since every integrand carries a factor `zeta`. So each
//! edge is shortened to its submerged piece and summed; nothing is sorted,
//! nothing is allocated, and a section may double back, have a recess, or be
//! cut into several wet parts.
//!
//! Area `-∮ζ dη`, first moments `-∮ηζ dη` and `-½∮ζ² dη`, each exact on a
//! straight edge. The water's breadth and its moments come from the signed
//! crossings of the boundary: `Σ±η`, `Σ±η²/2`, `Σ±η³/3`.

use crate::base::Lanes;

/// Integrals over the submerged part of one section and over its waterline.
#[derive(Debug, Clone, Copy)]
pub struct SectionIntegrals<const N: usize> {
    /// Submerged area, m².
    pub area: Lanes<N>,
    /// First moment of the area in `eta`, m³.
    pub eta_moment: Lanes<N>,
    /// First moment of the area in `zeta` from the water's surface, m³ (negative).
    pub zeta_moment: Lanes<N>,
    /// Breadth of the section's waterline, m (dry gaps left out).
    pub breadth: Lanes<N>,
    /// `∫η dη` over the waterline, m².
    pub breadth_first: Lanes<N>,
    /// `∫η² dη` over the waterline, m³.
    pub breadth_second: Lanes<N>,
}

impl<const N: usize> SectionIntegrals<N> {
    /// Nothing under water.
    pub const EMPTY: Self = Self {
        area: Lanes::ZERO,
        eta_moment: Lanes::ZERO,
        zeta_moment: Lanes::ZERO,
        breadth: Lanes::ZERO,
        breadth_first: Lanes::ZERO,
        breadth_second: Lanes::ZERO,
    };
}

/// A corner of a section in water coordinates.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Corner<const N: usize> {
    /// Horizontal, to starboard, m.
    eta: Lanes<N>,
    /// Height above the water at this station, m.
    zeta: Lanes<N>,
    /// How many lanes have it under water.
    wet: f64,
}

impl<const N: usize> Corner<N> {
    #[inline(always)]
    fn new(eta: Lanes<N>, zeta: Lanes<N>) -> Self {
        Self {
            eta,
            zeta,
            wet: zeta.count_negative(),
        }
    }
}

/// Below this a vertical run counts as level; it only keeps 0/0 away.
const LEVEL: f64 = 1e-300;

/// Adds the edge from `a` to `b` (walked with the body on the left) to `sum`.
///
/// Most edges are dry in every lane or wet in every lane; only the few near
/// the water need the clipping.
#[inline(always)]
pub(crate) fn add_edge<const N: usize>(sum: &mut SectionIntegrals<N>, a: Corner<N>, b: Corner<N>) {
    let wet = a.wet + b.wet;
    if wet == 0.0 {
        return;
    }
    if wet == 2.0 * N as f64 {
        add_wet(sum, a.eta, a.zeta, b.eta, b.zeta);
    } else {
        add_clipped(sum, a, b);
    }
}

/// Adds the area and moments of an edge that lies under water.
#[inline(always)]
fn add_wet<const N: usize>(
    sum: &mut SectionIntegrals<N>,
    e0: Lanes<N>,
    z0: Lanes<N>,
    e1: Lanes<N>,
    z1: Lanes<N>,
) {
    let run = e1 - e0;
    let both = z0 + z1;
    sum.area -= run * both;
    sum.zeta_moment -= run * (z0 * z0 + z1 * both);
    sum.eta_moment -= run * ((e0 + e1) * both + e0 * z0 + e1 * z1);
}

/// Adds the submerged piece of an edge that may meet the water, and the bank
/// where it does.
#[inline(never)]
fn add_clipped<const N: usize>(sum: &mut SectionIntegrals<N>, a: Corner<N>, b: Corner<N>) {
    let d_eta = b.eta - a.eta;
    let d_zeta = b.zeta - a.zeta;
    // Where along the edge (0 at a, 1 at b) it meets the water.
    let crossing = (-a.zeta / d_zeta.map(|d| if d.abs() < LEVEL { LEVEL } else { d }))
        .clamp(Lanes::ZERO, Lanes::splat(1.0));
    let bank = a.eta + d_eta * crossing;
    let e0 = a.zeta.where_negative(a.eta, bank);
    let e1 = b.zeta.where_negative(b.eta, bank);
    add_wet(
        sum,
        e0,
        a.zeta.min(Lanes::ZERO),
        e1,
        b.zeta.min(Lanes::ZERO),
    );
    // +1 where the boundary climbs out of the water (a right bank), -1 where it dives.
    let signed = (a.zeta.is_negative() - b.zeta.is_negative()) * bank;
    sum.breadth += signed;
    sum.breadth_first += signed * bank;
    sum.breadth_second += signed * bank * bank;
}

impl<const N: usize> SectionIntegrals<N> {
    /// Puts in the constant factors that the edges leave out.
    #[inline(always)]
    fn finished(self) -> Self {
        Self {
            area: self.area * 0.5,
            eta_moment: self.eta_moment * (1.0 / 6.0),
            zeta_moment: self.zeta_moment * (1.0 / 6.0),
            breadth: self.breadth,
            breadth_first: self.breadth_first * 0.5,
            breadth_second: self.breadth_second * (1.0 / 3.0),
        }
    }
}

/// Heel as the two numbers the turning needs.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Turn {
    pub(crate) sin: f64,
    pub(crate) cos: f64,
}

impl Turn {
    pub(crate) fn of(heel_rad: f64) -> Self {
        let (sin, cos) = heel_rad.sin_cos();
        Self { sin, cos }
    }

    /// A body point and its mirror image into water coordinates.
    #[inline(always)]
    fn corners<const N: usize>(
        self,
        y: Lanes<N>,
        z: Lanes<N>,
        water: Lanes<N>,
    ) -> (Corner<N>, Corner<N>) {
        let (across, down) = (y * self.cos, y * self.sin);
        let (over, up) = (z * self.sin, z * self.cos - water);
        (
            Corner::new(over + across, up - down),
            Corner::new(over - across, up + down),
        )
    }

    /// A body point into water coordinates: starboard goes down with positive heel.
    #[inline(always)]
    pub(crate) fn corner<const N: usize>(
        self,
        y: Lanes<N>,
        z: Lanes<N>,
        water: Lanes<N>,
    ) -> Corner<N> {
        Corner::new(
            y * self.cos + z * self.sin,
            z * self.cos - y * self.sin - water,
        )
    }
}

/// Integrals of a section given as its starboard half, mirrored about y = 0,
/// heeled by `turn`, with the water at height `water` above the baseline
/// measured along the turned vertical.
#[inline]
pub(crate) fn heeled_section<const N: usize>(
    y: &[Lanes<N>],
    z: &[Lanes<N>],
    turn: Turn,
    water: Lanes<N>,
) -> SectionIntegrals<N> {
    let mut sum = SectionIntegrals::EMPTY;
    let (mut starboard, mut port) = turn.corners(y[0], z[0], water);
    for (&y, &z) in y.iter().zip(z).skip(1) {
        let (next_starboard, next_port) = turn.corners(y, z, water);
        add_edge(&mut sum, starboard, next_starboard);
        // The port half is the mirror image walked back.
        add_edge(&mut sum, next_port, port);
        (starboard, port) = (next_starboard, next_port);
    }
    sum.finished()
}

/// Length of the wetted boundary of a section as in [`heeled_section`], m.
pub(crate) fn wetted_girth<const N: usize>(
    y: &[Lanes<N>],
    z: &[Lanes<N>],
    turn: Turn,
    water: Lanes<N>,
) -> Lanes<N> {
    let mut girth = Lanes::ZERO;
    for k in 1..y.len() {
        for side in [1.0, -1.0] {
            let a = turn.corner(y[k - 1] * side, z[k - 1], water);
            let b = turn.corner(y[k] * side, z[k], water);
            let length = (b.eta - a.eta).zip(b.zeta - a.zeta, f64::hypot);
            // Share of the edge that lies below the water.
            let wet = a.zeta.zip(b.zeta, |p, q| match (p < 0.0, q < 0.0) {
                (true, true) => 1.0,
                (false, false) => 0.0,
                (true, false) => p / (p - q),
                (false, true) => q / (q - p),
            });
            girth += length * wet;
        }
    }
    girth
}

/// As [`heeled_section`] for a body that stands upright: half the edges do.
#[inline]
pub(crate) fn upright_section<const N: usize>(
    y: &[Lanes<N>],
    z: &[Lanes<N>],
    water: Lanes<N>,
) -> SectionIntegrals<N> {
    let mut half = SectionIntegrals::EMPTY;
    let mut last = Corner::new(y[0], z[0] - water);
    for (&y, &z) in y.iter().zip(z).skip(1) {
        let next = Corner::new(y, z - water);
        add_edge(&mut half, last, next);
        last = next;
    }
    let half = half.finished();
    SectionIntegrals {
        area: half.area * 2.0,
        eta_moment: Lanes::ZERO,
        zeta_moment: half.zeta_moment * 2.0,
        breadth: half.breadth * 2.0,
        breadth_first: Lanes::ZERO,
        breadth_second: half.breadth_second * 2.0,
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use approx::assert_relative_eq;

    /// A 2 m wide, 1 m deep rectangle with a 1 m wide recess down to 0.5 m.
    fn trough() -> ([Lanes<1>; 5], [Lanes<1>; 5]) {
        (
            [0.0, 1.0, 1.0, 0.5, 0.5].map(Lanes::splat),
            [0.0, 0.0, 1.0, 1.0, 0.5].map(Lanes::splat),
        )
    }

    fn floored() -> (Vec<Lanes<1>>, Vec<Lanes<1>>) {
        let (y, z) = trough();
        let mut y = y.to_vec();
        let mut z = z.to_vec();
        y.push(Lanes::ZERO);
        z.push(Lanes::splat(0.5));
        (y, z)
    }

    #[test]
    fn water_in_the_recess_is_not_displaced() {
        let (y, z) = floored();
        let s = upright_section(&y, &z, Lanes::splat(0.8));
        assert_relative_eq!(s.area.0[0], 2.0 * 0.8 - 1.0 * 0.3, epsilon = 1e-12);
        assert_relative_eq!(s.breadth.0[0], 1.0, epsilon = 1e-12);
        // ∫η² over two strips 0.5..1: 2 (1 - 0.125)/3.
        assert_relative_eq!(s.breadth_second.0[0], 2.0 * 0.875 / 3.0, epsilon = 1e-12);
        let above_base = s.zeta_moment.0[0] + 0.8 * s.area.0[0];
        assert_relative_eq!(above_base, 1.6 * 0.4 - 0.3 * 0.65, epsilon = 1e-12);
    }

    #[test]
    fn half_and_whole_agree_upright() {
        let (y, z) = floored();
        for water in [0.2, 0.5001, 0.7, 1.4] {
            let half = upright_section(&y, &z, Lanes::splat(water));
            let whole = heeled_section(&y, &z, Turn::of(0.0), Lanes::splat(water));
            assert_relative_eq!(half.area.0[0], whole.area.0[0], epsilon = 1e-12);
            assert_relative_eq!(half.breadth.0[0], whole.breadth.0[0], epsilon = 1e-12);
            assert_relative_eq!(whole.eta_moment.0[0], 0.0, epsilon = 1e-12);
        }
    }

    #[test]
    fn heeled_rectangle_has_the_wedge_areas() {
        // A 2 × 1 rectangle heeled until the waterline runs through its centre
        // and both sides: half its area stays under, the breadth grows by 1/cos.
        let y: Vec<Lanes<1>> = [0.0, 1.0, 1.0, 0.0].map(Lanes::splat).to_vec();
        let z: Vec<Lanes<1>> = [0.0, 0.0, 1.0, 1.0].map(Lanes::splat).to_vec();
        let heel = 0.3_f64;
        let water = 0.5 * heel.cos();
        let s = heeled_section(&y, &z, Turn::of(heel), Lanes::splat(water));
        assert_relative_eq!(s.area.0[0], 1.0, epsilon = 1e-12);
        assert_relative_eq!(s.breadth.0[0], 2.0 / heel.cos(), epsilon = 1e-12);
        // Starboard is the low side: the wet area's centre lies to starboard of
        // where it would be if it had merely turned with the body.
        let turned = 0.25 * heel.sin();
        assert!(s.eta_moment.0[0] / s.area.0[0] > turned);
    }
}
