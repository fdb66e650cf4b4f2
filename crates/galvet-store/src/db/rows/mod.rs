//! Rows of the tables and their way to documents and back.
//!
//! What comes out of the database passes the same checks as what comes out of
//! a file: a database is a file too.

mod hull;
pub(super) mod kit;
mod question;

use super::kind::Kind;
use super::record::Record;
use super::schema;
use crate::error::StoreError;
use diesel::prelude::*;
use diesel::sql_query;
use diesel::sql_types::{BigInt, Text};
use galvet_core::rig::Rig;

pub(super) use hull::{HullParts, HullRow};
pub(super) use kit::LineRow;
pub(super) use question::{BriefRow, WaterRow};

/// A record as the rows of its id hold it; `None` where there is no such row.
pub(super) fn load(
    connection: &mut SqliteConnection,
    kind: Kind,
    id: i64,
) -> Result<Option<Record>, StoreError> {
    use schema::{briefs, gear, hulls, rigs, waters};
    Ok(match kind {
        Kind::Hull => {
            let row = hulls::table
                .find(id)
                .select(HullRow::as_select())
                .first(connection)
                .optional()?;
            let Some(row) = row else { return Ok(None) };
            let parts = HullParts::load(connection, id)?;
            Some(Record::Hull(Box::new(row.record(parts)?)))
        }
        Kind::Water => waters::table
            .find(id)
            .select(WaterRow::as_select())
            .first(connection)
            .optional()?
            .map(WaterRow::water)
            .transpose()?
            .map(Record::Water),
        Kind::Gear => {
            let row: Option<(String, String)> = gear::table
                .find(id)
                .select((gear::slug, gear::document))
                .first(connection)
                .optional()?;
            let Some((slug, document)) = row else {
                return Ok(None);
            };
            Some(Record::Gear(Box::new(kit::gear(slug, &document)?)))
        }
        Kind::Rig => {
            let row: Option<(String, String)> = rigs::table
                .find(id)
                .select((rigs::slug, rigs::name))
                .first(connection)
                .optional()?;
            let Some((key, name)) = row else {
                return Ok(None);
            };
            let lines = kit::lines(connection, id, &key)?;
            Some(Record::Rig(Rig { key, name, lines }))
        }
        Kind::Brief => briefs::table
            .find(id)
            .select(BriefRow::as_select())
            .first(connection)
            .optional()?
            .map(BriefRow::brief)
            .transpose()?
            .map(Record::Brief),
        Kind::Sheet(_) => sheet(connection, kind, id)?,
    })
}

/// A record that is one document: its table has nothing else.
fn sheet(
    connection: &mut SqliteConnection,
    kind: Kind,
    id: i64,
) -> Result<Option<Record>, StoreError> {
    #[derive(QueryableByName)]
    struct Row {
        #[diesel(sql_type = Text)]
        document: String,
    }
    let query = format!("SELECT document FROM {} WHERE id = ?", kind.table());
    let row: Option<Row> = sql_query(query)
        .bind::<BigInt, _>(id)
        .get_result(connection)
        .optional()?;
    let Some(row) = row else { return Ok(None) };
    let document = serde_json::from_str(&row.document);
    let document = document.map_err(|e| StoreError::bad(kind, kind.key(), e))?;
    Record::of_document(kind, document).map(Some)
}

/// Writes the row of a record that is one document.
pub(super) fn save_sheet(
    connection: &mut SqliteConnection,
    record: &Record,
    id: i64,
) -> Result<(), StoreError> {
    let kind = record.kind();
    let document = record.document()?;
    // What goes in passes the checks of what comes out.
    Record::of_document(kind, document.clone())?;
    let query = format!(
        "INSERT INTO {} (id, slug, document) VALUES (?, ?, ?) \
         ON CONFLICT (id) DO UPDATE SET slug = excluded.slug, document = excluded.document",
        kind.table()
    );
    sql_query(query)
        .bind::<BigInt, _>(id)
        .bind::<Text, _>(record.slug())
        .bind::<Text, _>(document.to_string())
        .execute(connection)?;
    Ok(())
}

/// Makes the tables of the kinds that are one document, where they are not there yet.
pub(super) fn make_sheets(connection: &mut SqliteConnection) -> Result<(), StoreError> {
    use diesel::connection::SimpleConnection;
    for shape in &crate::files::SHEETS {
        let table = shape.kind.plural;
        connection.batch_execute(&format!(
            "CREATE TABLE IF NOT EXISTS {table} (
                id INTEGER NOT NULL PRIMARY KEY,
                slug TEXT NOT NULL CHECK (length(slug) BETWEEN 1 AND 64),
                revision INTEGER NOT NULL DEFAULT 1 CHECK (revision >= 1),
                updated_at INTEGER NOT NULL DEFAULT 0,
                deleted_at INTEGER,
                document TEXT NOT NULL CHECK (json_valid(document))
            ) STRICT;
            CREATE UNIQUE INDEX IF NOT EXISTS {table}_by_slug ON {table} (slug)
                WHERE deleted_at IS NULL;"
        ))?;
    }
    Ok(())
}
