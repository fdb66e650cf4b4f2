//! `galvet rank` on the demo data: the answers a person would accept.

#![allow(clippy::unwrap_used, clippy::expect_used, reason = "tests")]

use crate::common;

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

#[cfg(unix)]
#[test]
fn a_ranking_given_up_prints_nothing() {
    use std::process::Stdio;
    let directory = tempfile::tempdir().unwrap();
    let many = directory.path().join("many.csv");
    let mut text = "key,maker,model,construction,bottom,propulsion,length,beam\n".to_owned();
    for n in 0..4_000 {
        text.push_str(&format!(
            "h-{n},Coined,M{n},sit-on-top,flat,paddle,3.6,0.8{}\n",
            n % 10
        ));
    }
    std::fs::write(&many, text).unwrap();
    let started = common::galvet()
        .args([
            "rank",
            "--brief",
            "demo/briefs/1-reed-edge.json",
            "--json",
            "--hulls",
        ])
        .arg(&many)
        .stdout(Stdio::piped())
        .stderr(Stdio::piped())
        .spawn()
        .unwrap();
    let told = std::process::Command::new("kill")
        // Not INT: a caller may have had that ignored, and the child inherits it.
        .args(["-s", "TERM", &started.id().to_string()])
        .status();
    assert!(told.unwrap().success());
    let ended = started.wait_with_output().unwrap();
    // Seconds of work: the signal came long before its end.
    assert_eq!(ended.status.code(), None, "ended by the signal");
    assert!(ended.stdout.is_empty());
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
    let under = |load: &Value| -> Value {
        let load = &load["at_the_feet"];
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
        serde_json::from_slice(&floated.stdout).unwrap()
    };
    // Each figure under the load of the hour at which it is worst.
    for (name, slack) in [
        ("draft_m", 0.0005),
        ("trim_deg", 0.03),
        ("floor_above_water_m", 0.001),
    ] {
        let load = &entry["load"];
        let load = match entry["worst_at"][name].as_str() {
            Some(hour) => &load[format!("at_{hour}")],
            None => load,
        };
        let (got, want) = (&under(load)[name], &entry["float"][name]);
        let (got, want) = (got.as_f64().unwrap(), want.as_f64().unwrap());
        assert!(
            (got - want).abs() <= 0.01 * want.abs() + slack,
            "{name}: {got} {want}"
        );
    }
    // This day is not at its worst with all of it aboard.
    assert_eq!(entry["worst_at"]["trim_deg"], "launch");
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

/// Writes a file and ranks it as hulls; code, standard output and error.
fn rank_hulls(bytes: &[u8], more: &[&str]) -> (Option<i32>, String, String) {
    let directory = tempfile::tempdir().unwrap();
    let path = directory.path().join("h.csv");
    fs::write(&path, bytes).unwrap();
    let brief = "demo/briefs/1-reed-edge.json";
    let mut line = vec!["rank", "--brief", brief, "--hulls", path.to_str().unwrap()];
    line.extend(more);
    let output = run(&line);
    let text = |bytes: &[u8]| String::from_utf8_lossy(bytes).into_owned();
    (
        output.status.code(),
        text(&output.stdout),
        text(&output.stderr),
    )
}

/// A hull without a doubt about its record.
const WHOLE: &str = "KEY;Maker;model;construction;bottom;length;beam;fitted_weight_kg;rated_capacity_kg;capacity_basis;seat_low_m\n\
    x;Grün;Eins;board;board;3,50 m;86 cm;34,0;180;gear-and-crew;0,4\n";

#[test]
fn tables_are_read_as_people_send_them() {
    let (code, out, said) = rank_hulls(WHOLE.as_bytes(), &[]);
    assert_eq!((code, said.as_str()), (Some(0), ""), "{out}");
    assert!(out.contains("Grün Eins"), "{out}");
    let western: Vec<u8> = WHOLE.chars().map(|c| c as u8).collect();
    let (code, again, said) = rank_hulls(&western, &[]);
    assert_eq!(code, Some(0), "{said}");
    assert!(said.contains("read as Windows-1252"), "{said}");
    assert_eq!(again, out, "the same hull, the same ranking");
    let wide: Vec<u8> = WHOLE.encode_utf16().flat_map(u16::to_le_bytes).collect();
    assert_eq!(rank_hulls(&wide, &[]).1, out);
    let tabs = WHOLE.replace(';', "\t");
    assert_eq!(rank_hulls(tabs.as_bytes(), &[]).1, out);
}

#[test]
fn thousands_of_mistakes_are_told_in_fifty_lines_and_a_count() {
    let mut bad = "key,maker,model,construction,length\n".to_owned();
    for i in 0..20_000 {
        bad.push_str(&format!("h-{i},A,B,board,{}\n", "x".repeat(90)));
    }
    let (code, out, said) = rank_hulls(bad.as_bytes(), &[]);
    assert_eq!((code, out.as_str()), (Some(2), ""));
    assert_eq!(said.lines().count(), 51, "{said}");
    assert!(said.ends_with("and 19950 more mistakes\n"), "{said}");
    assert!(said.len() < 20_000, "{} bytes", said.len());
}

#[test]
fn what_a_file_says_does_nothing_to_the_terminal() {
    let evil = "key,maker,model,construction\nx,A,B,\u{1b}[31mraft\u{7}\u{202e}\n";
    let (_, _, said) = rank_hulls(evil.as_bytes(), &[]);
    assert!(said.contains("␛[31mraft␇\u{fffd}"), "{said}");
    let name = WHOLE.replace("Eins", "\u{1b}]0;owned\u{7}");
    let (_, out, _) = rank_hulls(name.as_bytes(), &[]);
    assert!(out.contains("Grün ␛]0") || !out.contains('\u{1b}'), "{out}");
    assert!(!out.contains('\u{1b}') && !out.contains('\u{7}'), "{out}");
}

#[test]
fn tables_that_are_none_are_named_as_such() {
    for (text, says) in [
        (
            "a-1,Made,Up,board\n",
            "line 1: the first line must name the columns, key among them",
        ),
        (
            "key,maker,MAKER,model\n",
            "line 1: the column “maker” stands twice",
        ),
        (
            "key,maker,model,construction,price\nx,A,B,board,\"1,290\"\n",
            "write 1290 or 1.29",
        ),
    ] {
        let (code, _, said) = rank_hulls(text.as_bytes(), &[]);
        assert_eq!(code, Some(2), "{said}");
        assert!(said.contains(says), "{said}");
    }
}

#[test]
fn errors_are_json_where_json_was_asked_for() {
    let (code, out, said) = rank_hulls(b"key,maker,model,construction\nx,A,B,raft\n", &["--json"]);
    assert_eq!((code, said.as_str()), (Some(2), ""));
    let answer: Value = serde_json::from_str(&out).unwrap();
    let error = &answer["errors"][0];
    assert_eq!(error["line"], 2);
    assert_eq!(error["column"], "construction");
    assert!(error["problem"].as_str().unwrap().contains("raft"));
}

#[test]
fn a_device_without_end_is_given_up_at_once() {
    let output = run(&["rank", "--brief", "/dev/zero"]);
    assert_eq!(output.status.code(), Some(2));
    let said = String::from_utf8_lossy(&output.stderr).into_owned();
    assert!(said.contains("/dev/zero: larger than 32 MiB"), "{said}");
}

#[test]
fn a_brief_may_come_through_a_pipe() {
    use std::io::Write;
    use std::process::Stdio;
    let mut child = common::galvet()
        .args(["rank", "--brief", "-"])
        .stdin(Stdio::piped())
        .stdout(Stdio::piped())
        .spawn()
        .unwrap();
    let brief = fs::read(root().join("demo/briefs/1-reed-edge.json")).unwrap();
    child.stdin.take().unwrap().write_all(&brief).unwrap();
    let output = child.wait_with_output().unwrap();
    assert_eq!(output.status.code(), Some(0));
    let file = run(&["rank", "--brief", "demo/briefs/1-reed-edge.json"]);
    assert_eq!(output.stdout, file.stdout);
}

#[test]
fn every_command_tells_its_exit_codes_and_the_shells_know_them() {
    for command in [
        "demo",
        "serve",
        "rank",
        "float",
        "export",
        "check",
        "completions",
        "man",
    ] {
        let help = run(&[command, "--help"]);
        let text = String::from_utf8_lossy(&help.stdout).into_owned();
        assert!(text.contains("Exit codes: 0"), "{command}: {text}");
        let page = run(&["man", command]);
        assert!(
            String::from_utf8_lossy(&page.stdout).contains(".SH"),
            "{command}"
        );
    }
    for shell in ["bash", "zsh", "fish"] {
        let text = run(&["completions", shell]).stdout;
        assert!(
            String::from_utf8_lossy(&text).contains("scuppers"),
            "{shell}"
        );
    }
    assert_eq!(run(&["man", "sail"]).status.code(), Some(2));
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
    let out = String::from_utf8_lossy(&output.stdout).into_owned();
    assert!(
        out.contains("? no rated capacity"),
        "its gaps are told: {out}"
    );
}
