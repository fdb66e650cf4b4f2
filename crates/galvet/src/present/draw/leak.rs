//! Water inside litre by litre: what is left of freeboard, lean room and stiffness.

use super::{coordinate, path};
use galvet_core::aboard::{Leaking, Wetted};
use galvet_core::base::{Dimension, System};

/// One curve over litres: what it is, its line, what it begins and ends at.
pub struct LeakCurve {
    pub name: &'static str,
    pub line: String,
    pub from: String,
    pub to: String,
    /// Where its name stands.
    pub at: String,
}

/// Curves over litres, in a box of 496 × 190; each on a scale of its own, full at the most
/// it reaches and nought at the base.
pub struct LeakCurves {
    pub curves: Vec<LeakCurve>,
    /// Litres along, with their words.
    pub ticks: Vec<(String, String)>,
    /// All of it in a sentence.
    pub words: String,
}

/// Left edge and width, top and height of the part drawn in.
const BOX: (f64, f64, f64, f64) = (16.0, 350.0, 14.0, 146.0);

/// Draws them; `None` where there is nothing to go along.
pub fn leak_curves(course: &[Leaking], system: System) -> Option<LeakCurves> {
    let (first, last) = (course.first()?, course.last()?);
    if course.len() < 2 {
        return None;
    }
    let (left, wide, top, high) = BOX;
    let x = |water: f64| left + water / last.water * wide;
    let cm = |m: f64| system.text(Dimension::ShortLength, m, 1);
    let draw = |name, of: fn(&Leaking) -> f64| {
        let most = course.iter().map(of).fold(1e-9, f64::max);
        let y = |v: f64| top + (1.0 - (v / most).max(0.0)) * high;
        LeakCurve {
            name,
            line: path(course.iter().map(|c| (x(c.water), y(of(c)))), false),
            from: cm(of(first)),
            to: cm(of(last)),
            at: coordinate(y(of(last)) + 5.0),
        }
    };
    let curves = vec![
        draw("freeboard", |c| c.freeboard),
        draw("lean", |c| c.lean.max(0.0)),
        draw("stiffness", |c| c.gm.max(0.0)),
    ];
    let litres = |v: f64| system.text(Dimension::Volume, v, 0);
    let each = curves
        .iter()
        .map(|c| format!("{} {} to {}", c.name, c.from, c.to));
    let words = format!(
        "From none to {} loose inside, upright: {}; trim {} to {}",
        litres(last.water),
        each.collect::<Vec<_>>().join(", "),
        system.text(Dimension::Angle, first.trim.to_degrees(), 1),
        system.text(Dimension::Angle, last.trim.to_degrees(), 1),
    );
    let ticks = (0..=4).map(|n| {
        let water = last.water * f64::from(n) / 4.0;
        (coordinate(x(water)), litres(water))
    });
    let ticks = ticks.collect();
    Some(LeakCurves {
        curves: apart(curves),
        ticks,
        words,
    })
}

/// Names moved apart where they would lie on one another.
fn apart(mut curves: Vec<LeakCurve>) -> Vec<LeakCurve> {
    const LINE: f64 = 16.0;
    let mut order: Vec<(f64, usize)> = curves
        .iter()
        .enumerate()
        .filter_map(|(n, c)| Some((c.at.parse().ok()?, n)))
        .collect();
    order.sort_by(|a, b| a.0.total_cmp(&b.0));
    // From the base upward: nothing stands below it.
    let mut lowest = 164.0_f64;
    for (y, n) in order.into_iter().rev() {
        let at = y.min(lowest);
        lowest = at - LINE;
        curves[n].at = coordinate(at);
    }
    curves
}

/// A section with water in it, in a box of 200 × 130, the water outside at height 70.
pub struct Sloshing {
    pub skin: String,
    pub inside: String,
}

/// Draws it.
pub fn sloshing(wetted: &Wetted) -> Sloshing {
    /// Drawn units in a metre, and where the middle and the water outside lie.
    const SCALE: f64 = 190.0;
    const AT: (f64, f64) = (100.0, 70.0);
    let drawn = |points: &[(f64, f64)]| {
        let at = |&(y, z): &(f64, f64)| (AT.0 + SCALE * y, AT.1 - SCALE * z);
        path(points.iter().map(at), true)
    };
    Sloshing {
        skin: drawn(&wetted.skin),
        inside: drawn(&wetted.inside),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn curves_fall_from_the_top_to_what_is_left() {
        let at = |litres: f64, share: f64| Leaking {
            water: litres / 1000.0,
            freeboard: 0.2 * share,
            trim: 0.01 * litres,
            gm: 0.1 * share,
            lean: 0.05 * share,
        };
        let drawn = leak_curves(&[at(0.0, 1.0), at(40.0, 0.5)], System::Metric).unwrap();
        // Half of each is left: half way down, on a scale of its own.
        for curve in &drawn.curves {
            assert!(curve.line.starts_with("M16.0 14.0"), "{}", curve.line);
            assert!(curve.line.ends_with("366.0 87.0"), "{}", curve.line);
        }
        // Names do not lie on one another.
        let at: Vec<f64> = drawn.curves.iter().map(|c| c.at.parse().unwrap()).collect();
        assert!(
            (at[0] - at[1]).abs() >= 16.0 && (at[1] - at[2]).abs() >= 16.0,
            "{at:?}"
        );
        assert!(leak_curves(&[], System::Metric).is_none());
    }
}
