//! Which rows are shown, and in which order: by place or a column, those too close to
//! call by another, and only those within the reader's limits.

use crate::present::columns::{COLUMNS, Cell, Column, Deep, Holds, column_named};
use crate::question::units_said;
use galvet_core::base::{Bare, Bounds, Dimension};
use galvet_core::rank::Firmness;

/// What precedes a column's word in the address where it is a limit.
const ONLY: &str = "only-";

/// One row, as far as sifting goes.
pub struct Sifted<'a> {
    pub cells: &'a [Cell],
    /// In how many cases it beats the next, 0-1; `None` for the last.
    pub beats_next: Option<f64>,
    pub listed: bool,
    /// Whether the shop has one.
    pub here: bool,
}

/// A column as a limit.
pub struct LimitField {
    /// Name in the address.
    pub name: String,
    pub label: String,
    /// What was typed.
    pub typed: String,
    /// Why it was not understood.
    pub mistake: String,
    /// Answers to choose from, with whether each is chosen; empty where a number is
    /// typed.
    pub answers: Vec<(&'static str, &'static str, bool)>,
}

/// What is asked of the order.
#[derive(Default)]
pub struct Wanted {
    /// Word of the column rows stand in order of.
    pub by: String,
    /// Word of the column by which those stand that are too close to call.
    pub ties: String,
    /// Whether rows stand close together.
    pub close: bool,
    /// Whether only the shortlist is shown.
    pub listed: bool,
    /// Whether only what the shop has is shown.
    pub have: bool,
    /// Limits as typed: column's word, text.
    pub limits: Vec<(String, String)>,
    /// From which row on, and from which of those ruled out.
    pub from: usize,
    pub out_from: usize,
}

impl Wanted {
    /// Reads it out of an address' names and values; bare limits are given the unit
    /// they were typed in, where the address says.
    pub fn of<'a>(fields: impl Iterator<Item = (&'a str, String)>) -> Self {
        let fields: Vec<(&str, String)> = fields.collect();
        let units = units_said(fields.iter().cloned());
        let mut out = Self::default();
        for (name, value) in fields {
            let known = |value: String| column_named(&value).map(|(_, c)| c.key().to_owned());
            match name {
                "by" => out.by = known(value).unwrap_or_default(),
                "ties" => out.ties = known(value).unwrap_or_default(),
                "rows" => out.close = value == "close",
                "list" => out.listed = value == "mine",
                "have" => out.have = value == "here",
                "from" => out.from = value.parse().unwrap_or_default(),
                "out-from" => out.out_from = value.parse().unwrap_or_default(),
                _ => {
                    let column = name.strip_prefix(ONLY).and_then(column_named);
                    if let Some((_, column)) = column.filter(|_| !value.trim().is_empty()) {
                        let value = match bounds(column) {
                            Some(bounds) => bounds.with_unit(&value, units),
                            None => value,
                        };
                        out.limits.push((column.key().to_owned(), value));
                    }
                }
            }
        }
        out
    }

    /// What an order or a limit needs that is worked out only then.
    #[must_use]
    pub fn deep(&self) -> Deep {
        let limits = self.limits.iter().map(|(key, _)| key);
        let all = limits.chain([&self.by, &self.ties]);
        let which = all.filter_map(|key| Some(column_named(key)?.1.which));
        which.fold(Deep::default(), |deep, which| Deep {
            day: deep.day || which.extra().is_some(),
            pond: deep.pond || which.of_the_pond(),
        })
    }

    /// As an address' names and values, with the limits or without.
    #[must_use]
    pub fn pairs(&self, limits: bool) -> Vec<(String, String)> {
        let pair = |name: &str, value: &str| (name.to_owned(), value.to_owned());
        let mut out = Vec::new();
        for (name, value) in [("by", &self.by), ("ties", &self.ties)] {
            if !value.is_empty() {
                out.push(pair(name, value));
            }
        }
        if self.close {
            out.push(pair("rows", "close"));
        }
        if limits {
            if self.listed {
                out.push(pair("list", "mine"));
            }
            if self.have {
                out.push(pair("have", "here"));
            }
            let typed = self.limits.iter();
            out.extend(typed.map(|(key, text)| (format!("{ONLY}{key}"), text.clone())));
        }
        out
    }
}

/// The rows to be shown, in their order, and what was left out.
pub struct Sieve {
    /// Indices of the rows.
    pub rows: Vec<usize>,
    /// How many are left out.
    pub hidden: usize,
    /// Every column as a limit.
    pub fields: Vec<LimitField>,
    /// Whether any limit is set, or only the shortlist is shown.
    pub sifts: bool,
}

/// Sifts and orders rows.
#[must_use]
pub fn sift(rows: &[Sifted<'_>], wanted: &Wanted) -> Sieve {
    let mut limits: Vec<(usize, &Column, f64)> = Vec::new();
    let mut fields: Vec<LimitField> = Vec::new();
    for (at, column) in COLUMNS.iter().enumerate() {
        let typed = wanted.limits.iter().find(|(key, _)| key == column.key());
        let typed = typed.map_or("", |(_, text)| text);
        let read = (!typed.is_empty()).then(|| read(column, typed));
        let mut mistake = String::new();
        match read {
            Some(Ok(limit)) => limits.push((at, column, limit)),
            Some(Err(problem)) => mistake = problem,
            None => {}
        }
        fields.push(field(column, typed, mistake));
    }
    let within = |row: &Sifted<'_>| {
        let meets = |(at, column, limit): &(usize, &Column, f64)| {
            // What is not known is not known to meet it.
            let value = row.cells.get(*at).and_then(|c| c.value);
            value.is_some_and(|v| {
                if column.less {
                    v <= limit + 1e-9
                } else {
                    v >= limit - 1e-9
                }
            })
        };
        (!wanted.listed || row.listed) && (!wanted.have || row.here) && limits.iter().all(meets)
    };
    let cells = |i: usize| rows[i].cells;
    let mut order: Vec<usize> = (0..rows.len()).collect();
    if let Some((at, column)) = column_named(&wanted.by) {
        put(&mut order, at, column, &cells);
    } else if let Some((at, column)) = column_named(&wanted.ties) {
        break_ties(&mut order, rows, at, column);
    }
    order.retain(|&i| within(&rows[i]));
    Sieve {
        hidden: rows.len() - order.len(),
        sifts: wanted.listed || wanted.have || !wanted.limits.is_empty(),
        rows: order,
        fields,
    }
}

/// Best first; what is not known comes last, and of equals the better placed first.
fn put<'a>(order: &mut [usize], at: usize, column: &Column, cells: &dyn Fn(usize) -> &'a [Cell]) {
    let key = |row: usize| {
        let value = cells(row).get(at).and_then(|c| c.value);
        value.map_or(f64::INFINITY, |v| if column.less { v } else { -v })
    };
    order.sort_by(|&x, &y| key(x).total_cmp(&key(y)).then(x.cmp(&y)));
}

/// Rows of which each is too close to call against the next stand in order of a column
/// among themselves; all others keep their places.
fn break_ties(order: &mut [usize], rows: &[Sifted<'_>], at: usize, column: &Column) {
    let close = |i: usize| {
        let beats = rows[i].beats_next;
        beats.is_some_and(|share| Firmness::of(share) == Firmness::TooClose)
    };
    let cells = |i: usize| rows[i].cells;
    let mut from = 0;
    while from < order.len() {
        let mut to = from;
        while to + 1 < order.len() && close(to) {
            to += 1;
        }
        put(&mut order[from..=to], at, column, &cells);
        from = to + 1;
    }
}

/// What a limit of a column may be; `None` for one that is chosen.
fn bounds(column: &Column) -> Option<Bounds> {
    let (dimension, most) = match column.holds {
        Holds::Number(Dimension::Money, _) => (Dimension::Money, 1e6),
        Holds::Number(dimension, _) => (dimension, 1e4),
        Holds::Area | Holds::Count(_) => (Dimension::Ratio, 1e4),
        Holds::Judged(_) => return None,
    };
    Some(Bounds::new("the limit", dimension, 0.0, most))
}

/// A limit as typed.
fn read(column: &Column, typed: &str) -> Result<f64, String> {
    if let Some(bounds) = bounds(column) {
        return bounds.parse(typed, Bare::SI).map_err(|e| e.to_string());
    }
    let answers = match column.holds {
        Holds::Judged(judgement) => judgement.answers(),
        _ => &[],
    };
    let at = answers.iter().position(|a| a.0 == typed);
    at.map(|at| at as f64)
        .ok_or_else(|| format!("“{typed}” is not one of the answers"))
}

fn field(column: &Column, typed: &str, mistake: String) -> LimitField {
    let which = if column.less { "at most" } else { "at least" };
    let answers = match column.holds {
        Holds::Judged(judgement) => judgement
            .answers()
            .iter()
            .map(|&(word, label)| (word, label, word == typed))
            .collect(),
        _ => Vec::new(),
    };
    let unit = match column.holds {
        Holds::Area => ", m²",
        Holds::Count("%") => ", %",
        _ => "",
    };
    LimitField {
        name: format!("{ONLY}{}", column.key()),
        label: format!("{} {which}{unit}", column.label),
        typed: typed.chars().take(40).collect(),
        mistake,
        answers,
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::present::columns::Which;

    fn row(draft: Option<f64>, floor: Option<f64>) -> Vec<Cell> {
        let cell = |c: &Column| Cell {
            key: c.key(),
            label: c.label,
            leads: "",
            filed: None,
            text: String::new(),
            range: String::new(),
            value: match c.which {
                Which::Draft => draft,
                Which::Floor => floor,
                _ => None,
            },
            first: None,
            later: false,
        };
        COLUMNS.iter().map(cell).collect()
    }

    fn sifted<'a>(rows: &'a [Vec<Cell>], beats: &[f64]) -> Vec<Sifted<'a>> {
        let beats = |i: usize| beats.get(i).copied();
        let row = |(i, cells): (usize, &'a Vec<Cell>)| Sifted {
            here: i == 0,
            cells,
            beats_next: beats(i),
            listed: i == 1,
        };
        rows.iter().enumerate().map(row).collect()
    }

    fn asked(fields: &[(&str, &str)]) -> Wanted {
        Wanted::of(fields.iter().map(|&(n, v)| (n, v.to_owned())))
    }

    #[test]
    fn rows_stand_by_a_column_best_first_and_unknowns_last() {
        let rows = [
            row(Some(0.12), Some(0.2)),
            row(None, Some(0.4)),
            row(Some(0.10), Some(0.2)),
        ];
        let rows = sifted(&rows, &[0.9, 0.9]);
        let by = |key| sift(&rows, &asked(&[("by", key)])).rows;
        assert_eq!(by(""), [0, 1, 2]);
        assert_eq!(by("draft"), [2, 0, 1]);
        assert_eq!(by("floor"), [1, 0, 2]);
        assert_eq!(by("beauty"), [0, 1, 2]);
    }

    #[test]
    fn only_what_is_too_close_to_call_is_put_by_another_column() {
        let rows = [0.13, 0.12, 0.11, 0.10].map(|d| row(Some(d), None));
        // First against second is open, second against third as well, the last is sure.
        let rows = sifted(&rows, &[0.52, 0.55, 0.97]);
        let ties = sift(&rows, &asked(&[("ties", "draft")]));
        assert_eq!(ties.rows, [2, 1, 0, 3]);
    }

    #[test]
    fn limits_are_read_in_the_units_they_were_typed_in_and_hide_what_is_not_known_to_meet_them() {
        let rows = [
            row(Some(0.12), Some(0.2)),
            row(None, Some(0.4)),
            row(Some(0.10), Some(0.3)),
        ];
        let rows = sifted(&rows, &[]);
        let shown = |fields: &[(&str, &str)]| sift(&rows, &asked(fields));
        let draft = |text| shown(&[("only-draft", text), ("units", "metric")]).rows;
        assert_eq!(draft("11 cm"), [2]);
        assert_eq!(draft("120"), [0, 2]);
        let inches = asked(&[("only-draft", "4"), ("units", "imperial")]);
        assert_eq!(sift(&rows, &inches).rows, [2]);
        // Its own address is read alike in any units.
        assert_eq!(
            inches.pairs(true),
            [("only-draft".to_owned(), "4 in".to_owned())]
        );
        assert_eq!(shown(&[("only-draft", "0.1")]).rows, [2]);
        let two = [("only-draft", "12 cm"), ("only-floor", "0.25")];
        let both = shown(&two);
        assert_eq!((both.rows, both.hidden, both.sifts), (vec![2], 2, true));
        // What is not understood hides nothing, and is told where it was typed.
        let odd = shown(&[("only-draft", "shallow")]);
        assert_eq!(odd.rows.len(), 3);
        let told = odd.fields.iter().find(|f| f.name == "only-draft").unwrap();
        assert!(told.mistake.contains("“shallow” is not understood"));
        assert_eq!(shown(&[("list", "mine")]).rows, [1]);
    }
}
