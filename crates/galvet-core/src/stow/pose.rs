//! How a thing is laid: as it was measured; pressed in, where it is soft; on another
//! side, where it may be. Only what finds no place as it was measured is laid otherwise,
//! and it is said.

use crate::gear::Gear;
use crate::guide::{Guide, Guides};

/// Whether a thing stands on its end: no higher than three times its lesser foot.
fn stands([length, width, height]: [f64; 3]) -> bool {
    length <= 3.0 * width.min(height)
}

/// How a thing is laid.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum Pose {
    /// As it was measured.
    #[default]
    Flat,
    /// Pressed in on every side by what soft things give.
    Pressed,
    /// On its edge: width and height change places.
    OnEdge,
    /// On its end: length and height change places.
    OnEnd,
}

impl Pose {
    /// What to try next of a thing that finds no place so.
    pub(super) fn next(self, gear: &Gear) -> Option<Self> {
        let turns = gear.may_lie_otherwise();
        match self {
            Self::Flat if gear.soft => Some(Self::Pressed),
            Self::Flat | Self::Pressed if turns => Some(Self::OnEdge),
            Self::OnEdge if gear.size.is_some_and(stands) => Some(Self::OnEnd),
            Self::Flat | Self::Pressed | Self::OnEdge | Self::OnEnd => None,
        }
    }

    /// Length, width and height as it is laid, m.
    pub(super) fn size(self, [length, width, height]: [f64; 3], guides: &Guides) -> [f64; 3] {
        let less = 1.0 - guides[Guide::SoftGive];
        match self {
            Self::Flat => [length, width, height],
            Self::Pressed => [less * length, less * width, less * height],
            Self::OnEdge => [length, height, width],
            Self::OnEnd => [height, width, length],
        }
    }
}
