//! Which screens follow which counter, by words nobody guesses. Kept in memory: a screen is
//! over when the shop's server stops.

use crate::answer::held;
use crate::web::trouble::Trouble;
use galvet_core::base::System;
use std::collections::HashMap;
use std::sync::Mutex;

/// Most screens at once.
const MOST: usize = 40;
/// A screen whose counter shows nothing new for so long is over: half a working day.
const IDLE_MS: i64 = 4 * 60 * 60 * 1_000;

/// What a counter asks.
#[derive(Debug, Clone, PartialEq, Eq)]
pub(super) struct Counter {
    /// The question as it stands in an address.
    pub(super) query: String,
    /// Whether only what the shop has is shown.
    pub(super) have: bool,
    /// The units it is read in.
    pub(super) units: System,
}

/// What a screen shows.
#[derive(Debug, Clone, PartialEq, Eq)]
pub(super) struct Shown {
    pub(super) counter: Counter,
    /// Another number whenever something else is asked.
    pub(super) version: u64,
    at: i64,
}

/// Screens that follow a counter, by words nobody guesses.
#[derive(Debug, Default)]
pub(in crate::web) struct Screens(Mutex<HashMap<String, Shown>>);

impl Screens {
    /// Opens one, at a moment; returns its word. Of too many the one unused for longest
    /// goes.
    pub(super) fn open(&self, counter: Counter, at: i64) -> Result<String, Trouble> {
        let mut random = [0u8; 16];
        getrandom::fill(&mut random).map_err(|_| Trouble::Ours)?;
        let word: String = random.iter().map(|b| format!("{b:02x}")).collect();
        let mut all = held(&self.0);
        all.retain(|_, shown| at - shown.at <= IDLE_MS);
        if all.len() >= MOST {
            let oldest = all.iter().min_by_key(|(_, shown)| shown.at);
            if let Some(oldest) = oldest.map(|(word, _)| word.clone()) {
                all.remove(&oldest);
            }
        }
        let shown = Shown {
            counter,
            version: 1,
            at,
        };
        all.insert(word.clone(), shown);
        Ok(word)
    }

    /// Shows something else on one; whether there is one.
    pub(super) fn show(&self, word: &str, counter: Counter, at: i64) -> bool {
        let mut all = held(&self.0);
        let Some(shown) = all.get_mut(word).filter(|shown| at - shown.at <= IDLE_MS) else {
            return false;
        };
        if shown.counter != counter {
            shown.version += 1;
            shown.counter = counter;
        }
        shown.at = at;
        true
    }

    /// Closes one.
    pub(super) fn close(&self, word: &str) {
        held(&self.0).remove(word);
    }

    pub(super) fn of(&self, word: &str, at: i64) -> Option<Shown> {
        let all = held(&self.0);
        all.get(word)
            .filter(|shown| at - shown.at <= IDLE_MS)
            .cloned()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn counter(query: &str, have: bool, units: System) -> Counter {
        Counter {
            query: query.to_owned(),
            have,
            units,
        }
    }

    #[test]
    fn a_screen_follows_until_it_is_closed_or_forgotten() {
        let asks = |query, have| counter(query, have, System::Metric);
        let screens = Screens::default();
        let word = screens.open(asks("?mass=88", false), 0).unwrap();
        assert_eq!(word.len(), 32);
        let version = |at| screens.of(&word, at).map(|shown| shown.version);
        assert_eq!(version(1), Some(1));
        assert!(screens.show(&word, asks("?mass=88", false), 2));
        assert_eq!(version(2), Some(1), "nothing else is asked");
        assert!(
            screens.show(&word, asks("?mass=90", false), 3)
                && screens.show(&word, asks("?mass=90", true), 4)
        );
        assert_eq!(version(4), Some(3));
        let feet = counter("?mass=90", true, System::Imperial);
        assert!(screens.show(&word, feet.clone(), 4));
        assert_eq!(version(4), Some(4), "other units");
        assert_eq!(screens.of(&word, 4).unwrap().counter, feet);
        assert!(!screens.show("no such word", asks("", false), 5));
        assert_eq!(version(4 + IDLE_MS), Some(4));
        assert_eq!(version(5 + IDLE_MS), None);
        screens.close(&word);
        assert_eq!(version(5), None);
    }

    #[test]
    fn of_too_many_the_one_unused_for_longest_goes() {
        let screens = Screens::default();
        let asks = counter("", false, System::Metric);
        let words: Vec<String> = (0..=MOST)
            .map(|n| {
                screens
                    .open(asks.clone(), i64::try_from(n).unwrap())
                    .unwrap()
            })
            .collect();
        assert!(screens.of(&words[0], 50).is_none());
        assert!(words[1..].iter().all(|word| screens.of(word, 50).is_some()));
    }
}
