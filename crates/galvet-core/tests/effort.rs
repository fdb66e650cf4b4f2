//! Effort of the sanity table's bodies against the handbook's values.

mod common;

use common::{float, prototype_shape, weight};
use galvet_core::effort::WettedHull;
use galvet_core::effort::power::{PowerCurve, Resistance, going};
use galvet_core::hull::{BottomShape, Construction, Frame, Propulsion, Shape, draw};

fn resistance(frame: &Frame, shape: &Shape, mass: f64) -> Resistance {
    let body = draw(frame, &[*shape], 1);
    let rest = float(&body, &weight(mass, 0.53 * frame.length, 0.0, 0.4), 0.0);
    Resistance::new(WettedHull::of_shape(frame, shape, &rest.attitude), 1000.0)
}

fn first() -> Resistance {
    let frame = Frame {
        length: 3.7,
        beam: 0.9,
        bottom: BottomShape::Tunnel,
        construction: Construction::SitOnTop,
    };
    resistance(&frame, &prototype_shape(0.36, 0.135, false, 50.0), 156.0)
}

fn third() -> Resistance {
    let frame = Frame {
        length: 4.4,
        beam: 0.74,
        bottom: BottomShape::ShallowVee,
        construction: Construction::SitOnTop,
    };
    resistance(&frame, &prototype_shape(0.36, 0.135, false, 33.0), 131.0)
}

#[test]
fn power_in_the_water_is_near_the_handbooks() {
    let watts = |r: &Resistance, u: f64| r.water(u) * u;
    let (wide, long) = (first(), third());
    for (name, got, low, high) in [
        ("first, 1.5 m/s", watts(&wide, 1.5), 20.0, 30.0),
        ("first, 1.75 m/s", watts(&wide, 1.75), 35.0, 85.0),
        ("first, 2.0 m/s", watts(&wide, 2.0), 60.0, 95.0),
        ("third, 1.5 m/s", watts(&long, 1.5), 14.0, 22.0),
        ("third, 2.0 m/s", watts(&long, 2.0), 40.0, 60.0),
    ] {
        println!("{name}: {got:.1} W");
        assert!((low..high).contains(&got), "{name}: {got:.1} W");
    }
}

#[test]
fn cruise_on_a_rotary_pedal_is_near_the_handbooks() {
    let curve = PowerCurve::of(&first(), 400.0);
    let at_100 = going(&curve, Propulsion::RotaryPedal, 100.0, 0.0);
    assert!((1.55..1.85).contains(&at_100.cruise), "{at_100:?}");
    assert!(at_100.top > at_100.cruise);
    assert_eq!(at_100.battery_range, None);
}

#[test]
fn more_effort_and_more_battery_go_further() {
    let curve = PowerCurve::of(&first(), 600.0);
    let easy = going(&curve, Propulsion::Motor, 150.0, 2.0e6);
    let hard = going(&curve, Propulsion::Motor, 400.0, 2.0e6);
    assert!(hard.cruise > easy.cruise);
    assert!(hard.battery_range.unwrap() < easy.battery_range.unwrap());
    // 70 % of 2 MJ at 150 W, as long as it lasts.
    let exact = 0.7 * 2.0e6 / 150.0 * easy.cruise;
    assert!((easy.battery_range.unwrap() - exact).abs() < 1e-6);
    for u in [0.3, 1.1, 1.9] {
        assert!((curve.speed_at(curve.power_at(u)) - u).abs() < 1e-9, "{u}");
    }
}
