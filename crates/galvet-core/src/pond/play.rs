//! A course of moves on a boat from beginning to end: the same whenever it is played.

use super::boat::Boat;
use super::dice::{Dice, Purpose, Wander};
use super::practice::Balance;
use super::roll::{LAG, Roll, TICK};
use super::script::{Act, Doing, Moves};
use super::state::{At, Chance, Mode, Push};
use super::swell::{Sea, Swell};
use crate::base::GRAVITY;
use std::f64::consts::PI;

/// Who plays, on which water, by which chance.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Setting {
    /// The angler's balance.
    pub balance: Balance,
    /// How great what is done is.
    pub moves: Moves,
    /// Whether the trunk is held stiff in the seat.
    pub stiff: bool,
    /// The water.
    pub sea: Sea,
    /// Sine of the angle between the boat's heading and the waves'.
    pub beam_on: f64,
    /// Whether the hull goes sideways of its own.
    pub sways: bool,
    /// Whether there is chance at all.
    pub chance: bool,
    /// Seed, and number of the try.
    pub by: (u64, u64),
}

/// A moment of a course.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Frame {
    /// s.
    pub time: f64,
    /// Where it is.
    pub at: At,
    /// Share of the way from the seat to the feet.
    pub up: f64,
    /// How far beside its place the angler's weight lies, m.
    pub beside: f64,
    /// Share of the way to sitting sideways, by side.
    pub aside: f64,
    /// Share of a reach, by side.
    pub reach: f64,
    /// Force at the shoulders, N.
    pub force: f64,
    /// Slope of the water, rad.
    pub slope: f64,
}

/// Something that happened.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Happened {
    /// On the feet.
    Stood,
    /// Had to sit down: out of balance.
    SatDown,
    /// Reached over the side as far as wanted.
    Reached,
    /// Water came in over the floor's edge.
    Wet,
    /// Water ran in over the rim.
    RanIn,
    /// Over.
    Over,
}

/// How a course ends.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum End {
    /// As it was meant to.
    Upright,
    /// In the seat, who meant to stand.
    Seated,
    /// In the water.
    Over,
}

/// What became of a course.
#[derive(Debug, Clone, PartialEq)]
pub struct Course {
    /// Moments of it, evenly apart; none where nobody looks.
    pub frames: Vec<Frame>,
    /// What happened, when, s.
    pub happened: Vec<(f64, Happened)>,
    /// How it ended.
    pub end: End,
    /// Greatest heel from the vertical, rad.
    pub heel: f64,
    /// Least left of the heel at which water comes in, rad; below 0 where it did.
    pub room: f64,
    /// Most of the recess that was full, share.
    pub filled: f64,
    /// Furthest reach, share.
    pub reach: f64,
}

/// Heel past which it is over, and lean of somebody on the feet past which they are, rad.
/// Guide values.
const OVER: [f64; 2] = [50.0 * PI / 180.0, 32.0 * PI / 180.0];
/// Time in which one drops into the seat from the feet, s. Guide value.
const DROPS: f64 = 0.7;
/// Share of a reach from which it is there.
const REACHED: f64 = 0.9;

/// A course being played.
pub struct Play<'a> {
    boat: &'a Boat,
    setting: Setting,
    script: &'a [(f64, Act)],
    next: usize,
    roll: Roll<'a>,
    doing: Doing,
    swell: Swell,
    noise: [Wander; 4],
    pushes: Dice,
    push: f64,
    tick: u32,
    course: Course,
}

impl<'a> Play<'a> {
    /// From rest, in the seat or on the feet; `script` in order of its times, s.
    #[must_use]
    pub fn new(boat: &'a Boat, setting: Setting, script: &'a [(f64, Act)], up: bool) -> Self {
        let dice = |purpose| Dice::of(setting.by, purpose);
        let mode = match (up, setting.stiff) {
            (true, _) => Mode::Up,
            (false, true) => Mode::Stiff,
            (false, false) => Mode::Seated,
        };
        let mut roll = Roll::new(boat, setting.balance, mode, At::default());
        if setting.sways {
            roll = roll.swaying();
        }
        Self {
            boat,
            setting,
            script,
            next: 0,
            roll,
            doing: Doing::new(setting.moves, dice(Purpose::Casts)),
            swell: Swell::of(setting.sea, boat, setting.beam_on, setting.by),
            noise: [Purpose::Lean, Purpose::Asked, Purpose::Trunk, Purpose::Mate]
                .map(|p| Wander::of(dice(p))),
            pushes: dice(Purpose::Push),
            push: 0.0,
            tick: 0,
            course: Course {
                frames: Vec::new(),
                happened: Vec::new(),
                end: End::Upright,
                heel: 0.0,
                room: boat.wets.min(boat.runs_in),
                filled: 0.0,
                reach: 0.0,
            },
        }
    }

    /// The same in other steps, s.
    #[must_use]
    pub fn stepped(mut self, step: f64) -> Self {
        self.roll = self.roll.stepped(step);
        self
    }

    fn time(&self) -> f64 {
        TICK * f64::from(self.tick)
    }

    /// To a time, s, or until it is over; a frame every so many ticks, none where 0. Ends at once
    /// where somebody who `must_stand` sits down.
    #[must_use]
    pub fn run(mut self, until: f64, every: u32, must_stand: bool) -> Course {
        let ticks = (until / TICK).round() as u32;
        while self.tick < ticks && self.course.end != End::Over {
            if every > 0 && self.tick.is_multiple_of(every) {
                self.keep();
            }
            self.goes_on();
            if must_stand && self.course.end == End::Seated {
                break;
            }
        }
        if every > 0 {
            self.keep();
        }
        self.course
    }

    fn keep(&mut self) {
        let time = self.time();
        let seated = self.roll.mode() != Mode::Up;
        self.course.frames.push(Frame {
            time,
            at: self.roll.now,
            up: self.roll.hip(time).1,
            beside: self.doing.beside(time, seated, self.boat.angler.stature),
            aside: self.doing.aside(time),
            reach: self.doing.reach,
            force: self.doing.force(time).0,
            slope: self.swell.slope(time),
        });
    }

    /// What the script begins now.
    fn begin(&mut self, time: f64) {
        while let Some((at, act)) = self.script.get(self.next) {
            if *at > time + 0.5 * TICK {
                break;
            }
            self.next += 1;
            let balance = &self.setting.balance;
            let seated = self.roll.mode() != Mode::Up;
            match act {
                Act::Stand if seated => {
                    self.roll.goes(time, 1.0, balance.rise);
                    let chance = f64::from(u8::from(self.setting.chance));
                    let weight = self.boat.angler.mass * GRAVITY;
                    self.push = chance * self.pushes.normal() * balance.push * weight;
                }
                Act::Sit if !seated && self.roll.way.to > 0.0 => {
                    self.push = 0.0;
                    self.roll.goes(time, 0.0, balance.rise);
                }
                Act::Stand | Act::Sit => {}
                act => self.doing.begins(time, *act, balance.braced),
            }
        }
    }

    /// A tick on.
    fn goes_on(&mut self) {
        let time = self.time();
        self.begin(time);
        self.wants(time);
        let stature = self.boat.angler.stature;
        let seated = self.roll.mode() != Mode::Up;
        let boat = self.boat;
        let ends = |t: f64, doing: &Doing| {
            let beside = doing.beside(t, seated, stature);
            [doing.moment(t, boat), beside]
        };
        let a = ends(time, &self.doing);
        self.doing.leans_on(&self.roll.now, self.setting.stiff);
        let b = ends(time + TICK, &self.doing);
        let (doing, swell) = (&self.doing, &self.swell);
        let push = |t: f64| {
            let share = (t - time) / TICK;
            let between = |i: usize| a[i] + share * (b[i] - a[i]);
            Push {
                moment: between(0),
                beside: between(1),
                force: doing.force(t).0,
                slope: swell.slope(t),
            }
        };
        self.roll.tick(time, &push);
        self.doing.feels(time, self.boat);
        self.tick += 1;
        self.notes(self.time());
    }

    /// What is wanted and felt at a tick.
    fn wants(&mut self, time: f64) {
        let balance = &self.setting.balance;
        // What is told comes a lag later: all in all a delay late.
        let late = balance.delay - LAG;
        let (moment, rod) = self.doing.felt(time, late);
        let aim = &mut self.roll.aim;
        aim.lean = self.doing.lean();
        (aim.moment, aim.rod) = (moment, rod);
        aim.slope = self.swell.slope(time - late);
        aim.stance = balance.stance[usize::from(self.doing.turning(time))];
        if !self.setting.chance {
            return;
        }
        let since = (time - self.roll.way.since) / self.roll.way.lasts;
        let rising = self.roll.way.to > self.roll.way.from && (0.0..1.0).contains(&since);
        let [lean, asked, trunk, mate] = &mut self.noise;
        self.roll.chance = Chance {
            lean: lean.next(),
            asked: asked.next(),
            trunk: trunk.next(),
            mate: if self.boat.mate.is_some() {
                mate.next()
            } else {
                0.0
            },
            push: if rising {
                self.push * (PI * since).sin().powi(2)
            } else {
                0.0
            },
        };
    }

    fn note(&mut self, time: f64, what: Happened) {
        if !self.course.happened.iter().any(|(_, h)| *h == what) {
            self.course.happened.push((time, what));
        }
    }

    /// What has come of the tick.
    fn notes(&mut self, time: f64) {
        let at = self.roll.now;
        let heeled = (at.heel - self.swell.slope(time)).abs();
        let course = &mut self.course;
        course.heel = course.heel.max(at.heel.abs());
        course.filled = course.filled.max(at.filled);
        course.reach = course.reach.max(self.doing.reach.abs());
        course.room = course
            .room
            .min(self.boat.wets.min(self.boat.runs_in) - heeled);
        if heeled > self.boat.wets {
            self.note(time, Happened::Wet);
        }
        if heeled > self.boat.runs_in {
            self.note(time, Happened::RanIn);
        }
        if self.doing.reach.abs() > REACHED {
            self.note(time, Happened::Reached);
        }
        let up = self.roll.mode() == Mode::Up;
        let fell = up && self.roll.lean(time).abs() > OVER[1];
        if at.heel.abs() > OVER[0] || fell || !at.is_finite() {
            self.course.end = End::Over;
            self.note(time, Happened::Over);
            return;
        }
        if !up {
            return;
        }
        let way = self.roll.way;
        if way.to == 0.0 {
            if time + 0.5 * TICK >= way.ends() {
                let mode = if self.setting.stiff {
                    Mode::Stiff
                } else {
                    Mode::Seated
                };
                let beside = self.roll.lands(time, mode);
                self.doing.lands(time, beside);
            }
        } else if self.roll.gives_up(time) {
            let share = self.roll.hip(time).1;
            self.roll.goes(time, 0.0, (DROPS * share).max(10.0 * TICK));
            self.push = 0.0;
            self.course.end = End::Seated;
            self.note(time, Happened::SatDown);
        } else if way.from < way.to && time + 0.5 * TICK >= way.ends() {
            self.note(time, Happened::Stood);
        }
    }
}
