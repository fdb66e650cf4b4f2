//! What an angler does, move by move, and what pushes at the boat meanwhile.

use super::boat::Boat;
use super::control::{TAKEN_BACK, TRUNK_SHIFT};
use super::dice::Dice;
use super::roll::{TICK, smooth};
use super::state::At;
use crate::base::GRAVITY;
use crate::guide::{Guide, Guides};
use std::collections::VecDeque;
use std::f64::consts::{PI, TAU};

/// Something done, or that happens. Sides: −1 port, 1 starboard.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Act {
    /// Stands up.
    Stand,
    /// Sits down.
    Sit,
    /// Leans over to a side, share of a whole reach, −1 to 1; until told otherwise.
    Reach(f64),
    /// Casts to a side; to one that is drawn where 0.
    Cast(f64),
    /// Strikes to a side.
    Strike(f64),
    /// Has a fish at the side the angler leans to for three seconds.
    Fish,
    /// A fish pulls at the rod to a side; it is gone where 0.
    Rod(f64),
    /// The dog jumps to a side; it lies in the middle where 0.
    Dog(f64),
    /// Sits sideways with the legs over a side; back inboard where 0.
    Sideways(f64),
    /// Turns round.
    Turn,
}

/// How great what is done is.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Moves {
    /// A whole reach, rad.
    pub reach: f64,
    /// A cast and a strike, N·s.
    pub cast: f64,
    /// See [`Moves::cast`].
    pub strike: f64,
    /// Pull at the rod, N.
    pub rod: f64,
    /// A fish at the side, kg.
    pub fish: f64,
    /// What a dog that jumped weighs to one side, N·m.
    pub dog: f64,
    /// How far off the middle somebody sitting sideways is, m.
    pub sideways: f64,
}

impl Moves {
    /// Of the guide table, with a dog of a mass, kg, where one comes along.
    #[must_use]
    pub fn of(guides: &Guides, dog: Option<f64>) -> Self {
        let dog = dog.unwrap_or(guides[Guide::PondDog]);
        Self {
            reach: guides[Guide::ReachLean].to_radians(),
            cast: guides[Guide::PondCast],
            strike: guides[Guide::PondStrike],
            rod: guides[Guide::PondRod],
            fish: guides[Guide::PondFish],
            dog: dog * GRAVITY * guides[Guide::PondDogPlace],
            sideways: guides[Guide::SidewaysPlace],
        }
    }
}

/// A push at the shoulders that was begun.
#[derive(Debug, Clone, Copy)]
struct Swing {
    from: f64,
    /// Greatest force of the first half sine, N, and the share of it that the second has.
    peak: f64,
    back: f64,
}

/// A half sine, s.
const HALF: f64 = 0.25;
/// What of a cast's first swing the second has.
const FOLLOWS: f64 = 0.8;
/// A reach takes so long, s; it slows by heel, rad, to a standstill; how fast it is given up.
const REACH: f64 = 2.0;
const SLOWS: f64 = 10.0 * PI / 180.0;
const BACK_OFF: f64 = -2.0;
/// A fish is at the side so long, and comes within, s.
const AT_SIDE: [f64; 2] = [3.0, 0.3];
/// A dog is over within, is felt so much later than a lean, s.
const DOG: [f64; 2] = [0.6, 0.2];
/// A pull comes within, s, and how often it throbs, Hz.
const PULL: [f64; 2] = [0.5, 0.8];
/// Time to swing the legs over the side, and to turn round, s.
const SIDEWAYS: f64 = 3.0;
const TURN: f64 = 2.0;
/// How long a landing beside the seat takes to be put right, s.
const SHIFTS_BACK: f64 = 0.7;

/// What is under way.
#[derive(Debug, Clone)]
pub(super) struct Doing {
    moves: Moves,
    /// Wanted share of a reach, and the share there is.
    wanted: f64,
    pub(super) reach: f64,
    swings: Vec<Swing>,
    fish_from: Option<f64>,
    rod: (f64, f64),
    dog: (f64, f64, f64),
    side: (f64, f64, f64),
    turn_from: Option<f64>,
    landed: Option<(f64, f64)>,
    casts: Dice,
    /// Moments and pulls as they were, tick by tick, the newest last.
    fish_felt: VecDeque<f64>,
}

/// Ticks of the past that are kept.
const KEPT: usize = 60;

impl Doing {
    pub(super) fn new(moves: Moves, casts: Dice) -> Self {
        Self {
            moves,
            wanted: 0.0,
            reach: 0.0,
            swings: Vec::new(),
            fish_from: None,
            rod: (0.0, 0.0),
            dog: (0.0, 0.0, 0.0),
            side: (0.0, 0.0, 0.0),
            turn_from: None,
            landed: None,
            casts,
            fish_felt: std::iter::repeat_n(0.0, KEPT).collect(),
        }
    }

    /// Begins something; standing up and sitting down are the body's.
    pub(super) fn begins(&mut self, time: f64, act: Act, braced: f64) {
        match act {
            Act::Stand | Act::Sit => {}
            Act::Reach(share) => self.wanted = share.clamp(-1.0, 1.0),
            Act::Cast(side) => {
                let drawn = if self.casts.share() < 0.5 { -1.0 } else { 1.0 };
                let side = if side == 0.0 { drawn } else { side.signum() };
                let strength = 0.8 + 0.25 * self.casts.normal().abs();
                // The work of a half sine is its peak times 2 T / π.
                let peak = self.moves.cast * strength * (1.0 - braced) * PI / (2.0 * HALF);
                self.swings.push(Swing {
                    from: time,
                    peak: -side * peak,
                    back: FOLLOWS,
                });
            }
            Act::Strike(side) => self.swings.push(Swing {
                from: time,
                peak: side.signum() * self.moves.strike * PI / (2.0 * HALF),
                back: 0.0,
            }),
            Act::Fish => self.fish_from = Some(time),
            Act::Rod(side) => self.rod = (side, time),
            Act::Dog(side) => self.dog = (self.dog_share(time), side, time),
            Act::Sideways(side) => self.side = (self.side_share(time), side, time),
            Act::Turn => self.turn_from = Some(time),
        }
    }

    /// Came down beside the seat, m.
    pub(super) fn lands(&mut self, time: f64, beside: f64) {
        self.landed = Some((time, beside));
    }

    fn dog_share(&self, time: f64) -> f64 {
        let (from, to, at) = self.dog;
        from + (to - from) * ((time - at) / DOG[0]).clamp(0.0, 1.0)
    }

    fn side_share(&self, time: f64) -> f64 {
        let (from, to, at) = self.side;
        from + (to - from) * smooth((time - at) / SIDEWAYS)[0]
    }

    /// Share of the reach a tick on, where the boat lies so.
    pub(super) fn leans_on(&mut self, at: &At, stiff: bool) {
        let toward = if self.wanted == 0.0 {
            -self.reach.signum()
        } else {
            self.wanted.signum()
        };
        let left = self.wanted - self.reach;
        let out = left * toward > 0.0 && self.wanted != 0.0;
        let by = if out {
            let slow = 1.0 - toward * (at.heel + 0.5 * at.heel_rate) / SLOWS;
            let slow = if stiff {
                1.0
            } else {
                slow.clamp(BACK_OFF, 1.0)
            };
            (TICK * slow / REACH).min(left.abs()) * toward
        } else {
            left.signum() * (TICK / REACH).min(left.abs())
        };
        let next = self.reach + by;
        // Backing off ends upright: nobody leans away from what they reach for.
        self.reach = if out && next * toward < 0.0 && self.reach * toward >= 0.0 {
            0.0
        } else {
            next.clamp(-1.0, 1.0)
        };
    }

    /// Lean of the trunk that is wanted, rad.
    pub(super) fn lean(&self) -> f64 {
        self.moves.reach * smooth(self.reach.abs())[0] * self.reach.signum()
    }

    /// Force at the shoulders, N, and what of it is the rod's.
    pub(super) fn force(&self, time: f64) -> (f64, f64) {
        let swings = self.swings.iter().map(|swing| {
            let since = time - swing.from;
            if (0.0..HALF).contains(&since) {
                swing.peak * (PI * since / HALF).sin()
            } else if (HALF..2.0 * HALF).contains(&since) {
                -swing.back * swing.peak * (PI * (since - HALF) / HALF).sin()
            } else {
                0.0
            }
        });
        let rod = self.pull(time);
        (swings.sum::<f64>() + rod, rod)
    }

    fn pull(&self, time: f64) -> f64 {
        let (side, from) = self.rod;
        let since = time - from;
        if side == 0.0 || since < 0.0 {
            return 0.0;
        }
        let throbs = 1.0 + 0.5 * (TAU * PULL[1] * since).sin();
        side * self.moves.rod * throbs * (since / PULL[0]).min(1.0)
    }

    fn fish(&self, time: f64, boat: &Boat) -> f64 {
        let Some(from) = self.fish_from else {
            return 0.0;
        };
        let [lasts, ramp] = AT_SIDE;
        let since = time - from;
        let there = (since / ramp).min((lasts - since) / ramp).clamp(0.0, 1.0);
        self.moves.fish * GRAVITY * 0.5 * boat.beam * self.reach * there
    }

    /// Moment on the hull, N·m.
    pub(super) fn moment(&self, time: f64, boat: &Boat) -> f64 {
        self.fish(time, boat) + self.moves.dog * self.dog_share(time)
    }

    /// Keeps what the fish weighs now, to be felt later.
    pub(super) fn feels(&mut self, time: f64, boat: &Boat) {
        self.fish_felt.push_back(self.fish(time, boat));
        self.fish_felt.pop_front();
    }

    /// Moment and pull at the rod as they are felt so late, s.
    pub(super) fn felt(&self, time: f64, late: f64) -> (f64, f64) {
        let ticks = ((late / TICK).round() as usize).min(KEPT - 1);
        let fish = self.fish_felt[KEPT - 1 - ticks];
        let dog = self.moves.dog * self.dog_share(time - late - DOG[1]);
        (fish + dog, self.pull(time - late))
    }

    /// How far beside its place the angler's weight lies, m.
    pub(super) fn beside(&self, time: f64, seated: bool, stature: f64) -> f64 {
        if !seated {
            return 0.0;
        }
        let back = -TAKEN_BACK * TRUNK_SHIFT * stature * self.lean().sin();
        let landed = self.landed.map_or(0.0, |(at, beside)| {
            beside * (1.0 - smooth((time - at) / SHIFTS_BACK)[0])
        });
        back + landed + self.moves.sideways * self.side_share(time)
    }

    /// Whether the feet are close together, turning.
    pub(super) fn turning(&self, time: f64) -> bool {
        self.turn_from
            .is_some_and(|from| (0.0..TURN).contains(&(time - from)))
    }

    /// Share of the way to sitting sideways, for a drawing.
    pub(super) fn aside(&self, time: f64) -> f64 {
        self.side_share(time)
    }
}
