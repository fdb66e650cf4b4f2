//! Rigs as JSON: what is carried, belonging to no hull.

use super::{FileError, check_key, read_json, refused};
use galvet_core::rig::{Rig, RigLine};
use serde::{Deserialize, Serialize};

/// A file of rigs.
#[derive(Debug, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct RigsFile {
    rigs: Vec<RigEntry>,
}

/// One rig; also stands inside a brief.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct RigEntry {
    /// Stable key.
    pub key: String,
    /// Name.
    pub name: String,
    /// What is in it.
    pub lines: Vec<LineEntry>,
}

/// One line of a rig.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct LineEntry {
    /// Generic name.
    pub item: String,
    /// How many; 1 when left out.
    #[serde(default = "one")]
    pub count: u32,
    /// Mass of one as packed, kg.
    pub dry_mass_kg: f64,
    /// Mass of one on the water, kg; the dry mass when left out.
    #[serde(default)]
    pub loaded_mass_kg: Option<f64>,
    /// Place from the bow, share of the length.
    pub place: f64,
    /// Height of its centre above the cockpit floor, m.
    pub height_m: f64,
    /// To starboard, m; 0 when left out.
    #[serde(default)]
    pub offset_m: f64,
    /// Energy of one battery for a motor, Wh; 0 when left out.
    #[serde(default)]
    pub energy_wh: f64,
}

impl RigEntry {
    /// The entry of a rig.
    #[must_use]
    pub fn of(rig: &Rig) -> Self {
        let lines = rig.lines.iter().map(|line| LineEntry {
            item: line.item.clone(),
            count: line.count,
            dry_mass_kg: line.dry_mass,
            loaded_mass_kg: Some(line.loaded_mass),
            place: line.place,
            height_m: line.height,
            offset_m: line.offset,
            energy_wh: line.energy,
        });
        Self {
            key: rig.key.clone(),
            name: rig.name.clone(),
            lines: lines.collect(),
        }
    }
}

const fn one() -> u32 {
    1
}

/// Most lines in a rig.
const MOST_LINES: usize = 400;

/// Reads rigs.
///
/// # Errors
/// [`FileError`] naming rig, item and the accepted range.
pub fn read(file: &str, text: &str) -> Result<Vec<Rig>, FileError> {
    let parsed: RigsFile = read_json(file, text)?;
    parsed
        .rigs
        .into_iter()
        .map(|entry| rig(file, entry))
        .collect()
}

/// Checks one rig.
///
/// # Errors
/// [`FileError`] naming item and range.
pub fn rig(file: &str, entry: RigEntry) -> Result<Rig, FileError> {
    let key = entry.key;
    check_key(&key).map_err(|problem| FileError::whole(file, problem))?;
    if entry.lines.len() > MOST_LINES {
        let problem = format!("{key}: more than {MOST_LINES} lines");
        return Err(FileError::whole(file, problem));
    }
    let lines = entry
        .lines
        .into_iter()
        .map(|line| {
            let name = format!("{key}, {}", line.item);
            RigLine {
                item: line.item,
                count: line.count,
                dry_mass: line.dry_mass_kg,
                loaded_mass: line.loaded_mass_kg.unwrap_or(line.dry_mass_kg),
                place: line.place,
                height: line.height_m,
                offset: line.offset_m,
                energy: line.energy_wh,
            }
            .check()
            .map_err(|error| refused(file, &name, error))
        })
        .collect::<Result<_, _>>()?;
    Ok(Rig {
        key,
        name: entry.name,
        lines,
    })
}
