//! Effort of the sanity table's bodies against the handbook's values.

use crate::common;

use common::{float, guides, prototype_shape, weight};
use galvet_core::body::{Form, Frame, Shape, draw};
use galvet_core::effort::{PowerCurve, Resistance, WettedHull, going};
use galvet_core::figures::outlook::{cruise, held_back};
use galvet_core::guide::Guide;
use galvet_core::hull::{BottomShape, Construction, Propulsion};

fn resistance(frame: &Frame, shape: &Shape, mass: f64) -> Resistance {
    let body = draw(frame, &[*shape], 1);
    let rest = float(&body, &weight(mass, 0.53 * frame.length, 0.0, 0.4), 0.0);
    let hull = WettedHull::of_shape(&Form::Estimated(*frame), shape, &rest.attitude);
    Resistance::new(hull, 1000.0, &guides())
}

fn first() -> Resistance {
    let frame = common::frame(3.7, 0.9, Construction::SitOnTop);
    resistance(
        &frame,
        &prototype_shape(BottomShape::Tunnel, 0.36, 0.135, 50.0),
        156.0,
    )
}

fn third() -> Resistance {
    let frame = common::frame(4.4, 0.74, Construction::SitOnTop);
    resistance(
        &frame,
        &prototype_shape(BottomShape::ShallowVee, 0.36, 0.135, 33.0),
        131.0,
    )
}

#[test]
fn power_in_the_water_is_near_the_handbooks() {
    let watts = |r: &Resistance, u: f64| r.water(u) * u;
    let (wide, long) = (first(), third());
    // About 25 W; 70-80 W at 1.75-2.0 m/s; about 18 and 50 W: two independent
    // bodies, so within a sixth, and the pair between its ends.
    for (name, got, want) in [
        ("first, 1.5 m/s", watts(&wide, 1.5), 25.0),
        ("first, 2.0 m/s", watts(&wide, 2.0), 75.0),
        ("third, 1.5 m/s", watts(&long, 1.5), 18.0),
        ("third, 2.0 m/s", watts(&long, 2.0), 50.0),
    ] {
        assert!((got / want - 1.0).abs() < 1.0 / 6.0, "{name}: {got:.1} W");
    }
}

#[test]
fn cruise_on_a_rotary_pedal_is_near_the_handbooks() {
    let curve = PowerCurve::of(&first(), 400.0);
    let at_100 = going(&curve, Propulsion::RotaryPedal, 100.0, 0.0, &guides());
    assert!((1.6..1.8).contains(&at_100.cruise.unwrap()), "{at_100:?}");
    assert!(at_100.top > at_100.cruise);
    assert_eq!(at_100.battery_range, None);
    // 100 W for as long as a kilometre takes.
    let exact = 100.0 * 1000.0 / at_100.cruise.unwrap();
    assert!((at_100.energy_per_km.unwrap() - exact).abs() < 1e-6);
}

#[test]
fn nothing_saturates_and_nothing_is_silent() {
    let curve = PowerCurve::of(&first(), 200.0);
    // Beyond the curve's end a speed is not known, rather than the last one.
    assert_eq!(curve.speed_at(1e5), None);
    let strong = going(&curve, Propulsion::Motor, 2000.0, 1e6, &guides());
    assert_eq!((strong.cruise, strong.top), (None, None));
    // A boat that does not move takes no energy for a kilometre: it never gets
    // there.
    let still = going(&curve, Propulsion::Paddle, 0.0, 0.0, &guides());
    assert_eq!((still.cruise, still.energy_per_km), (Some(0.0), None));
    // Twice the electric power goes faster, all the way up.
    let curve = PowerCurve::of(&first(), 900.0);
    let speeds: Vec<f64> = [250.0, 500.0, 1000.0, 1900.0]
        .map(|w| {
            going(&curve, Propulsion::Motor, w, 1e6, &guides())
                .cruise
                .unwrap()
        })
        .to_vec();
    assert!(speeds.windows(2).all(|s| s[1] > s[0] + 0.05), "{speeds:?}");
}

#[test]
fn more_effort_and_more_battery_go_further() {
    let curve = PowerCurve::of(&first(), 600.0);
    let easy = going(&curve, Propulsion::Motor, 150.0, 2.0e6, &guides());
    let hard = going(&curve, Propulsion::Motor, 400.0, 2.0e6, &guides());
    assert!(hard.cruise > easy.cruise);
    assert!(hard.battery_range.unwrap() < easy.battery_range.unwrap());
    // 70 % of 2 MJ at 150 W, as long as it lasts.
    let exact = 0.7 * 2.0e6 / 150.0 * easy.cruise.unwrap();
    assert!((easy.battery_range.unwrap() - exact).abs() < 1e-6);
    for u in [0.3, 1.1, 1.9] {
        let back = curve.speed_at(curve.power_at(u)).unwrap();
        assert!((back - u).abs() < 1e-9, "{u}");
    }
}

#[test]
fn what_holds_her_back_is_what_the_effort_overcomes() {
    // A board 3.6 × 0.9 m under 103 kg and its own weight.
    let board = common::box_hull(Construction::Board, 3.6, 0.9, 0.3);
    let rig = common::rig(10.0, 0.5, 0.1);
    let a = common::assess(&board, &common::brief(84.0, 1.8, rig), 16);
    let held = held_back(&a).unwrap();
    assert_eq!(cruise(&a), Some(held.speed));
    let (guides, u) = (a.setup.guides(), held.speed[1]);
    // The box's bottom, sides and ends, by Archimedes' draft; it lies a little by the
    // stern.
    let draft = (103.0 + a.middle.hull_mass) / 3240.0;
    let skin = 3.6 * 0.9 + 2.0 * 3.6 * draft;
    assert!(
        (held.wetted_area / skin - 1.0).abs() < 0.01,
        "{held:?} {skin}"
    );
    assert!((held.waterline - 3.6).abs() < 1e-9);
    // ITTC-1957 with the form factor, by hand.
    let reynolds = u * 3.6 / 1.139e-6;
    let line = 0.075 / (reynolds.log10() - 2.0).powi(2);
    let friction = 0.5 * 1000.0 * u * u * held.wetted_area * line * 1.2;
    assert!((held.parts[0] / friction - 1.0).abs() < 1e-9);
    let air = 0.5 * 1.225 * 0.45 * u * u;
    assert!((held.parts[2] / air - 1.0).abs() < 1e-9);
    // Read off between places an eighth of a metre a second apart.
    let wanted = held.efficiency * held.effort[1];
    assert!((held.efficiency - 0.45).abs() < 1e-12 && held.effort[1] == guides[Guide::EffortUsual]);
    let sum: f64 = held.parts.iter().sum();
    assert!(
        (sum * u / wanted - 1.0).abs() < 0.02,
        "{} {wanted}",
        sum * u
    );
}
