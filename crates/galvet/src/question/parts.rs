//! The table.

use super::offers::{
    Offer, batteries, capacity, deck, drillings, drives, felt, fishings, hands, joints, launches,
    postures, practices, scuppers, seats, stability,
};
use galvet_core::base::{Bounds, Dimension};
use galvet_core::crew::Crew;
use galvet_core::question::{Brief, MustHaves, Outing};

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
}

/// Parts that stand together at the sentence's end, told where they ask something.
pub const MORE: [PartId; 9] = [
    PartId::Launch,
    PartId::Fishing,
    PartId::Practice,
    PartId::Joints,
    PartId::Drive,
    PartId::Drilling,
    PartId::Battery,
    PartId::Known,
    PartId::Felt,
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
pub const COUNT: usize = 30;

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
        part(
            P::Distance,
            "distance",
            &["outing", "distance_m"],
            Limit(Outing::DISTANCE, 0, "a day's way"),
            "",
            "how far in a day",
            "8 km or 5 mi; empty where it does not matter",
        ),
        part(
            P::Hours,
            "hours",
            &["outing", "hours"],
            Limit(Outing::HOURS, 0, "hours afloat"),
            "",
            "hours a trip",
            "6; empty for a usual day",
        ),
        part(
            P::Trips,
            "trips",
            &["outing", "trips"],
            Limit(Outing::TRIPS, 0, "trips a year"),
            "",
            "trips a year",
            "20; empty where it does not matter",
        ),
        part(
            P::Fish,
            "fish",
            &["outing", "fish_kg"],
            Limit(Outing::FISH, 0, "fish kept"),
            "",
            "fish kept beside the rig's own",
            "5 kg or 11 lb; empty for none",
        ),
        part(
            P::Risers,
            "risers",
            &["risers_m"],
            Limit(Brief::RAISED, 0, "seat raised"),
            "",
            "risers and cushions under the seat",
            "6 cm or 2.5 in; empty for none",
        ),
        part(
            P::Battery,
            "battery",
            &["wishes", "battery"],
            Words(batteries),
            "as-laid",
            "where batteries go",
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
