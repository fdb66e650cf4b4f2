//! Tables as people send them: commas, semicolons or tabs, headers in capitals,
//! every column once.

use super::{FileError, LARGEST_ON_DISK, csv_words, echo};

/// The line that names the columns.
pub const HEADER: u64 = 1;

/// Counts lines up to places further and further on. The CSV reader's own count
/// falls behind where lines end in a carriage return and a line feed.
pub(super) struct Lines<'a> {
    text: &'a [u8],
    at: usize,
    line: u64,
}

impl<'a> Lines<'a> {
    pub(super) const fn of(text: &'a str) -> Self {
        Self {
            text: text.as_bytes(),
            at: 0,
            line: 1,
        }
    }

    /// The line, from 1, of the record that begins at or after a byte.
    pub(super) fn of_record(&mut self, position: Option<&csv::Position>) -> u64 {
        let byte = position.map_or(0, csv::Position::byte);
        let byte = usize::try_from(byte).unwrap_or(usize::MAX);
        let ends = |b: &u8| matches!(b, b'\r' | b'\n');
        while self.at < self.text.len()
            && (self.at < byte || self.text.get(self.at).is_some_and(ends))
        {
            self.line += u64::from(self.text[self.at] == b'\n');
            self.at += 1;
        }
        self.line
    }
}

/// A table being read.
pub(super) struct Table<'a> {
    lines: Lines<'a>,
    file: &'a str,
    reader: csv::Reader<&'a [u8]>,
    /// Names of the columns, in small letters.
    pub(super) headers: Vec<String>,
    /// Whether semicolons stand between the cells: as where the comma is the
    /// decimal sign.
    pub(super) semicolons: bool,
}

/// The sign between cells: the one of comma, semicolon and tab that stands most
/// often in the first line, outside quotes.
pub(super) fn delimiter(text: &str) -> u8 {
    let first = text.lines().next().unwrap_or_default();
    let count = |sign: char| {
        let mut quoted = false;
        let outside = first.chars().filter(|&c| {
            quoted ^= c == '"';
            !quoted && c == sign
        });
        outside.count()
    };
    let signs = [',', ';', '\t'];
    let most = signs.into_iter().rev().max_by_key(|&sign| count(sign));
    most.map_or(b',', |sign| sign as u8)
}

impl<'a> Table<'a> {
    /// Opens a table, one of whose columns must be among `needed`, where any are.
    ///
    /// # Errors
    /// [`FileError`] for a file too large, without a header, or with a column
    /// that stands twice.
    pub(super) fn open(file: &'a str, text: &'a str, needed: &[&str]) -> Result<Self, FileError> {
        if text.len() > LARGEST_ON_DISK {
            let limit = format!("larger than {} MiB", LARGEST_ON_DISK >> 20);
            return Err(FileError::whole(file, limit));
        }
        let text = text.trim_start_matches('\u{feff}');
        let sign = delimiter(text);
        let mut reader = csv::ReaderBuilder::new()
            .delimiter(sign)
            .trim(csv::Trim::All)
            .from_reader(text.as_bytes());
        let headers: Vec<String> = match reader.headers() {
            Ok(headers) => headers.iter().map(str::to_lowercase).collect(),
            Err(error) => return Err(problem(file, &error)),
        };
        let first = |problem: String| FileError {
            file: file.to_owned(),
            line: Some(1),
            column: None,
            problem,
        };
        if !needed.is_empty() && !headers.iter().any(|h| needed.contains(&h.as_str())) {
            let problem = format!(
                "the first line must name the columns, {} among them",
                needed.join(" or ")
            );
            return Err(first(problem));
        }
        for (i, header) in headers.iter().enumerate() {
            if !header.is_empty() && headers[..i].contains(header) {
                return Err(first(format!("the column “{}” stands twice", echo(header))));
            }
        }
        Ok(Self {
            lines: Lines::of(text),
            file,
            reader,
            headers,
            semicolons: sign == b';',
        })
    }

    /// The next row with its line, or what is wrong with it.
    pub(super) fn row(&mut self) -> Option<Result<(u64, csv::StringRecord), FileError>> {
        let record = self.reader.records().next()?;
        Some(match record {
            Ok(record) => Ok((self.lines.of_record(record.position()), record)),
            Err(error) => {
                let line = error.position().map(|p| self.lines.of_record(Some(p)));
                Err(FileError {
                    line,
                    ..problem(self.file, &error)
                })
            }
        })
    }
}

fn problem(file: &str, error: &csv::Error) -> FileError {
    FileError {
        file: file.to_owned(),
        line: error.position().map(csv::Position::line),
        column: None,
        problem: csv_words(error),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_sign_between_cells_is_seen_in_the_first_line() {
        for (text, sign) in [
            ("key,maker\n", b','),
            ("key;maker;length\na;b;3,76 m", b';'),
            ("key\tmaker\n", b'\t'),
            ("\"a;b;c\",key\n", b','),
            ("key\n", b','),
        ] {
            assert_eq!(delimiter(text), sign, "{text:?}");
        }
    }
}
