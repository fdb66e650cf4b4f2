//! The submerged part of one section, by Green's theorem.
//!
//! A section is a closed polygon. Its area and first moments are sums over its
//! edges of what the triangle from the baseline to the edge holds: with
//! `c = y₀z₁ - y₁z₀`, twice the area is `Σc` and six times the moments
//! `Σc(y₀+y₁)` and `Σc(z₀+z₁)`. These sums up to each corner do not depend on
//! how the body lies, so [`Fan`] keeps them. Heeled by an angle, a corner lies
//! at `eta` (horizontal, to starboard) and at `zeta` (vertical, up) from the
//! water at that station; wherever the walk round the section dives below
//! `zeta = 0` or climbs out, the sums up to there are taken with the sign of
//! that crossing. Nothing is sorted, nothing is allocated, and a section may
//! double back, have a recess, or be cut into several wet parts.
//!
//! What closes each wet part runs along the water, at height `w` over the
//! baseline; with the crossings' signed moments `b₁ = Σ±eta`, `b₂ = Σ±eta²`
//! (+ where the boundary climbs out to starboard) it holds `w b₁`, `w b₂` and
//! `2 w² b₁` of the three sums. The water's breadth and its moments are `b₁`,
//! `b₂/2` and `Σ±eta³/3`.

use crate::base::Lanes;
use crate::body::Fan;

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

/// One section's starboard half: corners from the bottom at the centreline
/// outward, up and back to the centreline, with their running sums.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Half<'a, const N: usize> {
    /// Half-breadths, m.
    pub(crate) y: &'a [Lanes<N>],
    /// Heights above the baseline, m.
    pub(crate) z: &'a [Lanes<N>],
    /// Running sums up to each corner.
    pub(crate) fan: &'a [Fan<N>],
}

/// Heel as the two numbers the turning needs.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Turn {
    pub(crate) sin: f64,
    pub(crate) cos: f64,
}

impl Turn {
    /// Upright.
    pub(crate) const NONE: Self = Self { sin: 0.0, cos: 1.0 };

    pub(crate) fn of(heel_rad: f64) -> Self {
        let (sin, cos) = heel_rad.sin_cos();
        Self { sin, cos }
    }

    /// A body point into water coordinates: starboard goes down with positive heel.
    #[inline(always)]
    fn corner<const N: usize>(
        self,
        y: Lanes<N>,
        z: Lanes<N>,
        water: Lanes<N>,
    ) -> (Lanes<N>, Lanes<N>) {
        (
            y * self.cos + z * self.sin,
            z * self.cos - y * self.sin - water,
        )
    }
}

/// One side of a section being walked from the bottom up.
struct Side<const N: usize> {
    /// 1 to starboard; -1 to port, where the half is meant mirrored.
    side: f64,
    /// Sums over the wet part, in the frame of the starboard half.
    sums: Fan<N>,
    /// `Σ±eta`, `Σ±eta²`, `Σ±eta³` over the crossings of this side, + where
    /// the walk climbs out of the water.
    bank: [Lanes<N>; 3],
    /// Height over the water of the corner the walk has come to, m.
    at: Lanes<N>,
}

impl<const N: usize> Side<N> {
    #[inline(always)]
    fn start(side: f64, zeta: Lanes<N>) -> Self {
        Self {
            side,
            sums: Fan::NONE,
            bank: [Lanes::ZERO; 3],
            at: zeta.without_negative_zero(),
        }
    }

    /// Goes on to corner `i` at height `zeta`. Most edges meet the water in no
    /// lane and cost no more than their end's height.
    #[inline(always)]
    fn to(&mut self, half: &Half<'_, N>, i: usize, zeta: Lanes<N>, turn: Turn) {
        let zeta = zeta.without_negative_zero();
        if self.at.signs_differ(zeta) {
            self.cross(half, i, zeta, turn);
        }
        self.at = zeta;
    }

    /// The edge up to corner `i` meets the water in some lane: adds the sums up
    /// to the crossing where it climbs out, takes them away where it dives.
    #[inline(always)]
    fn cross(&mut self, half: &Half<'_, N>, i: usize, zeta: Lanes<N>, turn: Turn) {
        let climbs = self.at.is_negative() - zeta.is_negative();
        // Of two heights of different sign; elsewhere nothing comes of it.
        let fall = (-climbs * climbs).where_negative(self.at - zeta, Lanes::splat(1.0));
        let share = self.at / fall;
        let (y0, z0) = (half.y[i - 1], half.z[i - 1]);
        let (y, z) = (y0 + (half.y[i] - y0) * share, z0 + (half.z[i] - z0) * share);
        let before = &half.fan[i - 1];
        let twice = y0 * z - y * z0;
        self.sums.area += climbs * (before.area + twice);
        self.sums.y_moment += climbs * (before.y_moment + twice * (y0 + y));
        self.sums.z_moment += climbs * (before.z_moment + twice * (z0 + z));
        let eta = y * (self.side * turn.cos) + z * turn.sin;
        let mut bank = climbs;
        for sum in &mut self.bank {
            bank = bank * eta;
            *sum += bank;
        }
    }

    /// Sums with those of lanes whose walk ends under water.
    #[inline(always)]
    fn ended(&self, half: &Half<'_, N>) -> Fan<N> {
        let mut sums = self.sums;
        if let Some(last) = half.fan.last() {
            let under = self.at.is_negative();
            sums.area += last.area * under;
            sums.y_moment += last.y_moment * under;
            sums.z_moment += last.z_moment * under;
        }
        sums
    }
}

/// Integrals of a section given as its starboard half, mirrored about y = 0,
/// heeled by `turn`, with the water at height `water` above the baseline
/// measured along the turned vertical.
#[inline(always)]
pub(crate) fn heeled_section<const N: usize>(
    half: &Half<'_, N>,
    turn: Turn,
    water: Lanes<N>,
) -> SectionIntegrals<N> {
    let heights = |i: usize| {
        let (up, down) = (half.z[i] * turn.cos - water, half.y[i] * turn.sin);
        (up - down, up + down)
    };
    let (low, high) = heights(0);
    let (mut starboard, mut port) = (Side::start(1.0, low), Side::start(-1.0, high));
    for i in 1..half.y.len() {
        let (low, high) = heights(i);
        starboard.to(half, i, low, turn);
        port.to(half, i, high, turn);
    }
    let (s, p) = (starboard.ended(half), port.ended(half));
    // Mirrored and walked back the port half has the same areas and heights.
    let across = s.y_moment - p.y_moment;
    let up = s.z_moment + p.z_moment;
    let [b1, b2, b3] = std::array::from_fn(|i| starboard.bank[i] - port.bank[i]);
    let area = (s.area + p.area + water * b1) * 0.5;
    let eta = across * turn.cos + up * turn.sin + water * b2;
    let zeta = up * turn.cos - across * turn.sin + water * water * b1 * 2.0;
    SectionIntegrals {
        area,
        eta_moment: eta * (1.0 / 6.0),
        zeta_moment: zeta * (1.0 / 6.0) - water * area,
        breadth: b1,
        breadth_first: b2 * 0.5,
        breadth_second: b3 * (1.0 / 3.0),
    }
}

/// As [`heeled_section`] for a body that stands upright: half the edges do.
#[inline(always)]
pub(crate) fn upright_section<const N: usize>(
    half: &Half<'_, N>,
    water: Lanes<N>,
) -> SectionIntegrals<N> {
    let mut side = Side::start(1.0, half.z[0] - water);
    for i in 1..half.y.len() {
        side.to(half, i, half.z[i] - water, Turn::NONE);
    }
    let sums = side.ended(half);
    let [b1, _, b3] = side.bank;
    let area = sums.area + water * b1;
    let zeta = sums.z_moment + water * water * b1 * 2.0;
    SectionIntegrals {
        area,
        eta_moment: Lanes::ZERO,
        zeta_moment: zeta * (1.0 / 3.0) - water * area,
        breadth: b1 * 2.0,
        breadth_first: Lanes::ZERO,
        breadth_second: b3 * (2.0 / 3.0),
    }
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
            let length = (b.0 - a.0).zip(b.1 - a.1, f64::hypot);
            // Share of the edge that lies below the water.
            let wet = a.1.zip(b.1, |p, q| match (p < 0.0, q < 0.0) {
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

#[cfg(test)]
mod tests {
    use super::*;
    use approx::assert_relative_eq;

    /// A starboard half on its own, one lane.
    struct Drawn {
        y: Vec<Lanes<1>>,
        z: Vec<Lanes<1>>,
        fan: Vec<Fan<1>>,
    }

    impl Drawn {
        fn of(corners: &[(f64, f64)]) -> Self {
            let y: Vec<_> = corners.iter().map(|c| Lanes([c.0])).collect();
            let z: Vec<_> = corners.iter().map(|c| Lanes([c.1])).collect();
            let fan = Fan::along(&y, &z).collect();
            Self { y, z, fan }
        }

        fn half(&self) -> Half<'_, 1> {
            Half {
                y: &self.y,
                z: &self.z,
                fan: &self.fan,
            }
        }
    }

    /// A 2 m wide, 1 m deep rectangle with a 1 m wide recess down to 0.5 m.
    const TROUGH: [(f64, f64); 6] = [
        (0.0, 0.0),
        (1.0, 0.0),
        (1.0, 1.0),
        (0.5, 1.0),
        (0.5, 0.5),
        (0.0, 0.5),
    ];

    #[test]
    fn water_in_the_recess_is_not_displaced() {
        let drawn = Drawn::of(&TROUGH);
        let s = upright_section(&drawn.half(), Lanes::splat(0.8));
        assert_relative_eq!(s.area.0[0], 2.0 * 0.8 - 1.0 * 0.3, epsilon = 1e-12);
        assert_relative_eq!(s.breadth.0[0], 1.0, epsilon = 1e-12);
        // ∫η² over two strips 0.5..1: 2 (1 - 0.125)/3.
        assert_relative_eq!(s.breadth_second.0[0], 2.0 * 0.875 / 3.0, epsilon = 1e-12);
        let above_base = s.zeta_moment.0[0] + 0.8 * s.area.0[0];
        assert_relative_eq!(above_base, 1.6 * 0.4 - 0.3 * 0.65, epsilon = 1e-12);
    }

    #[test]
    fn half_and_whole_agree_upright() {
        let drawn = Drawn::of(&TROUGH);
        for water in [0.2, 0.5001, 0.7, 1.4] {
            let half = upright_section(&drawn.half(), Lanes::splat(water));
            let whole = heeled_section(&drawn.half(), Turn::NONE, Lanes::splat(water));
            assert_relative_eq!(half.area.0[0], whole.area.0[0], epsilon = 1e-12);
            assert_relative_eq!(half.breadth.0[0], whole.breadth.0[0], epsilon = 1e-12);
            assert_relative_eq!(
                half.zeta_moment.0[0],
                whole.zeta_moment.0[0],
                epsilon = 1e-12
            );
            assert_relative_eq!(whole.eta_moment.0[0], 0.0, epsilon = 1e-12);
        }
    }

    #[test]
    fn heeled_rectangle_has_the_wedge_areas() {
        // A 2 × 1 rectangle heeled until the waterline runs through its centre
        // and both sides: half its area stays under, the breadth grows by 1/cos.
        let drawn = Drawn::of(&[(0.0, 0.0), (1.0, 0.0), (1.0, 1.0), (0.0, 1.0)]);
        let heel = 0.3_f64;
        let (sin, cos) = heel.sin_cos();
        let water = 0.5 * cos;
        let s = heeled_section(&drawn.half(), Turn::of(heel), Lanes::splat(water));
        assert_relative_eq!(s.area.0[0], 1.0, epsilon = 1e-12);
        assert_relative_eq!(s.breadth.0[0], 2.0 / cos, epsilon = 1e-12);
        // In the body's frame: the wet 2 × ½ below, and wedges of ½ · 1 · tan
        // moved from port to starboard, each centre 2/3 out and a third of
        // tan off the waterline's hinge.
        let tan = sin / cos;
        let across = 2.0 * (0.5 * tan) * (2.0 / 3.0);
        let up = 0.25 + 2.0 * (0.5 * tan) * (tan / 3.0);
        assert_relative_eq!(s.eta_moment.0[0], across * cos + up * sin, epsilon = 1e-12);
        let zeta = up * cos - across * sin - water;
        assert_relative_eq!(s.zeta_moment.0[0], zeta, epsilon = 1e-12);
    }

    #[test]
    fn a_section_on_its_side_lies_in_two_parts() {
        // The trough at 90°, starboard down, water through its keel line: the
        // starboard half is under, its recess open to the water.
        let drawn = Drawn::of(&TROUGH);
        let s = heeled_section(
            &drawn.half(),
            Turn::of(std::f64::consts::FRAC_PI_2),
            Lanes::splat(-1e-9),
        );
        // 1 × 1 less the recess's ½ × ½; deep: ½ · 1 - ¼ · ¼.
        assert_relative_eq!(s.area.0[0], 0.75, epsilon = 1e-8);
        assert_relative_eq!(s.breadth.0[0], 0.5, epsilon = 1e-8);
        assert_relative_eq!(s.zeta_moment.0[0], -(0.5 - 0.25 * 0.25), epsilon = 1e-8);
        assert_relative_eq!(s.eta_moment.0[0], 0.5 - 0.25 * 0.75, epsilon = 1e-8);
        // Cut deeper, the recess parts the waterline in two.
        let s = heeled_section(&drawn.half(), Turn::of(0.0), Lanes::splat(0.75));
        assert_relative_eq!(s.breadth.0[0], 1.0, epsilon = 1e-12);
        assert_relative_eq!(s.breadth_first.0[0], 0.0, epsilon = 1e-12);
    }
}
