//! Dealers' tables as they are sent, each with what must come of it: `tests/tables/*.txt`,
//! the table above a line of dashes, below it what a person answers and what is read.

#![allow(clippy::unwrap_used, clippy::panic, reason = "tests")]

use galvet_core::base::Keyed;
use galvet_core::hull::{Measure, Survey};
use galvet_store::files::dealer::{self, Grid, Matching, Of, Question, Taken};
use std::path::Path;

/// A table and what is said of it.
struct Case {
    name: String,
    table: String,
    said: Vec<String>,
}

fn cases() -> Vec<Case> {
    let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/tables");
    let mut out: Vec<Case> = std::fs::read_dir(folder)
        .unwrap()
        .map(|entry| {
            let path = entry.unwrap().path();
            let text = std::fs::read_to_string(&path).unwrap();
            let (table, said) = text.split_once("----\n").unwrap();
            Case {
                name: path.file_stem().unwrap().to_string_lossy().into_owned(),
                table: table.to_owned(),
                said: said.lines().map(str::to_owned).collect(),
            }
        })
        .collect();
    out.sort_by(|a, b| a.name.cmp(&b.name));
    out
}

impl Case {
    /// What is said with a word before it.
    fn of<'a>(&'a self, word: &'a str) -> impl Iterator<Item = &'a str> {
        let rest = move |line: &'a String| line.strip_prefix(word)?.strip_prefix(' ');
        self.said.iter().filter_map(rest)
    }

    /// What a person would answer, put on the matching.
    fn answer(&self, matching: &mut Matching) {
        for answer in self.of("answer") {
            let words: Vec<&str> = answer.split(' ').collect();
            let last = (*words.last().unwrap()).to_owned();
            match words[0] {
                "all" => {
                    matching.all.insert(words[1].to_owned(), last);
                }
                "word" => {
                    let theirs = words[2..words.len() - 1].join(" ");
                    let known = matching.words.entry(words[1].to_owned()).or_default();
                    known.insert(theirs, last);
                }
                how => {
                    let header = words[1..words.len() - 1].join(" ");
                    let mut columns = matching.columns.iter_mut();
                    let column = columns.find(|c| c.header == header).unwrap();
                    if how == "unit" {
                        column.unit = Some(last);
                    } else {
                        column.target = last;
                    }
                }
            }
        }
    }
}

fn words(question: &Question) -> String {
    match question {
        Question::Unit { header } => format!("unit {header}"),
        Question::Comma { header, .. } => format!("comma {header}"),
        Question::Word { target, theirs, .. } => format!("word {target} {theirs}"),
        Question::All { target, .. } => format!("all {target}"),
        Question::Name => "name".to_owned(),
    }
}

fn figures(line: &str) -> (&str, Vec<(&str, f64)>) {
    let mut parts = line.split(' ');
    let key = parts.next().unwrap();
    let figures = parts.filter_map(|p| p.split_once('='));
    (
        key,
        figures
            .map(|(name, v)| (name, v.parse().unwrap()))
            .collect(),
    )
}

/// Every figure of a hull is as said, and there is none that nobody said.
fn expect_hull(case: &str, hull: &Survey, line: &str) -> usize {
    let (key, wanted) = figures(line);
    for (name, value) in &wanted {
        let measure = Measure::from_key(name).unwrap();
        let read = hull.value(measure);
        let near = read.is_some_and(|read| (read - value).abs() < 1e-9 * value.abs().max(1.0));
        assert!(near, "{case}, {key}: {name} is {read:?}, not {value}");
    }
    let none = wanted.len();
    let all: Vec<_> = hull.readings.keys().map(|m| m.key()).collect();
    assert_eq!(hull.readings.len(), none, "{case}, {key}: {all:?}");
    none
}

/// How many figures come out right: all that are said, or the test fails.
fn expect(case: &Case, taken: &Taken) -> usize {
    let name = &case.name;
    let mut right = 0;
    for line in case.of("hull") {
        let key = line.split(' ').next().unwrap();
        let found = taken.hulls.iter().find(|(_, h)| h.survey.key == key);
        let Some((_, hull)) = found else {
            panic!("{name}: no {key} among {taken:#?}");
        };
        right += expect_hull(name, &hull.survey, line);
    }
    assert_eq!(taken.hulls.len(), case.of("hull").count(), "{name}");
    for line in case.of("thing") {
        let (key, wanted) = figures(line);
        let found = taken.gear.iter().find(|(_, g, _)| g.key == key);
        let Some((_, thing, _)) = found else {
            panic!("{name}: no {key} among {taken:#?}");
        };
        for (figure, value) in wanted {
            let read = match figure {
                "dry" => thing.dry_mass,
                "price" => thing.price.unwrap(),
                "length" => thing.size.unwrap()[0],
                "width" => thing.size.unwrap()[1],
                _ => thing.size.unwrap()[2],
            };
            assert!(
                (read - value).abs() < 1e-9,
                "{name}, {key}: {figure} is {read}"
            );
            right += 1;
        }
    }
    assert_eq!(taken.gear.len(), case.of("thing").count(), "{name}");
    let mut lines = std::collections::BTreeSet::new();
    for line in case.of("held") {
        let (at, why) = line.split_once(' ').unwrap();
        lines.insert(at);
        let held = taken.held.iter().find(|h| h.line.to_string() == at);
        let held = held.unwrap_or_else(|| panic!("{name}: line {at} is not held: {taken:#?}"));
        let told = |(column, problem): &(String, String)| {
            let column = if column.is_empty() { "-" } else { column };
            let words = why.split_once(' ').unwrap().1;
            // A column's name may be several words.
            column.starts_with(why.split(' ').next().unwrap())
                && words
                    .split(' ')
                    .all(|w| format!("{column} {problem}").contains(w))
        };
        assert!(
            held.wrong.iter().any(told),
            "{name}, line {at}: {:?}",
            held.wrong
        );
    }
    assert_eq!(taken.held.len(), lines.len(), "{name}: {:?}", taken.held);
    right
}

#[test]
fn dealers_tables_come_in_as_they_are() {
    let all = cases();
    assert!(all.len() >= 25);
    let (mut at_once, mut right) = (0, 0);
    for case in &all {
        if let Ok(only) = std::env::var("CASE")
            && !case.name.starts_with(&only)
        {
            continue;
        }
        let name = &case.name;
        let grid = match Grid::of(name, &case.table) {
            Ok(grid) => grid,
            Err(problem) => {
                let wanted: Vec<&str> = case.of("refused").collect();
                assert_eq!(wanted.len(), 1, "{name}: {problem}");
                assert!(problem.to_string().contains(wanted[0]), "{name}: {problem}");
                continue;
            }
        };
        assert_eq!(case.of("refused").count(), 0, "{name}");
        let left: Vec<String> = grid.left_out.iter().map(|(l, _)| l.to_string()).collect();
        let wanted: Vec<&str> = case.of("left").collect();
        assert_eq!(left, wanted, "{name}");
        let (mut matching, _) = dealer::guess(&grid, name);
        let of = if case.of("of").next() == Some("gear") {
            Of::Gear
        } else {
            Of::Hulls
        };
        assert_eq!(matching.of, of, "{name}");
        let before = dealer::read(&grid, &matching);
        let asked: Vec<String> = before.questions.iter().map(words).collect();
        for wanted in case.of("asks") {
            assert!(
                asked.contains(&wanted.to_owned()),
                "{name}: {asked:?}, not {wanted}"
            );
        }
        // Nothing is read of a column nobody stated, and a hand is needed for what is asked.
        let figures = before.first.iter().flat_map(|row| row.keys());
        let is_figure = |key: &&String| ["_m", "_kg", "price"].iter().any(|e| key.ends_with(e));
        let before = figures.filter(is_figure).count();
        case.answer(&mut matching);
        let taken = dealer::read(&grid, &matching);
        assert!(taken.questions.is_empty(), "{name}: {:?}", taken.questions);
        let come = expect(case, &taken);
        right += come;
        // Rows that wait have figures too, which count for nothing.
        at_once += before.min(come);
        // The matching goes out as a file and comes back the same, and its table does.
        let file = serde_json::to_string(&matching).unwrap();
        let back: Matching = serde_json::from_str(&file).unwrap();
        assert_eq!(back, matching, "{name}");
        let again = Grid::of(name, &grid.text().unwrap()).unwrap();
        let put_on = back.put_on(&again);
        let reread = dealer::read(&again, &put_on);
        let keys =
            |taken: &Taken| -> Vec<_> { taken.hulls.iter().map(|(_, h)| h.clone()).collect() };
        assert_eq!(keys(&reread), keys(&taken), "{name}");
    }
    assert!(
        at_once * 10 >= right * 9,
        "{at_once} of {right} without a hand"
    );
}
