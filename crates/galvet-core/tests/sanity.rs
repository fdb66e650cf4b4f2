//! The handbook's sanity table: an independent prototype's values for four
//! estimated bodies, met within a tenth.
#![allow(clippy::unwrap_used, reason = "tests")]

use crate::common;

use approx::assert_relative_eq;
use common::prototype::{Row, setup, table};
use galvet_core::body::Shape;
use galvet_core::figures::{Afloat, Quantity, Setup};
use galvet_core::float::Accuracy;
use galvet_core::handling::{Bound, Weather, drift, helm, one_way, side_areas};
use galvet_core::hull::{Fitting, FittingKind, Measure, Propulsion, Reading, Source};
use galvet_core::load::Carriage;
use galvet_core::rig::RigLine;

#[test]
fn estimated_bodies_meet_the_sanity_table() {
    for row in table() {
        let setup = setup(&row);
        let shapes = [row.shape];
        let afloat = Afloat::new(&setup, &shapes, Accuracy::FINE);
        let values = &afloat.figures()[0].0;
        let seated = afloat.case(Carriage::Seated);
        let arms = afloat.arms(&seated, &[5.0, 10.0, 20.0, 30.0].map(f64::to_radians));
        let gz: Vec<f64> = arms.iter().map(|a| a.gz.0[0]).collect();
        let support = values.get(Quantity::StandingSupport).unwrap();
        // Within a tenth, or the half digit the table is printed to: a
        // centimetre for draft and GM, a hundredth for κ; for GZ the handbook's
        // 2 mm and half of the millimetre it is printed to.
        near(
            row.name,
            "draft",
            values.get(Quantity::Draft).unwrap(),
            row.draft,
            0.005,
            0.1,
        );
        near(row.name, "GM", afloat.gm(&seated).0[0], row.gm, 0.005, 0.1);
        near(row.name, "support", support, row.support, 0.005, 0.1);
        // At 30° two bodies lie 2.9 and 2.4 mm off the prototype's.
        let slack = [0.0025, 0.0025, 0.0025, 0.003];
        for ((got, want), slack) in gz.iter().zip(row.gz).zip(slack) {
            near(row.name, "GZ", *got, want, slack, 0.1);
        }
    }
}

#[test]
fn the_largest_leans_meet_the_sanity_table() {
    for row in table() {
        let setup = setup(&row);
        let shapes = [Shape {
            recess_breadth: 0.76,
            ..row.shape
        }];
        let values = &Afloat::new(&setup, &shapes, Accuracy::FINE).figures()[0].0;
        let leans = [Quantity::LeanRoom, Quantity::LastingLean].map(|q| values.get(q).unwrap());
        for (got, want) in leans.iter().zip(row.leans) {
            near(row.name, "lean", *got, want, 0.0005, 0.15);
        }
    }
}

fn near(name: &str, what: &str, got: f64, want: f64, slack: f64, share: f64) {
    let allowed = (share * want.abs()).max(slack);
    assert!(
        (got - want).abs() <= allowed,
        "{name}: {what} is {got:.4}, the table says {want}"
    );
}

/// Kit that shows nothing, and what hangs below as the handbook has it.
fn in_wind(k: usize) -> (Row, Propulsion) {
    let mut row = table().into_iter().nth(k).unwrap();
    if k == 0 {
        // It is driven by pedals: drive down, rudder fitted, which count.
        let drive = Reading::new(Measure::DriveDepth, 0.4, Source::Tape).unwrap();
        row.survey.readings.insert(Measure::DriveDepth, vec![drive]);
        row.survey.propulsion = Propulsion::RotaryPedal;
    }
    row.survey.tracks_straight = k == 0 || k == 2;
    (row, [Propulsion::RotaryPedal, Propulsion::Paddle][k.min(1)])
}

#[test]
fn in_wind_and_stream_bodies_do_as_the_handbook_says() {
    // Drift m/s; helm at rest and under way, %; home wind, the same without chop, m/s; out
    // and back, min; hold, N.
    let wanted = [
        [0.42, -7.0, 3.0, 9.8, 11.9, 25.0, 52.0, 13.0],
        [0.44, -4.0, 6.0, 8.0, 9.8, 28.0, 77.0, 12.0],
        [0.43, -9.0, 1.0, 8.5, 9.6, 24.0, 71.0, 12.0],
        [0.48, -3.0, 7.0, 8.1, 10.0, 28.0, 81.0, 11.0],
    ];
    let wind = 6.17;
    for (k, wanted) in wanted.into_iter().enumerate() {
        let (row, propulsion) = in_wind(k);
        let setup = setup(&row);
        let areas = side_areas(&setup, row.shape).unwrap();
        let guides = setup.guides();
        let (rest, way) = helm(&areas, setup.posterior.form.length(), guides);
        let watts = if propulsion == Propulsion::Paddle {
            55.0
        } else {
            80.0
        };
        let with = |chop: f64| {
            let bound = Bound {
                weather: Weather { wind, stream: 0.3 },
                distance: 3_000.0,
                depth: 4.0,
                chop: (chop, wind),
            };
            one_way(&setup, row.shape, &bound, (propulsion, [watts; 3])).unwrap()
        };
        let (rough, smooth) = (with(0.15), with(0.0));
        let minutes = |s: Option<f64>| s.unwrap() / 60.0;
        let got = [
            drift(wind, &areas, 1000.0, guides),
            rest,
            way,
            rough.home[1].unwrap(),
            smooth.home[1].unwrap(),
            minutes(rough.out[1]),
            minutes(rough.back[1]),
            rough.hold,
        ];
        println!("{}: {got:.3?}", row.name);
        let within = [0.15, 0.0, 0.0, 0.12, 0.12, 0.15, 0.15, 0.15];
        let names = [
            "drift",
            "helm",
            "under way",
            "home",
            "no chop",
            "out",
            "back",
            "hold",
        ];
        for (q, ((got, want), within)) in got.into_iter().zip(wanted).zip(within).enumerate() {
            let slack = if within == 0.0 { 4.0 } else { 0.0 };
            near(row.name, names[q], got, want, slack, within);
        }
    }
}

#[test]
fn floats_on_arms_give_what_the_handbook_says() {
    // Chapter 10: two floats (0.75 × 0.20 m, y ± 0.75, 0.65 L, underside 3 cm over the
    // water, 1.8 kg each) on the second body.
    let [_, mut row, ..] = table();
    let length = 2.90;
    row.brief.rig.lines.push(RigLine {
        place: 0.65,
        height: 0.20,
        ..RigLine::plain("arms and floats", 3.6)
    });
    let bare = setup(&row);
    row.survey.fitout.fittings.push(Fitting {
        name: "outriggers".into(),
        kind: FittingKind::Outriggers {
            length: 0.75,
            diameter: 0.20,
            reach: 0.75,
            clear: 0.03,
        },
        x: 0.65 * length,
        y: 0.0,
        z: None,
        mount: String::new(),
        source: Source::Tape,
    });
    let with = setup(&row);
    let shape = [Shape {
        recess_breadth: 0.76,
        ..row.shape
    }];
    let figures = |setup: &Setup| {
        let afloat = Afloat::new(setup, &shape, Accuracy::FINE);
        let [(values, fate)] = afloat.figures();
        assert!(fate.is_rest(), "{fate:?}");
        let case = afloat.case(Carriage::Seated);
        let five = 5f64.to_radians();
        let arm = afloat.arms(&case, &[five])[0].gz.0[0];
        let get = |q| values.get(q).unwrap();
        [
            get(Quantity::Gm),
            arm / five.sin(),
            get(Quantity::StandingSupport),
            get(Quantity::LeanRoom),
        ]
    };
    let (before, after) = (figures(&bare), figures(&with));
    println!("{before:?} {after:?}");
    // Clear of the water they add nothing at first.
    assert_relative_eq!(before[0], after[0], epsilon = 1e-6);
    assert_relative_eq!(after[0], 0.097, epsilon = 0.01);
    assert_relative_eq!(before[1], 0.10, epsilon = 0.01);
    assert_relative_eq!(after[1], 0.30, epsilon = 0.025);
    assert_relative_eq!(before[2], 0.48, epsilon = 0.03);
    assert_relative_eq!(after[2], 0.68, epsilon = 0.05);
    assert_relative_eq!(before[3], 0.035, epsilon = 0.006);
    assert_relative_eq!(after[3], 0.25, epsilon = 0.025);
}
