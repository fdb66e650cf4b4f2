//! The pond against closed forms, a second integrator and the handbook's numbers (chapter 9).
#![allow(clippy::unwrap_used, reason = "tests")]

mod mate;
mod moves;
mod numbers;
mod roll;
mod table;

use crate::common::prototype::{setup, table};
use galvet_core::guide::Guides;
use galvet_core::pond::{Balance, Boat};
use galvet_core::question::Practice;

/// Somebody so practised.
fn of(practice: Practice) -> Balance {
    Balance::of(practice, &Guides::default())
}

/// The handbook's four bodies.
fn boats() -> Vec<Boat> {
    let rows = table();
    let boat = |row| Boat::of(&setup(row), &row.shape).unwrap();
    rows.iter().map(boat).collect()
}
