//! The rooms stand one above the other: no file imports, over however many
//! others, one that imports it back.

#![allow(clippy::unwrap_used)]

use std::collections::{BTreeMap, BTreeSet};
use std::path::{Path, PathBuf};

type Graph = BTreeMap<String, BTreeSet<String>>;

/// Module path of a file below `src`: `rank::peril` for `rank/peril.rs`, `rank`
/// for `rank/mod.rs`, nothing for the crate's own root.
fn module(src: &Path, file: &Path) -> String {
    let below = file.strip_prefix(src).unwrap().with_extension("");
    let mut parts: Vec<&str> = below.iter().filter_map(|p| p.to_str()).collect();
    if matches!(parts.last(), Some(&("mod" | "lib" | "main"))) {
        parts.pop();
    }
    parts.join("::")
}

fn sources(folder: &Path, out: &mut Vec<PathBuf>) {
    for entry in std::fs::read_dir(folder).unwrap() {
        let path = entry.unwrap().path();
        if path.is_dir() {
            sources(&path, out);
        } else if path.extension().is_some_and(|e| e == "rs") {
            out.push(path);
        }
    }
}

/// Every path that a source names from `crate::` or `super::` on, groups taken
/// apart, comments left out. `super` inside a test module means its own file.
fn paths(source: &str, here: &str) -> Vec<String> {
    let code: String = source
        .split("#[cfg(test)]")
        .next()
        .unwrap()
        .lines()
        .filter(|l| !l.trim_start().starts_with("//"))
        .collect::<Vec<_>>()
        .join("\n");
    let parent = here.rsplit_once("::").map_or("", |(p, _)| p);
    let mut found = Vec::new();
    for (mark, base) in [("crate::", ""), ("super::", parent)] {
        for (at, _) in code.match_indices(mark) {
            let before = code[..at].chars().next_back();
            if before.is_some_and(|c| c.is_alphanumeric() || c == '_' || c == ':') {
                continue;
            }
            let rest = &code[at + mark.len()..];
            let end = rest.find([';', '(', ' ', ')', ',', '<', '>']);
            let group = rest.starts_with('{') || rest[..end.unwrap_or(0)].contains('{');
            let end = if group { rest.find("};") } else { end };
            unfold(&rest[..end.unwrap_or(rest.len())], base, &mut found);
        }
    }
    found
}

/// `a::{b, c::{d}}` into `a::b` and `a::c::d`, each after `base`.
fn unfold(path: &str, base: &str, out: &mut Vec<String>) {
    let join = |a: &str, b: &str| match (a, b) {
        ("", b) => b.to_owned(),
        (a, "") => a.to_owned(),
        (a, b) => format!("{a}::{b}"),
    };
    let Some((head, group)) = path.split_once('{') else {
        out.push(join(base, path.trim().trim_end_matches('}')));
        return;
    };
    let base = join(base, head.trim().trim_end_matches("::"));
    let (mut depth, mut from) = (0, 0);
    for (i, c) in group.char_indices() {
        match c {
            '{' => depth += 1,
            '}' => depth -= 1,
            ',' if depth == 0 => {
                unfold(group[from..i].trim(), &base, out);
                from = i + 1;
            }
            _ => {}
        }
    }
    unfold(group[from..].trim(), &base, out);
}

/// Who imports whom. A room's own `mod.rs` may gather what its files offer; a
/// file that names its room means the file the name comes from, which the
/// room's `pub use` tells.
fn graph(files: &BTreeMap<String, String>) -> Graph {
    let named: BTreeMap<&str, Vec<String>> = files
        .iter()
        .map(|(module, text)| (module.as_str(), paths(text, module)))
        .collect();
    let known = |path: &str| {
        let mut path = path;
        loop {
            if files.contains_key(path) {
                return Some(path.to_owned());
            }
            path = path.rsplit_once("::")?.0;
        }
    };
    // `pub use peril::{Peril, peril};` in a room: the name's own file.
    let home = |room: &str, name: &str| {
        let text = files.get(room)?;
        text.split("pub use ").skip(1).find_map(|used| {
            let mut offered = Vec::new();
            unfold(used.split(';').next()?, room, &mut offered);
            let offers = |o: &String| o.rsplit("::").next() == Some(name);
            offered.into_iter().find(offers).and_then(|o| known(&o))
        })
    };
    let mut out = Graph::new();
    for (module, paths) in named {
        let edges = out.entry(module.to_owned()).or_default();
        for path in paths {
            let Some(mut target) = known(&path) else {
                continue;
            };
            let rest = path[target.len()..].trim_start_matches("::");
            if let Some(file) = rest.split("::").next().and_then(|n| home(&target, n)) {
                target = file;
            }
            if target != module {
                edges.insert(target);
            }
        }
    }
    out
}

/// A circle, if there is one: the modules along it.
fn circle(graph: &Graph) -> Option<Vec<String>> {
    fn walk(graph: &Graph, at: &str, way: &mut Vec<String>, done: &mut BTreeSet<String>) -> bool {
        if let Some(from) = way.iter().position(|m| m == at) {
            way.drain(..from);
            return true;
        }
        if !done.insert(at.to_owned()) {
            return false;
        }
        way.push(at.to_owned());
        for next in graph.get(at).into_iter().flatten() {
            if walk(graph, next, way, done) {
                return true;
            }
        }
        way.pop();
        false
    }
    let mut done = BTreeSet::new();
    graph.keys().find_map(|start| {
        let mut way = Vec::new();
        walk(graph, start, &mut way, &mut done).then_some(way)
    })
}

fn files(name: &str) -> BTreeMap<String, String> {
    let src = Path::new(env!("CARGO_MANIFEST_DIR"))
        .parent()
        .unwrap()
        .join(name)
        .join("src");
    let mut paths = Vec::new();
    sources(&src, &mut paths);
    let read = |p: &PathBuf| (module(&src, p), std::fs::read_to_string(p).unwrap());
    let mut files: BTreeMap<_, _> = paths.iter().map(read).collect();
    files.remove("");
    files
}

#[test]
fn no_file_imports_in_a_circle() {
    for (name, least) in [("galvet-core", 100), ("galvet-store", 20), ("galvet", 60)] {
        let graph = graph(&files(name));
        // The walk sees the imports at all.
        let edges: usize = graph.values().map(BTreeSet::len).sum();
        assert!(edges > least, "{name}: only {edges} imports seen");
        assert_eq!(circle(&graph), None, "{name}");
    }
}

#[test]
fn a_circle_is_found() {
    let file = |m: &str, text: &str| (m.to_owned(), text.to_owned());
    let files = BTreeMap::from([
        file("high", "mod a;\npub use a::{One, Two};"),
        file("high::a", "use crate::{low::Three};\npub struct One;"),
        file("low", "use crate::other::X;\nuse crate::high::Two;"),
        file("other", "// use crate::low::Y;"),
    ]);
    let found = circle(&graph(&files)).unwrap();
    assert_eq!(found, ["high::a", "low"]);
}
