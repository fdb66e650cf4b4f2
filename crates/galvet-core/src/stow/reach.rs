//! How far an arm goes from the seat.
//!
//! Arm of a body by segment shares of stature (upper arm 0.186, forearm and hand
//! 0.254: D. A. Winter, "Biomechanics and Motor Control of Human Movement",
//! figure 4.1, after Drillis and Contini, 1966); how far the shoulder comes
//! forward or round is a guide value.

use super::space::Space;
use crate::guide::{Guide, Guides};
use crate::hull::Reach;

/// How far along the hull each reach goes, m: `x` from the bow.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Arms {
    seat: f64,
    arm: f64,
    lean: f64,
    stands: bool,
}

impl Arms {
    /// The arms of who sits in a space.
    #[must_use]
    pub fn of(space: &Space, guides: &Guides) -> Self {
        let stature = space.aboard.stature;
        Self {
            seat: space.seat,
            arm: guides[Guide::ArmLength] * stature,
            lean: guides[Guide::StowLean] * stature,
            stands: space.aboard.posture.stands(),
        }
    }

    /// The least reach that gets to `x`.
    #[must_use]
    pub fn to(&self, x: f64) -> Reach {
        let every = [
            Reach::OneHanded,
            Reach::Seated,
            Reach::Turning,
            Reach::Standing,
            Reach::Sideways,
        ];
        let found = every.into_iter().find(|&reach| {
            let (from, to) = self.span(reach);
            (from..=to).contains(&x)
        });
        found.unwrap_or(Reach::AshoreOnly)
    }

    /// Where a reach goes, foremost and aftmost, m from the bow; an empty span
    /// where it does not serve.
    #[must_use]
    pub fn span(&self, reach: Reach) -> (f64, f64) {
        let Self {
            seat,
            arm,
            lean,
            stands,
        } = *self;
        match reach {
            // Without taking the back off the rest.
            Reach::OneHanded => (seat - 0.75 * arm, seat + 0.15),
            Reach::Seated => (seat - arm - lean, seat + 0.20),
            Reach::Turning => (seat - arm - lean, seat + arm),
            // From the floor in front of the seat, stooping.
            Reach::Standing if stands => (seat - 2.0 * arm - lean, seat + arm),
            Reach::Standing => (seat - arm - lean, seat + arm),
            // Legs over the side, one hand on the gunwale.
            Reach::Sideways => (seat - arm - lean, seat + arm + lean),
            Reach::AshoreOnly => (f64::NEG_INFINITY, f64::INFINITY),
        }
    }
}
