//! What is remembered, weighed in bytes: the least lately used goes first.

use lru::LruCache;
use std::hash::Hash;
use std::sync::{Mutex, MutexGuard, PoisonError};

/// Bytes remembered where nothing else is said.
pub const BUDGET: usize = 256 * 1024 * 1024;

/// What a lock guards. A panic while it was held leaves something whole behind: what is
/// put there is put in one step.
pub(crate) fn held<T>(lock: &Mutex<T>) -> MutexGuard<'_, T> {
    lock.lock().unwrap_or_else(PoisonError::into_inner)
}

/// A memory of so many bytes.
#[derive(Debug)]
pub(crate) struct Memory<K: Hash + Eq, V> {
    kept: LruCache<K, (V, usize)>,
    budget: usize,
    bytes: usize,
}

impl<K: Hash + Eq + Clone, V> Memory<K, V> {
    pub(crate) fn new(budget: usize) -> Self {
        Self {
            kept: LruCache::unbounded(),
            budget,
            bytes: 0,
        }
    }

    /// How much is remembered.
    #[cfg(test)]
    pub(crate) fn len(&self) -> usize {
        self.kept.len()
    }

    /// What all of it weighs.
    pub(crate) const fn bytes(&self) -> usize {
        self.bytes
    }

    /// What is remembered under a key; it counts as used.
    pub(crate) fn get(&mut self, key: &K) -> Option<&V> {
        self.kept.get(key).map(|(value, _)| value)
    }

    /// Remembers something that weighs so many bytes, and forgets what has been used
    /// least lately. The newest stays, whatever it weighs.
    pub(crate) fn put(&mut self, key: K, value: V, weight: usize) {
        self.bytes += weight;
        if let Some((_, old)) = self.kept.push(key.clone(), (value, weight)).map(|(_, v)| v) {
            self.bytes -= old;
        }
        self.forget(&key);
    }

    /// Notes what something weighs by now.
    pub(crate) fn weigh(&mut self, key: &K, weight: usize) {
        let Some((_, old)) = self.kept.get_mut(key) else {
            return;
        };
        self.bytes = self.bytes - *old + weight;
        *old = weight;
        self.forget(key);
    }

    fn forget(&mut self, newest: &K) {
        while self.bytes > self.budget {
            match self.kept.peek_lru() {
                Some((key, _)) if key != newest => {}
                _ => return,
            }
            if let Some((_, (_, weight))) = self.kept.pop_lru() {
                self.bytes -= weight;
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_least_lately_used_goes_once_it_is_too_much() {
        let mut memory = Memory::new(100);
        for (key, weight) in [("a", 40), ("b", 40), ("c", 10)] {
            memory.put(key, key.to_uppercase(), weight);
        }
        assert_eq!((memory.bytes, memory.kept.len()), (90, 3));
        // Used, it is not the least lately used any more.
        assert_eq!(memory.get(&"a").map(String::as_str), Some("A"));
        memory.put("d", "D".to_owned(), 30);
        assert_eq!(memory.bytes, 80);
        assert!(memory.get(&"b").is_none() && memory.get(&"a").is_some());
        // Put again it counts once, with what it weighs now.
        memory.put("d", "D".to_owned(), 35);
        assert_eq!(memory.bytes, 85);
        memory.weigh(&"d", 50);
        assert_eq!((memory.bytes, memory.kept.len()), (100, 3));
        memory.weigh(&"d", 51);
        assert_eq!((memory.bytes, memory.kept.len()), (91, 2));
        // What alone is too much is remembered until something else comes.
        memory.put("e", "E".to_owned(), 500);
        assert_eq!((memory.bytes, memory.kept.len()), (500, 1));
        memory.put("f", "F".to_owned(), 1);
        assert_eq!((memory.bytes, memory.kept.len()), (1, 1));
        memory.weigh(&"gone", 7);
        assert_eq!(memory.bytes, 1);
    }
}
