//! Water aboard: closed forms, the handbook's reference values, and what must hold of any
//! deck.
#![allow(clippy::unwrap_used, reason = "tests")]

use crate::common;

use common::prototype::{Row, setup, table};
use common::{FRESH, box_body};
use galvet_core::aboard::{Deck, Fill, Inlet, Space, Usual, Vessel, Wet, wet};
use galvet_core::base::{GRAVITY, Lanes};
use galvet_core::body::{Body, Shape};
use galvet_core::float::Weight;
use galvet_core::guide::Guides;
use galvet_core::hull::{Fitting, FittingKind, Recess, ScupperState, Scuppers};

/// The table's bodies with the recess it means.
fn bodies() -> [(Row, Wet); 4] {
    table().map(|row| {
        let shape = Shape {
            recess_breadth: 0.76,
            ..row.shape
        };
        let wet = wet(&setup(&row), &shape, Usual::MIDDLE, 0.6).unwrap();
        (row, wet)
    })
}

fn near(name: &str, what: &str, got: Option<f64>, want: Option<f64>, within: f64) {
    match (got, want) {
        (Some(got), Some(want)) => assert!(
            (got - want).abs() <= within,
            "{name}: {what} is {got:.4}, the handbook says {want}"
        ),
        (got, want) => assert_eq!(got, want, "{name}: {what}"),
    }
}

#[test]
fn decks_drain_as_the_handbook_says() {
    // Litres brim-full, seconds until clear and until steady, millimetres that stay.
    let wanted = [
        Some([318.0, 69.0, 56.0, 3.0]),
        Some([198.0, 48.0, 48.0, 4.0]),
        Some([315.0, 72.0, 70.0, 3.0]),
        None,
    ];
    for ((row, wet), wanted) in bodies().iter().zip(wanted) {
        println!("{}: {wet:?}", row.name);
        let Some([brim, clear, tender, stays]) = wanted else {
            assert_eq!(wet.draining, None);
            continue;
        };
        let d = wet.draining.as_ref().unwrap();
        near(row.name, "brim", Some(1e3 * d.brim), Some(brim), 0.1 * brim);
        near(row.name, "clear", d.clear, Some(clear), 0.15 * clear);
        near(row.name, "tender", d.tender, Some(tender), 0.15 * tender);
        near(row.name, "stays", Some(1e3 * d.stays), Some(stays), 3.0);
    }
}

#[test]
fn lasting_leans_fill_as_the_handbook_says() {
    let wanted = [Some(12.0), Some(19.0), None];
    for ((row, wet), wanted) in bodies().iter().zip(wanted) {
        near(
            row.name,
            "fills",
            wet.fills,
            wanted,
            0.4 * wanted.unwrap_or(0.0),
        );
    }
}

#[test]
fn loose_water_takes_what_the_handbook_says() {
    // Litres to a wet floor, to no GM, to foundering.
    let wanted = [
        [70.0, 21.0, 127.0],
        [32.0, 16.0, 72.0],
        [57.0, 47.0, 119.0],
        [217.0, 25.0, 217.0],
    ];
    for ((row, wet), [floor, gm, founder]) in bodies().iter().zip(wanted) {
        let litres = |v: Option<f64>| v.map(|v| 1e3 * v);
        let l = &wet.loose;
        near(
            row.name,
            "floor",
            litres(l.wet_floor),
            Some(floor),
            0.1 * floor,
        );
        near(row.name, "GM 0", litres(l.gm_zero), Some(gm), 0.1 * gm);
        near(
            row.name,
            "founders",
            litres(l.founders),
            Some(founder),
            0.1 * founder,
        );
    }
}

/// A box of `length` × `beam` × `depth` with a trough of `breadth` along its whole length
/// down to `floor`.
fn trough(length: f64, [beam, depth, breadth, floor]: [f64; 4]) -> Body<1> {
    let (half, inner) = (0.5 * beam, 0.5 * breadth);
    let mut body = common::body_from(length, &[0.0, length], 4, |_| {
        vec![
            (0.0, 0.0),
            (half, 0.0),
            (half, depth),
            (inner, depth),
            (inner, floor),
            (0.0, floor),
        ]
    });
    // Sealed, its trough is filled to the rim.
    for chunk in body.sealed.z.chunks_exact_mut(6) {
        chunk[4] = Lanes([depth]);
        chunk[5] = Lanes([depth]);
    }
    let line = |y: f64, z: f64| {
        [0.0, length].map(|x| galvet_core::body::EdgePoint {
            x: Lanes([x]),
            y: Lanes([y]),
            z: Lanes([z]),
        })
    };
    body.gunwale = line(half, depth).to_vec();
    body.rim = line(half, depth).to_vec();
    body.floor = line(inner, floor).to_vec();
    body.sill = line(inner, floor).to_vec();
    body.recess.fill(Some(Recess::Cockpit));
    body.finished()
}

fn holes(n: usize, length: f64, floor: f64, state: ScupperState) -> Vec<Inlet> {
    let hole = |k: usize| Inlet {
        recess: Recess::Cockpit,
        state,
        x: length * (k as f64 + 0.5) / n as f64,
        y: if k.is_multiple_of(2) { 0.1 } else { -0.1 },
        floor,
        bottom: 0.0,
        diameter: 0.032,
    };
    (0..n).map(hole).collect()
}

fn centred(mass: f64, length: f64) -> Weight<1> {
    common::weight(mass, 0.5 * length, 0.0, 0.2)
}

#[test]
fn a_trough_drains_in_the_time_of_the_closed_form() {
    // H is the head at depth y: f − m/ρLB + (1−r) y; t = 2Lb(√H₁ − √H₂)/((1−r) n C a √2g).
    let (length, beam, breadth, floor) = (3.2, 0.8, 0.5, 0.16);
    let body = trough(length, [beam, floor + 0.2, breadth, floor]);
    let guides = Guides::default();
    let time = |n: usize, state| {
        let all = holes(n, length, floor, state);
        let deck = Deck::new(&body, None, (centred(180.0, length), FRESH), &all, &guides);
        deck.drain(0.05).unwrap()
    };
    let r = breadth / beam;
    let head = |y: f64| floor - 0.18 / (length * beam) + (1.0 - r) * y;
    let area = 0.25 * std::f64::consts::PI * 0.032 * 0.032;
    let form = |n: f64| {
        2.0 * length * breadth * (head(0.2).sqrt() - head(0.005).sqrt())
            / ((1.0 - r) * n * 0.6 * area * (2.0 * GRAVITY).sqrt())
    };
    assert!((form(6.0) - 68.7).abs() < 0.1);
    for n in [3, 6, 12] {
        for state in [ScupperState::Open, ScupperState::OneWay] {
            let d = time(n, state);
            let (got, want) = (d.clear.unwrap(), form(n as f64));
            assert!((got - want).abs() < 0.01 * want, "{n}: {got} for {want}");
            assert!((d.brim - 0.2 * length * breadth).abs() < 1e-6, "{}", d.brim);
            assert!(d.stays < 1e-6);
        }
    }
    let shut = time(6, ScupperState::Plugged);
    assert_eq!(shut.clear, None);
    assert!((shut.stays - 0.2).abs() < 1e-6);
}

#[test]
fn a_floor_under_water_keeps_what_is_outside_and_fills_through_one_hole() {
    let (length, floor) = (3.2, 0.16);
    let body = trough(length, [0.8, 0.36, 0.5, floor]);
    let guides = Guides::default();
    let all = holes(6, length, floor, ScupperState::Open);
    let deck = Deck::new(&body, None, (centred(460.0, length), FRESH), &all, &guides);
    // 0.8 T − 0.5 (T − 0.16) = 0.46/3.2: T = 0.2125.
    let stays = deck.drain(0.05).unwrap().stays;
    assert!((stays - 0.0525).abs() < 1e-4, "{stays}");
    // Half in through one: the levels come together at (1−r) of the inside's rate.
    let one = Inlet {
        x: 0.5 * length,
        ..all[0]
    };
    let one = [one];
    let deck = Deck::new(&body, None, (centred(460.0, length), FRESH), &one, &guides);
    let filling = deck.fill(0.0).unwrap();
    assert!((filling.holds - 0.0525 * 0.5 * length).abs() < 1e-6);
    let half = filling.half.unwrap();
    assert!((half - 164.0).abs() < 1.64, "{half}");
    // A valve lets none of it in.
    let shut = [Inlet {
        state: ScupperState::OneWay,
        ..one[0]
    }];
    let deck = Deck::new(&body, None, (centred(460.0, length), FRESH), &shut, &guides);
    assert_eq!(deck.fill(0.0).unwrap().half, None);
}

#[test]
fn a_bilge_layer_in_a_box_takes_what_its_free_surface_does() {
    // A cell of 1 m amidships in a box 3.2 × 0.72 m; 140 kg, KG 0.20, 30 l.
    let (length, beam, depth) = (3.2, 0.72, 0.5);
    let half = 0.5 * beam;
    // Fine enough for a wedge of water that ends somewhere.
    let breaks: Vec<f64> = (0..=32).map(|k| 0.1 * f64::from(k)).collect();
    let body = common::body_from(length, &breaks, 2, |_| {
        vec![(0.0, 0.0), (half, 0.0), (half, depth), (0.0, depth)]
    });
    let cell = common::body_from(length, &breaks, 2, |x| {
        if (1.1..2.1).contains(&x) {
            vec![(0.0, 0.0), (half, 0.0), (half, depth), (0.0, depth)]
        } else {
            vec![(0.0, 0.0); 4]
        }
    });
    let vessel = Vessel {
        body: &body,
        outline: &body.sealed,
        weight: centred(140.0, length),
        density: FRESH,
    };
    let space = Space {
        within: &cell.sealed,
        without: None,
    };
    let to = |heel_deg: f64| {
        let heel = heel_deg.to_radians();
        vessel
            .gm_to(heel, &[(space, Fill::Volume(0.030))], 0.0)
            .unwrap()
    };
    assert!((to(0.02) - 0.2710).abs() < 3e-4, "{}", to(0.02));
    assert!((to(5.0) - 0.2726).abs() < 3e-4, "{}", to(5.0));
    // Over the whole length, let go, it runs to an end: 0.354°.
    let whole = Space {
        within: &body.sealed,
        without: None,
    };
    let held = vessel
        .rest(0.0, &[(whole, Fill::Volume(0.020))], 0.0)
        .unwrap();
    let trim = held.slope().abs().atan().to_degrees();
    assert!((trim - 0.354).abs() < 0.004, "{trim}");
    // Dry, the box of the textbook: BM less KG and half the draft.
    let draft = 0.14 / (length * beam);
    let gm = beam * beam / (12.0 * draft) + 0.5 * draft - 0.2;
    let dry = vessel
        .gm_to(0.001, &[(space, Fill::Volume(0.0))], 0.0)
        .unwrap();
    assert!((dry - gm).abs() < 1e-4, "{dry} {gm}");
}

#[test]
fn more_holes_are_never_slower_and_more_water_inside_never_stiffer() {
    let row = &table()[0];
    let setup = setup(row);
    let mut last = f64::INFINITY;
    for pairs in 2..=4 {
        let usual = Usual {
            pairs,
            ..Usual::MIDDLE
        };
        let d = wet(&setup, &row.shape, usual, 0.6)
            .unwrap()
            .draining
            .unwrap();
        assert!(d.clear.unwrap() < last, "{pairs}");
        last = d.clear.unwrap();
    }
    let wide = Usual {
        diameter: 0.040,
        pairs: 4,
    };
    let d = wet(&setup, &row.shape, wide, 0.6)
        .unwrap()
        .draining
        .unwrap();
    // As the area grows: 1.5625 times as quick.
    let share = last / d.clear.unwrap();
    assert!((share - 1.5625).abs() < 0.03, "{share}");
    let body: Body<1> = box_body(3.2, 0.72, 0.4);
    let vessel = Vessel {
        body: &body,
        outline: &body.sealed,
        weight: centred(140.0, 3.2),
        density: FRESH,
    };
    let whole = Space {
        within: &body.sealed,
        without: None,
    };
    let mut last = f64::INFINITY;
    for litres in 1..20 {
        let fill = Fill::Volume(0.002 * f64::from(litres));
        let gm = vessel.gm_to(0.087, &[(whole, fill)], 0.0).unwrap();
        assert!(gm < last, "{litres}");
        last = gm;
    }
}

/// The first body with its scuppers on record.
fn with_scuppers(places: &[(f64, Recess)]) -> Row {
    let mut row = table().into_iter().next().unwrap();
    row.survey.fitout.fittings = places
        .iter()
        .flat_map(|&(share, recess)| {
            [-0.153, 0.153].map(|y| Fitting {
                name: format!("scupper {share} {y}"),
                kind: FittingKind::Scupper {
                    recess,
                    diameter: 0.032,
                    state: ScupperState::Open,
                    plug: false,
                },
                x: share * 3.70,
                y,
                z: None,
                mount: String::new(),
                source: galvet_core::hull::Source::Tape,
            })
        })
        .collect();
    row
}

#[test]
fn four_scuppers_take_twice_as_long_and_a_heavy_boat_keeps_more() {
    let wet_of = |row: &Row| {
        let shape = Shape {
            recess_breadth: 0.76,
            ..row.shape
        };
        wet(&setup(row), &shape, Usual::MIDDLE, 0.6).unwrap()
    };
    let four = with_scuppers(&[(0.45, Recess::Cockpit), (0.74, Recess::TankWell)]);
    let clear = wet_of(&four).draining.unwrap().clear;
    near("four", "clear", clear, Some(150.0), 0.15 * 150.0);
    // 110 kg more, at half the length and 0.3 m up: 20 mm stay, clear after 105 s, GM gone
    // at 4 l.
    let mut heavy = table().into_iter().next().unwrap();
    heavy.brief.rig.lines.push(galvet_core::rig::RigLine {
        place: 0.5,
        height: 0.3 - 0.135,
        ..galvet_core::rig::RigLine::plain("ballast", 110.0)
    });
    let wet = wet_of(&heavy);
    let d = wet.draining.unwrap();
    near("heavy", "clear", d.clear, Some(105.0), 0.15 * 105.0);
    near("heavy", "stays", Some(1e3 * d.stays), Some(20.0), 3.0);
    let gm = wet.loose.gm_zero.map(|v| 1e3 * v);
    near("heavy", "GM 0", gm, Some(4.0), 1.0);
}

#[test]
fn plugs_and_valves_do_as_they_say_on_a_real_deck() {
    let with = |scuppers: Scuppers| {
        let mut row = table().into_iter().next().unwrap();
        row.brief.scuppers = scuppers;
        wet(&setup(&row), &row.shape, Usual::MIDDLE, 0.6).unwrap()
    };
    let open = with(Scuppers::Open);
    let plugged = with(Scuppers::Plugged).draining.unwrap();
    assert_eq!(plugged.clear, None);
    assert!(plugged.stays > 0.15, "{}", plugged.stays);
    // Valves drain as fast, and let nothing in.
    let valves = with(Scuppers::OneWay);
    let (a, b) = (open.draining.unwrap(), valves.draining.unwrap());
    assert!((a.clear.unwrap() - b.clear.unwrap()).abs() < 0.5);
    assert_eq!(valves.fills, None);
    // Plugged in the cockpit only, what is over the sill leaves by the well.
    let half = with(Scuppers::CockpitPlugged).draining.unwrap();
    assert!(half.clear.unwrap() > 2.0 * a.clear.unwrap());
    assert!(half.stays > 0.03 && half.stays < 0.08, "{}", half.stays);
}

#[test]
fn a_hull_that_does_not_rest_is_never_the_better_for_it() {
    // A needle capsizes whoever sits in it: nothing is told of it, or the worst.
    let needle = common::needle();
    let a = common::assess(
        &needle,
        &common::asked(95.0, galvet_core::crew::Posture::Sits),
        32,
    );
    let lost = a.share(|f| !f.is_rest());
    assert!(lost > 0.3, "{lost}");
    let flooding = galvet_core::aboard::flooding(&a);
    let gm = flooding.and_then(|f| f.gm_zero);
    assert!(gm.is_none_or(|r| r.p5 == 0.0), "{gm:?}");
}
