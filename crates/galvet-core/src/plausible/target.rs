//! What somebody could put a tape or a scale to, and what it would fix.

use super::fitted::seat_is_known;
use super::posterior::Posterior;
use super::prior::coordinate;
use crate::base::words;
use crate::crew::SeatHeight;
use crate::hull::{Construction, FloatReading, Measure};

words! {
/// Something that can be measured, or looked at.
pub enum Target {
    /// The bottom's shape.
    #[strum(serialize = "bottom", message = "the shape of the bottom")]
    Bottom,
    /// The seat's surface over the floor.
    #[strum(serialize = "seat-height", message = "the height of the seat over the floor")]
    Seat,
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
    /// Greatest beam.
    #[strum(serialize = "beam", message = "the greatest beam, with a tape")]
    Beam,
    /// Weight as fitted.
    #[strum(serialize = "fitted-weight", message = "the weight as launched, on a scale")]
    Weight,
    /// Beam at the water with a known load.
    #[strum(serialize = "waterline-beam", message = "the beam at the water with a known load aboard")]
    WaterlineBeam,
}
}

impl Target {
    /// Which coordinate of the sample it fixes, for who sits in `seat`.
    #[must_use]
    pub const fn coordinate(self, seat: SeatHeight) -> usize {
        match self {
            Self::Transom => coordinate::STERN_END,
            Self::Depth => coordinate::DEPTH,
            Self::Floor => coordinate::FLOOR,
            Self::FloorWidth => coordinate::RECESS_BREADTH,
            Self::WaterlineBeam => coordinate::FLARE,
            Self::Weight => coordinate::HULL_MASS,
            Self::Bottom => coordinate::BOTTOM,
            Self::Seat => match seat {
                SeatHeight::Low => coordinate::SEAT,
                SeatHeight::High => coordinate::HIGH_SEAT,
            },
            Self::Beam => coordinate::BEAM,
        }
    }

    /// How much trouble it is beside putting a tape to something ashore: a look at the
    /// bottom is little, a load aboard in the water much. Guide values.
    #[must_use]
    pub const fn trouble(self) -> f64 {
        match self {
            Self::Bottom => 0.2,
            Self::Seat | Self::Beam => 0.8,
            Self::Depth | Self::Floor | Self::FloorWidth | Self::Transom | Self::Weight => 1.0,
            Self::WaterlineBeam => 2.0,
        }
    }

    /// What somebody is asked to do: one plain instruction.
    #[must_use]
    pub const fn instruction(self) -> &'static str {
        match self {
            Self::Bottom => "look at the bottom",
            Self::Seat => "measure the height of the seat over the floor",
            Self::Beam => "measure the greatest beam with a tape",
            Self::Depth => "measure the depth amidships, bottom to gunwale",
            Self::Floor => "measure the floor height above the bottom",
            Self::FloorWidth => "measure the width of the cockpit floor",
            Self::Transom => "measure the width of the stern's end",
            Self::Weight => "weigh it as launched, on a scale",
            Self::WaterlineBeam => "measure the beam at the water under a known load",
        }
    }

    /// Whether this hull's survey has measured it already, for who sits in `seat`, or has
    /// no use for it.
    #[must_use]
    pub fn is_known(self, posterior: &Posterior, seat: SeatHeight) -> bool {
        let survey = &*posterior.survey;
        let measured = |m: Measure| survey.best(m).is_some_and(|r| r.source.is_measured());
        let board = survey.construction == Construction::Board;
        let shape = posterior.form.is_measured();
        match self {
            Self::Bottom => shape || board || survey.bottom.is_some(),
            Self::Seat => seat_is_known(survey, posterior.form.beam(), &posterior.guides, seat),
            Self::Beam => shape || measured(Measure::Beam),
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
