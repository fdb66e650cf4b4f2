//! The angler's balance: what the muscles are told of what was felt a delay ago.

use super::boat::Boat;
use super::practice::Balance;
use super::state::{Aim, At, Chance};
use crate::base::GRAVITY;

/// Torque the hips give at most, N·m.
const HIPS: f64 = 80.0;
/// Share of a leaning trunk's shift that is not taken back (handbook, chapter 2).
const SHIFTED: f64 = 0.6;
/// The share taken back, in the seat.
pub(super) const TAKEN_BACK: f64 = 0.4;
/// What a leaning trunk shifts the whole body by, of stature: its mass times the height of its
/// centre over the hip.
pub(super) const TRUNK_SHIFT: f64 = 0.136;
/// Shoulders over the hip, of stature.
pub(super) const SHOULDERS: f64 = 0.30;
/// Stiffness of the hips on the feet, of what holds the trunk up.
pub(super) const STIFF_UP: f64 = 1.0;
/// Half a foot beyond the stance, m.
const FOOT: f64 = 0.03;

/// Most torque feet so far apart give, N·m.
pub(super) fn limit(mass: f64, stance: f64) -> f64 {
    mass * GRAVITY * (0.5 * stance + FOOT)
}

/// Lean of the whole body and its rate with the hips so high, rad, rad/s.
pub(super) fn lean(boat: &Boat, hip: f64, at: &At) -> (f64, f64) {
    let body = boat.angler.at(hip);
    let ([g1, g2], whole) = (body.over, body.whole());
    (
        (g1 * at.legs + g2 * at.trunk) / whole,
        (g1 * at.legs_rate + g2 * at.trunk_rate) / whole,
    )
}

/// Lean that is wanted of the whole body: what is reached for, what the rod's pull asks, rad.
pub(super) fn wanted(boat: &Boat, hip: f64, aim: &Aim) -> [f64; 2] {
    let body = boat.angler.at(hip);
    let angler = &boat.angler;
    let weight = angler.mass * GRAVITY;
    let reach = SHIFTED * TRUNK_SHIFT * angler.stature * aim.lean.sin() * weight / body.whole();
    let against = -aim.rod * (body.hip + SHOULDERS * angler.stature) / body.whole();
    [reach, against]
}

/// What feet and hips are told on the feet, N·m.
pub(super) fn on_the_feet(
    boat: &Boat,
    g: &Balance,
    hip: f64,
    late: &At,
    (aim, chance): (&Aim, &Chance),
) -> [f64; 2] {
    let body = boat.angler.at(hip);
    let ([g1, g2], whole) = (body.over, body.whole());
    let [reach, against] = wanted(boat, hip, aim);
    let trunk = aim.lean + against;
    let stiff = boat.stiffness[1].max(0.05 * whole);
    // The heel it comes to under what it bears.
    let heel = ((whole * reach + aim.moment) / stiff).clamp(-g.too_far, g.too_far);
    let legs = (whole * (reach + against) - g2 * trunk) / g1;
    let (at, rate) = lean(boat, hip, late);
    let off = at - reach - against - g.deck * (late.heel - heel) - g.wave * aim.slope;
    let mut asked = g.gain * off + g.rate * (rate - g.deck * late.heel_rate) + reach
        - g.ankle * (legs - heel)
        + g.noise * chance.lean;
    asked += 0.1 * asked.abs() * chance.asked;
    let feet = whole * asked + chance.push;
    // What the stance cannot give the hips do (Horak and Nashner, *Central programming of
    // postural movements*, 1986).
    let needed = feet + g.ankle * whole * (late.legs - late.heel);
    let limit = limit(boat.angler.mass, aim.stance);
    let unmet = needed - needed.clamp(-limit, limit);
    let hips = g2
        * (STIFF_UP * legs
            + (1.0 - STIFF_UP) * trunk
            + 0.8 * (late.trunk - trunk)
            + 0.2 * late.trunk_rate)
        - (g.hips * unmet).clamp(-HIPS, HIPS);
    [feet, hips]
}

/// What the hips are told in the seat, N·m.
pub(super) fn seated(boat: &Boat, g: &Balance, hip: f64, late: &At, aim: &Aim, noise: f64) -> f64 {
    let trunk = aim.lean + wanted(boat, hip, aim)[1];
    let g2 = boat.angler.at(hip).over[1];
    upright(g2, trunk, [late.trunk, late.trunk_rate], g.noise * noise)
}

/// What hips are told that hold a trunk of a pull, N·m, at a lean, of its own and its rate.
pub(super) fn upright(g2: f64, wanted: f64, [lean, rate]: [f64; 2], noise: f64) -> f64 {
    g2 * (0.2 * wanted + 1.6 * (lean - wanted) + 0.5 * rate + noise)
}
