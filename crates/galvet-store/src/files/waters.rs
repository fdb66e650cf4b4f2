//! Water types as JSON.

use super::{FileError, check_key, read_json, refused, sound, word};
use galvet_core::base::{Keyed, OutOfRange};
use galvet_core::question::Water;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

/// A file of water types.
#[derive(Debug, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
struct WatersFile {
    waters: Vec<WaterEntry>,
}

/// One water type.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub(crate) struct WaterEntry {
    key: String,
    name: String,
    density_kg_m3: f64,
    freeboard_m: f64,
    floor_clearance_m: f64,
    working_share: f64,
    least_depth_m: f64,
    conditions: String,
    /// Stream, m/s; left out where nobody says.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    stream_m_per_s: Option<f64>,
    /// Depth one anchors in, m; left out where nobody says.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    anchor_depth_m: Option<f64>,
    standing: String,
    capacity_weight: f64,
    reserve_share: f64,
    #[serde(default)]
    must_drain: bool,
    #[serde(default)]
    plugs_allowed: bool,
    #[serde(default)]
    demands: Vec<String>,
    #[serde(default)]
    cautions: Vec<String>,
}

impl WaterEntry {
    /// The entry of a water type.
    pub(crate) fn of(w: &Water) -> Self {
        Self {
            key: w.key.clone(),
            name: w.name.clone(),
            density_kg_m3: w.density,
            freeboard_m: w.freeboard,
            floor_clearance_m: w.floor_clearance,
            working_share: w.working_share,
            least_depth_m: w.least_depth,
            conditions: w.conditions.clone(),
            stream_m_per_s: w.stream,
            anchor_depth_m: w.anchor_depth,
            standing: w.standing.key().to_owned(),
            capacity_weight: w.capacity_weight,
            reserve_share: w.reserve_share,
            must_drain: w.must_drain,
            plugs_allowed: w.plugs_allowed,
            demands: w.demands.iter().map(|d| d.key().to_owned()).collect(),
            cautions: w.cautions.clone(),
        }
    }
}

/// Reads water types.
///
/// # Errors
/// [`FileError`] naming the entry and the accepted range.
pub fn read(file: &str, text: &str) -> Result<Vec<Water>, FileError> {
    let parsed: WatersFile = read_json(file, text)?;
    parsed
        .waters
        .into_iter()
        .map(|entry| {
            let water = water(file, entry)?;
            sound::water(&water).map_err(|problem| FileError::whole(file, problem))?;
            Ok(water)
        })
        .collect()
}

pub(crate) fn water(file: &str, e: WaterEntry) -> Result<Water, FileError> {
    let standing = check_key(&e.key)
        .and_then(|()| word("way of standing", &e.standing))
        .map_err(|problem| FileError::whole(file, format!("{}: {problem}", e.key)))?;
    let asked = e.demands.iter().map(|d| word("thing a water asks", d));
    let demands = asked
        .collect::<Result<_, String>>()
        .map_err(|problem| FileError::whole(file, format!("{}: {problem}", e.key)))?;
    check(Water {
        key: e.key,
        name: e.name,
        density: e.density_kg_m3,
        freeboard: e.freeboard_m,
        floor_clearance: e.floor_clearance_m,
        working_share: e.working_share,
        least_depth: e.least_depth_m,
        conditions: e.conditions,
        stream: e.stream_m_per_s,
        anchor_depth: e.anchor_depth_m,
        standing,
        capacity_weight: e.capacity_weight,
        reserve_share: e.reserve_share,
        must_drain: e.must_drain,
        plugs_allowed: e.plugs_allowed,
        demands,
        cautions: e.cautions,
    })
    .map_err(|(key, error)| refused(file, &key, error))
}

/// Checks every number of a water type.
pub(crate) fn check(water: Water) -> Result<Water, (String, OutOfRange)> {
    let checks = [
        (Water::DENSITY, water.density),
        (Water::FREEBOARD, water.freeboard),
        (Water::FLOOR, water.floor_clearance),
        (Water::SHARE, water.working_share),
        (Water::DEPTH, water.least_depth),
        (Water::WEIGHT, water.capacity_weight),
        (Water::WEIGHT, water.reserve_share),
    ];
    let stated = [
        (Water::STREAM, water.stream),
        (Water::ANCHOR_DEPTH, water.anchor_depth),
    ];
    let stated = stated.into_iter().filter_map(|(b, v)| Some((b, v?)));
    for (bounds, value) in checks.into_iter().chain(stated) {
        if let Err(error) = bounds.check(value) {
            return Err((water.key, error));
        }
    }
    Ok(water)
}
