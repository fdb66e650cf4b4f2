//! The rooms stand one above the other: no file imports, over however many
//! others, one that imports it back.

#![allow(clippy::unwrap_used)]

use std::collections::{BTreeMap, BTreeSet};
use std::path::{Path, PathBuf};
use syn::visit::Visit;
use syn::{Attribute, ItemMod, ItemUse, Path as Path_, UseTree, Visibility};

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

/// What a source names from `crate::` or `super::` on, and what it offers with `pub use`.
#[derive(Default)]
struct Names {
    named: Vec<String>,
    offered: Vec<String>,
}

impl Names {
    fn of(source: &str, here: &str) -> Self {
        let mut finder = Finder {
            here,
            found: Self::default(),
        };
        finder.visit_file(&syn::parse_file(source).unwrap());
        finder.found
    }
}

struct Finder<'a> {
    here: &'a str,
    found: Names,
}

fn is_test(attributes: &[Attribute]) -> bool {
    attributes.iter().any(|a| {
        a.path().is_ident("cfg") && a.parse_args::<Path_>().is_ok_and(|p| p.is_ident("test"))
    })
}

impl Finder<'_> {
    /// A path written from `crate` or `super` on, from the crate's root on.
    fn absolute(&self, parts: &[String]) -> Option<String> {
        let mut base: Vec<&str> = self.here.split("::").filter(|p| !p.is_empty()).collect();
        let mut rest = parts;
        match rest.first()?.as_str() {
            "crate" => {
                base.clear();
                rest = &rest[1..];
            }
            "super" => {
                while rest.first().is_some_and(|p| p == "super") {
                    base.pop();
                    rest = &rest[1..];
                }
            }
            _ => return None,
        }
        base.extend(rest.iter().map(String::as_str));
        Some(base.join("::"))
    }
}

/// The paths of a tree of imports.
fn unfold(tree: &UseTree, before: &[String], out: &mut Vec<Vec<String>>) {
    let with = |name: String| [before, &[name]].concat();
    match tree {
        UseTree::Path(path) => unfold(&path.tree, &with(path.ident.to_string()), out),
        UseTree::Name(name) => out.push(with(name.ident.to_string())),
        UseTree::Rename(name) => out.push(with(name.ident.to_string())),
        UseTree::Glob(_) => out.push(before.to_vec()),
        UseTree::Group(group) => {
            for tree in &group.items {
                unfold(tree, before, out);
            }
        }
    }
}

impl<'ast> Visit<'ast> for Finder<'_> {
    fn visit_item_mod(&mut self, module: &'ast ItemMod) {
        if !is_test(&module.attrs) {
            syn::visit::visit_item_mod(self, module);
        }
    }

    fn visit_item_use(&mut self, used: &'ast ItemUse) {
        if is_test(&used.attrs) {
            return;
        }
        let mut paths = Vec::new();
        unfold(&used.tree, &[], &mut paths);
        for path in paths {
            self.found.named.extend(self.absolute(&path));
            if !matches!(used.vis, Visibility::Inherited) {
                let own = [self.here.to_owned(), path.join("::")].join("::");
                let from = self.absolute(&path).unwrap_or(own);
                self.found.offered.push(from);
            }
        }
    }

    fn visit_path(&mut self, path: &'ast Path_) {
        let parts: Vec<String> = path.segments.iter().map(|s| s.ident.to_string()).collect();
        self.found.named.extend(self.absolute(&parts));
        syn::visit::visit_path(self, path);
    }
}

/// Who imports whom. A room's own `mod.rs` may gather what its files offer; a
/// file that names its room means the file the name comes from, which the
/// room's `pub use` tells.
fn graph(files: &BTreeMap<String, String>) -> Graph {
    let names: BTreeMap<&str, Names> = files
        .iter()
        .map(|(module, text)| (module.as_str(), Names::of(text, module)))
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
        let mut offered = names.get(room)?.offered.iter();
        offered
            .find(|o| o.rsplit("::").next() == Some(name))
            .and_then(|o| known(o))
    };
    let mut out = Graph::new();
    for (&module, Names { named, .. }) in &names {
        let edges = out.entry(module.to_owned()).or_default();
        for path in named {
            let Some(mut target) = known(path) else {
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
