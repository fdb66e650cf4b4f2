//! What all requests share: the data, read once a change, and the desk.

use super::caller::{Caller, Watched};
use super::queue::{Busy, Queue};
use crate::answer::{Answered, Desk, Flips, FlipsLooked, Hull, Memory};
use crate::present::page::ranking::{self, RankingView};
use crate::question::{Asked, NothingToAsk};
use crate::terminal;
use galvet_core::base::System;
use galvet_core::guide::Guides;
use galvet_store::{Catalogue, State, Store, StoreError};
use rayon::{ThreadPool, ThreadPoolBuilder};
use rocket::tokio::task;
use std::sync::{Arc, Mutex, OnceLock, PoisonError};

/// The catalogue as it stood at a change, ready to be asked about.
pub(super) struct Shelf {
    state: State,
    /// Everything a question can name.
    pub(super) catalogue: Catalogue,
    /// Its hulls, in its order.
    pub(super) hulls: Vec<Hull>,
}

/// Questions of all hulls worked on at once: one, since it uses all processors.
const AT_ONCE: usize = 1;
/// The same of one hull: they go beside the others, on threads of their own.
const SHORT_AT_ONCE: usize = 2;
/// Questions that may wait. The newest goes first: the rest has seconds.
const WAITING: usize = 64;

/// What a row of a ranking weighs in words and drawings, bytes (guide: as measured).
const ROW: usize = 12 * 1024;
/// Where the answer lies in memory, and whether the units are imperial: the answer is kept beside
/// the view, so that no other can come to lie there.
type ViewKey = (usize, bool);
/// A ranking and the place of its words: put there once, however many wait.
type View = (Arc<Answered>, Arc<OnceLock<Arc<RankingView>>>);

/// Shared by all requests.
pub(crate) struct Shared {
    pub(super) store: Store,
    units: System,
    /// Whether simulated devices stand in for real ones.
    pub(super) simulates: bool,
    pub(super) desk: Arc<Desk>,
    /// Flips take so long that they are remembered.
    flips: Arc<FlipsLooked>,
    shelf: Mutex<Option<Arc<Shelf>>>,
    queue: Queue,
    /// The lane of short work, and its threads; without them it shares the others'.
    short: Queue,
    beside: Option<Arc<ThreadPool>>,
    views: Mutex<Memory<ViewKey, View>>,
}

/// Why a request could not be served for reasons of our own.
#[derive(Debug)]
pub(crate) enum Trouble {
    /// Something broke.
    Ours,
    /// There is nothing of that name (any more).
    Gone,
    /// Too many ask at once.
    Busy,
    /// There is no water a question could be asked of.
    NothingToAsk,
}

impl From<NothingToAsk> for Trouble {
    fn from(_: NothingToAsk) -> Self {
        Self::NothingToAsk
    }
}

impl From<Busy> for Trouble {
    fn from(_: Busy) -> Self {
        Self::Busy
    }
}

impl From<StoreError> for Trouble {
    fn from(error: StoreError) -> Self {
        // To the operator's terminal, never to the page.
        terminal::warn(error);
        Self::Ours
    }
}

impl From<task::JoinError> for Trouble {
    fn from(error: task::JoinError) -> Self {
        terminal::warn(format_args!("a computation stopped: {error}"));
        Self::Ours
    }
}

impl Shared {
    /// `units` are for readers who have not chosen; about so many bytes of `memory` are
    /// used to remember what was worked out; whether simulated devices stand in for real
    /// ones.
    pub(crate) fn new(
        store: Store,
        units: System,
        (guides, memory): (Arc<Guides>, usize),
        simulates: bool,
    ) -> Self {
        Self {
            store,
            units,
            simulates,
            desk: Arc::new(Desk::remembering(guides, memory - memory / 8)),
            flips: Arc::default(),
            shelf: Mutex::new(None),
            queue: Queue::new(AT_ONCE, WAITING),
            short: Queue::new(SHORT_AT_ONCE, WAITING),
            beside: ThreadPoolBuilder::new().build().ok().map(Arc::new),
            views: Mutex::new(Memory::new(memory / 8)),
        }
    }

    /// Units for readers who have not chosen.
    pub(crate) const fn units(&self) -> System {
        self.units
    }

    /// The catalogue as it stands; read, off the request's thread, only when
    /// something has changed since the last time.
    pub(super) async fn shelf(&self) -> Result<Arc<Shelf>, Trouble> {
        let store = self.store.clone();
        let state = task::spawn_blocking(move || store.state()).await??;
        let hold = || self.shelf.lock().unwrap_or_else(PoisonError::into_inner);
        if let Some(shelf) = hold().as_ref().filter(|s| s.state == state) {
            return Ok(shelf.clone());
        }
        let store = self.store.clone();
        let catalogue = task::spawn_blocking(move || store.catalogue()).await??;
        for record in &catalogue.set_aside {
            terminal::warn(format_args!("set aside: {}", record.problem));
        }
        let hulls = catalogue
            .hulls
            .iter()
            .zip(&catalogue.known)
            .map(|(record, &known)| Hull {
                known: Some((state.epoch, known)),
                survey: Arc::new(record.survey.clone()),
            })
            .collect();
        let shelf = Arc::new(Shelf {
            state,
            catalogue,
            hulls,
        });
        *hold() = Some(shelf.clone());
        Ok(shelf)
    }

    /// Works something of one hull, or a few, out off the request's thread for the reader
    /// at `caller`: beside whatever ranks them all, which it does not wait for.
    pub(super) async fn work<T: Send + 'static>(
        &self,
        caller: Caller,
        work: impl FnOnce() -> T + Send + 'static,
    ) -> Result<T, Trouble> {
        let turn = self.short.turn(move || caller.is_there()).await?;
        let beside = self.beside.clone();
        let work = move || {
            let _turn = turn;
            match beside {
                Some(threads) => threads.install(work),
                None => work(),
            }
        };
        Ok(task::spawn_blocking(work).await?)
    }

    /// Works something of all hulls out, when its turn has come; it can stop once the
    /// reader has gone.
    pub(super) async fn work_watched<T: Send + 'static>(
        &self,
        caller: Caller,
        work: impl FnOnce(&Watched) -> T + Send + 'static,
    ) -> Result<T, Trouble> {
        let turn = self.queue.turn(move || caller.is_there()).await?;
        let watched = caller.watched(turn);
        Ok(task::spawn_blocking(move || work(&watched)).await?)
    }

    /// The ranking for a question; worked out once, however many ask.
    pub(super) async fn ranking(
        &self,
        asked: &Asked,
        shelf: &Arc<Shelf>,
        caller: Caller,
    ) -> Result<Arc<Answered>, Trouble> {
        let (brief, shelf) = (Arc::new(asked.brief.clone()), shelf.clone());
        if let Some(known) = self.desk.known(shelf.state, &brief) {
            return Ok(known);
        }
        let desk = self.desk.clone();
        self.work_watched(caller, move |watch| {
            desk.answer(shelf.state, &brief, &shelf.hulls, watch)
        })
        .await?
        // Nobody is there to read why.
        .map_err(|_| Trouble::Busy)
    }

    /// What would change the winner of a question.
    pub(super) async fn flips(
        &self,
        asked: &Asked,
        shelf: &Arc<Shelf>,
        caller: Caller,
    ) -> Result<Option<Arc<Flips>>, Trouble> {
        let (brief, shelf) = (Arc::new(asked.brief.clone()), shelf.clone());
        let (desk, looked) = (self.desk.clone(), self.flips.clone());
        self.work_watched(caller, move |watch| {
            looked.flips(&desk, shelf.state, &brief, &shelf.hulls, watch)
        })
        .await?
        // Nobody is there to read why.
        .map_err(|_| Trouble::Busy)
    }

    /// A ranking in words and drawings; put once for all who ask the same.
    pub(super) async fn view(
        &self,
        answer: Arc<Answered>,
        units: System,
    ) -> Result<Arc<RankingView>, Trouble> {
        let key = (Arc::as_ptr(&answer) as usize, units == System::Imperial);
        let place = {
            let mut views = self.views.lock().unwrap_or_else(PoisonError::into_inner);
            match views.get(&key) {
                Some(view) => view.1.clone(),
                None => {
                    let place: Arc<OnceLock<Arc<RankingView>>> = Arc::default();
                    let rows = answer.ranking.ranked.len() + answer.ranking.ruled_out.len();
                    views.put(key, (answer.clone(), place.clone()), ROW * (rows + 1));
                    place
                }
            }
        };
        if let Some(view) = place.get() {
            return Ok(view.clone());
        }
        let make = move || {
            let view = place.get_or_init(|| Arc::new(ranking::ranking(&answer, units)));
            view.clone()
        };
        Ok(task::spawn_blocking(make).await?)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::answer::BUDGET;
    use rocket::tokio;
    use std::sync::mpsc::channel;

    #[rocket::async_test]
    async fn short_work_does_not_wait_for_long_work() {
        let directory = tempfile::tempdir().unwrap();
        let store = Store::open(directory.path()).unwrap();
        let guides = (Arc::new(Guides::default()), BUDGET);
        let shared = Arc::new(Shared::new(store, System::Metric, guides, false));
        let caller = Caller::here();
        let (begun, begins) = channel();
        let (end, ends) = channel::<()>();
        let long = shared.clone();
        let long = tokio::spawn(async move {
            let work = move |_: &Watched| {
                begun.send(()).unwrap();
                ends.recv()
            };
            long.work_watched(caller, work).await.unwrap()
        });
        task::spawn_blocking(move || begins.recv())
            .await
            .unwrap()
            .unwrap();
        // On threads of its own, while the long one holds its turn.
        let own = shared.work(caller, || rayon::current_thread_index().is_some());
        assert!(own.await.unwrap());
        end.send(()).unwrap();
        long.await.unwrap().unwrap();
    }
}
