//! The columns beside the points: row, derivation, JSON and CSV tell one thing.
#![allow(clippy::unwrap_used, reason = "tests")]

use crate::desk;

use desk::Desk;
use galvet_core::base::{Dimension, System};
use serde_json::Value;
use std::collections::BTreeMap;

const QUESTION: &str = "?posture=sits&distance=12+km&trips=20";

/// What stands after `mark`, up to the next tag.
fn after<'a>(page: &'a str, mark: &str) -> Option<&'a str> {
    let rest = page.split_once(mark)?.1;
    Some(rest.split_once('<')?.0.trim())
}

/// What a row tells in a column.
fn in_row<'a>(page: &'a str, key: &str, label: &str) -> Option<&'a str> {
    let row = page
        .split_once(&format!("<li class=\"row\" data-hull=\"{key}\""))?
        .1;
    let row = row.split("<li class=\"row\"").next()?;
    after(row, &format!(">{label}</a></dt><dd>"))
}

fn csv_lines(text: &str) -> BTreeMap<String, BTreeMap<String, String>> {
    let mut reader = csv::Reader::from_reader(text.as_bytes());
    let head = reader.headers().unwrap().clone();
    let lines = reader.records().map(|line| {
        let line = line.unwrap();
        let cells = head.iter().zip(&line);
        let cells = cells.map(|(h, c)| (h.to_owned(), c.to_owned()));
        (line[1].to_owned(), cells.collect())
    });
    lines.collect()
}

#[test]
fn row_derivation_json_and_csv_tell_one_thing() {
    let desk = Desk::demo();
    let page = desk.page(&format!("/{QUESTION}"));
    let json: Value =
        serde_json::from_str(&desk.page(&format!("/ranking.json{QUESTION}"))).unwrap();
    let csv = csv_lines(&desk.page(&format!("/ranking.csv{QUESTION}")));
    let text = |d, v, n| System::Metric.text(d, v, n);
    let speed = |v: f64| text(Dimension::Speed, v, 1);
    let percent = |v: f64| {
        let sign = if v.round() > 0.0 {
            "+"
        } else if v.round() < 0.0 {
            "\u{2212}"
        } else {
            ""
        };
        format!("{sign}{:.0}\u{a0}%", v.round().abs())
    };
    let money = |v: f64| text(Dimension::Money, v, 0);
    let mass = |v: f64| text(Dimension::Mass, v, 0);
    type Tell<'a> = &'a dyn Fn(f64) -> String;
    let columns: [(&str, &str, &str, Tell); 6] = [
        ("speed_m_per_s", "speed kept up", "speed", &speed),
        ("drift_m_per_s", "drift, beam on", "drift", &speed),
        (
            "helm_under_way_percent",
            "helm, off balance",
            "helm",
            &percent,
        ),
        ("price_per_trip", "price by the trip", "trip", &money),
        ("comfort_of_5", "comfort", "comfort", &|v| {
            format!("{v:.1} of 5")
        }),
        ("fitted_weight_kg", "to lift, fitted", "", &mass),
    ];
    let mut told = BTreeMap::new();
    for hull in json["ranked"].as_array().unwrap() {
        let key = hull["hull"].as_str().unwrap();
        for (file, label, figure, tell) in columns {
            let value = &hull["columns"][file];
            let middle = value.as_f64().or_else(|| value[1].as_f64());
            let shown = in_row(&page, key, label).unwrap();
            let cell = &csv[key][file];
            let Some(middle) = middle else {
                assert_eq!((shown, cell.as_str()), ("not known", ""), "{key} {file}");
                continue;
            };
            assert_eq!(shown, tell(middle), "{key} {file}");
            assert_eq!(cell.parse::<f64>().unwrap(), middle, "{key} {file}");
            if let Some(all) = value.as_array() {
                let all: Vec<f64> = all.iter().map(|v| v.as_f64().unwrap()).collect();
                assert!(all.is_sorted() && all.len() == 3, "{key} {file} {all:?}");
            }
            if !figure.is_empty() {
                let why = desk.page(&format!("/hulls/{key}/figures/{figure}{QUESTION}"));
                let said = after(&why, "<p class=\"figure-first\"><strong>").unwrap();
                assert_eq!(said, shown, "{key} {file}");
            }
            *told.entry(file).or_insert(0) += 1;
        }
    }
    assert!(
        columns
            .iter()
            .all(|c| told.get(c.0).is_some_and(|n| *n > 1)),
        "{told:?}"
    );
    // What is ruled out keeps them too.
    let out = json["ruled_out"].as_array().unwrap();
    let known = |h: &&Value| h["columns"]["drift_m_per_s"].is_array();
    assert!(out.iter().any(|h| known(&h)));
}

/// The numbers of a sentence, in their order.
fn numbers(text: &str) -> Vec<f64> {
    let part = |c: char| !(c.is_ascii_digit() || c == '.');
    let words = text.split(part).map(|w| w.trim_matches('.'));
    words.filter_map(|w| w.parse().ok()).collect()
}

#[test]
fn the_numbers_of_a_derivation_lead_to_what_it_tells() {
    let desk = Desk::demo();
    let steps = |figure: &str| -> Vec<String> {
        let page = desk.page(&format!(
            "/hulls/fennick-dunmarrow/figures/{figure}{QUESTION}"
        ));
        let list = page.split_once("<ol class=\"derivation\">").unwrap().1;
        let list = list.split_once("</ol>").unwrap().0.to_owned();
        let items = list.split("<li>").skip(1);
        items
            .map(|i| i.split("</li>").next().unwrap().to_owned())
            .collect()
    };
    // What hull and kit show and what people are pushed by make the drag in the wind; with
    // that in the water and the wind felt while drifting it makes the drift.
    let drift = steps("drift");
    let [hull, kit, shows, people, above] = numbers(&drift[0])[..] else {
        panic!("{drift:?}")
    };
    assert!(
        (shows * (hull + kit) + people - above).abs() < 0.02,
        "{drift:?}"
    );
    let [side, drag, below] = numbers(&drift[1])[..] else {
        panic!("{drift:?}")
    };
    assert!((side * drag - below).abs() < 0.01, "{drift:?}");
    let [push, hold, k, wind, v] = numbers(&drift[2])[..] else {
        panic!("{drift:?}")
    };
    assert!((push - 1.225 * above).abs() < 0.01, "{drift:?}");
    assert!((hold / (1000.0 * below) - 1.0).abs() < 0.03, "{drift:?}");
    assert!(((push / hold).sqrt() - k).abs() < 1e-4, "{drift:?}");
    assert!((wind * k / (1.0 + k) - v).abs() < 0.01, "{drift:?}");
    // Friction, waves and air make the pull; at that speed the power.
    let speed = steps("speed");
    let [effort, share, wanted] = numbers(&speed[0])[..] else {
        panic!("{speed:?}")
    };
    assert!((effort * share / 100.0 - wanted).abs() < 0.6, "{speed:?}");
    let at = numbers(&speed[1]);
    let [u, .., friction, waves, air, sum] = at[..] else {
        panic!("{speed:?}")
    };
    assert!((friction + waves + air - sum).abs() < 0.2, "{speed:?}");
    let watts = numbers(&speed[2])[1];
    // Kilometres an hour.
    assert!((sum * u / 3.6 - watts).abs() < 1.0, "{speed:?}");
    assert!((watts / wanted - 1.0).abs() < 0.03, "{speed:?}");
    // A price over a hundred trips.
    let [price, trips, years, all, each] = numbers(&steps("trip")[0].replace('\u{202f}', ""))[..]
    else {
        panic!("{:?}", steps("trip"))
    };
    assert_eq!((trips, years, all), (20.0, 5.0, 100.0));
    assert!((price / all - each).abs() <= 0.5);
    let helm = steps("helm");
    let [wind_at, water_at, percent, length] = numbers(&helm[0])[..] else {
        panic!("{helm:?}")
    };
    let behind = 100.0 * (wind_at - water_at) / length;
    assert!((behind.abs() - percent).abs() < 1.0, "{helm:?}");
}
