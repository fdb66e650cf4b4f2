//! The shelf: what there is, where it is used; and a thing's form.

use super::filled::{Field, Filled, NotTaken, Tick, Words};
use crate::kit::shown_thing;
use crate::survey::{Shown, shown_across};
use galvet_core::base::{Dimension, Keyed, System};
use galvet_core::gear::{Category, Chemistry, Electric, Gear, Strain, Tether};
use galvet_core::hull::{Dryness, Reach};
use galvet_core::rig::Rig;

/// A thing in the list.
pub struct ThingLine {
    pub key: String,
    pub name: String,
    /// "40 × 33 × 28 cm, strap".
    pub words: String,
    pub mass: String,
    pub price: String,
    pub owned: bool,
    pub used: Vec<String>,
}

/// Things under a heading.
pub struct Shelf {
    pub title: &'static str,
    pub things: Vec<ThingLine>,
}

/// A rig in the list.
pub struct RigLineView {
    pub key: String,
    pub name: String,
    pub words: String,
}

/// The page.
pub struct KitView {
    pub find: String,
    pub shown: usize,
    pub all: usize,
    pub shelves: Vec<Shelf>,
    pub rigs: Vec<RigLineView>,
}

/// Makes the page: things whose name or note has all words of `find`.
#[must_use]
pub fn kit(gear: &[Gear], rigs: &[Rig], find: &str, system: System) -> KitView {
    let wanted = find.to_lowercase();
    let has = |g: &&Gear| {
        let text = format!("{} {} {}", g.name, g.note, g.category.label()).to_lowercase();
        wanted.split_whitespace().all(|w| text.contains(w))
    };
    let shelves: Vec<Shelf> = Category::ALL
        .iter()
        .map(|&category| Shelf {
            title: category.label(),
            things: gear
                .iter()
                .filter(|g| g.category == category)
                .filter(has)
                .map(|g| thing_line(g, rigs, system))
                .collect(),
        })
        .filter(|shelf| !shelf.things.is_empty())
        .collect();
    KitView {
        find: find.to_owned(),
        shown: shelves.iter().map(|s| s.things.len()).sum(),
        all: gear.len(),
        shelves,
        rigs: rigs
            .iter()
            .map(|rig| RigLineView {
                key: rig.key.clone(),
                name: rig.name.clone(),
                words: rig_words(rig, system),
            })
            .collect(),
    }
}

/// "23 things, 21.5 kg packed, 27.5 kg on the water".
#[must_use]
pub fn rig_words(rig: &Rig, system: System) -> String {
    let things: u32 = rig.lines.iter().map(|l| l.count).sum();
    let mass = |kg: f64| system.text(Dimension::Mass, kg, 1);
    format!(
        "{things} things, {} packed, {} on the water",
        mass(rig.loaded() - rig.wet_part()),
        mass(rig.loaded())
    )
}

fn thing_line(g: &Gear, rigs: &[Rig], system: System) -> ThingLine {
    let mut words = Vec::new();
    match g.size {
        Some(size) => {
            let all = size.map(|m| shown_across(system, m));
            words.push(all.join(" × "));
        }
        None => words.push("size not known".to_owned()),
    }
    words.extend(g.fixings.first().map(|f| f.label().to_owned()));
    match g.electric {
        Electric::Draw { watts, .. } => words.push(format!("draws {watts:.0}\u{a0}W")),
        Electric::Battery {
            volts, amp_hours, ..
        } => words.push(format!("{:.0}\u{a0}Wh", volts * amp_hours)),
        Electric::None => {}
    }
    if g.brings.inside.is_some() {
        words.push("holds others".to_owned());
    }
    if g.brings.tubes > 0 {
        words.push(format!("{} tubes", g.brings.tubes));
    }
    let mass = |kg: f64| system.text(Dimension::Mass, kg, 1);
    let on = |rig: &&Rig| {
        let mut lines = rig.lines.iter();
        lines.any(|l| l.gear.as_deref() == Some(g.key.as_str()))
    };
    ThingLine {
        key: g.key.clone(),
        name: g.name.clone(),
        words: words.join(", "),
        mass: if g.loaded_mass > g.dry_mass {
            format!("{} to {}", mass(g.dry_mass), mass(g.loaded_mass))
        } else {
            mass(g.dry_mass)
        },
        price: g
            .price
            .map_or(String::new(), |p| system.text(Dimension::Money, p, 0)),
        owned: g.owned,
        used: rigs.iter().filter(on).map(|r| r.name.clone()).collect(),
    }
}

/// Fields under a heading.
pub struct Group {
    pub title: &'static str,
    pub hint: &'static str,
    pub fields: Vec<Field>,
    pub selects: Vec<(&'static str, &'static str, Words)>,
    pub ticks: Vec<Tick>,
}

/// A thing's form.
pub struct ThingView {
    /// Its key; empty for a new one.
    pub key: String,
    pub name: String,
    pub groups: Vec<Group>,
    pub used: Vec<String>,
    pub trouble: String,
    pub shown: String,
}

/// Makes a thing's form; a new one's without `gear`.
#[must_use]
pub fn thing(gear: Option<&Gear>, rigs: &[Rig], not_taken: &NotTaken, system: System) -> ThingView {
    let form = Filled {
        shown: gear.map_or_else(
            || {
                Shown::of([
                    ("owned", "yes".to_owned()),
                    ("fixings", "strap, loose".to_owned()),
                ])
            },
            |g| shown_thing(g, system),
        ),
        not_taken,
    };
    let tick = |name: &str, label: &str| form.tick(name.to_owned(), label.to_owned());
    let on = |rig: &&Rig| {
        let key = gear.map(|g| g.key.as_str());
        rig.lines
            .iter()
            .any(|l| key.is_some() && l.gear.as_deref() == key)
    };
    ThingView {
        key: gear.map_or(String::new(), |g| g.key.clone()),
        name: gear.map_or(String::new(), |g| g.name.clone()),
        groups: vec![
            what_it_is(&form, &tick),
            how_it_lies(&form, &tick),
            Group {
                title: "What it brings for others",
                hint: "a container's inside; tubes that take a rod, net or pole each; an adapter's two mounts",
                fields: vec![
                    form.field("inside-length", "inside, long", ""),
                    form.field("inside-width", "inside, wide", ""),
                    form.field("inside-height", "inside, high", ""),
                    form.field("tubes", "tubes", ""),
                    form.field("fish", "longest fish it takes", ""),
                    form.field("tethers", "a leash: ties so many things", ""),
                    form.field("adapts-on", "adapter: sits on", ""),
                    form.field("adapts-to", "adapter: offers", ""),
                ],
                selects: vec![(
                    "keeps",
                    "keeps what is in it",
                    form.select::<Dryness>("keeps", Some("not dry")),
                )],
                ticks: vec![
                    tick("lid", "others may sit on its lid"),
                    tick("helps-up", "one pulls oneself up by it"),
                ],
            },
            Group {
                title: "Electricity",
                hint: "what it draws, or what it gives; not both",
                fields: vec![
                    form.field("watts", "draws, W", ""),
                    form.field("duty", "share of the time, %", ""),
                    form.field("at-volts", "must be fed with, V", ""),
                    form.field("volts", "battery, V", "as printed"),
                    form.field("amp-hours", "battery, Ah", "as printed"),
                ],
                selects: vec![(
                    "chemistry",
                    "what is in it",
                    form.select::<Chemistry>("chemistry", Some("not said")),
                )],
                ticks: Vec::new(),
            },
        ],
        used: rigs.iter().filter(on).map(|r| r.name.clone()).collect(),
        trouble: form.trouble(),
        shown: gear.map_or(String::new(), |_| form.shown.sent_along()),
    }
}

fn what_it_is(form: &Filled<'_>, tick: &dyn Fn(&str, &str) -> Tick) -> Group {
    Group {
        title: "What it is",
        hint: "",
        fields: vec![
            form.field("name", "called", "a generic name"),
            form.field("dry", "weighs, packed at home", ""),
            form.field("loaded", "with ice, water or fish", "empty: the same"),
            form.field("length", "long", ""),
            form.field("width", "wide", ""),
            form.field("height", "high", ""),
            form.field(
                "centre",
                "its centre above its foot",
                "empty: half its height",
            ),
            form.field("price", "costs", ""),
            form.field("minutes", "minutes to set up", ""),
            form.field("note", "note", ""),
        ],
        selects: vec![(
            "category",
            "it is for",
            form.select::<Category>("category", None),
        )],
        ticks: vec![
            tick("owned", "owned, not only wanted"),
            tick("comes-off", "comes off for the road"),
            tick("strip", "comes off for the surf"),
        ],
    }
}

fn how_it_lies(form: &Filled<'_>, tick: &dyn Fn(&str, &str) -> Tick) -> Group {
    Group {
        title: "How it lies and is held",
        hint: "",
        fields: vec![
            form.field(
                "fixings",
                "held by, best first",
                "worn, holder, insert, track, plate, strap, glue, drill, loose",
            ),
            form.field(
                "mount",
                "mount it needs",
                "slot, thread or hole pattern; empty: any",
            ),
            form.field("holes", "holes where it is bolted", ""),
            form.field(
                "zones",
                "likes to lie in, best first",
                "tank-well, bow-hatch, side-pocket …",
            ),
        ],
        selects: vec![
            (
                "strain",
                "puts on its fixing",
                form.select::<Strain>("strain", None),
            ),
            (
                "reach",
                "must be reached",
                form.select::<Reach>("reach", Some("need not be")),
            ),
            (
                "dryness",
                "must lie",
                form.select::<Dryness>("dryness", Some("wet or dry")),
            ),
            (
                "tether",
                "when she goes over it",
                form.select::<Tether>("tether", None),
            ),
        ],
        ticks: vec![
            tick("soft", "soft: gives where it is pressed"),
            tick("upright", "must stand upright"),
            tick("clear-above", "nothing over it"),
            tick("view-ahead", "must see ahead"),
            tick("in-the-water", "hangs in the water"),
        ],
    }
}
