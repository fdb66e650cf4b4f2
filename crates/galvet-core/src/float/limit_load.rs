//! How much more a hull carries before a line along it comes too near the water.
//!
//! Further mass `m` goes in at the present load's own centre. The line must
//! stay `clear` above the water, so for each slope the water level is known,
//! and the trim condition alone remains, in one unknown:
//!
//! ```text
//! T(τ) = min over the line of (z - clear - τ X)
//! F(τ) = ∫(X - X_L) dV + τ ∫(ζ - ζ_L) dV - W/ρ ((X_G - X_L) + τ (ζ_G - ζ_L)) = 0
//! m    = ρ ∇ - W
//! ```
//!
//! (G the whole present weight W, L the centre where the load is added.)
//! F grows with τ; safeguarded Newton in a bracket.

use super::equilibrium::Accuracy;
use super::immersion::{Attitude, Immersion, immerse};
use super::weight::Weight;
use crate::base::Lanes;
use crate::body::{Body, EdgePoint, Outline};

/// Slopes searched, bow down to bow up.
const SLOPE_LIMIT: f64 = 0.3;
const STEPS: usize = 30;

/// Upright attitude with the line exactly `clear` metres above the water at
/// its lowest place, for a slope; and the `X` of that place.
fn at_limit<const N: usize>(
    line: &[EdgePoint<N>],
    middle: f64,
    clear: f64,
    slope: Lanes<N>,
) -> (Attitude<N>, Lanes<N>) {
    let mut level = Lanes::splat(f64::INFINITY);
    let mut place = Lanes::ZERO;
    for p in line {
        let arm = p.x - Lanes::splat(middle);
        let here = p.z - Lanes::splat(clear) - slope * arm;
        let lower = here - level;
        place = lower.where_negative(arm, place);
        level = level.min(here);
    }
    let attitude = Attitude {
        heel: 0.0,
        draft: level,
        slope,
    };
    (attitude, place)
}

/// How near the water may come.
#[derive(Debug, Clone, Copy)]
pub struct Limit<'a, const N: usize> {
    /// To this line along the hull.
    pub line: &'a [EdgePoint<N>],
    /// So many metres below it.
    pub clear: f64,
}

/// Further mass, kg, that `present` weight takes at `load`'s centre until the
/// water of `density` comes as near as `limit` allows; negative when it is
/// already too low; not a number in lanes where no such load is found.
/// `None` for an empty line.
#[must_use]
pub fn further_load<const N: usize>(
    body: &Body<N>,
    outline: &Outline<N>,
    limit: Limit<'_, N>,
    present: &Weight<N>,
    load: &Weight<N>,
    density: f64,
    accuracy: Accuracy,
) -> Option<Lanes<N>> {
    let Limit { line, clear } = limit;
    if line.is_empty() {
        return None;
    }
    let middle = body.middle();
    let x_l = load.x - Lanes::splat(middle);
    let x_gl = present.x - load.x;
    let z_gl = present.z - load.z;
    let held = present.mass / Lanes::splat(density);
    let residual = |slope: Lanes<N>, im: &Immersion<N>| {
        im.x_moment - x_l * im.volume + slope * (im.zeta_moment - load.z * im.volume)
            - held * (x_gl + slope * z_gl)
    };
    let mut lo = Lanes::splat(-SLOPE_LIMIT);
    let mut hi = Lanes::splat(SLOPE_LIMIT);
    let mut slope = Lanes::ZERO;
    let mut found = Lanes::splat(f64::NAN);
    for _ in 0..STEPS {
        let (at, place) = at_limit(line, middle, clear, slope);
        let im = immerse(body, outline, &at);
        let f = residual(slope, &im);
        // Along the limit the level falls by `place` for each unit of slope.
        let d_volume = im.area_x - place * im.area;
        let d_x = im.area_xx - place * im.area_x;
        let grows = d_x - x_l * d_volume;
        let step = -f / grows.max(Lanes::splat(1e-6));
        let size = (im.volume.abs() * body.length).max(Lanes::splat(1e-6));
        let off = (f / size).abs() - accuracy.limit;
        // The last step is taken along the waterplane.
        let volume = im.volume + d_volume * step;
        found = off.where_negative(volume * density - present.mass, Lanes::splat(f64::NAN));
        if off.max_lane() < 0.0 {
            break;
        }
        lo = f.where_negative(slope, lo);
        hi = f.where_negative(hi, slope);
        let newton = slope + step;
        let middle_of = (lo + hi) * 0.5;
        let inside = (newton - lo).min(hi - newton);
        slope = inside.where_negative(middle_of, newton);
    }
    Some(found)
}
