//! Speed of the computing core: `cargo bench -p galvet-core`.
//!
//! One run compares everything; the figures are recorded in
//! `docs/architecture.md`, never asserted.

#![allow(
    clippy::unwrap_used,
    reason = "a fixture that does not build is a failed run"
)]

use criterion::{Criterion, criterion_group, criterion_main};
use galvet_core::assess::{Assessment, LANES};
use galvet_core::effort::outlook::outlook;
use galvet_core::evaluate::{Afloat, Setup};
use galvet_core::float::Accuracy;
use galvet_core::hull::{BottomShape, Construction, Measure, Survey};
use galvet_core::portrait::portrait;
use galvet_core::rank::{rank, score::Scales};
use std::hint::black_box;

#[path = "../tests/common/mod.rs"]
mod common;

/// A fleet of made-up sizes, no two alike.
fn fleet(count: usize) -> Vec<Survey> {
    (0..count)
        .map(|i| {
            let share = i as f64 / count as f64;
            let construction = match i % 8 {
                6 => Construction::SitInside,
                7 => Construction::Board,
                _ => Construction::SitOnTop,
            };
            let mut survey = common::survey(
                construction,
                BottomShape::ALL[i % 5],
                &[
                    (Measure::Length, 2.7 + 1.9 * share),
                    (Measure::Beam, 0.95 - 0.25 * (share * 7.0).fract()),
                    (Measure::FittedWeight, 25.0 + 30.0 * (share * 3.0).fract()),
                    (Measure::RatedCapacity, 150.0 + 90.0 * (share * 5.0).fract()),
                    (Measure::SeatLow, 0.1),
                ],
            );
            survey.key = format!("fleet-{i:03}");
            survey
        })
        .collect()
}

fn ranking(c: &mut Criterion) {
    let hulls = fleet(100);
    let brief = common::brief(88.0, 1.83, common::rig(27.0, 0.6, 0.15));
    let scales = Scales::default();
    let mut group = c.benchmark_group("ranking");
    group.sample_size(10);
    group.bench_function("100 hulls x 128 shapes", |b| {
        b.iter(|| rank(black_box(&brief), black_box(&hulls), 128, &scales));
    });
    group.bench_function("1 hull x 128 shapes", |b| {
        b.iter(|| Assessment::of(black_box(&hulls[3]), black_box(&brief), 128));
    });
    group.bench_function("one evaluation (4 shapes side by side)", |b| {
        let setup = Setup::new(&hulls[3], &brief).unwrap();
        let shapes = [setup.prior.median(); LANES];
        b.iter(|| Afloat::new(&setup, black_box(&shapes), Accuracy::SAMPLE).figures());
    });
    group.bench_function("what-if on one hull", |b| {
        // A heavier angler: everything of one hull anew, with its drawings.
        let heavier = common::brief(104.0, 1.83, common::rig(27.0, 0.6, 0.15));
        b.iter(|| {
            let assessment = Assessment::of(&hulls[3], black_box(&heavier), 128).unwrap();
            portrait(&assessment)
        });
    });
    group.finish();
}

fn effort(c: &mut Criterion) {
    let hulls = fleet(8);
    let brief = common::brief(88.0, 1.83, common::rig(27.0, 0.6, 0.15));
    let assessment = Assessment::of(&hulls[3], &brief, 128).unwrap();
    let mut group = c.benchmark_group("effort");
    group.sample_size(10);
    group.bench_function("Michell curve, 8 shapes", |b| {
        b.iter(|| outlook(black_box(&assessment)));
    });
    group.finish();
}

#[allow(missing_docs, reason = "made by the macro")]
mod made {
    use super::{criterion_group, effort, ranking};
    criterion_group!(benches, ranking, effort);
}
use made::benches;
criterion_main!(benches);
