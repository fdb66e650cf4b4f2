//! `galvet check`: what it sees in files and data directories.
#![allow(clippy::unwrap_used, reason = "tests")]

use crate::common;

use common::{Server, root, run};
use diesel::connection::SimpleConnection;
use diesel::prelude::*;
use std::fs;

fn check(paths: &[&str]) -> (Option<i32>, String) {
    let output = run(&[&["check"], paths].concat());
    let all = [output.stdout, output.stderr].concat();
    (output.status.code(), String::from_utf8(all).unwrap())
}

#[test]
fn the_shipped_files_are_known_for_what_they_are() {
    for (file, what, code) in [
        ("demo/rigs.json", "5 rigs; nothing wrong", 0),
        ("demo/gear.json", "101 things; nothing wrong", 0),
        ("demo/evidence.json", "measurements; nothing wrong", 0),
        ("demo/briefs/1-reed-edge.json", "1 brief; nothing wrong", 0),
        ("demo/waters.json", "waters; nothing wrong", 0),
        // The demo has gaps and contradictions on purpose.
        ("demo/hulls.csv", "22 hulls;", 1),
    ] {
        let (found, said) = check(&[file]);
        assert_eq!(found, Some(code), "{said}");
        assert!(said.contains(what), "{said}");
    }
    let directory = tempfile::tempdir().unwrap();
    // What Galvet writes is known for what it is, as an import knows it.
    let data = directory.path().join("data");
    let data = data.to_str().unwrap();
    drop(Server::start(&["demo", "--port", "0", "--keep", data]));
    for (what, format, holds) in [
        ("all", "json", "22 hulls, 101 things, 5 rigs, 9 waters, "),
        ("gear", "csv", "101 things; nothing wrong"),
    ] {
        let out = run(&["export", "--data", data, "--what", what, "--format", format]);
        let file = directory.path().join(format!("out.{format}"));
        fs::write(&file, out.stdout).unwrap();
        let (_, said) = check(&[file.to_str().unwrap()]);
        assert!(said.contains(holds), "{said}");
    }
    let wrong = directory.path().join("r.json");
    let rigs = fs::read_to_string(root().join("demo/rigs.json")).unwrap();
    fs::write(&wrong, rigs.replace("landing-net", "lost-net")).unwrap();
    let (code, said) = check(&[wrong.to_str().unwrap()]);
    assert_eq!(code, Some(1), "{said}");
    assert!(
        said.contains("  - ") && said.contains("“lost-net”"),
        "{said}"
    );
    assert_eq!(check(&["no/such/file.csv"]).0, Some(2));
}

#[test]
fn a_data_directory_is_looked_over_while_it_is_served() {
    let directory = tempfile::tempdir().unwrap();
    let odd = directory.path().join("my data #1 100%");
    let path = odd.to_str().unwrap();
    let server = Server::start(&["demo", "--port", "0", "--keep", path]);
    let (code, said) = check(&[path]);
    assert_eq!(code, Some(0), "{said}");
    assert!(said.contains(" records; nothing wrong"), "{said}");
    let database = odd.join("galvet.db");
    let before = fs::read(&database).unwrap();
    let mut other = SqliteConnection::establish(database.to_str().unwrap()).unwrap();
    other
        .batch_execute(
            "PRAGMA foreign_keys = OFF; \
             UPDATE readings SET value = -1 WHERE measure = 'beam' AND hull_id = 1; \
             UPDATE rigs SET revision = 9 WHERE slug = 'night-zander'; \
             DELETE FROM gear WHERE slug = 'drift-sock';",
        )
        .unwrap();
    drop(server);
    let (code, said) = check(&[path]);
    assert_eq!(code, Some(1), "{said}");
    for wrong in [
        "beam must lie between",
        "the rig “night-zander” is at revision 9, which the journal does not know",
        "1 rows of rig_lines refer to what is not there",
    ] {
        assert!(said.contains(wrong), "{wrong}: {said}");
    }
    // Looking changed nothing, and a directory without a database is said so.
    assert!(!before.is_empty());
    let (code, said) = check(&[directory.path().to_str().unwrap()]);
    assert_eq!(code, Some(2));
    assert!(said.contains("there is no such file"), "{said}");
}
