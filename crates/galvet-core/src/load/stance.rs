//! What kinds of load there are, how the angler is carried, and what heights count from.

use crate::base::Lanes;
use crate::body::Shape;

/// What kind of load a mass is, for the gauge.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum LoadKind {
    /// Everybody aboard, dressed.
    Crew,
    /// Seat, drive, rudder: what "fitted" adds to the bare hull.
    FixedKit,
    /// The rig as packed.
    LooseKit,
    /// Ice, bait water, fish: what the rig gains on the day.
    WaterAndFish,
}

impl LoadKind {
    /// In the order they are stacked.
    pub const ALL: [Self; 4] = [
        Self::Crew,
        Self::FixedKit,
        Self::LooseKit,
        Self::WaterAndFish,
    ];

    /// Short label.
    #[must_use]
    pub const fn label(self) -> &'static str {
        match self {
            Self::Crew => "everybody aboard, in wet clothes",
            Self::FixedKit => "seat and drive",
            Self::LooseKit => "kit",
            Self::WaterAndFish => "water and fish",
        }
    }
}

/// How the angler is carried in a load case.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Carriage {
    /// In the seat.
    Seated,
    /// On the feet, weight taken at floor level (for standing support).
    AtTheFeet,
}

/// What a load's heights count from on some shapes: the floor over the baseline and
/// the seats over the floor, m.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Stance<const N: usize> {
    /// The floor one stands on.
    pub floor: Lanes<N>,
    /// Surface of the seat at its low and its high place.
    pub seats: [Lanes<N>; 2],
    /// How far off a guessed load is: [`Shape::guess`].
    pub(super) guess: [Lanes<N>; 3],
}

impl<const N: usize> Stance<N> {
    /// The seats of `shapes` over a floor.
    #[must_use]
    pub fn of(shapes: &[Shape; N], floor: Lanes<N>) -> Self {
        let seat = |at: usize| Lanes::from_fn(|i| shapes[i].seats[at]);
        Self {
            floor,
            seats: [seat(0), seat(1)],
            guess: std::array::from_fn(|j| Lanes::from_fn(|i| shapes[i].guess[j])),
        }
    }
}

/// What a mass rests on.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Rests {
    /// The cockpit floor.
    Floor,
    /// The seat at its low (0) or high (1) place.
    Seat(usize),
}
