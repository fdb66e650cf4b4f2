//! What a thing serves as, where lists and rules ask for one: a whistle is a whistle
//! whatever it is called.

use super::{Category, Gear};
use crate::base::{Keyed, words};

words! {
/// What lists and event rules ask for.
pub enum Serves {
    /// A rod.
    Rod,
    /// A holder for a rod, wherever it hangs.
    #[strum(message = "rod holder")]
    RodHolder,
    /// A box of tackle.
    #[strum(message = "tackle box")]
    TackleBox,
    /// A flotation aid of foam.
    #[strum(message = "flotation aid of foam")]
    FoamAid,
    /// A flotation aid that is blown up.
    #[strum(message = "inflatable flotation aid")]
    InflatableAid,
    /// A flotation aid for a child.
    #[strum(message = "child's flotation aid")]
    ChildAid,
    /// A whistle.
    Whistle,
    /// A knife within reach.
    Knife,
    /// A second paddle.
    #[strum(message = "spare paddle")]
    SparePaddle,
    /// A white light seen all round.
    #[strum(message = "white light")]
    WhiteLight,
    /// A suit for cold water.
    #[strum(message = "immersion suit")]
    ImmersionSuit,
    /// A phone in a pouch.
    #[strum(message = "pouched phone")]
    Phone,
    /// A marine radio.
    #[strum(message = "marine radio")]
    Radio,
    /// A flag.
    Flag,
    /// A pump or bailer.
    Pump,
    /// A line to throw.
    #[strum(message = "throw line")]
    ThrowLine,
    /// A line to tow with.
    #[strum(message = "tow line, releasable")]
    TowLine,
    /// A helmet.
    Helmet,
    /// A compass, or what tells a position.
    #[strum(message = "compass or position")]
    Compass,
    /// A tide table.
    #[strum(message = "tide table")]
    TideTable,
    /// A beacon or flares.
    #[strum(message = "beacon or flares")]
    Beacon,
    /// First aid.
    #[strum(message = "first aid")]
    FirstAid,
    /// Water to drink.
    #[strum(message = "drinking water")]
    DrinkingWater,
    /// A line from the hull to a person.
    #[strum(message = "line from hull to person")]
    PersonLeash,
    /// An anchor or a pole.
    #[strum(message = "anchor or pole")]
    Anchor,
    /// A board to measure fish on.
    #[strum(message = "measuring board")]
    MeasuringBoard,
    /// A gaff.
    Gaff,
    /// A live well.
    #[strum(message = "live well")]
    LiveWell,
    /// A battery.
    Battery,
    /// A motor.
    Motor,
    /// A sounder.
    Sounder,
    /// A net.
    Net,
    /// A camera on an arm.
    Camera,
    /// A clip for a net.
    #[strum(message = "net clip")]
    NetClip,
    /// A riser under the seat.
    #[strum(message = "seat riser")]
    SeatRiser,
    /// A cushion.
    Cushion,
    /// A mark by which a catch is told.
    Identifier,
    /// A cart.
    Cart,
    /// A repair kit.
    #[strum(message = "repair kit")]
    RepairKit,
}
}

/// What keeps somebody alive when a day goes wrong.
const KEEPS_ALIVE: [Serves; 22] = [
    Serves::FoamAid,
    Serves::InflatableAid,
    Serves::ChildAid,
    Serves::Whistle,
    Serves::Knife,
    Serves::SparePaddle,
    Serves::WhiteLight,
    Serves::ImmersionSuit,
    Serves::Phone,
    Serves::Radio,
    Serves::Flag,
    Serves::Pump,
    Serves::ThrowLine,
    Serves::TowLine,
    Serves::Helmet,
    Serves::Compass,
    Serves::TideTable,
    Serves::Beacon,
    Serves::FirstAid,
    Serves::DrinkingWater,
    Serves::Anchor,
    Serves::RepairKit,
];

impl Gear {
    /// Whether it is, or may be, kit that keeps somebody alive: then it is never told to stay
    /// ashore, however long it was not used.
    #[must_use]
    pub fn keeps_alive(&self) -> bool {
        let may = |&what: &Serves| self.serves_as(what) != Is::No;
        self.category == Category::Safety || KEEPS_ALIVE.iter().any(may)
    }
}

/// Whether a thing serves as something.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Is {
    /// It is said on the shelf, or follows from its figures.
    Yes,
    /// Its name says so, and nobody else does.
    Maybe,
    /// No.
    No,
}

impl Gear {
    /// Whether it serves as something: as said on the shelf; as its figures say (what
    /// gives electricity is a battery); by its name it may.
    #[must_use]
    pub fn serves_as(&self, what: Serves) -> Is {
        let by_figures = match what {
            Serves::Battery => self.energy() > 0.0,
            Serves::Motor => {
                self.category == Category::Propulsion
                    && !matches!(self.electric, super::Electric::None)
            }
            _ => false,
        };
        if by_figures || self.serves.contains(&what) {
            return Is::Yes;
        }
        // What says what it is, is nothing else.
        if !self.serves.is_empty() {
            return Is::No;
        }
        let name = self.name.to_lowercase();
        let words = what.label().split([' ', ',']).filter(|w| w.len() > 2);
        let named = words.clone().next().is_some() && words.clone().all(|w| name.contains(w));
        if named { Is::Maybe } else { Is::No }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_is_said_counts_and_a_name_is_only_a_hint() {
        let plain = Gear::plain("a", "Orange throw line, 15 m", Category::Safety, 1.0, None);
        assert_eq!(plain.serves_as(Serves::ThrowLine), Is::Maybe);
        assert_eq!(plain.serves_as(Serves::Whistle), Is::No);
        let said = Gear {
            serves: vec![Serves::Whistle, Serves::Knife],
            ..plain
        };
        assert_eq!(said.serves_as(Serves::Knife), Is::Yes);
        // What says what it is, is nothing else whatever it is called.
        assert_eq!(said.serves_as(Serves::ThrowLine), Is::No);
        let battery = Gear {
            electric: super::super::Electric::Battery {
                volts: 12.0,
                amp_hours: 10.0,
                chemistry: super::super::Chemistry::Other,
            },
            ..Gear::plain("b", "block", Category::Power, 2.0, None)
        };
        assert_eq!(battery.serves_as(Serves::Battery), Is::Yes);
    }
}
