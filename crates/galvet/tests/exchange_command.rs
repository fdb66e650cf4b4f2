//! `galvet import` and `galvet export`: files in and out of a data directory.
#![allow(clippy::unwrap_used, reason = "tests")]

use crate::common;

use common::{Server, run};
use std::fs;

fn galvet(args: &[&str]) -> (Option<i32>, String, String) {
    let output = run(args);
    let text = |bytes: Vec<u8>| String::from_utf8(bytes).unwrap();
    (
        output.status.code(),
        text(output.stdout),
        text(output.stderr),
    )
}

#[test]
fn a_list_comes_in_is_served_and_goes_out_again() {
    let directory = tempfile::tempdir().unwrap();
    let data = directory.path().join("data");
    let data = data.to_str().unwrap();
    let file = directory.path().join("hulls.json");
    // From one installation…
    let (code, said, _) = galvet(&["import", "--data", data, "demo/hulls.csv"]);
    assert_eq!(code, Some(1), "the demo has doubts on purpose: {said}");
    assert!(said.contains("22 put in, 0 updated, 0 left out"), "{said}");
    let (code, json, _) = galvet(&["export", "--data", data, "--what", "all"]);
    assert_eq!(code, Some(0));
    fs::write(&file, &json).unwrap();
    // …to another, also while it is served.
    let other = directory.path().join("other");
    let other = other.to_str().unwrap();
    let (code, said, _) = galvet(&["import", "--data", other, file.to_str().unwrap()]);
    assert!(
        said.contains("22 put in") && said.contains("left out"),
        "{said}"
    );
    assert_eq!(code, Some(1));
    let server = Server::start(&["serve", "--data", other, "--listen", "127.0.0.1:0"]);
    assert!(
        server.get("/").contains("Tindrel Vaskar"),
        "waters came along"
    );
    let (code, again, _) = galvet(&["export", "--data", other, "--what", "all"]);
    assert_eq!(code, Some(0));
    assert_eq!(again, json);
    let csv = galvet(&[
        "export", "--data", other, "--what", "hulls", "--format", "csv",
    ]);
    assert_eq!(csv.0, Some(0));
    // In use: said, nothing done.
    let (code, _, said) = galvet(&["import", "--data", other, "demo/hulls.csv"]);
    assert_eq!(code, Some(2));
    assert!(said.contains("in use by another Galvet"), "{said}");
    drop(server);
    // What is there already is left out, updated or put in beside it.
    let sheet = directory.path().join("sheet.csv");
    fs::write(&sheet, csv.1).unwrap();
    let sheet = sheet.to_str().unwrap();
    let (_, said, _) = galvet(&["import", "--data", other, sheet]);
    assert!(said.contains("0 put in, 0 updated, 22 left out"), "{said}");
    let (_, said, _) = galvet(&["import", "--data", other, "--doubles", "update", sheet]);
    assert!(said.contains("0 put in, 22 updated, 0 left out"), "{said}");
    let (_, again, _) = galvet(&["export", "--data", other, "--what", "all"]);
    assert_eq!(again, json, "an update with the same changes nothing");
}

#[test]
fn what_cannot_be_taken_in_is_said_and_nothing_is_half_there() {
    let directory = tempfile::tempdir().unwrap();
    let data = directory.path().join("data");
    let data = data.to_str().unwrap();
    let file = directory.path().join("bad.csv");
    let table = "key,maker,model,construction,length_m\na,M,A,board,3.2\nb,M,B,raft,3.2\nc,M,C,board,1e309\n";
    fs::write(&file, table).unwrap();
    let (code, _, said) = galvet(&["import", "--data", data, file.to_str().unwrap()]);
    assert_eq!(code, Some(2));
    assert!(
        said.contains("line 3, column construction: “raft”"),
        "{said}"
    );
    assert!(said.contains("line 4, column length_m"), "{said}");
    let (code, out, _) = galvet(&["export", "--data", data, "--what", "hulls"]);
    assert_eq!(code, Some(0));
    assert!(!out.contains("\"key\""), "{out}");
    let nowhere = directory.path().join("nowhere");
    let (code, _, said) = galvet(&[
        "export",
        "--data",
        nowhere.to_str().unwrap(),
        "--what",
        "hulls",
    ]);
    assert_eq!(code, Some(2));
    assert!(said.contains("there is no Galvet data in"), "{said}");
    assert!(!nowhere.exists(), "looking makes nothing");
    let (code, log, _) = galvet(&["export", "--data", data, "--what", "log", "--format", "csv"]);
    assert_eq!(code, Some(0));
    assert!(
        log.starts_with("day,place,hull,water,people,notes,hours"),
        "{log}"
    );
    let (code, _, said) = galvet(&[
        "export", "--data", data, "--what", "rigs", "--format", "csv",
    ]);
    assert_eq!(code, Some(2));
    assert!(
        said.contains("only hulls, gear and the log go out as CSV"),
        "{said}"
    );
}
