//! Cells of a table looked up and replaced where a mistake was found.

use super::hulls::HullFile;
pub use super::table::HEADER;
use super::table::{Lines, delimiter};
use super::{FileError, hulls};
use std::collections::BTreeMap;

/// A cell: its line, from 1, and its column's name in small letters.
pub type Cell = (u64, String);

/// `text` begins with its first letter, not with a mark.
fn reader(text: &str) -> csv::Reader<&[u8]> {
    csv::ReaderBuilder::new()
        .delimiter(delimiter(text))
        .flexible(true)
        .trim(csv::Trim::All)
        .from_reader(text.as_bytes())
}

/// Names of the columns, in small letters.
fn names(reader: &mut csv::Reader<&[u8]>) -> Vec<String> {
    let headers = reader.headers().cloned().unwrap_or_default();
    headers.iter().map(str::to_lowercase).collect()
}

/// What stands in a cell; `None` where there is none.
#[must_use]
pub fn cell(text: &str, (line, column): &Cell) -> Option<String> {
    let text = text.trim_start_matches('\u{feff}');
    let mut reader = reader(text);
    let mut lines = Lines::of(text);
    let at = names(&mut reader).iter().position(|name| name == column)?;
    if *line == HEADER {
        let headers = reader.headers().ok()?;
        return headers.get(at).map(str::to_owned);
    }
    reader.records().flatten().find_map(|record| {
        let here = lines.of_record(record.position()) == *line;
        here.then(|| record.get(at).unwrap_or_default().to_owned())
    })
}

/// The table with cells replaced; what is not named stays as it is read.
///
/// # Errors
/// In the CSV reader's or writer's words.
pub fn mended(text: &str, fixes: &BTreeMap<Cell, String>) -> Result<String, csv::Error> {
    let text = text.trim_start_matches('\u{feff}');
    let sign = delimiter(text);
    let mut lines = Lines::of(text);
    let mut reader = reader(text);
    let names = names(&mut reader);
    let mut writer = csv::WriterBuilder::new()
        .delimiter(sign)
        .flexible(true)
        .from_writer(Vec::new());
    let headers = reader.headers()?.clone();
    let headers = headers.iter().zip(&names).map(|(header, name)| {
        let fixed = fixes.get(&(HEADER, name.clone()));
        fixed.map_or(header, String::as_str)
    });
    writer.write_record(headers)?;
    for record in reader.records() {
        let record = record?;
        let line = lines.of_record(record.position());
        let cells = record.iter().enumerate().map(|(at, cell)| {
            let name = names.get(at).cloned().unwrap_or_default();
            fixes.get(&(line, name)).map_or(cell, String::as_str)
        });
        writer.write_record(cells)?;
    }
    let bytes = writer
        .into_inner()
        .map_err(|e| csv::Error::from(e.into_error()))?;
    Ok(String::from_utf8_lossy(&bytes).into_owned())
}

/// Reads a hull table after cells have been replaced.
///
/// # Errors
/// Every mistake left.
pub fn read(
    file: &str,
    text: &str,
    fixes: &BTreeMap<Cell, String>,
) -> Result<HullFile, Vec<FileError>> {
    let text =
        mended(text, fixes).map_err(|e| vec![FileError::whole(file, super::csv_words(&e))])?;
    hulls::read(file, &text)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn cells_are_found_and_replaced_where_the_mistakes_are() {
        let text = "\u{feff}Key;Model;notes;construction;Length\r\na;A;;board;3,2 m\r\nb;B;\"x\n2\";raft;long\r\n";
        let errors = hulls::read("t.csv", text).unwrap_err();
        let places: Vec<Cell> = errors
            .iter()
            .map(|e| (e.line.unwrap(), e.column.clone().unwrap()))
            .collect();
        let wanted = [(3, "length".to_owned()), (3, "construction".to_owned())];
        assert_eq!(places, wanted);
        assert_eq!(cell(text, &places[0]).as_deref(), Some("long"));
        assert_eq!(cell(text, &places[1]).as_deref(), Some("raft"));
        assert_eq!(cell(text, &(9, "length".to_owned())), None);
        let fixes = [(places[0].clone(), "3,4 m"), (places[1].clone(), "board")];
        let fixes = fixes
            .into_iter()
            .map(|(at, v)| (at, v.to_owned()))
            .collect();
        let mended = read("t.csv", text, &fixes).unwrap().hulls;
        assert_eq!(mended[1].survey.notes, "x\n2");
        assert_eq!(
            mended[1].survey.value(galvet_core::hull::Measure::Length),
            Some(3.4)
        );
        assert_eq!(
            mended[0].survey.value(galvet_core::hull::Measure::Length),
            Some(3.2)
        );
    }
}
