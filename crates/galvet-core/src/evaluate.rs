//! One hull under one brief: every figure, for `N` shapes side by side.

use crate::brief::Brief;
use crate::float::{Accuracy, Settled, Start, Weight, clearance, further_load, settle};
use crate::hull::body::{Body, EdgePoint, Flooded};
use crate::hull::scupper;
use crate::hull::survey::Survey;
use crate::hull::{BottomShape, Construction, Frame, Measure, Shape, ShapePrior, draw};
use crate::lanes::Lanes;
use crate::load::{Carriage, LoadPlan};
use crate::quantity::{Quantity, Values};
use crate::stability::figures::{KNOTS, Seated, Standing};
use crate::stability::{Arm, Curve, Flooding, HEELS_DEG, righting};
use thiserror::Error;

/// Why a hull cannot be floated at all.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
pub enum CannotFloat {
    /// A dimension without which there is no body.
    #[error("the {0} is not known")]
    NotKnown(&'static str),
}

/// Share of the water's gunwale freeboard asked of a board. The full figure is
/// about water that comes over the edge and stays; a board has nothing to fill,
/// and the full figure would rule every board off every lake. Guide value.
const BOARD_FREEBOARD_SHARE: f64 = 0.5;

/// Which line along the hull must stay above the water.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum WaterLimit {
    /// The cockpit floor: open scuppers.
    Floor,
    /// The gunwale: plugged, sit-inside, board.
    Gunwale,
}

/// A hull under a brief, ready to be evaluated for any shape.
#[derive(Debug, Clone)]
pub struct Setup<'a> {
    /// The record.
    pub survey: &'a Survey,
    /// The question.
    pub brief: &'a Brief,
    /// What all shapes share.
    pub frame: Frame,
    /// Guesses about the rest.
    pub prior: ShapePrior,
    /// Where the masses lie.
    pub loads: LoadPlan,
    /// How water gets in.
    pub flooding: Flooding,
    /// Which limit the water sets.
    pub limit: WaterLimit,
}

impl<'a> Setup<'a> {
    /// Prepares `survey` for `brief`.
    ///
    /// # Errors
    /// [`CannotFloat`] when length or beam is not known.
    pub fn new(survey: &'a Survey, brief: &'a Brief) -> Result<Self, CannotFloat> {
        let need = |m: Measure| survey.value(m).ok_or(CannotFloat::NotKnown(m.label()));
        let length = need(Measure::Length)?;
        let beam = need(Measure::Beam)?;
        let bottom = match survey.construction {
            Construction::Board => BottomShape::Board,
            _ => survey.bottom.unwrap_or(BottomShape::ShallowArch),
        };
        let open = match survey.construction {
            Construction::SitOnTop => scupper::floods(&brief.scuppers.fitted()),
            Construction::SitInside | Construction::Board => Flooded::NONE,
        };
        Ok(Self {
            survey,
            brief,
            frame: Frame {
                length,
                beam,
                bottom,
                construction: survey.construction,
            },
            prior: ShapePrior::of(survey, length, beam),
            loads: LoadPlan::lay(survey, brief, length, beam),
            flooding: Flooding {
                open,
                over_the_rim: open != Flooded::ALL,
            },
            limit: if open.cockpit {
                WaterLimit::Floor
            } else {
                WaterLimit::Gunwale
            },
        })
    }

    /// The line the water must stay under, and by how much, m.
    #[must_use]
    pub fn limit_line<'b, const N: usize>(&self, body: &'b Body<N>) -> (&'b [EdgePoint<N>], f64) {
        match self.limit {
            WaterLimit::Floor => (&body.floor, self.least_clearance()),
            WaterLimit::Gunwale => (&body.gunwale, self.least_clearance()),
        }
    }

    /// How far the limiting line must stay above the water, m.
    #[must_use]
    pub fn least_clearance(&self) -> f64 {
        let water = &self.brief.water;
        match (self.limit, self.survey.construction) {
            (WaterLimit::Floor, _) => water.floor_clearance,
            (WaterLimit::Gunwale, Construction::Board) => BOARD_FREEBOARD_SHARE * water.freeboard,
            (WaterLimit::Gunwale, _) => water.freeboard,
        }
    }

    /// The load case that decides capacity and trim.
    #[must_use]
    pub fn carriage(&self) -> Carriage {
        Carriage::of(self.brief.posture)
    }
}

/// A load case with its upright equilibrium.
pub struct Case<const N: usize> {
    /// Whole weight.
    pub weight: Weight<N>,
    /// Upright equilibrium.
    pub upright: Settled<N>,
}

/// `N` shapes of one hull, floated upright in their load cases.
pub struct Afloat<'a, const N: usize> {
    setup: &'a Setup<'a>,
    shapes: &'a [Shape; N],
    /// The bodies.
    pub body: Body<N>,
    hull_mass: Lanes<N>,
    accuracy: Accuracy,
}

impl<'a, const N: usize> Afloat<'a, N> {
    /// Draws the bodies of `shapes`.
    #[must_use]
    pub fn new(setup: &'a Setup<'a>, shapes: &'a [Shape; N], accuracy: Accuracy) -> Self {
        Self {
            setup,
            shapes,
            body: draw(&setup.frame, shapes, 1),
            hull_mass: Lanes::from_fn(|i| shapes[i].hull_mass),
            accuracy,
        }
    }

    /// Floats the bodies upright with the crew carried so.
    #[must_use]
    pub fn case(&self, carriage: Carriage) -> Case<N> {
        self.case_from(carriage, Start::LEVEL)
    }

    /// As [`Afloat::case`], searched from a rest that lies near.
    fn case_from(&self, carriage: Carriage, start: Start<N>) -> Case<N> {
        let floor = self.body.standing_height;
        let mut weight = self.setup.loads.total(carriage, floor, self.hull_mass);
        // The body is the same on both sides: lean towards the heavier one.
        weight.y = weight.y.abs();
        let outline = self.body.outline(self.setup.flooding.open);
        let density = self.setup.brief.water.density;
        let upright = settle(
            &self.body,
            &outline,
            &weight,
            density,
            0.0,
            start,
            self.accuracy,
        );
        Case { weight, upright }
    }

    /// Settles a case at `heel` (rad), nothing running in over the rim.
    #[must_use]
    pub fn settle(&self, case: &Case<N>, heel: f64) -> Settled<N> {
        let outline = self.body.outline(self.setup.flooding.open);
        let density = self.setup.brief.water.density;
        let start = case.upright.as_start();
        settle(
            &self.body,
            &outline,
            &case.weight,
            density,
            heel,
            start,
            self.accuracy,
        )
    }

    /// Righting arms of a case at `heels` (rad).
    #[must_use]
    pub fn arms(&self, case: &Case<N>, heels: &[f64]) -> Vec<Arm<N>> {
        righting(
            &self.body,
            &case.weight,
            self.setup.brief.water.density,
            self.setup.flooding,
            &case.upright,
            heels,
            self.accuracy,
        )
    }

    /// Metacentric height KB + BM - KG, m.
    #[must_use]
    pub fn gm(&self, case: &Case<N>) -> Lanes<N> {
        let im = &case.upright.immersion;
        let volume = im.volume.max(Lanes::splat(1e-9));
        im.zeta_moment / volume + im.metacentric_radius() - case.weight.z
    }

    /// Further load until the water's limit, kg, with `clear` metres instead
    /// of the water type's own where given.
    #[must_use]
    pub fn further(&self, case: &Case<N>, clear: Option<f64>) -> Option<Lanes<N>> {
        let (line, own) = self.setup.limit_line(&self.body);
        further_load(
            &self.body,
            &self.body.outline(self.setup.flooding.open),
            line,
            clear.unwrap_or(own),
            &case.weight,
            &self
                .setup
                .loads
                .load(self.setup.carriage(), self.body.standing_height),
            self.setup.brief.water.density,
        )
    }

    /// All figures of every shape.
    #[must_use]
    pub fn figures(&self) -> [Values; N] {
        let mut out: [Values; N] = std::array::from_fn(|_| Values::default());
        let seated = self.case(Carriage::Seated);
        let feet = self.case_from(Carriage::AtTheFeet, seated.upright.as_start());
        // A stiff standing body floats where its feet put it: same mass, same
        // place along the hull.
        let working = match self.setup.carriage() {
            Carriage::Seated => &seated,
            Carriage::Standing | Carriage::AtTheFeet => &feet,
        };
        self.capacity(working, &mut out);
        self.floating(working, &mut out);
        self.seated(&seated, &mut out);
        self.standing(&feet, &mut out);
        out
    }

    fn capacity(&self, case: &Case<N>, out: &mut [Values; N]) {
        use Quantity as Q;
        let counted = self.setup.loads.counted_mass();
        let rated = self.setup.survey.value(Measure::RatedCapacity);
        let share = self.setup.brief.water.working_share;
        let label = rated.map(|r| r - counted);
        let working = rated.map(|r| share * r - counted);
        let further = self.further(case, None);
        for (i, values) in out.iter_mut().enumerate() {
            let water = further.map(|f| f.0[i]);
            values.set(Q::Counted, counted);
            values.set_some(Q::LabelMargin, label);
            values.set_some(Q::WorkingMargin, working);
            values.set_some(Q::WaterlineMargin, water);
            let binding = [label, working, water].into_iter().flatten();
            values.set_some(Q::BindingMargin, binding.reduce(f64::min));
        }
    }

    fn floating(&self, case: &Case<N>, out: &mut [Values; N]) {
        use Quantity as Q;
        let at = &case.upright.attitude;
        let middle = self.body.middle();
        let floor = clearance(&self.body.floor, middle, at);
        let gunwale = clearance(&self.body.gunwale, middle, at);
        let drive = self.setup.survey.value(Measure::DriveDepth);
        let swamped = self.swamped_freeboard(case);
        let top = self.setup.loads.highest(self.setup.carriage());
        for (i, values) in out.iter_mut().enumerate() {
            values.set_some(Q::SwampedFreeboard, swamped.map(|s| s.0[i]));
            let height = self.body.standing_height.0[i] + top - at.draft.0[i];
            values.set(Q::AirDraft, height);
            values.set(Q::Draft, at.draft.0[i]);
            values.set_some(Q::DraftWithDrive, drive.map(|d| d + at.draft.0[i]));
            values.set(Q::Trim, at.slope.0[i].atan().to_degrees());
            values.set(Q::FloorAboveWater, floor.0[i]);
            values.set(Q::Freeboard, gunwale.0[i]);
        }
    }

    /// Least height of the rim over the water once every recess stands full;
    /// `None` where there is nothing that fills.
    fn swamped_freeboard(&self, case: &Case<N>) -> Option<Lanes<N>> {
        if !self.setup.flooding.over_the_rim || !self.body.has_recess() {
            return None;
        }
        let density = self.setup.brief.water.density;
        let start = case.upright.as_start();
        let full = settle(
            &self.body,
            &self.body.solid,
            &case.weight,
            density,
            0.0,
            start,
            self.accuracy,
        );
        Some(clearance(
            &self.body.rim,
            self.body.middle(),
            &full.attitude,
        ))
    }

    fn seated(&self, case: &Case<N>, out: &mut [Values; N]) {
        let heels = HEELS_DEG.map(f64::to_radians);
        let arms = self.arms(case, &heels);
        let gm = self.gm(case);
        let fills = self.setup.flooding.over_the_rim && self.body.has_recess();
        for (i, values) in out.iter_mut().enumerate() {
            let knots = |f: &dyn Fn(&Arm<N>) -> f64| -> [f64; KNOTS] {
                std::array::from_fn(|k| f(&arms[k]))
            };
            let open_floor = self.setup.limit == WaterLimit::Floor;
            Seated {
                mass: case.weight.mass.0[i],
                crew: self.setup.loads.crew_mass(),
                gm: gm.0[i],
                roll_radius: self.setup.loads.roll_radius(
                    Carriage::Seated,
                    self.body.standing_height.0[i],
                    self.shapes[i].hull_mass,
                ),
                half_beam: 0.5 * self.setup.frame.beam,
                gz: Curve::through(heels, knots(&|a| a.gz.0[i]), gm.0[i]),
                floor: open_floor.then(|| falling(heels, knots(&|a| a.floor.0[i]))),
                gunwale: falling(heels, knots(&|a| a.gunwale.0[i])),
                rim: fills.then(|| falling(heels, knots(&|a| a.rim.0[i]))),
            }
            .write(values);
        }
    }

    fn standing(&self, case: &Case<N>, out: &mut [Values; N]) {
        let heels = [0.0, 5.0, 10.0].map(f64::to_radians);
        let arms = self.arms(case, &heels);
        let gm = self.gm(case);
        for (i, values) in out.iter_mut().enumerate() {
            let edge = std::array::from_fn(|k| match self.setup.limit {
                WaterLimit::Floor => arms[k].floor.0[i],
                WaterLimit::Gunwale => arms[k].gunwale.0[i],
            });
            Standing {
                mass: case.weight.mass.0[i],
                crew: self.setup.loads.crew_mass(),
                centre: self.setup.loads.standing_centre(),
                feet_gm: gm.0[i],
                feet_gz: Curve::through(heels, std::array::from_fn(|k| arms[k].gz.0[i]), gm.0[i]),
                edge: falling(heels, edge),
            }
            .write(values);
        }
    }
}

/// A clearance over heel: its first slope is that of its first knots.
fn falling<const K: usize>(heels: [f64; K], value: [f64; K]) -> Curve<K> {
    let slope = (value[1] - value[0]) / (heels[1] - heels[0]);
    Curve::through(heels, value, slope)
}
