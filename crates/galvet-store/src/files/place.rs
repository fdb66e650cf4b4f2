//! A place one launches from: its ramp, its tide, what is foretold there. Marked where it is
//! made up.

use super::sheet::Sheet;
use galvet_core::ahead::{Constituent, Foretold, Harmonic, Hour, Sheet as ForecastSheet};
use galvet_core::base::{Bounds, Dimension};
use serde::{Deserialize, Serialize};
use time::PrimitiveDateTime;
use time::format_description::BorrowedFormatItem;
use time::macros::format_description;

/// A place, m and m/s, °; times on its own clock.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct PlaceEntry {
    /// Stable key.
    pub key: String,
    /// What it is called.
    pub name: String,
    /// Key of the kind of water.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub water: String,
    /// Latitude, °.
    pub north: f64,
    /// Longitude, °.
    pub east: f64,
    /// Hours its clock is ahead of Greenwich, all year.
    #[serde(default)]
    pub clock_h: f64,
    /// Depth at the foot of the ramp with the water at chart datum, m; below zero it dries.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ramp_m: Option<f64>,
    /// Depth over the bar, likewise; `None` where there is none.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub bar_m: Option<f64>,
    /// Mean level over chart datum, m.
    #[serde(default)]
    pub level_m: f64,
    /// Harmonic constants, since 2026-01-01 00:00 on its clock.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub tide: Vec<TideEntry>,
    /// What is foretold.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub forecast: Vec<HourEntry>,
    /// Whether tide and forecast are made up.
    #[serde(default)]
    pub simulated: bool,
    /// Anything else.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub note: String,
}

/// A part of a tide.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct TideEntry {
    /// Its name.
    pub name: String,
    /// ° an hour.
    pub speed_deg_h: f64,
    /// m.
    pub amplitude_m: f64,
    /// °.
    pub lag_deg: f64,
}

/// A line of a forecast.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct HourEntry {
    /// From when, `2026-12-01T06:00`.
    pub from: String,
    /// Mean wind, 10 m up.
    pub wind_mps: f64,
    /// Gusts; a third more than the mean where it says none.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub gust_mps: Option<f64>,
    /// Waves.
    #[serde(default)]
    pub wave_m: f64,
    /// Temperature of the water.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub water_c: Option<f64>,
}

/// How a time stands in a file and in an address.
pub const CLOCK: &[BorrowedFormatItem<'_>] =
    format_description!("[year]-[month]-[day]T[hour]:[minute]");

/// Most parts of a tide.
const PARTS: usize = 60;
/// Most lines of a forecast: a month by the hour.
const LINES: usize = 800;
/// Share of a mean wind by which its gusts are stronger where nobody says: handbook,
/// chapter 10, guide value.
const GUSTS: f64 = 1.35;

/// A time of the place's own clock.
///
/// # Errors
/// In words.
pub fn clock(text: &str) -> Result<PrimitiveDateTime, String> {
    let told = || {
        format!(
            "“{}” is no time; write it as 2026-12-01T06:00",
            super::echo(text)
        )
    };
    let read = PrimitiveDateTime::parse(text.trim(), CLOCK).map_err(|_| told())?;
    if (1950..=2100).contains(&read.year()) {
        Ok(read)
    } else {
        Err(told())
    }
}

impl PlaceEntry {
    /// Its tide.
    #[must_use]
    pub fn harmonic(&self) -> Harmonic {
        Harmonic {
            mean: self.level_m,
            parts: self
                .tide
                .iter()
                .map(|t| Constituent {
                    name: t.name.clone(),
                    speed: t.speed_deg_h,
                    amplitude: t.amplitude_m,
                    lag: t.lag_deg,
                })
                .collect(),
        }
    }

    /// What is foretold there. Lines that are no times were refused.
    #[must_use]
    pub fn foretold(&self) -> ForecastSheet {
        let line = |e: &HourEntry| {
            Some(Foretold {
                from: clock(&e.from).ok()?,
                hour: Hour {
                    wind: e.wind_mps,
                    gust: e.gust_mps.unwrap_or(GUSTS * e.wind_mps),
                    wave: e.wave_m,
                    water: e.water_c,
                },
            })
        };
        ForecastSheet {
            lines: self.forecast.iter().filter_map(line).collect(),
            simulated: self.simulated,
        }
    }
}

impl Sheet for PlaceEntry {
    const KEY: &'static str = "place";
    const PLURAL: &'static str = "places";

    fn slug(&self) -> &str {
        &self.key
    }

    fn name(&self) -> &str {
        &self.name
    }

    fn check(&self) -> Result<(), String> {
        let told = |odd: galvet_core::base::OutOfRange| odd.to_string();
        let within = |what, dimension, lo, hi, value: f64| {
            Bounds::new(what, dimension, lo, hi)
                .check(value)
                .map(|_| ())
                .map_err(told)
        };
        within("the latitude", Dimension::Angle, -90.0, 90.0, self.north)?;
        within("the longitude", Dimension::Angle, -180.0, 180.0, self.east)?;
        within(
            "hours ahead of Greenwich",
            Dimension::Ratio,
            -12.0,
            14.0,
            self.clock_h,
        )?;
        for depth in [self.ramp_m, self.bar_m].into_iter().flatten() {
            within("a depth", Dimension::Length, -12.0, 50.0, depth)?;
        }
        within(
            "the mean level",
            Dimension::Length,
            -20.0,
            20.0,
            self.level_m,
        )?;
        if self.tide.len() > PARTS || self.forecast.len() > LINES {
            return Err(format!(
                "at most {PARTS} parts of a tide and {LINES} hours foretold"
            ));
        }
        for part in &self.tide {
            within(
                "a part's speed, ° an hour",
                Dimension::Ratio,
                0.0,
                200.0,
                part.speed_deg_h,
            )?;
            within(
                "an amplitude",
                Dimension::Length,
                0.0,
                10.0,
                part.amplitude_m,
            )?;
            within("a lag", Dimension::Angle, -360.0, 360.0, part.lag_deg)?;
        }
        let mut before = None;
        for hour in &self.forecast {
            let at = clock(&hour.from)?;
            if before.is_some_and(|b| b >= at) {
                return Err(format!(
                    "“{}” does not come after the line before it",
                    hour.from
                ));
            }
            before = Some(at);
            within("a wind", Dimension::Speed, 0.0, 60.0, hour.wind_mps)?;
            if let Some(gust) = hour.gust_mps {
                within("a gust", Dimension::Speed, 0.0, 90.0, gust)?;
                if gust < hour.wind_mps {
                    return Err(format!("{}: gusts weaker than the wind", hour.from));
                }
            }
            within("a wave", Dimension::ShortLength, 0.0, 20.0, hour.wave_m)?;
            if let Some(water) = hour.water_c {
                within(
                    "the water's temperature, °C",
                    Dimension::Ratio,
                    -2.0,
                    40.0,
                    water,
                )?;
            }
        }
        if self.note.chars().count() > 4_000 {
            return Err("a note longer than 4,000 characters".to_owned());
        }
        Ok(())
    }
}
