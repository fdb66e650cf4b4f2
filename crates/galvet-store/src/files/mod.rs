//! Open-format files: what people and the demo bring in, and what goes out.
//!
//! A file is never trusted: every number passes the core's bounds, every
//! mistake is reported with its line (and column, in a table) together with
//! what would be accepted, and a file with a mistake is taken in not at all.

pub mod bundle;
mod comma;
pub mod customer;
pub mod dealer;
pub mod event;
pub mod evidence;
pub mod exchange;
pub(crate) mod fitout;
pub mod gear;
mod gear_columns;
pub mod gear_table;
mod guard;
pub mod guides;
pub mod handed;
pub mod hull_doc;
pub mod hull_table;
pub mod hulls;
pub mod input;
mod json;
mod keyed;
pub mod log;
pub(crate) mod looked;
pub mod mend;
pub mod offsets;
pub mod outing;
pub mod photo;
pub mod place;
pub mod rigs;
pub mod served;
pub mod setting;
pub mod sheet;
mod sound;
pub mod space;
pub mod spreadsheet;
pub mod stock;
mod table;
pub mod ticked;
mod unstated;
pub mod waters;

use galvet_core::base::{Keyed, OutOfRange};
use thiserror::Error;

pub use guard::guarded;
pub use json::{line_of, problem as json_problem, read_json};

/// The text of a packed file: our own archive's exchange file, or a spreadsheet's table.
///
/// # Errors
/// [`FileError`] for what is neither, or unpacks to too much.
pub fn packed_text(file: &str, bytes: &[u8]) -> Result<String, FileError> {
    match bundle::unpack(file, bytes)? {
        Some(text) => Ok(text),
        None => spreadsheet::text(file, bytes),
    }
}

/// Every kind of record that is one document.
pub(crate) const SHEETS: [sheet::Shape; 12] = [
    sheet::Shape::of::<setting::Setting>(),
    sheet::Shape::of::<dealer::Matching>(),
    sheet::Shape::of::<photo::Photo>(),
    sheet::Shape::of::<event::EventEntry>(),
    sheet::Shape::of::<ticked::Ticked>(),
    sheet::Shape::of::<handed::Handed>(),
    sheet::Shape::of::<outing::OutingEntry>(),
    sheet::Shape::of::<served::ServedEntry>(),
    sheet::Shape::of::<place::PlaceEntry>(),
    sheet::Shape::of::<customer::CustomerEntry>(),
    sheet::Shape::of::<stock::StockEntry>(),
    sheet::Shape::of::<stock::BookingEntry>(),
];

/// Headers that would say in which unit a column is, for one of ours that says none: each
/// with its unit. Empty for what has no unit, or says it.
#[must_use]
pub fn units_of(header: &str) -> Vec<(String, &'static str)> {
    let dimension = unstated::of_hulls(header).or_else(|| gear_columns::dimension_of(header));
    unstated::named(header, dimension)
}

/// What is said of each mistake.
#[cfg(test)]
fn told(mistakes: &[FileError]) -> Vec<String> {
    mistakes.iter().map(ToString::to_string).collect()
}

/// Largest file taken in on a page, or out of a pipe, bytes.
pub const LARGEST: usize = 32 * 1024 * 1024;

/// Largest file read on the command line, bytes: what Galvet wrote comes back in, however
/// much it is.
pub const LARGEST_ON_DISK: usize = 1024 * 1024 * 1024;

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

/// Mistakes told of one file.
pub const MOST_ERRORS: usize = 50;

/// Mistakes found in a file: the first [`MOST_ERRORS`] are kept, the rest only
/// counted, since there may be as many as the file has cells.
#[derive(Debug, Default)]
pub(crate) struct Mistakes {
    kept: Vec<FileError>,
    more: usize,
}

impl Mistakes {
    pub(crate) fn add(&mut self, error: FileError) {
        if self.kept.len() < MOST_ERRORS {
            self.kept.push(error);
        } else {
            self.more += 1;
        }
    }

    pub(crate) fn is_empty(&self) -> bool {
        self.kept.is_empty()
    }

    /// The mistakes, with the count of those not told.
    pub(crate) fn told(mut self, file: &str) -> Vec<FileError> {
        if self.more > 0 {
            let rest = format!("and {} more mistakes", self.more);
            self.kept.push(FileError::whole(file, rest));
        }
        self.kept
    }
}

/// Most characters of a cell that a message repeats.
const ECHO: usize = 80;

/// What stood in a file, fit to be shown: control characters made visible, cut
/// where it is long.
#[must_use]
pub fn echo(text: &str) -> String {
    let mut out: String = text.chars().take(ECHO).map(visible).collect();
    if text.chars().nth(ECHO).is_some() {
        out.push('…');
    }
    out
}

/// A character of somebody's text that does nothing to a terminal: controls and
/// marks that turn the direction of writing get a picture.
#[must_use]
pub fn visible(c: char) -> char {
    match c {
        '\u{0}'..='\u{1f}' => char::from_u32(0x2400 + u32::from(c)).unwrap_or('\u{fffd}'),
        '\u{7f}' => '\u{2421}',
        '\u{80}'..='\u{9f}'
        | '\u{200e}'
        | '\u{200f}'
        | '\u{202a}'..='\u{202e}'
        | '\u{2066}'..='\u{2069}' => '\u{fffd}',
        _ => c,
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
            echo(text),
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
            echo(key)
        )
    })
}
