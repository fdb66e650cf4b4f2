//! Kinds of fittings in one table: what each is called and asks.

use galvet_core::base::Bounds;
use galvet_core::hull::{Fitting, FittingKind};

/// What a size of a fitting takes.
#[derive(Debug, Clone, Copy)]
pub enum Ask {
    /// A length, which may be left out where the last says so.
    Size(Bounds, bool),
    /// A plain number.
    Number(Bounds),
    /// One of several words: key and label.
    Words(&'static [(&'static str, &'static str)]),
    /// Yes or no.
    Tick,
}

/// A size of a kind of fitting.
#[derive(Debug, Clone, Copy)]
pub struct SizeField {
    /// Its name in forms.
    pub name: &'static str,
    /// What it asks.
    pub label: &'static str,
    /// What it takes.
    pub ask: Ask,
}

/// A kind of fitting that can be put on the drawing.
#[derive(Debug, Clone, Copy)]
pub struct Kind {
    /// Its word in forms and on the drawing.
    pub key: &'static str,
    /// What it is called.
    pub label: &'static str,
    /// Its sizes.
    pub fields: &'static [SizeField],
    /// Whether it most often stands on both sides.
    pub in_pairs: bool,
}

const fn field(name: &'static str, label: &'static str, ask: Ask) -> SizeField {
    SizeField { name, label, ask }
}

const fn kind(
    key: &'static str,
    label: &'static str,
    in_pairs: bool,
    fields: &'static [SizeField],
) -> Kind {
    Kind {
        key,
        label,
        fields,
        in_pairs,
    }
}

const SIZE: Ask = Ask::Size(Fitting::SIZE, false);
const SIZE_IF_KNOWN: Ask = Ask::Size(Fitting::SIZE, true);
const SEAT_IF_KNOWN: Ask = Ask::Size(Fitting::SEAT, true);
const SLIDE: Ask = Ask::Size(Fitting::SLIDE, true);
const FACING: Ask = Ask::Words(&[
    ("aft", "aft"),
    ("forward", "forward"),
    ("outward", "outward"),
    ("up", "up"),
]);
const RECESS: Ask = Ask::Words(&[("cockpit", "the cockpit"), ("tank-well", "the tank well")]);
const STATE: Ask = Ask::Words(&[
    ("open", "open"),
    ("plugged", "plugged"),
    ("one-way", "a one-way valve"),
]);

/// Every kind, as they are offered.
pub const KINDS: [Kind; 16] = [
    kind(
        "seat",
        "seat",
        false,
        &[
            field("slide", "slides in all", SLIDE),
            field("low", "lowest, above the floor", SEAT_IF_KNOWN),
            field("high", "highest, above the floor", SEAT_IF_KNOWN),
        ],
    ),
    kind(
        "foot-braces",
        "foot braces or pedals",
        false,
        &[field("slide", "slide in all", SLIDE)],
    ),
    kind(
        "scupper",
        "scupper",
        true,
        &[
            field("recess", "drains", RECESS),
            field("diameter", "across", SIZE),
            field("state", "is", STATE),
            field("plug", "a plug for it is aboard", Ask::Tick),
        ],
    ),
    kind(
        "track",
        "track",
        true,
        &[
            field("length", "usable length", SIZE),
            field("slot", "width of its slot", SIZE_IF_KNOWN),
        ],
    ),
    kind(
        "rod-holder",
        "rod holder",
        true,
        &[
            field("flush", "sunk into the deck", Ask::Tick),
            field("angle", "degrees above level", Ask::Number(Fitting::ANGLE)),
            field("facing", "faces", FACING),
            field("reversible", "can be turned round", Ask::Tick),
        ],
    ),
    kind(
        "tube",
        "rod tube or stager",
        true,
        &[
            field("length", "usable length", SIZE),
            field("diameter", "across", SIZE),
        ],
    ),
    kind("handle", "carrying handle", true, &[]),
    kind("pad-eye", "pad eye", true, &[]),
    kind("d-ring", "D-ring", true, &[]),
    kind(
        "bungee",
        "bungee",
        false,
        &[
            field("length", "length at rest", SIZE),
            field("hooks", "hooks a metre", Ask::Number(Fitting::HOOKS)),
        ],
    ),
    kind(
        "cup-holder",
        "cup holder",
        true,
        &[
            field("depth", "deep", SIZE),
            field("drains", "drains", Ask::Tick),
        ],
    ),
    kind("insert", "threaded inserts", true, &[]),
    kind("plate", "exchangeable plate", false, &[]),
    kind(
        "transducer-recess",
        "transducer recess",
        false,
        &[
            field("length", "footprint, along", SIZE),
            field("width", "footprint, across", SIZE),
        ],
    ),
    kind("assist-strap", "assist strap or rail", false, &[]),
    kind("drain-plug", "drain plug", false, &[]),
];

/// The kind of a word.
#[must_use]
pub fn kind_of(key: &str) -> Option<&'static Kind> {
    KINDS.iter().find(|kind| kind.key == key)
}

/// The word of a fitting's kind.
#[must_use]
pub const fn key_of(kind: &FittingKind) -> &'static str {
    match kind {
        FittingKind::Track { .. } => "track",
        FittingKind::RodHolder { .. } => "rod-holder",
        FittingKind::Tube { .. } => "tube",
        FittingKind::CupHolder { .. } => "cup-holder",
        FittingKind::Insert => "insert",
        FittingKind::Plate => "plate",
        FittingKind::TransducerRecess { .. } => "transducer-recess",
        FittingKind::Scupper { .. } => "scupper",
        FittingKind::PadEye => "pad-eye",
        FittingKind::DRing => "d-ring",
        FittingKind::Bungee { .. } => "bungee",
        FittingKind::Handle => "handle",
        FittingKind::Seat { .. } => "seat",
        FittingKind::FootBraces { .. } => "foot-braces",
        FittingKind::AssistStrap => "assist-strap",
        FittingKind::DrainPlug => "drain-plug",
    }
}
