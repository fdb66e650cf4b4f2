//! Bags and walls, what is towed, a forecast and the hour to turn: closed
//! forms, and what must hold of any of them.
#![allow(clippy::unwrap_used, reason = "tests")]

use crate::common;
use crate::outriggers::outriggers;
use crate::stow_hull;

use approx::assert_relative_eq;
use common::{FRESH, assess, box_hull, brief, rig, survey};
use galvet_core::aboard::{Shut, loosened, stays_up_swamped, swamped};
use galvet_core::beyond::{Extra, beyond};
use galvet_core::figures::{Afloat, Assessment, Quantity};
use galvet_core::float::Accuracy;
use galvet_core::gear::{Category, Gear, OnWater};
use galvet_core::handling::{Bound, against, drift_socked, efforts, side_areas, tow, way_home};
use galvet_core::hull::{
    BottomShape, Construction, Fitting, FittingKind, Judgement, Measure, Propulsion, Survey,
};
use galvet_core::question::{Brief, Day, Launch, Outing, Reverse};
use galvet_core::rank::{Code, minds};
use galvet_core::rig::RigLine;

/// What somebody of 1.8 m asks of a lake with its usual wind and waves.
pub(crate) fn windy() -> Brief {
    let mut asked = brief(84.0, 1.8, rig(10.0, 0.5, 0.1));
    asked.water.conditions = "waves to 0.15 m, wind to 12 kn".into();
    asked
}

/// A hull one sits in.
pub(crate) fn sit_inside(walls: &[f64]) -> Survey {
    let mut hull = survey(
        Construction::SitInside,
        BottomShape::ShallowVee,
        &[
            (Measure::Length, 4.2),
            (Measure::Beam, 0.67),
            (Measure::FittedWeight, 25.0),
            (Measure::SeatLow, 0.04),
        ],
    );
    for &x in walls {
        hull.fitout.fittings.push(Fitting {
            name: format!("wall at {x}"),
            kind: FittingKind::Bulkhead,
            ..outriggers(x, 0.0)
        });
    }
    hull
}

/// A bag that keeps 40 l dry behind the seat.
fn bag() -> RigLine {
    let gear = Gear {
        on_water: OnWater {
            buoyancy: Some(0.040),
            ..OnWater::default()
        },
        zones: vec![galvet_core::hull::ZoneKind::SternHatch],
        soft: true,
        ..Gear::plain("bag", "bag", Category::Safety, 0.4, Some([0.4, 0.22, 0.2]))
    };
    stow_hull::line(&gear)
}

#[test]
fn walls_and_bags_leave_so_much_less_room() {
    let asked = brief(80.0, 1.78, rig(10.0, 0.55, 0.1));
    let a = assess(&sit_inside(&[]), &asked, 8);
    let shapes = [a.middle];
    let body = Afloat::new(&a.setup, &shapes, Accuracy::FINE).body;
    let whole = Shut::nothing(&body);
    let volume = |shut: &Shut| shut.room(&body, &body.sealed).volume.0[0];
    assert_relative_eq!(volume(&whole), body.sealed.volume.0[0], epsilon = 1e-12);
    // Two bags take what they say, whatever lies around them.
    let bags = whole.clone().with_bags(0.025);
    assert_relative_eq!(volume(&whole) - volume(&bags), 0.050, epsilon = 1e-9);
    // More than there is room for takes all of it and no more.
    assert!(volume(&whole.clone().with_bags(1.0)).abs() < 1e-12);
    // Between walls at 1.3 and 2.8 m it is what the sections there hold.
    let walled = Shut {
        between: [1.3, 2.8],
        ..whole.clone()
    };
    let k = body.points;
    let sections = body.x.iter().zip(&body.weight).enumerate();
    let by_hand: f64 = sections
        .filter(|(_, (x, _))| (1.3..2.8).contains(&x.0[0]))
        .map(|(i, (_, w))| body.sealed.fan[i * k + k - 1].area.0[0] * w.0[0])
        .sum();
    assert_relative_eq!(volume(&walled), by_hand, max_relative = 0.05);
}

#[test]
fn a_swamped_sit_inside_is_kept_up_by_walls_and_bags_and_never_by_less_of_them() {
    let asked = brief(80.0, 1.78, rig(10.0, 0.55, 0.1));
    let of = |walls: &[f64], bags: u32| {
        let mut asked = asked.clone();
        let mut line = bag();
        line.count = bags;
        asked.rig.lines.extend((bags > 0).then_some(line));
        assess(&sit_inside(walls), &asked, 16)
    };
    let open = of(&[], 0);
    assert!(swamped(&open.setup, &open.middle).is_none());
    assert_eq!(stays_up_swamped(&open), 0.0);
    let walled = of(&[1.5, 2.55], 0);
    let full = swamped(&walled.setup, &walled.middle).unwrap();
    assert!(full.rim > 0.0 && full.gm > 0.0, "{full:?}");
    assert_eq!(stays_up_swamped(&walled), 1.0);
    // By Archimedes: what is in it and the load displace the same.
    let founders = |a: &Assessment| {
        loosened(&a.setup, &a.middle, |shut| shut)
            .unwrap()
            .founders
            .unwrap_or(1.0)
    };
    let wide = founders(&of(&[0.6, 3.6], 0));
    assert!(founders(&open) <= wide + 1e-3 && wide <= founders(&walled) + 1e-3);
    let bagged = of(&[], 1);
    assert!(
        founders(&bagged) > founders(&open) + 0.01,
        "{} {}",
        founders(&bagged),
        founders(&open)
    );
}

#[test]
fn moving_water_is_decided_by_what_keeps_it_out_or_up() {
    let mut asked = brief(80.0, 1.78, rig(10.0, 0.55, 0.1));
    asked.water.must_drain = true;
    let out = |hull: &Survey, asked: &Brief| {
        let judged = common::ranking(std::slice::from_ref(hull), asked, 16);
        let reasons = judged.ruled_out.first().map(|o| o.reasons.clone());
        let reasons = reasons.unwrap_or_default();
        reasons.iter().any(|r| r.code == Code::DoesNotDrain)
    };
    assert!(out(&sit_inside(&[]), &asked));
    assert!(!out(&sit_inside(&[1.5, 2.55]), &asked));
    let deck = Gear {
        on_water: OnWater {
            spray_deck: true,
            ..OnWater::default()
        },
        ..Gear::plain("deck", "deck", Category::Safety, 0.8, None)
    };
    let mut closed = asked.clone();
    closed.rig.lines.push(stow_hull::line(&deck));
    assert!(!out(&sit_inside(&[]), &closed));
    // One that may stay ashore, and does since nothing has room for it, keeps nothing out.
    let mut ashore = asked.clone();
    let huge = Gear {
        size: Some([4.9, 2.0, 2.0]),
        ..deck.clone()
    };
    let line = stow_hull::line(&huge);
    ashore.rig.lines.push(RigLine {
        importance: galvet_core::rig::Importance::Want,
        ..line
    });
    assert!(out(&sit_inside(&[]), &ashore));
}

fn towed(area: f64, sock: f64) -> RigLine {
    let gear = Gear {
        on_water: OnWater {
            towed: (area > 0.0).then_some(area),
            sock: (sock > 0.0).then_some(sock),
            ..OnWater::default()
        },
        ..Gear::plain("towed", "towed", Category::Fish, 0.5, None)
    };
    stow_hull::line(&gear)
}

#[test]
fn what_is_towed_pulls_as_its_drag_area_says_and_slows() {
    let board = box_hull(Construction::Board, 3.6, 0.9, 0.3);
    let with = |area: f64| {
        let mut asked = windy();
        asked
            .rig
            .lines
            .extend((area > 0.0).then(|| towed(area, 0.0)));
        assess(&board, &asked, 8)
    };
    assert_eq!(tow(&with(0.0)), None);
    let one = tow(&with(0.01)).unwrap();
    let two = tow(&with(0.02)).unwrap();
    // ½ ρ C A v² at the speed it is towed at.
    assert_relative_eq!(
        one.pull,
        0.5 * FRESH * 0.01 * one.speed[1].powi(2),
        max_relative = 1e-9
    );
    // The free speed is that without it, but for the half kilogram it weighs.
    assert_relative_eq!(one.speed[0], two.speed[0], max_relative = 1e-9);
    assert!(one.speed[1] < one.speed[0] && two.speed[1] < one.speed[1]);
    // It costs the way home as well.
    let outing = Outing::default();
    let back = |a: &Assessment| way_home(a, &outing).unwrap().back.unwrap().p50;
    assert!(back(&with(0.02)) > 1.02 * back(&with(0.0)));
}

#[test]
fn a_drift_sock_holds_as_so_much_more_side() {
    let board = box_hull(Construction::Board, 3.6, 0.9, 0.3);
    let a = assess(&board, &brief(84.0, 1.8, rig(10.0, 0.5, 0.1)), 8);
    let drag = side_areas(&a.setup, a.middle)
        .unwrap()
        .drag(a.setup.guides());
    let v = drift_socked(&a, 6.0, 0.35).unwrap();
    let push = 0.5 * 1.225 * drag.air * (6.0 - v).powi(2);
    let hold = 0.5 * FRESH * (drag.water + 0.35) * v * v;
    assert_relative_eq!(push, hold, max_relative = 1e-9);
}

#[test]
fn the_day_asked_is_the_day_worked_out() {
    let board = box_hull(Construction::Board, 3.6, 0.9, 0.3);
    let a = assess(&board, &windy(), 8);
    let day = |distance: f64, wind: Option<f64>, dark: Option<f64>| Outing {
        distance: Some(distance),
        wind,
        dark,
        ..Outing::default()
    };
    // Half the distance each way, at the speed worked out for it.
    let near = way_home(&a, &day(4_000.0, None, None)).unwrap();
    let far = way_home(&a, &day(8_000.0, None, None)).unwrap();
    let (near_back, far_back) = (near.back.unwrap().p50, far.back.unwrap().p50);
    assert_relative_eq!(far_back, 2.0 * near_back, max_relative = 1e-9);
    // A forecast for ten metres up is three quarters of it at the boat; the lake's usual
    // twelve knots raise its chop.
    let blows = Bound::of(&a.setup, &day(4_000.0, Some(10.0), None)).unwrap();
    assert_relative_eq!(blows.weather.wind, 7.5, epsilon = 1e-12);
    assert_relative_eq!(blows.chop.1, 12.0 * 1852.0 / 3600.0, epsilon = 1e-9);
    assert!(
        way_home(&a, &day(4_000.0, Some(10.0), None))
            .unwrap()
            .back
            .unwrap()
            .p50
            > near_back
    );
    // Dark at 20:30: a quarter of the way back in hand.
    let asked = |outing| Day {
        outing,
        ..Day::default()
    };
    let turned = beyond(&a, &asked(day(4_000.0, None, Some(20.5))), None);
    let by = turned.range(Extra::TurnBy).unwrap();
    assert_relative_eq!(by.p50, 20.5 - 1.25 * near_back / 3600.0, epsilon = 1e-9);
    assert!(by.p5 <= by.p50 && by.p50 <= by.p95);
    let silent = beyond(&a, &asked(day(4_000.0, None, None)), None);
    assert_eq!(silent.range(Extra::TurnBy), None);
}

#[test]
fn a_launch_is_as_steep_and_soft_as_it_is_said_to_be() {
    // The question's floating part forgets the launch: the day brings it.
    let a = assess(&common::tunnel(&[(Measure::BareWeight, 39.0)]), &windy(), 8);
    let from = |launch| {
        let day = Day {
            launch,
            ..Day::default()
        };
        let told = beyond(&a, &day, None);
        [Extra::Cart, Extra::Drag].map(|e| told.range(e).map(|r| r.p50))
    };
    let [ramp, beach, bank] = [Launch::Ramp, Launch::Beach, Launch::Bank].map(from);
    // By hand (chapter 10): dragging takes weight times (grip cos + sin).
    let share = |slope: f64, grip: f64| {
        let (sin, cos) = slope.to_radians().sin_cos();
        grip * cos + sin
    };
    let on_the_bank = share(14.0, 0.35) / share(7.1, 0.45);
    assert_relative_eq!(
        bank[1].unwrap() / ramp[1].unwrap(),
        on_the_bank,
        max_relative = 1e-3
    );
    assert!(bank[0].unwrap() > ramp[0].unwrap() && beach[0].unwrap() > 1.5 * ramp[0].unwrap());
    // Down steps it is carried.
    assert_eq!(from(Launch::Steps), [None, None]);
}

#[test]
fn staying_without_an_anchor_takes_more_than_the_stream_alone_would() {
    // Thrust against the wind on it with the stream going by: at least T v, over what the
    // drive makes of it.
    let board = box_hull(Construction::Board, 3.6, 0.9, 0.3);
    let mut asked = windy();
    asked.water.stream = Some(0.6);
    let a = assess(&board, &asked, 8);
    let way = way_home(&a, &Outing::default()).unwrap();
    let watts = way.hold_watts.unwrap().p50;
    // Disc at rest in the stream (handbook, chapter 10): its induced speed comes on top.
    let (t, v, disc) = (way.hold.p50, 0.6, 0.10);
    let induced = t * (0.5 * v + (0.25 * v * v + t / (2.0 * FRESH * disc)).sqrt());
    assert!(
        watts > induced && watts < 4.0 * induced,
        "{watts} {induced}"
    );
    // None of the drive's figures for what is paddled anyway, nor a battery.
    assert_eq!((way.back_up, way.battery), (None, None));
}

#[test]
fn must_reverse_leaves_out_what_does_not_and_minds_what_nobody_tried() {
    let mut asked = brief(84.0, 1.8, rig(10.0, 0.5, 0.1));
    let mut hull = common::tunnel(&[]);
    hull.propulsion = Propulsion::FinPedal;
    let judge = |hull: &Survey, asked: &Brief| {
        let judged = common::ranking(std::slice::from_ref(hull), asked, 16);
        let out = judged.ruled_out.first();
        out.is_some_and(|o| o.reasons.iter().any(|r| r.code == Code::NotDriven))
    };
    let minded = |hull: &Survey, asked: &Brief| {
        let a = assess(hull, asked, 16);
        let minds = minds(&a, asked, galvet_core::base::System::Metric);
        minds.iter().any(|m| m.contains("goes backwards"))
    };
    assert!(!judge(&hull, &asked) && !minded(&hull, &asked));
    asked.wishes.reverse = Reverse::Must;
    assert!(!judge(&hull, &asked) && minded(&hull, &asked));
    for (noted, must, drive) in [
        ("no", true, true),
        ("paddle", false, true),
        ("drive", false, false),
    ] {
        hull.looked.judged.insert(Judgement::Reverse, noted);
        asked.wishes.reverse = Reverse::Must;
        assert_eq!(judge(&hull, &asked), must, "{noted}");
        asked.wishes.reverse = Reverse::Drive;
        assert_eq!(judge(&hull, &asked), drive, "{noted}");
    }
    // A paddle goes either way; by a drive it has none.
    hull.looked.judged.clear();
    hull.propulsion = Propulsion::Paddle;
    assert!(judge(&hull, &asked));
    asked.wishes.reverse = Reverse::Must;
    assert!(!judge(&hull, &asked) && !minded(&hull, &asked));
}

#[test]
fn standing_on_the_seat_is_standing_higher() {
    let mut asked = brief(70.0, 1.75, rig(10.0, 0.5, 0.1));
    asked.posture = galvet_core::crew::Posture::Stands;
    let hull = common::tunnel(&[(Measure::SeatLow, 0.25), (Measure::SeatHigh, 0.25)]);
    let a = assess(&hull, &asked, 8);
    let shapes = [a.middle];
    let support = |setup: &galvet_core::figures::Setup| {
        let [(values, fate)] = Afloat::new(setup, &shapes, Accuracy::FINE).figures();
        assert!(fate.is_rest());
        values.get(Quantity::StandingSupport).unwrap()
    };
    let floor = support(&a.setup);
    let seat = support(&a.setup.clone().moved(0.0, true));
    // The angler's weight a quarter of a metre higher takes as much off the arm at 5°: κ is
    // the boat's moment over m g h, so it falls by about rise over the body's height.
    let h = 0.56 * 1.75;
    assert_relative_eq!(floor - seat, 0.25 / h, epsilon = 0.06);
    // Nothing else moves.
    assert_eq!(support(&a.setup.clone().moved(0.0, false)), floor);
}

#[test]
fn a_harder_headwind_is_never_quicker_until_it_stops() {
    let a = assess(&common::tunnel(&[(Measure::SeatLow, 0.2)]), &windy(), 8);
    let winds: Vec<f64> = (0..=30).map(f64::from).collect();
    let speeds = against(&a, &Outing::default(), &winds).unwrap();
    assert!(speeds[0].is_some() && speeds[30].is_none());
    let falls = speeds.windows(2).all(|w| match (w[0], w[1]) {
        (Some(a), Some(b)) => b < a,
        (None, Some(_)) => false,
        _ => true,
    });
    assert!(falls, "{speeds:?}");
    // The one told as stopping it lies where that ends.
    let home = way_home(&a, &Outing::default()).unwrap().home_wind.unwrap();
    let last = speeds.iter().rposition(Option::is_some).unwrap();
    assert!(
        (home.p5 - 1.0..=home.p95 + 1.0).contains(&winds[last]),
        "{home:?} {last}"
    );
}

#[test]
fn the_effort_for_a_pace_is_what_makes_that_pace() {
    let a = assess(&common::tunnel(&[(Measure::SeatLow, 0.2)]), &windy(), 8);
    let winds: Vec<f64> = (0..=12).map(f64::from).collect();
    let all = efforts(&a, &Outing::default(), &winds, 0.8).unwrap();
    assert!(all.iter().any(|e| e.by == Propulsion::Paddle));
    assert!(all.iter().any(|e| e.by == Propulsion::Motor));
    for e in &all {
        assert!(
            e.watts[0] > 1.0 && e.watts.windows(2).all(|w| w[1] > w[0]),
            "{e:?}"
        );
    }
    // By the other route: where the usual effort makes just that pace, the effort for that
    // pace is the usual one.
    let own = all.iter().find(|e| e.by == a.driven()).unwrap();
    let speeds = against(&a, &Outing::default(), &winds).unwrap();
    for (watts, speed) in own.watts.iter().zip(&speeds) {
        let makes = speed.is_some_and(|v| v > 0.8);
        assert_eq!(*watts < own.lasting, makes, "{watts} {speed:?}");
    }
    let pace = speeds[5].unwrap();
    let again = efforts(&a, &Outing::default(), &[5.0], pace).unwrap();
    let own = again.iter().find(|e| e.by == a.driven()).unwrap();
    assert_relative_eq!(own.watts[0], own.lasting, max_relative = 0.002);
}
