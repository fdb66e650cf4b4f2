//! What a picture of the pond is made of: the hull's true section where the angler stands, the
//! angler's parts about the hip; all over the middle of the floor, about which they turn.

use super::boat::Boat;
use super::play::Frame;
use crate::body::{Body, Shape};
use crate::figures::Setup;
use crate::load::Carriage;
use crate::portrait::{Limb, Person, Point, from_ahead, seated_hip};

/// A section with somebody in it, m.
#[derive(Debug, Clone, PartialEq)]
pub struct Scene {
    /// Closed outline of the section, starboard side round to port.
    pub outline: Vec<Point>,
    /// Half the breadth of the floor.
    pub floor: f64,
    /// Height of the rim over the floor; 0 where there is no recess.
    pub rim: f64,
    /// Height of the seat over the floor.
    pub seat: f64,
    /// The angler's stature.
    pub stature: f64,
    /// The trunk's outline about the hip.
    pub trunk: Vec<Point>,
    /// The flotation aid's.
    pub aid: Vec<Point>,
    /// The cap's.
    pub cap: Vec<Point>,
    /// Centre of the head over the hip, and its radius.
    pub head: (f64, f64),
}

/// Of one shape.
#[must_use]
pub fn scene(setup: &Setup, shape: &Shape) -> Scene {
    let form = &setup.posterior.form;
    let place = setup.loads.crew_place(Carriage::AtTheFeet);
    let share = ((place - form.bow()) / form.length()).clamp(0.0, 1.0);
    let body: Body<1> = form.draw(&[*shape]);
    let floor = body.standing_height.0[0];
    let half = form.half_section(shape, share);
    let over = |&(y, z): &Point| (y, z - floor);
    let edge = half.inner.iter().find(|(_, z)| *z < half.gunwale() - 1e-6);
    let stature = setup.loads.crew().stature();
    let person = from_ahead(0.0, stature, false);
    let hip = seated_hip(0.0, stature);
    let about = |points: &[Point]| points.iter().map(|&(y, z)| (y, z - hip)).collect();
    Scene {
        outline: half.closed().iter().map(over).collect(),
        floor: edge.map_or_else(|| 0.5 * form.beam(), |(y, _)| *y),
        rim: edge.map_or(0.0, |_| (half.gunwale() - floor).max(0.0)),
        seat: setup.loads.seat_height(shape),
        stature,
        trunk: about(&person.trunk),
        aid: about(&person.aid),
        cap: about(&person.cap),
        head: (person.head.1 - hip, person.head_radius),
    }
}

/// A moment as a picture shows it: heeled about the middle of the floor, which is the origin,
/// heights along the vertical, m.
#[derive(Debug, Clone, PartialEq)]
pub struct Posed {
    /// The hull's outline.
    pub hull: Vec<Point>,
    /// Height of the water at the middle, and its slope, rad.
    pub water: (f64, f64),
    /// Whoever is in it.
    pub person: Person,
}

/// Segments of the body, shares of stature: thigh or shank, hip and shoulder off the middle,
/// shoulders over the hip (as in the other drawings).
const LEG: f64 = 0.2455;
const HIP: f64 = 0.05;
const SHOULDER: (f64, f64) = (0.113, 0.27);
/// Feet off the middle, m: standing, seated.
const FEET: [f64; 2] = [0.18, 0.13];
/// Hands about the hip, shares of stature: in the lap, standing, and reaching over the side.
const HANDS: [(f64, f64); 3] = [(0.10, 0.03), (0.20, 0.02), (0.38, 0.17)];
/// How much of a bent knee shows from ahead: most of it comes towards whoever looks.
const SPLAYED: f64 = 0.5;

/// A point turned so far to starboard, rad.
fn turned((y, z): Point, by: f64) -> Point {
    let (sin, cos) = by.sin_cos();
    (y * cos + z * sin, z * cos - y * sin)
}

fn plus(a: Point, b: Point) -> Point {
    (a.0 + b.0, a.1 + b.1)
}

fn between(a: Point, b: Point, share: f64) -> Point {
    (a.0 + share * (b.0 - a.0), a.1 + share * (b.1 - a.1))
}

/// The joint of two limbs of one length between two points, bent away from the middle.
fn bent(a: Point, b: Point, length: f64, side: f64, shown: f64) -> Point {
    let (y, z) = (b.0 - a.0, b.1 - a.1);
    let apart = y.hypot(z).max(1e-6);
    let out = shown * (length * length - 0.25 * apart * apart).max(0.0).sqrt();
    let middle = between(a, b, 0.5);
    let across = (side * z.abs() / apart, side * -y * z.signum() / apart);
    (middle.0 + out * across.0, middle.1 + out * across.1)
}

impl Scene {
    /// A moment of a course on the boat it is of.
    #[must_use]
    pub fn posed(&self, boat: &Boat, frame: &Frame) -> Posed {
        let at = &frame.at;
        let place = usize::from(frame.up > 0.0);
        let level = boat.arms[place].level(at.heel - frame.slope, at.filled);
        Posed {
            hull: self.outline.iter().map(|&p| turned(p, at.heel)).collect(),
            water: (level, frame.slope),
            person: self.person(boat, frame),
        }
    }

    fn person(&self, boat: &Boat, frame: &Frame) -> Person {
        let (at, tall) = (&frame.at, self.stature);
        let [low, high] = boat.angler.hips();
        let hip_height = low + (high - low) * frame.up;
        let shifted = turned((frame.beside, 0.0), at.heel);
        let hip = plus(turned((0.0, hip_height), at.legs), shifted);
        let on_trunk = |(y, z): Point| plus(hip, turned((y, z), at.trunk));
        let outline = |points: &[Point]| points.iter().map(|&p| on_trunk(p)).collect();
        let limb = |joints: Vec<Point>, widths: [f64; 3]| Limb {
            widths: widths[..joints.len()].iter().map(|w| w * tall).collect(),
            joints,
        };
        let mut limbs = Vec::new();
        for side in [-1.0, 1.0] {
            let stands = FEET[1] + (FEET[0] - FEET[1]) * frame.up;
            let inside = turned((side * stands, 0.02), at.heel);
            let over = frame.aside.signum() * (0.5 * boat.beam + 0.04 + 0.04 * side);
            let outside = turned((over, -0.10), at.heel);
            let foot = between(inside, outside, frame.aside.abs());
            let top = on_trunk((side * HIP * tall, 0.0));
            let knee = bent(top, foot, LEG * tall, side, SPLAYED);
            limbs.push(limb(vec![top, knee, foot], [0.085, 0.062, 0.045]));
            let shoulder = on_trunk((side * SHOULDER.0 * tall, SHOULDER.1 * tall));
            let rests = between(HANDS[0], HANDS[1], frame.up);
            let reaches = (side * frame.reach).max(0.0);
            let (y, z) = between(rests, HANDS[2], reaches);
            let hand = on_trunk((side * y * tall, z * tall));
            let elbow = bent(shoulder, hand, 0.155 * tall, side, 0.5);
            limbs.push(limb(vec![shoulder, elbow, hand], [0.046, 0.040, 0.034]));
        }
        let head = on_trunk((0.0, self.head.0));
        let neck = on_trunk((0.0, SHOULDER.1 * tall + 0.02 * tall));
        limbs.push(limb(vec![neck, head], [0.06, 0.055, 0.0]));
        Person {
            limbs,
            trunk: outline(&self.trunk),
            aid: outline(&self.aid),
            near: Vec::new(),
            cap: outline(&self.cap),
            head,
            head_radius: self.head.1,
            in_wind: Vec::new(),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn starboard_goes_down_and_a_mast_leans_to_it() {
        let by = 30.0_f64.to_radians();
        let (y, z) = turned((1.0, 0.0), by);
        assert!((y - 0.866_025).abs() < 1e-6 && (z + 0.5).abs() < 1e-12);
        let (y, z) = turned((0.0, 2.0), by);
        assert!((y - 1.0).abs() < 1e-12 && (z - 1.732_051).abs() < 1e-6);
    }

    #[test]
    fn a_joint_is_as_far_from_both_ends_as_its_limbs_are_long() {
        for (a, b, side) in [
            ((0.1, 0.9), (0.2, 0.0), 1.0),
            ((-0.1, 0.8), (-0.3, 0.1), -1.0),
        ] {
            let joint = bent(a, b, 0.5, side, 1.0);
            for end in [a, b] {
                let far = (joint.0 - end.0).hypot(joint.1 - end.1);
                assert!((far - 0.5).abs() < 1e-9, "{far}");
            }
            assert!((joint.0 - 0.5 * (a.0 + b.0)) * side > 0.0, "outward");
        }
    }
}
