//! A hull at rest with water standing in it: the water's surface is a plane parallel to the
//! one outside, and the hull is free in trim.

use crate::base::Lanes;
use crate::body::{Body, Outline};
use crate::float::{Attitude, Immersion, Weight, immerse, immerse_hull};

/// Volume and moments up to a plane: as [`Immersion`], of one lane.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub(crate) struct Part {
    /// Volume, m³.
    pub(crate) volume: f64,
    /// `∫(x - middle) dV`, m⁴.
    pub(crate) x: f64,
    /// `∫eta dV`, m⁴.
    pub(crate) eta: f64,
    /// `∫zeta dV`, m⁴.
    pub(crate) zeta: f64,
    /// Area of the plane within, m².
    pub(crate) area: f64,
}

impl Part {
    fn of(im: &Immersion<1>) -> Self {
        Self {
            volume: im.volume.0[0],
            x: im.x_moment.0[0],
            eta: im.eta_moment.0[0],
            zeta: im.zeta_moment.0[0],
            area: im.area.0[0],
        }
    }

    fn less(self, other: Self) -> Self {
        Self {
            volume: self.volume - other.volume,
            x: self.x - other.x,
            eta: self.eta - other.eta,
            zeta: self.zeta - other.zeta,
            area: self.area - other.area,
        }
    }
}

/// A space in which water may stand: what `within` holds, less what `without` takes up
/// of it.
#[derive(Debug, Clone, Copy)]
pub struct Space<'a> {
    /// The outline it lies within.
    pub within: &'a Outline<1>,
    /// What of it is no space: for a recess the body with the recess cut out.
    pub without: Option<&'a Outline<1>>,
}

impl Space<'_> {
    /// What of it lies under a plane.
    pub(crate) fn below(&self, body: &Body<1>, at: &Attitude<1>) -> Part {
        let whole = Part::of(&immerse_hull(body, self.within, at));
        match self.without {
            Some(solid) => whole.less(Part::of(&immerse_hull(body, solid, at))),
            None => whole,
        }
    }

    /// All it holds, m³.
    #[must_use]
    pub fn capacity(&self) -> f64 {
        let solid = self.without.map_or(0.0, |o| o.volume.0[0]);
        self.within.volume.0[0] - solid
    }
}

/// How full a space is.
#[derive(Clone, Copy)]
pub enum Fill<'a> {
    /// A volume, m³.
    Volume(f64),
    /// Up to a plane whose height at mid-length, m, follows from the slope; never below the
    /// water outside.
    Plane(&'a dyn Fn(f64) -> f64),
}

/// A hull under its load, before any water is in it.
#[derive(Debug, Clone, Copy)]
pub struct Vessel<'a> {
    /// The body.
    pub body: &'a Body<1>,
    /// What of it displaces water.
    pub outline: &'a Outline<1>,
    /// Its weight, without the water aboard.
    pub weight: Weight<1>,
    /// Density of the water inside and out, kg/m³.
    pub density: f64,
}

/// A hull at rest with water in it.
#[derive(Debug, Clone, PartialEq)]
pub struct Held {
    /// How it lies to the water outside.
    pub at: Attitude<1>,
    /// Height of each space's plane at mid-length, m, along the heeled vertical.
    pub levels: Vec<f64>,
    /// Water in each space, m³.
    pub water: Vec<f64>,
    /// Righting arm over the whole weight, water included, m.
    pub arm: f64,
}

impl Held {
    /// Height of the plane of a space at `x`, m.
    #[must_use]
    pub fn level_at(&self, space: usize, x: f64, middle: f64) -> f64 {
        self.levels[space] + self.at.slope.0[0] * (x - middle)
    }

    /// Slope of the water, the tangent of the trim.
    #[must_use]
    pub const fn slope(&self) -> f64 {
        self.at.slope.0[0]
    }

    /// All water aboard, m³.
    #[must_use]
    pub fn volume(&self) -> f64 {
        self.water.iter().sum()
    }
}

/// Slopes beyond this (about 17°) are a hull going down by its end.
const STEEPEST: f64 = 0.3;
/// First step of the search over trim, and how it grows.
const MARCH: (f64, f64) = (0.004, 1.5);
/// Residual volume allowed, m³: a millilitre.
const CLOSE: f64 = 1e-6;
/// Residual moment allowed, of the load times the length: trim to a few thousandths of a
/// degree.
const LEVEL: f64 = 3e-6;

/// Root of a function that rises from below zero to above it, by Newton's method kept
/// within its bracket; `f` gives value and slope, and what it found on the way.
fn rising<T>(
    (mut low, mut high): (f64, f64),
    guess: f64,
    close: f64,
    f: impl Fn(f64) -> (f64, f64, T),
) -> (f64, T) {
    let mut x = guess.clamp(low, high);
    for _ in 0..60 {
        let (value, slope, found) = f(x);
        if value.abs() <= close {
            return (x, found);
        }
        if value < 0.0 {
            low = x;
        } else {
            high = x;
        }
        let newton = x - value / slope;
        x = if newton > low && newton < high {
            newton
        } else {
            0.5 * (low + high)
        };
        if high - low < 1e-10 {
            break;
        }
    }
    (x, f(x).2)
}

/// The problem at one heel.
struct Trimming<'a> {
    vessel: &'a Vessel<'a>,
    spaces: &'a [(Space<'a>, Fill<'a>)],
    heel: f64,
    /// Lowest and highest place of the body along the heeled vertical, m.
    reach: (f64, f64),
}

impl Vessel<'_> {
    /// Where it rests at `heel` (rad) with its spaces filled so: the stable trim nearest to
    /// `slope` on the side to which it goes from there (loose water makes trim unstable
    /// and lets it jump). `None` where no trim holds it or the water has no room.
    #[must_use]
    pub fn rest(&self, heel: f64, spaces: &[(Space<'_>, Fill<'_>)], slope: f64) -> Option<Held> {
        let (low, high) = self.reach(heel);
        let trimming = Trimming {
            vessel: self,
            spaces,
            heel,
            reach: (low, high),
        };
        let first = vec![0.5 * (low + high); spaces.len() + 1];
        trimming.search(slope, first)
    }

    /// The same from a rest that lies near, with as many spaces or one.
    #[must_use]
    pub fn rest_near(
        &self,
        heel: f64,
        spaces: &[(Space<'_>, Fill<'_>)],
        near: &Held,
    ) -> Option<Held> {
        let trimming = Trimming {
            vessel: self,
            spaces,
            heel,
            reach: self.reach(heel),
        };
        let levels = (0..spaces.len()).map(|k| near.levels.get(k).or(near.levels.first()));
        let draft = near.at.draft.0[0];
        let first = std::iter::once(draft).chain(levels.map(|l| l.copied().unwrap_or(draft)));
        trimming.search(near.slope(), first.collect())
    }

    /// Lowest and highest place of the body along the heeled vertical, m.
    fn reach(&self, heel: f64) -> (f64, f64) {
        let (sin, cos) = heel.sin_cos();
        let (mut low, mut high) = (f64::INFINITY, f64::NEG_INFINITY);
        for (y, z) in self.outline.y.iter().zip(&self.outline.z) {
            let aside = (y.0[0] * sin).abs();
            low = low.min(z.0[0] * cos - aside);
            high = high.max(z.0[0] * cos + aside);
        }
        (low, high)
    }

    /// GM to an angle, m: the righting arm at `heel` (rad) over its sine, as loose water
    /// lets it.
    #[must_use]
    pub fn gm_to(&self, heel: f64, spaces: &[(Space<'_>, Fill<'_>)], slope: f64) -> Option<f64> {
        let held = self.centred().rest(heel, spaces, slope)?;
        Some(held.arm / heel.sin())
    }

    /// The same from a rest that lies near.
    #[must_use]
    pub fn gm_near(&self, heel: f64, spaces: &[(Space<'_>, Fill<'_>)], near: &Held) -> Option<f64> {
        let held = self.centred().rest_near(heel, spaces, near)?;
        Some(held.arm / heel.sin())
    }

    /// The same with its weight in the middle: stiffness is a rise from any list.
    fn centred(&self) -> Self {
        Self {
            weight: Weight {
                y: Lanes::ZERO,
                ..self.weight
            },
            ..*self
        }
    }
}

impl Trimming<'_> {
    fn plane(&self, draft: f64, slope: f64) -> Attitude<1> {
        Attitude {
            heel: self.heel,
            draft: Lanes([draft]),
            slope: Lanes([slope]),
        }
    }

    /// Drafts between which every level lies at a slope.
    fn bracket(&self, slope: f64) -> (f64, f64) {
        let over = 0.5 * self.vessel.body.length * slope.abs() + 0.05;
        (self.reach.0 - over, self.reach.1 + over)
    }

    /// At a slope: the rest of draft alone, and the moment that is left, m⁴ (it rises
    /// through zero where trim is stable). `None` where the weight or the water has no
    /// room.
    fn at(&self, slope: f64, guess: &mut [f64]) -> Option<(Held, f64)> {
        let (vessel, body) = (self.vessel, self.vessel.body);
        let load = vessel.weight.mass.0[0] / vessel.density;
        let bracket = self.bracket(slope);
        let planes = self.spaces.iter().map(|(_, fill)| match fill {
            Fill::Volume(_) => None,
            Fill::Plane(height) => Some(height(slope)),
        });
        let planes: Vec<Option<f64>> = planes.collect();
        let inside = |k: usize, draft: f64| {
            let at = self.plane(draft, slope);
            self.spaces[k].0.below(body, &at)
        };
        let mut fixed = 0.0;
        for (space, fill) in self.spaces {
            if let Fill::Volume(volume) = fill {
                if *volume > space.capacity() - CLOSE {
                    return None;
                }
                fixed += volume;
            }
        }
        if load + fixed > 0.995 * vessel.outline.volume.0[0] {
            return None;
        }
        let hull = |draft: f64| Part::of(&immerse(body, vessel.outline, &self.plane(draft, slope)));
        let (draft, mut net) = rising(bracket, guess[0], CLOSE, |draft| {
            let hull = hull(draft);
            let (mut spare, mut area) = (hull.volume - load - fixed, hull.area);
            for (k, plane) in planes.iter().enumerate() {
                if let Some(plane) = plane {
                    let part = inside(k, plane.max(draft));
                    spare -= part.volume;
                    if draft > *plane {
                        area -= part.area;
                    }
                }
            }
            (spare, area.max(1e-6), hull)
        });
        guess[0] = draft;
        let (mut levels, mut water) = (Vec::new(), Vec::new());
        for (k, (_, fill)) in self.spaces.iter().enumerate() {
            let (level, part) = match fill {
                Fill::Plane(_) => {
                    let level = planes[k].map_or(draft, |plane| plane.max(draft));
                    (level, inside(k, level))
                }
                Fill::Volume(volume) if *volume <= 0.0 => (bracket.0, Part::default()),
                Fill::Volume(volume) => rising(bracket, guess[k + 1], CLOSE, |level| {
                    let part = inside(k, level);
                    (part.volume - volume, part.area.max(1e-6), part)
                }),
            };
            guess[k + 1] = level;
            levels.push(level);
            water.push(part.volume);
            net = net.less(part);
        }
        let (sin, cos) = self.heel.sin_cos();
        let w = &vessel.weight;
        let x_g = w.x.0[0] - body.middle();
        let zeta_g = w.z.0[0] * cos - w.y.0[0] * sin;
        let eta_g = w.y.0[0] * cos + w.z.0[0] * sin;
        let left = net.x + slope * net.zeta - load * (x_g + slope * zeta_g);
        let whole = load + water.iter().sum::<f64>();
        let held = Held {
            at: self.plane(draft, slope),
            levels,
            water,
            arm: (net.eta - load * eta_g) / whole,
        };
        Some((held, left))
    }

    fn search(&self, start: f64, mut guess: Vec<f64>) -> Option<Held> {
        /// A hair's slope, to see which way a balance tips.
        const HAIR: f64 = 1e-4;
        let load = self.vessel.weight.mass.0[0] / self.vessel.density;
        let close = LEVEL * load * self.vessel.body.length;
        let (held, left) = self.at(start, &mut guess)?;
        let mut from = (start, left);
        let ahead = if left.abs() <= close {
            let (_, after) = self.at(start + HAIR, &mut guess)?;
            let (_, before) = self.at(start - HAIR, &mut guess)?;
            if after >= 0.0 && before <= 0.0 {
                return Some(held);
            }
            from = if after < 0.0 {
                (start + HAIR, after)
            } else {
                (start - HAIR, before)
            };
            after < 0.0
        } else {
            left < 0.0
        };
        let side = if ahead { 1.0 } else { -1.0 };
        let mut step = MARCH.0;
        loop {
            let slope = from.0 + side * step;
            if slope.abs() > STEEPEST {
                return None;
            }
            let (held, left) = self.at(slope, &mut guess)?;
            if left.abs() <= close {
                return Some(held);
            }
            if (left > 0.0) == ahead {
                return self.between(from, (slope, left), close, &mut guess);
            }
            from = (slope, left);
            step *= MARCH.1;
        }
    }

    /// The root between two slopes of different sign, by false position (Illinois).
    fn between(
        &self,
        mut a: (f64, f64),
        mut b: (f64, f64),
        close: f64,
        guess: &mut [f64],
    ) -> Option<Held> {
        for _ in 0..40 {
            let slope = b.0 - b.1 * (b.0 - a.0) / (b.1 - a.1);
            let (held, left) = self.at(slope, guess)?;
            if left.abs() <= close || (b.0 - a.0).abs() < 1e-9 {
                return Some(held);
            }
            if left * b.1 < 0.0 {
                a = b;
            } else {
                a.1 *= 0.5;
            }
            b = (slope, left);
        }
        self.at(b.0, guess).map(|(held, _)| held)
    }
}
