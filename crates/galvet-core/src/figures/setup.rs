//! One hull under one brief, ready to be evaluated.

use super::evaluate::Afloat;
use crate::body::{Body, EdgePoint};
use crate::float::Accuracy;
use crate::guide::Guides;
use crate::hull::{Construction, Flooded, Scupper, floods};
use crate::load::{Carriage, LoadPlan};
use crate::plausible::Posterior;
use crate::question::Brief;
use crate::stow::{Aboard, Balance, Demand, Engine, LEVEL, Layout, Space};
use std::sync::Arc;

/// Which line along the hull must stay above the water.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum WaterLimit {
    /// The cockpit floor: open scuppers.
    Floor,
    /// A board's deck, which is its floor.
    Deck,
    /// The gunwale: plugged, sit-inside.
    Gunwale,
}

/// Crew and layout on a hull.
fn loads(posterior: &Posterior, brief: &Brief, layout: Layout) -> LoadPlan {
    let form = &posterior.form;
    let size = [form.bow(), form.length(), form.beam()];
    LoadPlan::lay(
        &posterior.survey,
        brief.crew,
        brief.seat,
        layout,
        size,
        &posterior.guides,
    )
}

/// A hull under a brief, ready to be evaluated for any shape.
#[derive(Debug, Clone)]
pub struct Setup {
    /// The hull.
    pub posterior: Arc<Posterior>,
    /// The question.
    pub brief: Arc<Brief>,
    /// Where the masses lie.
    pub loads: LoadPlan,
    /// Her scuppers as the question sets them.
    pub scuppers: Vec<Scupper>,
    /// Recesses that stand open from below.
    pub open: Flooded,
    /// Whether water running in over the rim fills what is still dry.
    pub fills: bool,
    /// Which limit the water sets.
    pub limit: WaterLimit,
}

impl Setup {
    /// Prepares a hull for a brief.
    #[must_use]
    pub fn new(posterior: Arc<Posterior>, brief: Arc<Brief>) -> Self {
        let survey = &posterior.survey;
        let construction = survey.construction;
        let scuppers = survey.scuppers(brief.scuppers);
        let open = match construction {
            Construction::SitOnTop => floods(&scuppers),
            Construction::SitInside | Construction::Board => Flooded::NONE,
        };
        let setup = Self {
            loads: loads(&posterior, &brief, Layout::default()),
            scuppers,
            open,
            fills: construction != Construction::Board && open != Flooded::ALL,
            limit: match construction {
                Construction::Board => WaterLimit::Deck,
                _ if open.cockpit => WaterLimit::Floor,
                _ => WaterLimit::Gunwale,
            },
            posterior: posterior.clone(),
            brief: brief.clone(),
        };
        setup.stowed()
    }

    /// The space the hull offers those aboard.
    #[must_use]
    pub fn space(&self) -> Space {
        let form = &self.posterior.form;
        let aboard = Aboard {
            posture: self.brief.posture,
            stature: self.brief.crew.stature(),
        };
        let size = [form.length(), form.beam()];
        Space::of(&self.posterior.survey, aboard, size, self.guides())
    }

    /// The same with the rig laid out, and once more where she would lie unlevel.
    fn stowed(mut self) -> Self {
        let space = self.space();
        let guides = self.posterior.guides.clone();
        let brief = self.brief.clone();
        let demand = Demand::of(&brief.rig, &guides);
        let laid = &self.posterior.survey.looked.laid;
        let pins = laid.get(&brief.rig.key).cloned().unwrap_or_default();
        let bow = self.posterior.form.bow();
        let engine = Engine::new(&space, &demand, &pins, bow, &guides);
        self.loads = loads(&self.posterior, &brief, engine.lay());
        if demand.is_laid_out()
            && let Some(balance) = self.balance()
            && !(LEVEL.0..=LEVEL.1).contains(&balance.trim)
        {
            self.loads = loads(&self.posterior, &brief, engine.lay_level(balance));
        }
        self
    }

    /// How the middle shape lies with the layout; `None` where it does not rest.
    #[must_use]
    pub fn balance(&self) -> Option<Balance> {
        let middle = [self.posterior.middle()];
        let afloat = Afloat::new(self, &middle, Accuracy::SAMPLE);
        let case = afloat.case(self.carriage());
        if !case.upright.rests(0) {
            return None;
        }
        let water = &case.upright.immersion;
        let (area, first) = (water.area.0[0], water.area_x.0[0]);
        // Second moment of the waterplane about its own centre: BM_L takes all but
        // some hundredths of the longitudinal stiffness.
        let second = water.area_xx.0[0] - first * first / area;
        let per_degree = self.brief.water.density * second * 1f64.to_radians();
        let trim = case.upright.attitude.slope.0[0].atan().to_degrees();
        let stiff = per_degree.is_finite() && per_degree > 0.0;
        stiff.then_some(Balance { trim, per_degree })
    }

    /// The guide values in force.
    #[must_use]
    pub fn guides(&self) -> &Guides {
        &self.posterior.guides
    }

    /// The line the water must stay under.
    #[must_use]
    pub fn limit_line<'b, const N: usize>(&self, body: &'b Body<N>) -> &'b [EdgePoint<N>] {
        match self.limit {
            WaterLimit::Floor | WaterLimit::Deck => &body.floor,
            WaterLimit::Gunwale => &body.gunwale,
        }
    }

    /// How far the limiting line must stay above the water, m.
    #[must_use]
    pub fn least_clearance(&self) -> f64 {
        match self.limit {
            WaterLimit::Floor | WaterLimit::Deck => self.brief.water.floor_clearance,
            WaterLimit::Gunwale => self.brief.water.freeboard,
        }
    }

    /// The load case that decides capacity and trim: one who only stands is
    /// floated standing, anyone else seated.
    #[must_use]
    pub fn carriage(&self) -> Carriage {
        match self.brief.posture {
            crate::crew::Posture::Stands => Carriage::AtTheFeet,
            _ => Carriage::Seated,
        }
    }
}
