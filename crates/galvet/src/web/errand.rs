//! What takes long and is told as far as it is: done once however many ask, given up once
//! nobody has asked for a while.

use super::caller::Watched;
use super::queue::Queue;
use super::trouble::Trouble;
use crate::answer::held;
use crate::terminal;
use lru::LruCache;
use rocket::tokio::sync::watch;
use rocket::tokio::{spawn, task, time};
use std::hash::Hash;
use std::num::NonZeroUsize;
use std::sync::{Arc, Mutex};
use std::time::{Duration, Instant};

/// Errands remembered.
const KEPT: NonZeroUsize = NonZeroUsize::new(64).unwrap();
/// Nobody waits any more who has not asked again for so long.
const GONE_AFTER: Duration = Duration::from_secs(10);
/// The same while somebody else waits for their turn: who changes a question does not wait
/// for the one before. A page that waits asks again in half of it.
const GONE_AFTER_AWAITED: Duration = Duration::from_secs(3);

/// How far an errand is.
#[derive(Debug, Clone, Default)]
pub(super) struct Told<T> {
    /// What was found so far.
    pub(super) found: T,
    /// Whether that is all.
    pub(super) whole: bool,
    /// Whether it was given up.
    ended: bool,
}

/// Something being done.
#[derive(Debug)]
pub(super) struct Errand<T> {
    told: watch::Sender<Told<T>>,
    asked: Mutex<Instant>,
}

impl<T: Clone + Default> Errand<T> {
    fn new() -> Self {
        Self {
            told: watch::Sender::new(Told::default()),
            asked: Mutex::new(Instant::now()),
        }
    }

    /// Whether somebody waits for it, while somebody else waits for their turn or not.
    fn is_wanted(&self, awaited: bool) -> bool {
        let most = if awaited {
            GONE_AFTER_AWAITED
        } else {
            GONE_AFTER
        };
        held(&self.asked).elapsed() < most
    }

    /// Tells what was found by now.
    pub(super) fn tell(&self, found: T) {
        self.told.send_modify(|told| told.found = found);
    }
}

/// Errands of one kind, by what they are about.
#[derive(Debug)]
pub(super) struct Errands<K: Hash + Eq, T> {
    queue: Queue,
    kept: Mutex<LruCache<K, Arc<Errand<T>>>>,
}

impl<K, T> Errands<K, T>
where
    K: Hash + Eq,
    T: Clone + Default + Send + Sync + 'static,
{
    /// Each done when its turn in `queue` has come.
    pub(super) fn new(queue: Queue) -> Self {
        Self {
            queue,
            kept: Mutex::new(LruCache::new(KEPT)),
        }
    }

    /// Forgets one: whoever asks for it next has it done anew.
    pub(super) fn forget(&self, key: &K) {
        held(&self.kept).pop(key);
    }

    /// How far one is `after` so long, or as soon as it is whole; begun with `work` where
    /// nobody has. The first who asks is told as soon as what was found is `enough`. `work`
    /// comes back with all there is, or with nothing where it was given up.
    pub(super) async fn ask(
        &self,
        key: K,
        (after, enough): (Duration, fn(&T) -> bool),
        work: impl FnOnce(&Errand<T>, &Watched) -> Option<T> + Send + 'static,
    ) -> Result<Told<T>, Trouble> {
        let (errand, begins) = {
            let mut kept = held(&self.kept);
            match kept.get(&key).filter(|e| !e.told.borrow().ended) {
                Some(errand) => {
                    *held(&errand.asked) = Instant::now();
                    (errand.clone(), false)
                }
                None => {
                    let errand = Arc::new(Errand::new());
                    kept.put(key, errand.clone());
                    (errand, true)
                }
            }
        };
        if begins {
            self.begin(&errand, work);
        }
        let mut hears = errand.told.subscribe();
        let over = hears.wait_for(|told| told.whole || told.ended || begins && enough(&told.found));
        // Either way what is known by then is told.
        let _ = time::timeout(after, over).await;
        let told = errand.told.borrow().clone();
        if told.ended {
            return Err(Trouble::Busy);
        }
        Ok(told)
    }

    /// Does it, off the request's thread.
    fn begin(
        &self,
        errand: &Arc<Errand<T>>,
        work: impl FnOnce(&Errand<T>, &Watched) -> Option<T> + Send + 'static,
    ) {
        let (errand, queue) = (errand.clone(), self.queue.clone());
        spawn(async move {
            let (waits, works) = (errand.clone(), errand.clone());
            let found = match queue.turn(move || waits.is_wanted(true)).await {
                Ok(turn) => {
                    let wanted = works.clone();
                    let watched = Watched::new(move |awaited| wanted.is_wanted(awaited), turn);
                    let done = task::spawn_blocking(move || work(&works, &watched));
                    done.await.unwrap_or_else(|error| {
                        terminal::warn(format_args!("a computation stopped: {error}"));
                        None
                    })
                }
                Err(_) => None,
            };
            errand.told.send_modify(|told| match found {
                Some(found) => {
                    told.found = found;
                    told.whole = true;
                }
                None => told.ended = true,
            });
        });
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::answer::Watch;
    use std::sync::mpsc::{Sender, channel};

    /// An errand that tells a number, and ends with the next once it is let go on.
    fn counts(
        from: u32,
    ) -> (
        Sender<()>,
        impl FnOnce(&Errand<u32>, &Watched) -> Option<u32> + Send,
    ) {
        let (go_on, goes_on) = channel();
        let work = move |errand: &Errand<u32>, watched: &Watched| {
            errand.tell(from);
            goes_on.recv().ok()?;
            watched.wanted().then_some(from + 1)
        };
        (go_on, work)
    }

    #[rocket::async_test]
    async fn it_is_told_as_far_as_it_is_and_done_once() {
        let errands = Errands::<&str, u32>::new(Queue::new(1, 4));
        let short = Duration::from_millis(1);
        let long = Duration::from_secs(60);
        let (go_on, work) = counts(7);
        // The first is told as soon as it is enough, however long it may wait.
        let told = errands.ask("a", (long, |&n| n > 0), work).await.unwrap();
        assert_eq!((told.found, told.whole), (7, false));
        // The next are told after a while; what they bring is not begun.
        let (_, other) = counts(70);
        let told = errands.ask("a", (short, |&n| n > 0), other).await.unwrap();
        assert_eq!((told.found, told.whole), (7, false));
        go_on.send(()).unwrap();
        let (_, other) = counts(70);
        let told = errands.ask("a", (long, |_| false), other).await.unwrap();
        assert_eq!((told.found, told.whole), (8, true));
        // Forgotten it is done anew; one given up is told to come again, and begins anew.
        errands.forget(&"a");
        let (go_on, work) = counts(70);
        drop(go_on);
        let told = errands.ask("a", (long, |_| false), work).await;
        assert!(matches!(told, Err(Trouble::Busy)));
        let (go_on, work) = counts(20);
        go_on.send(()).unwrap();
        let told = errands.ask("a", (long, |_| false), work).await.unwrap();
        assert_eq!((told.found, told.whole), (21, true));
    }

    #[test]
    fn nobody_who_has_not_asked_for_a_while_waits() {
        let errand = Errand::<u32>::new();
        let since = |long: Duration| {
            let then = Instant::now().checked_sub(long).unwrap();
            *held(&errand.asked) = then;
            [false, true].map(|awaited| errand.is_wanted(awaited))
        };
        assert_eq!(since(Duration::ZERO), [true, true]);
        assert_eq!(since(GONE_AFTER_AWAITED), [true, false]);
        assert_eq!(since(GONE_AFTER), [false, false]);
    }

    #[rocket::async_test]
    async fn one_that_nobody_asks_for_makes_way_for_the_next() {
        let errands = Errands::<&str, u32>::new(Queue::new(1, 4));
        let work = |errand: &Errand<u32>, watched: &Watched| {
            errand.tell(1);
            while watched.wanted() {
                std::thread::yield_now();
            }
            None
        };
        let long = Duration::from_secs(60);
        let told = errands.ask("left", (long, |&n| n > 0), work).await.unwrap();
        assert_eq!((told.found, told.whole), (1, false));
        let begun = Instant::now();
        let short = Duration::from_millis(20);
        let told = loop {
            let next = |_: &Errand<u32>, _: &Watched| Some(2);
            let told = errands.ask("next", (short, |_| false), next).await;
            let told = told.unwrap();
            if told.whole {
                break told;
            }
        };
        assert_eq!(told.found, 2);
        assert!(
            begun.elapsed() < GONE_AFTER,
            "it waited for one that was left"
        );
    }
}
