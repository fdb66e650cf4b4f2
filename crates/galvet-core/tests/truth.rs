//! Nothing may be wrong in the dangerous direction. Each test carries the name
//! of what was found by trying it.

#![allow(clippy::unwrap_used, clippy::panic, reason = "tests")]

mod common;

use common::{assess, box_hull, brief, guides, posterior, ranking, rig, survey};
use galvet_core::base::System;
use galvet_core::crew::{Crew, Posture};
use galvet_core::figures::Quantity as Q;
use galvet_core::float::Fate;
use galvet_core::guide::{Guide, Guides};
use galvet_core::hull::{
    BottomShape, CapacityBasis, Construction, Measure, Origin, Propulsion, Scuppers, Survey,
};
use galvet_core::load::LoadKind;
use galvet_core::plausible::Posterior;
use galvet_core::question::Brief;
use galvet_core::rank::{Code, Reason};
use std::sync::Arc;

fn needle() -> Survey {
    survey(
        Construction::SitOnTop,
        BottomShape::ShallowVee,
        &[
            (Measure::Length, 4.50),
            (Measure::Beam, 0.58),
            (Measure::SeatLow, 0.25),
            (Measure::RatedCapacity, 200.0),
        ],
    )
}

fn asked(mass: f64, posture: Posture) -> Brief {
    let mut brief = brief(mass, 1.78, rig(10.0, 0.55, 0.1));
    brief.posture = posture;
    brief
}

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
    for q in [
        Q::Draft,
        Q::Trim,
        Q::Freeboard,
        Q::WaterlineMargin,
        Q::LeanRoom,
    ] {
        assert_eq!(a.median(q), None, "{q:?}");
    }
}

#[test]
fn loll_is_reported_for_a_centred_weight() {
    // A box 0.6 m wide, loaded high: GM just below zero and a wall-sided curve
    // that comes back: tan² φ = -2 GM / BM.
    let hull = box_hull(Construction::Board, 3.0, 0.6, 0.5);
    let length = 3.0;
    let mut brief = asked(80.0, Posture::Sits);
    // Whole mass: 50 hull + 86 angler + 10 rig = 146 kg, T = 0.0811 m.
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
    let mut brief = asked(150.0, Posture::Sits);
    brief.rig = rig(60.0, 0.95, 0.1);
    let a = assess(&hull, &brief, 16);
    let over = a.too_much().expect("founders");
    // Scaled to just under that, the whole load floats; just over, it doesn't.
    let share = |kg: f64| (216.0 - kg) / 216.0;
    for (kg, floats) in [(over + 1.0, true), (over - 1.0, false)] {
        let s = share(kg);
        let mut less = brief.clone();
        less.crew = Crew::new(156.0 * s - 6.0, 1.78).unwrap();
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
        let hull = hull(0.66 + 0.004 * f64::from(step));
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
fn hiding_a_weight_never_raises_a_margin() {
    let full = |known: &[Measure]| {
        let mut hull = survey(
            Construction::SitOnTop,
            BottomShape::Tunnel,
            &[
                (Measure::Length, 3.7),
                (Measure::Beam, 0.9),
                (Measure::BareWeight, 38.0),
                (Measure::FittedWeight, 49.0),
                (Measure::RatedCapacity, 200.0),
            ],
        );
        hull.propulsion = Propulsion::RotaryPedal;
        hull.capacity_basis = CapacityBasis::EverythingAboveBareHull;
        hull.readings.retain(|m, _| {
            known.contains(m) || ![Measure::BareWeight, Measure::FittedWeight].contains(m)
        });
        let a = assess(&hull, &asked(80.0, Posture::Sits), 64);
        let kit = a.setup.loads.counted(a.middle.kit_mass)[1];
        assert_eq!(kit.0, LoadKind::FixedKit);
        (
            a.median(Q::LabelMargin).unwrap(),
            kit.1,
            a.range(Q::LabelMargin).unwrap(),
        )
    };
    let (both, kit, _) = full(&[Measure::BareWeight, Measure::FittedWeight]);
    // 200 rated less 86 angler, 10 rig and 11 of seat and drive.
    assert!((both - (200.0 - 86.0 - 10.0 - 11.0)).abs() < 0.5, "{both}");
    assert!((kit - 11.0).abs() < 0.5);
    for known in [
        &[Measure::BareWeight][..],
        &[Measure::FittedWeight][..],
        &[][..],
    ] {
        let (margin, kit, range) = full(known);
        let guess = Guides::default()[Guide::DriveMass];
        assert!((kit - guess).abs() < 0.5, "{kit}: guessed, never nothing");
        assert!(margin <= both + 0.5, "{margin} {both}");
        assert!(range.p95 - range.p5 > 4.0, "a guess has a width: {range:?}");
    }
}

#[test]
fn hull_mass_and_counted_load_are_on_one_account() {
    let mut hull = survey(
        Construction::SitOnTop,
        BottomShape::Tunnel,
        &[
            (Measure::Length, 3.7),
            (Measure::Beam, 0.9),
            (Measure::BareWeight, 38.0),
        ],
    );
    hull.propulsion = Propulsion::FinPedal;
    let p = posterior(&hull, 64);
    for shape in &p.shapes {
        // The same seat and drive in what floats and in what the label counts.
        assert!(
            (shape.hull_mass - shape.kit_mass - 38.0).abs() < 1.0,
            "{shape:?}"
        );
    }
}

#[test]
fn a_posterior_does_not_depend_on_the_question() {
    use galvet_core::hull::{Aboard, Datum, Evidence, FloatReading};
    let mut hull = survey(
        Construction::SitOnTop,
        BottomShape::Tunnel,
        &[
            (Measure::Length, 3.7),
            (Measure::Beam, 0.88),
            (Measure::FittedWeight, 45.0),
            (Measure::RatedCapacity, 190.0),
        ],
    );
    let aboard = Aboard {
        mass: 106.0,
        place: 0.54,
        height: 0.3,
    };
    let reading = FloatReading::Heights {
        datum: Datum::Floor,
        heights: vec![(0.45, 0.035)],
    };
    hull.evidence.push(Evidence::fresh(aboard, reading));
    // One posterior, under any brief: the type takes none. Salt water where the
    // test was made is the test's own affair and moves the shapes.
    let fresh = posterior(&hull, 128);
    hull.evidence[0].density = 1025.0;
    let salt = posterior(&hull, 128);
    let floor = |p: &Posterior| -> f64 {
        let both = p.shapes.iter().zip(&p.weights);
        both.map(|(s, w)| s.floor * w).sum()
    };
    // Read in salt the hull lay higher: its floor is lower than it looked.
    let moved = floor(&fresh) - floor(&salt);
    assert!((0.0005..0.006).contains(&moved), "{moved}");
}

#[test]
fn a_label_is_weighed_by_its_basis() {
    let hull = |basis| {
        let mut hull = survey(
            Construction::SitOnTop,
            BottomShape::Tunnel,
            &[
                (Measure::Length, 3.7),
                (Measure::Beam, 0.88),
                (Measure::BareWeight, 36.0),
                (Measure::FittedWeight, 60.0),
                (Measure::RatedCapacity, 150.0),
            ],
        );
        hull.capacity_basis = basis;
        let p = posterior(&hull, 128);
        let both = p.shapes.iter().zip(&p.weights);
        both.map(|(s, w)| s.floor * w).sum::<f64>()
    };
    // 150 kg of crew and gear beside 24 kg of drive wets a higher floor than
    // 150 kg with the drive in them.
    let crew = hull(CapacityBasis::GearAndCrew);
    let all = hull(CapacityBasis::EverythingAboveBareHull);
    assert!(crew > all + 5e-4, "{crew} {all}");
    assert_eq!(all, hull(CapacityBasis::Unknown));
}

#[test]
fn being_sold_lifts_no_hull_that_gm_rules_out() {
    // Over beams from hopeless to steady: what more than half of the shapes
    // rule out without that evidence stays out with it.
    let mut narrowed = false;
    for step in 0..24 {
        let mut hull = survey(
            Construction::SitOnTop,
            BottomShape::ShallowArch,
            &[
                (Measure::Length, 3.2),
                (Measure::Beam, 0.62 + 0.01 * f64::from(step)),
                (Measure::SeatLow, 0.18),
            ],
        );
        let brief = asked(82.0, Posture::Sits);
        let sold = ranking(std::slice::from_ref(&hull), &brief, 128);
        hull.origin = Origin::HomeMade;
        let made = assess(&hull, &brief, 128);
        let alone = made.share(|f| !f.is_rest());
        if alone > 0.5 {
            assert!(sold.ranked.is_empty(), "{alone} of its shapes go over");
        }
        let with = sold
            .ranked
            .first()
            .map(|r| r.assessment.clone())
            .or(sold.ruled_out.first().and_then(|r| r.assessment.clone()))
            .unwrap();
        let lifted = with.share(|f| !f.is_rest());
        narrowed |= lifted < alone - 0.05;
        assert!(lifted <= alone + 0.02, "{lifted} {alone}");
    }
    assert!(narrowed, "somewhere it spares a false alarm");
}

#[test]
fn what_is_odd_for_a_sold_hull_is_told_not_used() {
    let p = Posterior::of(Arc::new(needle()), guides(), 64).unwrap();
    assert!(
        p.doubts
            .iter()
            .any(|d| d.contains("odd for a hull that is sold"))
    );
    assert_eq!(p.weights, p.unsold);
    let mut own = needle();
    own.origin = Origin::HomeMade;
    let p = Posterior::of(Arc::new(own), guides(), 64).unwrap();
    assert!(p.doubts.is_empty(), "{:?}", p.doubts);
}

#[test]
fn a_boards_deck_is_its_floor() {
    // A box board 0.2 m deep under 146 kg: T = 146/(3.2·0.85)/1000 m, its deck
    // 0.2 - T above the water, and 10 mm of that are asked for on the lake.
    let hull = box_hull(Construction::Board, 3.2, 0.85, 0.2);
    let mut brief = asked(80.0, Posture::Sits);
    brief.rig = rig(10.0, 0.5, 0.1);
    // Amidships: hull, seat and rig balance about the middle.
    let a = assess(&centred(hull), &centred_brief(brief), 16);
    let t = 146.0 / (1000.0 * 3.2 * 0.85);
    let above = a.median(Q::FloorAboveWater).unwrap();
    assert!((above - (0.2 - t)).abs() < 0.0015, "{above}");
    let margin = a.median(Q::WaterlineMargin).unwrap();
    let exact = 1000.0 * 3.2 * 0.85 * (0.2 - 0.010) - 146.0;
    assert!((margin - exact).abs() < 0.01 * exact, "{margin} {exact}");
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
fn recess_breadth_and_extent_vary_and_a_taped_floor_width_fixes_them() {
    let mut hull = survey(
        Construction::SitOnTop,
        BottomShape::Tunnel,
        &[(Measure::Length, 3.7), (Measure::Beam, 0.9)],
    );
    let spread = |p: &Posterior, of: fn(&galvet_core::body::Shape) -> f64| {
        let v: Vec<f64> = p.shapes.iter().map(of).collect();
        let mean = v.iter().sum::<f64>() / v.len() as f64;
        let sd = (v.iter().map(|x| (x - mean).powi(2)).sum::<f64>() / v.len() as f64).sqrt();
        (mean, sd)
    };
    let guessed = posterior(&hull, 128);
    let (mean, sd) = spread(&guessed, |s| s.recess_breadth);
    assert!(
        (mean - 0.76).abs() < 0.01 && (sd - 0.06).abs() < 0.01,
        "{mean} {sd}"
    );
    let (_, sd) = spread(&guessed, |s| s.recess_to);
    assert!(sd > 0.015, "{sd}");
    let width =
        galvet_core::hull::Reading::new(Measure::FloorWidth, 0.63, galvet_core::hull::Source::Tape);
    hull.readings
        .insert(Measure::FloorWidth, vec![width.unwrap()]);
    let (mean, sd) = spread(&posterior(&hull, 128), |s| s.recess_breadth);
    assert!((mean - 0.70).abs() < 0.002 && sd < 0.006, "{mean} {sd}");
    // The largest lasting lean follows it.
    let lean = |breadth: f64| {
        let brief = asked(82.0, Posture::Sits);
        let a = assess(&hull, &brief, 1);
        let shapes = [galvet_core::body::Shape {
            recess_breadth: breadth,
            ..a.middle
        }];
        let values = a.afloat(&shapes).figures()[0].0.clone();
        values.get(Q::LastingLean).unwrap()
    };
    assert!(
        lean(0.65) > lean(0.80) + 0.02,
        "{} {}",
        lean(0.65),
        lean(0.80)
    );
}

#[test]
fn too_tender_to_use_rules_out() {
    // Found by narrowing a hull until she still rests but answers no lean.
    let brief = asked(80.0, Posture::Sits);
    let mut met = false;
    for step in 0..60 {
        let mut hull = box_hull(
            Construction::Board,
            3.2,
            0.52 + 0.002 * f64::from(step),
            0.3,
        );
        hull.readings.remove(&Measure::SeatLow);
        let a = assess(&hull, &brief, 16);
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
