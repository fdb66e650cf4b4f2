//! A dealer's table as it is: any headers, units and words, matched to what Galvet knows.
//! Guesses are shown and confirmed; what nobody stated is asked once; rows that cannot be
//! read wait, and keep no other from coming in.

mod cell;
mod grid;
mod matching;
mod read;
mod targets;
mod vocabulary;

pub use cell::signs;
pub use grid::{Grid, GridRow, MOST_ROWS};
pub use matching::{ColumnAs, Matching, guess, guess_of, is_words};
pub use read::{Held, Question, Taken, read};
pub use targets::{KEEP, Of, SKIP, Target};
pub use vocabulary::{units_for, words_of};
