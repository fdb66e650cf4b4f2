//! The map: capacity margin across, stability up, each hull with the stretch in
//! which nine of ten of its plausible shapes lie.

use super::{coordinate, path};
use galvet_core::base::System;
use galvet_core::crew::Posture;
use galvet_core::figures::{Assessment, Quantity, Range};
use galvet_core::rank::{Ranking, explain};

/// A hull on the map.
pub struct MapMark {
    pub key: String,
    /// Its place, or a cross where it is ruled out.
    pub label: String,
    pub out: bool,
    pub on_front: bool,
    pub x: String,
    pub y: String,
    /// Its range: half its width and height, and its middle.
    pub soft: [String; 4],
    /// All of it in words.
    pub words: String,
}

/// A line across or up, with what is written at it.
pub struct Tick {
    pub at: String,
    pub label: String,
}

/// The map.
pub struct Map {
    pub marks: Vec<MapMark>,
    /// Hulls than which none is better on both.
    pub front: String,
    pub across: Vec<Tick>,
    pub up: Vec<Tick>,
    /// Width of the part in which nothing is in hand, from the left.
    pub short: Option<String>,
    /// Top of the part in which it is not steady enough for what is asked.
    pub tender: Option<String>,
    pub across_label: &'static str,
    pub up_label: &'static str,
    /// How many hulls are not drawn: further down, or ruled out where there are too many.
    pub left_out: usize,
}

/// Hulls told apart on a map, at most.
const MOST: usize = 150;

/// The plot's frame in view-box units: left, right, top, bottom.
pub const FRAME: [f64; 4] = [64.0, 868.0, 16.0, 330.0];
/// Radius of a mark: no soft shape is smaller.
const RADIUS: f64 = 13.0;

/// A stretch of an axis, rounded outward to whole steps of a readable size.
struct Axis {
    lo: f64,
    hi: f64,
    step: f64,
}

impl Axis {
    fn of(values: impl Iterator<Item = f64>) -> Self {
        let (lo, hi) = values.fold((f64::INFINITY, f64::NEG_INFINITY), |(lo, hi), v| {
            (lo.min(v), hi.max(v))
        });
        let (lo, hi) = match (lo, hi) {
            (lo, hi) if lo < hi => (lo, hi),
            // One value alone lies in the middle.
            (one, _) if one.is_finite() => (one - 1.0, one + 1.0),
            _ => (0.0, 1.0),
        };
        let rough = (hi - lo) / 5.0;
        let size = 10_f64.powf(rough.log10().floor());
        let nice = [1.0, 2.0, 5.0, 10.0]
            .into_iter()
            .find(|n| n * size >= rough);
        let step = nice.unwrap_or(10.0) * size;
        Self {
            lo: (lo / step).floor() * step,
            hi: (hi / step).ceil() * step,
            step,
        }
    }

    fn share(&self, value: f64) -> f64 {
        ((value - self.lo) / (self.hi - self.lo)).clamp(0.0, 1.0)
    }

    fn steps(&self) -> impl Iterator<Item = f64> + '_ {
        let count = ((self.hi - self.lo) / self.step).round() as u32;
        (0..=count).map(|n| self.lo + f64::from(n) * self.step)
    }
}

/// A hull's two figures with their ranges, where both are known.
fn figures(assessment: &Assessment, up: Quantity) -> Option<(Range, Range)> {
    assessment.median(Quantity::BindingMargin)?;
    assessment.median(up)?;
    Some((
        assessment.range(Quantity::BindingMargin)?,
        assessment.range(up)?,
    ))
}

/// A hull to be drawn.
struct Drawn {
    key: String,
    name: String,
    /// Its place; `None` where it is ruled out.
    place: Option<usize>,
    on_front: bool,
    margin: Range,
    steady: Range,
}

/// The hulls of a ranking that have both figures, and how many of them are too many.
fn drawn(ranking: &Ranking, up: Quantity) -> (Vec<Drawn>, usize) {
    let ranked = ranking
        .ranked
        .iter()
        .enumerate()
        .filter_map(|(place, entry)| {
            let (margin, steady) = figures(&entry.assessment, up)?;
            Some(Drawn {
                key: entry.survey().key.clone(),
                name: entry.survey().name(),
                place: Some(place + 1),
                on_front: entry.on_front,
                margin,
                steady,
            })
        });
    let out = ranking.ruled_out.iter().filter_map(|out| {
        let (margin, steady) = figures(out.assessment.as_ref()?, up)?;
        Some(Drawn {
            key: out.survey.key.clone(),
            name: out.survey.name(),
            place: None,
            on_front: false,
            margin,
            steady,
        })
    });
    let mut all: Vec<Drawn> = ranked.chain(out).collect();
    let hulls = all.len();
    if hulls > MOST {
        // Those that no other is better than stay, wherever they stand.
        all.retain(|hull| hull.on_front || hull.place.is_some_and(|at| at <= MOST));
    }
    let left_out = hulls - all.len();
    (all, left_out)
}

/// Draws the map of a ranking; `None` where no hull has both figures.
#[must_use]
pub fn map(ranking: &Ranking, system: System) -> Option<Map> {
    let up = explain::headline_stability(&ranking.brief);
    let (all, left_out) = drawn(ranking, up);
    if all.is_empty() {
        return None;
    }
    let shown = |v: f64, q: Quantity| system.convert(q.row().dimension, v);
    let across = |v: f64| shown(v, Quantity::BindingMargin);
    let upward = |v: f64| shown(v, up);
    // Nothing in hand is always on the map.
    let ends = all
        .iter()
        .flat_map(|a| [a.margin.p5, a.margin.p95])
        .chain([0.0]);
    let x_axis = Axis::of(ends.map(across));
    let y_axis = Axis::of(
        all.iter()
            .flat_map(|a| [a.steady.p5, a.steady.p95])
            .map(upward),
    );
    let [left, right, top, bottom] = FRAME;
    let x = |v: f64| left + x_axis.share(across(v)) * (right - left);
    let y = |v: f64| bottom - y_axis.share(upward(v)) * (bottom - top);
    let mut front: Vec<(f64, f64)> = all
        .iter()
        .filter(|a| a.on_front)
        .map(|a| (x(a.margin.p50), y(a.steady.p50)))
        .collect();
    front.sort_by(|a, b| a.0.total_cmp(&b.0));
    let tick = |at: f64, value: f64, q: Quantity, step: f64| {
        let decimals = if step < 1.0 {
            1 + usize::from(step < 0.1)
        } else {
            0
        };
        let unit = system.unit(q.row().dimension);
        let space = if unit.is_empty() { "" } else { "\u{a0}" };
        Tick {
            at: coordinate(at),
            label: format!("{value:.decimals$}{space}{unit}"),
        }
    };
    let marks = all.into_iter().map(|hull| {
        let Drawn {
            key,
            name,
            place,
            on_front,
            margin,
            steady,
        } = hull;
        let soft = [
            (0.5 * (x(margin.p95) - x(margin.p5))).max(RADIUS),
            (0.5 * (y(steady.p5) - y(steady.p95))).max(RADIUS),
            0.5 * (x(margin.p95) + x(margin.p5)),
            0.5 * (y(steady.p5) + y(steady.p95)),
        ];
        let told = |q: Quantity, r: Range| q.row().text(system, r.p50);
        let stands = place.map_or("ruled out".to_owned(), |p| format!("place {p}"));
        MapMark {
            label: place.map_or("×".to_owned(), |p| p.to_string()),
            out: place.is_none(),
            on_front,
            x: coordinate(x(margin.p50)),
            y: coordinate(y(steady.p50)),
            soft: soft.map(coordinate),
            words: format!(
                "{name}, {stands}: {} in hand, {} {}",
                told(Quantity::BindingMargin, margin),
                up.row().label,
                told(up, steady)
            ),
            key,
        }
    });
    Some(Map {
        marks: marks.collect(),
        front: if front.len() > 1 {
            path(front, false)
        } else {
            String::new()
        },
        across: x_axis
            .steps()
            .map(|v| {
                let at = left + x_axis.share(v) * (right - left);
                tick(at, v, Quantity::BindingMargin, x_axis.step)
            })
            .collect(),
        up: y_axis
            .steps()
            .map(|v| {
                let at = bottom - y_axis.share(v) * (bottom - top);
                tick(at, v, up, y_axis.step)
            })
            .collect(),
        short: (x_axis.lo < 0.0).then(|| coordinate(x(0.0) - left)),
        tender: threshold(ranking, up)
            .map(&y)
            .filter(|at| *at < bottom)
            .map(coordinate),
        across_label: "tightest margin: further load it takes",
        up_label: up.row().label,
        left_out,
    })
}

/// Below this it is ruled out for what is asked: not steady enough to stand in, or
/// hardly any lean answered.
fn threshold(ranking: &Ranking, up: Quantity) -> Option<f64> {
    let entry = ranking.ranked.first()?;
    let guides = entry.assessment.setup.guides();
    match (up, ranking.brief.posture) {
        (Quantity::StandingSupport, Posture::Stands) => {
            Some(guides[galvet_core::guide::Guide::StaySeated])
        }
        (Quantity::LeanRoom, _) => Some(guides[galvet_core::guide::Guide::TooTender]),
        _ => None,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn an_axis_is_cut_into_steps_one_can_read() {
        let axis = Axis::of([-3.0, 87.0].into_iter());
        assert_eq!((axis.lo, axis.hi, axis.step), (-20.0, 100.0, 20.0));
        let steps: Vec<f64> = axis.steps().collect();
        assert_eq!(steps, [-20.0, 0.0, 20.0, 40.0, 60.0, 80.0, 100.0]);
        assert_eq!(axis.share(40.0), 0.5);
        let fine = Axis::of([0.61, 1.19].into_iter());
        assert_eq!((fine.step * 10.0).round(), 2.0);
        // One value alone still has an axis.
        assert_eq!(Axis::of(std::iter::once(2.0)).share(2.0), 0.5);
    }
}
