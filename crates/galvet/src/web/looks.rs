//! What takes long and is told line by line: looked for once however many ask, told as
//! far as it is, given up once nobody has asked for a while.

use super::caller::Watched;
use super::queue::Queue;
use super::records::Records;
use super::trouble::Trouble;
use crate::answer::{Desk, Digest, Flips, digest, flips, held};
use crate::question::Asked;
use galvet_store::State;
use lru::LruCache;
use rocket::tokio::sync::watch;
use rocket::tokio::{spawn, task, time};
use std::num::NonZeroUsize;
use std::sync::{Arc, Mutex};
use std::time::{Duration, Instant};

/// Looks remembered: a few lines each.
const KEPT: NonZeroUsize = NonZeroUsize::new(64).unwrap();
/// Whoever asks is told after so long what is known by then.
const TOLD_AFTER: Duration = Duration::from_millis(800);
/// Nobody waits any more who has not asked again for so long.
const GONE_AFTER: Duration = Duration::from_secs(10);

/// How far a look is.
#[derive(Debug, Clone, Default)]
pub(super) struct Told {
    /// What was found so far; `None` where no hull passes, or nothing is known yet.
    pub(super) flips: Option<Arc<Flips>>,
    /// Whether that is all.
    pub(super) whole: bool,
    /// Whether it was given up.
    ended: bool,
}

#[derive(Debug)]
struct Look {
    told: watch::Sender<Told>,
    asked: Mutex<Instant>,
}

impl Look {
    fn is_wanted(&self) -> bool {
        held(&self.asked).elapsed() < GONE_AFTER
    }
}

/// Looks by the state of the records and the question.
#[derive(Debug)]
pub(super) struct Looks {
    desk: Arc<Desk>,
    queue: Queue,
    kept: Mutex<LruCache<(State, Digest), Arc<Look>>>,
}

impl Looks {
    /// Looks done at `desk`, each when its turn in `queue` has come.
    pub(super) fn new(desk: Arc<Desk>, queue: Queue) -> Self {
        Self {
            desk,
            queue,
            kept: Mutex::new(LruCache::new(KEPT)),
        }
    }

    /// What would change the winner of a question, as far as it is known within a
    /// second; begins to look for it where nobody has.
    pub(super) async fn flips(
        &self,
        asked: &Asked,
        records: &Arc<Records>,
    ) -> Result<Told, Trouble> {
        let key = (records.state, digest(&asked.brief));
        let (look, begins) = {
            let mut kept = held(&self.kept);
            match kept.get(&key).filter(|look| !look.told.borrow().ended) {
                Some(look) => {
                    *held(&look.asked) = Instant::now();
                    (look.clone(), false)
                }
                None => {
                    let look = Arc::new(Look {
                        told: watch::Sender::default(),
                        asked: Mutex::new(Instant::now()),
                    });
                    kept.put(key, look.clone());
                    (look, true)
                }
            }
        };
        if begins {
            self.begin(&look, asked, records);
        }
        let mut hears = look.told.subscribe();
        // The first who asks is told as soon as there is a line.
        let over =
            hears.wait_for(|told| told.whole || told.ended || begins && told.flips.is_some());
        // Either way what is known by then is told.
        let _ = time::timeout(TOLD_AFTER, over).await;
        let told = look.told.borrow().clone();
        if told.ended {
            return Err(Trouble::Busy);
        }
        Ok(told)
    }

    /// Looks, off the request's thread.
    fn begin(&self, look: &Arc<Look>, asked: &Asked, records: &Arc<Records>) {
        let (look, desk, queue) = (look.clone(), self.desk.clone(), self.queue.clone());
        let (brief, records) = (asked.brief.clone(), records.clone());
        spawn(async move {
            let (waits, works) = (look.clone(), look.clone());
            let found = match queue.turn(move || waits.is_wanted()).await {
                Ok(turn) => {
                    let wanted = works.clone();
                    let watched = Watched::new(move || wanted.is_wanted(), turn);
                    let work = move || {
                        let tell = |flips: &Flips| {
                            let flips = Some(Arc::new(flips.clone()));
                            works.told.send_modify(|told| told.flips = flips);
                        };
                        flips(&desk, &brief, &records.hulls, &watched, &tell)
                    };
                    task::spawn_blocking(work).await.ok().and_then(Result::ok)
                }
                Err(_) => None,
            };
            look.told.send_modify(|told| match found {
                Some(found) => {
                    told.flips = found.map(Arc::new);
                    told.whole = true;
                }
                None => told.ended = true,
            });
        });
    }
}
