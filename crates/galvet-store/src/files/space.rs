//! Hulls' space beside a table of hulls: zones, fittings, what was changed and
//! judged, each under the key of its hull.

use super::fitout::FitoutDoc;
use super::json::read_json;
use super::looked::LookedDoc;
use super::{FileError, check_key};
use galvet_core::hull::{Fitout, Looked};
use serde::{Deserialize, Serialize};

#[derive(Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct SpaceFile {
    space: Vec<Item>,
}

#[derive(Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct Item {
    hull: String,
    #[serde(default)]
    fitout: FitoutDoc,
    #[serde(default)]
    looked: LookedDoc,
}

/// Reads hulls' space: the hull's key, its zones and fittings, what was judged.
///
/// # Errors
/// [`FileError`] naming the hull.
pub fn read(file: &str, text: &str) -> Result<Vec<(String, Fitout, Looked)>, FileError> {
    let parsed: SpaceFile = read_json(file, text)?;
    let items = parsed.space.into_iter().map(|item| {
        let checked = || {
            check_key(&item.hull)?;
            Ok((item.fitout.fitout()?, item.looked.looked()?))
        };
        match checked() {
            Ok((fitout, looked)) => Ok((item.hull, fitout, looked)),
            Err::<_, String>(problem) => {
                Err(FileError::whole(file, format!("{}: {problem}", item.hull)))
            }
        }
    });
    items.collect()
}
