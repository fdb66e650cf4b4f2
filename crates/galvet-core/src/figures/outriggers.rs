//! Floats on arms beside a hull: those built onto it and those of its rig, as high over
//! the water as they were set with everything aboard.

use crate::base::Lanes;
use crate::body::{AddedFloats, Body};
use crate::float::Settled;
use crate::gear::Outriggers;
use crate::hull::{FittingKind, Survey};
use crate::load::LoadPlan;
use crate::rig::Rig;
use std::sync::Arc;

/// Share of the beam that a float must lie outside of on its side: one that reaches no
/// further lies against the hull, and would count what the hull displaces a second time.
const OUTSIDE: f64 = 0.40;

/// What stands beside a hull.
#[derive(Debug, Clone)]
pub struct Rigged {
    /// Middle of each pair along the hull, m from the bow's datum, and the pair.
    pub pairs: Vec<(f64, Outriggers)>,
    /// What was aboard when they were set.
    pub(super) set_with: LoadPlan,
}

impl Rigged {
    /// What is built onto a hull of that beam, m, and what of its rig found a place; `None`
    /// for nothing. Floats that lie against the hull are left out.
    pub(super) fn of(
        survey: &Survey,
        rig: &Rig,
        loads: &LoadPlan,
        (bow, beam): (f64, f64),
    ) -> Option<Arc<Self>> {
        let fittings = survey.fitout.fittings_now();
        let built = fittings.iter().filter_map(|f| match f.kind {
            FittingKind::Outriggers {
                length,
                diameter,
                reach,
                clear,
            } => Some((
                bow + f.x,
                Outriggers {
                    length,
                    diameter,
                    reach,
                    clear,
                },
            )),
            _ => None,
        });
        let stowed = loads.layout.stowed.iter().filter_map(|s| {
            s.lies.as_ref()?;
            let thing = rig.lines.get(s.line)?.thing.as_ref()?;
            Some((s.x, thing.on_water.outriggers?))
        });
        let outside = |o: &Outriggers| o.reach - 0.5 * o.diameter >= OUTSIDE * beam;
        let pairs: Vec<_> = built.chain(stowed).filter(|(_, o)| outside(o)).collect();
        (!pairs.is_empty()).then(|| {
            Arc::new(Self {
                pairs,
                set_with: loads.clone(),
            })
        })
    }

    /// The bodies with the floats beside them: each as high over the water as it
    /// was set to while the boat lay at rest, seated, without them. Where a shape does not
    /// rest so, as high over its floor.
    /// `rest` is how they lay then.
    pub(super) fn beside<const N: usize>(&self, body: &Body<N>, rest: &Settled<N>) -> Body<N> {
        let mut body = body.clone();
        let middle = body.middle();
        for (at, pair) in &self.pairs {
            let radius = 0.5 * pair.diameter;
            let water = rest.attitude.water_at(*at, middle);
            let floor = body.standing_height;
            let z = Lanes::from_fn(|i| {
                let from = if rest.rests(i) { water } else { floor };
                from.0[i] + pair.clear + radius
            });
            body.floats.push(AddedFloats {
                along: [at - 0.5 * pair.length, at + 0.5 * pair.length],
                y: pair.reach,
                radius,
                z,
            });
        }
        body
    }
}
