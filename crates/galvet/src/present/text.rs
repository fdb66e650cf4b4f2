//! The ranking as lines for a terminal.

use crate::terminal::harmless;
use galvet_core::base::System;
use galvet_core::figures::{Assessment, Quantity};
use galvet_core::hull::Survey;
use galvet_core::question::Brief;
use galvet_core::rank::{Ranked, Ranking, explain, told};
use std::io::Write;

fn figure(entry: &Ranked, q: Quantity) -> String {
    let value = entry.assessment.median(q);
    value.map_or("not known".to_owned(), |v| q.row().text(System::Metric, v))
}

/// Gaps and contradictions of a record, and what must be said of the hull under this
/// question, a line each.
fn findings(
    out: &mut impl Write,
    survey: &Survey,
    assessment: Option<&Assessment>,
    brief: &Brief,
) -> std::io::Result<()> {
    let gaps = survey.findings().into_iter().map(|f| f.text);
    let said = assessment.map_or_else(Vec::new, |a| told(a, brief, System::Metric));
    for text in gaps.chain(said) {
        writeln!(out, "    ? {}", harmless(&text))?;
    }
    Ok(())
}

/// Writes the ranking in metric units, with what must be known of the records.
///
/// # Errors
/// What the writer says.
pub fn ranking(out: &mut impl Write, ranking: &Ranking) -> std::io::Result<()> {
    for (i, entry) in ranking.ranked.iter().enumerate() {
        writeln!(
            out,
            "{:>2}. {}: {} in hand, lean room {} brief, {} lasting, standing support {}",
            i + 1,
            harmless(&entry.survey().name()),
            figure(entry, Quantity::BindingMargin),
            figure(entry, Quantity::LeanRoom),
            figure(entry, Quantity::LastingLean),
            figure(entry, Quantity::StandingSupport),
        )?;
        if let Some(peril) = explain::peril(entry) {
            writeln!(out, "    ! {peril}")?;
        }
        let why = explain::why(ranking, i, System::Metric);
        writeln!(out, "    {}", harmless(&why))?;
        findings(out, entry.survey(), Some(&entry.assessment), &ranking.brief)?;
    }
    if ranking.ranked.is_empty() {
        writeln!(out, "No hull passes this brief.")?;
    }
    if !ranking.ruled_out.is_empty() {
        writeln!(out, "\nRuled out:")?;
    }
    for entry in &ranking.ruled_out {
        let reasons: Vec<String> = entry
            .reasons
            .iter()
            .map(|r| r.text(System::Metric))
            .collect();
        let name = harmless(&entry.survey.name());
        writeln!(out, "  - {name}: {}", reasons.join("; "))?;
        findings(
            out,
            &entry.survey,
            entry.assessment.as_deref(),
            &ranking.brief,
        )?;
    }
    writeln!(
        out,
        "\nEstimates for guidance; the maker's rated capacity and instructions stand above them."
    )
}
