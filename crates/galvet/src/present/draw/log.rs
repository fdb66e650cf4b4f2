//! Charts of the log: hours by month, load against its limit, used against carried, read
//! against foretold, a day hour by hour, a track.

use super::{coordinate, path};
use galvet_core::log::Fix;

/// Width and height of a chart's field, and where it begins.
const FIELD: (f64, f64) = (560.0, 150.0);
const LEFT: f64 = 74.0;
const TOP: f64 = 10.0;

/// A bar: place, top, width, height; what it says.
pub struct Bar {
    pub x: String,
    pub y: String,
    pub width: String,
    pub height: String,
    pub words: String,
    /// Whether something of it is not known.
    pub open: bool,
}

/// Bars over time.
pub struct Bars {
    pub bars: Vec<Bar>,
    /// Place and label under the axis.
    pub ticks: Vec<(String, String)>,
    /// Level and label at the side.
    pub levels: Vec<(String, String)>,
    pub words: String,
}

/// A step so that at most five levels are shown.
fn step_for(most: f64) -> f64 {
    let steps = [
        0.1, 0.2, 0.5, 1.0, 2.0, 5.0, 10.0, 20.0, 50.0, 100.0, 200.0, 500.0,
    ];
    let fits = |step: &f64| most / step <= 5.0;
    steps.into_iter().find(fits).unwrap_or(1_000.0)
}

/// One bar a month: its name, how much, what is said of it, whether something is not known.
#[must_use]
pub fn bars(months: &[(String, f64, String, bool)], unit: &str, words: String) -> Bars {
    let most = months.iter().map(|m| m.1).fold(1.0, f64::max);
    let step = step_for(most);
    let top = (most / step).ceil() * step;
    let wide = FIELD.0 / months.len().max(1) as f64;
    let y = |value: f64| TOP + (1.0 - value / top) * FIELD.1;
    let every = months.len().div_ceil(9).max(1);
    let place = |i: usize| LEFT + wide * i as f64;
    let count = (top / step).round() as u32;
    Bars {
        bars: months
            .iter()
            .enumerate()
            .map(|(i, (_, value, words, open))| Bar {
                x: coordinate(place(i) + 0.12 * wide),
                y: coordinate(y(*value)),
                width: coordinate(0.76 * wide),
                height: coordinate(TOP + FIELD.1 - y(*value)),
                words: words.clone(),
                open: *open,
            })
            .collect(),
        ticks: months
            .iter()
            .enumerate()
            .step_by(every)
            .map(|(i, m)| (coordinate(place(i) + 0.5 * wide), m.0.clone()))
            .collect(),
        levels: (0..=count)
            .map(|k| {
                let value = step * f64::from(k);
                (coordinate(y(value)), format!("{value:.0}\u{a0}{unit}"))
            })
            .collect(),
        words,
    }
}

/// Loads by outing against the tightest limit.
pub struct Loads {
    /// The load of each: place, level, what it says.
    pub dots: Vec<(String, String, String)>,
    /// The limit of each, least to most: place, top, height; middle.
    pub limits: Vec<(String, String, String, String)>,
    pub ticks: Vec<(String, String)>,
    pub levels: Vec<(String, String)>,
    /// Half the width of a limit.
    pub half: f64,
    pub words: String,
}

/// One outing of a chart of loads: when, load, least, middle and greatest limit, words.
pub type Loaded = (String, f64, (f64, f64, f64), String);

/// Draws loads in kg or lb; figures are in the reader's units already.
#[must_use]
pub fn loads(outings: &[Loaded], unit: &str, words: String) -> Loads {
    let most = outings.iter().map(|o| o.1.max(o.2.2)).fold(1.0, f64::max);
    let step = step_for(most);
    let top = (most / step).ceil() * step;
    let y = |value: f64| TOP + (1.0 - (value / top).clamp(0.0, 1.0)) * FIELD.1;
    let wide = FIELD.0 / outings.len().max(1) as f64;
    let x = |i: usize| LEFT + wide * (i as f64 + 0.5);
    let every = outings.len().div_ceil(8).max(1);
    let count = (top / step).round() as u32;
    Loads {
        dots: outings
            .iter()
            .enumerate()
            .map(|(i, o)| (coordinate(x(i)), coordinate(y(o.1)), o.3.clone()))
            .collect(),
        limits: outings
            .iter()
            .enumerate()
            .map(|(i, o)| {
                let (low, middle, high) = o.2;
                (
                    coordinate(x(i)),
                    coordinate(y(high)),
                    coordinate((y(low) - y(high)).max(1.0)),
                    coordinate(y(middle)),
                )
            })
            .collect(),
        ticks: outings
            .iter()
            .enumerate()
            .step_by(every)
            .map(|(i, o)| (coordinate(x(i)), o.0.clone()))
            .collect(),
        levels: (0..=count)
            .map(|k| {
                let value = step * f64::from(k);
                (coordinate(y(value)), format!("{value:.0}\u{a0}{unit}"))
            })
            .collect(),
        half: (0.36 * wide).min(12.0),
        words,
    }
}

/// A thing: used, not used, nobody said, as parts of a bar 100 wide.
pub struct Share {
    pub used: String,
    pub unused_at: String,
    pub unused: String,
    pub unsaid_at: String,
    pub unsaid: String,
}

/// Parts of a bar for outings used, not used and not said, of the most carried.
#[must_use]
pub fn share(used: usize, unused: usize, unsaid: usize, most: usize) -> Share {
    let part = |n: usize| 100.0 * n as f64 / most.max(1) as f64;
    Share {
        used: coordinate(part(used)),
        unused_at: coordinate(part(used)),
        unused: coordinate(part(unused)),
        unsaid_at: coordinate(part(used + unused)),
        unsaid: coordinate(part(unsaid)),
    }
}

/// Read against foretold: each as what it is off the middle foretold, in widths of the band.
pub struct Band {
    /// Level of the row.
    pub y: String,
    /// Where the band begins, and how wide it is.
    pub x: String,
    pub width: String,
    /// What was read.
    pub dot: String,
    pub held: bool,
    pub label: String,
    pub words: String,
}

/// Rows of a chart of bands, with its height and its middle.
pub struct Bands {
    pub rows: Vec<Band>,
    pub height: u32,
    pub middle: String,
    pub top: String,
    pub words: String,
}

/// One row: its label, least, middle, greatest, read, words.
pub type Banded = (String, [f64; 3], f64, String);

/// Draws them, all at one scale: their unit is one.
#[must_use]
pub fn bands(rows: &[Banded], words: String) -> Bands {
    const ROW: f64 = 26.0;
    let far = |b: &Banded| {
        let off = [b.1[0], b.1[2], b.2].map(|v| (v - b.1[1]).abs());
        off.into_iter().fold(0.0, f64::max)
    };
    let most = rows.iter().map(far).fold(1e-9, f64::max);
    let middle = LEFT + 0.62 * FIELD.0;
    let x = |off: f64| middle + off / most * 0.36 * FIELD.0;
    Bands {
        rows: rows
            .iter()
            .enumerate()
            .map(|(i, (label, [low, mid, high], read, words))| Band {
                y: coordinate(18.0 + ROW * i as f64),
                x: coordinate(x(low - mid)),
                width: coordinate((x(high - mid) - x(low - mid)).max(1.0)),
                dot: coordinate(x(read - mid)),
                held: (*low..=*high).contains(read),
                label: label.clone(),
                words: words.clone(),
            })
            .collect(),
        height: (24.0 + ROW * rows.len() as f64) as u32,
        middle: coordinate(middle),
        top: coordinate(24.0 + ROW * rows.len() as f64),
        words,
    }
}

/// A curve of hours: depth at the ramp or wind, with the hours in which nothing is wrong.
pub struct DayCurve {
    pub line: String,
    /// Second line: over the bar, gusts; empty for none.
    pub other: String,
    /// What is needed, or the limit: its level.
    pub limit: Option<(String, String)>,
    /// Hours without anything against them: place, width.
    pub good: Vec<(String, String)>,
    pub hours: Vec<(String, String)>,
    pub levels: Vec<(String, String)>,
    pub words: String,
}

/// What is drawn of a day: hour and value of a line, perhaps another, the limit with its
/// words, windows from and to in hours, how a level is said.
pub struct DayOf<'a> {
    pub line: &'a [(f64, f64)],
    pub other: &'a [(f64, f64)],
    pub limit: Option<(f64, String)>,
    pub good: &'a [(f64, f64)],
    pub say: &'a dyn Fn(f64) -> String,
    pub words: String,
}

/// Draws a day from midnight to midnight.
#[must_use]
pub fn day(of: &DayOf<'_>) -> DayCurve {
    let all = || of.line.iter().chain(of.other).map(|p| p.1);
    let with_limit = of.limit.as_ref().map_or(0.0, |l| l.0);
    let most = all().fold(with_limit, f64::max);
    let least = all().fold(0.0, f64::min);
    let step = step_for(most - least);
    let (lo, hi) = (
        (least / step).floor() * step,
        ((most / step).ceil() * step).max(step),
    );
    let x = |hour: f64| LEFT + hour / 24.0 * FIELD.0;
    let y = |value: f64| TOP + (hi - value) / (hi - lo) * FIELD.1;
    let line = |points: &[(f64, f64)]| path(points.iter().map(|p| (x(p.0), y(p.1))), false);
    let count = ((hi - lo) / step).round() as u32;
    DayCurve {
        line: line(of.line),
        other: line(of.other),
        limit: of
            .limit
            .as_ref()
            .map(|(v, w)| (coordinate(y(*v)), w.clone())),
        good: of
            .good
            .iter()
            .map(|(from, to)| (coordinate(x(*from)), coordinate(x(*to) - x(*from))))
            .collect(),
        hours: (0..=8)
            .map(|k| {
                let hour = 3.0 * f64::from(k);
                (coordinate(x(hour)), format!("{hour:.0}"))
            })
            .collect(),
        levels: (0..=count)
            .map(|k| {
                let value = lo + step * f64::from(k);
                (coordinate(y(value)), (of.say)(value))
            })
            .collect(),
        words: of.words.clone(),
    }
}

/// A track: its path in a box of 300 × 200, where it starts, and the box' words.
pub struct TrackView {
    pub path: String,
    pub start: (String, String),
    pub end: (String, String),
}

/// Draws a track north up.
#[must_use]
pub fn track(track: &[Fix]) -> Option<TrackView> {
    const BOX: (f64, f64) = (300.0, 200.0);
    let (first, last) = (track.first()?, track.last()?);
    let narrow = first.north.to_radians().cos();
    let flat: Vec<(f64, f64)> = track
        .iter()
        .map(|f| ((f.east - first.east) * narrow, first.north - f.north))
        .collect();
    let ends = |of: fn(&(f64, f64)) -> f64| {
        let all = || flat.iter().map(of);
        (
            all().fold(f64::INFINITY, f64::min),
            all().fold(f64::NEG_INFINITY, f64::max),
        )
    };
    let ((x0, x1), (y0, y1)) = (ends(|p| p.0), ends(|p| p.1));
    let scale = ((BOX.0 - 24.0) / (x1 - x0).max(1e-6)).min((BOX.1 - 24.0) / (y1 - y0).max(1e-6));
    let at = |(x, y): (f64, f64)| {
        (
            0.5 * BOX.0 + (x - 0.5 * (x0 + x1)) * scale,
            0.5 * BOX.1 + (y - 0.5 * (y0 + y1)) * scale,
        )
    };
    let told = |f: &Fix| {
        let (x, y) = at(((f.east - first.east) * narrow, first.north - f.north));
        (coordinate(x), coordinate(y))
    };
    Some(TrackView {
        path: path(flat.iter().map(|p| at(*p)), false),
        start: told(first),
        end: told(last),
    })
}
