//! Speed of the computing core: `cargo bench -p galvet-core`.
//!
//! One run compares everything; the figures are recorded in
//! `docs/architecture.md`, never asserted.

#![allow(
    clippy::unwrap_used,
    reason = "a fixture that does not build is a failed run"
)]

use criterion::{Criterion, criterion_group, criterion_main};
use galvet_core::aboard::flooding;
use galvet_core::base::Keyed;
use galvet_core::beyond::beyond;
use galvet_core::figures::{Afloat, Assessment, Setup, outlook::outlook};
use galvet_core::float::Accuracy;
use galvet_core::handling::way_home;
use galvet_core::hull::{BottomShape, Construction, Measure, Survey};
use galvet_core::plausible::{LANES, Posterior};
use galvet_core::portrait::portrait;
use galvet_core::question::Brief;
use galvet_core::rank::{Candidate, judge, rank};
use std::hint::black_box;
use std::sync::Arc;

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

fn asked(mass: f64) -> Arc<Brief> {
    Arc::new(common::brief(mass, 1.83, common::rig(27.0, 0.6, 0.15)))
}

fn ranking(c: &mut Criterion) {
    use rayon::prelude::*;
    let hulls: Vec<Arc<Survey>> = fleet(100).into_iter().map(Arc::new).collect();
    let (brief, guides) = (asked(88.0), common::guides());
    let shapes: Vec<Arc<Posterior>> = hulls
        .iter()
        .map(|h| Arc::new(Posterior::of(h.clone(), guides.clone(), 128).unwrap()))
        .collect();
    let assess = |brief: &Arc<Brief>| -> Vec<Candidate> {
        shapes
            .par_iter()
            .map(|p| {
                let assessment = Arc::new(Assessment::of(p.clone(), brief.clone()));
                (p.survey.clone(), Ok(assessment))
            })
            .collect()
    };
    let mut group = c.benchmark_group("ranking");
    group.sample_size(10);
    // A server's question: the shapes are remembered by record.
    group.bench_function("100 hulls x 128 shapes", |b| {
        b.iter(|| judge(&brief, assess(black_box(&brief)), &guides));
    });
    group.bench_function(
        "100 hulls x 128 shapes, shapes drawn and weighed anew",
        |b| {
            b.iter(|| rank(black_box(&brief), black_box(&hulls), 128, &guides));
        },
    );
    let known = assess(&brief);
    group.bench_function("100 hulls judged anew, nothing floated", |b| {
        b.iter(|| judge(black_box(&brief), known.clone(), &guides));
    });
    group.bench_function("1 hull x 128 shapes", |b| {
        b.iter(|| Assessment::of(shapes[3].clone(), black_box(brief.clone())));
    });
    group.bench_function("one evaluation (4 shapes side by side)", |b| {
        let setup = Setup::new(shapes[3].clone(), brief.clone());
        let four = [shapes[3].prior.median(); LANES];
        b.iter(|| Afloat::new(&setup, black_box(&four), Accuracy::SAMPLE).figures());
    });
    group.bench_function("what-if on one hull", |b| {
        // A heavier angler: everything of one hull anew, with its drawings.
        let heavier = asked(104.0);
        b.iter(|| {
            let assessment = Assessment::of(shapes[3].clone(), black_box(heavier.clone()));
            portrait(&assessment)
        });
    });
    group.bench_function("possible shapes of one hull", |b| {
        b.iter(|| Posterior::of(black_box(hulls[3].clone()), guides.clone(), 128));
    });
    group.finish();
}

fn effort(c: &mut Criterion) {
    let hulls = fleet(8);
    let mut windy = (*asked(88.0)).clone();
    windy.water.conditions = "waves to 0.15 m, wind to 12 kn".into();
    let assessment = common::assess(&hulls[3], &windy, 128);
    let mut group = c.benchmark_group("effort");
    group.sample_size(10);
    // What it does when the day turns: all of it, and its parts.
    let day = assessment.setup.brief.day();
    group.bench_function("a day that turns, one hull", |b| {
        b.iter(|| {
            let flooding = flooding(black_box(&assessment)).map(Arc::new);
            beyond(&assessment, &day, flooding)
        });
    });
    let many: Vec<_> = fleet(100)
        .iter()
        .map(|hull| common::assess(hull, &windy, 128))
        .collect();
    group.bench_function("a day that turns, 100 hulls", |b| {
        use rayon::prelude::*;
        b.iter(|| {
            let all = many.par_iter().map(|a| {
                let flooding = flooding(a).map(Arc::new);
                beyond(a, &day, flooding)
            });
            all.collect::<Vec<_>>()
        });
    });
    group.bench_function("water aboard, one hull", |b| {
        b.iter(|| flooding(black_box(&assessment)));
    });
    group.bench_function("way home, one hull", |b| {
        b.iter(|| way_home(black_box(&assessment), &day.outing));
    });
    group.bench_function("Michell curve, 8 shapes", |b| {
        b.iter(|| outlook(black_box(&assessment), &assessment.setup.brief.outing));
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
