//! Figures beside the points: shown in each row, and what rows can be put in order by.

use galvet_core::base::{Dimension, System};
use galvet_core::figures::{Assessment, Quantity};
use galvet_core::hull::{Measure, Survey};
use galvet_core::rank::explain::area;

/// A column: its word in the address, its label, whether less is better.
pub struct Column {
    pub key: &'static str,
    pub label: &'static str,
    less: bool,
}

const fn column(key: &'static str, label: &'static str, less: bool) -> Column {
    Column { key, label, less }
}

/// Every column.
pub const COLUMNS: [Column; 10] = [
    column("draft", "draft", true),
    column("air", "air draft", true),
    column("getting-up", "getting up", false),
    column("floor", "floor clear", false),
    column("well", "well left", false),
    column("reach", "out of reach", true),
    column("minutes", "minutes to set up", true),
    column("lift", "to lift, fitted", true),
    column("length", "length", true),
    column("price", "price", true),
];

/// What stands in one of them for a hull.
pub struct Cell {
    pub key: &'static str,
    pub label: &'static str,
    pub text: String,
    /// What it is put in order by; `None` where it is not known.
    value: Option<f64>,
}

/// The cells of a hull, in the order of [`COLUMNS`].
#[must_use]
pub fn cells(a: &Assessment, survey: &Survey, system: System) -> Vec<Cell> {
    let deck = a.setup.loads.layout.deck.as_ref();
    let cell = |c: &Column| {
        let figure = |q: Quantity| {
            let value = a.median(q);
            (value, value.map(|v| q.row().text(system, v)))
        };
        let measure = |m: Measure, dimension: Dimension, decimals: usize| {
            let value = survey.value(m);
            (value, value.map(|v| system.text(dimension, v, decimals)))
        };
        let left = |value: Option<f64>| (value, value.map(|v| area(v, system)));
        let count = |value: Option<f64>| (value, value.map(|v| format!("{v:.0}")));
        let (value, text) = match c.key {
            "draft" => figure(Quantity::Draft),
            "air" => figure(Quantity::AirDraft),
            "getting-up" => figure(Quantity::GettingUp),
            "floor" => left(deck.map(|d| d.standing_floor.unwrap_or(0.0))),
            "well" => left(deck.map(|d| d.well_free)),
            "reach" => count(deck.map(|d| f64::from(d.out_of_reach))),
            "minutes" => count(deck.map(|d| d.setup_minutes)),
            "lift" => measure(Measure::FittedWeight, Dimension::Mass, 0),
            "length" => measure(Measure::Length, Dimension::Length, 2),
            _ => measure(Measure::Price, Dimension::Money, 0),
        };
        Cell {
            key: c.key,
            label: c.label,
            text: text.unwrap_or_else(|| "not known".to_owned()),
            value,
        }
    };
    COLUMNS.iter().map(cell).collect()
}

/// In which order rows stand: by place, or by a column, best first; what is not known
/// comes last, and of equals the better placed first.
#[must_use]
pub fn in_order<'a>(rows: impl Iterator<Item = &'a [Cell]>, by: Option<&str>) -> Vec<usize> {
    let rows: Vec<&[Cell]> = rows.collect();
    let mut order: Vec<usize> = (0..rows.len()).collect();
    let column = COLUMNS.iter().enumerate().find(|(_, c)| by == Some(c.key));
    if let Some((at, column)) = column {
        let key = |row: usize| {
            let value = rows[row].get(at).and_then(|c| c.value);
            value.map_or(f64::INFINITY, |v| if column.less { v } else { -v })
        };
        order.sort_by(|&x, &y| key(x).total_cmp(&key(y)).then(x.cmp(&y)));
    }
    order
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn rows_stand_by_a_column_best_first_and_unknowns_last() {
        let row = |draft: Option<f64>, floor: Option<f64>| -> Vec<Cell> {
            let cell = |c: &Column| Cell {
                key: c.key,
                label: c.label,
                text: String::new(),
                value: match c.key {
                    "draft" => draft,
                    "floor" => floor,
                    _ => None,
                },
            };
            COLUMNS.iter().map(cell).collect()
        };
        let rows = [
            row(Some(0.12), Some(0.2)),
            row(None, Some(0.4)),
            row(Some(0.10), Some(0.2)),
        ];
        let by = |key| in_order(rows.iter().map(Vec::as_slice), key);
        assert_eq!(by(None), [0, 1, 2]);
        assert_eq!(by(Some("draft")), [2, 0, 1]);
        assert_eq!(by(Some("floor")), [1, 0, 2]);
        assert_eq!(by(Some("beauty")), [0, 1, 2]);
    }
}
