//! What would change the winner, in words.

use crate::answer::Flips;
use galvet_core::advise::flip::{Change, FARTHEST, Flip, Tried, other_seat};
use galvet_core::base::{Dimension, Keyed, System};
use galvet_core::question::Brief;

/// What was tried, and what came of it.
pub struct FlipLine {
    pub words: String,
    /// Whether another hull wins then.
    pub changes: bool,
    /// Name and value in the address that ask it so; empty where the address cannot.
    pub asks: Option<(&'static str, String)>,
}

/// The page.
pub struct FlipView {
    pub winner: String,
    pub lines: Vec<FlipLine>,
    /// Whether any of them changes the winner.
    pub any: bool,
}

/// Puts flips into words; `name` gives a hull's name for its key.
#[must_use]
pub fn view(
    flips: &Flips,
    brief: &Brief,
    name: &dyn Fn(&str) -> String,
    system: System,
) -> FlipView {
    let line = |(tried, flip): &(Tried, Option<Flip>)| match flip {
        Some(flip) => changes(flip, brief, name, system),
        None => stays(*tried, brief, system),
    };
    let lines: Vec<FlipLine> = flips.tried.iter().map(line).collect();
    FlipView {
        winner: name(&flips.winner),
        any: lines.iter().any(|l| l.changes),
        lines,
    }
}

fn stays(tried: Tried, brief: &Brief, system: System) -> FlipLine {
    let most = system.text(Dimension::Mass, FARTHEST, 0);
    let what = match tried {
        Tried::Seat => format!("With the seat {}", other_seat(brief).seat.label()),
        Tried::Lighter => format!("Up to {most} less aboard with the angler"),
        Tried::Heavier => format!("Up to {most} more aboard with the angler"),
        Tried::Without(at) => {
            let line = brief.rig.lines.get(at);
            let item = line.map_or("", |l| l.item.as_str());
            format!("With the {item} left ashore")
        }
    };
    FlipLine {
        words: format!("{what} it stays first"),
        changes: false,
        asks: None,
    }
}

fn changes(flip: &Flip, brief: &Brief, name: &dyn Fn(&str) -> String, system: System) -> FlipLine {
    let first = flip.first.as_deref().map(name);
    let then = first.map_or("no hull passes any more".to_owned(), |n| {
        format!("the {n} wins")
    });
    let (words, asks) = match &flip.change {
        Change::Mass(by) => {
            let by = *by;
            let more = if by > 0.0 { "more" } else { "less" };
            let amount = system.text(Dimension::Mass, by.abs(), 1);
            // To the tenth in kilograms, whatever the reader's units: rounded
            // to a pound it might fall short of the change.
            let value = format!("{:.1} kg", brief.crew.mass() + by);
            let words = format!("{amount} {more} aboard with the angler, and {then}");
            (words, Some(("mass", value)))
        }
        Change::Seat(seat) => (
            format!("With the seat {}, {then}", seat.label()),
            Some(("seat", seat.key().to_owned())),
        ),
        Change::Without(item) => (format!("With the {item} left ashore, {then}"), None),
    };
    FlipLine {
        words,
        changes: true,
        asks,
    }
}
