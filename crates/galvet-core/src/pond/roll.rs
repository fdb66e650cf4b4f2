//! Hull, legs and trunk in time: chapter 9's equations A, B and C, by Runge and Kutta's fourth
//! order, with a balance that comes late.

use super::angler::Felt;
use super::boat::Boat;
use super::practice::Balance;
use crate::base::GRAVITY;
use std::collections::VecDeque;

/// Step of the integration, s.
pub const STEP: f64 = 0.005;
/// Between two decisions of the balance, s: whole steps.
pub const TICK: f64 = 0.010;

/// Stance: between the feet, m. Guide value, 0.25-0.45.
const STANCE: f64 = 0.36;
/// Half a foot beyond it, m.
const FOOT: f64 = 0.03;
/// Lag of a muscle behind what it is told, s.
const LAG: f64 = 0.05;
/// Torque the hips give at most, N·m.
const HIPS: f64 = 80.0;
/// How fast a recess fills past the floor's edge, past the rim, and empties, s. Guide values.
const FILLS: [f64; 3] = [5.0, 0.7, 5.0];

/// How the angler is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Mode {
    /// In the seat, hips free.
    Seated,
    /// In the seat, the trunk held stiff.
    Stiff,
    /// On the feet.
    Up,
}

/// What pushes at a moment.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Push {
    /// Moment on the hull, N·m.
    pub moment: f64,
    /// Force at the shoulders, N.
    pub force: f64,
    /// What of that force is braced for: none of it is felt as leaning on a rod is.
    pub rod: f64,
    /// Slope of the water, rad.
    pub slope: f64,
}

/// Hull, legs and trunk: leans from the vertical and their rates, rad and rad/s; what the
/// muscles do beyond their stiffness, N·m; the share of the recess that has filled.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct At {
    /// Heel of the hull.
    pub heel: f64,
    /// Its rate.
    pub heel_rate: f64,
    /// Lean of the legs.
    pub legs: f64,
    /// Its rate.
    pub legs_rate: f64,
    /// Lean of the trunk.
    pub trunk: f64,
    /// Its rate.
    pub trunk_rate: f64,
    /// Torque at the feet.
    pub feet: f64,
    /// Torque at the hips.
    pub hips: f64,
    /// Share filled.
    pub filled: f64,
}

impl At {
    fn plus(&self, by: f64, rate: &Self) -> Self {
        Self {
            heel: self.heel + by * rate.heel,
            heel_rate: self.heel_rate + by * rate.heel_rate,
            legs: self.legs + by * rate.legs,
            legs_rate: self.legs_rate + by * rate.legs_rate,
            trunk: self.trunk + by * rate.trunk,
            trunk_rate: self.trunk_rate + by * rate.trunk_rate,
            feet: self.feet + by * rate.feet,
            hips: self.hips + by * rate.hips,
            filled: self.filled + by * rate.filled,
        }
    }

    /// Whether every figure is one.
    #[must_use]
    pub fn is_finite(&self) -> bool {
        let all = [
            self.heel,
            self.heel_rate,
            self.legs,
            self.legs_rate,
            self.trunk,
            self.trunk_rate,
            self.feet,
            self.hips,
            self.filled,
        ];
        all.iter().all(|v| v.is_finite())
    }
}

/// A boat with somebody in it, rolling.
pub struct Roll<'a> {
    boat: &'a Boat,
    balance: Balance,
    body: Felt,
    mode: Mode,
    /// Where it is.
    pub now: At,
    /// What the muscles are told: feet, hips.
    told: [f64; 2],
    /// What was, tick by tick, the oldest first: only what comes late is felt.
    was: VecDeque<At>,
    /// Whether there is a balance; without, only what is held stiff.
    active: bool,
    /// Whether legs and trunk are one with the hull.
    locked: bool,
    damping: f64,
    step: f64,
}

impl<'a> Roll<'a> {
    /// From a state that has stood so long enough to be felt.
    #[must_use]
    pub fn new(boat: &'a Boat, balance: Balance, mode: Mode, start: At) -> Self {
        let [low, high] = boat.angler.hips();
        let (hip, place) = match mode {
            Mode::Up => (high, 1),
            Mode::Seated | Mode::Stiff => (low, 0),
        };
        let late = match mode {
            Mode::Up => balance.delay,
            // Cholewicki et al., *Postural control of trunk during unstable sitting*, 2000.
            Mode::Seated | Mode::Stiff => 0.12,
        };
        let ticks = ((late - LAG) / TICK).round().max(0.0) as usize;
        Self {
            boat,
            balance,
            body: boat.angler.at(hip),
            mode,
            now: start,
            told: [0.0; 2],
            was: std::iter::repeat_n(start, ticks + 1).collect(),
            active: mode != Mode::Stiff,
            locked: false,
            damping: boat.drag(place),
            step: STEP,
        }
    }

    /// The same as one rigid body, damped so, N·m·s: what has a closed form.
    #[must_use]
    pub fn rigid(mut self, damping: f64) -> Self {
        self.active = false;
        self.locked = true;
        self.damping = damping;
        self
    }

    /// The same in steps of so many seconds, of which whole ones make a tick.
    #[must_use]
    pub fn stepped(mut self, step: f64) -> Self {
        self.step = step;
        self
    }

    /// Goes on for a tick, pushed so.
    pub fn tick(&mut self, time: f64, push: &dyn Fn(f64) -> Push) {
        if self.active {
            self.decide(&push(time));
        }
        let steps = (TICK / self.step).round() as u32;
        for k in 0..steps {
            self.step(time + self.step * f64::from(k), push);
        }
        self.was.push_back(self.now);
        self.was.pop_front();
    }

    /// One step by Runge and Kutta.
    fn step(&mut self, time: f64, push: &dyn Fn(f64) -> Push) {
        let (at, step) = (self.now, self.step);
        let (start, middle, end) = (push(time), push(time + 0.5 * step), push(time + step));
        let a = self.rate(&at, &start);
        let b = self.rate(&at.plus(0.5 * step, &a), &middle);
        let c = self.rate(&at.plus(0.5 * step, &b), &middle);
        let d = self.rate(&at.plus(step, &c), &end);
        let sum = a.plus(2.0, &b).plus(2.0, &c).plus(1.0, &d);
        self.now = at.plus(step / 6.0, &sum);
        self.now.filled = self.now.filled.clamp(0.0, 1.0);
        if self.locked {
            self.now.trunk = self.now.heel;
            self.now.trunk_rate = self.now.heel_rate;
        }
        if self.mode != Mode::Up {
            // Legs and hull are one.
            self.now.legs = self.now.heel;
            self.now.legs_rate = self.now.heel_rate;
        }
    }

    /// What the balance tells the muscles, of what was.
    fn decide(&mut self, push: &Push) {
        let Some(late) = self.was.front().copied() else {
            return;
        };
        let (g, body) = (&self.balance, &self.body);
        let [g1, g2] = body.over;
        let whole = body.whole();
        if self.mode == Mode::Seated {
            self.told = [0.0, g2 * (1.6 * late.trunk + 0.5 * late.trunk_rate)];
            return;
        }
        let lean = (g1 * late.legs + g2 * late.trunk) / whole;
        let rate = (g1 * late.legs_rate + g2 * late.trunk_rate) / whole;
        // Leans against what pulls at the rod.
        let against = -push.rod * (body.hip + 0.3 * self.boat.angler.stature) / whole;
        let wanted_lean = against;
        let trunk = against;
        let heel = push.moment / self.boat.stiffness[1];
        let legs = (whole * wanted_lean - g2 * trunk) / g1;
        let off = lean - wanted_lean - g.deck * (late.heel - heel) - g.wave * push.slope;
        let asked =
            g.gain * off + g.rate * (rate - g.deck * late.heel_rate) - g.ankle * (legs - heel);
        let feet = whole * asked;
        // What the stance cannot give the hips do (Horak and Nashner, 1986).
        let needed = feet + g.ankle * whole * (late.legs - late.heel);
        let limit = self.limit();
        let unmet = needed - needed.clamp(-limit, limit);
        let hips = g2 * (legs + 0.8 * (late.trunk - trunk) + 0.2 * late.trunk_rate)
            - (g.hips * unmet).clamp(-HIPS, HIPS);
        self.told = [feet, hips];
    }

    /// Most torque the feet give, N·m.
    fn limit(&self) -> f64 {
        self.boat.angler.mass * GRAVITY * (0.5 * STANCE + FOOT)
    }

    /// Rates of everything at a state.
    fn rate(&self, at: &At, push: &Push) -> At {
        let (boat, body) = (self.boat, &self.body);
        let place = usize::from(self.mode == Mode::Up);
        let [m11, m12, m22] = body.inertia;
        let [i1, i2] = body.own;
        let [g1, g2] = body.over;
        let lift = boat.displaced * GRAVITY * boat.arms[place].at(at.heel - push.slope, at.filled);
        let hull = -self.damping * at.heel_rate - lift + push.moment;
        let delta = at.legs - at.trunk;
        let (sin, cos) = delta.sin_cos();
        let hips = self.hips(at);
        let shoulders = 0.30 * boat.angler.stature;
        let trunk_torque = g2 * (at.trunk.sin() - push.slope * at.trunk.cos())
            + m12 * sin * at.legs_rate.powi(2)
            - hips
            + shoulders * push.force * at.trunk.cos();
        let legs_torque = g1 * (at.legs.sin() - push.slope * at.legs.cos())
            - m12 * sin * at.trunk_rate.powi(2)
            + hips
            + push.force * body.hip * at.legs.cos();
        let inertia = boat.inertia + boat.added;
        let solve = |a: f64, b: f64, c: f64, x: f64, y: f64| {
            let det = a * c - b * b;
            ((x * c - y * b) / det, (a * y - b * x) / det)
        };
        let (heel, legs, trunk) = if self.locked {
            let one = (hull + legs_torque + trunk_torque) / (inertia + body.stiff());
            (one, one, one)
        } else if self.mode == Mode::Up {
            let feet = self.feet(at);
            let (legs, trunk) = solve(
                m11 + i1,
                m12 * cos,
                m22 + i2,
                legs_torque - feet,
                trunk_torque,
            );
            ((hull + feet) / inertia, legs, trunk)
        } else {
            let (heel, trunk) = solve(
                inertia + m11 + i1,
                m12 * cos,
                m22 + i2,
                hull + legs_torque,
                trunk_torque,
            );
            (heel, heel, trunk)
        };
        let heeled = (at.heel - push.slope).abs();
        let filled = if heeled > boat.runs_in {
            (1.0 - at.filled) / FILLS[1]
        } else if heeled > boat.wets {
            (1.0 - at.filled) / FILLS[0]
        } else {
            -at.filled / FILLS[2]
        };
        At {
            heel: at.heel_rate,
            heel_rate: heel,
            legs: at.legs_rate,
            legs_rate: legs,
            trunk: at.trunk_rate,
            trunk_rate: trunk,
            feet: (self.told[0] - at.feet) / LAG,
            hips: (self.told[1] - at.hips) / LAG,
            filled,
        }
    }

    /// Torque from the legs onto the hull, N·m.
    fn feet(&self, at: &At) -> f64 {
        let whole = self.body.whole();
        let g = &self.balance;
        let passive = g.ankle * (at.legs - at.heel) + g.damping * (at.legs_rate - at.heel_rate);
        let limit = self.limit();
        (whole * passive + at.feet).clamp(-limit, limit)
    }

    /// Torque from the trunk onto the legs, N·m.
    fn hips(&self, at: &At) -> f64 {
        let g2 = self.body.over[1];
        let (stiff, damped) = match self.mode {
            Mode::Up => (1.0, 0.12),
            Mode::Seated => (0.8, 0.12),
            Mode::Stiff => (6.0, 0.5),
        };
        g2 * (stiff * (at.trunk - at.legs) + damped * (at.trunk_rate - at.legs_rate)) + at.hips
    }
}
