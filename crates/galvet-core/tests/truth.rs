//! Nothing may be wrong in the dangerous direction. Each test carries the name
//! of what was found by trying it.

#![allow(clippy::unwrap_used, clippy::panic, reason = "tests")]

use crate::common;

use common::{asked, assess, box_hull, needle, ranking, rig, survey};
use galvet_core::base::System;
use galvet_core::crew::{Crew, Posture};
use galvet_core::figures::Quantity as Q;
use galvet_core::float::Fate;
use galvet_core::guide::Guides;
use galvet_core::hull::{BottomShape, Construction, Measure, Scuppers, Survey};
use galvet_core::question::Brief;
use galvet_core::rank::{Code, Reason};

fn reasons_for(hull: &Survey, brief: &Brief) -> Vec<Reason> {
    let answer = ranking(std::slice::from_ref(hull), brief, 64);
    assert!(
        answer.ranked.is_empty(),
        "ranked: {:?}",
        answer.ranked[0].score
    );
    answer.ruled_out[0].reasons.clone()
}

#[test]
fn what_capsizes_is_never_ranked_in_any_posture_or_school() {
    use galvet_core::base::Keyed;
    use galvet_core::question::{CapacitySchool, StabilitySchool};
    let hull = needle();
    for &posture in Posture::ALL {
        for &scuppers in Scuppers::ALL {
            for &school in StabilitySchool::ALL {
                let mut brief = asked(68.0, posture);
                brief.scuppers = scuppers;
                brief.stability_school = school;
                brief.capacity_school = CapacitySchool::Label;
                let first = &reasons_for(&hull, &brief)[0];
                let gravest = [Code::Capsizes, Code::Lolls];
                assert!(
                    gravest.contains(&first.code),
                    "{posture:?} {scuppers:?} {first:?}"
                );
                // By how much: GM short of zero, in words and as a number.
                assert!(first.by > 0.01, "{first:?}");
            }
        }
    }
    let text = reasons_for(&hull, &asked(68.0, Posture::Sits))[0].text(System::Metric);
    assert!(
        text.starts_with("capsizes: GM is") && text.contains("cm") || text.starts_with("lolls"),
        "{text}"
    );
}

#[test]
fn a_capsizing_hull_keeps_no_attitude_but_its_missing_gm() {
    let brief = asked(68.0, Posture::Sits);
    let a = assess(&needle(), &brief, 64);
    assert!(a.share(|f| !f.is_rest()) > 0.95);
    assert!(a.range(Q::Gm).unwrap().p95 < 0.0);
    for q in common::AT_REST {
        assert_eq!(a.median(q), None, "{q:?}");
    }
}

#[test]
fn loll_is_reported_for_a_centred_weight() {
    // A box 0.6 m wide, loaded high: GM just below zero and a wall-sided curve
    // that comes back: tan² φ = -2 GM / BM.
    let hull = box_hull(Construction::Board, 3.0, 0.6, 0.5);
    let length = 3.0;
    let mut brief = asked(77.0, Posture::Sits);
    // Whole mass: 50 hull + 86 angler in wet clothes + 10 rig = 146 kg, T = 0.0811 m.
    let mass = 146.0;
    let t = mass / (1000.0 * length * 0.6);
    let (kb, bm) = (t / 2.0, 0.6 * 0.6 / (12.0 * t));
    // Put the rig so high that KG = KB + BM + 5 mm.
    let kg = kb + bm + 0.005;
    let z_crew = 0.5 + 0.10 + 0.14 * 1.78;
    let z_rig = (mass * kg - 50.0 * 0.10 - 86.0 * z_crew) / 10.0 - 0.5;
    brief.rig = rig(10.0, 0.5, z_rig);
    let a = assess(&centred(hull), &centred_brief(brief), 8);
    let middle = [a.setup.posterior.prior.median()];
    let (_, fate) = a.afloat(&middle).figures()[0].clone();
    let Fate::Lolls { angle, missing } = fate else {
        panic!("{fate:?}")
    };
    assert!((missing - 0.005).abs() < 2e-4, "{missing}");
    let exact = (2.0 * 0.005 / bm).sqrt().atan();
    assert!((angle - exact).abs() < 0.01, "{angle} {exact}");
}

#[test]
fn what_founders_says_so_and_by_how_much() {
    // Twelve hulls once shared one placeholder, "114 mm too wet".
    let mut said = Vec::new();
    for i in 0..12 {
        let hull = survey(
            Construction::SitOnTop,
            BottomShape::Flat,
            &[
                (Measure::Length, 2.0 + 0.05 * f64::from(i)),
                (Measure::Beam, 0.62),
                (Measure::Depth, 0.20),
                (Measure::FittedWeight, 25.0),
            ],
        );
        let mut brief = asked(150.0, Posture::Sits);
        brief.rig = rig(40.0, 0.9, 0.1);
        let first = reasons_for(&hull, &brief)[0].clone();
        assert!(
            [Code::Founders, Code::Sinks, Code::Capsizes].contains(&first.code),
            "{first:?}"
        );
        assert!(first.by > 0.0, "{first:?}");
        said.push(format!("{:.2}", first.by));
    }
    said.sort();
    said.dedup();
    assert!(said.len() >= 10, "each by its own amount: {said:?}");
}

#[test]
fn founder_amount_is_what_must_come_off() {
    let hull = survey(
        Construction::SitOnTop,
        BottomShape::Flat,
        &[
            (Measure::Length, 2.6),
            (Measure::Beam, 0.75),
            (Measure::Depth, 0.25),
            (Measure::FittedWeight, 25.0),
        ],
    );
    let mut brief = asked(147.0, Posture::Sits);
    brief.rig = rig(60.0, 0.95, 0.1);
    let a = assess(&hull, &brief, 16);
    let over = a.too_much().expect("founders");
    // Scaled to just under that, the whole load floats; just over, it doesn't.
    let share = |kg: f64| (216.0 - kg) / 216.0;
    for (kg, floats) in [(over + 1.0, true), (over - 1.0, false)] {
        let s = share(kg);
        let mut less = brief.clone();
        less.crew = Crew::new(156.0 * s - 9.0, 1.78).unwrap();
        less.rig = rig(60.0 * s, 0.95, 0.1);
        let shapes = [a.middle];
        let b = assess(&hull, &less, 16);
        let setup = b.setup.clone();
        let afloat =
            galvet_core::figures::Afloat::new(&setup, &shapes, galvet_core::float::Accuracy::FINE);
        let rests = afloat.case(b.setup.carriage()).upright.rests(0);
        assert_eq!(rests, floats, "{kg}");
    }
}

#[test]
fn one_row_does_not_take_the_others_down() {
    let mut odd = survey(
        Construction::SitOnTop,
        BottomShape::Tunnel,
        &[
            (Measure::Length, 3.5),
            (Measure::Beam, 0.85),
            (Measure::Depth, 0.08),
        ],
    );
    odd.key = "odd".to_owned();
    let mut good = odd.clone();
    good.key = "good".to_owned();
    good.readings.remove(&Measure::Depth);
    let answer = ranking(&[odd, good.clone()], &asked(70.0, Posture::Sits), 32);
    let alone = ranking(&[good], &asked(70.0, Posture::Sits), 32);
    assert_eq!(answer.ranked.len(), 1);
    assert_eq!(answer.ranked[0].score, alone.ranked[0].score);
    assert_eq!(answer.ruled_out[0].survey.key, "odd");
}

#[test]
fn ranges_tell_the_share_that_has_the_figure() {
    // Beamy enough to rest in most shapes, tender enough not to in all.
    let (a, up) = (0..30)
        .map(|step| {
            let hull = survey(
                Construction::SitOnTop,
                BottomShape::ShallowVee,
                &[
                    (Measure::Length, 3.1),
                    (Measure::Beam, 0.70 + 0.005 * f64::from(step)),
                    (Measure::SeatLow, 0.2),
                    (Measure::FittedWeight, 25.0),
                ],
            );
            let a = assess(&hull, &asked(85.0, Posture::Sits), 128);
            let up = a.share(Fate::is_rest);
            (a, up)
        })
        .find(|(_, up)| (0.3..0.9).contains(up))
        .unwrap();
    for q in [Q::Draft, Q::LeanRoom, Q::BindingMargin] {
        let range = a.range(q).unwrap();
        assert!(range.share <= up + 1e-9, "{q:?} {range:?} {up}");
    }
    // Sitting sideways holds in fewer still.
    let sideways = a.range(Q::SidewaysList).map_or(0.0, |r| r.share);
    assert!(sideways < up, "{sideways} {up}");
}

#[test]
fn a_fifth_of_unresting_shapes_rules_out_and_less_is_said_in_red() {
    let hull = |beam: f64| {
        survey(
            Construction::SitOnTop,
            BottomShape::ShallowVee,
            &[
                (Measure::Length, 3.1),
                (Measure::Beam, beam),
                (Measure::SeatLow, 0.2),
                (Measure::FittedWeight, 25.0),
            ],
        )
    };
    let brief = asked(85.0, Posture::Sits);
    let (mut red, mut may, mut flat) = (0, 0, 0);
    for step in 0..40 {
        let hull = hull(0.70 + 0.004 * f64::from(step));
        let share = assess(&hull, &brief, 128).share(|f| !f.is_rest());
        let answer = ranking(&[hull], &brief, 128);
        match answer.ranked.first() {
            Some(first) => {
                assert!(share <= 0.2, "{share} ranked");
                if let Some(peril) = first.peril {
                    assert!(peril.share >= 0.01 && peril.measure.is_some());
                    red += 1;
                } else {
                    assert!(share < 0.01, "{share} unsaid");
                }
            }
            None => {
                let first = &answer.ruled_out[0].reasons[0];
                match first.share {
                    Some(said) => {
                        let text = first.text(System::Metric);
                        assert!(text.starts_with("may "), "{text}");
                        assert!(text.contains("measure "), "{text}");
                        assert!(said > 0.2 && said < 0.5);
                        may += 1;
                    }
                    None => flat += 1,
                }
            }
        }
    }
    assert!(red > 0 && may > 0 && flat > 0, "{red} {may} {flat}");
}

#[test]
fn points_count_by_the_share_that_stays_up() {
    let hull = survey(
        Construction::SitOnTop,
        BottomShape::ShallowVee,
        &[
            (Measure::Length, 3.1),
            (Measure::Beam, 0.74),
            (Measure::SeatLow, 0.2),
            (Measure::FittedWeight, 25.0),
            (Measure::RatedCapacity, 300.0),
        ],
    );
    let brief = asked(85.0, Posture::Sits);
    let a = assess(&hull, &brief, 128);
    let up = a.share(Fate::is_rest);
    let scales = galvet_core::rank::Scales::of(&Guides::default());
    let score = galvet_core::rank::score(&a, &brief, &scales);
    let load = a.median(Q::Counted).unwrap();
    let margin = a.range(Q::BindingMargin).unwrap();
    let exact = margin.share.min(up) * scales.margin.points(margin.p50 / load);
    assert!((score.capacity - exact).abs() < 1e-9);
    assert!(up < 1.0 || score.capacity <= 100.0);
}

#[test]
fn a_missing_figure_earns_nothing_and_is_said() {
    use galvet_core::question::CapacitySchool;
    let hull = survey(
        Construction::SitOnTop,
        BottomShape::Tunnel,
        &[(Measure::Length, 3.7), (Measure::Beam, 0.9)],
    );
    let mut brief = asked(80.0, Posture::Sits);
    brief.capacity_school = CapacitySchool::Label;
    let answer = ranking(&[hull], &brief, 32);
    let first = &answer.ranked[0];
    assert_eq!(first.score.capacity, 0.0);
    let why = galvet_core::rank::explain::why(&answer, 0, System::Metric);
    assert!(why.contains("without points: label margin"), "{why}");
}

#[test]
fn a_boards_deck_is_its_floor() {
    // A box board 0.2 m deep under 146 kg: T = 146/(3.2·0.85)/1000 m, its deck
    // 0.2 - T above the water, and 10 mm of that are asked for on the lake.
    let hull = box_hull(Construction::Board, 3.2, 0.85, 0.2);
    let mut brief = asked(77.0, Posture::Sits);
    brief.rig = rig(10.0, 0.5, 0.1);
    // Amidships: hull, seat and rig balance about the middle.
    let a = assess(&centred(hull), &centred_brief(brief), 16);
    let t = 146.0 / (1000.0 * 3.2 * 0.85);
    let above = a.median(Q::FloorAboveWater).unwrap();
    assert!((above - (0.2 - t)).abs() < 0.0015, "{above}");
    let margin = a.median(Q::WaterlineMargin).unwrap();
    let exact = 1000.0 * 3.2 * 0.85 * (0.2 - 0.010) - 146.0;
    // Loaded further about the load's own centre it trims a hair by the bow, and the
    // pad's fore end meets the limit first.
    assert!(
        (margin - exact).abs() < 0.015 * exact && margin < exact,
        "{margin} {exact}"
    );
}

/// The hull with its seat over the middle.
fn centred(mut hull: Survey) -> Survey {
    let place =
        galvet_core::hull::Reading::new(Measure::SeatPlace, 0.5, galvet_core::hull::Source::Tape);
    hull.readings
        .insert(Measure::SeatPlace, vec![place.unwrap()]);
    hull
}

/// The brief with a rig that trims the hull's own centre (0.51 L) level.
fn centred_brief(mut brief: Brief) -> Brief {
    // 50 kg at 0.51 L is balanced by 10 kg at 0.45 L.
    brief.rig.lines[0].place = 0.45;
    brief
}

#[test]
fn too_deep_is_judged_at_the_deepest_point_as_trimmed() {
    // The whole load far aft: the stern lies deeper than mid-length.
    let mut hull = box_hull(Construction::Board, 3.2, 0.85, 0.4);
    hull.drive_lifts = true;
    let mut brief = asked(80.0, Posture::Sits);
    brief.rig = rig(40.0, 0.95, 0.1);
    let a = assess(&hull, &brief, 16);
    let (draft, deepest) = (a.median(Q::Draft).unwrap(), a.median(Q::Deepest).unwrap());
    let trim = a.median(Q::Trim).unwrap().to_radians();
    // A flat bottom: half the length times the slope below mid-length.
    let exact = draft + 1.6 * trim.tan();
    assert!(
        (deepest - exact).abs() < 1e-3 && deepest > draft + 0.02,
        "{deepest} {exact}"
    );
    brief.water.least_depth = 0.5 * (draft + deepest);
    let out = reasons_for(&hull, &brief);
    let too_deep = out.iter().find(|r| r.code == Code::TooDeep).unwrap();
    assert!((too_deep.by - (deepest - brief.water.least_depth)).abs() < 1e-3);
}

#[test]
fn too_tender_to_use_rules_out() {
    // Found by narrowing a hull until it still rests but answers no lean.
    let brief = asked(80.0, Posture::Sits);
    let mut met = false;
    for step in 0..60 {
        let hull = box_hull(
            Construction::Board,
            3.2,
            0.52 + 0.002 * f64::from(step),
            0.3,
        );
        let a = assess(&hull, &brief, 64);
        let room = a.median(Q::LeanRoom);
        if a.share(Fate::is_rest) > 0.8 && room.is_some_and(|r| r < 0.01) {
            met = true;
            let first = reasons_for(&hull, &brief)[0].clone();
            assert_eq!(first.code, Code::TooTender, "{first:?}");
        }
    }
    assert!(met);
}

#[test]
fn plugs_and_a_rim_under_water_swamp() {
    // A sit-inside so laden that its coaming lies under: it fills, whatever
    // volume the sealed shell would have.
    let hull = survey(
        Construction::SitInside,
        BottomShape::Flat,
        &[
            (Measure::Length, 2.6),
            (Measure::Beam, 0.70),
            (Measure::Depth, 0.16),
            (Measure::FittedWeight, 30.0),
        ],
    );
    let mut brief = asked(150.0, Posture::Sits);
    brief.rig = rig(45.0, 0.5, 0.1);
    let a = assess(&hull, &brief, 64);
    let gone = |f: &Fate| {
        matches!(
            f,
            Fate::Swamps { .. } | Fate::Founders { .. } | Fate::Sinks { .. }
        )
    };
    assert!(a.share(gone) > 0.5, "{:?}", a.fates[0]);
    let first = reasons_for(&hull, &brief)[0].clone();
    assert!(first.code < Code::TooTender, "{first:?}");
}
