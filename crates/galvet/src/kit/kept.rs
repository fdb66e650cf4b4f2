//! Records that are one form: put in, and changed as they stand.

use crate::form::{Draft, FormView, NotTaken, Refusal, Sent, Table, free_slug, slug_of};
use crate::survey::EditError;
use galvet_core::base::System;
use galvet_store::{Kind, Record, Store};

/// A kind of record that is one form.
pub(crate) trait Kept: Draft<Record: Clone> + 'static {
    /// Its kind in the database.
    const KIND: Kind;
    /// What one is called in the history.
    const WORD: &'static str;

    /// A new one, with what is usual in it.
    fn usual() -> Self::Record;

    /// Its form.
    fn form() -> Table<Self>;

    /// One out of the database.
    fn of_record(record: &Record) -> Option<Self::Record>;

    /// One for the database.
    fn record(one: Self::Record) -> Record;

    /// Its slug, and what it is called.
    fn called(one: &mut Self::Record) -> (&mut String, &str);
}

/// Keeps what was typed: over the record of a slug as it stands, or, with none, as a new
/// one under a slug made of its name. Returns the slug.
///
/// # Errors
/// [`EditError`]; nothing is changed then.
pub(crate) fn keep_record<K: Kept>(
    store: &Store,
    who: &str,
    slug: &str,
    form: &Sent,
    system: System,
) -> Result<String, EditError> {
    if slug.is_empty() {
        let made = K::form().make(&K::usual(), form, system);
        return put_new::<K>(store, who, made.map_err(EditError::Refused)?);
    }
    let label = format!("{} changed", slug.replace('-', " "));
    super::edit(store, (who, &label), (K::KIND, slug), |record| {
        let Some(mut one) = K::of_record(record) else {
            return Err(Refusal::from(format!("that is no {}", K::WORD)));
        };
        K::form().put(&mut one, form, system)?;
        *record = K::record(one);
        Ok(())
    })?;
    Ok(slug.to_owned())
}

/// The form of a record, or of a new one.
pub(crate) fn form_of<K: Kept>(
    one: Option<&K::Record>,
    not_taken: &NotTaken,
    system: System,
) -> FormView {
    K::form().form_or_new(one, K::usual, not_taken, system)
}

fn put_new<K: Kept>(store: &Store, who: &str, mut one: K::Record) -> Result<String, EditError> {
    let label = format!("{} “{}” put in", K::WORD, K::called(&mut one).1);
    Ok(store.write(who, &label, |door| {
        let (slug, name) = K::called(&mut one);
        let free = free_slug(door, K::KIND, &slug_of(name, K::WORD))?;
        slug.clone_from(&free);
        door.put(&K::record(one), None)?;
        Ok(free)
    })?)
}
