//! The log as a table: out with a unit in every header; in from a plain spreadsheet, its
//! columns known by what people call them. A number whose unit nobody stated is asked about
//! once, at its header.

use super::columns::{COLUMNS, Column, WORDS};
use crate::files::guard::unguarded;
use crate::files::outing::OutingEntry;
use crate::files::{FileError, comma};
use galvet_core::base::{Bare, day};
use galvet_core::log::{Fate, Outing};
use std::collections::BTreeSet;

/// Largest file read, bytes.
pub const LARGEST: usize = 16 * 1024 * 1024;
/// Most rows read.
const ROWS: usize = 5_000;

/// Writes the log as a table. Where it went is left out: a track is its owner's.
///
/// # Errors
/// In the writer's words.
pub fn write(outings: &[Outing]) -> Result<String, csv::Error> {
    let mut out = csv::Writer::from_writer(Vec::new());
    let words = WORDS.iter().map(|w| w.0);
    let figures = COLUMNS.iter().map(|c| c.header);
    let more = ["used", "not_used", "missed", "faults"];
    out.write_record(words.chain(figures).chain(more))?;
    for o in outings {
        let people = o.people.to_string();
        // A day and a number are what a spreadsheet takes them for.
        let guarded = crate::files::guarded;
        let words = [
            o.day.clone(),
            guarded(&o.place),
            guarded(&o.hull),
            guarded(&o.water),
            people,
            guarded(&o.notes),
        ];
        let figures = COLUMNS.iter().map(|c| {
            let value = (c.get)(o).map(|v| v / c.unit);
            value.map_or(String::new(), |v| format!("{}", (v * 1e4).round() / 1e4))
        });
        let fate = |wanted| {
            let all = o.carried.iter().filter(|c| c.fate == Some(wanted));
            all.map(|c| c.item.as_str()).collect::<Vec<_>>().join(" | ")
        };
        let faults: Vec<&str> = o.faults.iter().map(|f| f.part.as_str()).collect();
        let more = [
            fate(Fate::Used),
            fate(Fate::Unused),
            o.missed.join(" | "),
            faults.join(" | "),
        ];
        let more = more.map(|w| crate::files::guarded(&w));
        out.write_record(words.into_iter().chain(figures).chain(more))?;
    }
    let bytes = out.into_inner().map_err(|e| e.into_error())?;
    Ok(String::from_utf8_lossy(&bytes).into_owned())
}

/// A log as somebody's table has it.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct LogRead {
    /// Rows that were understood: line of the file, what is kept.
    pub good: Vec<(usize, OutingEntry)>,
    /// Rows that were not: line, why.
    pub bad: Vec<(usize, String)>,
    /// Headers nobody knows here.
    pub unknown: Vec<String>,
}

/// Whether a table is a log: it says when and in what.
#[must_use]
pub fn is_one(text: &str) -> bool {
    let head = text.lines().next().unwrap_or("");
    let names: BTreeSet<&str> = split(head)
        .into_iter()
        .filter_map(|h| word_of(&h))
        .collect();
    names.contains("day") && names.contains("hull")
}

fn delimiter(head: &str) -> u8 {
    let count = |c: char| head.matches(c).count();
    [b';', b'\t', b',']
        .into_iter()
        .max_by_key(|d| count(char::from(*d)))
        .unwrap_or(b',')
}

fn split(head: &str) -> Vec<String> {
    let mark = char::from(delimiter(head));
    head.split(mark)
        .map(|h| h.trim_matches(['"', ' ', '\u{feff}']).to_owned())
        .collect()
}

/// A header without its unit, in lower case, and its unit.
fn taken_apart(header: &str) -> (String, String) {
    let text = header.trim().to_lowercase();
    if let Some((name, unit)) = text.split_once(['(', '[']) {
        let unit = unit.trim_end_matches([')', ']']).trim();
        return (name.trim().to_owned(), unit.to_owned());
    }
    let spaced = text.replace('_', " ");
    // A header of ours, or one whose last word is a unit.
    if let Some(ours) = COLUMNS.iter().find(|c| c.header == text) {
        return (ours.names[0].to_owned(), "ours".to_owned());
    }
    if let Some((name, last)) = spaced.rsplit_once([' ', ',']) {
        let known = COLUMNS
            .iter()
            .flat_map(|c| c.units)
            .any(|(u, _)| *u == last);
        if known && column_of(name.trim_end_matches(',').trim()).is_some() {
            return (
                name.trim_end_matches(',').trim().to_owned(),
                last.to_owned(),
            );
        }
    }
    (spaced, String::new())
}

fn word_of(header: &str) -> Option<&'static str> {
    let (name, _) = taken_apart(header);
    let row = WORDS
        .iter()
        .find(|(_, names)| names.contains(&name.as_str()));
    row.map(|(word, _)| *word)
}

fn column_of(name: &str) -> Option<&'static Column> {
    COLUMNS.iter().find(|c| c.names.contains(&name))
}

enum Means {
    Word(&'static str),
    Figure(&'static Column, Option<f64>, String),
    Nothing,
}

/// Reads a log. `hulls` are keys and names of those known here, `waters` keys and names with
/// their density.
///
/// # Errors
/// [`FileError`] where the whole is no table, or a column's unit is not stated.
pub fn read(
    file: &str,
    text: &str,
    hulls: &[(String, String)],
    waters: &[(String, String, f64)],
) -> Result<LogRead, Vec<FileError>> {
    let head = text.lines().next().unwrap_or("");
    let mut table = csv::ReaderBuilder::new()
        .delimiter(delimiter(head))
        .flexible(true)
        .trim(csv::Trim::All)
        .from_reader(text.trim_start_matches('\u{feff}').as_bytes());
    let whole = |e: csv::Error| vec![FileError::whole(file, e.to_string())];
    let headers = table.headers().map_err(whole)?.clone();
    let rows = table.records().take(ROWS + 1);
    let rows: Vec<csv::StringRecord> = rows.collect::<Result<_, _>>().map_err(whole)?;
    if rows.len() > ROWS {
        let many = format!("more than {ROWS} rows: a log of a lifetime has fewer");
        return Err(vec![FileError::whole(file, many)]);
    }
    let mut out = LogRead::default();
    let mut asked = Vec::new();
    let means: Vec<Means> = headers
        .iter()
        .enumerate()
        .map(|(at, header)| {
            let (name, unit) = taken_apart(header);
            if let Some(word) = word_of(header) {
                return Means::Word(word);
            }
            let Some(column) = column_of(&name) else {
                out.unknown.push(crate::files::echo(header));
                return Means::Nothing;
            };
            let scale = if unit == "ours" {
                Some(column.unit)
            } else {
                let own = column.units.iter().find(|(u, _)| *u == unit);
                own.map(|(_, scale)| *scale).or(column.bare)
            };
            let bare = |row: &csv::StringRecord| {
                let cell = row.get(at).unwrap_or("");
                !cell.is_empty() && cell.parse::<f64>().is_ok()
            };
            if scale.is_none() && rows.iter().any(bare) {
                let units: Vec<&str> = column.units.iter().map(|(u, _)| *u).collect();
                asked.push(FileError::whole(
                    file,
                    format!(
                        "“{}”: in which unit? Name it in the header, as {name} ({}), one of {}",
                        crate::files::echo(header),
                        units[0],
                        units.join(", ")
                    ),
                ));
            }
            Means::Figure(column, scale, name)
        })
        .collect();
    if !asked.is_empty() {
        return Err(asked);
    }
    let decimal = comma::has_decimal_comma(rows.iter().flat_map(csv::StringRecord::iter));
    for (n, row) in rows.iter().enumerate() {
        let line = row.position().map_or(n + 2, |p| p.line() as usize);
        if row.iter().all(str::is_empty) {
            continue;
        }
        match one(row, &means, decimal, (hulls, waters)) {
            Ok(entry) => out.good.push((line, entry)),
            Err(why) => out.bad.push((line, why)),
        }
    }
    Ok(out)
}

type Known<'a> = (&'a [(String, String)], &'a [(String, String, f64)]);

fn one(
    row: &csv::StringRecord,
    means: &[Means],
    decimal: bool,
    (hulls, waters): Known<'_>,
) -> Result<OutingEntry, String> {
    let mut outing = Outing {
        done: true,
        ..Outing::blank()
    };
    for (cell, means) in row.iter().zip(means) {
        if cell.is_empty() {
            continue;
        }
        match means {
            Means::Nothing => {}
            Means::Word(word) => {
                put_word(&mut outing, word, unguarded(cell), (hulls, waters))?;
            }
            Means::Figure(column, scale, name) => {
                let typed = if decimal {
                    cell.replace(',', ".")
                } else {
                    cell.to_owned()
                };
                let value = match (typed.parse::<f64>(), scale) {
                    (Ok(number), Some(scale)) => column
                        .bounds
                        .check(number * scale)
                        .map_err(|odd| format!("{name}: {odd}"))?,
                    _ => column
                        .bounds
                        .parse(&typed, Bare::SI)
                        .map_err(|odd| format!("{name}: {odd}"))?,
                };
                (column.put)(&mut outing, value);
            }
        }
    }
    if outing.day.is_empty() {
        return Err("no day".to_owned());
    }
    if outing.hull.is_empty() {
        return Err("no hull".to_owned());
    }
    let name = match outing.place.as_str() {
        "" => outing.day.clone(),
        place => format!("{place}, {}", outing.day),
    };
    let entry = OutingEntry::of(&outing, &name, ("", ""));
    crate::files::sheet::Sheet::check(&entry)?;
    Ok(entry)
}

fn put_word(
    outing: &mut Outing,
    word: &str,
    cell: &str,
    (hulls, waters): Known<'_>,
) -> Result<(), String> {
    let alike = |a: &str| a.eq_ignore_ascii_case(cell);
    match word {
        "day" => outing.day = dated(cell)?,
        "place" => cell.clone_into(&mut outing.place),
        "hull" => {
            let known = hulls.iter().find(|(key, name)| alike(key) || alike(name));
            let known = known
                .ok_or_else(|| format!("no hull is called “{}” here", crate::files::echo(cell)))?;
            outing.hull.clone_from(&known.0);
        }
        "water" => {
            let known = waters
                .iter()
                .find(|(key, name, _)| alike(key) || alike(name));
            let known = known
                .ok_or_else(|| format!("no water is called “{}” here", crate::files::echo(cell)))?;
            outing.water.clone_from(&known.0);
            outing.density = known.2;
        }
        "people" => {
            outing.people = cell
                .parse()
                .map_err(|_| "people: a whole number".to_owned())?;
        }
        _ => cell.clone_into(&mut outing.notes),
    }
    Ok(())
}

/// A day as ISO 8601, or as people write one where it can only be one: `31.8.2026`. Of
/// `3/4/2026` nobody knows which is the month.
fn dated(cell: &str) -> Result<String, String> {
    if let Ok(day) = day(cell) {
        return Ok(day);
    }
    let parts: Vec<&str> = cell.split('.').map(str::trim).collect();
    if let [d, m, y] = parts[..]
        && let (Ok(d), Ok(m), 4) = (d.parse::<u8>(), m.parse::<u8>(), y.len())
    {
        return day(&format!("{y}-{m:02}-{d:02}")).map_err(|odd| odd.to_string());
    }
    day(cell).map_err(|odd| odd.to_string())
}
