//! What is worked out of all hulls and told as far as it is: what would change the winner,
//! and a ranking of many.

use super::caller::Watched;
use super::errand::{Errand, Errands, Told};
use super::queue::Queue;
use super::records::Records;
use super::trouble::Trouble;
use crate::answer::{Answered, Desk, Digest, Flips, Watch, digest, flips, held};
use crate::present::page::ranking::so_far::SoFar;
use crate::question::Asked;
use galvet_core::question::Brief;
use galvet_core::rank::Candidate;
use galvet_store::State;
use rayon::ThreadPool;
use rocket::tokio::task;
use std::sync::{Arc, Mutex};
use std::time::Duration;

/// Whoever asks what would change the winner is told after so long what is known by then.
const FLIPS_AFTER: Duration = Duration::from_millis(800);
/// Likewise whoever asks for a ranking: with two seconds for the whole page.
const RANKING_AFTER: Duration = Duration::from_millis(1200);

/// Threads beside those that rank all hulls; without them it shares the others'.
pub(super) type Beside = Option<Arc<ThreadPool>>;

/// Works something out on threads of its own, where there are any.
pub(super) fn on<T: Send>(beside: Option<&ThreadPool>, work: impl FnOnce() -> T + Send) -> T {
    match beside {
        Some(threads) => threads.install(work),
        None => work(),
    }
}

/// The hulls looked at by now.
type Seen = Arc<Mutex<Vec<Candidate>>>;
/// The state of the records, and the question.
type Key = (State, Digest);

/// Looks by the state of the records and the question.
#[derive(Debug)]
pub(super) struct Looks {
    desk: Arc<Desk>,
    /// What would change the winner; `None` where no hull passes, or nothing is known yet.
    flips: Errands<Key, Option<Arc<Flips>>>,
    rankings: Errands<Key, Seen>,
    beside: Beside,
}

impl Looks {
    /// Looks done at `desk`, each when its turn in `queue` has come; how far they are is
    /// worked out on threads of its own `beside` them.
    pub(super) fn new(desk: Arc<Desk>, queue: &Queue, beside: Beside) -> Self {
        Self {
            desk,
            flips: Errands::new(queue.clone()),
            rankings: Errands::new(queue.clone()),
            beside,
        }
    }

    /// What would change the winner of a question, as far as it is known within a
    /// second; begins to look for it where nobody has.
    pub(super) async fn flips(
        &self,
        asked: &Asked,
        records: &Arc<Records>,
    ) -> Result<Told<Option<Arc<Flips>>>, Trouble> {
        let key = (records.state, digest(&asked.brief));
        let (desk, brief, records) = (self.desk.clone(), asked.brief.clone(), records.clone());
        let work = move |errand: &Errand<_>, watched: &Watched| {
            let tell = |flips: &Flips| errand.tell(Some(Arc::new(flips.clone())));
            let found = flips(&desk, &brief, &records.hulls, watched, &tell);
            found.ok().map(|flips| flips.map(Arc::new))
        };
        self.flips
            .ask(key, (FLIPS_AFTER, Option::is_some), work)
            .await
    }

    /// A ranking, or how far it is after a second.
    pub(super) async fn ranking(
        &self,
        brief: &Arc<Brief>,
        records: &Arc<Records>,
    ) -> Result<Result<Arc<Answered>, SoFar>, Trouble> {
        let key = (records.state, digest(brief));
        let seen = Seen::default();
        let work = {
            let (desk, brief, records) = (self.desk.clone(), brief.clone(), records.clone());
            let seen = seen.clone();
            move |errand: &Errand<Seen>, watched: &Watched| {
                errand.tell(seen.clone());
                let noted = Noted { watched, seen };
                let whole = desk.answer(records.state, &brief, &records.hulls, &noted);
                // What was seen is in the answer, which the desk remembers.
                whole.ok().map(|_| Seen::default())
            }
        };
        let told = self.rankings.ask(key, (RANKING_AFTER, |_| false), work);
        let told = told.await?;
        if told.whole {
            self.rankings.forget(&key);
            // Forgotten meanwhile it is asked for once more.
            return self.desk.known(key.0, brief).map(Ok).ok_or(Trouble::Busy);
        }
        let seen = held(&told.found).clone();
        let (brief, guides) = (brief.clone(), self.desk.guides().clone());
        let all = records.hulls.len();
        let beside = self.beside.clone();
        let view = move || on(beside.as_deref(), || SoFar::of(&brief, seen, all, &guides));
        Ok(Err(task::spawn_blocking(view).await?))
    }
}

/// Notes hull by hull what is known.
struct Noted<'a> {
    watched: &'a Watched,
    seen: Seen,
}

impl Watch for Noted<'_> {
    fn wanted(&self) -> bool {
        self.watched.wanted()
    }

    fn done(&self, candidate: &Candidate) {
        held(&self.seen).push(candidate.clone());
    }

    fn rest(&self) {
        self.watched.rest();
    }
}
