//! The angler in view-box units.

use super::{around, coordinate, tapered};
use galvet_core::portrait::{Limb, Person, Point};

/// A person in view-box units.
pub struct Figure {
    /// Outlines of the limbs, and of the trunk.
    pub body: String,
    pub trunk: String,
    /// The flotation aid, worn.
    pub aid: String,
    /// The near arm, over the aid.
    pub near: String,
    /// The cap.
    pub cap: String,
    /// Centre of the head.
    pub head: (String, String),
    /// Its radius.
    pub radius: String,
}

/// Draws a person: `at` leads from metres to the drawing, `scale` is its units a metre.
pub(crate) fn figure(person: &Person, at: impl Fn(Point) -> Point, scale: f64) -> Figure {
    let head = at(person.head);
    let outline = |points: &[Point]| {
        let points: Vec<_> = points.iter().map(|&p| at(p)).collect();
        around(&points)
    };
    let limbs = |all: &[Limb]| -> String {
        let outline = |limb: &Limb| {
            let joints = limb.joints.iter().zip(&limb.widths);
            let joints: Vec<_> = joints.map(|(&p, width)| (at(p), width * scale)).collect();
            tapered(&joints)
        };
        all.iter().map(outline).collect()
    };
    Figure {
        body: limbs(&person.limbs),
        trunk: outline(&person.trunk),
        near: limbs(&person.near),
        aid: outline(&person.aid),
        cap: outline(&person.cap),
        head: (coordinate(head.0), coordinate(head.1)),
        radius: coordinate(person.head_radius * scale),
    }
}
