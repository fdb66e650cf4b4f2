//! Whose turn it is to compute: a few at once, the newest first. Whoever came
//! long ago has often gone meanwhile; so the newest never waits for them, those
//! seen to have gone are passed over, and the oldest is told to come again when
//! too many wait.

use crate::answer::held as hold;
use rocket::tokio::sync::oneshot;
use std::collections::VecDeque;
use std::sync::{Arc, Mutex, MutexGuard};

/// A bounded queue, last come first served.
#[derive(Debug, Clone)]
pub(super) struct Queue {
    state: Arc<Mutex<State>>,
    at_once: usize,
    most_waiting: usize,
}

#[derive(Debug, Default)]
struct State {
    running: usize,
    waiting: VecDeque<Waiting>,
    /// Long works that let others go first, oldest first.
    resting: VecDeque<oneshot::Sender<Turn>>,
    /// Others that went since one of those did.
    passed: usize,
}

/// So many go before a long work that rests goes on all the same.
const PASS: usize = 4;

/// One who waits.
struct Waiting {
    give: oneshot::Sender<Turn>,
    there: Box<dyn Fn() -> bool + Send>,
}

impl std::fmt::Debug for Waiting {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        f.write_str("Waiting")
    }
}

/// Somebody's turn; over when it is dropped.
#[derive(Debug)]
pub(super) struct Turn(Option<Arc<Mutex<State>>>);

/// Too many wait.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) struct Busy;

impl Queue {
    /// `at_once` turns run side by side, `most_waiting` more may wait.
    pub(super) fn new(at_once: usize, most_waiting: usize) -> Self {
        Self {
            state: Arc::default(),
            at_once: at_once.max(1),
            most_waiting,
        }
    }

    /// Waits for a turn; whoever is not `there` any more when it comes is passed
    /// over.
    ///
    /// # Errors
    /// [`Busy`] once so many newer ones wait that this one has to come again.
    pub(super) async fn turn(
        &self,
        there: impl Fn() -> bool + Send + 'static,
    ) -> Result<Turn, Busy> {
        let waits = {
            let mut state = hold(&self.state);
            if state.running < self.at_once {
                state.running += 1;
                return Ok(Turn(Some(self.state.clone())));
            }
            let (give, waits) = oneshot::channel();
            state.waiting.push_back(Waiting {
                give,
                there: Box::new(there),
            });
            if state.waiting.len() > self.most_waiting {
                state.waiting.pop_front();
            }
            waits
        };
        waits.await.map_err(|_| Busy)
    }
}

impl Turn {
    /// Whether anybody waits for this turn to end.
    pub(super) fn awaited(&self) -> bool {
        let awaited = |state: &Arc<Mutex<State>>| !hold(state).waiting.is_empty();
        self.0.as_ref().is_some_and(awaited)
    }
}

impl Turn {
    /// Lets those who wait go first, a few of them; comes back when it is this one's turn
    /// again. Blocks: not for where others are served.
    pub(super) fn give_way(&mut self) {
        let Some(state) = self.0.take() else { return };
        let waits = {
            let mut held = hold(&state);
            if held.waiting.is_empty() {
                drop(held);
                self.0 = Some(state);
                return;
            }
            let (give, waits) = oneshot::channel();
            held.resting.push_back(give);
            waits
        };
        drop(Self(Some(state)));
        if let Ok(turn) = waits.blocking_recv() {
            *self = turn;
        }
    }
}

impl Drop for Turn {
    fn drop(&mut self) {
        let Some(state) = self.0.take() else { return };
        let mut held = hold(&state);
        let rested = |held: &mut MutexGuard<'_, State>| {
            while let Some(give) = held.resting.pop_front() {
                match give.send(Self(Some(state.clone()))) {
                    Ok(()) => {
                        held.passed = 0;
                        return true;
                    }
                    Err(mut turn) => turn.0 = None,
                }
            }
            false
        };
        if held.passed >= PASS && rested(&mut held) {
            return;
        }
        while let Some(next) = held.waiting.pop_back() {
            if !(next.there)() {
                continue;
            }
            match next.give.send(Self(Some(state.clone()))) {
                Ok(()) => {
                    held.passed += 1;
                    return;
                }
                // Gone meanwhile: the turn it did not take must not end twice.
                Err(mut turn) => turn.0 = None,
            }
        }
        if rested(&mut held) {
            return;
        }
        held.running -= 1;
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rocket::tokio::{self, task::JoinHandle};

    /// Asks for a turn and stands in the queue when this returns.
    async fn asks(queue: &Arc<Queue>) -> JoinHandle<Result<Turn, Busy>> {
        let before = hold(&queue.state).waiting.len();
        let mine = queue.clone();
        let asked = tokio::spawn(async move { mine.turn(|| true).await });
        while hold(&queue.state).waiting.len() == before && !asked.is_finished() {
            tokio::task::yield_now().await;
            if hold(&queue.state).waiting.len() == queue.most_waiting
                && before == queue.most_waiting
            {
                break;
            }
        }
        asked
    }

    #[rocket::async_test]
    async fn a_long_work_lets_others_go_first_and_goes_on() {
        let queue = Arc::new(Queue::new(1, 64));
        let mut long = queue.turn(|| true).await.unwrap();
        // Nobody waits: it goes on at once.
        long.give_way();
        let short = asks(&queue).await;
        let went_on = tokio::task::spawn_blocking(move || {
            long.give_way();
            long
        });
        let turn = short.await.unwrap().unwrap();
        assert!(!went_on.is_finished());
        drop(turn);
        let long = went_on.await.unwrap();
        assert_eq!(hold(&queue.state).running, 1);
        // However many come, after a few it goes on.
        let mut waiting = Vec::new();
        for _ in 0..3 * PASS {
            waiting.push(asks(&queue).await);
        }
        let mut long = long;
        let went_on = tokio::task::spawn_blocking(move || {
            long.give_way();
            hold(&queue.state).waiting.len()
        });
        let mut waiting = waiting.into_iter().rev();
        let mut served = 0;
        while !went_on.is_finished() {
            if let Some(next) = waiting.next() {
                drop(next.await.unwrap());
                served += 1;
            }
        }
        let left = went_on.await.unwrap();
        assert!(left >= PASS, "{served} served, {left} left");
        for next in waiting {
            drop(next.await.unwrap());
        }
    }

    #[rocket::async_test]
    async fn the_newest_goes_first_and_the_oldest_comes_again() {
        let queue = Arc::new(Queue::new(1, 2));
        let running = queue.turn(|| true).await.unwrap();
        assert!(!running.awaited());
        let oldest = asks(&queue).await;
        assert!(running.awaited());
        let middle = asks(&queue).await;
        let mine = queue.clone();
        let newest = tokio::spawn(async move { mine.turn(|| true).await });
        assert_eq!(oldest.await.unwrap().unwrap_err(), Busy);
        drop(running);
        let first = newest.await.unwrap().unwrap();
        assert!(!middle.is_finished());
        drop(first);
        drop(middle.await.unwrap().unwrap());
        assert_eq!(hold(&queue.state).running, 0);
    }

    #[rocket::async_test]
    async fn those_who_have_gone_are_passed_over() {
        let queue = Arc::new(Queue::new(1, 10));
        let running = queue.turn(|| true).await.unwrap();
        let stays = asks(&queue).await;
        for _ in 0..5 {
            let goes = asks(&queue).await;
            goes.abort();
            assert!(goes.await.unwrap_err().is_cancelled());
        }
        // One whose browser has gone, though its request still waits.
        let mine = queue.clone();
        let left = tokio::spawn(async move { mine.turn(|| false).await });
        while hold(&queue.state).waiting.len() < 7 {
            tokio::task::yield_now().await;
        }
        drop(running);
        assert_eq!(left.await.unwrap().unwrap_err(), Busy);
        drop(stays.await.unwrap().unwrap());
        assert_eq!(hold(&queue.state).running, 0);
        assert!(queue.turn(|| true).await.is_ok());
    }
}
