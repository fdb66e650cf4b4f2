//! Advice built on a ranking: what to measure next, what would change its winner.

pub mod flip;
pub mod measure_next;
