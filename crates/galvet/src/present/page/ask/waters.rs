//! A water in words: what it asks of a hull, drawn.

use crate::present::draw::{coordinate, path};
use galvet_core::base::{Dimension, Keyed, System};
use galvet_core::question::Water;

/// What a water asks of a hull, as a section in it.
pub struct Demand {
    pub view_box: String,
    /// The least hull that passes: its floor and gunwale as near the water as allowed.
    pub hull: String,
    pub floor: String,
    pub water: String,
    pub ground: String,
}

/// Units a metre in the drawing.
const SCALE: f64 = 150.0;
/// Width of the drawing, and of the hull in it, m.
const ACROSS: [f64; 2] = [1.5, 0.8];
/// Draft drawn, what a loaded kayak has, about; and the most depth, m.
const DOWN: [f64; 2] = [0.12, 1.0];

/// Draws what a water asks.
#[must_use]
pub fn demand(water: &Water) -> Demand {
    let ([width, beam], [draft, deepest]) = (ACROSS, DOWN);
    let depth = water.least_depth.clamp(draft, deepest);
    let top = 0.32;
    let at = |x: f64, z: f64| (x * SCALE, (top - z) * SCALE);
    let (left, right) = (0.5 * (width - beam), 0.5 * (width + beam));
    let gunwale = water.freeboard.max(0.02);
    let hull = [
        at(left, gunwale),
        at(left, -draft),
        at(right, -draft),
        at(right, gunwale),
    ];
    let inner = 0.08;
    let floor = [
        at(left + inner, water.floor_clearance),
        at(right - inner, water.floor_clearance),
    ];
    Demand {
        view_box: format!(
            "0 0 {} {}",
            coordinate(width * SCALE),
            coordinate((top + depth + 0.08) * SCALE)
        ),
        hull: path(hull, false),
        floor: path(floor, false),
        water: path([at(0.0, 0.0), at(width, 0.0)], false),
        ground: path([at(0.0, -depth), at(width, -depth)], false),
    }
}

/// What a water is told by in a list.
#[must_use]
pub fn facts(w: &Water, system: System) -> Vec<(&'static str, String)> {
    let fine = |m: f64| system.text(Dimension::FineLength, m, 0);
    let percent = |share: f64| format!("{:.0}\u{a0}%", 100.0 * share);
    vec![
        ("gunwale above the water, at least", fine(w.freeboard)),
        ("floor above it, open scuppers", fine(w.floor_clearance)),
        ("works to of the label", percent(w.working_share)),
        (
            "least depth",
            system.text(Dimension::Length, w.least_depth, 2),
        ),
        ("standing", w.standing.label().to_owned()),
        (
            "asks of a hull",
            match w.demands.as_slice() {
                [] => "nothing more".to_owned(),
                asked => {
                    let words: Vec<&str> = asked.iter().map(|d| d.label()).collect();
                    words.join(" · ")
                }
            },
        ),
        (
            "capacity : stability",
            format!(
                "{:.0} : {:.0}",
                100.0 * w.capacity_weight,
                100.0 - 100.0 * w.capacity_weight
            ),
        ),
        (
            "deck",
            match (w.must_drain, w.plugs_allowed) {
                (true, _) => "must drain".to_owned(),
                (false, true) => "plugs allowed".to_owned(),
                (false, false) => "scuppers open".to_owned(),
            },
        ),
    ]
}

/// What is typical of a water in the reader's units: "waves to 0.05 m" is two inches.
#[must_use]
pub fn conditions(text: &str, system: System) -> String {
    if system == System::Metric {
        return text.to_owned();
    }
    let mut words: Vec<String> = text.split(' ').map(str::to_owned).collect();
    for n in 1..words.len() {
        let after = words[n].strip_prefix('m').map(str::to_owned);
        let Some(after) = after.filter(|rest| !rest.starts_with(char::is_alphanumeric)) else {
            continue;
        };
        if let Ok(metres) = words[n - 1].parse::<f64>() {
            let told = system.text(Dimension::ShortLength, metres, 0);
            let (number, unit) = told.split_once('\u{a0}').unwrap_or((told.as_str(), ""));
            let (number, unit) = (number.to_owned(), format!("{unit}{after}"));
            (words[n - 1], words[n]) = (number, unit);
        }
    }
    words.join(" ")
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn waves_are_told_in_the_readers_units() {
        let said = "waves to 0.4 m, wind to 15 kn, tidal stream";
        assert_eq!(conditions(said, System::Metric), said);
        let inches = conditions(said, System::Imperial);
        assert!(
            inches.starts_with("waves to 15.7 in, wind to 15 kn"),
            "{inches}"
        );
        let plain = "moving water, riffles";
        assert_eq!(conditions(plain, System::Imperial), plain);
    }
}
