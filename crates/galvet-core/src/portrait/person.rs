//! The angler as a person: jointed limbs, a clothed outline, a flotation aid on and a cap,
//! built from the stature.
//!
//! Segment lengths as shares of the stature after R. Drillis and R. Contini,
//! "Body Segment Parameters" (1966): head and neck 0.18, trunk 0.29, thigh
//! 0.245, shank 0.246, upper arm 0.186, forearm and hand 0.25; the foot's
//! height is what is left. How thick a body is, is drawn by eye.

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
const SHOULDER: f64 = 0.115;
const HIP: f64 = 0.062;
/// Half a seated body's thickness: the hip joint's height over the seat.
const SEATED_HIP: f64 = 0.05;
/// Thickness of a leg at hip, knee and ankle, of an arm at shoulder, elbow and wrist, of
/// foot and neck, shares of the stature.
const LEG: [f64; 3] = [0.085, 0.062, 0.042];
const ARM: [f64; 3] = [0.056, 0.044, 0.034];
const SHOE: [f64; 2] = [0.036, 0.03];
const NECK: [f64; 2] = [0.06, 0.05];

/// The same as sticks of one thickness, what of a body stands in the wind: trunk, neck,
/// leg, foot, arm, shares of the stature (guide values).
const STICK: [f64; 5] = [0.115, 0.05, 0.065, 0.039, 0.045];

/// The trunk from the side: along it from the hip and ahead of its axis, shares of the
/// stature; down the front, up the back.
const TRUNK_ASIDE: [Point; 13] = [
    (0.340, -0.004),
    (0.316, 0.022),
    (0.275, 0.052),
    (0.205, 0.070),
    (0.105, 0.060),
    (0.010, 0.066),
    (-0.060, 0.050),
    (-0.060, -0.050),
    (0.010, -0.080),
    (0.095, -0.046),
    (0.195, -0.064),
    (0.275, -0.058),
    (0.316, -0.034),
];
/// The flotation aid over it.
const AID_ASIDE: [Point; 8] = [
    (0.292, 0.030),
    (0.255, 0.082),
    (0.190, 0.094),
    (0.095, 0.078),
    (0.082, 0.0),
    (0.095, -0.064),
    (0.210, -0.080),
    (0.288, -0.046),
];
/// The trunk from ahead: off the middle and over the hip; one side.
const TRUNK_AHEAD: [Point; 8] = [
    (0.030, -0.045),
    (0.082, -0.030),
    (0.084, 0.030),
    (0.072, 0.110),
    (0.092, 0.205),
    (0.126, 0.268),
    (0.070, 0.306),
    (0.024, 0.345),
];
const AID_AHEAD: [Point; 5] = [
    (0.030, 0.078),
    (0.082, 0.085),
    (0.100, 0.200),
    (0.092, 0.270),
    (0.058, 0.298),
];
/// A cap in radii of the head: ahead of its middle and above; from the side, and from
/// ahead one side.
const CAP_ASIDE: [Point; 7] = [
    (-0.98, 0.25),
    (-0.80, 0.78),
    (0.0, 1.04),
    (0.78, 0.80),
    (1.02, 0.46),
    (1.80, 0.30),
    (1.02, 0.22),
];
const CAP_AHEAD: [Point; 4] = [(0.60, 0.12), (1.0, 0.26), (0.82, 0.76), (0.25, 1.04)];

/// A limb: a line through its joints, and how thick it is at each.
#[derive(Debug, Clone, PartialEq)]
pub struct Limb {
    /// Joints from end to end.
    pub joints: Vec<Point>,
    /// Thickness at each, m.
    pub widths: Vec<f64>,
}

/// A part of the body as a stick of one thickness.
#[derive(Debug, Clone, PartialEq)]
pub struct Stick {
    /// Joints from end to end.
    pub joints: Vec<Point>,
    /// Thickness, m.
    pub width: f64,
}

/// A person: limbs, the trunk's outline, what is worn, and the head.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Person {
    /// Neck, arms and legs.
    pub limbs: Vec<Limb>,
    /// Outline of the trunk, clothed.
    pub trunk: Vec<Point>,
    /// Outline of the flotation aid over it.
    pub aid: Vec<Point>,
    /// The near arm, over the aid; none in views in which both show.
    pub near: Vec<Limb>,
    /// Outline of the cap.
    pub cap: Vec<Point>,
    /// Centre of the head.
    pub head: Point,
    /// Its radius, m.
    pub head_radius: f64,
    /// What of it but the head stands in a wind from the side, the far limbs hidden by the
    /// near ones; empty for other views.
    pub in_wind: Vec<Stick>,
}

/// What reaches this far above the hip leans with the trunk, share of the trunk.
const WAIST: f64 = 0.5;

impl Person {
    /// The trunk, the arms and the head leaned by `angle` rad towards positive `y`
    /// about `hip`, as seen from ahead; the legs stay.
    #[must_use]
    pub fn leaned(&self, hip: Point, angle: f64) -> Self {
        let (sin, cos) = angle.sin_cos();
        let turn = |&(y, z): &Point| {
            let (dy, dz) = (y - hip.0, z - hip.1);
            (hip.0 + dy * cos + dz * sin, hip.1 - dy * sin + dz * cos)
        };
        let turned = |all: &[Point]| all.iter().map(turn).collect::<Vec<_>>();
        let trunk = (self.head.1 - hip.1) * TRUNK / (TRUNK + HEAD_NECK - HEAD);
        let limbs = self.limbs.iter().map(|limb| {
            let top = limb.joints.iter().map(|p| p.1).fold(f64::MIN, f64::max);
            let above = top > hip.1 + WAIST * trunk;
            Limb {
                joints: if above {
                    turned(&limb.joints)
                } else {
                    limb.joints.clone()
                },
                widths: limb.widths.clone(),
            }
        });
        Self {
            limbs: limbs.collect(),
            near: self.near.clone(),
            trunk: turned(&self.trunk),
            aid: turned(&self.aid),
            cap: turned(&self.cap),
            head: turn(&self.head),
            head_radius: self.head_radius,
            in_wind: Vec::new(),
        }
    }
}

/// Height of the hip joint of somebody of a `stature`, seated at `surface`, m.
#[must_use]
pub fn seated_hip(surface: f64, stature: f64) -> f64 {
    surface + SEATED_HIP * stature
}

fn stick(joints: Vec<Point>, part: usize, stature: f64) -> Stick {
    Stick {
        joints,
        width: STICK[part] * stature,
    }
}

fn limb(joints: Vec<Point>, widths: &[f64], stature: f64) -> Limb {
    Limb {
        joints,
        widths: widths.iter().map(|w| w * stature).collect(),
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

/// An arm from a shoulder towards where the hand is wanted.
fn arm(shoulder: Point, wanted: Point, bend: f64, stature: f64) -> Limb {
    let hand = within(shoulder, wanted, 0.95 * (UPPER_ARM + FOREARM) * stature);
    let (upper, fore) = (UPPER_ARM * stature, FOREARM * stature);
    let elbow = joint(shoulder, hand, upper, fore, bend);
    limb(vec![shoulder, elbow, hand], &ARM, stature)
}

/// Outlines along a leaning axis from `from`, the bow to the left.
fn along_axis(outline: &[Point], from: Point, lean: f64, scale: f64) -> Vec<Point> {
    let (sin, cos) = lean.sin_cos();
    let at = |&(along, ahead): &Point| {
        (
            from.0 + scale * (along * sin - ahead * cos),
            from.1 + scale * (along * cos + ahead * sin),
        )
    };
    outline.iter().map(at).collect()
}

/// Trunk, head and arms above a hip, seen from the side; the bow lies to the
/// left. `lean` leans the trunk aft, rad.
fn upper(hip: Point, stature: f64, lean: f64) -> Person {
    let up = |from: Point, length: f64, lean: f64| {
        (
            from.0 + length * lean.sin() * stature,
            from.1 + length * lean.cos() * stature,
        )
    };
    let shoulder = up(hip, TRUNK, lean);
    let arms_from = up(hip, 0.9 * TRUNK, lean);
    let head = up(shoulder, HEAD_NECK - HEAD, 0.5 * lean);
    let hand =
        |forward: f64, down: f64| (shoulder.0 - forward * stature, shoulder.1 - down * stature);
    // The head looks ahead, not up; a cap's points are ahead and above.
    let cap = CAP_ASIDE.map(|(ahead, above)| {
        (
            head.0 - ahead * HEAD * stature,
            head.1 + above * HEAD * stature,
        )
    });
    // The trunk's stick ends short of hip and shoulder: its round ends reach.
    let short = 0.5 * STICK[0] / TRUNK;
    let inner = |from: Point, to: Point| {
        (
            from.0 + (to.0 - from.0) * short,
            from.1 + (to.1 - from.1) * short,
        )
    };
    let near = arm(shoulder, hand(0.30, 0.16), 1.0, stature);
    Person {
        in_wind: vec![
            stick(vec![inner(hip, shoulder), inner(shoulder, hip)], 0, stature),
            stick(vec![shoulder, head], 1, stature),
            stick(near.joints, 4, stature),
        ],
        limbs: vec![
            limb(vec![shoulder, head], &NECK, stature),
            arm(arms_from, hand(0.25, 0.17), 1.0, stature),
        ],
        near: vec![arm(arms_from, hand(0.22, 0.21), 1.0, stature)],
        trunk: along_axis(&TRUNK_ASIDE, hip, lean, stature),
        aid: along_axis(&AID_ASIDE, hip, lean, stature),
        cap: cap.into(),
        head,
        head_radius: HEAD * stature,
    }
}

/// Seated, seen from starboard, bow to the left: on a seat at `seat` (x, height
/// of its surface), feet on the floor at height `floor` ahead of it.
#[must_use]
pub fn seated(seat: Point, floor: f64, stature: f64) -> Person {
    let hip = (seat.0, seat.1 + SEATED_HIP * stature);
    let mut person = upper(hip, stature, 0.22);
    for ahead in [0.36, 0.42] {
        let ankle = (seat.0 - ahead * stature, floor + FOOT * stature);
        let ankle = within(hip, ankle, 0.97 * (THIGH + SHANK) * stature);
        // Knees go up: to the right of the way forward.
        let knee = joint(hip, ankle, THIGH * stature, SHANK * stature, -1.0);
        let toe = (ankle.0 - 0.06 * stature, ankle.1 + 0.05 * stature);
        let widths = [LEG[0], LEG[1], LEG[2], SHOE[1]];
        let leg = limb(vec![hip, knee, ankle, toe], &widths, stature);
        person.limbs.push(leg);
    }
    let near = person.limbs.last().map(|leg| leg.joints.clone());
    person
        .in_wind
        .extend(near.map(|leg| stick(leg, 2, stature)));
    person
}

/// Standing, seen from starboard, feet at `feet` (x, height of the floor): the weight on
/// one leg, the other a little ahead.
#[must_use]
pub fn standing(feet: Point, stature: f64) -> Person {
    let hip = (feet.0, feet.1 + (FOOT + SHANK + THIGH) * stature);
    let mut person = upper(hip, stature, 0.0);
    for (ahead, lifted) in [(0.10, 0.004), (0.0, 0.0)] {
        let x = feet.0 - ahead * stature;
        let sole = feet.1 + (lifted + 0.5 * SHOE[0]) * stature;
        let ankle = (x, feet.1 + (FOOT + lifted) * stature);
        let knee = joint(hip, ankle, THIGH * stature, SHANK * stature, -1.0);
        person
            .limbs
            .push(limb(vec![hip, knee, ankle], &LEG, stature));
        let shoe = vec![(x + 0.02 * stature, sole), (x - 0.09 * stature, sole)];
        person.limbs.push(limb(shoe, &SHOE, stature));
    }
    let ankle = (feet.0, feet.1 + FOOT * stature);
    let (heel, toe) = (feet.0 + 0.04 * stature, feet.0 - 0.1 * stature);
    person.in_wind.extend([
        stick(vec![hip, ankle], 2, stature),
        stick(vec![(heel, feet.1), ankle, (toe, feet.1)], 3, stature),
    ]);
    person
}

/// Points around `(x, y)` with half axes, rad from the bow on.
fn oval((x, y): Point, [deep, wide]: [f64; 2]) -> Vec<Point> {
    (0..12)
        .map(|i| {
            let turn = std::f64::consts::TAU * f64::from(i) / 12.0;
            (x - deep * turn.cos(), y + wide * turn.sin())
        })
        .collect()
}

/// Seated, seen from above, bow to the left: the hips at `seat` (x along, y to
/// starboard), the feet ahead of them. Points are x and y.
#[must_use]
pub fn from_above(seat: Point, stature: f64) -> Person {
    let (x, y) = seat;
    let at = |ahead: f64, side: f64| (x - ahead * stature, y + side * stature);
    let mut limbs = Vec::new();
    for side in [-1.0, 1.0] {
        let leg = vec![
            at(0.02, side * HIP),
            at(0.22, side * 1.5 * HIP),
            at(0.40, side * 1.1 * HIP),
            at(0.47, side * 1.3 * HIP),
        ];
        limbs.push(limb(leg, &[LEG[0], LEG[1], LEG[2], SHOE[0]], stature));
        let arm = vec![
            at(0.0, side * SHOULDER),
            at(0.13, side * 1.2 * SHOULDER),
            at(0.27, side * 0.5 * SHOULDER),
        ];
        limbs.push(limb(arm, &ARM, stature));
    }
    let head = HEAD * stature;
    let brim = [(1.0, -0.7), (1.75, -0.45), (1.75, 0.45), (1.0, 0.7)];
    Person {
        limbs,
        trunk: oval(seat, [0.068 * stature, 1.15 * SHOULDER * stature]),
        aid: oval(at(0.012, 0.0), [0.080 * stature, 0.88 * SHOULDER * stature]),
        near: Vec::new(),
        cap: brim.map(|(a, b)| (x - a * head, y + b * head)).into(),
        head: seat,
        head_radius: head,
        in_wind: Vec::new(),
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
    let head = (0.0, shoulder_z + (HEAD_NECK - HEAD) * stature);
    // One side up, the other down.
    let both = |half: &[Point], from: f64, scale: f64| -> Vec<Point> {
        let right = half.iter().map(|&(y, z)| (y * scale, from + z * scale));
        let left = half.iter().rev();
        let left = left.map(|&(y, z)| (-y * scale, from + z * scale));
        right.chain(left).collect()
    };
    let mut limbs = vec![limb(vec![(0.0, shoulder_z), head], &NECK, stature)];
    for side in [-1.0, 1.0] {
        let at = |y: f64, z: f64| (side * y * stature, z);
        let shoulder = at(0.9 * SHOULDER, hip_z + 0.27 * stature);
        let hand = at(1.1 * HIP, hip_z + 0.07 * stature);
        limbs.push(arm(shoulder, hand, -side, stature));
        if stands {
            let shin = surface + FOOT * stature;
            let knee = shin + SHANK * stature;
            let leg = vec![at(HIP, hip_z), at(1.15 * HIP, knee), at(1.3 * HIP, shin)];
            limbs.push(limb(leg, &LEG, stature));
            let sole = surface + 0.5 * SHOE[0] * stature;
            let shoe = vec![at(1.25 * HIP, sole), at(1.75 * HIP, sole)];
            limbs.push(limb(shoe, &SHOE, stature));
        } else {
            // Thighs come towards whoever looks.
            let knee = at(1.6 * HIP, hip_z + 0.045 * stature);
            let thick = [LEG[0], 1.15 * LEG[1]];
            limbs.push(limb(vec![at(HIP, hip_z), knee], &thick, stature));
        }
    }
    Person {
        limbs,
        trunk: both(&TRUNK_AHEAD, hip_z, stature),
        near: Vec::new(),
        aid: both(&AID_AHEAD, hip_z, stature),
        cap: both(&CAP_AHEAD, head.1, HEAD * stature),
        head,
        head_radius: HEAD * stature,
        in_wind: Vec::new(),
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

    #[test]
    fn every_limb_is_as_thick_as_it_has_joints_and_the_aid_is_worn() {
        let all = [
            standing((2.0, 0.14), 1.8),
            seated((2.0, 0.4), 0.14, 1.8),
            from_ahead(0.3, 1.8, false),
            from_ahead(0.14, 1.8, true),
            from_above((2.0, 0.0), 1.8),
        ];
        let span = |outline: &[Point]| {
            let ys = || outline.iter().map(|p| p.1);
            (ys().fold(f64::MAX, f64::min), ys().fold(f64::MIN, f64::max))
        };
        for person in all {
            for limb in &person.limbs {
                assert_eq!(limb.joints.len(), limb.widths.len());
                assert!(limb.widths.iter().all(|w| (0.04..0.2).contains(w)));
            }
            let (body, aid) = (span(&person.trunk), span(&person.aid));
            assert!(aid.0 > body.0 && aid.1 < body.1, "{body:?} {aid:?}");
            assert!(person.cap.len() > 3);
        }
    }
}
