//! What all requests share.

use crate::ask::Asked;
use crate::terminal;
use crate::view::ranking::{self, RankingView};
use galvet_core::hull::Survey;
use galvet_core::units::System;
use galvet_store::{Catalogue, Store, StoreError};
use lru::LruCache;
use rocket::tokio::task;
use sha2::{Digest, Sha256};
use std::num::NonZeroUsize;
use std::sync::{Arc, Mutex};

/// Rankings remembered. One takes well under a megabyte.
const REMEMBERED: NonZeroUsize = NonZeroUsize::new(64).unwrap();

type Digest32 = [u8; 32];

/// Shared by all requests.
pub(crate) struct Shared {
    store: Store,
    units: System,
    rankings: Mutex<LruCache<Digest32, Arc<RankingView>>>,
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
    pub(crate) fn new(store: Store, units: System) -> Self {
        Self {
            store,
            units,
            rankings: Mutex::new(LruCache::new(REMEMBERED)),
        }
    }

    /// Units for readers who have not chosen.
    pub(crate) const fn units(&self) -> System {
        self.units
    }

    /// The catalogue as it stands, read off the request's thread.
    pub(crate) async fn catalogue(&self) -> Result<Arc<Catalogue>, Trouble> {
        let store = self.store.clone();
        let catalogue = task::spawn_blocking(move || store.catalogue()).await??;
        Ok(Arc::new(catalogue))
    }

    /// The ranking for a question, remembered by the content of question and
    /// catalogue.
    pub(crate) async fn ranking(
        &self,
        asked: &Asked,
        catalogue: &Arc<Catalogue>,
        system: System,
    ) -> Result<Arc<RankingView>, Trouble> {
        let key = digest(asked, catalogue, system);
        if let Ok(mut rankings) = self.rankings.lock()
            && let Some(found) = rankings.get(&key)
        {
            return Ok(found.clone());
        }
        let (brief, catalogue) = (asked.brief.clone(), catalogue.clone());
        let view = task::spawn_blocking(move || {
            let hulls: Vec<Survey> = catalogue.hulls.iter().map(|h| h.survey.clone()).collect();
            Arc::new(ranking::ranking(&brief, &hulls, system))
        })
        .await?;
        if let Ok(mut rankings) = self.rankings.lock() {
            rankings.put(key, view.clone());
        }
        Ok(view)
    }
}

/// Content hash of everything a ranking depends on. The debug form of the
/// types is complete, exact for floating point, and changes with them.
fn digest(asked: &Asked, catalogue: &Catalogue, system: System) -> Digest32 {
    let mut hash = Sha256::new();
    hash.update(format!("{:?}{system:?}", asked.brief));
    for record in &catalogue.hulls {
        hash.update(format!("{:?}", record.survey));
    }
    hash.finalize().into()
}
