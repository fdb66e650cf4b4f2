//! All tests of the core's public face in one binary: three dozen of them took longer to
//! link than to run.
#![allow(clippy::unwrap_used, reason = "tests")]

mod common;
mod stow_hull;

mod ahead;
mod closed_forms;
mod company;
mod coverage;
mod day;
mod demands;
mod effort;
mod event_rules;
mod evidence;
mod false_alarms;
mod figures;
mod flip;
mod foretold;
mod handling;
mod ignorance;
mod log;
mod mass;
mod mesh;
mod metamorphic;
mod moving;
mod on_water;
mod outriggers;
mod pack;
mod papers;
mod plausible;
mod pond;
mod portrait;
mod properties;
mod ranking;
mod ranking_rules;
mod remedies;
mod sanity;
mod scuppers;
mod sense;
mod set_up;
mod stow;
mod stow_follows;
mod truth;
mod truth_record;
mod typed;
mod water_aboard;
mod wishes;
