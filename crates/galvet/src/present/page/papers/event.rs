//! A rig held against an event's rules.

use super::{LineView, Paper, PaperKind, Section, blank, some};
use galvet_core::base::Keyed;
use galvet_core::papers::{Checked, Facts, Outcome, Proof, RuleSet, check, told};

/// Against each of the sets chosen.
pub(super) fn checked(facts: &Facts<'_>, sets: &[&RuleSet]) -> Paper {
    let mut paper = blank(
        PaperKind::Event,
        "No event's rules are kept here yet: add one.".to_owned(),
        "Guidance: the event's own words and its stewards decide. What is printed only is not checked here.",
    );
    let mut leads = Vec::new();
    for set in sets {
        let all = check(facts, set);
        let (fails, unknown) = told(&all);
        leads.push(match (fails, unknown) {
            (0, 0) => format!("{}: passes as far as a record can tell.", set.name),
            (0, n) => format!(
                "{}: {} not known, which is no pass.",
                set.name,
                some(n, "line", "lines")
            ),
            (n, _) => format!("{}: fails in {}.", set.name, some(n, "line", "lines")),
        });
        paper.sections.push(Section {
            title: set.name.clone(),
            words: if set.note.is_empty() {
                Vec::new()
            } else {
                vec![set.note.clone()]
            },
            lines: all.iter().map(line).collect(),
            ..Section::default()
        });
    }
    if !leads.is_empty() {
        paper.lead = leads.join(" ");
    }
    paper
}

fn line(c: &Checked<'_>) -> LineView {
    let (word, known, red) = match &c.outcome {
        Outcome::Pass(said) => ("kept", said.clone(), false),
        Outcome::Fail(said) => ("broken", said.clone(), true),
        Outcome::Unknown(said) => ("not known", said.clone(), true),
        Outcome::Printed => ("for the stewards", String::new(), false),
    };
    let mut facts = vec![("comes out", word.to_owned())];
    if !c.rule.when.is_empty() {
        facts.push(("when", c.rule.when.clone()));
    }
    if c.rule.proof != Proof::Record {
        facts.push(("proved", c.rule.proof.label().to_owned()));
    }
    LineView {
        id: c.rule.id.clone(),
        text: if c.rule.text.is_empty() {
            c.rule.kind.label().to_owned()
        } else {
            c.rule.text.clone()
        },
        why: c.rule.effect.label().to_owned(),
        known,
        facts,
        red,
        ..LineView::default()
    }
}
