//! The commands, one file each.

mod demo;
mod export;
mod float;
mod rank;
mod serve;

use crate::web::ServeError;
use clap::{Parser, Subcommand};
use galvet_core::guide::Guides;
use galvet_store::files::guides;
use galvet_store::{FileError, StoreError};
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
    Export(export::Args),
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

/// Reads a text file; returns its name for messages as well.
fn read_text(path: &Path) -> Result<(String, String), Problem> {
    let file = path.display().to_string();
    match std::fs::read_to_string(path) {
        Ok(text) => Ok((file, text)),
        Err(source) => Err(Problem::Read { file, source }),
    }
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
        Command::Export(args) => export::run(&args),
    }
}
