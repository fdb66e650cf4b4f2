//! A dealer's table being matched: what each column stands for, what is asked, the rows as
//! they are read, and those that wait.

use super::import::IncomingLine;
use crate::present::page::ranking::facts;
use crate::survey::{Dealt, double};
use galvet_core::base::{Keyed, System};
use galvet_core::hull::{CapacityBasis, Construction, Measure, Propulsion, Source};
use galvet_store::files::dealer::{KEEP, Of, Question, SKIP, units_for, words_of};
use galvet_store::files::hulls::HullRecord;

/// An answer that may be chosen.
pub struct Choice {
    pub key: String,
    pub label: String,
    pub chosen: bool,
}

/// A column.
pub struct ColumnView {
    pub at: usize,
    pub header: String,
    /// What stands in its first cells.
    pub samples: String,
    pub targets: Vec<Choice>,
    /// Units its bare numbers may be in; empty where it has none.
    pub units: Vec<Choice>,
    /// Why it is looked at first; empty where it is sure.
    pub said: String,
    /// What is asked about its decimal sign: an example.
    pub comma: Option<String>,
}

/// A question about all rows, or a word.
pub struct Asked {
    /// Names of the fields that carry the answer.
    pub name: String,
    /// Fields that go with it.
    pub hidden: Vec<(String, String)>,
    pub label: String,
    pub choices: Vec<Choice>,
}

/// A row that waits.
pub struct HeldView {
    pub at: usize,
    pub name: String,
    pub line: u64,
    /// Column, why, what stands there.
    pub wrong: Vec<(String, String, String)>,
}

/// The page.
#[derive(Default)]
pub struct DealerView {
    pub file: String,
    pub text: String,
    /// The remembered table whose rows these are; empty for a file.
    pub table: String,
    pub gear: bool,
    pub sources: Vec<Choice>,
    pub columns: Vec<ColumnView>,
    pub asked: Vec<Asked>,
    pub answered: Vec<Asked>,
    /// Names of what is read, and the first rows.
    pub heads: Vec<String>,
    pub rows: Vec<Vec<String>>,
    pub left_out: String,
    pub held: Vec<HeldView>,
    pub rows_in_all: usize,
    /// How many can come in now.
    pub ready: usize,
    /// Hulls that are here already.
    pub doubles: Vec<IncomingLine>,
    /// How many columns are looked at before the rest.
    pub open: usize,
}

/// So many rows are shown as they are read.
const SHOWN: usize = 6;
/// So many rows that wait are shown to be put right at once.
const HELD: usize = 40;
/// So many cells of a column are shown.
const SAMPLES: usize = 3;

fn choice(key: &str, label: &str, chosen: bool) -> Choice {
    Choice {
        key: key.to_owned(),
        label: label.to_owned(),
        chosen,
    }
}

/// What people call one of our words.
fn label_of(target: &str, word: &str) -> String {
    let label = match target {
        "construction" => Construction::from_key(word).map(|w| w.label().to_owned()),
        "propulsion" => Propulsion::from_key(word).map(|w| w.label().to_owned()),
        "capacity_basis" => CapacityBasis::from_key(word).map(|w| w.label().to_owned()),
        _ => None,
    };
    label.unwrap_or_else(|| word.replace('-', " "))
}

fn words_for(target: &str, likely: Option<&str>) -> Vec<Choice> {
    let mut out = vec![choice("", "choose …", likely.is_none())];
    let words = words_of(target);
    out.extend(
        words
            .iter()
            .map(|word| choice(word, &label_of(target, word), likely == Some(word))),
    );
    out
}

fn columns(dealt: &Dealt) -> Vec<ColumnView> {
    let of = dealt.matching.of;
    let questions = &dealt.taken.questions;
    let columns = dealt.matching.columns.iter().enumerate();
    let column = columns.map(|(k, column)| {
        let cells = dealt.grid.rows.iter().filter_map(|row| row.cells.get(k));
        let cells = cells.filter(|c| !c.is_empty()).take(SAMPLES);
        let samples: Vec<String> = cells.map(|c| c.chars().take(28).collect()).collect();
        let mut targets = vec![
            choice(KEEP, "kept as it is", column.target == KEEP),
            choice(SKIP, "left out", column.target == SKIP),
        ];
        let known = of.targets().iter();
        targets.extend(known.map(|t| choice(t.key, t.label, t.key == column.target)));
        let dimension = of.target(&column.target).and_then(|t| t.dimension);
        let mut units: Vec<Choice> = units_for(dimension)
            .iter()
            .map(|unit| choice(unit, unit, column.unit.as_deref() == Some(unit)))
            .collect();
        let asks = questions
            .iter()
            .any(|q| matches!(q, Question::Unit { header } if *header == column.header));
        if !units.is_empty() {
            let label = if asks { "choose …" } else { "in the cells" };
            units.insert(0, choice("", label, column.unit.is_none()));
        }
        let comma = questions.iter().find_map(|q| match q {
            Question::Comma { header, example } if *header == column.header => {
                Some(example.clone())
            }
            _ => None,
        });
        let said = if asks {
            "in which unit?"
        } else if dealt.guessed.get(k).copied().unwrap_or(false) {
            "a guess"
        } else {
            ""
        };
        ColumnView {
            at: k,
            header: column.header.clone(),
            samples: samples.join(" · "),
            targets,
            units,
            said: said.to_owned(),
            comma,
        }
    });
    column.collect()
}

/// A question about all rows that do not say something.
fn of_all(target: &str, label: String, chosen: Option<&str>) -> Asked {
    Asked {
        name: format!("all[{target}]"),
        hidden: Vec::new(),
        label,
        choices: words_for(target, chosen),
    }
}

/// The question what a word means; `at` tells it from the others.
fn of_word(at: usize, (target, theirs): (&str, &str), chosen: Option<&str>) -> Asked {
    let mut choices = words_for(target, chosen.filter(|word| !word.is_empty()));
    choices.push(choice("-", "nothing we know", chosen == Some("")));
    Asked {
        name: format!("word[{at}].ours"),
        hidden: vec![
            (format!("word[{at}].target"), target.to_owned()),
            (format!("word[{at}].theirs"), theirs.to_owned()),
        ],
        label: format!("“{}” means", galvet_store::files::echo(theirs)),
        choices,
    }
}

/// What is asked, and what was answered already.
fn asked(dealt: &Dealt) -> (Vec<Asked>, Vec<Asked>) {
    let (matching, all) = (&dealt.matching, dealt.grid.rows.len());
    let label = |target: &str| matching.of.target(target).map_or("", |t| t.label);
    let mut words = 0;
    let mut next = || {
        words += 1;
        words - 1
    };
    let mut open = Vec::new();
    for question in &dealt.taken.questions {
        match question {
            Question::All { target, rows } => {
                let label = format!("{}: {rows} of {all} rows do not say it", label(target));
                open.push(of_all(target, label, None));
            }
            Question::Word {
                target,
                theirs,
                likely,
            } => open.push(of_word(next(), (target, theirs), *likely)),
            Question::Unit { .. } | Question::Comma { .. } | Question::Name => {}
        }
    }
    let given = matching.all.iter().map(|(target, word)| {
        let label = format!("{} of rows that do not say it", label(target));
        of_all(target, label, Some(word))
    });
    let mut answered: Vec<Asked> = given.collect();
    for (target, known) in &matching.words {
        for (theirs, ours) in known {
            answered.push(of_word(next(), (target, theirs), Some(ours)));
        }
    }
    (open, answered)
}

/// A cell of our own table in the reader's units: `3.76 (brochure)` as `3.76 m`.
fn shown(header: &str, text: &str, system: System) -> String {
    let named = |m: &&Measure| header == m.key() || header.starts_with(&format!("{}_", m.key()));
    let measure = Measure::ALL
        .iter()
        .filter(named)
        .max_by_key(|m| m.key().len());
    let number = text.split(" (").next().and_then(|n| n.parse::<f64>().ok());
    match (measure, number) {
        (Some(measure), Some(si)) => measure.text(system, si),
        _ => label_of(header, text),
    }
}

/// Headers of our own tables that are shown first, in this order.
const FIRST: [&str; 12] = [
    "maker",
    "model",
    "name",
    "construction",
    "propulsion",
    "category",
    "length_m",
    "beam_m",
    "bare_weight_kg",
    "fitted_weight_kg",
    "rated_capacity_kg",
    "price",
];

fn first_rows(dealt: &Dealt, system: System) -> (Vec<String>, Vec<Vec<String>>) {
    let first = &dealt.taken.first;
    let mut names: Vec<&String> = first
        .iter()
        .take(SHOWN)
        .flat_map(|row| row.keys())
        .collect();
    names.retain(|name| !matches!(name.as_str(), "key" | "tether" | "fixings"));
    let place = |name: &str| FIRST.iter().position(|f| *f == name).unwrap_or(FIRST.len());
    names.sort_by_key(|name| (place(name), (*name).clone()));
    names.dedup();
    let cell = |row: &std::collections::BTreeMap<String, String>, name: &String| {
        row.get(name)
            .map_or(String::new(), |text| shown(name, text, system))
    };
    let rows = first.iter().take(SHOWN);
    let rows = rows.map(|row| names.iter().map(|name| cell(row, name)).collect());
    let head = |name: &String| {
        let plain = name.trim_end_matches("_m").trim_end_matches("_kg");
        let measure = Measure::from_key(plain).map(|m| m.bounds().what);
        measure.map_or(plain.replace('_', " "), str::to_owned)
    };
    (names.iter().map(|n| head(n)).collect(), rows.collect())
}

fn held(dealt: &Dealt) -> Vec<HeldView> {
    let name_at = dealt
        .matching
        .columns
        .iter()
        .position(|c| matches!(c.target.as_str(), "name" | "model"));
    let rows = dealt.taken.held.iter().take(HELD);
    let view = rows.filter_map(|held| {
        let row = dealt.grid.rows.get(held.at)?;
        let name = name_at
            .and_then(|k| row.cells.get(k))
            .cloned()
            .unwrap_or_default();
        let wrong = held.wrong.iter().map(|(column, why)| {
            let k = dealt.grid.column(column);
            let value = k
                .and_then(|k| row.cells.get(k))
                .cloned()
                .unwrap_or_default();
            let column = if k.is_some() { column.as_str() } else { "" };
            (column.to_owned(), why.clone(), value)
        });
        Some(HeldView {
            at: held.at,
            name,
            line: held.line,
            wrong: wrong.collect(),
        })
    });
    view.collect()
}

/// Makes the page; `there` are the hulls kept already, `text` what was sent.
#[must_use]
pub fn dealer(
    dealt: &Dealt,
    text: String,
    table: &str,
    there: &[HullRecord],
    system: System,
) -> DealerView {
    let columns = columns(dealt);
    let (heads, rows) = first_rows(dealt, system);
    let (asked, answered) = asked(dealt);
    let left_out = dealt.grid.left_out.iter().take(8);
    let left_out: Vec<String> = left_out
        .map(|(line, why)| format!("line {line} ({why})"))
        .collect();
    let line = |(at, (_, hull)): (usize, &(usize, HullRecord))| {
        let same = double(hull, there)?;
        Some(IncomingLine {
            at,
            name: hull.survey.name(),
            facts: facts(&hull.survey, system),
            findings: Vec::new(),
            double: Some(same.survey.name()),
        })
    };
    let sources = Source::ALL.iter().filter(|s| **s < Source::Scale);
    let ready = dealt.ready();
    DealerView {
        file: dealt.matching.name.clone(),
        text,
        table: table.to_owned(),
        gear: dealt.matching.of == Of::Gear,
        sources: sources
            .map(|s| choice(s.key(), s.label(), s.key() == dealt.matching.source))
            .collect(),
        open: columns
            .iter()
            .filter(|c| !c.said.is_empty() || c.comma.is_some())
            .count(),
        columns,
        asked,
        answered,
        heads,
        rows,
        left_out: left_out.join(", "),
        held: held(dealt),
        rows_in_all: dealt.grid.rows.len(),
        doubles: if ready > 0 {
            dealt
                .taken
                .hulls
                .iter()
                .enumerate()
                .filter_map(line)
                .collect()
        } else {
            Vec::new()
        },
        ready,
    }
}
