//! What is known of a hull, figure by figure, each with its source.

use super::section::BottomShape;
use crate::evidence::Evidence;
use crate::units::{Bounds, Dimension, OutOfRange};
use std::collections::BTreeMap;

/// How the deck is made, which decides what can flood.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Construction {
    /// A scuppered recess: water that comes in runs out.
    SitOnTop,
    /// An open cockpit without scuppers.
    SitInside,
    /// No recess: a shallow body one sits and stands on.
    Board,
}

/// What drives the hull.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Propulsion {
    /// Paddle only.
    Paddle,
    /// A pedal drive with a propeller.
    RotaryPedal,
    /// A pedal drive with fins.
    FinPedal,
    /// An electric motor.
    Motor,
}

macro_rules! keyed {
    ($type:ty { $($variant:ident => $key:literal, $label:literal;)* }) => {
        impl $type {
            /// All values, in the order they are offered.
            pub const ALL: &'static [Self] = &[$(Self::$variant),*];

            /// The word used in files and addresses.
            #[must_use]
            pub const fn key(self) -> &'static str {
                match self { $(Self::$variant => $key),* }
            }

            /// Plain words for it.
            #[must_use]
            pub const fn label(self) -> &'static str {
                match self { $(Self::$variant => $label),* }
            }

            /// The value a file's or address's word names.
            #[must_use]
            pub fn from_key(key: &str) -> Option<Self> {
                Self::ALL.iter().copied().find(|v| v.key() == key)
            }
        }
    };
}
pub(crate) use keyed;

keyed!(Construction {
    SitOnTop => "sit-on-top", "sit-on-top";
    SitInside => "sit-inside", "sit-inside";
    Board => "board", "board";
});

keyed!(Propulsion {
    Paddle => "paddle", "paddle";
    RotaryPedal => "rotary-pedal", "rotary pedal";
    FinPedal => "fin-pedal", "fin pedal";
    Motor => "motor", "motor";
});

impl Propulsion {
    /// Whether there is a drive that hangs below the hull.
    #[must_use]
    pub const fn has_drive(self) -> bool {
        !matches!(self, Self::Paddle)
    }
}

/// Where a figure comes from, weakest first.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub enum Source {
    /// The maker's brochure or web page.
    Brochure,
    /// The plate on the hull.
    Label,
    /// A tape over the hull ashore.
    Tape,
    /// A scale.
    Scale,
    /// Read on the water.
    Afloat,
}

keyed!(Source {
    Brochure => "brochure", "brochure";
    Label => "label", "label on the hull";
    Tape => "tape", "tape";
    Scale => "scale", "scale";
    Afloat => "afloat", "read afloat";
});

impl Source {
    /// Whether somebody measured it rather than printed it.
    #[must_use]
    pub fn is_measured(self) -> bool {
        self >= Self::Tape
    }
}

/// The figures of a hull record.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub enum Measure {
    /// Length over all.
    Length,
    /// Greatest beam.
    Beam,
    /// Depth at mid-length, bottom to gunwale.
    Depth,
    /// Cockpit floor above the bottom.
    FloorHeight,
    /// Breadth of the stern's end.
    TransomWidth,
    /// Hull alone.
    BareWeight,
    /// Hull with seat, drive, rudder as sold.
    FittedWeight,
    /// The maker's rated capacity.
    RatedCapacity,
    /// Lowest seat surface above the floor.
    SeatLow,
    /// Highest seat surface above the floor.
    SeatHigh,
    /// Seat's place along the hull from the bow, as a share of the length.
    SeatPlace,
    /// Depth below the bottom that the drive reaches when down.
    DriveDepth,
    /// Price asked.
    Price,
}

keyed!(Measure {
    Length => "length", "length";
    Beam => "beam", "beam";
    Depth => "depth", "depth";
    FloorHeight => "floor_height", "floor height";
    TransomWidth => "transom_width", "transom width";
    BareWeight => "bare_weight", "bare weight";
    FittedWeight => "fitted_weight", "fitted weight";
    RatedCapacity => "rated_capacity", "rated capacity";
    SeatLow => "seat_low", "seat, low";
    SeatHigh => "seat_high", "seat, high";
    SeatPlace => "seat_place", "seat place";
    DriveDepth => "drive_depth", "drive below the bottom";
    Price => "price", "price";
});

impl Measure {
    /// Accepted range, SI.
    #[must_use]
    pub const fn bounds(self) -> Bounds {
        let (d, lo, hi) = match self {
            Self::Length => (Dimension::Length, 1.8, 7.0),
            Self::Beam => (Dimension::ShortLength, 0.4, 1.5),
            Self::Depth => (Dimension::ShortLength, 0.08, 0.8),
            Self::FloorHeight => (Dimension::ShortLength, 0.02, 0.5),
            Self::TransomWidth => (Dimension::ShortLength, 0.0, 1.2),
            Self::BareWeight | Self::FittedWeight => (Dimension::Mass, 6.0, 150.0),
            Self::RatedCapacity => (Dimension::Mass, 50.0, 500.0),
            Self::SeatLow | Self::SeatHigh => (Dimension::ShortLength, 0.0, 0.7),
            Self::SeatPlace => (Dimension::Ratio, 0.3, 0.75),
            Self::DriveDepth => (Dimension::ShortLength, 0.0, 1.0),
            Self::Price => (Dimension::Money, 0.0, 50_000.0),
        };
        Bounds::new(self.label(), d, lo, hi)
    }

    /// Two readings of it closer than this are the same reading, SI.
    #[must_use]
    pub fn tolerance(self, value: f64) -> f64 {
        match self.bounds().dimension {
            Dimension::Length => 0.025,
            Dimension::ShortLength | Dimension::FineLength => 0.015,
            Dimension::Mass => 0.04 * value,
            Dimension::Ratio => 0.02,
            _ => 0.02 * value,
        }
    }
}

/// One reading of one figure.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Reading {
    /// Value, SI, within [`Measure::bounds`].
    pub value: f64,
    /// Where it comes from.
    pub source: Source,
}

impl Reading {
    /// A checked reading of `measure`.
    ///
    /// # Errors
    /// [`OutOfRange`] when the value cannot be one.
    pub fn new(measure: Measure, value: f64, source: Source) -> Result<Self, OutOfRange> {
        Ok(Self {
            value: measure.bounds().check(value)?,
            source,
        })
    }
}

/// What the maker's rated capacity counts as load.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum CapacityBasis {
    /// Crew and what they bring; seat and drive come free.
    GearAndCrew,
    /// Everything beyond the bare hull, seat and drive too.
    EverythingAboveBareHull,
    /// The maker does not say; taken as everything above the bare hull, marked.
    Unknown,
}

keyed!(CapacityBasis {
    GearAndCrew => "gear-and-crew", "crew and gear";
    EverythingAboveBareHull => "everything-above-bare-hull", "everything above the bare hull";
    Unknown => "unknown", "not stated";
});

/// Something about a record that a reader must know before trusting it.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Finding {
    /// Whether figures disagree (true) or one is missing (false).
    pub contradiction: bool,
    /// Plain words.
    pub text: String,
}

/// A hull record. Fields that are free text are kept as written.
#[derive(Debug, Clone, PartialEq)]
pub struct Survey {
    /// Stable key used in files and addresses.
    pub key: String,
    /// Maker.
    pub maker: String,
    /// Model.
    pub model: String,
    /// Model year, when known.
    pub year: Option<u16>,
    /// How the deck is made.
    pub construction: Construction,
    /// Bottom as named in the survey; `None` when nobody looked.
    pub bottom: Option<BottomShape>,
    /// What drives it as sold.
    pub propulsion: Propulsion,
    /// Whether the drive lifts clear without leaving the seat.
    pub drive_lifts: bool,
    /// Rudder or skeg fitted.
    pub tracks_straight: bool,
    /// Seats.
    pub seats: u8,
    /// What "fitted" includes, as written.
    pub fitted_includes: String,
    /// What the rated capacity counts.
    pub capacity_basis: CapacityBasis,
    /// Colour, outfitting, anything else.
    pub notes: String,
    /// All readings, best not yet chosen.
    pub readings: BTreeMap<Measure, Vec<Reading>>,
    /// What was measured afloat.
    pub evidence: Vec<Evidence>,
}

impl Survey {
    /// Maker and model.
    #[must_use]
    pub fn name(&self) -> String {
        format!("{} {}", self.maker, self.model)
    }

    /// The reading to go by: the strongest source; of equals the last noted.
    #[must_use]
    pub fn best(&self, measure: Measure) -> Option<Reading> {
        self.readings
            .get(&measure)?
            .iter()
            .copied()
            .max_by_key(|r| r.source)
    }

    /// The value of [`Survey::best`], SI.
    #[must_use]
    pub fn value(&self, measure: Measure) -> Option<f64> {
        self.best(measure).map(|r| r.value)
    }

    /// Seat, drive and rudder beyond the bare hull, kg, where both weights are
    /// known and make sense.
    #[must_use]
    pub fn fitted_kit(&self) -> Option<f64> {
        let bare = self.value(Measure::BareWeight)?;
        let fitted = self.value(Measure::FittedWeight)?;
        (fitted >= bare).then_some(fitted - bare)
    }

    /// Gaps and contradictions, worst first.
    #[must_use]
    pub fn findings(&self) -> Vec<Finding> {
        let mut found = self.contradictions();
        found.extend(self.gaps());
        found
    }

    fn contradictions(&self) -> Vec<Finding> {
        let mut found = Vec::new();
        let mut say = |text| {
            found.push(Finding {
                contradiction: true,
                text,
            });
        };
        for (&measure, readings) in &self.readings {
            let Some(best) = self.best(measure) else {
                continue;
            };
            for other in readings {
                let apart = (other.value - best.value).abs();
                if apart > measure.tolerance(best.value) {
                    say(format!(
                        "{} reads {} by {} but {} by {}; the {} is used",
                        measure.label(),
                        plain(measure, best.value),
                        best.source.label(),
                        plain(measure, other.value),
                        other.source.label(),
                        best.source.label(),
                    ));
                }
            }
        }
        let value = |m| self.value(m);
        if let (Some(bare), Some(fitted)) =
            (value(Measure::BareWeight), value(Measure::FittedWeight))
            && bare > fitted
        {
            say(format!(
                "the bare weight ({bare:.0} kg) is above the fitted weight ({fitted:.0} kg): one of them is wrong, and seat and drive cannot be told apart from the hull"
            ));
        }
        if let (Some(floor), Some(depth)) = (value(Measure::FloorHeight), value(Measure::Depth))
            && floor > depth - 0.03
            && self.construction != Construction::Board
        {
            say(format!(
                "the floor ({:.0} mm up) leaves no depth below the gunwale ({:.0} mm)",
                floor * 1e3,
                depth * 1e3
            ));
        }
        if let (Some(low), Some(high)) = (value(Measure::SeatLow), value(Measure::SeatHigh))
            && low > high
        {
            say("the low seat is noted higher than the high one".to_owned());
        }
        found
    }

    fn gaps(&self) -> Vec<Finding> {
        let mut found = Vec::new();
        let mut say = |text: &str| {
            found.push(Finding {
                contradiction: false,
                text: text.to_owned(),
            });
        };
        let missing = |m| self.value(m).is_none();
        if missing(Measure::Length) {
            say("the length is not known: the hull cannot be floated");
        }
        if missing(Measure::Beam) {
            say("the beam is not known: the hull cannot be floated");
        }
        if missing(Measure::RatedCapacity) {
            say("no rated capacity: only the water decides what it carries");
        } else if self.capacity_basis == CapacityBasis::Unknown {
            say(
                "the maker does not say what the rated capacity counts; seat and drive are counted as load",
            );
        }
        match (missing(Measure::FittedWeight), missing(Measure::BareWeight)) {
            (true, true) => say("no weight at all: guessed from the size, with a wide range"),
            (true, false) => say("only a bare weight: seat and drive are guessed on top"),
            _ => {}
        }
        if self.bottom.is_none() {
            say("nobody looked at the bottom: a shallow arch is assumed");
        }
        if missing(Measure::SeatLow) && missing(Measure::SeatHigh) {
            say("no seat height: a low seat is assumed");
        }
        found
    }
}

fn plain(measure: Measure, value: f64) -> String {
    crate::units::System::Metric.text(
        measure.bounds().dimension,
        value,
        match measure.bounds().dimension {
            Dimension::Length => 2,
            Dimension::Ratio => 2,
            Dimension::Mass => 1,
            _ => 0,
        },
    )
}
