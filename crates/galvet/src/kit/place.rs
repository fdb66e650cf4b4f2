//! A place one launches from, and its form: a part of its tide and an hour of its forecast
//! a line, as they stand in tables.

use super::Kept;
use crate::form::{Draft, Group, Mistakes, Table, line, lines, name, note, number, tick};
use galvet_core::base::{Bounds, Dimension};
use galvet_store::files::place::{HourEntry, PlaceEntry, TideEntry};
use galvet_store::files::sheet::{Document, Sheet};
use galvet_store::{Kind, Record};

/// A place as its form takes it apart.
#[derive(Clone)]
pub(crate) struct PlaceDraft {
    place: PlaceEntry,
    north: f64,
    east: f64,
    tide: Vec<String>,
    forecast: Vec<String>,
}

/// A part of a tide as a line: name, ° an hour, m, °.
fn tide_line(t: &TideEntry) -> String {
    format!(
        "{} {} {} {}",
        t.name, t.speed_deg_h, t.amplitude_m, t.lag_deg
    )
}

fn read_tide(line: &str) -> Result<TideEntry, String> {
    let parts: Vec<&str> = line.split_whitespace().collect();
    let told = || {
        format!(
            "“{line}”: name, degrees an hour, amplitude in m, lag in degrees, as M2 28.984 1.6 312"
        )
    };
    let [name, speed, amplitude, lag] = parts[..] else {
        return Err(told());
    };
    let figure = |text: &str| {
        text.parse::<f64>()
            .ok()
            .filter(|v| v.is_finite())
            .ok_or_else(told)
    };
    Ok(TideEntry {
        name: name.to_owned(),
        speed_deg_h: figure(speed)?,
        amplitude_m: figure(amplitude)?,
        lag_deg: figure(lag)?,
    })
}

/// An hour as a line: from when, wind, gusts, waves, water; a dash for what nobody says.
fn hour_line(h: &HourEntry) -> String {
    let some = |v: Option<f64>| v.map_or("-".to_owned(), |v| v.to_string());
    format!(
        "{} {} {} {} {}",
        h.from,
        h.wind_mps,
        some(h.gust_mps),
        h.wave_m,
        some(h.water_c)
    )
}

fn read_hour(line: &str) -> Result<HourEntry, String> {
    let parts: Vec<&str> = line.split_whitespace().collect();
    let told = || {
        format!(
            "“{line}”: when, wind and gusts in m/s, waves in m, water in °C, as 2026-12-01T06:00 5 7 0.2 9; a dash for what nobody says"
        )
    };
    let (Some(from), Some(wind)) = (parts.first(), parts.get(1)) else {
        return Err(told());
    };
    if parts.len() > 5 {
        return Err(told());
    }
    let figure = |text: &str| {
        text.parse::<f64>()
            .ok()
            .filter(|v| v.is_finite())
            .ok_or_else(told)
    };
    let maybe = |at: usize| match parts.get(at) {
        None | Some(&"-") => Ok(None),
        Some(text) => figure(text).map(Some),
    };
    Ok(HourEntry {
        from: (*from).to_owned(),
        wind_mps: figure(wind)?,
        gust_mps: maybe(2)?,
        wave_m: maybe(3)?.unwrap_or(0.0),
        water_c: maybe(4)?,
    })
}

impl Draft for PlaceDraft {
    type Record = PlaceEntry;

    fn of(place: &PlaceEntry) -> Self {
        Self {
            north: place.north,
            east: place.east,
            tide: place.tide.iter().map(tide_line).collect(),
            forecast: place.forecast.iter().map(hour_line).collect(),
            place: place.clone(),
        }
    }

    fn made(self) -> Result<PlaceEntry, Mistakes> {
        let mut place = self.place;
        let of = |field: &str, why: String| Mistakes::from([(field.to_owned(), why)]);
        place.north = self.north;
        place.east = self.east;
        // What was not typed in is what was kept, to the last digit.
        let tide: Result<Vec<_>, String> = self.tide.iter().map(|l| read_tide(l)).collect();
        place.tide = tide.map_err(|why| of("tide", why))?;
        let forecast: Result<Vec<_>, String> = self.forecast.iter().map(|l| read_hour(l)).collect();
        place.forecast = forecast.map_err(|why| of("forecast", why))?;
        place.check().map_err(|why| of("", why))?;
        Ok(place)
    }
}

impl Kept for PlaceDraft {
    const KIND: Kind = Kind::of::<PlaceEntry>();
    const WORD: &'static str = "place";

    fn usual() -> PlaceEntry {
        PlaceEntry {
            north: f64::NAN,
            east: f64::NAN,
            ..PlaceEntry::default()
        }
    }

    fn form() -> Table<Self> {
        const NORTH: Bounds = Bounds::new("the latitude, °", Dimension::Ratio, -90.0, 90.0);
        const EAST: Bounds = Bounds::new("the longitude, °", Dimension::Ratio, -180.0, 180.0);
        const CLOCK: Bounds =
            Bounds::new("hours ahead of Greenwich", Dimension::Ratio, -12.0, 14.0);
        const DEPTH: Bounds = Bounds::new("a depth", Dimension::Length, -12.0, 50.0);
        const LEVEL: Bounds = Bounds::new("the mean level", Dimension::Length, -20.0, 20.0);
        type D = PlaceDraft;
        let fields = vec![
            name("name", "called", |d: &mut D| &mut d.place.name),
            line("water", "kind of water, by its key", |d: &mut D| {
                &mut d.place.water
            }),
            number("north", "latitude, ° north", NORTH, |d: &mut D| &mut d.north),
            number("east", "longitude, ° east", EAST, |d: &mut D| &mut d.east),
            number("clock", "its clock, hours ahead of Greenwich", CLOCK, |d: &mut D| {
                &mut d.place.clock_h
            })
            .hint("the same all year: nobody here knows of summer time"),
            number("ramp", "depth at the foot of the ramp", DEPTH, |d: &mut D| {
                &mut d.place.ramp_m
            })
            .hint("with the water at chart datum; below zero it dries"),
            number("bar", "depth over the bar", DEPTH, |d: &mut D| {
                &mut d.place.bar_m
            }),
            number("level", "mean level over chart datum", LEVEL, |d: &mut D| {
                &mut d.place.level_m
            }),
            lines("tide", "tide: a part a line", (60, 120), |d: &mut D| &mut d.tide)
                .hint("name, degrees an hour, amplitude in m, lag in degrees since 2026-01-01 00:00; empty where the water stands"),
            lines("forecast", "forecast: an hour a line", (800, 120), |d: &mut D| {
                &mut d.forecast
            })
            .hint("2026-12-01T06:00, wind and gusts in m/s, waves in m, water in °C"),
            tick("simulated", "made up, for trying out: its forecast comes round again", |d: &mut D| {
                &mut d.place.simulated
            }),
            note("note", "note", 4_000, |d: &mut D| &mut d.place.note),
        ];
        Table(vec![Group {
            title: "",
            hint: "",
            folded: false,
            fields,
        }])
    }

    fn of_record(record: &Record) -> Option<PlaceEntry> {
        match record {
            Record::Sheet(sheet) => sheet.sheet::<PlaceEntry>().cloned(),
            _ => None,
        }
    }

    fn record(place: PlaceEntry) -> Record {
        Record::Sheet(Document::of(&place))
    }

    fn called(place: &mut PlaceEntry) -> (&mut String, &str) {
        (&mut place.key, &place.name)
    }
}
