//! A layout through the day: ice melts and drinks go, the livewell fills, fish come
//! aboard, clothes get wet.
//!
//! A hull is ranked with all of it aboard at once, which no point of a day is
//! heavier than, and each figure at the hour at which it is worse still; here is how
//! it comes and goes.

use super::layout::Layout;
use crate::base::words;
use crate::gear::{Category, Electric, Gear};
use crate::guide::{Guide, Guides};
use crate::rig::Rig;

words! {
/// A point of the day.
pub enum Hour {
    /// Pushing off.
    #[strum(message = "launch")]
    Launch,
    /// Half way.
    #[strum(message = "midday")]
    Midday,
    /// Coming back.
    #[strum(message = "return")]
    Return,
}
}

/// What the wet part of a thing is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Wet {
    /// Ice and drinks: they go.
    Ice,
    /// Bait water: filled after launching.
    Bait,
    /// Fish: they come.
    Fish,
    /// Always there.
    Always,
}

impl Wet {
    fn of(gear: &Gear) -> Self {
        let draws = matches!(gear.electric, Electric::Draw { .. });
        match gear.category {
            Category::Fish if draws => Self::Bait,
            Category::Fish if gear.brings.inside.is_some() => Self::Ice,
            Category::Fish => Self::Fish,
            _ => Self::Always,
        }
    }

    /// Share of it aboard.
    fn share(self, hour: Hour, guides: &Guides) -> f64 {
        match (self, hour) {
            (Self::Always, _) | (Self::Ice, Hour::Launch) | (Self::Fish, Hour::Return) => 1.0,
            (Self::Ice, Hour::Midday) => guides[Guide::IceMidday],
            (Self::Ice, Hour::Return) => guides[Guide::IceReturn],
            (Self::Bait | Self::Fish, Hour::Launch) => 0.0,
            (Self::Bait, _) => 1.0,
            (Self::Fish, Hour::Midday) => 0.5,
        }
    }
}

impl Hour {
    /// When, in a sentence.
    #[must_use]
    pub const fn when(self) -> &'static str {
        match self {
            Self::Launch => "at launch",
            Self::Midday => "at midday",
            Self::Return => "on the way back",
        }
    }

    /// How much heavier than at launch the angler's clothes are, kg.
    #[must_use]
    pub fn wet_clothes(self, guides: &Guides) -> f64 {
        let share = match self {
            Self::Launch => 0.0,
            Self::Midday => 0.5,
            Self::Return => 1.0,
        };
        share * (guides[Guide::WetExtra] - guides[Guide::DressedExtra]).max(0.0)
    }
}

impl Layout {
    /// Whether anything aboard comes or goes through the day.
    #[must_use]
    pub fn comes_and_goes(&self, rig: &Rig) -> bool {
        self.stowed.iter().any(|stowed| {
            let gear = rig.lines.get(stowed.line).and_then(|l| l.thing.as_deref());
            stowed.loaded_mass > stowed.dry_mass && gear.is_some_and(|g| Wet::of(g) != Wet::Always)
        })
    }

    /// The same with what is aboard at a point of the day. What nobody has on the
    /// shelf is taken to be there all day.
    #[must_use]
    pub fn at(&self, hour: Hour, rig: &Rig, guides: &Guides) -> Self {
        let mut now = self.clone();
        for stowed in &mut now.stowed {
            let gear = rig.lines.get(stowed.line).and_then(|l| l.thing.as_deref());
            let share = gear.map_or(1.0, |g| Wet::of(g).share(hour, guides));
            let wet = stowed.loaded_mass - stowed.dry_mass;
            stowed.loaded_mass = stowed.dry_mass + share * wet;
        }
        now
    }
}
