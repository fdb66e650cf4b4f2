//! What the words over columns and in cells mean: units, names of columns found in what
//! somebody wrote, and the words of a hull.

use super::targets::{NAME, Of, Target, WEIGHT};
use galvet_core::base::{Bare, Dimension};
use galvet_core::hull::Measure;

/// The words of a list with commas between.
fn listed(words: &'static str) -> impl Iterator<Item = &'static str> {
    words.split(", ")
}

/// Units: how people write them, how we do, and what a number in them measures.
const UNITS: [(&str, &str, Dimension); 8] = [
    (
        "m, metre, metres, meter, meters, mtr, mtrs",
        "m",
        Dimension::Length,
    ),
    (
        "cm, cms, centimetre, centimetres, centimeter, centimeters",
        "cm",
        Dimension::Length,
    ),
    (
        "mm, millimetre, millimetres, millimeter, millimeters",
        "mm",
        Dimension::Length,
    ),
    ("in, ins, inch, inches, \", ″, ''", "in", Dimension::Length),
    ("ft, foot, feet, ', ′", "ft", Dimension::Length),
    (
        "kg, kgs, kilo, kilos, kilogram, kilograms, kilogramme, kilogrammes",
        "kg",
        Dimension::Mass,
    ),
    ("lb, lbs, pound, pounds, #", "lb", Dimension::Mass),
    ("g, gram, grams, gr", "g", Dimension::Mass),
];

/// Our sign of a unit as people write it, and what it measures.
pub(super) fn unit(word: &str) -> Option<(&'static str, Dimension)> {
    let word = word.trim().trim_end_matches('.').to_lowercase();
    let known = UNITS
        .iter()
        .find(|(words, ..)| listed(words).any(|w| w == word));
    known.map(|(_, sign, dimension)| (*sign, *dimension))
}

/// What a bare number means in a unit of ours.
pub(super) fn bare(sign: &str) -> Option<Bare> {
    Some(match sign {
        "m" | "kg" => Bare::SI,
        "cm" => Bare::CENTIMETRES,
        "mm" => Bare::MILLIMETRES,
        "in" => Bare::INCHES,
        "ft" => Bare::FEET,
        "lb" => Bare::POUNDS,
        "g" => Bare::GRAMS,
        _ => return None,
    })
}

/// The units a column of a dimension may be in.
#[must_use]
pub fn units_for(dimension: Option<Dimension>) -> &'static [&'static str] {
    match dimension {
        Some(Dimension::Mass) => &["kg", "lb", "g"],
        Some(Dimension::Length | Dimension::ShortLength) => &["m", "cm", "mm", "in", "ft"],
        _ => &[],
    }
}

/// Whether a cell is a unit and nothing else.
pub(super) fn unit_alone(cell: &str) -> bool {
    let inside = cell.trim().trim_matches(['(', ')', '[', ']']);
    unit(inside).is_some() || matches!(inside, "€" | "$" | "£" | "–" | "-")
}

/// Words over a column that make its weight no weight of the hull
/// and lengths no lengths of it.
const OTHERS: [&str; 34] = [
    "shipping",
    "carton",
    "box",
    "boxed",
    "package",
    "packed",
    "packaging",
    "pallet",
    "seat",
    "per",
    "paddle",
    "cart",
    "angler",
    "user",
    "rider",
    "drive",
    "freight",
    "cockpit",
    "well",
    "hatch",
    "deck",
    "tank",
    "storage",
    "inside",
    "internal",
    "bow",
    "stern",
    "waterline",
    "console",
    "opening",
    "battery",
    "motor",
    "rudder",
    "leg",
];

/// Words that make a weight one that is carried, not one of the hull.
const CARRIED: [&str; 8] = [
    "max", "maximum", "limit", "capacity", "cap", "load", "payload", "carry",
];

/// A header in small letters, what stands in brackets and signs aside; and the unit it
/// names: in brackets, or as its last word.
pub(super) fn plain(header: &str) -> (String, Option<(&'static str, Dimension)>) {
    let lower = header.to_lowercase();
    let (mut outside, mut inside) = (String::new(), String::new());
    let mut depth = 0_usize;
    for c in lower.chars() {
        match c {
            '(' | '[' => depth += 1,
            ')' | ']' => depth = depth.saturating_sub(1),
            c if depth > 0 => inside.push(c),
            c => outside.push(c),
        }
    }
    let parts = |text: &str| -> Vec<String> {
        let spaced: String = text
            .chars()
            .map(|c| {
                if c.is_alphanumeric() || c == '"' || c == '\'' || c == '#' {
                    c
                } else {
                    ' '
                }
            })
            .collect();
        spaced.split_whitespace().map(str::to_owned).collect()
    };
    let mut words = parts(&outside);
    let within = parts(&inside);
    let mut found = within.iter().find_map(|word| unit(word));
    if found.is_none() && words.len() > 1 {
        found = words.last().and_then(|word| unit(word));
        if found.is_some() {
            words.pop();
        }
    }
    // What stands in brackets and is no unit says more of the column.
    words.extend(within.into_iter().filter(|word| unit(word).is_none()));
    words.retain(|w| !matches!(w.as_str(), "in" | "the" | "of" | "a" | "approx"));
    (words.join(" "), found)
}

/// What a header says a column is of: the longest name found in it, and whether it says
/// just that.
pub(super) fn named(of: Of, header: &str) -> Option<(&'static Target, bool)> {
    let (words, unit) = plain(header);
    if words.is_empty() {
        return None;
    }
    let all: Vec<&str> = words.split(' ').collect();
    let exact = of
        .targets()
        .iter()
        .find(|t| listed(t.names).any(|n| n == words));
    let found = exact.map(|t| (t, true)).or_else(|| {
        let other = all.iter().any(|w| OTHERS.contains(w));
        let within = |name: &&str| {
            let parts: Vec<&str> = name.split(' ').collect();
            all.windows(parts.len()).any(|w| w == parts)
        };
        // A letter alone is too little to be found within something else.
        let names = |t: &'static Target| {
            let known = listed(t.names).filter(|n| n.len() > 2).filter(within);
            known.map(|n| n.len()).max().map(|length| (length, t))
        };
        let best = of
            .targets()
            .iter()
            .filter_map(names)
            .max_by_key(|(n, _)| *n);
        let (_, best) = best.filter(|(_, t)| !(other && t.dimension.is_some()))?;
        let carried = all.iter().any(|w| CARRIED.contains(w));
        let weight = matches!(best.key, WEIGHT | "bare_weight" | "fitted_weight");
        if weight && carried {
            return of.target("rated_capacity").map(|t| (t, false));
        }
        Some((best, false))
    })?;
    // Feet over a weight, or pounds over a length: not what the name says.
    match (unit, found.0.dimension) {
        (Some((_, of)), Some(dimension)) if !same(of, dimension) => None,
        (Some(_), None) if !matches!(found.0.key, "battery_v" | "draws_w") => None,
        _ => Some(found),
    }
}

/// Whether a unit is of a dimension.
pub(super) fn same(of: Dimension, dimension: Dimension) -> bool {
    use Dimension::{Length, Mass, ShortLength};
    match dimension {
        Length | ShortLength => of == Length,
        Mass => of == Mass,
        _ => false,
    }
}

/// How many of a line's cells are names of columns.
pub(super) fn hits(row: &[String]) -> usize {
    let known = |cell: &&String| {
        let number = cell.chars().filter(char::is_ascii_digit).count();
        number * 2 < cell.chars().count()
            && (named(Of::Hulls, cell).is_some() || named(Of::Gear, cell).is_some())
    };
    row.iter().filter(known).count()
}

/// Whether a header names what a row is called.
pub(super) fn is_model(header: &str) -> bool {
    let is = |of| named(of, header).is_some_and(|(t, _)| matches!(t.key, NAME | "model"));
    is(Of::Hulls) || is(Of::Gear)
}

/// Whether a figure of hulls is meant, and within which bounds.
pub(super) fn measure(key: &str) -> Option<Measure> {
    use galvet_core::base::Keyed;
    match key {
        WEIGHT => Some(Measure::BareWeight),
        key => Measure::ALL.iter().copied().find(|m| m.key() == key),
    }
}

/// Words of a record as people write them: target, ours, theirs.
const WORDS: [(&str, &str, &str); 30] = [
    (
        "construction",
        "sit-on-top",
        "sit on top, sot, sit on, siton, sit-on, open deck, on top",
    ),
    (
        "construction",
        "sit-inside",
        "sit inside, sit in, sik, sis, sit-in, sitin, closed deck, inside, \
             open cockpit",
    ),
    (
        "construction",
        "board",
        "board, sup, paddle board, paddleboard, fishing board",
    ),
    (
        "propulsion",
        "paddle",
        "paddle, paddled, paddling, paddle only, none",
    ),
    (
        "propulsion",
        "rotary-pedal",
        "rotary pedal, rotary, propeller, pedal propeller, prop pedal, pedal prop, \
             pedals propeller, rotational pedal",
    ),
    (
        "propulsion",
        "fin-pedal",
        "fin pedal, fins, pedal fins, fin, flippers, pedal fin, fin drive",
    ),
    (
        "propulsion",
        "motor",
        "motor, electric, electric motor, motorised, motorized, powered, e motor",
    ),
    ("bottom", "flat", "flat"),
    (
        "bottom",
        "shallow-arch",
        "shallow arch, arch, arched, rounded, round",
    ),
    ("bottom", "shallow-vee", "shallow vee, vee, v, shallow v"),
    ("bottom", "tunnel", "tunnel, tunnel hull, catamaran, twin"),
    (
        "bottom",
        "tri-lobe",
        "three lobes, tri lobe, trihull, tri hull",
    ),
    ("seats", "1", "1, one, single, solo, 1 person"),
    ("seats", "2", "2, two, tandem, double, 2 person"),
    ("seats", "3", "3, three, triple"),
    (
        "capacity_basis",
        "gear-and-crew",
        "crew and gear, gear and crew, crew gear",
    ),
    (
        "category",
        "rods",
        "rods, rod, reel, reels, rod and reel, rod holder, rod holders, holders",
    ),
    (
        "category",
        "tackle",
        "tackle, tackle box, tackle boxes, box, boxes, lures, tackle storage",
    ),
    (
        "category",
        "crates",
        "crates, crate, milk crate, carrier, storage, bags",
    ),
    (
        "category",
        "fish",
        "fish, cooler, coolers, ice box, fish bag, livewell, bait",
    ),
    (
        "category",
        "electronics",
        "electronics, sounder, sounders, fish finder, transducer, camera, cameras, sonar",
    ),
    ("category", "power", "power, battery, batteries, lithium"),
    (
        "category",
        "propulsion",
        "propulsion, motor, motors, drive, paddle, paddles",
    ),
    (
        "category",
        "anchoring",
        "anchoring, anchor, anchors, drift sock, stake out pole, trolley",
    ),
    (
        "category",
        "landing",
        "landing, net, nets, gaff, grip, landing net",
    ),
    (
        "category",
        "comfort",
        "comfort, seat, seats, cushion, cushions, pad",
    ),
    (
        "category",
        "safety",
        "safety, pfd, flotation aid, flotation aids, life jacket, whistle, light, lights, first aid",
    ),
    (
        "category",
        "transport",
        "transport, cart, carts, trolley cart, rack, racks, straps, roof rack",
    ),
    (
        "category",
        "other",
        "other, others, misc, miscellaneous, various, accessories, accessory",
    ),
    ("capacity_basis", "unknown", "unknown, not stated"),
];

/// A word as we write it; `None` where it is none of ours.
pub(super) fn word(target: &str, theirs: &str) -> Option<&'static str> {
    let (words, _) = plain(theirs);
    let lower = theirs.trim().to_lowercase();
    let mut rows = WORDS.iter().filter(|(t, ..)| *t == target);
    let known = rows.find(|(_, ours, theirs)| {
        let like =
            |w: &str| *ours == w || ours.replace('-', " ") == w || listed(theirs).any(|t| t == w);
        like(&lower) || like(&words)
    });
    known.map(|(_, ours, _)| *ours)
}

/// What a word most likely means where it may mean two things: asked, never taken.
pub(super) fn likely(target: &str, theirs: &str) -> Option<&'static str> {
    let lower = theirs.to_lowercase();
    match target {
        "propulsion" if lower.contains("fin") => Some("fin-pedal"),
        "propulsion" if lower.contains("pedal") => Some("rotary-pedal"),
        "propulsion" if lower.contains("motor") || lower.contains("electric") => Some("motor"),
        "construction" if lower.contains("top") => Some("sit-on-top"),
        "construction" if lower.contains("inside") => Some("sit-inside"),
        "category" => Some("other"),
        _ => None,
    }
}

/// Our words for a target, for whoever chooses.
#[must_use]
pub fn words_of(target: &str) -> Vec<&'static str> {
    let mut ours: Vec<&str> = Vec::new();
    for (t, word, _) in WORDS {
        if t == target && !ours.contains(&word) {
            ours.push(word);
        }
    }
    ours
}

/// Targets that take one of our words.
#[must_use]
pub fn takes_words(target: &str) -> bool {
    WORDS.iter().any(|(t, ..)| *t == target)
}
