//! Ranking: what a person would expect of the order, whatever the numbers.

use crate::common;

use common::{assess, brief, one_of_many, ranking, rig};
use galvet_core::base::System;
use galvet_core::crew::{Crew, Posture, SeatHeight};
use galvet_core::figures::Quantity;
use galvet_core::hull::{Measure, Reading, Scuppers, Source, Survey};
use galvet_core::question::{Brief, Practice};
use galvet_core::rank::{Binding, Code, Firmness, Ranking, explain};

fn hull(key: &str, length: f64, beam: f64, rated: Option<f64>) -> Survey {
    let rated: Vec<_> = rated
        .map(|r| (Measure::RatedCapacity, r))
        .into_iter()
        .collect();
    one_of_many(key, [length, beam], &rated)
}

fn fleet() -> Vec<Survey> {
    vec![
        hull("wide", 3.8, 0.94, Some(230.0)),
        hull("narrow", 3.4, 0.68, Some(150.0)),
        hull("middle", 3.6, 0.84, Some(190.0)),
    ]
}

fn asked(mass: f64, posture: Posture) -> Brief {
    let mut brief = brief(mass, 1.8, rig(20.0, 0.6, 0.12));
    brief.posture = posture;
    brief.wishes.practice = Practice::Skilled;
    brief
}

fn order(answer: &Ranking) -> Vec<String> {
    let keys = answer.ranked.iter();
    keys.map(|r| r.survey().key.clone()).collect()
}

#[test]
fn the_wide_hull_leads_for_one_who_stands_and_the_narrow_one_is_out() {
    let (hulls, brief) = (fleet(), asked(82.0, Posture::Stands));
    let answer = ranking(&hulls, &brief, 64);
    assert_eq!(order(&answer), ["wide", "middle"]);
    let out = &answer.ruled_out[0];
    assert_eq!(out.survey.key, "narrow");
    let grave = [Code::Capsizes, Code::Lolls, Code::StaySeated];
    assert!(out.reasons.iter().any(|r| grave.contains(&r.code)));
    assert!(answer.ranked[0].on_front);
    assert!(!answer.ranked[1].on_front);
    let firm = Firmness::of(answer.ranked[0].beats_next.unwrap());
    assert_eq!(firm, Firmness::Firm);
    assert_eq!(answer.ranked[1].beats_next, None);
}

#[test]
fn figures_stand_within_their_ranges_and_the_binding_margin_is_the_least() {
    let (hulls, brief) = (fleet(), asked(70.0, Posture::Sits));
    for survey in &hulls {
        let a = assess(survey, &brief, 64);
        for &q in Quantity::ALL {
            if let Some(r) = a.range(q) {
                assert!(r.p5 <= r.p50 && r.p50 <= r.p95, "{} {r:?}", q.row().key);
            }
        }
        let (binding, margin) = Binding::of(&a).unwrap();
        for q in [
            Quantity::LabelMargin,
            Quantity::WorkingMargin,
            Quantity::WaterlineMargin,
        ] {
            assert!(margin <= a.median(q).unwrap(), "{binding:?}");
        }
    }
}

#[test]
fn a_taller_seat_costs_lean_room_and_plugs_buy_margin() {
    let mut survey = hull("one", 3.7, 0.88, Some(200.0));
    let high = Reading::new(Measure::SeatHigh, 0.30, Source::Tape).unwrap();
    survey.readings.insert(Measure::SeatHigh, vec![high]);
    let low = asked(85.0, Posture::Sits);
    let mut raised = low.clone();
    raised.seat = SeatHeight::High;
    let mut plugged = low.clone();
    plugged.scuppers = Scuppers::Plugged;
    let median = |brief: &Brief, q| {
        let assessment = assess(&survey, brief, 64);
        assessment.median(q).unwrap()
    };
    assert!(median(&raised, Quantity::LeanRoom) < median(&low, Quantity::LeanRoom));
    assert!(median(&raised, Quantity::Gm) < median(&low, Quantity::Gm) - 0.02);
    // Dry feet: the gunwale is the limit now, and it is far.
    let gained =
        median(&plugged, Quantity::WaterlineMargin) - median(&low, Quantity::WaterlineMargin);
    assert!(gained > 10.0, "{gained}");
}

#[test]
fn a_hull_without_a_label_is_ranked_on_what_is_known() {
    let hulls = vec![hull("bare", 3.7, 0.88, None)];
    let brief = asked(80.0, Posture::Sits);
    let answer = ranking(&hulls, &brief, 32);
    let entry = &answer.ranked[0];
    assert_eq!(entry.assessment.median(Quantity::LabelMargin), None);
    assert_eq!(entry.binding.unwrap().0, Binding::Waterline);
    assert!(explain::why(&answer, 0, System::Metric).starts_with("The only one left"));
}

#[test]
fn a_measured_floor_narrows_the_range() {
    let brief = asked(80.0, Posture::Sits);
    let width = |survey: &Survey| {
        let a = assess(survey, &brief, 128);
        let r = a.range(Quantity::WaterlineMargin).unwrap();
        r.p95 - r.p5
    };
    let known = hull("one", 3.7, 0.88, Some(200.0));
    let mut guessed = known.clone();
    guessed.readings.remove(&Measure::FloorHeight);
    assert!(width(&known) < 0.6 * width(&guessed));
}

#[test]
fn no_length_or_beam_means_no_rank_and_says_so() {
    let mut hulls = fleet();
    hulls[0].readings.remove(&Measure::Beam);
    let brief = asked(70.0, Posture::Sits);
    let answer = ranking(&hulls, &brief, 16);
    let out = answer
        .ruled_out
        .iter()
        .find(|r| r.survey.key == "wide")
        .unwrap();
    assert_eq!(
        out.reasons[0].text(System::Metric),
        "cannot be floated: the beam is not known"
    );
}

#[test]
fn limits_rule_out_by_the_amount_they_are_missed() {
    let hulls = fleet();
    let mut brief = asked(70.0, Posture::Sits);
    brief.must.longest = Some(3.7);
    brief.must.heaviest_lift = Some(30.0);
    let answer = ranking(&hulls, &brief, 16);
    assert!(answer.ranked.is_empty());
    let wide = answer
        .ruled_out
        .iter()
        .find(|r| r.survey.key == "wide")
        .unwrap();
    let texts: Vec<String> = wide
        .reasons
        .iter()
        .map(|r| r.text(System::Metric))
        .collect();
    assert!(
        texts.contains(&"0.10\u{a0}m too long for the store".to_owned()),
        "{texts:?}"
    );
    assert!(
        texts.contains(&"36\u{a0}kg fitted: 6\u{a0}kg too heavy to lift".to_owned()),
        "{texts:?}"
    );
}

#[test]
fn explanations_name_differences_in_the_readers_units() {
    let (hulls, brief) = (fleet(), asked(75.0, Posture::Sits));
    let answer = ranking(&hulls, &brief, 64);
    let metric = explain::why(&answer, 1, System::Metric);
    let imperial = explain::why(&answer, 1, System::Imperial);
    assert!(
        metric.contains("kg less in hand than the Fixture wide"),
        "{metric}"
    );
    assert!(imperial.contains("lb less in hand"), "{imperial}");
}

#[test]
fn the_heaviest_crew_on_the_smallest_hull_stays_finite() {
    let hulls = vec![hull("toy", 1.9, 0.5, Some(60.0))];
    let mut brief = asked(220.0, Posture::Stands);
    brief.crew = Crew::new(220.0, 2.3).unwrap();
    let answer = ranking(&hulls, &brief, 32);
    let out = &answer.ruled_out[0];
    assert!(out.reasons.len() >= 2, "{:?}", out.reasons);
    let a = out.assessment.as_ref().unwrap();
    for values in &a.in_full() {
        for &q in Quantity::ALL {
            assert!(values.get(q).is_none_or(f64::is_finite), "{}", q.row().key);
        }
    }
}
