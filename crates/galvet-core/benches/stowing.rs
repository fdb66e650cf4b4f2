//! Speed of the stowing engine: `cargo bench -p galvet-core --bench stowing`.

#![allow(
    clippy::unwrap_used,
    reason = "a fixture that does not build is a failed run"
)]

use criterion::{Criterion, criterion_group, criterion_main};
use galvet_core::crew::{Hand, Posture};
use galvet_core::figures::Assessment;
use galvet_core::gear::{Brings, Category, Fixing, Gear, Needs, Tether};
use galvet_core::guide::Guides;
use galvet_core::hull::{BottomShape, Construction, Measure, Reach, Survey, ZoneKind};
use galvet_core::rig::Rig;
use galvet_core::stow::{Aboard, Demand, Engine, Layout, Space};
use rayon::prelude::*;
use std::hint::black_box;
use std::sync::Arc;

#[path = "../tests/common/mod.rs"]
mod common;

/// A thing for the bench: its size, how it is held, where it likes to lie.
fn thing(n: usize, size: [f64; 3], fixings: &[Fixing], zone: ZoneKind, reach: bool) -> Gear {
    let mass = 0.4 + 0.2 * n as f64;
    let (key, name) = (format!("thing-{n}"), format!("thing {n}"));
    Gear {
        fixings: fixings.to_vec(),
        zones: vec![zone],
        needs: Needs {
            reach: reach.then_some(Reach::Turning),
            ..Needs::default()
        },
        tether: Tether::Floats,
        brings: Brings {
            tubes: if n == 0 { 3 } else { 0 },
            ..Brings::default()
        },
        ..Gear::plain(&key, &name, Category::Other, mass, Some(size))
    }
}

/// A rig of thirty things: a crate, rods, boxes, what stands on tracks, what hangs
/// along the sides.
fn rig() -> Rig {
    let held = |n: usize| match n {
        0 => ([0.40, 0.33, 0.28], &[Fixing::Strap][..], ZoneKind::TankWell),
        1..=4 => (
            [2.1, 0.12, 0.12],
            &[Fixing::Holder, Fixing::Strap][..],
            ZoneKind::SidePocket,
        ),
        5..=8 => (
            [0.12, 0.08, 0.2],
            &[Fixing::Track][..],
            ZoneKind::SidePocket,
        ),
        9 => ([0.40, 0.26, 0.28], &[Fixing::Strap][..], ZoneKind::TankWell),
        10..=17 => {
            let size = [0.16 + 0.015 * n as f64, 0.10 + 0.006 * n as f64, 0.05];
            (
                size,
                &[Fixing::Loose, Fixing::Strap][..],
                ZoneKind::UnderSeatBay,
            )
        }
        18..=21 => (
            [0.2, 0.15, 0.12],
            &[Fixing::Strap, Fixing::Loose][..],
            ZoneKind::BowHatch,
        ),
        _ => (
            [0.14, 0.07, 0.05],
            &[Fixing::Worn, Fixing::Loose][..],
            ZoneKind::SidePocket,
        ),
    };
    let line = |n: usize| {
        let (size, fixings, zone) = held(n);
        let gear = thing(n, size, fixings, zone, n.is_multiple_of(3));
        common::rig(1.0, 0.7, 0.1).lines[0].clone().is(&gear)
    };
    Rig {
        key: "bench".into(),
        name: "Bench".into(),
        lines: (0..30).map(line).collect(),
    }
}

fn fleet(count: usize) -> Vec<(Survey, [f64; 2])> {
    let hull = |i: usize| {
        let share = i as f64 / count as f64;
        let construction = match i % 8 {
            6 => Construction::SitInside,
            7 => Construction::Board,
            _ => Construction::SitOnTop,
        };
        let size = [2.7 + 1.9 * share, 0.95 - 0.25 * (share * 7.0).fract()];
        let readings = [(Measure::Length, size[0]), (Measure::Beam, size[1])];
        (
            common::survey(construction, BottomShape::Flat, &readings),
            size,
        )
    };
    (0..count).map(hull).collect()
}

fn lay(survey: &Survey, size: [f64; 2], rig: &Rig, guides: &Guides) -> Layout {
    let aboard = Aboard {
        posture: Posture::SitsAndStands,
        stature: 1.8,
        hand: Hand::Right,
        others: Vec::new(),
    };
    let space = Space::of(survey, aboard, size, guides);
    let demand = Demand::of(rig, guides);
    Engine::new(&space, &demand, &[], 0.0, guides).lay()
}

fn stowing(c: &mut Criterion) {
    let (hulls, rig, guides) = (fleet(200), rig(), Guides::default());
    let mut group = c.benchmark_group("stowing");
    group.sample_size(10);
    group.bench_function("200 hulls, a rig of 30", |b| {
        b.iter(|| {
            let each = hulls
                .par_iter()
                .map(|(survey, size)| lay(survey, *size, &rig, &guides));
            black_box(each.map(|l| l.stowed.len()).sum::<usize>())
        });
    });
    group.bench_function("1 hull, a rig of 30", |b| {
        let (survey, size) = &hulls[80];
        b.iter(|| black_box(lay(survey, *size, &rig, &guides)));
    });
    group.finish();
}

/// The same ranking with its rig laid out on every hull, and with the same masses
/// where the rig says.
fn ranking(c: &mut Criterion) {
    let hulls: Vec<Survey> = fleet(100).into_iter().map(|(hull, _)| hull).collect();
    let laid_out = common::brief(80.0, 1.8, rig());
    let mut as_it_says = laid_out.clone();
    for line in &mut as_it_says.rig.lines {
        line.thing = None;
    }
    let posteriors: Vec<_> = hulls.iter().map(|h| common::posterior(h, 128)).collect();
    let mut group = c.benchmark_group("figures of 100 hulls, 128 shapes, a rig of 30");
    group.sample_size(10);
    for (name, brief) in [("laid out", laid_out), ("where it says", as_it_says)] {
        let brief = Arc::new(brief);
        group.bench_function(name, |b| {
            b.iter(|| {
                let each = posteriors
                    .par_iter()
                    .map(|p| Assessment::of(p.clone(), brief.clone()).sample.len());
                black_box(each.sum::<usize>())
            });
        });
    }
    group.finish();
}

#[allow(missing_docs, reason = "made by the macro")]
mod made {
    use super::{criterion_group, ranking, stowing};
    criterion_group!(benches, stowing, ranking);
}
use made::benches;
criterion_main!(benches);
