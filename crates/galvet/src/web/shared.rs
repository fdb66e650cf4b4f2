//! What all requests share: the data, read once a change, and the desk.

use super::caller::{Caller, Watched};
use super::looks::{Beside, Looks, on};
use super::queue::Queue;
use super::records::Records;
use super::trouble::Trouble;
use super::waits::Waits;
use crate::answer::{Answered, Desk, Digest, Memory, held};
use crate::present::columns::Deep;
use crate::present::page::hulls::hull::HullView;
use crate::present::page::log::start::StartView;
use crate::present::page::ranking::{self, RankingView};
use crate::question::Asked;
use crate::terminal;
use galvet_core::base::System;
use galvet_core::guide::Guides;
use galvet_store::{Known, State, Store, StoreError};
use rayon::ThreadPoolBuilder;
use rocket::tokio::task;
use std::sync::{Arc, Mutex, OnceLock, Weak};

/// Questions of all hulls worked on at once: one, since it uses all processors.
const AT_ONCE: usize = 1;
/// The same of one hull: they go beside the others, on threads of their own.
const SHORT_AT_ONCE: usize = 2;
/// Questions that may wait. The newest goes first: the rest has seconds.
const WAITING: usize = 64;

/// So many hulls are ranked within a second or so: that is waited for.
const FEW: usize = 100;

/// What a row of a ranking weighs in words and drawings, bytes (guide: as measured).
const ROW: usize = 12 * 1024;
/// Where the answer lies in memory, and whether the units are imperial: while it is known
/// beside the view, no other can come to lie there.
type ViewKey = (usize, bool, Deep);
/// A hull's page: of which record, under which question, in imperial units or not.
pub(super) type HullKey = ((i64, Known), Digest, bool);
/// The log's first page: of which records, under which question, in imperial units or not,
/// on which day, from which outing on.
pub(super) type LogKey = (State, Digest, bool, String, usize);
/// How many of the log's first pages are remembered.
const LOGS: usize = 16;
/// A ranking and the place of its words: put there once, however many wait.
type View = (Weak<Answered>, Arc<OnceLock<Arc<RankingView>>>);

/// Shared by all requests.
pub(crate) struct Shared {
    pub(super) store: Store,
    units: System,
    /// Whether simulated devices stand in for real ones.
    pub(super) simulates: bool,
    pub(super) desk: Arc<Desk>,
    pub(super) looks: Looks,
    records: Mutex<Option<Arc<Records>>>,
    queue: Queue,
    /// The lane of short work, and its threads; without them it shares the others'.
    short: Queue,
    beside: Beside,
    views: Mutex<Memory<ViewKey, View>>,
    /// Hulls' pages in words and drawings, as they were last made.
    pub(super) hull_views: Mutex<Memory<HullKey, Arc<HullView>>>,
    /// The log's first page, as it was last made for each who asks.
    pub(super) logs: Mutex<Memory<LogKey, Arc<StartView>>>,
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
        let desk = Arc::new(Desk::remembering(guides, memory - memory / 4));
        let queue = Queue::new(AT_ONCE, WAITING);
        let beside = ThreadPoolBuilder::new().build().ok().map(Arc::new);
        Self {
            store,
            units,
            simulates,
            looks: Looks::new(desk.clone(), &queue, beside.clone()),
            desk,
            records: Mutex::new(None),
            queue,
            short: Queue::new(SHORT_AT_ONCE, WAITING),
            beside,
            views: Mutex::new(Memory::new(memory / 8)),
            hull_views: Mutex::new(Memory::new(memory / 8)),
            logs: Mutex::new(Memory::new(LOGS)),
        }
    }

    /// Units for readers who have not chosen.
    pub(crate) const fn units(&self) -> System {
        self.units
    }

    /// The catalogue as it stands; read, off the request's thread, only when
    /// something has changed since the last time.
    pub(super) async fn records(&self) -> Result<Arc<Records>, Trouble> {
        let store = self.store.clone();
        let state = task::spawn_blocking(move || store.state()).await??;
        if let Some(records) = held(&self.records).as_ref().filter(|s| s.state == state) {
            return Ok(records.clone());
        }
        let (store, before) = (self.store.clone(), held(&self.records).clone());
        let work = move || Ok::<_, StoreError>(Records::read(&store, before.as_deref())?.into());
        let records: Arc<Records> = task::spawn_blocking(work).await??;
        for record in &records.catalogue.set_aside {
            terminal::warn(format_args!("set aside: {}", record.problem));
        }
        *held(&self.records) = Some(records.clone());
        Ok(records)
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
            on(beside.as_deref(), work)
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

    /// Whether a ranking is not there, and takes longer than one waits for a page.
    pub(super) fn takes_long(&self, asked: &Asked, records: &Records) -> bool {
        let many = records.hulls.len() > FEW;
        many && self.desk.known(records.state, &asked.brief).is_none()
    }

    /// The ranking for a question; worked out once, however many ask. Whoever does not wait
    /// for it is told how far it is ([`Trouble::Working`]).
    pub(super) async fn ranking(
        &self,
        asked: &Asked,
        records: &Arc<Records>,
        caller: Caller,
    ) -> Result<Arc<Answered>, Trouble> {
        let (brief, records) = (Arc::new(asked.brief.clone()), records.clone());
        if let Some(known) = self.desk.known(records.state, &brief) {
            return Ok(known);
        }
        if caller.hurries() && self.takes_long(asked, &records) {
            let told = self.looks.ranking(&brief, &records).await?;
            return told.map_err(|so_far| {
                let asked = asked.clone();
                Trouble::Working(Box::new(Waits {
                    so_far,
                    asked,
                    records,
                }))
            });
        }
        let desk = self.desk.clone();
        self.work_watched(caller, move |watch| {
            desk.answer(records.state, &brief, &records.hulls, watch)
        })
        .await?
        // Nobody is there to read why.
        .map_err(|_| Trouble::Busy)
    }

    /// A ranking in words and drawings; put once for all who ask the same.
    pub(super) async fn view(
        &self,
        answer: Arc<Answered>,
        (units, deep): (System, Deep),
    ) -> Result<Arc<RankingView>, Trouble> {
        let key = (
            Arc::as_ptr(&answer) as usize,
            units == System::Imperial,
            deep,
        );
        let place = {
            let mut views = held(&self.views);
            match views.get(&key) {
                Some(view) => view.1.clone(),
                None => {
                    let place: Arc<OnceLock<Arc<RankingView>>> = Arc::default();
                    let rows = answer.ranking.ranked.len() + answer.ranking.ruled_out.len();
                    views.put(
                        key,
                        (Arc::downgrade(&answer), place.clone()),
                        ROW * (rows + 1),
                    );
                    place
                }
            }
        };
        if let Some(view) = place.get() {
            return Ok(view.clone());
        }
        let make = move || {
            let view = place.get_or_init(|| Arc::new(ranking::ranking(&answer, units, deep)));
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
