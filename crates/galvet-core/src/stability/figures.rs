//! The stability figures of one body, read off its righting curve.
//!
//! Definitions: handbook, chapter 2. Moments are about the whole weight Δ g;
//! `m_a` is the angler as dressed.

use super::curve::Curve;
use super::righting::HEELS_DEG;
use crate::quantity::{Quantity, Values};
use crate::units::GRAVITY;

/// Sideways reach of the body's centre while landing a fish, m. Guide value.
const REACH: f64 = 0.15;
/// Fish held at the gunwale while landing, kg. Guide value.
const LANDED_FISH: f64 = 3.0;
/// Heel to which standing support is taken, and to which the feet may tip the
/// hull, degrees.
const SECANT_DEG: f64 = 5.0;
const STANDING_LIMIT_DEG: f64 = 10.0;
/// Heel up to which the reserve is counted, degrees.
const RESERVE_LIMIT_DEG: f64 = 40.0;
/// Share added to the roll inertia for water that moves along. Guide value.
const ADDED_INERTIA: f64 = 0.20;

/// Number of angles on a ranking's curve.
pub const KNOTS: usize = HEELS_DEG.len();

/// What the seated figures are made from; SI, one lane.
#[derive(Debug, Clone, Copy)]
pub struct Seated {
    /// Whole mass afloat, kg.
    pub mass: f64,
    /// The angler as dressed, kg.
    pub crew: f64,
    /// Metacentric height, m.
    pub gm: f64,
    /// Roll radius of gyration, m.
    pub roll_radius: f64,
    /// Half-breadth at the gunwale amidships, m.
    pub half_beam: f64,
    /// Righting arms.
    pub gz: Curve<KNOTS>,
    /// Height of the floor's edge over the water, m; `None` without a floor
    /// that floods.
    pub floor: Option<Curve<KNOTS>>,
    /// Height of the gunwale over the water, m.
    pub gunwale: Curve<KNOTS>,
    /// Height of the rim over the water, m; `None` where nothing fills.
    pub rim: Option<Curve<KNOTS>>,
}

/// First heel at which a clearance is gone, rad: 0 when it is gone upright.
fn first_under(clearance: &Curve<KNOTS>) -> Option<f64> {
    if clearance.value[0] <= 0.0 {
        return Some(0.0);
    }
    clearance.falls_through_zero()
}

impl Seated {
    /// Heel at which the floor's edge wets, rad. 0 when it is wet already.
    fn floor_wet(&self) -> Option<f64> {
        first_under(&self.floor?)
    }

    /// Heel at which the gunwale meets the water, rad.
    fn edge(&self) -> Option<f64> {
        first_under(&self.gunwale)
    }

    /// Writes the seated figures.
    pub fn write(&self, out: &mut Values) {
        use Quantity as Q;
        let weight = self.mass * GRAVITY;
        let right_angle = std::f64::consts::FRAC_PI_2;
        let (wet, edge) = (self.floor_wet(), self.edge());
        out.set(Q::Gm, self.gm);
        out.set(Q::Stiffness, weight * self.gm.to_radians());
        out.set_some(Q::FloorWetAngle, wet.map(f64::to_degrees));
        out.set_some(Q::EdgeAngle, edge.map(f64::to_degrees));
        let filling = self.rim.and_then(|rim| first_under(&rim));
        out.set_some(Q::DownFlooding, filling.map(f64::to_degrees));
        let list = self.gz.rises_through_zero();
        out.set_some(Q::List, list.map(f64::to_degrees));
        let (peak_angle, peak) = self.gz.largest(right_angle, |_, gz| gz);
        out.set(Q::RightingPeak, peak.max(0.0));
        out.set(Q::PeakAngle, peak_angle.to_degrees());
        let vanishing = self.gz.falls_through_zero();
        let vanishing = match (peak > 0.0, vanishing) {
            (false, _) => 0.0,
            (true, found) => found.unwrap_or(right_angle),
        };
        out.set(Q::VanishingAngle, vanishing.to_degrees());
        // Lean room: up to the first water, or to where pushing back peaks.
        let limit = wet.or(edge).unwrap_or(right_angle).min(1.2);
        let (_, room) = self
            .gz
            .largest(limit, |heel, gz| self.mass * gz / (self.crew * heel.cos()));
        out.set(Q::LeanRoom, room.max(0.0));
        out.set_some(Q::ReachHeel, self.reach_heel().map(f64::to_degrees));
        let until = edge
            .unwrap_or(right_angle)
            .min(RESERVE_LIMIT_DEG.to_radians())
            .min(vanishing);
        out.set(Q::Reserve, (weight * self.gz.area(until)).max(0.0));
        if self.gm > 0.0 {
            let inertia_radius = self.roll_radius * (1.0 + ADDED_INERTIA).sqrt();
            let period = std::f64::consts::TAU * inertia_radius / (GRAVITY * self.gm).sqrt();
            out.set(Q::RollPeriod, period);
        }
    }

    /// Heel at which the hull carries a body 15 cm out and a fish at the
    /// gunwale; `None` when it never does.
    fn reach_heel(&self) -> Option<f64> {
        let tipping = self.crew * REACH + LANDED_FISH * self.half_beam;
        let mut spare = self.gz.value;
        for (value, heel) in spare.iter_mut().zip(self.gz.angle) {
            *value = self.mass * *value - tipping * heel.cos();
        }
        let at_rest = self.mass * self.gm;
        Curve::through(self.gz.angle, spare, at_rest).rises_through_zero()
    }
}

/// What the standing figures are made from; SI, one lane. Arms are with the
/// angler's weight taken at the feet.
#[derive(Debug, Clone, Copy)]
pub struct Standing {
    /// Whole mass afloat, kg.
    pub mass: f64,
    /// The angler as dressed, kg.
    pub crew: f64,
    /// Body centre above the floor, m.
    pub centre: f64,
    /// Metacentric height with the weight at the feet, m.
    pub feet_gm: f64,
    /// Arms at 0, 5, 10 degrees of heel, m.
    pub feet_gz: Curve<3>,
    /// Height of the floor's edge (open scuppers) or of the gunwale over the
    /// water at the same angles, m.
    pub edge: Curve<3>,
}

impl Standing {
    /// Writes the standing figures.
    pub fn write(&self, out: &mut Values) {
        use Quantity as Q;
        let secant = SECANT_DEG.to_radians();
        // A list shifts the whole curve; the stiffness is the rise from it.
        let rise = self.feet_gz.at(secant) - self.feet_gz.value[0];
        let support = self.mass * rise / (secant * self.crew * self.centre);
        out.set(Q::StandingSupport, support);
        let wet = if self.edge.value[0] <= 0.0 {
            0.0
        } else {
            self.edge
                .falls_through_zero()
                .unwrap_or(STANDING_LIMIT_DEG.to_radians())
        };
        let room = self.mass * self.feet_gz.at(wet) / (self.crew * wet.cos());
        out.set(Q::StandingRoom, room.max(0.0));
        let lifted = self.crew * self.centre / self.mass;
        out.set(Q::RigidStandingGm, self.feet_gm - lifted);
    }
}
