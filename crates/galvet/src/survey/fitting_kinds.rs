//! Kinds of fittings in one table: what each is called, what it asks, and how a form takes
//! its sizes apart.

use super::fitting_draft::{FittingDraft, Sizes};
use crate::form::{Field, choice, number, tick};
use galvet_core::base::Bounds;
use galvet_core::hull::{Facing, Fitting, FittingKind, Recess, ScupperState};

/// A kind of fitting that can be put on the drawing.
pub struct Kind {
    /// Its word in forms and on the drawing.
    pub key: &'static str,
    /// What it is called.
    pub label: &'static str,
    /// Whether it most often stands on both sides.
    pub in_pairs: bool,
    /// One of it, of no size yet.
    pub(super) blank: fn() -> FittingKind,
    /// What it asks.
    pub(super) asks: fn() -> Vec<Field<D>>,
}

type D = FittingDraft;

fn size(name: &str, label: &str, at: fn(&mut D) -> &mut f64) -> Field<D> {
    number(name, label, Fitting::SIZE, at)
}

fn if_known(
    name: &str,
    label: &str,
    bounds: Bounds,
    at: fn(&mut D) -> &mut Option<f64>,
) -> Field<D> {
    number(name, label, bounds, at)
}

fn of_no_size(kind: FittingKind) -> FittingKind {
    Sizes::default().made(&kind)
}

/// What a kind that has no sizes asks.
fn nothing() -> Vec<Field<D>> {
    Vec::new()
}

/// What outriggers ask.
fn floats() -> Vec<Field<D>> {
    vec![
        number(
            "length",
            "a float's length",
            Fitting::FLOAT_LENGTH,
            |d: &mut D| &mut d.sizes.length,
        ),
        number("diameter", "across a float", Fitting::FLOAT, |d: &mut D| {
            &mut d.sizes.diameter
        }),
        number(
            "reach",
            "from the middle to a float",
            Fitting::FLOAT_REACH,
            |d: &mut D| &mut d.sizes.reach,
        ),
        number(
            "clear",
            "its underside over the water",
            Fitting::FLOAT_CLEAR,
            |d: &mut D| &mut d.sizes.clear,
        )
        .hint("loaded and at rest"),
    ]
}

macro_rules! kind {
    ($key:literal, $label:literal, $pairs:literal, $kind:expr, $asks:expr) => {
        Kind {
            key: $key,
            label: $label,
            in_pairs: $pairs,
            blank: || of_no_size($kind),
            asks: $asks,
        }
    };
}

/// Every kind, as they are offered.
pub static KINDS: [Kind; 18] = [
    kind!(
        "seat",
        "seat",
        false,
        FittingKind::Seat {
            slide: 0.0,
            low: None,
            high: None
        },
        || vec![
            if_known("slide", "slides in all", Fitting::SLIDE, |d| &mut d
                .sizes
                .slide),
            if_known("low", "lowest, above the floor", Fitting::SEAT, |d| &mut d
                .sizes
                .low),
            if_known("high", "highest, above the floor", Fitting::SEAT, |d| {
                &mut d.sizes.high
            }),
        ]
    ),
    kind!(
        "foot-braces",
        "foot braces or pedals",
        false,
        FittingKind::FootBraces { slide: 0.0 },
        || vec![if_known("slide", "slide in all", Fitting::SLIDE, |d| {
            &mut d.sizes.slide
        })]
    ),
    kind!(
        "scupper",
        "scupper",
        true,
        FittingKind::Scupper {
            recess: Recess::Cockpit,
            diameter: 0.0,
            state: ScupperState::Open,
            plug: false
        },
        || vec![
            choice("recess", "drains", |d: &mut D| &mut d.sizes.recess),
            number("diameter", "across", Fitting::SCUPPER, |d: &mut D| {
                &mut d.sizes.diameter
            })
            .hint("usually 3 to 4 cm; mm can be said"),
            choice("state", "is", |d: &mut D| &mut d.sizes.state),
            tick("plug", "a plug for it is aboard", |d: &mut D| &mut d
                .sizes
                .plug),
        ]
    ),
    kind!(
        "track",
        "track",
        true,
        FittingKind::Track {
            length: 0.0,
            slot: None
        },
        || vec![
            size("length", "usable length", |d| &mut d.sizes.length),
            if_known("slot", "width of its slot", Fitting::SIZE, |d| &mut d
                .sizes
                .slot),
        ]
    ),
    kind!(
        "rod-holder",
        "rod holder",
        true,
        FittingKind::RodHolder {
            flush: false,
            angle: None,
            facing: Facing::Aft,
            reversible: false
        },
        || vec![
            tick("flush", "sunk into the deck", |d: &mut D| &mut d
                .sizes
                .flush),
            if_known("angle", "degrees above level", Fitting::ANGLE, |d| &mut d
                .sizes
                .angle),
            choice("facing", "faces", |d: &mut D| &mut d.sizes.facing),
            tick("reversible", "can be turned round", |d: &mut D| &mut d
                .sizes
                .reversible),
        ]
    ),
    kind!(
        "tube",
        "rod tube or stager",
        true,
        FittingKind::Tube {
            length: 0.0,
            diameter: 0.0
        },
        || vec![
            size("length", "usable length", |d| &mut d.sizes.length),
            number("diameter", "across", Fitting::TUBE, |d: &mut D| &mut d
                .sizes
                .diameter),
        ]
    ),
    kind!(
        "handle",
        "carrying handle",
        true,
        FittingKind::Handle,
        nothing
    ),
    kind!("pad-eye", "pad eye", true, FittingKind::PadEye, nothing),
    kind!("d-ring", "D-ring", true, FittingKind::DRing, nothing),
    kind!(
        "bungee",
        "bungee",
        false,
        FittingKind::Bungee {
            length: 0.0,
            hooks_per_metre: 0.0
        },
        || vec![
            size("length", "length at rest", |d| &mut d.sizes.length),
            number("hooks", "hooks a metre", Fitting::HOOKS, |d: &mut D| &mut d
                .sizes
                .hooks),
        ]
    ),
    kind!(
        "cup-holder",
        "cup holder",
        true,
        FittingKind::CupHolder {
            depth: 0.0,
            drains: false
        },
        || vec![
            size("depth", "deep", |d| &mut d.sizes.depth),
            tick("drains", "drains", |d: &mut D| &mut d.sizes.drains),
        ]
    ),
    kind!(
        "insert",
        "threaded inserts",
        true,
        FittingKind::Insert,
        nothing
    ),
    kind!(
        "plate",
        "exchangeable plate",
        false,
        FittingKind::Plate,
        nothing
    ),
    kind!(
        "transducer-recess",
        "transducer recess",
        false,
        FittingKind::TransducerRecess {
            length: 0.0,
            width: 0.0
        },
        || vec![
            size("length", "footprint, along", |d| &mut d.sizes.length),
            size("width", "footprint, across", |d| &mut d.sizes.width),
        ]
    ),
    kind!(
        "assist-strap",
        "assist strap or rail",
        false,
        FittingKind::AssistStrap,
        nothing
    ),
    kind!(
        "drain-plug",
        "drain plug",
        false,
        FittingKind::DrainPlug,
        nothing
    ),
    kind!(
        "bulkhead",
        "bulkhead: a wall across the inside",
        false,
        FittingKind::Bulkhead,
        nothing
    ),
    kind!(
        "outriggers",
        "outriggers: a float each side",
        false,
        FittingKind::Outriggers {
            length: 0.0,
            diameter: 0.0,
            reach: 0.0,
            clear: 0.0
        },
        floats
    ),
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
        FittingKind::Bulkhead => "bulkhead",
        FittingKind::Outriggers { .. } => "outriggers",
    }
}
