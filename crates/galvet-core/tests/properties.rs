//! What holds for every body and load, over random ones.

#![allow(clippy::unwrap_used, reason = "tests")]

mod common;

use common::{FRESH, float, weight};
use galvet_core::float::{Accuracy, Start, settle};
use galvet_core::hull::body::Body;
use galvet_core::hull::offsets::{self, Station};
use galvet_core::hull::{BottomShape, Construction, Frame, Shape, draw, estimate};
use galvet_core::lanes::Lanes;
use galvet_core::stability::righting::arm;
use proptest::prelude::*;
use proptest::test_runner::RngSeed;

fn shape() -> impl Strategy<Value = Shape> {
    (
        (1.8..4.0_f64, 1.8..4.0_f64, 0.0..0.4_f64, 0.28..0.42_f64),
        (0.0..0.15_f64, 0.0..0.12_f64, 0.08..0.2_f64, -0.15..0.15_f64),
    )
        .prop_map(
            |(
                (bow_exponent, stern_exponent, stern_end, depth),
                (bow_rise, stern_rise, floor, fullness),
            )| Shape {
                bow_exponent,
                stern_exponent,
                stern_end,
                depth,
                bow_rise,
                stern_rise,
                floor,
                fullness,
                hull_mass: 35.0,
            },
        )
}

fn frame() -> impl Strategy<Value = Frame> {
    (2.6..4.8_f64, 0.65..1.0_f64, 0..5usize, 0..3usize).prop_map(|(length, beam, bottom, kind)| {
        let construction = Construction::ALL[kind];
        Frame {
            length,
            beam,
            bottom: if construction == Construction::Board {
                BottomShape::Board
            } else {
                BottomShape::ALL[bottom]
            },
            construction,
        }
    })
}

/// Plenty of buoyancy is left and the trim is moderate: away from foundering,
/// where a hull truly has no gentle answer.
fn body(frame: &Frame, shape: &Shape) -> Body<1> {
    draw(frame, &[*shape], 1)
}

proptest! {
    #![proptest_config(ProptestConfig {
        cases: 64,
        rng_seed: RngSeed::Fixed(20_261_125),
        ..ProptestConfig::default()
    })]

    #[test]
    fn everything_stays_finite(
        frame in frame(), shape in shape(),
        mass in 20.0..900.0_f64, place in 0.05..0.95_f64, y in -0.4..0.4_f64,
        z in 0.0..1.5_f64, heel in -90.0..90.0_f64,
    ) {
        let body = body(&frame, &shape);
        let w = weight(mass, place * frame.length, y, z);
        let s = float(&body, &w, heel.to_radians());
        prop_assert!(s.attitude.draft.all_finite() && s.attitude.slope.all_finite());
        prop_assert!(arm(&s, &w).all_finite());
        prop_assert!(s.excess_volume.0[0] >= 0.0);
    }

    #[test]
    fn at_rest_weight_and_buoyancy_are_equal_and_in_line(
        frame in frame(), shape in shape(),
        mass in 90.0..170.0_f64, place in 0.47..0.55_f64, z in 0.1..0.6_f64,
    ) {
        let body = body(&frame, &shape);
        let w = weight(mass, place * frame.length, 0.0, z);
        let s = float(&body, &w, 0.0);
        // The smallest hulls founder under the heaviest of these loads.
        prop_assume!(s.foundered.0[0] == 0.0);
        let im = &s.immersion;
        prop_assert!((im.volume.0[0] * FRESH - mass).abs() < 1e-6 * mass);
        let volume = im.volume.0[0];
        let x_b = body.middle() + im.x_moment.0[0] / volume;
        let z_b = im.zeta_moment.0[0] / volume;
        let apart = (x_b - w.x.0[0]) + s.attitude.slope.0[0] * (z_b - z);
        prop_assert!(apart.abs() < 1e-6, "{apart}");
    }

    #[test]
    fn righting_is_odd_in_heel(
        frame in frame(), shape in shape(), heel in 1.0..60.0_f64, mass in 90.0..160.0_f64,
    ) {
        let body = body(&frame, &shape);
        let w = weight(mass, 0.51 * frame.length, 0.0, 0.3);
        let one = arm(&float(&body, &w, heel.to_radians()), &w).0[0];
        let other = arm(&float(&body, &w, -heel.to_radians()), &w).0[0];
        prop_assert!((one + other).abs() < 1e-7, "{one} {other}");
    }

    #[test]
    fn more_mass_never_floats_higher(
        frame in frame(), shape in shape(), mass in 80.0..150.0_f64, more in 0.5..40.0_f64,
    ) {
        let body = body(&frame, &shape);
        let at = |mass| float(&body, &weight(mass, 0.5 * frame.length, 0.0, 0.3), 0.0);
        let (light, heavy) = (at(mass), at(mass + more));
        // Drafts at the middle of flotation: trim alone may lift mid-length.
        let mean = |s: &galvet_core::float::Settled<1>| {
            let im = &s.immersion;
            let centre = im.area_x.0[0] / im.area.0[0];
            s.attitude.draft.0[0] + s.attitude.slope.0[0] * centre
        };
        prop_assert!(heavy.immersion.volume.0[0] > light.immersion.volume.0[0]);
        prop_assert!(mean(&heavy) > mean(&light) - 2e-3);
    }

    #[test]
    fn raising_a_mass_never_steadies(
        frame in frame(), shape in shape(), mass in 90.0..160.0_f64, z in 0.1..0.5_f64, up in 0.01..0.5_f64,
    ) {
        let body = body(&frame, &shape);
        let heel = 3.0_f64.to_radians();
        let arm_at = |z| {
            let w = weight(mass, 0.51 * frame.length, 0.0, z);
            arm(&float(&body, &w, heel), &w).0[0]
        };
        // The trim shifts a little with the height; allow it a tenth of a millimetre.
        prop_assert!(arm_at(z + up) < arm_at(z) + 1e-4);
    }

    #[test]
    fn bodies_scale(
        frame in frame(), shape in shape(), mass in 90.0..160.0_f64, scale in 0.5..2.0_f64,
    ) {
        prop_assume!(frame.construction == Construction::Board);
        // A board has no parts of fixed size (skin, floor step), only its sheer:
        // compare through sections instead of sizes.
        let one = body(&frame, &shape);
        let mut two = one.clone();
        two.length *= scale;
        for x in two.x.iter_mut().chain(two.weight.iter_mut()) { *x *= scale; }
        for v in two.solid.y.iter_mut().chain(two.solid.z.iter_mut()) { *v = *v * scale; }
        let two = two.finished();
        let a = float(&one, &weight(mass, 0.51 * frame.length, 0.0, 0.2), 0.0);
        let b = float(&two, &weight(mass * scale.powi(3), 0.51 * frame.length * scale, 0.0, 0.2 * scale), 0.0);
        prop_assert!((a.attitude.draft.0[0] * scale - b.attitude.draft.0[0]).abs() < 1e-6);
        prop_assert!((a.attitude.slope.0[0] - b.attitude.slope.0[0]).abs() < 1e-6);
    }

    #[test]
    fn mirroring_along_the_length_flips_the_trim(
        frame in frame(), shape in shape(), mass in 90.0..150.0_f64, place in 0.47..0.53_f64,
    ) {
        let one = body(&frame, &shape);
        let mut two = one.clone();
        for x in &mut two.x { *x = frame.length - *x; }
        let x = place * frame.length;
        let a = float(&one, &weight(mass, x, 0.0, 0.3), 0.0);
        let b = float(&two, &weight(mass, frame.length - x, 0.0, 0.3), 0.0);
        prop_assert!((a.attitude.slope.0[0] + b.attitude.slope.0[0]).abs() < 1e-7);
        prop_assert!((a.attitude.draft.0[0] - b.attitude.draft.0[0]).abs() < 1e-7);
    }

    #[test]
    fn giving_up_early_is_giving_up_rightly(
        frame in frame(), shape in shape(), mass in 90.0..260.0_f64, place in 0.45..0.57_f64, heel in 0.0..45.0_f64,
    ) {
        // What the sample takes for foundered has no rest, or one so far down
        // by an end that nobody would call it floating.
        let body = body(&frame, &shape);
        let w = weight(mass, place * frame.length, 0.0, 0.4);
        let heel = heel.to_radians();
        let quick = settle(&body, &body.solid, &w, FRESH, heel, Start::LEVEL, Accuracy::SAMPLE);
        let sure = float(&body, &w, heel);
        if quick.foundered.0[0] > 0.0 {
            let slope = sure.attitude.slope.0[0].abs();
            prop_assert!(sure.foundered.0[0] > 0.0 || slope > 0.15, "rests at slope {slope}");
        }
    }

    #[test]
    fn metacentric_height_is_the_slope_of_the_righting_arm(
        frame in frame(), shape in shape(), mass in 90.0..150.0_f64, z in 0.1..0.5_f64,
    ) {
        let body = body(&frame, &shape);
        let w = weight(mass, 0.51 * frame.length, 0.0, z);
        let upright = float(&body, &w, 0.0);
        let im = &upright.immersion;
        let gm = im.zeta_moment.0[0] / im.volume.0[0] + im.metacentric_radius().0[0] - z;
        let small = 0.02_f64.to_radians();
        let slope = arm(&float(&body, &w, small), &w).0[0] / small.sin();
        // A corner or a floor in the waterline bends the curve at once.
        prop_assert!((gm - slope).abs() < 0.01 + 0.02 * gm.abs(), "{gm} {slope}");
    }

    #[test]
    fn an_estimated_body_taken_off_by_tape_floats_the_same(
        frame in frame(), shape in shape(), mass in 90.0..150.0_f64, heel in 0.0..25.0_f64,
    ) {
        // The same body by the other road: its sections measured every few
        // centimetres, closer where the floor steps, and ruled between.
        prop_assume!(frame.construction != Construction::Board);
        let marks = [0.18, 0.25, 0.30, 0.62, 0.66, 0.93];
        let mut places: Vec<f64> = (1..64).map(|i| f64::from(i) / 64.0).collect();
        places.retain(|p| marks.iter().all(|m| (p - m).abs() > 2e-3));
        places.extend(marks.iter().flat_map(|m| [m - 1e-5, m + 1e-5]));
        places.extend([1e-4, 1.0 - 1e-6]);
        places.sort_by(f64::total_cmp);
        let stations: Vec<Station> = places
            .iter()
            .map(|&share| {
                let outline = estimate::section_at(&frame, &shape, share);
                let half = &outline[..outline.len() / 2];
                let mut points = half.to_vec();
                points.push((0.0, half[half.len() - 1].1));
                Station { x: share * frame.length, points }
            })
            .collect();
        let taped = offsets::body(&stations).unwrap();
        let drawn = body(&frame, &shape);
        let w = weight(mass, 0.51 * frame.length, 0.0, 0.3);
        let (a, b) = (float(&drawn, &w, heel.to_radians()), float(&taped, &w, heel.to_radians()));
        prop_assume!(a.foundered.0[0] == 0.0 && a.attitude.slope.0[0].abs() < 0.08);
        let apart = a.attitude.draft.0[0] - b.attitude.draft.0[0];
        prop_assert!(apart.abs() < 2e-3, "draft {apart}");
        let apart = arm(&a, &w).0[0] - arm(&b, &w).0[0];
        prop_assert!(apart.abs() < 2e-3, "arm {apart}");
    }

    #[test]
    fn lanes_do_not_disturb_each_other(
        frame in frame(), one in shape(), two in shape(), heel in 0.0..40.0_f64,
    ) {
        let both = draw(&frame, &[one, two], 1);
        let w = weight(130.0, 0.51 * frame.length, 0.0, 0.3);
        let pair = galvet_core::float::Weight {
            mass: Lanes::splat(130.0),
            x: Lanes::splat(0.51 * frame.length),
            y: Lanes::ZERO,
            z: Lanes::splat(0.3),
        };
        let heel = heel.to_radians();
        let together = settle(&both, &both.solid, &pair, FRESH, heel, Start::LEVEL, Accuracy::FINE);
        for (lane, shape) in [one, two].iter().enumerate() {
            let alone = float(&body(&frame, shape), &w, heel);
            let apart = together.attitude.draft.0[lane] - alone.attitude.draft.0[0];
            prop_assert!(apart.abs() < 1e-7, "lane {lane}: {apart}");
        }
    }
}

#[test]
fn refining_the_stations_changes_little() {
    let shape = common::prototype_shape(0.36, 0.135, false, 50.0);
    for construction in Construction::ALL {
        let frame = Frame {
            length: 3.7,
            beam: 0.9,
            bottom: BottomShape::Tunnel,
            construction: *construction,
        };
        let w = weight(156.0, 1.95, 0.0, 0.4);
        let arms: Vec<(f64, f64)> = [1, 2, 4, 8]
            .map(|refine| {
                let body = draw(&frame, &[shape], refine);
                let upright = float(&body, &w, 0.0);
                let heeled = float(&body, &w, 10.0_f64.to_radians());
                (upright.attitude.draft.0[0], arm(&heeled, &w).0[0])
            })
            .to_vec();
        let fine = arms[3];
        let error = |a: (f64, f64)| ((a.0 - fine.0).abs(), (a.1 - fine.1).abs());
        // As used: within 0.2 mm of draft and half a millimetre of arm.
        assert!(error(arms[0]).0 < 2e-4, "{construction:?} {arms:?}");
        assert!(error(arms[0]).1 < 5e-4, "{construction:?} {arms:?}");
        assert!(error(arms[2]).0 < 4e-5, "{construction:?} {arms:?}");
    }
}
