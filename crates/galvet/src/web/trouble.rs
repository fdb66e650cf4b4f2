//! Why a request could not be served.

use super::queue::Busy;
use super::waits::Waits;
use crate::question::NothingToAsk;
use crate::terminal;
use galvet_store::StoreError;
use rocket::tokio::task;

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
    /// It takes longer than a page should: how far it is.
    Working(Box<Waits>),
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
        // Nobody let go of the database in time: asked again it answers.
        if matches!(error, StoreError::Busy(_)) {
            return Self::Busy;
        }
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
