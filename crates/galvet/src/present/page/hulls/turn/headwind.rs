//! Straight against a headwind: how fast, and at what effort by each propulsion.

use galvet_core::base::{Dimension, System};
use galvet_core::figures::Assessment;
use galvet_core::handling::{Effort, against, efforts};
use galvet_core::hull::Propulsion;
use galvet_core::question::Outing;

/// Winds as they are said, in the unit read: km/h or mph.
const WINDS: [f64; 4] = [0.0, 10.0, 20.0, 30.0];
/// A walking pace, in the same unit.
const PACE: f64 = 3.0;

/// One of the unit speeds are read in, m/s.
fn one(system: System) -> f64 {
    1.0 / system.convert(Dimension::Speed, 1.0)
}

/// What it makes against harder and harder wind, in words.
pub(super) fn over_headwind(a: &Assessment, outing: &Outing, system: System) -> Option<String> {
    let winds = [WINDS[1], WINDS[2], WINDS[3]].map(|w| w * one(system));
    let speeds = against(a, outing, &winds)?;
    let told = |v: &Option<f64>| match v {
        Some(v) => system.number(Dimension::Speed, *v, 1),
        None => "nothing".to_owned(),
    };
    let [a, b, c] = [0, 1, 2].map(|k| told(&speeds[k]));
    let unit = system.unit(Dimension::Speed);
    Some(format!(
        "Straight against 10, 20 and 30\u{a0}{unit} of wind and the stream it makes {a}, {b} and {c}\u{a0}{unit} over the ground."
    ))
}

/// What a walking pace takes against harder and harder wind.
pub struct Efforts {
    /// What is told.
    pub caption: String,
    /// The winds.
    pub heads: Vec<String>,
    /// By what, and against each wind: watts and how long they are kept up.
    pub rows: Vec<(&'static str, Vec<Kept>)>,
}

/// Watts, and for how long.
pub struct Kept {
    pub watts: String,
    pub words: &'static str,
}

/// How long an effort is kept up, in words.
fn kept(by: Propulsion, share: f64) -> &'static str {
    /// Beyond this share of what is kept up for hours it is not kept up at all: people
    /// give about two and a half times that for some minutes. Guide values.
    const MINUTES: f64 = 2.5;
    match (by, share) {
        (Propulsion::Motor, share) if share <= 1.0 => "at cruise",
        (Propulsion::Motor, _) => "empties the battery sooner",
        (_, share) if share <= 0.5 => "easy",
        (_, share) if share <= 1.0 => "for hours",
        (_, share) if share <= MINUTES => "for minutes",
        _ => "too hard",
    }
}

/// The table of efforts; `None` where no wind is named.
pub(super) fn effort_table(a: &Assessment, outing: &Outing, system: System) -> Option<Efforts> {
    let own = a.driven();
    let winds = WINDS.map(|w| w * one(system));
    let all = efforts(a, outing, &winds, PACE * one(system))?;
    let unit = system.unit(Dimension::Speed);
    let row = |e: &Effort| {
        let name = match e.by {
            Propulsion::Paddle if own.has_drive() => "by paddle, drive up",
            Propulsion::Paddle => "by paddle",
            Propulsion::RotaryPedal => "by rotary pedals",
            Propulsion::FinPedal => "by fin pedals",
            Propulsion::Motor if own == Propulsion::Motor => "by motor",
            Propulsion::Motor => "with a motor added",
        };
        let cells = e.watts.iter().map(|&w| Kept {
            watts: system.text(Dimension::Power, w, 0),
            words: kept(e.by, w / e.lasting),
        });
        (name, cells.collect())
    };
    Some(Efforts {
        caption: format!(
            "Effort to make {PACE:.0}\u{a0}{unit} over the ground straight against wind and stream"
        ),
        heads: WINDS.map(|w| format!("{w:.0}\u{a0}{unit}")).to_vec(),
        rows: all.iter().map(row).collect(),
    })
}
