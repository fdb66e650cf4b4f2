//! One hull under one brief, ready to be evaluated.

use super::outriggers::Rigged;
use crate::body::{Body, EdgePoint};
use crate::crew::Company;
use crate::gear::{OnWater, Outriggers};
use crate::guide::{Guide, Guides};
use crate::hull::{Construction, Fitting, FittingKind, Flooded, Scupper, floods};
use crate::load::{Carriage, LoadPlan};
use crate::plausible::Posterior;
use crate::question::Brief;
use crate::rig::RigLine;
use crate::stow::Layout;
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

/// Crew and layout on a hull, as heavy as the day makes them: all kit aboard at
/// once, clothes wet. No point of the day is heavier, and the worst is ranked.
fn loads(posterior: &Posterior, brief: &Brief, layout: Layout) -> LoadPlan {
    let form = &posterior.form;
    let size = [form.bow(), form.length(), form.beam()];
    let company = Company::seat(
        &posterior.survey,
        &brief.others,
        form.length(),
        &posterior.guides,
    );
    LoadPlan::lay(
        &posterior.survey,
        (brief.crew, company),
        brief.seat,
        layout,
        size,
        &posterior.guides,
    )
    .with_crew_heavier(wet_clothes(&posterior.guides))
    .raised(brief.raised)
}

/// What wet clothes add to each person aboard, kg.
pub(super) fn wet_clothes(guides: &Guides) -> f64 {
    (guides[Guide::WetExtra] - guides[Guide::DressedExtra]).max(0.0)
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
    /// Its scuppers as the question sets them.
    pub scuppers: Vec<Scupper>,
    /// Recesses that stand open from below.
    pub open: Flooded,
    /// Whether water running in over the rim fills what is still dry.
    pub fills: bool,
    /// Which limit the water sets.
    pub limit: WaterLimit,
    /// Floats on arms beside it, as they were set with everything aboard.
    pub(super) rigged: Option<Arc<Rigged>>,
}

impl Setup {
    /// Prepares a hull for a brief, with nothing but the angler aboard.
    #[must_use]
    pub(super) fn without_kit(posterior: Arc<Posterior>, brief: Arc<Brief>) -> Self {
        let survey = &posterior.survey;
        let construction = survey.construction;
        let scuppers = survey.scuppers(brief.scuppers);
        let open = match construction {
            Construction::SitOnTop => floods(&scuppers),
            Construction::SitInside | Construction::Board => Flooded::NONE,
        };
        let loads = loads(&posterior, &brief, Layout::default());
        Self {
            rigged: Rigged::of(
                survey,
                &brief.rig,
                &loads,
                (posterior.form.bow(), posterior.form.beam()),
            ),
            loads,
            scuppers,
            open,
            fills: construction != Construction::Board && open != Flooded::ALL,
            limit: match construction {
                Construction::Board => WaterLimit::Deck,
                _ if open.cockpit => WaterLimit::Floor,
                _ => WaterLimit::Gunwale,
            },
            posterior,
            brief,
        }
    }

    /// The same with a layout aboard, floats set to how it then lies.
    pub(super) fn laid(self, layout: Layout) -> Self {
        let loads = loads(&self.posterior, &self.brief, layout);
        let form = &self.posterior.form;
        let size = (form.bow(), form.beam());
        let rigged = Rigged::of(&self.posterior.survey, &self.brief.rig, &loads, size);
        Self {
            loads,
            rigged,
            ..self
        }
    }

    /// The same with another layout aboard, floats where they were set: nobody sets them
    /// anew in the course of a day.
    pub(super) fn laid_later(self, layout: Layout) -> Self {
        let loads = loads(&self.posterior, &self.brief, layout);
        Self { loads, ..self }
    }

    /// Whether there is something to pull oneself up by: a strap or rail on the hull, or
    /// one of the rig that found a place.
    #[must_use]
    pub fn helped_up(&self) -> bool {
        let strap = |f: &Fitting| f.kind == FittingKind::AssistStrap;
        let lines = &self.brief.rig.lines;
        let helps = |line: usize| {
            let thing = lines.get(line).and_then(|l| l.thing.as_ref());
            thing.is_some_and(|g| g.brings.helps_up)
        };
        let mut stowed = self.loads.layout.stowed.iter();
        self.posterior
            .survey
            .fitout
            .fittings_now()
            .iter()
            .any(strap)
            || stowed.any(|s| s.lies.is_some() && helps(s.line))
    }

    /// The same without the floats beside it, which stay aboard as weight: what they give
    /// is what is lost.
    #[must_use]
    pub fn without_outriggers(mut self) -> Self {
        self.rigged = None;
        self
    }

    /// The floats beside it; none where there are none.
    #[must_use]
    pub fn outriggers(&self) -> &[(f64, Outriggers)] {
        self.rigged.as_ref().map_or(&[], |r| &r.pairs)
    }

    /// The same with the seat `by` m higher, or who stands standing on it.
    #[must_use]
    pub fn moved(mut self, by: f64, on_the_seat: bool) -> Self {
        self.loads = self.loads.raised(by);
        if on_the_seat {
            self.loads = self.loads.standing_on_the_seat();
        }
        self
    }

    /// Whether a spray deck of the rig closes the cockpit of a hull one sits in.
    #[must_use]
    pub fn sprayed(&self) -> bool {
        let sits_inside = self.posterior.survey.construction == Construction::SitInside;
        let closes = |does: &OnWater| does.spray_deck.then_some(1.0);
        sits_inside && self.aboard(closes) > 0.0
    }

    /// What all things that came aboard amount to together, as `of` tells it of one: what
    /// found no place and stays ashore helps nobody.
    fn aboard(&self, of: impl Fn(&OnWater) -> Option<f64>) -> f64 {
        let lines = &self.brief.rig.lines;
        let one = |(at, l): (usize, &RigLine)| {
            let came = self.loads.layout.stowed.iter().any(|s| s.line == at);
            let thing = l.thing.as_ref().filter(|_| came)?;
            Some(f64::from(l.count) * of(&thing.on_water)?)
        };
        lines.iter().enumerate().filter_map(one).sum()
    }

    /// Water all pumps aboard move, litres a minute.
    #[must_use]
    pub fn pumps(&self) -> f64 {
        self.aboard(|does| does.pumps)
    }

    /// Drag area of all that is towed alongside under way, m².
    #[must_use]
    pub fn towed(&self) -> f64 {
        self.brief.rig.dragged(|does| does.towed)
    }

    /// Drag area of the socks aboard, let out to drift slower, m².
    #[must_use]
    pub fn sock(&self) -> f64 {
        self.aboard(|does| does.sock)
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

    /// The moment to one side of somebody seated who leans out to land a fish, over `g`,
    /// kg·m: the torso leaned, of which hips
    /// and legs take a share back, the fish at the gunwale, and whoever comes along moving
    /// to the same side meanwhile (handbook, chapter 2: reach heel).
    #[must_use]
    pub fn landing_moment(&self) -> f64 {
        let (guides, loads) = (self.guides(), &self.loads);
        let taken_back = guides[Guide::CounterLean];
        let body = loads.crew_mass() * loads.crew().reach_shift(guides) * (1.0 - taken_back);
        let gunwale = 0.5 * self.posterior.form.beam();
        body + guides[Guide::LandedFish] * gunwale + loads.live_moment()
    }
}
