//! A brief as JSON: the question, naming a rig and a water or bringing its own
//! rig along.

use super::rigs::{self, RigEntry};
use super::{FileError, check_key, read_json, refused, word};
use galvet_core::brief::{Brief, Crew, MustHaves, Posture, Rig, Scuppers, SeatHeight};
use galvet_core::rank::schools::{CapacitySchool, StabilitySchool};
use galvet_core::units::Bounds;
use galvet_core::water::Water;
use serde::{Deserialize, Serialize};

/// One brief file.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct BriefFile {
    /// Stable key.
    pub key: String,
    /// Name.
    pub name: String,
    /// The angler.
    pub crew: CrewEntry,
    /// `stands`, `sits-and-stands` or `sits`.
    pub posture: String,
    /// Key of a rig, or a rig.
    pub rig: RigRef,
    /// Key of a water type.
    pub water: String,
    /// `open` or `plugged`.
    #[serde(default = "open")]
    pub scuppers: String,
    /// `low` or `high`.
    #[serde(default = "low")]
    pub seat: String,
    /// Share of capacity, 0-1; the water's own when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub capacity_weight: Option<f64>,
    /// What capacity is judged by: `tightest`, `label`, `working-share`,
    /// `waterline`.
    #[serde(default = "tightest")]
    pub capacity_school: String,
    /// What stability is judged by: `by-posture`, `tape-measure`,
    /// `seated-feel`, `standing-support`, `rough-water`.
    #[serde(default = "by_posture")]
    pub stability_school: String,
    /// What a hull must meet.
    #[serde(default)]
    pub must: MustEntry,
}

/// The angler.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct CrewEntry {
    /// Body mass, kg.
    pub mass_kg: f64,
    /// Stature, m.
    pub stature_m: f64,
}

/// A rig by key or in place.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[serde(untagged)]
pub enum RigRef {
    /// One of the catalogue's.
    Key(String),
    /// One brought along.
    Own(RigEntry),
}

/// Limits; all may be left out.
#[derive(Debug, Clone, Default, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct MustEntry {
    /// Longest storage, m.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub longest_m: Option<f64>,
    /// Heaviest single lift, kg.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub heaviest_lift_kg: Option<f64>,
    /// Budget in the shop's currency.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub budget: Option<f64>,
}

fn tightest() -> String {
    CapacitySchool::default().key().to_owned()
}

fn by_posture() -> String {
    StabilitySchool::default().key().to_owned()
}

fn open() -> String {
    Scuppers::Open.key().to_owned()
}

fn low() -> String {
    SeatHeight::Low.key().to_owned()
}

/// Reads a brief file without resolving what it names.
///
/// # Errors
/// [`FileError`] with line and column.
pub fn read(file: &str, text: &str) -> Result<BriefFile, FileError> {
    let parsed: BriefFile = read_json(file, text)?;
    check_key(&parsed.key).map_err(|problem| FileError::whole(file, problem))?;
    Ok(parsed)
}

fn find<'a, T>(
    what: &str,
    key: &str,
    all: &'a [T],
    key_of: impl Fn(&T) -> &str,
) -> Result<&'a T, String> {
    all.iter().find(|t| key_of(t) == key).ok_or_else(|| {
        let known: Vec<&str> = all.iter().map(&key_of).collect();
        format!("no {what} “{key}”; there are: {}", known.join(", "))
    })
}

/// Makes a brief of a file, with the catalogue's rigs and waters.
///
/// # Errors
/// [`FileError`] naming what is not known or out of range.
pub fn resolve(
    file: &str,
    entry: &BriefFile,
    rigs: &[Rig],
    waters: &[Water],
) -> Result<Brief, FileError> {
    let wrong = |problem: String| FileError::whole(file, problem);
    let water = find("water", &entry.water, waters, |w| &w.key).map_err(wrong)?;
    let rig = match &entry.rig {
        RigRef::Key(key) => find("rig", key, rigs, |r| &r.key).map_err(wrong)?.clone(),
        RigRef::Own(own) => rigs::rig(file, own.clone())?,
    };
    let crew = Crew::new(entry.crew.mass_kg, entry.crew.stature_m)
        .map_err(|error| refused(file, "crew", error))?;
    let limit = |bounds: Bounds, value: Option<f64>| {
        value
            .map(|v| bounds.check(v))
            .transpose()
            .map_err(|error| refused(file, "must", error))
    };
    let weight = entry.capacity_weight.unwrap_or(water.capacity_weight);
    Ok(Brief {
        crew,
        posture: word("posture", &entry.posture, Posture::ALL, Posture::key).map_err(wrong)?,
        rig,
        scuppers: word("scuppers", &entry.scuppers, Scuppers::ALL, Scuppers::key).map_err(wrong)?,
        seat: word("seat", &entry.seat, SeatHeight::ALL, SeatHeight::key).map_err(wrong)?,
        capacity_weight: Water::WEIGHT
            .check(weight)
            .map_err(|error| refused(file, "capacity_weight", error))?,
        capacity_school: word(
            "capacity school",
            &entry.capacity_school,
            CapacitySchool::ALL,
            CapacitySchool::key,
        )
        .map_err(wrong)?,
        stability_school: word(
            "stability school",
            &entry.stability_school,
            StabilitySchool::ALL,
            StabilitySchool::key,
        )
        .map_err(wrong)?,
        must: MustHaves {
            longest: limit(MustHaves::LONGEST, entry.must.longest_m)?,
            heaviest_lift: limit(MustHaves::LIFT, entry.must.heaviest_lift_kg)?,
            budget: limit(MustHaves::BUDGET, entry.must.budget)?,
        },
        water: water.clone(),
    })
}
