//! What is foretold under way: other routes, coverage of known truths, evidence of an outing.
#![allow(clippy::unwrap_used, reason = "tests")]

use crate::common;

use common::families::{Dice, Truth};
use common::{assess, brief, guides, posterior, rig, tunnel};
use galvet_core::aboard::flooding;
use galvet_core::base::Range;
use galvet_core::figures::Quantity;
use galvet_core::figures::outlook::cruise;
use galvet_core::guide::Guide;
use galvet_core::handling::windage;
use galvet_core::hull::{
    Aboard, Datum, Evidence, FloatReading, Measure, Propulsion, Scuppers, Survey,
};
use galvet_core::load::{Carriage, Stance};
use galvet_core::log::{Judged, Outing, Read, Tape, readings, trust};
use galvet_core::plausible::{Foretold, Posterior, foretold};

/// A hull, its middle shape's load under a brief, and the posterior of that shape alone.
fn one_shape(hull: &Survey) -> (galvet_core::figures::Assessment, Aboard, Posterior) {
    let asked = brief(80.0, 1.78, rig(18.0, 0.6, 0.2));
    let a = assess(hull, &asked, 16);
    let p = &a.setup.posterior;
    let shape = a.middle;
    let floor = p.form.draw(&[shape]).standing_height;
    let load = a
        .setup
        .loads
        .load(Carriage::Seated, &Stance::of(&[shape], floor));
    let aboard = Aboard {
        mass: load.mass.0[0],
        place: (load.x.0[0] - p.form.bow()) / p.form.length(),
        height: load.z.0[0] - floor.0[0],
    };
    let alone = Posterior {
        shapes: vec![shape],
        weights: vec![1.0],
        ..(**p).clone()
    };
    (a, aboard, alone)
}

fn middle(found: &[Foretold]) -> f64 {
    assert_eq!(found.len(), 1);
    found[0].range.p50
}

#[test]
fn what_is_foretold_under_way_is_what_other_routes_say() {
    let hull = tunnel(&[(Measure::SeatLow, 0.2), (Measure::FittedWeight, 45.0)]);
    let (a, aboard, alone) = one_shape(&hull);
    let fresh = |reading| Evidence::fresh(aboard, reading);
    // Speed: the outlook's cruise at the usual effort.
    let usual = guides()[Guide::EffortUsual];
    let speed = fresh(FloatReading::Speed {
        speed: 1.5,
        watts: usual,
        by: a.driven(),
    });
    let (told, other) = (middle(&foretold(&alone, &speed)), cruise(&a).unwrap()[1]);
    assert!((told / other - 1.0).abs() < 0.01, "{told} {other}");
    // Drift: the windage figure, whose people and kit are stood in by drag area.
    let wind = 6.0;
    let other = windage(&a, wind).unwrap().drift.p50;
    let drift = fresh(FloatReading::Drift {
        speed: 0.3,
        wind,
        shows: guides()[Guide::DragSitsSide],
    });
    let told = middle(&foretold(&alone, &drift));
    assert!((told / other - 1.0).abs() < 0.08, "{told} {other}");
    // Draining: the deck brim-full.
    let drain = fresh(FloatReading::Drain { seconds: 60.0 });
    let clear: Range = flooding(&a).unwrap().clear.unwrap();
    let told = middle(&foretold(&alone, &drain));
    assert!((clear.p5..=clear.p95).contains(&told), "{told} {clear:?}");
    // The tape: the floor's height over the water as the figures have it.
    let floor = fresh(FloatReading::Heights {
        datum: Datum::Floor,
        heights: vec![(0.5, 0.05)],
    });
    let told = middle(&foretold(&alone, &floor));
    let at = a.median(Quantity::FloorAboveWater).unwrap();
    assert!((told - at).abs() < 0.02, "{told} {at}");
    // What has no recess does not drain, and says so.
    let board = common::survey(
        galvet_core::hull::Construction::Board,
        galvet_core::hull::BottomShape::Flat,
        &[(Measure::Length, 3.5), (Measure::Beam, 0.86)],
    );
    let (_, aboard, alone) = one_shape(&board);
    let dry = Evidence::fresh(aboard, FloatReading::Drain { seconds: 60.0 });
    assert!(foretold(&alone, &dry).is_empty());
}

#[test]
fn readings_with_their_own_error_lie_in_the_range_nine_times_of_ten() {
    let hull = tunnel(&[]);
    let p = posterior(&hull, 128);
    let sd = guides()[Guide::FloatSd];
    let aboard = Aboard {
        mass: 104.0,
        place: 0.54,
        height: 0.32,
    };
    let at = |height| {
        Evidence::fresh(
            aboard,
            FloatReading::Heights {
                datum: Datum::Gunwale,
                heights: vec![(0.5, height)],
            },
        )
    };
    let range = foretold(&p, &at(0.2))[0].range;
    let mut dice = Dice::new(7);
    let mut judged = Vec::new();
    for _ in 0..20 {
        for (shape, weight) in p.shapes.iter().zip(&p.weights) {
            // As often as it is plausible.
            if dice.share() > weight * p.shapes.len() as f64 {
                continue;
            }
            let alone = Posterior {
                shapes: vec![*shape],
                weights: vec![1.0],
                ..(*p).clone()
            };
            let truth = foretold(&alone, &at(0.2))[0].range.p50;
            judged.push(Judged {
                outing: String::new(),
                day: String::new(),
                hull: String::new(),
                read: Read::Draft,
                foretold: Foretold {
                    read: truth + sd * dice.normal(),
                    range,
                },
            });
        }
    }
    let told = trust(&judged)[0];
    assert!(told.count > 1_000, "{}", told.count);
    assert!((told.within - 0.90).abs() < 0.03, "{told:?}");
    assert!(told.bias.abs() < 0.15 * (range.p95 - range.p5), "{told:?}");
    // A tape held wrong by two centimetres shows as a bias of two.
    let off: Vec<Judged> = judged
        .iter()
        .map(|j| Judged {
            foretold: Foretold {
                read: j.foretold.read + 0.02,
                ..j.foretold
            },
            ..j.clone()
        })
        .collect();
    let moved = trust(&off)[0];
    assert!((moved.bias - told.bias - 0.02).abs() < 1e-9);
    assert!(moved.within < told.within);
}

#[test]
fn outings_of_true_hulls_lie_in_what_a_leaflet_foretells() {
    let truths = Truth::drawn(common::families::cases(60), 26);
    let mut judged = Vec::new();
    for truth in &truths {
        let known = posterior(&truth.leaflet(), 64);
        for e in &truth.float_tested().evidence {
            judged.extend(foretold(&known, e).into_iter().map(|foretold| Judged {
                outing: String::new(),
                day: String::new(),
                hull: String::new(),
                read: Read::Draft,
                foretold,
            }));
        }
    }
    let told = trust(&judged)[0];
    assert!(told.count >= 100, "{told:?}");
    assert!(told.within >= 0.85, "{told:?}");
    assert!(told.bias.abs() < 0.012, "{told:?}");
    // With what was read put on the record the same marks are foretold far closer.
    let mut close: Vec<f64> = truths
        .iter()
        .take(20)
        .flat_map(|truth| {
            let tested = truth.float_tested();
            let wide = posterior(&truth.leaflet(), 256);
            let narrow = posterior(&tested, 256);
            let width = |p: &Posterior| {
                let all = foretold(p, &tested.evidence[0]);
                all.first().map(|f| f.range.p95 - f.range.p5)
            };
            Some(width(&narrow)? / width(&wide)?)
        })
        .collect();
    close.sort_unstable_by(f64::total_cmp);
    let middle = close[close.len() / 2];
    assert!(middle < 0.6, "{close:?}");
}

#[test]
fn trust_sums_up_by_kind_with_signs_that_mean_something() {
    let one = |read, value, p50, p5, p95| Judged {
        outing: "o".into(),
        day: "2026-05-01".into(),
        hull: "a".into(),
        read,
        foretold: Foretold {
            read: value,
            range: Range {
                p5,
                p50,
                p95,
                share: 1.0,
            },
        },
    };
    let all = [
        one(Read::Draft, 0.20, 0.23, 0.19, 0.27),
        one(Read::Draft, 0.18, 0.20, 0.19, 0.21),
        one(Read::Draft, 0.26, 0.25, 0.24, 0.27),
        one(Read::Draft, 0.30, 0.34, 0.29, 0.39),
        one(Read::Drain, 80.0, 60.0, 50.0, 90.0),
    ];
    let sums = trust(&all);
    assert_eq!(sums.len(), 2);
    let (draft, drain) = (sums[0], sums[1]);
    // Off by −30, −20, +10, −40 mm: the middle −25, of 30, 20, 10, 40: 25; three of four held.
    assert!((draft.bias + 0.025).abs() < 1e-12 && (draft.error - 0.025).abs() < 1e-12);
    assert_eq!((draft.count, draft.within), (4, 0.75));
    assert_eq!(
        (drain.read, drain.bias, drain.within),
        (Read::Drain, 20.0, 1.0)
    );
    assert!(trust(&[]).is_empty());
}

#[test]
fn an_outings_readings_are_evidence_as_if_typed() {
    let aboard = Aboard {
        mass: 104.0,
        place: 0.54,
        height: 0.32,
    };
    let o = Outing {
        density: 1010.0,
        scuppers: Scuppers::Plugged,
        aboard: Some(aboard),
        tape: Tape {
            datum: Datum::Floor,
            heights: vec![(0.3, 0.04), (0.6, 0.05)],
        },
        speed: Some(1.6),
        speed_by: Propulsion::FinPedal,
        drift: Some(0.3),
        wind: Some(6.0),
        drained: Some(70.0),
        people: 2,
        done: true,
        day: "2026-05-01".into(),
        hull: "a".into(),
        hours: Some(4.0),
        ..Outing::blank()
    };
    let all = readings(&o, &guides());
    let kinds: Vec<Read> = all.iter().map(|(r, _)| *r).collect();
    assert_eq!(kinds, [Read::Draft, Read::Speed, Read::Drift, Read::Drain]);
    for (_, e) in &all {
        assert_eq!(
            (e.aboard, e.density, e.scuppers),
            (aboard, 1010.0, Scuppers::Plugged)
        );
        assert_eq!(e.date, "2026-05-01");
        assert!(e.clone().check().is_ok());
    }
    let typed = Evidence {
        density: 1010.0,
        scuppers: Scuppers::Plugged,
        date: "2026-05-01".into(),
        ..Evidence::fresh(
            aboard,
            FloatReading::Heights {
                datum: Datum::Floor,
                heights: vec![(0.3, 0.04), (0.6, 0.05)],
            },
        )
    };
    assert_eq!(all[0].1, typed);
    // Nobody said at what effort: what is kept up for hours.
    let FloatReading::Speed { watts, .. } = all[1].1.reading else {
        panic!("no speed");
    };
    assert_eq!(watts, guides()[Guide::PedalLasting]);
    let FloatReading::Drift { shows, .. } = all[2].1.reading else {
        panic!("no drift");
    };
    assert_eq!(shows, 2.0 * guides()[Guide::DragSitsSide]);
    // Without what was aboard a mark says nothing; without a wind a drift does not.
    let bare = Outing {
        aboard: None,
        ..o.clone()
    };
    assert!(readings(&bare, &guides()).is_empty());
    let calm = Outing { wind: None, ..o };
    assert_eq!(readings(&calm, &guides()).len(), 3);
}

#[test]
fn evidence_under_way_moves_a_hull_the_right_way_and_no_further_than_it_may() {
    let hull = tunnel(&[(Measure::SeatLow, 0.2)]);
    let (a, aboard, _) = one_shape(&hull);
    let p = posterior(&hull, 128);
    let speed = |speed| {
        Evidence::fresh(
            aboard,
            FloatReading::Speed {
                speed,
                watts: 80.0,
                by: a.driven(),
            },
        )
    };
    let before = foretold(&p, &speed(1.5))[0].range;
    let with = |e: Evidence| {
        let tested = Survey {
            evidence: vec![e],
            ..hull.clone()
        };
        posterior(&tested, 128)
    };
    // What each shape keeps up on its own: the sample is the same, only its weights move.
    let each: Vec<f64> = p
        .shapes
        .iter()
        .map(|shape| {
            let alone = Posterior {
                shapes: vec![*shape],
                weights: vec![1.0],
                ..(*p).clone()
            };
            middle(&foretold(&alone, &speed(1.5)))
        })
        .collect();
    let mean = |of: &Posterior| -> f64 {
        assert_eq!(of.shapes, p.shapes);
        each.iter().zip(&of.weights).map(|(v, w)| v * w).sum()
    };
    for (read, faster) in [(1.1 * before.p50, true), (0.9 * before.p50, false)] {
        let (was, is) = (mean(&p), mean(&with(speed(read))));
        assert_eq!(is > was, faster, "{read} {was} {is}");
        // It says little of a shape: most of the way to what was read is left.
        let went = (is - was) / (read - was);
        assert!((0.0..0.5).contains(&went), "{went}");
    }
}
