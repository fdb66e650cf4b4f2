//! A water as it is typed.

use crate::survey::{EditError, Mistakes, Refusal, Shown, Typed, free_slug, slug_of};
use galvet_core::base::{Bounds, Dimension, Keyed, System};
use galvet_core::question::{Demand, StandingUse, Water};
use galvet_store::{Kind, Record, Store, StoreError};
use std::collections::HashMap;

/// Shares as they are typed.
const PERCENT: Bounds = Bounds::new("a share, %", Dimension::Ratio, 0.0, 100.0);
/// Longest caution, and most of them.
const LONGEST: usize = 400;
const MOST: usize = 20;

/// A water as its form shows it.
#[must_use]
pub fn shown_water(w: &Water, system: System) -> Shown {
    let percent = |share: f64| format!("{}", (share * 1000.0).round() / 10.0);
    let tick = |is: bool| if is { "yes" } else { "" }.to_owned();
    let fine = |m: f64| system.text(Dimension::FineLength, m, 0);
    Shown::of(
        [
            ("name", w.name.clone()),
            ("density", format!("{}", w.density)),
            ("freeboard", fine(w.freeboard)),
            ("floor", fine(w.floor_clearance)),
            ("share", percent(w.working_share)),
            ("depth", system.text(Dimension::Length, w.least_depth, 2)),
            ("conditions", w.conditions.clone()),
            ("standing", w.standing.key().to_owned()),
            ("weight", percent(w.capacity_weight)),
            ("reserve", percent(w.reserve_share)),
            ("drains", tick(w.must_drain)),
            ("plugs", tick(w.plugs_allowed)),
            ("cautions", w.cautions.join("\n")),
        ]
        .into_iter()
        .chain(
            Demand::ALL
                .iter()
                .map(|&d| (asks(d), tick(w.demands.contains(&d)))),
        ),
    )
}

/// The form's name of a thing a water asks.
#[must_use]
pub const fn asks(demand: Demand) -> &'static str {
    match demand {
        Demand::Drains => "asks-drains",
        Demand::OneDrags => "asks-one-drags",
        Demand::HoldsCourse => "asks-holds-course",
        Demand::DriveLifts => "asks-drive-lifts",
        Demand::Turns => "asks-turns",
    }
}

/// Reads a water from its form; `was` is the one on record, whose key it keeps.
///
/// # Errors
/// What was not understood, field by field.
pub fn read_water(
    was: Option<&Water>,
    form: &HashMap<String, String>,
    system: System,
) -> Result<Water, Mistakes> {
    let mut typed = Typed::of(form, system);
    let yes = |typed: &Typed<'_>, name: &str| !typed.text(name).is_empty();
    let name = typed.name("name");
    let share = |typed: &mut Typed<'_>, name: &str| typed.number(name, PERCENT).map(|p| p / 100.0);
    let read = (
        typed.number("density", Water::DENSITY),
        typed.number("freeboard", Water::FREEBOARD),
        typed.number("floor", Water::FLOOR),
        share(&mut typed, "share"),
        typed.number("depth", Water::DEPTH),
        share(&mut typed, "weight"),
        share(&mut typed, "reserve"),
    );
    if let Some(working) = read.3
        && let Err(error) = Water::SHARE.check(working)
    {
        typed.mistakes.insert("share".to_owned(), error.to_string());
    }
    let lines = typed.text("cautions").lines().map(str::trim);
    let cautions = lines.filter(|l| !l.is_empty()).take(MOST);
    let cautions = cautions.map(|l| l.chars().take(LONGEST).collect());
    let cautions: Vec<String> = cautions.collect();
    let standing = StandingUse::from_key(typed.text("standing")).unwrap_or(StandingUse::No);
    let (must_drain, plugs_allowed) = (yes(&typed, "drains"), yes(&typed, "plugs"));
    let asked = Demand::ALL.iter().copied();
    let demands = asked.filter(|&d| yes(&typed, asks(d))).collect();
    let conditions = typed.text("conditions").chars().take(LONGEST).collect();
    let (Some(density), Some(freeboard), Some(floor), Some(share), Some(depth)) =
        (read.0, read.1, read.2, read.3, read.4)
    else {
        return Err(typed.mistakes);
    };
    let (Some(weight), Some(reserve), true) = (read.5, read.6, typed.mistakes.is_empty()) else {
        return Err(typed.mistakes);
    };
    Ok(Water {
        key: was.map_or(String::new(), |w| w.key.clone()),
        name,
        density,
        freeboard,
        floor_clearance: floor,
        working_share: share,
        least_depth: depth,
        conditions,
        standing,
        capacity_weight: weight,
        reserve_share: reserve,
        must_drain,
        plugs_allowed,
        demands,
        cautions,
    })
}

/// Keeps a new water under a slug made of its name; returns the slug.
///
/// # Errors
/// [`StoreError`].
pub fn put_water(store: &Store, who: &str, mut water: Water) -> Result<String, StoreError> {
    let label = format!("{} put among the waters", water.name);
    store.write(who, &label, |door| {
        water.key = free_slug(door, Kind::Water, &slug_of(&water.name, "water"))?;
        let key = water.key.clone();
        door.put(&Record::Water(water), None)?;
        Ok(key)
    })
}

/// Changes a water: what was typed over it as it stands now.
///
/// # Errors
/// [`EditError`]; nothing is changed then.
pub fn edit_water(
    store: &Store,
    who: &str,
    slug: &str,
    form: &HashMap<String, String>,
    system: System,
) -> Result<(), EditError> {
    let label = format!("{} changed", slug.replace('-', " "));
    super::edit(store, (who, &label), (Kind::Water, slug), |record| {
        let Record::Water(water) = record else {
            return Err(Refusal::from("that is no water"));
        };
        let mine = read_water(Some(water), form, system)?;
        let merged = shown_water(water, system).merge(form, &shown_water(&mine, system))?;
        let typed = read_water(Some(water), &merged, system)?;
        let shown = read_water(Some(water), &shown_water(water, system).fields(), system)?;
        super::put_over(record, &Record::Water(shown), &Record::Water(typed))?;
        Ok(())
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_water_of_the_demo_reads_back_as_it_is_shown() {
        for water in crate::demo_data::catalogue().unwrap().waters {
            for system in [System::Metric, System::Imperial] {
                let shown = shown_water(&water, system);
                let form: HashMap<String, String> =
                    serde_json::from_str(&shown.sent_along()).unwrap();
                let back = read_water(Some(&water), &form, system).unwrap();
                assert_eq!(shown_water(&back, system), shown, "{}", water.key);
                if system == System::Metric {
                    assert_eq!(back, water);
                }
            }
        }
    }

    #[test]
    fn what_is_wrong_is_named_at_its_field() {
        let form = [
            ("name", ""),
            ("density", "800"),
            ("freeboard", "3 m"),
            ("floor", "10 mm"),
            ("share", "10"),
            ("depth", "deep"),
            ("weight", "140"),
            ("reserve", "50"),
        ];
        let form = form.map(|(n, v)| (n.to_owned(), v.to_owned())).into();
        let all = read_water(None, &form, System::Metric).unwrap_err();
        let names: Vec<&str> = all.keys().map(String::as_str).collect();
        assert_eq!(
            names,
            ["density", "depth", "freeboard", "name", "share", "weight"]
        );
    }
}
