//! Ashore, in words.

use super::told;
use galvet_core::base::{Dimension, System};
use galvet_core::beyond::{Beyond, Extra};

/// Ashore, in words.
pub(super) fn ashore(beyond: &Beyond, system: System) -> Vec<String> {
    /// What one person lifts, kg, and keeps pulling, N (ISO 11228-1; HSE L23).
    const ONE: (f64, f64) = (25.0, 100.0);
    let mut says = Vec::new();
    if let Some(r) = beyond.range(Extra::Heaviest) {
        let two = if r.p95 > ONE.0 {
            format!(
                ": lift it with two, {} is the guide for one",
                system.text(Dimension::Mass, ONE.0, 0)
            )
        } else {
            String::new()
        };
        says.push(format!(
            "Heaviest single thing {}{two}.",
            told(Extra::Heaviest, r.p50, system)
        ));
    }
    match (beyond.range(Extra::Cart), beyond.range(Extra::Drag)) {
        (Some(cart), Some(drag)) => says.push(format!(
            "Up from this launch it takes {} on a cart with its kit, {} dragged; {} is what one keeps up.",
            told(Extra::Cart, cart.p50, system),
            told(Extra::Drag, drag.p50, system),
            system.text(Dimension::Force, ONE.1, 0)
        )),
        _ => says.push("On steps it is carried: the lower one bears more.".to_owned()),
    }
    says
}
