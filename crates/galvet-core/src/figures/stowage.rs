//! A rig laid out on a hull under a brief, levelled by how it then lies.

use super::afloat::Afloat;
use super::setup::{Setup, wet_clothes};
use crate::float::Accuracy;
use crate::hull::{Pin, Survey};
use crate::plausible::Posterior;
use crate::question::Brief;
use crate::stow::{Aboard, Balance, Demand, Hour, LEVEL, Mode, Space, Stead};
use std::sync::Arc;

/// What is wished of a layout.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Wish {
    /// Between which trims it is level enough, °.
    pub band: (f64, f64),
    /// Whether holes may be drilled.
    pub drills: bool,
}

impl Default for Wish {
    /// Level enough not to plough or slap, holes where nothing else holds.
    fn default() -> Self {
        Self {
            band: LEVEL,
            drills: true,
        }
    }
}

impl Setup {
    /// The space the hull offers those aboard.
    #[must_use]
    pub fn space(&self) -> Space {
        self.space_of(&self.posterior.survey)
    }

    /// The same with a change of the hull's record that does not change its shape.
    #[must_use]
    pub fn space_of(&self, survey: &Survey) -> Space {
        let form = &self.posterior.form;
        let others = self.loads.company.sat.iter();
        let aboard = Aboard {
            posture: self.brief.posture,
            stature: self.brief.crew.stature(),
            hand: self.brief.hand,
            others: others.map(|s| [s.x, s.who.stature()]).collect(),
        };
        let size = [form.length(), form.beam()];
        Space::of(survey, aboard, size, self.guides())
    }

    /// Prepares a hull for a brief: the rig laid out on it, what is pinned where
    /// it was put, and once more where it would lie unlevel.
    #[must_use]
    pub fn new(posterior: Arc<Posterior>, brief: Arc<Brief>) -> Self {
        let laid = &posterior.survey.looked.laid;
        let pins = laid.get(&brief.rig.key).cloned().unwrap_or_default();
        Self::pinned(posterior, brief, &pins)
    }

    /// The same with other things put by hand than those on the record.
    #[must_use]
    pub fn pinned(posterior: Arc<Posterior>, brief: Arc<Brief>, pins: &[Pin]) -> Self {
        Self::wished(posterior, brief, pins, Wish::default())
    }

    /// The same, laid out as it is wished, and anew where it trims outside the
    /// wish's band.
    #[must_use]
    pub fn wished(posterior: Arc<Posterior>, brief: Arc<Brief>, pins: &[Pin], wish: Wish) -> Self {
        let band = wish.band;
        let (guides, asked) = (posterior.guides.clone(), brief.clone());
        let bow = posterior.form.bow();
        let bare = Self::without_kit(posterior, brief);
        let space = bare.space();
        let mut demand = Demand::of(&asked.rig, &guides);
        let stead = Stead {
            space: &space,
            pins,
            bow,
            guides: &guides,
            drills: wish.drills,
        };
        let laid = bare.laid(stead.settle(&mut demand));
        let balance = laid.balance().filter(|_| demand.is_laid_out());
        let Some(balance) = balance else { return laid };
        let band = laid.band_through_the_day(balance.trim, band);
        if (band.0..=band.1).contains(&balance.trim) {
            return laid;
        }
        laid.laid(stead.engine(&demand).lay_level(balance, band))
    }

    /// The trims with everything aboard from which it stays within `band` through
    /// the day as well, when it lies at `trim` with everything aboard; its middle
    /// alone where the day is wider than the band.
    fn band_through_the_day(&self, trim: f64, band: (f64, f64)) -> (f64, f64) {
        if !self.loads.layout.comes_and_goes(&self.brief.rig) {
            return band;
        }
        let hours = [Hour::Launch, Hour::Midday, Hour::Return];
        let trims = hours.iter().filter_map(|&hour| self.at(hour).balance());
        let (lo, hi) = trims.fold((trim, trim), |(lo, hi), b| (b.trim.min(lo), b.trim.max(hi)));
        let (from, to) = (band.0 + (trim - lo), band.1 - (hi - trim));
        let middle = 0.5 * (from + to);
        if from < to {
            (from, to)
        } else {
            (middle, middle)
        }
    }

    /// The same at a point of the day.
    #[must_use]
    pub fn at(&self, hour: Hour) -> Self {
        let guides = self.guides();
        let layout = self.loads.layout.at(hour, &self.brief.rig, guides);
        let wetter = hour.wet_clothes(guides) - wet_clothes(guides);
        let mut then = self.clone().laid_later(layout);
        then.loads = then.loads.with_crew_heavier(wetter);
        then
    }

    /// The same in a mode of the day.
    #[must_use]
    pub fn in_mode(&self, mode: Mode) -> Self {
        let (space, guides) = (self.space(), self.guides());
        let layout = &self.loads.layout;
        let then = layout.in_mode(mode, &self.brief.rig, &space, guides);
        self.clone().laid_later(then)
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
}
