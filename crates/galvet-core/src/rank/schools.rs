//! The schools: ways to judge capacity and stability that people hold to.

use super::score::Scales;
use crate::brief::Posture;
use crate::hull::survey::{Measure, Survey, keyed};
use crate::quantity::Quantity;

/// What capacity is judged by.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Default)]
pub enum CapacitySchool {
    /// The tightest of the three limits.
    #[default]
    Tightest,
    /// The maker's rated capacity.
    Label,
    /// The share of it the water allows.
    WorkingShare,
    /// The water at floor or gunwale.
    Waterline,
}

keyed!(CapacitySchool {
    Tightest => "tightest", "the tightest limit";
    Label => "label", "the label";
    WorkingShare => "working-share", "the working share";
    Waterline => "waterline", "the waterline";
});

impl CapacitySchool {
    /// The margin this school goes by.
    #[must_use]
    pub const fn margin(self) -> Quantity {
        match self {
            Self::Tightest => Quantity::BindingMargin,
            Self::Label => Quantity::LabelMargin,
            Self::WorkingShare => Quantity::WorkingMargin,
            Self::Waterline => Quantity::WaterlineMargin,
        }
    }
}

/// What stability is judged by.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Default)]
pub enum StabilitySchool {
    /// Standing support for who stands, lean room and reserve for who sits.
    #[default]
    ByPosture,
    /// Length, beam and weight.
    TapeMeasure,
    /// Initial stiffness.
    SeatedFeel,
    /// Standing support.
    StandingSupport,
    /// Reserve up to the gunwale.
    RoughWater,
}

keyed!(StabilitySchool {
    ByPosture => "by-posture", "what the posture asks";
    TapeMeasure => "tape-measure", "the tape measure";
    SeatedFeel => "seated-feel", "how it feels seated";
    StandingSupport => "standing-support", "standing support";
    RoughWater => "rough-water", "reserve in rough water";
});

/// Ranges of the tape-measure school, m, m, kg: the demo fleet's. Guide values.
const TAPE_LENGTH: (f64, f64) = (2.7, 4.6);
const TAPE_BEAM: (f64, f64) = (0.65, 0.95);
const TAPE_WEIGHT: (f64, f64) = (20.0, 65.0);

/// Points of the tape-measure school, 0-100: "longer, wider, heavier is
/// steadier".
///
/// `100 · (½ beam + ¼ length + ¼ weight)`, each as its share of the usual range.
/// It ignores the section at the waterline (beam there counts to the third
/// power), the height of seat and load, flooding, and the angler; a measure not
/// known earns nothing.
#[must_use]
pub fn tape_measure(survey: &Survey) -> f64 {
    let share = |m: Measure, (lo, hi): (f64, f64)| {
        survey
            .value(m)
            .map_or(0.0, |v| ((v - lo) / (hi - lo)).clamp(0.0, 1.0))
    };
    let weight =
        share(Measure::FittedWeight, TAPE_WEIGHT).max(share(Measure::BareWeight, TAPE_WEIGHT));
    100.0
        * (0.5 * share(Measure::Beam, TAPE_BEAM)
            + 0.25 * share(Measure::Length, TAPE_LENGTH)
            + 0.25 * weight)
}

impl StabilitySchool {
    /// Points of figures under this school. `reserve_share` is the water's.
    #[must_use]
    pub fn points(
        self,
        values: &impl Fn(Quantity) -> Option<f64>,
        survey: &Survey,
        posture: Posture,
        reserve_share: f64,
        scales: &Scales,
    ) -> f64 {
        let known = |q: Quantity| values(q).unwrap_or(0.0);
        let standing = || scales.support.points(known(Quantity::StandingSupport));
        let reserve = || scales.reserve.points(known(Quantity::Reserve));
        let seated = || {
            let lean = scales.lean.points(known(Quantity::LeanRoom));
            (1.0 - reserve_share) * lean + reserve_share * reserve()
        };
        match self {
            Self::TapeMeasure => tape_measure(survey),
            Self::SeatedFeel => scales.stiffness.points(known(Quantity::Stiffness)),
            Self::StandingSupport => standing(),
            Self::RoughWater => reserve(),
            Self::ByPosture => match posture {
                Posture::Stands => standing(),
                Posture::Sits => seated(),
                Posture::SitsAndStands => standing().min(seated()),
            },
        }
    }

    /// The figure that speaks for the school in a sentence.
    #[must_use]
    pub const fn headline(self, posture: Posture) -> Quantity {
        match (self, posture) {
            (Self::ByPosture, Posture::Stands | Posture::SitsAndStands)
            | (Self::StandingSupport, _) => Quantity::StandingSupport,
            (Self::ByPosture, Posture::Sits) => Quantity::LeanRoom,
            (Self::SeatedFeel | Self::TapeMeasure, _) => Quantity::Stiffness,
            (Self::RoughWater, _) => Quantity::Reserve,
        }
    }
}
