//! Papers handed out by an address that nobody guesses: read-only, until withdrawn.

use crate::form::Refusal;
use crate::survey::EditError;
use galvet_store::files::handed::Handed;
use galvet_store::files::sheet::{Document, Sheet};
use galvet_store::{Catalogue, Kind, Record, Store};

/// Random bytes of an address: 128 bits.
const BYTES: usize = 16;

/// All that are out, the newest first.
#[must_use]
pub fn handed(catalogue: &Catalogue) -> Vec<Handed> {
    let mut all = catalogue.sheets_of::<Handed>();
    all.sort_by(|a, b| b.made.cmp(&a.made).then_with(|| a.name.cmp(&b.name)));
    all
}

/// Hands a page out; returns the part of its address that nobody guesses.
///
/// # Errors
/// [`EditError`]; nothing is handed out then.
pub fn hand_out(
    store: &Store,
    who: &str,
    (name, page): (&str, &str),
    today: &str,
) -> Result<String, EditError> {
    let refused = |why: String| EditError::Refused(Refusal::from(why));
    let mut random = [0u8; BYTES];
    getrandom::fill(&mut random)
        .map_err(|e| refused(format!("this machine gives no random numbers: {e}")))?;
    let key: String = random.iter().map(|b| format!("{b:02x}")).collect();
    let paper = Handed {
        key: key.clone(),
        name: name.to_owned(),
        page: page.to_owned(),
        made: today.to_owned(),
    };
    paper.check().map_err(refused)?;
    let label = format!("“{name}” handed out");
    store.write(who, &label, |door| {
        debug_assert!(door.find(Kind::of::<Handed>(), &key)?.is_none());
        door.put(&Record::Sheet(Document::of(&paper)), None)
    })?;
    Ok(key)
}
