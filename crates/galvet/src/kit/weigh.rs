//! A thing on the scale: what was read, noted with it.

use crate::form::Refusal;
use crate::survey::EditError;
use galvet_store::{Kind, Record, Store};

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
