//! The table.

use super::offers::{
    batteries, capacity, deck, demands, drillings, drives, felt, fishings, hands, joints, launches,
    postures, practices, reverses, scuppers, seats, stability,
};
use super::part::{Kind, Part, PartId, Said, part};
use super::{company, rough};
use galvet_core::base::{Bounds, Dimension};
use galvet_core::crew::Crew;
use galvet_core::question::{Brief, MustHaves, Outing};

/// Bounds of the weight as a share.
const SHARE: Bounds = Bounds::new("the weight of capacity", Dimension::Ratio, 0.0, 1.0);

/// How many parts there are.
pub const COUNT: usize = 41;

/// Every part, in the order of the sentence and of [`PartId`].
pub static PARTS: [Part; COUNT] = {
    use Kind::{Event, Hull, Limit, Named, Quantity, Share, Words};
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
            Kind::Said(Said(company::kept)),
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
            "from what it is launched",
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
            "some",
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
            "how it may be driven",
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
            "how it felt",
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
        part(
            P::Roof,
            "roof",
            &["must", "roof_kg"],
            Limit(MustHaves::ROOF, 0, "on a roof for"),
            "",
            "what the car's roof may bear",
            "75 kg or 165 lb, bars and straps in it; empty for no limit",
        ),
        part(
            P::Bed,
            "bed",
            &["must", "bed_m"],
            Limit(MustHaves::BED, 2, "in a bed of"),
            "",
            "length of the truck's bed, the flap down",
            "2.1 m or 6' 11\"; empty for no limit",
        ),
        part(
            P::Seats,
            "seats",
            &["must", "seats"],
            Limit(MustHaves::SEATS, 0, "seats at least"),
            "",
            "seats it must have",
            "2; empty where one will do",
        ),
        part(
            P::Track,
            "track",
            &["must", "track_m"],
            Limit(MustHaves::TRACK, 2, "track at least"),
            "",
            "track it must have, all of it together",
            "0.8 m or 2' 7\"; empty where it does not matter",
        ),
        part(
            P::Demands,
            "demands",
            &["demands"],
            Words(demands),
            "counts",
            "what the water asks of a hull",
            "",
        ),
        part(
            P::Roughly,
            "roughly",
            &["roughly"],
            Kind::Said(Said(rough::kept)),
            "",
            "kit by guess",
            "27 kg behind the seat, or 12 kg in the bow, high; empty for none",
        ),
        part(
            P::Wind,
            "wind",
            &["outing", "wind_mps"],
            Limit(Outing::WIND, 0, "wind forecast"),
            "",
            "the forecast's mean wind",
            "12 kn, 22 km/h or 6 m/s; empty for what is usual on the water",
        ),
        part(
            P::Dark,
            "dark",
            &["outing", "dark_h"],
            Limit(Outing::DARK, 0, "dark at"),
            "",
            "when it is dark: by when to turn back follows",
            "20:30 or 8:30 pm; empty where it does not matter",
        ),
        part(
            P::Reverse,
            "reverse",
            &["wishes", "reverse"],
            Words(reverses),
            "any",
            "whether it must go backwards",
            "",
        ),
        part(
            P::Whole,
            "whole",
            &["must", "whole"],
            Limit(MustHaves::WHOLE, 0, "with what the rig lacks for"),
            "",
            "most the whole may cost: hull, what the rig lacks, work planned on it",
            "a number; empty for no limit",
        ),
        part(
            P::Event,
            "event",
            &["must", "event"],
            Event,
            "",
            "an event whose rules it must keep",
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
