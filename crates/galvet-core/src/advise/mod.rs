//! Advice built on a ranking: what to measure next.

pub mod measure_next;
