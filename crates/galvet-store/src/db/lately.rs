//! What was changed lately, by whom: the journal read backwards, act by act.

use super::Store;
use super::journal::{Change, Stored};
use super::kind::Kind;
use super::record::Record;
use super::schema::journal;
use crate::error::StoreError;
use diesel::prelude::*;

/// Something done at once.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Lately {
    /// Its group in the journal.
    pub group: i64,
    /// When, milliseconds since 1970.
    pub at: i64,
    /// By whom, as the journal calls them.
    pub who: String,
    /// What it was called.
    pub label: String,
    /// One of the records it changed: kind, slug and name.
    pub record: Option<(Kind, String, String)>,
    /// How many records it changed.
    pub records: usize,
}

impl Store {
    /// What was done lately, newest first: at most so many acts, of those before a group
    /// where one is named.
    ///
    /// # Errors
    /// [`StoreError`] when the database does not answer.
    pub fn lately(&self, most: u32, before: Option<i64>) -> Result<Vec<Lately>, StoreError> {
        let connection = &mut *self.connection()?;
        let groups: Vec<(i64, i64, Option<i64>)> = journal::table
            .filter(journal::change_group.lt(before.unwrap_or(i64::MAX)))
            .group_by(journal::change_group)
            .order(journal::change_group.desc())
            .limit(most.into())
            .select((
                journal::change_group,
                diesel::dsl::count_star(),
                diesel::dsl::max(journal::id),
            ))
            .load(connection)?;
        let mut out = Vec::new();
        for (group, records, last) in groups {
            let change = journal::table
                .filter(journal::id.eq(last.unwrap_or_default()))
                .select(Stored::as_select())
                .first(connection)?
                .change()?;
            out.push(Lately {
                group,
                at: change.at,
                who: change.who.clone(),
                label: change.label.clone(),
                record: named(change),
                records: usize::try_from(records).unwrap_or_default(),
            });
        }
        Ok(out)
    }
}

/// What a change is about; `None` where it cannot be read.
fn named(change: Change) -> Option<(Kind, String, String)> {
    let document = change.after.or(change.before)?;
    let record = Record::of_document(change.kind, document).ok()?;
    Some((change.kind, record.slug().to_owned(), record.name()))
}
