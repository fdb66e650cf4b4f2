//! Hulls as CSV.
//!
//! A header names a figure with its unit (`length_m`, `beam_cm`,
//! `bare_weight_lb`) or without one, when the cells carry it (`12 ft 4 in`).
//! A cell may hold several readings, each with its source in brackets:
//! `3.76 m (brochure) | 3.81 m (tape)`. Unknown columns are kept and reported.

use super::comma::{has_decimal_comma, with_point};
use super::guard::unguarded;
use super::table::HEADER;
use super::table::Table;
use super::unstated::{is_bare, of_hulls, unit_not_stated};
use super::{FileError, Mistakes, check_key, echo, word};
use galvet_core::base::{Bare, Bounds, Dimension, Keyed, day, one_line};
use galvet_core::hull::{
    BottomShape, CapacityBasis, Construction, Fitout, Looked, Measure, Origin, Propulsion, Reading,
    Source, Survey,
};
use std::collections::{BTreeMap, BTreeSet};

/// A hull record with what the file said beyond what Galvet knows.
#[derive(Debug, Clone, PartialEq)]
pub struct HullRecord {
    /// What Galvet knows.
    pub survey: Survey,
    /// Unknown columns, by name.
    pub extra: BTreeMap<String, String>,
}

/// A file read without mistakes.
#[derive(Debug, Clone, PartialEq)]
pub struct HullFile {
    /// The records, in the file's order.
    pub hulls: Vec<HullRecord>,
    /// Of each, the columns of words in which it says something.
    pub told: Vec<BTreeSet<&'static str>>,
    /// Unknown columns: kept, not understood.
    pub unknown_columns: Vec<String>,
}

/// Most hulls in one file.
const MOST_HULLS: usize = 20_000;
/// Longest free text in a cell.
const LONGEST_TEXT: usize = 2_000;

/// Columns that are not figures.
pub(super) const WORD_COLUMNS: [&str; 15] = [
    "key",
    "maker",
    "model",
    "year",
    "construction",
    "bottom",
    "propulsion",
    "drive_lifts",
    "tracks_straight",
    "seats",
    "fitted_includes",
    "capacity_basis",
    "origin",
    "notes",
    "",
];

/// What a header cell stands for.
enum Column {
    Word(&'static str),
    Figure(Measure, Bare),
    Unknown(String),
}

fn column(header: &str) -> Column {
    let header = header.trim();
    if let Some(&name) = WORD_COLUMNS.iter().find(|&&name| name == header) {
        return Column::Word(name);
    }
    for &measure in Measure::ALL {
        if header == measure.key() {
            return Column::Figure(measure, Bare::SI);
        }
        let unit = header
            .strip_prefix(measure.key())
            .and_then(|rest| rest.strip_prefix('_'));
        let bare = match (measure.bounds().dimension, unit) {
            (Dimension::Mass, Some("kg")) | (_, Some("m")) => Bare::SI,
            (Dimension::Mass, Some("lb")) => Bare::POUNDS,
            (_, Some("cm")) => Bare::CENTIMETRES,
            (_, Some("mm")) => Bare::MILLIMETRES,
            (_, Some("in")) => Bare::INCHES,
            (_, Some("ft")) => Bare::FEET,
            _ => continue,
        };
        return Column::Figure(measure, bare);
    }
    Column::Unknown(header.to_owned())
}

/// Reads a hull table.
///
/// # Errors
/// Every mistake found, each with line, column and what would be accepted.
pub fn read(file: &str, text: &str) -> Result<HullFile, Vec<FileError>> {
    let mut table = Table::open(file, text, &["key"]).map_err(|error| vec![error])?;
    let headers = std::mem::take(&mut table.headers);
    let columns: Vec<Column> = headers.iter().map(|h| column(h)).collect();
    let mut errors = Mistakes::default();
    let mut hulls: Vec<HullRecord> = Vec::new();
    let mut told = Vec::new();
    let mut keys = BTreeSet::new();
    let mut rows = Vec::new();
    while let Some(next) = table.row() {
        match next {
            Ok(row) => rows.push(row),
            Err(error) => {
                errors.add(error);
                break;
            }
        }
    }
    // Asked once for a column, at its header; nothing in it is read meanwhile.
    let mut unstated = BTreeSet::new();
    for (k, header) in headers.iter().enumerate() {
        let cells = rows.iter().filter_map(|(_, r)| r.get(k));
        if let Some(problem) = unit_not_stated((header, of_hulls(header)), cells) {
            errors.add(at(file, Some(HEADER), Some(header), problem));
            unstated.insert(k);
        }
    }
    let commas = table.semicolons
        && rows
            .iter()
            .any(|(_, row)| has_decimal_comma(figures(row, &columns)));
    for (line, record) in rows {
        let line = Some(line);
        let mut row = Row::new(file, line);
        row.commas = commas;
        let cells = record.iter().zip(&columns).zip(headers.iter());
        for (k, ((cell, column), header)) in cells.enumerate() {
            if !(unstated.contains(&k) && cell.split('|').any(is_bare)) {
                row.cell(column, header, cell);
            }
        }
        let says = row.words.keys().copied().collect();
        match row.finish() {
            Ok(hull) => {
                told.push(says);
                if !keys.insert(hull.survey.key.clone()) {
                    let problem = format!("the key “{}” stands twice", hull.survey.key);
                    errors.add(at(file, line, Some("key"), problem));
                }
                hulls.push(hull);
            }
            Err(found) => found.into_iter().for_each(|error| errors.add(error)),
        }
        if hulls.len() > MOST_HULLS {
            errors.add(at(
                file,
                line,
                None,
                format!("more than {MOST_HULLS} hulls"),
            ));
            break;
        }
    }
    if hulls.is_empty() && errors.is_empty() {
        errors.add(FileError::whole(file, "no hulls in it"));
    }
    if !errors.is_empty() {
        return Err(errors.told(file));
    }
    Ok(HullFile {
        hulls,
        told,
        unknown_columns: columns
            .into_iter()
            .filter_map(|c| match c {
                Column::Unknown(name) => Some(name),
                _ => None,
            })
            .collect(),
    })
}

/// A row's cells that are figures.
fn figures<'a>(row: &'a csv::StringRecord, columns: &'a [Column]) -> impl Iterator<Item = &'a str> {
    let cells = row.iter().zip(columns);
    cells.filter_map(|(cell, column)| matches!(column, Column::Figure(..)).then_some(cell))
}

fn at(file: &str, line: Option<u64>, column: Option<&str>, problem: String) -> FileError {
    FileError {
        file: file.to_owned(),
        line,
        column: column.map(str::to_owned),
        problem,
    }
}

/// One row being read.
struct Row<'a> {
    file: &'a str,
    line: Option<u64>,
    words: BTreeMap<&'static str, String>,
    readings: BTreeMap<Measure, Vec<Reading>>,
    extra: BTreeMap<String, String>,
    errors: Vec<FileError>,
    /// Whether the comma is known to be the decimal sign in this file.
    commas: bool,
}

impl<'a> Row<'a> {
    fn new(file: &'a str, line: Option<u64>) -> Self {
        Self {
            file,
            line,
            words: BTreeMap::new(),
            readings: BTreeMap::new(),
            extra: BTreeMap::new(),
            errors: Vec::new(),
            commas: false,
        }
    }

    fn wrong(&mut self, column: &str, problem: String) {
        let error = at(self.file, self.line, Some(column), problem);
        self.errors.push(error);
    }

    fn cell(&mut self, column: &Column, header: &str, cell: &str) {
        if cell.is_empty() {
            return;
        }
        if cell.len() > LONGEST_TEXT {
            self.wrong(header, format!("longer than {LONGEST_TEXT} characters"));
            return;
        }
        match column {
            Column::Word(name) => {
                self.words.insert(name, unguarded(cell).to_owned());
            }
            Column::Unknown(name) => {
                self.extra.insert(name.clone(), unguarded(cell).to_owned());
            }
            Column::Figure(measure, bare) => {
                for part in cell.split('|') {
                    let part = if self.commas {
                        with_point(part)
                    } else {
                        part.into()
                    };
                    match reading(*measure, *bare, &part) {
                        Ok(reading) => self.readings.entry(*measure).or_default().push(reading),
                        Err(problem) => self.wrong(header, problem),
                    }
                }
            }
        }
    }

    fn text(&self, name: &'static str) -> String {
        self.words.get(name).cloned().unwrap_or_default()
    }

    /// A line of text without what nobody sees.
    fn line(&mut self, name: &'static str) -> String {
        let text = self.text(name);
        if let Err(problem) = one_line(&text) {
            self.wrong(name, problem.to_string());
        }
        text
    }

    fn needed(&mut self, name: &'static str) -> String {
        let text = self.line(name);
        if text.is_empty() {
            self.wrong(name, "must not be empty".to_owned());
        }
        text
    }

    fn choice<T: Keyed>(&mut self, name: &'static str) -> Option<T> {
        let text = self.words.get(name)?.clone();
        match word(name, &text) {
            Ok(value) => Some(value),
            Err(problem) => {
                self.wrong(name, problem);
                None
            }
        }
    }

    fn yes(&mut self, name: &'static str) -> bool {
        match self.text(name).as_str() {
            "yes" | "true" | "1" => true,
            "" | "no" | "false" | "0" => false,
            other => {
                self.wrong(name, format!("“{}” is neither yes nor no", echo(other)));
                false
            }
        }
    }

    fn whole<T: std::str::FromStr>(&mut self, name: &'static str, accepted: &str) -> Option<T> {
        let text = self.words.get(name)?.clone();
        let number = text.parse().ok();
        if number.is_none() {
            self.wrong(name, format!("“{}” is not {accepted}", echo(&text)));
        }
        number
    }

    fn finish(mut self) -> Result<HullRecord, Vec<FileError>> {
        let key = self.needed("key");
        if let Err(problem) = check_key(&key) {
            self.wrong("key", problem);
        }
        let (maker, model) = (self.line("maker"), self.needed("model"));
        let construction: Option<Construction> = self.choice("construction");
        if construction.is_none() && !self.words.contains_key("construction") {
            self.wrong("construction", "must not be empty".to_owned());
        }
        let bottom: Option<BottomShape> = self.choice("bottom");
        let propulsion = self.choice("propulsion").unwrap_or(Propulsion::Paddle);
        let capacity_basis = self
            .choice("capacity_basis")
            .unwrap_or(CapacityBasis::Unknown);
        let origin: Origin = self.choice("origin").unwrap_or_default();
        let year = self.whole("year", "a year such as 2024");
        let seats: Option<u8> = self.whole("seats", "a number of seats such as 1");
        if seats.is_some_and(|n| !(1..=4).contains(&n)) {
            self.wrong("seats", "a kayak has 1 to 4 seats".to_owned());
        }
        let (drive_lifts, tracks_straight) = (self.yes("drive_lifts"), self.yes("tracks_straight"));
        let (Some(construction), true) = (construction, self.errors.is_empty()) else {
            return Err(self.errors);
        };
        Ok(HullRecord {
            survey: Survey {
                key,
                maker,
                model,
                year,
                construction,
                bottom,
                propulsion,
                drive_lifts,
                tracks_straight,
                seats: seats.unwrap_or(1),
                fitted_includes: self.text("fitted_includes"),
                capacity_basis,
                notes: self.text("notes"),
                origin,
                readings: self.readings,
                evidence: Vec::new(),
                offsets: Vec::new(),
                fitout: Fitout::default(),
                looked: Looked::default(),
            },
            extra: self.extra,
        })
    }
}

/// Reads `3.81 m (tape)`, `3.81 m (tape, 2026-04-12)` or, with a standard error of its own,
/// `3.79 m (photo, 2026-04-12, ±0.03)`; without a source it is
/// the brochure's.
fn reading(measure: Measure, bare: Bare, part: &str) -> Result<Reading, String> {
    let part = part.trim();
    let (number, source, date, error) = match part.split_once('(') {
        None => (part, Source::Brochure, "", None),
        Some((number, rest)) => {
            let name = rest
                .strip_suffix(')')
                .ok_or_else(|| format!("“{}” has an open bracket", echo(part)))?;
            let (name, date) = name.split_once(',').unwrap_or((name, ""));
            let (date, error) = match date.split_once('±') {
                None => (date, None),
                Some((date, error)) => (date.trim().trim_end_matches(','), Some(error)),
            };
            (number, word("source", name)?, date.trim(), error)
        }
    };
    let date = match date {
        "" => String::new(),
        date => day(date).map_err(|error| error.to_string())?,
    };
    let value = measure
        .bounds()
        .parse(number, bare)
        .map_err(|error| error.to_string())?;
    let error = error.map(|typed| {
        let within = measure.bounds();
        let accepted = Bounds::new("its error", within.dimension, 0.0, within.hi);
        accepted.parse(typed, bare).map_err(|odd| odd.to_string())
    });
    let error = error.transpose()?;
    let reading = Reading::new(measure, value, source).map_err(|odd| odd.to_string())?;
    let reading = reading.with_error(measure, error);
    let reading = reading.map_err(|odd| odd.to_string())?;
    Ok(Reading { date, ..reading })
}

#[cfg(test)]
mod tests {
    use super::super::told;
    use super::*;

    const HEAD: &str = "key,maker,model,construction,length,beam_cm,bare_weight_lb,colour\n";

    #[test]
    fn units_may_stand_in_the_header_or_the_cell() {
        let text = format!("{HEAD}a-1,Made,Up,board,12 ft 4 in,86,64,red\n");
        let file = read("h.csv", &text).unwrap();
        let survey = &file.hulls[0].survey;
        assert!((survey.value(Measure::Length).unwrap() - 3.7592).abs() < 1e-9);
        assert!((survey.value(Measure::Beam).unwrap() - 0.86).abs() < 1e-9);
        assert!((survey.value(Measure::BareWeight).unwrap() - 29.0299).abs() < 1e-3);
        assert_eq!(file.unknown_columns, ["colour"]);
        assert_eq!(file.hulls[0].extra["colour"], "red");
    }

    #[test]
    fn two_readings_keep_their_sources_and_the_tape_wins() {
        let text = format!("{HEAD}a-1,Made,Up,board,3.76 m (brochure) | 3.81 m (tape),86,,\n");
        let survey = &read("h.csv", &text).unwrap().hulls[0].survey;
        assert_eq!(survey.value(Measure::Length), Some(3.81));
        let findings = survey.findings();
        assert!(findings[0].contradiction, "{findings:?}");
        assert!(findings[0].text.contains("3.76"), "{findings:?}");
    }

    #[test]
    fn every_mistake_names_its_line_and_column() {
        let text = format!(
            "{HEAD}a-1,Made,Up,raft,3.7,86,,\nA 2,Made,Up,board,37 m,86 (rumour),,\na-1,,,board,,,,\n"
        );
        let all = told(&read("h.csv", &text).unwrap_err()).join("\n");
        assert!(
            all.contains("h.csv, line 2, column construction: “raft”"),
            "{all}"
        );
        assert!(
            all.contains("line 3, column length: length must lie between 1.8 and 7 m"),
            "{all}"
        );
        assert!(
            all.contains("line 3, column beam_cm: “rumour” is not a source"),
            "{all}"
        );
        assert!(all.contains("line 3, column key"), "{all}");
        assert!(
            all.contains("line 4, column model: must not be empty"),
            "{all}"
        );
    }

    #[test]
    fn hostile_tables_are_refused_without_harm() {
        for text in [
            "",
            "key\n",
            "key,maker\n\"a",
            "key,maker,model,construction\na,b\n",
            "key,maker,model,construction\n../x,b,c,board\n",
            "key,maker,model,construction,length\na,b,c,board,NaN\n",
            "key,maker,model,construction,length\na,b,c,board,1e999\n",
        ] {
            assert!(read("x.csv", text).is_err(), "{text:?}");
        }
        let long = format!(
            "key,maker,model,construction\na,{},c,board\n",
            "x".repeat(3000)
        );
        assert!(read("x.csv", &long).is_err());
    }
}
