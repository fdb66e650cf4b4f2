//! One outing: what was foretold of it and read, and its form.

use super::{hours, read_text, some};
use crate::log::Reading;
use crate::present::draw::log::{Banded, Bands, TrackView, bands, track};
use crate::present::page::hulls::hull::evidence;
use galvet_core::base::{Dimension, Keyed, System};
use galvet_core::log::{Outing, Read};
use galvet_core::plausible::Foretold;

/// A reading, and what can be done with it.
pub struct ReadingLine {
    pub key: &'static str,
    pub label: &'static str,
    /// In words: as it would stand on the record.
    pub words: String,
    /// "read 92 mm, foretold 95 (80 to 110): held".
    pub numbers: Vec<String>,
    pub on_record: bool,
    pub floats: bool,
}

/// The page.
pub struct OutingView {
    pub lead: String,
    pub red: String,
    pub facts: Vec<String>,
    pub readings: Vec<ReadingLine>,
    pub bands: Option<Bands>,
    pub track: Option<TrackView>,
    pub track_words: String,
    /// What keeps a reading from saying anything.
    pub wants: String,
}

/// Makes the page of an outing.
#[must_use]
pub fn outing(o: &Outing, hull: &str, readings: &[Reading], system: System) -> OutingView {
    let numbers = readings.iter().flat_map(|r| &r.foretold);
    let (all, held) = numbers.fold((0, 0), |(all, held), f| {
        (all + 1, held + usize::from(f.holds()))
    });
    let lead = match (all, held) {
        (0, _) if o.done => format!("{hull}: {}", facts(o, system).join(", ")),
        (0, _) => format!("{hull}: begun, to be finished at home"),
        (n, h) if n == h => format!("{hull}: all that was read lay where it was foretold"),
        (n, h) => format!("{hull}: {h} of {n} readings lay where they were foretold"),
    };
    let open: Vec<&str> = o
        .faults
        .iter()
        .filter(|f| f.mended.is_empty())
        .map(|f| f.part.as_str())
        .collect();
    let typed = !o.tape.heights.is_empty() || o.speed.is_some() || o.drained.is_some();
    let wants = match () {
        () if o.drift.is_some() && o.wind.is_none() => {
            "A drift says something only with the wind met."
        }
        () if (typed || o.drift.is_some()) && o.aboard.is_none() => {
            "What was read says something only with what was aboard: its weight, place and height."
        }
        () => "",
    };
    OutingView {
        lead,
        red: match open.as_slice() {
            [] => String::new(),
            parts => format!("Not put right yet: {}", parts.join(", ")),
        },
        facts: facts(o, system),
        readings: readings.iter().map(|r| reading(r, system)).collect(),
        bands: drawn(readings, system),
        track: track(&o.track),
        track_words: some(o.track.len(), "place", "places"),
        wants: wants.to_owned(),
    }
}

fn facts(o: &Outing, system: System) -> Vec<String> {
    let mut all = Vec::new();
    if let Some(h) = o.hours {
        all.push(hours(h));
    }
    if let Some(d) = o.distance {
        all.push(system.text(Dimension::Distance, d, 1));
    }
    if let Some(w) = o.wind {
        let met = system.text(Dimension::Speed, w, 0);
        all.push(match o.forecast {
            Some(f) => format!(
                "wind {met}, forecast {}",
                system.text(Dimension::Speed, f, 0)
            ),
            None => format!("wind {met}"),
        });
    }
    if let Some(fish) = o.fish.filter(|f| *f > 0.0) {
        all.push(format!(
            "{} of fish kept",
            system.text(Dimension::Mass, fish, 1)
        ));
    }
    if o.turned_back {
        all.push("turned back by the wind".to_owned());
    }
    if all.is_empty() {
        all.push("nothing is noted of how it went".to_owned());
    }
    all
}

fn numbers(read: Read, f: &Foretold, system: System) -> String {
    let text = |v: f64| read_text(system, read, v);
    format!(
        "read {}, foretold {} ({} to {}): {}",
        text(f.read),
        text(f.range.p50),
        text(f.range.p5),
        text(f.range.p95),
        if f.holds() { "held" } else { "did not hold" }
    )
}

fn reading(r: &Reading, system: System) -> ReadingLine {
    ReadingLine {
        key: r.read.key(),
        label: r.read.label(),
        words: evidence(&r.evidence, system),
        numbers: r
            .foretold
            .iter()
            .map(|f| numbers(r.read, f, system))
            .collect(),
        on_record: r.on_record,
        floats: !r.foretold.is_empty(),
    }
}

/// Every reading in widths of its own band, so that all stand in one picture.
fn drawn(readings: &[Reading], system: System) -> Option<Bands> {
    let rows: Vec<Banded> = readings
        .iter()
        .flat_map(|r| r.foretold.iter().enumerate().map(move |(n, f)| (r, n, f)))
        .map(|(r, n, f)| {
            let half = (0.5 * (f.range.p95 - f.range.p5)).max(1e-9);
            let own = |v: f64| (v - f.range.p50) / half;
            let label = match r.foretold.len() {
                1 => r.read.label().to_owned(),
                _ => format!("{} {}", r.read.label(), n + 1),
            };
            (
                label,
                [own(f.range.p5), 0.0, own(f.range.p95)],
                own(f.read),
                numbers(r.read, f, system),
            )
        })
        .collect();
    if rows.is_empty() {
        return None;
    }
    let words: Vec<&str> = rows.iter().map(|r| r.3.as_str()).collect();
    let words = words.join("; ");
    Some(bands(&rows, words))
}
