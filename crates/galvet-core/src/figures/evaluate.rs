//! One hull under one brief: every figure, for `N` shapes side by side.

use super::afloat::{Afloat, Case};
use super::lane::{Lane, Seated, falling};
use super::quantity::{Quantity, Values};
use super::setup::WaterLimit;
use super::worst::worse;
use crate::base::{GRAVITY, Lanes};
use crate::crew::Posture;
use crate::float::{Fate, clearance, deepest};
use crate::guide::Guide;
use crate::hull::{Construction, Measure};
use crate::load::Carriage;
use crate::stability::{
    Curve, HEELS_DEG, Leaning, OnTheFeet, fate, first_under, levelled, reserve, roll_period,
};

impl<const N: usize> Afloat<'_, N> {
    /// All figures of every shape, and what becomes of it.
    #[must_use]
    pub fn figures(&self) -> [(Values, Fate); N] {
        let seated = self.case(Carriage::Seated);
        let feet = self.case_from(Carriage::AtTheFeet, seated.upright.as_start());
        // A stiff standing body floats where its feet put it: same mass, same
        // place along the hull.
        let working = match self.setup.carriage() {
            Carriage::Seated => &seated,
            Carriage::AtTheFeet => &feet,
        };
        let heels = HEELS_DEG.map(f64::to_radians);
        let arms = self.seated_arms(&seated, &heels);
        let gm = self.gm(&seated);
        let paths: [Lane; N] = std::array::from_fn(|i| Lane::of(&arms, &heels, gm.0[i], i));
        let mut out: [(Values, Fate); N] = std::array::from_fn(|i| {
            let (fate, shift) = self.fate(&seated, &feet, &paths[i], i);
            let mut values = Values::default();
            values.set_some(Quantity::LevelShift, shift);
            (values, fate)
        });
        self.always(&gm, &mut out);
        self.laden(working, &arms, &mut out);
        if self.setup.brief.posture == Posture::SitsAndStands {
            let mut other = out.clone();
            self.laden(&feet, &arms, &mut other);
            out = std::array::from_fn(|i| worse(out[i].clone(), &other[i]));
        }
        self.leaning(&seated, &gm, &paths, &mut out);
        self.standing(&feet, &mut out);
        out
    }

    /// What a case carries and how it lies.
    fn laden(&self, case: &Case<N>, arms: &Seated<N>, out: &mut [(Values, Fate); N]) {
        self.capacity(case, out);
        self.floating(case, arms, out);
    }

    /// What becomes of one shape, seated, and on the feet where the angler stands; and
    /// how far the angler shifts aside for it to rest, m, where nothing else does it.
    fn fate(&self, seated: &Case<N>, feet: &Case<N>, lane: &Lane, i: usize) -> (Fate, Option<f64>) {
        let stands = self.setup.brief.posture.stands();
        for case in [Some(seated), stands.then_some(feet)].into_iter().flatten() {
            let excess = case.upright.excess_volume.0[i];
            if excess > 0.0 {
                let by = excess * self.density();
                return (Fate::Sinks { by }, None);
            }
            if !case.upright.rests(i) {
                let by_the_stern = case.weight.x.0[i] > self.body.middle();
                return (Fate::Founders { by_the_stern }, None);
            }
        }
        if self.setup.fills && lane.lasting.fills_at() == Some(0.0) {
            let rim = clearance(&self.body.rim, self.body.middle(), &seated.upright.attitude);
            return (Fate::Swamps { by: -rim.0[i] }, None);
        }
        let still = fate(&lane.lasting, lane.gm);
        if still.is_rest() {
            return (still, None);
        }
        let most = self.setup.guides()[Guide::LevelShift];
        let crew = self.setup.loads.crew_mass() / seated.weight.mass.0[i];
        match levelled(&lane.lasting, lane.gm, crew, most) {
            Some((rests, shift)) if rests.is_rest() => (rests, Some(shift)),
            _ => (still, None),
        }
    }

    /// Figures that exist whatever becomes of the hull; stiffness wherever it
    /// has an upright equilibrium at all.
    fn always(&self, gm: &Lanes<N>, out: &mut [(Values, Fate); N]) {
        use Quantity as Q;
        let loads = &self.setup.loads;
        let rated = self.setup.posterior.survey.value(Measure::RatedCapacity);
        let share = self.setup.brief.water.working_share;
        let knee = loads.crew().knee_height(self.setup.guides());
        let weight = self.weight(Carriage::Seated);
        let helped = self.setup.helped_up();
        for (i, (values, _)) in out.iter_mut().enumerate() {
            let counted =
                loads.counted_mass(self.shapes[i].kit_mass) + loads.off_guess(&self.shapes[i]);
            values.set(Q::Counted, counted);
            values.set_some(Q::LabelMargin, rated.map(|r| r - counted));
            values.set_some(Q::WorkingMargin, rated.map(|r| share * r - counted));
            let up = loads.seat_height(&self.shapes[i]) / knee;
            values.set(Q::GettingUp, if helped { one_step_up(up) } else { up });
            values.set(Q::Gm, gm.0[i]);
            let stiffness = weight.mass.0[i] * GRAVITY * gm.0[i].to_radians();
            values.set(Q::Stiffness, stiffness);
        }
    }

    fn capacity(&self, case: &Case<N>, out: &mut [(Values, Fate); N]) {
        use Quantity as Q;
        let further = self.further(case, None);
        for (i, (values, fate)) in out.iter_mut().enumerate() {
            if !fate.is_rest() {
                continue;
            }
            let water = further.map(|f| f.0[i]).filter(|f| f.is_finite());
            values.set_some(Q::WaterlineMargin, water);
            // The tightest of the three: without the water's there is none.
            let [label, working] = [Q::LabelMargin, Q::WorkingMargin].map(|q| values.get(q));
            let binding = [label, working, water].into_iter().flatten();
            let tightest = water.and_then(|_| binding.reduce(f64::min));
            values.set_some(Q::BindingMargin, tightest);
        }
    }

    fn floating(&self, case: &Case<N>, arms: &Seated<N>, out: &mut [(Values, Fate); N]) {
        use Quantity as Q;
        let (at, middle) = (&case.upright.attitude, self.body.middle());
        let floor = clearance(&self.body.floor, middle, at);
        let gunwale = clearance(&self.body.gunwale, middle, at);
        let depth = deepest(&self.body, at);
        let drive = self.setup.posterior.survey.value(Measure::DriveDepth);
        let carriage = case.carriage;
        let water = at.water_at(self.setup.loads.crew_place(carriage), middle);
        // The floor of a sit-inside lies under the water as it should.
        let shows_floor = self.setup.posterior.survey.construction != Construction::SitInside;
        for (i, (values, fate)) in out.iter_mut().enumerate() {
            let Fate::Rests { list } = *fate else {
                continue;
            };
            let swamped = arms.full.as_ref().map(|full| full[0].rim.0[i]);
            values.set_some(Q::SwampedFreeboard, swamped);
            let top = self.setup.loads.highest(carriage, &self.shapes[i]);
            let height = self.body.standing_height.0[i] + top - water.0[i];
            // A crest lifts it by half the wave.
            let lifted = 0.5 * self.setup.brief.water.wave().unwrap_or(0.0);
            values.set(Q::AirDraft, height + lifted);
            values.set(Q::Draft, at.draft.0[i]);
            values.set(Q::Deepest, depth.0[i]);
            values.set_some(Q::DraftWithDrive, drive.map(|d| d + depth.0[i]));
            values.set(Q::Trim, at.slope.0[i].atan().to_degrees());
            values.set(Q::List, list.to_degrees());
            values.set_some(Q::FloorAboveWater, shows_floor.then_some(floor.0[i]));
            values.set(Q::Freeboard, gunwale.0[i]);
        }
    }

    fn leaning(
        &self,
        case: &Case<N>,
        gm: &Lanes<N>,
        paths: &[Lane; N],
        out: &mut [(Values, Fate); N],
    ) {
        use Quantity as Q;
        let guides = self.setup.guides();
        let crew = self.setup.loads.crew_mass();
        // Whoever comes along may move to the same side meanwhile.
        let live = self.setup.loads.live_moment();
        let taken = live / crew;
        let reaching = self.setup.landing_moment();
        let sideways = guides[Guide::SidewaysPlace];
        for (i, (values, fate)) in out.iter_mut().enumerate() {
            if !fate.is_rest() {
                continue;
            }
            let lane = &paths[i];
            let (mass, gm) = (case.weight.mass.0[i], gm.0[i]);
            let along = |path| Leaning { mass, crew, path };
            let (brief, lasting) = (along(&lane.brief), along(&lane.lasting));
            let angle = |v: Option<f64>| v.map(f64::to_degrees);
            let left = |room: f64| (room - taken).max(0.0);
            let lasting_room = left(lasting.room());
            values.set(Q::LeanRoom, left(brief.room()));
            values.set(Q::LastingLean, lasting_room);
            let open_floor = self.setup.limit != WaterLimit::Gunwale;
            let dry = open_floor.then(|| left(lasting.dry_room(&lane.floor)));
            values.set_some(Q::DryLean, dry);
            values.set_some(Q::ReachHeel, angle(brief.heel_under(reaching, gm)));
            let list = lasting.heel_under(crew * sideways + live, gm);
            values.set_some(Q::SidewaysList, angle(list));
            values.set_some(Q::SidewaysRoom, list.map(|_| lasting_room - sideways));
            let wets = open_floor.then(|| first_under(&lane.floor)).flatten();
            values.set_some(Q::FloorWetAngle, angle(wets));
            values.set_some(Q::EdgeAngle, angle(first_under(&lane.gunwale)));
            values.set_some(Q::DownFlooding, angle(lane.lasting.fills_at()));
            let (peak_angle, peak) = lane.lasting.peak();
            values.set(Q::RightingPeak, peak);
            values.set(Q::PeakAngle, peak_angle.to_degrees());
            values.set_some(Q::VanishingAngle, angle(lane.lasting.vanishes_at()));
            let limit = guides[Guide::ReserveLimit].to_radians();
            let work = reserve(mass, &lane.lasting, &lane.gunwale, limit);
            values.set(Q::Reserve, work);
            let radius = self.setup.loads.roll_radius(
                Carriage::Seated,
                self.body.standing_height.0[i],
                &self.shapes[i],
            );
            let period = roll_period(radius, gm, guides[Guide::AddedInertia]);
            values.set_some(Q::RollPeriod, period);
        }
    }

    fn standing(&self, case: &Case<N>, out: &mut [(Values, Fate); N]) {
        use Quantity as Q;
        let guides = self.setup.guides();
        let limit = guides[Guide::StandingLimit].to_radians();
        let secant = guides[Guide::SecantHeel].to_radians();
        let heels = [0.0, 0.5 * limit, limit];
        let arms = self.arms(case, &heels);
        let gm = self.gm(case);
        for (i, (values, fate)) in out.iter_mut().enumerate() {
            if !fate.is_rest() || !case.upright.rests(i) {
                continue;
            }
            let edge = std::array::from_fn(|k| match self.setup.limit {
                WaterLimit::Floor | WaterLimit::Deck => arms[k].floor.0[i],
                WaterLimit::Gunwale => arms[k].gunwale.0[i],
            });
            let feet = OnTheFeet {
                mass: case.weight.mass.0[i],
                crew: self.setup.loads.crew_mass(),
                centre: self.setup.loads.standing_centre(),
                gz: Curve::through(heels, std::array::from_fn(|k| arms[k].gz.0[i]), gm.0[i]),
                edge: falling(heels, edge),
            };
            values.set(Q::StandingSupport, feet.support(secant));
            let taken = self.setup.loads.live_moment() / feet.crew;
            values.set(Q::StandingRoom, (feet.room() - taken).max(0.0));
            values.set(Q::RigidStandingGm, feet.rigid_gm(gm.0[i]));
        }
    }
}

/// Getting up with something to pull oneself up by: one band higher, in proportion
/// (handbook, chapter 2: an assist strap or rail lifts one step). `up` is the seat's
/// height over knee height; 0.6 and 0.85 are the bands of [`Quantity::GettingUp`].
#[must_use]
pub fn one_step_up(up: f64) -> f64 {
    let (push, easy) = (0.6, 0.85);
    if up < push {
        push + up / push * (easy - push)
    } else {
        easy + (up - push)
    }
}
