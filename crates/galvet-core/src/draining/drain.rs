//! A deck full of water: how long it takes to drain, what stays, how unsteady it is
//! meanwhile; and how fast water comes up through scuppers in a lasting lean.
//!
//! Each scupper is a short tube: `Q = C_d a √(2 g h)` with the head between the levels at
//! its own place (Idelchik, *Hydraulic Resistance*, 1986).

use super::held::{Fill, Held, Space, Vessel};
use super::inlet::Inlet;
use crate::base::GRAVITY;
use crate::body::{Body, Outline};
use crate::float::Weight;
use crate::guide::{Guide, Guides};
use crate::hull::{Flooded, Recess};
use std::borrow::Cow;
use std::f64::consts::PI;

/// A deck with its recesses, and the hull beneath it under its load.
#[derive(Debug, Clone)]
pub struct Deck<'a> {
    vessel: Vessel<'a>,
    /// The recesses as one.
    whole: Space<'a>,
    /// Each on its own, where there are two: cockpit and tank well.
    apart: Option<[Space<'a>; 2]>,
    /// Where the well begins, and its floor there, m.
    sill: (f64, f64),
    inlets: &'a [Inlet],
    discharge: f64,
}

/// What becomes of a deck that was filled to the brim.
#[derive(Debug, Clone, PartialEq)]
pub struct Draining {
    /// Water on it when brim-full, m³.
    pub brim: f64,
    /// Until the water over every inlet is within 5 mm of what stays, s; `None` where it
    /// never is.
    pub clear: Option<f64>,
    /// Until GM to 5° is over its limit for good, s; `None` where it never is.
    pub tender: Option<f64>,
    /// Greatest depth that stays, m.
    pub stays: f64,
    /// Seconds, and what is aboard then, m³, as it drains.
    pub course: Vec<(f64, f64)>,
}

/// How a lasting lean fills a deck.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Filling {
    /// Until half of what it would hold at that heel is in, s; `None` where no inlet is
    /// under water.
    pub half: Option<f64>,
    /// What it would hold, m³.
    pub holds: f64,
}

/// Water this near what stays counts as gone, m.
const CLEAR: f64 = 0.005;
/// Heel to which the stiffness is taken, rad.
const SECANT: f64 = 5.0 * PI / 180.0;
/// Share of the water that leaves in one step.
const SHARE: f64 = 0.14;
/// Steps at most, and the longest a deck is watched, s.
const STEPS: usize = 400;
const LONGEST: f64 = 3_600.0;
/// Flow that is none any more, m³/s: a litre in three hours.
const TRICKLE: f64 = 1e-7;

/// The body with its cockpit alone open, and with its well alone open; `None` where it has
/// no well of its own.
#[must_use]
pub fn apart(body: &Body<1>) -> Option<[Cow<'_, Outline<1>>; 2]> {
    let well = body.recess.iter().flatten().any(|r| *r == Recess::TankWell);
    let open = |cockpit: bool| {
        body.outline(Flooded {
            cockpit,
            tank_well: !cockpit,
        })
    };
    well.then(|| [open(true), open(false)])
}

impl<'a> Deck<'a> {
    /// The deck of a body under a weight; `outlines` are the body with its cockpit alone
    /// open and with its well alone open, where it has both.
    #[must_use]
    pub fn new(
        body: &'a Body<1>,
        outlines: Option<[&'a Outline<1>; 2]>,
        (weight, density): (Weight<1>, f64),
        inlets: &'a [Inlet],
        guides: &Guides,
    ) -> Self {
        let space = |solid: &'a Outline<1>| Space {
            within: &body.sealed,
            without: Some(solid),
        };
        let well = body
            .recess
            .iter()
            .position(|r| *r == Some(Recess::TankWell));
        let sill = well.map_or((f64::INFINITY, f64::NEG_INFINITY), |i| {
            let before = if i == 0 {
                body.x[0].0[0]
            } else {
                body.x[i - 1].0[0]
            };
            let floor = body.solid.z[(i + 1) * body.points - 1].0[0];
            (0.5 * (before + body.x[i].0[0]), floor)
        });
        Self {
            vessel: Vessel {
                body,
                outline: &body.sealed,
                weight,
                density,
            },
            whole: space(&body.solid),
            apart: outlines.map(|o| o.map(space)),
            sill,
            inlets,
            discharge: guides[Guide::Discharge],
        }
    }

    fn middle(&self) -> f64 {
        self.vessel.body.middle()
    }

    /// Height at mid-length of a plane of some slope through a place.
    fn through(&self, (x, z): (f64, f64), slope: f64) -> f64 {
        z - slope * (x - self.middle())
    }

    /// The highest plane the rim holds, upright.
    fn brim(&self, slope: f64) -> f64 {
        let rim = self.vessel.body.rim.iter();
        let places = rim.map(|p| self.through((p.x.0[0], p.z.0[0]), slope));
        places.fold(f64::INFINITY, f64::min)
    }

    /// The plane to which a recess drains, upright: its lowest inlet that lets water out,
    /// or the sill to the other; the brim where nothing drains.
    fn drained(&self, recess: Option<Recess>, slope: f64) -> f64 {
        let lowest = |of: Option<Recess>| {
            let all = self.inlets.iter().filter(|i| i.drains());
            let own = all.filter(|i| of.is_none_or(|r| i.recess == r));
            own.map(|i| self.through((i.x, i.floor), slope))
                .fold(f64::INFINITY, f64::min)
        };
        let own = lowest(recess);
        let end = if own.is_finite() || !lowest(None).is_finite() {
            own
        } else {
            self.through(self.sill, slope).max(lowest(None))
        };
        end.min(self.brim(slope))
    }

    /// Spaces and their fills: both recesses together, or each on its own.
    fn pooled<'b>(&'b self, volume: f64) -> [(Space<'b>, Fill<'b>); 1] {
        [(self.whole, Fill::Volume(volume))]
    }

    /// Flow out of the recesses at a rest, m³/s: cockpit and well.
    fn flows(&self, held: &Held, heel: f64) -> [f64; 2] {
        let mut out = [0.0; 2];
        for inlet in self.inlets {
            let own = usize::from(inlet.recess == Recess::TankWell);
            let pool = if held.levels.len() > 1 { own } else { 0 };
            let inside = held.level_at(pool, inlet.x, self.middle());
            let outside = held.at.water_at(inlet.x, self.middle()).0[0];
            out[own] += inlet.flow((inside, outside), inlet.turned(heel), self.discharge);
        }
        out
    }

    /// Whether the water over every inlet that drains is within 5 mm of what stays.
    fn is_clear(&self, held: &Held, end: &Held) -> bool {
        let level = |at: &Held, inlet: &Inlet| {
            let own = usize::from(inlet.recess == Recess::TankWell);
            let pool = if at.levels.len() > 1 { own } else { 0 };
            at.level_at(pool, inlet.x, self.middle())
        };
        let draining = self.inlets.iter().filter(|i| i.drains());
        draining.into_iter().all(|inlet| {
            let left = level(held, inlet).max(inlet.floor);
            left - level(end, inlet).max(inlet.floor) <= CLEAR
        })
    }

    /// GM to 5° with the water of a rest running about in its recesses, m.
    fn stiffness(&self, held: &Held) -> f64 {
        let pools: Vec<(Space<'_>, Fill<'_>)> = match &self.apart {
            Some(apart) if held.water.len() > 1 => {
                let each = apart.iter().zip(&held.water);
                each.map(|(&space, &v)| (space, Fill::Volume(v))).collect()
            }
            _ => self.pooled(held.volume()).to_vec(),
        };
        let gm = self.vessel.gm_near(SECANT, &pools, held);
        gm.unwrap_or(f64::NEG_INFINITY)
    }

    /// The rest with everything drained that drains.
    fn end(&self) -> Option<Held> {
        let [cockpit, well] = [Recess::Cockpit, Recess::TankWell];
        let one = |slope: f64| self.drained(None, slope);
        let (fore, aft) = (
            |slope: f64| self.drained(Some(cockpit), slope),
            |slope: f64| self.drained(Some(well), slope),
        );
        let pools: Vec<(Space<'_>, Fill<'_>)> = match &self.apart {
            Some([a, b]) => vec![(*a, Fill::Plane(&fore)), (*b, Fill::Plane(&aft))],
            None => vec![(self.whole, Fill::Plane(&one))],
        };
        self.vessel.rest(0.0, &pools, 0.0)
    }

    /// The rest with the recess full to its brim; `None` where no rest holds it so, or the
    /// rim lies under the water outside.
    fn full(&self) -> Option<Held> {
        let brim = |slope: f64| self.brim(slope);
        let held = self
            .vessel
            .rest(0.0, &[(self.whole, Fill::Plane(&brim))], 0.0)?;
        let outside = held.at.draft.0[0];
        (outside <= self.brim(held.slope()) + 1e-9).then_some(held)
    }

    /// Greatest depth of the water of a rest, m.
    fn deepest(&self, held: &Held) -> f64 {
        let sill = self.vessel.body.sill.iter();
        let depth = sill.map(|p| {
            let pool = usize::from(held.levels.len() > 1 && p.x.0[0] >= self.sill.0);
            held.level_at(pool, p.x.0[0], self.middle()) - p.z.0[0]
        });
        depth.fold(0.0, f64::max)
    }

    /// From brim-full until nothing changes any more. `None` where it does not float with
    /// its recess full: then it fills, and what is asked of it has no answer.
    #[must_use]
    pub fn drain(&self, steady: f64) -> Option<Draining> {
        let full = self.full()?;
        let brim = full.volume();
        if !self.inlets.iter().any(Inlet::drains) {
            return Some(Draining {
                brim,
                clear: None,
                tender: (self.stiffness(&full) > steady).then_some(0.0),
                stays: self.deepest(&full),
                course: vec![(0.0, brim)],
            });
        }
        let end = self.end()?;
        let stays = self.deepest(&end);
        let mut seen = vec![(0.0, full.clone())];
        let clear = self.run(full, &end, &mut seen);
        let tender = if self.stiffness(&end) > steady {
            self.steadies(&seen, steady)
        } else {
            None
        };
        Some(Draining {
            brim,
            clear,
            tender,
            stays,
            course: seen.iter().map(|(t, held)| (*t, held.volume())).collect(),
        })
    }

    /// Seconds from brim-full until it is clear; `None` where it never is.
    #[must_use]
    pub fn clears(&self) -> Option<f64> {
        if !self.inlets.iter().any(Inlet::drains) {
            return None;
        }
        self.run(self.full()?, &self.end()?, &mut Vec::new())
    }

    /// Lets the water run; when it is clear. What it passes through is noted.
    fn run(&self, full: Held, end: &Held, seen: &mut Vec<(f64, Held)>) -> Option<f64> {
        let (mut time, mut held) = (0.0, full);
        for _ in 0..STEPS {
            if self.is_clear(&held, end) {
                return Some(time);
            }
            let over = held.levels[0] > self.through(self.sill, held.slope());
            if let Some(apart) = &self.apart
                && held.levels.len() == 1
                && !over
            {
                // The sill comes out of the water: from here each drains on its own.
                let plane = held.at;
                let at = crate::float::Attitude {
                    draft: crate::base::Lanes([held.levels[0]]),
                    ..plane
                };
                let parts = apart.map(|s| s.below(self.vessel.body, &at).volume.max(0.0));
                held = self.split(parts, &held)?;
            }
            let out = self.flows(&held, 0.0);
            let whole: f64 = out.iter().sum();
            let (next, step) = if held.levels.len() == 1 {
                if whole < TRICKLE {
                    return None;
                }
                let gone = SHARE * held.volume();
                let less = self.pooled(held.volume() - gone);
                let next = self.vessel.rest_near(0.0, &less, &held)?;
                let after: f64 = self.flows(&next, 0.0).iter().sum();
                // Time for a volume: the mean of one over the flow at both ends.
                (next, 0.5 * gone * (1.0 / whole + 1.0 / after.max(TRICKLE)))
            } else {
                self.apart_step(&held, out)?
            };
            // The moment it is clear lies within the step: found by how far it has come.
            if self.is_clear(&next, end) {
                let share = self.clear_within(&held, &next, end);
                seen.push((time + step, next));
                return Some(time + share * step);
            }
            time += step;
            held = next;
            seen.push((time, held.clone()));
            if time > LONGEST {
                return None;
            }
        }
        None
    }

    /// At which share of a step the last inlet comes clear, the level falling evenly.
    fn clear_within(&self, before: &Held, after: &Held, end: &Held) -> f64 {
        let mid = self.middle();
        let level = |at: &Held, i: &Inlet| {
            let own = usize::from(i.recess == Recess::TankWell);
            at.level_at(if at.levels.len() > 1 { own } else { 0 }, i.x, mid)
                .max(i.floor)
        };
        let shares = self.inlets.iter().filter(|i| i.drains()).map(|i| {
            let limit = level(end, i) + CLEAR;
            let (from, to) = (level(before, i), level(after, i));
            if from <= limit {
                0.0
            } else {
                ((from - limit) / (from - to).max(1e-12)).clamp(0.0, 1.0)
            }
        });
        shares.fold(0.0, f64::max)
    }

    /// The rest with so much in the cockpit and in the well.
    fn split(&self, water: [f64; 2], near: &Held) -> Option<Held> {
        let apart = self.apart.as_ref()?;
        let pools = [
            (apart[0], Fill::Volume(water[0])),
            (apart[1], Fill::Volume(water[1])),
        ];
        self.vessel.rest_near(0.0, &pools, near)
    }

    /// A step of two recesses draining each on its own (Heun's method), and its time, s.
    fn apart_step(&self, held: &Held, out: [f64; 2]) -> Option<(Held, f64)> {
        // What has nothing to lose does not set the pace.
        let pace = |k: usize| {
            let some = held.water[k] > 1e-5 && out[k] > TRICKLE;
            if some {
                held.water[k] / out[k]
            } else {
                f64::INFINITY
            }
        };
        let step = 1.5 * SHARE * pace(0).min(pace(1));
        if !step.is_finite() {
            return None;
        }
        let after = |flow: [f64; 2]| {
            let left = |k: usize| (held.water[k] - flow[k] * step).max(0.0);
            self.split([left(0), left(1)], held)
        };
        let ahead = self.flows(&after(out)?, 0.0);
        let mean = [0.5 * (out[0] + ahead[0]), 0.5 * (out[1] + ahead[1])];
        Some((after(mean)?, step))
    }

    /// When it is steady for good, s: it is at the end; the last moment at which it is
    /// not is looked for from there.
    fn steadies(&self, seen: &[(f64, Held)], steady: f64) -> Option<f64> {
        let tender = |k: usize| self.stiffness(&seen[k].1) <= steady;
        let last = (0..seen.len()).rev().step_by(3).find(|&k| tender(k));
        let Some(mut low) = last else {
            let first = !tender(0);
            return first.then_some(0.0);
        };
        let mut high = (low + 3).min(seen.len() - 1);
        while high > low + 1 {
            let middle = usize::midpoint(low, high);
            if tender(middle) {
                low = middle;
            } else {
                high = middle;
            }
        }
        // Evenly between the two, by how the stiffness grows.
        let (a, b) = (self.stiffness(&seen[low].1), self.stiffness(&seen[high].1));
        let share = ((steady - a) / (b - a).max(1e-9)).clamp(0.0, 1.0);
        let (t0, t1) = (seen[low].0, seen[high].0);
        Some(if a.is_finite() {
            t0 + share * (t1 - t0)
        } else {
            t1
        })
    }

    /// How a lean held at `heel` (rad) fills it: the deck dry at first, water coming up
    /// through what is open and under water.
    #[must_use]
    pub fn fill(&self, heel: f64) -> Option<Filling> {
        let none = |_: f64| f64::NEG_INFINITY;
        let end = self
            .vessel
            .rest(heel, &[(self.whole, Fill::Plane(&none))], 0.0)?;
        let holds = end.volume();
        let dry = self.vessel.rest(heel, &self.pooled(0.0), 0.0)?;
        let within = |held: &Held| -> f64 { -self.flows(held, heel).iter().sum::<f64>() };
        if within(&dry) < TRICKLE || holds <= 0.0 {
            return Some(Filling { half: None, holds });
        }
        const PARTS: u32 = 10;
        let step = 0.5 * holds / f64::from(PARTS);
        let (mut time, mut held) = (0.0, dry);
        for k in 1..=PARTS {
            let more = self.pooled(step * f64::from(k));
            let next = self.vessel.rest_near(heel, &more, &held)?;
            let (a, b) = (within(&held), within(&next));
            if b < TRICKLE {
                return Some(Filling { half: None, holds });
            }
            time += 0.5 * step * (1.0 / a + 1.0 / b);
            held = next;
        }
        Some(Filling {
            half: Some(time),
            holds,
        })
    }

    /// Area that rain falls on, m²: the recesses seen from above.
    #[must_use]
    pub fn plan_area(&self) -> f64 {
        let at = crate::float::Attitude {
            heel: 0.0,
            draft: crate::base::Lanes([self.brim(0.0) - 1e-6]),
            slope: crate::base::Lanes([0.0]),
        };
        self.whole.below(self.vessel.body, &at).area
    }
}

/// Water through an open hatch of `area` m² while a wave stands `head` m over it for
/// `seconds`, m³.
#[must_use]
pub fn hatch_volume(area: f64, head: f64, seconds: f64, guides: &Guides) -> f64 {
    guides[Guide::Discharge] * area * (2.0 * GRAVITY * head).sqrt() * seconds
}
