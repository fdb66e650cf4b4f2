//! What is said of a hull's place: what it may do there, or why it has none.

use galvet_core::base::System;
use galvet_core::figures::Assessment;
use galvet_core::question::Brief;
use galvet_core::rank::passes;

/// The peril said beside a hull's place, and what rules it out: of the two, one is empty.
pub fn said(assessment: &Assessment, brief: &Brief, system: System) -> (String, Vec<String>) {
    match passes(assessment, brief) {
        Ok(peril) => (peril.map_or(String::new(), |p| p.text()), Vec::new()),
        Err(reasons) => {
            let texts = reasons.iter().map(|reason| reason.text(system));
            (String::new(), texts.collect())
        }
    }
}
