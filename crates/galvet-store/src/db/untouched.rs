//! Records nobody has touched for long, so that they can be let go.

use super::erase::Row;
use super::kind::Kind;
use super::record::Record;
use super::{Store, rows};
use crate::error::StoreError;
use diesel::prelude::*;
use diesel::sql_query;
use diesel::sql_types::BigInt;

/// A record nobody has touched for long.
#[derive(Debug, Clone)]
pub struct Untouched {
    /// Its number among those of its kind.
    pub id: i64,
    /// What it is, or was as it was thrown away.
    pub record: Record,
    /// Whether it lives; else it lies in the trash.
    pub lives: bool,
}

impl Store {
    /// Records of a kind that were last changed before a moment, milliseconds since 1970,
    /// by their numbers; those in the trash as well. What cannot be read is not among them.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn untouched_since(&self, kind: Kind, before: i64) -> Result<Vec<Untouched>, StoreError> {
        let connection = &mut *self.connection()?;
        let table = kind.table();
        let rows: Vec<Row> = sql_query(format!(
            "SELECT id, revision, deleted_at IS NULL AS lives FROM {table} WHERE updated_at < ? ORDER BY id"
        ))
        .bind::<BigInt, _>(before)
        .load(connection)?;
        let mut out = Vec::new();
        for Row { known, lives } in rows {
            match rows::load(connection, kind, known.id) {
                Ok(Some(record)) => out.push(Untouched {
                    id: known.id,
                    record,
                    lives,
                }),
                Ok(None) | Err(StoreError::BadRecord { .. }) => {}
                Err(error) => return Err(error),
            }
        }
        Ok(out)
    }
}
