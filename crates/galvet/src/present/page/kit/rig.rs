//! A rig as a loaded boat, bow to stern: what lies where by its own wish, what is
//! packed in what, what it weighs and costs, how it differs from another.

use super::sides;
use crate::kit::Spoken;
use crate::present::draw::symbol::symbol;
use galvet_core::base::{Dimension, Keyed, System};
use galvet_core::gear::{Electric, Gear};
use galvet_core::guide::Guides;
use galvet_core::hull::ZoneKind;
use galvet_core::rig::{Importance, Rig, RigLine};
use galvet_core::stow::{Hour, Layout};

/// A line of the rig.
pub struct Line {
    /// Its number.
    pub number: usize,
    pub item: String,
    /// Which symbol stands for it.
    pub symbol: &'static str,
    pub count: u32,
    /// What it weighs, all of the line on the water.
    pub mass: String,
    /// What it weighs packed, and its size.
    pub words: String,
    pub want: bool,
    pub owned: bool,
    /// Containers it can go into: key, name, chosen.
    pub into: Vec<(String, String, bool)>,
    pub packed: Vec<Line>,
}

/// Lines that like to lie in one part of a boat.
pub struct Part {
    pub title: &'static str,
    pub lines: Vec<Line>,
}

/// A thing that could be put on.
pub struct Offered {
    pub key: String,
    pub name: String,
    pub symbol: &'static str,
    pub words: String,
    /// How many of it are on the rig.
    pub on: u32,
}

/// The page.
pub struct RigView {
    pub key: String,
    pub name: String,
    pub parts: Vec<Part>,
    /// What it weighs on the water and at home, what may stay ashore: read first.
    pub headline: String,
    pub totals: Vec<(&'static str, String)>,
    /// Hulls to lay it out on: key and name.
    pub hulls: Vec<(String, String)>,
    pub find: String,
    pub offered: Vec<Offered>,
    pub others: Vec<(String, String, bool)>,
    /// How it differs from another rig, in words.
    pub differs: Vec<String>,
    pub cautions: Vec<&'static str>,
    pub trouble: String,
    /// What somebody wrote, and the things read out of it, to be confirmed.
    pub words: String,
    pub spoken: Vec<SpokenView>,
}

/// A thing somebody wrote, to be confirmed.
pub struct SpokenView {
    pub quote: String,
    pub count: u32,
    /// What it may be: a thing of the shelf, a new one, nothing; and whether that is meant.
    pub choices: Vec<(String, String, bool)>,
    /// What was said beside what the shelf says.
    pub told: String,
    pub name: String,
    pub mass: String,
    /// Whether it is taken as a new one.
    pub new: bool,
}

/// A thing as it is written is a new one; it is left out.
pub const NEW: &str = "(new)";
pub const LEAVE: &str = "(leave)";

/// What was written, with what each may be on the shelf. What is not surely one of its
/// things is a new one where it says what it weighs, else asked.
#[must_use]
pub fn spoken(all: &[Spoken], shelf: &[Gear], system: System) -> Vec<SpokenView> {
    let mass = |kg: f64| system.text(Dimension::Mass, kg, 2);
    let view = |s: &Spoken| {
        let like = s.like.iter();
        let like: Vec<&Gear> = like
            .filter_map(|key| shelf.iter().find(|g| g.key == *key))
            .collect();
        let new = !s.sure && (s.mass.is_some() || like.is_empty());
        let known = like.iter().enumerate().map(|(k, thing)| {
            let words = format!("{}, {}", thing.name, mass(thing.dry_mass));
            (thing.key.clone(), words, k == 0 && !new)
        });
        let mut choices: Vec<(String, String, bool)> = known.collect();
        choices.push((NEW.to_owned(), "a new thing".to_owned(), new));
        choices.push((LEAVE.to_owned(), "leave it out".to_owned(), false));
        let beside = s.mass.zip(like.first().filter(|_| !new));
        let told = match beside {
            Some((said, thing)) if (said - thing.dry_mass).abs() > 0.1 * said => {
                format!("you say {}, the shelf {}", mass(said), mass(thing.dry_mass))
            }
            _ if s.sure => String::new(),
            _ if new => "nothing on the shelf is surely it".to_owned(),
            _ => "a guess: look whether it is this one".to_owned(),
        };
        let times = if s.count > 1 {
            format!("{} of it; ", s.count)
        } else {
            String::new()
        };
        SpokenView {
            quote: s.quote.clone(),
            count: s.count,
            choices,
            told: format!("{times}{told}"),
            new,
            name: s.name.clone(),
            mass: s.mass.map_or(String::new(), mass).replace('\u{a0}', " "),
        }
    };
    all.iter().map(view).collect()
}

/// Parts of a boat, bow to stern, with the zones in each.
const PARTS: [(&str, &[ZoneKind]); 6] = [
    ("On the person", &[ZoneKind::OnThePerson]),
    ("At the bow", &[ZoneKind::BowDeck, ZoneKind::BowHatch]),
    (
        "In the cockpit",
        &[
            ZoneKind::CockpitFloor,
            ZoneKind::CentreHatch,
            ZoneKind::Console,
            ZoneKind::OnTheDrive,
            ZoneKind::UnderTheHull,
        ],
    ),
    (
        "Beside and under the seat",
        &[
            ZoneKind::SidePocket,
            ZoneKind::BesideTheSeat,
            ZoneKind::UnderSeatBay,
            ZoneKind::SeatBack,
            ZoneKind::SeatFrame,
        ],
    ),
    ("Behind the seat", &[ZoneKind::TankWell, ZoneKind::RodTube]),
    ("At the stern", &[ZoneKind::SternHatch, ZoneKind::SternDeck]),
];

/// Most things offered at once.
const OFFERED: usize = 12;

/// Makes the page.
#[must_use]
pub fn rig(
    rig: &Rig,
    shelf: &[Gear],
    rigs: &[Rig],
    (find, against): (&str, Option<&str>),
    trouble: String,
    system: System,
) -> RigView {
    let containers: Vec<(&str, &str)> = rig
        .lines
        .iter()
        .filter(|l| l.within.is_empty())
        .filter_map(|l| l.thing.as_ref())
        .filter(|t| t.brings.inside.is_some())
        .map(|t| (t.key.as_str(), t.name.as_str()))
        .collect();
    let line = |number: usize| line(rig, number, &containers, system);
    let in_container =
        |l: &RigLine| !l.within.is_empty() && containers.iter().any(|c| c.0 == l.within);
    let mut parts: Vec<Part> = PARTS
        .iter()
        .map(|(title, _)| Part {
            title,
            lines: Vec::new(),
        })
        .collect();
    for (number, l) in rig.lines.iter().enumerate() {
        if in_container(l) {
            continue;
        }
        parts[part_of(l)].lines.push(line(number));
    }
    for line in parts.iter_mut().flat_map(|p| &mut p.lines) {
        let key = rig.lines[line.number].gear.clone();
        let mine = rig.lines.iter().enumerate();
        let mine =
            mine.filter(|(_, l)| key.as_deref() == Some(l.within.as_str()) && in_container(l));
        line.packed = mine
            .map(|(n, _)| self::line(rig, n, &containers, system))
            .collect();
    }
    parts.retain(|p| !p.lines.is_empty());
    let wanted = find.to_lowercase();
    let has = |g: &&Gear| {
        let text = format!("{} {}", g.name, g.category.label()).to_lowercase();
        wanted.split_whitespace().all(|w| text.contains(w))
    };
    let other = against.and_then(|key| rigs.iter().find(|r| r.key == key));
    RigView {
        key: rig.key.clone(),
        name: rig.name.clone(),
        parts,
        headline: headline(rig, system),
        words: String::new(),
        spoken: Vec::new(),
        hulls: Vec::new(),
        totals: totals(rig, system),
        find: find.to_owned(),
        offered: shelf
            .iter()
            .filter(has)
            .take(OFFERED)
            .map(|g| Offered {
                key: g.key.clone(),
                name: g.name.clone(),
                symbol: symbol(&g.name, Some(g.category)),
                words: system.text(Dimension::Mass, g.loaded_mass, 1),
                on: {
                    let lines = rig.lines.iter();
                    let same = lines.filter(|l| l.gear.as_deref() == Some(g.key.as_str()));
                    same.map(|l| l.count).sum()
                },
            })
            .collect(),
        others: rigs
            .iter()
            .filter(|r| r.key != rig.key)
            .map(|r| {
                (
                    r.key.clone(),
                    r.name.clone(),
                    against == Some(r.key.as_str()),
                )
            })
            .collect(),
        differs: other.map_or(Vec::new(), |other| differs(rig, other, system)),
        cautions: cautions(rig),
        trouble,
    }
}

fn part_of(line: &RigLine) -> usize {
    let zone = line.thing.as_ref().and_then(|t| t.zones.first());
    let found = zone.and_then(|z| PARTS.iter().position(|(_, zones)| zones.contains(z)));
    // What says nothing lies behind the seat, or stands on a track beside it.
    found.unwrap_or(match line.thing.as_ref().map(|t| t.mount.is_empty()) {
        Some(false) => 3,
        _ => 4,
    })
}

fn line(rig: &Rig, number: usize, containers: &[(&str, &str)], system: System) -> Line {
    let l = &rig.lines[number];
    let mass = |kg: f64| system.text(Dimension::Mass, kg, 1);
    let mut words = vec![if l.loaded() > l.dry() {
        format!(
            "{} packed, {} on the water",
            mass(l.dry()),
            mass(l.loaded())
        )
    } else {
        mass(l.dry())
    }];
    match l.thing.as_ref().map(|t| t.size) {
        Some(Some(size)) => words.push(sides(size, system)),
        _ => words.push("size not known: lies where the rig says".to_owned()),
    }
    let own = l.gear.as_deref();
    Line {
        number,
        item: l.item.clone(),
        symbol: symbol(&l.item, l.thing.as_ref().map(|t| t.category)),
        count: l.count,
        mass: mass(f64::from(l.count) * l.loaded()),
        words: words.join(", "),
        want: l.importance == Importance::Want,
        owned: l.thing.as_ref().is_none_or(|t| t.owned),
        into: containers
            .iter()
            .filter(|c| Some(c.0) != own)
            .map(|&(key, name)| (key.to_owned(), name.to_owned(), l.within == key))
            .collect(),
        packed: Vec::new(),
    }
}

/// Minutes it takes to set up.
fn minutes(rig: &Rig) -> f64 {
    let of = |l: &RigLine| Some(l.thing.as_ref()?.setup_minutes? * f64::from(l.count));
    let all = rig.lines.iter().filter_map(of);
    all.fold(0.0, |sum, minutes| sum + minutes)
}

/// "27.5 kg on the water, 21.5 packed at home; 20 minutes to set up".
fn headline(rig: &Rig, system: System) -> String {
    let mass = |kg: f64| system.text(Dimension::Mass, kg, 1);
    format!(
        "{} on the water, {} packed at home; {:.0} minutes to set up",
        mass(rig.loaded()),
        mass(rig.loaded() - rig.wet_part()),
        minutes(rig)
    )
}

/// The heaviest point of the day and what the rig weighs then, kg.
fn heaviest(rig: &Rig) -> (Hour, f64) {
    let (all, guides) = (Layout::by_fractions(rig, 0.0, 1.0), Guides::default());
    let hours = [Hour::Launch, Hour::Midday, Hour::Return];
    let weighed = hours.map(|h| (h, all.at(h, rig, &guides).loaded()));
    let worst = weighed.into_iter().max_by(|a, b| a.1.total_cmp(&b.1));
    worst.unwrap_or((Hour::Launch, 0.0))
}

fn totals(rig: &Rig, system: System) -> Vec<(&'static str, String)> {
    let mass = |kg: f64| system.text(Dimension::Mass, kg, 1);
    let things = || {
        rig.lines
            .iter()
            .filter_map(|l| Some((l.thing.as_ref()?, l.count)))
    };
    let price = |owned: bool| -> f64 {
        let mine = things().filter(|(t, _)| t.owned == owned);
        mine.map(|(t, n)| t.price.unwrap_or(0.0) * f64::from(n))
            .fold(0.0, |sum, price| sum + price)
    };
    // Nothing added up is nought, never the −0 an empty sum comes to.
    let draws = things()
        .map(|(t, n)| match t.electric {
            Electric::Draw { watts, duty, .. } => watts * duty * f64::from(n),
            _ => 0.0,
        })
        .fold(0.0, |sum, watts| sum + watts);
    let wants = rig
        .lines
        .iter()
        .filter(|l| l.importance == Importance::Want)
        .count();
    vec![
        ("packed at home", mass(rig.loaded() - rig.wet_part())),
        ("on the water, all of it aboard", mass(rig.loaded())),
        ("at the heaviest point of the day", {
            let (hour, kg) = heaviest(rig);
            format!("{} ({})", mass(kg), hour.label())
        }),
        ("of it ice, water and fish", mass(rig.wet_part())),
        ("lines that may stay ashore", wants.to_string()),
        (
            "owned, worth",
            system.text(Dimension::Money, price(true), 0),
        ),
        (
            "still to buy",
            system.text(Dimension::Money, price(false), 0),
        ),
        ("minutes to set up", format!("{:.0}", minutes(rig))),
        ("draws on average", format!("{draws:.0}\u{a0}W")),
    ]
}

/// What one rig has that another has not, or more of.
fn differs(rig: &Rig, other: &Rig, system: System) -> Vec<String> {
    let count = |r: &Rig, item: &str| -> u32 {
        let lines = r.lines.iter().filter(|l| l.item == item);
        lines.map(|l| l.count).sum()
    };
    let mut items: Vec<&str> = rig
        .lines
        .iter()
        .chain(&other.lines)
        .map(|l| l.item.as_str())
        .collect();
    items.sort_unstable();
    items.dedup();
    let mut out: Vec<String> = items
        .into_iter()
        .filter_map(|item| {
            let (here, there) = (count(rig, item), count(other, item));
            match here.cmp(&there) {
                std::cmp::Ordering::Greater => Some(format!("+ {} × {item}", here - there)),
                std::cmp::Ordering::Less => Some(format!("− {} × {item}", there - here)),
                std::cmp::Ordering::Equal => None,
            }
        })
        .collect();
    let by = rig.loaded() - other.loaded();
    let sign = if by < 0.0 { "lighter" } else { "heavier" };
    out.push(format!(
        "{} {sign} on the water",
        system.text(Dimension::Mass, by.abs(), 1)
    ));
    out
}

fn cautions(rig: &Rig) -> Vec<&'static str> {
    let has = |of: &dyn Fn(&Gear) -> bool| {
        let mut things = rig.lines.iter().filter_map(|l| l.thing.as_deref());
        things.any(of)
    };
    let mut out = Vec::new();
    if !has(&Gear::is_flotation_aid) {
        out.push("There is no flotation aid on this rig: it is worn, always.");
    }
    if !has(&|g| g.key.contains("paddle")) {
        out.push("There is no spare paddle on this rig.");
    }
    out
}
