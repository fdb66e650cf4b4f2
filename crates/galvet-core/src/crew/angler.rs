//! The angler: mass, stature and how the body is carried.

use crate::base::{Bounds, Dimension, OutOfRange, words};
use crate::guide::{Guide, Guides};

words! {
/// How the angler fishes.
pub enum Posture {
    /// On the feet while fishing.
    Stands,
    /// Both.
    #[strum(message = "sits and stands")]
    SitsAndStands,
    /// In the seat all day.
    Sits,
}

/// The hand that casts, and lands a fish.
pub enum Hand {
    /// The right: that side is kept clear.
    #[strum(message = "right-handed")]
    Right,
    /// The left.
    #[strum(message = "left-handed")]
    Left,
}

/// Which of the hull's seat heights is used.
pub enum SeatHeight {
    /// The lowest.
    Low,
    /// The highest.
    High,
}
}

impl Hand {
    /// The side it is on: +1 to starboard.
    #[must_use]
    pub const fn side(self) -> f64 {
        match self {
            Self::Right => 1.0,
            Self::Left => -1.0,
        }
    }
}

impl Posture {
    /// Whether the angler is on the feet at times.
    #[must_use]
    pub const fn stands(self) -> bool {
        !matches!(self, Self::Sits)
    }
}

/// The angler.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Crew {
    mass: f64,
    stature: f64,
}

impl Crew {
    /// Accepted body mass, kg.
    pub const MASS: Bounds = Bounds::new("the angler's weight", Dimension::Mass, 25.0, 220.0);
    /// Accepted stature, m.
    pub const STATURE: Bounds = Bounds::new("the angler's height", Dimension::Length, 1.1, 2.3);

    /// An angler of `mass` kg (undressed) and `stature` m.
    ///
    /// # Errors
    /// [`OutOfRange`] for either.
    pub fn new(mass: f64, stature: f64) -> Result<Self, OutOfRange> {
        Ok(Self {
            mass: Self::MASS.check(mass)?,
            stature: Self::STATURE.check(stature)?,
        })
    }

    /// Body mass, kg.
    #[must_use]
    pub const fn mass(&self) -> f64 {
        self.mass
    }

    /// Stature, m.
    #[must_use]
    pub const fn stature(&self) -> f64 {
        self.stature
    }

    /// Mass as it sits in the boat, kg.
    #[must_use]
    pub fn dressed_mass(&self, guides: &Guides) -> f64 {
        self.mass + guides[Guide::DressedExtra]
    }

    /// Knee height, m.
    #[must_use]
    pub fn knee_height(&self, guides: &Guides) -> f64 {
        guides[Guide::KneeHeight] * self.stature
    }

    /// Sideways shift of the whole body's centre while landing a fish, m: the
    /// torso leaned by [`Guide::ReachLean`].
    #[must_use]
    pub fn reach_shift(&self, guides: &Guides) -> f64 {
        guides[Guide::UpperBodyShare]
            * guides[Guide::UpperBodyCentre]
            * self.stature
            * guides[Guide::ReachLean].to_radians().sin()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn an_angler_must_be_a_person() {
        assert!(Crew::new(f64::INFINITY, 1.8).is_err());
        assert!(Crew::new(80.0, 18.0).is_err());
        let guides = Guides::default();
        assert_eq!(Crew::new(80.0, 1.8).unwrap().dressed_mass(&guides), 86.0);
    }

    #[test]
    fn a_reach_shifts_the_whole_body_by_the_torsos_share() {
        let crew = Crew::new(80.0, 1.80).unwrap();
        // 0.68 × 0.20 × 1.80 m × sin 20° = 0.2448 × 0.34202 m.
        let shift = crew.reach_shift(&Guides::default());
        assert!((shift - 0.083_726).abs() < 1e-6, "{shift}");
    }
}
