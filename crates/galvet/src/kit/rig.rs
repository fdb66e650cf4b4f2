//! A rig as it is built, line by line.

use crate::form::{Refusal, free_slug, slug_of};
use crate::survey::EditError;
use galvet_core::base::{NameError, typed_name};
use galvet_core::gear::Gear;
use galvet_core::rig::{Importance, Rig, RigLine};
use galvet_store::{Kind, Record, Store, StoreError};

/// One step in building a rig. A line is named by its number and what it is, so
/// that nothing else is changed where somebody took one off meanwhile.
#[derive(Debug, Clone, PartialEq)]
pub enum LineChange {
    /// Another of a thing on the shelf.
    Add(Box<Gear>),
    /// One more or fewer.
    Count(i64),
    /// Must come, or may.
    Importance(Importance),
    /// Into a container of the rig, by its key; out of any with an empty one.
    Into(String),
    /// Off the rig.
    Off,
}

/// A new rig with nothing on it.
pub fn new_rig(name: &str) -> Result<Rig, NameError> {
    Ok(Rig {
        key: String::new(),
        name: typed_name(name)?,
        lines: Vec::new(),
    })
}

/// Keeps a new rig under a slug made of its name; returns the slug.
///
/// # Errors
/// [`StoreError`].
pub fn put_rig(store: &Store, who: &str, mut rig: Rig) -> Result<String, StoreError> {
    let label = format!("rig “{}” started", rig.name);
    store.write(who, &label, |door| {
        rig.key = free_slug(door, Kind::Rig, &slug_of(&rig.name, "rig"))?;
        let key = rig.key.clone();
        door.put(&Record::Rig(rig), None)?;
        Ok(key)
    })
}

/// Changes a rig as it stands now; `label` names the change in the history.
///
/// # Errors
/// [`EditError`]; nothing is changed then.
pub fn edit_rig(
    store: &Store,
    who: &str,
    slug: &str,
    label: &str,
    change: impl Fn(&mut Rig) -> Result<(), Refusal>,
) -> Result<(), EditError> {
    super::edit(store, (who, label), (Kind::Rig, slug), |record| {
        let Record::Rig(rig) = record else {
            return Err(Refusal::from("that is no rig"));
        };
        change(rig)
    })
}

/// Most lines of a rig.
const MOST: usize = 400;

/// Takes one step; `line` is the line's number and what it is.
///
/// # Errors
/// In words, when the line is not there (any more), or it makes no sense.
pub fn change_line(
    rig: &mut Rig,
    (line, item): (usize, &str),
    change: &LineChange,
) -> Result<(), String> {
    if let LineChange::Add(gear) = change {
        return add(rig, gear);
    }
    let there = rig.lines.get(line).is_some_and(|l| l.item == item);
    if !there {
        return Err("somebody changed this rig meanwhile; look at it anew".to_owned());
    }
    match change {
        LineChange::Add(_) => {}
        LineChange::Count(by) => {
            let count = i64::from(rig.lines[line].count) + by;
            if count < 1 {
                return take_off(rig, line);
            }
            let most = RigLine::COUNT.hi as i64;
            if count > most {
                return Err(format!("at most {most} of one thing"));
            }
            rig.lines[line].count = u32::try_from(count).unwrap_or(1);
        }
        LineChange::Importance(importance) => rig.lines[line].importance = *importance,
        LineChange::Into(container) => {
            let own = rig.lines[line].gear.as_deref();
            if !container.is_empty() {
                let holds = |l: &RigLine| {
                    let inside = l.thing.as_ref().and_then(|t| t.brings.inside);
                    l.gear.as_deref() == Some(container.as_str()) && inside.is_some()
                };
                if own == Some(container.as_str()) {
                    return Err("a thing does not go into itself".to_owned());
                }
                if !rig.lines.iter().any(|l| holds(l) && l.within.is_empty()) {
                    return Err("that container is not on the rig".to_owned());
                }
                if own.is_some_and(|own| rig.lines.iter().any(|l| l.within == own)) {
                    return Err("take out what is packed in it first".to_owned());
                }
            }
            rig.lines[line].within.clone_from(container);
        }
        LineChange::Off => return take_off(rig, line),
    }
    Ok(())
}

fn add(rig: &mut Rig, gear: &Gear) -> Result<(), String> {
    let same =
        |l: &&mut RigLine| l.gear.as_deref() == Some(gear.key.as_str()) && l.within.is_empty();
    if let Some(line) = rig.lines.iter_mut().find(same) {
        line.count += 1;
        return Ok(());
    }
    if rig.lines.len() >= MOST {
        return Err(format!("at most {MOST} lines on one rig"));
    }
    rig.lines.push(RigLine::of(gear));
    Ok(())
}

/// Takes a line off; what was packed in it lies by itself then.
fn take_off(rig: &mut Rig, line: usize) -> Result<(), String> {
    let gone = rig.lines.remove(line);
    let more = rig.lines.iter().any(|l| l.gear == gone.gear);
    if let Some(key) = gone.gear.filter(|_| !more) {
        for line in rig.lines.iter_mut().filter(|l| l.within == key) {
            line.within.clear();
        }
    }
    Ok(())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_rig_is_built_line_by_line() {
        let shelf = crate::demo_data::catalogue().unwrap().gear;
        let thing = |key: &str| shelf.iter().find(|g| g.key == key).unwrap().clone();
        let mut rig = new_rig("  My day  ").unwrap();
        assert_eq!(rig.name, "My day");
        let add = |key: &str| LineChange::Add(Box::new(thing(key)));
        for key in [
            "open-crate",
            "tackle-box-36",
            "tackle-box-36",
            "rod-and-reel",
        ] {
            change_line(&mut rig, (0, ""), &add(key)).unwrap();
        }
        assert_eq!((rig.lines.len(), rig.lines[1].count), (3, 2));
        let boxes = rig.lines[1].item.clone();
        let into = |key: &str| LineChange::Into(key.to_owned());
        change_line(&mut rig, (1, &boxes), &into("open-crate")).unwrap();
        // Another one of what is packed lies by itself.
        change_line(&mut rig, (0, ""), &add("tackle-box-36")).unwrap();
        assert_eq!(rig.lines.len(), 4);
        let told = |rig: &mut Rig, line, item: &str, change: LineChange| {
            change_line(rig, (line, item), &change).unwrap_err()
        };
        assert!(told(&mut rig, 2, "a kettle", LineChange::Off).contains("meanwhile"));
        let rod = rig.lines[2].item.clone();
        assert!(told(&mut rig, 2, &rod, into("tackle-box-36")).contains("not on the rig"));
        let crate_ = rig.lines[0].item.clone();
        assert!(told(&mut rig, 0, &crate_, into("open-crate")).contains("into itself"));
        assert!(told(&mut rig, 2, &rod, LineChange::Count(80)).contains("at most 50"));
        change_line(
            &mut rig,
            (2, &rod),
            &LineChange::Importance(Importance::Want),
        )
        .unwrap();
        change_line(&mut rig, (2, &rod), &LineChange::Count(-1)).unwrap();
        assert_eq!(rig.lines.len(), 3);
        // With its container gone, what was in it lies by itself.
        change_line(&mut rig, (0, &crate_), &LineChange::Off).unwrap();
        assert!(rig.lines.iter().all(|l| l.within.is_empty()));
        assert_eq!(rig.lines.iter().map(|l| l.count).sum::<u32>(), 3);
    }
}
