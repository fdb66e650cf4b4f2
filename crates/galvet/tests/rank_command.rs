//! `galvet rank` on the demo data: the answers a person would accept.

#![allow(clippy::unwrap_used, clippy::expect_used, reason = "tests")]

mod common;

use common::{ranked, root, run};
use serde_json::Value;
use std::fs;

fn keys(answer: &Value, list: &str) -> Vec<String> {
    answer[list]
        .as_array()
        .unwrap()
        .iter()
        .map(|entry| entry["hull"].as_str().unwrap().to_owned())
        .collect()
}

fn brief_with(directory: &tempfile::TempDir, posture: &str, water: &str, mass: f64) -> String {
    let path = directory.path().join(format!("{posture} {water}.json"));
    let brief = serde_json::json!({
        "key": "test", "name": "Test", "posture": posture, "water": water,
        "rig": "light-and-quick", "crew": { "mass_kg": mass, "stature_m": 1.66 },
    });
    fs::write(&path, brief.to_string()).unwrap();
    path.to_str().unwrap().to_owned()
}

#[test]
fn json_has_the_published_shape() {
    let answer = ranked(&["--brief", "demo/briefs/1-reed-edge.json"]);
    assert_eq!(answer["brief"]["water"], "marsh");
    let first = &answer["ranked"][0];
    assert_eq!(first["place"], 1);
    for (group, names) in [
        (
            "capacity",
            &[
                "counted_kg",
                "label_margin_kg",
                "working_margin_kg",
                "waterline_margin_kg",
                "binding",
            ][..],
        ),
        (
            "stability",
            &["gm_m", "lean_room_cm", "standing_support", "reserve_j"],
        ),
        (
            "float",
            &["draft_m", "trim_deg", "list_deg", "floor_above_water_m"],
        ),
    ] {
        for name in names {
            assert!(!first[group][name].is_null(), "{group}.{name}: {first:#}");
        }
    }
    let range = &first["ranges"]["lean_room_cm"];
    let range = range.get("range").unwrap_or(range).as_array().unwrap();
    assert_eq!(range[1], first["stability"]["lean_room_cm"]);
    assert!(range[0].as_f64() <= range[1].as_f64() && range[1].as_f64() <= range[2].as_f64());
    let shares: f64 = answer["ranked"]
        .as_array()
        .unwrap()
        .iter()
        .map(|r| r["first_share"].as_f64().unwrap())
        .sum();
    assert!((shares - 1.0).abs() < 1e-9, "{shares}");
    for out in answer["ruled_out"].as_array().unwrap() {
        let reason = &out["reasons"][0];
        assert!(reason["code"].is_string() && !reason["text"].as_str().unwrap().is_empty());
        assert!(reason["by"].is_number());
    }
}

#[test]
fn ruled_out_hulls_keep_all_their_figures() {
    let answer = ranked(&["--brief", "demo/briefs/3-heavy-stander.json"]);
    let out = answer["ruled_out"].as_array().unwrap();
    let floated: Vec<_> = out.iter().filter(|o| o["load"].is_object()).collect();
    assert!(floated.len() > 5 && floated.len() >= out.len() - 1);
    for entry in floated {
        assert!(entry["capacity"]["counted_kg"].is_number(), "{entry:#}");
        assert!(entry["ranges"].as_object().unwrap().len() > 3);
        let shares = entry["fates"].as_object().unwrap().values();
        let sum: f64 = shares.map(|v| v.as_f64().unwrap()).sum();
        assert!((sum - 1.0).abs() < 1e-9, "{entry:#}");
    }
    // What floats is there for anyone to check: mass and place.
    let load = &answer["ranked"][0]["load"];
    for case in ["seated", "at_the_feet"] {
        for name in ["mass_kg", "x_m", "y_m", "z_m"] {
            assert!(load[case][name].is_number(), "{load:#}");
        }
    }
}

#[test]
fn lines_that_go_out_float_as_the_ranking_says() {
    let answer = ranked(&["--brief", "demo/briefs/1-reed-edge.json"]);
    let all = answer["ranked"].as_array().unwrap();
    // A hull measured all over: its medians are those of its middle shape.
    let entry = all
        .iter()
        .find(|r| r["hull"] == "fennick-dunmarrow")
        .unwrap();
    let lines = run(&["export", "--what", "offsets", "--hull", "fennick-dunmarrow"]);
    assert_eq!(lines.status.code(), Some(0));
    let directory = tempfile::tempdir().unwrap();
    let file = directory.path().join("lines.csv");
    fs::write(&file, &lines.stdout).unwrap();
    let load = &entry["load"]["at_the_feet"];
    let load: Vec<String> = ["mass_kg", "x_m", "y_m", "z_m"]
        .map(|name| load[name].as_f64().unwrap().to_string())
        .to_vec();
    let floated = run(&[
        "float",
        "--json",
        "--density",
        "1010",
        "--offsets",
        file.to_str().unwrap(),
        "--load",
        &load.join(","),
    ]);
    let floated: Value = serde_json::from_slice(&floated.stdout).unwrap();
    let near = |got: &Value, want: &Value, slack: f64| {
        let (got, want) = (got.as_f64().unwrap(), want.as_f64().unwrap());
        assert!(
            (got - want).abs() <= 0.01 * want.abs() + slack,
            "{got} {want}"
        );
    };
    near(&floated["draft_m"], &entry["float"]["draft_m"], 0.0005);
    near(&floated["trim_deg"], &entry["float"]["trim_deg"], 0.03);
    near(
        &floated["floor_above_water_m"],
        &entry["float"]["floor_above_water_m"],
        0.001,
    );
}

#[test]
fn a_heavy_angler_who_stands_is_kept_out_of_narrow_hulls() {
    let answer = ranked(&["--brief", "demo/briefs/3-heavy-stander.json"]);
    let kept = keys(&answer, "ranked");
    assert!(!kept.is_empty());
    for narrow in [
        "quarnel-pipkin",
        "tindrel-vaskar",
        "ombrell-lisken-tour",
        "quarnel-sprannet",
    ] {
        assert!(!kept.contains(&narrow.to_owned()), "{narrow} is ranked");
        let out = answer["ruled_out"].as_array().unwrap();
        let entry = out.iter().find(|o| o["hull"] == narrow).unwrap();
        let reasons = entry["reasons"].to_string();
        let unfit = ["stay seated", "capsizes", "lolls", "may capsize"];
        assert!(
            unfit.iter().any(|u| reasons.contains(u)),
            "{narrow}: {reasons}"
        );
    }
}

#[test]
fn the_coast_seated_and_the_marsh_standing_give_different_orders() {
    let directory = tempfile::tempdir().unwrap();
    let coast = ranked(&["--brief", &brief_with(&directory, "sits", "coast", 60.0)]);
    let marsh = ranked(&["--brief", &brief_with(&directory, "stands", "marsh", 60.0)]);
    let (coast, marsh) = (keys(&coast, "ranked"), keys(&marsh, "ranked"));
    assert!(coast.len() > 5 && marsh.len() > 5);
    let common: Vec<&String> = coast.iter().filter(|k| marsh.contains(k)).collect();
    let same: Vec<&String> = marsh.iter().filter(|k| coast.contains(k)).collect();
    assert_ne!(common, same, "the shared hulls stand in another order");
}

#[test]
fn the_table_for_people_says_the_same() {
    let output = run(&["rank", "--brief", "demo/briefs/1-reed-edge.json"]);
    let text = String::from_utf8(output.stdout).unwrap();
    let answer = ranked(&["--brief", "demo/briefs/1-reed-edge.json"]);
    let first = answer["ranked"][0]["name"].as_str().unwrap();
    assert!(text.starts_with(&format!(" 1. {first}")), "{text}");
    assert!(text.contains("Ruled out:"));
    assert_eq!(output.status.code(), Some(0));
}

#[test]
fn mistakes_end_with_code_two_and_name_the_place() {
    let directory = tempfile::tempdir().unwrap();
    let write = |name: &str, text: &str| {
        let path = directory.path().join(name);
        fs::write(&path, text).unwrap();
        path.to_str().unwrap().to_owned()
    };
    let good = "demo/briefs/1-reed-edge.json";
    for (args, words) in [
        (
            vec!["--brief".into(), write("a.json", "{\n  \"key\": }")],
            "a.json, line 2",
        ),
        (vec!["--brief".into(), write("b.json", "[]")], "b.json"),
        (
            vec![
                "--brief".into(),
                write(
                    "c.json",
                    &fs::read_to_string(root().join(good))
                        .unwrap()
                        .replace("marsh", "moon"),
                ),
            ],
            "no water “moon”; there are: pond",
        ),
        (
            vec![
                "--brief".into(),
                write(
                    "d.json",
                    &fs::read_to_string(root().join(good))
                        .unwrap()
                        .replace("88", "1e400"),
                ),
            ],
            "d.json, line 4",
        ),
        (
            vec![
                "--brief".into(),
                good.into(),
                "--hulls".into(),
                write("h.csv", "key,maker,model,construction\nx,A,B,raft\n"),
            ],
            "h.csv, line 2, column construction",
        ),
        (
            vec!["--brief".into(), "no/such/file.json".into()],
            "no/such/file.json",
        ),
    ] {
        let mut line = vec!["rank"];
        line.extend(args.iter().map(String::as_str));
        let output = run(&line);
        let said = String::from_utf8_lossy(&output.stderr).into_owned();
        assert_eq!(output.status.code(), Some(2), "{said}");
        assert!(said.contains(words), "wanted {words:?} in {said:?}");
        assert!(output.stdout.is_empty());
    }
}

#[test]
fn own_hulls_with_findings_end_with_code_one() {
    let directory = tempfile::tempdir().unwrap();
    let path = directory.path().join("hulls.csv");
    fs::write(
        &path,
        "key,maker,model,construction,length_m,beam_cm,fitted_weight_kg,horn\nx,A,B,board,3.5,86,34,loud\n",
    )
    .unwrap();
    let output = run(&[
        "rank",
        "--brief",
        "demo/briefs/1-reed-edge.json",
        "--hulls",
        path.to_str().unwrap(),
    ]);
    assert_eq!(output.status.code(), Some(1));
    assert!(String::from_utf8_lossy(&output.stderr).contains("columns not understood: horn"));
    assert!(!output.stdout.is_empty());
}
