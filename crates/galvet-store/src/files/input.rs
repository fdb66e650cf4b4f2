//! Bytes from outside into text: never more than a file may have, whatever
//! their encoding.

use super::{FileError, LARGEST, LARGEST_ON_DISK};
use encoding_rs::{Encoding, UTF_8, UTF_16BE, UTF_16LE, WINDOWS_1252};
use std::fs::File;
use std::io::Read;

/// A file's text, and how it was read where that was not plain UTF-8.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Input {
    /// The file's name, for messages.
    pub file: String,
    /// Its text, without a byte-order mark.
    pub text: String,
    /// "read as Windows-1252"; `None` for UTF-8.
    pub read_as: Option<&'static str>,
}

/// Why there is no text.
#[derive(Debug, thiserror::Error)]
pub enum InputError {
    /// It cannot be read.
    #[error("{file}: {source}")]
    Read {
        /// Its name.
        file: String,
        /// What the system said.
        source: std::io::Error,
    },
    /// It is no text, or too large.
    #[error(transparent)]
    File(#[from] FileError),
}

/// Reads a whole pipe or device, but no more than [`LARGEST`] bytes of it.
///
/// # Errors
/// [`InputError`], for one too large before the rest of it is read.
pub fn read(file: &str, from: impl Read) -> Result<Input, InputError> {
    read_within(file, from, LARGEST)
}

/// Reads a file on disk, but no more than [`LARGEST_ON_DISK`] bytes of it; what has no end
/// that can be told before is read like a pipe.
///
/// # Errors
/// [`InputError`], for one too large before the rest of it is read.
pub fn read_file(file: &str, opened: &File) -> Result<Input, InputError> {
    let on_disk = opened.metadata().is_ok_and(|about| about.is_file());
    let most = if on_disk { LARGEST_ON_DISK } else { LARGEST };
    read_within(file, opened, most)
}

fn read_within(file: &str, from: impl Read, most: usize) -> Result<Input, InputError> {
    let mut bytes = Vec::new();
    from.take(most as u64 + 1)
        .read_to_end(&mut bytes)
        .map_err(|source| InputError::Read {
            file: file.to_owned(),
            source,
        })?;
    Ok(decode_within(file, &bytes, most)?)
}

/// The text of a file's bytes.
///
/// # Errors
/// [`FileError`] for a file too large, or that is no text at all.
pub fn decode(file: &str, bytes: &[u8]) -> Result<Input, FileError> {
    decode_within(file, bytes, LARGEST)
}

fn decode_within(file: &str, bytes: &[u8], most: usize) -> Result<Input, FileError> {
    if bytes.len() > most {
        let limit = format!("larger than {} MiB", most >> 20);
        return Err(FileError::whole(file, limit));
    }
    let encoding = encoding(bytes);
    let (text, _, _) = encoding.decode(bytes);
    if text.contains('\0') {
        return Err(FileError::whole(file, "not a text file"));
    }
    let read_as = (encoding != UTF_8).then(|| match encoding.name() {
        "windows-1252" => "not UTF-8: read as Windows-1252",
        _ => "read as UTF-16",
    });
    Ok(Input {
        file: file.to_owned(),
        text: text.into_owned(),
        read_as,
    })
}

/// What the bytes are written in: their mark says so, or that they are valid
/// UTF-8, or that every other one is zero; else Western Windows.
fn encoding(bytes: &[u8]) -> &'static Encoding {
    if let Some((marked, _)) = Encoding::for_bom(bytes) {
        return marked;
    }
    let zeros = |odd: usize| {
        let all = bytes.iter().skip(odd).step_by(2);
        all.filter(|&&b| b == 0).count()
    };
    let most = bytes.len() / 3;
    match (zeros(0), zeros(1)) {
        (0, odd) if odd > most => UTF_16LE,
        (even, 0) if even > most => UTF_16BE,
        _ if std::str::from_utf8(bytes).is_ok() => UTF_8,
        _ => WINDOWS_1252,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    const WORDS: &str = "maker;modèle\nBrügg;3,76 m\n";

    fn utf16(text: &str, big: bool) -> Vec<u8> {
        let units = text.encode_utf16();
        units
            .flat_map(|u| {
                if big {
                    u.to_be_bytes()
                } else {
                    u.to_le_bytes()
                }
            })
            .collect()
    }

    #[test]
    fn the_usual_encodings_are_read_and_said() {
        let western: Vec<u8> = WORDS.chars().map(|c| c as u8).collect();
        for (bytes, said) in [
            (WORDS.as_bytes().to_vec(), None),
            ([b"\xef\xbb\xbf", WORDS.as_bytes()].concat(), None),
            (utf16(&format!("\u{feff}{WORDS}"), false), Some("UTF-16")),
            (utf16(&format!("\u{feff}{WORDS}"), true), Some("UTF-16")),
            (utf16(WORDS, false), Some("UTF-16")),
            (utf16(WORDS, true), Some("UTF-16")),
            (western, Some("Windows-1252")),
        ] {
            let input = decode("h.csv", &bytes).unwrap();
            assert_eq!(input.text, WORDS, "{said:?}");
            match (input.read_as, said) {
                (None, None) => {}
                (Some(read_as), Some(said)) => assert!(read_as.contains(said), "{read_as}"),
                other => panic!("{other:?}"),
            }
        }
    }

    #[test]
    fn a_device_without_end_is_given_up_at_the_limit() {
        let error = read("/dev/zero", std::io::repeat(b'x')).unwrap_err();
        assert_eq!(error.to_string(), "/dev/zero: larger than 32 MiB");
        let error = read("picture", &[0x89, b'P', 0, 0, 0, 7, 1][..]).unwrap_err();
        assert_eq!(error.to_string(), "picture: not a text file");
    }
}
