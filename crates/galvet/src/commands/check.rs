//! `galvet check`: files and data directories looked over, nothing changed.

use super::{Outcome, Problem, read_text, tables};
use crate::survey::{is_own, read_file};
use crate::{demo_data, question, terminal};
use galvet_store::FileError;
use galvet_store::files::dealer::Matching;
use galvet_store::files::{evidence, gear, guides, offsets, rigs, waters};
use std::path::{Path, PathBuf};

/// Look files or data directories over, changing nothing
///
/// A file is read as it would be taken in: hulls, gear or offsets as CSV; a dealer's table
/// as it is, also as a spreadsheet; an
/// exchange file, briefs, rigs, waters, gear, evidence or guide values as JSON. A data directory is
/// looked over whole, also while it is served: integrity, references, journal,
/// and the bounds of every record.
#[derive(Debug, clap::Args)]
#[command(
    after_help = "Examples:\n  galvet check shop.csv my-brief.json\n  galvet check galvet-data\n  galvet check --write-matching yard.json spring.xlsx\n\nExit codes: 0 nothing wrong, 1 something to look at, 2 could not be read."
)]
pub struct Args {
    /// Files and data directories; - for standard input
    #[arg(required = true, value_name = "FILE|DIR")]
    paths: Vec<PathBuf>,
    /// How the columns of a dealer's table are read: a matching
    #[arg(long = "as", value_name = "MATCHING")]
    by: Option<PathBuf>,
    /// Where to write how the columns of a dealer's table are read, to be changed and given
    /// to --as
    #[arg(long, value_name = "FILE", conflicts_with = "by")]
    write_matching: Option<PathBuf>,
}

pub fn run(args: &Args) -> Result<Outcome, Problem> {
    let mut found = false;
    let tables = Tables {
        by: args.by.as_deref().map(tables::matching).transpose()?,
        write: args.write_matching.clone(),
    };
    for path in &args.paths {
        let (what, problems) = if path.is_dir() {
            let checked = galvet_store::check(path)?;
            let what = format!("{}: {} records", path.display(), checked.records);
            (what, checked.problems)
        } else {
            file(path, &tables)?
        };
        let count = problems.len();
        found |= count > 0;
        let wrong = match count {
            0 => "nothing wrong".to_owned(),
            1 => "1 thing to look at".to_owned(),
            n => format!("{n} things to look at"),
        };
        terminal::say(terminal::harmless(&format!("{what}; {wrong}")));
        for problem in problems {
            terminal::say(terminal::harmless(&format!("  - {problem}")));
        }
    }
    Ok(if found {
        Outcome::Findings
    } else {
        Outcome::Done
    })
}

/// How somebody's tables are looked over.
struct Tables {
    by: Option<Matching>,
    write: Option<PathBuf>,
}

impl Tables {
    /// What somebody's table holds, and what it leaves open or has wrong.
    fn look(&self, file: &str, text: &str) -> Result<(String, Vec<String>), Problem> {
        let dealt = tables::looked_over(file, text, self.by.as_ref(), &[])?;
        if let Some(to) = &self.write {
            let text = serde_json::to_string_pretty(&dealt.matching).unwrap_or_default();
            std::fs::write(to, text + "\n").map_err(|source| Problem::Read {
                file: to.display().to_string(),
                source,
            })?;
        }
        let what = format!("{file}: a table of {} rows", dealt.grid.rows.len());
        let open = tables::open(file, &dealt);
        let held = tables::held(file, &dealt);
        let wrong = open.into_iter().chain(held).map(|e| e.to_string());
        Ok((
            format!("{what} ({})", tables::columns(&dealt).join("; ")),
            wrong.collect(),
        ))
    }
}

/// What a file is and holds, and what is wrong in it.
fn file(path: &Path, tables: &Tables) -> Result<(String, Vec<String>), Problem> {
    let (file, text) = read_text(path)?;
    let said = |what: &str, result: Result<usize, Vec<FileError>>| match result {
        Ok(n) => (format!("{file}: {n} {what}"), Vec::new()),
        Err(errors) => {
            let lines = errors.iter().map(ToString::to_string).collect();
            (format!("{file}: {what}"), lines)
        }
    };
    let one = |error| vec![error];
    let shipped = demo_data::catalogue().map_err(Problem::Files)?;
    let head = text.trim_start();
    if !head.starts_with(['{', '[']) {
        if head.starts_with("station_m") {
            let read = offsets::read_stations(&file, &text);
            return Ok(said("stations", read.map(|r| r.0.len()).map_err(one)));
        }
        if tables.by.is_some() || tables.write.is_some() || !is_own(&text) {
            return tables.look(&file, &text);
        }
        return Ok(taken_in(&file, &text));
    }
    let has = |name: &str| text.contains(&format!("\"{name}\""));
    Ok(if has("galvet") {
        taken_in(&file, &text)
    } else if has("rigs") {
        let read = rigs::read(&file, &text, &shipped.gear);
        said("rigs", read.map(|r| r.len()).map_err(one))
    } else if has("waters") {
        said(
            "waters",
            waters::read(&file, &text).map(|r| r.len()).map_err(one),
        )
    } else if has("gear") && !has("crew") {
        said(
            "things",
            gear::read(&file, &text).map(|r| r.len()).map_err(one),
        )
    } else if has("evidence") {
        let read = evidence::read(&file, &text);
        said("measurements", read.map(|r| r.len()).map_err(one))
    } else if has("crew") {
        let read = question::read(&file, &text)
            .and_then(|brief| question::resolve(&file, &brief, &shipped.rigs, &shipped.waters));
        said("brief", read.map(|_| 1).map_err(one))
    } else {
        said(
            "set of guide values",
            guides::read(&file, &text).map(|_| 1).map_err(one),
        )
    })
}

/// A table or an exchange file, read as an import reads it.
fn taken_in(file: &str, text: &str) -> (String, Vec<String>) {
    let read = match read_file(file, text) {
        Ok(read) => read,
        Err(errors) => {
            let lines = errors.iter().map(ToString::to_string).collect();
            return (file.to_owned(), lines);
        }
    };
    let all = &read.catalogue;
    let hulls = Some(all.hulls.len()).filter(|n| *n > 0);
    let hulls = hulls.map(|n| format!("{n} hulls")).into_iter();
    let counts: Vec<String> = hulls.chain(all.others()).collect();
    let holds = if counts.is_empty() {
        "nothing in it".to_owned()
    } else {
        counts.join(", ")
    };
    let odd = all.hulls.iter().flat_map(|h| {
        let findings = h.survey.findings().into_iter();
        findings.map(|f| format!("{}: {}", h.survey.key, f.text))
    });
    let unknown = read.unknown_columns.iter();
    let unknown = unknown.map(|name| format!("column not understood: {name}"));
    (format!("{file}: {holds}"), odd.chain(unknown).collect())
}
