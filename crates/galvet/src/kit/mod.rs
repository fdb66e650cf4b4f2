//! What is kept beside hulls: things on the shelf, rigs, waters, as people put them
//! in and change them.

mod rig;
mod thing;
mod variant;
mod water;

pub use rig::{LineChange, change_line, edit_rig, new_rig, put_rig};
pub use thing::{edit_thing, put_thing, read_thing, shown_thing, weigh_thing};
pub use variant::{kept_already, put_variant, rig_with};
pub use water::{asks, edit_water, put_water, read_water, shown_water};

use crate::survey::{EditError, Refusal};
use galvet_store::{Kind, Record, Store};

/// Puts what was typed over a record as it stands.
fn put_over(record: &mut Record, shown: &Record, typed: &Record) -> Result<(), Refusal> {
    let over = record.typed_over(shown, typed);
    *record = over.map_err(|e| Refusal::from(e.to_string()))?;
    Ok(())
}

/// Changes a record of the kit as it stands now.
fn edit<E: Into<Refusal>>(
    store: &Store,
    (who, label): (&str, &str),
    (kind, slug): (Kind, &str),
    change: impl FnOnce(&mut Record) -> Result<(), E>,
) -> Result<(), EditError> {
    let change = |record: &mut Record| change(record).map_err(|e| EditError::Refused(e.into()));
    let done = store.edit(who, label, (kind, slug), change)?;
    done.map(|_| ()).ok_or(EditError::Gone)
}
