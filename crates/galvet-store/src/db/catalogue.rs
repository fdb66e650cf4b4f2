//! Everything a question can name, read at once.

use super::door::find;
use super::journal::{self, State};
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
use std::collections::HashMap;

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

/// A catalogue as it was read, with the state it was read in.
#[derive(Debug, Clone)]
pub struct Read {
    /// The state of the records then.
    pub state: State,
    /// The records.
    pub catalogue: Catalogue,
    /// Where each record stands in its list, by its kind and id, and at which revision.
    places: HashMap<(Kind, i64), (i64, usize)>,
}

impl Read {
    /// A record that is still the one of a row. Rigs and questions are not: they say what
    /// the things and waters they name are by now.
    fn still(&self, state: State, kind: Kind, row: Known) -> Option<Record> {
        let (revision, at) = self.places.get(&(kind, row.id))?;
        if *revision != row.revision || self.state.epoch != state.epoch {
            return None;
        }
        let all = &self.catalogue;
        Some(match kind {
            Kind::Hull => Record::Hull(Box::new(all.hulls.get(*at)?.clone())),
            Kind::Water => Record::Water(all.waters.get(*at)?.clone()),
            Kind::Gear => Record::Gear(Box::new(all.gear.get(*at)?.clone())),
            Kind::Rig | Kind::Brief | Kind::Setting => return None,
        })
    }
}

impl Store {
    /// Reads everything a question can name, in the state in which it is then. Of what
    /// was read `before` only what has changed since is read again.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn read(&self, before: Option<&Read>) -> Result<Read, StoreError> {
        self.connection()?
            .transaction(|connection| read(connection, before))
    }

    /// Reads everything a question can name. A record that does not pass the
    /// core's checks is set aside; the others are not harmed by it.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn catalogue(&self) -> Result<Catalogue, StoreError> {
        Ok(self.read(None)?.catalogue)
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

pub(super) fn read(
    connection: &mut SqliteConnection,
    before: Option<&Read>,
) -> Result<Read, StoreError> {
    let state = journal::state(connection)?;
    let mut out = Catalogue::default();
    let mut places = HashMap::new();
    for kind in [Kind::Hull, Kind::Water, Kind::Gear, Kind::Rig, Kind::Brief] {
        let order = if kind == Kind::Hull { "slug" } else { "id" };
        let rows: Vec<Known> = sql_query(format!(
            "SELECT id, revision FROM {} WHERE deleted_at IS NULL ORDER BY {order}",
            kind.table()
        ))
        .load(connection)?;
        for row in rows {
            let record = match before.and_then(|before| before.still(state, kind, row)) {
                Some(record) => Some(record),
                None => match rows::load(connection, kind, row.id) {
                    Ok(record) => record,
                    Err(error @ StoreError::BadRecord { .. }) => {
                        out.set_aside.push(SetAside {
                            kind,
                            known: row,
                            problem: error.to_string(),
                        });
                        None
                    }
                    Err(error) => return Err(error),
                },
            };
            if let Some(at) = record.and_then(|record| out.take(record, row)) {
                places.insert((kind, row.id), (row.revision, at));
            }
        }
    }
    Ok(Read {
        state,
        catalogue: out,
        places,
    })
}

impl Catalogue {
    /// Takes a record into its list; where it stands there.
    fn take(&mut self, record: Record, row: Known) -> Option<usize> {
        fn last<T>(list: &mut Vec<T>, one: T) -> usize {
            list.push(one);
            list.len() - 1
        }
        Some(match record {
            Record::Hull(hull) => {
                self.known.push(row);
                last(&mut self.hulls, *hull)
            }
            Record::Water(water) => last(&mut self.waters, water),
            Record::Gear(gear) => last(&mut self.gear, *gear),
            Record::Rig(rig) => last(&mut self.rigs, rig),
            Record::Brief(brief) => last(&mut self.briefs, brief),
            Record::Setting(..) => return None,
        })
    }
}
