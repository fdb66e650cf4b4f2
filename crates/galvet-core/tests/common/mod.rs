//! Fixtures and assertions shared by the core's tests.
#![allow(dead_code, reason = "each test file uses its own part")]
#![allow(
    clippy::unwrap_used,
    reason = "a fixture that does not build is a failed test"
)]

use galvet_core::base::Lanes;
use galvet_core::body::{Body, EdgePoint, Frame, Shape, gauss_legendre};
use galvet_core::crew::{Crew, Posture};
use galvet_core::figures::{Assessment, Quantity, Values};
use galvet_core::float::{Accuracy, Settled, Start, Weight, settle};
use galvet_core::guide::Guides;
use galvet_core::hull::{
    BottomShape, CapacityBasis, Construction, Fitout, Looked, Measure, Origin, Propulsion, Reading,
    Source, Station, Survey,
};
use galvet_core::plausible::Posterior;
use galvet_core::question::{Brief, Water};
use galvet_core::rank::{Ranking, Scales, rank, score};
use galvet_core::rig::{Rig, RigLine};
use std::collections::BTreeMap;
use std::sync::Arc;

pub mod families;
pub mod prototype;

/// Fresh water, kg/m³.
pub const FRESH: f64 = 1000.0;

/// A tunnel-bottomed sit-on-top 3.7 × 0.88 m of 45 kg, with more readings.
pub fn tunnel(more: &[(Measure, f64)]) -> Survey {
    let plain = [
        (Measure::Length, 3.7),
        (Measure::Beam, 0.88),
        (Measure::FittedWeight, 45.0),
    ];
    let readings = [&plain, more].concat();
    survey(Construction::SitOnTop, BottomShape::Tunnel, &readings)
}

/// One of a fleet under its own name: of that length and beam, a tunnel 36 kg in weight
/// with a known floor and seat.
pub fn one_of_many(key: &str, [length, beam]: [f64; 2], more: &[(Measure, f64)]) -> Survey {
    let plain = [
        (Measure::Length, length),
        (Measure::Beam, beam),
        (Measure::FittedWeight, 36.0),
        (Measure::FloorHeight, 0.135),
        (Measure::SeatLow, 0.1),
    ];
    let readings = [&plain, more].concat();
    let mut hull = survey(Construction::SitOnTop, BottomShape::Tunnel, &readings);
    hull.key = key.to_owned();
    hull.model = key.to_owned();
    hull
}

/// What a hull that does not rest has none of.
pub const AT_REST: [Quantity; 5] = [
    Quantity::Draft,
    Quantity::Trim,
    Quantity::Freeboard,
    Quantity::WaterlineMargin,
    Quantity::LeanRoom,
];

/// A survey with the readings given, all by tape.
pub fn survey(
    construction: Construction,
    bottom: BottomShape,
    readings: &[(Measure, f64)],
) -> Survey {
    let readings: BTreeMap<_, _> = readings
        .iter()
        .map(|&(m, v)| (m, vec![Reading::new(m, v, Source::Tape).unwrap()]))
        .collect();
    Survey {
        key: "fixture".into(),
        maker: "Fixture".into(),
        model: "One".into(),
        year: None,
        construction,
        bottom: Some(bottom),
        propulsion: Propulsion::Paddle,
        drive_lifts: true,
        tracks_straight: false,
        seats: 1,
        fitted_includes: String::new(),
        capacity_basis: CapacityBasis::GearAndCrew,
        notes: String::new(),
        readings,
        origin: Origin::Maker,
        evidence: Vec::new(),
        offsets: Vec::new(),
        fitout: Fitout::default(),
        looked: Looked::default(),
    }
}

/// The shipped guide values.
pub fn guides() -> Arc<Guides> {
    Arc::new(Guides::default())
}

/// Plausible shapes of a hull.
pub fn posterior(survey: &Survey, size: usize) -> Arc<Posterior> {
    Arc::new(Posterior::of(Arc::new(survey.clone()), guides(), size).unwrap())
}

/// A hull assessed under a brief.
pub fn assess(survey: &Survey, brief: &Brief, size: usize) -> Assessment {
    Assessment::of(posterior(survey, size), Arc::new(brief.clone()))
}

/// Hulls ranked for a brief.
pub fn ranking(hulls: &[Survey], brief: &Brief, size: usize) -> Ranking {
    let hulls: Vec<Arc<Survey>> = hulls.iter().cloned().map(Arc::new).collect();
    rank(&Arc::new(brief.clone()), &hulls, size, &guides())
}

/// A frame with the shipped sheer and floor step.
pub fn frame(length: f64, beam: f64, construction: Construction) -> Frame {
    Frame::new(length, beam, construction, &Guides::default())
}

/// A hull whose measured sections are a box's, `length` × `beam` × `depth`, with
/// a flat deck; weighs 50 kg on the scale.
pub fn box_hull(construction: Construction, length: f64, beam: f64, depth: f64) -> Survey {
    let mut hull = survey(
        construction,
        BottomShape::Flat,
        &[(Measure::FittedWeight, 50.0), (Measure::SeatLow, 0.10)],
    );
    let half = 0.5 * beam;
    hull.offsets = [0.0, 0.4 * length, 0.6 * length, length]
        .map(|x| Station {
            x,
            points: vec![(0.0, 0.0), (half, 0.0), (half, depth), (0.0, depth)],
        })
        .to_vec();
    hull
}

/// A rig of one line.
pub fn rig(mass: f64, place: f64, height: f64) -> Rig {
    Rig {
        key: "fixture".into(),
        name: "Fixture".into(),
        lines: vec![RigLine {
            place,
            height,
            ..RigLine::plain("kit", mass)
        }],
    }
}

/// A brief on the lake, seated, scuppers open.
pub fn brief(mass: f64, stature: f64, rig: Rig) -> Brief {
    Brief::plain(Crew::new(mass, stature).unwrap(), rig, Water::lake())
}

/// The shape of the handbook's prototype (chapter 2, below the sanity table).
pub fn prototype_shape(bottom: BottomShape, depth: f64, floor: f64, hull_mass: f64) -> Shape {
    let board = bottom == BottomShape::Board;
    Shape {
        bottom,
        bow_exponent: if board { 3.5 } else { 2.6 },
        stern_exponent: if board { 4.0 } else { 2.8 },
        stern_end: if board { 0.4 } else { 0.15 },
        depth,
        bow_rise: 0.10,
        stern_rise: 0.06,
        floor,
        fullness: 0.0,
        flare: 0.0,
        recess_breadth: 0.80,
        recess_from: 0.18,
        recess_to: 0.93,
        breadth_scale: 1.0,
        height_scale: 1.0,
        hull_mass,
        kit_mass: 2.5,
        seats: [0.10, 0.26],
        guess: [0.0; 3],
    }
}

/// A prismatic or tapered body from half-sections given at stations that are
/// joined by the trapezoidal rule with linear sections (`n` strips, Gauss in
/// each): `section(x)` returns the corners from the bottom centreline up.
pub fn body_from(
    length: f64,
    breaks: &[f64],
    nodes: usize,
    section: impl Fn(f64) -> Vec<(f64, f64)>,
) -> Body<1> {
    let points = section(0.5 * length).len();
    let mut body = Body::blank(length, 0.0, (0, points, 0), Lanes::splat(0.1));
    for pair in breaks.windows(2) {
        for &(node, weight) in gauss_legendre(nodes).iter() {
            let x = pair[0] + (pair[1] - pair[0]) * node;
            let corners = section(x);
            assert_eq!(corners.len(), points, "one topology");
            body.x.push(Lanes::splat(x));
            body.weight.push(Lanes::splat(weight * (pair[1] - pair[0])));
            body.recess.push(None);
            for (y, z) in corners {
                for outline in [&mut body.solid, &mut body.sealed] {
                    outline.y.push(Lanes::splat(y));
                    outline.z.push(Lanes::splat(z));
                }
            }
        }
    }
    body.finished()
}

/// A box of `length` × `beam` × `depth`.
pub fn box_body(length: f64, beam: f64, depth: f64) -> Body<1> {
    let half = 0.5 * beam;
    let mut body = body_from(length, &[0.0, length], 4, |_| {
        vec![(0.0, 0.0), (half, 0.0), (half, depth), (0.0, depth)]
    });
    body.gunwale = [0.0, length]
        .map(|x| EdgePoint {
            x: Lanes::splat(x),
            y: Lanes::splat(half),
            z: Lanes::splat(depth),
        })
        .to_vec();
    body
}

/// Whether the water cuts across the cockpit floor of a hull `length` m long, or lies at
/// its very height: it then wets station by station, and what is read off two ways of
/// drawing or searching the same body may differ by a station's share.
pub fn floor_cut(values: &Values, length: f64) -> bool {
    let [floor, trim] = [Quantity::FloorAboveWater, Quantity::Trim].map(|q| values.get(q));
    let (Some(floor), Some(trim)) = (floor, trim) else {
        return false;
    };
    // The deep floor is 37 % of the length.
    floor.abs() < 0.37 * length * trim.to_radians().tan().abs() + 1e-3
}

/// A weight of one lane.
pub fn weight(mass: f64, x: f64, y: f64, z: f64) -> Weight<1> {
    Weight {
        mass: Lanes::splat(mass),
        x: Lanes::splat(x),
        y: Lanes::splat(y),
        z: Lanes::splat(z),
    }
}

/// Settles a solid body at `heel` rad in fresh water, finely.
pub fn float(body: &Body<1>, weight: &Weight<1>, heel: f64) -> Settled<1> {
    settle(
        body,
        &body.solid,
        weight,
        FRESH,
        heel,
        Start::LEVEL,
        Accuracy::FINE,
    )
}

/// Righting arm of a settled body, m.
pub fn gz(settled: &Settled<1>, weight: &Weight<1>) -> f64 {
    galvet_core::float::arm(&settled.attitude, &settled.immersion, weight).0[0]
}

/// A hull that capsizes whoever sits in it: narrow, sharp, a high seat.
pub fn needle() -> Survey {
    survey(
        Construction::SitOnTop,
        BottomShape::ShallowVee,
        &[
            (Measure::Length, 4.50),
            (Measure::Beam, 0.58),
            (Measure::SeatLow, 0.25),
            (Measure::RatedCapacity, 200.0),
        ],
    )
}

/// A brief for an angler of `mass` kg and a small rig.
pub fn asked(mass: f64, posture: Posture) -> Brief {
    let mut brief = brief(mass, 1.78, rig(10.0, 0.55, 0.1));
    brief.posture = posture;
    brief
}

/// A hull of a leaflet.
pub fn leaflet(construction: Construction, bottom: BottomShape, of: &[(Measure, f64)]) -> Survey {
    let mut hull = survey(construction, bottom, of);
    for readings in hull.readings.values_mut() {
        readings[0].source = Source::Brochure;
    }
    hull
}

/// A hull's points in all.
pub fn points(hull: &Survey, brief: &Brief) -> f64 {
    let a = assess(hull, brief, 128);
    score(&a, brief, &Scales::of(&Guides::default())).total
}
