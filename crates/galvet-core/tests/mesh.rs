//! A second route to volume and centres: the same body as a closed triangle
//! mesh, cut by the water plane triangle by triangle. Shares no code with the
//! section integration.

use crate::common;

use common::body_from;
use galvet_core::base::Lanes;
use galvet_core::float::{Attitude, immerse};
use proptest::prelude::*;
use proptest::test_runner::RngSeed;

type V3 = [f64; 3];

fn sub(a: V3, b: V3) -> V3 {
    [a[0] - b[0], a[1] - b[1], a[2] - b[2]]
}

fn cross(a: V3, b: V3) -> V3 {
    [
        a[1] * b[2] - a[2] * b[1],
        a[2] * b[0] - a[0] * b[2],
        a[0] * b[1] - a[1] * b[0],
    ]
}

fn dot(a: V3, b: V3) -> f64 {
    a[0] * b[0] + a[1] * b[1] + a[2] * b[2]
}

/// Half-section of the test body at a share of the length: a fixed outline
/// with a tunnel and a recess, scaled. Scaled sections make every patch
/// between two stations plane, so mesh and ruled body are the same solid.
const OUTLINE: [(f64, f64); 9] = [
    (0.0, 0.06),
    (0.10, 0.01),
    (0.26, 0.0),
    (0.38, 0.07),
    (0.44, 0.30),
    (0.44, 0.40),
    (0.34, 0.40),
    (0.34, 0.15),
    (0.0, 0.15),
];
const LENGTH: f64 = 3.4;
const GAPS: usize = 34;

/// Scale of the section: asymmetric between bow and stern, linear in a gap.
fn scale(x: f64) -> f64 {
    let at = |i: usize| {
        let u = i as f64 / GAPS as f64;
        0.15 + 0.85 * (1.0 - (2.0 * u - 0.9).powi(2) / 1.21).max(0.0)
    };
    let gap = (x / LENGTH * GAPS as f64).min(GAPS as f64 - 1e-9);
    let i = gap as usize;
    at(i) + (at(i + 1) - at(i)) * gap.fract()
}

fn section(x: f64) -> Vec<(f64, f64)> {
    let s = scale(x);
    OUTLINE.iter().map(|&(y, z)| (s * y, s * z)).collect()
}

/// Outward triangles of the whole body.
fn mesh() -> Vec<[V3; 3]> {
    let ring = |i: usize| -> Vec<V3> {
        let x = LENGTH * i as f64 / GAPS as f64;
        let x_in = x.min(LENGTH - 1e-12);
        let half = section(x_in);
        let starboard = half.iter().map(|&(y, z)| [x, y, z]);
        let port = half.iter().rev().map(|&(y, z)| [x, -y, z]);
        starboard.chain(port).collect()
    };
    let mut triangles = Vec::new();
    for i in 0..GAPS {
        let (a, b) = (ring(i), ring(i + 1));
        let n = a.len();
        for k in 0..n {
            let next = (k + 1) % n;
            triangles.push([a[k], a[next], b[next]]);
            triangles.push([a[k], b[next], b[k]]);
        }
    }
    // Ends: a fan from any corner is right for signed volumes.
    let (first, last) = (ring(0), ring(GAPS));
    for k in 1..first.len() - 1 {
        triangles.push([first[0], first[k + 1], first[k]]);
        triangles.push([last[0], last[k], last[k + 1]]);
    }
    triangles
}

/// Volume below the plane `dot(normal, p) < level` and its first moments.
fn below(triangles: &[[V3; 3]], normal: V3, level: f64) -> (f64, V3) {
    // Tetrahedra to a point of the plane: the cut face then has no volume.
    let size = dot(normal, normal);
    let origin = normal.map(|c| c * level / size);
    let (mut volume, mut moment) = (0.0, [0.0; 3]);
    for triangle in triangles {
        let mut wet: Vec<V3> = Vec::new();
        for k in 0..3 {
            let (p, q) = (triangle[k], triangle[(k + 1) % 3]);
            let (dp, dq) = (dot(normal, p) - level, dot(normal, q) - level);
            if dp < 0.0 {
                wet.push(p);
            }
            if (dp < 0.0) != (dq < 0.0) {
                let t = dp / (dp - dq);
                wet.push(std::array::from_fn(|c| p[c] + (q[c] - p[c]) * t));
            }
        }
        for k in 2..wet.len() {
            let corners = [wet[0], wet[k - 1], wet[k]].map(|p| sub(p, origin));
            let tetra = dot(corners[0], cross(corners[1], corners[2])) / 6.0;
            volume += tetra;
            for (c, m) in moment.iter_mut().enumerate() {
                let centre: f64 = corners.iter().map(|p| p[c]).sum::<f64>() / 4.0 + origin[c];
                *m += tetra * centre;
            }
        }
    }
    (volume, moment)
}

proptest! {
    #![proptest_config(ProptestConfig {
        cases: 48,
        rng_seed: RngSeed::Fixed(20_261_125),
        ..ProptestConfig::default()
    })]

    #[test]
    fn sections_and_mesh_agree_at_any_attitude(
        heel in -80.0..80.0_f64, slope in -0.08..0.08_f64, draft in 0.05..0.3_f64,
    ) {
        let breaks: Vec<f64> = (0..=GAPS).map(|i| LENGTH * i as f64 / GAPS as f64).collect();
        let body = body_from(LENGTH, &breaks, 4, section);
        let heel = heel.to_radians();
        let at = Attitude { heel, draft: Lanes::<1>::splat(draft), slope: Lanes::splat(slope) };
        let im = immerse(&body, &body.solid, &at);
        // The plane z cos - y sin < draft + slope (x - middle).
        let normal = [-slope, -heel.sin(), heel.cos()];
        let level = draft - slope * body.middle();
        let (volume, moment) = below(&mesh(), normal, level);
        prop_assume!(volume > 1e-3);
        let near = |a: f64, b: f64, size: f64| (a - b).abs() < 2e-3 * size;
        prop_assert!(near(im.volume.0[0], volume, volume), "{} {volume}", im.volume.0[0]);
        let x = moment[0] - body.middle() * volume;
        let eta = moment[1] * heel.cos() + moment[2] * heel.sin();
        let zeta = moment[2] * heel.cos() - moment[1] * heel.sin();
        prop_assert!(near(im.x_moment.0[0], x, volume), "{} {x}", im.x_moment.0[0]);
        prop_assert!(near(im.eta_moment.0[0], eta, volume * 0.4), "{} {eta}", im.eta_moment.0[0]);
        prop_assert!(near(im.zeta_moment.0[0], zeta, volume * 0.4), "{} {zeta}", im.zeta_moment.0[0]);
    }
}
