//! What all requests share: the data, read once a change, and the desk.

use crate::answer::{Answered, Desk, Hull};
use crate::question::Asked;
use crate::terminal;
use galvet_core::base::System;
use galvet_core::guide::Guides;
use galvet_store::{Catalogue, Store, StoreError};
use rocket::tokio::task;
use std::sync::{Arc, Mutex, PoisonError};

/// The catalogue as it stood at a change, ready to be asked about.
pub(super) struct Shelf {
    change: i64,
    /// Everything a question can name.
    pub(super) catalogue: Catalogue,
    /// Its hulls, in its order.
    pub(super) hulls: Vec<Hull>,
}

/// Shared by all requests.
pub(crate) struct Shared {
    pub(super) store: Store,
    units: System,
    pub(super) desk: Arc<Desk>,
    shelf: Mutex<Option<Arc<Shelf>>>,
}

/// Why a request could not be served for reasons of our own.
#[derive(Debug)]
pub(crate) struct Trouble;

impl From<StoreError> for Trouble {
    fn from(error: StoreError) -> Self {
        // To the operator's terminal, never to the page.
        terminal::warn(error);
        Self
    }
}

impl From<task::JoinError> for Trouble {
    fn from(error: task::JoinError) -> Self {
        terminal::warn(format_args!("a computation stopped: {error}"));
        Self
    }
}

impl Shared {
    /// `units` are for readers who have not chosen.
    pub(crate) fn new(store: Store, units: System, guides: Arc<Guides>) -> Self {
        Self {
            store,
            units,
            desk: Arc::new(Desk::new(guides)),
            shelf: Mutex::new(None),
        }
    }

    /// Units for readers who have not chosen.
    pub(crate) const fn units(&self) -> System {
        self.units
    }

    /// The catalogue as it stands; read, off the request's thread, only when
    /// something has changed since the last time.
    pub(super) async fn shelf(&self) -> Result<Arc<Shelf>, Trouble> {
        let change = self.store.change();
        let hold = || self.shelf.lock().unwrap_or_else(PoisonError::into_inner);
        if let Some(shelf) = hold().as_ref().filter(|s| s.change == change) {
            return Ok(shelf.clone());
        }
        let store = self.store.clone();
        let catalogue = task::spawn_blocking(move || store.catalogue()).await??;
        for problem in &catalogue.set_aside {
            terminal::warn(format_args!("set aside: {problem}"));
        }
        let hulls = catalogue
            .hulls
            .iter()
            .zip(&catalogue.known)
            .map(|(record, &known)| Hull {
                known: Some(known),
                survey: Arc::new(record.survey.clone()),
            })
            .collect();
        let shelf = Arc::new(Shelf {
            change,
            catalogue,
            hulls,
        });
        *hold() = Some(shelf.clone());
        Ok(shelf)
    }

    /// The ranking for a question, worked out off the request's thread.
    pub(super) async fn ranking(
        &self,
        asked: &Asked,
        shelf: &Arc<Shelf>,
    ) -> Result<Answered, Trouble> {
        let (brief, shelf) = (Arc::new(asked.brief.clone()), shelf.clone());
        let desk = self.desk.clone();
        Ok(task::spawn_blocking(move || desk.ranking(&brief, &shelf.hulls)).await?)
    }
}
