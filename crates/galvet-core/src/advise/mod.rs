//! Advice built on a ranking: what to measure next, what would change its
//! winner; how a hull with a rig lies level, and what its batteries give.

pub mod flip;
pub mod measure_next;
pub mod power;
pub mod trim;
