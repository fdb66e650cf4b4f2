//! A dealer's table on its way in: matched as guessed, remembered or chosen, its good rows
//! taken in, the others kept waiting with their reasons.

use super::import::Incoming;
use galvet_core::base::Keyed;
use galvet_core::hull::Source;
use galvet_store::files::dealer::{self, ColumnAs, Grid, Matching, Of, Taken};
use galvet_store::{Catalogue, FileError};
use sha2::{Digest, Sha256};
use std::collections::{BTreeMap, BTreeSet};
use std::fmt::Write;

/// What a person chose on the page.
#[derive(Debug, Clone, Default)]
pub struct Chosen {
    /// What the rows are.
    pub of: Option<Of>,
    /// Where the figures come from.
    pub source: Option<Source>,
    /// Of each column, in order: what it stands for, its unit, whether a comma is the
    /// decimal sign.
    pub columns: Vec<(String, Option<String>, Option<bool>)>,
    /// What holds for all rows that do not say it.
    pub all: BTreeMap<String, String>,
    /// What words mean: target, theirs, ours.
    pub words: Vec<(String, String, String)>,
    /// Cells put right: row, column, what shall stand there.
    pub fixes: Vec<(usize, String, String)>,
}

/// A table looked over.
#[derive(Debug, Clone)]
pub struct Dealt {
    /// The table.
    pub grid: Grid,
    /// How it is read.
    pub matching: Matching,
    /// Which columns are guesses.
    pub guessed: Vec<bool>,
    /// What it says.
    pub taken: Taken,
}

/// Whether a text is one of our own formats rather than somebody's table.
#[must_use]
pub fn is_own(text: &str) -> bool {
    let text = text.trim_start_matches('\u{feff}').trim_start();
    let first = text.lines().next().unwrap_or_default().to_lowercase();
    let mut cells = first.split([',', ';', '\t']);
    text.starts_with(['{', '[']) || cells.any(|c| c.trim_matches([' ', '"']) == "key")
}

/// The key under which the matching of a table's shape is kept.
#[must_use]
pub fn shape_key(grid: &Grid) -> String {
    let hash = Sha256::digest(grid.shape().as_bytes());
    let mut key = "table-".to_owned();
    for byte in hash.iter().take(6) {
        // Writing to a string does not fail.
        let _ = write!(key, "{byte:02x}");
    }
    key
}

/// Looks a table over: as chosen, else as remembered of its shape, else as guessed.
///
/// # Errors
/// [`FileError`] for what is no table.
pub fn deal(
    file: &str,
    text: &str,
    chosen: Option<&Chosen>,
    remembered: &[Matching],
) -> Result<Dealt, FileError> {
    deal_grid(Grid::of(file, text)?, file, chosen, remembered)
}

/// As [`deal`], of cells read already.
///
/// # Errors
/// As [`deal`].
pub fn deal_grid(
    mut grid: Grid,
    file: &str,
    chosen: Option<&Chosen>,
    remembered: &[Matching],
) -> Result<Dealt, FileError> {
    let fixes = chosen.map(|c| c.fixes.as_slice()).unwrap_or_default();
    for (at, header, value) in fixes {
        let k = grid.column(header);
        let cell = k.and_then(|k| grid.rows.get_mut(*at)?.cells.get_mut(k));
        if let Some(cell) = cell {
            cell.clone_from(value);
        }
    }
    let key = shape_key(&grid);
    let known = remembered.iter().find(|m| m.key == key);
    let (mut matching, mut guessed) = match (chosen.and_then(|c| c.of), known) {
        (Some(of), _) => dealer::guess_of(&grid, file, of),
        (None, Some(known)) => {
            let put_on = known.put_on(&grid);
            let sure = vec![false; put_on.columns.len()];
            (put_on, sure)
        }
        (None, None) => dealer::guess(&grid, file),
    };
    matching.waiting.clear();
    if let Some(chosen) = chosen {
        chosen.put_on(&mut matching, &mut guessed);
    }
    matching.key = key;
    file.clone_into(&mut matching.name);
    let taken = dealer::read(&grid, &matching);
    Ok(Dealt {
        grid,
        matching,
        guessed,
        taken,
    })
}

/// Looks a table over by a matching out of a file.
///
/// # Errors
/// [`FileError`] for what is no table.
pub fn deal_with(file: &str, text: &str, by: &Matching) -> Result<Dealt, FileError> {
    let grid = Grid::of(file, text)?;
    let mut matching = by.put_on(&grid);
    matching.waiting.clear();
    matching.key = shape_key(&grid);
    file.clone_into(&mut matching.name);
    let taken = dealer::read(&grid, &matching);
    let guessed = vec![false; matching.columns.len()];
    Ok(Dealt {
        grid,
        matching,
        guessed,
        taken,
    })
}

impl Chosen {
    fn put_on(&self, matching: &mut Matching, guessed: &mut [bool]) {
        for (k, (target, unit, comma)) in self.columns.iter().enumerate() {
            let Some(column) = matching.columns.get_mut(k) else {
                break;
            };
            let new = ColumnAs {
                header: column.header.clone(),
                target: target.clone(),
                unit: unit.clone(),
                comma: comma.or(column.comma),
            };
            let of = matching.of;
            let known = [dealer::KEEP, dealer::SKIP].contains(&target.as_str())
                || of.targets().iter().any(|t| t.key == target);
            if known {
                *column = new;
            }
            if let Some(guessed) = guessed.get_mut(k) {
                *guessed = false;
            }
        }
        for (target, word) in &self.all {
            if !word.is_empty() {
                matching.all.insert(target.clone(), word.clone());
            }
        }
        for (target, theirs, ours) in &self.words {
            // `-` is: it says nothing. Empty is not answered yet.
            if !ours.is_empty() {
                let ours = if ours == "-" { "" } else { ours };
                let known = matching.words.entry(target.clone()).or_default();
                known.insert(theirs.trim().to_lowercase(), ours.to_owned());
            }
        }
        if let Some(source) = self.source {
            source.key().clone_into(&mut matching.source);
        }
    }
}

impl Dealt {
    /// What comes in of it, with the matching to be remembered and the rows that wait.
    /// Rows of `waiting` wait on: those of an earlier file of this shape.
    #[must_use]
    pub fn incoming(&self, waiting: &[Vec<String>]) -> Incoming {
        let mut matching = self.matching.clone();
        let held = self.taken.held.iter();
        let held = held
            .filter_map(|h| self.grid.rows.get(h.at))
            .map(|row| row.cells.clone());
        matching.waiting = waiting.iter().skip(1).cloned().chain(held).collect();
        if !matching.waiting.is_empty() {
            matching.waiting.insert(0, self.grid.headers.clone());
        }
        Incoming {
            catalogue: Catalogue {
                hulls: self.taken.hulls.iter().map(|(_, h)| h.clone()).collect(),
                gear: self.taken.gear.iter().map(|(_, g, _)| g.clone()).collect(),
                ..Catalogue::default()
            },
            told: self.taken.told.clone(),
            told_things: self
                .taken
                .gear
                .iter()
                .map(|(.., told)| told.clone())
                .collect(),
            unknown_columns: self.kept_columns(),
            matching: Some(matching),
        }
    }

    /// Columns that are kept without being understood.
    #[must_use]
    pub fn kept_columns(&self) -> Vec<String> {
        let columns = self.matching.columns.iter();
        let kept = columns.filter(|c| c.target == dealer::KEEP);
        let names: BTreeSet<String> = kept.map(|c| c.header.clone()).collect();
        names.into_iter().collect()
    }

    /// How many rows can come in now.
    #[must_use]
    pub fn ready(&self) -> usize {
        if self.taken.questions.is_empty() {
            self.taken.hulls.len() + self.taken.gear.len()
        } else {
            0
        }
    }
}

/// The rows of a matching that wait, as a table.
///
/// # Errors
/// [`FileError`] where none wait.
pub fn waiting_grid(matching: &Matching) -> Result<Grid, FileError> {
    let lines = (1..).zip(matching.waiting.iter().cloned()).collect();
    Grid::of_cells(&matching.name, lines)
}

#[cfg(test)]
mod tests {
    use super::super::import::{OnDouble, take_in};
    use super::*;
    use galvet_store::Store;

    const TABLE: &str = "Kayak,Length (ft),Width (in),Weight (lbs),Cap lbs,Type,Drive\n\
        Marsk Tarn 12,12.33,34,82,450,SOT,paddle\nMarsk Odd,123.3,34,82,450,SOT,paddle\n";

    fn matchings(store: &Store) -> Vec<Matching> {
        store.sheets().unwrap()
    }

    #[test]
    fn good_rows_come_in_the_other_waits_and_follows_in_one_step_each() {
        let directory = tempfile::tempdir().unwrap();
        let store = Store::open(directory.path()).unwrap();
        let dealt = deal("spring.csv", TABLE, None, &[]).unwrap();
        assert_eq!((dealt.ready(), dealt.taken.held.len()), (1, 1));
        let choose = |_| OnDouble::Skip;
        let done = take_in(&store, "Ana", "spring.csv", &dealt.incoming(&[]), choose).unwrap();
        assert_eq!(done.added, 1);
        let kept = matchings(&store);
        assert_eq!(kept.len(), 1);
        assert_eq!(
            kept[0].waiting.len(),
            2,
            "names of the columns, and the row"
        );
        // It is put right, and nothing waits any more.
        let grid = waiting_grid(&kept[0]).unwrap();
        let fix = Chosen {
            fixes: vec![(0, "Length (ft)".to_owned(), "12.3".to_owned())],
            ..Chosen::default()
        };
        let then = deal_grid(grid, "spring.csv", Some(&fix), &kept).unwrap();
        assert_eq!((then.ready(), then.taken.held.len()), (1, 0));
        take_in(&store, "Ana", "spring.csv", &then.incoming(&[]), choose).unwrap();
        assert_eq!(store.catalogue().unwrap().hulls.len(), 2);
        assert!(matchings(&store)[0].waiting.is_empty());
        // Undone, the row waits again and the hull is gone.
        let act = store.steps("Ana", None).unwrap().undo.unwrap();
        store.reverse("Ana", act.group).unwrap();
        assert_eq!(store.catalogue().unwrap().hulls.len(), 1);
        assert_eq!(matchings(&store)[0].waiting.len(), 2);
    }

    #[test]
    fn what_was_chosen_is_remembered_by_the_files_shape() {
        let first = "Kayak,Long,Wide,Kg,Carries kg,Type,Drive\nA,3.7,0.85,30,170,SOT,paddle\n";
        let chosen = Chosen {
            of: Some(Of::Hulls),
            columns: [
                "name",
                "length",
                "beam",
                "bare_weight",
                "rated_capacity",
                "construction",
                "propulsion",
            ]
            .iter()
            .map(|t| ((*t).to_owned(), None, None))
            .collect(),
            ..Chosen::default()
        };
        let mut chosen = chosen;
        for (k, unit) in [(1, "m"), (2, "m"), (3, "kg"), (4, "kg")] {
            chosen.columns[k].1 = Some(unit.to_owned());
        }
        let dealt = deal("a.csv", first, Some(&chosen), &[]).unwrap();
        assert_eq!(dealt.ready(), 1, "{:?}", dealt.taken);
        // Another file, its columns in another order.
        let next = "Type,Drive,Kayak,Wide,Long,Carries kg,Kg\nSOT,paddle,B,0.8,4.1,180,33\n";
        let known = [dealt.matching];
        let read = deal("b.csv", next, None, &known).unwrap();
        let hull = &read.taken.hulls[0].1.survey;
        let value = |m| hull.value(m).unwrap();
        use galvet_core::hull::Measure;
        assert_eq!((value(Measure::Length), value(Measure::Beam)), (4.1, 0.8));
        assert_eq!(value(Measure::BareWeight), 33.0);
    }

    #[test]
    fn what_all_rows_are_is_not_what_the_file_says_of_a_hull_that_is_there() {
        let directory = tempfile::tempdir().unwrap();
        let store = Store::open(directory.path()).unwrap();
        store
            .fill("test", &crate::demo_data::catalogue().unwrap())
            .unwrap();
        let kept = |store: &Store| {
            let hulls = store.catalogue().unwrap().hulls;
            hulls
                .into_iter()
                .find(|h| h.survey.key == "tindrel-vaskar")
                .unwrap()
        };
        let before = kept(&store);
        let table = "Brand,Model,Overall length (m)\nTindrel,Vaskar,4.42\n";
        let chosen = Chosen {
            all: [("construction", "board"), ("propulsion", "motor")]
                .map(|(t, w)| (t.to_owned(), w.to_owned()))
                .into(),
            ..Chosen::default()
        };
        let dealt = deal("t.csv", table, Some(&chosen), &[]).unwrap();
        let choose = |_| OnDouble::Update;
        take_in(&store, "Ana", "t.csv", &dealt.incoming(&[]), choose).unwrap();
        let mut after = kept(&store);
        let length = galvet_core::hull::Measure::Length;
        assert_eq!(
            after.survey.readings[&length].len(),
            before.survey.readings[&length].len() + 1
        );
        after.survey.readings.clone_from(&before.survey.readings);
        assert_eq!(after, before);
    }
}
