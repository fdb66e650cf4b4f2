//! The one door: every write, with its line in the journal.

use super::journal::{self, Line};
use super::kind::{Kind, Known};
use super::record::Record;
use super::rows::{self, BriefRow, HullRow, LineRow, WaterRow};
use super::{Store, schema};
use crate::error::{StoreError, Theirs};
use diesel::prelude::*;
use diesel::sql_query;
use diesel::sql_types::{BigInt, Nullable, Text};
use std::time::{SystemTime, UNIX_EPOCH};

/// An open door: one group of changes in one transaction.
pub struct Door<'a> {
    pub(super) connection: &'a mut SqliteConnection,
    pub(super) who: &'a str,
    pub(super) label: String,
    pub(super) group: i64,
    pub(super) undoes: Option<i64>,
    pub(super) at: i64,
}

#[derive(QueryableByName)]
struct Head {
    #[diesel(sql_type = BigInt)]
    revision: i64,
    #[diesel(sql_type = Nullable<BigInt>)]
    deleted_at: Option<i64>,
}

#[derive(QueryableByName)]
struct Id {
    #[diesel(sql_type = BigInt)]
    id: i64,
}

/// Milliseconds since 1970; never before it, whatever the clock says.
pub(super) fn now() -> i64 {
    SystemTime::now()
        .duration_since(UNIX_EPOCH)
        .map_or(0, |d| i64::try_from(d.as_millis()).unwrap_or(i64::MAX))
}

impl Store {
    /// Writes as `who`, all of it or nothing; `label` names the group of
    /// changes in the history.
    ///
    /// # Errors
    /// Whatever `write` returns, with nothing changed.
    pub fn write<T>(
        &self,
        who: &str,
        label: &str,
        write: impl FnOnce(&mut Door<'_>) -> Result<T, StoreError>,
    ) -> Result<T, StoreError> {
        self.write_group(who, label, None, write)
    }

    pub(super) fn write_group<T>(
        &self,
        who: &str,
        label: &str,
        undoes: Option<i64>,
        write: impl FnOnce(&mut Door<'_>) -> Result<T, StoreError>,
    ) -> Result<T, StoreError> {
        let mut connection = self.connection()?;
        connection.immediate_transaction(|connection| {
            let group = journal::last_group(connection)? + 1;
            let mut door = Door {
                connection,
                who,
                label: label.to_owned(),
                group,
                undoes,
                at: now(),
            };
            write(&mut door)
        })
    }
}

impl Door<'_> {
    /// Puts a record in: a new one, or the next revision of a known one (also
    /// out of the trash).
    ///
    /// # Errors
    /// [`StoreError::Conflict`] when somebody saved it meanwhile,
    /// [`StoreError::TooMuch`] for more than a record holds,
    /// [`StoreError::Taken`] for a slug in use, [`StoreError::Reference`] for a
    /// question that names what is not there.
    pub fn put(&mut self, record: &Record, known: Option<Known>) -> Result<Known, StoreError> {
        let kind = record.kind();
        let before = match known {
            Some(known) => self.check(kind, known)?,
            None => None,
        };
        self.free(kind, record.slug(), known.map(|k| k.id))?;
        if let Record::Hull(hull) = record {
            hull.survey.within_limits()?;
        }
        let id = match known {
            Some(known) => known.id,
            None => self.next_id(kind)?,
        };
        self.write_rows(record, id, known.is_some())?;
        let revision = known.map_or(1, |k| k.revision + 1);
        self.head(kind, id, revision, None)?;
        self.note(
            kind,
            Known { id, revision },
            before,
            Some(record.document()?),
        )?;
        Ok(Known { id, revision })
    }

    /// Throws a record away; it stays in the trash.
    ///
    /// # Errors
    /// [`StoreError::Conflict`]; [`StoreError::Reference`] while saved
    /// questions name it.
    pub fn throw_away(&mut self, kind: Kind, known: Known) -> Result<Known, StoreError> {
        let before = self.check(kind, known)?;
        self.unnamed(kind, known.id)?;
        let revision = known.revision + 1;
        self.head(kind, known.id, revision, Some(self.at))?;
        let gone = Known {
            id: known.id,
            revision,
        };
        self.note(kind, gone, before, None)?;
        Ok(gone)
    }

    /// The revision of the living record of a slug.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn find(&mut self, kind: Kind, slug: &str) -> Result<Option<Known>, StoreError> {
        find(self.connection, kind, slug)
    }

    /// The living record of a slug, as it stands in this transaction.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer, or it cannot be used.
    pub fn read(&mut self, kind: Kind, slug: &str) -> Result<Option<(Known, Record)>, StoreError> {
        let Some(known) = find(self.connection, kind, slug)? else {
            return Ok(None);
        };
        let record = rows::load(self.connection, kind, known.id)?;
        Ok(record.map(|record| (known, record)))
    }

    /// Slugs of the living records of a kind, as they stand in this transaction.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn living(&mut self, kind: Kind) -> Result<Vec<String>, StoreError> {
        #[derive(QueryableByName)]
        struct Slug {
            #[diesel(sql_type = Text)]
            slug: String,
        }
        let table = kind.table();
        let found: Vec<Slug> = sql_query(format!(
            "SELECT slug FROM {table} WHERE deleted_at IS NULL ORDER BY id"
        ))
        .load(self.connection)?;
        Ok(found.into_iter().map(|row| row.slug).collect())
    }

    /// Checks that a record still is at the known revision; returns its document.
    fn check(&mut self, kind: Kind, known: Known) -> Result<Option<serde_json::Value>, StoreError> {
        let head: Option<Head> = sql_query(format!(
            "SELECT revision, deleted_at FROM {} WHERE id = ?",
            kind.table()
        ))
        .bind::<BigInt, _>(known.id)
        .get_result(self.connection)
        .optional()?;
        let head = head.ok_or(StoreError::Nothing("there is no such record"))?;
        let latest = journal::entry(self.connection, kind, known.id, head.revision)?;
        if head.revision != known.revision {
            let base = journal::entry(self.connection, kind, known.id, known.revision)?;
            return Err(StoreError::Conflict {
                theirs: Box::new(Theirs {
                    kind,
                    id: known.id,
                    revision: head.revision,
                    who: latest.as_ref().map_or(String::new(), |e| e.who.clone()),
                    at: latest.as_ref().map_or(0, |e| e.at),
                    base: base.and_then(|e| e.after),
                    now: latest.and_then(|e| e.after),
                }),
            });
        }
        if head.deleted_at.is_some() {
            return Ok(None);
        }
        // A row edited by hand may not read; the journal knows what it was.
        match rows::load(self.connection, kind, known.id) {
            Ok(record) => record.map(|r| r.document()).transpose(),
            Err(StoreError::BadRecord { .. }) => Ok(latest.and_then(|e| e.after)),
            Err(error) => Err(error),
        }
    }

    fn next_id(&mut self, kind: Kind) -> Result<i64, StoreError> {
        // Ids are never used again, also not those of records purged by hand.
        let table = kind.table();
        let next: Id = sql_query(format!(
            "SELECT max(coalesce((SELECT max(id) FROM {table}), 0), \
             coalesce((SELECT max(record) FROM journal WHERE kind = ?), 0)) + 1 AS id"
        ))
        .bind::<Text, _>(kind.key())
        .get_result(self.connection)?;
        Ok(next.id)
    }

    fn free(&mut self, kind: Kind, slug: &str, id: Option<i64>) -> Result<(), StoreError> {
        match find(self.connection, kind, slug)? {
            Some(other) if Some(other.id) != id => Err(StoreError::Taken {
                kind,
                slug: slug.to_owned(),
            }),
            _ => Ok(()),
        }
    }

    fn head(
        &mut self,
        kind: Kind,
        id: i64,
        revision: i64,
        deleted_at: Option<i64>,
    ) -> Result<(), StoreError> {
        sql_query(format!(
            "UPDATE {} SET revision = ?, updated_at = ?, deleted_at = ? WHERE id = ?",
            kind.table()
        ))
        .bind::<BigInt, _>(revision)
        .bind::<BigInt, _>(self.at)
        .bind::<Nullable<BigInt>, _>(deleted_at)
        .bind::<BigInt, _>(id)
        .execute(self.connection)?;
        Ok(())
    }

    fn note(
        &mut self,
        kind: Kind,
        known: Known,
        before: Option<serde_json::Value>,
        after: Option<serde_json::Value>,
    ) -> Result<(), StoreError> {
        journal::write(
            self.connection,
            &Line {
                at: self.at,
                who: self.who.to_owned(),
                change_group: self.group,
                label: self.label.clone(),
                undoes: self.undoes,
                kind: kind.key().to_owned(),
                record: known.id,
                revision: known.revision,
                before: before.map(|v| v.to_string()),
                after: after.map(|v| v.to_string()),
            },
        )
    }

    /// Refuses to throw away what living questions and rigs name.
    pub(super) fn unnamed(&mut self, kind: Kind, id: i64) -> Result<(), StoreError> {
        use schema::{briefs, rig_lines, rigs};
        let questions = briefs::table.filter(briefs::deleted_at.is_null());
        let (who, names): (_, Vec<String>) = match kind {
            Kind::Rig => (
                "saved questions",
                questions
                    .filter(briefs::rig_id.eq(id))
                    .select(briefs::name)
                    .load(self.connection)?,
            ),
            Kind::Water => (
                "saved questions",
                questions
                    .filter(briefs::water_id.eq(id))
                    .select(briefs::name)
                    .load(self.connection)?,
            ),
            Kind::Gear => (
                "rigs",
                rigs::table
                    .inner_join(rig_lines::table)
                    .filter(rigs::deleted_at.is_null())
                    .filter(rig_lines::gear_id.eq(id))
                    .select(rigs::name)
                    .distinct()
                    .load(self.connection)?,
            ),
            _ => return Ok(()),
        };
        if names.is_empty() {
            return Ok(());
        }
        Err(StoreError::Reference(format!(
            "{who} still use it: {}",
            names.join(", ")
        )))
    }

    fn named(&mut self, kind: Kind, slug: Option<&str>) -> Result<Option<i64>, StoreError> {
        let Some(slug) = slug else { return Ok(None) };
        match find(self.connection, kind, slug)? {
            Some(known) => Ok(Some(known.id)),
            None => Err(StoreError::Reference(format!(
                "there is no {} “{slug}”",
                kind.key()
            ))),
        }
    }

    pub(super) fn write_rows(
        &mut self,
        record: &Record,
        id: i64,
        exists: bool,
    ) -> Result<(), StoreError> {
        use schema::{briefs, gear, hulls, rigs, waters};
        // The same for every table: the row of an id, new or changed.
        macro_rules! save {
            ($table:ident, $row:expr) => {
                if exists {
                    diesel::update($table::table.find(id))
                        .set($row)
                        .execute(self.connection)?;
                } else {
                    diesel::insert_into($table::table)
                        .values(($table::id.eq(id), $row))
                        .execute(self.connection)?;
                }
            };
        }
        match record {
            Record::Hull(hull) => {
                let (row, parts) = HullRow::of(hull, id)?;
                save!(hulls, row);
                parts.replace(self.connection, id)?;
            }
            Record::Water(water) => save!(waters, WaterRow::of(water)?),
            Record::Gear(thing) => {
                let document = rows::kit::gear_document(thing)?;
                save!(
                    gear,
                    (gear::slug.eq(&thing.key), gear::document.eq(document))
                );
            }
            Record::Rig(rig) => {
                let shelf = rig
                    .lines
                    .iter()
                    .map(|line| self.named(Kind::Gear, line.gear.as_deref()))
                    .collect::<Result<Vec<_>, _>>()?;
                save!(rigs, (rigs::slug.eq(&rig.key), rigs::name.eq(&rig.name)));
                use schema::rig_lines::dsl;
                diesel::delete(dsl::rig_lines.filter(dsl::rig_id.eq(id)))
                    .execute(self.connection)?;
                diesel::insert_into(dsl::rig_lines)
                    .values(LineRow::of(rig, id, &shelf))
                    .execute(self.connection)?;
            }
            Record::Brief(brief) => {
                let rig = self.named(Kind::Rig, brief.names("rig"))?;
                let water = self.named(Kind::Water, brief.names("water"))?;
                save!(briefs, BriefRow::of(brief, rig, water));
            }
            Record::Sheet(_) => rows::save_sheet(self.connection, record, id)?,
        }
        Ok(())
    }
}

/// The living record of a slug.
pub(super) fn find(
    connection: &mut SqliteConnection,
    kind: Kind,
    slug: &str,
) -> Result<Option<Known>, StoreError> {
    Ok(sql_query(format!(
        "SELECT id, revision FROM {} WHERE slug = ? AND deleted_at IS NULL",
        kind.table()
    ))
    .bind::<Text, _>(slug)
    .get_result(connection)
    .optional()?)
}
