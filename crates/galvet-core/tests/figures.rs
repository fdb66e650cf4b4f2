//! Every figure of the tables on its value: boxes worked by hand, through the
//! whole path from a record with measured sections to the figures.

#![allow(clippy::unwrap_used, clippy::panic, reason = "tests")]

use crate::common;

use approx::assert_relative_eq;
use common::{box_hull, brief, rig, survey};
use galvet_core::base::GRAVITY;
use galvet_core::body::Shape;
use galvet_core::crew::Posture;
use galvet_core::figures::{Afloat, Quantity as Q, Setup, Values};
use galvet_core::float::Accuracy;
use galvet_core::guide::{Guide, Guides};
use galvet_core::hull::{Construction, Measure, Reading, Scuppers, Source, Station, Survey};
use galvet_core::plausible::Posterior;
use galvet_core::question::Brief;
use std::sync::Arc;

const LENGTH: f64 = 3.2;
const BEAM: f64 = 0.85;
const DEPTH: f64 = 0.40;
const HULL: f64 = 50.0;
const CREW: f64 = 86.0;
const RIG: f64 = 10.0;
const WHOLE: f64 = HULL + CREW + RIG;
const STATURE: f64 = 1.80;
/// Tilts of a boxy board: seat 0.10 m over the deck, rig 0.1 m over it.
const SEAT: f64 = 0.10;

fn tape(hull: &mut Survey, measure: Measure, value: f64) {
    let reading = Reading::new(measure, value, Source::Tape).unwrap();
    hull.readings.insert(measure, vec![reading]);
}

/// A box board whose loads all lie over its middle.
fn board() -> (Survey, Brief) {
    let mut hull = box_hull(Construction::Board, LENGTH, BEAM, DEPTH);
    tape(&mut hull, Measure::SeatPlace, 0.5);
    let mut brief = brief(CREW - 9.0, STATURE, rig(RIG, 0.5, 0.1));
    brief.water.floor_clearance = 0.0;
    (hull, brief)
}

/// The shipped guide values, but everything over the middle: nothing trims.
fn level() -> Arc<Guides> {
    let mut guides = Guides::default();
    guides.set(Guide::HullPlace, 0.5).unwrap();
    guides.set(Guide::StandsForward, 0.0).unwrap();
    // Half the usual, so that a hard-edged box answers it.
    guides.set(Guide::SidewaysPlace, 0.10).unwrap();
    Arc::new(guides)
}

fn exactly(hull: &Survey, brief: &Brief) -> Values {
    let posterior = Posterior::of(Arc::new(hull.clone()), level(), 4).unwrap();
    let setup = Setup::new(Arc::new(posterior), Arc::new(brief.clone()));
    let shapes = [middle(&setup)];
    let (values, fate) = Afloat::new(&setup, &shapes, Accuracy::FINE).figures()[0].clone();
    assert!(fate.is_rest(), "{fate:?}");
    values
}

/// The measured shape itself, without the error of its sections.
fn middle(setup: &Setup) -> Shape {
    setup.posterior.prior.median()
}

/// Draft, KB, BM and KG of the seated board.
fn by_hand() -> (f64, f64, f64, f64) {
    let t = WHOLE / (1000.0 * LENGTH * BEAM);
    let bm = BEAM * BEAM / (12.0 * t);
    let z_crew = DEPTH + SEAT + 0.14 * STATURE;
    let kg = (HULL * 0.10 + CREW * z_crew + RIG * (DEPTH + 0.1)) / WHOLE;
    (t, t / 2.0, bm, kg)
}

fn get(values: &Values, q: Q) -> f64 {
    values.get(q).unwrap_or_else(|| panic!("{q:?} is absent"))
}

#[test]
fn capacity_figures_of_a_box() {
    let (mut hull, brief) = board();
    tape(&mut hull, Measure::RatedCapacity, 160.0);
    let v = exactly(&hull, &brief);
    // Crew and gear count: 86 + 10.
    assert_relative_eq!(get(&v, Q::Counted), CREW + RIG, epsilon = 1e-9);
    assert_relative_eq!(get(&v, Q::LabelMargin), 64.0, epsilon = 1e-9);
    assert_relative_eq!(
        get(&v, Q::WorkingMargin),
        0.8 * 160.0 - 96.0,
        epsilon = 1e-9
    );
    // Until the deck is awash: 1000 · L · B · D less what floats.
    let further = 1000.0 * LENGTH * BEAM * DEPTH - WHOLE;
    assert_relative_eq!(get(&v, Q::WaterlineMargin), further, max_relative = 1e-3);
    assert_relative_eq!(get(&v, Q::BindingMargin), 32.0, epsilon = 1e-9);
}

#[test]
fn floating_figures_of_a_box() {
    let (mut hull, brief) = board();
    tape(&mut hull, Measure::DriveDepth, 0.30);
    let v = exactly(&hull, &brief);
    let (t, ..) = by_hand();
    assert_relative_eq!(get(&v, Q::Draft), t, max_relative = 1e-6);
    assert_relative_eq!(get(&v, Q::Deepest), t, max_relative = 1e-4);
    assert_relative_eq!(get(&v, Q::DraftWithDrive), t + 0.30, max_relative = 1e-4);
    assert_relative_eq!(get(&v, Q::Trim), 0.0, epsilon = 1e-3);
    assert_relative_eq!(get(&v, Q::List), 0.0, epsilon = 1e-9);
    assert_relative_eq!(get(&v, Q::Freeboard), DEPTH - t, max_relative = 1e-4);
    assert_relative_eq!(get(&v, Q::FloorAboveWater), DEPTH - t, max_relative = 1e-4);
    // The head of one seated: deck, seat and 0.52 of the stature.
    let head = DEPTH + SEAT + 0.52 * STATURE - t;
    assert_relative_eq!(get(&v, Q::AirDraft), head, max_relative = 1e-4);
    let mut standing = brief.clone();
    standing.posture = Posture::Stands;
    let air = get(&exactly(&hull, &standing), Q::AirDraft);
    assert_relative_eq!(air, DEPTH + STATURE - t, max_relative = 1e-4);
}

#[test]
fn a_list_is_where_the_offset_load_is_answered() {
    let (hull, mut brief) = board();
    brief.rig.lines[0].offset = 0.3;
    let list = get(&exactly(&hull, &brief), Q::List);
    let (_, kb, bm, kg) = by_hand();
    // Wall-sided: sin φ (GM + ½ BM tan² φ) = (m y / Δ) cos φ.
    let y = RIG * 0.3 / WHOLE;
    let gz = |h: f64| h.sin() * (kb + bm - kg + 0.5 * bm * h.tan().powi(2)) - y * h.cos();
    let exact = (0..5000)
        .map(|i| 0.001 * f64::from(i))
        .find(|d: &f64| gz(d.to_radians()) >= 0.0)
        .unwrap();
    assert!((list - exact).abs() < 0.06, "{list} {exact}");
}

#[test]
fn stiffness_and_roll_of_a_box() {
    let (hull, brief) = board();
    let v = exactly(&hull, &brief);
    let (_, kb, bm, kg) = by_hand();
    let gm = kb + bm - kg;
    assert_relative_eq!(get(&v, Q::Gm), gm, max_relative = 1e-5);
    let stiffness = WHOLE * GRAVITY * gm * std::f64::consts::PI / 180.0;
    assert_relative_eq!(get(&v, Q::Stiffness), stiffness, max_relative = 1e-5);
    // Roll radius: each mass about the common centre; 0.38 B of its own for the
    // hull, 0.25 m for the body.
    let z_crew = DEPTH + SEAT + 0.14 * STATURE;
    let own = HULL * ((0.10 - kg).powi(2) + (0.38 * BEAM).powi(2))
        + CREW * ((z_crew - kg).powi(2) + 0.25 * 0.25)
        + RIG * (DEPTH + 0.1 - kg).powi(2);
    let period = std::f64::consts::TAU * (1.2 * own / WHOLE).sqrt() / (GRAVITY * gm).sqrt();
    assert_relative_eq!(get(&v, Q::RollPeriod), period, max_relative = 1e-4);
    // Seat over floor as a share of knee height.
    assert_relative_eq!(
        get(&v, Q::GettingUp),
        SEAT / (0.285 * STATURE),
        epsilon = 1e-9
    );
}

/// Heel at which the bilge of the box comes out: it is wall-sided up to there.
fn wall_sided_limit(t: f64) -> f64 {
    (2.0 * t / BEAM)
        .atan()
        .min((2.0 * (DEPTH - t) / BEAM).atan())
}

#[test]
fn small_leans_of_a_box_follow_the_wall_sided_arm() {
    let (hull, brief) = board();
    let v = exactly(&hull, &brief);
    let (t, kb, bm, kg) = by_hand();
    let gm = kb + bm - kg;
    let gz = |heel: f64| heel.sin() * (gm + 0.5 * bm * heel.tan().powi(2));
    // Landing a fish: torso leaned 20°, of which hips and legs take four tenths back,
    // and 3 kg at the gunwale.
    let torso = 0.68 * 0.20 * STATURE * 20.0_f64.to_radians().sin();
    let tipping = CREW * 0.6 * torso + 3.0 * 0.5 * BEAM;
    let reach = get(&v, Q::ReachHeel).to_radians();
    assert!(reach < wall_sided_limit(t), "{reach}");
    assert_relative_eq!(
        WHOLE * gz(reach),
        tipping * reach.cos(),
        // Between upright and the first heel the arm is a cubic.
        max_relative = 0.03
    );
}

#[test]
fn leans_of_a_box_are_the_largest_its_arm_answers() {
    let (hull, brief) = board();
    let v = exactly(&hull, &brief);
    // The same box by another route: its heeled section cut as a polygon, for
    // every tenth of a degree.
    let (_, _, _, kg) = by_hand();
    let arm = |heel: f64| polygon_gz(heel, kg);
    let degrees = |d: i32| (0.1 * f64::from(d)).to_radians();
    let (peak, _) = (0..=900)
        .map(|d| (degrees(d), arm(degrees(d))))
        .max_by(|a, b| a.1.total_cmp(&b.1))
        .unwrap();
    let lean = (0..=900)
        .map(degrees)
        .filter(|&h| h <= peak)
        .map(|h| WHOLE * arm(h) / (CREW * h.cos()))
        .fold(0.0, f64::max);
    // Nothing fills on a board: brief and lasting are the same.
    assert_relative_eq!(get(&v, Q::LeanRoom), lean, max_relative = 0.03);
    assert_eq!(get(&v, Q::LeanRoom), get(&v, Q::LastingLean));
    assert_relative_eq!(get(&v, Q::RightingPeak), arm(peak), max_relative = 0.02);
    assert!((get(&v, Q::PeakAngle).to_radians() - peak).abs() < 2.0_f64.to_radians());
    let vanishing = get(&v, Q::VanishingAngle).to_radians();
    let exact = (1..=900)
        .map(degrees)
        .find(|&h| h > peak && arm(h) <= 0.0)
        .unwrap();
    assert!(
        (vanishing - exact).abs() < 0.7_f64.to_radians(),
        "{vanishing} {exact}"
    );
    // Where the gunwale meets the water.
    let edge = wets_at(0.5 * BEAM, DEPTH);
    let got = get(&v, Q::EdgeAngle).to_radians();
    assert!((got - edge).abs() < 0.3_f64.to_radians(), "{got} {edge}");
    // Work up to the gunwale: the sum over the polygon's arms.
    let until = edge.min(40.0_f64.to_radians());
    let step = degrees(1);
    let work: f64 = (0..=900)
        .map(degrees)
        .filter(|&h| h < until)
        .map(|h| arm(h + 0.5 * step) * step)
        .sum();
    let reserve = get(&v, Q::Reserve);
    assert_relative_eq!(reserve, WHOLE * GRAVITY * work, max_relative = 0.03);
    // Sitting sideways: the whole body 0.10 m out.
    let list = get(&v, Q::SidewaysList).to_radians();
    assert_relative_eq!(
        WHOLE * arm(list),
        CREW * 0.10 * list.cos(),
        max_relative = 0.015
    );
    assert_relative_eq!(
        get(&v, Q::SidewaysRoom),
        get(&v, Q::LastingLean) - 0.10,
        epsilon = 1e-12
    );
    // The pad's edge, three quarters of the half-breadth out, wets first.
    let pad = wets_at(0.75 * 0.5 * BEAM, DEPTH);
    let wets = get(&v, Q::FloorWetAngle).to_radians();
    assert!((wets - pad).abs() < 0.6_f64.to_radians(), "{wets} {pad}");
    let dry = WHOLE * arm(pad.min(peak)) / (CREW * pad.min(peak).cos());
    assert_relative_eq!(get(&v, Q::DryLean), dry, max_relative = 0.03);
}

/// Heel at which a point of the box's low side meets the water, rad.
fn wets_at(y: f64, z: f64) -> f64 {
    (0..9000)
        .map(|i| (0.01 * f64::from(i)).to_radians())
        .find(|h| z * h.cos() - y * h.sin() <= polygon(*h).1)
        .unwrap()
}

/// Righting arm of the box with its weight at `kg`, m.
fn polygon_gz(heel: f64, kg: f64) -> f64 {
    polygon(heel).0 - kg * heel.sin()
}

/// Horizontal place of the buoyancy and level of the water, by cutting the
/// section as a polygon and bisecting the water: shares nothing with the core.
fn polygon(heel: f64) -> (f64, f64) {
    let half = 0.5 * BEAM;
    let (sin, cos) = heel.sin_cos();
    let corners = [(-half, 0.0), (half, 0.0), (half, DEPTH), (-half, DEPTH)]
        .map(|(y, z)| (y * cos + z * sin, z * cos - y * sin));
    let below = |level: f64| {
        let mut wet: Vec<(f64, f64)> = Vec::new();
        for k in 0..4 {
            let (p, q) = (corners[k], corners[(k + 1) % 4]);
            if p.1 <= level {
                wet.push(p);
            }
            if (p.1 <= level) != (q.1 <= level) {
                let t = (level - p.1) / (q.1 - p.1);
                wet.push((p.0 + (q.0 - p.0) * t, level));
            }
        }
        let (mut area, mut moment) = (0.0, 0.0);
        for k in 0..wet.len() {
            let (p, q) = (wet[k], wet[(k + 1) % wet.len()]);
            let cross = p.0 * q.1 - q.0 * p.1;
            area += 0.5 * cross;
            moment += cross * (p.0 + q.0) / 6.0;
        }
        (area, moment)
    };
    let wanted = WHOLE / 1000.0 / LENGTH;
    let (mut low, mut high) = (-1.0, 1.0);
    for _ in 0..60 {
        let middle = 0.5 * (low + high);
        if below(middle).0 < wanted {
            low = middle;
        } else {
            high = middle;
        }
    }
    let (area, moment) = below(high);
    (moment / area, high)
}

#[test]
fn standing_figures_of_a_box() {
    let (hull, mut brief) = board();
    brief.posture = Posture::SitsAndStands;
    let v = exactly(&hull, &brief);
    let (_, kb, bm, _) = by_hand();
    // The angler's weight at the deck.
    let kg = (HULL * 0.10 + CREW * DEPTH + RIG * (DEPTH + 0.1)) / WHOLE;
    let five = 5.0_f64.to_radians();
    let h = 0.56 * STATURE;
    let support = WHOLE * polygon_gz(five, kg) / (five * CREW * h);
    assert_relative_eq!(get(&v, Q::StandingSupport), support, max_relative = 2e-3);
    let ten = 10.0_f64.to_radians();
    let room = WHOLE * polygon_gz(ten, kg) / (CREW * ten.cos());
    assert_relative_eq!(get(&v, Q::StandingRoom), room, max_relative = 2e-3);
    let rigid = kb + bm - kg - CREW * h / WHOLE;
    assert_relative_eq!(get(&v, Q::RigidStandingGm), rigid, max_relative = 1e-5);
}

/// A box with a recess from end to end, `inner` wide, its floor `floor` up.
fn trough(inner: f64, floor: f64) -> (Survey, Brief) {
    let (mut hull, brief) = board();
    hull.construction = Construction::SitOnTop;
    let (half, inner) = (0.5 * BEAM, 0.5 * inner);
    hull.offsets = [0.0, 0.4 * LENGTH, 0.6 * LENGTH, LENGTH]
        .map(|x| Station {
            x,
            points: vec![
                (0.0, 0.0),
                (half, 0.0),
                (half, DEPTH),
                (inner, DEPTH),
                (inner, floor),
                (0.0, floor),
            ],
        })
        .to_vec();
    (hull, brief)
}

#[test]
fn plugged_and_open_troughs_flood_where_they_should() {
    let (hull, mut brief) = trough(0.70, 0.09);
    brief.water.freeboard = 0.1;
    let open = exactly(&hull, &brief);
    brief.scuppers = Scuppers::Plugged;
    let plugged = exactly(&hull, &brief);
    // The hull's own centre is a sit-on-top's, 0.18 m up, the crew on the floor.
    let t = WHOLE / (1000.0 * LENGTH * BEAM);
    assert_relative_eq!(
        get(&open, Q::FloorAboveWater),
        0.09 - t,
        max_relative = 1e-3
    );
    // Open, the floor's edge meets the water; plugged, the rim does.
    let wets = wets_at(0.35, 0.09).to_degrees();
    assert!((get(&open, Q::FloorWetAngle) - wets).abs() < 0.3, "{wets}");
    assert_eq!(open.get(Q::DownFlooding), None);
    let fills = wets_at(0.5 * BEAM, DEPTH).to_degrees();
    assert!(
        (get(&plugged, Q::DownFlooding) - fills).abs() < 0.4,
        "{fills}"
    );
    // Brim-full with plugs in, the solid floats: T (B - b) + b·floor carry.
    let full = (WHOLE / 1000.0 / LENGTH - 0.70 * 0.09) / (BEAM - 0.70);
    let deeper = if full > 0.09 { full } else { t };
    let got = get(&plugged, Q::SwampedFreeboard);
    assert_relative_eq!(got, DEPTH - deeper, max_relative = 5e-3);
    // A brief lean meets the sealed body: the same, open or plugged.
    let (a, b) = (get(&open, Q::LeanRoom), get(&plugged, Q::LeanRoom));
    assert_relative_eq!(a, b, max_relative = 0.01);
    assert!(get(&open, Q::LastingLean) < a - 0.005);
    assert_relative_eq!(get(&plugged, Q::LastingLean), b, max_relative = 1e-9);
}

#[test]
fn a_floor_wet_at_rest_gives_a_brief_lean_nothing_extra() {
    // Its floor 3 cm under the water at rest: the water aboard runs to the low
    // side, so a brief lean is no better than a lasting one.
    let (hull, mut brief) = trough(0.50, 0.03);
    brief.water.floor_clearance = 0.0;
    let v = exactly(&hull, &brief);
    assert!(get(&v, Q::FloorAboveWater) < -0.02);
    assert_eq!(get(&v, Q::LeanRoom), get(&v, Q::LastingLean));
    assert_eq!(get(&v, Q::FloorWetAngle), 0.0);
    assert_eq!(get(&v, Q::DryLean), 0.0);
}

#[test]
fn the_sample_is_as_good_as_the_fine_solution() {
    // Every figure of 48 plausible shapes at the sample's accuracy against the
    // fine one: within a twentieth of what the estimate leaves open, or 1 %.
    let hull = survey(
        Construction::SitOnTop,
        galvet_core::hull::BottomShape::Tunnel,
        &[
            (Measure::Length, 3.6),
            (Measure::Beam, 0.86),
            (Measure::SeatLow, 0.15),
            (Measure::FittedWeight, 42.0),
        ],
    );
    let brief = brief(80.0, 1.8, rig(20.0, 0.58, 0.1));
    for scuppers in [Scuppers::Open, Scuppers::Plugged] {
        let mut brief = brief.clone();
        brief.scuppers = scuppers;
        let a = common::assess(&hull, &brief, 48);
        let (setup, full) = (&a.setup, a.in_full());
        for (i, shape) in setup.posterior.shapes.iter().enumerate() {
            let shapes = [*shape];
            let fine = Afloat::new(setup, &shapes, Accuracy::FINE).figures()[0]
                .0
                .clone();
            if scuppers == Scuppers::Open && common::floor_cut(&fine, 3.6) {
                continue;
            }
            for &q in Q::ALL {
                let (Some(x), Some(y)) = (full[i].get(q), fine.get(q)) else {
                    assert_eq!(full[i].get(q).is_some(), fine.get(q).is_some(), "{q:?}");
                    continue;
                };
                let width = a.range(q).map_or(0.0, |r| r.p95 - r.p5);
                let allowed = (0.05 * width).max(0.01 * y.abs()).max(1e-4);
                assert!(
                    (x - y).abs() <= allowed,
                    "{scuppers:?} {q:?}: {x} {y} {width}"
                );
            }
        }
    }
}

#[test]
fn the_deck_counts_only_where_the_brief_says_so_and_by_its_share() {
    use galvet_core::question::DeckUse;
    let survey = common::survey(
        galvet_core::hull::Construction::SitOnTop,
        galvet_core::hull::BottomShape::Flat,
        &[
            (galvet_core::hull::Measure::Length, 3.7),
            (galvet_core::hull::Measure::Beam, 0.9),
            (galvet_core::hull::Measure::FittedWeight, 40.0),
        ],
    );
    let of = |deck| {
        let mut brief = common::brief(80.0, 1.75, common::rig(10.0, 0.6, 0.1));
        brief.deck = deck;
        let ranking = galvet_core::rank::rank(
            &std::sync::Arc::new(brief),
            &[std::sync::Arc::new(survey.clone())],
            16,
            &common::guides(),
        );
        ranking.ranked[0].score.clone()
    };
    let (aside, fifth) = (of(DeckUse::Aside), of(DeckUse::Fifth));
    // By hand: floor 0.20 × 3.7 long, 0.48 × 0.9 wide, of 0.6 m²; well 0.24 × 3.7
    // long, 0.46 × 0.9 wide, of 0.25 m².
    let floor = 100.0 * (0.20 * 3.7 * 0.48 * 0.9) / 0.6;
    let well = (100.0_f64 * (0.24 * 3.7 * 0.46 * 0.9) / 0.25).min(100.0);
    let by_hand = 0.5 * floor + 0.5 * well;
    assert!(
        (fifth.deck - by_hand).abs() < 1e-6,
        "{} {by_hand}",
        fifth.deck
    );
    let two = 0.5 * aside.capacity + 0.5 * aside.stability;
    assert!((aside.total - two).abs() < 1e-9);
    assert!((fifth.total - (0.8 * two + 0.2 * by_hand)).abs() < 1e-6);
}
