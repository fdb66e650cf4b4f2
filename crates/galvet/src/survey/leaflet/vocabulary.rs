//! Words of leaflets: what those beside a figure say it is of, and what a hull is.

use crate::form::between;

/// What a word beside a figure says it is of.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Label {
    Length,
    Beam,
    Weight,
    Capacity,
    Price,
    /// Something else: the figure is not one of the hull's.
    Other,
}

/// Words beside figures, in small letters; of several that begin at one place the longest
/// holds.
pub(super) const LABELS: [(&str, Label); 76] = {
    use Label::{Beam, Capacity, Length, Other, Price, Weight};
    [
        ("length", Length),
        ("overall length", Length),
        ("length overall", Length),
        ("long", Length),
        ("loa", Length),
        ("width", Beam),
        ("overall width", Beam),
        ("wide", Beam),
        ("beam", Beam),
        ("weight", Weight),
        ("hull weight", Weight),
        ("weighs", Weight),
        ("weighing", Weight),
        ("wt", Weight),
        ("hull only", Weight),
        ("bare hull", Weight),
        ("fully rigged", Weight),
        ("weight capacity", Capacity),
        ("capacity", Capacity),
        ("max capacity", Capacity),
        ("maximum capacity", Capacity),
        ("max weight capacity", Capacity),
        ("load capacity", Capacity),
        ("max load", Capacity),
        ("maximum load", Capacity),
        ("max. load", Capacity),
        ("payload", Capacity),
        ("max weight", Capacity),
        ("maximum weight", Capacity),
        ("weight limit", Capacity),
        ("load limit", Capacity),
        ("carries", Capacity),
        ("carries up to", Capacity),
        ("carry", Capacity),
        ("supports", Capacity),
        ("supports up to", Capacity),
        ("holds", Capacity),
        ("rated for", Capacity),
        ("rated to", Capacity),
        ("rated capacity", Capacity),
        ("price", Price),
        ("msrp", Price),
        ("rrp", Price),
        ("seat", Other),
        ("seat weight", Other),
        ("seat height", Other),
        ("seat width", Other),
        ("seat capacity", Other),
        ("shipping weight", Other),
        ("shipping", Other),
        ("package", Other),
        ("boxed", Other),
        ("carton", Other),
        ("cockpit length", Other),
        ("cockpit width", Other),
        ("cockpit", Other),
        ("hatch", Other),
        ("tank well", Other),
        ("depth", Other),
        ("height", Other),
        ("draft", Other),
        ("waterline length", Other),
        ("paddle length", Other),
        ("battery", Other),
        ("drive weight", Other),
        ("motor weight", Other),
        ("deck width", Other),
        ("user weight", Other),
        ("max user weight", Other),
        ("rod", Other),
        ("rods", Other),
        ("fits", Other),
        ("rack", Other),
        ("racks", Other),
        ("trailer", Other),
        ("folded", Other),
    ]
};

/// Words that say what a hull is, its field and our word for it.
const WORDS: [(&str, &str, &str, &str); 25] = [
    ("sit-on-top", "hull-construction", "sit-on-top", ""),
    ("sit on top", "hull-construction", "sit-on-top", ""),
    ("sot", "hull-construction", "sit-on-top", ""),
    ("sit-inside", "hull-construction", "sit-inside", ""),
    ("sit inside", "hull-construction", "sit-inside", ""),
    ("sit-in", "hull-construction", "sit-inside", ""),
    ("sit in", "hull-construction", "sit-inside", ""),
    ("paddle board", "hull-construction", "board", ""),
    ("paddleboard", "hull-construction", "board", ""),
    ("propeller drive", "hull-propulsion", "rotary-pedal", ""),
    ("propeller", "hull-propulsion", "rotary-pedal", ""),
    ("rotary pedal", "hull-propulsion", "rotary-pedal", ""),
    ("pedal fins", "hull-propulsion", "fin-pedal", ""),
    ("fin drive", "hull-propulsion", "fin-pedal", ""),
    ("fin pedal", "hull-propulsion", "fin-pedal", ""),
    ("pedal drive", "hull-propulsion", "rotary-pedal", PEDAL),
    ("pedals", "hull-propulsion", "rotary-pedal", PEDAL),
    ("pedal", "hull-propulsion", "rotary-pedal", PEDAL),
    ("electric motor", "hull-propulsion", "motor", ""),
    ("motorised", "hull-propulsion", "motor", ""),
    ("motorized", "hull-propulsion", "motor", ""),
    ("paddle only", "hull-propulsion", "paddle", ""),
    ("paddled", "hull-propulsion", "paddle", ""),
    ("paddle kayak", "hull-propulsion", "paddle", ""),
    ("paddle drive", "hull-propulsion", "paddle", ""),
];
const PEDAL: &str = "fins or a propeller? The text does not say: taken as a propeller";

/// Words before or behind one of those that make it no more than possible.
const PERHAPS: [&str; 8] = [
    "optional",
    "ready",
    "compatible",
    "mount",
    "upgrade",
    "available",
    "without",
    "not",
];

/// Words about a weight of the hull alone, and of one with seat and drive.
pub(super) const BARE: [&str; 9] = [
    "hull only",
    "hull weight",
    "bare",
    "without seat",
    "w/o seat",
    "hull alone",
    "stripped",
    "(hull)",
    "no seat",
];
pub(super) const FITTED: [&str; 9] = [
    "rigged",
    "fitted",
    "with seat",
    "w/ seat",
    "assembled",
    "including seat",
    "with drive",
    "including drive",
    "complete",
];

/// A field, our word for it, where it stands, and a doubt.
pub(super) type Said = (&'static str, &'static str, (usize, usize), &'static str);

/// Words that say what the hull is.
pub(super) fn words(lower: &str) -> Vec<Said> {
    let mut out: Vec<Said> = Vec::new();
    for (word, field, ours, doubt) in WORDS {
        let Some(at) = lower.find(word) else {
            continue;
        };
        let to = at + word.len();
        if !between(lower, at) || !between(lower, to) {
            continue;
        }
        let line = |t: &str| {
            t.split(['\n', ',', ';', '.'])
                .next()
                .unwrap_or_default()
                .to_owned()
        };
        let behind = line(&lower[to..]);
        let ahead = lower[..at]
            .rsplit(['\n', ',', ';', '.'])
            .next()
            .unwrap_or_default();
        let near: Vec<&str> = ahead
            .split([' ', '-'])
            .rev()
            .take(3)
            .chain(behind.split([' ', '-']).take(3))
            .collect();
        if !near.iter().any(|w| PERHAPS.contains(w)) {
            out.push((field, ours, (at, to), doubt));
        }
    }
    out
}
