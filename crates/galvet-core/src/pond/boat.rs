//! A hull as the pond takes it: its arms with the angler's weight at the floor, its inertia,
//! its damping.

use super::angler::Angler;
use super::arms::Arms;
use crate::base::{GRAVITY, Lanes};
use crate::body::Shape;
use crate::figures::{Afloat, Setup};
use crate::float::{Accuracy, Start, Weight, settle};
use crate::hull::{BottomShape, Flooded};
use crate::load::Carriage;
use crate::stability::righting;

/// A hull ready to roll.
#[derive(Debug, Clone, PartialEq)]
pub struct Boat {
    /// The angler.
    pub angler: Angler,
    /// All that floats, kg.
    pub displaced: f64,
    /// Arms with the angler's weight at the floor: at the seat, at the feet.
    pub arms: [Arms; 2],
    /// Stiffness upright with it so, N·m/rad: at the seat, at the feet.
    pub stiffness: [f64; 2],
    /// Inertia of hull and rig about the roll axis, and what the water adds, kg·m².
    pub inertia: f64,
    /// See [`Boat::inertia`].
    pub added: f64,
    /// Share of critical damping.
    pub damped: f64,
    /// Greatest beam, m.
    pub beam: f64,
    /// Heels at which the floor's edge and the rim meet the water, rad; the arms' end where
    /// they never do.
    pub wets: f64,
    /// See [`Boat::wets`].
    pub runs_in: f64,
}

/// Radii of gyration of hull and rig, shares of the beam. Guide values.
const HULL: f64 = 0.35;
const RIG: f64 = 0.25;
/// Share of the inertia that the water adds. Guide value, 0.1-0.5.
const ADDED: f64 = 0.20;

/// Share of critical damping by bottom (Himeno, *Prediction of ship roll damping*, 1981; by
/// shape guide values, 0.05-0.15).
#[must_use]
pub const fn damping(bottom: BottomShape) -> f64 {
    match bottom {
        BottomShape::Flat | BottomShape::Tunnel => 0.12,
        BottomShape::TriLobe => 0.11,
        BottomShape::Board => 0.10,
        BottomShape::ShallowVee => 0.08,
        BottomShape::ShallowArch => 0.07,
    }
}

impl Boat {
    /// One shape of a hull as a question loads it; `None` where it does not rest.
    #[must_use]
    pub fn of(setup: &Setup, shape: &Shape) -> Option<Self> {
        let shapes = [*shape];
        let afloat = Afloat::new(setup, &shapes, Accuracy::FINE);
        let seated = afloat.case(Carriage::Seated);
        if !seated.upright.rests(0) {
            return None;
        }
        let (loads, body) = (&setup.loads, &*afloat.body);
        let floor = body.standing_height.0[0];
        let at_feet = afloat.weight(Carriage::AtTheFeet);
        let hull: Weight<1> = loads.hull(Lanes::splat(shape.hull_mass));
        let all = at_feet.mass.0[0];
        let crew = loads.crew_mass();
        let angler = Angler {
            mass: crew,
            stature: loads.crew().stature(),
            seat: loads.seat_height(shape),
        };
        // At the seat the same weight lies at the floor beneath it.
        let back = loads.crew_place(Carriage::Seated) - loads.crew_place(Carriage::AtTheFeet);
        let mut at_seat = at_feet;
        at_seat.x = at_feet.x + Lanes::splat(back * crew / all);
        let arms = [at_seat, at_feet].map(|weight| arms_of(setup, &afloat, weight));
        let [seat, feet] = arms;
        let (seat, feet) = (seat?, feet?);
        let stiff = |arms: &Arms| all * GRAVITY * arms.slope();
        let stiffness = [stiff(&seat), stiff(&feet)];
        let beam = setup.posterior.form.beam();
        let rig = (all - hull.mass.0[0] - crew).max(0.0);
        // Its height from those of the whole, the hull and the angler at the floor.
        let rig_z = if rig > 0.1 {
            let moment = at_feet.z.0[0] * all - hull.z.0[0] * hull.mass.0[0] - floor * crew;
            moment / rig
        } else {
            floor
        };
        let about =
            |mass: f64, share: f64, z: f64| mass * ((share * beam).powi(2) + (z - floor).powi(2));
        let inertia = about(hull.mass.0[0], HULL, hull.z.0[0]) + about(rig, RIG, rig_z);
        let low = angler.at(angler.hips()[0]);
        let walls = afloat.figures();
        let angle = |q| {
            walls[0]
                .0
                .get(q)
                .map_or(std::f64::consts::FRAC_PI_2, f64::to_radians)
        };
        Some(Self {
            displaced: all,
            arms: [seat, feet],
            stiffness,
            added: ADDED * (inertia + low.stiff()),
            inertia,
            damped: damping(shape.bottom),
            beam,
            wets: angle(crate::figures::Quantity::FloorWetAngle),
            runs_in: angle(crate::figures::Quantity::EdgeAngle),
            angler,
        })
    }

    /// Damping in roll, N·m·s, by the stiffness where somebody is.
    #[must_use]
    pub fn drag(&self, place: usize) -> f64 {
        2.0 * self.damped * (self.stiffness[place].max(0.0) * (self.inertia + self.added)).sqrt()
    }
}

/// Arms of a weight on the sealed hull and on the open one.
fn arms_of(setup: &Setup, afloat: &Afloat<'_, 1>, weight: Weight<1>) -> Option<Arms> {
    let body = &*afloat.body;
    let density = setup.brief.water.density;
    let heels = Arms::heels();
    let on = |open: Flooded| {
        let outline = body.outline(open);
        let upright = settle(
            body,
            &outline,
            &weight,
            density,
            0.0,
            Start::LEVEL,
            Accuracy::FINE,
        );
        let arms = righting(
            body,
            &outline,
            &weight,
            density,
            &upright,
            &heels,
            Accuracy::FINE,
        );
        let arms: Vec<f64> = arms.iter().map(|arm| arm.gz.0[0]).collect();
        arms.iter().all(|gz| gz.is_finite()).then_some(arms)
    };
    Some(Arms::new(on(Flooded::NONE)?, on(setup.open)?))
}
