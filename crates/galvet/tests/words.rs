//! The words of `docs/words.md`: what is retired stands in no template and in nothing
//! the program says.
#![allow(clippy::unwrap_used, reason = "tests")]

use std::fs;
use std::path::{Path, PathBuf};
use syn::punctuated::Punctuated;
use syn::visit::Visit;

/// Retired, in lower case; whole words.
const RETIRED: [&str; 26] = [
    "she",
    "her",
    "hers",
    "herself",
    "show so",
    "begin it",
    "throw away",
    "throw it away",
    "throw this",
    "put in a hull",
    "take in",
    "put in the first",
    "put a thing on the shelf",
    "walk along it",
    "lay its kit out",
    "measure it afloat",
    "trial paddles",
    "how galvet reckons",
    "margin in hand",
    "working share binds",
    "wet floor binds",
    "none better on both",
    "plausible shape",
    "plausible shapes",
    "only those with…",
    "close together",
];

fn files(directory: &Path, ending: &str, found: &mut Vec<PathBuf>) {
    for entry in fs::read_dir(directory).unwrap() {
        let path = entry.unwrap().path();
        if path.is_dir() {
            files(&path, ending, found);
        } else if path.extension().is_some_and(|e| e == ending) {
            found.push(path);
        }
    }
}

fn root() -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("../..")
}

/// Which retired words a text has.
fn retired(text: &str) -> Vec<&'static str> {
    let text = text.to_lowercase().replace('\u{a0}', " ");
    let letter = |c: Option<char>| c.is_some_and(|c| c.is_alphanumeric() || c == '-' || c == '_');
    let stands = |word: &str| {
        text.match_indices(word).any(|(at, _)| {
            let before = text[..at].chars().next_back();
            let after = text[at + word.len()..].chars().next();
            !letter(before) && !letter(after)
        })
    };
    let mut all = RETIRED.to_vec();
    all.retain(|word| stands(word));
    all
}

/// What a template says: without tags but for what is read out or shown of them, and
/// without Askama's own.
fn said(template: &str) -> String {
    let mut out = String::new();
    let mut rest = template;
    while let Some(at) = rest.find(['<', '{']) {
        out.push_str(&rest[..at]);
        let end = match &rest[at..at + 1] {
            "<" => ">",
            _ if rest[at..].starts_with("{%") => "%}",
            _ if rest[at..].starts_with("{{") => "}}",
            _ if rest[at..].starts_with("{#") => "#}",
            _ => "{",
        };
        let whole = rest[at..]
            .find(end)
            .map_or(rest.len(), |n| at + n + end.len());
        let tag = &rest[at..whole];
        for name in ["aria-label=\"", "title=\"", "placeholder=\""] {
            let value = tag.split(name).nth(1).and_then(|t| t.split('"').next());
            out.push(' ');
            out.push_str(value.unwrap_or_default());
        }
        out.push(' ');
        rest = &rest[whole..];
    }
    out.push_str(rest);
    out
}

/// The string literals of a source file, without its tests; those in a macro too.
fn strings(source: &str) -> Vec<String> {
    struct Said(Vec<String>);
    impl<'ast> Visit<'ast> for Said {
        fn visit_item_mod(&mut self, module: &'ast syn::ItemMod) {
            if module.ident != "tests" {
                syn::visit::visit_item_mod(self, module);
            }
        }

        // Not what explains the code.
        fn visit_attribute(&mut self, _: &'ast syn::Attribute) {}

        fn visit_lit_str(&mut self, text: &'ast syn::LitStr) {
            self.0.push(text.value());
        }

        fn visit_macro(&mut self, called: &'ast syn::Macro) {
            type Parts = Punctuated<syn::Expr, syn::Token![,]>;
            let parts = called.parse_body_with(Parts::parse_terminated);
            for part in parts.into_iter().flatten() {
                self.visit_expr(&part);
            }
        }
    }
    let mut said = Said(Vec::new());
    said.visit_file(&syn::parse_file(source).unwrap());
    said.0
}

#[test]
fn retired_words_stand_in_no_template_and_in_nothing_the_program_says() {
    let (mut templates, mut sources) = (Vec::new(), Vec::new());
    files(&root().join("web/templates"), "html", &mut templates);
    files(&root().join("crates"), "rs", &mut sources);
    sources.retain(|p| p.components().any(|c| c.as_os_str() == "src"));
    assert!(templates.len() > 30 && sources.len() > 200);
    let mut wrong = Vec::new();
    for path in templates {
        let text = said(&fs::read_to_string(&path).unwrap());
        let found = retired(&text);
        if !found.is_empty() {
            wrong.push(format!("{}: {found:?}", path.display()));
        }
    }
    for path in sources {
        for text in strings(&fs::read_to_string(&path).unwrap()) {
            let found = retired(&text);
            if !found.is_empty() {
                wrong.push(format!("{}: {found:?} in “{text}”", path.display()));
            }
        }
    }
    assert!(wrong.is_empty(), "{}", wrong.join("\n"));
}

/// What a source file says in its documentation: of a command, its help.
fn help(source: &str) -> String {
    let lines = source.lines().map(str::trim);
    let said = lines.filter_map(|line| line.strip_prefix("///"));
    said.collect::<Vec<_>>().join(" ")
}

#[test]
fn retired_words_stand_in_no_help_and_in_no_document() {
    let (mut documents, mut commands) = (vec![root().join("README.md")], Vec::new());
    files(&root().join("docs"), "md", &mut documents);
    // The table of them, and what was held against what under its own words.
    documents.retain(|p| !p.ends_with("words.md"));
    let directory = Path::new(env!("CARGO_MANIFEST_DIR")).join("src/commands");
    files(&directory, "rs", &mut commands);
    assert!(documents.len() > 3 && commands.len() > 10);
    let document = |path: &PathBuf| fs::read_to_string(path).unwrap();
    let said = documents.iter().map(|path| (path, document(path)));
    let helps = commands.iter().map(|path| (path, help(&document(path))));
    let wrong = said.chain(helps).filter_map(|(path, text)| {
        let found = retired(&text);
        (!found.is_empty()).then(|| format!("{}: {found:?}", path.display()))
    });
    assert_eq!(wrong.collect::<Vec<_>>(), [""; 0]);
}

#[test]
fn what_is_read_out_counts_as_said() {
    let template = r#"<a title="her lines" href="/she">its {{ her.name }}</a>{# her #}"#;
    assert_eq!(retired(&said(template)), ["her"]);
    assert!(retired("other, there, shed, in-her-name").is_empty());
    assert_eq!(retired("Throw\u{a0}away"), ["throw away"]);
    let source = r#"/// "he"
        fn x() { let x = "a\"b"; println!("{x} {}", "c"); } // "she"
        #[cfg(test)]
        mod tests { const T: &str = "her"; }"#;
    assert_eq!(strings(source), ["a\"b", "{x} {}", "c"]);
}
