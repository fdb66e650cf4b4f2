//! Roll in time against closed forms and the handbook's numbers.

use super::{boats, of};
use galvet_core::base::GRAVITY;
use galvet_core::pond::{At, Boat, Mode, Push, Roll, TICK};
use galvet_core::question::Practice;
use std::f64::consts::{PI, TAU};

/// Stiffness of boat and seated angler held stiff, N·m/rad, and their inertia, kg·m².
fn rigid(boat: &Boat) -> (f64, f64) {
    let low = boat.angler.at(boat.angler.hips()[0]);
    let stiffness = boat.stiffness[0] - low.whole();
    (stiffness, boat.inertia + boat.added + low.stiff())
}

#[test]
fn periods_stiffness_and_damping_are_the_handbooks() {
    let wanted = [
        (1.73, 899.0, 26.0),
        (2.69, 365.0, 6.6),
        (1.92, 464.0, 9.0),
        (1.96, 973.0, 22.0),
    ];
    for (boat, (period, stiffness, damping)) in boats().iter().zip(wanted) {
        let (k, j) = rigid(boat);
        let near = |got: f64, want: f64, what: &str| {
            assert!((got / want - 1.0).abs() < 0.10, "{what}: {got} for {want}");
        };
        near(TAU * (j / k).sqrt(), period, "period");
        near(boat.stiffness[1], stiffness, "stiffness");
        near(boat.drag[1], damping, "damping");
    }
}

#[test]
fn verdicts_of_a_stiff_body_are_where_areas_say() {
    let wanted = [(138.0, 96.0), (27.0, 20.0), (45.0, 35.0), (79.0, 57.0)];
    for (boat, (slow, sudden)) in boats().iter().zip(wanted) {
        let low = boat.angler.at(boat.angler.hips()[0]);
        let answer = |phi: f64| {
            boat.displaced * GRAVITY * boat.arms[0].at(phi, 0.0) - low.whole() * phi.sin()
        };
        let steps = 2_000;
        let heel = |k: usize| 0.5 * PI * k as f64 / f64::from(steps);
        let peak = (0..=2_000).map(|k| answer(heel(k))).fold(0.0, f64::max);
        assert!((peak / slow - 1.0).abs() < 0.15, "slow {peak} for {slow}");
        // The greatest moment whose work the arms still take up.
        let (mut best, mut area) = (0.0_f64, 0.0);
        for k in 1..=2_000 {
            area += 0.5 * (answer(heel(k)) + answer(heel(k - 1))) * (heel(k) - heel(k - 1));
            best = best.max(area / heel(k));
        }
        assert!(
            (best / sudden - 1.0).abs() < 0.15,
            "sudden {best} for {sudden}"
        );
    }
}

/// Goes on for a time, pushed so.
fn run(roll: &mut Roll<'_>, seconds: f64, push: &dyn Fn(f64) -> Push) -> Vec<At> {
    let ticks = (seconds / TICK).round() as usize;
    let mut all = vec![roll.now];
    for k in 0..ticks {
        roll.tick(TICK * k as f64, push);
        all.push(roll.now);
    }
    all
}

fn calm(_: f64) -> Push {
    Push::default()
}

#[test]
fn without_noise_the_first_body_answers_as_the_prototype_did() {
    let boats = boats();
    let first = &boats[0];
    let some = of(Practice::Some);
    let at = |course: &[At], seconds: f64| {
        let k = (seconds / TICK).round() as usize;
        course[k].heel.to_degrees()
    };
    let lean = At {
        legs: 2.0_f64.to_radians(),
        ..At::default()
    };
    let mut roll = Roll::new(first, some, Mode::Up, lean);
    let course = run(&mut roll, 2.0, &calm);
    for (seconds, heel) in [(0.5, 1.54), (1.0, 1.49), (1.5, 0.79), (2.0, 0.05)] {
        let got = at(&course, seconds);
        assert!(
            (got - heel).abs() < 0.5,
            "up, {seconds} s: {got} for {heel}"
        );
    }
    let sits = At {
        trunk: 0.0,
        ..heeled(6.0)
    };
    let mut roll = Roll::new(first, some, Mode::Seated, sits);
    let course = run(&mut roll, 1.5, &calm);
    for (seconds, heel) in [(0.5, -1.36), (1.0, -1.21), (1.5, 1.41)] {
        let got = at(&course, seconds);
        assert!(
            (got - heel).abs() < 0.8,
            "seated, {seconds} s: {got} for {heel}"
        );
    }
}

#[test]
fn a_cast_heels_it_to_the_side_it_is_thrown_from() {
    let boats = boats();
    let some = of(Practice::Some);
    let mut roll = Roll::new(&boats[0], some, Mode::Up, At::default());
    // Two half sines of a quarter of a second, the second four fifths of the first.
    let peak = 10.0 * (1.0 - some.braced) * PI / 0.5;
    let cast = |t: f64| {
        let since = t - 1.0;
        let force = match since {
            s if (0.0..0.25).contains(&s) => -peak * (PI * s / 0.25).sin(),
            s if (0.25..0.5).contains(&s) => 0.8 * peak * (PI * (s - 0.25) / 0.25).sin(),
            _ => 0.0,
        };
        Push {
            force,
            ..Push::default()
        }
    };
    let course = run(&mut roll, 4.0, &cast);
    let (k, most) = course
        .iter()
        .enumerate()
        .max_by(|a, b| a.1.heel.abs().total_cmp(&b.1.heel.abs()))
        .unwrap();
    let (time, heel) = (TICK * k as f64, most.heel.to_degrees());
    assert!(
        (heel + 2.26).abs() < 0.7 && (time - 1.63).abs() < 0.2,
        "{heel} at {time}"
    );
}

/// Heeled as one body.
fn heeled(degrees: f64) -> At {
    let heel = degrees.to_radians();
    At {
        heel,
        legs: heel,
        trunk: heel,
        ..At::default()
    }
}

/// When a course comes up through level, s.
fn rises(course: &[At]) -> Vec<f64> {
    let pairs = course.windows(2).enumerate();
    let up = pairs.filter(|(_, pair)| pair[0].heel <= 0.0 && pair[1].heel > 0.0);
    up.map(|(n, pair)| TICK * (n as f64 - pair[0].heel / (pair[1].heel - pair[0].heel)))
        .collect()
}

#[test]
fn a_rigid_body_swings_with_its_closed_form_and_keeps_its_energy() {
    let some = of(Practice::Some);
    for boat in &boats() {
        let (k, j) = rigid(boat);
        let mut roll = Roll::new(boat, some, Mode::Stiff, heeled(0.2)).rigid(0.0);
        let all = rises(&run(&mut roll, 40.0, &calm));
        let period = (all[all.len() - 1] - all[0]) / (all.len() - 1) as f64;
        let closed = TAU * (j / k).sqrt();
        assert!((period / closed - 1.0).abs() < 0.003, "{period} {closed}");
        // Damped: two swings are apart by the logarithmic decrement 2πζ/√(1−ζ²).
        let share = 0.1;
        let damping = 2.0 * share * (k * j).sqrt();
        let mut roll = Roll::new(boat, some, Mode::Stiff, heeled(0.2)).rigid(damping);
        let course = run(&mut roll, 3.0 * closed, &calm);
        let peak = |from: f64, to: f64| {
            let part = &course[(from / TICK) as usize..(to / TICK) as usize];
            part.iter().map(|at| at.heel).fold(0.0, f64::max)
        };
        let slower = closed / (1.0_f64 - share * share).sqrt();
        let ratio = peak(0.5 * slower, 1.5 * slower) / peak(1.5 * slower, 2.5 * slower);
        let decrement = TAU * share / (1.0_f64 - share * share).sqrt();
        assert!(
            (ratio.ln() / decrement - 1.0).abs() < 0.01,
            "{} {decrement}",
            ratio.ln()
        );
        // Energy: what is lost in swing is in the arms, to 10⁻⁴ in 20 s.
        let low = boat.angler.at(boat.angler.hips()[0]);
        let held = |heel: f64| {
            let steps = 400;
            let width = heel / f64::from(steps);
            let answer = |phi: f64| {
                boat.displaced * GRAVITY * boat.arms[0].at(phi, 0.0) - low.whole() * phi.sin()
            };
            // Simpson's rule.
            let inner = (1..steps).map(|n| {
                let weight = if n % 2 == 1 { 4.0 } else { 2.0 };
                weight * answer(width * f64::from(n))
            });
            (answer(0.0) + answer(heel) + inner.sum::<f64>()) * width / 3.0
        };
        let energy = |at: &At| 0.5 * j * at.heel_rate.powi(2) + held(at.heel);
        // Dry: no water comes in that would take some.
        let start = heeled(0.6 * boat.wets.to_degrees().min(8.0));
        let mut roll = Roll::new(boat, some, Mode::Stiff, start).rigid(0.0);
        let first = energy(&roll.now);
        let course = run(&mut roll, 20.0, &calm);
        for at in course.iter().step_by(97) {
            assert!(
                (energy(at) / first - 1.0).abs() < 1e-4,
                "{} {first}",
                energy(at)
            );
        }
    }
}

#[test]
fn a_slow_moment_capsizes_over_the_peak_and_a_sudden_one_where_areas_are_equal() {
    let some = of(Practice::Some);
    for boat in &boats() {
        let mut boat = boat.clone();
        // The bare arms: no water comes in meanwhile.
        (boat.wets, boat.runs_in) = (PI, PI);
        let low = boat.angler.at(boat.angler.hips()[0]);
        let answer = |phi: f64| {
            boat.displaced * GRAVITY * boat.arms[0].at(phi, 0.0) - low.whole() * phi.sin()
        };
        let heel = |k: u32| 0.5 * PI * f64::from(k) / 4_000.0;
        let peak = (0..=4_000).map(|k| answer(heel(k))).fold(0.0, f64::max);
        let (mut sudden, mut area) = (0.0_f64, 0.0);
        for k in 1..=4_000 {
            area += 0.5 * (answer(heel(k)) + answer(heel(k - 1))) * (heel(k) - heel(k - 1));
            sudden = sudden.max(area / heel(k));
        }
        let over = |moment: &dyn Fn(f64) -> f64, damping: f64, seconds: f64| {
            let mut roll = Roll::new(&boat, some, Mode::Stiff, At::default()).rigid(damping);
            let push = |t: f64| Push {
                moment: moment(t),
                ..Push::default()
            };
            let course = run(&mut roll, seconds, &push);
            course.iter().any(|at| at.heel > 50.0_f64.to_radians())
        };
        let (k, j) = rigid(&boat);
        let slow = |share: f64| move |t: f64| share * peak * (t / 120.0).min(1.0);
        let damped = 2.0 * (k * j).sqrt();
        assert!(over(&slow(1.01), damped, 240.0) && !over(&slow(0.99), damped, 240.0));
        let step = |share: f64| move |_: f64| share * sudden;
        assert!(over(&step(1.01), 0.0, 60.0) && !over(&step(0.99), 0.0, 60.0));
    }
}

#[test]
fn half_a_hundredth_of_a_second_is_small_enough() {
    let boats = boats();
    let lean = At {
        legs: 3.0_f64.to_radians(),
        ..At::default()
    };
    for (boat, mode) in boats
        .iter()
        .zip([Mode::Up, Mode::Seated, Mode::Seated, Mode::Up])
    {
        let start = match mode {
            Mode::Up => lean,
            _ => heeled(4.0),
        };
        let skill = of(Practice::Skilled);
        let coarse = run(&mut Roll::new(boat, skill, mode, start), 6.0, &calm);
        let fine = run(
            &mut Roll::new(boat, skill, mode, start).stepped(0.001),
            6.0,
            &calm,
        );
        for (a, b) in coarse.iter().zip(&fine) {
            let off = (a.heel - b.heel).to_degrees().abs();
            assert!(off < 0.02, "{off}");
        }
    }
}

#[test]
fn the_mirror_image_is_exact_and_nothing_runs_away() {
    let boats = boats();
    let some = of(Practice::Some);
    let lean = |sign: f64| At {
        legs: sign * 3.0_f64.to_radians(),
        trunk: sign * -0.02,
        heel_rate: sign * 0.1,
        ..At::default()
    };
    let mut port = Roll::new(&boats[0], some, Mode::Up, lean(-1.0));
    let mut starboard = Roll::new(&boats[0], some, Mode::Up, lean(1.0));
    for (a, b) in run(&mut port, 3.0, &calm)
        .iter()
        .zip(run(&mut starboard, 3.0, &calm))
    {
        assert_eq!((a.heel, a.legs, a.trunk), (-b.heel, -b.legs, -b.trunk));
    }
    // Any start stays a number.
    let mut seed = 7_u64;
    let mut share = || {
        seed = seed
            .wrapping_mul(6_364_136_223_846_793_005)
            .wrapping_add(1_442_695_040_888_963_407);
        (seed >> 11) as f64 / (1_u64 << 53) as f64 * 2.0 - 1.0
    };
    for k in 0..10_000 {
        let heel = share();
        let at = At {
            heel,
            heel_rate: 3.0 * share(),
            legs: heel,
            legs_rate: 3.0 * share(),
            trunk: share(),
            trunk_rate: 3.0 * share(),
            feet: 50.0 * share(),
            hips: 50.0 * share(),
            filled: share().abs(),
            sway: 0.0,
            mate: [0.0; 3],
        };
        let mode = [Mode::Up, Mode::Seated, Mode::Stiff][k % 3];
        let mut roll = Roll::new(&boats[k % 4], some, mode, at);
        let course = run(&mut roll, 0.2, &calm);
        assert!(course.iter().all(At::is_finite), "{k}");
    }
}

#[test]
fn without_noise_one_stands_over_a_threshold_of_kappa() {
    for (skill, kappa) in [
        (Practice::New, 0.89),
        (Practice::Some, 0.69),
        (Practice::Skilled, 0.43),
    ] {
        let got = of(skill).threshold();
        assert!((got - kappa).abs() < 0.006, "{got} {kappa}");
    }
    // The first body (1.09) is stood in by anybody then, the second (0.47) only by the skilled.
    let boats = boats();
    let stands = |boat: &Boat, skill: Practice| {
        let lean = At {
            legs: 0.5_f64.to_radians(),
            ..At::default()
        };
        let mut roll = Roll::new(boat, of(skill), Mode::Up, lean);
        let course = run(&mut roll, 12.0, &calm);
        course.last().unwrap().legs.abs() < 0.2
    };
    for skill in [Practice::New, Practice::Some, Practice::Skilled] {
        assert!(stands(&boats[0], skill), "{skill:?}");
    }
    assert!(!stands(&boats[1], Practice::New) && !stands(&boats[1], Practice::Some));
}
