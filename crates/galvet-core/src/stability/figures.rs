//! The stability figures of one body, read off its righting paths.
//!
//! Arms are in m, masses in kg, angles in rad. A *brief* lean meets the sealed
//! body with the floor water it has, a *lasting* one the body as its scuppers
//! leave it open. Moments are about the whole weight Δ g; `crew` is the angler
//! as dressed.

use super::curve::Curve;
use super::righting::{KNOTS, Path};
use crate::base::GRAVITY;
use crate::float::Fate;

/// A body with somebody seated in it, leaning.
#[derive(Debug, Clone, Copy)]
pub struct Leaning<'a> {
    /// Whole mass afloat, kg.
    pub mass: f64,
    /// The angler as dressed, kg.
    pub crew: f64,
    /// The righting path leaned along.
    pub path: &'a Path,
}

impl Leaning<'_> {
    /// Sideways shift of the angler that the arm answers at a heel, m:
    /// `s = Δ GZ / (m_a cos φ)`.
    fn shift(&self, heel: f64, gz: f64) -> f64 {
        self.mass * gz / (self.crew * heel.cos())
    }

    /// The last heel a lean may reach: the righting peak, or where water runs
    /// in over the rim.
    fn last(&self) -> f64 {
        self.path.peak().0
    }

    /// Largest sideways shift of the angler's whole body that the hull can
    /// answer, m, up to the righting peak or to water running in.
    #[must_use]
    pub fn room(&self) -> f64 {
        // No heel below the peak has a longer arm or a smaller cosine.
        let (heel, gz) = self.path.peak();
        self.shift(heel, gz).max(0.0)
    }

    /// The shift at which `edge` (height of the floor's edge over the water)
    /// first meets the water, m; the whole room where the lean ends before.
    #[must_use]
    pub fn dry_room(&self, edge: &Curve<KNOTS>) -> f64 {
        let wets = first_under(edge).unwrap_or(f64::INFINITY).min(self.last());
        let (heel, gz) = self.path.dry().peak(wets);
        self.shift(heel, gz).max(0.0)
    }

    /// Heel, rad, at which a heeling moment over `g` of `tipping · cos φ` kg·m
    /// is answered; `None` where it is not before the righting peak or water
    /// running in.
    #[must_use]
    pub fn heel_under(&self, tipping: f64, gm: f64) -> Option<f64> {
        let dry = self.path.dry();
        let mut spare = dry.value;
        for (value, heel) in spare.iter_mut().zip(dry.angle) {
            *value = self.mass * *value - tipping * heel.cos();
        }
        // At rest the arm rises by GM for each radian; cos φ is level there.
        let spare = Curve::through(dry.angle, spare, self.mass * gm);
        if spare.value[0] >= 0.0 {
            return Some(0.0);
        }
        let heel = spare.rises_through_zero()?;
        (heel <= self.last()).then_some(heel)
    }
}

/// First heel at which a clearance is gone, rad: 0 when it is gone upright.
#[must_use]
pub fn first_under(clearance: &Curve<KNOTS>) -> Option<f64> {
    if clearance.value[0] <= 0.0 {
        return Some(0.0);
    }
    clearance.falls_through_zero()
}

/// What becomes of a body whose righting path is `path` and whose metacentric
/// height is `gm`, m: stable upright or at a list, or not before water runs in.
#[must_use]
pub fn fate(path: &Path, gm: f64) -> Fate {
    let missing = (-gm).max(0.0);
    let end = path.end();
    let centred = path.dry().value[0] >= 0.0;
    if centred && gm > 0.0 {
        return Fate::Rests { list: 0.0 };
    }
    match path.dry().rises_through_zero().filter(|&a| a <= end) {
        Some(list) if gm > 0.0 => Fate::Rests { list },
        Some(angle) => Fate::Lolls { angle, missing },
        // Positive from the first step on: it lolls within a degree.
        None if centred && path.peak().1 > 0.0 => Fate::Lolls {
            angle: 0.0,
            missing,
        },
        None => Fate::Capsizes {
            missing,
            outside: if centred {
                0.0
            } else {
                (-path.peak().1).max(0.0)
            },
        },
    }
}

/// What becomes of a body once somebody seated has shifted aside to level it, and by how
/// much, m: no further than `most`. `crew` is the angler's share of the whole mass.
/// `None` where nothing lies off the middle.
#[must_use]
pub fn levelled(path: &Path, gm: f64, crew: f64, most: f64) -> Option<(Fate, f64)> {
    let off = -path.dry().value[0];
    if off <= 0.0 || !off.is_finite() || crew <= 0.0 {
        return None;
    }
    let shift = (off / crew).min(most);
    let dry = path.dry();
    let value = std::array::from_fn(|k| dry.value[k] + shift * crew * dry.angle[k].cos());
    // Level within the last digits is level.
    let mut value: [f64; KNOTS] = value;
    if value[0].abs() < 1e-9 {
        value[0] = 0.0;
    }
    let moved = Path::new(Curve::through(dry.angle, value, gm), path.fills_at(), None);
    Some((fate(&moved, gm), shift))
}

/// Righting energy, J: `Δ g ∫GZ dφ` up to the first of the gunwale going under,
/// `limit` rad and vanishing stability. `edge` is the gunwale's clearance.
#[must_use]
pub fn reserve(mass: f64, path: &Path, edge: &Curve<KNOTS>, limit: f64) -> f64 {
    let until = first_under(edge)
        .unwrap_or(f64::INFINITY)
        .min(limit)
        .min(path.end())
        .min(path.vanishes_at().unwrap_or(f64::INFINITY));
    (mass * GRAVITY * path.dry().area(until)).max(0.0)
}

/// Natural roll period, s: `2π k / √(g GM)`, with the roll radius `k` (m) of
/// the mass layout and `added` (share) inertia of the water. `None` for a body
/// not stable upright.
#[must_use]
pub fn roll_period(radius: f64, gm: f64, added: f64) -> Option<f64> {
    (gm > 0.0)
        .then(|| std::f64::consts::TAU * radius * (1.0 + added).sqrt() / (GRAVITY * gm).sqrt())
}

/// Somebody on the feet: arms are with the angler's weight taken at the feet.
#[derive(Debug, Clone, Copy)]
pub struct OnTheFeet {
    /// Whole mass afloat, kg.
    pub mass: f64,
    /// The angler as dressed, kg.
    pub crew: f64,
    /// Body centre above the floor, m.
    pub centre: f64,
    /// Arms at 0, half and all of the heel the feet may tip the hull to, m.
    pub gz: Curve<3>,
    /// Height of the floor's edge (open scuppers, board) or of the gunwale over
    /// the water at the same angles, m.
    pub edge: Curve<3>,
}

impl OnTheFeet {
    /// Standing support κ: roll stiffness of the hull, secant to `secant` rad,
    /// over `m_a h`.
    #[must_use]
    pub fn support(&self, secant: f64) -> f64 {
        // A list shifts the whole curve; the stiffness is the rise from it.
        let rise = self.gz.at(secant) - self.gz.value[0];
        self.mass * rise / (secant * self.crew * self.centre)
    }

    /// Standing room, m: shift of the feet's pressure centre at which the hull
    /// heels to the curve's end or the edge wets.
    #[must_use]
    pub fn room(&self) -> f64 {
        let limit = self.gz.angle[2];
        let wet = if self.edge.value[0] <= 0.0 {
            0.0
        } else {
            self.edge.falls_through_zero().unwrap_or(limit)
        };
        (self.mass * self.gz.at(wet) / (self.crew * wet.cos())).max(0.0)
    }

    /// GM with the standing body taken stiff, m, from the GM with the weight at
    /// the feet.
    #[must_use]
    pub fn rigid_gm(&self, feet_gm: f64) -> f64 {
        feet_gm - self.crew * self.centre / self.mass
    }
}

#[cfg(test)]
mod tests {
    use super::super::righting::HEELS_DEG;
    use super::*;
    use approx::assert_relative_eq;

    fn heels() -> [f64; KNOTS] {
        HEELS_DEG.map(f64::to_radians)
    }

    /// Arms `a sin φ + b sin φ tan² φ`-like shapes are tested on whole bodies;
    /// here a curve whose figures can be written down: `GZ = c sin 2φ`.
    fn curve(c: f64) -> Curve<KNOTS> {
        Curve::through(heels(), heels().map(|h| c * (2.0 * h).sin()), 2.0 * c)
    }

    fn path(c: f64) -> Path {
        Path::new(curve(c), None, None)
    }

    #[test]
    fn lean_room_stops_at_the_righting_peak() {
        let path = path(0.05);
        let leaning = Leaning {
            mass: 150.0,
            crew: 90.0,
            path: &path,
        };
        // The peak lies at 45°: s = Δ c / (m cos 45°).
        let exact = 150.0 * 0.05 / (90.0 * std::f64::consts::FRAC_1_SQRT_2);
        assert_relative_eq!(leaning.room(), exact, max_relative = 0.015);
        // Under a moment of 3 kg·m: Δ c sin 2φ = 3 cos φ, sin φ = 3/(2 Δ c).
        let heel = leaning.heel_under(3.0, 0.1).unwrap();
        assert_relative_eq!(heel, (3.0_f64 / 15.0).asin(), max_relative = 0.005);
        // More than it can answer.
        assert_eq!(leaning.heel_under(1.1 * exact * 90.0, 0.1), None);
    }

    #[test]
    fn water_over_the_rim_ends_a_lean_before_the_peak() {
        let path = Path::new(curve(0.05), Some(0.3), None);
        let leaning = Leaning {
            mass: 150.0,
            crew: 90.0,
            path: &path,
        };
        let exact = 150.0 * 0.05 * 0.6_f64.sin() / (90.0 * 0.3_f64.cos());
        assert_relative_eq!(leaning.room(), exact, max_relative = 0.005);
        // Nothing is read across the break: full of water it has no arm.
        let full = |gz: [f64; KNOTS], slope| {
            let full = Curve::through(heels(), gz, slope);
            Path::new(curve(0.05), Some(0.3), Some(full))
        };
        assert_eq!(full([-0.01; KNOTS], 0.0).vanishes_at(), Some(0.3));
        let path = full(heels().map(|h| 0.02 * (3.0 * h).sin()), 0.06);
        let vanishes = path.vanishes_at().unwrap();
        assert_relative_eq!(vanishes, std::f64::consts::FRAC_PI_3, max_relative = 0.02);
    }

    #[test]
    fn fates_follow_gm_and_the_arm() {
        // GZ = sin φ (c tan² φ/2 - m): negative GM, stable at tan² φ = 2m/c.
        let wall = |m: f64, c: f64| {
            let gz = heels().map(|h| {
                let tan = h.min(1.0).tan();
                h.sin() * (0.5 * c * tan * tan - m)
            });
            Curve::through(heels(), gz, -m)
        };
        assert_eq!(fate(&path(0.05), 0.1), Fate::Rests { list: 0.0 });
        let Fate::Lolls { angle, missing } = fate(&Path::new(wall(0.01, 0.3), None, None), -0.01)
        else {
            panic!("lolls")
        };
        assert_relative_eq!(missing, 0.01);
        assert_relative_eq!(angle, (0.02_f64 / 0.3).sqrt().atan(), max_relative = 0.02);
        // Water runs in before it would come to rest.
        let early = Path::new(wall(0.01, 0.3), Some(0.1), None);
        let capsizes = Fate::Capsizes {
            missing: 0.01,
            outside: 0.0,
        };
        assert_eq!(fate(&early, -0.01), capsizes);
        // A load to one side: GZ = c sin 2φ - d cos φ.
        let listing = |d: f64| {
            let gz = heels().map(|h| 0.05 * (2.0 * h).sin() - d * h.cos());
            Path::new(Curve::through(heels(), gz, 0.1), None, None)
        };
        let Fate::Rests { list } = fate(&listing(0.02), 0.1) else {
            panic!("rests")
        };
        assert_relative_eq!(list, 0.2_f64.asin(), max_relative = 0.01);
        assert!(matches!(
            fate(&listing(0.2), 0.1),
            Fate::Capsizes { missing: 0.0, outside } if outside >= 0.0
        ));
    }

    #[test]
    fn a_person_levels_what_a_person_levels() {
        // GZ = c sin 2φ - d cos φ with c so small that no heel answers d.
        let off = |c: f64, d: f64| {
            let gz = heels().map(|h| c * (2.0 * h).sin() - d * h.cos());
            Path::new(Curve::through(heels(), gz, 2.0 * c), None, None)
        };
        // 4 mm off the middle of the whole; the angler is half of it: 8 mm aside.
        let path = off(0.0015, 0.004);
        assert!(!fate(&path, 0.003).is_rest());
        let (then, shift) = levelled(&path, 0.003, 0.5, 0.03).unwrap();
        assert_eq!(then, Fate::Rests { list: 0.0 });
        assert_relative_eq!(shift, 0.008, max_relative = 1e-9);
        // Twice as far as anybody shifts, and hardly stiff: it stays what it is.
        let (then, shift) = levelled(&off(0.0015, 0.03), 0.003, 0.5, 0.03).unwrap();
        assert!(!then.is_rest() && shift == 0.03, "{then:?} {shift}");
        // No shift stands up what is unstable in the middle.
        let (then, _) = levelled(&off(-0.002, 0.004), -0.004, 0.5, 0.03).unwrap();
        assert!(!then.is_rest());
        assert_eq!(levelled(&off(0.05, 0.0), 0.1, 0.5, 0.03), None);
    }

    #[test]
    fn roll_period_is_the_pendulums() {
        // k 0.4 m, GM 0.25 m, no added water: 2π·0.4/√(9.80665·0.25).
        assert_relative_eq!(
            roll_period(0.4, 0.25, 0.0).unwrap(),
            1.605_14,
            max_relative = 1e-4
        );
        assert_eq!(roll_period(0.4, -0.01, 0.2), None);
    }
}
