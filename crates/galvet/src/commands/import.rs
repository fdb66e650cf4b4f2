//! `galvet import`: hulls and exchange files taken in.

use super::progress::Progress;
use super::{Outcome, Problem, is_sheet, open_data, read_text, tables};
use crate::survey::{Incoming, OnDouble, is_own, read_file, take_in};
use crate::terminal;
use galvet_store::Store;
use galvet_store::files::bundle;
use galvet_store::files::dealer::Matching;
use std::path::{Path, PathBuf};

/// Take hulls (CSV, spreadsheets) or exchange files (JSON) in
///
/// A file of Galvet's own comes in whole or not at all. Of a dealer's table the good rows
/// come in; the others wait, with their reasons, on the page Import. Either is undone in one
/// step. A hull that is
/// there already (by its key, or by maker, model and size) is left out unless you
/// say otherwise.
#[derive(Debug, clap::Args)]
#[command(
    after_help = "Examples:\n  galvet import shop.csv\n  galvet import --data /srv/galvet --doubles update club.json\n  galvet check --write-matching yard.json spring.xlsx\n  galvet import --as yard.json spring.xlsx\n\nExit codes: 0 done, 1 done with findings (columns nobody knows, records with gaps or contradictions, doubles left out), 2 could not; files before the one that could not are in."
)]
pub struct Args {
    /// Files; - for standard input
    #[arg(required = true, value_name = "FILE")]
    files: Vec<PathBuf>,
    /// Where the data is kept
    #[arg(long, value_name = "DIR", default_value = "galvet-data")]
    data: PathBuf,
    /// What to do with hulls that are there already
    #[arg(long, value_enum, default_value = "skip")]
    doubles: Doubles,
    /// How the columns of a dealer's table are read: a matching, as the page or galvet
    /// check --write-matching writes it
    #[arg(long = "as", value_name = "MATCHING")]
    by: Option<PathBuf>,
}

#[derive(Debug, Clone, Copy, clap::ValueEnum)]
enum Doubles {
    /// Add their readings to those there
    Update,
    /// Put them in beside the others
    KeepBoth,
    /// Leave them out
    Skip,
}

/// Who it is, in the history.
const WHO: &str = "command line";

pub fn run(args: &Args) -> Result<Outcome, Problem> {
    let store = open_data(&args.data)?;
    let choice = match args.doubles {
        Doubles::Update => OnDouble::Update,
        Doubles::KeepBoth => OnDouble::KeepBoth,
        Doubles::Skip => OnDouble::Skip,
    };
    let mut findings = false;
    let by = args.by.as_deref().map(tables::matching).transpose()?;
    for path in &args.files {
        let (file, text) = read_text(path)?;
        let odd = pictures_of(path, &store)?;
        let incoming = incoming((&file, &text), by.as_ref(), &store, &mut findings)?;
        let name = path
            .file_name()
            .map_or(file.clone(), |n| n.to_string_lossy().into_owned());
        let progress = Progress::over(incoming.catalogue.hulls.len(), "hulls imported");
        let done = take_in(&store, WHO, &name, &incoming, |_| {
            progress.step();
            choice
        })?;
        drop(progress);
        let line = format!(
            "{file}: {} put in, {} updated, {} left out since they are there already",
            done.added, done.updated, done.skipped
        );
        terminal::say(terminal::harmless(&line));
        if done.unpictured + odd > 0 {
            findings = true;
            terminal::warn(format_args!(
                "{} photos left out: their pictures are not in the file, {odd} pictures in it are none",
                done.unpictured
            ));
        }
        if !incoming.unknown_columns.is_empty() {
            let columns = incoming.unknown_columns.join(", ");
            terminal::warn(format_args!("columns kept but not understood: {columns}"));
        }
        for hull in &incoming.catalogue.hulls {
            for finding in hull.survey.findings() {
                findings = true;
                let line = format!("  - {}: {}", hull.survey.key, finding.text);
                terminal::say(terminal::harmless(&line));
            }
        }
        findings |= done.skipped > 0 || !incoming.unknown_columns.is_empty();
    }
    Ok(if findings {
        Outcome::Findings
    } else {
        Outcome::Done
    })
}

/// Keeps the pictures of an archive of ours; how many of them are none.
fn pictures_of(path: &Path, store: &Store) -> Result<usize, Problem> {
    if !is_sheet(path) {
        return Ok(0);
    }
    let bytes = std::fs::read(path).map_err(|source| Problem::Read {
        file: path.display().to_string(),
        source,
    })?;
    let kept = bundle::pictures(&bytes, |picture| store.keep_picture(picture).map(|_| ()));
    Ok(kept?)
}

/// What a file holds: one of ours, or somebody's table through a matching.
fn incoming(
    (file, text): (&str, &str),
    by: Option<&Matching>,
    store: &Store,
    findings: &mut bool,
) -> Result<Incoming, Problem> {
    if by.is_none() && is_own(text) {
        return read_file(file, text).map_err(Problem::Files);
    }
    let remembered: Vec<Matching> = store.sheets()?;
    let dealt = tables::looked_over(file, text, by, &remembered)?;
    let open = tables::open(file, &dealt);
    if !open.is_empty() {
        return Err(Problem::Files(open));
    }
    for line in tables::columns(&dealt) {
        terminal::say(terminal::harmless(&format!("  {line}")));
    }
    for row in tables::held(file, &dealt) {
        *findings = true;
        terminal::warn(terminal::harmless(&format!("waits: {row}")));
    }
    let key = &dealt.matching.key;
    let earlier = remembered.iter().find(|m| m.key == *key);
    Ok(dealt.incoming(earlier.map(|m| m.waiting.as_slice()).unwrap_or_default()))
}
