//! The shelf: what there is, where it is used; and a thing's form.

pub mod offer;
pub mod outing;
pub mod rig;
pub mod stow;
pub mod work;

use crate::present::draw::symbol::symbol;
use galvet_core::base::{Dimension, Keyed, System};
use galvet_core::gear::{Category, Electric, Gear};
use galvet_core::rig::Rig;
use galvet_store::Catalogue;
use galvet_store::files::customer::CustomerEntry;
use std::collections::BTreeMap;

/// A thing in the list.
pub struct ThingLine {
    pub key: String,
    pub name: String,
    /// Which symbol stands for it.
    pub symbol: &'static str,
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
    /// Whether it is a customer's.
    pub private: bool,
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
pub fn kit(on: &Catalogue, find: &str, system: System) -> KitView {
    let (gear, rigs, theirs) = (&on.gear, &on.rigs, on.rigs_of_customers());
    let used = |g: &Gear| on_rigs(g, rigs, &theirs);
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
                .map(|g| thing_line(g, used(g), system))
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
                private: theirs.contains_key(rig.key.as_str()),
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

fn thing_line(g: &Gear, used: Vec<String>, system: System) -> ThingLine {
    let mut words = Vec::new();
    match g.size {
        Some(size) => {
            words.push(sides(size, system));
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
    ThingLine {
        key: g.key.clone(),
        name: g.name.clone(),
        symbol: symbol(&g.name, Some(g.category)),
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
        used,
    }
}

/// "40 × 33 × 28 cm": three sides with one unit, to a tenth where one needs it.
#[must_use]
pub fn sides(size: [f64; 3], system: System) -> String {
    let of = Dimension::ShortLength;
    let whole = |m: f64| {
        let fine: f64 = system.number(of, m, 1).parse().unwrap_or(0.5);
        fine.fract() == 0.0
    };
    let decimals = usize::from(!size.iter().all(|&m| whole(m)));
    let [length, width, height] = size;
    let number = |m| system.number(of, m, decimals);
    let last = system.text(of, height, decimals);
    format!("{} × {} × {last}", number(length), number(width))
}

/// Names of the rigs a thing is on; of customers' rigs only that there are some, since
/// whoever looks on reads it.
#[must_use]
pub fn used_by(gear: &Gear, catalogue: &Catalogue) -> Vec<String> {
    on_rigs(gear, &catalogue.rigs, &catalogue.rigs_of_customers())
}

fn on_rigs(gear: &Gear, rigs: &[Rig], theirs: &BTreeMap<&str, &CustomerEntry>) -> Vec<String> {
    let on = |rig: &&Rig| {
        let mut lines = rig.lines.iter();
        lines.any(|l| l.gear.as_deref() == Some(gear.key.as_str()))
    };
    let rigs = rigs.iter().filter(on);
    let (hidden, ours): (Vec<_>, Vec<_>) =
        rigs.partition(|rig| theirs.contains_key(rig.key.as_str()));
    let names = ours.iter().map(|rig| rig.name.clone());
    let some = (!hidden.is_empty()).then(|| "a customer’s rig".to_owned());
    names.chain(some).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn sides_stand_in_one_unit() {
        let metric = |size| sides(size, System::Metric);
        assert_eq!(metric([0.40, 0.33, 0.28]), "40 × 33 × 28\u{a0}cm");
        assert_eq!(metric([0.405, 0.33, 0.28]), "40.5 × 33.0 × 28.0\u{a0}cm");
        let inches = sides([0.254, 0.127, 0.0508], System::Imperial);
        assert_eq!(inches, "10.0 × 5.0 × 2.0\u{a0}in");
    }
}
