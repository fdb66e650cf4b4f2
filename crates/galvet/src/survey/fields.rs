//! The fields of the quick start, in one table: what they ask and what they take.

use crate::question::Offer;
use galvet_core::base::Keyed;
use galvet_core::hull::{
    BottomShape, CapacityBasis, Construction, Measure, Origin, Propulsion, Source,
};

/// What kind of answer a field takes.
#[derive(Debug, Clone, Copy)]
pub enum FieldKind {
    /// Free text.
    Text,
    /// A figure of the record.
    Figure(Measure),
    /// A weight, bare or fitted as another field says.
    Weight,
    /// One of several words.
    Words(fn() -> Vec<Offer>),
}

/// A field of the quick start.
#[derive(Debug, Clone, Copy)]
pub struct Field {
    /// Its name in forms and addresses.
    pub name: &'static str,
    /// What it asks.
    pub title: &'static str,
    /// What to look at.
    pub hint: &'static str,
    /// What it takes.
    pub kind: FieldKind,
    /// What stands there before anybody chooses; empty for nothing.
    pub usual: &'static str,
}

const fn field(
    name: &'static str,
    title: &'static str,
    hint: &'static str,
    kind: FieldKind,
    usual: &'static str,
) -> Field {
    Field {
        name,
        title,
        hint,
        kind,
        usual,
    }
}

/// Every field, in the order they are asked.
pub const FIELDS: [Field; 16] = [
    field(
        "hull-maker",
        "maker",
        "leave empty for one without",
        FieldKind::Text,
        "",
    ),
    field(
        "hull-model",
        "name or model",
        "needed to keep it",
        FieldKind::Text,
        "",
    ),
    field(
        "hull-length",
        "length",
        "over all, bow to stern",
        FieldKind::Figure(Measure::Length),
        "",
    ),
    field(
        "hull-beam",
        "beam",
        "at the widest place",
        FieldKind::Figure(Measure::Beam),
        "",
    ),
    field(
        "hull-weight",
        "weight",
        "on a scale, if you can",
        FieldKind::Weight,
        "",
    ),
    field(
        "hull-weighed",
        "that weight is",
        "",
        FieldKind::Words(weights),
        "not-said",
    ),
    field(
        "hull-capacity",
        "rated capacity",
        "from the plate or the leaflet",
        FieldKind::Figure(Measure::RatedCapacity),
        "",
    ),
    field(
        "hull-basis",
        "the capacity counts",
        "",
        FieldKind::Words(bases),
        "unknown",
    ),
    field(
        "hull-construction",
        "construction",
        "",
        FieldKind::Words(constructions),
        "sit-on-top",
    ),
    field("hull-bottom", "bottom", "", FieldKind::Words(bottoms), ""),
    field(
        "hull-propulsion",
        "driven by",
        "",
        FieldKind::Words(drives),
        "paddle",
    ),
    field(
        "hull-seat",
        "seat above the floor",
        "its surface, sat upon, at the lowest place",
        FieldKind::Figure(Measure::SeatLow),
        "",
    ),
    field(
        "hull-floor",
        "floor above the bottom",
        "tape through a scupper, or beside the hull on level ground",
        FieldKind::Figure(Measure::FloorHeight),
        "",
    ),
    field(
        "hull-price",
        "price",
        "",
        FieldKind::Figure(Measure::Price),
        "",
    ),
    field(
        "hull-source",
        "these figures come from",
        "",
        FieldKind::Words(sources),
        "brochure",
    ),
    field(
        "hull-origin",
        "made by",
        "",
        FieldKind::Words(origins),
        "maker",
    ),
];

fn constructions() -> Vec<Offer> {
    Offer::all(|c| match c {
        Construction::SitOnTop => "a deck with scuppers: water that comes in runs out",
        Construction::SitInside => "an open cockpit without scuppers",
        Construction::Board => "no cockpit: one sits and stands on a shallow body",
    })
}

fn bottoms() -> Vec<Offer> {
    Offer::all(bottom_note)
}

/// What a bottom's shape does, in a few words.
#[must_use]
pub const fn bottom_note(bottom: BottomShape) -> &'static str {
    match bottom {
        BottomShape::Flat => "steady at once, lets go suddenly",
        BottomShape::ShallowArch => "rounded across; the commonest",
        BottomShape::ShallowVee => "a keel line and soft chines; runs straight",
        BottomShape::Tunnel => "two runners; steady, drags a little",
        BottomShape::TriLobe => "a keel and two sponsons",
        BottomShape::Board => "flat and shallow, edge drawn in at the deck",
    }
}

fn drives() -> Vec<Offer> {
    Offer::all(|p| match p {
        Propulsion::Paddle => "a paddle only",
        Propulsion::RotaryPedal => "pedals and a propeller",
        Propulsion::FinPedal => "pedals and fins",
        Propulsion::Motor => "an electric motor",
    })
}

fn bases() -> Vec<Offer> {
    Offer::all(|b| match b {
        CapacityBasis::GearAndCrew => "seat and drive come free",
        CapacityBasis::EverythingAboveBareHull => "seat and drive count as load too",
        CapacityBasis::Unknown => "the careful reading is taken: seat and drive count",
    })
}

fn origins() -> Vec<Offer> {
    Offer::all(|o| match o {
        Origin::Maker => "somebody who sells it: that it is sold counts a little",
        Origin::HomeMade => "somebody at home, or changed beyond what was sold",
    })
}

/// Sources a quick start can have; what is read afloat comes later.
fn sources() -> Vec<Offer> {
    let all: Vec<Offer> = Offer::all(|s| match s {
        Source::Guess => "nobody stands for them",
        Source::Hearsay => "somebody said so",
        Source::Seller => "a seller's or a sponsored word",
        Source::Brochure => "leaflet or web page",
        Source::Label => "the plate on the hull",
        Source::Photo => "",
        Source::Tape => "measured ashore",
        Source::Scale => "",
        Source::Afloat => "",
    });
    let left_out = [Source::Scale, Source::Afloat, Source::Photo].map(Source::key);
    all.into_iter()
        .filter(|offer| !left_out.contains(&offer.key))
        .collect()
}

/// Whether seat and drive are in a weight: nobody knows, as often as not.
pub(super) const FITTED: &str = "fitted";

fn weights() -> Vec<Offer> {
    let offer = |key, label, note| Offer { key, label, note };
    vec![
        offer(FITTED, "with seat and drive", "ready to launch"),
        offer("bare", "the hull alone", "seat and drive come on top"),
        offer(
            "not-said",
            "not said",
            "taken as the hull alone, the careful reading",
        ),
    ]
}
