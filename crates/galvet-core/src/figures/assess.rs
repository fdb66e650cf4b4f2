//! A hull's figures with their ranges: the whole sample evaluated.

use super::afloat::Afloat;
use super::deciding::Kept;
use super::quantity::{Quantity, Values};
use super::remedy::{Remedy, remedies};
use super::setup::Setup;
use super::worst::{Day, Found, Told};
use crate::base::Lanes;
use crate::base::{Range, Shown};
use crate::body::Shape;
use crate::float::{Accuracy, Fate, bearable_share};
use crate::guide::Guide;
use crate::hull::Propulsion;
use crate::load::Carriage;
use crate::plausible::{Posterior, effective_size};
use crate::question::{Brief, Demand};
use crate::stow::Hour;
use std::borrow::Cow;
use std::sync::{Arc, OnceLock};

/// All figures of one hull under one brief.
#[derive(Debug, Clone)]
pub struct Assessment {
    /// Hull and brief.
    pub setup: Setup,
    /// The shape nearest the middle of the weighted sample, for drawing.
    pub middle: Shape,
    /// What decides of every shape of the sample, in its order.
    pub sample: Vec<Kept>,
    /// What becomes of every shape.
    pub fates: Vec<Fate>,
    ranges: Vec<Option<Range>>,
    day: Told,
    /// Worked out when somebody asks.
    too_much: OnceLock<Option<f64>>,
    pub(super) remarks: OnceLock<Vec<String>>,
    remedies: OnceLock<Vec<Option<Remedy>>>,
    drains: OnceLock<Vec<Option<f64>>>,
    /// Share of a few shapes that stay up swamped.
    swamped: OnceLock<f64>,
}

impl Assessment {
    /// Evaluates every plausible shape of a hull under `brief`.
    #[must_use]
    pub fn of(posterior: Arc<Posterior>, brief: Arc<Brief>) -> Self {
        let setup = Setup::new(posterior, brief);
        let middle = setup.posterior.middle();
        let day = Day::of(&setup, &middle);
        let figures = day.sample(&|| true);
        Self::from_figures(setup, middle, day, figures)
    }

    /// As [`Assessment::of`] for as long as `wanted` says so, asked before every
    /// few shapes; `None` once it did not.
    pub fn while_wanted(
        posterior: Arc<Posterior>,
        brief: Arc<Brief>,
        wanted: &(dyn Fn() -> bool + Sync),
    ) -> Option<Self> {
        let setup = Setup::new(posterior, brief);
        let middle = setup.posterior.middle();
        let day = Day::of(&setup, &middle);
        let figures = day.sample(wanted);
        (figures.len() == setup.posterior.shapes.len())
            .then(|| Self::from_figures(setup, middle, day, figures))
    }

    /// As [`Assessment::while_wanted`], with everything lying as it does in `like`, where
    /// the question is another one about the same rig, and everything aboard at once:
    /// nothing is searched for, nothing levelled. Tells quickly where a hull may stand,
    /// and nothing that is told.
    pub fn laid_as(
        posterior: Arc<Posterior>,
        brief: Arc<Brief>,
        like: &Setup,
        wanted: &(dyn Fn() -> bool + Sync),
    ) -> Option<Self> {
        let layout = like.loads.layout.as_ref().clone();
        let setup = Setup::without_kit(posterior, brief).laid(layout);
        let middle = setup.posterior.middle();
        let day = Day::at_once(&setup, &middle);
        let figures = day.sample(wanted);
        (figures.len() == setup.posterior.shapes.len())
            .then(|| Self::from_figures(setup, middle, day, figures))
    }

    /// What would give each must that surely finds no place one, cheapest: as many as
    /// [`Layout::missing`](crate::stow::Layout::missing) tells.
    #[must_use]
    pub fn remedies(&self) -> &[Option<Remedy>] {
        self.remedies.get_or_init(|| {
            let missing = self.setup.loads.layout.missing();
            missing.map(|u| remedies(&self.setup, u, 1).pop()).collect()
        })
    }

    fn from_figures(setup: Setup, middle: Shape, day: Day, figures: Vec<Found>) -> Self {
        let (sample, fates): (Vec<Values>, Vec<Fate>) = figures.into_iter().unzip();
        let weights = &setup.posterior.weights;
        let over = |&q: &Quantity| {
            let shown = sample.iter().zip(&fates).zip(weights);
            let shown = shown.map(|((values, fate), &weight)| Shown {
                value: values.raw(q),
                weight,
                absent: q.absent_counts_as(fate.is_rest()),
            });
            Range::over_all(&shown.collect::<Vec<_>>())
        };
        let ranges = Quantity::ALL.iter().map(over).collect();
        let sample = sample.iter().map(Kept::from).collect();
        Self {
            setup,
            middle,
            sample,
            fates,
            ranges,
            day: day.told(),
            too_much: OnceLock::new(),
            remarks: OnceLock::new(),
            remedies: OnceLock::new(),
            drains: OnceLock::new(),
            swamped: OnceLock::new(),
        }
    }

    /// Median and 5-95 % range of a figure over all shapes, with the share of those
    /// that have it; `None` where none has.
    #[must_use]
    pub fn range(&self, quantity: Quantity) -> Option<Range> {
        self.ranges[quantity as usize]
    }

    /// Median of a figure, SI, where at least half the shapes have it: of a
    /// figure that most don't have there is no middle.
    #[must_use]
    pub fn median(&self, quantity: Quantity) -> Option<f64> {
        self.range(quantity)
            .filter(|r| r.share >= 0.5)
            .map(|r| r.p50)
    }

    /// The hour of the day at which a figure is worst, for the middle shape: it is
    /// ranked as it is then. `None` where that is with everything aboard at once.
    #[must_use]
    pub fn worst_at(&self, quantity: Quantity) -> Option<Hour> {
        self.day.worst_at(quantity)
    }

    /// The hull as it is when a figure is worst.
    #[must_use]
    pub fn setup_at(&self, quantity: Quantity) -> Cow<'_, Setup> {
        match self.worst_at(quantity) {
            Some(hour) => Cow::Owned(self.setup.at(hour)),
            None => Cow::Borrowed(&self.setup),
        }
    }

    /// The hours of the day that were floated beside everything aboard at once, and the
    /// hull as it is then.
    pub fn hours(&self) -> impl Iterator<Item = (Hour, Setup)> {
        self.day.hours.iter().map(|&h| (h, self.setup.at(h)))
    }

    /// All figures of every shape of the sample, in its order, worked out again: only
    /// what decides is kept.
    #[must_use]
    pub fn in_full(&self) -> Vec<Values> {
        let sample = match self.day.hours.is_empty() {
            true => Day::at_once(&self.setup, &self.middle),
            false => Day::of(&self.setup, &self.middle),
        };
        let found = sample.sample(&|| true).into_iter();
        found.map(|(values, _)| values).collect()
    }

    /// Weighted share of shapes whose fate is `is`, with all evidence.
    #[must_use]
    pub fn share(&self, is: impl Fn(&Fate) -> bool) -> f64 {
        share(&self.fates, &self.setup.posterior.weights, is)
    }

    /// The same without the evidence that the hull is sold at all.
    #[must_use]
    pub fn share_unsold(&self, is: impl Fn(&Fate) -> bool) -> f64 {
        share(&self.fates, &self.setup.posterior.unsold, is)
    }

    /// Indices of the sample in which every shape stands as often as it weighs
    /// (systematic resampling), spread over the sample so that pairing two
    /// hulls' indices mixes them.
    #[must_use]
    pub fn evenly(&self) -> Vec<usize> {
        let weights = &self.setup.posterior.weights;
        let size = self.sample.len();
        let mut out = vec![0; size];
        let (mut i, mut reached) = (0, weights.first().copied().unwrap_or(0.0));
        // Steps by the golden section walk through all places once when the
        // step and the size have no common factor.
        let step = coprime_step(size);
        let mut place = 0;
        for n in 0..size {
            let wanted = (n as f64 + 0.5) / size as f64;
            while reached < wanted && i + 1 < size {
                i += 1;
                reached += weights[i];
            }
            out[place] = i;
            place = (place + step) % size;
        }
        out
    }

    /// The same begun at a place that follows from `which`. All hulls have one and the
    /// same sample: read from places of their own, the shapes of two of them are paired
    /// as if they were drawn apart. The golden section spreads any number of places.
    #[must_use]
    pub fn evenly_as(&self, which: usize) -> Vec<usize> {
        let mut out = self.evenly();
        let at = (which as f64 * 0.618_033_988_75).fract() * out.len() as f64;
        let at = (at as usize).min(out.len());
        out.rotate_left(at);
        out
    }

    /// Shapes that count, of those in the sample.
    #[must_use]
    pub fn effective_size(&self) -> f64 {
        effective_size(&self.setup.posterior.weights)
    }

    /// The middle shape, afloat, to be looked at closely.
    #[must_use]
    pub fn afloat<'a>(&'a self, shapes: &'a [Shape; 1]) -> Afloat<'a, 1> {
        Afloat::new(&self.setup, shapes, Accuracy::FINE)
    }

    /// Load, kg, by which the hull is too heavily laden to find a rest: of the
    /// middle shape, or of the likeliest that founders where that one rests.
    /// `None` where all find one.
    #[must_use]
    pub fn too_much(&self) -> Option<f64> {
        *self.too_much.get_or_init(|| {
            let weights = &self.setup.posterior.weights;
            let founder = |&i: &usize| matches!(self.fates[i], Fate::Founders { .. });
            let mut lost: Vec<usize> = (0..self.fates.len()).filter(founder).collect();
            lost.sort_by(|&a, &b| weights[b].total_cmp(&weights[a]));
            let shapes = lost.into_iter().map(|i| self.setup.posterior.shapes[i]);
            std::iter::once(self.middle)
                .chain(shapes)
                .find_map(|shape| self.too_much_for(shape))
        })
    }

    /// The same for one shape, in the way of carrying the crew that it bears
    /// least.
    fn too_much_for(&self, shape: Shape) -> Option<f64> {
        let hours = self.hours().map(|(_, setup)| setup);
        let whole = too_much_as(&self.setup, shape);
        let over = hours.filter_map(|setup| too_much_as(&setup, shape));
        over.chain(whole).reduce(f64::max)
    }

    /// What drives it where the question is asked: by paddle where the water is too
    /// shallow for its drive or motor to be down, see [`Assessment::drive_up`].
    #[must_use]
    pub fn driven(&self) -> Propulsion {
        if self.drive_up() {
            Propulsion::Paddle
        } else {
            self.setup.posterior.survey.propulsion
        }
    }

    /// Whether its drive or motor is up on this water: where it asks for one that lifts,
    /// or is hardly deeper than a hull, and is too shallow for it. Elsewhere it is lifted
    /// over shallow places only. Where nobody measured how far it reaches, by a guide
    /// value.
    #[must_use]
    pub fn drive_up(&self) -> bool {
        /// Least depth up to which a water is hardly deeper than a hull, m. Guide value.
        const SHALLOW: f64 = 0.2;
        let water = &self.setup.brief.water;
        let all_over = water.demands.contains(&Demand::DriveLifts) || water.least_depth <= SHALLOW;
        all_over && self.drive_too_deep()
    }

    /// Whether a drive that does not lift, and whose reach nobody measured, may be too
    /// deep for the water: nobody can rule it out, or in.
    #[must_use]
    pub fn drive_may_ground(&self) -> bool {
        let unknown = self.median(Quantity::DraftWithDrive).is_none();
        unknown && !self.setup.posterior.survey.drive_lifts && self.drive_too_deep()
    }

    /// Whether the water's least depth is less than its drive or motor needs when down.
    fn drive_too_deep(&self) -> bool {
        let reach = self.setup.guides()[Guide::DriveReach];
        let guessed = || self.median(Quantity::Deepest).map(|d| d + reach);
        let down = self.median(Quantity::DraftWithDrive).or_else(guessed);
        let least = self.setup.brief.water.least_depth;
        let driven = self.setup.posterior.survey.propulsion.has_drive();
        driven && down.is_some_and(|deep| deep > least)
    }

    /// Depth of water it floats in, m, as nine of ten of its shapes lie, and whether that is
    /// with its drive down: one that lifts goes up at a ramp or a bar. Of a drive nobody
    /// measured what such drives reach. `None` where it does not rest.
    #[must_use]
    pub fn floats_in(&self) -> Option<(f64, bool)> {
        let survey = &self.setup.posterior.survey;
        let hull = self.range(Quantity::Deepest)?.p95;
        if !survey.propulsion.has_drive() || survey.drive_lifts {
            return Some((hull, false));
        }
        let reach = self.setup.guides()[Guide::DriveReach];
        let down = self.range(Quantity::DraftWithDrive).map(|r| r.p95);
        Some((down.unwrap_or(hull + reach), true))
    }

    /// Share of the shapes that stay up in which leaning out to land a fish does not
    /// hold; 0 where none stays up.
    #[must_use]
    pub fn reach_lost(&self) -> f64 {
        let up = self.share(Fate::is_rest);
        let holds = self.range(Quantity::ReachHeel).map_or(0.0, |r| r.share);
        if up > 0.0 {
            (1.0 - holds / up).clamp(0.0, 1.0)
        } else {
            0.0
        }
    }

    /// What it weighs as launched: hull, seat and drive, and what was built on since, kg.
    /// The one account of it.
    #[must_use]
    pub fn fitted_mass(&self) -> f64 {
        let posterior = &self.setup.posterior;
        let masses = posterior.shapes.iter().map(|s| s.hull_mass);
        let middle = Range::of(masses.zip(posterior.weights.iter().copied()));
        let hull = middle.map_or(self.middle.hull_mass, |r| r.p50);
        self.setup.loads.hull::<1>(Lanes::splat(hull)).mass.0[0]
    }

    /// Seconds in which a deck full of water drains, of a few shapes spread over the
    /// possible ones: worked out by `drain` when somebody asks first.
    pub(crate) fn drains(&self, drain: impl FnOnce(&Self) -> Vec<Option<f64>>) -> &[Option<f64>] {
        self.drains.get_or_init(|| drain(self))
    }

    /// The same with no remedy looked for, for what finds no place: whoever only asks where
    /// a hull stands is not told any.
    #[must_use]
    pub fn without_remedies(self) -> Self {
        // Already looked for: nothing is lost.
        let _ = self.remedies.set(Vec::new());
        self
    }

    /// Share of a few shapes that stay up with the cockpit full: worked out by `look` when
    /// somebody asks first.
    pub(crate) fn stays_up_swamped(&self, look: impl FnOnce(&Self) -> f64) -> f64 {
        *self.swamped.get_or_init(|| look(self))
    }

    /// Share of the possible shapes that weigh more than `limit` kg as launched.
    #[must_use]
    pub fn share_heavier(&self, limit: f64) -> f64 {
        let posterior = &self.setup.posterior;
        let launched = |mass| self.setup.loads.hull::<1>(Lanes::splat(mass)).mass.0[0];
        let both = posterior.shapes.iter().zip(&posterior.weights);
        both.filter(|(shape, _)| launched(shape.hull_mass) > limit)
            .fold(0.0, |sum, (_, weight)| sum + weight)
    }

    /// What floats of the middle shape, kg and m (`mass, x, y, z`), with the
    /// crew carried so.
    #[must_use]
    pub fn floated(&self, carriage: Carriage) -> [f64; 4] {
        self.floated_as(&self.setup, carriage)
    }

    /// The same at an hour of the day, or set up otherwise.
    #[must_use]
    pub fn floated_as(&self, setup: &Setup, carriage: Carriage) -> [f64; 4] {
        let weight = Afloat::new(setup, &[self.middle], Accuracy::FINE).weight(carriage);
        [weight.mass, weight.x, weight.y, weight.z].map(|v| v.0[0])
    }
}

/// Load too much for one shape as it is set up, in the way of carrying the crew that
/// it bears least, kg.
fn too_much_as(setup: &Setup, shape: Shape) -> Option<f64> {
    let shapes = [shape];
    let afloat = Afloat::new(setup, &shapes, Accuracy::FINE);
    let (loads, body) = (&setup.loads, &afloat.body);
    let stands = setup.brief.posture.stands();
    let carriages = [
        Some(Carriage::Seated),
        stands.then_some(Carriage::AtTheFeet),
    ];
    let over = carriages.into_iter().flatten().map(|carriage| {
        let load = loads.load(carriage, &afloat.stance());
        let share = bearable_share(
            body,
            &body.outline(setup.open),
            &loads.hull(Lanes::splat(shape.hull_mass)),
            &load,
            setup.brief.water.density,
        );
        load.mass.0[0] * (1.0 - share)
    });
    let over = over.fold(0.0, f64::max);
    (over > 0.0).then_some(over)
}

fn share(fates: &[Fate], weights: &[f64], is: impl Fn(&Fate) -> bool) -> f64 {
    let both = fates.iter().zip(weights);
    both.filter(|(fate, _)| is(fate))
        .fold(0.0, |sum, (_, w)| sum + w)
}

/// A step near the golden section of `size` without a factor in common.
fn coprime_step(size: usize) -> usize {
    fn common(a: usize, b: usize) -> usize {
        if b == 0 { a } else { common(b, a % b) }
    }
    let wanted = (size as f64 * 0.618) as usize;
    (wanted.max(1)..)
        .find(|&step| common(step, size.max(1)) == 1)
        .unwrap_or(1)
}
