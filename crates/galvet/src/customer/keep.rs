//! Customers put in, changed and renamed: everywhere at once.

use super::name::{KIND, customers, same};
use crate::form::{Refusal, Sent, Table, day, free_slug, line, name, note, slug_of, whole};
use crate::survey::EditError;
use galvet_core::base::System;
use galvet_store::files::customer::CustomerEntry;
use galvet_store::files::outing::OutingEntry;
use galvet_store::files::sheet::{Document, Sheet};
use galvet_store::files::stock::BookingEntry;
use galvet_store::{Catalogue, Door, Kind, Record, Store, StoreError};

whole!(CustomerEntry);

/// The form of a customer.
pub(crate) fn table() -> Table<CustomerEntry> {
    type C = CustomerEntry;
    Table::plain(vec![
        name("name", "name", |c: &mut C| &mut c.name)
            .hint("of two of one name, say more: the harbour, the blue van"),
        line("reach", "how they are reached", |c: &mut C| &mut c.reach)
            .hint("only what you need: it goes when they ask for it"),
        day("since", "first came", |c: &mut C| &mut c.since),
        note("note", "note", C::NOTE, |c: &mut C| &mut c.note),
    ])
}

/// The customer of a record.
fn of_record(record: &Record) -> Option<CustomerEntry> {
    match record {
        Record::Sheet(sheet) => sheet.sheet::<CustomerEntry>().cloned(),
        _ => None,
    }
}

/// Refuses a second customer of one name.
fn alone(catalogue: &Catalogue, one: &CustomerEntry) -> Result<(), EditError> {
    let mut all = customers(catalogue).into_iter();
    match all.find(|other| other.key != one.key && same(&other.name, &one.name)) {
        None => Ok(()),
        Some(other) => {
            let why = format!(
                "“{}” is a customer already; of two of one name say more in it",
                other.name
            );
            Err(EditError::Refused(Refusal::at("name", why)))
        }
    }
}

/// Keeps what was typed of a customer, a new one where no slug is named; returns the slug.
/// A new name stands everywhere the old one stood.
///
/// # Errors
/// [`EditError`]; nothing is changed then.
pub(crate) fn keep(
    store: &Store,
    who: &str,
    slug: &str,
    (sent, system, today): (&Sent, System, &str),
) -> Result<String, EditError> {
    let catalogue = store.catalogue()?;
    if slug.is_empty() {
        let made = table().make(&usual(today), sent, system);
        let mut one = made.map_err(EditError::Refused)?;
        alone(&catalogue, &one)?;
        let label = "a customer put in";
        return Ok(store.write(who, label, |door| {
            one.key = free_slug(door, KIND, &slug_of(&one.name, "customer"))?;
            door.put(&Record::Sheet(Document::of(&one)), None)?;
            Ok(one.key.clone())
        })?);
    }
    let mut refused = None;
    let done = store.write(who, "a customer changed", |door| {
        let Some((known, record)) = door.read(KIND, slug)? else {
            return Ok(None);
        };
        let Some(was) = of_record(&record) else {
            return Ok(None);
        };
        let mut one = was.clone();
        let put = table()
            .put(&mut one, sent, system)
            .map_err(EditError::Refused)
            .and_then(|()| alone(&catalogue, &one))
            .and_then(|()| one.check().map_err(|why| EditError::Refused(why.into())));
        if let Err(why) = put {
            refused = Some(why);
            return Ok(None);
        }
        if one != was {
            door.put(&Record::Sheet(Document::of(&one)), Some(known))?;
        }
        if one.name != was.name {
            rename(door, &catalogue, (&was.name, &one.name))?;
        }
        Ok(Some(slug.to_owned()))
    })?;
    match refused {
        Some(why) => Err(why),
        None => done.ok_or(EditError::Gone),
    }
}

/// Changes a customer as they stand.
///
/// # Errors
/// [`EditError`]; nothing is changed then.
pub(crate) fn change(
    store: &Store,
    (who, label): (&str, &str),
    slug: &str,
    change: impl FnOnce(&mut CustomerEntry),
) -> Result<(), EditError> {
    let done = store.edit(who, label, (KIND, slug), |record| {
        let Some(mut one) = of_record(record) else {
            return Err(EditError::Gone);
        };
        change(&mut one);
        one.check().map_err(|why| EditError::Refused(why.into()))?;
        *record = Record::Sheet(Document::of(&one));
        Ok(())
    })?;
    done.map(|_| ()).ok_or(EditError::Gone)
}

/// A new customer.
fn usual(today: &str) -> CustomerEntry {
    CustomerEntry {
        since: today.to_owned(),
        ..CustomerEntry::default()
    }
}

/// The form of a customer, or of a new one.
pub(crate) fn form_of(
    one: Option<&CustomerEntry>,
    not_taken: &crate::form::NotTaken,
    (system, today): (System, &str),
) -> crate::form::FormView {
    table().form_or_new(one, || usual(today), not_taken, system)
}

/// Puts a customer of a name in, where there is none yet; of no name nobody.
///
/// # Errors
/// [`StoreError`].
pub(crate) fn known_by_name(
    door: &mut Door<'_>,
    catalogue: &Catalogue,
    (name, today): (&str, &str),
) -> Result<(), StoreError> {
    let there = |c: &CustomerEntry| same(&c.name, name);
    if name.trim().is_empty() || customers(catalogue).iter().any(there) {
        return Ok(());
    }
    let mut one = CustomerEntry {
        name: name.trim().to_owned(),
        ..usual(today)
    };
    one.key = free_slug(door, KIND, &slug_of(&one.name, "customer"))?;
    door.put(&Record::Sheet(Document::of(&one)), None)?;
    Ok(())
}

/// Calls a customer by another name wherever the old one stands for them.
fn rename(
    door: &mut Door<'_>,
    catalogue: &Catalogue,
    (old, new): (&str, &str),
) -> Result<(), StoreError> {
    let mut named: Vec<(Kind, String)> = Vec::new();
    let briefs = catalogue.briefs.iter().filter(|b| same(&b.customer, old));
    named.extend(briefs.map(|b| (Kind::Brief, b.key.clone())));
    let tried = |trials: &[galvet_core::hull::Trial]| trials.iter().any(|t| same(&t.who, old));
    let hulls = catalogue.hulls.iter().map(|h| &h.survey);
    let hulls = hulls.filter(|s| tried(&s.looked.trials));
    named.extend(hulls.map(|s| (Kind::Hull, s.key.clone())));
    let outings = catalogue.sheets_of::<OutingEntry>();
    let outings = outings.filter(|o| same(&o.who, old));
    named.extend(outings.map(|o| (Kind::of::<OutingEntry>(), o.key.clone())));
    let bookings = catalogue.sheets_of::<BookingEntry>();
    let bookings = bookings.filter(|b| same(&b.who, old));
    named.extend(bookings.map(|b| (Kind::of::<BookingEntry>(), b.key.clone())));
    for (kind, slug) in named {
        let Some((known, mut record)) = door.read(kind, &slug)? else {
            continue;
        };
        match &mut record {
            Record::Brief(brief) => new.clone_into(&mut brief.customer),
            Record::Hull(hull) => {
                let trials = hull.survey.looked.trials.iter_mut();
                for trial in trials.filter(|t| same(&t.who, old)) {
                    new.clone_into(&mut trial.who);
                }
            }
            Record::Sheet(sheet) => {
                let named = sheet.with(|fields| {
                    fields.insert("who".to_owned(), new.into());
                });
                *sheet = named.map_err(|why| StoreError::bad(kind, &slug, why))?;
            }
            _ => {}
        }
        door.put(&record, Some(known))?;
    }
    Ok(())
}
