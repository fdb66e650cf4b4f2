//! Somebody seated beside the angler: one link more in the equations. Untried, as the handbook
//! says of it; its own trunk, the angler's kind of balance.

use super::angler::{Angler, Felt};
use super::roll::{Roll, SEATED_HIPS};
use super::state::{At, Mode, Push};

impl Roll<'_> {
    /// The same with somebody seated beside, whose legs are one with the hull and whose trunk
    /// is not: one link more.
    pub(super) fn with_mate(
        &self,
        at: &At,
        body: &Felt,
        mate: &Angler,
        [hull, legs, trunk, feet]: [f64; 4],
        (cos, push): (f64, &Push),
    ) -> ([f64; 4], f64) {
        let boat = self.boat;
        let beside = mate.at(mate.hips()[0]);
        let [lean, lean_rate, active] = at.mate;
        let ([_, g2], [b11, b12, b22]) = (beside.over, beside.inertia);
        let (b_sin, b_cos) = (at.heel - lean).sin_cos();
        let (stiff, damped) = SEATED_HIPS;
        let bent = stiff * (lean - at.heel) + damped * (lean_rate - at.heel_rate);
        let hips = g2 * bent + active;
        let tips = |angle: f64| angle.sin() - push.slope * angle.cos();
        let base = beside.over[0] * tips(at.heel) - b12 * b_sin * lean_rate.powi(2) + hips;
        let top = g2 * tips(lean) + b12 * b_sin * at.heel_rate.powi(2) - hips;
        let inertia = boat.inertia + boat.added + b11 + beside.own[0];
        if self.locked {
            let stiff = boat.inertia + boat.added + body.stiff() + beside.stiff();
            let one = (hull + legs + trunk + base + top) / stiff;
            return ([one; 4], 0.0);
        }
        let up = self.mode == Mode::Up;
        let seated = (inertia, b12 * b_cos, b22 + beside.own[1]);
        let mut m = rows(up, body, cos, seated);
        let mut torques = if up {
            [hull + feet + base, legs - feet, trunk, top]
        } else {
            [hull + legs + base, 0.0, trunk, top]
        };
        let [one, two] = body.aside(at.legs, at.trunk);
        let [b_one, b_two] = beside.aside(at.heel, lean);
        let along = if up {
            [b_one, one, two, b_two]
        } else {
            [b_one + one, 0.0, two, b_two]
        };
        let pull = push.force - boat.sideways * at.sway
            + body.flung([at.legs, at.legs_rate], [at.trunk, at.trunk_rate])
            + beside.flung([at.heel, at.heel_rate], [lean, lean_rate]);
        let mass = boat.sideways_mass;
        if self.sways {
            for ((row, torque), a) in m.iter_mut().zip(&mut torques).zip(along) {
                *torque -= a * pull / mass;
                for (value, b) in row.iter_mut().zip(along) {
                    *value -= a * b / mass;
                }
            }
        }
        let mut rates = eliminated(m, torques);
        if !up {
            rates[1] = rates[0];
        }
        let moved: f64 = along.iter().zip(rates).map(|(a, b)| a * b).sum();
        let sway = if self.sways {
            (pull - moved) / mass
        } else {
            0.0
        };
        (rates, sway)
    }
}

/// Inertias of hull, legs, trunk and the mate's trunk: on the feet hull and legs meet in a
/// torque only; in the seat the legs' row is the hull's, and theirs says nothing.
/// `seated`: hull with the mate's legs, what couples it with the mate's trunk, that trunk.
fn rows(up: bool, body: &Felt, cos: f64, seated: (f64, f64, f64)) -> [[f64; 4]; 4] {
    let (inertia, coupled, far) = seated;
    let [m11, m12, m22] = body.inertia;
    let [i1, i2] = body.own;
    let (leg, near, trunk) = (m11 + i1, m12 * cos, m22 + i2);
    if up {
        [
            [inertia, 0.0, 0.0, coupled],
            [0.0, leg, near, 0.0],
            [0.0, near, trunk, 0.0],
            [coupled, 0.0, 0.0, far],
        ]
    } else {
        [
            [inertia + leg, 0.0, near, coupled],
            [0.0, 1.0, 0.0, 0.0],
            [near, 0.0, trunk, 0.0],
            [coupled, 0.0, 0.0, far],
        ]
    }
}

/// Four equations, by Gauss's elimination with the largest of a column first.
fn eliminated(mut m: [[f64; 4]; 4], mut x: [f64; 4]) -> [f64; 4] {
    for k in 0..4 {
        let largest = (k..4).max_by(|&i, &j| m[i][k].abs().total_cmp(&m[j][k].abs()));
        let best = largest.unwrap_or(k);
        m.swap(k, best);
        x.swap(k, best);
        for i in k + 1..4 {
            let by = m[i][k] / m[k][k];
            let row = m[k];
            for (a, b) in m[i].iter_mut().zip(row).skip(k) {
                *a -= by * b;
            }
            x[i] -= by * x[k];
        }
    }
    for k in (0..4).rev() {
        for j in k + 1..4 {
            x[k] -= m[k][j] * x[j];
        }
        x[k] /= m[k][k];
    }
    x
}

#[cfg(test)]
mod tests {
    use super::eliminated;

    #[test]
    fn four_equations_give_their_unknowns_back() {
        // The largest of a column stands last.
        let m = [
            [0.0, 2.0, 1.0, 1.0],
            [1.0, 1.0, 0.0, 3.0],
            [2.0, 0.0, 1.0, 0.0],
            [4.0, 1.0, 1.0, 1.0],
        ];
        let wanted = [1.0, -2.0, 3.0, 0.5];
        let row = |row: [f64; 4]| row.iter().zip(wanted).map(|(a, b)| a * b).sum();
        let got = eliminated(m, m.map(row));
        for (a, b) in got.iter().zip(wanted) {
            assert!((a - b).abs() < 1e-12, "{got:?}");
        }
    }
}
