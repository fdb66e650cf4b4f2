//! Tracks as GPX: held against its schema, read back, simplified, hostile ones refused.
#![allow(clippy::unwrap_used, reason = "tests")]

use galvet_core::log::Fix;
use galvet_store::files::log::gpx;
use quick_xml::events::Event;
use time::macros::date;

/// What may stand in what, in which order: GPX 1.1, as far as it is written here.
const INSIDE: [(&str, &[&str]); 5] = [
    ("gpx", &["metadata", "wpt", "rte", "trk", "extensions"]),
    (
        "metadata",
        &[
            "name",
            "desc",
            "author",
            "copyright",
            "link",
            "time",
            "keywords",
            "bounds",
            "extensions",
        ],
    ),
    (
        "trk",
        &[
            "name",
            "cmt",
            "desc",
            "src",
            "link",
            "number",
            "type",
            "extensions",
            "trkseg",
        ],
    ),
    ("trkseg", &["trkpt", "extensions"]),
    (
        "trkpt",
        &[
            "ele",
            "time",
            "magvar",
            "geoidheight",
            "name",
            "cmt",
            "desc",
            "src",
            "link",
            "sym",
            "type",
            "fix",
            "sat",
            "hdop",
            "vdop",
            "pdop",
            "ageofdgpsdata",
            "dgpsid",
            "extensions",
        ],
    ),
];

/// Holds a track against that, element by element.
fn keeps_its_schema(text: &str) {
    let mut reader = quick_xml::Reader::from_str(text);
    let mut open: Vec<(String, usize)> = Vec::new();
    let mut seen = 0;
    loop {
        let event = reader.read_event().unwrap();
        let (name, empty) = match &event {
            Event::Start(e) => (e.name(), false),
            Event::Empty(e) => (e.name(), true),
            Event::End(_) => {
                open.pop();
                continue;
            }
            Event::Eof => break,
            _ => continue,
        };
        let name = name.as_ref().to_owned();
        seen += 1;
        if let Some((parent, at)) = open.last_mut() {
            let row = INSIDE.iter().find(|(p, _)| p == parent);
            let may = row.map_or(&[][..], |(_, may)| may);
            let place = may.iter().position(|m| *m == name);
            assert!(place.is_some(), "{name} in {parent}");
            let place = place.unwrap();
            assert!(place >= *at, "{name} in {parent} comes too late");
            *at = place;
        }
        if !empty {
            open.push((name, 0));
        }
    }
    assert!(open.is_empty() && seen > 4);
}

#[test]
fn a_track_is_gpx_by_its_schema_and_reads_back() {
    let fixes: Vec<Fix> = (0..5)
        .map(|k| Fix {
            north: 51.2 + 0.01 * f64::from(k % 2),
            east: -36.4 + 0.02 * f64::from(k),
            seconds: Some(20_000.5 + 600.0 * f64::from(k)),
        })
        .collect();
    let text = gpx::write("Third pool <north> & south", date!(2026 - 05 - 01), &fixes).unwrap();
    keeps_its_schema(&text);
    assert!(text.contains("version=\"1.1\"") && text.contains("http://www.topografix.com/GPX/1/1"));
    // By the kept crate on its own, and by ours.
    let read = ::gpx::read(text.as_bytes()).unwrap();
    assert_eq!(
        read.tracks[0].name.as_deref(),
        Some("Third pool <north> & south")
    );
    let points = &read.tracks[0].segments[0].points;
    assert_eq!(points.len(), 5);
    assert!((points[3].point().y() - 51.21).abs() < 1e-9);
    let ours = gpx::read("a.gpx", text.as_bytes()).unwrap();
    assert_eq!((ours.had, ours.day), (5, Some(date!(2026 - 05 - 01))));
    for (a, b) in ours.track.iter().zip(&fixes) {
        assert!((a.north - b.north).abs() < 1e-9 && (a.east - b.east).abs() < 1e-9);
        assert!((a.seconds.unwrap() - b.seconds.unwrap()).abs() < 0.01);
    }
    assert!((ours.hours.unwrap() - 2_400.0 / 3_600.0).abs() < 1e-9);
}

/// A track of places, without times.
fn drawn(places: &[(f64, f64)]) -> String {
    let points = places
        .iter()
        .map(|(n, e)| format!("<trkpt lat=\"{n}\" lon=\"{e}\"></trkpt>"));
    format!(
        "<?xml version=\"1.0\"?><gpx version=\"1.1\" creator=\"x\" xmlns=\"http://www.topografix.com/GPX/1/1\"><trk><trkseg>{}</trkseg></trk></gpx>",
        points.collect::<String>()
    )
}

#[test]
fn a_track_is_simplified_to_what_a_receiver_knows() {
    // A thousand places on a meridian are two; a degree of it is 111.195 km.
    let line: Vec<(f64, f64)> = (0..=1_000)
        .map(|k| (51.0 + f64::from(k) / 1_000.0, -36.0))
        .collect();
    let read = gpx::read("a", drawn(&line).as_bytes()).unwrap();
    assert_eq!((read.had, read.track.len()), (1_001, 2));
    assert!(
        (read.distance / 111_195.0 - 1.0).abs() < 1e-4,
        "{}",
        read.distance
    );
    assert_eq!((read.day, read.hours), (None, None));
    // A dog-leg of 30 m off stays, one of 5 m goes: 0.0001° of latitude is 11 m.
    let off = |north: f64| {
        let bent = [(51.0, -36.0), (51.0 + north, -35.99), (51.0, -35.98)];
        gpx::read("a", drawn(&bent).as_bytes()).unwrap().track.len()
    };
    assert_eq!((off(30.0 / 111_195.0), off(5.0 / 111_195.0)), (3, 2));
}

#[test]
fn what_is_no_track_is_refused_in_words() {
    let refused = |text: &str| gpx::read("a.gpx", text.as_bytes()).unwrap_err().to_string();
    for broken in [
        "",
        "hello",
        "<gpx>",
        "<kml></kml>",
        "\u{0}\u{1}",
        "<gpx version=\"1.1\"><trk>",
    ] {
        assert!(
            refused(broken).contains("no GPX") || refused(broken).contains("no track"),
            "{broken}"
        );
    }
    assert!(refused(&drawn(&[(51.0, -36.0)])).contains("fewer than two"));
    assert!(gpx::read("a", drawn(&[(95.0, -36.0), (51.0, -36.0)]).as_bytes()).is_err());
    assert!(gpx::read("a", drawn(&[(f64::NAN, -36.0), (51.0, -36.0)]).as_bytes()).is_err());
    let bomb = "<!DOCTYPE gpx [<!ENTITY a \"aaaa\"><!ENTITY b \"&a;&a;\">]><gpx>&b;</gpx>";
    assert!(refused(bomb).contains("declares no words"));
    let large = vec![b' '; gpx::LARGEST + 1];
    assert!(
        gpx::read("a", &large)
            .unwrap_err()
            .to_string()
            .contains("larger than")
    );
}
