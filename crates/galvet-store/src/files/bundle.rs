//! Everything as one archive: the exchange file, tables for whoever reads no JSON, and
//! drawings. What comes back in is the exchange file.

use super::photo::{LARGEST_FILE, NoPicture, Picture, is_name};
use super::{FileError, LARGEST};
use std::io::{Cursor, Read, Write};
use zip::write::SimpleFileOptions;
use zip::{ZipArchive, ZipWriter};

/// The exchange file in it.
pub const EVERYTHING: &str = "everything.json";

/// Packs files, each a name and its content.
///
/// # Errors
/// In the packer's words.
pub fn pack(files: &[(String, Vec<u8>)]) -> Result<Vec<u8>, String> {
    let mut out = ZipWriter::new(Cursor::new(Vec::new()));
    for (name, content) in files {
        let how = SimpleFileOptions::default();
        out.start_file(name.as_str(), how)
            .map_err(|e| e.to_string())?;
        out.write_all(content).map_err(|e| e.to_string())?;
    }
    let done = out.finish().map_err(|e| e.to_string())?;
    Ok(done.into_inner())
}

/// The exchange file of an archive of ours; `None` for any other archive.
///
/// # Errors
/// [`FileError`] for one that unpacks to more than a file may have, or is no text.
pub fn unpack(file: &str, bytes: &[u8]) -> Result<Option<String>, FileError> {
    let Ok(mut archive) = ZipArchive::new(Cursor::new(bytes)) else {
        return Ok(None);
    };
    let Ok(entry) = archive.by_name(EVERYTHING) else {
        return Ok(None);
    };
    let refused = |problem: String| FileError::whole(file, problem);
    let mut text = Vec::new();
    // What it unpacks to is counted as it does: a small file becomes no large one in memory.
    let most = LARGEST as u64 + 1;
    let read = entry.take(most).read_to_end(&mut text);
    read.map_err(|e| refused(format!("the archive is damaged: {e}")))?;
    if text.len() > LARGEST {
        let limit = LARGEST >> 20;
        return Err(refused(format!("it unpacks to more than {limit} MiB")));
    }
    let text = String::from_utf8(text);
    text.map(Some)
        .map_err(|_| refused(format!("{EVERYTHING} is not UTF-8 text")))
}

/// The folder of the pixels of photos.
const PHOTOS: &str = "photos/";

/// Where in an archive the pixels of a name lie.
#[must_use]
pub fn picture_path(name: &str) -> String {
    format!("{PHOTOS}{name}.jpg")
}

/// Hands each picture of an archive of ours on, one after the other, so that no more than
/// one is in memory unpacked; how many are none, or are not what their names say. Nothing
/// for any other archive.
///
/// # Errors
/// Whatever `keep` refuses.
pub fn pictures<E>(
    bytes: &[u8],
    mut keep: impl FnMut(&Picture) -> Result<(), E>,
) -> Result<usize, E> {
    let Ok(mut archive) = ZipArchive::new(Cursor::new(bytes)) else {
        return Ok(0);
    };
    if archive.by_name(EVERYTHING).is_err() {
        return Ok(0);
    }
    let names: Vec<String> = archive
        .file_names()
        .filter_map(|n| Some(n.ok()?.into_owned()))
        .collect();
    let mut odd = 0;
    for path in names.iter().filter(|path| path.starts_with(PHOTOS)) {
        let name = path.trim_start_matches(PHOTOS).trim_end_matches(".jpg");
        let read = archive.by_name(path).map_err(|_| NoPicture::Damaged);
        let picture = read.and_then(|entry| {
            let mut jpeg = Vec::new();
            let most = LARGEST_FILE as u64 + 1;
            let read = entry.take(most).read_to_end(&mut jpeg);
            read.map_err(|_| NoPicture::Damaged)?;
            Picture::returned(&jpeg)
        });
        match picture {
            Ok(picture) if is_name(name) && picture.name() == name => keep(&picture)?,
            _ => odd += 1,
        }
    }
    Ok(odd)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_is_packed_comes_back_and_nothing_else_is_taken() {
        let files = [
            ("hulls.csv".to_owned(), b"key\n".to_vec()),
            (EVERYTHING.to_owned(), b"{\"galvet\": 1}".to_vec()),
        ];
        let archive = pack(&files).unwrap();
        let text = unpack("all.zip", &archive).unwrap();
        assert_eq!(text.as_deref(), Some("{\"galvet\": 1}"));
        assert_eq!(
            unpack("other.zip", &pack(&files[..1]).unwrap()).unwrap(),
            None
        );
        assert_eq!(unpack("x", b"PK\x03\x04 nothing").unwrap(), None);
        // Damaged, it is said.
        let mut broken = archive.clone();
        let middle = broken.len() / 2;
        broken[middle - 20..middle].fill(0xff);
        assert!(unpack("b.zip", &broken).map_or(true, |t| t.as_deref() != Some("{\"galvet\": 1}")));
        // Forty megabytes of blanks in some kilobytes.
        let bomb = [(EVERYTHING.to_owned(), vec![b' '; 40 << 20])];
        let bomb = pack(&bomb).unwrap();
        assert!(bomb.len() < 200_000);
        let said = unpack("b.zip", &bomb).unwrap_err().to_string();
        assert!(said.contains("more than 32 MiB"), "{said}");
    }
}
