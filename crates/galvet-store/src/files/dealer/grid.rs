//! A table as somebody sent it: which signs stand between its cells, which of its lines
//! names the columns, and which are no rows at all. Nothing of it is understood yet.

use super::vocabulary::{hits, is_model, unit_alone};
use crate::files::table::Lines;
use crate::files::{FileError, LARGEST};
use std::collections::BTreeMap;

/// Most columns of a table.
pub const MOST_COLUMNS: usize = 80;
/// Most rows of a table.
pub const MOST_ROWS: usize = 5_000;
/// So many lines may stand above the one that names the columns.
const TITLE: usize = 15;
/// Longest cell, characters.
const LONGEST: usize = 2_000;

/// A row: the line it began at, and its cells, one for each column.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct GridRow {
    /// Line in the file, from 1.
    pub line: u64,
    /// Its cells.
    pub cells: Vec<String>,
    /// Why it cannot be read as it stands; empty where it can.
    pub odd: String,
}

/// A table.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Grid {
    /// Names of the columns; "column 3" where nobody named it.
    pub headers: Vec<String>,
    /// Whether its own first line named them.
    pub named: bool,
    /// Its rows.
    pub rows: Vec<GridRow>,
    /// Lines left out, with why: titles, totals, the header again.
    pub left_out: Vec<(u64, &'static str)>,
}

type Raw = Vec<(u64, Vec<String>)>;

/// The cells of a text with one sign between them.
fn cells(text: &str, sign: u8) -> Raw {
    let mut reader = csv::ReaderBuilder::new()
        .delimiter(sign)
        .has_headers(false)
        .flexible(true)
        .trim(csv::Trim::All)
        .from_reader(text.as_bytes());
    let mut lines = Lines::of(text);
    let mut out = Raw::new();
    for record in reader.records().flatten() {
        let line = lines.of_record(record.position());
        let cell = |c: &str| c.chars().take(LONGEST).collect::<String>();
        let row: Vec<String> = record.iter().map(cell).collect();
        if row.iter().any(|c| !c.is_empty()) {
            out.push((line, row));
        }
        if out.len() > MOST_ROWS + TITLE {
            break;
        }
    }
    out
}

/// The line that names the columns, and how many of its words are known.
fn header_of(raw: &Raw) -> (usize, usize) {
    let scored = raw.iter().take(TITLE).enumerate();
    let scored = scored.map(|(at, (_, row))| (hits(row), at));
    // Of equals the first.
    let best = scored.max_by_key(|(hits, at)| (*hits, usize::MAX - at));
    best.map_or((0, 0), |(hits, at)| (at, hits))
}

/// Rows and columns changed for one another: hulls side by side, a figure to a line.
fn turned(raw: &Raw) -> Raw {
    let width = raw.iter().map(|(_, r)| r.len()).max().unwrap_or(0);
    let cell = |row: &[String], k: usize| row.get(k).cloned().unwrap_or_default();
    let columns = (0..width).map(|k| {
        let column: Vec<String> = raw.iter().map(|(_, row)| cell(row, k)).collect();
        (k as u64 + 1, column)
    });
    columns
        .filter(|(_, c)| c.iter().any(|c| !c.is_empty()))
        .collect()
}

/// How alike the rows of a text are with a sign between cells: what splits it into as
/// many cells, line after line, is the sign.
fn alike(raw: &Raw) -> usize {
    let mut counts = BTreeMap::<usize, usize>::new();
    for (_, row) in raw.iter().take(40) {
        *counts.entry(row.len()).or_default() += 1;
    }
    let most = counts.into_iter().filter(|(width, _)| *width > 1);
    most.map(|(_, rows)| rows).max().unwrap_or(0)
}

impl Grid {
    /// Reads a text as a table.
    ///
    /// # Errors
    /// [`FileError`] for what is none, is too large, or holds two hulls to a line.
    pub fn of(file: &str, text: &str) -> Result<Self, FileError> {
        if text.len() > LARGEST {
            let limit = format!("larger than {} MiB", LARGEST >> 20);
            return Err(FileError::whole(file, limit));
        }
        let text = text.trim_start_matches('\u{feff}');
        let candidates = [b'\t', b';', b'|', b','].map(|sign| cells(text, sign));
        let known = |raw: &Raw| header_of(raw).1;
        let best = candidates
            .into_iter()
            .max_by_key(|raw| (known(raw), alike(raw)));
        Self::of_cells(file, best.unwrap_or_default())
    }

    /// Reads cells, line by line, as a table.
    ///
    /// # Errors
    /// As [`Grid::of`].
    pub fn of_cells(file: &str, mut raw: Vec<(u64, Vec<String>)>) -> Result<Self, FileError> {
        raw.retain(|(_, row)| row.iter().any(|c| !c.trim().is_empty()));
        if raw.len() > MOST_ROWS + TITLE {
            let problem = format!("more than {MOST_ROWS} lines: send it in parts");
            return Err(FileError::whole(file, problem));
        }
        let (mut at, mut known) = header_of(&raw);
        if known < 2 {
            let other = turned(&raw);
            let (there, then) = header_of(&other);
            if then >= 3 {
                (raw, at, known) = (other, there, then);
            }
        }
        let width = raw.iter().map(|(_, r)| r.len()).max().unwrap_or(0);
        if width < 2 {
            let problem = "no table is seen in it: commas, semicolons, tabs or bars stand \
                           between the cells of one";
            return Err(FileError::whole(file, problem));
        }
        if width > MOST_COLUMNS {
            let problem = format!("more than {MOST_COLUMNS} columns");
            return Err(FileError::whole(file, problem));
        }
        let named = known >= 2;
        let mut out = Self {
            headers: Vec::new(),
            named,
            rows: Vec::new(),
            left_out: Vec::new(),
        };
        let above = if named { at } else { 0 };
        let title = raw[..above].iter().map(|(line, _)| *line);
        out.left_out
            .extend(title.map(|line| (line, "stands above the columns")));
        let mut headers = if named { raw[at].1.clone() } else { Vec::new() };
        let mut rows: Vec<(u64, Vec<String>)> = raw.split_off(if named { at + 1 } else { 0 });
        if named && let Some((line, units)) = rows.first().cloned() {
            let says = |cell: &String| cell.is_empty() || unit_alone(cell);
            if units.iter().all(says) && units.iter().any(|c| !c.is_empty()) {
                for (header, unit) in headers.iter_mut().zip(&units) {
                    let unit = unit.trim_matches(['(', ')', '[', ']']);
                    if !unit.is_empty() {
                        *header = format!("{header} ({unit})");
                    }
                }
                out.left_out.push((line, "names the units"));
                rows.remove(0);
            }
        }
        // What has neither name nor content is no column.
        let width = headers.len().max(if named { 0 } else { width });
        headers.resize(width, String::new());
        let wide = |k: usize| {
            rows.iter()
                .any(|(_, row)| row.get(k).is_some_and(|c| !c.is_empty()))
        };
        let kept: Vec<usize> = (0..width).filter(|&k| wide(k)).collect();
        let called = |k: &usize| match headers[*k].as_str() {
            "" => format!("column {}", k + 1),
            name => name.split_whitespace().collect::<Vec<_>>().join(" "),
        };
        out.headers = unlike(kept.iter().map(called).collect());
        two_to_a_line(file, &out.headers)?;
        for (line, row) in rows {
            out.row((line, &row), &kept, (width, &headers));
        }
        if out.rows.is_empty() {
            return Err(FileError::whole(file, "no rows in it"));
        }
        Ok(out)
    }

    /// Takes a line as a row, or leaves it out.
    fn row(
        &mut self,
        (line, row): (u64, &[String]),
        kept: &[usize],
        (width, headers): (usize, &[String]),
    ) {
        let filled = row.iter().filter(|c| !c.is_empty()).count();
        if filled == 0 {
            return;
        }
        if self.named && row.iter().zip(headers).all(|(a, b)| a == b) {
            self.left_out.push((line, "names the columns again"));
            return;
        }
        let first = row
            .iter()
            .find(|c| !c.is_empty())
            .map_or("", String::as_str);
        if filled == 1 && kept.len() > 2 {
            self.left_out.push((line, "a title or a note"));
            return;
        }
        if is_total(first) {
            self.left_out.push((line, "a total"));
            return;
        }
        let over = row.iter().skip(width).filter(|c| !c.is_empty()).count();
        let odd = if over > 0 {
            format!(
                "{} cells where the header has {width}: perhaps a sign that parts cells stands \
                 in a number",
                width + over
            )
        } else {
            String::new()
        };
        let cells = kept
            .iter()
            .map(|&k| row.get(k).cloned().unwrap_or_default());
        self.rows.push(GridRow {
            line,
            cells: cells.collect(),
            odd,
        });
    }

    /// Where a column stands.
    #[must_use]
    pub fn column(&self, header: &str) -> Option<usize> {
        self.headers.iter().position(|h| h == header)
    }

    /// Its columns' names as one word: files with the same ones are read alike.
    #[must_use]
    pub fn shape(&self) -> String {
        let mut names: Vec<String> = self.headers.iter().map(|h| h.to_lowercase()).collect();
        names.sort_unstable();
        names.join("\n")
    }

    /// The table again, with commas, to be read the same.
    ///
    /// # Errors
    /// In the CSV writer's words.
    pub fn text(&self) -> Result<String, csv::Error> {
        let mut out = csv::Writer::from_writer(Vec::new());
        out.write_record(&self.headers)?;
        for row in &self.rows {
            out.write_record(&row.cells)?;
        }
        let bytes = out
            .into_inner()
            .map_err(|e| csv::Error::from(e.into_error()))?;
        Ok(String::from_utf8_lossy(&bytes).into_owned())
    }
}

/// Names told apart where two columns have the same.
fn unlike(names: Vec<String>) -> Vec<String> {
    let mut out: Vec<String> = Vec::new();
    for name in names {
        let mut free = name.clone();
        let mut count = 1;
        while out.contains(&free) {
            count += 1;
            free = format!("{name} #{count}");
        }
        out.push(free);
    }
    out
}

/// Refuses a table whose columns come twice: two hulls stand on a line of it.
fn two_to_a_line(file: &str, headers: &[String]) -> Result<(), FileError> {
    let again: Vec<&String> = headers.iter().filter(|h| h.ends_with(" #2")).collect();
    let model = again.iter().any(|h| is_model(h.trim_end_matches(" #2")));
    if again.len() < 2 || !model {
        return Ok(());
    }
    let names = again.iter().map(|h| h.trim_end_matches(" #2"));
    let names: Vec<&str> = names.collect();
    let problem = format!(
        "two hulls stand on each line: the columns {} come twice. Put one hull to a line, the \
         second block below the first",
        names.join(", ")
    );
    Err(FileError::whole(file, problem))
}

/// Whether a row's first words say that it adds up the others.
fn is_total(first: &str) -> bool {
    let word = first.trim_end_matches([':', '.']).to_lowercase();
    let word = word.split_whitespace().next().unwrap_or_default();
    [
        "total", "totals", "sum", "subtotal", "average", "avg", "mean", "count", "max", "min",
    ]
    .contains(&word)
}
