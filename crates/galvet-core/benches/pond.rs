//! Speed of the pond: `cargo bench -p galvet-core --bench pond`. The figures are recorded in
//! `docs/architecture.md`, never asserted.

#![allow(
    clippy::unwrap_used,
    reason = "a fixture that does not build is a failed run"
)]

use criterion::{Criterion, criterion_group, criterion_main};
use galvet_core::figures::Setup;
use galvet_core::guide::Guides;
use galvet_core::pond::{Act, Boat, Exercise, Play, Setting, numbers, tries};
use galvet_core::question::Practice;
use std::hint::black_box;
use std::sync::Arc;

#[path = "../tests/common/mod.rs"]
mod common;

fn pond(c: &mut Criterion) {
    let rows = common::prototype::table();
    let row = &rows[0];
    let posterior = common::posterior(&row.survey, 128);
    let setup = Setup::new(posterior, Arc::new(row.brief.clone()));
    let boat = Boat::of(&setup, &row.shape).unwrap();
    let done = Exercise::Casts.done(true, &Guides::default());
    let setting = Setting::of(&row.brief, Practice::Some, done.sea, &Guides::default());
    let script: Vec<(f64, Act)> = done.script.clone();
    c.bench_function("a boat made ready: arms at 91 heels, four curves", |b| {
        b.iter(|| Boat::of(black_box(&setup), black_box(&row.shape)));
    });
    c.bench_function("20 s of one hull, a frame every 20 ms", |b| {
        b.iter(|| Play::new(black_box(&boat), setting, &script, false).run(20.0, 2, false));
    });
    c.bench_function("200 tries of 24 s", |b| {
        b.iter(|| tries(std::slice::from_ref(black_box(&boat)), &setting, &done, 200));
    });
    c.bench_function("a hull's numbers: 20 shapes, 200 tries", |b| {
        b.iter(|| numbers(black_box(&setup), Exercise::Casts, true, Practice::Some));
    });
}

#[allow(missing_docs, reason = "made by the macro")]
mod made {
    use super::{criterion_group, pond};
    criterion_group!(benches, pond);
}
use made::benches;
criterion_main!(benches);
