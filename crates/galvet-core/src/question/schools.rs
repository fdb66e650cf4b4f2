//! The schools: ways to judge capacity and stability that people hold to.

use crate::base::words;

words! {
/// What capacity is judged by.
#[derive(Default)]
pub enum CapacitySchool {
    /// The tightest of the three limits.
    #[default]
    #[strum(message = "the tightest limit")]
    Tightest,
    /// The maker's rated capacity.
    #[strum(message = "the label")]
    Label,
    /// The share of it the water allows.
    #[strum(message = "the working share")]
    WorkingShare,
    /// The water at floor or gunwale.
    #[strum(message = "the waterline")]
    Waterline,
}

/// What stability is judged by.
#[derive(Default)]
pub enum StabilitySchool {
    /// Standing support for who stands, lean room and reserve for who sits.
    #[default]
    #[strum(message = "what the posture asks")]
    ByPosture,
    /// Length, beam and weight.
    #[strum(message = "the tape measure")]
    TapeMeasure,
    /// Initial stiffness.
    #[strum(message = "how it feels seated")]
    SeatedFeel,
    /// Standing support.
    #[strum(message = "standing support")]
    StandingSupport,
    /// Reserve up to the gunwale.
    #[strum(message = "reserve in rough water")]
    RoughWater,
}

/// How much the deck left clear counts beside capacity and stability.
#[derive(Default)]
pub enum DeckUse {
    /// Not at all: it stands beside.
    #[default]
    #[strum(message = "not counted")]
    Aside,
    /// A fifth of the points.
    #[strum(message = "a fifth of the points")]
    Fifth,
    /// Two fifths of the points.
    #[strum(message = "two fifths of the points")]
    TwoFifths,
}
}

impl DeckUse {
    /// Its share of the points; capacity and stability have the rest between them.
    #[must_use]
    pub const fn share(self) -> f64 {
        match self {
            Self::Aside => 0.0,
            Self::Fifth => 0.2,
            Self::TwoFifths => 0.4,
        }
    }
}
