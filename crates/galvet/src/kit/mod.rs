//! What is kept beside hulls: things on the shelf, rigs, waters, as people put them
//! in and change them.

mod rig;
mod thing;
mod variant;
mod water;

pub use rig::{LineChange, change_line, edit_rig, new_rig, put_rig};
pub use thing::{edit_thing, put_thing, read_thing, shown_thing, weigh_thing};
pub use variant::{kept_already, put_variant, rig_with};
pub use water::{asks, edit_water, forget_water, put_water, read_water, shown_water};

use crate::survey::{EditError, Refusal};
use galvet_store::{Kind, Record, Store, StoreError};

/// Times a change is tried again when somebody else was quicker.
const TRIES: usize = 5;

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
    change: impl Fn(&mut Record) -> Result<(), E>,
) -> Result<(), EditError> {
    for _ in 0..TRIES {
        let Some((known, record)) = store.record(kind, slug)? else {
            return Err(EditError::Gone);
        };
        let mut changed = record.clone();
        change(&mut changed).map_err(|e| EditError::Refused(e.into()))?;
        if changed == record {
            return Ok(());
        }
        match store.write(who, label, |door| door.put(&changed, Some(known))) {
            Err(StoreError::Conflict { .. }) => {}
            done => return Ok(done.map(|_| ())?),
        }
    }
    let busy = "others keep changing this; try once more";
    Err(EditError::Refused(busy.into()))
}
