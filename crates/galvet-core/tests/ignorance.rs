//! What is not known counts as not known: what was found by leaving things out of
//! records, each as a test named after it.

#![allow(clippy::unwrap_used, clippy::panic, reason = "tests")]

use crate::common;

use common::families::{Truth, cases};
use common::{asked, assess, brief, leaflet, points, ranking, rig};
use galvet_core::advise::measure_next::for_hull;
use galvet_core::crew::{Posture, SeatHeight};
use galvet_core::figures::Quantity as Q;
use galvet_core::guide::Guides;
use galvet_core::hull::{BottomShape, Construction, Measure, Propulsion, Reading, Source, Survey};
use galvet_core::plausible::Target;
use galvet_core::question::Practice;
use galvet_core::rank::Scales;

fn with_seat(hull: &Survey, height: f64) -> Survey {
    with_seat_at(hull, Measure::SeatLow, height)
}

fn with_seat_at(hull: &Survey, place: Measure, height: f64) -> Survey {
    let mut hull = hull.clone();
    let reading = Reading::new(place, height, Source::Tape).unwrap();
    hull.readings.insert(place, vec![reading]);
    hull
}

/// The seat left out: the range holds the GM of the seat as it really is. What the points
/// are without it, and with it recorded.
fn seat_left_out(hull: &Survey, really: f64, at: SeatHeight) -> [f64; 2] {
    let mut asked = brief(85.0, 1.80, rig(20.0, 0.58, 0.12));
    asked.seat = at;
    let known = match at {
        SeatHeight::Low => with_seat(hull, really),
        SeatHeight::High => with_seat_at(hull, Measure::SeatHigh, really),
    };
    let truth = assess(&known, &asked, 128).median(Q::Gm).unwrap();
    let open = assess(hull, &asked, 128).range(Q::Gm).unwrap();
    assert!(open.p5 <= truth && truth <= open.p95, "{truth} {open:?}");
    let (less, more) = (points(hull, &asked), points(&known, &asked));
    println!(
        "GM {truth:.3} in {:.3}-{:.3}; points {less:.1} without, {more:.1} with",
        open.p5, open.p95
    );
    [less, more]
}

/// And the points are no higher than with it recorded.
fn no_higher_left_out(hull: &Survey, really: f64, at: SeatHeight) {
    let [less, more] = seat_left_out(hull, really, at);
    assert!(
        less <= more + 2.0,
        "{less} without the seat, {more} with it"
    );
}

#[test]
fn a_frame_seat_left_out_of_the_record_of_a_pedal_hull() {
    let mut hull = leaflet(
        Construction::SitOnTop,
        BottomShape::Flat,
        &[
            (Measure::Length, 3.70),
            (Measure::Beam, 0.86),
            (Measure::FittedWeight, 46.0),
        ],
    );
    hull.propulsion = Propulsion::RotaryPedal;
    // Set high: the range holds the GM of a seat that is really 25 cm up, and the points
    // are no higher than with it recorded.
    no_higher_left_out(&hull, 0.25, SeatHeight::High);
    // Set low as well, where it lies as such seats do.
    no_higher_left_out(&hull, 0.13, SeatHeight::Low);
    // A seat with one height, and that a high one, is within the range of the low place.
    seat_left_out(&hull, 0.25, SeatHeight::Low);
}

#[test]
fn a_frame_seat_left_out_of_the_record_of_a_board() {
    let hull = leaflet(
        Construction::Board,
        BottomShape::Board,
        &[
            (Measure::Length, 3.50),
            (Measure::Beam, 0.86),
            (Measure::FittedWeight, 34.0),
        ],
    );
    no_higher_left_out(&hull, 0.40, SeatHeight::Low);
}

#[test]
fn a_bottom_nobody_noted_may_be_any_of_them_and_is_the_first_thing_to_look_at() {
    let mut hull = leaflet(
        Construction::SitOnTop,
        BottomShape::Flat,
        &[
            (Measure::Length, 3.60),
            (Measure::Beam, 0.92),
            (Measure::BareWeight, 42.0),
        ],
    );
    let mut asked = brief(95.0, 1.90, rig(10.0, 0.58, 0.12));
    asked.posture = Posture::Stands;
    hull.bottom = None;
    let open = assess(&hull, &asked, 128);
    let range = open.range(Q::StandingSupport).unwrap();
    for bottom in [BottomShape::Flat, BottomShape::Tunnel, BottomShape::TriLobe] {
        hull.bottom = Some(bottom);
        let it = assess(&hull, &asked, 128)
            .median(Q::StandingSupport)
            .unwrap();
        assert!(
            range.p5 <= it && it <= range.p95,
            "{bottom:?}: {it} {range:?}"
        );
    }
    let next = for_hull(&open, &asked, &Scales::of(&Guides::default()));
    assert_eq!(next[0].target, Target::Bottom, "{next:?}");
}

#[test]
fn the_seat_is_asked_for_at_the_height_it_is_used() {
    let mut hull = leaflet(
        Construction::SitOnTop,
        BottomShape::Flat,
        &[(Measure::Length, 3.7), (Measure::Beam, 0.90)],
    );
    hull.propulsion = Propulsion::RotaryPedal;
    let reading = Reading::new(Measure::SeatLow, 0.12, Source::Tape).unwrap();
    hull.readings.insert(Measure::SeatLow, vec![reading]);
    let mut asked = asked(90.0, Posture::Sits);
    let mut named = |seat, construction| {
        (asked.seat, hull.construction) = (seat, construction);
        let a = assess(&hull, &asked, 128);
        let next = for_hull(&a, &asked, &Scales::of(&Guides::default()));
        next.iter().any(|s| s.target == Target::Seat)
    };
    // The low place is measured, the high one is not.
    assert!(!named(SeatHeight::Low, Construction::SitOnTop));
    assert!(named(SeatHeight::High, Construction::SitOnTop));
    // A board's seat has one height.
    assert!(!named(SeatHeight::High, Construction::Board));
}

#[test]
fn a_weight_nobody_took_holds_what_is_said_to_be_fitted() {
    let mut hull = leaflet(
        Construction::SitOnTop,
        BottomShape::Flat,
        &[(Measure::Length, 3.7), (Measure::Beam, 0.90)],
    );
    let weight = |hull: &Survey| assess(hull, &asked(80.0, Posture::Sits), 128).fitted_mass();
    // 11 kg/m² of 3.33 m², and a seat.
    let paddled = weight(&hull);
    assert!((paddled - (11.0 * 3.33 + 2.5)).abs() < 1.0, "{paddled}");
    hull.propulsion = Propulsion::RotaryPedal;
    hull.tracks_straight = true;
    let pedalled = weight(&hull);
    assert!(
        (pedalled - (paddled + 11.0 + 1.2)).abs() < 1.0,
        "{pedalled}"
    );
    hull.propulsion = Propulsion::Motor;
    assert!((weight(&hull) - (paddled + 12.0 + 1.2)).abs() < 1.0);
}

#[test]
fn of_two_hulls_the_one_less_is_known_of_is_not_ranked_higher() {
    // Pairs that differ only in what is known: the hull as it is, and its leaflet.
    let pairs = Truth::drawn(cases(16).min(50), 9);
    let mut more: Vec<f64> = pairs
        .iter()
        .map(|truth| {
            let asked = truth.brief();
            points(&truth.leaflet(), &asked) - points(&truth.all_known(), &asked)
        })
        .collect();
    more.sort_by(f64::total_cmp);
    let median = 0.5 * (more[(more.len() - 1) / 2] + more[more.len() / 2]);
    println!(
        "less known minus known, {} pairs: median {median:.2} points",
        more.len()
    );
    assert!(median <= 2.0, "{more:?}");
}

#[test]
fn equal_records_have_equal_answers_whatever_their_keys() {
    let twins: Vec<Survey> = (0..24)
        .map(|i| {
            let mut hull = leaflet(
                Construction::SitOnTop,
                BottomShape::ShallowArch,
                &[
                    (Measure::Length, 3.1),
                    (Measure::Beam, 0.74),
                    (Measure::BareWeight, 24.0),
                ],
            );
            hull.key = format!("{}-{i}", ["a", "zz", "hull"][i % 3]);
            hull
        })
        .collect();
    for mass in [70.0, 84.0, 92.0, 98.0] {
        let answer = ranking(&twins, &asked(mass, Posture::Sits), 128);
        let kinds = (answer.ranked.is_empty(), answer.ruled_out.is_empty());
        assert!(
            kinds.0 != kinds.1,
            "{mass}: {} in order, {} out",
            answer.ranked.len(),
            answer.ruled_out.len()
        );
        if let Some(first) = answer.ranked.first() {
            assert!(answer.ranked.iter().all(|r| r.score == first.score));
        }
    }
}

#[test]
fn near_the_line_the_sampling_error_is_told() {
    use galvet_core::base::System;
    // Narrowed until a fifth of the shapes goes over.
    let mut told = 0;
    for step in 0..80 {
        let hull = leaflet(
            Construction::SitOnTop,
            BottomShape::ShallowVee,
            &[
                (Measure::Length, 3.1),
                (Measure::Beam, 0.70 + 0.002 * f64::from(step)),
                (Measure::BareWeight, 24.0),
            ],
        );
        let asked = asked(88.0, Posture::Sits);
        let answer = ranking(&[hull], &asked, 128);
        let said = answer
            .ruled_out
            .first()
            .map(|out| out.reasons[0].text(System::Metric));
        let said = said.or_else(|| galvet_core::rank::explain::peril(answer.ranked.first()?));
        let near = said.is_some_and(|text| text.contains("near the line"));
        told += u32::from(near);
    }
    assert!(told > 0);
}

#[test]
fn risers_never_gain_what_they_lose_in_shapes() {
    let hull = leaflet(
        Construction::SitOnTop,
        BottomShape::ShallowArch,
        &[
            (Measure::Length, 3.0),
            (Measure::Beam, 0.74),
            (Measure::BareWeight, 25.0),
            (Measure::RatedCapacity, 170.0),
        ],
    );
    let mut asked = asked(88.0, Posture::Sits);
    let figures = [
        Q::BindingMargin,
        Q::WaterlineMargin,
        Q::LeanRoom,
        Q::Gm,
        Q::Reserve,
    ];
    let mut before = [f64::INFINITY; 5];
    for raised in [0.0, 0.03, 0.06, 0.09, 0.12, 0.15] {
        asked.raised = raised;
        let a = assess(&hull, &asked, 128);
        for (last, q) in before.iter_mut().zip(figures) {
            let now = a.median(q).unwrap_or(f64::NEG_INFINITY);
            // What is not floated with the seat varies by the search's own error.
            assert!(
                now <= *last + 0.005 * last.abs().min(1e3) + 1e-4,
                "{q:?} at {raised}: {now} {last}"
            );
            *last = now;
        }
    }
}

#[test]
fn practice_nobody_stated_is_some_not_skilled() {
    assert_eq!(Practice::default(), Practice::Some);
    let hull = |beam: f64| {
        leaflet(
            Construction::SitOnTop,
            BottomShape::Flat,
            &[
                (Measure::Length, 3.6),
                (Measure::Beam, beam),
                (Measure::BareWeight, 34.0),
            ],
        )
    };
    let fleet: Vec<Survey> = (0..24).map(|i| hull(0.76 + 0.01 * f64::from(i))).collect();
    let count = |practice: Option<Practice>| {
        let mut asked = brief(85.0, 1.80, rig(12.0, 0.58, 0.12));
        asked.posture = Posture::Stands;
        if let Some(practice) = practice {
            asked.wishes.practice = practice;
        }
        ranking(&fleet, &asked, 64).ranked.len()
    };
    let [new, some, skilled] =
        [Practice::New, Practice::Some, Practice::Skilled].map(|p| count(Some(p)));
    assert_eq!(count(None), some);
    assert!(new < some && some < skilled, "{new} {some} {skilled}");
}

#[test]
fn hulls_people_stand_in_and_do_not_come_out_on_the_right_side() {
    let hull = |length: f64, beam: f64, bottom, weight: f64| {
        leaflet(
            Construction::SitOnTop,
            bottom,
            &[
                (Measure::Length, length),
                (Measure::Beam, beam),
                (Measure::BareWeight, weight),
            ],
        )
    };
    use BottomShape::{Flat, ShallowArch, ShallowVee, Tunnel};
    let stood_in = [
        hull(3.20, 0.91, Flat, 36.0),
        hull(3.50, 0.94, Tunnel, 42.0),
        hull(3.70, 0.91, Flat, 41.0),
        hull(3.80, 0.99, Tunnel, 50.0),
        hull(4.20, 0.97, Flat, 48.0),
    ];
    let sat_in = [
        hull(2.90, 0.76, ShallowArch, 23.0),
        hull(3.20, 0.74, ShallowVee, 25.0),
        hull(3.60, 0.72, ShallowArch, 28.0),
        hull(4.20, 0.70, ShallowVee, 31.0),
        hull(3.90, 0.78, ShallowVee, 32.0),
    ];
    let mut asked = brief(75.0, 1.78, rig(15.0, 0.58, 0.12));
    asked.posture = Posture::Stands;
    for hull in stood_in {
        let answer = ranking(std::slice::from_ref(&hull), &asked, 128);
        let out = answer.ruled_out.first().map(|r| &r.reasons);
        assert!(out.is_none(), "{:?} {out:?}", hull.value(Measure::Beam));
    }
    for hull in sat_in {
        let answer = ranking(std::slice::from_ref(&hull), &asked, 128);
        assert!(answer.ranked.is_empty(), "{:?}", hull.value(Measure::Beam));
    }
}
