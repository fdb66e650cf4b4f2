//! Measured afloat: what was, what it changed, and the forms for more.

use super::figure::figure_of;
use super::hull::evidence;
use crate::answer::Afloat;
use crate::survey::SHIFTS;
use galvet_core::base::System;
use galvet_core::figures::{Assessment, Quantity};
use galvet_core::hull::{Measure, Survey};
use galvet_core::plausible::CannotFloat;
use galvet_core::plausible::tilt::Tilt;
use std::collections::{BTreeMap, HashMap};
use std::sync::Arc;

/// A figure before and after.
pub struct Change {
    pub label: &'static str,
    pub before: String,
    pub after: String,
    /// "half as wide"; empty where it is as wide as before.
    pub narrower: String,
}

/// A measurement on the record.
pub struct EvidenceLine {
    pub text: String,
    pub at: usize,
}

/// A field of the forms, as typed.
pub struct Typed {
    pub value: String,
    pub mistake: String,
}

/// The page.
pub struct AfloatView {
    pub key: String,
    pub name: String,
    pub evidence: Vec<EvidenceLine>,
    /// What the changes compare.
    pub compares: &'static str,
    pub changes: Vec<Change>,
    pub doubts: Vec<String>,
    /// A tilt test just looked at.
    pub tilt: String,
    pub remarks: Vec<&'static str>,
    /// The test just sent; empty for none.
    pub test: String,
    pub trouble: String,
    typed: HashMap<String, String>,
    mistakes: BTreeMap<String, String>,
    hull_mass: String,
}

impl AfloatView {
    /// Names and labels of a tilt test's fields, shift by shift.
    #[must_use]
    pub fn shifts(&self) -> Vec<(String, String)> {
        let of = |n: usize| {
            let fields = [
                ("moved", "weight moved"),
                ("way", "by, starboard +"),
                ("heel", "heel, degrees"),
            ];
            fields.map(|(name, label)| (format!("{name}-{n}"), format!("{n}: {label}")))
        };
        (1..=SHIFTS).flat_map(of).collect()
    }

    /// What stands in a field.
    #[must_use]
    pub fn field(&self, name: &str) -> Typed {
        let usual = match name {
            "aboard-place" => "54",
            "place-1" => "25",
            "place-2" => "50",
            "place-3" => "75",
            "hull-mass" => &self.hull_mass,
            _ => "",
        };
        Typed {
            value: self
                .typed
                .get(name)
                .map_or(usual, String::as_str)
                .to_owned(),
            mistake: self.mistakes.get(name).cloned().unwrap_or_default(),
        }
    }
}

/// What was sent with the forms, and what was made of it.
#[derive(Debug, Clone, Default)]
pub struct Sent {
    /// Fields as typed.
    pub typed: HashMap<String, String>,
    /// What was not understood.
    pub mistakes: BTreeMap<String, String>,
    /// A tilt test's result.
    pub tilt: Option<Tilt>,
    /// Whether it is only looked at: then the changes are those it would make.
    pub only_looked: bool,
}

/// Makes the page. `before` is without what is compared, `after` with it.
#[must_use]
pub fn afloat(
    survey: &Survey,
    before: &Result<Arc<Afloat>, CannotFloat>,
    after: &Result<Arc<Afloat>, CannotFloat>,
    sent: Sent,
    system: System,
) -> AfloatView {
    let compared = sent.only_looked || !survey.evidence.is_empty();
    let (changes, doubts) = match (before, after) {
        (Ok(before), Ok(after)) if compared => (
            changes(&before.assessment, &after.assessment, system),
            after.assessment.setup.posterior.doubts.clone(),
        ),
        _ => (Vec::new(), Vec::new()),
    };
    let weight = survey
        .value(Measure::FittedWeight)
        .or_else(|| survey.value(Measure::BareWeight));
    AfloatView {
        key: survey.key.clone(),
        name: survey.name(),
        evidence: survey
            .evidence
            .iter()
            .enumerate()
            .map(|(at, e)| EvidenceLine {
                text: evidence(e, system),
                at,
            })
            .collect(),
        compares: if sent.only_looked {
            "What this measurement would change"
        } else {
            "What was measured afloat changes"
        },
        changes,
        doubts,
        tilt: sent.tilt.as_ref().map_or(String::new(), |t| {
            let short = |m| Measure::Beam.text(system, m);
            // The scatter alone: what is believed of it is never closer than the
            // guide value says.
            format!(
                "GM {}, from readings that scatter by {}",
                short(t.gm),
                short(t.error)
            )
        }),
        remarks: sent.tilt.map_or(Vec::new(), |t| t.remarks),
        test: sent.typed.get("test").cloned().unwrap_or_default(),
        trouble: sent.mistakes.get("").cloned().unwrap_or_default(),
        typed: sent.typed,
        mistakes: sent.mistakes,
        hull_mass: weight.map_or(String::new(), |kg| Measure::BareWeight.text(system, kg)),
    }
}

/// Figures whose middle or range is not what it was.
fn changes(before: &Assessment, after: &Assessment, system: System) -> Vec<Change> {
    let all = Quantity::ALL.iter().filter_map(|&q| {
        let (was, is) = (figure_of(before, q, system), figure_of(after, q, system));
        let shown = |f: &super::figure::Figure| {
            if f.range.is_empty() {
                f.value.clone()
            } else {
                format!("{} ({})", f.value, f.range)
            }
        };
        let (was, is) = (shown(&was), shown(&is));
        if was == is {
            return None;
        }
        let width = |a: &Assessment| a.range(q).map(|r| r.p95 - r.p5);
        let narrower = match (width(before), width(after)) {
            (Some(b), Some(a)) if b > 0.0 && a < 0.95 * b => {
                format!("{:.0}\u{a0}% narrower", 100.0 * (1.0 - a / b))
            }
            _ => String::new(),
        };
        Some(Change {
            label: q.row().label,
            before: was,
            after: is,
            narrower,
        })
    });
    all.collect()
}
