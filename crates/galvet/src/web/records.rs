//! The records as they stood at a change, ready to be asked about.

use crate::answer::Hull;
use galvet_store::{Read, Store, StoreError};
use std::collections::HashMap;
use std::ops::Deref;
use std::sync::Arc;

/// The catalogue as it stood at a change, ready to be asked about.
pub(super) struct Records {
    /// Everything a question can name, and its state.
    read: Read,
    /// Its hulls, in its order.
    pub(super) hulls: Vec<Hull>,
}

impl Deref for Records {
    type Target = Read;

    fn deref(&self) -> &Read {
        &self.read
    }
}

impl Records {
    /// Reads what has changed since they were read `before`, in one transaction.
    pub(super) fn read(store: &Store, before: Option<&Self>) -> Result<Self, StoreError> {
        let read = store.read(before.map(|b| &b.read))?;
        let mut known: HashMap<_, _> = before
            .into_iter()
            .flat_map(|before| &before.hulls)
            .map(|hull| (hull.known, hull.survey.clone()))
            .collect();
        let all = read.catalogue.hulls.iter().zip(&read.catalogue.known);
        let hulls = all.map(|(record, &row)| {
            let row = Some((read.state.epoch, row));
            let survey = known.remove(&row);
            Hull {
                known: row,
                survey: survey.unwrap_or_else(|| Arc::new(record.survey.clone())),
            }
        });
        let hulls = hulls.collect();
        Ok(Self { read, hulls })
    }

    /// Key and name of every hull, by name.
    pub(super) fn named(&self) -> Vec<(String, String)> {
        let hulls = self.hulls.iter();
        let mut all: Vec<_> = hulls
            .map(|h| (h.survey.key.clone(), h.survey.name()))
            .collect();
        all.sort_by(|a, b| a.1.cmp(&b.1));
        all
    }
}
