//! Who waits for an answer: told how far it is, and asked whether it is still
//! wanted.

use galvet_core::rank::Candidate;
use thiserror::Error;

/// Nobody waits for the answer any more.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Error)]
#[error("nobody waits for the answer any more")]
pub struct Unwanted;

/// Somebody waiting for an answer.
pub trait Watch: Sync {
    /// Whether the answer is still wanted; asked before every hull and every
    /// few shapes of it.
    fn wanted(&self) -> bool {
        true
    }

    /// One hull more is done: this is what is known of it.
    fn done(&self, _: &Candidate) {}

    /// Between two rankings of a long work, never inside one: lets others go first.
    fn rest(&self) {}
}

/// Waits for the answer, however long it takes.
#[derive(Debug, Clone, Copy)]
pub struct Patient;

impl Watch for Patient {}
