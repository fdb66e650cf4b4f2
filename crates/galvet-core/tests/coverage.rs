//! Whether ranges hold what they promise: truths drawn from wider families than the
//! estimator's own, looked at through a leaflet and through each kind of evidence.
//!
//! Quick sizes run with all tests; `GALVET_CASES=200` runs the sizes that
//! `docs/validation.md` quotes.

#![allow(clippy::unwrap_used, clippy::panic, reason = "tests")]

use crate::common;

use common::families::{Truth, cases};
use galvet_core::figures::Quantity as Q;

/// The figures whose ranges are held against the truth.
const HELD: [Q; 4] = [Q::Gm, Q::StandingSupport, Q::LeanRoom, Q::Draft];
/// Share of truths a 5-95 % range must hold (handbook, chapter 2).
const LEAST: f64 = 0.85;

/// How many of the truths each figure's range holds when the hull is known as `known`
/// says.
fn held(
    truths: &[Truth],
    known: impl Fn(&Truth) -> galvet_core::hull::Survey + Sync,
) -> [usize; 4] {
    let mut count = [0; 4];
    for truth in truths {
        let brief = truth.brief();
        let (values, fate) = truth.figures(&brief);
        let assessed = common::assess(&known(truth), &brief, 128);
        for (k, &q) in HELD.iter().enumerate() {
            // A truth that goes over has no figure: its range must admit as much.
            let real = values.get(q).filter(|_| fate.is_rest());
            let holds = match (real, assessed.range(q)) {
                (Some(v), Some(r)) => v >= r.p5 - 1e-9 && v <= r.p95 + 1e-9,
                (None, Some(r)) => r.share < 0.95,
                (_, None) => real.is_none(),
            };
            count[k] += usize::from(holds);
        }
    }
    count
}

fn check(name: &str, truths: &[Truth], known: impl Fn(&Truth) -> galvet_core::hull::Survey + Sync) {
    let count = held(truths, known);
    let told: Vec<String> = HELD
        .iter()
        .zip(count)
        .map(|(q, n)| format!("{q:?} {n}"))
        .collect();
    println!("{name}: of {} truths {}", truths.len(), told.join(", "));
    // A quick sample may miss by its own luck: two standard errors of the share.
    let size = truths.len() as f64;
    let luck = if truths.len() < 200 {
        2.0 * (LEAST * (1.0 - LEAST) / size).sqrt()
    } else {
        0.0
    };
    for (q, n) in HELD.iter().zip(count) {
        assert!(
            n as f64 / size >= LEAST - luck,
            "{name}: {q:?} holds {n} of {size}"
        );
    }
}

#[test]
fn ranges_hold_the_truth_from_the_leaflet_alone() {
    check("leaflet", &Truth::drawn(cases(24), 1), Truth::leaflet);
}

#[test]
fn ranges_hold_truths_that_lose_four_to_ten_percent_of_their_beam_at_the_water() {
    check("flared", &Truth::flared(cases(24), 2), Truth::bottom_known);
}

#[test]
fn ranges_hold_the_truth_whatever_the_bottom() {
    check(
        "unknown bottoms",
        &Truth::drawn(cases(24), 3),
        Truth::all_but_bottom,
    );
}

#[test]
fn ranges_hold_the_truth_with_each_kind_of_evidence() {
    let truths = Truth::drawn(cases(24), 4);
    check("taped", &truths, Truth::taped);
    check("float test", &truths, Truth::float_tested);
    check("waterline test", &truths, Truth::waterline_tested);
    check("tilt test", &truths, Truth::tilt_tested);
    check("everything", &truths, Truth::all_known);
}
