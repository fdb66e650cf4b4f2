//! A course on a boat as JSON for a picture that moves, and as a table for a file.

use galvet_core::pond::{Boat, Course, End, Frame, Happened, Scene};
use serde_json::{Value, json};

/// Ticks between two frames handed out: fifty a second.
pub const EVERY: u32 = 2;

/// The word of what happened.
#[must_use]
pub const fn word(what: Happened) -> &'static str {
    match what {
        Happened::Stood => "stood",
        Happened::SatDown => "sat-down",
        Happened::Reached => "reached",
        Happened::Wet => "wet",
        Happened::RanIn => "ran-in",
        Happened::Over => "over",
    }
}

fn rounded(value: f64, per: f64) -> i64 {
    (value * per).round() as i64
}

fn points(points: &[(f64, f64)]) -> Value {
    let flat = points
        .iter()
        .flat_map(|&(y, z)| [rounded(y, 1e3), rounded(z, 1e3)]);
    flat.collect()
}

/// What does not move: outlines in mm over the middle of the floor, water by whole degrees of
/// heel, heels at which it comes in in hundredths of a degree.
#[must_use]
pub fn still(boat: &Boat, scene: &Scene) -> Value {
    let degrees = |rad: f64| rounded(rad.to_degrees(), 100.0);
    let [low, high] = boat.angler.hips();
    let [dry, wet] = boat.arms[1].levels();
    let mm = |all: &[f64]| all.iter().map(|v| rounded(*v, 1e3)).collect::<Value>();
    let arms = (0..=60).map(|deg| boat.arms[1].at(f64::from(deg).to_radians(), 0.0));
    json!({
        "outline": points(&scene.outline),
        "floor": rounded(scene.floor, 1e3),
        "recess": boat.recess,
        "rim": rounded(scene.rim, 1e3),
        "seat": rounded(scene.seat, 1e3),
        "stature": rounded(scene.stature, 1e3),
        "beam": rounded(boat.beam, 1e3),
        "hips": [rounded(low, 1e3), rounded(high, 1e3)],
        "trunk": points(&scene.trunk),
        "aid": points(&scene.aid),
        "cap": points(&scene.cap),
        "head": [rounded(scene.head.0, 1e3), rounded(scene.head.1, 1e3)],
        // Who sits beside: stature and height of the hip.
        "mate": boat.mate.map(|m| [rounded(m.stature, 1e3), rounded(m.hips()[0], 1e3)]),
        "dry": mm(dry),
        "wet": mm(wet),
        "wets": degrees(boat.wets),
        "runs_in": degrees(boat.runs_in),
        "arms": arms.map(|arm| rounded(arm, 1e4)).collect::<Value>(),
    })
}

/// What moves, from a frame on: angles in hundredths of a degree, shares in thousandths, mm, N.
#[must_use]
pub fn moving(course: &Course, from: f64) -> Value {
    let frames: Vec<&Frame> = course
        .frames
        .iter()
        .filter(|f| f.time >= from - 1e-9)
        .collect();
    let column = |of: &dyn Fn(&Frame) -> i64| frames.iter().map(|f| of(f)).collect::<Value>();
    let degrees = |rad: f64| rounded(rad.to_degrees(), 100.0);
    let happened = course.happened.iter();
    json!({
        "from": frames.first().map_or(from, |f| f.time),
        "heel": column(&|f| degrees(f.at.heel)),
        "legs": column(&|f| degrees(f.at.legs)),
        "trunk": column(&|f| degrees(f.at.trunk)),
        "slope": column(&|f| degrees(f.slope)),
        "up": column(&|f| rounded(f.up, 1e3)),
        "filled": column(&|f| rounded(f.at.filled, 1e3)),
        "reach": column(&|f| rounded(f.reach, 1e3)),
        "aside": column(&|f| rounded(f.aside, 1e3)),
        "beside": column(&|f| rounded(f.beside, 1e3)),
        "force": column(&|f| rounded(f.force, 1.0)),
        "mate": column(&|f| degrees(f.at.mate[0])),
        "happened": happened.map(|(at, what)| json!([at, word(*what)])).collect::<Value>(),
        "over": course.end == End::Over,
    })
}

/// Heel alone: of a shape that is drawn faintly.
#[must_use]
pub fn heeling(course: &Course, from: f64) -> Value {
    let frames = course.frames.iter().filter(|f| f.time >= from - 1e-9);
    frames
        .map(|f| rounded(f.at.heel.to_degrees(), 100.0))
        .collect()
}

/// A course as a table: one line a frame.
///
/// # Errors
/// What the writer says.
pub fn table(course: &Course) -> Result<String, csv::Error> {
    let mut out = csv::Writer::from_writer(Vec::new());
    out.write_record([
        "time_s",
        "heel_deg",
        "legs_deg",
        "trunk_deg",
        "water_slope_deg",
        "up_share",
        "reach_share",
        "floor_filled_share",
        "force_n",
    ])?;
    for f in &course.frames {
        let degrees = |rad: f64| format!("{:.2}", rad.to_degrees());
        out.write_record([
            format!("{:.2}", f.time),
            degrees(f.at.heel),
            degrees(f.at.legs),
            degrees(f.at.trunk),
            degrees(f.slope),
            format!("{:.3}", f.up),
            format!("{:.3}", f.reach),
            format!("{:.3}", f.at.filled),
            format!("{:.1}", f.force),
        ])?;
    }
    let bytes = out.into_inner().map_err(|e| e.into_error())?;
    Ok(String::from_utf8_lossy(&bytes).into_owned())
}
