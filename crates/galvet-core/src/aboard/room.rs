//! What of a hull's inside water may run through: between its bulkheads, less what bags and
//! foam keep dry.

use crate::body::{Body, Fan, Outline};
use crate::figures::Setup;
use crate::hull::{Construction, FittingKind, Source};

/// What shuts water out of a hull's inside.
#[derive(Debug, Clone, PartialEq)]
pub struct Shut {
    /// From where to where along the hull water runs freely, m from the bow's datum.
    pub between: [f64; 2],
    /// Middle of each bag or block of foam along the hull, m, and what it takes up, m³.
    pub bags: Vec<(f64, f64)>,
    /// Whether a bulkhead is on record.
    pub walled: bool,
}

impl Shut {
    /// Nothing: water runs from end to end.
    #[must_use]
    pub fn nothing(body: &Body<1>) -> Self {
        Self {
            between: [body.bow, body.bow + body.length],
            bags: Vec::new(),
            walled: false,
        }
    }

    /// What is on a hull's record and in its rig. Bulkheads count where somebody saw them: of the
    /// compartments they make, water is taken to be in the one with the seat in a hull one
    /// sits in, and in the longest of any other. A bag counts where it found a place shut
    /// in, or within a hull one sits in.
    #[must_use]
    pub fn of(setup: &Setup, body: &Body<1>) -> Self {
        let survey = &setup.posterior.survey;
        let inside = survey.construction == Construction::SitInside;
        let ends = [body.bow, body.bow + body.length];
        let fittings = survey.fitout.fittings_now();
        let walls = fittings
            .iter()
            .filter(|f| f.kind == FittingKind::Bulkhead && f.source != Source::Guess)
            .map(|f| body.bow + f.x);
        let mut edges: Vec<f64> = walls.filter(|x| *x > ends[0] && *x < ends[1]).collect();
        let walled = !edges.is_empty();
        edges.extend(ends);
        edges.sort_by(f64::total_cmp);
        let seat = setup.loads.crew_place(crate::load::Carriage::Seated);
        let rooms = edges.windows(2).map(|pair| [pair[0], pair[1]]);
        let between = if inside {
            rooms.into_iter().find(|r| (r[0]..=r[1]).contains(&seat))
        } else {
            rooms.max_by(|a, b| (a[1] - a[0]).total_cmp(&(b[1] - b[0])))
        };
        let lines = &setup.brief.rig.lines;
        let bags = setup.loads.layout.stowed.iter().filter_map(|s| {
            let lies = s.lies.as_ref()?;
            let thing = lines.get(s.line)?.thing.as_ref()?;
            let kept = thing.on_water.buoyancy?;
            (lies.shut_in || inside).then_some((s.x, kept))
        });
        Self {
            between: between.unwrap_or(ends),
            bags: bags.collect(),
            walled,
        }
    }

    /// The same with bags of `each` m³ pushed into both ends of where water runs.
    #[must_use]
    pub fn with_bags(mut self, each: f64) -> Self {
        let [from, to] = self.between;
        self.bags.extend([(from, each), (to, each)]);
        self
    }

    /// What both keep dry together, m³, by their own say.
    #[must_use]
    pub fn bagged(&self) -> f64 {
        self.bags.iter().map(|b| b.1).sum()
    }

    /// `outline` with what is shut left out. A bag fills the hull's whole section around
    /// its place, as far along as its volume reaches: what is left free keeps its full
    /// breadth, in which water runs to the low side.
    #[must_use]
    pub fn room(&self, body: &Body<1>, outline: &Outline<1>) -> Outline<1> {
        let k = body.points;
        // A station at an end stands for less than its weight says on that side.
        let [first, last] = [body.bow, body.bow + body.length];
        let between = [
            if self.between[0] > first {
                self.between[0]
            } else {
                f64::NEG_INFINITY
            },
            if self.between[1] < last {
                self.between[1]
            } else {
                f64::INFINITY
            },
        ];
        let stations = body.x.iter().zip(&body.weight);
        // Share of each station's part of the length that is free.
        let mut free: Vec<f64> = stations
            .map(|(x, weight)| {
                let (x, half) = (x.0[0], 0.5 * weight.0[0]);
                let from = (x - half).max(between[0]);
                let to = (x + half).min(between[1]);
                ((to - from) / (2.0 * half)).clamp(0.0, 1.0)
            })
            .collect();
        let area = |i: usize| outline.fan[i * k + k - 1].area.0[0] * body.weight[i].0[0];
        for &(at, volume) in &self.bags {
            let mut order: Vec<usize> = (0..free.len()).collect();
            let off = |i: &usize| (body.x[*i].0[0] - at).abs();
            order.sort_by(|a, b| off(a).total_cmp(&off(b)));
            let mut left = volume;
            for i in order {
                let room = free[i] * area(i);
                if left <= 0.0 || room <= 0.0 {
                    continue;
                }
                let takes = left.min(room);
                free[i] -= takes / area(i);
                left -= takes;
            }
        }
        let mut room = outline.clone();
        let mut volume = 0.0;
        for (i, &share) in free.iter().enumerate() {
            let span = i * k..(i + 1) * k;
            for y in &mut room.y[span.clone()] {
                *y = *y * share;
            }
            let fans: Vec<Fan<1>> =
                Fan::along(&room.y[span.clone()], &room.z[span.clone()]).collect();
            volume += fans[k - 1].area.0[0] * body.weight[i].0[0];
            room.fan[span].copy_from_slice(&fans);
        }
        room.volume.0[0] = volume;
        room
    }
}
