//! Rigs as JSON: what is carried, belonging to no hull.

use super::json::line_of;
use super::{FileError, check_key, echo, keyed, read_json, sound};
use galvet_core::gear::Gear;
use galvet_core::rig::{Importance, Rig, RigLine};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

/// A file of rigs.
#[derive(Debug, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
struct RigsFile {
    rigs: Vec<RigEntry>,
}

/// One rig; also stands inside a brief.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema)]
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
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct LineEntry {
    /// Key of the thing on the shelf it is; its name, masses and energy then
    /// come from there.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub gear: Option<String>,
    /// Generic name; needed for what is not on the shelf.
    #[serde(default)]
    pub item: String,
    /// How many; 1 when left out.
    #[serde(default = "one")]
    pub count: u32,
    /// Mass of one as packed, kg; needed for what is not on the shelf.
    #[serde(default)]
    pub dry_mass_kg: Option<f64>,
    /// Mass of one on the water, kg; the dry mass when left out.
    #[serde(default)]
    pub loaded_mass_kg: Option<f64>,
    /// Whether it must come; it must when left out.
    #[serde(with = "keyed::one", default = "must")]
    #[schemars(with = "keyed::Word<Importance>")]
    pub importance: Importance,
    /// Key of the container of this rig it is packed in; none when left out.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub within: String,
    /// Place from the bow, share of the length, where it lies as long as its size
    /// is not known; in the tank well when left out.
    #[serde(default = "usual_place")]
    pub place: f64,
    /// Height of its centre above the cockpit floor, m; low when left out.
    #[serde(default = "usual_height")]
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
            gear: line.gear.clone(),
            item: line.item.clone(),
            count: line.count,
            importance: line.importance,
            within: line.within.clone(),
            dry_mass_kg: Some(line.dry_mass),
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

const fn must() -> Importance {
    Importance::Must
}

const fn usual_place() -> f64 {
    RigLine::USUAL.0
}

const fn usual_height() -> f64 {
    RigLine::USUAL.1
}

const fn one() -> u32 {
    1
}

/// Most lines in a rig.
const MOST_LINES: usize = 400;

/// Reads rigs; `shelf` is what their lines may refer to.
///
/// # Errors
/// [`FileError`] naming rig, item and the accepted range.
pub fn read(file: &str, text: &str, shelf: &[Gear]) -> Result<Vec<Rig>, FileError> {
    let parsed: RigsFile = read_json(file, text)?;
    let numbered = parsed.rigs.into_iter().enumerate();
    numbered
        .map(|(at, entry)| {
            let whole = |problem| Misfit {
                path: Vec::new(),
                problem,
            };
            let read = rig(entry, shelf);
            let read = read.and_then(|rig| sound::rig(&rig).map(|()| rig).map_err(whole));
            read.map_err(|misfit| {
                let path = ["rigs".to_owned(), at.to_string()].into_iter();
                let path: Vec<String> = path.chain(misfit.path).collect();
                FileError {
                    line: line_of(text, &path),
                    ..FileError::whole(file, misfit.problem)
                }
            })
        })
        .collect()
}

/// What is wrong with a rig, and where in its document: names and numbers from
/// the rig inward.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Misfit {
    /// Where.
    pub path: Vec<String>,
    /// What, and what would be accepted.
    pub problem: String,
}

/// Checks one rig; `shelf` is what its lines may refer to.
///
/// # Errors
/// [`Misfit`] naming item and range, or what is not on the shelf.
pub fn rig(entry: RigEntry, shelf: &[Gear]) -> Result<Rig, Misfit> {
    let key = entry.key;
    let whole = |problem: String| Misfit {
        path: Vec::new(),
        problem,
    };
    check_key(&key).map_err(whole)?;
    if entry.lines.len() > MOST_LINES {
        return Err(whole(format!("{key}: more than {MOST_LINES} lines")));
    }
    let lines = entry
        .lines
        .into_iter()
        .enumerate()
        .map(|(at, entry)| {
            line(&format!("{key}, line {}", at + 1), entry, shelf).map_err(|problem| Misfit {
                path: vec!["lines".to_owned(), at.to_string()],
                problem,
            })
        })
        .collect::<Result<_, _>>()?;
    Ok(Rig {
        key,
        name: entry.name,
        lines,
    })
}

fn line(at: &str, entry: LineEntry, shelf: &[Gear]) -> Result<RigLine, String> {
    let wrong = |problem: String| format!("{at}: {problem}");
    let on_shelf = entry
        .gear
        .as_deref()
        .and_then(|key| shelf.iter().find(|gear| gear.key == key));
    // A line that once was taken from the shelf carries what it was then.
    let mass = match (on_shelf, entry.dry_mass_kg, &entry.gear) {
        (Some(gear), ..) => gear.dry_mass,
        (None, Some(mass), _) => mass,
        (None, None, Some(key)) => {
            return Err(wrong(format!("there is no “{key}” on the shelf")));
        }
        (None, None, None) => {
            return Err(wrong(
                "needs an item with its dry_mass_kg, or the key of its gear".to_owned(),
            ));
        }
    };
    let own = RigLine {
        item: entry.item,
        gear: entry.gear,
        thing: None,
        importance: entry.importance,
        within: entry.within,
        count: entry.count,
        dry_mass: mass,
        loaded_mass: entry.loaded_mass_kg.unwrap_or(mass),
        place: entry.place,
        height: entry.height_m,
        offset: entry.offset_m,
        energy: entry.energy_wh,
        chemistry: None,
        // A guess is part of a question, never of a rig.
        rough: false,
    };
    let line = match on_shelf {
        Some(gear) => own.is(gear),
        None => own,
    };
    if line.item.trim().is_empty() {
        return Err(wrong("the item has no name".to_owned()));
    }
    let name = format!("{at} ({})", echo(&line.item));
    line.check().map_err(|error| format!("{name}: {error}"))
}
