//! Bottom shapes: the normalised half-sections estimated bodies are drawn from.

use crate::hull::BottomShape;

/// Corners as (share of the half-breadth, share of the depth), from the
/// centreline outward and up to the gunwale. Guide values: handbook,
/// chapter 2, the prototype's half-sections.
#[must_use]
pub const fn corners(bottom: BottomShape) -> &'static [(f64, f64)] {
    match bottom {
        BottomShape::Flat => &[
            (0.0, 0.0),
            (0.78, 0.0),
            (0.90, 0.06),
            (0.97, 0.25),
            (1.0, 0.6),
            (1.0, 1.0),
        ],
        BottomShape::ShallowArch => &[
            (0.0, 0.0),
            (0.35, 0.02),
            (0.6, 0.07),
            (0.8, 0.17),
            (0.93, 0.36),
            (1.0, 0.65),
            (1.0, 1.0),
        ],
        BottomShape::ShallowVee => &[
            (0.0, 0.0),
            (0.4, 0.07),
            (0.7, 0.14),
            (0.88, 0.24),
            (0.97, 0.42),
            (1.0, 0.65),
            (1.0, 1.0),
        ],
        BottomShape::Tunnel => &[
            (0.0, 0.14),
            (0.15, 0.12),
            (0.3, 0.04),
            (0.45, 0.0),
            (0.65, 0.0),
            (0.85, 0.08),
            (0.96, 0.28),
            (1.0, 0.6),
            (1.0, 1.0),
        ],
        BottomShape::TriLobe => &[
            (0.0, 0.0),
            (0.15, 0.02),
            (0.3, 0.09),
            (0.45, 0.10),
            (0.6, 0.04),
            (0.72, 0.03),
            (0.88, 0.1),
            (0.97, 0.3),
            (1.0, 0.6),
            (1.0, 1.0),
        ],
        BottomShape::Board => &[
            (0.0, 0.0),
            (0.8, 0.02),
            (0.95, 0.2),
            (1.0, 0.5),
            (0.97, 0.85),
            (0.93, 1.0),
        ],
    }
}

/// Height, as a share of the depth, to which a bottom reaches up again inside
/// its lowest corners: the roof of a tunnel, 0 for a plain bottom. A recess floor
/// lies above it.
#[must_use]
pub fn crown(bottom: BottomShape) -> f64 {
    let corners = corners(bottom);
    let mut crown: f64 = 0.0;
    for (k, corner) in corners.iter().enumerate() {
        if corners[k..].iter().any(|later| later.1 < corner.1) {
            crown = crown.max(corner.1);
        }
    }
    crown
}

/// Swells (`fullness` > 0) or starves (< 0) a half-section between its fixed
/// ends: `y' = y + 4 e y (1 - y)`. At half breadth it moves by `e`; the
/// centreline and the gunwale stay. Monotone for |e| < 0.25.
#[must_use]
pub fn swell(share: f64, fullness: f64) -> f64 {
    share + 4.0 * fullness * share * (1.0 - share)
}

/// Height share at which the side begins to lean out: the chine. Guide value.
const CHINE: f64 = 0.3;

/// Height share at which a section is widest: the gunwale, or a board's edge.
const fn widest(bottom: BottomShape) -> f64 {
    match bottom {
        BottomShape::Board => 0.5,
        _ => 1.0,
    }
}

/// Half-breadth share of a corner once the section is swelled by `fullness` and its
/// side leans out by `flare`: below the chine the breadth is less by that share, from
/// there up ever less so, and nothing at the widest place, which is the greatest beam.
/// A section that keeps its width (`flare` < 0) never gets wider than that beam.
#[must_use]
pub fn skin(bottom: BottomShape, corner: (f64, f64), fullness: f64, flare: f64) -> f64 {
    let (share, height) = corner;
    let widest = widest(bottom);
    // A board's chine lies as far below its edge as its shallow side allows.
    let chine = CHINE.min(0.4 * widest);
    let part = ((widest - height) / (widest - chine)).clamp(0.0, 1.0);
    (swell(share, fullness) * (1.0 - flare * part)).min(1.0)
}

/// Half-breadth share of a section at a height share between 0 and 1: the outermost
/// place where the outline passes that height.
#[must_use]
pub fn breadth_at(bottom: BottomShape, fullness: f64, flare: f64, height: f64) -> f64 {
    let place = |c: &(f64, f64)| (skin(bottom, *c, fullness, flare), c.1);
    let outline: Vec<(f64, f64)> = corners(bottom).iter().map(place).collect();
    outermost(&outline, height)
}

/// Outermost place at which an outline of `(breadth, height)` passes a height; 0 where it
/// does not.
#[must_use]
pub fn outermost(outline: &[(f64, f64)], height: f64) -> f64 {
    let crossings = outline.windows(2).filter_map(|pair| {
        let [(y0, z0), (y1, z1)] = [pair[0], pair[1]];
        let (lo, hi) = (z0.min(z1), z0.max(z1));
        (height >= lo && height <= hi).then(|| {
            if hi - lo < 1e-12 {
                y0.max(y1)
            } else {
                y0 + (y1 - y0) * (height - z0) / (z1 - z0)
            }
        })
    });
    crossings.fold(0.0, f64::max)
}

/// The corners of a bottom swelled and leaned out, as shares of half-breadth and depth,
/// with edges halved, the longest first, until there are `count`: bodies drawn side by
/// side have as many, and no outline moves.
#[must_use]
pub fn outline(bottom: BottomShape, fullness: f64, flare: f64, count: usize) -> Vec<(f64, f64)> {
    let mut out = Vec::with_capacity(count);
    let own = corners(bottom).iter();
    out.extend(own.map(|&c| (skin(bottom, c, fullness, flare), c.1)));
    let long = |pair: &[(f64, f64)]| (pair[1].0 - pair[0].0).hypot(pair[1].1 - pair[0].1);
    while out.len() < count {
        let edges = out.windows(2).map(long).enumerate();
        let at = edges.max_by(|a, b| a.1.total_cmp(&b.1)).map_or(0, |e| e.0);
        let [a, b] = [out[at], out[at + 1]];
        out.insert(at + 1, (0.5 * (a.0 + b.0), 0.5 * (a.1 + b.1)));
    }
    out
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::base::Keyed;

    #[test]
    fn every_section_starts_at_the_centreline_and_ends_at_the_top() {
        for &shape in BottomShape::ALL {
            let c = corners(shape);
            assert_eq!(c[0].0, 0.0, "{}", shape.key());
            assert_eq!(c[c.len() - 1].1, 1.0, "{}", shape.key());
            assert!(
                c.iter().any(|p| p.1 == 0.0),
                "{} touches the baseline",
                shape.key()
            );
        }
    }

    #[test]
    fn a_crown_is_what_a_floor_must_clear() {
        assert_eq!(crown(BottomShape::Tunnel), 0.14);
        assert_eq!(crown(BottomShape::TriLobe), 0.10);
        assert_eq!(crown(BottomShape::ShallowVee), 0.0);
    }

    #[test]
    fn swelling_keeps_ends_and_order() {
        for fullness in [-0.2, -0.05, 0.0, 0.1, 0.2] {
            assert_eq!(swell(0.0, fullness), 0.0);
            assert_eq!(swell(1.0, fullness), 1.0);
            let steps: Vec<f64> = (0..=50)
                .map(|i| swell(f64::from(i) / 50.0, fullness))
                .collect();
            assert!(steps.is_sorted(), "fullness {fullness}");
        }
        assert!((swell(0.5, 0.08) - 0.58).abs() < 1e-12);
    }

    #[test]
    fn breadth_is_read_off_the_outer_side() {
        let at = |height| breadth_at(BottomShape::Tunnel, 0.0, 0.0, height);
        // At 6 % of the depth the tunnel's inner flank (near 0.26) is passed too.
        assert!((at(0.06) - 0.80).abs() < 1e-9, "{}", at(0.06));
        assert!((at(0.44) - 0.98).abs() < 1e-9);
    }

    #[test]
    fn a_side_that_leans_out_is_narrower_below_and_as_wide_at_the_top() {
        let at = |flare, height| breadth_at(BottomShape::Flat, 0.0, flare, height);
        // Below the chine the whole share is lost, half-way up half of it.
        assert!((at(0.08, 0.25) - 0.97 * 0.92).abs() < 1e-9);
        let half_way = skin(BottomShape::Flat, (1.0, 0.65), 0.0, 0.08);
        assert!((half_way - 0.96).abs() < 1e-9, "{half_way}");
        for &bottom in BottomShape::ALL {
            for flare in [-0.08, 0.0, 0.08] {
                let widest = corners(bottom).iter().map(|&c| skin(bottom, c, 0.0, flare));
                let widest = widest.fold(0.0, f64::max);
                assert!((widest - 1.0).abs() < 1e-9, "{}: {widest}", bottom.key());
            }
        }
    }

    #[test]
    fn more_corners_leave_the_outline_where_it_is() {
        for &bottom in BottomShape::ALL {
            let more = outline(bottom, 0.07, 0.05, 12);
            assert_eq!(more.len(), 12);
            let own = outline(bottom, 0.07, 0.05, 0);
            let area = |c: &[(f64, f64)]| {
                let edge = |p: &[(f64, f64)]| 0.5 * (p[0].0 + p[1].0) * (p[1].1 - p[0].1);
                c.windows(2).map(edge).sum::<f64>()
            };
            assert!((area(&more) - area(&own)).abs() < 1e-12);
        }
    }
}
