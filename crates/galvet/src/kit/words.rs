//! A rig out of words: "2 rods, box 3 kg, 12 V 20 Ah lithium" as things of the shelf where
//! they are like one, as quick things to be confirmed where not.

use super::rig::{LineChange, change_line};
use crate::form::{between, figure_at, free_slug, slug_of};
use crate::survey::EditError;
use galvet_core::base::Dimension;
use galvet_core::gear::{Category, Electric, Fixing, Gear};
use galvet_core::rig::{Rig, RigLine};
use galvet_store::files::dealer::signs;
use galvet_store::{Kind, Record, Store};
use std::collections::BTreeSet;

/// A thing as somebody wrote it.
#[derive(Debug, Clone, PartialEq)]
pub struct Spoken {
    /// The words.
    pub quote: String,
    /// How many.
    pub count: u32,
    /// What it is called, without its figures.
    pub name: String,
    /// What one weighs, kg, where that was said.
    pub mass: Option<f64>,
    /// Keys of things on the shelf that are like it, best first.
    pub like: Vec<String>,
    /// Whether the first of them is surely meant.
    pub sure: bool,
}

/// Longest text read, characters.
const LONGEST: usize = 4_000;
/// Most things out of one text.
const MOST: usize = 60;
/// Things offered for one.
const OFFERED: usize = 4;
/// Likeness from which a thing is offered, from which it is taken, and how far it must be
/// ahead of the next for that.
const OFFERS: f64 = 0.2;
const TAKES: f64 = 0.45;
const AHEAD: f64 = 0.08;

/// Words for the same things.
const SAME: [(&str, &str); 22] = [
    ("lithium", "battery"),
    ("lifepo4", "battery"),
    ("lead", "battery"),
    ("agm", "battery"),
    ("fishfinder", "sounder"),
    ("finder", "sounder"),
    ("echo", "sounder"),
    ("sonar", "sounder"),
    ("pfd", "flotation"),
    ("vest", "flotation"),
    ("jacket", "flotation"),
    ("milk", "crate"),
    ("esky", "cooler"),
    ("icebox", "cooler"),
    ("reel", "rod"),
    ("vhf", "radio"),
    ("drogue", "sock"),
    ("torch", "light"),
    ("headlamp", "light"),
    ("bucket", "bait"),
    ("trolley", "cart"),
    ("wheels", "cart"),
];

/// Words that say nothing of what a thing is.
const EMPTY: [&str; 22] = [
    "a", "an", "the", "of", "with", "for", "and", "in", "on", "my", "some", "sized", "size", "one",
    "set", "nominal", "line", "pair", "each", "small", "large", "big",
];

/// Numbers as words.
const COUNTS: [(&str, u32); 12] = [
    ("a", 1),
    ("an", 1),
    ("one", 1),
    ("two", 2),
    ("three", 3),
    ("four", 4),
    ("five", 5),
    ("six", 6),
    ("seven", 7),
    ("eight", 8),
    ("nine", 9),
    ("ten", 10),
];

/// Reads what somebody carries, thing by thing.
#[must_use]
pub fn spoken(text: &str, shelf: &[Gear]) -> Vec<Spoken> {
    let text: String = text.chars().take(LONGEST).collect();
    let lines = text.lines().flat_map(things);
    let read = lines.filter_map(|quote| one(&quote, shelf));
    read.take(MOST).collect()
}

/// A list at its commas (not at a decimal one), semicolons and "and".
fn things(line: &str) -> Vec<String> {
    let line = line
        .replace(" and ", ", ")
        .replace(" plus ", ", ")
        .replace(" + ", ", ");
    let mut out = vec![String::new()];
    let mut letters = line.chars().peekable();
    while let Some(c) = letters.next() {
        let number = letters.peek().is_some_and(char::is_ascii_digit);
        let ends = c == ';' || c == '•' || (c == ',' && !number);
        match out.last_mut() {
            Some(last) if !ends => last.push(c),
            _ => out.push(String::new()),
        }
    }
    let plain = |s: String| s.trim().trim_start_matches(['-', '*']).trim().to_owned();
    out.into_iter()
        .map(plain)
        .filter(|s| !s.is_empty())
        .collect()
}

/// What was found in the words of one thing.
#[derive(Default)]
struct Found {
    mass: Option<f64>,
    volts: Option<f64>,
    amp_hours: Option<f64>,
    /// The words without figures.
    rest: String,
}

fn figures(text: &str) -> Found {
    let mut out = Found::default();
    let mut at = 0;
    while let Some(c) = text.get(at..).and_then(|t| t.chars().next()) {
        let starts = c.is_ascii_digit() && between(text, at);
        if starts && let Some((end, dimension, value)) = figure_at(text, at) {
            if dimension == Dimension::Mass {
                out.mass = out.mass.or(Some(value));
            }
            at = end;
            continue;
        }
        if starts && let Some((end, value, unit)) = electric_at(text, at) {
            match unit {
                "v" => out.volts = Some(value),
                "ah" => out.amp_hours = Some(value),
                _ => {}
            }
            at = end;
            continue;
        }
        out.rest.push(c);
        at += c.len_utf8();
    }
    out
}

/// `12 V`, `20Ah`, `5 W`: a number with such a unit, and where it ends.
fn electric_at(text: &str, at: usize) -> Option<(usize, f64, &'static str)> {
    let rest = text.get(at..)?;
    let digits = rest.find(|c: char| !(c.is_ascii_digit() || c == '.'))?;
    let number = rest[..digits].parse().ok()?;
    let unit = rest[digits..].trim_start();
    let lead = rest.len() - unit.len();
    let word: String = unit.chars().take_while(|c| c.is_alphabetic()).collect();
    let known = ["v", "ah", "w", "wh", "l"].into_iter();
    let known = known.into_iter().find(|u| word.eq_ignore_ascii_case(u))?;
    Some((at + lead + word.len(), number, known))
}

/// The words of a name, each in the singular, with others for the same.
fn stems(name: &str) -> BTreeSet<String> {
    let lower = name.to_lowercase();
    let words = lower.split(|c: char| !c.is_alphanumeric());
    let words = words.filter(|w| w.len() > 1 && !EMPTY.contains(w));
    let words = words.filter(|w| !w.chars().all(|c| c.is_ascii_digit()));
    let single = |w: &str| {
        let short = w.strip_suffix("es").filter(|s| s.ends_with('x'));
        short
            .or_else(|| w.strip_suffix('s'))
            .filter(|s| s.len() > 2)
            .unwrap_or(w)
            .to_owned()
    };
    let mut out: BTreeSet<String> = words.map(single).collect();
    for (word, same) in SAME {
        if out.contains(word) {
            out.insert(same.to_owned());
        }
    }
    out
}

/// How like a thing is to what was said, 0 to about 1.
fn likeness(said: &BTreeSet<String>, found: &Found, thing: &Gear) -> f64 {
    let called = stems(&thing.name);
    let both = said.intersection(&called).count() as f64;
    let mut like = both / (said.len() as f64 * called.len() as f64).sqrt().max(1.0);
    let battery = match thing.electric {
        Electric::Battery {
            volts, amp_hours, ..
        } => Some((volts, amp_hours)),
        _ => None,
    };
    // The first word names the thing; what follows tells which.
    if let (Some(volts), Some((v, ah))) = (found.volts, battery) {
        let near = |a: f64, b: f64| (a - b).abs() <= 0.12 * a.max(b);
        let charge = found.amp_hours.is_none_or(|amp_hours| near(amp_hours, ah));
        like += if near(volts, v) && charge { 0.4 } else { -0.3 };
    }
    if found.amp_hours.is_some() && battery.is_none() {
        return 0.0;
    }
    if let Some(mass) = found.mass {
        let near = (mass - thing.dry_mass).abs() / mass.max(thing.dry_mass).max(0.1);
        like += if near < 0.2 { 0.08 } else { -0.05 };
    }
    if both == 0.0 && battery.is_none() {
        0.0
    } else {
        like
    }
}

fn one(quote: &str, shelf: &[Gear]) -> Option<Spoken> {
    let text = signs(quote);
    let (first, rest) = text.split_once(' ').unwrap_or((text.as_str(), ""));
    let digits: String = first.trim_end_matches(['x', '×']).to_owned();
    let number = digits.parse::<u32>().ok().filter(|n| (1..=50).contains(n));
    let next = rest.trim_start_matches(['x', '×']).trim_start();
    // `12 V` and `3 kg` are no counts.
    let figure = figure_at(&text, 0).is_some() || electric_at(&text, 0).is_some();
    let word = COUNTS.iter().find(|(w, _)| first.eq_ignore_ascii_case(w));
    let (count, text) = match (number.filter(|_| !figure), word) {
        (Some(count), _) if !next.is_empty() => (count, next.to_owned()),
        (_, Some((_, count))) if !rest.is_empty() => (*count, rest.to_owned()),
        _ => (1, text),
    };
    let found = figures(&text);
    let said = stems(&found.rest);
    if said.is_empty() && found.amp_hours.is_none() {
        return None;
    }
    let scored = shelf
        .iter()
        .map(|thing| (likeness(&said, &found, thing), thing));
    let mut scored: Vec<(f64, &Gear)> = scored.filter(|(like, _)| *like > OFFERS).collect();
    scored.sort_by(|a, b| b.0.total_cmp(&a.0));
    let sure = match scored.as_slice() {
        [] => false,
        [(like, _)] => *like >= TAKES,
        [(like, _), (next, _), ..] => *like >= TAKES && like - next >= AHEAD,
    };
    let name: Vec<&str> = found.rest.split_whitespace().collect();
    Some(Spoken {
        quote: quote.to_owned(),
        count,
        name: name.join(" ").trim_matches([',', '.', ' ']).to_owned(),
        mass: found.mass,
        like: scored
            .into_iter()
            .take(OFFERED)
            .map(|(_, thing)| thing.key.clone())
            .collect(),
        sure,
    })
}

/// A thing somebody wrote, as it was confirmed.
#[derive(Debug, Clone, PartialEq)]
pub struct Confirmed {
    /// How many.
    pub count: u32,
    /// Key of the thing of the shelf that is meant.
    pub key: String,
    /// Name and weight, kg, of one that is new.
    pub new: Option<(String, f64)>,
}

/// Puts confirmed things on a rig, new ones on the shelf first: one step, which Undo takes
/// back.
///
/// # Errors
/// [`EditError`]; nothing is changed then.
pub fn put_spoken(
    store: &Store,
    who: &str,
    slug: &str,
    all: &[Confirmed],
    shelf: &[Gear],
) -> Result<(), EditError> {
    let Some((known, Record::Rig(mut rig))) = store.record(Kind::Rig, slug)? else {
        return Err(EditError::Gone);
    };
    let mut made = Vec::new();
    for one in all {
        let thing = match &one.new {
            Some((name, mass)) => {
                let thing = Gear {
                    fixings: vec![Fixing::Strap, Fixing::Loose],
                    ..Gear::plain("", name, Category::Other, *mass, None)
                };
                made.push((one.count, thing));
                continue;
            }
            None => shelf.iter().find(|g| g.key == one.key),
        };
        let gone = || EditError::Refused("that is not on the shelf any more".to_owned().into());
        put(&mut rig, thing.ok_or_else(gone)?, one.count)?;
    }
    let label = format!("{} things put on the rig", all.len());
    let done = store.write(who, &label, |door| {
        for (count, mut thing) in made {
            thing.key = free_slug(door, Kind::Gear, &slug_of(&thing.name, "thing"))?;
            door.put(&Record::Gear(Box::new(thing.clone())), None)?;
            if let Err(refused) = put(&mut rig, &thing, count) {
                return Ok(Err(refused));
            }
        }
        door.put(&Record::Rig(rig), Some(known))?;
        Ok(Ok(()))
    });
    done?
}

/// So many of a thing on a rig.
fn put(rig: &mut Rig, thing: &Gear, count: u32) -> Result<(), EditError> {
    let refused = |problem: String| EditError::Refused(problem.into());
    let before = rig.lines.len();
    let add = LineChange::Add(Box::new(thing.clone()));
    change_line(rig, (0, ""), &add).map_err(refused)?;
    let key = Some(thing.key.as_str());
    let is = |l: &RigLine| l.gear.as_deref() == key && l.within.is_empty();
    let at = rig.lines.iter().position(is).unwrap_or(before);
    let item = thing.name.clone();
    let more = LineChange::Count(i64::from(count) - 1);
    change_line(rig, (at, &item), &more).map_err(refused)
}

#[cfg(test)]
mod tests {
    use super::*;

    fn read(text: &str) -> Vec<Spoken> {
        let shelf = crate::demo_data::catalogue().unwrap().gear;
        spoken(text, &shelf)
    }

    #[test]
    fn a_rig_is_read_out_of_a_sentence() {
        let all = read(
            "2 rods, milk-crate sized box 3 kg, 12 V 20 Ah lithium, sounder, \
             1.5 kg anchor with 30 m line",
        );
        let told: Vec<(u32, &str, Option<f64>)> = all
            .iter()
            .map(|s| (s.count, s.like.first().map_or("", String::as_str), s.mass))
            .collect();
        assert_eq!(told.len(), 5, "{all:#?}");
        assert_eq!((told[0].0, told[0].1), (2, "rod-and-reel"), "{all:#?}");
        assert!(told[1].1.contains("crate"), "{all:#?}");
        assert_eq!(told[1].2, Some(3.0));
        let shelf = crate::demo_data::catalogue().unwrap().gear;
        let battery = shelf.iter().find(|g| g.key == told[2].1).unwrap();
        let Electric::Battery { volts, .. } = battery.electric else {
            panic!("{all:#?}");
        };
        assert!((11.0..15.0).contains(&volts), "{battery:?}");
        assert!(told[3].1.starts_with("sounder"), "{all:#?}");
        assert!(told[4].1.contains("anchor"), "{all:#?}");
        assert_eq!(told[4].2, Some(1.5));
    }

    #[test]
    fn confirmed_things_land_on_the_rig_in_one_step() {
        let directory = tempfile::tempdir().unwrap();
        let store = Store::open(directory.path()).unwrap();
        store
            .fill("test", &crate::demo_data::catalogue().unwrap())
            .unwrap();
        let before = store.catalogue().unwrap();
        let rig = before.rigs[0].clone();
        let one = |count, key: &str, new: Option<(&str, f64)>| Confirmed {
            count,
            key: key.to_owned(),
            new: new.map(|(name, mass)| (name.to_owned(), mass)),
        };
        let all = [
            one(2, "drift-sock", None),
            one(3, "", Some(("kettle", 0.8))),
            one(1, "", Some(("kettle", 0.9))),
        ];
        put_spoken(&store, "Ana", &rig.key, &all, &before.gear).unwrap();
        let after = store.catalogue().unwrap();
        assert_eq!(after.gear.len(), before.gear.len() + 2);
        let lines = &after.rigs.iter().find(|r| r.key == rig.key).unwrap().lines;
        let counted = |name: &str, mass: f64| -> u32 {
            let same = lines
                .iter()
                .filter(|l| l.item == name && (l.dry_mass - mass).abs() < 1e-9);
            same.map(|l| l.count).sum()
        };
        assert_eq!((counted("kettle", 0.8), counted("kettle", 0.9)), (3, 1));
        let act = store.steps("Ana", None).unwrap().undo.unwrap();
        store.reverse("Ana", act.group).unwrap();
        assert_eq!(store.catalogue().unwrap().rigs, before.rigs);
        assert_eq!(store.catalogue().unwrap().gear.len(), before.gear.len());
        // What is gone from the shelf is said, and nothing is changed.
        let gone = put_spoken(
            &store,
            "Ana",
            &rig.key,
            &[one(1, "no-such", None)],
            &before.gear,
        );
        assert!(matches!(gone, Err(EditError::Refused(_))));
        assert_eq!(store.catalogue().unwrap().rigs, before.rigs);
    }

    #[test]
    fn counts_are_no_figures_and_figures_no_counts() {
        let told = |text: &str| {
            let all = read(text);
            all.into_iter()
                .map(|s| (s.count, s.name, s.mass))
                .collect::<Vec<_>>()
        };
        let expect = |text: &str, count: u32, name: &str, mass: Option<f64>| {
            let all = told(text);
            assert_eq!(all.len(), 1, "{text}: {all:?}");
            let (n, called, weighs) = &all[0];
            assert_eq!((*n, called.as_str()), (count, name), "{text}");
            let near = weighs
                .zip(mass)
                .map_or(*weighs == mass, |(a, b)| (a - b).abs() < 1e-6);
            assert!(near, "{text}: {weighs:?}");
        };
        expect("three tackle boxes", 3, "tackle boxes", None);
        expect("2x paddle", 2, "paddle", None);
        expect("4 x kettle 0.5 kg", 4, "kettle", Some(0.5));
        expect("a kettle, ", 1, "kettle", None);
        expect("3 lb kettle", 1, "kettle", Some(1.360_777_11));
        expect("kettle 1,5 kg", 1, "kettle", Some(1.5));
        assert_eq!(told("rod and reel").len(), 2);
        assert!(told("12, 3 kg,, ;").is_empty());
        // What is like nothing on the shelf is a thing of its own.
        let kettle = &read("kettle 1 kg")[0];
        assert!(kettle.like.is_empty() && !kettle.sure);
    }
}
