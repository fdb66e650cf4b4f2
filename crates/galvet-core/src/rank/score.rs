//! Points on the two axes, under the schools.

use crate::base::words;
use crate::crew::Posture;
use crate::figures::{Assessment, Deciding, Quantity, Range};
use crate::guide::{Guide, Guides};
use crate::hull::{Measure, Survey};
use crate::question::{Brief, CapacitySchool, StabilitySchool, StandingUse};
use crate::stow::Deck;

/// A straight scale from no points to a hundred, held at both ends.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Scale {
    /// Value that earns nothing (SI).
    pub nothing: f64,
    /// Value that earns a hundred (SI).
    pub hundred: f64,
}

impl Scale {
    /// Points, 0-100.
    #[must_use]
    pub fn points(&self, value: f64) -> f64 {
        (100.0 * (value - self.nothing) / (self.hundred - self.nothing)).clamp(0.0, 100.0)
    }
}

/// The published scales, from the guide values.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Scales {
    /// Margin as a share of the counted load.
    pub margin: Scale,
    /// Standing support κ.
    pub support: Scale,
    /// Lean room in a brief lean, m.
    pub lean: Scale,
    /// Reserve, J.
    pub reserve: Scale,
    /// Initial stiffness, N·m/°.
    pub stiffness: Scale,
    /// Clear standing floor, m².
    pub floor: Scale,
    /// Tank well left, m².
    pub well: Scale,
}

impl Scales {
    /// The scales of a set of guide values.
    #[must_use]
    pub fn of(guides: &Guides) -> Self {
        let scale = |nothing: f64, hundred: Guide| Scale {
            nothing,
            hundred: guides[hundred],
        };
        Self {
            margin: scale(0.0, Guide::MarginFull),
            support: scale(guides[Guide::SupportNothing], Guide::SupportFull),
            lean: scale(guides[Guide::LeanNothing], Guide::LeanFull),
            reserve: scale(0.0, Guide::ReserveFull),
            stiffness: scale(guides[Guide::StiffnessNothing], Guide::StiffnessFull),
            floor: scale(0.0, Guide::FloorFull),
            well: scale(0.0, Guide::WellFull),
        }
    }
}

/// Points of one hull, or of one of its shapes.
#[derive(Debug, Clone, PartialEq)]
pub struct Score {
    /// Points for the margin in hand.
    pub capacity: f64,
    /// Points for stability in the brief's posture.
    pub stability: f64,
    /// Points for the deck left clear, which count where the brief says so.
    pub deck: f64,
    /// Points taken off for what the water asks and the hull does not do.
    pub demands: f64,
    /// Weighted sum less [`Score::demands`], which ranks.
    pub total: f64,
    /// What was needed for the points and is not known: it earned none.
    pub missing: Vec<Missing>,
}

/// Something the points would have needed.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Missing {
    /// A figure.
    Figure(Quantity),
    /// A measure of the record.
    Measure(Measure),
}

impl Missing {
    /// Its name in sentences.
    #[must_use]
    pub const fn label(self) -> &'static str {
        match self {
            Self::Figure(q) => q.row().label,
            Self::Measure(m) => m.row().label,
        }
    }
}

words! {
/// Axis of the points.
pub enum Axis {
    /// What it carries.
    Capacity,
    /// How steady it is.
    Stability,
}
}

/// A figure as the points need it: its value, and the share of plausible shapes
/// for which it counts.
type Figure = Option<(f64, f64)>;

/// Who is scored under which question.
struct Judge<'a, F: Fn(Deciding) -> Figure> {
    figure: F,
    survey: &'a Survey,
    brief: &'a Brief,
    scales: &'a Scales,
    /// What the layout leaves of the deck.
    left: Option<&'a Deck>,
    /// Whether landing a fish fails in so many shapes that it costs the seated points.
    out_of_reach: bool,
    /// What is asked and not met costs.
    unmet: f64,
    missing: Vec<Missing>,
}

impl<F: Fn(Deciding) -> Figure> Judge<'_, F> {
    /// Points of a figure; a figure that holds in part of the shapes counts by
    /// its share, one not known earns nothing and is noted.
    fn points(&mut self, which: Deciding, scale: Scale) -> f64 {
        match (self.figure)(which) {
            Some((value, share)) => share * scale.points(value),
            None => {
                self.missing.push(Missing::Figure(which.quantity()));
                0.0
            }
        }
    }

    fn capacity(&mut self) -> f64 {
        let load = (self.figure)(Deciding::Counted).map_or(1.0, |f| f.0.max(1.0));
        let Scale { nothing, hundred } = self.scales.margin;
        let scale = Scale {
            nothing: nothing * load,
            hundred: hundred * load,
        };
        self.points(deciding(self.brief.capacity_school), scale)
    }

    fn stability(&mut self) -> f64 {
        let scales = *self.scales;
        let share = self.brief.water.reserve_share;
        let seated = |judge: &mut Self| {
            let lean = judge.points(Deciding::LeanRoom, scales.lean);
            let reserve = judge.points(Deciding::Reserve, scales.reserve);
            let reach = if judge.out_of_reach { 0.0 } else { 1.0 };
            reach * ((1.0 - share) * lean + share * reserve)
        };
        // Where nobody stands up on this water, who does is held against its roughness.
        let nobody_stands = self.brief.water.standing == StandingUse::No;
        let standing = |judge: &mut Self| judge.points(Deciding::StandingSupport, scales.support);
        match self.brief.stability_school {
            StabilitySchool::TapeMeasure => self.tape_measure(),
            StabilitySchool::SeatedFeel => self.points(Deciding::Stiffness, scales.stiffness),
            StabilitySchool::StandingSupport => standing(self),
            StabilitySchool::RoughWater => self.points(Deciding::Reserve, scales.reserve),
            StabilitySchool::ByPosture => match self.brief.posture {
                Posture::Stands if nobody_stands => standing(self).min(seated(self)),
                Posture::Stands => standing(self),
                Posture::Sits => seated(self),
                Posture::SitsAndStands => standing(self).min(seated(self)),
            },
        }
    }

    fn tape_measure(&mut self) -> f64 {
        let (points, missing) = tape_measure(self.survey);
        self.missing
            .extend(missing.into_iter().map(Missing::Measure));
        // A rule of thumb knows nothing of capsizing; the ranking does.
        let stays = (self.figure)(Deciding::LeanRoom).map_or(0.0, |f| f.1);
        stays * points
    }

    /// Half for the floor left to stand on, half for the well left behind the seat.
    fn deck(&self) -> f64 {
        let floor = self.left.and_then(|d| d.standing_floor).unwrap_or(0.0);
        let well = self.left.map_or(0.0, |d| d.well_free);
        0.5 * self.scales.floor.points(floor) + 0.5 * self.scales.well.points(well)
    }

    fn score(mut self) -> Score {
        let (capacity, stability) = (self.capacity(), self.stability());
        let deck = self.deck();
        let (weight, share) = (self.brief.capacity_weight, self.brief.deck.share());
        let two = weight * capacity + (1.0 - weight) * stability;
        Score {
            capacity,
            stability,
            deck,
            demands: self.unmet,
            total: (1.0 - share) * two + share * deck - self.unmet,
            missing: self.missing,
        }
    }
}

const fn deciding(school: CapacitySchool) -> Deciding {
    match school {
        CapacitySchool::Tightest => Deciding::BindingMargin,
        CapacitySchool::Label => Deciding::LabelMargin,
        CapacitySchool::WorkingShare => Deciding::WorkingMargin,
        CapacitySchool::Waterline => Deciding::WaterlineMargin,
    }
}

/// The margin a school goes by.
#[must_use]
pub const fn margin(school: CapacitySchool) -> Quantity {
    deciding(school).quantity()
}

/// The figure that speaks for a school in a sentence.
#[must_use]
pub const fn headline(school: StabilitySchool, posture: Posture) -> Quantity {
    match (school, posture) {
        (StabilitySchool::ByPosture, Posture::Stands | Posture::SitsAndStands)
        | (StabilitySchool::StandingSupport, _) => Quantity::StandingSupport,
        (StabilitySchool::ByPosture, Posture::Sits) => Quantity::LeanRoom,
        (StabilitySchool::SeatedFeel | StabilitySchool::TapeMeasure, _) => Quantity::Stiffness,
        (StabilitySchool::RoughWater, _) => Quantity::Reserve,
    }
}

/// Ranges of the tape-measure school, m, m, kg: the demo fleet's. Guide values.
const TAPE_LENGTH: (f64, f64) = (2.7, 4.6);
const TAPE_BEAM: (f64, f64) = (0.65, 0.95);
const TAPE_WEIGHT: (f64, f64) = (20.0, 65.0);

/// Points of the tape-measure school, 0-100: "longer, wider, heavier is
/// steadier", and the measures it misses.
///
/// `100 · (½ beam + ¼ length + ¼ weight)`, each as its share of the usual range.
/// It ignores the section at the waterline (beam there counts to the third
/// power), the height of seat and load, flooding, and the angler.
#[must_use]
pub fn tape_measure(survey: &Survey) -> (f64, Vec<Measure>) {
    let mut missing = Vec::new();
    let mut share = |measures: &[Measure], (lo, hi): (f64, f64)| {
        let known = measures.iter().filter_map(|&m| survey.value(m));
        match known.reduce(f64::max) {
            Some(v) => ((v - lo) / (hi - lo)).clamp(0.0, 1.0),
            None => {
                missing.extend(measures.first());
                0.0
            }
        }
    };
    let beam = share(&[Measure::Beam], TAPE_BEAM);
    let length = share(&[Measure::Length], TAPE_LENGTH);
    let weight = share(&[Measure::FittedWeight, Measure::BareWeight], TAPE_WEIGHT);
    (
        100.0 * (0.5 * beam + 0.25 * length + 0.25 * weight),
        missing,
    )
}

/// Points of a hull at its medians.
#[must_use]
pub fn score(assessment: &Assessment, brief: &Brief, scales: &Scales) -> Score {
    let up = assessment.share(crate::float::Fate::is_rest);
    let figure = |which: Deciding| {
        assessment
            .range(which.quantity())
            .map(|Range { p50, share, .. }| (p50, share.min(up)))
    };
    let unmet = super::demands::cost(assessment, brief);
    judge(figure, assessment, brief, scales, unmet)
}

/// Points of one shape of an assessment's sample: none where it does not rest. `unmet`
/// is what the hull's unmet demands cost: [`Score::demands`].
#[must_use]
pub fn score_shape(
    assessment: &Assessment,
    shape: usize,
    brief: &Brief,
    scales: &Scales,
    unmet: f64,
) -> Score {
    let up = if assessment.fates[shape].is_rest() {
        1.0
    } else {
        0.0
    };
    let figure = |which| assessment.sample[shape].get(which).map(|v| (v, up));
    judge(figure, assessment, brief, scales, unmet)
}

fn judge(
    figure: impl Fn(Deciding) -> Figure,
    assessment: &Assessment,
    brief: &Brief,
    scales: &Scales,
    unmet: f64,
) -> Score {
    Judge {
        figure,
        survey: &assessment.setup.posterior.survey,
        brief,
        scales,
        left: assessment.setup.loads.layout.deck.as_ref(),
        out_of_reach: assessment.reach_lost() >= assessment.setup.guides()[Guide::ReachCosts],
        unmet,
        missing: Vec::new(),
    }
    .score()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn scales_are_straight_and_held_at_the_ends() {
        let scales = Scales::of(&Guides::default());
        let support = scales.support;
        assert_eq!(support.points(0.6), 0.0);
        assert!((support.points(0.95) - 50.0).abs() < 1e-9);
        assert_eq!(support.points(2.0), 100.0);
        assert_eq!(support.points(-1.0), 0.0);
        // Lean room in a brief lean: 2 cm earns nothing, 16 cm a hundred.
        assert_eq!(scales.lean.points(0.02), 0.0);
        assert!((scales.lean.points(0.09) - 50.0).abs() < 1e-9);
        assert_eq!(scales.lean.points(0.16), 100.0);
        assert!((scales.margin.points(0.25) - 50.0).abs() < 1e-9);
    }
}
