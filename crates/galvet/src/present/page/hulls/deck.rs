//! A layout in words: what is aboard, what is left of the deck, what is doubtful.

use crate::form::shown_across;
use galvet_core::base::System;
use galvet_core::rank::explain::area;
use galvet_core::rig::Rig;
use galvet_core::stow::{Deck, Layout};

/// How many things of known size lie somewhere, and how many there are: what is
/// packed in a box that finds no place finds none either.
#[must_use]
pub fn counted(layout: &Layout, rig: &Rig) -> (usize, usize) {
    let placed = layout.stowed.iter().filter(|s| s.lies.is_some()).count();
    let sized = rig
        .lines
        .iter()
        .filter(|l| l.thing.as_ref().is_some_and(|t| t.size.is_some()));
    (placed, sized.map(|l| l.count as usize).sum())
}

/// "28 of 28 aboard, 2 out of reach, 4 holes, 0.3 m² of floor clear"; empty where nothing was laid into
/// places.
#[must_use]
pub fn kit_line(layout: &Layout, rig: &Rig, system: System) -> String {
    let Some(deck) = &layout.deck else {
        return String::new();
    };
    let (placed, all) = counted(layout, rig);
    if all == 0 {
        return String::new();
    }
    let mut words = vec![format!("{placed} of {all} things aboard")];
    if deck.out_of_reach > 0 {
        words.push(format!("{} out of reach", deck.out_of_reach));
    }
    match deck.holes {
        0 => words.push("no hole".to_owned()),
        1 => words.push("one hole".to_owned()),
        n => words.push(format!("{n} holes")),
    }
    if let Some(floor) = deck.standing_floor {
        words.push(format!("{} of floor clear", area(floor, system)));
    }
    words.push(format!("{} of well left", area(deck.well_free, system)));
    words.join(", ")
}

/// What of a layout a person must look at: wants left ashore, what may not fit.
#[must_use]
pub fn kit_doubts(layout: &Layout, system: System) -> Vec<String> {
    let left = layout.unplaced.iter().filter(|u| !(u.must && u.sure));
    left.map(|u| {
        let what = if u.must { "" } else { ", left ashore" };
        format!("{}{what}", u.text(system))
    })
    .collect()
}

/// What is left of the deck: label and value.
#[must_use]
pub fn deck_lines(deck: &Deck, system: System) -> Vec<(&'static str, String)> {
    let area = |m2: f64| area(m2, system);
    let [long, wide] = deck.largest_free;
    vec![
        (
            "clear standing floor",
            deck.standing_floor.map_or("none".to_owned(), area),
        ),
        ("tank well left", area(deck.well_free)),
        (
            "largest free rectangle",
            format!(
                "{} × {}",
                shown_across(system, long),
                shown_across(system, wide)
            ),
        ),
        ("track left", shown_across(system, deck.track_left)),
        (
            "boxes, 36 × 22 × 5 cm, that still go in",
            deck.boxes.to_string(),
        ),
        ("rods upright", deck.rods_upright.to_string()),
        ("rods flat", deck.rods_flat.to_string()),
        ("holes", deck.holes.to_string()),
        ("out of reach", deck.out_of_reach.to_string()),
        (
            "standing up ahead of the seat",
            deck.projections.to_string(),
        ),
        ("minutes to set up", format!("{:.0}", deck.setup_minutes)),
    ]
}
