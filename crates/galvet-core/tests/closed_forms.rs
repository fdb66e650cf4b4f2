//! Bodies whose hydrostatics have a closed form.

use crate::common;

use approx::assert_relative_eq;
use common::{FRESH, body_from, box_body, float, weight};
use galvet_core::base::Lanes;
use galvet_core::body::{Body, EdgePoint};
use galvet_core::float::{Accuracy, Limit, Start, clearance, further_load, settle};

const EXACT: f64 = 1e-6;

/// Righting arm of a solid body under a weight, m.
fn gz(body: &Body<1>, w: &galvet_core::float::Weight<1>, heel: f64) -> f64 {
    common::gz(&float(body, w, heel), w)
}

#[test]
fn box_floats_and_rights_as_wall_sided_theory_says() {
    let (l, b, d) = (3.1, 0.8, 0.5);
    let (mass, kg) = (300.0, 0.30);
    let body = box_body(l, b, d);
    let w = weight(mass, l / 2.0, 0.0, kg);
    let s = float(&body, &w, 0.0);
    let t = mass / (FRESH * l * b);
    assert_relative_eq!(s.attitude.draft.0[0], t, max_relative = EXACT);
    assert_relative_eq!(s.attitude.slope.0[0], 0.0, epsilon = EXACT);
    let bm = b * b / (12.0 * t);
    assert_relative_eq!(
        s.immersion.metacentric_radius().0[0],
        bm,
        max_relative = EXACT
    );
    let kb = s.immersion.zeta_moment.0[0] / s.immersion.volume.0[0];
    assert_relative_eq!(kb, t / 2.0, max_relative = EXACT);
    let gm = kb + bm - kg;
    // Until the bilge comes out of the water.
    let limit = (2.0 * t / b).atan();
    for step in 1..10 {
        let heel = limit * f64::from(step) / 10.0;
        let wall_sided = heel.sin() * (gm + 0.5 * bm * heel.tan().powi(2));
        assert_relative_eq!(gz(&body, &w, heel), wall_sided, max_relative = EXACT);
        assert_relative_eq!(gz(&body, &w, -heel), -wall_sided, max_relative = EXACT);
    }
}

#[test]
fn box_trims_about_the_metacentre_along_its_length() {
    let (l, b, d) = (3.0, 0.7, 0.6);
    let (mass, z_g) = (420.0, 0.25);
    let t = mass / (FRESH * l * b);
    let body = box_body(l, b, d);
    for slope in [-0.06_f64, -0.01, 0.02, 0.08] {
        // The wet side is a trapezium: its centre in closed form.
        let x_b = slope * l * l / (12.0 * t);
        let z_b = t / 2.0 + slope * slope * l * l / (24.0 * t);
        let x_g = x_b + slope * (z_b - z_g);
        let s = float(&body, &weight(mass, l / 2.0 + x_g, 0.0, z_g), 0.0);
        assert_relative_eq!(s.attitude.slope.0[0], slope, max_relative = EXACT);
        // Bow up puts the stern deeper.
        let deep = s.attitude.water_at(l, l / 2.0).0[0];
        assert_relative_eq!(deep - t, slope * l / 2.0, max_relative = EXACT);
    }
}

#[test]
fn triangular_prism_has_its_draft_and_metacentre() {
    let (l, half, h) = (2.5, 0.4, 0.5);
    let body = body_from(l, &[0.0, l], 3, |_| vec![(0.0, 0.0), (half, h), (0.0, h)]);
    let mass = 90.0;
    let s = float(&body, &weight(mass, l / 2.0, 0.0, 0.2), 0.0);
    let t = (mass * h / (FRESH * l * half)).sqrt();
    assert_relative_eq!(s.attitude.draft.0[0], t, max_relative = EXACT);
    let beam = 2.0 * half * t / h;
    let bm = l * beam.powi(3) / 12.0 / (mass / FRESH);
    assert_relative_eq!(
        s.immersion.metacentric_radius().0[0],
        bm,
        max_relative = EXACT
    );
}

#[test]
fn circular_section_rights_by_its_centre_at_every_angle() {
    let (l, r, kg) = (2.0, 0.3, 0.12);
    // The polyline stands inside the circle: its own facets limit the accuracy.
    let facets = 2000;
    let body = body_from(l, &[0.0, l], 2, |_| {
        (0..=facets)
            .map(|i| {
                let a = std::f64::consts::PI * f64::from(i) / f64::from(facets);
                (r * a.sin(), r - r * a.cos())
            })
            .collect()
    });
    let w = weight(230.0, l / 2.0, 0.0, kg);
    for degrees in [1.0, 17.0, 45.0, 80.0, 90.0_f64] {
        let heel = degrees.to_radians();
        let exact = (r - kg) * heel.sin();
        assert_relative_eq!(gz(&body, &w, heel), exact, max_relative = EXACT);
    }
}

#[test]
fn wigley_body_has_its_volume_and_inertia() {
    let (l, b, t) = (3.0_f64, 0.6, 0.25);
    let rows = 800;
    let body = body_from(l, &[0.0, l], 8, |x| {
        let u = 2.0 * x / l - 1.0;
        (0..=rows)
            .map(|i| {
                // Height from the keel; the form is in depth below the water.
                let depth = 1.0 - f64::from(i) / f64::from(rows);
                let y = 0.5 * b * (1.0 - u * u) * (1.0 - depth * depth);
                (y, t * (1.0 - depth))
            })
            .chain([(0.0, t)])
            .collect()
    });
    let at = galvet_core::float::Attitude {
        heel: 0.0,
        draft: Lanes::splat(t),
        slope: Lanes::ZERO,
    };
    // A hair under the top edge, so that the waterplane is open.
    let at = galvet_core::float::Attitude {
        draft: at.draft - 1e-9,
        ..at
    };
    let im = galvet_core::float::immerse(&body, &body.solid, &at);
    assert_relative_eq!(im.volume.0[0], 4.0 / 9.0 * l * b * t, max_relative = 1e-5);
    let inertia = 16.0 / 35.0 * l * b.powi(3) / 12.0;
    assert_relative_eq!(im.area_eta_eta.0[0], inertia, max_relative = 1e-6);
}

#[test]
fn two_boxes_steady_each_other_by_the_parallel_axis() {
    let (l, width, arm_y, d) = (3.0, 0.2, 0.5, 0.4);
    let (inner, outer) = (arm_y - width / 2.0, arm_y + width / 2.0);
    let body = body_from(l, &[0.0, l], 3, |_| {
        vec![
            (0.0, d),
            (inner, d),
            (inner, 0.0),
            (outer, 0.0),
            (outer, d),
            (0.0, d),
        ]
    });
    let mass = 180.0;
    let s = float(&body, &weight(mass, l / 2.0, 0.0, 0.3), 0.0);
    let area = width * l;
    let inertia = 2.0 * (l * width.powi(3) / 12.0 + area * arm_y * arm_y);
    let bm = inertia / (mass / FRESH);
    assert_relative_eq!(
        s.immersion.metacentric_radius().0[0],
        bm,
        max_relative = EXACT
    );
    assert_relative_eq!(
        s.attitude.draft.0[0],
        mass / (FRESH * 2.0 * area),
        max_relative = EXACT
    );
}

/// A box with a recess over part of its length: station by station, with the
/// corner count of the solid part.
fn scuppered_box(l: f64, b: f64, d: f64, well: (f64, f64), half: f64, floor: f64) -> Body<1> {
    let mut body = body_from(l, &[0.0, well.0, well.1, l], 2, |x| {
        let z = if x > well.0 && x < well.1 { floor } else { d };
        vec![
            (0.0, 0.0),
            (b / 2.0, 0.0),
            (b / 2.0, d),
            (half, d),
            (half, z),
            (0.0, z),
        ]
    });
    body.floor = [well.0, well.1]
        .map(|x| EdgePoint {
            x: Lanes::splat(x),
            y: Lanes::splat(half),
            z: Lanes::splat(floor),
        })
        .to_vec();
    body
}

#[test]
fn scuppered_box_floats_deeper_once_its_floor_is_under() {
    let (l, b, d, floor) = (3.0, 0.8, 0.5, 0.14);
    let (well, half) = ((1.0, 2.0), 0.3);
    let body = scuppered_box(l, b, d, well, half, floor);
    let pool = 2.0 * half * (well.1 - well.0);
    for mass in [300.0, 340.0, 500.0, 700.0] {
        let s = float(&body, &weight(mass, l / 2.0, 0.0, 0.2), 0.0);
        let dry = mass / (FRESH * l * b);
        let exact = if dry <= floor {
            dry
        } else {
            // The pool's share of the waterplane carries nothing above the floor.
            (mass / FRESH - pool * floor) / (l * b - pool)
        };
        assert_relative_eq!(s.attitude.draft.0[0], exact, max_relative = EXACT);
        let above = clearance(&body.floor, l / 2.0, &s.attitude).0[0];
        assert_relative_eq!(above, floor - exact, epsilon = EXACT);
    }
}

#[test]
fn further_load_fills_up_to_the_line() {
    let (l, b, d) = (3.0, 0.8, 0.4);
    let body = box_body(l, b, d);
    let present = weight(200.0, l / 2.0, 0.0, 0.2);
    let load = weight(120.0, l / 2.0, 0.0, 0.4);
    let freeboard = 0.15;
    let more = further_load(
        &body,
        &body.solid,
        Limit {
            line: &body.gunwale,
            clear: freeboard,
        },
        &present,
        &load,
        FRESH,
        Accuracy::FINE,
    );
    let exact = FRESH * l * b * (d - freeboard) - 200.0;
    assert_relative_eq!(more.unwrap().0[0], exact, max_relative = EXACT);
    let none = Limit {
        line: &[],
        clear: 0.1,
    };
    let fine = Accuracy::FINE;
    assert!(further_load(&body, &body.solid, none, &present, &load, FRESH, fine).is_none());
}

#[test]
fn further_load_off_the_middle_is_met_by_an_equilibrium() {
    let (l, b, d) = (3.0, 0.8, 0.4);
    let body = box_body(l, b, d);
    let present = weight(200.0, 1.45, 0.0, 0.2);
    let load = weight(120.0, 1.7, 0.0, 0.4);
    let more = further_load(
        &body,
        &body.solid,
        Limit {
            line: &body.gunwale,
            clear: 0.1,
        },
        &present,
        &load,
        FRESH,
        Accuracy::FINE,
    );
    let more = more.unwrap().0[0];
    let whole = 200.0 + more;
    let x = (200.0 * 1.45 + more * 1.7) / whole;
    let z = (200.0 * 0.2 + more * 0.4) / whole;
    let s = float(&body, &weight(whole, x, 0.0, z), 0.0);
    let left = clearance(&body.gunwale, l / 2.0, &s.attitude).0[0];
    assert_relative_eq!(left, 0.1, epsilon = 1e-6);
    // A sample's accuracy is good to 20 g in 130 kg.
    let limit = Limit {
        line: &body.gunwale,
        clear: 0.1,
    };
    let close = Accuracy::SAMPLE;
    let quick = further_load(&body, &body.solid, limit, &present, &load, FRESH, close);
    assert_relative_eq!(quick.unwrap().0[0], more, epsilon = 0.02);
}

#[test]
fn a_load_too_heavy_says_by_how_much() {
    let body = box_body(2.0, 0.5, 0.2);
    let s = float(&body, &weight(260.0, 1.0, 0.0, 0.1), 0.0);
    let excess = s.excess_volume.0[0] * FRESH;
    assert!((excess - 61.0).abs() < 0.1, "{excess}");
    // What finds no rest has no attitude.
    assert!(!s.rests(0) && s.attitude.draft.0[0].is_nan() && s.immersion.volume.0[0].is_nan());
}

#[test]
fn bisection_and_newton_find_the_same_rest() {
    let (l, b, d) = (3.0, 0.8, 0.5);
    let body = scuppered_box(l, b, d, (0.8, 2.2), 0.33, 0.12);
    let w = weight(330.0, 1.56, 0.0, 0.25);
    let newton = float(&body, &w, 0.2);
    // An accuracy nothing can meet drives every lane into bisection.
    let unmet = Accuracy {
        relative: 0.0,
        halvings: 48,
        carried: None,
        limit: 1e-6,
    };
    let bisected = settle(&body, &body.solid, &w, FRESH, 0.2, Start::LEVEL, unmet);
    let (a, b) = (newton.attitude, bisected.attitude);
    assert_relative_eq!(a.draft.0[0], b.draft.0[0], epsilon = 1e-9);
    assert_relative_eq!(a.slope.0[0], b.slope.0[0], epsilon = 1e-9);
}
