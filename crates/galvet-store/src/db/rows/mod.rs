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
    use schema::{briefs, gear, hulls, rigs, settings, waters};
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
        Kind::Setting => settings::table
            .find(id)
            .select((settings::slug, settings::value))
            .first(connection)
            .optional()?
            .map(|(key, value)| Record::Setting(key, value)),
    })
}
