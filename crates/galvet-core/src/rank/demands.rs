//! Whether a hull meets what the water and the launch ask of it.

use crate::aboard::{drain_times, scuppers_guessed};
use crate::base::{Dimension, Keyed, System};
use crate::figures::Assessment;
use crate::guide::Guide;
use crate::hull::{Construction, Judgement, Measure, Recess, holds_water};
use crate::question::{Brief, Demand, DemandUse};

/// A demand and what is known of a hull.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Met {
    /// What is asked.
    pub demand: Demand,
    /// Whether the hull does it; `None` where the record does not tell.
    pub met: Option<bool>,
    /// By how much it does not, SI; `None` where there is no amount.
    pub by: Option<f64>,
    /// What `by` measures.
    pub dimension: Dimension,
    /// Share of the possible shapes in which it does not, where the record does not tell
    /// but shapes do; else 0.
    pub likely_not: f64,
}

impl Met {
    /// The word used in JSON.
    #[must_use]
    pub const fn key(&self) -> &'static str {
        match self.met {
            Some(true) => "yes",
            Some(false) => "no",
            None => "unknown",
        }
    }

    /// What is not met, in the few words of a row: "12 kg too heavy to drag".
    #[must_use]
    pub fn short(&self, system: System) -> String {
        match (self.demand, self.met, self.by) {
            (Demand::OneDrags, Some(false), Some(by)) => {
                let amount = system.text(self.dimension, by, 0);
                if amount == system.text(self.dimension, 0.0, 0) {
                    "a hair too heavy to drag".to_owned()
                } else {
                    format!("{amount} too heavy to drag")
                }
            }
            (Demand::ClearsWave, Some(false), Some(by)) => {
                let amount = system.text(self.dimension, by, 0);
                format!("{amount} too slow to clear a wave")
            }
            (Demand::ClearsWave, Some(false), None) => "does not clear a wave".to_owned(),
            _ => self.text(system),
        }
    }

    /// "one person drags it: no, 12 kg too much".
    #[must_use]
    pub fn text(&self, system: System) -> String {
        let what = self.demand.label();
        match (self.met, self.by) {
            (Some(true), _) => format!("{what}: yes"),
            (None, _) => format!("{what}: not known"),
            (Some(false), None) => format!("{what}: no"),
            (Some(false), Some(by)) => {
                let decimals = if self.dimension == Dimension::Length {
                    2
                } else {
                    0
                };
                let amount = system.text(self.dimension, by, decimals);
                let least = system.text(self.dimension, 0.0, decimals);
                if amount == least {
                    format!("{what}: no, by a hair")
                } else {
                    format!("{what}: no, {amount} too much")
                }
            }
        }
    }
}

/// Everything the brief's water and launch ask, each with what the hull does.
#[must_use]
pub fn demands(assessment: &Assessment, brief: &Brief) -> Vec<Met> {
    let mut asked: Vec<Demand> = brief.water.demands.clone();
    asked.extend(brief.wishes.launch.demands());
    asked.sort_unstable();
    asked.dedup();
    asked.into_iter().map(|d| meets(assessment, d)).collect()
}

fn meets(assessment: &Assessment, demand: Demand) -> Met {
    let setup = &assessment.setup;
    let (survey, guides) = (&setup.posterior.survey, setup.guides());
    let plain = |met| Met {
        demand,
        met,
        by: None,
        dimension: Dimension::Ratio,
        likely_not: 0.0,
    };
    // Over a most.
    let most = |value: f64, most: f64, dimension| Met {
        demand,
        met: Some(value <= most),
        by: (value > most).then_some(value - most),
        dimension,
        likely_not: 0.0,
    };
    match demand {
        Demand::Drains => plain(match survey.construction {
            Construction::Board => Some(true),
            // Under a spray deck nothing fills.
            Construction::SitInside => Some(setup.sprayed()),
            Construction::SitOnTop => Some(!holds_water(&setup.scuppers, Recess::Cockpit)),
        }),
        Demand::OneDrags => {
            let weighed = [Measure::FittedWeight, Measure::BareWeight];
            let limit = guides[Guide::OneDrags];
            if weighed.into_iter().all(|m| survey.value(m).is_none()) {
                return Met {
                    likely_not: assessment.share_heavier(limit),
                    ..plain(None)
                };
            }
            most(assessment.fitted_mass(), limit, Dimension::Mass)
        }
        Demand::ClearsWave => clears_a_wave(assessment, plain(None)),
        Demand::HoldsCourse => plain(Some(survey.tracks_straight)),
        Demand::DriveLifts => plain(Some(!survey.propulsion.has_drive() || survey.drive_lifts)),
        Demand::Turns => {
            let slow = survey.looked.judged.get(&Judgement::Turning);
            if matches!(slow, Some(&"slow")) {
                return plain(Some(false));
            }
            let length = setup.posterior.form.length();
            most(length, guides[Guide::TurnsShort], Dimension::Length)
        }
    }
}

/// Whether a deck full of water is clear in time. Where nobody noted the scuppers and some
/// of the possible ones do not, it is not known.
fn clears_a_wave(assessment: &Assessment, asked: Met) -> Met {
    let setup = &assessment.setup;
    let with = |met| Met { met, ..asked };
    match setup.posterior.survey.construction {
        // Nothing stands on it; nothing leaves it.
        Construction::Board => return with(Some(true)),
        Construction::SitInside => return with(Some(setup.sprayed())),
        Construction::SitOnTop => {}
    }
    let limit = setup.guides()[Guide::ClearsIn];
    let mut seconds: Vec<f64> = assessment
        .drains(drain_times)
        .iter()
        .map(|s| s.unwrap_or(f64::INFINITY))
        .collect();
    if seconds.is_empty() {
        return with(None);
    }
    seconds.sort_by(f64::total_cmp);
    let late = seconds.iter().filter(|s| **s > limit).count() as f64 / seconds.len() as f64;
    if late > 0.0 && late < 1.0 && scuppers_guessed(&setup.posterior.survey) {
        return Met {
            likely_not: late,
            ..with(None)
        };
    }
    let middle = seconds[seconds.len() / 2];
    Met {
        met: Some(middle <= limit),
        by: (middle > limit && middle.is_finite()).then_some(middle - limit),
        dimension: Dimension::Time,
        ..asked
    }
}

/// Points that what is not met, or not known, costs under a brief.
#[must_use]
pub fn cost(assessment: &Assessment, brief: &Brief) -> f64 {
    if brief.demands == DemandUse::Aside {
        return 0.0;
    }
    let guides = assessment.setup.guides();
    let each = |met: &Met| match met.met {
        Some(true) => 0.0,
        Some(false) => guides[Guide::DemandUnmet],
        // What is likely not met costs as much as it is likely: a weight left out of a
        // record never lifts a heavy hull.
        None => guides[Guide::DemandUnknown].max(met.likely_not * guides[Guide::DemandUnmet]),
    };
    demands(assessment, brief).iter().map(each).sum()
}
