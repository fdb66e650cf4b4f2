//! The answers that parts of words offer, each with what it means.

use galvet_core::base::Keyed;
use galvet_core::crew::{Hand, Posture, SeatHeight};
use galvet_core::hull::Scuppers;
use galvet_core::question::{
    BatteryPlace, CapacitySchool, DeckUse, DemandUse, Drilling, Drive, Felt, Fishing, Joints,
    Launch, Practice, Reverse, StabilitySchool,
};

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

pub(super) fn postures() -> Vec<Offer> {
    Offer::all(|p| match p {
        Posture::Stands => "ranked by standing support",
        Posture::SitsAndStands => "ranked by the weaker of the two",
        Posture::Sits => "ranked by lean room and reserve",
    })
}

pub(super) fn scuppers() -> Vec<Offer> {
    Offer::all(|s| match s {
        Scuppers::Open => "water runs out, and comes up when the floor sinks below it",
        Scuppers::Plugged => "dry feet and more carried, but nothing drains",
        Scuppers::OneWay => "valves: float as plugged, drain while the floor is above the water",
        Scuppers::CockpitPlugged => "dry feet; the well behind the seat still drains",
        Scuppers::AsFound => "one by one as the record has them; open where it does not say",
    })
}

pub(super) fn deck() -> Vec<Offer> {
    Offer::all(|d| match d {
        DeckUse::Aside => "it stands beside the points",
        DeckUse::Fifth => "floor left to stand on, and well left behind the seat",
        DeckUse::TwoFifths => "for who lives on the deck",
    })
}

pub(super) fn demands() -> Vec<Offer> {
    Offer::all(|d| match d {
        DemandUse::Counts => "each thing asked and not met costs points",
        DemandUse::Aside => "it stands beside the points",
        DemandUse::Only => "a hull that does not meet it is left out",
    })
}

pub(super) fn hands() -> Vec<Offer> {
    Offer::all(|h| match h {
        Hand::Right => "the starboard side is kept clear to cast and land over",
        Hand::Left => "the port side is kept clear to cast and land over",
    })
}

pub(super) fn launches() -> Vec<Offer> {
    Offer::all(|l| match l {
        Launch::Ramp => "it is rolled or slid in",
        Launch::Beach => "dragged, or rolled on wide wheels",
        Launch::Bank => "lifted down and up again",
        Launch::Steps => "carried",
        Launch::Surf => "the surf's own limits hold, where they are tighter than the water's",
    })
}

pub(super) fn fishings() -> Vec<Offer> {
    Offer::all(|f| match f {
        Fishing::Casting => "anchored, staked or held",
        Fishing::Covering => "drifting and moving on",
        Fishing::Trolling => "asks for a hull that keeps straight",
        Fishing::Bottom => "asks for one that holds a place",
        Fishing::Fly => "asks for a clear deck ahead of the seat",
    })
}

pub(super) fn practices() -> Vec<Offer> {
    Offer::all(|p| match p {
        Practice::Skilled => "standing support from 0.6 on will do",
        Practice::Some => "from 0.8 on",
        Practice::New => "from 1.0 on",
    })
}

pub(super) fn joints() -> Vec<Offer> {
    Offer::all(|j| match j {
        Joints::Fine => "",
        Joints::Complain => "low seats and low backrests are named",
    })
}

pub(super) fn drives() -> Vec<Offer> {
    Offer::all(|d| match d {
        Drive::Any => "no hull is left out for it",
        Drive::Paddle => "hulls that come with none",
        Drive::Pedal => "turning pedals or fins",
        Drive::Motor => "hulls that come with one",
    })
}

pub(super) fn felt() -> Vec<Offer> {
    Offer::all(|f| match f {
        Felt::Steady | Felt::Care => "as much under the feet will do",
        Felt::SatDown => "a little more is asked for",
    })
}

pub(super) fn drillings() -> Vec<Offer> {
    Offer::all(|d| match d {
        Drilling::Allowed => "holes are counted",
        Drilling::None => "a hull this rig needs holes in is left out",
    })
}

pub(super) fn reverses() -> Vec<Offer> {
    Offer::all(|r| match r {
        Reverse::Any => "no hull is left out for it",
        Reverse::Must => "with paddle or drive; a hull that does not is left out",
        Reverse::Drive => "hands free; a paddled hull is left out",
    })
}

pub(super) fn batteries() -> Vec<Offer> {
    Offer::all(|b| match b {
        BatteryPlace::AsLaid => "as the rig lists its places",
        BatteryPlace::Bow => "in a bow hatch or on the bow, where there is room",
        BatteryPlace::Stern => "in a stern hatch or the tank well, where there is room",
    })
}

pub(super) fn seats() -> Vec<Offer> {
    Offer::all(|s| match s {
        SeatHeight::Low => "steadier",
        SeatHeight::High => "sight and comfort, at a cost in lean room",
    })
}

pub(super) fn capacity() -> Vec<Offer> {
    Offer::all(|s| match s {
        CapacitySchool::Tightest => "whichever of the three is met first",
        CapacitySchool::Label => "the maker's rated capacity, and nothing else",
        CapacitySchool::WorkingShare => "the share of the label this water allows",
        CapacitySchool::Waterline => "the water at the floor or the gunwale",
    })
}

pub(super) fn stability() -> Vec<Offer> {
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
