//! The angler as a plain figure, built from the stature.
//!
//! Segment lengths as shares of the stature after R. Drillis and R. Contini,
//! "Body Segment Parameters" (1966): head and neck 0.18, trunk 0.29, thigh
//! 0.245, shank 0.246, upper arm 0.186, forearm and hand 0.25; the foot's
//! height is what is left.

/// A place in a drawing, m.
pub type Point = (f64, f64);

const HEAD_NECK: f64 = 0.18;
const TRUNK: f64 = 0.29;
const THIGH: f64 = 0.245;
const SHANK: f64 = 0.246;
const UPPER_ARM: f64 = 0.186;
const FOREARM: f64 = 0.25;
const FOOT: f64 = 1.0 - HEAD_NECK - TRUNK - THIGH - SHANK;
/// Radius of the head, share of the stature.
const HEAD: f64 = 0.062;
/// Half the breadth of shoulders and hips, shares of the stature.
const SHOULDER: f64 = 0.129;
const HIP: f64 = 0.075;
/// Thickness of trunk, neck, legs and arms as drawn, shares of the stature.
const TRUNK_WIDTH: f64 = 0.115;
const NECK_WIDTH: f64 = 0.05;
const LEG_WIDTH: f64 = 0.065;
const ARM_WIDTH: f64 = 0.045;
/// Half a seated body's thickness: the hip joint's height over the seat.
const SEATED_HIP: f64 = 0.05;

/// A limb, or the trunk: a line through its joints and how thick it is.
#[derive(Debug, Clone, PartialEq)]
pub struct Limb {
    /// Joints from end to end.
    pub joints: Vec<Point>,
    /// Thickness, m.
    pub width: f64,
}

/// Limbs as lines between joints, and the head.
#[derive(Debug, Clone, PartialEq)]
pub struct Person {
    /// Trunk, neck, arms and legs.
    pub limbs: Vec<Limb>,
    /// Centre of the head.
    pub head: Point,
    /// Its radius, m.
    pub head_radius: f64,
}

/// What reaches this far above the hip leans with the trunk, share of the trunk.
const WAIST: f64 = 0.5;

impl Person {
    /// The trunk, the arms and the head leaned by `angle` rad towards positive `y`
    /// about `hip`, as seen from ahead; the legs stay.
    #[must_use]
    pub fn leaned(&self, hip: Point, angle: f64) -> Self {
        let (sin, cos) = angle.sin_cos();
        let turn = |(y, z): Point| {
            let (dy, dz) = (y - hip.0, z - hip.1);
            (hip.0 + dy * cos + dz * sin, hip.1 - dy * sin + dz * cos)
        };
        let trunk = (self.head.1 - hip.1) * TRUNK / (TRUNK + HEAD_NECK - HEAD);
        let above = |limb: &Limb| {
            let top = limb.joints.iter().map(|p| p.1).fold(f64::MIN, f64::max);
            top > hip.1 + WAIST * trunk
        };
        let limbs = self.limbs.iter().map(|limb| {
            let mut out = limb.clone();
            if above(limb) {
                out.joints.iter_mut().for_each(|p| *p = turn(*p));
            }
            out
        });
        Self {
            limbs: limbs.collect(),
            head: turn(self.head),
            head_radius: self.head_radius,
        }
    }
}

/// Height of the hip joint of somebody of a `stature`, seated at `surface`, m.
#[must_use]
pub fn seated_hip(surface: f64, stature: f64) -> f64 {
    surface + SEATED_HIP * stature
}

fn limb(joints: Vec<Point>, width: f64, stature: f64) -> Limb {
    Limb {
        joints,
        width: width * stature,
    }
}

/// The joint between two limbs of lengths `a` and `b` from `from` to `to`, on
/// the side to which `bend` points (+1 to the left of the way, -1 to the
/// right). Too far apart, the limbs are stretched out.
fn joint(from: Point, to: Point, a: f64, b: f64, bend: f64) -> Point {
    let (dx, dz) = (to.0 - from.0, to.1 - from.1);
    let reach = dx.hypot(dz).max(1e-6);
    let along = ((a * a - b * b + reach * reach) / (2.0 * reach)).min(a);
    let off = (a * a - along * along).max(0.0).sqrt() * bend;
    let (ux, uz) = (dx / reach, dz / reach);
    (
        from.0 + ux * along - uz * off,
        from.1 + uz * along + ux * off,
    )
}

/// A point on the way from `from` to `to`, no further than `most`.
fn within(from: Point, to: Point, most: f64) -> Point {
    let (dx, dz) = (to.0 - from.0, to.1 - from.1);
    let scale = (most / dx.hypot(dz).max(1e-6)).min(1.0);
    (from.0 + dx * scale, from.1 + dz * scale)
}

/// Trunk, head and arm above a hip, seen from the side; the bow lies to the
/// left. `lean` leans the trunk aft, rad.
fn upper(hip: Point, stature: f64, lean: f64) -> (Vec<Limb>, Point) {
    let up = |from: Point, length: f64, lean: f64| {
        (
            from.0 + length * lean.sin() * stature,
            from.1 + length * lean.cos() * stature,
        )
    };
    let shoulder = up(hip, TRUNK, lean);
    let head = up(shoulder, HEAD_NECK - HEAD, 0.5 * lean);
    let wanted = (shoulder.0 - 0.30 * stature, shoulder.1 - 0.16 * stature);
    let hand = within(shoulder, wanted, 0.95 * (UPPER_ARM + FOREARM) * stature);
    let elbow = joint(shoulder, hand, UPPER_ARM * stature, FOREARM * stature, 1.0);
    // The trunk's thick line ends short of hip and shoulder: its round ends reach.
    let inner = |from: Point, to: Point| {
        let short = 0.5 * TRUNK_WIDTH / TRUNK;
        (
            from.0 + (to.0 - from.0) * short,
            from.1 + (to.1 - from.1) * short,
        )
    };
    let trunk = vec![inner(hip, shoulder), inner(shoulder, hip)];
    let limbs = vec![
        limb(trunk, TRUNK_WIDTH, stature),
        limb(vec![shoulder, head], NECK_WIDTH, stature),
        limb(vec![shoulder, elbow, hand], ARM_WIDTH, stature),
    ];
    (limbs, head)
}

/// Seated, seen from starboard, bow to the left: on a seat at `seat` (x, height
/// of its surface), feet on the floor at height `floor` ahead of it.
#[must_use]
pub fn seated(seat: Point, floor: f64, stature: f64) -> Person {
    let hip = (seat.0, seat.1 + SEATED_HIP * stature);
    let ankle = (seat.0 - 0.42 * stature, floor + FOOT * stature);
    let ankle = within(hip, ankle, 0.97 * (THIGH + SHANK) * stature);
    // Knees go up: to the right of the way forward.
    let knee = joint(hip, ankle, THIGH * stature, SHANK * stature, -1.0);
    let toe = (ankle.0 - 0.06 * stature, ankle.1 + 0.05 * stature);
    let (mut limbs, head) = upper(hip, stature, 0.22);
    limbs.push(limb(vec![hip, knee, ankle, toe], LEG_WIDTH, stature));
    Person {
        limbs,
        head,
        head_radius: HEAD * stature,
    }
}

/// Standing, seen from starboard, feet at `feet` (x, height of the floor).
#[must_use]
pub fn standing(feet: Point, stature: f64) -> Person {
    let ankle = (feet.0, feet.1 + FOOT * stature);
    let toe = (feet.0 - 0.1 * stature, feet.1);
    let heel = (feet.0 + 0.04 * stature, feet.1);
    let hip = (feet.0, ankle.1 + (SHANK + THIGH) * stature);
    let (mut limbs, head) = upper(hip, stature, 0.0);
    limbs.push(limb(vec![hip, ankle], LEG_WIDTH, stature));
    limbs.push(limb(vec![heel, ankle, toe], 0.6 * LEG_WIDTH, stature));
    Person {
        limbs,
        head,
        head_radius: HEAD * stature,
    }
}

/// Seated, seen from above, bow to the left: the hips at `seat` (x along, y to
/// starboard), the feet ahead of them. Points are x and y.
#[must_use]
pub fn from_above(seat: Point, stature: f64) -> Person {
    let (x, y) = seat;
    let shoulder = SHOULDER * stature;
    let mut limbs = vec![limb(
        vec![(x, y - 0.7 * shoulder), (x, y + 0.7 * shoulder)],
        TRUNK_WIDTH,
        stature,
    )];
    for side in [-1.0, 1.0] {
        let hip = (x, y + side * 0.7 * HIP * stature);
        let foot = (x - 0.42 * stature, y + side * HIP * stature);
        limbs.push(limb(vec![hip, foot], LEG_WIDTH, stature));
    }
    Person {
        limbs,
        head: (x, y),
        head_radius: HEAD * stature,
    }
}

/// Seated or standing, seen along the boat, the middle at y = 0; `surface` is
/// the height sat or stood on.
#[must_use]
pub fn from_ahead(surface: f64, stature: f64, stands: bool) -> Person {
    let hip_z = if stands {
        surface + (FOOT + SHANK + THIGH) * stature
    } else {
        seated_hip(surface, stature)
    };
    let shoulder_z = hip_z + TRUNK * stature;
    let (hip, shoulder) = (HIP * stature, SHOULDER * stature);
    let trunk = vec![
        (-hip, hip_z),
        (-shoulder, shoulder_z),
        (shoulder, shoulder_z),
        (hip, hip_z),
        (-hip, hip_z),
    ];
    let mut limbs = vec![
        limb(trunk, 0.5 * TRUNK_WIDTH, stature),
        limb(
            vec![(0.0, hip_z), (0.0, shoulder_z)],
            1.4 * TRUNK_WIDTH,
            stature,
        ),
        limb(
            vec![(0.0, shoulder_z), (0.0, shoulder_z + 0.1 * stature)],
            NECK_WIDTH,
            stature,
        ),
    ];
    for side in [-1.0, 1.0] {
        let at = (side * shoulder, shoulder_z);
        let hand = (side * 1.1 * hip, hip_z + 0.06 * stature);
        let elbow = joint(at, hand, UPPER_ARM * stature, FOREARM * stature, -side);
        limbs.push(limb(vec![at, elbow, hand], ARM_WIDTH, stature));
        let leg = if stands {
            vec![(side * hip, hip_z), (side * 1.3 * hip, surface)]
        } else {
            vec![
                (side * hip, hip_z),
                (side * 1.5 * hip, hip_z + 0.05 * stature),
            ]
        };
        limbs.push(limb(leg, LEG_WIDTH, stature));
    }
    Person {
        limbs,
        head: (0.0, shoulder_z + (HEAD_NECK - HEAD) * stature),
        head_radius: HEAD * stature,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn top(person: &Person) -> f64 {
        person.head.1 + person.head_radius
    }

    #[test]
    fn a_standing_figure_is_as_tall_as_the_angler() {
        for stature in [1.5, 1.83, 2.0] {
            let side = standing((2.0, 0.14), stature);
            assert!((top(&side) - 0.14 - stature).abs() < 1e-9, "{side:?}");
            let ahead = from_ahead(0.14, stature, true);
            assert!((top(&ahead) - 0.14 - stature).abs() < 1e-9, "{ahead:?}");
        }
    }

    #[test]
    fn limbs_keep_their_lengths_and_feet_stay_in_the_boat() {
        for seat in [0.15, 0.35, 0.55] {
            let person = seated((2.0, seat), 0.12, 1.9);
            let leg = &person.limbs.last().unwrap().joints;
            let length = |a: Point, b: Point| (a.0 - b.0).hypot(a.1 - b.1);
            assert!(
                (length(leg[0], leg[1]) - THIGH * 1.9).abs() < 1e-6,
                "{seat}"
            );
            assert!(
                (length(leg[1], leg[2]) - SHANK * 1.9).abs() < 1e-6,
                "{seat}"
            );
            assert!(leg[2].1 > 0.12 - 1e-9, "feet above the floor: {leg:?}");
            assert!(leg[1].1 > leg[2].1, "knees up: {leg:?}");
            assert!(leg[2].0 < leg[0].0, "feet towards the bow");
        }
    }
}
