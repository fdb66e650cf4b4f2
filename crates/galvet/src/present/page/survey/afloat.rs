//! Measured afloat: what was, what it changed, and the forms for more.

use crate::answer::Afloat;
use crate::form::{FormView, NotTaken};
use crate::present::page::hulls::figure::figure_of;
use crate::present::page::hulls::hull::evidence;
use crate::survey::{Test, form_of_test};
use galvet_core::base::{Keyed, System};
use galvet_core::figures::{Assessment, Quantity};
use galvet_core::hull::{Measure, Survey};
use galvet_core::plausible::CannotFloat;
use galvet_core::plausible::tilt::Tilt;
use std::sync::Arc;
use strum::VariantArray;

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

/// A test that can be made, with its form.
pub struct TestForm {
    pub key: &'static str,
    pub label: &'static str,
    /// Whether it was just sent.
    pub open: bool,
    pub form: FormView,
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
    /// The tests that can be made.
    pub tests: Vec<TestForm>,
    /// What is wrong with what was sent.
    pub trouble: String,
}

/// What was sent with the forms, and what was made of it.
#[derive(Debug, Clone, Default)]
pub struct Sent {
    /// Which test it was.
    pub test: Option<Test>,
    /// As typed, and what was not understood of it.
    pub not_taken: NotTaken,
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
    (today, system): (&str, System),
) -> AfloatView {
    let compared = sent.only_looked || !survey.evidence.is_empty();
    let (changes, doubts) = match (before, after) {
        (Ok(before), Ok(after)) if compared => (
            changes(&before.assessment, &after.assessment, system),
            after.assessment.setup.posterior.doubts.clone(),
        ),
        _ => (Vec::new(), Vec::new()),
    };
    let untouched = NotTaken::default();
    let form = |&test: &Test| {
        let open = sent.test == Some(test);
        let not_taken = if open { &sent.not_taken } else { &untouched };
        TestForm {
            key: test.key(),
            label: test.label(),
            open,
            form: form_of_test(test, survey, today, (not_taken, system)),
        }
    };
    let tests: Vec<TestForm> = Test::VARIANTS.iter().map(form).collect();
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
        trouble: match sent.test {
            None => sent.not_taken.mistake(""),
            Some(_) => tests.iter().map(|t| t.form.trouble.as_str()).collect(),
        },
        tests,
    }
}

/// Figures whose middle or range is not what it was.
pub(crate) fn changes(before: &Assessment, after: &Assessment, system: System) -> Vec<Change> {
    let all = Quantity::ALL.iter().filter_map(|&q| {
        let (was, is) = (figure_of(before, q, system), figure_of(after, q, system));
        let shown = |f: &crate::present::page::hulls::figure::Figure| {
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
