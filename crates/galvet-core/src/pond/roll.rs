//! Hull, legs and trunk in time: chapter 9's equations A, B and C, by Runge and Kutta's fourth
//! order, with a balance that comes late.

use super::angler::Felt;
use super::boat::Boat;
use super::control;
use super::practice::Balance;
use super::state::{Aim, At, Chance, Mode, Push};
use crate::base::GRAVITY;
use std::collections::VecDeque;

/// Step of the integration, s.
pub const STEP: f64 = 0.005;
/// Between two decisions of the balance, s: whole steps.
pub const TICK: f64 = 0.010;

/// Lag of a muscle behind what it is told, s.
pub(super) const LAG: f64 = 0.05;
/// Delay of a seated trunk, s (Cholewicki et al., *Postural control of trunk during unstable
/// sitting*, 2000).
const SEATED_DELAY: f64 = 0.12;

/// Stiffness and damping of hips in a seat, of what holds the trunk up, s. Guide values.
pub(super) const SEATED_HIPS: (f64, f64) = (0.8, 0.12);

/// The smoothest way from 0 to 1, its rate and how that changes (Flash and Hogan, *The
/// coordination of arm movements*, 1985).
pub(super) fn smooth(x: f64) -> [f64; 3] {
    if x <= 0.0 {
        return [0.0; 3];
    }
    if x >= 1.0 {
        return [1.0, 0.0, 0.0];
    }
    let s = x.powi(3) * (10.0 - 15.0 * x + 6.0 * x * x);
    let rate = 30.0 * x * x * (1.0 - x).powi(2);
    let change = 60.0 * x * (1.0 - x) * (1.0 - 2.0 * x);
    [s, rate, change]
}

/// The hips on their way up or down: shares of the whole way.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Way {
    pub from: f64,
    pub to: f64,
    /// When it began, and how long it takes, s.
    pub since: f64,
    pub lasts: f64,
}

impl Way {
    /// Share of the way up at a time, its rate and how that changes.
    fn at(&self, time: f64) -> [f64; 3] {
        let [s, rate, change] = smooth((time - self.since) / self.lasts);
        let by = self.to - self.from;
        [
            self.from + by * s,
            by * rate / self.lasts,
            by * change / self.lasts.powi(2),
        ]
    }

    pub(super) fn ends(&self) -> f64 {
        self.since + self.lasts
    }
}

/// A boat with somebody in it, rolling.
pub struct Roll<'a> {
    pub(super) boat: &'a Boat,
    pub(super) balance: Balance,
    pub(super) mode: Mode,
    pub(super) way: Way,
    /// What the angler wants and feels.
    pub aim: Aim,
    /// What chance adds.
    pub chance: Chance,
    /// Where it is.
    pub now: At,
    /// What the muscles are told: feet, hips, the hips of who sits beside.
    told: [f64; 3],
    /// What was, tick by tick, the oldest first: only what comes late is felt.
    was: VecDeque<At>,
    /// Whether there is a balance; without, only what is held stiff.
    active: bool,
    /// Whether legs and trunk are one with the hull.
    pub(super) locked: bool,
    /// Whether the hull goes sideways of its own.
    pub(super) sways: bool,
    /// Damping that is set rather than the boat's, N·m·s.
    damped: Option<f64>,
    step: f64,
}

impl<'a> Roll<'a> {
    /// From a state that has stood so long enough to be felt.
    #[must_use]
    pub fn new(boat: &'a Boat, balance: Balance, mode: Mode, start: At) -> Self {
        let up = f64::from(u8::from(mode == Mode::Up));
        let longest = (balance.delay.max(SEATED_DELAY) - LAG).max(0.0);
        let ticks = (longest / TICK).round() as usize;
        Self {
            boat,
            balance,
            mode,
            way: Way {
                from: up,
                to: up,
                since: 0.0,
                lasts: 1.0,
            },
            aim: Aim {
                stance: balance.stance[0],
                ..Aim::default()
            },
            chance: Chance::default(),
            now: start,
            told: [0.0; 3],
            was: std::iter::repeat_n(start, ticks + 1).collect(),
            active: mode != Mode::Stiff,
            locked: false,
            sways: false,
            damped: None,
            step: STEP,
        }
    }

    /// The same as one rigid body, damped so, N·m·s: what has a closed form.
    #[must_use]
    pub fn rigid(mut self, damping: f64) -> Self {
        self.active = false;
        self.locked = true;
        self.damped = Some(damping);
        self
    }

    /// The same in steps of so many seconds, of which whole ones make a tick.
    #[must_use]
    pub fn stepped(mut self, step: f64) -> Self {
        self.step = step;
        self
    }

    /// The same in a hull that goes sideways of its own when its angler does, rather than
    /// with the water: the other end of what is not known.
    #[must_use]
    pub fn swaying(mut self) -> Self {
        self.sways = true;
        self
    }

    /// How the angler is.
    #[must_use]
    pub fn mode(&self) -> Mode {
        self.mode
    }

    /// Height of the hip over the floor, m, how fast it goes and how that changes; the share
    /// of the way up.
    #[must_use]
    pub fn hip(&self, time: f64) -> ([f64; 3], f64) {
        let [low, high] = self.boat.angler.hips();
        if self.mode != Mode::Up {
            return ([low, 0.0, 0.0], 0.0);
        }
        let [share, rate, change] = self.way.at(time);
        let way = high - low;
        ([low + way * share, way * rate, way * change], share)
    }

    /// The state as it is felt.
    fn late(&self) -> At {
        self.ago(match self.mode {
            Mode::Up => self.balance.delay,
            Mode::Seated | Mode::Stiff => SEATED_DELAY,
        })
    }

    /// The state as it is felt so many seconds late, the muscles' lag with it.
    fn ago(&self, late: f64) -> At {
        let ticks = ((late - LAG) / TICK).round().max(0.0) as usize;
        let last = self.was.len() - 1;
        self.was[last - ticks.min(last)]
    }

    /// Whether one out of balance so, as it was felt late, sits down: from half height on.
    #[must_use]
    pub fn gives_up(&self, time: f64) -> bool {
        let ([hip, ..], share) = self.hip(time);
        let late = self.late();
        if late.heel.abs() > self.balance.too_far {
            return true;
        }
        let (at, rate) = control::lean(self.boat, hip, &late);
        let wanted: f64 = control::wanted(self.boat, hip, &self.aim).iter().sum();
        let high = self.boat.angler.at(hip).whole() / (self.boat.angler.mass * GRAVITY);
        let off = at - wanted + rate * (high / GRAVITY).sqrt();
        share > 0.5 && off.abs() > self.balance.margin
    }

    /// Lean of the whole body, rad.
    #[must_use]
    pub fn lean(&self, time: f64) -> f64 {
        control::lean(self.boat, self.hip(time).0[0], &self.now).0
    }

    /// Begins to stand up, or to sit down, taking so long, s.
    pub(super) fn goes(&mut self, time: f64, to: f64, lasts: f64) {
        let from = self.hip(time).1;
        self.mode = Mode::Up;
        self.way = Way {
            from,
            to,
            since: time,
            lasts,
        };
    }

    /// Lands in the seat: both angular momenta are kept. How far beside the seat, m.
    pub(super) fn lands(&mut self, time: f64, mode: Mode) -> f64 {
        let ([hip, ..], _) = self.hip(time);
        let (boat, at) = (self.boat, &mut self.now);
        let body = boat.angler.at(hip);
        let beside = hip * (at.legs - at.heel).sin();
        let [m11, m12, m22] = body.inertia;
        let [i1, i2] = body.own;
        let hull = boat.inertia + boat.added;
        let coupled = m12 * (at.legs - at.trunk).cos();
        let legs = (m11 + i1) * at.legs_rate + coupled * at.trunk_rate;
        let trunk = coupled * at.legs_rate + (m22 + i2) * at.trunk_rate;
        let both = hull * at.heel_rate + legs;
        let coupled = m12 * (at.heel - at.trunk).cos();
        let (x, z) = solved([hull + m11 + i1, coupled, m22 + i2], [both, trunk]);
        (at.heel_rate, at.trunk_rate) = (x, z);
        (at.legs, at.legs_rate) = (at.heel, x);
        (at.feet, at.hips) = (0.0, 0.0);
        self.told = [0.0, 0.0, self.told[2]];
        self.mode = mode;
        self.active = mode != Mode::Stiff;
        beside
    }

    /// Goes on for a tick, pushed so.
    pub fn tick(&mut self, time: f64, push: &dyn Fn(f64) -> Push) {
        if self.active {
            self.decide(time);
        }
        let steps = (TICK / self.step).round() as u32;
        for k in 0..steps {
            self.step(time + self.step * f64::from(k), push);
        }
        self.was.push_back(self.now);
        self.was.pop_front();
    }

    /// What the muscles are told from here on.
    fn decide(&mut self, time: f64) {
        let ([hip, ..], _) = self.hip(time);
        let late = self.late();
        let (boat, balance) = (self.boat, &self.balance);
        let [feet, hips] = if self.mode == Mode::Up {
            control::on_the_feet(boat, balance, hip, &late, (&self.aim, &self.chance))
        } else {
            let noise = self.chance.trunk;
            let hips = control::seated(boat, balance, hip, &late, &self.aim, noise);
            [0.0, hips]
        };
        self.told = [feet, hips, 0.0];
        if let Some(mate) = &boat.mate {
            let g2 = mate.at(mate.hips()[0]).over[1];
            let [lean, rate, _] = self.ago(SEATED_DELAY).mate;
            let noise = balance.noise * self.chance.mate;
            self.told[2] = control::upright(g2, 0.0, [lean, rate], noise);
        }
    }

    /// One step by Runge and Kutta.
    fn step(&mut self, time: f64, push: &dyn Fn(f64) -> Push) {
        let (at, step) = (self.now, self.step);
        let half = time + 0.5 * step;
        let (start, middle, end) = (push(time), push(half), push(time + step));
        let a = self.rate(&at, time, &start);
        let b = self.rate(&at.plus(0.5 * step, &a), half, &middle);
        let c = self.rate(&at.plus(0.5 * step, &b), half, &middle);
        let d = self.rate(&at.plus(step, &c), time + step, &end);
        let sum = a.plus(2.0, &b).plus(2.0, &c).plus(1.0, &d);
        self.now = at.plus(step / 6.0, &sum);
        self.now.filled = self.now.filled.clamp(0.0, 1.0);
        if self.locked {
            self.now.trunk = self.now.heel;
            self.now.trunk_rate = self.now.heel_rate;
            self.now.mate = [self.now.heel, self.now.heel_rate, 0.0];
        }
        if self.mode != Mode::Up {
            // Legs and hull are one.
            self.now.legs = self.now.heel;
            self.now.legs_rate = self.now.heel_rate;
        }
    }

    /// Rates of everything at a state.
    fn rate(&self, at: &At, time: f64, push: &Push) -> At {
        let (hip, share) = self.hip(time);
        let (boat, body) = (self.boat, &self.boat.angler.at(hip[0]));
        let place = usize::from(self.mode == Mode::Up);
        let [g1, g2] = body.over;
        let lift = boat.displaced * GRAVITY * boat.arms[place].at(at.heel - push.slope, at.filled);
        let damping = self.damped.unwrap_or(boat.drag[place]);
        let beside = boat.angler.mass * GRAVITY * push.beside * at.heel.cos();
        let hull = -damping * at.heel_rate - lift + push.moment + beside;
        let delta = at.legs - at.trunk;
        let (sin, cos) = delta.sin_cos();
        let hips = self.hips(at, body);
        let turns = boat.angler.turns(hip, at.legs_rate, delta);
        let (sin1, cos1) = at.legs.sin_cos();
        let (sin2, cos2) = at.trunk.sin_cos();
        let [_, m12, _] = body.inertia;
        let shoulders = control::SHOULDERS * boat.angler.stature;
        let trunk = g2 * (sin2 - push.slope * cos2) + m12 * sin * at.legs_rate.powi(2) - hips
            + shoulders * push.force * cos2
            - turns[1];
        let legs = g1 * (sin1 - push.slope * cos1) - m12 * sin * at.trunk_rate.powi(2)
            + hips
            + push.force * body.hip * cos1
            - turns[0];
        let feet = if place == 1 {
            self.feet(at, body, share)
        } else {
            0.0
        };
        let torques = [hull, legs, trunk, feet];
        let (rates, sway) = match &boat.mate {
            Some(mate) => self.with_mate(at, body, mate, torques, (cos, push)),
            None => self.accelerations(at, body, torques, (cos, push)),
        };
        let [heel_rate, legs_rate, trunk_rate, mate_rate] = rates;
        At {
            heel: at.heel_rate,
            heel_rate,
            legs: at.legs_rate,
            legs_rate,
            trunk: at.trunk_rate,
            trunk_rate,
            feet: (self.told[0] - at.feet) / LAG,
            hips: (self.told[1] - at.hips) / LAG,
            filled: boat.fills(at.heel - push.slope, at.filled),
            sway,
            mate: [at.mate[1], mate_rate, (self.told[2] - at.mate[2]) / LAG],
        }
    }

    /// Accelerations of hull, legs and trunk, rad/s², and sideways, m/s², under torques on
    /// hull, legs and trunk and between feet and hull.
    fn accelerations(
        &self,
        at: &At,
        body: &Felt,
        [hull, legs, trunk, feet]: [f64; 4],
        (cos, push): (f64, &Push),
    ) -> ([f64; 4], f64) {
        let boat = self.boat;
        let [m11, m12, m22] = body.inertia;
        let [i1, i2] = body.own;
        let inertia = boat.inertia + boat.added;
        if self.locked {
            let one = (hull + legs + trunk) / (inertia + body.stiff());
            return ([one, one, one, 0.0], 0.0);
        }
        let mut m = [m11 + i1, m12 * cos, m22 + i2];
        let mut torques = [legs - feet, trunk];
        if self.mode != Mode::Up {
            m[0] += inertia;
            torques[0] = hull + legs;
        }
        // What moves the body sideways moves hull and water the other way.
        let [one, two] = body.aside(at.legs, at.trunk);
        let pull = push.force - boat.sideways * at.sway
            + body.flung([at.legs, at.legs_rate], [at.trunk, at.trunk_rate]);
        if self.sways {
            let mass = boat.sideways_mass;
            m[0] -= one * one / mass;
            m[1] -= one * two / mass;
            m[2] -= two * two / mass;
            torques[0] -= one * pull / mass;
            torques[1] -= two * pull / mass;
        }
        let (a, b) = solved(m, torques);
        let sway = if self.sways {
            (pull - one * a - two * b) / boat.sideways_mass
        } else {
            0.0
        };
        let heel = if self.mode == Mode::Up {
            (hull + feet) / inertia
        } else {
            a
        };
        ([heel, a, b, 0.0], sway)
    }

    /// Torque from the legs onto the hull, N·m.
    fn feet(&self, at: &At, body: &Felt, share: f64) -> f64 {
        let g = &self.balance;
        // In a crouch the hands are on the rail. Guide value.
        let held = (1.0 - 2.0 * share).max(0.0);
        let passive = (g.ankle + held) * (at.legs - at.heel)
            + (g.damping + 0.1 * held) * (at.legs_rate - at.heel_rate);
        let limit = control::limit(self.boat.angler.mass, self.aim.stance);
        (body.whole() * passive + at.feet).clamp(-limit, limit)
    }

    /// Torque from the trunk onto the legs, N·m.
    fn hips(&self, at: &At, body: &Felt) -> f64 {
        // Of what holds the trunk up, and s. Guide values.
        let (stiff, damped, held) = match self.mode {
            Mode::Up => (control::STIFF_UP, 0.12, 0.0),
            Mode::Seated => (SEATED_HIPS.0, SEATED_HIPS.1, 0.0),
            Mode::Stiff => (6.0, 0.5, self.aim.lean),
        };
        let bent = at.trunk - at.legs - held;
        body.over[1] * (stiff * bent + damped * (at.trunk_rate - at.legs_rate)) + at.hips
    }
}

/// Two equations with one matrix, given by its upper half.
fn solved([a, b, c]: [f64; 3], [x, y]: [f64; 2]) -> (f64, f64) {
    let det = a * c - b * b;
    ((x * c - y * b) / det, (a * y - b * x) / det)
}
