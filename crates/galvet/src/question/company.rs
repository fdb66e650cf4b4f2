//! Who comes along, as it is typed and kept: "child 28 kg 1.30 m, dog 20 kg".

use galvet_core::base::{Bare, Dimension, Keyed, System};
use galvet_core::crew::{Companion, Kin};

/// What would be accepted.
const ACCEPTED: &str =
    "write who and how heavy, such as “child 28 kg 1.30 m, dog 20 kg”; or “alone”";

/// Reads who comes along; nothing or "alone" is nobody. A bare number means what
/// `mass` says.
///
/// # Errors
/// In words: what was not understood, and what would be accepted.
pub fn read(typed: &str, mass: Bare) -> Result<Vec<Companion>, String> {
    let typed = typed.trim();
    if typed.is_empty() || typed.eq_ignore_ascii_case("alone") {
        return Ok(Vec::new());
    }
    let each = typed.split([';', '\n']).flat_map(people);
    let all: Vec<Companion> = each
        .map(|one| person(&one, mass))
        .collect::<Result<_, _>>()?;
    if all.len() > Companion::MOST {
        return Err(format!("at most {} may come along", Companion::MOST));
    }
    Ok(all)
}

/// As it is kept, of what was typed.
///
/// # Errors
/// As [`read`].
pub fn kept(typed: &str, mass: Bare) -> Result<String, String> {
    read(typed, mass).map(|all| written(&all))
}

/// A list at its commas, but not at a decimal one.
fn people(list: &str) -> Vec<String> {
    let mut out: Vec<String> = Vec::new();
    for piece in list.split(',') {
        match out.last_mut() {
            Some(last) if piece.starts_with(|c: char| c.is_ascii_digit()) => {
                last.push(',');
                last.push_str(piece);
            }
            _ => out.push(piece.to_owned()),
        }
    }
    out.retain(|p| !p.trim().is_empty());
    out
}

fn person(typed: &str, mass: Bare) -> Result<Companion, String> {
    let typed = typed.trim();
    let shown: String = typed.chars().take(40).collect();
    let (word, rest) = typed
        .split_once(char::is_whitespace)
        .ok_or_else(|| format!("how heavy is “{shown}”? {ACCEPTED}"))?;
    let kin = Kin::from_key(&word.to_lowercase())
        .ok_or_else(|| format!("“{shown}” is not understood; {ACCEPTED}"))?;
    // The mass, then the stature: at the first unit of mass.
    let end = ["kg", "lb", "st"]
        .iter()
        .filter_map(|unit| rest.find(unit).map(|at| at + unit.len()))
        .min();
    let (weighs, tall) = rest.split_at(end.unwrap_or(rest.len()));
    let weighs = kin.masses().parse(weighs.trim(), mass);
    let weighs = weighs.map_err(|e| e.to_string())?;
    let tall = tall.trim().trim_start_matches(',').trim();
    let stature = if tall.is_empty() {
        kin.usual_stature()
    } else {
        let tall = Companion::STATURE.parse(tall, Bare::SI);
        tall.map_err(|e| e.to_string())?
    };
    Companion::new(kin, weighs, stature).map_err(|e| e.to_string())
}

/// As it is kept: SI, and read back as the same.
#[must_use]
pub fn written(all: &[Companion]) -> String {
    let each = all.iter().map(|c| match c.kin() {
        Kin::Dog => format!("{} {} kg", c.kin().key(), c.mass()),
        _ => format!("{} {} kg {} m", c.kin().key(), c.mass(), c.stature()),
    });
    each.collect::<Vec<_>>().join("; ")
}

/// As it stands in the sentence, in the reader's units.
#[must_use]
pub fn shown(all: &[Companion], system: System) -> String {
    let each = all.iter().map(|c| {
        let article = if c.kin() == Kin::Adult { "an" } else { "a" };
        let mass = system.text(Dimension::Mass, c.mass(), 0);
        format!("{article} {} of {mass}", c.kin().key())
    });
    match each.collect::<Vec<_>>() {
        none if none.is_empty() => "alone".to_owned(),
        all => format!("with {}", all.join(" and ")),
    }
}

/// As it stands in the sentence's field: what is read back as the same.
#[must_use]
pub fn typed(all: &[Companion], system: System) -> String {
    if all.is_empty() {
        return "alone".to_owned();
    }
    let each = all.iter().map(|c| {
        let mass = system.text(Dimension::Mass, c.mass(), 1);
        let tall = match c.kin() {
            Kin::Dog => String::new(),
            _ => format!(" {}", system.text(Dimension::Length, c.stature(), 2)),
        };
        format!("{} {mass}{tall}", c.kin().key())
    });
    each.collect::<Vec<_>>().join("; ").replace('\u{a0}', " ")
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn who_comes_along_is_read_in_any_unit_and_kept_exactly() {
        let all = read("child 28,5 kg 1,30 m, dog 44 lb", Bare::SI).unwrap();
        assert_eq!(
            (all[0].kin(), all[0].mass(), all[0].stature()),
            (Kin::Child, 28.5, 1.3)
        );
        assert_eq!(all[1].kin(), Kin::Dog);
        assert!((all[1].mass() - 19.958).abs() < 1e-3);
        assert_eq!(read(&written(&all), Bare::SI).unwrap(), all);
        assert!(read(" Alone ", Bare::SI).unwrap().is_empty());
        // A bare number is in the reader's unit.
        let heavy = read("adult 150", Bare::POUNDS).unwrap();
        assert!((heavy[0].mass() - 68.04).abs() < 0.01);
        assert_eq!(heavy[0].stature(), 1.75);
    }

    #[test]
    fn what_is_not_understood_says_what_would_be() {
        let said = |typed: &str| read(typed, Bare::SI).unwrap_err();
        assert!(said("goat 20 kg").contains("“goat 20 kg” is not understood"));
        assert!(said("dog").contains("how heavy"));
        assert!(said("dog 900 kg").contains("between 2 and 90"));
        assert!(said("child 20 kg 9 m").contains("must lie between"));
        assert!(said("dog 5 kg, dog 5 kg, dog 5 kg, dog 5 kg, dog 5 kg").contains("at most 4"));
        assert!(said("dog NaN kg").len() > 5);
    }
}
