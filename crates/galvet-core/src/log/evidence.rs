//! What an outing says of its hull, as evidence of the hull's record.

use super::outing::Outing;
use crate::base::words;
use crate::effort::lasting;
use crate::guide::{Guide, Guides};
use crate::hull::{Evidence, FloatReading};

words! {
/// What was read on an outing that something was foretold of.
pub enum Read {
    /// How deep it lay.
    #[strum(message = "how deep it lies")]
    Draft,
    /// How fast it went.
    #[strum(message = "speed kept up")]
    Speed,
    /// How it drifted.
    #[strum(message = "drift in the wind")]
    Drift,
    /// How it drained.
    #[strum(message = "time to drain")]
    Drain,
}
}

/// The readings of an outing as evidence, each as if it had been typed on the hull's page of
/// float tests. Where nobody said what was aboard there is none: a mark says something of a
/// hull only together with its load.
#[must_use]
pub fn readings(outing: &Outing, guides: &Guides) -> Vec<(Read, Evidence)> {
    let Some(aboard) = outing.aboard else {
        return Vec::new();
    };
    let evidence = |reading| Evidence {
        aboard,
        density: outing.density,
        scuppers: outing.scuppers,
        date: outing.day.clone(),
        reading,
    };
    let mut all = Vec::new();
    if !outing.tape.heights.is_empty() {
        let reading = FloatReading::Heights {
            datum: outing.tape.datum,
            heights: outing.tape.heights.clone(),
        };
        all.push((Read::Draft, evidence(reading)));
    }
    if let Some(speed) = outing.speed {
        let reading = FloatReading::Speed {
            speed,
            watts: outing
                .effort
                .unwrap_or_else(|| lasting(outing.speed_by, guides)),
            by: outing.speed_by,
        };
        all.push((Read::Speed, evidence(reading)));
    }
    // A drift without the wind that made it says nothing.
    let wind = outing.wind.filter(|w| *w >= Evidence::WIND.lo);
    if let Some((speed, wind)) = outing.drift.zip(wind) {
        let reading = FloatReading::Drift {
            speed,
            wind,
            shows: guides[Guide::DragSitsSide] * f64::from(outing.people.max(1)),
        };
        all.push((Read::Drift, evidence(reading)));
    }
    if let Some(seconds) = outing.drained {
        all.push((Read::Drain, evidence(FloatReading::Drain { seconds })));
    }
    all
}
