//! What lies in the trash, and comes out of it with what it needs.

use super::Store;
use super::door::find;
use super::journal::entry;
use super::kind::{Kind, Known};
use super::record::Record;
use crate::error::StoreError;
use diesel::prelude::*;
use diesel::sql_query;
use diesel::sql_types::BigInt;
use serde_json::Value;

/// A record in the trash.
#[derive(Debug, Clone, PartialEq)]
pub struct Trashed {
    /// Its kind.
    pub kind: Kind,
    /// The record.
    pub known: Known,
    /// What it was.
    pub document: Value,
    /// When it was thrown away, milliseconds since 1970.
    pub at: i64,
}

impl Store {
    /// What lies in the trash, newest first.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn trash(&self) -> Result<Vec<Trashed>, StoreError> {
        #[derive(QueryableByName)]
        struct Row {
            #[diesel(embed)]
            known: Known,
            #[diesel(sql_type = BigInt)]
            deleted_at: i64,
        }
        let mut connection = self.connection()?;
        let mut out = Vec::new();
        for kind in Kind::all() {
            let rows: Vec<Row> = sql_query(format!(
                "SELECT id, revision, deleted_at FROM {} WHERE deleted_at IS NOT NULL",
                kind.table()
            ))
            .load(&mut connection)?;
            for row in rows {
                let gone = entry(&mut connection, kind, row.known.id, row.known.revision)?;
                out.extend(gone.and_then(|c| c.before).map(|document| Trashed {
                    kind,
                    known: row.known,
                    document,
                    at: row.deleted_at,
                }));
            }
        }
        out.sort_by_key(|t| std::cmp::Reverse(t.at));
        Ok(out)
    }

    /// How many records lie in the trash.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn trashed(&self) -> Result<usize, StoreError> {
        #[derive(QueryableByName)]
        struct Row {
            #[diesel(sql_type = BigInt)]
            n: i64,
        }
        let mut connection = self.connection()?;
        let mut all = 0;
        for kind in Kind::all() {
            let row: Row = sql_query(format!(
                "SELECT count(*) AS n FROM {} WHERE deleted_at IS NOT NULL",
                kind.table()
            ))
            .get_result(&mut connection)?;
            all += usize::try_from(row.n).unwrap_or(0);
        }
        Ok(all)
    }

    /// What a record of the trash names that lies there too, first what is named: without
    /// it that record cannot be taken out.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn needed(&self, trashed: &Trashed, trash: &[Trashed]) -> Result<Vec<Trashed>, StoreError> {
        let named: Vec<(Kind, String)> =
            match Record::of_document(trashed.kind, trashed.document.clone())? {
                Record::Rig(rig) => {
                    let lines = rig.lines.into_iter().filter_map(|line| line.gear);
                    lines.map(|slug| (Kind::Gear, slug)).collect()
                }
                Record::Brief(brief) => [(Kind::Rig, "rig"), (Kind::Water, "water")]
                    .into_iter()
                    .filter_map(|(kind, part)| Some((kind, brief.names(part)?.to_owned())))
                    .collect(),
                _ => Vec::new(),
            };
        let mut out: Vec<Trashed> = Vec::new();
        for (kind, slug) in named {
            let lives = find(&mut *self.connection()?, kind, &slug)?.is_some();
            // Newest first: what was thrown away last under that name.
            let lies = trash.iter().find(|t| {
                t.kind == kind && t.document.get("key").and_then(Value::as_str) == Some(&slug)
            });
            let Some(lies) = lies.filter(|_| !lives) else {
                continue;
            };
            for other in self.needed(lies, trash)?.into_iter().chain([lies.clone()]) {
                if !out
                    .iter()
                    .any(|t| t.known == other.known && t.kind == other.kind)
                {
                    out.push(other);
                }
            }
        }
        Ok(out)
    }

    /// Takes records out of the trash, in this order, all of them or none.
    ///
    /// # Errors
    /// [`StoreError::Taken`] when another has its slug by now; [`StoreError::Reference`]
    /// where one names what is not there.
    pub fn take_back(&self, who: &str, trashed: &[Trashed]) -> Result<(), StoreError> {
        self.write(who, "taken out of the trash", |door| {
            for one in trashed {
                let record = Record::of_document(one.kind, one.document.clone())?;
                door.put(&record, Some(one.known))?;
            }
            Ok(())
        })
    }
}
