//! Open-format files: what people and the demo bring in, and what goes out.
//!
//! A file is never trusted: every number passes the core's bounds, every
//! mistake is reported with its line (and column, in a table) together with
//! what would be accepted, and a file with a mistake is taken in not at all.

pub mod evidence;
pub(crate) mod fitout;
pub mod gear;
pub mod guides;
pub mod hull_doc;
pub mod hulls;
mod keyed;
pub mod offsets;
pub mod rigs;
pub mod waters;

use galvet_core::base::{Keyed, OutOfRange};
use serde::de::DeserializeOwned;
use thiserror::Error;

/// Largest file taken in, bytes.
pub const LARGEST: usize = 8 * 1024 * 1024;

/// What is wrong with a file, and where.
#[derive(Debug, Clone, PartialEq, Error)]
#[error("{file}{}{}: {problem}", place("line", *line), column.as_ref().map_or(String::new(), |c| format!(", column {c}")))]
pub struct FileError {
    /// The file's name as given.
    pub file: String,
    /// Line, from 1, where known.
    pub line: Option<u64>,
    /// Column's name, where there are columns.
    pub column: Option<String>,
    /// What is wrong and what would be accepted.
    pub problem: String,
}

fn place(what: &str, number: Option<u64>) -> String {
    number.map_or(String::new(), |n| format!(", {what} {n}"))
}

impl FileError {
    /// A problem with the file as a whole.
    #[must_use]
    pub fn whole(file: &str, problem: impl Into<String>) -> Self {
        Self {
            file: file.to_owned(),
            line: None,
            column: None,
            problem: problem.into(),
        }
    }
}

/// Reads a JSON document of type `T`, naming line and column of a mistake.
///
/// # Errors
/// [`FileError`] for a file too large or not of the shape.
pub fn read_json<T: DeserializeOwned>(file: &str, text: &str) -> Result<T, FileError> {
    if text.len() > LARGEST {
        return Err(FileError::whole(
            file,
            format!("larger than {} MiB", LARGEST >> 20),
        ));
    }
    serde_json::from_str(text).map_err(|error| FileError {
        file: file.to_owned(),
        line: (error.line() > 0).then_some(error.line() as u64),
        column: (error.line() > 0).then(|| error.column().to_string()),
        // serde_json appends the place; it is already named.
        problem: match error.to_string().split_once(" at line ") {
            Some((problem, _)) => problem.to_owned(),
            None => error.to_string(),
        },
    })
}

/// What the CSV reader found, in plain words.
pub(crate) fn csv_words(error: &csv::Error) -> String {
    match error.kind() {
        csv::ErrorKind::UnequalLengths {
            expected_len, len, ..
        } => format!("{len} cells where the header has {expected_len}"),
        csv::ErrorKind::Utf8 { .. } => "not UTF-8 text".to_owned(),
        _ => error.to_string(),
    }
}

/// Names the entry whose number was refused.
#[must_use]
pub fn refused(file: &str, entry: &str, error: OutOfRange) -> FileError {
    FileError::whole(file, format!("{entry}: {error}"))
}

/// Finds the value a word names, or says which words there are.
///
/// # Errors
/// What would be accepted.
pub fn word<T: Keyed>(what: &str, text: &str) -> Result<T, String> {
    T::from_key(text.trim()).ok_or_else(|| {
        let known: Vec<&str> = T::ALL.iter().map(|&v| v.key()).collect();
        format!(
            "“{}” is not a {what}; accepted: {}",
            text.chars().take(40).collect::<String>(),
            known.join(", ")
        )
    })
}

/// A key: lower-case letters, digits and dashes, 1 to 64 of them.
///
/// # Errors
/// What would be accepted.
pub fn check_key(key: &str) -> Result<(), String> {
    let fits = (1..=64).contains(&key.len())
        && key
            .bytes()
            .all(|b| b.is_ascii_lowercase() || b.is_ascii_digit() || b == b'-');
    fits.then_some(()).ok_or_else(|| {
        format!(
            "“{}” is not a key: 1 to 64 lower-case letters, digits and dashes",
            key.chars().take(40).collect::<String>()
        )
    })
}
