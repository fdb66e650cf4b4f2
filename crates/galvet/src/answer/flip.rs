//! What would change the winner, looked for once and remembered: it ranks every hull
//! some twenty times.

use super::desk::{Desk, Hull};
use super::watch::{Unwanted, Watch};
use galvet_core::advise::flip::{Flip, flips};
use galvet_core::question::Brief;
use galvet_store::State;
use lru::LruCache;
use std::num::NonZeroUsize;
use std::sync::{Arc, Mutex, PoisonError};

/// Answers remembered: a few lines each.
const FLIPS: NonZeroUsize = NonZeroUsize::new(64).unwrap();

/// The winner, and what would change her.
#[derive(Debug, Clone, PartialEq)]
pub struct Flips {
    /// Her key.
    pub winner: String,
    /// The changes.
    pub found: Vec<Flip>,
}

/// `None` where no hull passed.
type Looked = Option<Arc<Flips>>;

/// What was looked for already, by the state of the records and the question.
#[derive(Debug)]
pub struct FlipsLooked(Mutex<LruCache<(State, String), Looked>>);

impl Default for FlipsLooked {
    fn default() -> Self {
        Self(Mutex::new(LruCache::new(FLIPS)))
    }
}

impl FlipsLooked {
    /// What would change the winner of a question, ranked at `desk`; `None` where no
    /// hull passes.
    ///
    /// # Errors
    /// [`Unwanted`] once `watch` says so.
    pub fn flips(
        &self,
        desk: &Desk,
        state: State,
        brief: &Arc<Brief>,
        hulls: &[Hull],
        watch: &dyn Watch,
    ) -> Result<Looked, Unwanted> {
        let key = (state, format!("{brief:?}"));
        // A panic while the lock was held leaves a whole cache behind.
        let hold = || self.0.lock().unwrap_or_else(PoisonError::into_inner);
        if let Some(known) = hold().get(&key) {
            return Ok(known.clone());
        }
        let first = |brief: &Brief| -> Result<Option<String>, Unwanted> {
            let answer = desk.ranking(&Arc::new(brief.clone()), hulls, watch)?;
            let first = answer.ranking.ranked.first();
            Ok(first.map(|r| r.survey().key.clone()))
        };
        let found = match first(brief)? {
            None => None,
            Some(winner) => {
                let found = flips(brief, &winner, &first)?;
                Some(Arc::new(Flips { winner, found }))
            }
        };
        hold().put(key, found.clone());
        Ok(found)
    }
}
