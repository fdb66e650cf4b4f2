//! The log in files: documents, calendars, tables; what is hostile or broken in them.
#![allow(clippy::unwrap_used, reason = "tests")]

use galvet_core::ahead::{Forecast, Tides};
use galvet_core::hull::{Aboard, Datum, Propulsion, Scuppers};
use galvet_core::log::{Carried, Fate, Fault, Fix, Outing, Tape};
use galvet_store::files::log::calendar::{self, Entry, When};
use galvet_store::files::log::table;
use galvet_store::files::outing::OutingEntry;
use galvet_store::files::place::{HourEntry, PlaceEntry, TideEntry};
use galvet_store::files::served::ServedEntry;
use galvet_store::files::sheet::{Document, Sheet};
use std::str::FromStr;
use time::macros::{date, datetime};

/// An outing of which everything is noted, no figure a round one.
fn whole() -> Outing {
    Outing {
        key: "2026-05-01-a".into(),
        done: true,
        day: "2026-05-01".into(),
        place: "Third, pool; \"north\"".into(),
        water: "marsh".into(),
        density: 1010.0,
        hull: "fennick-dunmarrow".into(),
        version: "with the drive out".into(),
        rig: "reed-edge-day".into(),
        question: "mass=88+kg&rig=reed-edge-day".into(),
        people: 2,
        forecast: Some(4.123),
        wind: Some(5.01),
        gust: Some(7.77),
        wave: Some(0.123),
        water_temperature: Some(11.5),
        turned_back: true,
        hours: Some(4.25),
        by: [Some(1.0), Some(3.25), None],
        distance: Some(8_123.4),
        to_fishing: Some(47.0),
        aboard: Some(Aboard {
            mass: 123.61,
            place: 0.548,
            height: 0.4171,
        }),
        scuppers: Scuppers::Plugged,
        tape: Tape {
            datum: Datum::Floor,
            heights: vec![(0.31, 0.0412), (0.6, -0.011)],
        },
        speed: Some(1.61),
        speed_by: Propulsion::RotaryPedal,
        effort: Some(77.0),
        drift: Some(0.31),
        drained: Some(71.5),
        fish: Some(1.37),
        battery_left: Some(0.42),
        cost: Some(6.5),
        carried: vec![Carried {
            item: "landing net".into(),
            gear: Some("landing-net".into()),
            fate: Some(Fate::Wet),
        }],
        missed: vec!["a second line".into()],
        faults: vec![Fault {
            part: "rudder line".into(),
            hour: Some(2.5),
            cause: "chafed".into(),
            mended: "2026-05-08".into(),
        }],
        pains: "a knee".into(),
        notes: "line one\nline two".into(),
        track: vec![
            Fix {
                north: 51.2,
                east: -36.4,
                seconds: Some(21_600.0),
            },
            Fix {
                north: 51.21,
                east: -36.41,
                seconds: None,
            },
        ],
    }
}

#[test]
fn an_outing_goes_out_and_comes_back_whole() {
    let entry = OutingEntry::of(&whole(), "Third pool, 2026-05-01", ("abc", "Mereth"));
    assert_eq!(entry.check(), Ok(()));
    let text = serde_json::to_string(&entry).unwrap();
    let back: OutingEntry = serde_json::from_str(&text).unwrap();
    assert_eq!(back, entry);
    assert_eq!(back.outing(), whole());
    let document = Document::of(&entry);
    assert_eq!(document.sheet::<OutingEntry>(), Some(&entry));
    // One that notes nothing but when and in what.
    let bare: OutingEntry =
        serde_json::from_str(r#"{"key":"a","name":"a","day":"2026-05-01","hull":"h"}"#).unwrap();
    assert_eq!(bare.check(), Ok(()));
    let o = bare.outing();
    assert_eq!((o.people, o.hours, o.aboard), (1, None, None));
    // A word nobody knows here is not dropped silently.
    let odd = text.replace("\"notes\"", "\"mood\"");
    assert!(serde_json::from_str::<OutingEntry>(&odd).is_err());
}

#[test]
fn an_outing_that_cannot_be_is_refused() {
    let wrong = |change: fn(&mut Outing)| {
        let mut o = whole();
        change(&mut o);
        OutingEntry::of(&o, "x", ("", "")).check().unwrap_err()
    };
    assert!(wrong(|o| o.day = "31.5.2026".into()).contains("no day"));
    assert!(wrong(|o| o.hours = Some(f64::NAN)).contains("hours"));
    assert!(wrong(|o| o.wind = Some(400.0)).contains("wind"));
    assert!(wrong(|o| o.battery_left = Some(1.2)).contains("battery"));
    assert!(wrong(|o| o.people = 0).contains("people"));
    assert!(wrong(|o| o.tape.heights = vec![(0.1, 0.1); 4]).contains("at most 3"));
    assert!(wrong(|o| o.tape.heights = vec![(1.4, 0.1)]).contains("place"));
    assert!(wrong(|o| o.track[0].north = 95.0).contains("latitude"));
    assert!(wrong(|o| o.faults[0].part = " ".into()).contains("which part"));
    assert!(wrong(|o| o.notes = "x".repeat(9_000)).contains("notes"));
    assert!(wrong(|o| o.carried = vec![o.carried[0].clone(); 301]).contains("at most"));
    assert!(wrong(|o| o.hull = "../etc".into()).contains("key"));
    // What was aboard is three figures or none.
    let half = r#"{"key":"a","name":"a","day":"2026-05-01","hull":"h","aboard_kg":90.0}"#;
    let half: OutingEntry = serde_json::from_str(half).unwrap();
    assert!(half.check().unwrap_err().contains("a place and a height"));
}

#[test]
fn a_service_is_one_there_is() {
    let entry = |care: &str, day: &str| ServedEntry {
        key: "a".into(),
        name: "a".into(),
        hull: "h".into(),
        care: care.into(),
        day: day.into(),
        note: String::new(),
    };
    assert_eq!(entry("rotary", "2026-05-01").check(), Ok(()));
    assert!(
        entry("gearbox", "2026-05-01")
            .check()
            .unwrap_err()
            .contains("rotary-seals")
    );
    assert!(entry("rotary", "soon").check().is_err());
}

#[test]
fn a_place_keeps_its_tide_and_its_hours_in_order() {
    let hour = |from: &str, wind: f64, gust: Option<f64>| HourEntry {
        from: from.into(),
        wind_mps: wind,
        gust_mps: gust,
        wave_m: 0.1,
        water_c: None,
    };
    let place = PlaceEntry {
        key: "a".into(),
        name: "a".into(),
        north: 51.0,
        east: -36.0,
        level_m: 2.0,
        tide: vec![TideEntry {
            name: "S2".into(),
            speed_deg_h: 30.0,
            amplitude_m: 1.5,
            lag_deg: 0.0,
        }],
        forecast: vec![
            hour("2026-06-21T06:00", 4.0, None),
            hour("2026-06-21T09:00", 8.0, Some(11.0)),
        ],
        ..PlaceEntry::default()
    };
    assert_eq!(place.check(), Ok(()));
    let high = place.harmonic().height(datetime!(2026-01-01 12:00));
    assert!((high - 3.5).abs() < 1e-9);
    let told = place.foretold().at(datetime!(2026-06-21 07:00)).unwrap();
    // Gusts nobody foretold are a third stronger, not none.
    assert!((told.gust - 5.4).abs() < 1e-9);
    let wrong = |change: &dyn Fn(&mut PlaceEntry)| {
        let mut p = place.clone();
        change(&mut p);
        p.check().unwrap_err()
    };
    assert!(wrong(&|p| p.forecast.swap(0, 1)).contains("does not come after"));
    assert!(wrong(&|p| p.forecast[0].from = "tomorrow".into()).contains("no time"));
    assert!(wrong(&|p| p.forecast[1].gust_mps = Some(7.0)).contains("weaker than the wind"));
    assert!(wrong(&|p| p.north = f64::NAN).contains("latitude"));
    assert!(wrong(&|p| p.tide[0].amplitude_m = -1.0).contains("amplitude"));
    assert!(wrong(&|p| p.forecast = vec![p.forecast[0].clone(); 801]).contains("at most"));
}

#[test]
fn a_calendar_reads_back_and_keeps_its_rules() {
    let entries = [
        Entry {
            uid: "outing-a@galvet".into(),
            when: When::Day(date!(2026 - 05 - 01)),
            summary: "Outing; third, pool\nand on".into(),
            words: "a long line ".repeat(20),
            place: "Øre".into(),
        },
        Entry {
            uid: "service-b@galvet".into(),
            when: When::Day(date!(2026 - 06 - 01)),
            summary: "Service".into(),
            words: String::new(),
            place: String::new(),
        },
    ];
    let text = calendar::write("Outings", &entries, datetime!(2026-05-02 10:00 UTC));
    // RFC 5545: every line ends in CRLF, none is longer than 75 octets.
    assert!(text.starts_with("BEGIN:VCALENDAR\r\n") && text.ends_with("END:VCALENDAR\r\n"));
    for line in text.split_terminator("\r\n") {
        assert!(line.len() <= 75, "{} octets: {line}", line.len());
        assert!(!line.contains(['\r', '\n']));
    }
    for must in [
        "VERSION:2.0",
        "PRODID:",
        "DTSTAMP:20260502T100000Z",
        "UID:outing-a@galvet",
    ] {
        assert!(text.contains(must), "{must}");
    }
    assert_eq!(text.matches("\r\nVERSION:").count(), 1);
    let read = icalendar::Calendar::from_str(&text).unwrap();
    use icalendar::{Component, EventLike};
    let events: Vec<_> = read.events().collect();
    assert_eq!(events.len(), 2);
    assert_eq!(events[0].get_summary(), Some("Outing; third, pool\nand on"));
    assert_eq!(events[0].get_description().map(str::len), Some(240));
    assert_eq!(events[0].get_location(), Some("Øre"));
    let day = events[1].get_start().unwrap().date_naive().to_string();
    assert_eq!(day, "2026-06-01");
}

fn hulls() -> Vec<(String, String)> {
    vec![("skelmar-brandel".into(), "Skelmar Brandel".into())]
}

fn waters() -> Vec<(String, String, f64)> {
    vec![("marsh".into(), "marsh and tidal creek".into(), 1010.0)]
}

fn read(text: &str) -> table::LogRead {
    table::read("log.csv", text, &hulls(), &waters()).unwrap()
}

#[test]
fn the_log_as_a_table_reads_back_as_it_was() {
    let mut o = Outing {
        hull: "skelmar-brandel".into(),
        ..whole()
    };
    o.place = "=cmd".into();
    let text = table::write(std::slice::from_ref(&o)).unwrap();
    // No formula for a spreadsheet, no track for anybody.
    assert!(!text.contains(",=cmd") && !text.contains("51.2"));
    let back = read(&text);
    assert!(back.bad.is_empty(), "{back:?}");
    let got = back.good[0].1.clone().outing();
    assert_eq!(
        (got.day, got.hull, got.people),
        (o.day.clone(), o.hull.clone(), 2)
    );
    assert_eq!((got.water, got.density), ("marsh".to_owned(), 1010.0));
    let near = |a: Option<f64>, b: Option<f64>| (a.unwrap() / b.unwrap() - 1.0).abs() < 1e-3;
    assert!(near(got.hours, o.hours) && near(got.distance, o.distance));
    assert!(near(got.wind, o.wind) && near(got.gust, o.gust) && near(got.forecast, o.forecast));
    assert!(near(got.speed, o.speed) && near(got.battery_left, o.battery_left));
    assert!(near(got.fish, o.fish) && near(got.wave, o.wave) && near(got.cost, o.cost));
}

#[test]
fn somebodys_own_columns_are_known_by_what_people_call_them() {
    let text = "Date;Kayak;Spot;Time (min);Dist (mi);Wind [kts];Catch lb\n\
                1.7.2026;SKELMAR BRANDEL;Old pool;210;5,5;10;2,2\n";
    assert!(table::is_one(text));
    let o = read(text).good[0].1.clone().outing();
    assert_eq!(
        (o.day.as_str(), o.hull.as_str()),
        ("2026-07-01", "skelmar-brandel")
    );
    assert!((o.hours.unwrap() - 3.5).abs() < 1e-9);
    assert!((o.distance.unwrap() - 5.5 * 1_609.344).abs() < 1e-6);
    assert!((o.wind.unwrap() - 5.1444).abs() < 1e-3);
    assert!((o.fish.unwrap() - 0.997_9).abs() < 1e-3);
    assert!(!table::is_one("a,b,c\n1,2,3\n"));
}

#[test]
fn a_unit_nobody_stated_is_asked_for_and_a_row_that_is_wrong_waits() {
    let asked = table::read(
        "l",
        "day,hull,wind\n2026-07-01,Skelmar Brandel,10\n",
        &hulls(),
        &waters(),
    );
    let told = asked.unwrap_err();
    assert_eq!(told.len(), 1);
    assert!(told[0].to_string().contains("in which unit") && told[0].to_string().contains("kn"));
    // Where each cell says it, nobody is asked.
    let said = read("day,hull,wind\n2026-07-01,Skelmar Brandel,10 kn\n");
    assert!((said.good[0].1.clone().outing().wind.unwrap() - 5.1444).abs() < 1e-3);
    let text = "day,hull,hours,mood\n\
                2026-07-01,Skelmar Brandel,3,fine\n\
                7/1/2026,Skelmar Brandel,3,\n\
                2026-07-02,Nobody's,3,\n\
                2026-07-03,Skelmar Brandel,300,\n\
                2026-07-04,Skelmar Brandel,three,\n\
                ,Skelmar Brandel,3,\n\
                \n";
    let read = read(text);
    assert_eq!((read.good.len(), read.bad.len()), (1, 5), "{read:?}");
    assert_eq!(read.unknown, ["mood"]);
    let lines: Vec<usize> = read.bad.iter().map(|b| b.0).collect();
    assert_eq!(lines, [3, 4, 5, 6, 7]);
    assert!(read.bad[0].1.contains("no day") && read.bad[1].1.contains("no hull is called"));
}
