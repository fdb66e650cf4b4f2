//! `galvet rank`: the ranking without a browser.

use super::{Outcome, Problem, read_text};
use crate::answer::Answer;
use crate::demo_data;
use crate::terminal;
use galvet_core::hull::Survey;
use galvet_core::quantity::Quantity;
use galvet_core::rank::{Ranking, explain, rank, score::Scales};
use galvet_core::sample::DEFAULT_SIZE;
use galvet_core::units::System;
use galvet_store::files::{briefs, hulls};
use std::io::Write;
use std::path::PathBuf;

/// Rank hulls for a brief
///
/// Waters and rigs a brief names are the ones Galvet ships; without --hulls
/// the demo's hulls are ranked. The same code as the page.
#[derive(Debug, clap::Args)]
#[command(
    after_help = "Examples:\n  galvet rank --brief demo/briefs/1-reed-edge.json\n  galvet rank --brief my-brief.json --hulls shop.csv --json\n\nExit codes: 0 done, 1 done with findings (a record has gaps or contradictions), 2 could not."
)]
pub(crate) struct Args {
    /// The brief, JSON
    #[arg(long, value_name = "FILE")]
    brief: PathBuf,
    /// Hulls, CSV
    #[arg(long, value_name = "FILE")]
    hulls: Option<PathBuf>,
    /// Print JSON instead of a table
    #[arg(long)]
    json: bool,
}

pub(crate) fn run(args: &Args) -> Result<Outcome, Problem> {
    let shipped = demo_data::catalogue().map_err(Problem::Files)?;
    let (file, text) = read_text(&args.brief)?;
    let brief = briefs::read(&file, &text)?;
    let brief = briefs::resolve(&file, &brief, &shipped.rigs, &shipped.waters)?;
    let mut unknown = Vec::new();
    let records = match &args.hulls {
        None => shipped.hulls,
        Some(path) => {
            let (file, text) = read_text(path)?;
            let read = hulls::read(&file, &text).map_err(Problem::Files)?;
            unknown = read.unknown_columns;
            read.hulls
        }
    };
    let surveys: Vec<Survey> = records.into_iter().map(|r| r.survey).collect();
    let ranking = rank(&brief, &surveys, DEFAULT_SIZE, &Scales::default());
    let mut out = std::io::stdout().lock();
    if args.json {
        let text =
            serde_json::to_string_pretty(&Answer::of(&ranking)).map_err(std::io::Error::other)?;
        writeln!(out, "{text}")?;
    } else {
        table(&mut out, &ranking)?;
    }
    if !unknown.is_empty() {
        terminal::warn(format_args!(
            "columns not understood: {}",
            unknown.join(", ")
        ));
    }
    // The demo's gaps are there on purpose; one's own are worth an exit code.
    let doubtful = surveys
        .iter()
        .any(|s| s.findings().iter().any(|f| f.contradiction));
    if args.hulls.is_some() && (doubtful || !unknown.is_empty()) {
        return Ok(Outcome::Findings);
    }
    Ok(Outcome::Done)
}

fn table(out: &mut impl Write, ranking: &Ranking<'_>) -> std::io::Result<()> {
    let figure = |entry: &galvet_core::rank::Ranked<'_>, q: Quantity| {
        let value = entry.assessment.median(q);
        value.map_or("not known".to_owned(), |v| q.row().text(System::Metric, v))
    };
    for (i, entry) in ranking.ranked.iter().enumerate() {
        let survey = entry.assessment.setup.survey;
        writeln!(
            out,
            "{:>2}. {}: {} in hand, {} lean room, standing support {}",
            i + 1,
            survey.name(),
            figure(entry, Quantity::BindingMargin),
            figure(entry, Quantity::LeanRoom),
            figure(entry, Quantity::StandingSupport),
        )?;
        writeln!(out, "    {}", explain::why(ranking, i, System::Metric))?;
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
        writeln!(out, "  - {}: {}", entry.survey.name(), reasons.join("; "))?;
    }
    writeln!(
        out,
        "\nEstimates for guidance; the maker's rated capacity and instructions stand above them."
    )
}
