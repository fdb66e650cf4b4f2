//! A hull as the pond takes it: its arms with the angler's weight at the floor, its inertia,
//! its damping.

use super::angler::Angler;
use super::arms::Arms;
use crate::base::{GRAVITY, Lanes};
use crate::body::Shape;
use crate::draining::{Inlet, Usual, inlets};
use crate::figures::{Afloat, Setup, WaterLimit};
use crate::float::{Accuracy, Start, Weight, settle};
use crate::guide::{Guide, Guides};
use crate::hull::{BottomShape, Flooded, ScupperState};
use crate::load::{Carriage, LoadPlan};
use crate::stability::{Arm, righting};
use std::f64::consts::FRAC_PI_2;

/// A hull ready to roll.
#[derive(Debug, Clone, PartialEq)]
pub struct Boat {
    /// The angler.
    pub angler: Angler,
    /// The heaviest of those seated beside; the others are as the kit is.
    pub mate: Option<Angler>,
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
    /// Damping in roll, N·m·s: at the seat, on the feet.
    pub drag: [f64; 2],
    /// What boat and water weigh that go sideways, kg, and their drag, N·s/m.
    pub sideways_mass: f64,
    /// See [`Boat::sideways_mass`].
    pub sideways: f64,
    /// Greatest beam and depth in the water, m.
    pub beam: f64,
    /// See [`Boat::beam`].
    pub draft: f64,
    /// Heels at which the floor's edge and the rim meet the water, rad; the arms' end where
    /// they never do.
    pub wets: f64,
    /// See [`Boat::wets`].
    pub runs_in: f64,
    /// Whether there is a recess that water can fill, and what it holds, m³.
    pub recess: bool,
    /// See [`Boat::recess`].
    pub holds: f64,
    /// How fast the recess fills past the first and past the second, and how fast it drains
    /// again, 1/s.
    pub filling: [f64; 3],
}

/// Radii of gyration of hull and rig, shares of the beam. Guide values.
const HULL: f64 = 0.35;
const RIG: f64 = 0.25;
/// Share of the water under a section that goes sideways with it.
const BESIDE: f64 = 0.7;

/// Share of critical damping by bottom.
#[must_use]
pub fn damping(bottom: BottomShape, guides: &Guides) -> f64 {
    guides[match bottom {
        BottomShape::Flat | BottomShape::Tunnel => Guide::PondDampingFlat,
        BottomShape::TriLobe => Guide::PondDampingTriLobe,
        BottomShape::Board => Guide::PondDampingBoard,
        BottomShape::ShallowVee => Guide::PondDampingVee,
        BottomShape::ShallowArch => Guide::PondDampingArch,
    }]
}

impl Boat {
    /// One shape of a hull as a question loads it; `None` where it does not rest.
    #[must_use]
    pub fn of(setup: &Setup, shape: &Shape) -> Option<Self> {
        Self::with(setup, shape, 0.0)
    }

    /// The same with so much more on the floor beneath the angler, kg.
    #[must_use]
    pub fn with(setup: &Setup, shape: &Shape, more: f64) -> Option<Self> {
        let shapes = [*shape];
        let afloat = Afloat::new(setup, &shapes, Accuracy::FINE);
        let seated = afloat.case(Carriage::Seated);
        if !seated.upright.rests(0) {
            return None;
        }
        let (loads, body) = (&setup.loads, &*afloat.body);
        let floor = body.standing_height.0[0];
        let place = loads.crew_place(Carriage::Seated);
        let mut at_feet = heavier(afloat.weight(Carriage::AtTheFeet), more, [place, floor]);
        let hull: Weight<1> = loads.hull(Lanes::splat(shape.hull_mass));
        let all = at_feet.mass.0[0];
        let crew = loads.crew_mass();
        let angler = Angler {
            mass: crew,
            stature: loads.crew().stature(),
            seat: loads.seat_height(shape),
        };
        let (mate, above) = mate(setup, shape);
        let mated = mate.map_or(0.0, |m| m.mass);
        let standing = at_feet.z.0[0];
        // Somebody who moves stands in the arms with their weight at the floor.
        at_feet.z -= Lanes::splat(mated * above / all);
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
        let rig = (all - hull.mass.0[0] - crew - mated).max(0.0);
        // Its height from those of the whole, the hull and the angler at the floor.
        let rig_z = if rig > 0.1 {
            let moment = standing * all - hull.z.0[0] * hull.mass.0[0] - floor * crew;
            (moment - (floor + above) * mated) / rig
        } else {
            floor
        };
        let about =
            |mass: f64, share: f64, z: f64| mass * ((share * beam).powi(2) + (z - floor).powi(2));
        let inertia = about(hull.mass.0[0], HULL, hull.z.0[0]) + about(rig, RIG, rig_z);
        let low = angler.at(angler.hips()[0]);
        let guides = setup.guides();
        let beside = mate.map_or(0.0, |m| m.at(m.hips()[0]).stiff());
        let added = guides[Guide::PondAdded] * (inertia + low.stiff() + beside);
        let damped = damping(shape.bottom, guides);
        let draft = seated.upright.attitude.draft.0[0];
        let water = setup.brief.water.density * FRAC_PI_2 * draft * draft;
        let [wets, runs_in] = edges(setup, &afloat, at_seat);
        Some(Self {
            displaced: all,
            arms: [seat, feet],
            stiffness,
            drag: stiffness.map(|k| 2.0 * damped * (k.max(0.0) * (inertia + added)).sqrt()),
            added,
            inertia,
            sideways_mass: all + BESIDE * water * setup.posterior.form.length(),
            sideways: guides[Guide::PondSideways],
            beam,
            draft,
            wets,
            runs_in,
            recess: body.has_recess(),
            holds: holds(setup, &afloat),
            filling: filling(setup, shape),
            angler,
            mate,
        })
    }

    /// What it bears on the feet, of what somebody on them weighs over: κ.
    #[must_use]
    pub fn support(&self) -> f64 {
        self.stiffness[1] / self.angler.at(self.angler.hips()[1]).whole()
    }

    /// How fast the recess fills at a heel from the water's slope, rad, with so much of it
    /// full, 1/s.
    #[must_use]
    pub(super) fn fills(&self, heel: f64, filled: f64) -> f64 {
        let heel = heel.abs();
        if !self.recess {
            return 0.0;
        }
        let [fills, runs, drains] = self.filling;
        if heel > self.runs_in {
            (1.0 - filled) * runs
        } else if heel > self.wets {
            (1.0 - filled) * fills
        } else {
            -filled * drains
        }
    }
}

/// The heaviest of those seated beside the angler, and how high over the floor their centre is,
/// m.
fn mate(setup: &Setup, shape: &Shape) -> (Option<Angler>, f64) {
    let guides = setup.guides();
    let sat = setup.loads.beside();
    let heaviest = sat.max_by(|(_, a), (_, b)| a.total_cmp(b));
    let seat = LoadPlan::low_seat(shape);
    let body = heaviest.map(|(who, mass)| Angler {
        mass,
        stature: who.stature(),
        seat,
    });
    let above = body.map_or(0.0, |b| seat + guides[Guide::SeatedCentre] * b.stature);
    (body, above)
}

/// A weight with more of it in the middle at a place along and a height, m.
fn heavier(weight: Weight<1>, more: f64, [x, z]: [f64; 2]) -> Weight<1> {
    let mass = weight.mass + Lanes::splat(more);
    let share = Lanes::splat(more) / mass;
    let toward = |from: Lanes<1>, to: f64| from + (Lanes::splat(to) - from) * share;
    Weight {
        mass,
        x: toward(weight.x, x),
        y: toward(weight.y, 0.0),
        z: toward(weight.z, z),
    }
}

/// How fast the recess fills through the scuppers that let water in, over the rim, and drains
/// through those that let it out, 1/s: by the law of chapter 2 as their area goes. Those nobody
/// recorded are the usual ones.
fn filling(setup: &Setup, shape: &Shape) -> [f64; 3] {
    let guides = setup.guides();
    let (survey, form) = (&setup.posterior.survey, &setup.posterior.form);
    let all = inlets(survey, (form, shape), setup.brief.scuppers, Usual::MIDDLE);
    // Eight of 32 mm, whose time the guide value is.
    let usual = 2.0 * Usual::MIDDLE.pairs as f64 * Usual::MIDDLE.diameter.powi(2);
    let share = |which: &dyn Fn(&Inlet) -> bool| {
        let through = all.iter().filter(|inlet| which(inlet));
        through.map(|inlet| inlet.diameter.powi(2)).sum::<f64>() / usual
    };
    [
        share(&|inlet| inlet.state == ScupperState::Open) / guides[Guide::PondFills],
        1.0 / guides[Guide::PondRuns],
        share(&Inlet::drains) / guides[Guide::PondFills],
    ]
}

/// What is full once water has come in: what is open from below, or, where nothing is, all that
/// fills over the rim.
fn filled(setup: &Setup) -> Flooded {
    match setup.open {
        Flooded::NONE if setup.fills => Flooded::ALL,
        open => open,
    }
}

/// What the recesses hold that fill, m³.
fn holds(setup: &Setup, afloat: &Afloat<'_, 1>) -> f64 {
    let volume = |flooded| afloat.body.outline(flooded).volume.0[0];
    (volume(Flooded::NONE) - volume(filled(setup))).max(0.0)
}

/// Heels at which the edge of an open floor and the rim meet the water, rad; a right angle
/// where they do not by then. Of any shape, whether it stays upright or not: the figures that
/// rank have none of one that does not. Past a heel at which it finds no trim it is under.
fn edges(setup: &Setup, afloat: &Afloat<'_, 1>, weight: Weight<1>) -> [f64; 2] {
    let body = &*afloat.body;
    let (density, fine) = (setup.brief.water.density, Accuracy::FINE);
    let heels = Arms::heels();
    let walk = |flooded| {
        let outline = body.outline(flooded);
        let upright = settle(body, &outline, &weight, density, 0.0, Start::LEVEL, fine);
        righting(body, &outline, &weight, density, &upright, &heels, fine)
    };
    let sealed = walk(Flooded::NONE);
    let floor = match setup.limit {
        WaterLimit::Gunwale => FRAC_PI_2,
        WaterLimit::Floor | WaterLimit::Deck => first_under(&sealed, |arm| arm.floor.0[0]),
    };
    // Open from below it lies deeper, and the rim is under sooner.
    let rim = |arms: &[Arm<1>]| first_under(arms, |arm| arm.gunwale.0[0]);
    [floor, rim(&sealed).min(rim(&walk(setup.open)))]
}

/// First heel at which a height over the water is gone, rad; a right angle where it is not.
fn first_under(arms: &[Arm<1>], over: impl Fn(&Arm<1>) -> f64) -> f64 {
    let mut before: Option<(f64, f64)> = None;
    for arm in arms {
        let now = over(arm);
        // No number: no trim found.
        if !arm.gz.0[0].is_finite() || now.is_nan() {
            return before.map_or(0.0, |(heel, _)| heel);
        }
        if now <= 0.0 {
            let crossed = |(heel, was): (f64, f64)| heel + (arm.heel - heel) * was / (was - now);
            return before.map_or(0.0, crossed);
        }
        before = now.is_finite().then_some((arm.heel, now));
    }
    FRAC_PI_2
}

/// Arms of a weight on the sealed hull and on the open one: open from below, or, where nothing
/// is, full of what ran in over the rim.
fn arms_of(setup: &Setup, afloat: &Afloat<'_, 1>, weight: Weight<1>) -> Option<Arms> {
    let body = &*afloat.body;
    let density = setup.brief.water.density;
    let heels = Arms::heels();
    let floor = body.standing_height.0[0];
    let place = setup.loads.crew_place(Carriage::AtTheFeet);
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
        let level = |arm: &Arm<1>| {
            let water = arm.attitude.water_at(place, body.middle()).0[0];
            water - floor * arm.heel.cos()
        };
        let levels: Vec<f64> = arms.iter().map(level).collect();
        let arms: Vec<f64> = arms.iter().map(|arm| arm.gz.0[0]).collect();
        // It founders past its last rest: nothing pushes back any more.
        let rests = arms.iter().take_while(|gz| gz.is_finite()).count();
        let after = |values: &[f64], then: f64| {
            let kept = values.iter().copied().take(rests);
            kept.chain(std::iter::repeat(then))
                .take(heels.len())
                .collect::<Vec<f64>>()
        };
        let last = rests.checked_sub(1)?;
        Some((
            after(&arms, arms[last].min(0.0)),
            after(&levels, levels[last]),
        ))
    };
    let (sealed, dry) = on(Flooded::NONE)?;
    let open = filled(setup);
    // Full it may not float at all: then nothing pushes back.
    let (open, wet) = on(open).unwrap_or_else(|| (vec![0.0; heels.len()], dry.clone()));
    Some(Arms::new(sealed, open).seen([dry, wet]))
}
