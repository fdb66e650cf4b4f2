//! Moving and keeping a hull ashore: levers, edges, steps, roofs, beds, carts, what a store
//! must measure. Handbook, chapters 8.9 and 10; guidance, with one's own limit above it.

use super::facts::Facts;
use crate::base::{Bounds, Dimension, GRAVITY};
use crate::beyond::{Lifting, lifting};
use crate::gear::Serves;
use crate::guide::{Guide, Guides};
use crate::handling::{Ground, Mass};
use crate::hull::{FittingKind, Measure};

/// What carries it, where it goes and who lifts; `None` where nobody said.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Ashore {
    /// Height of the edge it slides onto: roof bars, a tailgate, m.
    pub edge: Option<f64>,
    /// Most one person lifts, kg.
    pub limit: Option<f64>,
    /// Length of a truck's bed, m.
    pub bed: Option<f64>,
    /// Width of the two ways that meet at a landing or a corner, m.
    pub corner: [Option<f64>; 2],
    /// Slope of the steps, °.
    pub steps: Option<f64>,
    /// Slope of the path the cart goes, °.
    pub path: Option<f64>,
}

impl Ashore {
    /// Accepted edges, m.
    pub const EDGE: Bounds = Bounds::new("the edge's height", Dimension::Length, 0.2, 3.0);
    /// Accepted widths of a way, m.
    pub const CORNER: Bounds = Bounds::new("the width of the way", Dimension::Length, 0.4, 10.0);
    /// Accepted slopes, °.
    pub const SLOPE: Bounds = Bounds::new("the slope", Dimension::Angle, 0.0, 50.0);
}

/// Edges a hull is slid onto and how high they usually are, m: guide values.
pub const USUAL_EDGES: [(&str, f64); 4] = [
    ("roof bars", 1.5),
    ("a truck's tailgate", 0.85),
    ("a trailer's roller", 0.6),
    ("a cart", 0.3),
];
/// Height of the hands over the ground while lifting onto an edge, m: guide value; the
/// knee-to-elbow reach is told beside it.
const HANDS: f64 = 1.0;
/// Friction on an edge: handbook, chapter 10.
const ON_EDGE: f64 = 0.3;
/// Centre of a hull over the hands that carry it by its ends, m: guide value, on the side
/// on which the lower of two bears more.
const OVER_HANDLES: f64 = 0.1;

/// What one person lifts where nobody said, kg: ISO 11228-1.
pub const ONE_PERSON: f64 = 25.0;
/// Two people lift so much of their sum; wet or tired so much of that: chapter 8.9.
pub const TWO: f64 = 2.0 / 3.0;
/// See [`TWO`].
pub const TIRED: f64 = 0.8;
/// Wet clothes, fish and sand on the way home that were not there on the way out: share of
/// a day's catch is the rig's own; water left in the hull, kg: guide value.
const LEFT_INSIDE: f64 = 3.0;

/// Greatest force of the hands while a hull slides over an edge, N, from its full length
/// hanging out to its centre on the edge: `weight` N, its centre `arm` m from the hands,
/// `length` m from the hands to its far end, the edge `rise` m over the hands.
#[must_use]
pub fn slide(weight: f64, arm: f64, length: f64, rise: f64) -> f64 {
    const STEPS: u32 = 200;
    let arm = arm.max(1e-3);
    (0..=STEPS)
        .map(|k| {
            let s = arm + (length - arm) * f64::from(k) / f64::from(STEPS);
            let sin = (rise / s).clamp(-0.98, 0.98);
            let cos = (1.0 - sin * sin).sqrt();
            let normal = weight * cos * arm / s;
            let along = weight * sin + ON_EDGE * normal;
            along.hypot(weight * cos - normal)
        })
        .fold(0.0, f64::max)
}

/// What each of two carriers at handles `fore` and `aft` m from the bow bears of `hull`, N,
/// up or down steps of `slope` rad with the bow uphill: the lower one more. `over` is the
/// centre's height over the handles, m.
#[must_use]
pub fn carried(hull: Mass, [fore, aft]: [f64; 2], slope: f64, over: f64) -> [f64; 2] {
    let weight = hull.mass * GRAVITY;
    let span = (aft - fore).abs().max(1e-3);
    let on_aft = weight * (hull.x - fore) / span;
    let shifted = weight * over * slope.tan() / span;
    [weight - on_aft - shifted, on_aft + shifted]
}

/// Longest stiff thing of `wide` m that turns level from a way of `a` m into one of `b` m
/// at a right angle, m: the least over all angles of the room between the inner corner and
/// both outer walls.
#[must_use]
pub fn turns_within(a: f64, b: f64, wide: f64) -> f64 {
    const STEPS: u32 = 400;
    (1..STEPS)
        .map(|k| {
            let angle = std::f64::consts::FRAC_PI_2 * f64::from(k) / f64::from(STEPS);
            let (sin, cos) = angle.sin_cos();
            a / cos + b / sin - wide * (sin / cos + cos / sin)
        })
        .fold(f64::INFINITY, f64::min)
}

/// A load and what it means for who lifts.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Lift {
    /// kg at the hands.
    pub kg: f64,
    /// People it takes within the limit: one, two, or more.
    pub people: u32,
}

/// How many people `kg` takes, each lifting `limit` kg.
#[must_use]
pub fn people(kg: f64, limit: f64, share: f64) -> u32 {
    if kg <= share * limit {
        return 1;
    }
    if kg <= share * TWO * 2.0 * limit {
        return 2;
    }
    // Each more is counted as the second is.
    (kg / (share * TWO * limit)).ceil().clamp(3.0, 99.0) as u32
}

/// How it is moved and kept.
#[derive(Debug, Clone, PartialEq)]
pub struct Transport {
    /// Limit taken for one person, kg, and whether anybody said so.
    pub limit: (f64, bool),
    /// Heaviest single thing with all off: the bare hull, or what is heavier.
    pub heaviest: Lift,
    /// What that is.
    pub heaviest_is: String,
    /// The same with seat and drive left on.
    pub fitted: Lift,
    /// One end of the bare hull.
    pub one_end: Lift,
    /// Onto edges from behind, bare: what it is, its height, m, the hands' greatest load.
    /// One that somebody measured stands alone.
    pub onto: Vec<(&'static str, f64, Lift)>,
    /// Carried by two at the ends, the lower on the steps: heavier one, bare.
    pub two: Lift,
    /// Carried on one's side: all of the bare hull.
    pub side: Lift,
    /// Coming home, with seat and drive, water and fish, tired and wet.
    pub home: Lift,
    /// Whether handles are on record.
    pub handles: bool,
    /// On the roof: hull, bars and fittings, kg, and what the roof bears.
    pub roof: (f64, Option<f64>),
    /// Over the end of the bed, m, whether its centre lies inside.
    pub bed: Option<(f64, bool)>,
    /// Longest thing that turns at the corner, m, and whether it does.
    pub corner: Option<(f64, bool)>,
    /// Room it needs when kept: length, width, height, m. Height `None` where nobody knows.
    pub store: [Option<f64>; 3],
    /// At the bow handle on a cart with its kit, N; and on the path named.
    pub cart: Option<f64>,
    /// See [`Transport::cart`].
    pub on_the_path: Option<f64>,
    /// The cart of the rig, where it lies afloat, and whether its pads fit the bottom:
    /// `None` where nobody looked.
    pub cart_is: Option<(String, Option<String>)>,
    /// To drag it with all off, N.
    pub drag: Option<f64>,
    /// Weight on what drags: whether a keel guard is on record.
    pub grooved: Option<bool>,
}

/// Mass of bars, straps and fittings on a roof, kg: guide value.
pub const BARS: f64 = 6.0;

/// Works it out for the middle shape.
#[must_use]
pub fn transport(facts: &Facts<'_>, ashore: &Ashore) -> Transport {
    let a = facts.assessment;
    let guides = a.setup.guides();
    let (length, beam) = facts.size();
    let moved = lifting(a, &a.middle, facts.brief.wishes.launch);
    let (said, limit) = match ashore.limit.or(facts.brief.must.heaviest_lift) {
        Some(limit) => (true, limit),
        None => (false, ONE_PERSON),
    };
    let lift = |kg: f64| Lift {
        kg,
        people: people(kg, limit, 1.0),
    };
    let (bare, kit) = (moved.bare, moved.kit);
    let fitted = bare.mass + kit;
    let [fore, aft] = moved.handles;
    // Pushed from the stern, its bow on the edge; hands stay where they are strong.
    let onto = |(what, edge): (&'static str, f64)| {
        let arm = (aft - bare.x).abs();
        let load = slide(bare.mass * GRAVITY, arm, aft, edge - HANDS) / GRAVITY;
        (what, edge, lift(load))
    };
    let onto = match ashore.edge {
        Some(edge) => vec![onto(("the edge", edge))],
        None => USUAL_EDGES.into_iter().map(onto).collect(),
    };
    let slope = ashore.steps.unwrap_or(0.0).to_radians();
    let [up, low] = carried(bare, [fore, aft], slope, OVER_HANDLES);
    let wet = facts.layout().wet_part() + LEFT_INSIDE;
    let home = fitted + wet.min(LEFT_INSIDE + facts.brief.outing.fish.unwrap_or(0.0));
    let corner = match ashore.corner {
        [Some(one), other] => {
            let longest = turns_within(one, other.unwrap_or(one), beam);
            Some((longest, length <= longest))
        }
        _ => None,
    };
    let bed = ashore.bed.or(facts.brief.must.bed);
    Transport {
        limit: (limit, said),
        heaviest: lift(moved.heaviest),
        heaviest_is: heaviest_thing(facts, bare.mass),
        fitted: lift(fitted),
        one_end: lift(moved.one_end / GRAVITY),
        onto,
        two: lift(up.max(low) / GRAVITY),
        side: lift(bare.mass),
        home: Lift {
            kg: home,
            people: people(home, limit, TIRED),
        },
        handles: facts.fitted(|f| *f == FittingKind::Handle),
        roof: (bare.mass + BARS, facts.brief.must.roof),
        bed: bed.map(|bed| (length - bed, bare.x < bed)),
        corner,
        store: [Some(length), Some(beam), facts.hull().value(Measure::Depth)],
        cart: moved.cart,
        on_the_path: on_the_path(facts, ashore, guides, &moved),
        cart_is: cart(facts),
        drag: moved.drag,
        grooved: facts.grooved(),
    }
}

fn heaviest_thing(facts: &Facts<'_>, bare: f64) -> String {
    let stowed = facts.layout().stowed.iter();
    let heavier = stowed.filter(|s| s.dry_mass > bare);
    heavier
        .max_by(|a, b| a.dry_mass.total_cmp(&b.dry_mass))
        .map_or("the hull, bare".to_owned(), |s| s.item.clone())
}

/// The cart's handle force on a path of a slope somebody named, on the launch's ground.
fn on_the_path(
    facts: &Facts<'_>,
    ashore: &Ashore,
    guides: &Guides,
    moved: &Lifting,
) -> Option<f64> {
    let ground = Ground::of(facts.brief.wishes.launch, guides)?;
    let slope = ashore.path?.to_radians();
    let cart = Ground { slope, ..ground };
    let height = guides[Guide::CartHeight];
    Some(cart.cart(moved.loaded, facts.size().0, moved.handles[0], height))
}

fn cart(facts: &Facts<'_>) -> Option<(String, Option<String>)> {
    let (thing, _) = facts.serving(Serves::Cart)?;
    let lies = facts
        .layout()
        .stowed
        .iter()
        .find(|s| s.item == thing.name)?;
    Some((
        thing.name.clone(),
        lies.lies.as_ref().map(|l| l.zone.clone()),
    ))
}

#[cfg(test)]
mod tests {
    use super::*;
    use approx::assert_relative_eq;

    #[test]
    fn an_edge_as_worked_by_hand() {
        // 250 N, its centre 1.5 m from the hands, level with the edge: at s = 3 m the edge
        // bears 125 N, friction 37.5 N, hands lift 125 N; at s = 1.5 it bears all of it and
        // the hands push 75 N against friction. The greatest of the sum is at the far end.
        assert_relative_eq!(
            slide(250.0, 1.5, 3.0, 0.0),
            37.5_f64.hypot(125.0),
            max_relative = 1e-9
        );
        // Half a metre up at s = 3: sin 1/6, cos 0.98601; N = 250·0.98601·0.5 = 123.25;
        // along 41.667 + 36.975 = 78.64, across 246.50 − 123.25 = 123.25: 146.2 N; at
        // s = 1.5: sin 1/3, cos 0.94281, N = 235.70: 83.33 + 70.71 = 154.0 along, none across.
        assert_relative_eq!(slide(250.0, 1.5, 3.0, 0.5), 154.04, max_relative = 1e-3);
    }

    #[test]
    fn two_carriers_share_by_levers_and_the_lower_bears_more_on_steps() {
        let hull = Mass { mass: 40.0, x: 2.0 };
        let level = carried(hull, [0.0, 4.0], 0.0, 0.1);
        assert_relative_eq!(level[0], 20.0 * GRAVITY, max_relative = 1e-12);
        // tan 35° · 0.1 m / 4 m of 392.27 N: 6.87 N more below.
        let steps = carried(hull, [0.0, 4.0], 35.0_f64.to_radians(), 0.1);
        assert_relative_eq!(steps[1] - level[1], 6.867, max_relative = 1e-3);
        assert_relative_eq!(steps[0] + steps[1], 40.0 * GRAVITY, max_relative = 1e-12);
    }

    #[test]
    fn a_corner_takes_what_the_ladder_rule_says() {
        // A ladder without width: (a^(2/3) + b^(2/3))^(3/2).
        let (a, b): (f64, f64) = (1.2, 2.0);
        let ladder = (a.powf(2.0 / 3.0) + b.powf(2.0 / 3.0)).powf(1.5);
        assert_relative_eq!(turns_within(a, b, 0.0), ladder, max_relative = 1e-4);
        // Two equal ways, at 45°: 2√2·a − 2·wide.
        assert_relative_eq!(
            turns_within(2.0, 2.0, 0.9),
            8.0_f64.sqrt() * 2.0 - 1.8,
            max_relative = 1e-6
        );
        assert!(turns_within(1.2, 1.2, 0.8) < 2.0);
    }

    #[test]
    fn two_people_lift_two_thirds_of_their_sum() {
        assert_eq!(people(25.0, 25.0, 1.0), 1);
        assert_eq!(people(25.1, 25.0, 1.0), 2);
        assert_eq!(people(33.3, 25.0, 1.0), 2);
        assert_eq!(people(33.4, 25.0, 1.0), 3);
        // Tired: one of 25 lifts 20.
        assert_eq!(people(21.0, 25.0, TIRED), 2);
    }
}
