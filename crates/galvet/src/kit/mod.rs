//! What is kept beside hulls: things on the shelf, rigs, waters, as people put them
//! in and change them.

mod event;
mod kept;
mod line;
mod place;
mod rig;
mod rule_words;
mod thing;
mod variant;
mod water;
mod weigh;
mod words;

pub(crate) use event::EventDraft;
pub(crate) use kept::{Kept, form_of, keep_record};
pub(crate) use line::{form_of_line, keep_line};
pub(crate) use place::PlaceDraft;
pub use rig::{LineChange, change_line, edit_rig, new_rig, put_rig};
pub(crate) use thing::ThingDraft;
pub use variant::{kept_already, put_variant, rig_with};
pub use weigh::weigh_thing;
pub use words::{Confirmed, Spoken, put_spoken, spoken};

use crate::form::Refusal;
use crate::survey::EditError;
use galvet_store::{Kind, Record, Store};

/// Changes a record of the kit as it stands now.
pub(crate) fn edit<E: Into<Refusal>>(
    store: &Store,
    (who, label): (&str, &str),
    (kind, slug): (Kind, &str),
    change: impl FnOnce(&mut Record) -> Result<(), E>,
) -> Result<(), EditError> {
    let change = |record: &mut Record| change(record).map_err(|e| EditError::Refused(e.into()));
    let done = store.edit(who, label, (kind, slug), change)?;
    done.map(|_| ()).ok_or(EditError::Gone)
}
