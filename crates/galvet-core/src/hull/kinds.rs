//! The words a hull is described with.

use crate::base::words;

words! {
/// How the deck is made, which decides what can flood.
pub enum Construction {
    /// A scuppered recess: water that comes in runs out.
    SitOnTop,
    /// An open cockpit without scuppers.
    SitInside,
    /// No recess: a shallow body one sits and stands on.
    Board,
}

/// The bottom as a person names it on looking under the hull.
pub enum BottomShape {
    /// Flat across, hard bilge.
    Flat,
    /// A shallow rounded arch.
    #[strum(message = "shallow arch")]
    ShallowArch,
    /// A shallow vee with soft chines.
    #[strum(message = "shallow vee")]
    ShallowVee,
    /// Two runners with a tunnel between them.
    Tunnel,
    /// A keel and two sponsons.
    #[strum(message = "three lobes")]
    TriLobe,
    /// A board's section: flat, with tumblehome at the deck edge.
    Board,
}

/// What drives the hull.
pub enum Propulsion {
    /// Paddle only.
    Paddle,
    /// A pedal drive with a propeller.
    #[strum(message = "rotary pedal")]
    RotaryPedal,
    /// A pedal drive with fins.
    #[strum(message = "fin pedal")]
    FinPedal,
    /// An electric motor.
    Motor,
}

/// Who made the hull.
#[derive(Default)]
pub enum Origin {
    /// A maker who sells it.
    #[default]
    Maker,
    /// Somebody at home, or changed beyond what the maker sold.
    HomeMade,
}

/// What the maker's rated capacity counts as load.
pub enum CapacityBasis {
    /// Crew and what they bring; seat and drive come free.
    #[strum(message = "crew and gear")]
    GearAndCrew,
    /// Everything beyond the bare hull, seat and drive too.
    #[strum(message = "everything above the bare hull")]
    EverythingAboveBareHull,
    /// The maker does not say; taken as everything above the bare hull, marked.
    #[strum(message = "not stated")]
    Unknown,
}

/// Where a figure comes from, least trusted first.
pub enum Source {
    /// A figure nobody stands for.
    #[strum(message = "a guess")]
    Guess,
    /// Told by somebody.
    Hearsay,
    /// A seller's word, or a sponsored one.
    #[strum(message = "seller or sponsored")]
    Seller,
    /// The maker's brochure or web page.
    Brochure,
    /// The plate on the hull.
    #[strum(message = "label on the hull")]
    Label,
    /// Read off a photo in which a tape lies.
    #[strum(message = "read off a photo")]
    Photo,
    /// A tape over the hull ashore.
    Tape,
    /// A scale.
    Scale,
    /// Read on the water.
    #[strum(message = "read afloat")]
    Afloat,
}
}

impl Propulsion {
    /// Whether there is a drive that hangs below the hull.
    #[must_use]
    pub const fn has_drive(self) -> bool {
        !matches!(self, Self::Paddle)
    }
}

impl CapacityBasis {
    /// Whether seat and drive count as load.
    #[must_use]
    pub const fn counts_kit(self) -> bool {
        !matches!(self, Self::GearAndCrew)
    }
}

impl Source {
    /// Whether somebody measured it rather than printed or told it.
    #[must_use]
    pub fn is_measured(self) -> bool {
        self >= Self::Tape
    }
}
