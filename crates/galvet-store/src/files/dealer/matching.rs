//! Which column of somebody's table stands for what: guessed from names, units and the
//! look of the cells, put right by a person, remembered for the next file of that shape.

use super::cell::{self, Column};
use super::grid::{Grid, MOST_COLUMNS};
use super::targets::{KEEP, NAME, Of, SIZE, SKIP};
use super::vocabulary::{bare, measure, named, plain, same, takes_words, units_for, word};
use crate::files::FileError;
use crate::files::sheet::Sheet;
use galvet_core::base::{Bounds, Dimension, Keyed};
use galvet_core::hull::Source;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;

/// What one column stands for.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct ColumnAs {
    /// Its name in the file.
    pub header: String,
    /// What it stands for: a word of the vocabulary, `keep` or `skip`.
    #[serde(rename = "as")]
    pub target: String,
    /// In which unit its bare numbers are; none where the cells say so.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub unit: Option<String>,
    /// Whether the comma is the decimal sign in it; none where no cell leaves it open.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub comma: Option<bool>,
}

/// How the files of one shape are read.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Matching {
    /// Its key.
    #[serde(default)]
    pub key: String,
    /// The file it was made for.
    #[serde(default)]
    pub name: String,
    /// What its rows are.
    pub of: Of,
    /// Its columns.
    pub columns: Vec<ColumnAs>,
    /// What holds for all rows that say nothing of it, by target.
    #[serde(default)]
    pub all: BTreeMap<String, String>,
    /// What words in its cells mean, by target and the word in small letters.
    #[serde(default)]
    pub words: BTreeMap<String, BTreeMap<String, String>>,
    /// Where its figures come from.
    #[serde(default = "usual_source")]
    pub source: String,
    /// Names of the columns of rows that wait to be put right, and those rows.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub waiting: Vec<Vec<String>>,
}

fn usual_source() -> String {
    Source::Brochure.key().to_owned()
}

impl Sheet for Matching {
    const KEY: &'static str = "matching";
    const PLURAL: &'static str = "matchings";

    fn slug(&self) -> &str {
        &self.key
    }

    fn name(&self) -> &str {
        &self.name
    }

    fn check(&self) -> Result<(), String> {
        let long = |text: &String| text.chars().count() > 2_000;
        let cells = self.waiting.iter().flatten();
        if self.columns.len() > MOST_COLUMNS || self.waiting.len() > super::grid::MOST_ROWS {
            return Err("more columns or rows than a table may have".to_owned());
        }
        if cells.chain([&self.name]).any(long) {
            return Err("a cell longer than 2000 characters".to_owned());
        }
        if Source::from_key(&self.source).is_none() {
            return Err(format!(
                "“{}” is not a source",
                crate::files::echo(&self.source)
            ));
        }
        for column in &self.columns {
            let known = matches!(column.target.as_str(), KEEP | SKIP)
                || self.of.target(&column.target).is_some();
            if !known {
                let said = crate::files::echo(&column.target);
                return Err(format!("“{said}” is nothing a column can stand for"));
            }
            if column
                .unit
                .as_deref()
                .is_some_and(|unit| bare(unit).is_none())
            {
                let said = crate::files::echo(column.unit.as_deref().unwrap_or_default());
                return Err(format!(
                    "“{said}” is not a unit: m, cm, mm, in, ft, kg or lb"
                ));
            }
        }
        Ok(())
    }
}

impl Matching {
    /// Reads a matching out of a file.
    ///
    /// # Errors
    /// [`FileError`] with line and column of what is wrong in it.
    pub fn read(file: &str, text: &str) -> Result<Self, FileError> {
        let matching: Self = crate::files::read_json(file, text)?;
        matching
            .check()
            .map_err(|problem| FileError::whole(file, problem))?;
        Ok(matching)
    }

    /// What a column of a file stands for.
    #[must_use]
    pub fn of_column(&self, header: &str) -> Option<&ColumnAs> {
        self.columns.iter().find(|c| c.header == header)
    }

    /// Whether some column stands for a target.
    #[must_use]
    pub fn has(&self, target: &str) -> bool {
        self.columns.iter().any(|c| c.target == target)
    }

    /// The same for the columns of a grid: those it names as it says, others as guessed.
    #[must_use]
    pub fn put_on(&self, grid: &Grid) -> Self {
        let guessed = guess(grid, &self.name).0;
        let columns = guessed.columns.into_iter().map(|column| {
            let like = |c: &&ColumnAs| c.header.to_lowercase() == column.header.to_lowercase();
            match self.columns.iter().find(like) {
                Some(known) => ColumnAs {
                    header: column.header,
                    ..known.clone()
                },
                None => ColumnAs {
                    target: KEEP.to_owned(),
                    ..column
                },
            }
        });
        Self {
            columns: columns.collect(),
            ..self.clone()
        }
    }
}

/// The bounds within which figures of a target lie.
pub(super) fn bounds(of: Of, key: &str, dimension: Dimension) -> Bounds {
    let label = of.target(key).map_or("it", |t| t.label);
    match of {
        Of::Hulls => measure(key).map_or(
            Bounds::new(label, dimension, 0.0, 1e6),
            galvet_core::hull::Measure::bounds,
        ),
        Of::Gear => match dimension {
            Dimension::Mass => Bounds::new(label, dimension, 0.0, 120.0),
            Dimension::Money => Bounds::new(label, dimension, 0.0, 50_000.0),
            _ => Bounds::new(label, dimension, 0.001, 5.0),
        },
    }
}

/// The cells of a column, those that say something.
fn cells(grid: &Grid, k: usize) -> impl Iterator<Item = &str> {
    let cells = grid.rows.iter().filter_map(move |row| row.cells.get(k));
    cells.map(String::as_str).filter(|c| !cell::is_nothing(c))
}

/// What rows are, as far as the names of the columns tell.
fn rows_are(grid: &Grid) -> Of {
    let named_as = |of: Of, keys: &[&str]| {
        let mut names = grid.headers.iter().filter_map(|h| named(of, h));
        names.any(|(t, exact)| exact && keys.contains(&t.key))
    };
    let hull = [
        "rated_capacity",
        "propulsion",
        "bottom",
        "bare_weight",
        "fitted_weight",
    ];
    let says_hull = named_as(Of::Hulls, &hull)
        || grid.headers.iter().any(|h| {
            let (words, _) = plain(h);
            ["beam", "kayak", "hull", "boat"]
                .iter()
                .any(|w| words.split(' ').any(|x| x == *w))
        });
    // What has three sides lies on a shelf.
    let solid = |(k, header): (usize, &String)| {
        let size = named(Of::Gear, header).is_some_and(|(t, _)| t.key == SIZE);
        let three = cells(grid, k).filter(|c| cell::sides(c).len() == 3).count();
        size && three * 2 > cells(grid, k).count()
    };
    if !says_hull && grid.headers.iter().enumerate().any(solid) {
        return Of::Gear;
    }
    if !says_hull
        && named_as(
            Of::Gear,
            &["height", "loaded_weight", "battery_v", "battery_ah"],
        )
    {
        return Of::Gear;
    }
    Of::Hulls
}

/// The only unit in which all bare numbers of a column are what it is of.
fn only_unit(grid: &Grid, k: usize, within: &Bounds) -> Option<&'static str> {
    let mut fits = units_for(Some(within.dimension)).iter().filter(|unit| {
        let column = Column {
            unit: Some(unit),
            comma: None,
        };
        cells(grid, k).all(|c| {
            let read = cell::figure(c, within, column);
            matches!(read, Ok(_) | Err(cell::Unread::TwoWays))
        })
    });
    let one = fits.next().copied();
    one.filter(|_| fits.next().is_none())
}

/// Whether some cell of a column is a number without a unit.
fn has_bare(grid: &Grid, k: usize, within: &Bounds) -> bool {
    let unread = |c: &str| cell::figure(c, within, Column::default());
    cells(grid, k).any(|c| unread(c) == Err(cell::Unread::Unit))
}

/// What a column is, from what stands in it: lengths and beams with units, words of ours.
fn by_look(of: Of, grid: &Grid, k: usize) -> Option<&'static str> {
    let all: Vec<&str> = cells(grid, k).collect();
    let most = |count: usize| count * 3 >= all.len() * 2 && !all.is_empty();
    if of == Of::Gear {
        return None;
    }
    for key in ["length", "beam"] {
        let target = of.target(key)?;
        let within = bounds(of, key, target.dimension?);
        let reads = |c: &&&str| matches!(cell::figure(c, &within, Column::default()), Ok(Some(_)));
        if most(all.iter().filter(reads).count()) {
            return Some(key);
        }
    }
    ["construction", "propulsion"].into_iter().find(|key| {
        let knows = |c: &&&str| word(key, c).is_some();
        most(all.iter().filter(knows).count())
    })
}

/// A matching as guessed, and the columns that are guesses.
#[must_use]
pub fn guess(grid: &Grid, name: &str) -> (Matching, Vec<bool>) {
    let of = rows_are(grid);
    guess_of(grid, name, of)
}

/// As [`guess`], with what the rows are known.
#[must_use]
pub fn guess_of(grid: &Grid, name: &str, of: Of) -> (Matching, Vec<bool>) {
    let said: Vec<_> = grid.headers.iter().map(|h| named(of, h)).collect();
    let mut targets: Vec<(&str, bool)> = vec![(KEEP, false); said.len()];
    // Exact names first; each target stands for one column.
    for exactly in [true, false] {
        for (k, said) in said.iter().enumerate() {
            if let Some((target, exact)) = said
                && *exact == exactly
                && targets.iter().all(|(key, _)| *key != target.key)
            {
                targets[k] = (target.key, !exact);
            }
        }
    }
    for k in 0..targets.len() {
        let free = targets[k].0 == KEEP;
        if free
            && let Some(key) = by_look(of, grid, k)
            && targets.iter().all(|(t, _)| *t != key)
        {
            targets[k] = (key, true);
        }
    }
    let has = |targets: &[(&str, bool)], key: &str| targets.iter().position(|(t, _)| *t == key);
    if of == Of::Hulls {
        // Beside a maker a name is the model's; beside a model it says nothing new.
        let (name, model) = (has(&targets, NAME), has(&targets, "model"));
        match (name, model, has(&targets, "maker")) {
            (Some(at), None, Some(_)) => targets[at].0 = "model",
            (Some(at), Some(_), _) => targets[at] = (KEEP, false),
            (None, None, _) => {
                let words = |k: &usize| {
                    targets[*k].0 == KEEP
                        && cells(grid, *k).all(|c| c.contains(char::is_alphabetic))
                        && cells(grid, *k).next().is_some()
                };
                if let Some(at) = (0..targets.len()).find(words) {
                    targets[at] = (NAME, true);
                }
            }
            _ => {}
        }
    }
    let columns = grid.headers.iter().enumerate().map(|(k, header)| {
        let target = targets[k].0;
        let dimension = of.target(target).and_then(|t| t.dimension);
        let mut unit = plain(header)
            .1
            .filter(|(_, is)| dimension.is_some_and(|d| same(*is, d)))
            .map(|(sign, _)| sign);
        if unit.is_none()
            && let Some(dimension) = dimension
            && target != SIZE
        {
            let within = bounds(of, target, dimension);
            if !units_for(Some(dimension)).is_empty() && has_bare(grid, k, &within) {
                unit = only_unit(grid, k, &within);
                targets[k].1 |= unit.is_some();
            }
        }
        ColumnAs {
            header: header.clone(),
            target: target.to_owned(),
            unit: unit.map(str::to_owned),
            comma: comma_of(grid, k, dimension),
        }
    });
    let columns = columns.collect();
    let matching = Matching {
        key: String::new(),
        name: name.to_owned(),
        of,
        columns,
        all: BTreeMap::new(),
        words: BTreeMap::new(),
        source: usual_source(),
        waiting: Vec::new(),
    };
    (
        matching,
        targets.into_iter().map(|(_, guessed)| guessed).collect(),
    )
}

/// Whether a column's cells show that the comma is its decimal sign, or the point.
fn comma_of(grid: &Grid, k: usize, dimension: Option<Dimension>) -> Option<bool> {
    dimension?;
    let shows = |decimal: char, other: char| {
        cells(grid, k).any(|c| {
            let Some((whole, rest)) = c.split_once(decimal) else {
                return false;
            };
            let digits = rest.chars().take_while(char::is_ascii_digit).count();
            let lead = whole.chars().rev().take_while(char::is_ascii_digit).count();
            lead > 0
                && digits > 0
                && !rest.contains([decimal, other])
                && (digits != 3 || whole.contains(other) || whole.ends_with('0') && lead == 1)
        })
    };
    match (shows(',', '.'), shows('.', ',')) {
        (true, false) => Some(true),
        (false, true) => Some(false),
        _ => None,
    }
}

/// Whether a target takes one of our words.
#[must_use]
pub fn is_words(target: &str) -> bool {
    takes_words(target)
}
