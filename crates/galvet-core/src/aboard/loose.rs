//! Water loose inside the hull: a leak, an open hatch. It runs to one side within a degree
//! or two, so stiffness is judged to 5°, and it runs to an end.

use crate::body::{Body, EdgePoint, Outline};
use crate::draining::{Fill, Held, Space, Vessel};
use crate::float::{Weight, clearance};

/// What of a polygon lies under a level (Sutherland and Hodgman, Commun. ACM 17 (1974)).
fn under(polygon: &[(f64, f64)], level: f64) -> Vec<(f64, f64)> {
    let mut out = Vec::new();
    for (i, &(y0, z0)) in polygon.iter().enumerate() {
        let (y1, z1) = polygon[(i + 1) % polygon.len()];
        if z0 <= level {
            out.push((y0, z0));
        }
        if (z0 <= level) != (z1 <= level) {
            let t = (level - z0) / (z1 - z0);
            out.push((y0 + t * (y1 - y0), level));
        }
    }
    out
}

/// A hull into which water comes.
#[derive(Debug, Clone)]
pub struct Loose<'a> {
    vessel: Vessel<'a>,
    space: Space<'a>,
    /// The line below which the floor is wet; `None` where nothing wets it.
    floor: bool,
}

/// Water at which something is lost, m³.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Loosened {
    /// The lowest floor meets the water outside; `None` where it has no open floor.
    pub wet_floor: Option<f64>,
    /// GM to 5° is gone; `None` where it is not before it founders.
    pub gm_zero: Option<f64>,
    /// Rim or a deck's end goes under, or no trim holds; `None` for none up to the most
    /// that is looked at.
    pub founders: Option<f64>,
}

/// A hull with so much water loose inside it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Leaking {
    /// Water inside, m³.
    pub water: f64,
    /// Least height of the gunwale over the water outside, m.
    pub freeboard: f64,
    /// Trim, rad, bow up positive.
    pub trim: f64,
    /// GM to 5°, m.
    pub gm: f64,
    /// Largest lasting shift of the angler's body to one side that it answers, m.
    pub lean: f64,
}

/// A section amidships with water in it, as it lies heeled: horizontal to starboard and up
/// from the water outside, m.
#[derive(Debug, Clone, PartialEq)]
pub struct Wetted {
    /// The hull's skin all round.
    pub skin: Vec<(f64, f64)>,
    /// The water inside.
    pub inside: Vec<(f64, f64)>,
}

/// A hull one sits in, its cockpit full to the rim.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Swamped {
    /// Water in it, m³.
    pub volume: f64,
    /// Least height of the rim over the water outside, m.
    pub rim: f64,
    /// Least GM to 5° on the way there, m: what rolls half full does not stay to be full.
    pub gm: f64,
}

/// Most water looked at, m³.
const MOST: f64 = 0.4;
/// Volumes looked at on the way there, m³.
const WAY: [f64; 8] = [0.01, 0.02, 0.035, 0.055, 0.085, 0.13, 0.2, 0.3];
/// How closely a volume is found, m³.
const CLOSE: f64 = 2e-4;
/// Heel to which the stiffness is taken, rad.
const SECANT: f64 = 5.0 * std::f64::consts::PI / 180.0;

impl<'a> Loose<'a> {
    /// Of a body that displaces with `outline`, with water in `space`; `floor` where its
    /// floor is wetted by the water outside.
    #[must_use]
    pub fn new(
        (body, outline): (&'a Body<1>, &'a Outline<1>),
        space: Space<'a>,
        (weight, density): (Weight<1>, f64),
        floor: bool,
    ) -> Self {
        Self {
            vessel: Vessel {
                body,
                outline,
                weight,
                density,
            },
            space,
            floor,
        }
    }

    fn pool(&self, volume: f64) -> [(Space<'a>, Fill<'a>); 1] {
        [(self.space, Fill::Volume(volume))]
    }

    /// Held upright with so much water in it, m³; from the trim it has without.
    #[must_use]
    pub fn upright(&self, volume: f64, slope: f64) -> Option<Held> {
        self.vessel.rest(0.0, &self.pool(volume), slope)
    }

    /// GM to 5° with so much water in it, m.
    #[must_use]
    pub fn gm(&self, volume: f64, slope: f64) -> Option<f64> {
        let upright = self.upright(volume, slope)?;
        self.vessel.gm_near(SECANT, &self.pool(volume), &upright)
    }

    /// Height of the lowest floor over the water, m.
    fn floor_over(&self, held: &Held) -> f64 {
        let body = self.vessel.body;
        clearance(&body.floor, body.middle(), &held.at).0[0]
    }

    /// How far rim and the deck's ends stand over the water, m; `None` where it does not
    /// hold.
    fn dry(&self, volume: f64, slope: f64) -> Option<f64> {
        let body = self.vessel.body;
        let held = self.upright(volume, slope)?;
        let ends = [body.gunwale.first(), body.gunwale.last()];
        let ends: Vec<_> = ends.into_iter().flatten().copied().collect();
        let over = |line: &[_]| clearance(line, body.middle(), &held.at).0[0];
        Some(over(&body.rim).min(over(&ends)))
    }

    /// Whether they do.
    fn floats(&self, volume: f64, slope: f64) -> bool {
        self.dry(volume, slope).is_some_and(|over| over > 0.0)
    }

    /// The least volume at which a figure that falls is gone, between none and `most`;
    /// `None` where it is not. False position (Illinois), since it falls evenly.
    fn gone(most: f64, figure: impl Fn(f64) -> f64) -> Option<f64> {
        let (first, last) = (figure(0.0), figure(most));
        if first <= 0.0 {
            return Some(0.0);
        }
        if last > 0.0 {
            return None;
        }
        let (mut low, mut high) = ((0.0, first), (most, last));
        while high.0 - low.0 > CLOSE {
            let even = low.0 + (high.0 - low.0) * low.1 / (low.1 - high.1);
            // Where there is no figure at all, by halves.
            let v = if even.is_finite() && high.1 > -1.0 {
                even.clamp(low.0 + 0.5 * CLOSE, high.0 - 0.5 * CLOSE)
            } else {
                0.5 * (low.0 + high.0)
            };
            let now = figure(v);
            if now > 0.0 {
                low = (v, now);
                high.1 *= 0.5;
            } else {
                high = (v, now);
                low.1 *= 0.5;
            }
        }
        Some(0.5 * (low.0 + high.0))
    }

    /// The same for a figure that may fall and rise again, as stiffness does where a
    /// compartment fills up: looked at on the way, closest where a thin layer runs about.
    fn first_gone(most: f64, figure: impl Fn(f64) -> f64) -> Option<f64> {
        let mut before = 0.0;
        for v in WAY.into_iter().filter(|v| *v < most).chain([most]) {
            if figure(v) <= 0.0 {
                let from = before;
                return Self::gone(v - from, |more| figure(from + more)).map(|more| from + more);
            }
            before = v;
        }
        None
    }

    /// The least volume at which `holds` no longer does, between none and `most`; `None`
    /// where it does all the way.
    fn until(most: f64, holds: impl Fn(f64) -> bool) -> Option<f64> {
        if !holds(0.0) {
            return Some(0.0);
        }
        if holds(most) {
            return None;
        }
        let (mut low, mut high) = (0.0, most);
        while high - low > CLOSE {
            let middle = 0.5 * (low + high);
            if holds(middle) {
                low = middle;
            } else {
                high = middle;
            }
        }
        Some(0.5 * (low + high))
    }

    /// How it lies with so much water in it, the angler weighing `crew` kg; `None` where it
    /// does not hold.
    pub(super) fn leaking(&self, volume: f64, crew: f64) -> Option<Leaking> {
        /// Heels at which a lean is looked at, °.
        const HEELS: [f64; 6] = [1.25, 2.5, 5.0, 10.0, 15.0, 20.0];
        let slope = self.upright(0.0, 0.0)?.slope();
        if !self.floats(volume, slope) {
            return None;
        }
        let held = self.upright(volume, slope)?;
        let body = self.vessel.body;
        let whole = self.vessel.weight.mass.0[0] + self.vessel.density * volume;
        let shift = |degrees: &f64| {
            let heel = degrees.to_radians();
            let gm = self.vessel.gm_near(heel, &self.pool(volume), &held)?;
            Some(whole * gm * heel.sin() / (crew * heel.cos()))
        };
        Some(Leaking {
            water: volume,
            freeboard: clearance(&body.gunwale, body.middle(), &held.at).0[0],
            trim: held.slope().atan(),
            gm: self.gm(volume, slope)?,
            lean: HEELS.iter().filter_map(shift).fold(0.0, f64::max),
        })
    }

    /// The section nearest to the middle with so much water in it, held at `heel` rad.
    pub(super) fn section(&self, volume: f64, heel: f64) -> Option<Wetted> {
        let slope = self.upright(0.0, 0.0)?.slope();
        let upright = self.upright(volume, slope)?;
        let held = self.vessel.rest_near(heel, &self.pool(volume), &upright)?;
        let body = self.vessel.body;
        let middle = body.middle();
        let off = |i: &usize| (body.x[*i].0[0] - middle).abs();
        let at = (0..body.x.len()).min_by(|a, b| off(a).total_cmp(&off(b)))?;
        let x = body.x[at].0[0];
        let span = at * body.points..(at + 1) * body.points;
        let outside = held.at.water_at(x, middle).0[0];
        let (sin, cos) = heel.sin_cos();
        let turned = |outline: &Outline<1>| -> Vec<(f64, f64)> {
            let half = outline.y[span.clone()].iter().zip(&outline.z[span.clone()]);
            let half: Vec<(f64, f64)> = half.map(|(y, z)| (y.0[0], z.0[0])).collect();
            let port = half.iter().rev().map(|&(y, z)| (-y, z));
            let turn = |(y, z): (f64, f64)| (y * cos + z * sin, z * cos - y * sin - outside);
            half.iter().copied().chain(port).map(turn).collect()
        };
        let level = held.level_at(0, x, middle) - outside;
        let inside = under(&turned(self.space.within), level);
        (inside.len() > 2).then(|| Wetted {
            skin: turned(self.vessel.outline),
            inside,
        })
    }

    /// The most that is looked at, m³: no more than there is room for.
    fn most(&self) -> f64 {
        MOST.min(self.space.capacity() - 2.0 * CLOSE).max(0.0)
    }

    /// With its cockpit full to the lowest place of the rim, upright; `None` where it goes
    /// down before.
    #[must_use]
    pub fn swamped(&self) -> Option<Swamped> {
        let body = self.vessel.body;
        let slope = self.upright(0.0, 0.0)?.slope();
        let room = |held: &Held| {
            let over = |p: &EdgePoint<1>| p.z.0[0] - held.level_at(0, p.x.0[0], body.middle());
            body.rim.iter().map(over).fold(f64::INFINITY, f64::min)
        };
        let below = |v: f64| self.upright(v, slope).is_some_and(|held| room(&held) > 0.0);
        let most = self.most();
        let volume = Self::until(most, below).unwrap_or(most);
        // A hair before the rim: beyond it there may be no rest.
        let volume = (volume - CLOSE).max(0.0);
        if !self.floats(volume, slope) {
            return None;
        }
        let held = self.upright(volume, slope)?;
        let on_the_way = WAY.iter().map(|v| v * volume / MOST).chain([volume]);
        let gms = on_the_way.map(|v| self.gm(v, slope).unwrap_or(-2.0));
        Some(Swamped {
            volume,
            rim: clearance(&body.rim, body.middle(), &held.at).0[0],
            gm: gms.fold(f64::INFINITY, f64::min),
        })
    }

    /// At how much water what is lost.
    #[must_use]
    pub fn limits(&self) -> Option<Loosened> {
        let slope = self.upright(0.0, 0.0)?.slope();
        let all = self.most();
        let founders = Self::gone(all, |v| self.dry(v, slope).unwrap_or(-2.0));
        let most = founders.unwrap_or(all);
        let gm = |v: f64| self.gm(v, slope).unwrap_or(-2.0);
        let gm_zero = Self::first_gone(most, gm);
        let over = |v: f64| {
            self.upright(v, slope)
                .map_or(-2.0, |held| self.floor_over(&held))
        };
        let wet_floor = if self.floor {
            Self::gone(most, over)
        } else {
            None
        };
        Some(Loosened {
            wet_floor,
            gm_zero,
            founders,
        })
    }
}
