//! `N` shapes of one hull as a question loads them: floated, heeled, laden further.

use super::lane::Seated;
use super::setup::Setup;
use crate::base::Lanes;
use crate::body::{Body, Shape};
use crate::float::{
    Accuracy, Limit, Settled, Start, Weight, clearance, further_load, metacentric_height, settle,
};
use crate::hull::Flooded;
use crate::load::{Carriage, LoadPlan, Stance};
use crate::stability::{Arm, Walk, righting};
use std::sync::Arc;

/// A load case with its upright equilibrium.
pub struct Case<const N: usize> {
    /// Whole weight.
    pub weight: Weight<N>,
    /// Upright equilibrium.
    pub upright: Settled<N>,
    /// How the angler is carried in it.
    pub carriage: Carriage,
}

/// `N` shapes of one hull, floated upright in their load cases.
pub struct Afloat<'a, const N: usize> {
    pub(super) setup: &'a Setup,
    pub(super) shapes: &'a [Shape; N],
    /// The bodies.
    pub body: Arc<Body<N>>,
    hull_mass: Lanes<N>,
    accuracy: Accuracy,
    start: Start<N>,
}

impl<'a, const N: usize> Afloat<'a, N> {
    /// Draws the bodies of `shapes`.
    #[must_use]
    pub fn new(setup: &'a Setup, shapes: &'a [Shape; N], accuracy: Accuracy) -> Self {
        let body = Arc::new(setup.posterior.form.draw(shapes));
        Self::of(setup, shapes, body, accuracy)
    }

    /// `shapes` whose bodies are drawn already.
    pub(super) fn of(
        setup: &'a Setup,
        shapes: &'a [Shape; N],
        body: Arc<Body<N>>,
        accuracy: Accuracy,
    ) -> Self {
        let mut afloat = Self {
            setup,
            shapes,
            body,
            hull_mass: Lanes::from_fn(|i| shapes[i].hull_mass),
            accuracy,
            start: Start::LEVEL,
        };
        if let Some(rigged) = &setup.rigged {
            let rest = afloat.seated_with(&rigged.set_with);
            afloat.body = Arc::new(rigged.beside(&afloat.body, &rest.upright));
        }
        afloat
    }

    /// The whole weight as it is while the angler sits in the boat laden with `loads`.
    pub(super) fn seated_with(&self, loads: &LoadPlan) -> Case<N> {
        let carriage = Carriage::Seated;
        let weight = loads.total(carriage, &self.stance(), self.hull_mass);
        let upright = self.settle_on(self.setup.open, &weight, 0.0, self.start);
        Case {
            weight,
            upright,
            carriage,
        }
    }

    /// Searches from a rest that lies near instead of from level.
    #[must_use]
    pub fn near(mut self, draft: f64, slope: f64) -> Self {
        self.start.draft = Lanes::splat(draft);
        self.start.slope = Lanes::splat(slope);
        self
    }

    pub(super) fn density(&self) -> f64 {
        self.setup.brief.water.density
    }

    /// The whole weight with the crew carried so, as drawn: to starboard where
    /// it lies to starboard.
    #[must_use]
    pub fn weight(&self, carriage: Carriage) -> Weight<N> {
        let stance = self.stance();
        self.setup.loads.total(carriage, &stance, self.hull_mass)
    }

    /// Floor and seats of the shapes.
    #[must_use]
    pub fn stance(&self) -> Stance<N> {
        Stance::of(self.shapes, self.body.standing_height)
    }

    /// Floats the bodies upright with the crew carried so.
    #[must_use]
    pub fn case(&self, carriage: Carriage) -> Case<N> {
        self.case_from(carriage, self.start)
    }

    /// As [`Afloat::case`], searched from a rest that lies near.
    pub(super) fn case_from(&self, carriage: Carriage, start: Start<N>) -> Case<N> {
        let mut weight = self.weight(carriage);
        // The body is the same on both sides: lean towards the heavier one.
        weight.y = weight.y.abs();
        let upright = self.settle_on(self.setup.open, &weight, 0.0, start);
        Case {
            weight,
            upright,
            carriage,
        }
    }

    fn settle_on(
        &self,
        open: Flooded,
        weight: &Weight<N>,
        heel: f64,
        start: Start<N>,
    ) -> Settled<N> {
        settle(
            &self.body,
            &self.body.outline(open),
            weight,
            self.density(),
            heel,
            start,
            self.accuracy,
        )
    }

    /// Settles a case at `heel` (rad), nothing running in over the rim.
    #[must_use]
    pub fn settle(&self, case: &Case<N>, heel: f64) -> Settled<N> {
        let start = case.upright.as_start();
        self.settle_on(self.setup.open, &case.weight, heel, start)
    }

    /// As [`Afloat::settle`], on the body a brief lean meets: sealed, but where the
    /// floor is wet at rest it holds water of its own, and is taken as open.
    #[must_use]
    pub fn settle_briefly(&self, case: &Case<N>, heel: f64) -> Settled<N> {
        let middle = self.body.middle();
        let sill = clearance(&self.body.sill, middle, &case.upright.attitude);
        let dry = sill.0.iter().all(|&above| above > 0.0);
        let open = if dry { Flooded::NONE } else { self.setup.open };
        self.settle_on(open, &case.weight, heel, case.upright.as_start())
    }

    /// Righting arms of a case on the body as it lies, at `heels` (rad).
    #[must_use]
    pub fn arms(&self, case: &Case<N>, heels: &[f64]) -> Vec<Arm<N>> {
        righting(
            &self.body,
            &self.body.outline(self.setup.open),
            &case.weight,
            self.density(),
            &case.upright,
            heels,
            self.accuracy,
        )
    }

    /// Metacentric height, m.
    #[must_use]
    pub fn gm(&self, case: &Case<N>) -> Lanes<N> {
        metacentric_height(&case.upright.immersion, &case.weight)
    }

    /// All arms of a seated case at `heels` (rad, rising from 0).
    #[must_use]
    pub fn seated_arms(&self, case: &Case<N>, heels: &[f64]) -> Seated<N> {
        let on = |open: Flooded, upright: &Settled<N>| {
            let outline = self.body.outline(open);
            let (weight, density) = (&case.weight, self.density());
            Walk::new(
                &self.body,
                &outline,
                weight,
                density,
                upright,
                self.accuracy,
            )
            .along(heels, upright)
        };
        let lasting = on(self.setup.open, &case.upright);
        let recessed = self.body.has_recess();
        let brief = (recessed && self.setup.open != Flooded::NONE)
            .then(|| self.brief_arms(case, heels, &lasting));
        let full = (recessed && self.setup.fills).then(|| {
            let start = case.upright.as_start();
            let upright = self.settle_on(Flooded::ALL, &case.weight, 0.0, start);
            let arms = on(Flooded::ALL, &upright).into_iter();
            arms.map(|(arm, _)| arm).collect()
        });
        Seated {
            lasting: lasting.into_iter().map(|(arm, _)| arm).collect(),
            brief,
            full,
        }
    }

    /// Arms on the sealed body. While every recess is dry it floats as the open
    /// one does; after water has run in over the rim in every lane nothing more
    /// is asked of it.
    fn brief_arms(
        &self,
        case: &Case<N>,
        heels: &[f64],
        lasting: &[(Arm<N>, Settled<N>)],
    ) -> Vec<Arm<N>> {
        let mut walk = Walk::new(
            &self.body,
            &self.body.sealed,
            &case.weight,
            self.density(),
            &case.upright,
            self.accuracy,
        );
        let mut arms: Vec<Arm<N>> = Vec::with_capacity(heels.len());
        let mut under = 0;
        for (&heel, (open, settled)) in heels.iter().zip(lasting) {
            let dry = open.sill.0.iter().all(|&s| s > 0.0);
            let last = arms.last().filter(|_| under > 1);
            let arm = match last {
                Some(last) => Arm {
                    heel,
                    ..last.clone()
                },
                None if dry || heel == 0.0 => {
                    walk.note(heel, settled);
                    open.clone()
                }
                None => walk.step(heel).0,
            };
            if arm.rim.max_lane() < 0.0 {
                under += 1;
            }
            arms.push(arm);
        }
        arms
    }

    /// Further load until the water's limit, kg, with `clear` metres instead
    /// of the water type's own where given.
    #[must_use]
    pub fn further(&self, case: &Case<N>, clear: Option<f64>) -> Option<Lanes<N>> {
        let loads = &self.setup.loads;
        let load = loads.load(case.carriage, &self.stance());
        further_load(
            &self.body,
            &self.body.outline(self.setup.open),
            Limit {
                line: self.setup.limit_line(&self.body),
                clear: clear.unwrap_or(self.setup.least_clearance()),
            },
            &case.weight,
            &load,
            self.density(),
            self.accuracy,
        )
    }
}
