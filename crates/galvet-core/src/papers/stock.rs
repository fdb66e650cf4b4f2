//! Back to stock: what was changed on a hull, taken off again in the reverse order.

use super::facts::Facts;
use crate::hull::Progress;

/// One change taken back.
#[derive(Debug, Clone, PartialEq)]
pub struct Back {
    /// The modification.
    pub name: String,
    /// What comes off, last on first off.
    pub off: Vec<String>,
    /// What goes on again.
    pub on: Vec<String>,
    /// Holes to plug, and to be told to who buys it.
    pub holes: u16,
    /// Mass that goes with it, kg; below zero where something comes back.
    pub mass: f64,
    /// Whether it can be undone at all.
    pub can: bool,
}

/// The sheet: what was made, the last of the record first.
#[must_use]
pub fn to_stock(facts: &Facts<'_>) -> Vec<Back> {
    let fitout = &facts.hull().fitout;
    let done = fitout
        .modifications
        .iter()
        .filter(|m| m.progress == Progress::Done);
    let back = done.map(|m| {
        let fittings = m.fittings.iter().map(|f| f.name.clone());
        let mut off: Vec<String> = m
            .zones
            .iter()
            .map(|z| z.name.clone())
            .chain(fittings)
            .collect();
        off.reverse();
        Back {
            name: m.name.clone(),
            off,
            on: m.removes.clone(),
            holes: m.holes,
            mass: m.mass,
            can: m.can_be_undone,
        }
    });
    let mut all: Vec<Back> = back.collect();
    all.reverse();
    all
}
