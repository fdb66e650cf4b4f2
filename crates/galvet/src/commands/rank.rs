//! `galvet rank`: the ranking without a browser.

use super::progress::Progress;
use super::{Outcome, Problem, guides, read_text};
use crate::answer::{Desk, Hull, Watch};
use crate::present::{json::Document, text};
use crate::{demo_data, question, terminal};
use galvet_core::rank::Candidate;
use galvet_store::files::hulls;
use std::io::Write;
use std::path::PathBuf;
use std::sync::Arc;

/// Rank hulls for a brief
///
/// Waters and rigs a brief names are the ones Galvet ships; without --hulls
/// the demo's hulls are ranked. The same code as the page.
#[derive(Debug, clap::Args)]
#[command(
    after_help = "Examples:\n  galvet rank --brief demo/briefs/1-reed-edge.json\n  galvet rank --brief my-brief.json --hulls shop.csv --json\n\nExit codes: 0 done, 1 done with findings (a record of --hulls has gaps or contradictions, or columns nobody knows), 2 could not.\nFILE may be - for standard input. With --json, what could not be done is told as JSON too."
)]
pub struct Args {
    /// The brief, JSON
    #[arg(long, value_name = "FILE")]
    brief: PathBuf,
    /// Hulls, CSV
    #[arg(long, value_name = "FILE")]
    hulls: Option<PathBuf>,
    /// Guide values in place of the shipped ones, JSON
    #[arg(long, value_name = "FILE")]
    guides: Option<PathBuf>,
    /// Print JSON instead of a table
    #[arg(long)]
    json: bool,
}

impl Args {
    pub(super) const fn json(&self) -> bool {
        self.json
    }
}

impl Watch for Progress {
    fn done(&self, _: &Candidate) {
        self.step();
    }
}

pub fn run(args: &Args) -> Result<Outcome, Problem> {
    let shipped = demo_data::catalogue().map_err(Problem::Files)?;
    let (file, text) = read_text(&args.brief)?;
    let brief = question::read(&file, &text)?;
    let brief = question::resolve(&file, &brief, &shipped.rigs, &shipped.waters)?;
    let brief = Arc::new(brief.bringing(&shipped.gear));
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
    let hulls: Vec<Hull> = records
        .into_iter()
        .map(|record| Hull {
            known: None,
            survey: Arc::new(record.survey),
        })
        .collect();
    let desk = Desk::new(guides(args.guides.as_deref())?);
    let progress = Progress::over(hulls.len(), "hulls floated");
    let ranked = desk.ranking(&brief, &hulls, &progress);
    drop(progress);
    let answered = ranked.map_err(std::io::Error::other)?;
    let mut out = std::io::stdout().lock();
    if args.json {
        let document = Document::of(&answered);
        let text = serde_json::to_string_pretty(&document).map_err(std::io::Error::other)?;
        writeln!(out, "{text}")?;
    } else {
        text::ranking(&mut out, &answered.ranking)?;
    }
    if !unknown.is_empty() {
        terminal::warn(format_args!(
            "columns not understood: {}",
            unknown.join(", ")
        ));
    }
    // The demo's gaps are there on purpose; one's own are worth an exit code.
    let doubtful = |hull: &Hull| !hull.survey.findings().is_empty();
    if args.hulls.is_some() && (hulls.iter().any(doubtful) || !unknown.is_empty()) {
        return Ok(Outcome::Findings);
    }
    Ok(Outcome::Done)
}
