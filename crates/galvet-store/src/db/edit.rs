//! Records changed and thrown away as they stand: read, changed and written in one
//! transaction, so that nobody comes in between.

use super::door::{Door, find};
use super::kind::{Kind, Known};
use super::record::Record;
use super::{Store, rows};
use crate::error::StoreError;
use crate::files::photo::Photo;

impl Store {
    /// Changes the record of a slug as it stands; `None` where there is none. What
    /// `change` leaves as it was writes no line in the journal.
    ///
    /// # Errors
    /// Whatever `change` refuses, and [`StoreError`]; nothing is changed then.
    pub fn edit<E: From<StoreError>>(
        &self,
        who: &str,
        label: &str,
        (kind, slug): (Kind, &str),
        change: impl FnOnce(&mut Record) -> Result<(), E>,
    ) -> Result<Option<Known>, E> {
        let done = self.write(who, label, |door| {
            let Some(known) = door.find(kind, slug)? else {
                return Ok(Ok(None));
            };
            let Some(record) = rows::load(door.connection, kind, known.id)? else {
                return Ok(Ok(None));
            };
            let mut changed = record.clone();
            if let Err(refused) = change(&mut changed) {
                return Ok(Err(refused));
            }
            if changed == record {
                return Ok(Ok(Some(known)));
            }
            Ok(Ok(Some(door.put(&changed, Some(known))?)))
        });
        done.map_err(E::from)?
    }

    /// Throws the record of a slug away, as it stands or as it was `seen` at a revision;
    /// returns what it was called, `None` where there is none. It stays in the trash.
    ///
    /// # Errors
    /// [`StoreError::Conflict`] where somebody changed it since it was seen;
    /// [`StoreError::Reference`] while something names it.
    pub fn throw_away(
        &self,
        who: &str,
        (kind, slug): (Kind, &str),
        seen: Option<i64>,
    ) -> Result<Option<String>, StoreError> {
        self.write(who, "", |door| {
            let Some(known) = find(door.connection, kind, slug)? else {
                return Ok(None);
            };
            let name = name_of(door, kind, known, slug)?;
            let word = match kind {
                Kind::Gear => "thing",
                Kind::Brief => "question",
                kind => kind.key(),
            };
            door.label = format!("{word} “{name}” thrown away");
            let seen = Known {
                revision: seen.unwrap_or(known.revision),
                ..known
            };
            door.throw_away(kind, seen)?;
            if kind == Kind::Hull {
                // Its photos go with it, and come back with it when this is undone.
                for photo in door.photos_of(slug)? {
                    let kind = Kind::of::<Photo>();
                    if let Some(known) = find(door.connection, kind, &photo)? {
                        door.throw_away(kind, known)?;
                    }
                }
            }
            Ok(Some(name))
        })
    }
}

/// What a record is called; its slug where it cannot be read.
fn name_of(
    door: &mut Door<'_>,
    kind: Kind,
    known: Known,
    slug: &str,
) -> Result<String, StoreError> {
    match rows::load(door.connection, kind, known.id) {
        Ok(record) => Ok(record.map_or_else(|| slug.to_owned(), |r| r.name())),
        Err(StoreError::BadRecord { .. }) => Ok(slug.to_owned()),
        Err(error) => Err(error),
    }
}
