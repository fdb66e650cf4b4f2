//! What somebody could put a tape or a scale to, and what it would fix.

use super::posterior::Posterior;
use super::prior::coordinate;
use crate::base::words;
use crate::hull::{Construction, FloatReading, Measure};

words! {
/// Something that can be measured.
pub enum Target {
    /// Depth amidships.
    #[strum(serialize = "depth", message = "the depth amidships, bottom to gunwale")]
    Depth,
    /// Floor height.
    #[strum(serialize = "floor-height", message = "the floor height above the bottom")]
    Floor,
    /// Floor width.
    #[strum(serialize = "floor-width", message = "the width of the cockpit floor between the sides")]
    FloorWidth,
    /// Width of the stern's end.
    #[strum(serialize = "transom-width", message = "the width of the stern's end")]
    Transom,
    /// Weight as fitted.
    #[strum(serialize = "fitted-weight", message = "the weight as launched, on a scale")]
    Weight,
    /// Beam at the water with a known load.
    #[strum(serialize = "waterline-beam", message = "the beam at the water with a known load aboard")]
    WaterlineBeam,
}
}

impl Target {
    /// Which coordinate of the sample it fixes.
    #[must_use]
    pub const fn coordinate(self) -> usize {
        match self {
            Self::Transom => coordinate::STERN_END,
            Self::Depth => coordinate::DEPTH,
            Self::Floor => coordinate::FLOOR,
            Self::FloorWidth => coordinate::RECESS_BREADTH,
            Self::WaterlineBeam => coordinate::FULLNESS,
            Self::Weight => coordinate::HULL_MASS,
        }
    }

    /// Whether this hull's survey has measured it already, or has no use for it.
    #[must_use]
    pub fn is_known(self, posterior: &Posterior) -> bool {
        let survey = &*posterior.survey;
        let measured = |m: Measure| survey.best(m).is_some_and(|r| r.source.is_measured());
        let board = survey.construction == Construction::Board;
        let shape = posterior.form.is_measured();
        match self {
            Self::Depth => shape || measured(Measure::Depth),
            Self::Floor => shape || measured(Measure::FloorHeight) || board,
            Self::FloorWidth => shape || measured(Measure::FloorWidth) || board,
            Self::Transom => shape || measured(Measure::TransomWidth),
            Self::Weight => measured(Measure::FittedWeight),
            Self::WaterlineBeam => {
                shape
                    || survey
                        .evidence
                        .iter()
                        .any(|e| matches!(e.reading, FloatReading::Waterline { .. }))
            }
        }
    }
}
