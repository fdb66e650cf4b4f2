//! Water loose inside the hull: a leak, an open hatch. It runs to one side within a degree
//! or two, so stiffness is judged to 5°, and it runs to an end.

use super::held::{Fill, Held, Space, Vessel};
use crate::body::{Body, Outline};
use crate::float::{Weight, clearance};

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

/// Most water looked at, m³.
const MOST: f64 = 0.4;
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

    /// Whether rim and the deck's ends stand over the water.
    fn floats(&self, volume: f64, slope: f64) -> bool {
        let body = self.vessel.body;
        let Some(held) = self.upright(volume, slope) else {
            return false;
        };
        let ends = [body.gunwale.first(), body.gunwale.last()];
        let ends: Vec<_> = ends.into_iter().flatten().copied().collect();
        let over = |line: &[_]| clearance(line, body.middle(), &held.at).0[0] > 0.0;
        over(&body.rim) && over(&ends)
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

    /// At how much water what is lost.
    #[must_use]
    pub fn limits(&self) -> Option<Loosened> {
        let slope = self.upright(0.0, 0.0)?.slope();
        let founders = Self::until(MOST, |v| self.floats(v, slope));
        let most = founders.unwrap_or(MOST);
        let gm_zero = Self::gone(most, |v| self.gm(v, slope).unwrap_or(-2.0));
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
