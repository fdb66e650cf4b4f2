//! How well it predicts: every number read on any outing against what was foretold.

use super::{read_text, some};
use crate::present::draw::log::{Banded, Bands, bands};
use galvet_core::base::{Keyed, System};
use galvet_core::log::{Judged, Trust, trust};

/// One kind of reading.
pub struct Kind {
    pub label: &'static str,
    pub count: String,
    pub within: String,
    pub bias: String,
    pub error: String,
    pub bands: Option<Bands>,
}

/// A number that did not hold.
pub struct Missed {
    pub href: String,
    pub text: String,
}

/// The page.
pub struct TrustView {
    pub lead: String,
    pub kinds: Vec<Kind>,
    pub missed: Vec<Missed>,
}

/// Most rows drawn of a kind: the newest.
const DRAWN: usize = 30;

/// Makes the page; `name` calls a hull by its key.
#[must_use]
pub fn view(judged: &[Judged], name: &dyn Fn(&str) -> String, system: System) -> TrustView {
    let sums = trust(judged);
    let held = judged.iter().filter(|j| j.foretold.holds()).count();
    let lead = match judged.len() {
        0 => "Nothing was read yet that was foretold.".to_owned(),
        1 => format!(
            "The one reading {}",
            if held == 1 { "held" } else { "did not hold" }
        ),
        n => {
            format!("{held} of {n} readings lay in the range foretold; of many, nine in ten should")
        }
    };
    let missed = judged.iter().filter(|j| !j.foretold.holds());
    TrustView {
        lead,
        kinds: sums.iter().map(|t| kind(t, judged, name, system)).collect(),
        missed: missed
            .map(|j| Missed {
                href: format!("/log/outings/{}", j.outing),
                text: format!(
                    "{}, {}, {}: read {}, foretold {} to {}",
                    j.day,
                    name(&j.hull),
                    j.read.label(),
                    read_text(system, j.read, j.foretold.read),
                    read_text(system, j.read, j.foretold.range.p5),
                    read_text(system, j.read, j.foretold.range.p95)
                ),
            })
            .collect(),
    }
}

fn kind(t: &Trust, judged: &[Judged], name: &dyn Fn(&str) -> String, system: System) -> Kind {
    let text = |v: f64| read_text(system, t.read, v);
    let own = judged.iter().filter(|j| j.read == t.read).take(DRAWN);
    let rows: Vec<Banded> = own
        .map(|j| {
            let r = &j.foretold.range;
            (
                format!("{} {}", j.day, name(&j.hull)),
                [r.p5, r.p50, r.p95],
                j.foretold.read,
                format!(
                    "{}: read {}, foretold {} ({} to {})",
                    j.day,
                    text(j.foretold.read),
                    text(r.p50),
                    text(r.p5),
                    text(r.p95)
                ),
            )
        })
        .collect();
    let within = (t.within * t.count as f64).round();
    let high = if t.bias < 0.0 { "too high" } else { "too low" };
    let words = format!(
        "{}: {within:.0} of {} within the range; foretold {} {high} in the middle",
        t.read.label(),
        t.count,
        text(t.bias.abs())
    );
    Kind {
        label: t.read.label(),
        count: some(t.count, "number", "numbers"),
        within: format!(
            "{within:.0} of {} ({:.0}\u{a0}%)",
            t.count,
            100.0 * t.within
        ),
        bias: format!("{} {high}", text(t.bias.abs())),
        error: text(t.error),
        bands: Some(bands(&rows, words)),
    }
}
