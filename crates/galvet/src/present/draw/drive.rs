//! What hangs below a hull and drives it, from the side.

use super::{around, path};
use galvet_core::hull::Propulsion;
use galvet_core::portrait::{Hung, Point};

/// What drives it, below the hull.
pub(super) fn drive(hung: Hung, at: impl Fn(Point) -> Point + Copy) -> String {
    let Hung { x, depth, kind } = hung;
    let mast = path(
        [
            at((x - 0.02, 0.08)),
            at((x + 0.02, 0.08)),
            at((x + 0.015, -depth)),
            at((x - 0.015, -depth)),
        ],
        true,
    );
    let leaf = |points: &[Point]| {
        let points: Vec<Point> = points.iter().map(|&(dx, z)| at((x + dx, z))).collect();
        around(&points)
    };
    match kind {
        Propulsion::FinPedal => {
            // Two fins that swing across the keel.
            let fin = |way: f64| {
                leaf(&[
                    (0.02 * way, 0.0),
                    (0.10 * way, -0.2 * depth),
                    (0.15 * way, -depth),
                    (0.09 * way, -0.95 * depth),
                    (0.0, -0.35 * depth),
                ])
            };
            fin(1.0) + &fin(-1.0)
        }
        Propulsion::Motor | Propulsion::RotaryPedal | Propulsion::Paddle => {
            let long = if kind == Propulsion::Motor {
                0.13
            } else {
                0.07
            };
            let pod = leaf(&[
                (-long, -depth + 0.02),
                (0.5 * long, -depth + 0.045),
                (1.3 * long, -depth + 0.01),
                (0.5 * long, -depth - 0.025),
                (-long, -depth - 0.01),
            ]);
            let blade = leaf(&[
                (1.15 * long, -depth + 0.10),
                (1.15 * long + 0.03, -depth + 0.06),
                (1.15 * long, -depth - 0.09),
                (1.15 * long - 0.02, -depth - 0.05),
            ]);
            mast + &pod + &blade
        }
    }
}
