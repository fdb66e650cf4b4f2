//! Measured offsets as CSV: `station_m,half_breadth_m,height_m`.
//!
//! Rows of one station stand together, in order along the half-section.

use super::table::Table;
use super::{FileError, echo};
use galvet_core::body::{Body, offsets::body};
use galvet_core::hull::Station;

const HEADER: [&str; 3] = ["station_m", "half_breadth_m", "height_m"];
/// Most rows in a file.
const MOST_ROWS: usize = 100_000;

/// Writes stations as offsets, to the tenth of a millimetre.
#[must_use]
pub fn write(stations: &[Station]) -> String {
    let mut out = HEADER.join(",");
    out.push('\n');
    for station in stations {
        for (y, z) in &station.points {
            // A station's place tells it from the next: to the micrometre.
            out.push_str(&format!("{:.6},{y:.5},{z:.5}\n", station.x));
        }
    }
    out
}

/// Reads offsets and draws the body.
///
/// # Errors
/// [`FileError`] with the line and column of the first mistake.
pub fn read(file: &str, text: &str) -> Result<Body<1>, FileError> {
    Ok(read_stations(file, text)?.1)
}

/// Reads offsets: the stations, and the body they make.
///
/// # Errors
/// [`FileError`] with the line and column of the first mistake.
pub fn read_stations(file: &str, text: &str) -> Result<(Vec<Station>, Body<1>), FileError> {
    let at = |line: Option<u64>, column: Option<&str>, problem: String| FileError {
        file: file.to_owned(),
        line,
        column: column.map(str::to_owned),
        problem,
    };
    let mut table = Table::open(file, text, &[])?;
    if table.headers != HEADER {
        let problem = format!("the header must be {}", HEADER.join(","));
        return Err(at(Some(1), None, problem));
    }
    let mut stations: Vec<Station> = Vec::new();
    let mut lines: Vec<Vec<u64>> = Vec::new();
    let mut row = 0;
    while let Some(next) = table.row() {
        let (line, record) = next?;
        row += 1;
        if row > MOST_ROWS {
            return Err(at(Some(line), None, format!("more than {MOST_ROWS} rows")));
        }
        let mut numbers = [0.0; 3];
        for ((cell, number), column) in record.iter().zip(&mut numbers).zip(HEADER) {
            *number = cell
                .replace(',', ".")
                .parse()
                .ok()
                .filter(|v: &f64| v.is_finite())
                .ok_or_else(|| {
                    let problem =
                        format!("“{}” is not a number of metres such as 0.36", echo(cell));
                    at(Some(line), Some(column), problem)
                })?;
        }
        let [x, y, z] = numbers;
        match (stations.last_mut(), lines.last_mut()) {
            (Some(station), Some(lines)) if station.x == x => {
                station.points.push((y, z));
                lines.push(line);
            }
            _ => {
                let points = vec![(y, z)];
                stations.push(Station { x, points });
                lines.push(vec![line]);
            }
        }
    }
    let body = body(&stations).map_err(|error| {
        let line = lines.get(error.station).and_then(|l| l.get(error.point));
        at(line.copied(), None, error.problem)
    })?;
    Ok((stations, body))
}

#[cfg(test)]
mod tests {
    use super::*;

    const TRAY: &str = "0,0\n0.4,0\n0.4,0.5\n0.3,0.5\n0.3,0.14\n0,0.14";

    fn file(stations: &[&str]) -> String {
        let rows = stations
            .iter()
            .flat_map(|x| TRAY.lines().map(move |row| format!("{x},{row}\n")));
        format!(
            "station_m,half_breadth_m,height_m\n{}",
            rows.collect::<String>()
        )
    }

    #[test]
    fn a_file_becomes_a_body() {
        let body = read("o.csv", &file(&["0", "1.5", "3"])).unwrap();
        assert!((body.length - 3.0).abs() < 1e-12);
        assert!(body.has_recess());
    }

    #[test]
    fn mistakes_name_their_line() {
        let say = |text: &str| read("o.csv", text).unwrap_err().to_string();
        let good = file(&["0", "1.5", "3"]);
        assert!(say("x,y,z\n").contains("line 1: the header must be station_m"));
        let text = say(&good.replacen("1.5,0.4,0.5", "1.5,0.4,deep", 1));
        assert!(text.contains("line 10, column height_m: “deep”"), "{text}");
        let text = say(&good.replacen("1.5,0.4,0.5", "1.5,-0.4,0.5", 1));
        assert!(
            text.contains("line 10: a half-breadth is negative"),
            "{text}"
        );
        let text = say(&file(&["0", "3", "1.5"]));
        assert!(
            text.contains("line 14: station 1.5 m does not lie aft"),
            "{text}"
        );
        let text = say(&good.replacen("1.5,0,0.14", "1.5,0.1,0.14", 1));
        assert!(
            text.contains("line 13: the section leaves a gap of 0.1 m"),
            "{text}"
        );
        let text = say(&good.replacen("1.5,0.4,0.5\n", "1.5,0.4\n", 1));
        assert!(
            text.contains("line 10: 2 cells where the header has 3"),
            "{text}"
        );
        for hostile in [
            "",
            "station_m,half_breadth_m,height_m\n",
            "\u{0}",
            "station_m,half_breadth_m,height_m\n1e999,0,0\n",
        ] {
            assert!(read("o.csv", hostile).is_err());
        }
    }
}
