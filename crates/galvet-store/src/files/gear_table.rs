//! The shelf as CSV, in and out: one column for every field of the JSON form.
//!
//! One table of columns does both ways; what is read passes through the JSON
//! form and its checks. Columns nobody knows are reported, and kept in the note.

use super::comma::{has_decimal_comma, with_point};
use super::gear::GearEntry;
use super::gear_columns::{COLUMNS, Column, Kind, dimension_of};
use super::guard::unguarded;
use super::table::HEADER;
use super::table::Table;
use super::unstated::unit_not_stated;
use super::{FileError, Mistakes, sound};
use galvet_core::base::Bare;
use galvet_core::gear::Gear;
use serde_json::{Map, Value, json};
use std::collections::BTreeSet;

/// Words without which a table is not one of the shelf.
const NEEDED: [&str; 1] = ["key"];
/// Most things in one file.
const MOST: usize = 20_000;
/// Longest cell.
const LONGEST: usize = 2_000;

/// Puts a value where a path leads; lists are made as they are needed.
fn put(into: &mut Map<String, Value>, path: &[&str], value: Value) {
    match path {
        [name] => {
            into.insert((*name).to_owned(), value);
        }
        [name, at] if at.parse::<usize>().is_ok() => {
            let list = into.entry(*name).or_insert_with(|| json!([]));
            let place = at.parse::<usize>().unwrap_or(0);
            if let Some(list) = list.as_array_mut() {
                while list.len() <= place {
                    list.push(Value::Null);
                }
                list[place] = value;
            }
        }
        [name, rest @ ..] => {
            let inside = into.entry(*name).or_insert_with(|| json!({}));
            if let Some(inside) = inside.as_object_mut() {
                put(inside, rest, value);
            }
        }
        [] => {}
    }
}

/// Whether a table's first line is one of the shelf rather than of hulls.
#[must_use]
pub fn is_one(text: &str) -> bool {
    let first = text.lines().next().unwrap_or_default().to_lowercase();
    let has = |name: &str| {
        let mut cells = first.split([',', ';', '\t']);
        cells.any(|c| c.trim_matches([' ', '"', '\u{feff}']).starts_with(name))
    };
    has("dry_weight") && !has("construction")
}

/// A table read without mistakes: things, and columns nobody knows.
pub type Shelf = (Vec<Gear>, Vec<String>);

/// Reads a table.
///
/// # Errors
/// Every mistake found, each at its line and column with what would be accepted.
pub fn read(file: &str, text: &str) -> Result<Shelf, Vec<FileError>> {
    let (things, unknown) = read_told(file, text)?;
    Ok((things.into_iter().map(|(gear, _)| gear).collect(), unknown))
}

/// A thing with what its row says of it, in the JSON form: what a row does not say, and
/// takes from nowhere, is not in that.
pub type Told = (Gear, Value);

/// As [`read`], each thing with what its row says.
///
/// # Errors
/// As [`read`].
pub fn read_told(file: &str, text: &str) -> Result<(Vec<Told>, Vec<String>), Vec<FileError>> {
    let mut table = Table::open(file, text, &NEEDED).map_err(|error| vec![error])?;
    let headers = std::mem::take(&mut table.headers);
    let known: Vec<Option<(&Column, Bare)>> = headers
        .iter()
        .map(|h| COLUMNS.iter().find_map(|c| Some((c, c.bare(h.trim())?))))
        .collect();
    let (mut errors, mut things, mut keys) = (Mistakes::default(), Vec::new(), BTreeSet::new());
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
    // Asked first, once for a column: nothing is read meanwhile.
    for (k, header) in headers.iter().enumerate() {
        let cells = rows.iter().filter_map(|(_, row)| row.get(k));
        if let Some(problem) = unit_not_stated((header, dimension_of(header)), cells) {
            errors.add(at(file, HEADER, header, problem));
        }
    }
    if !errors.is_empty() {
        return Err(errors.told(file));
    }
    let numbers = |row: &csv::StringRecord| -> Vec<String> {
        let cells = row.iter().zip(&known);
        let number = |k: &Option<(&Column, Bare)>| {
            k.is_some_and(|(c, _)| {
                matches!(
                    c.kind,
                    Kind::Mass | Kind::Length | Kind::Level | Kind::Number
                )
            })
        };
        let cells = cells.filter(|(_, k)| number(k));
        cells.map(|(cell, _)| cell.to_owned()).collect()
    };
    let commas = table.semicolons
        && rows
            .iter()
            .any(|(_, row)| has_decimal_comma(numbers(row).iter().map(String::as_str)));
    if rows.len() > MOST {
        errors.add(FileError::whole(file, format!("more than {MOST} things")));
        rows.clear();
    }
    for (line, row) in rows {
        match thing(file, line, &row, (&headers, &known), commas) {
            Ok((gear, _)) if !keys.insert(gear.key.clone()) => {
                let problem = format!("the key “{}” stands twice", gear.key);
                errors.add(at(file, line, "key", problem));
            }
            Ok(told) => match sound::thing(&told.0) {
                Ok(()) => things.push(told),
                Err(problem) => errors.add(at(file, line, "name", problem)),
            },
            Err(found) => found.into_iter().for_each(|error| errors.add(error)),
        }
    }
    if things.is_empty() && errors.is_empty() {
        errors.add(FileError::whole(file, "nothing in it"));
    }
    if !errors.is_empty() {
        return Err(errors.told(file));
    }
    let unknown = headers.into_iter().zip(&known);
    let unknown = unknown.filter(|(h, k)| k.is_none() && !h.is_empty());
    Ok((things, unknown.map(|(h, _)| h).collect()))
}

fn at(file: &str, line: u64, column: &str, problem: String) -> FileError {
    FileError {
        line: Some(line),
        column: Some(column.to_owned()),
        ..FileError::whole(file, problem)
    }
}

type Known<'a> = (&'a [String], &'a [Option<(&'static Column, Bare)>]);

fn thing(
    file: &str,
    line: u64,
    row: &csv::StringRecord,
    (headers, known): Known<'_>,
    commas: bool,
) -> Result<Told, Vec<FileError>> {
    let mut errors = Vec::new();
    let mut entry = json!({});
    let mut beyond = Vec::new();
    for ((cell, header), known) in row.iter().zip(headers).zip(known) {
        if cell.is_empty() {
            continue;
        }
        if cell.len() > LONGEST {
            let problem = format!("longer than {LONGEST} characters");
            errors.push(at(file, line, header, problem));
            continue;
        }
        let Some((column, bare)) = known else {
            beyond.push(format!("{header}: {}", unguarded(cell)));
            continue;
        };
        let number = matches!(column.kind, Kind::Mass | Kind::Length | Kind::Number);
        let cell = if commas && number {
            with_point(cell)
        } else {
            cell.into()
        };
        match (column.value(&cell, *bare), entry.as_object_mut()) {
            (Ok(value), Some(entry)) => put(entry, column.path, value),
            (Err(problem), _) => errors.push(at(file, line, header, problem)),
            (Ok(_), None) => {}
        }
    }
    if !errors.is_empty() {
        return Err(errors);
    }
    if !beyond.is_empty() {
        let note = entry.get("note").and_then(Value::as_str).unwrap_or("");
        let all = std::iter::once(note.to_owned()).filter(|n| !n.is_empty());
        let all: Vec<String> = all.chain(beyond).collect();
        entry["note"] = json!(all.join("; "));
    }
    let whole = |problem: String| {
        vec![FileError {
            line: Some(line),
            ..FileError::whole(file, problem)
        }]
    };
    let told = entry.clone();
    // What a table may leave out: it sinks, and lies where there is room.
    for (name, usual) in [("tether", "sinks"), ("category", "other")] {
        if entry.get(name).is_none() {
            entry[name] = json!(usual);
        }
    }
    let entry: GearEntry =
        serde_json::from_value(entry).map_err(|e| whole(super::json_problem(&e)))?;
    let gear = entry.gear(file).map_err(|e| whole(e.problem))?;
    Ok((gear, told))
}

/// Writes the shelf as a table.
///
/// # Errors
/// None that writing to memory could have; in the CSV writer's words.
pub fn write(shelf: &[Gear]) -> Result<String, csv::Error> {
    let mut out = csv::Writer::from_writer(Vec::new());
    out.write_record(COLUMNS.iter().map(Column::header))?;
    for gear in shelf {
        let thing = serde_json::to_value(GearEntry::of(gear)).unwrap_or(Value::Null);
        out.write_record(COLUMNS.iter().map(|c| c.cell(&thing)))?;
    }
    let bytes = out
        .into_inner()
        .map_err(|e| csv::Error::from(e.into_error()))?;
    Ok(String::from_utf8_lossy(&bytes).into_owned())
}

#[cfg(test)]
mod tests {
    use super::super::told;
    use super::*;

    const HEAD: &str = "key,name,category,dry_weight_lb,length_cm,width_cm,height_cm,colour\n";

    #[test]
    fn units_stand_in_the_header_or_the_cell_and_the_rest_is_kept() {
        let text = format!("{HEAD}my-crate,my crate,crates,5,40,33 cm,0.28 m,red\n");
        let (things, unknown) = read("g.csv", &text).unwrap();
        let [crate_] = &things[..] else { panic!() };
        assert!((crate_.dry_mass - 2.267_962).abs() < 1e-5);
        assert_eq!(crate_.loaded_mass, crate_.dry_mass);
        assert_eq!(crate_.size, Some([0.4, 0.33, 0.28]));
        assert_eq!(unknown, ["colour"]);
        assert_eq!(crate_.note, "colour: red");
    }

    #[test]
    fn what_goes_out_comes_back_the_same() {
        let mut gear = Gear::plain(
            "odd-one",
            "=odd, \"one\"",
            galvet_core::gear::Category::Power,
            3.25,
            Some([0.181, 0.077, 0.167]),
        );
        gear.electric = galvet_core::gear::Electric::Battery {
            volts: 12.8,
            amp_hours: 20.0,
            chemistry: galvet_core::gear::Chemistry::Lifepo4,
        };
        gear.brings.adapts = Some(("T-slot 25".into(), "motor plate".into()));
        gear.brings.inside = Some([0.1, 0.2, 0.3]);
        gear.fixings = vec![
            galvet_core::gear::Fixing::Strap,
            galvet_core::gear::Fixing::Drill,
        ];
        gear.holes = 4;
        gear.price = Some(129.95);
        let text = write(std::slice::from_ref(&gear)).unwrap();
        assert!(is_one(&text));
        let (back, unknown) = read("g.csv", &text).unwrap();
        assert_eq!(back, [gear]);
        assert!(unknown.is_empty());
    }

    #[test]
    fn mistakes_are_told_at_line_and_column_and_nothing_is_taken() {
        let text = format!(
            "{HEAD}a,a,crates,heavy,40,33,28,\nb,b,hats,5,40,33,28,\na-1,c,crates,5,40,,28,\n"
        );
        let all = told(&read("g.csv", &text).unwrap_err());
        assert!(all[0].contains("line 2, column dry_weight_lb"), "{all:?}");
        assert!(
            all[1].contains("line 3") && all[1].contains("hats"),
            "{all:?}"
        );
        assert!(all[2].contains("line 4"), "{all:?}");
        for hostile in [
            "key\n",
            "key,dry_weight\na,NaN\n",
            "key,dry_weight\n../x,1\n",
            "key,holes\na,1e99\n",
        ] {
            assert!(read("g.csv", hostile).is_err(), "{hostile:?}");
        }
    }
}
