//! Whether an angler can be set up in a hull: legs against seat and braces, the
//! length of paddle.

use crate::crew::Crew;
use crate::guide::{Guide, Guides};
use crate::hull::{FittingKind, Survey};

/// Legs against seat and foot braces or pedals.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum LegRoom {
    /// Seat and braces can be set, this far apart, m.
    SetUp {
        /// What the legs ask, m.
        apart: f64,
    },
    /// The braces come no nearer: too short by this much, m.
    TooShort(f64),
    /// They go no further: too tall by this much, m.
    TooTall(f64),
    /// Nobody noted where seat and braces are.
    NotKnown,
}

/// Sets an angler up: inside leg against the distance from the seat to braces or
/// pedals, each anywhere on its slide.
#[must_use]
pub fn leg_room(survey: &Survey, crew: Crew, guides: &Guides) -> LegRoom {
    let leg = guides[Guide::InsideLeg] * crew.stature();
    let fittings = survey.fitout.fittings_now();
    let slide = |of: &dyn Fn(&FittingKind) -> Option<f64>| {
        fittings.iter().find_map(|f| Some((f.x, of(&f.kind)?)))
    };
    let seat = slide(&|k| match *k {
        FittingKind::Seat { slide, .. } => Some(slide),
        _ => None,
    });
    let braces = slide(&|k| match *k {
        FittingKind::FootBraces { slide } => Some(slide),
        _ => None,
    });
    let (Some((seat, seat_slide)), Some((braces, braces_slide))) = (seat, braces) else {
        return LegRoom::NotKnown;
    };
    let (middle, play) = ((seat - braces).abs(), 0.5 * (seat_slide + braces_slide));
    match leg {
        l if l < middle - play - 1e-9 => LegRoom::TooShort(middle - play - l),
        l if l > middle + play + 1e-9 => LegRoom::TooTall(l - middle - play),
        _ => LegRoom::SetUp { apart: leg },
    }
}

/// A paddle's length for a beam, a seat's height over the floor and a stature, m.
/// A guide: longer for a wide hull and a high seat, good to about 0.1 m.
#[must_use]
pub fn paddle_length(beam: f64, seat: f64, stature: f64, guides: &Guides) -> f64 {
    guides[Guide::PaddleBase]
        + guides[Guide::PaddleBeam] * (beam - 0.75)
        + guides[Guide::PaddleSeat] * seat
        + guides[Guide::PaddleStature] * (stature - 1.75)
}
