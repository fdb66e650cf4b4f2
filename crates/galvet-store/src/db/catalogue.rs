//! Everything a question can name, read at once.

use super::door::find;
use super::kind::{Kind, Known};
use super::record::{Record, SavedBrief};
use super::{Store, rows, schema};
use crate::error::StoreError;
use crate::files::hulls::HullRecord;
use diesel::prelude::*;
use diesel::sql_query;
use galvet_core::gear::Gear;
use galvet_core::question::Water;
use galvet_core::rig::Rig;

/// A record that cannot be used as it stands.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct SetAside {
    /// Its kind.
    pub kind: Kind,
    /// The record.
    pub known: Known,
    /// What is wrong with it.
    pub problem: String,
}

/// Everything a question can name.
#[derive(Debug, Clone, Default)]
pub struct Catalogue {
    /// Hulls in alphabetical order of their slugs.
    pub hulls: Vec<HullRecord>,
    /// Ids and revisions of the hulls, in the same order; empty for a catalogue
    /// that has not been kept.
    pub known: Vec<Known>,
    /// Waters in the order they were put in.
    pub waters: Vec<Water>,
    /// The shelf in the order it was put in.
    pub gear: Vec<Gear>,
    /// Rigs in the order they were put in.
    pub rigs: Vec<Rig>,
    /// Saved questions in order.
    pub briefs: Vec<SavedBrief>,
    /// Records set aside because they cannot be used, and why.
    pub set_aside: Vec<SetAside>,
}

impl Store {
    /// Reads everything a question can name. A record that does not pass the
    /// core's checks is set aside; the others are not harmed by it.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn catalogue(&self) -> Result<Catalogue, StoreError> {
        self.connection()?
            .transaction(|connection| read(connection))
    }

    /// Puts a whole catalogue in, all of it or nothing.
    ///
    /// # Errors
    /// [`StoreError`], with nothing changed.
    pub fn fill(&self, who: &str, catalogue: &Catalogue) -> Result<(), StoreError> {
        self.write(who, "catalogue put in", |door| {
            for water in &catalogue.waters {
                door.put(&Record::Water(water.clone()), None)?;
            }
            for gear in &catalogue.gear {
                door.put(&Record::Gear(Box::new(gear.clone())), None)?;
            }
            for rig in &catalogue.rigs {
                door.put(&Record::Rig(rig.clone()), None)?;
            }
            for hull in &catalogue.hulls {
                door.put(&Record::Hull(Box::new(hull.clone())), None)?;
            }
            for brief in &catalogue.briefs {
                door.put(&Record::Brief(brief.clone()), None)?;
            }
            Ok(())
        })
    }

    /// The living record of a slug, with its revision.
    ///
    /// # Errors
    /// [`StoreError`], also for a record that does not pass the core's checks.
    pub fn record(&self, kind: Kind, slug: &str) -> Result<Option<(Known, Record)>, StoreError> {
        self.connection()?.transaction(|connection| {
            let Some(known) = find(connection, kind, slug)? else {
                return Ok(None);
            };
            Ok(rows::load(connection, kind, known.id)?.map(|record| (known, record)))
        })
    }

    /// Reads a setting of this installation.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn setting(&self, key: &str) -> Result<Option<String>, StoreError> {
        use schema::settings::dsl;
        Ok(dsl::settings
            .filter(dsl::slug.eq(key))
            .filter(dsl::deleted_at.is_null())
            .select(dsl::value)
            .first(&mut self.connection()?)
            .optional()?)
    }

    /// Sets a setting of this installation.
    ///
    /// # Errors
    /// [`StoreError`], with nothing changed.
    pub fn set_setting(&self, who: &str, key: &str, value: &str) -> Result<(), StoreError> {
        self.write(who, "setting", |door| {
            let known = door.find(Kind::Setting, key)?;
            let record = Record::Setting(key.to_owned(), value.to_owned());
            door.put(&record, known).map(|_| ())
        })
    }
}

pub(super) fn read(connection: &mut SqliteConnection) -> Result<Catalogue, StoreError> {
    let mut out = Catalogue::default();
    for kind in [Kind::Hull, Kind::Water, Kind::Gear, Kind::Rig, Kind::Brief] {
        let order = if kind == Kind::Hull { "slug" } else { "id" };
        let rows: Vec<Known> = sql_query(format!(
            "SELECT id, revision FROM {} WHERE deleted_at IS NULL ORDER BY {order}",
            kind.table()
        ))
        .load(connection)?;
        for row in rows {
            match rows::load(connection, kind, row.id) {
                Ok(Some(Record::Hull(hull))) => {
                    out.hulls.push(*hull);
                    out.known.push(row);
                }
                Ok(Some(Record::Water(water))) => out.waters.push(water),
                Ok(Some(Record::Gear(gear))) => out.gear.push(*gear),
                Ok(Some(Record::Rig(rig))) => out.rigs.push(rig),
                Ok(Some(Record::Brief(brief))) => out.briefs.push(brief),
                Ok(_) => {}
                Err(error @ StoreError::BadRecord { .. }) => {
                    out.set_aside.push(SetAside {
                        kind,
                        known: row,
                        problem: error.to_string(),
                    });
                }
                Err(error) => return Err(error),
            }
        }
    }
    Ok(out)
}
