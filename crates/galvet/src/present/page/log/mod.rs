//! Pages of the log.

pub mod ahead;
pub mod kit;
pub mod moving;
pub mod outing;
pub mod service;
pub mod start;
pub mod trust;

use galvet_core::base::{Dimension, System};
use galvet_core::log::Read;

/// "1 outing", "24 outings".
fn some(n: usize, one: &str, many: &str) -> String {
    format!("{n}\u{a0}{}", if n == 1 { one } else { many })
}

/// Hours as people say them.
fn hours(hours: f64) -> String {
    if hours < 10.0 {
        format!("{hours:.1}\u{a0}h")
    } else {
        format!("{hours:.0}\u{a0}h")
    }
}

/// What was read, in the reader's units; `m` for a difference of it as well.
fn read_text(system: System, read: Read, value: f64) -> String {
    match read {
        Read::Draft => system.text(Dimension::FineLength, value, 0),
        Read::Speed | Read::Drift => system.text(Dimension::Speed, value, 1),
        Read::Drain => system.text(Dimension::Time, value, 0),
    }
}
