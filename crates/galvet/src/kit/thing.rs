//! A thing on the shelf as it is typed.

use crate::survey::{EditError, Mistakes, Refusal, Shown, Typed, free_slug, shown_across, slug_of};
use galvet_core::base::{Dimension, Keyed, System};
use galvet_core::gear::{Brings, Category, Electric, Gear, Needs, Strain, Tether};
use galvet_store::{Kind, Record, Store, StoreError};
use std::collections::HashMap;

/// A thing as its form shows it.
#[must_use]
pub fn shown_thing(g: &Gear, system: System) -> Shown {
    let mass = |kg: f64| system.text(Dimension::Mass, kg, 2);
    let across = |m: Option<f64>| m.map_or(String::new(), |m| shown_across(system, m));
    let number = |n: f64| {
        if n == 0.0 {
            String::new()
        } else {
            format!("{n}")
        }
    };
    let tick = |is: bool| if is { "yes" } else { "" }.to_owned();
    let size = |n: usize| across(g.size.map(|s| s[n]));
    let inside = |n: usize| across(g.brings.inside.map(|s| s[n]));
    let at_volts = match g.electric {
        Electric::Draw { volts, .. } => volts,
        _ => None,
    };
    let (watts, duty, volts, amp_hours, chemistry) = match g.electric {
        Electric::None => (0.0, 0.0, 0.0, 0.0, ""),
        Electric::Draw { watts, duty, .. } => (watts, 100.0 * duty, 0.0, 0.0, ""),
        Electric::Battery {
            volts,
            amp_hours,
            chemistry,
        } => (0.0, 0.0, volts, amp_hours, chemistry.key()),
    };
    let adapts = g.brings.adapts.clone().unwrap_or_default();
    Shown::of([
        ("name", g.name.clone()),
        ("category", g.category.key().to_owned()),
        ("dry", mass(g.dry_mass)),
        (
            "loaded",
            if g.loaded_mass == g.dry_mass {
                String::new()
            } else {
                mass(g.loaded_mass)
            },
        ),
        ("length", size(0)),
        ("width", size(1)),
        ("height", size(2)),
        ("soft", tick(g.soft)),
        ("centre", across(g.centre_height)),
        ("fixings", words(&g.fixings)),
        ("strain", g.strain.key().to_owned()),
        ("holes", number(f64::from(g.holes))),
        ("mount", g.mount.clone()),
        ("zones", words(&g.zones)),
        ("reach", key(g.needs.reach)),
        ("dryness", key(g.needs.dry)),
        ("upright", tick(g.needs.upright)),
        ("clear-above", tick(g.needs.clear_above)),
        ("view-ahead", tick(g.needs.view_ahead)),
        ("in-the-water", tick(g.needs.in_the_water)),
        ("tether", g.tether.key().to_owned()),
        ("watts", number(watts)),
        ("duty", number(duty)),
        ("at-volts", at_volts.map_or(String::new(), number)),
        ("volts", number(volts)),
        ("amp-hours", number(amp_hours)),
        ("chemistry", chemistry.to_owned()),
        ("inside-length", inside(0)),
        ("inside-width", inside(1)),
        ("inside-height", inside(2)),
        ("tubes", number(f64::from(g.brings.tubes))),
        ("lid", tick(g.brings.lid)),
        ("keeps", key(g.brings.keeps)),
        ("adapts-on", adapts.0),
        ("adapts-to", adapts.1),
        ("fish", across(g.brings.fish)),
        ("tethers", number(f64::from(g.brings.tethers))),
        ("helps-up", tick(g.brings.helps_up)),
        ("minutes", g.setup_minutes.map_or(String::new(), number)),
        ("comes-off", tick(g.comes_off)),
        ("strip", tick(g.strip_for_surf)),
        ("price", g.price.map_or(String::new(), |p| format!("{p}"))),
        ("owned", tick(g.owned)),
        ("note", g.note.clone()),
    ])
}

fn key<T: Keyed>(word: Option<T>) -> String {
    word.map_or(String::new(), |word| word.key().to_owned())
}

fn words<T: Keyed>(all: &[T]) -> String {
    let keys: Vec<&str> = all.iter().map(|w| w.key()).collect();
    keys.join(", ")
}

/// Words of a list as it was typed, each one that is known.
fn list<T: Keyed>(typed: &mut Typed<'_>, name: &str) -> Vec<T> {
    let text = typed.text(name).to_owned();
    let split = text.split([',', ' ']).filter(|w| !w.is_empty());
    let mut out = Vec::new();
    for word in split {
        match T::from_key(word) {
            Some(known) => out.push(known),
            None => {
                let all: Vec<&str> = T::ALL.iter().map(|w| w.key()).collect();
                let problem = format!("“{word}” is none of them; accepted: {}", all.join(", "));
                typed.mistakes.insert(name.to_owned(), problem);
            }
        }
    }
    out
}

/// Three lengths that stand together: all or none.
fn size(typed: &mut Typed<'_>, names: [&str; 3]) -> Option<[f64; 3]> {
    let given = names.iter().filter(|n| !typed.text(n).is_empty()).count();
    if given == 0 {
        return None;
    }
    let read = names.map(|name| typed.number(name, Gear::SIZE));
    let [Some(length), Some(width), Some(height)] = read else {
        return None;
    };
    Some([length, width, height])
}

fn electric(typed: &mut Typed<'_>) -> Electric {
    let draws = !typed.text("watts").is_empty();
    let battery = !typed.text("volts").is_empty() || !typed.text("amp-hours").is_empty();
    if draws && battery {
        let both = "a thing draws or is a battery, not both".to_owned();
        typed.mistakes.insert("watts".to_owned(), both);
        return Electric::None;
    }
    if draws {
        let watts = typed.number("watts", Gear::WATTS);
        let percent =
            galvet_core::base::Bounds::new("share of the time, %", Dimension::Ratio, 0.0, 100.0);
        let duty = typed.maybe("duty", percent).unwrap_or(100.0) / 100.0;
        let volts = typed.maybe("at-volts", Gear::VOLTS);
        return watts.map_or(Electric::None, |watts| Electric::Draw {
            watts,
            duty,
            volts,
        });
    }
    if battery {
        let volts = typed.number("volts", Gear::VOLTS);
        let amp_hours = typed.number("amp-hours", Gear::AMP_HOURS);
        let chemistry = Keyed::from_key(typed.text("chemistry"));
        if let (Some(volts), Some(amp_hours)) = (volts, amp_hours) {
            return Electric::Battery {
                volts,
                amp_hours,
                // What nobody said is not taken for the best.
                chemistry: chemistry.unwrap_or(galvet_core::gear::Chemistry::Other),
            };
        }
    }
    Electric::None
}

/// Reads a thing from its form; `was` is the one on the shelf, whose key it keeps.
///
/// # Errors
/// What was not understood, field by field.
pub fn read_thing(
    was: Option<&Gear>,
    form: &HashMap<String, String>,
    system: System,
) -> Result<Gear, Mistakes> {
    let mut typed = Typed::of(form, system);
    let short = |typed: &Typed<'_>, name: &str, most: usize| -> String {
        typed.text(name).chars().take(most).collect()
    };
    let yes = |typed: &Typed<'_>, name: &str| !typed.text(name).is_empty();
    let name = typed.name("name");
    let dry = typed.number("dry", Gear::MASS);
    let loaded = typed.maybe("loaded", Gear::MASS);
    let outside = size(&mut typed, ["length", "width", "height"]);
    let inside = size(
        &mut typed,
        ["inside-length", "inside-width", "inside-height"],
    );
    let count = galvet_core::base::Bounds::new("a number", Dimension::Ratio, 0.0, 50.0);
    let holes = typed.maybe("holes", count).unwrap_or(0.0) as u16;
    let tubes = typed.maybe("tubes", count).unwrap_or(0.0) as u16;
    let tethers = typed.maybe("tethers", count).unwrap_or(0.0) as u16;
    let (on, offers) = (
        short(&typed, "adapts-on", 80),
        short(&typed, "adapts-to", 80),
    );
    let read = Gear {
        key: was.map_or(String::new(), |w| w.key.clone()),
        category: Category::from_key(typed.text("category")).unwrap_or(Category::Other),
        dry_mass: dry.unwrap_or_default(),
        loaded_mass: loaded.or(dry).unwrap_or_default(),
        size: outside,
        soft: yes(&typed, "soft"),
        centre_height: typed.maybe("centre", Gear::SIZE),
        fixings: list(&mut typed, "fixings"),
        holes,
        mount: short(&typed, "mount", 80),
        zones: list(&mut typed, "zones"),
        needs: Needs {
            reach: Keyed::from_key(typed.text("reach")),
            dry: Keyed::from_key(typed.text("dryness")),
            upright: yes(&typed, "upright"),
            clear_above: yes(&typed, "clear-above"),
            view_ahead: yes(&typed, "view-ahead"),
            in_the_water: yes(&typed, "in-the-water"),
        },
        // What nobody said sinks: the careful reading.
        tether: Tether::from_key(typed.text("tether")).unwrap_or(Tether::Sinks),
        electric: electric(&mut typed),
        strain: Strain::from_key(typed.text("strain")).unwrap_or(Strain::Light),
        brings: Brings {
            inside,
            tubes,
            lid: yes(&typed, "lid"),
            keeps: Keyed::from_key(typed.text("keeps")),
            adapts: (!on.is_empty() && !offers.is_empty()).then_some((on, offers)),
            fish: typed.maybe("fish", Gear::SIZE),
            tethers,
            helps_up: yes(&typed, "helps-up"),
        },
        setup_minutes: typed.maybe("minutes", Gear::MINUTES),
        comes_off: yes(&typed, "comes-off"),
        strip_for_surf: yes(&typed, "strip"),
        price: typed.maybe("price", Gear::PRICE),
        owned: yes(&typed, "owned"),
        note: short(&typed, "note", 500),
        name,
    };
    if !typed.mistakes.is_empty() {
        return Err(typed.mistakes);
    }
    read.check()
        .map_err(|error| [(String::new(), error.to_string())].into())
}

/// Puts a new thing on the shelf under a slug made of its name; returns the slug.
///
/// # Errors
/// [`StoreError`].
pub fn put_thing(store: &Store, who: &str, mut gear: Gear) -> Result<String, StoreError> {
    let label = format!("{} put on the shelf", gear.name);
    store.write(who, &label, |door| {
        gear.key = free_slug(door, Kind::Gear, &slug_of(&gear.name, "thing"))?;
        let key = gear.key.clone();
        door.put(&Record::Gear(Box::new(gear)), None)?;
        Ok(key)
    })
}

/// Notes what a scale showed for a thing on the shelf: packed, or as it is on the
/// water.
///
/// # Errors
/// [`EditError`]; nothing is changed then.
pub fn weigh_thing(
    store: &Store,
    who: &str,
    slug: &str,
    loaded: bool,
    (mass, note): (f64, &str),
) -> Result<(), EditError> {
    let label = format!("{} weighed", slug.replace('-', " "));
    super::edit(store, (who, &label), (Kind::Gear, slug), |record| {
        let Record::Gear(gear) = record else {
            return Err(Refusal::from("that is no thing on the shelf"));
        };
        if loaded {
            gear.loaded_mass = mass;
        } else {
            // The water, ice and fish in it weigh what they did.
            gear.loaded_mass += mass - gear.dry_mass;
            gear.dry_mass = mass;
        }
        if gear.loaded_mass < gear.dry_mass {
            let light = "lighter on the water than packed: weigh it packed as well";
            return Err(Refusal::from(light));
        }
        // The same weighing's older note gives way; all else somebody wrote stays.
        let same = note.split(", steady").next().unwrap_or(note);
        let said = gear
            .note
            .split("; ")
            .filter(|n| !n.is_empty() && !n.starts_with(same));
        let notes: Vec<&str> = said.chain([note]).collect();
        gear.note = notes.join("; ");
        let checked = (**gear).clone().check();
        checked
            .map(|_| ())
            .map_err(|e| Refusal::from(e.to_string()))
    })
}

/// Changes a thing on the shelf: what was typed over it as it stands now.
///
/// # Errors
/// [`EditError`]; nothing is changed then.
pub fn edit_thing(
    store: &Store,
    who: &str,
    slug: &str,
    form: &HashMap<String, String>,
    system: System,
) -> Result<(), EditError> {
    let label = format!("{} changed", slug.replace('-', " "));
    super::edit(store, (who, &label), (Kind::Gear, slug), |record| {
        let Record::Gear(gear) = record else {
            return Err(Refusal::from("that is no thing on the shelf"));
        };
        let mine = read_thing(Some(gear), form, system)?;
        let merged = shown_thing(gear, system).merge(form, &shown_thing(&mine, system))?;
        let typed = read_thing(Some(gear), &merged, system)?;
        let shown = read_thing(Some(gear), &shown_thing(gear, system).fields(), system)?;
        let (shown, typed) = (Box::new(shown), Box::new(typed));
        super::put_over(record, &Record::Gear(shown), &Record::Gear(typed))?;
        Ok(())
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_thing_of_the_demo_reads_back_as_it_is_shown() {
        for gear in crate::demo_data::catalogue().unwrap().gear {
            for system in [System::Metric, System::Imperial] {
                let shown = shown_thing(&gear, system);
                let form: HashMap<String, String> =
                    serde_json::from_str(&shown.sent_along()).unwrap();
                let back = read_thing(Some(&gear), &form, system).unwrap();
                assert_eq!(shown_thing(&back, system), shown, "{}", gear.key);
                assert_eq!(
                    (back.category, &back.fixings, &back.zones, &back.needs),
                    (gear.category, &gear.fixings, &gear.zones, &gear.needs)
                );
            }
        }
    }

    #[test]
    fn what_is_wrong_is_named_at_its_field() {
        let told = |pairs: &[(&str, &str)]| {
            let form = pairs
                .iter()
                .map(|&(n, v)| (n.to_owned(), v.to_owned()))
                .collect();
            read_thing(None, &form, System::Metric).unwrap_err()
        };
        let all = told(&[
            ("dry", "a lot"),
            ("length", "40"),
            ("fixings", "strap, magnet"),
        ]);
        let names: Vec<&str> = all.keys().map(String::as_str).collect();
        assert_eq!(names, ["dry", "fixings", "height", "name", "width"]);
        assert!(all["fixings"].contains("“magnet” is none of them; accepted: worn, holder"));
        let both = told(&[
            ("name", "a"),
            ("dry", "1"),
            ("watts", "10"),
            ("volts", "12"),
        ]);
        assert!(both["watts"].contains("not both"));
        let light = told(&[("name", "a"), ("dry", "3"), ("loaded", "2")]);
        assert!(light[""].contains("loaded mass"), "{light:?}");
    }
}
