//! What each outing was foretold by what is known without it, against what was read.

use crate::answer::{Desk, Hull};
use galvet_core::hull::{Evidence, Survey};
use galvet_core::log::{Judged, Outing, Read, readings};
use galvet_core::plausible::{Foretold, Posterior, foretold};
use std::sync::Arc;

/// A reading of an outing.
#[derive(Debug, Clone, PartialEq)]
pub(crate) struct Reading {
    /// What was read.
    pub(crate) read: Read,
    /// As evidence of the hull.
    pub(crate) evidence: Evidence,
    /// Whether it stands on the hull's record.
    pub(crate) on_record: bool,
    /// Number by number: read and foretold; empty where nothing floats.
    pub(crate) foretold: Vec<Foretold>,
}

/// The readings of an outing, each foretold by what is known of its hull without it: a
/// reading that was taken over does not foretell itself.
pub(crate) fn of_outing(desk: &Desk, hull: &Hull, outing: &Outing) -> Vec<Reading> {
    let all = readings(outing, desk.guides()).into_iter();
    let one = |(read, evidence): (Read, Evidence)| {
        let on_record = hull.survey.evidence.contains(&evidence);
        let shapes: Option<Arc<Posterior>> = if on_record {
            let others = hull.survey.evidence.iter();
            let others = others.filter(|e| **e != evidence).cloned();
            let without = Hull {
                known: None,
                survey: Arc::new(Survey {
                    evidence: others.collect(),
                    ..(*hull.survey).clone()
                }),
            };
            desk.shapes(&without).ok()
        } else {
            desk.shapes(hull).ok()
        };
        Reading {
            foretold: shapes.map_or(Vec::new(), |shapes| foretold(&shapes, &evidence)),
            read,
            evidence,
            on_record,
        }
    };
    all.map(one).collect()
}

/// Outings with readings that are judged: the newest.
const NEWEST: usize = 200;

/// Every number read on any of the newest outings, with what was foretold of it.
pub(crate) fn judged(desk: &Desk, hulls: &[Hull], outings: &[Outing]) -> Vec<Judged> {
    let mut all = Vec::new();
    let read = |o: &&Outing| !readings(o, desk.guides()).is_empty();
    for outing in outings.iter().filter(read).take(NEWEST) {
        let Some(hull) = hulls.iter().find(|h| h.survey.key == outing.hull) else {
            continue;
        };
        for reading in of_outing(desk, hull, outing) {
            all.extend(reading.foretold.into_iter().map(|foretold| Judged {
                outing: outing.key.clone(),
                day: outing.day.clone(),
                hull: outing.hull.clone(),
                read: reading.read,
                foretold,
            }));
        }
    }
    all
}
