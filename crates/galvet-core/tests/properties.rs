//! What holds for every body and load, over random ones.

#![allow(clippy::unwrap_used, reason = "tests")]

use crate::common;

use common::{FRESH, float, gz, weight};
use galvet_core::base::{Keyed, Lanes};
use galvet_core::body::{Body, Frame, Shape, draw, estimate, offsets};
use galvet_core::float::{Accuracy, Start, settle};
use galvet_core::hull::{BottomShape, Construction};
use proptest::prelude::*;
use proptest::test_runner::RngSeed;

fn shape() -> impl Strategy<Value = Shape> {
    (
        (1.8..4.0_f64, 1.8..4.0_f64, 0.0..0.4_f64, 0.28..0.42_f64),
        (0.0..0.15_f64, 0.0..0.12_f64, 0.08..0.2_f64, -0.15..0.15_f64),
        (0.6..0.9_f64, 0.08..0.23_f64, 0.72..0.98_f64),
        (0..BottomShape::ALL.len(), -0.06..0.10_f64),
    )
        .prop_map(|(plan, heights, recess, (bottom, flare))| Shape {
            bottom: BottomShape::ALL[bottom],
            flare,
            bow_exponent: plan.0,
            stern_exponent: plan.1,
            stern_end: plan.2,
            depth: plan.3,
            bow_rise: heights.0,
            stern_rise: heights.1,
            floor: heights.2,
            fullness: heights.3,
            recess_breadth: recess.0,
            recess_from: recess.1,
            recess_to: recess.2,
            breadth_scale: 1.0,
            height_scale: 1.0,
            hull_mass: 35.0,
            kit_mass: 2.5,
            seats: [0.10, 0.26],
            guess: [0.0; 3],
        })
}

fn frame() -> impl Strategy<Value = Frame> {
    (2.6..4.8_f64, 0.65..1.0_f64, 0..3usize)
        .prop_map(|(length, beam, kind)| common::frame(length, beam, Construction::ALL[kind]))
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
        // Numbers where it rests, none where it doesn't.
        let known = s.attitude.draft.all_finite() && gz(&s, &w).is_finite();
        prop_assert_eq!(known, s.rests(0));
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
        let one = gz(&float(&body, &w, heel.to_radians()), &w);
        let other = gz(&float(&body, &w, -heel.to_radians()), &w);
        prop_assert!((one + other).abs() < 1e-7, "{one} {other}");
    }

    #[test]
    fn more_mass_floats_deeper_by_what_the_waterplane_carries(
        frame in frame(), shape in shape(), mass in 80.0..150.0_f64, more in 0.5..40.0_f64,
    ) {
        let body = body(&frame, &shape);
        let at = |mass| float(&body, &weight(mass, 0.5 * frame.length, 0.0, 0.3), 0.0);
        let (light, heavy) = (at(mass), at(mass + more));
        prop_assume!(light.rests(0) && heavy.rests(0));
        // Two independent routes to the sinkage: the heavy body cut off at the
        // light one's water loses just what was added to the load.
        let im = galvet_core::float::immerse(&body, &body.solid, &heavy.attitude);
        prop_assert!((im.volume.0[0] * FRESH - mass - more).abs() < 1e-6 * mass);
        // Adding mass never lowers the draft: not at the place where the trim
        // it brings leaves the depth as it is, the centre of flotation.
        let mid = |s: &galvet_core::float::Settled<1>, x: f64| {
            s.attitude.draft.0[0] + s.attitude.slope.0[0] * x
        };
        let centre = |s: &galvet_core::float::Settled<1>| {
            s.immersion.area_x.0[0] / s.immersion.area.0[0]
        };
        let x = 0.5 * (centre(&light) + centre(&heavy));
        let area = light.immersion.area.0[0].max(heavy.immersion.area.0[0]);
        let sinkage = mid(&heavy, x) - mid(&light, x);
        // A waterplane no larger than the largest of the two carries it. The
        // plane turns a little about its centre meanwhile.
        let turned = (heavy.attitude.slope.0[0] - light.attitude.slope.0[0]).abs();
        prop_assert!(sinkage > 0.0, "{sinkage}");
        prop_assert!(sinkage > 0.85 * more / (FRESH * area) - 0.05 * turned, "{sinkage}");
    }

    #[test]
    fn raising_a_mass_takes_its_height_off_gm(
        frame in frame(), shape in shape(), mass in 90.0..160.0_f64, z in 0.1..0.5_f64, up in 0.01..0.5_f64,
    ) {
        let body = body(&frame, &shape);
        let gm = |z: f64| {
            // Amidships over its own buoyancy: raising it changes no trim.
            let level = float(&body, &weight(mass, 0.51 * frame.length, 0.0, 0.3), 0.0);
            let im = &level.immersion;
            let x = body.middle() + im.x_moment.0[0] / im.volume.0[0];
            let w = weight(mass, x, 0.0, z);
            let s = float(&body, &w, 0.0);
            (galvet_core::float::metacentric_height(&s.immersion, &w).0[0], s.attitude.slope.0[0])
        };
        let (low, high) = (gm(z), gm(z + up));
        prop_assume!(low.0.is_finite() && high.0.is_finite());
        prop_assume!((low.1 - high.1).abs() < 1e-3);
        prop_assert!((low.0 - high.0 - up).abs() < 0.02 * up + 1e-4, "{low:?} {high:?} {up}");
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
        for x in two.x.iter_mut().chain(two.weight.iter_mut()) { *x = *x * scale; }
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
        for x in &mut two.x { *x = Lanes::splat(frame.length) - *x; }
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
        let slope = gz(&float(&body, &w, small), &w) / small.sin();
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
        let stations = estimate::stations(&frame, &shape);
        let taped = offsets::body(&stations).unwrap();
        let drawn = body(&frame, &shape);
        let w = weight(mass, 0.51 * frame.length, 0.0, 0.3);
        let (a, b) = (float(&drawn, &w, heel.to_radians()), float(&taped, &w, heel.to_radians()));
        prop_assume!(a.foundered.0[0] == 0.0 && a.attitude.slope.0[0].abs() < 0.08);
        let apart = a.attitude.draft.0[0] - b.attitude.draft.0[0];
        prop_assert!(apart.abs() < 2e-3, "draft {apart}");
        let apart = gz(&a, &w) - gz(&b, &w);
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
            prop_assert_eq!(together.rests(lane), alone.rests(0));
            if alone.rests(0) {
                let apart = together.attitude.draft.0[lane] - alone.attitude.draft.0[0];
                prop_assert!(apart.abs() < 1e-7, "lane {lane}: {apart}");
            }
        }
    }
}

#[test]
fn refining_the_stations_changes_little() {
    let shape = common::prototype_shape(BottomShape::Tunnel, 0.36, 0.135, 50.0);
    for construction in Construction::ALL {
        let frame = common::frame(3.7, 0.9, *construction);
        let w = weight(156.0, 1.95, 0.0, 0.4);
        let arms: Vec<(f64, f64)> = [1, 2, 4, 8]
            .map(|refine| {
                let body = draw(&frame, &[shape], refine);
                let upright = float(&body, &w, 0.0);
                let heeled = float(&body, &w, 10.0_f64.to_radians());
                (upright.attitude.draft.0[0], gz(&heeled, &w))
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
