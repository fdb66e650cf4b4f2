//! What is drawn is what was reckoned.

use crate::common;

use common::{assess, box_hull, brief, rig, survey};
use galvet_core::figures::Quantity;
use galvet_core::guide::Guide;
use galvet_core::hull::{BottomShape, Construction, Measure};
use galvet_core::portrait::landing;

#[test]
fn leaned_out_for_a_fish_she_lies_where_moment_and_arm_balance() {
    let board = box_hull(Construction::Board, 3.0, 0.8, 0.3);
    let a = assess(&board, &brief(84.0, 1.8, rig(10.0, 0.5, 0.1)), 16);
    let view = landing(&a).unwrap();
    assert_eq!(Some(view.heel_deg), a.median(Quantity::ReachHeel));
    let guides = a.setup.guides();
    let crew = a.setup.loads.crew_mass();
    // 0.68 × 0.20 × 1.8 m × sin 20° of the whole body, four tenths of it taken back, and
    // a fish at the gunwale.
    let shift = 0.6 * 0.68 * 0.20 * 1.8 * 20_f64.to_radians().sin();
    let tipping = crew * shift + guides[Guide::LandedFish] * 0.40;
    let heel = view.heel_deg.to_radians();
    let whole = 103.0 + a.middle.hull_mass;
    let righting = whole * view.gz.unwrap();
    let wanted = tipping * heel.cos();
    assert!(
        (righting / wanted - 1.0).abs() < 0.03,
        "{righting} {wanted}"
    );
    // The weight and the water pushed aside stand over each other.
    let over = |(y, z): (f64, f64)| y * heel.cos() + z * heel.sin();
    let apart = over(view.mass_centre) - over(view.buoyancy.unwrap());
    assert!(apart.abs() < 0.002, "{apart}");
    // Trunk and head lean 20° about the hip; the seat stays.
    let (y, z) = view.person.head;
    let hip = view.seat.unwrap() + 0.05 * 1.8;
    assert!((y.atan2(z - hip).to_degrees() - 20.0).abs() < 1e-6);
    let feet = view.person.limbs.last().unwrap().joints.last().unwrap();
    assert!(feet.1 - hip < 0.1 * 1.8 && feet.0.abs() < 0.25, "{feet:?}");
}

#[test]
fn a_lean_that_most_shapes_do_not_hold_is_not_drawn() {
    let narrow = survey(
        Construction::SitOnTop,
        BottomShape::ShallowArch,
        &[
            (Measure::Length, 2.9),
            (Measure::Beam, 0.6),
            (Measure::SeatLow, 0.3),
            (Measure::FittedWeight, 23.0),
        ],
    );
    let a = assess(&narrow, &brief(110.0, 1.9, rig(20.0, 0.5, 0.3)), 32);
    assert_eq!(a.median(Quantity::ReachHeel), None);
    assert_eq!(landing(&a), None);
}
