//! A walked hull, things and rigs for the stowing tests, and a checker of layouts
//! by its own reckoning.
#![allow(dead_code, reason = "each test file uses its own part")]

use crate::common::survey;
use galvet_core::crew::{Hand, Posture};
use galvet_core::gear::{Category, Fixing, Gear, Needs};
use galvet_core::guide::Guides;
use galvet_core::hull::{
    BottomShape, Construction, Dryness, Fitting, FittingKind, Measure, Pin, Source, Survey, Zone,
    ZoneKind,
};
use galvet_core::rig::{Rig, RigLine};
use galvet_core::stow::{Aboard, Demand, Layout, Piece, Rect, Space, Stead};

pub const LENGTH: f64 = 3.7;
pub const BEAM: f64 = 0.9;

/// A small generator whose seeds are fixed.
pub struct Dice(pub u64);

impl Dice {
    pub fn roll(&mut self, sides: u64) -> u64 {
        // Knuth's MMIX constants.
        self.0 = self
            .0
            .wrapping_mul(6_364_136_223_846_793_005)
            .wrapping_add(1_442_695_040_888_963_407);
        (self.0 >> 33) % sides
    }
}

pub fn zone(name: &str, kind: ZoneKind, place: [f64; 3]) -> Zone {
    Zone {
        dryness: Some(Dryness::Open),
        underside_reachable: Some(true),
        source: Source::Tape,
        ..Zone::plain(name, kind, place)
    }
}

pub fn fitting(name: &str, kind: FittingKind, x: f64, y: f64) -> Fitting {
    Fitting {
        name: name.into(),
        kind,
        x,
        y,
        z: None,
        mount: String::new(),
        source: Source::Tape,
    }
}

/// A walked sit-on-top: every place of the template measured away but those given.
pub fn hull(zones: Vec<Zone>, fittings: Vec<Fitting>) -> Survey {
    let readings = [
        (Measure::Length, LENGTH),
        (Measure::Beam, BEAM),
        (Measure::Depth, 0.36),
        (Measure::FloorHeight, 0.135),
        (Measure::SeatPlace, 0.53),
        (Measure::SeatLow, 0.13),
    ];
    let mut survey = survey(Construction::SitOnTop, BottomShape::Flat, &readings);
    let guesses = galvet_core::hull::zones(&survey);
    survey.looked.absent = guesses.into_iter().map(|z| z.name).collect();
    survey.fitout.zones = zones;
    // Strapped to all along.
    let eyes = [0.3, 0.6, 0.9, 1.2, 1.5, 1.8, 2.1, 2.4, 2.7, 3.0, 3.3];
    let eyes = eyes.map(|x| fitting(&format!("eye {x}"), FittingKind::PadEye, x, 0.3));
    survey.fitout.fittings = eyes.into_iter().chain(fittings).collect();
    survey
}

/// Boxes that stand as they were measured.
pub fn gear(key: &str, mass: f64, size: [f64; 3]) -> Gear {
    let needs = Needs {
        upright: true,
        ..Needs::default()
    };
    Gear {
        needs,
        fixings: vec![Fixing::Strap],
        zones: vec![ZoneKind::TankWell],
        ..Gear::plain(key, key, Category::Other, mass, Some(size))
    }
}

pub fn line(gear: &Gear) -> RigLine {
    RigLine::plain("", 0.0).is(gear)
}

pub fn rig(lines: Vec<RigLine>) -> Rig {
    Rig {
        key: "fixture".into(),
        name: "Fixture".into(),
        lines,
    }
}

pub fn lay(survey: &Survey, rig: &Rig, posture: Posture, pins: &[Pin]) -> (Space, Layout) {
    laid_by(survey, rig, (posture, Hand::Right), pins)
}

pub fn laid_for(survey: &Survey, rig: &Rig, posture: Posture, hand: Hand) -> Layout {
    laid_by(survey, rig, (posture, hand), &[]).1
}

fn laid_by(
    survey: &Survey,
    rig: &Rig,
    (posture, hand): (Posture, Hand),
    pins: &[Pin],
) -> (Space, Layout) {
    let guides = Guides::default();
    let aboard = Aboard {
        posture,
        stature: 1.8,
        hand,
        others: Vec::new(),
    };
    let space = Space::of(survey, aboard, [LENGTH, BEAM], &guides);
    let stead = Stead {
        space: &space,
        pins,
        bow: 0.0,
        guides: &guides,
        drills: true,
    };
    let layout = stead.settle(&mut Demand::of(rig, &guides));
    (space, layout)
}

pub fn laid(survey: &Survey, rig: &Rig) -> Layout {
    lay(survey, rig, Posture::Sits, &[]).1
}

/// What must hold of every layout, by its own reckoning: what lies in a place lies
/// inside it, low enough, through its opening, and clear of all else.
pub fn checked(survey: &Survey, layout: &Layout) {
    let zones = galvet_core::hull::zones(survey);
    let mut boxes: Vec<(String, [f64; 6])> = Vec::new();
    for s in &layout.stowed {
        let Some(lies) = s.lies.as_ref().filter(|l| l.within.is_none()) else {
            continue;
        };
        let [l, w, h] = lies.size;
        let b = [
            s.x - l / 2.0,
            s.x + l / 2.0,
            s.y - w / 2.0,
            s.y + w / 2.0,
            lies.base,
            lies.base + h,
        ];
        let hair = 2e-3;
        if let Some(zone) = zones.iter().find(|z| z.name == lies.zone) {
            let slack = if zone.source == Source::Guess {
                1.15
            } else {
                1.0
            };
            let long = (zone.to - zone.from) * slack;
            let inside = b[0] >= zone.from - (long - (zone.to - zone.from)) - hair
                && b[1] <= zone.from + long + hair
                && b[2] >= zone.offset - zone.width / 2.0 - hair
                && b[3] <= zone.offset - zone.width / 2.0 + zone.width * slack + hair;
            assert!(inside, "{} sticks out of {}: {b:?}", s.item, zone.name);
            for height in [zone.height, zone.height_at_lid].into_iter().flatten() {
                assert!(
                    h <= height * slack + 1e-6,
                    "{} is too high for {}",
                    s.item,
                    zone.name
                );
            }
        }
        if lies.fixing != Fixing::Holder && lies.fixing != Fixing::Worn {
            boxes.push((s.item.clone(), b));
        }
    }
    for (i, (a_name, a)) in boxes.iter().enumerate() {
        for (b_name, b) in &boxes[i + 1..] {
            let hair = 1.1e-3;
            let apart =
                (0..3).any(|k| a[2 * k + 1] <= b[2 * k] + hair || b[2 * k + 1] <= a[2 * k] + hair);
            assert!(apart, "{a_name} and {b_name} overlap: {a:?} {b:?}");
        }
    }
}

/// Whether pieces go into a room, every place on a grid tried: all sizes are whole
/// cells.
pub fn by_force(room: (i32, i32), kept: &[Rect], pieces: &[Piece], placed: &mut Vec<Rect>) -> bool {
    let Some(piece) = pieces.get(placed.len()) else {
        return true;
    };
    let turns = [(piece.length, piece.width), (piece.width, piece.length)];
    for &(length, width) in turns.iter().take(1 + usize::from(piece.turns)) {
        for x in 0..=(room.0.min(piece.within) - length) {
            for y in 0..=(room.1 - width) {
                let rect = Rect {
                    x,
                    y,
                    length,
                    width,
                };
                let clear = |other: &Rect| !other.overlaps(rect);
                if kept.iter().all(clear) && placed.iter().all(clear) {
                    placed.push(rect);
                    if by_force(room, kept, pieces, placed) {
                        return true;
                    }
                    placed.pop();
                }
            }
        }
    }
    false
}
