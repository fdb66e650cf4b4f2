//! Spreadsheets: read as the table of their first sheet with something in it, and written
//! as an empty table to be filled.

use super::dealer::{Of, units_for};
use super::{FileError, LARGEST};
use calamine::{Data, Reader, open_workbook_auto_from_rs};
use galvet_core::base::{Dimension, System};
use std::io::{Cursor, Read};
use zip::ZipArchive;

/// Largest spreadsheet taken in, bytes.
const MOST: usize = 8 * 1024 * 1024;

/// Whether bytes are a spreadsheet rather than text: those of today are zip archives.
#[must_use]
pub fn is_one(bytes: &[u8]) -> bool {
    bytes.starts_with(b"PK\x03\x04")
}

/// The table of a spreadsheet as CSV.
///
/// # Errors
/// [`FileError`] for what is none, is too large, or has nothing in it.
pub fn text(file: &str, bytes: &[u8]) -> Result<String, FileError> {
    let refused = |problem: &str| FileError::whole(file, problem);
    if bytes.len() > MOST {
        return Err(refused("a spreadsheet larger than 8 MiB"));
    }
    within_bounds(bytes).map_err(|problem| refused(&problem))?;
    let unread = |_| refused("not a spreadsheet that can be read: send it as XLSX, ODS or CSV");
    let mut book = open_workbook_auto_from_rs(Cursor::new(bytes)).map_err(unread)?;
    for name in book.sheet_names() {
        let Ok(range) = book.worksheet_range(&name) else {
            continue;
        };
        if range.is_empty() {
            continue;
        }
        let mut out = csv::Writer::from_writer(Vec::new());
        for row in range.rows() {
            out.write_record(row.iter().map(cell))
                .map_err(|e| refused(&super::csv_words(&e)))?;
        }
        let bytes = out.into_inner().map_err(|e| refused(&e.to_string()))?;
        return Ok(String::from_utf8_lossy(&bytes).into_owned());
    }
    Err(refused("no sheet of it has anything in it"))
}

/// A spreadsheet is packed: what it unpacks to is counted first, so that a small file does
/// not become a large one in memory.
fn within_bounds(bytes: &[u8]) -> Result<(), String> {
    let unread = |_| "not a spreadsheet that can be read".to_owned();
    let mut archive = ZipArchive::new(Cursor::new(bytes)).map_err(unread)?;
    let mut left = LARGEST as u64;
    for at in 0..archive.len() {
        let entry = archive.by_index(at).map_err(unread)?;
        let size = std::io::copy(&mut entry.take(left + 1), &mut std::io::sink());
        let size = size.map_err(|_| "not a spreadsheet that can be read".to_owned())?;
        if size > left {
            return Err(format!("it unpacks to more than {} MiB", LARGEST >> 20));
        }
        left -= size;
    }
    Ok(())
}

/// A cell as somebody would type it.
fn cell(data: &Data) -> String {
    match data {
        // A whole number is written as one.
        Data::Float(x) if x.fract() == 0.0 && x.abs() < 1e12 => format!("{x:.0}"),
        Data::Error(_) => String::new(),
        other => other.to_string(),
    }
}

/// Columns of an empty table to be filled.
const HULLS: [&str; 13] = [
    "maker",
    "model",
    "year",
    "construction",
    "propulsion",
    "seats",
    "length",
    "beam",
    "bare_weight",
    "fitted_weight",
    "rated_capacity",
    "price",
    "notes",
];
const GEAR: [&str; 8] = [
    "name",
    "category",
    "dry_weight",
    "length",
    "width",
    "height",
    "price",
    "note",
];

/// Headers of an empty table, units with them.
fn headers(of: Of, system: System) -> Vec<String> {
    let keys: &[&str] = match of {
        Of::Hulls => &HULLS,
        Of::Gear => &GEAR,
    };
    let header = |key: &&str| {
        let target = of.target(key);
        let label = target.map_or(*key, |t| t.label);
        let short = match of {
            Of::Gear => Some(Dimension::ShortLength),
            Of::Hulls => None,
        };
        let dimension = target.and_then(|t| t.dimension);
        let unit = match dimension.filter(|d| !units_for(Some(*d)).is_empty()) {
            Some(Dimension::Length) => system.unit(short.unwrap_or(Dimension::Length)),
            Some(other) => system.unit(other),
            None => "",
        };
        if unit.is_empty() {
            label.to_owned()
        } else {
            format!("{label} ({unit})")
        }
    };
    keys.iter().map(header).collect()
}

/// An empty table to be filled, as CSV.
///
/// # Errors
/// In the CSV writer's words.
pub fn template_csv(of: Of, system: System) -> Result<String, csv::Error> {
    let mut out = csv::Writer::from_writer(Vec::new());
    out.write_record(headers(of, system))?;
    let bytes = out
        .into_inner()
        .map_err(|e| csv::Error::from(e.into_error()))?;
    Ok(String::from_utf8_lossy(&bytes).into_owned())
}

/// An empty table to be filled, as a spreadsheet.
///
/// # Errors
/// In the spreadsheet writer's words.
pub fn template_xlsx(of: Of, system: System) -> Result<Vec<u8>, String> {
    let mut book = rust_xlsxwriter::Workbook::new();
    let bold = rust_xlsxwriter::Format::new().set_bold();
    let sheet = book.add_worksheet();
    for (k, header) in (0_u16..).zip(headers(of, system)) {
        sheet
            .write_with_format(0, k, header, &bold)
            .and_then(|sheet| sheet.set_column_width(k, 18))
            .map_err(|e| e.to_string())?;
    }
    sheet.set_freeze_panes(1, 0).map_err(|e| e.to_string())?;
    book.save_to_buffer().map_err(|e| e.to_string())
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::files::dealer::{Grid, guess, read};
    use galvet_core::hull::Measure;

    /// A sheet with these cells.
    fn sheet(rows: &[&[&str]]) -> Vec<u8> {
        let mut book = rust_xlsxwriter::Workbook::new();
        let sheet = book.add_worksheet();
        for (r, row) in (0_u32..).zip(rows) {
            for (c, cell) in (0_u16..).zip(*row) {
                match cell.parse::<f64>() {
                    Ok(number) => sheet.write(r, c, number).unwrap(),
                    Err(_) => sheet.write(r, c, *cell).unwrap(),
                };
            }
        }
        book.save_to_buffer().unwrap()
    }

    #[test]
    fn a_template_filled_in_is_read_without_a_question() {
        let row = [
            "Marsk",
            "Tarn",
            "2024",
            "sit-on-top",
            "paddle",
            "1",
            "3.76",
            "86",
            "34.5",
            "",
            "190",
            "1290",
            "",
        ];
        let headers = headers(Of::Hulls, System::Metric);
        let headers: Vec<&str> = headers.iter().map(String::as_str).collect();
        let bytes = sheet(&[&headers, &row]);
        assert!(is_one(&bytes));
        let table = text("h.xlsx", &bytes).unwrap();
        let grid = Grid::of("h.xlsx", &table).unwrap();
        let taken = read(&grid, &guess(&grid, "h.xlsx").0);
        assert!(taken.questions.is_empty(), "{:?}", taken.questions);
        let hull = &taken.hulls[0].1.survey;
        let value = |m| hull.value(m).unwrap();
        assert_eq!((value(Measure::Length), value(Measure::Beam)), (3.76, 0.86));
        assert_eq!(
            (value(Measure::BareWeight), value(Measure::Price)),
            (34.5, 1290.0)
        );
        assert_eq!(
            (hull.year, hull.seats, hull.maker.as_str()),
            (Some(2024), 1, "Marsk")
        );
        // What goes out is the same table, empty: it says that there are no rows.
        let empty = text(
            "t.xlsx",
            &template_xlsx(Of::Hulls, System::Imperial).unwrap(),
        )
        .unwrap();
        assert_eq!(empty, template_csv(Of::Hulls, System::Imperial).unwrap());
        assert!(
            empty.contains("length (ft)") && empty.contains("beam (in)"),
            "{empty}"
        );
    }

    #[test]
    fn what_is_no_spreadsheet_or_unpacks_to_too_much_is_refused() {
        let said = |bytes: &[u8]| text("x.xlsx", bytes).unwrap_err().to_string();
        assert!(said(b"PK\x03\x04 and nothing of it").contains("not a spreadsheet"));
        let empty = rust_xlsxwriter::Workbook::new().save_to_buffer();
        assert!(empty.map_or(true, |bytes| text("e.xlsx", &bytes).is_err()));
        // Ninety megabytes of nothing, packed into some kilobytes.
        let mut bomb = zip::ZipWriter::new(Cursor::new(Vec::new()));
        let how = zip::write::SimpleFileOptions::default();
        bomb.start_file("xl/worksheets/sheet1.xml", how).unwrap();
        let zeros = vec![b' '; 1 << 20];
        for _ in 0..90 {
            std::io::Write::write_all(&mut bomb, &zeros).unwrap();
        }
        let bomb = bomb.finish().unwrap().into_inner();
        assert!(bomb.len() < 200_000);
        assert!(said(&bomb).contains("unpacks to more than 32 MiB"));
    }
}
