//! Ordinary hulls are not condemned, and what people cannot sit in still is.

#![allow(clippy::unwrap_used, clippy::panic, reason = "tests")]

use crate::common;

use common::families::cases;
use common::{asked, ranking, rig, survey};
use galvet_core::crew::Posture;
use galvet_core::hull::{BottomShape, Construction, Measure, Source, Survey};
use galvet_core::rank::Code;

/// A hull of a leaflet: length and beam (m), weight (kg), and a label such hulls carry:
/// 52 kg for each m² of length × beam.
fn leaflet(length: f64, beam: f64, weight: f64, bottom: Option<BottomShape>) -> Survey {
    let readings = [
        (Measure::Length, length),
        (Measure::Beam, beam),
        (Measure::BareWeight, weight),
        (Measure::RatedCapacity, 52.0 * length * beam),
    ];
    let mut hull = survey(Construction::SitOnTop, BottomShape::Flat, &readings);
    hull.bottom = bottom;
    for readings in hull.readings.values_mut() {
        readings[0].source = Source::Brochure;
    }
    hull
}

/// Whether it is called capsizing, lolling or too tender with somebody of `mass` kg
/// seated and 20 kg of kit on the middle; `None` beyond 85 % of the label.
fn alarm(hull: &Survey, mass: f64) -> Option<bool> {
    let label = hull.value(Measure::RatedCapacity).unwrap();
    if mass + 6.0 + 20.0 > 0.85 * label {
        return None;
    }
    let mut brief = asked(mass, Posture::Sits);
    brief.rig = rig(20.0, 0.55, 0.15);
    let answer = ranking(std::slice::from_ref(hull), &brief, 128);
    let reasons = answer.ruled_out.first().map(|r| r.reasons.clone());
    let grave = [Code::Capsizes, Code::Lolls, Code::Founders, Code::TooTender];
    Some(reasons.is_some_and(|all| all.iter().any(|r| grave.contains(&r.code))))
}

/// Ordinary sit-on-tops: 3.0-4.3 m, 71-95 cm, 20-50 kg, every bottom and none noted.
fn ordinary() -> Vec<Survey> {
    let bottoms: Vec<Option<BottomShape>> = std::iter::once(None)
        .chain(
            [
                BottomShape::ShallowArch,
                BottomShape::ShallowVee,
                BottomShape::Flat,
                BottomShape::Tunnel,
                BottomShape::TriLobe,
            ]
            .map(Some),
        )
        .collect();
    let lengths = [3.0_f64, 3.3, 3.7, 4.0, 4.3];
    let beams = [0.71, 0.75, 0.79, 0.83, 0.89, 0.95];
    let mut out = Vec::new();
    for length in lengths {
        for beam in beams {
            for &bottom in &bottoms {
                let weight = (11.0 * length * beam).clamp(20.0, 50.0);
                out.push(leaflet(length, beam, weight, bottom));
            }
        }
    }
    let wanted = cases(60);
    let step = (out.len() / wanted.max(1)).max(1);
    out.into_iter().step_by(step).collect()
}

/// Alarms and cases at a weight.
fn alarms(mass: f64) -> (usize, usize) {
    let hulls = ordinary();
    let told: Vec<(bool, &Survey)> = hulls
        .iter()
        .filter_map(|h| Some((alarm(h, mass)?, h)))
        .collect();
    let count = told.iter().filter(|t| t.0).count();
    for (_, hull) in told.iter().filter(|t| t.0) {
        println!(
            "{mass} kg: {:?} {:?} x {:?}",
            hull.bottom,
            hull.value(Measure::Length),
            hull.value(Measure::Beam)
        );
    }
    println!(
        "{mass} kg: {count} of {} called capsizing or too tender",
        told.len()
    );
    (count, told.len())
}

#[test]
fn ordinary_hulls_are_not_condemned() {
    for (mass, most) in [(60.0, 0.0), (75.0, 0.0), (90.0, 0.05), (105.0, 0.10)] {
        let (count, all) = alarms(mass);
        assert!(
            all > 0 && count as f64 <= most * all as f64,
            "{mass} kg: {count} of {all}"
        );
    }
}

#[test]
fn slim_sit_on_tops_are_still_out_with_ninety_kilograms() {
    for length in [3.6, 4.2, 4.8] {
        for beam in [0.55, 0.58, 0.61] {
            let hull = leaflet(length, beam, 11.0 * length * beam, None);
            let answer = ranking(&[hull], &asked(90.0, Posture::Sits), 128);
            assert!(answer.ranked.is_empty(), "{length} x {beam}");
            let first = answer.ruled_out[0].reasons[0].code;
            let grave = [Code::Capsizes, Code::Lolls, Code::Founders, Code::TooTender];
            assert!(grave.contains(&first), "{length} x {beam}: {first:?}");
        }
    }
}

#[test]
fn a_small_paddled_hull_is_in_order_with_its_doubt() {
    let mut hull = leaflet(2.85, 0.79, 23.0, Some(BottomShape::ShallowArch));
    hull.readings.remove(&Measure::RatedCapacity);
    let mut brief = asked(84.0, Posture::Sits);
    brief.rig = rig(8.0, 0.60, 0.12);
    let answer = ranking(&[hull], &brief, 128);
    let out = answer.ruled_out.first().map(|r| &r.reasons);
    assert!(answer.ranked.len() == 1, "{out:?}");
    assert!(answer.ranked[0].peril.is_some());
}

#[test]
fn a_sea_kayak_like_hull_is_judged_alike_with_a_guessed_and_a_taped_floor() {
    let mut hull = leaflet(4.8, 0.56, 24.0, Some(BottomShape::ShallowVee));
    hull.construction = Construction::SitInside;
    let brief = asked(80.0, Posture::Sits);
    let share = |hull: &Survey| {
        let a = common::assess(hull, &brief, 128);
        a.share(|f| !f.is_rest())
    };
    let guessed = share(&hull);
    let reading = galvet_core::hull::Reading::new(Measure::FloorHeight, 0.02, Source::Tape);
    hull.readings
        .insert(Measure::FloorHeight, vec![reading.unwrap()]);
    let taped = share(&hull);
    println!("guessed {guessed:.2}, taped {taped:.2}");
    assert!((guessed - taped).abs() < 0.10, "{guessed} {taped}");
}
