//! What of a hull is to be checked or measured: one list, each with the way to the very
//! field that takes it.

use super::next::NextStep;
use galvet_core::base::Keyed;
use galvet_core::hull::{About, Finding};

/// Where something odd or missing is put right.
pub struct Lead {
    /// What its button says.
    pub act: &'static str,
    /// The page of the hull, behind its own address.
    pub page: &'static str,
    /// What is opened on it.
    pub opens: Option<(&'static str, String)>,
    /// The field.
    pub field: String,
}

/// One thing to check or measure.
pub enum Check {
    /// Something of the record that is odd, or missing.
    Record(Finding, Lead),
    /// What would tell most, with where it is put in.
    Next(NextStep),
}

impl Check {
    /// What is to be done, in a word.
    #[must_use]
    pub const fn word(&self) -> &'static str {
        match self {
            Self::Record(finding, _) if finding.contradiction => "To put right",
            Self::Record(..) => "Missing",
            Self::Next(_) => "Next",
        }
    }

    /// What it is about, in a line.
    #[must_use]
    pub fn title(&self) -> &str {
        match self {
            Self::Record(finding, _) => &finding.text,
            Self::Next(step) => &step.title,
        }
    }
}

fn lead(finding: &Finding) -> Lead {
    let put = if finding.contradiction {
        "Put it right"
    } else {
        "Put it in"
    };
    let to = |page, opens, field: &str| Lead {
        act: put,
        page,
        opens,
        field: field.to_owned(),
    };
    match &finding.about {
        About::Measure(m) => {
            let key = m.key();
            to(
                "/record",
                Some(("measure", key.to_owned())),
                &format!("{key}-value"),
            )
        }
        About::Zone(name) => to("/walk", Some(("zone", name.clone())), "zone-title"),
        About::Fitting(name) => to("/fittings", Some(("at", name.clone())), "at-title"),
        About::Bottom => to("/record", None, "word-bottom"),
        About::Basis => to("/record", None, "word-basis"),
        About::Modifications => to("/changes", None, ""),
    }
}

/// Whether a step takes what a finding misses.
fn takes(step: &NextStep, finding: &Finding) -> bool {
    match &finding.about {
        About::Measure(m) => step.figure.is_some_and(|(key, _)| key == m.key()),
        About::Bottom => !step.bottoms.is_empty(),
        _ => false,
    }
}

/// All of it: what disagrees first, then what would tell most, then what else is missing.
#[must_use]
pub fn checks(findings: Vec<Finding>, next: Vec<NextStep>) -> Vec<Check> {
    let asked = |f: &Finding| !f.contradiction && next.iter().any(|step| takes(step, f));
    let left = findings.into_iter().filter(|f| !asked(f));
    let (odd, missing): (Vec<Finding>, Vec<Finding>) = left.partition(|f| f.contradiction);
    let record = |finding: Finding| {
        let lead = lead(&finding);
        Check::Record(finding, lead)
    };
    let missing: Vec<Check> = missing.into_iter().map(record).collect();
    let mut all: Vec<Check> = odd.into_iter().map(record).collect();
    all.extend(next.into_iter().map(Check::Next));
    all.extend(missing);
    all
}
