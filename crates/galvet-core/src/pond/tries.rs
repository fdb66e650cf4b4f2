//! Many tries at one thing, each with chances of its own.

use super::boat::Boat;
use super::exercise::Done;
use super::play::{Course, End, Happened, Play, Setting};
use super::roll::TICK;
use rayon::prelude::*;

/// What became of one try.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Try {
    /// How it ended.
    pub end: End,
    /// Whether the side was reached as far as wanted.
    pub reached: bool,
    /// Greatest heel, rad.
    pub heel: f64,
    /// Least left of the heel at which water comes in, rad; below 0 where it did.
    pub room: f64,
    /// Most water that stood on the deck, m³.
    pub taken: f64,
}

impl Try {
    fn of(course: &Course, boat: &Boat) -> Self {
        let reached = course.happened.iter().any(|(_, h)| *h == Happened::Reached);
        Self {
            end: course.end,
            reached,
            heel: course.heel,
            room: course.room,
            taken: course.filled * boat.holds,
        }
    }
}

/// What became of many tries.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Tries(pub Vec<Try>);

impl Tries {
    fn share(&self, of: impl Fn(&Try) -> bool) -> f64 {
        let found = self.0.iter().filter(|t| of(t)).count();
        found as f64 / self.0.len().max(1) as f64
    }

    /// Share that ended as it was meant to, 0-1.
    #[must_use]
    pub fn upright(&self) -> f64 {
        self.share(|t| t.end == End::Upright)
    }

    /// Share that ended in the water, 0-1.
    #[must_use]
    pub fn over(&self) -> f64 {
        self.share(|t| t.end == End::Over)
    }

    /// Share that reached over the side, 0-1.
    #[must_use]
    pub fn reached(&self) -> f64 {
        self.share(|t| t.reached)
    }

    /// A figure of those that stayed upright, in order.
    #[must_use]
    pub fn of_upright(&self, figure: impl Fn(&Try) -> f64) -> Vec<f64> {
        let upright = self.0.iter().filter(|t| t.end == End::Upright);
        let mut all: Vec<f64> = upright.map(figure).collect();
        all.sort_unstable_by(f64::total_cmp);
        all
    }
}

/// The lowest, middle and highest tenth of figures in order, where there are any.
#[must_use]
pub fn spread(ordered: &[f64]) -> Option<[f64; 3]> {
    let at = |share: f64| {
        let last = ordered.len().checked_sub(1)?;
        ordered.get((share * last as f64).round() as usize).copied()
    };
    Some([at(0.1)?, at(0.5)?, at(0.9)?])
}

/// One thing done `count` times over, on each boat in turn.
#[must_use]
pub fn tries(boats: &[Boat], setting: &Setting, done: &Done, count: u32) -> Tries {
    if boats.is_empty() {
        return Tries::default();
    }
    let one = |k: u32| {
        let setting = Setting {
            by: (setting.by.0, u64::from(k)),
            ..*setting
        };
        let boat = &boats[k as usize % boats.len()];
        let play = Play::new(boat, setting, &done.script, done.up);
        // A step a tick: outcomes are those of a finer one, heels to 0.03°.
        let course = play.stepped(TICK).run(done.until, 0, done.must_stand);
        Try::of(&course, boat)
    };
    Tries((0..count).into_par_iter().map(one).collect())
}
