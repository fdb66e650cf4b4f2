//! Kit that nobody has listed, as it is typed and kept: "27 kg behind the seat, low".

use galvet_core::base::{Bare, Dimension, Keyed, System};
use galvet_core::rig::{Lying, RigLine, Stowage};

/// What would be accepted.
const ACCEPTED: &str = "write how heavy and where, such as “27 kg behind the seat”; places are \
                        behind or under the seat, at the feet, in the bow, in the stern; “high” \
                        where it stands high";

/// Words for each place: of several found the longest holds.
const PLACES: [(&str, Stowage); 13] = [
    ("behind the seat", Stowage::Behind),
    ("behind", Stowage::Behind),
    ("tank well", Stowage::Behind),
    ("well", Stowage::Behind),
    ("crate", Stowage::Behind),
    ("under the seat", Stowage::Under),
    ("under", Stowage::Under),
    ("at the feet", Stowage::Feet),
    ("feet", Stowage::Feet),
    ("cockpit", Stowage::Feet),
    ("bow", Stowage::Bow),
    ("ahead", Stowage::Bow),
    ("stern", Stowage::Stern),
];

/// Reads a guess of kit; a bare number means what `mass` says. Without a place it lies
/// behind the seat.
///
/// # Errors
/// In words: what was not understood, and what would be accepted.
pub fn read(typed: &str, mass: Bare) -> Result<RigLine, String> {
    let lower = typed.trim().to_lowercase();
    let lower = lower
        .trim_start_matches("about")
        .trim_start_matches('~')
        .trim();
    let end = lower
        .find(|c: char| c.is_alphabetic())
        .map_or(lower.len(), |at| {
            let unit = lower[at..].find(|c: char| !c.is_alphabetic());
            let unit = unit.unwrap_or(lower.len() - at);
            let is_unit = ["kg", "lb", "lbs", "kilo", "kilos", "pounds", "g"];
            let unit = is_unit.contains(&&lower[at..at + unit]).then_some(unit);
            // What follows a figure without a space is a unit, or part of no figure.
            let apart = lower[..at].ends_with([' ', ',']);
            at + unit.unwrap_or(if apart { 0 } else { lower.len() - at })
        });
    let (weighs, rest) = lower.split_at(end);
    let shown: String = typed.trim().chars().take(40).collect();
    let weighs = RigLine::MASS
        .parse(weighs.trim(), mass)
        .map_err(|e| format!("{e}; {ACCEPTED}"))?;
    let rest = rest.trim_matches([' ', ',']);
    let place = PLACES.iter().filter(|(words, _)| rest.contains(words));
    let place = place.max_by_key(|(words, _)| words.len());
    let lying = if rest.contains("high") {
        Lying::High
    } else {
        Lying::Low
    };
    let only = matches!(rest, "" | "low" | "high" | "of kit" | "kit");
    let stowage = match place {
        Some((_, stowage)) => *stowage,
        None if only => Stowage::Behind,
        None => return Err(format!("“{shown}” is not understood; {ACCEPTED}")),
    };
    Ok(RigLine::rough(weighs, stowage, lying))
}

/// As it is kept, of what was typed.
///
/// # Errors
/// As [`read`].
pub fn kept(typed: &str, mass: Bare) -> Result<String, String> {
    read(typed, mass).map(|line| written(&line))
}

fn words(line: &RigLine, mass: &str) -> String {
    let (stowage, lying) = line.guessed().unwrap_or((Stowage::Behind, Lying::Low));
    let high = if lying == Lying::High { ", high" } else { "" };
    format!("{mass} {}{high}", stowage.label())
}

/// As it is kept: SI, and read back as the same.
#[must_use]
pub fn written(line: &RigLine) -> String {
    words(line, &format!("{} kg", line.dry_mass))
}

/// As it stands in the sentence, in the reader's units.
#[must_use]
pub fn shown(line: &RigLine, system: System) -> String {
    let mass = system.text(Dimension::Mass, line.dry_mass, 0);
    format!("about {}", words(line, &mass))
}

/// As it stands in the sentence's field: what is read back as the same.
#[must_use]
pub fn typed(line: &RigLine, system: System) -> String {
    let mass = system.text(Dimension::Mass, line.dry_mass, 1);
    words(line, &mass).replace('\u{a0}', " ")
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_guess_is_read_in_any_words_and_kept_exactly() {
        for (typed, kg, stowage, lying) in [
            ("27 kg behind the seat", 27.0, Stowage::Behind, Lying::Low),
            (
                "about 60 lb in the tank well, high",
                27.215_542_2,
                Stowage::Behind,
                Lying::High,
            ),
            ("12,5 kg in the bow", 12.5, Stowage::Bow, Lying::Low),
            ("27", 27.0, Stowage::Behind, Lying::Low),
            ("8 kg at the feet", 8.0, Stowage::Feet, Lying::Low),
            ("8kg under the seat", 8.0, Stowage::Under, Lying::Low),
            ("3 kg stern high", 3.0, Stowage::Stern, Lying::High),
        ] {
            let line = read(typed, Bare::SI).unwrap();
            assert_eq!(line.guessed(), Some((stowage, lying)), "{typed}");
            assert!(
                (line.dry_mass - kg).abs() < 1e-9,
                "{typed}: {}",
                line.dry_mass
            );
            assert_eq!(read(&written(&line), Bare::SI).unwrap(), line, "{typed}");
        }
        let pounds = read("60", Bare::POUNDS).unwrap();
        assert!((pounds.dry_mass - 27.215_542_2).abs() < 1e-6);
        assert_eq!(
            shown(&pounds, System::Metric),
            "about 27\u{a0}kg behind the seat"
        );
    }

    #[test]
    fn what_is_not_understood_says_what_would_be() {
        let said = |typed: &str| read(typed, Bare::SI).unwrap_err();
        assert!(said("27 kg on the roof").contains("“27 kg on the roof” is not understood"));
        assert!(said("heavy").contains("27 kg behind the seat"));
        assert!(said("900 kg behind the seat").contains("between 0 and 120"));
        for typed in [
            "",
            "kg",
            "NaN kg",
            "-3 kg in the bow",
            "é kg",
            "1e9 in the bow",
        ] {
            assert!(read(typed, Bare::SI).is_err(), "{typed}");
        }
    }
}
