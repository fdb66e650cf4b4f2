//! `galvet restore`: a backup back in its place.

use super::progress::Progress;
use super::{Outcome, Problem};
use crate::terminal;
use std::path::PathBuf;

/// Put a backup in the place of the data, also while it is served
///
/// All of it or nothing, in one step; what was there is copied aside first, as a
/// file that can itself be restored.
#[derive(Debug, clap::Args)]
#[command(
    after_help = "Examples:\n  galvet restore galvet-monday.db\n  galvet restore --data /srv/galvet /backups/galvet.db\n\nExit codes: 0 done, 1 done with findings (records in the backup that cannot be used), 2 could not, nothing changed."
)]
pub struct Args {
    /// The backup
    file: PathBuf,
    /// Where the data is kept
    #[arg(long, value_name = "DIR", default_value = "galvet-data")]
    data: PathBuf,
}

pub fn run(args: &Args) -> Result<Outcome, Problem> {
    let progress = Progress::waiting("looking the backup over and putting it in its place");
    let restored = galvet_store::restore(&args.data, &args.file)?;
    drop(progress);
    terminal::say(format_args!(
        "restored: {} records",
        restored.checked.records
    ));
    if let Some(before) = &restored.before {
        terminal::say(format_args!("as it was before: {}", before.display()));
    }
    for problem in &restored.checked.problems {
        terminal::say(terminal::harmless(&format!("  - {problem}")));
    }
    if restored.checked.problems.is_empty() {
        Ok(Outcome::Done)
    } else {
        Ok(Outcome::Findings)
    }
}
