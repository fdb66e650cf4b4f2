//! The table.

use galvet_core::base::{Bounds, Dimension, Keyed};
use galvet_core::crew::{Crew, Hand, Posture, SeatHeight};
use galvet_core::hull::Scuppers;
use galvet_core::question::{
    CapacitySchool, DeckUse, Drilling, Drive, Felt, Fishing, Joints, Launch, MustHaves, Practice,
    StabilitySchool,
};

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
    /// From what she is launched.
    Launch,
    /// How it is fished.
    Fishing,
    /// Practice on the feet.
    Practice,
    /// Back and knees.
    Joints,
    /// How she may be driven.
    Drive,
    /// Whether holes may be drilled.
    Drilling,
    /// A hull the angler has stood in.
    Known,
    /// How she felt.
    Felt,
}

/// Parts that stand together at the sentence's end, told where they ask something.
pub const MORE: [PartId; 8] = [
    PartId::Launch,
    PartId::Fishing,
    PartId::Practice,
    PartId::Joints,
    PartId::Drive,
    PartId::Drilling,
    PartId::Known,
    PartId::Felt,
];

/// One answer a part offers.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Offer {
    /// The word in files and addresses.
    pub key: &'static str,
    /// Plain words.
    pub label: &'static str,
    /// What it means.
    pub note: &'static str,
}

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
    /// Who comes along: see [`super::company`].
    Company,
    /// One of the catalogue's hulls, or none.
    Hull,
}

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

impl Offer {
    /// All values of a kind of word, each with a note.
    pub fn all<T: Keyed>(note: impl Fn(T) -> &'static str) -> Vec<Self> {
        T::ALL
            .iter()
            .map(|&v| Self {
                key: v.key(),
                label: v.label(),
                note: note(v),
            })
            .collect()
    }
}

fn postures() -> Vec<Offer> {
    Offer::all(|p| match p {
        Posture::Stands => "ranked by standing support",
        Posture::SitsAndStands => "ranked by the weaker of the two",
        Posture::Sits => "ranked by lean room and reserve",
    })
}

fn scuppers() -> Vec<Offer> {
    Offer::all(|s| match s {
        Scuppers::Open => "water runs out, and comes up when the floor sinks below it",
        Scuppers::Plugged => "dry feet and more carried, but nothing drains",
        Scuppers::OneWay => "valves: float as plugged, drain while the floor is above the water",
        Scuppers::CockpitPlugged => "dry feet; the well behind the seat still drains",
        Scuppers::AsFound => "one by one as the record has them; open where it does not say",
    })
}

fn deck() -> Vec<Offer> {
    Offer::all(|d| match d {
        DeckUse::Aside => "it stands beside the points",
        DeckUse::Fifth => "floor left to stand on, and well left behind the seat",
        DeckUse::TwoFifths => "for who lives on the deck",
    })
}

fn hands() -> Vec<Offer> {
    Offer::all(|h| match h {
        Hand::Right => "the starboard side is kept clear to cast and land over",
        Hand::Left => "the port side is kept clear to cast and land over",
    })
}

fn launches() -> Vec<Offer> {
    Offer::all(|l| match l {
        Launch::Ramp => "she is rolled or slid in",
        Launch::Beach => "dragged, or rolled on wide wheels",
        Launch::Bank => "lifted down and up again",
        Launch::Steps => "carried",
        Launch::Surf => "choose the surf launch as water as well: its limits and cautions hold",
    })
}

fn fishings() -> Vec<Offer> {
    Offer::all(|f| match f {
        Fishing::Casting => "anchored, staked or held",
        Fishing::Covering => "drifting and moving on",
        Fishing::Trolling => "asks for a hull that keeps straight",
        Fishing::Bottom => "asks for one that holds a place",
        Fishing::Fly => "asks for a clear deck ahead of the seat",
    })
}

fn practices() -> Vec<Offer> {
    Offer::all(|p| match p {
        Practice::Skilled => "standing support from 0.6 on will do",
        Practice::Some => "from 0.8 on",
        Practice::New => "from 1.0 on",
    })
}

fn joints() -> Vec<Offer> {
    Offer::all(|j| match j {
        Joints::Fine => "",
        Joints::Complain => "low seats and low backrests are named",
    })
}

fn drives() -> Vec<Offer> {
    Offer::all(|d| match d {
        Drive::Any => "no hull is left out for it",
        Drive::Paddle => "hulls that come with none",
        Drive::Pedal => "turning pedals or fins",
        Drive::Motor => "hulls that come with one",
    })
}

fn felt() -> Vec<Offer> {
    Offer::all(|f| match f {
        Felt::Steady | Felt::Care => "as much under the feet will do",
        Felt::SatDown => "a little more is asked for",
    })
}

fn drillings() -> Vec<Offer> {
    Offer::all(|d| match d {
        Drilling::Allowed => "holes are counted",
        Drilling::None => "a hull this rig needs holes in is left out",
    })
}

fn seats() -> Vec<Offer> {
    Offer::all(|s| match s {
        SeatHeight::Low => "steadier",
        SeatHeight::High => "sight and comfort, at a cost in lean room",
    })
}

fn capacity() -> Vec<Offer> {
    Offer::all(|s| match s {
        CapacitySchool::Tightest => "whichever of the three is met first",
        CapacitySchool::Label => "the maker's rated capacity, and nothing else",
        CapacitySchool::WorkingShare => "the share of the label this water allows",
        CapacitySchool::Waterline => "the water at the floor or the gunwale",
    })
}

fn stability() -> Vec<Offer> {
    Offer::all(|s| match s {
        StabilitySchool::ByPosture => "standing support, or lean room and reserve",
        StabilitySchool::TapeMeasure => {
            "longer, wider, heavier: knows nothing of load, seat height or the section"
        }
        StabilitySchool::SeatedFeel => "how stiffly it starts to push back",
        StabilitySchool::StandingSupport => "the platform under the feet",
        StabilitySchool::RoughWater => "work to lean it until the gunwale goes under",
    })
}

const fn part(
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

/// Bounds of the weight as a share.
const SHARE: Bounds = Bounds::new("the weight of capacity", Dimension::Ratio, 0.0, 1.0);

/// How many parts there are.
pub const COUNT: usize = 24;

/// Every part, in the order of the sentence and of [`PartId`].
pub static PARTS: [Part; COUNT] = {
    use Kind::{Company, Hull, Limit, Named, Quantity, Share, Words};
    use PartId as P;
    [
        part(
            P::Mass,
            "mass",
            &["crew", "mass_kg"],
            Quantity(Crew::MASS, 0),
            "80",
            "the angler's weight",
            "88 kg or 194 lb",
        ),
        part(
            P::Stature,
            "stature",
            &["crew", "stature_m"],
            Quantity(Crew::STATURE, 2),
            "1.78",
            "the angler's height",
            "1.83 m, 183 cm or 6' 0\"",
        ),
        part(
            P::Posture,
            "posture",
            &["posture"],
            Words(postures),
            "sits",
            "how the angler fishes",
            "",
        ),
        part(P::Rig, "rig", &["rig"], Named, "", "what is carried", ""),
        part(P::Water, "water", &["water"], Named, "", "where", ""),
        part(
            P::Scuppers,
            "scuppers",
            &["scuppers"],
            Words(scuppers),
            "open",
            "what is done with the scuppers",
            "",
        ),
        part(
            P::Seat,
            "seat",
            &["seat"],
            Words(seats),
            "low",
            "which seat height",
            "",
        ),
        part(
            P::Capacity,
            "capacity",
            &["capacity_school"],
            Words(capacity),
            "tightest",
            "what capacity is judged by",
            "",
        ),
        part(
            P::Stability,
            "stability",
            &["stability_school"],
            Words(stability),
            "by-posture",
            "what stability is judged by",
            "",
        ),
        part(
            P::Weight,
            "weight",
            &["capacity_weight"],
            Share(SHARE),
            "",
            "How much capacity counts, out of 100; stability has the rest",
            "",
        ),
        part(
            P::Longest,
            "longest",
            &["must", "longest_m"],
            Limit(MustHaves::LONGEST, 2, "stored within"),
            "",
            "longest that can be stored",
            "4.0 m or 13' 2\"; empty for no limit",
        ),
        part(
            P::Lift,
            "lift",
            &["must", "heaviest_lift_kg"],
            Limit(MustHaves::LIFT, 0, "lifted at"),
            "",
            "heaviest single lift, the hull stripped",
            "32 kg or 70 lb; empty for no limit",
        ),
        part(
            P::Budget,
            "budget",
            &["must", "budget"],
            Limit(MustHaves::BUDGET, 0, "for"),
            "",
            "most that may be spent",
            "a number; empty for no limit",
        ),
        part(
            P::Deck,
            "deck",
            &["deck_space"],
            Words(deck),
            "aside",
            "how much the deck left clear counts",
            "",
        ),
        part(
            P::Others,
            "with",
            &["crew", "others"],
            Company,
            "",
            "who comes along",
            "alone, or: child 28 kg, dog 20 kg, adult 70 kg 1.75 m",
        ),
        part(
            P::Hand,
            "hand",
            &["crew", "hand"],
            Words(hands),
            "right",
            "which hand casts and lands",
            "",
        ),
        part(
            P::Launch,
            "launch",
            &["wishes", "launch"],
            Words(launches),
            "ramp",
            "from what she is launched",
            "",
        ),
        part(
            P::Fishing,
            "fishing",
            &["wishes", "fishing"],
            Words(fishings),
            "casting",
            "how it is fished",
            "",
        ),
        part(
            P::Practice,
            "practice",
            &["wishes", "practice"],
            Words(practices),
            "skilled",
            "how practised on the feet",
            "",
        ),
        part(
            P::Joints,
            "joints",
            &["wishes", "joints"],
            Words(joints),
            "fine",
            "back and knees",
            "",
        ),
        part(
            P::Drive,
            "drive",
            &["wishes", "drive"],
            Words(drives),
            "any",
            "how she may be driven",
            "",
        ),
        part(
            P::Drilling,
            "drilling",
            &["wishes", "drilling"],
            Words(drillings),
            "allowed",
            "whether holes may be drilled",
            "",
        ),
        part(
            P::Known,
            "known",
            &["known", "hull"],
            Hull,
            "",
            "a hull you have stood in",
            "",
        ),
        part(
            P::Felt,
            "felt",
            &["known", "felt"],
            Words(felt),
            "steady",
            "how she felt",
            "",
        ),
    ]
};

impl PartId {
    /// Its row.
    #[must_use]
    pub fn part(self) -> &'static Part {
        &PARTS[self as usize]
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use std::collections::BTreeSet;

    #[test]
    fn the_table_is_in_order_and_unambiguous() {
        let mut names = BTreeSet::new();
        let mut paths = BTreeSet::new();
        for (i, part) in PARTS.iter().enumerate() {
            assert_eq!(part.id as usize, i);
            assert!(names.insert(part.name) && paths.insert(part.path));
            if let Kind::Words(offered) = part.kind {
                assert!(
                    offered().iter().any(|o| o.key == part.usual),
                    "{}",
                    part.name
                );
            }
        }
    }
}
