//! What is asked of a hull beside floating well: how it is launched, fished from
//! and driven, and by whom.

use crate::base::words;
use crate::hull::Felt;

words! {
/// How much practice the angler has on the feet in a kayak.
#[derive(Default)]
pub enum Practice {
    /// At home on the feet: the guide bands hold as they are.
    #[strum(message = "at home on the feet")]
    Skilled,
    /// Stood before; who does not say is taken for that.
    #[default]
    #[strum(message = "stood in one before")]
    Some,
    /// Never stood in one.
    #[strum(message = "new to standing")]
    New,
}

/// How it may be driven.
#[derive(Default)]
pub enum Drive {
    /// As it comes.
    #[default]
    #[strum(message = "driven as it comes")]
    Any,
    /// By paddle.
    #[strum(message = "by paddle")]
    Paddle,
    /// By pedals, turning or fins.
    #[strum(message = "by pedals")]
    Pedal,
    /// By motor.
    #[strum(message = "by motor")]
    Motor,
}

/// Whether holes may be drilled.
#[derive(Default)]
pub enum Drilling {
    /// Where nothing else holds.
    #[default]
    #[strum(message = "drilled where nothing else holds")]
    Allowed,
    /// None.
    #[strum(message = "nothing drilled")]
    None,
}

/// Whether it must go backwards.
#[derive(Default)]
pub enum Reverse {
    /// It need not.
    #[default]
    #[strum(message = "need not reverse")]
    Any,
    /// By drive or paddle.
    #[strum(message = "must go backwards")]
    Must,
    /// By its drive, hands free.
    #[strum(message = "must go backwards by its drive")]
    Drive,
}

/// Where batteries go.
#[derive(Default)]
pub enum BatteryPlace {
    /// Where each is wanted.
    #[default]
    #[strum(message = "batteries where they are wanted")]
    AsLaid,
    /// As far forward as there is room.
    #[strum(message = "batteries forward")]
    Bow,
    /// As far aft.
    #[strum(message = "batteries aft")]
    Stern,
}

/// From what it is launched.
#[derive(Default)]
pub enum Launch {
    /// A ramp.
    #[default]
    #[strum(message = "from a ramp")]
    Ramp,
    /// A beach.
    #[strum(message = "from a beach")]
    Beach,
    /// A bank.
    #[strum(message = "from a bank")]
    Bank,
    /// Steps.
    #[strum(message = "down steps")]
    Steps,
    /// Through surf.
    #[strum(message = "through surf")]
    Surf,
}

/// How it is fished.
#[derive(Default)]
pub enum Fishing {
    /// Casting from one place.
    #[default]
    #[strum(message = "casting from one place")]
    Casting,
    /// Covering water.
    #[strum(message = "covering water")]
    Covering,
    /// Trolling.
    Trolling,
    /// On the bottom.
    #[strum(message = "bottom fishing")]
    Bottom,
    /// Fly.
    #[strum(message = "fly fishing")]
    Fly,
}

/// Back and knees.
#[derive(Default)]
pub enum Joints {
    /// They don't complain.
    #[default]
    #[strum(message = "back and knees fine")]
    Fine,
    /// They do.
    #[strum(message = "back or knees complain")]
    Complain,
}
}

/// A hull the angler has stood in: the yardstick for the others.
#[derive(Debug, Clone, PartialEq)]
pub struct Known {
    /// Its key.
    pub hull: String,
    /// How it felt.
    pub felt: Felt,
    /// Its standing support under this question; filled in when hulls are judged,
    /// where it is among them.
    pub support: Option<f64>,
}

/// All of it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Wishes {
    /// Practice on the feet.
    pub practice: Practice,
    /// How it may be driven.
    pub drive: Drive,
    /// Where batteries go; the rig's lines ask for it: see
    /// [`with_batteries`](super::with_batteries).
    pub battery: BatteryPlace,
    /// Whether holes may be drilled.
    pub drilling: Drilling,
    /// Whether it must go backwards.
    pub reverse: Reverse,
    /// From what it is launched.
    pub launch: Launch,
    /// How it is fished.
    pub fishing: Fishing,
    /// Back and knees.
    pub joints: Joints,
}
