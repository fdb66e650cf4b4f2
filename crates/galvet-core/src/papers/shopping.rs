//! The shopping list: a hull, what its rig lacks and what must be bought to hold it, in the
//! order of a shop's shelves, and what the whole comes to against a budget.

use super::facts::Facts;
use crate::base::Keyed;
use crate::gear::{Category, Gear};
use crate::hull::{Measure, Progress};

/// Something to buy.
#[derive(Debug, Clone, PartialEq)]
pub struct Wanted {
    /// What it is.
    pub item: String,
    /// On which shelf.
    pub shelf: &'static str,
    /// How many.
    pub count: u32,
    /// Price of one; `None` where nobody knows.
    pub price: Option<f64>,
    /// Why.
    pub why: String,
    /// Whether it is an option: a want, not a must.
    pub option: bool,
    /// Whether the work uses it up: fasteners, sealant.
    pub used_up: bool,
}

/// What it comes to.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Shopping {
    /// The hull's own price.
    pub hull: Option<f64>,
    /// To be bought, by shelf.
    pub wanted: Vec<Wanted>,
    /// Owned already, by name and count.
    pub owned: Vec<(String, u32)>,
}

impl Shopping {
    /// The whole without options as far as prices are known, and how many prices are not.
    #[must_use]
    pub fn sum(&self) -> (f64, u32) {
        let must = self.wanted.iter().filter(|w| !w.option);
        let start = (self.hull.unwrap_or(0.0), u32::from(self.hull.is_none()));
        must.fold(start, |(sum, unknown), w| match w.price {
            Some(price) => (sum + f64::from(w.count) * price, unknown),
            None => (sum, unknown + 1),
        })
    }

    /// Hull and musts without what is used up in the work, as far as prices are known, and
    /// how many prices are not.
    #[must_use]
    pub fn priced(&self, hull: f64) -> (f64, u32) {
        let must = self.wanted.iter().filter(|w| !w.option && !w.used_up);
        must.fold((hull, 0), |(sum, unknown), w| match w.price {
            Some(price) => (sum + f64::from(w.count) * price, unknown),
            None => (sum, unknown + 1),
        })
    }

    /// Price of the options as far as known.
    #[must_use]
    pub fn options(&self) -> f64 {
        let options = self.wanted.iter().filter(|w| w.option);
        options
            .map(|w| f64::from(w.count) * w.price.unwrap_or(0.0))
            .sum()
    }
}

/// Draws the list up.
#[must_use]
pub fn shopping(facts: &Facts<'_>) -> Shopping {
    let mut all = Shopping {
        hull: facts.hull().value(Measure::Price),
        ..Shopping::default()
    };
    for line in &facts.rig().lines {
        let Some(thing) = line
            .thing
            .as_deref()
            .filter(|t| t.category != Category::Company)
        else {
            continue;
        };
        if thing.owned {
            all.owned.push((thing.name.clone(), line.count));
            continue;
        }
        let option = line.importance == crate::rig::Importance::Want;
        add(
            &mut all.wanted,
            Wanted {
                count: line.count,
                option,
                ..of(
                    thing,
                    if option {
                        "on the rig, if there is room"
                    } else {
                        "on the rig"
                    },
                )
            },
        );
    }
    adapters(facts, &mut all);
    for m in &facts.hull().fitout.modifications {
        if m.progress == Progress::Planned {
            all.wanted.push(Wanted {
                item: m.name.clone(),
                shelf: "workshop",
                count: 1,
                price: m.price,
                why: format!("planned modification, {} holes", m.holes),
                option: false,
                used_up: false,
            });
        }
    }
    all.wanted.extend(consumables(facts));
    all.wanted
        .sort_by_key(|w| (shelf_order(w.shelf), w.option, w.item.clone()));
    all
}

fn of(thing: &Gear, why: &str) -> Wanted {
    Wanted {
        item: thing.name.clone(),
        shelf: thing.category.label(),
        count: 1,
        price: thing.price,
        why: why.to_owned(),
        option: false,
        used_up: false,
    }
}

fn add(all: &mut Vec<Wanted>, one: Wanted) {
    match all
        .iter_mut()
        .find(|w| w.item == one.item && w.option == one.option)
    {
        Some(there) => there.count += one.count,
        None => all.push(one),
    }
}

/// Adapters things sit on that are not on the rig.
fn adapters(facts: &Facts<'_>, all: &mut Shopping) {
    for stowed in &facts.layout().stowed {
        let Some(name) = stowed.lies.as_ref().and_then(|l| l.adapter.as_ref()) else {
            continue;
        };
        if facts.things().any(|(g, _)| g.name == *name) {
            continue;
        }
        let shelf = facts.brief.at_hand.iter().find(|g| g.name == *name);
        let why = format!("{} sits on it", stowed.item);
        match shelf {
            Some(g) if g.owned => all.owned.push((name.clone(), 1)),
            Some(g) => add(&mut all.wanted, of(g, &why)),
            None => add(
                &mut all.wanted,
                Wanted {
                    item: name.clone(),
                    shelf: "workshop",
                    count: 1,
                    price: None,
                    why,
                    option: false,
                    used_up: false,
                },
            ),
        }
    }
}

/// What the job sheet uses up: fasteners, sealant, cable. Without a price: it is told, and
/// counted as not known.
fn consumables(facts: &Facts<'_>) -> Vec<Wanted> {
    let holes = super::job::job_sheet(facts).holes();
    if holes == 0 {
        return Vec::new();
    }
    let one = |item: String, why: &str| Wanted {
        item,
        shelf: "workshop",
        count: 1,
        price: None,
        why: why.to_owned(),
        option: false,
        used_up: true,
    };
    vec![
        one(
            format!("stainless fasteners for {holes} holes, with washers and locking nuts"),
            "the job sheet says which",
        ),
        one(
            "butyl or peelable marine sealant".to_owned(),
            "a gasket under every flange",
        ),
    ]
}

/// The order of a shop's shelves: as categories are listed, workshop last.
fn shelf_order(shelf: &str) -> usize {
    let place = Category::ALL.iter().position(|c| c.label() == shelf);
    place.unwrap_or(Category::ALL.len())
}
