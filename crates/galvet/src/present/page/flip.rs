//! What would change the winner, in words.

use crate::answer::Flips;
use galvet_core::advise::flip::{Change, Flip};
use galvet_core::base::{Dimension, Keyed, System};
use galvet_core::question::Brief;

/// A change that gives another winner.
pub struct FlipLine {
    pub words: String,
    /// Name and value in the address that ask it so; empty where the address cannot.
    pub asks: Option<(&'static str, String)>,
}

/// The page.
pub struct FlipView {
    pub winner: String,
    pub lines: Vec<FlipLine>,
}

/// Puts flips into words; `name` gives a hull's name for her key.
#[must_use]
pub fn view(
    flips: &Flips,
    brief: &Brief,
    name: &dyn Fn(&str) -> String,
    system: System,
) -> FlipView {
    let mass = |kg: f64| system.text(Dimension::Mass, kg, 1);
    let line = |flip: &Flip| {
        let first = flip.first.as_deref().map(name);
        let then = first.map_or("no hull passes any more".to_owned(), |n| {
            format!("the {n} wins")
        });
        match &flip.change {
            Change::Mass(by) => {
                let by = *by;
                let more = if by > 0.0 { "more" } else { "less" };
                // To the tenth in kilograms, whatever the reader's units: rounded
                // to a pound it might fall short of the change.
                let value = format!("{:.1} kg", brief.crew.mass() + by);
                FlipLine {
                    words: format!(
                        "{} {more} aboard with the angler, and {then}",
                        mass(by.abs())
                    ),
                    asks: Some(("mass", value)),
                }
            }
            Change::Seat(seat) => FlipLine {
                words: format!("With the seat {}, {then}", seat.label()),
                asks: Some(("seat", seat.key().to_owned())),
            },
            Change::Without(item) => FlipLine {
                words: format!("With the {item} left ashore, {then}"),
                asks: None,
            },
        }
    };
    FlipView {
        winner: name(&flips.winner),
        lines: flips.found.iter().map(line).collect(),
    }
}
