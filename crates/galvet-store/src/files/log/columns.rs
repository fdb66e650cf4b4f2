//! The columns of a log as a table: figures with the units known in their headers, words.

use galvet_core::base::{Bounds, FOOT, MILE, POUND};
use galvet_core::hull::Evidence;
use galvet_core::log::Outing;

/// A knot, m/s: the international nautical mile an hour.
const KNOT: f64 = 1852.0 / 3600.0;

type Put = fn(&mut Outing, f64);
type Get = fn(&Outing) -> Option<f64>;

/// A column of figures: header it goes out by, names it comes in by, accepted range, scale
/// out, units known in its header each with what one of them is, whether a bare number means
/// something by itself.
pub(super) struct Column {
    /// Header it goes out by.
    pub(super) header: &'static str,
    pub(super) names: &'static [&'static str],
    pub(super) bounds: Bounds,
    /// What one of the header's unit is, SI.
    pub(super) unit: f64,
    pub(super) units: &'static [(&'static str, f64)],
    pub(super) bare: Option<f64>,
    pub(super) get: Get,
    pub(super) put: Put,
}

const LENGTHS: &[(&str, f64)] = &[("m", 1.0), ("cm", 0.01), ("ft", FOOT)];
const WAYS: &[(&str, f64)] = &[
    ("km", 1000.0),
    ("mi", MILE),
    ("miles", MILE),
    ("nm", 1852.0),
    ("m", 1.0),
];
const SPEEDS: &[(&str, f64)] = &[
    ("m/s", 1.0),
    ("mps", 1.0),
    ("kn", KNOT),
    ("kt", KNOT),
    ("kts", KNOT),
    ("knots", KNOT),
    ("km/h", 1.0 / 3.6),
    ("kmh", 1.0 / 3.6),
    ("mph", MILE / 3600.0),
];
const MASSES: &[(&str, f64)] = &[("kg", 1.0), ("lb", POUND), ("lbs", POUND)];
const HOURS: &[(&str, f64)] = &[
    ("h", 1.0),
    ("hours", 1.0),
    ("hrs", 1.0),
    ("min", 1.0 / 60.0),
];
const SHARES: &[(&str, f64)] = &[("%", 0.01)];
const MINUTES: &[(&str, f64)] = &[("min", 1.0), ("h", 60.0)];
const DEGREES: &[(&str, f64)] = &[("c", 1.0), ("°c", 1.0)];
const NONE: &[(&str, f64)] = &[];

macro_rules! column {
    ($header:literal, $names:expr, $bounds:expr, $unit:expr, $units:expr, $bare:expr, $field:ident) => {
        Column {
            header: $header,
            names: $names,
            bounds: $bounds,
            unit: $unit,
            units: $units,
            bare: $bare,
            get: |o| o.$field,
            put: |o, v| o.$field = Some(v),
        }
    };
}

/// In the order they go out.
pub(super) const COLUMNS: [Column; 14] = [
    column!(
        "hours",
        &["hours", "time", "duration", "hours on the water"],
        Outing::HOURS,
        1.0,
        HOURS,
        Some(1.0),
        hours
    ),
    column!(
        "distance_km",
        &["distance", "dist", "way"],
        Outing::DISTANCE,
        1000.0,
        WAYS,
        None,
        distance
    ),
    column!(
        "forecast_kn",
        &["forecast", "forecast wind"],
        Outing::WIND,
        KNOT,
        SPEEDS,
        None,
        forecast
    ),
    column!(
        "wind_kn",
        &["wind", "wind met"],
        Outing::WIND,
        KNOT,
        SPEEDS,
        None,
        wind
    ),
    column!(
        "gust_kn",
        &["gust", "gusts"],
        Outing::WIND,
        KNOT,
        SPEEDS,
        None,
        gust
    ),
    column!(
        "wave_m",
        &["wave", "waves", "sea"],
        Outing::WAVE,
        1.0,
        LENGTHS,
        None,
        wave
    ),
    column!(
        "water_c",
        &["water temp", "water temperature"],
        Outing::TEMPERATURE,
        1.0,
        DEGREES,
        None,
        water_temperature
    ),
    column!(
        "speed_km_h",
        &["speed", "cruise"],
        Evidence::SPEED,
        1.0 / 3.6,
        SPEEDS,
        None,
        speed
    ),
    column!(
        "drift_km_h",
        &["drift"],
        Evidence::SPEED,
        1.0 / 3.6,
        SPEEDS,
        None,
        drift
    ),
    column!(
        "drained_s",
        &["drained", "drain time"],
        Evidence::DRAIN,
        1.0,
        &[("s", 1.0)],
        None,
        drained
    ),
    column!(
        "fish_kg",
        &["fish", "fish kept", "catch"],
        Outing::FISH,
        1.0,
        MASSES,
        None,
        fish
    ),
    column!(
        "battery_left_percent",
        &["battery", "battery left"],
        Outing::LEFT,
        0.01,
        SHARES,
        Some(0.01),
        battery_left
    ),
    column!(
        "to_fishing_min",
        &["to fishing", "minutes to fishing"],
        Outing::TO_FISHING,
        1.0,
        MINUTES,
        Some(1.0),
        to_fishing
    ),
    column!(
        "cost",
        &["cost", "costs", "fees"],
        Outing::COST,
        1.0,
        NONE,
        Some(1.0),
        cost
    ),
];

/// Columns of words: header, names.
pub(super) const WORDS: [(&str, &[&str]); 6] = [
    ("day", &["day", "date", "when"]),
    ("place", &["place", "where", "spot", "location"]),
    ("hull", &["hull", "boat", "kayak"]),
    ("water", &["water", "kind of water"]),
    ("people", &["people", "crew", "persons"]),
    ("notes", &["notes", "note", "remarks", "comments"]),
];
