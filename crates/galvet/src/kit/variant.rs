//! A rig changed by a remedy, kept as a rig of its own: the one it came from stays.

use crate::form::{free_slug, slug_of};
use galvet_core::figures::{Change, Remedy};
use galvet_core::rig::Rig;
use galvet_store::{Kind, Record, Store, StoreError};

/// Longest name of a rig.
const LONGEST: usize = 80;

/// The rig `kept` with a remedy that was worked out for `asked`: what of it is on the
/// shelf, without who comes along and what is caught.
///
/// # Errors
/// In words, where the rig was changed meanwhile.
pub fn rig_with(kept: &Rig, asked: &Rig, remedy: &Remedy) -> Result<Rig, String> {
    let same = |line: usize| {
        let (a, b) = (kept.lines.get(line), asked.lines.get(line));
        a.zip(b)
            .is_some_and(|(a, b)| a.item == b.item && a.gear == b.gear)
    };
    let (all_there, added) = match &remedy.change {
        Change::Ashore(wants) => {
            let names: Vec<&str> = wants.iter().map(|(_, name)| name.as_str()).collect();
            let there = wants.iter().all(|(line, _)| same(*line));
            (there, format!("without {}", names.join(", ")))
        }
        Change::Bring(gear) => (true, format!("with {}", gear.name)),
        Change::Swap(line, gear) => (same(*line), format!("with {}", gear.name)),
        Change::Fit(_) => return Err("that changes the hull, not the rig".to_owned()),
    };
    if !all_there {
        return Err("somebody changed this rig meanwhile; look at it anew".to_owned());
    }
    let mut rig = remedy.rig(kept);
    rig.lines.retain(|line| line.count > 0);
    rig.key = String::new();
    rig.name = format!("{} {added}", kept.name)
        .chars()
        .take(LONGEST)
        .collect();
    Ok(rig)
}

/// A rig like it that is kept already.
#[must_use]
pub fn kept_already<'r>(rigs: &'r [Rig], rig: &Rig) -> Option<&'r Rig> {
    rigs.iter()
        .find(|r| r.name == rig.name && r.lines == rig.lines)
}

/// Keeps a variant under a slug of its own; what was put by hand on a hull for the rig
/// `was` stays put there for the variant. One step, which Undo takes back.
///
/// # Errors
/// [`StoreError`], a conflict where somebody changed the hull at the same moment.
pub fn put_variant(
    store: &Store,
    who: &str,
    mut rig: Rig,
    (hull, was): (&str, &str),
) -> Result<String, StoreError> {
    let label = format!("rig “{}” started", rig.name);
    let record = store.record(Kind::Hull, hull)?;
    store.write(who, &label, |door| {
        rig.key = free_slug(door, Kind::Rig, &slug_of(&rig.name, "rig"))?;
        let key = rig.key.clone();
        let on_it = |thing: &str| rig.lines.iter().any(|l| l.gear.as_deref() == Some(thing));
        if let Some((known, Record::Hull(mut hull))) = record {
            let laid = &mut hull.survey.looked.laid;
            let mut pins = laid.get(was).cloned().unwrap_or_default();
            pins.retain(|pin| on_it(&pin.thing));
            if !pins.is_empty() {
                laid.insert(key.clone(), pins);
                door.put(&Record::Hull(hull), Some(known))?;
            }
        }
        door.put(&Record::Rig(rig), None)?;
        Ok(key)
    })
}
