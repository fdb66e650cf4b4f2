//! What must be said of a hull beside its place, wherever the answer goes.

use super::rule_out::unchecked;
use super::wishes::minds;
use crate::base::{Dimension, System};
use crate::figures::Assessment;
use crate::question::Brief;

/// What must be said of a hull wherever the answer goes: limits asked for that nobody can
/// check, what a buyer must mind, and what label and measurements say.
#[must_use]
pub fn told(assessment: &Assessment, brief: &Brief, system: System) -> Vec<String> {
    let mut out = unchecked(assessment, brief);
    out.extend(minds(assessment, brief, system));
    out.extend(assessment.remarks().iter().cloned());
    let setup = &assessment.setup;
    let astray = setup.loads.layout.astray(&setup.brief.rig);
    if astray.abs() > 1e-3 {
        out.push(format!(
            "{} of the rig are not accounted for: please report this, and do not go by the load",
            system.text(Dimension::Mass, astray.abs(), 1)
        ));
    }
    out
}
