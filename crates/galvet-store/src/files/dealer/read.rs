//! Rows of somebody's table through a matching: each becomes a row of our own table and is
//! read by the reader of that, so that nothing comes in that could not come in there. What
//! is not understood waits with its reason; what a column leaves open is asked once.

use super::cell::{self, Basis, Column, Unread};
use super::grid::{Grid, GridRow};
use super::matching::{ColumnAs, Matching, bounds};
use super::targets::{KEEP, NAME, Of, SIZE, SKIP, WEIGHT};
use super::vocabulary::{likely, measure, takes_words, units_for, word};
use crate::files::hull_table;
use crate::files::hulls::{self, HullRecord};
use crate::files::{echo, gear_table};
use galvet_core::gear::Gear;
use galvet_core::hull::Measure;
use serde_json::Value;
use std::collections::{BTreeMap, BTreeSet};

/// What a table leaves open, asked once for all its rows.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord)]
pub enum Question {
    /// In which unit the bare numbers of a column are.
    Unit {
        /// The column.
        header: String,
    },
    /// Whether a comma or point parts thousands or decimals in a column.
    Comma {
        /// The column.
        header: String,
        /// A cell that can be read two ways.
        example: String,
    },
    /// What a word means.
    Word {
        /// Of which target.
        target: &'static str,
        /// The word as it stands there.
        theirs: String,
        /// What it most likely means.
        likely: Option<&'static str>,
    },
    /// What holds for all rows that do not say it.
    All {
        /// The target.
        target: &'static str,
        /// How many rows say nothing.
        rows: usize,
    },
    /// No column says what a row is called.
    Name,
}

/// A row that waits.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Held {
    /// Its place among the rows.
    pub at: usize,
    /// Its line.
    pub line: u64,
    /// The columns that are wrong, each with why; an empty name for the row as a whole.
    pub wrong: Vec<(String, String)>,
}

/// What a table says.
#[derive(Debug, Clone, Default)]
pub struct Taken {
    /// What is left open; nothing is taken in while something is.
    pub questions: Vec<Question>,
    /// Hulls read, each with its row's place.
    pub hulls: Vec<(usize, HullRecord)>,
    /// Of each, the columns of words in which its row says something.
    pub told: Vec<BTreeSet<&'static str>>,
    /// Things read, each with its row's place and what the row says.
    pub gear: Vec<(usize, Gear, Value)>,
    /// Rows that wait.
    pub held: Vec<Held>,
    /// The first rows as a row of our own table, whatever is still open.
    pub first: Vec<BTreeMap<String, String>>,
}

/// So many rows are told as they are read.
const FIRST: usize = 100;

/// A row as one of our own tables has it.
#[derive(Default)]
struct Own {
    cells: BTreeMap<String, String>,
    /// Columns that are kept as they are.
    extra: BTreeMap<String, String>,
    wrong: Vec<(String, String)>,
    /// What the table says of all rows alike.
    of_all: BTreeSet<&'static str>,
    /// Whether its weight says nothing of what is in it.
    unsaid: bool,
    /// Whether something in it is asked about first.
    open: bool,
    /// Targets of words in it that are asked about.
    asked: BTreeSet<&'static str>,
}

/// Reads a table's rows.
#[must_use]
pub fn read(grid: &Grid, matching: &Matching) -> Taken {
    let mut out = Taken::default();
    let mut questions = BTreeSet::new();
    let named = matching.has(NAME) || matching.has("model");
    if !named {
        questions.insert(Question::Name);
    }
    let mut keys = BTreeSet::new();
    for (at, row) in grid.rows.iter().enumerate() {
        let mut own = Reader {
            matching,
            questions: &mut questions,
            own: Own::default(),
        }
        .row(grid, row);
        if out.first.len() < FIRST {
            out.first.push(own.cells.clone());
        }
        if own.open || !named {
            continue;
        }
        if own.wrong.is_empty() {
            own.cells.insert("key".to_owned(), free_key(&own, &keys));
            let taken = match matching.of {
                Of::Hulls => out.hull(at, &mut own),
                Of::Gear => out.thing(at, &mut own),
            };
            if taken {
                keys.insert(own.cells["key"].clone());
                continue;
            }
        }
        out.held.push(Held {
            at,
            line: row.line,
            wrong: own.wrong,
        });
    }
    out.questions = counted(questions);
    out
}

/// Questions of all rows, each once with the number of rows it is about.
fn counted(questions: BTreeSet<Question>) -> Vec<Question> {
    let mut rows = BTreeMap::<&'static str, usize>::new();
    let mut out = Vec::new();
    for question in questions {
        match question {
            Question::All { target, .. } => *rows.entry(target).or_default() += 1,
            other => out.push(other),
        }
    }
    out.extend(
        rows.into_iter()
            .map(|(target, rows)| Question::All { target, rows }),
    );
    out
}

/// A key made of the name, that no row before has.
fn free_key(own: &Own, taken: &BTreeSet<String>) -> String {
    let part = |name: &str| own.cells.get(name).map_or("", String::as_str);
    let name = format!("{} {} {}", part("maker"), part("model"), part("name"));
    let mut key: String = slug::slugify(&name).chars().take(56).collect();
    key = key.trim_matches('-').to_owned();
    if key.is_empty() {
        key = "row".to_owned();
    }
    let mut free = key.clone();
    let mut count = 1;
    while taken.contains(&free) {
        count += 1;
        free = format!("{key}-{count}");
    }
    free
}

/// One table of our own with one row in it.
fn table(cells: &BTreeMap<String, String>) -> String {
    let mut out = csv::Writer::from_writer(Vec::new());
    // Writing to memory does not fail; an empty table is refused by its reader.
    let written = out
        .write_record(cells.keys())
        .and_then(|()| out.write_record(cells.values()));
    let bytes = written.ok().and_then(|()| out.into_inner().ok());
    String::from_utf8_lossy(&bytes.unwrap_or_default()).into_owned()
}

impl Taken {
    fn hull(&mut self, at: usize, own: &mut Own) -> bool {
        let read = match hulls::read("table", &table(&own.cells)) {
            Ok(read) => read,
            Err(mistakes) => {
                let wrong = mistakes.into_iter();
                let wrong = wrong.map(|m| (m.column.unwrap_or_default(), m.problem));
                own.wrong = wrong.collect();
                return false;
            }
        };
        let (hull, told) = (read.hulls.into_iter().next(), read.told.into_iter().next());
        let (Some(mut hull), Some(mut told)) = (hull, told) else {
            return false;
        };
        if own.unsaid {
            let weight = hull.survey.readings.get_mut(&Measure::BareWeight);
            for reading in weight.into_iter().flatten() {
                "not said whether seat and drive are in it; taken as the hull alone"
                    .clone_into(&mut reading.note);
            }
        }
        hull.extra = std::mem::take(&mut own.extra);
        told.retain(|word| !own.of_all.contains(word));
        self.hulls.push((at, hull));
        self.told.push(told);
        true
    }

    fn thing(&mut self, at: usize, own: &mut Own) -> bool {
        // What nobody said of it sinks, and is strapped or lies loose.
        let usual = [
            ("tether", "sinks"),
            ("fixings", "strap; loose"),
            ("category", "other"),
        ];
        let usual: Vec<_> = usual
            .into_iter()
            .filter(|(name, _)| !own.cells.contains_key(*name))
            .collect();
        for (name, word) in &usual {
            own.cells.insert((*name).to_owned(), (*word).to_owned());
        }
        let extra = std::mem::take(&mut own.extra);
        let notes = extra.iter().map(|(name, said)| format!("{name}: {said}"));
        let notes: Vec<String> = own
            .cells
            .get("note")
            .cloned()
            .into_iter()
            .chain(notes)
            .collect();
        if !notes.is_empty() {
            own.cells.insert("note".to_owned(), notes.join("; "));
        }
        match gear_table::read_told("table", &table(&own.cells)) {
            Ok((things, _)) => {
                let things = things.into_iter().map(|(gear, mut told)| {
                    // It is not what the table says of a thing that is there already.
                    if let Some(told) = told.as_object_mut() {
                        told.retain(|name, _| !usual.iter().any(|(usual, _)| usual == name));
                    }
                    (at, gear, told)
                });
                self.gear.extend(things);
                true
            }
            Err(mistakes) => {
                let wrong = mistakes.into_iter();
                let wrong = wrong.map(|m| (m.column.unwrap_or_default(), m.problem));
                own.wrong = wrong.collect();
                false
            }
        }
    }
}

/// Reads one row.
struct Reader<'a> {
    matching: &'a Matching,
    questions: &'a mut BTreeSet<Question>,
    own: Own,
}

impl Reader<'_> {
    fn row(mut self, grid: &Grid, row: &GridRow) -> Own {
        if !row.odd.is_empty() {
            self.own.wrong.push((String::new(), row.odd.clone()));
            return self.own;
        }
        for (header, text) in grid.headers.iter().zip(&row.cells) {
            if let Some(column) = self.matching.of_column(header) {
                self.cell(column, text, row.line);
            }
        }
        if self.matching.of == Of::Hulls {
            for target in ["construction", "propulsion"] {
                self.for_all(target, row.line);
            }
        }
        for (target, text) in &self.matching.all {
            if !self.own.cells.contains_key(target) && !takes_words(target) {
                self.own.cells.insert(target.clone(), text.clone());
            }
        }
        let called = |own: &Own| ["name", "model"].iter().any(|n| own.cells.contains_key(*n));
        if !called(&self.own) && self.own.wrong.is_empty() {
            let of_name = |c: &&ColumnAs| matches!(c.target.as_str(), NAME | "model");
            let column = self.matching.columns.iter().find(of_name);
            if let Some(column) = column {
                let wrong = (column.header.clone(), "it has no name".to_owned());
                self.own.wrong.push(wrong);
            }
        }
        self.own
    }

    /// A word nobody wrote in this row: that of all rows, or asked.
    fn for_all(&mut self, target: &'static str, line: u64) {
        if self.own.cells.contains_key(target) || self.own.asked.contains(target) {
            return;
        }
        match self.matching.all.get(target) {
            Some(word) => {
                self.own.cells.insert(target.to_owned(), word.clone());
                self.own.of_all.insert(target);
            }
            None if self.own.wrong.is_empty() => {
                // Told apart by line, counted together.
                let rows = usize::try_from(line).unwrap_or_default();
                self.questions.insert(Question::All { target, rows });
                self.own.open = true;
            }
            None => {}
        }
    }

    fn wrong(&mut self, column: &ColumnAs, problem: impl Into<String>) {
        self.own.wrong.push((column.header.clone(), problem.into()));
    }

    fn cell(&mut self, column: &ColumnAs, text: &str, _line: u64) {
        let target = column.target.as_str();
        if target == SKIP || (cell::is_nothing(text) && target != KEEP) {
            return;
        }
        if target == KEEP {
            if !text.is_empty() {
                let name = column.header.to_lowercase();
                self.own.extra.insert(name, text.to_owned());
            }
            return;
        }
        let Some(known) = self.matching.of.target(target) else {
            return;
        };
        match (known.key, known.dimension) {
            (SIZE, Some(_)) => self.size(column, text),
            (key, _) if takes_words(key) => self.word(column, key, text),
            (key, Some(dimension)) if key != "notes" => {
                let within = bounds(self.matching.of, key, dimension);
                if let Some(figure) = self.figure(column, text, &within) {
                    self.put(key, figure);
                }
            }
            (NAME, _) if self.matching.of == Of::Hulls => {
                self.own.cells.insert("model".to_owned(), text.to_owned());
            }
            (key, _) => {
                self.own.cells.insert(key.to_owned(), text.to_owned());
            }
        }
    }

    /// One of our words, as the row's own says.
    fn word(&mut self, column: &ColumnAs, target: &'static str, text: &str) {
        let lower = text.trim().to_lowercase();
        let said = self.matching.words.get(target).and_then(|w| w.get(&lower));
        let ours = said
            .cloned()
            .or_else(|| word(target, text).map(str::to_owned));
        match ours {
            // Asked, and answered that it says nothing.
            Some(ours) if ours.is_empty() => {}
            Some(ours) => {
                self.own.cells.insert(target.to_owned(), ours);
            }
            None if target == "seats" => {
                self.wrong(column, format!("“{}” is not a number of seats", echo(text)));
            }
            None => {
                self.questions.insert(Question::Word {
                    target,
                    theirs: text.trim().to_owned(),
                    likely: likely(target, text),
                });
                self.own.asked.insert(target);
                self.own.open = true;
            }
        }
    }

    /// A cell's figure; what keeps it from being one is said or asked.
    fn figure(
        &mut self,
        column: &ColumnAs,
        text: &str,
        within: &galvet_core::base::Bounds,
    ) -> Option<cell::Figure> {
        let meant = Column {
            unit: column.unit.as_deref(),
            comma: column.comma,
        };
        match cell::figure(text, within, meant) {
            Ok(figure) => figure,
            Err(Unread::Unit) => {
                let header = column.header.clone();
                self.questions.insert(Question::Unit { header });
                self.own.open = true;
                None
            }
            Err(Unread::TwoWays) => {
                // One cell shows it for all.
                let known = self.questions.iter().any(
                    |q| matches!(q, Question::Comma { header, .. } if *header == column.header),
                );
                if !known {
                    self.questions.insert(Question::Comma {
                        header: column.header.clone(),
                        example: text.to_owned(),
                    });
                }
                self.own.open = true;
                None
            }
            Err(Unread::Wrong(problem)) => {
                self.wrong(column, problem);
                None
            }
        }
    }

    /// A figure under the header our own table has for it.
    fn put(&mut self, key: &'static str, figure: cell::Figure) {
        let hull = self.matching.of == Of::Hulls;
        let (key, unsaid) = match (key, figure.basis) {
            (WEIGHT, Some(Basis::Fitted)) => ("fitted_weight", false),
            (WEIGHT, Some(Basis::Bare)) => ("bare_weight", false),
            (WEIGHT, None) => ("bare_weight", true),
            (key, _) => (key, false),
        };
        self.own.unsaid |= unsaid;
        let source = &self.matching.source;
        let (header, text) = match measure(key).filter(|_| hull) {
            Some(measure) => (
                hull_table::column(measure),
                format!("{} ({source})", figure.si),
            ),
            None => {
                let dimension = self.matching.of.target(key).and_then(|t| t.dimension);
                let unit = units_for(dimension).first().map_or("", |unit| *unit);
                let header = if unit.is_empty() {
                    key.to_owned()
                } else {
                    format!("{key}_{unit}")
                };
                (header, figure.si.to_string())
            }
        };
        self.own.cells.insert(header, text);
    }

    /// `370 x 86 cm`: the first is the length, whatever is longer.
    fn size(&mut self, column: &ColumnAs, text: &str) {
        let of = self.matching.of;
        let keys: &[&'static str] = match of {
            Of::Hulls => &["length", "beam"],
            Of::Gear => &["length", "width", "height"],
        };
        let sides = cell::sides(text);
        let fits = match of {
            Of::Hulls => sides.len() == 2 || sides.len() == 3,
            Of::Gear => sides.len() == 3,
        };
        if !fits {
            let wanted = keys.join(" × ");
            self.wrong(column, format!("“{}” is not {wanted}", echo(text)));
            return;
        }
        for (key, side) in keys.iter().zip(&sides) {
            let Some(dimension) = of.target(key).and_then(|t| t.dimension) else {
                continue;
            };
            let within = bounds(of, key, dimension);
            if let Some(figure) = self.figure(column, side, &within) {
                self.put(key, figure);
            }
        }
    }
}
