//! What is done in the boat, by what it must come to.

use super::{boats, of};
use galvet_core::base::GRAVITY;
use galvet_core::guide::Guides;
use galvet_core::pond::{
    Act, At, Boat, Course, End, Happened, Mode, Moves, Play, Push, Roll, Sea, Setting, TICK,
};
use galvet_core::question::Practice;

fn calm(practice: Practice) -> Setting {
    Setting {
        balance: of(practice),
        moves: Moves::of(&Guides::default(), None),
        stiff: false,
        sea: Sea::Flat,
        beam_on: 1.0,
        sways: false,
        chance: false,
        by: (1, 0),
    }
}

fn play(boat: &Boat, setting: Setting, script: &[(f64, Act)], up: bool, until: f64) -> Course {
    Play::new(boat, setting, script, up).run(until, 1, false)
}

/// Heel where the arms hold a moment with the seated body's own pull, rad: held stiff to six
/// times what holds the trunk up, it bends a fifth of the heel further.
fn held(boat: &Boat, moment: f64) -> f64 {
    let low = boat.angler.at(boat.angler.hips()[0]);
    let left = |heel: f64| {
        let arm = boat.displaced * GRAVITY * boat.arms[0].at(heel, 0.0);
        arm - low.over[0] * heel.sin() - low.over[1] * (1.2 * heel).sin() - moment
    };
    let (mut a, mut b) = (0.0, 0.3);
    for _ in 0..60 {
        let middle = 0.5 * (a + b);
        if left(middle) > 0.0 {
            b = middle;
        } else {
            a = middle;
        }
    }
    a
}

#[test]
fn a_dog_to_one_side_heels_a_stiff_body_to_where_the_arms_hold_it() {
    let boat = &boats()[0];
    // Dry, so that the arms stay those of the sealed hull.
    let mut boat = boat.clone();
    (boat.wets, boat.runs_in) = (2.0, 2.0);
    let setting = Setting {
        stiff: true,
        ..calm(Practice::Some)
    };
    let course = play(&boat, setting, &[(1.0, Act::Dog(1.0))], false, 40.0);
    let wanted = held(&boat, 20.0 * GRAVITY * 0.30);
    let got = course.frames.last().unwrap().at.heel;
    assert!((got / wanted - 1.0).abs() < 0.01, "{got} {wanted}");
}

#[test]
fn a_rod_is_leaned_against_and_its_moment_is_balanced() {
    let boat = &boats()[0];
    let course = play(
        boat,
        calm(Practice::Skilled),
        &[(1.0, Act::Rod(1.0))],
        true,
        30.0,
    );
    assert_eq!(course.end, End::Upright);
    // What fifteen newtons at (l + 0.3 H) and the body's lean do not balance, the hull bears:
    // over ten whole throbs.
    let body = boat.angler.at(boat.angler.hips()[1]);
    let pulled = 15.0 * (body.hip + 0.3 * boat.angler.stature);
    let late = &course.frames[course.frames.len() - 1250..];
    let mean = |of: &dyn Fn(&At) -> f64| late.iter().map(|f| of(&f.at)).sum::<f64>() / 1250.0;
    let leaned = mean(&|at| body.over[0] * at.legs + body.over[1] * at.trunk);
    let borne = mean(&|at| boat.displaced * GRAVITY * boat.arms[1].at(at.heel, at.filled));
    assert!(
        leaned < -0.6 * pulled,
        "leans against it: {leaned} {pulled}"
    );
    assert!(
        (leaned + pulled - borne).abs() < 0.02 * pulled,
        "{leaned} {pulled} {borne}"
    );
}

#[test]
fn who_stands_up_is_up_and_who_sits_down_is_down_again() {
    let boat = &boats()[0];
    let script = [(1.0, Act::Stand), (8.0, Act::Sit)];
    let course = play(boat, calm(Practice::Some), &script, false, 14.0);
    assert_eq!(course.end, End::Upright);
    let up = |time: f64| course.frames[(time / TICK).round() as usize].up;
    assert_eq!(up(0.5), 0.0);
    assert!((up(2.1) - 0.5).abs() < 0.01, "half way after half the time");
    assert_eq!(up(5.0), 1.0);
    assert_eq!(up(12.0), 0.0);
    assert!(
        course
            .happened
            .iter()
            .any(|(at, h)| *h == Happened::Stood && (at - 3.2).abs() < 0.02)
    );
    // Nobody stands still in the second: it ends in the seat, or in the water.
    let course = play(
        &boats()[1],
        Setting {
            chance: true,
            ..calm(Practice::New)
        },
        &script[..1],
        false,
        20.0,
    );
    assert_ne!(course.end, End::Upright);
}

/// What is done, to a side.
type Sided = fn(f64) -> Act;

#[test]
fn left_is_the_mirror_of_right_in_every_move() {
    let boat = &boats()[0];
    let acts: [&[(f64, Sided)]; 4] = [
        &[(1.0, Act::Cast), (3.0, Act::Strike)],
        &[(1.0, Act::Rod), (4.0, Act::Dog)],
        &[(1.0, Act::Sideways)],
        &[(1.0, Act::Reach), (3.0, |_| Act::Fish)],
    ];
    for (k, acts) in acts.iter().enumerate() {
        for up in [false, true] {
            let run = |side: f64| {
                let script: Vec<(f64, Act)> =
                    acts.iter().map(|(at, act)| (*at, act(side))).collect();
                play(boat, calm(Practice::Skilled), &script, up, 9.0)
            };
            let (one, other) = (run(1.0), run(-1.0));
            assert!(one.heel > 0.002 || (up && k == 2), "{k} does something");
            for (a, b) in one.frames.iter().zip(&other.frames) {
                assert_eq!(
                    (a.at.heel, a.at.trunk),
                    (-b.at.heel, -b.at.trunk),
                    "{k} {up}"
                );
            }
        }
    }
}

#[test]
fn the_same_seed_plays_the_same_and_another_does_not() {
    let boat = &boats()[0];
    let at = |by| {
        let setting = Setting {
            chance: true,
            by,
            ..calm(Practice::Some)
        };
        play(
            boat,
            setting,
            &[(2.0, Act::Stand), (8.0, Act::Cast(0.0))],
            false,
            12.0,
        )
    };
    assert_eq!(at((4, 9)), at((4, 9)));
    assert_ne!(at((4, 9)).frames, at((4, 10)).frames);
    assert_ne!(at((4, 9)).frames, at((5, 9)).frames);
    // What is done later does not change what came before.
    let setting = Setting {
        chance: true,
        by: (4, 9),
        ..calm(Practice::Some)
    };
    let longer = [
        (2.0, Act::Stand),
        (8.0, Act::Cast(0.0)),
        (10.0, Act::Strike(1.0)),
    ];
    let other = play(boat, setting, &longer, false, 12.0);
    assert_eq!(at((4, 9)).frames[..1000], other.frames[..1000]);
    assert_ne!(at((4, 9)).frames, other.frames);
}

#[test]
fn a_wave_heels_a_light_still_boat_as_steeply_as_it_slopes() {
    // Slow waves: the boat lies on the slope.
    let boat = &boats()[0];
    let setting = Setting {
        sea: Sea::Regular {
            height: 0.6,
            period: 12.0,
        },
        stiff: true,
        ..calm(Practice::Some)
    };
    let course = play(boat, setting, &[], false, 60.0);
    let slopes = course.frames.iter().skip(2400).map(|f| f.slope.abs());
    let most = slopes.fold(0.0, f64::max);
    // k = ω²/g = 0.02795 /m; 0.3 m of it, faded by depth (0.10 m) and beam, both near 1.
    assert!((most - 0.3 * 0.027_95 * 0.997).abs() < 2e-5, "{most}");
    let heels = course.frames.iter().skip(2400).map(|f| f.at.heel.abs());
    let heel = heels.fold(0.0, f64::max);
    // Stiff, it follows, a little more by its own pull over.
    assert!(heel > most && heel < 1.25 * most, "{heel} {most}");
}

#[test]
fn two_integrators_agree() {
    // Heun's method, two milliseconds: a rolling stiff body as one equation of its own.
    let boat = &boats()[0];
    let low = boat.angler.at(boat.angler.hips()[0]);
    let inertia = boat.inertia + boat.added + low.stiff();
    let damping = 20.0;
    let push = |t: f64| 40.0 * (2.0 * t).sin();
    let mut boat = boat.clone();
    (boat.wets, boat.runs_in) = (2.0, 2.0);
    let rate = |t: f64, (heel, speed): (f64, f64)| {
        let arm = boat.displaced * GRAVITY * boat.arms[0].at(heel, 0.0);
        let torque = push(t) - arm + low.whole() * heel.sin() - damping * speed;
        (speed, torque / inertia)
    };
    let mut state = (0.05, 0.0);
    let h = 0.002;
    let mut roll = Roll::new(
        &boat,
        of(Practice::Some),
        Mode::Stiff,
        At {
            heel: 0.05,
            legs: 0.05,
            trunk: 0.05,
            ..At::default()
        },
    )
    .rigid(damping);
    let force = |t: f64| Push {
        moment: push(t),
        ..Push::default()
    };
    for k in 0..1_000 {
        for n in 0..5 {
            let t = TICK * f64::from(k) + h * f64::from(n);
            let a = rate(t, state);
            let b = rate(t + h, (state.0 + h * a.0, state.1 + h * a.1));
            state.0 += 0.5 * h * (a.0 + b.0);
            state.1 += 0.5 * h * (a.1 + b.1);
        }
        roll.tick(TICK * f64::from(k), &force);
        assert!((roll.now.heel - state.0).abs() < 2e-4, "{k}");
    }
}

#[test]
fn a_shape_that_does_not_stay_upright_rolls_to_where_the_arms_say() {
    // Too much weight high up: upright is no rest, a loll is.
    let mut boat = boats()[1].clone();
    (boat.wets, boat.runs_in) = (2.0, 2.0);
    boat.angler.seat += 0.30;
    let low = boat.angler.at(boat.angler.hips()[0]);
    assert!(boat.stiffness[0] < low.whole());
    let left = |heel: f64| {
        boat.displaced * GRAVITY * boat.arms[0].at(heel, 0.0) - low.whole() * heel.sin()
    };
    let goes_over = (1..60).all(|deg| left(f64::from(deg).to_radians()) < 0.0);
    let start = At {
        heel: 0.01,
        legs: 0.01,
        trunk: 0.01,
        ..At::default()
    };
    let mut roll = Roll::new(&boat, of(Practice::Some), Mode::Stiff, start).rigid(60.0);
    for k in 0..12_000 {
        roll.tick(TICK * f64::from(k), &|_| Push::default());
    }
    let end = roll.now.heel.abs();
    if goes_over {
        assert!(end > 0.9, "{end}");
    } else {
        let near = left(end + 0.005) * left(end - 0.005);
        assert!(
            near <= 0.0,
            "rests where the arms and the body balance: {end}"
        );
    }
}

#[test]
fn what_the_recess_holds_is_what_lies_between_the_open_body_and_the_sealed() {
    // The first body's recess: 0.76 of the half-breadth wide, from the floor at 0.135 m to the
    // rim at 0.36 m; its length is the template's. No more than a box round it, and no less
    // than a third.
    let boat = &boats()[0];
    let depth = 0.36 - 0.135;
    let most = 3.70 * 0.76 * 0.90 * depth;
    assert!(boat.recess && boat.holds < 0.8 * most, "{}", boat.holds);
    assert!(boat.holds > 0.3 * most, "{} {most}", boat.holds);
    // A board has none: nothing is taken.
    let board = &boats()[3];
    assert!(!board.recess && board.holds == 0.0);
}

#[test]
fn scuppers_fill_and_drain_as_their_area_goes() {
    use galvet_core::hull::Scuppers;
    let rows = crate::common::prototype::table();
    let of = |scuppers| {
        let mut brief = rows[0].brief.clone();
        brief.scuppers = scuppers;
        let posterior = crate::common::posterior(&rows[0].survey, 1);
        let setup = galvet_core::figures::Setup::new(posterior, std::sync::Arc::new(brief));
        Boat::of(&setup, &rows[0].shape).unwrap()
    };
    // Nobody recorded any: eight of 32 mm, five seconds to 63 per cent.
    let open = of(Scuppers::Open);
    assert_eq!(open.filling, [0.2, 1.0 / 0.7, 0.2]);
    // Valves let none in and all out; plugged, nothing passes, and what ran in over the rim
    // stays.
    let valves = of(Scuppers::OneWay);
    assert_eq!((valves.filling[0], valves.filling[2]), (0.0, 0.2));
    let plugged = of(Scuppers::Plugged);
    assert_eq!((plugged.filling[0], plugged.filling[2]), (0.0, 0.0));
}

#[test]
fn water_comes_into_a_shape_that_does_not_stay_upright_as_well() {
    use galvet_core::figures::{Afloat, Quantity, Setup};
    use galvet_core::float::Accuracy;
    let rows = crate::common::prototype::table();
    for (row, boat) in rows.iter().zip(boats()) {
        // Of one that does it is where the figures say.
        let setup = super::setup(row);
        let shapes = [row.shape];
        let figures = Afloat::new(&setup, &shapes, Accuracy::FINE).figures();
        let values = &figures[0].0;
        for (q, got) in [
            (Quantity::FloorWetAngle, boat.wets),
            (Quantity::EdgeAngle, boat.runs_in),
        ] {
            let wanted = values.get(q).unwrap();
            let off = got.to_degrees() - wanted;
            // The figures read a cubic between a few heels.
            assert!(off.abs() < 1.0, "{} {q:?}: {off}", row.name);
        }
        // The same hull with the seat so high that it falls over: the water is no further off.
        let mut brief = row.brief.clone();
        brief.raised = 0.30;
        let posterior = crate::common::posterior(&row.survey, 1);
        let high = Setup::new(posterior, std::sync::Arc::new(brief));
        let high = Boat::of(&high, &row.shape).unwrap();
        assert!((high.wets - boat.wets).abs() < 0.02, "{}", row.name);
        assert!((high.runs_in - boat.runs_in).abs() < 0.02, "{}", row.name);
    }
}
