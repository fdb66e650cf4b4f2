//! Everything a question can name, read at once.

use super::door::find;
use super::journal::{self, State};
use super::kind::{Kind, Known};
use super::record::{Record, SavedBrief};
use super::{Store, rows};
use crate::error::StoreError;
use crate::files::SHEETS;
use crate::files::customer::CustomerEntry;
use crate::files::hulls::HullRecord;
use crate::files::setting::Setting;
use crate::files::sheet::{Document, Sheet};
use diesel::prelude::*;
use diesel::sql_query;
use galvet_core::gear::Gear;
use galvet_core::question::Water;
use galvet_core::rig::Rig;
use std::collections::{BTreeMap, HashMap};

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
    /// Records that are one document, by kind and in the order they were put in.
    pub sheets: Vec<Document>,
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
            Kind::Sheet(_) => Record::Sheet(all.sheets.get(*at)?.clone()),
            Kind::Rig | Kind::Brief => return None,
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

    /// The sheets of a type, in the order they were put in; what cannot be used is left out.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn sheets<S: Sheet>(&self) -> Result<Vec<S>, StoreError> {
        let kind = Kind::of::<S>();
        self.connection()?.transaction(|connection| {
            let mut out = Vec::new();
            for row in living(connection, kind)? {
                match rows::load(connection, kind, row.id) {
                    Ok(Some(Record::Sheet(sheet))) => out.extend(sheet.sheet::<S>().cloned()),
                    Ok(_) | Err(StoreError::BadRecord { .. }) => {}
                    Err(error) => return Err(error),
                }
            }
            Ok(out)
        })
    }

    /// Puts a whole catalogue in, all of it or nothing.
    ///
    /// # Errors
    /// [`StoreError`], with nothing changed.
    pub fn fill(&self, who: &str, catalogue: &Catalogue) -> Result<(), StoreError> {
        self.write(who, "catalogue put in", |door| {
            // What is named by others first.
            let order = [Kind::Water, Kind::Gear, Kind::Rig, Kind::Hull];
            let rest = Kind::all().filter(|kind| !order.contains(kind));
            for kind in order.into_iter().chain(rest) {
                for record in catalogue.of_kind(kind) {
                    door.put(&record, None)?;
                }
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
        Ok(match self.record(Kind::of::<Setting>(), key)? {
            Some((_, Record::Sheet(kept))) => kept.sheet::<Setting>().map(|s| s.value.clone()),
            _ => None,
        })
    }

    /// Sets a setting of this installation.
    ///
    /// # Errors
    /// [`StoreError`], with nothing changed.
    pub fn set_setting(&self, who: &str, key: &str, value: &str) -> Result<(), StoreError> {
        self.write(who, "setting", |door| {
            let known = door.find(Kind::of::<Setting>(), key)?;
            let setting = Setting {
                key: key.to_owned(),
                value: value.to_owned(),
            };
            let record = Record::Sheet(Document::of(&setting));
            door.put(&record, known).map(|_| ())
        })
    }
}

/// The rows of a kind that are no trash, in the order in which a catalogue lists them.
fn living(connection: &mut SqliteConnection, kind: Kind) -> Result<Vec<Known>, StoreError> {
    let order = if kind == Kind::Hull { "slug" } else { "id" };
    let rows = sql_query(format!(
        "SELECT id, revision FROM {} WHERE deleted_at IS NULL ORDER BY {order}",
        kind.table()
    ));
    Ok(rows.load(connection)?)
}

pub(super) fn read(
    connection: &mut SqliteConnection,
    before: Option<&Read>,
) -> Result<Read, StoreError> {
    let state = journal::state(connection)?;
    let mut out = Catalogue::default();
    let mut places = HashMap::new();
    for kind in Kind::all() {
        for row in living(connection, kind)? {
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
            Record::Sheet(sheet) => last(&mut self.sheets, sheet),
        })
    }

    /// The sheets of a type.
    pub fn sheets_of<S: Sheet>(&self) -> impl Iterator<Item = &S> {
        self.sheets.iter().filter_map(Document::sheet)
    }

    /// Rigs that are a customer's, by their keys; not those by which a question of the house
    /// goes, too.
    #[must_use]
    pub fn rigs_of_customers(&self) -> BTreeMap<&str, &CustomerEntry> {
        let customers = self.sheets_of::<CustomerEntry>();
        let mut theirs: BTreeMap<&str, &CustomerEntry> = customers
            .flat_map(|one| one.rigs.iter().map(move |rig| (rig.as_str(), one)))
            .collect();
        let ours = self.briefs.iter().filter(|b| b.customer.is_empty());
        for rig in ours.filter_map(|brief| brief.names("rig")) {
            theirs.remove(rig);
        }
        theirs
    }

    /// The records of a kind.
    #[must_use]
    pub fn of_kind(&self, kind: Kind) -> Vec<Record> {
        match kind {
            Kind::Hull => {
                let hulls = self.hulls.iter().cloned();
                hulls.map(|hull| Record::Hull(Box::new(hull))).collect()
            }
            Kind::Water => self.waters.iter().cloned().map(Record::Water).collect(),
            Kind::Gear => {
                let gear = self.gear.iter().cloned();
                gear.map(|thing| Record::Gear(Box::new(thing))).collect()
            }
            Kind::Rig => self.rigs.iter().cloned().map(Record::Rig).collect(),
            Kind::Brief => self.briefs.iter().cloned().map(Record::Brief).collect(),
            Kind::Sheet(sheets) => {
                let ours = self.sheets.iter().filter(|sheet| sheet.kind == sheets);
                ours.cloned().map(Record::Sheet).collect()
            }
        }
    }

    /// How many there are of each kind but hulls, in words; kinds of which there is none
    /// are left out.
    #[must_use]
    pub fn others(&self) -> Vec<String> {
        let counted = [
            (self.gear.len(), "things"),
            (self.rigs.len(), "rigs"),
            (self.waters.len(), "waters"),
            (self.briefs.len(), "saved questions"),
        ];
        let sheets = SHEETS.iter().map(|shape| {
            let of_it = self.sheets.iter().filter(|s| s.kind == shape.kind);
            (of_it.count(), shape.kind.plural)
        });
        let some = counted.into_iter().chain(sheets).filter(|(n, _)| *n > 0);
        some.map(|(n, what)| format!("{n} {what}")).collect()
    }
}
