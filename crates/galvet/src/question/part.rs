//! A part of the brief: which there are, and what kind of answer each takes.

use super::offers::Offer;
use galvet_core::base::{Bare, Bounds};

/// A part of the brief.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub enum PartId {
    /// The angler's weight.
    Mass,
    /// The angler's height.
    Stature,
    /// Stands, sits, or both.
    Posture,
    /// What is carried.
    Rig,
    /// Where.
    Water,
    /// What is done with the scuppers.
    Scuppers,
    /// Which seat height.
    Seat,
    /// What capacity is judged by.
    Capacity,
    /// What stability is judged by.
    Stability,
    /// How much capacity counts.
    Weight,
    /// Longest storage.
    Longest,
    /// Heaviest lift.
    Lift,
    /// Most that may be spent.
    Budget,
    /// How much the deck left clear counts.
    Deck,
    /// Who comes along.
    Others,
    /// Which hand casts and lands.
    Hand,
    /// From what it is launched.
    Launch,
    /// How it is fished.
    Fishing,
    /// Practice on the feet.
    Practice,
    /// Back and knees.
    Joints,
    /// How it may be driven.
    Drive,
    /// Whether holes may be drilled.
    Drilling,
    /// A hull the angler has stood in.
    Known,
    /// How it felt.
    Felt,
    /// Distance a day.
    Distance,
    /// Hours a trip.
    Hours,
    /// Trips a year.
    Trips,
    /// Fish kept.
    Fish,
    /// Risers under the seat.
    Risers,
    /// Where batteries go.
    Battery,
    /// What a car's roof bears.
    Roof,
    /// A truck's bed.
    Bed,
    /// Least seats.
    Seats,
    /// Least track.
    Track,
    /// Whether what the water asks counts.
    Demands,
    /// Kit by guess.
    Roughly,
    /// Wind of a forecast.
    Wind,
    /// When it is dark.
    Dark,
    /// Whether it must go backwards by its drive.
    Reverse,
    /// Most the whole may cost.
    Whole,
    /// An event whose rules it must keep.
    Event,
}

/// Parts that stand together at the sentence's end, told where they ask something.
pub const MORE: [PartId; 12] = [
    PartId::Launch,
    PartId::Fishing,
    PartId::Practice,
    PartId::Joints,
    PartId::Drive,
    PartId::Drilling,
    PartId::Reverse,
    PartId::Battery,
    PartId::Known,
    PartId::Felt,
    PartId::Demands,
    PartId::Event,
];

/// What kind of answer a part takes.
#[derive(Debug, Clone, Copy)]
pub enum Kind {
    /// A quantity that always has a value, with the decimals it is shown with.
    Quantity(Bounds, usize),
    /// A quantity that may be left out: no limit. With decimals, and the words
    /// before it in the sentence.
    Limit(Bounds, usize, &'static str),
    /// A share in per cent that may be left out: the water's own.
    Share(Bounds),
    /// One of several words.
    Words(fn() -> Vec<Offer>),
    /// One of the catalogue's.
    Named,
    /// Something said in words with figures in them: who comes along, kit by guess.
    Said(Said),
    /// One of the catalogue's hulls, or none.
    Hull,
    /// One of the catalogue's events, or none.
    Event,
}

/// How words with figures in them are read: what a bare number means goes along. They are
/// kept as what is read back as the same, in SI.
#[derive(Debug, Clone, Copy)]
pub struct Said(pub fn(&str, Bare) -> Result<String, String>);

/// A row of the table.
#[derive(Debug, Clone, Copy)]
pub struct Part {
    /// Which.
    pub id: PartId,
    /// Its name in the address.
    pub name: &'static str,
    /// Where it stands in a file.
    pub path: &'static [&'static str],
    /// What it asks.
    pub title: &'static str,
    /// What may be written.
    pub hint: &'static str,
    /// What kind of answer it takes.
    pub kind: Kind,
    /// The answer where nobody gave one: a word, or a number in SI.
    pub usual: &'static str,
}

pub(super) const fn part(
    id: PartId,
    name: &'static str,
    path: &'static [&'static str],
    kind: Kind,
    usual: &'static str,
    title: &'static str,
    hint: &'static str,
) -> Part {
    Part {
        id,
        name,
        path,
        title,
        hint,
        kind,
        usual,
    }
}
