//! `galvet backup`: the whole database as one file.

use super::progress::Progress;
use super::{Outcome, Problem};
use crate::terminal;
use std::path::PathBuf;

/// Write the whole database to one file, also while it is served
///
/// The file is the database as it stood at one moment; whoever writes meanwhile
/// is not disturbed. A file that is there already is not overwritten. Guide
/// values of your own (guides.json) are a file of their own beside it.
#[derive(Debug, clap::Args)]
#[command(
    after_help = "Examples:\n  galvet backup galvet-monday.db\n  galvet backup --data /srv/galvet /backups/galvet.db\n\nExit codes: 0 done, 2 could not."
)]
pub struct Args {
    /// The file to write
    file: PathBuf,
    /// Where the data is kept
    #[arg(long, value_name = "DIR", default_value = "galvet-data")]
    data: PathBuf,
}

pub fn run(args: &Args) -> Result<Outcome, Problem> {
    let progress = Progress::waiting("copying the database");
    galvet_store::backup(&args.data, &args.file)?;
    drop(progress);
    terminal::say(format_args!("written: {}", args.file.display()));
    Ok(Outcome::Done)
}
