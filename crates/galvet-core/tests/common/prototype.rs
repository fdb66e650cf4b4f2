//! The handbook's four bodies: an independent prototype's, with their loads.

use super::{brief, posterior, prototype_shape, rig, survey};
use galvet_core::body::Shape;
use galvet_core::figures::Setup;
use galvet_core::hull::{BottomShape, Construction, Measure, Survey};
use galvet_core::question::Brief;
use std::sync::Arc;

/// What the table's anglers weigh as they sit in the boat, less what Galvet
/// dresses them in: wet, as the day ends.
const DRESSED: f64 = 9.0;

/// A body of the table.
pub struct Row {
    pub name: &'static str,
    pub survey: Survey,
    pub shape: Shape,
    pub brief: Brief,
    pub draft: f64,
    pub gm: f64,
    pub support: f64,
    pub gz: [f64; 4],
    /// Largest leans, brief and lasting, m, with the recess over 76 % of the
    /// half-breadth.
    pub leans: [f64; 2],
}

/// A body with its load; what the table says of it where it does.
pub fn row(
    name: &'static str,
    (construction, bottom): (Construction, BottomShape),
    [length, beam, depth, floor, hull]: [f64; 5],
    [mass, stature, seat, kit]: [f64; 4],
    [draft, gm, support]: [f64; 3],
    gz: [f64; 4],
    leans: [f64; 2],
) -> Row {
    Row {
        name,
        survey: survey(
            construction,
            bottom,
            &[
                (Measure::Length, length),
                (Measure::Beam, beam),
                (Measure::FittedWeight, hull),
                (Measure::SeatLow, seat),
            ],
        ),
        shape: Shape {
            guess: [0.0; 3],
            seats: [seat; 2],
            ..prototype_shape(bottom, depth, floor, hull)
        },
        // The table's anglers are weighed as they sit in the boat.
        brief: brief(mass - DRESSED, stature, rig(kit, 0.60, 0.25 - floor)),
        draft,
        gm,
        support,
        gz,
        leans,
    }
}

/// The four bodies.
pub fn table() -> [Row; 4] {
    use BottomShape as B;
    use Construction::{Board, SitOnTop};
    [
        row(
            "3.70 m tunnel",
            (SitOnTop, B::Tunnel),
            [3.70, 0.90, 0.36, 0.135, 50.0],
            [82.0, 1.80, 0.22, 24.0],
            [0.10, 0.33, 1.09],
            [0.028, 0.050, 0.068, 0.052],
            [0.18, 0.15],
        ),
        row(
            "2.90 m shallow arch",
            (SitOnTop, B::ShallowArch),
            [2.90, 0.79, 0.34, 0.135, 23.0],
            [78.0, 1.74, 0.08, 14.0],
            [0.11, 0.10, 0.47],
            [0.008, 0.012, 0.007, -0.007],
            [0.035, 0.021],
        ),
        row(
            "4.40 m shallow vee",
            (SitOnTop, B::ShallowVee),
            [4.40, 0.74, 0.36, 0.135, 33.0],
            [78.0, 1.76, 0.06, 20.0],
            [0.10, 0.17, 0.61],
            [0.015, 0.024, 0.023, 0.010],
            [0.060, 0.048],
        ),
        row(
            "3.50 m board",
            (Board, B::Board),
            [3.50, 0.86, 0.20, 0.16, 34.0],
            [74.0, 1.76, 0.40, 12.0],
            [0.07, 0.43, 1.34],
            [0.037, 0.062, 0.046, -0.015],
            [0.11, 0.11],
        ),
    ]
}

/// A body ready to be floated.
pub fn setup(row: &Row) -> Setup {
    Setup::new(posterior(&row.survey, 1), Arc::new(row.brief.clone()))
}
