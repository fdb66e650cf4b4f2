//! Tracks as GPX 1.1, in and out, by a kept crate.

use crate::files::FileError;
use galvet_core::log::Fix;
use geo::{Coord, Haversine, Length, LineString, SimplifyIdx};
use gpx::{Gpx, GpxVersion, Metadata, Track, TrackSegment, Waypoint};
use time::{Date, Duration, OffsetDateTime, PrimitiveDateTime, Time};

/// Largest file read, bytes.
pub const LARGEST: usize = 16 * 1024 * 1024;
/// How far a track may leave the one recorded, m: a receiver is not surer of its place.
const WITHIN: f64 = 10.0;
/// Mean radius of the earth, m (IUGG).
const EARTH: f64 = 6_371_008.8;

/// A track as it was read.
#[derive(Debug, Clone, PartialEq)]
pub struct Tracked {
    /// Places left after it was simplified; seconds since midnight in Greenwich of `day`.
    pub track: Vec<Fix>,
    /// Places it had.
    pub had: usize,
    /// Distance over all of them, m.
    pub distance: f64,
    /// The day of its first time; `None` where it has none.
    pub day: Option<Date>,
    /// From its first to its last time, h.
    pub hours: Option<f64>,
}

/// Reads a track and simplifies it.
///
/// # Errors
/// [`FileError`] for what is no GPX, too large, or has no track.
pub fn read(file: &str, bytes: &[u8]) -> Result<Tracked, FileError> {
    let told = |problem: String| FileError::whole(file, problem);
    if bytes.len() > LARGEST {
        let most = LARGEST / (1024 * 1024);
        return Err(told(format!("larger than {most} MB")));
    }
    // No track declares words of its own: what does is nothing of a receiver's.
    if contains(bytes, b"<!DOCTYPE") || contains(bytes, b"<!ENTITY") {
        return Err(told("a track declares no words of its own".to_owned()));
    }
    let read = gpx::read(bytes).map_err(|e| told(format!("no GPX that is understood: {e}")))?;
    let segments = read.tracks.iter().flat_map(|t| &t.segments);
    let of_tracks: Vec<&Waypoint> = segments.flat_map(|s| &s.points).collect();
    let of_routes: Vec<&Waypoint> = read.routes.iter().flat_map(|r| &r.points).collect();
    let points = if of_tracks.is_empty() {
        of_routes
    } else {
        of_tracks
    };
    let places: Vec<(Coord<f64>, Option<OffsetDateTime>)> = points
        .iter()
        .map(|w| {
            let at = w.point();
            let when = w.time.map(OffsetDateTime::from);
            (
                Coord {
                    x: at.x(),
                    y: at.y(),
                },
                when,
            )
        })
        .collect();
    if places.len() < 2 {
        return Err(told("no track: fewer than two places".to_owned()));
    }
    let sound = |c: &Coord<f64>| (-180.0..=180.0).contains(&c.x) && (-90.0..=90.0).contains(&c.y);
    if !places.iter().all(|(c, _)| sound(c)) {
        return Err(told("a place that is nowhere on the earth".to_owned()));
    }
    Ok(simplified(&places))
}

fn contains(bytes: &[u8], word: &[u8]) -> bool {
    bytes
        .windows(word.len())
        .any(|part| part.eq_ignore_ascii_case(word))
}

fn simplified(places: &[(Coord<f64>, Option<OffsetDateTime>)]) -> Tracked {
    let line: LineString<f64> = places.iter().map(|(c, _)| *c).collect();
    let distance = Haversine.length(&line);
    // On a flat sheet about its first place, so that both ways count alike.
    let start = places[0].0;
    let narrow = start.y.to_radians().cos();
    let flat: LineString<f64> = places
        .iter()
        .map(|(c, _)| Coord {
            x: EARTH * (c.x - start.x).to_radians() * narrow,
            y: EARTH * (c.y - start.y).to_radians(),
        })
        .collect();
    let mut within = WITHIN;
    let mut kept = flat.simplify_idx(within);
    while kept.len() > super::super::outing::OutingEntry::TRACK {
        within *= 2.0;
        kept = flat.simplify_idx(within);
    }
    let times = || places.iter().filter_map(|(_, t)| *t);
    let first = times().min();
    let midnight = first.map(|t| {
        t.to_offset(time::UtcOffset::UTC)
            .replace_time(Time::MIDNIGHT)
    });
    let last = times().max();
    Tracked {
        track: kept
            .into_iter()
            .map(|i| {
                let (c, when) = places[i];
                Fix {
                    north: c.y,
                    east: c.x,
                    seconds: when
                        .zip(midnight)
                        .map(|(t, m)| (t - m).as_seconds_f64().max(0.0)),
                }
            })
            .collect(),
        had: places.len(),
        distance,
        day: midnight.map(OffsetDateTime::date),
        hours: first
            .zip(last)
            .map(|(a, b)| (b - a).as_seconds_f64() / 3600.0)
            .filter(|h| *h > 0.0),
    }
}

/// A track of a day as GPX 1.1.
///
/// # Errors
/// In the writer's words.
pub fn write(name: &str, day: Date, track: &[Fix]) -> Result<String, String> {
    let midnight = PrimitiveDateTime::new(day, Time::MIDNIGHT).assume_utc();
    let points = track.iter().map(|fix| {
        let mut point = Waypoint::new(geo::Point::new(fix.east, fix.north));
        point.time = fix.seconds.map(|s| {
            let whole = Duration::milliseconds((s * 1000.0).round() as i64);
            (midnight + whole).into()
        });
        point
    });
    let mut segment = TrackSegment::new();
    segment.points = points.collect();
    let mut of_day = Track::new();
    of_day.name = Some(name.to_owned());
    of_day.segments.push(segment);
    let document = Gpx {
        version: GpxVersion::Gpx11,
        creator: Some("Galvet".to_owned()),
        metadata: Some(Metadata {
            name: Some(name.to_owned()),
            ..Metadata::default()
        }),
        tracks: vec![of_day],
        ..Gpx::default()
    };
    let mut out = Vec::new();
    gpx::write(&document, &mut out).map_err(|e| e.to_string())?;
    String::from_utf8(out).map_err(|e| e.to_string())
}
