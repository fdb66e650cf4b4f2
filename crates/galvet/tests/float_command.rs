//! `galvet float` on bodies whose answers are known.
#![allow(clippy::unwrap_used, clippy::expect_used, reason = "tests")]

use crate::common;

use common::run;
use serde_json::Value;
use std::fs;

const LENGTH: f64 = 3.0;
const BEAM: f64 = 0.8;

/// Writes a box with the recess of `floor` height in its middle third.
fn scuppered_box(directory: &tempfile::TempDir, floor: Option<f64>) -> String {
    let mut text = String::from("station_m,half_breadth_m,height_m\n");
    // A bulkhead is two stations a hair apart.
    for x in [0.0, 0.999_999_9, 1.0, 2.0, 2.000_000_1, 3.0] {
        let z = match floor {
            Some(z) if (1.0..=2.0).contains(&x) => z,
            _ => 0.5,
        };
        for (y, z) in [
            (0.0, 0.0),
            (0.4, 0.0),
            (0.4, 0.5),
            (0.3, 0.5),
            (0.3, z),
            (0.0, z),
        ] {
            text.push_str(&format!("{x},{y},{z}\n"));
        }
    }
    let path = directory.path().join("box.csv");
    fs::write(&path, text).unwrap();
    path.to_str().unwrap().to_owned()
}

fn float(args: &[&str]) -> Value {
    let output = run(&[&["float", "--json"], args].concat());
    let said = String::from_utf8_lossy(&output.stderr).into_owned();
    assert_eq!(output.status.code(), Some(0), "{said}");
    serde_json::from_slice(&output.stdout).unwrap()
}

/// What the sealed box comes to.
fn of_the_box(rest: &[&str]) -> Value {
    let directory = tempfile::tempdir().unwrap();
    let file = scuppered_box(&directory, None);
    float(&[&["--offsets", &file], rest].concat())
}

fn near(value: &Value, exact: f64) {
    let got = value.as_f64().unwrap();
    assert!(
        (got - exact).abs() < 2e-6 * exact.abs().max(1.0),
        "{got} is not {exact}"
    );
}

#[test]
fn a_box_reports_what_the_books_say() {
    let r = of_the_box(&["--load", "300,1.5,0,0.3", "--heels", "0,5,10"]);
    let t = 300.0 / (1000.0 * LENGTH * BEAM);
    near(&r["displacement_kg"], 300.0);
    near(&r["volume_m3"], 0.3);
    near(&r["draft_m"], t);
    near(&r["draft_bow_m"], t);
    near(&r["trim_deg"], 0.0);
    near(&r["list_deg"], 0.0);
    near(&r["waterplane_area_m2"], LENGTH * BEAM);
    near(&r["wetted_area_m2"], LENGTH * (BEAM + 2.0 * t));
    near(&r["lcb_m"], 1.5);
    near(&r["kb_m"], t / 2.0);
    let bm = BEAM * BEAM / (12.0 * t);
    near(&r["bm_m"], bm);
    let gm = t / 2.0 + bm - 0.3;
    near(&r["gm_m"], gm);
    for arm in r["righting"].as_array().unwrap() {
        let heel = arm["heel_deg"].as_f64().unwrap().to_radians();
        let exact = heel.sin() * (gm + 0.5 * bm * heel.tan().powi(2));
        assert!(
            (arm["gz_m"].as_f64().unwrap() - exact).abs() < 1e-6,
            "{arm}"
        );
        assert_eq!(arm["flooded"], false);
    }
}

#[test]
fn an_off_centre_load_lists_by_the_wall_sided_angle() {
    let directory = tempfile::tempdir().unwrap();
    let file = scuppered_box(&directory, None);
    for side in [1.0, -1.0] {
        let load = format!("300,1.5,{},0.3", 0.02 * side);
        let r = float(&["--offsets", &file, "--load", &load]);
        let t = 300.0 / (1000.0 * LENGTH * BEAM);
        let bm = BEAM * BEAM / (12.0 * t);
        let gm = t / 2.0 + bm - 0.3;
        // sin φ (GM + ½ BM tan² φ) = y cos φ, by fixed point.
        let tangent = (0..200).fold(0.0_f64, |tan, _| 0.02 / (gm + 0.5 * bm * tan * tan));
        near(&r["list_deg"], side * tangent.atan().to_degrees());
    }
}

#[test]
fn a_scuppered_box_past_its_floor_is_exact_open_and_plugged() {
    let directory = tempfile::tempdir().unwrap();
    let file = scuppered_box(&directory, Some(0.14));
    let load = ["--offsets", &file, "--load", "500,1.5,0,0.2"];
    let open = float(&load);
    let pool = 0.6 * 1.0;
    near(
        &open["draft_m"],
        (0.5 - pool * 0.14) / (LENGTH * BEAM - pool),
    );
    assert!(open["floor_above_water_m"].as_f64().unwrap() < 0.0);
    assert_eq!(open["righting"][0]["flooded"], true);
    let plugged = float(&[&load[..], &["--scuppers", "plugged"]].concat());
    near(&plugged["draft_m"], 0.5 / (LENGTH * BEAM));
    assert_eq!(plugged["righting"][0]["flooded"], false);
    // Heeled until the rim is under, the plugged box fills: from there on it
    // has the open one's arm, before it another.
    let arms = |r: &Value| r["righting"].as_array().unwrap().clone();
    let (plugged, open) = (arms(&plugged), arms(&open));
    let fills = plugged.iter().position(|a| a["flooded"] == true).unwrap();
    let gz = |arm: &Value| arm["gz_m"].as_f64().unwrap();
    assert!((gz(&plugged[fills]) - gz(&open[fills])).abs() < 1e-7);
    assert!((gz(&plugged[fills - 1]) - gz(&open[fills - 1])).abs() > 1e-3);
}

#[test]
fn loads_may_stand_behind_one_another() {
    let r = of_the_box(&["--load", "100,1.5,0,0.2", "200,1.5,-0.03,0.35"]);
    near(&r["displacement_kg"], 300.0);
    near(&r["kg_m"], 0.3);
    assert!(r["list_deg"].as_f64().unwrap() < 0.0);
}

#[test]
fn what_does_not_float_upright_says_so_and_keeps_its_figures() {
    let directory = tempfile::tempdir().unwrap();
    let file = scuppered_box(&directory, None);
    for (load, code, words) in [
        ("1300,1.5,0,0.3", "sinks", "106.0 kg more than"),
        ("300,1.5,0,3", "capsizes", "m below zero and no heel"),
        ("300,1.5,0.9,0.3", "capsizes", "too far to one side"),
        ("300,2.95,0,0.3", "founders", "down by the stern"),
        ("300,0.05,0,0.3", "founders", "down by the bow"),
    ] {
        let output = run(&["float", "--json", "--offsets", &file, "--load", load]);
        assert_eq!(output.status.code(), Some(1), "{load}");
        let r: Value = serde_json::from_slice(&output.stdout).unwrap();
        assert_eq!(r["outcome"]["code"], code, "{load}: {r:#}");
        let text = r["outcome"]["text"].as_str().unwrap();
        assert!(text.contains(words), "{load}: {text}");
        // Upright hydrostatics and arms, where there is an upright at all.
        let upright = code == "capsizes";
        assert_eq!(r["gm_m"].is_number(), upright, "{load}: {r:#}");
        assert_eq!(r["righting"].as_array().unwrap().is_empty(), !upright);
        let table = run(&["float", "--offsets", &file, "--load", load]);
        assert_eq!(table.status.code(), Some(1));
        assert!(
            String::from_utf8_lossy(&table.stdout).starts_with(code),
            "{load}"
        );
    }
    // Loll: a hair of negative GM, stable where tan² φ = -2 GM / BM.
    let t = 300.0 / (1000.0 * LENGTH * BEAM);
    let bm = BEAM * BEAM / (12.0 * t);
    let kg = t / 2.0 + bm + 0.01;
    let output = run(&[
        "float",
        "--json",
        "--offsets",
        &file,
        "--load",
        &format!("300,1.5,0,{kg}"),
    ]);
    assert_eq!(output.status.code(), Some(1));
    let r: Value = serde_json::from_slice(&output.stdout).unwrap();
    assert_eq!(r["outcome"]["code"], "lolls");
    near(&r["list_deg"], (2.0 * 0.01 / bm).sqrt().atan().to_degrees());
    near(&r["gm_m"], -0.01);
}

#[test]
fn impossible_questions_end_with_code_two() {
    let directory = tempfile::tempdir().unwrap();
    let file = scuppered_box(&directory, None);
    for (load, words) in [
        ("300,1.5,0", "four numbers"),
        ("300,9,0,0.2", "load 1 at X = 9 m lies outside the hull"),
        ("nan,1.5,0,0", "a load must lie between"),
        ("inf,1.5,0,0", "a load must lie between"),
    ] {
        let output = run(&["float", "--offsets", &file, "--load", load]);
        let said = String::from_utf8_lossy(&output.stderr).into_owned();
        assert_eq!(output.status.code(), Some(2), "{load}: {said}");
        assert!(said.contains(words), "{load}: wanted {words:?} in {said:?}");
    }
    for extra in [
        ["--density", "13600"],
        ["--heels", "0,95"],
        ["--heels", "x"],
    ] {
        let args = [
            &["float", "--offsets", &file, "--load", "300,1.5,0,0.3"][..],
            &extra,
        ]
        .concat();
        assert_eq!(run(&args).status.code(), Some(2), "{extra:?}");
    }
}

#[test]
fn the_table_reads_well() {
    let directory = tempfile::tempdir().unwrap();
    let file = scuppered_box(&directory, Some(0.14));
    let output = run(&["float", "--offsets", &file, "--load", "260,1.5,0,0.3"]);
    let text = String::from_utf8(output.stdout).unwrap();
    for words in [
        "draft             0.108 m",
        "GM",
        "floor             0.032 m",
        "guidance",
    ] {
        assert!(text.contains(words), "{words:?} in {text}");
    }
}
