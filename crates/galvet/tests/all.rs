//! Tests of the program's public face in one binary. What needs a process of its own, or
//! kills others, has a binary of its own.
#![allow(clippy::unwrap_used, reason = "tests")]

mod common;
#[path = "common/counter.rs"]
mod counter;
#[path = "common/desk.rs"]
mod desk;
#[path = "common/traced.rs"]
mod traced;

mod aboard;
mod accounts;
mod address;
mod cards;
mod check_command;
mod chosen;
mod columns;
mod customers;
mod decided;
mod doors;
mod everywhere;
mod exchange_command;
mod float_command;
mod forgotten;
mod forms;
mod imports;
mod log;
mod pages;
mod papers;
mod photos;
mod pond;
mod private;
mod rank_command;
mod remedies;
mod rooms;
mod shop;
mod stowed;
mod survey;
mod two_tabs;
mod waited;
mod walked;
mod whole;
mod words;

#[test]
fn no_test_file_is_left_out_of_its_crate() {
    let crates = std::path::Path::new(env!("CARGO_MANIFEST_DIR")).join("..");
    let mut seen = 0;
    for name in ["galvet", "galvet-core", "galvet-store"] {
        let crate_ = crates.join(name);
        let read = |file: &str| std::fs::read_to_string(crate_.join(file)).unwrap();
        let (said, manifest) = (read("tests/all.rs"), read("Cargo.toml"));
        for entry in std::fs::read_dir(crate_.join("tests")).unwrap() {
            let path = entry.unwrap().path();
            if path.extension().is_none_or(|e| e != "rs") {
                continue;
            }
            let name = path.file_stem().unwrap().to_str().unwrap();
            let here = said.contains(&format!("\nmod {name};"));
            let apart = manifest.contains(&format!("name = \"{name}\""));
            assert!(here || apart, "{name}.rs is no test of any binary");
            seen += 1;
        }
    }
    assert!(seen > 60, "{seen}");
}
