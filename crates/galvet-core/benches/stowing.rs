//! Speed of the stowing engine: `cargo bench -p galvet-core --bench stowing`.

#![allow(
    clippy::unwrap_used,
    reason = "a fixture that does not build is a failed run"
)]

use criterion::{Criterion, criterion_group, criterion_main};
use galvet_core::crew::Posture;
use galvet_core::gear::{Brings, Category, Electric, Fixing, Gear, Needs, Strain, Tether};
use galvet_core::guide::Guides;
use galvet_core::hull::{BottomShape, Construction, Measure, Reach, Survey, ZoneKind};
use galvet_core::rig::Rig;
use galvet_core::stow::{Aboard, Demand, Engine, Layout, Space};
use rayon::prelude::*;
use std::hint::black_box;

#[path = "../tests/common/mod.rs"]
mod common;

/// A thing for the bench: its size, how it is held, where it likes to lie.
fn thing(n: usize, size: [f64; 3], fixings: &[Fixing], zone: ZoneKind, reach: bool) -> Gear {
    Gear {
        key: format!("thing-{n}"),
        name: format!("thing {n}"),
        category: Category::Other,
        dry_mass: 0.4 + 0.2 * n as f64,
        loaded_mass: 0.4 + 0.2 * n as f64,
        size: Some(size),
        centre_height: None,
        fixings: fixings.to_vec(),
        holes: 0,
        mount: String::new(),
        zones: vec![zone],
        needs: Needs {
            reach: reach.then_some(Reach::Turning),
            ..Needs::default()
        },
        tether: Tether::Floats,
        electric: Electric::None,
        strain: Strain::Light,
        brings: Brings {
            tubes: if n == 0 { 3 } else { 0 },
            ..Brings::default()
        },
        setup_minutes: None,
        comes_off: false,
        strip_for_surf: false,
        price: None,
        owned: true,
        note: String::new(),
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

#[allow(missing_docs, reason = "made by the macro")]
mod made {
    use super::{criterion_group, stowing};
    criterion_group!(benches, stowing);
}
use made::benches;
criterion_main!(benches);
