//! A bottom's section, small, to point at.

use super::path;
use galvet_core::body::corners;
use galvet_core::hull::BottomShape;

/// A bottom shape's section, 100 units wide, keel down.
#[must_use]
pub fn section_of(bottom: BottomShape) -> String {
    const HALF: f64 = 48.0;
    const HIGH: f64 = 40.0;
    let at =
        |side: f64| move |&(y, z): &(f64, f64)| (50.0 + side * y * HALF, 4.0 + (1.0 - z) * HIGH);
    let half = corners(bottom);
    let port = half.iter().rev().map(at(-1.0));
    path(port.chain(half.iter().skip(1).map(at(1.0))), true)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_bottom_is_drawn_alike_on_both_sides() {
        let flat = section_of(BottomShape::Flat);
        assert!(flat.starts_with("M2.0 4.0"), "{flat}");
        assert!(flat.contains("98.0 4.0"), "{flat}");
    }
}
