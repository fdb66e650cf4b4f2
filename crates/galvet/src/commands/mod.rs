//! The commands, one file each.

mod backup;
mod check;
mod completions;
mod demo;
mod export;
mod float;
mod import;
mod man;
mod progress;
mod rank;
mod restore;
mod serve;
mod tables;
mod user;

use crate::web::ServeError;
use crate::{demo_data, terminal};
use clap::{Parser, Subcommand};
use galvet_core::guide::Guides;
use galvet_store::files::guides;
use galvet_store::files::input::{self, InputError};
use galvet_store::files::{packed_text, spreadsheet};
use galvet_store::{Catalogue, FileError, SETTING_UP, Store, StoreError};
use std::fs::File;
use std::io::Read;
use std::path::Path;
use std::process::ExitCode;
use std::sync::Arc;
use thiserror::Error;

/// Choose and rig a fishing kayak: what it carries, how it floats, how steady
/// it is.
///
/// Figures are guidance. The maker's rated capacity and instructions, local
/// rules and qualified people stand above anything computed here.
#[derive(Debug, Parser)]
#[command(name = "galvet", version, arg_required_else_help = true)]
pub struct Line {
    #[command(subcommand)]
    command: Command,
}

#[derive(Debug, Subcommand)]
enum Command {
    Demo(demo::Args),
    Serve(serve::Args),
    Rank(rank::Args),
    Float(float::Args),
    Import(import::Args),
    Export(export::Args),
    Check(check::Args),
    Backup(backup::Args),
    Restore(restore::Args),
    User(user::Args),
    Completions(completions::Args),
    Man(man::Args),
}

impl Line {
    /// Whether what could not be done is to be told as JSON.
    #[must_use]
    pub const fn wants_json(&self) -> bool {
        match &self.command {
            Command::Rank(args) => args.json(),
            Command::Float(args) => args.json(),
            _ => false,
        }
    }
}

/// How a command ended.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Outcome {
    /// Done.
    Done,
    /// Done, and there is something to look at.
    Findings,
}

impl Outcome {
    /// The code the program ends with.
    #[must_use]
    pub fn exit_code(self) -> ExitCode {
        match self {
            Self::Done => ExitCode::SUCCESS,
            Self::Findings => ExitCode::from(1),
        }
    }
}

/// Why a command could not do it: exit code 2 and these words.
#[derive(Debug, Error)]
pub enum Problem {
    /// A file cannot be read.
    #[error("{file}: {source}")]
    Read {
        /// Its name.
        file: String,
        /// What the system said.
        source: std::io::Error,
    },
    /// A file is not what it should be.
    #[error("{}", .0.iter().map(ToString::to_string).collect::<Vec<_>>().join("\n        "))]
    Files(Vec<FileError>),
    /// What was asked for is not there.
    #[error("{0}")]
    Missing(String),
    /// What was asked for is not done without being asked for by name.
    #[error("{0}")]
    Usage(String),
    /// The data directory or database.
    #[error(transparent)]
    Store(#[from] StoreError),
    /// The server.
    #[error(transparent)]
    Serve(#[from] ServeError),
    /// Nothing can be written where the output goes.
    #[error("cannot write the answer: {0}")]
    Write(#[from] std::io::Error),
}

impl Problem {
    /// The problem as a JSON document: `{"errors": [{"problem", "file", "line",
    /// "column"}]}`.
    #[must_use]
    pub fn json(&self) -> serde_json::Value {
        let one = |file: Option<&str>, line: Option<u64>, column: Option<&str>, problem: String| {
            serde_json::json!({
                "problem": problem, "file": file, "line": line, "column": column,
            })
        };
        let errors = match self {
            Self::Files(all) => all
                .iter()
                .map(|e| {
                    let column = e.column.as_deref();
                    one(Some(&e.file), e.line, column, e.problem.clone())
                })
                .collect(),
            Self::Read { file, source } => vec![one(Some(file), None, None, source.to_string())],
            other => vec![one(None, None, None, other.to_string())],
        };
        serde_json::json!({ "errors": serde_json::Value::Array(errors) })
    }
}

impl From<InputError> for Problem {
    fn from(error: InputError) -> Self {
        match error {
            InputError::Read { file, source } => Self::Read { file, source },
            InputError::File(error) => error.into(),
        }
    }
}

impl From<FileError> for Problem {
    fn from(error: FileError) -> Self {
        Self::Files(vec![error])
    }
}

/// Reads the guide values of one's own, where there are any.
fn guides(path: Option<&Path>) -> Result<Arc<Guides>, Problem> {
    let Some(path) = path else {
        return Ok(Arc::new(Guides::default()));
    };
    let (file, text) = read_text(path)?;
    Ok(Arc::new(guides::read(&file, &text)?))
}

/// Opens a data directory; one without waters gets those Galvet ships, since
/// nothing could be asked without.
fn open_data(directory: &Path) -> Result<Store, Problem> {
    let store = Store::open(directory)?;
    if store.catalogue()?.waters.is_empty() {
        let shipped = demo_data::catalogue().map_err(Problem::Files)?;
        let waters = Catalogue {
            waters: shipped.waters,
            ..Catalogue::default()
        };
        store.fill(SETTING_UP, &waters)?;
    }
    Ok(store)
}

/// Reads a text file, or the standard input for `-`; returns its name for
/// messages as well, and says what it was read as where that is not plain.
fn read_text(path: &Path) -> Result<(String, String), Problem> {
    let input = if path == Path::new("-") {
        input::read("standard input", std::io::stdin().lock())
    } else {
        let file = path.display().to_string();
        let opened = File::open(path).map_err(|source| Problem::Read {
            file: file.clone(),
            source,
        })?;
        if is_sheet(path) {
            return read_sheet(path, file);
        }
        input::read_file(&file, &opened)
    }?;
    if let Some(read_as) = input.read_as {
        terminal::warn(format_args!("{}: {read_as}", input.file));
    }
    Ok((input.file, input.text))
}

/// Whether a file is a spreadsheet. Of a pipe nothing is read: it would be lost.
fn is_sheet(path: &Path) -> bool {
    let mut start = [0; 4];
    path.is_file()
        && File::open(path)
            .and_then(|mut file| file.read(&mut start))
            .is_ok_and(|n| spreadsheet::is_one(&start[..n]))
}

/// The table of a spreadsheet.
fn read_sheet(path: &Path, file: String) -> Result<(String, String), Problem> {
    let unread = |source| Problem::Read {
        file: file.clone(),
        source,
    };
    let bytes = std::fs::read(path).map_err(unread)?;
    let text = packed_text(&file, &bytes);
    text.map(|text| (file, text))
        .map_err(|error| Problem::Files(vec![error]))
}

/// Runs a command.
///
/// # Errors
/// [`Problem`], in words fit for a terminal.
pub fn run(line: Line) -> Result<Outcome, Problem> {
    match line.command {
        Command::Demo(args) => demo::run(&args),
        Command::Serve(args) => serve::run(&args),
        Command::Rank(args) => rank::run(&args),
        Command::Float(args) => float::run(&args),
        Command::Import(args) => import::run(&args),
        Command::Export(args) => export::run(&args),
        Command::Check(args) => check::run(&args),
        Command::Backup(args) => backup::run(&args),
        Command::Restore(args) => restore::run(&args),
        Command::User(args) => user::run(&args),
        Command::Completions(args) => completions::run(&args),
        Command::Man(args) => man::run(&args),
    }
}
