//! What would help with an exercise: the same tries with one thing changed.

use super::boat::Boat;
use super::exercise::Exercise;
use super::play::Setting;
use super::tries::tries;
use crate::body::Shape;
use crate::figures::Setup;
use crate::question::Practice;

/// Something changed.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Help {
    /// More practice.
    Practice(Practice),
    /// A seat so much lower, m.
    LowerSeat(f64),
    /// So much more on the floor, kg.
    Ballast(f64),
    /// Done in the seat instead.
    Seated,
}

/// What it would change: share that ends as it is meant to, 0-1.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Helped {
    /// What was changed.
    pub help: Help,
    /// Without it; in waves both ends of what is not known of how a hull goes sideways.
    pub before: [f64; 2],
    /// With it.
    pub after: [f64; 2],
}

/// Tries with each.
const TRIES: u32 = 100;
/// How much lower a seat is tried, and the least that is left of it, m.
const LOWER: f64 = 0.10;
const LEAST_SEAT: f64 = 0.02;
/// What is put on the floor, kg.
const BALLAST: f64 = 20.0;

/// What the middle shape does with one thing changed, the same chances each time.
#[must_use]
pub fn helps(
    setup: &Setup,
    shape: &Shape,
    exercise: Exercise,
    stands: bool,
    practice: Practice,
) -> Vec<Helped> {
    let Some(boat) = Boat::of(setup, shape) else {
        return Vec::new();
    };
    let guides = setup.guides();
    let share = |boat: &Boat, stands: bool, practice| {
        let done = exercise.done(stands, guides);
        [false, exercise.in_waves()].map(|sways| {
            let setting = Setting {
                sways,
                ..Setting::of(&setup.brief, practice, done.sea, guides)
            };
            let tried = tries(std::slice::from_ref(boat), &setting, &done, TRIES);
            if exercise.reaches() {
                tried.upright().min(tried.reached())
            } else {
                tried.upright()
            }
        })
    };
    let before = share(&boat, stands, practice);
    let mut out = Vec::new();
    let mut add = |help, after| {
        out.push(Helped {
            help,
            before,
            after,
        });
    };
    for better in [Practice::Some, Practice::Skilled] {
        let gains = match practice {
            Practice::New => true,
            Practice::Some => better == Practice::Skilled,
            Practice::Skilled => false,
        };
        let on_the_feet = exercise.done(stands, guides).must_stand;
        if gains && on_the_feet {
            add(Help::Practice(better), share(&boat, stands, better));
        }
    }
    if !exercise.done(stands, guides).must_stand {
        let by = LOWER.min(boat.angler.seat - LEAST_SEAT);
        if by > 0.01 {
            let mut lower = boat.clone();
            lower.angler.seat -= by;
            add(Help::LowerSeat(by), share(&lower, stands, practice));
        }
    }
    if let Some(heavier) = Boat::with(setup, shape, BALLAST) {
        add(Help::Ballast(BALLAST), share(&heavier, stands, practice));
    }
    if stands && !exercise.on_the_feet() && exercise.done(true, guides).must_stand {
        add(Help::Seated, share(&boat, false, practice));
    }
    out
}
