//! The worst of a day: a figure is ranked as it is at the point of the day at which
//! it is worst.
//!
//! With everything aboard at once it is as heavy as it ever gets, which is worst
//! for nearly every figure. Not for all: before the bait water is in, or after the
//! ice has gone, it may trim further out of level or have less to lean on. Those
//! hours are floated as well.

use super::afloat::Afloat;
use super::quantity::{Better, Quantity, Values};
use super::setup::Setup;
use crate::base::Absent;
use crate::body::{Body, Shape};
use crate::float::{Accuracy, Fate, Start};
use crate::plausible::LANES;
use crate::stow::{Hour, LEVEL};
use rayon::prelude::*;
use std::cmp::Ordering;
use std::sync::Arc;

/// What one shape comes to: its figures, and what becomes of it.
pub type Found = (Values, Fate);

/// Differences below this share of a figure are the search's own
/// ([`Accuracy::SAMPLE`] takes its last steps along the waterplane).
const SAME: f64 = 5e-4;
/// Differences below this share of a figure are ranked, but not worth a word.
const TELLS: f64 = 0.01;

impl Quantity {
    /// The worse of two values of the figure, `NaN` where it does not exist: the
    /// lower where higher is better, the higher where lower is; of two trims the one
    /// further from the middle of what is level; of anything else the first.
    #[must_use]
    pub fn worse(self, a: f64, b: f64) -> f64 {
        match (a.is_finite(), b.is_finite()) {
            (true, true) => {}
            (true, false) => return if self.absent_is_well() { a } else { b },
            (false, true) => return if self.absent_is_well() { b } else { a },
            (false, false) => return a,
        }
        let level = 0.5 * (LEVEL.0 + LEVEL.1);
        let second = match (self, self.row().better) {
            (Self::Trim, _) => (b - level).abs() > (a - level).abs(),
            (_, Better::Higher) => b < a,
            (_, Better::Lower) => b > a,
            (_, Better::Neither) => false,
        };
        if second { b } else { a }
    }

    /// Where a shape without the figure stands among those with it: one that does not
    /// rest as the worst there can be, one that rests as the figure says.
    pub(super) const fn absent_counts_as(self, rests: bool) -> Absent {
        let well = rests && self.absent_is_well();
        match (self.row().better, well) {
            (Better::Neither, _) => Absent::Out,
            (Better::Higher, false) | (Better::Lower, true) => Absent::Lowest,
            (Better::Higher, true) | (Better::Lower, false) => Absent::Highest,
        }
    }

    /// Whether a hull without the figure is the better for it: what never goes under
    /// has no angle at which it does.
    pub(super) const fn absent_is_well(self) -> bool {
        matches!(
            self,
            Self::VanishingAngle
                | Self::EdgeAngle
                | Self::FloorWetAngle
                | Self::DownFlooding
                | Self::LevelShift
        )
    }
}

/// Takes for each figure the worse of what a shape comes to at two points of a day.
/// Where it does not float upright at one of them, that is what it comes to.
#[must_use]
pub fn worse(one: Found, other: &Found) -> Found {
    let (mut values, fate) = one;
    if !fate.is_rest() {
        return (values, fate);
    }
    let falls = !other.1.is_rest();
    for &q in Quantity::ALL {
        let then = other.0.raw(q);
        let gone = falls && !then.is_finite();
        let worst = if gone {
            f64::NAN
        } else {
            q.worse(values.raw(q), then)
        };
        values.set(q, worst);
    }
    (values, if falls { other.1 } else { fate })
}

/// The bodies of some shapes: the same all day.
type Drawn = Arc<Body<LANES>>;

/// A point of the day, with where its searches begin.
#[derive(Debug, Clone)]
pub(super) struct Point {
    /// The hull as it is then.
    pub setup: Setup,
    draft: f64,
    slope: f64,
}

impl Point {
    fn of(setup: Setup, middle: &Shape) -> Self {
        let first = Afloat::new(&setup, &[*middle], Accuracy::SAMPLE).case(setup.carriage());
        let start: Start<1> = first.upright.as_start();
        let (draft, slope) = (start.draft.0[0], start.slope.0[0]);
        Self {
            setup,
            draft,
            slope,
        }
    }

    /// All figures of some shapes at this point.
    fn figures(&self, shapes: &[Shape; LANES], body: &Drawn) -> [Found; LANES] {
        Afloat::of(&self.setup, shapes, body.clone(), Accuracy::SAMPLE)
            .near(self.draft, self.slope)
            .figures()
    }
}

/// The points of a day that count for a hull.
#[derive(Debug, Clone)]
pub(super) struct Day {
    /// Everything aboard at once.
    whole: Point,
    /// The hours that are floated as well.
    hours: Vec<(Hour, Point)>,
    /// At which of them each figure of the middle shape is worst by what is worth a
    /// word.
    worst: Vec<Option<Hour>>,
}

impl Day {
    /// Everything aboard at once alone, whatever comes and goes.
    pub fn at_once(setup: &Setup, middle: &Shape) -> Self {
        Self {
            whole: Point::of(setup.clone(), middle),
            hours: Vec::new(),
            worst: vec![None; Quantity::COUNT],
        }
    }

    /// Finds them: launch and return, and midday when any of some scouts has a figure
    /// that is worse then: the `middle` shape, and some from the shallowest to the
    /// deepest. Where nothing aboard comes or goes there is one point: clothes alone are
    /// worst when wet.
    pub fn of(setup: &Setup, middle: &Shape) -> Self {
        let shapes = &setup.posterior.shapes;
        let order = in_order(shapes, |a, b| a.depth.total_cmp(&b.depth));
        let scouts: [Shape; LANES] = std::array::from_fn(|i| match i {
            0 => *middle,
            _ => shapes[order[(order.len() - 1) * (i - 1) / (LANES - 2).max(1)]],
        });
        let scouts = &scouts;
        let mut day = Self::at_once(setup, &scouts[0]);
        let (layout, rig) = (&setup.loads.layout, &setup.brief.rig);
        if !layout.comes_and_goes(rig) {
            return day;
        }
        let body = day.draw(scouts);
        let mut found = day.whole.figures(scouts, &body);
        for hour in [Hour::Launch, Hour::Return, Hour::Midday] {
            let point = Point::of(setup.at(hour), &scouts[0]);
            let then = point.figures(scouts, &body);
            let together: [Found; LANES] =
                std::array::from_fn(|i| worse(found[i].clone(), &then[i]));
            // A margin may be less then in a shape unlike all scouts; midday alone lies
            // between the others.
            let adds = hour != Hour::Midday || (0..LANES).any(|i| differ(&found[i], &together[i]));
            if !adds {
                continue;
            }
            for &q in Quantity::ALL {
                if tells(found[0].0.raw(q), together[0].0.raw(q)) {
                    day.worst[q as usize] = Some(hour);
                }
            }
            found = together;
            day.hours.push((hour, point));
        }
        day
    }

    fn draw(&self, shapes: &[Shape; LANES]) -> Drawn {
        Arc::new(self.whole.setup.posterior.form.draw(shapes))
    }

    /// The worst of every figure over the points, for some shapes.
    pub fn figures(&self, shapes: &[Shape; LANES]) -> [Found; LANES] {
        let body = self.draw(shapes);
        let mut found = self.whole.figures(shapes, &body);
        for (_, point) in &self.hours {
            let then = point.figures(shapes, &body);
            found = std::array::from_fn(|i| worse(found[i].clone(), &then[i]));
        }
        found
    }

    /// The figures of the whole sample, in its order, in groups of [`LANES`]; the last
    /// group repeats its last shape to fill the lanes. Shapes of one bottom and like depth
    /// go together: the water meets their sections at the same edges, so that fewer have
    /// to be cut. The middle shape's rest is where all searches begin. Groups begun when
    /// it is not `wanted` any more are left out.
    pub fn sample(&self, wanted: &(dyn Fn() -> bool + Sync)) -> Vec<Found> {
        let shapes = &self.whole.setup.posterior.shapes;
        let order = in_order(shapes, |a, b| {
            let depth = a.depth.total_cmp(&b.depth);
            a.bottom.cmp(&b.bottom).then(depth)
        });
        let mut found: Vec<(usize, Found)> = order
            .par_chunks(LANES)
            .filter(|_| wanted())
            .flat_map_iter(|group| {
                let lanes: [Shape; LANES] =
                    std::array::from_fn(|i| shapes[group[i.min(group.len() - 1)]]);
                group.iter().copied().zip(self.figures(&lanes))
            })
            .collect();
        found.sort_unstable_by_key(|f| f.0);
        found.into_iter().map(|(_, figures)| figures).collect()
    }

    /// What stays known of it once the sample is evaluated.
    pub fn told(self) -> Told {
        Told {
            hours: self.hours.into_iter().map(|(hour, _)| hour).collect(),
            worst: self.worst,
        }
    }
}

/// Which hours of a day count, and for what. What lies where at each of them follows
/// from the hull with everything aboard, and is not kept.
#[derive(Debug, Clone)]
pub(super) struct Told {
    /// The hours that count beside everything aboard at once.
    pub hours: Vec<Hour>,
    worst: Vec<Option<Hour>>,
}

impl Told {
    /// The hour at which a figure of the middle shape is worst; `None` where that is
    /// with everything aboard at once.
    pub fn worst_at(&self, quantity: Quantity) -> Option<Hour> {
        self.worst[quantity as usize]
    }
}

/// Places of shapes in an order.
fn in_order(shapes: &[Shape], by: impl Fn(&Shape, &Shape) -> Ordering) -> Vec<usize> {
    let mut order: Vec<usize> = (0..shapes.len()).collect();
    order.sort_by(|&a, &b| by(&shapes[a], &shapes[b]));
    order
}

fn differ(a: &Found, b: &Found) -> bool {
    a.1.is_rest() != b.1.is_rest()
        || Quantity::ALL
            .iter()
            .any(|&q| changed(a.0.raw(q), b.0.raw(q)))
}

/// Whether a difference is worth naming the hour for.
fn tells(a: f64, b: f64) -> bool {
    a.is_finite() != b.is_finite() || (a - b).abs() > TELLS * a.abs().max(TELLS)
}

fn changed(a: f64, b: f64) -> bool {
    a.is_finite() != b.is_finite() || (a - b).abs() > SAME * a.abs().max(1e-3)
}
