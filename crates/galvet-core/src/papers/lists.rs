//! The lines that do not hang on one thing of the rig: a table, each with when it applies,
//! why, and whether it is hard. Handbook, chapter 8.

use super::facts::{Facts, Nine};
use crate::base::words;
use crate::gear::Serves;
use crate::hull::{Construction, FittingKind, ScupperState};
use crate::question::Launch;

words! {
/// Which list a line stands on.
pub enum List {
    /// Before a hull is bought.
    #[strum(message = "Before you buy")]
    Buying,
    /// Test paddle.
    #[strum(message = "Test paddle")]
    Trial,
    /// Onto the road.
    #[strum(message = "Load up")]
    Loading,
    /// At the water's edge.
    Launch,
    /// Through surf.
    #[strum(message = "Through surf")]
    Surf,
    /// Back ashore.
    #[strum(message = "Return and rinse")]
    Return,
}

/// Where a line comes from.
pub enum From {
    /// It always holds.
    Always,
    /// The rig.
    Rig,
    /// The hull.
    Hull,
    /// The water.
    Water,
    /// What drives it.
    Motor,
}

/// When a line applies.
pub enum When {
    /// Always.
    Always,
    /// One sits on it, over scuppers.
    SitOnTop,
    /// One sits in it.
    SitInside,
    /// It has a drive below.
    Drive,
    /// Something electric drives it.
    Motor,
    /// A battery is aboard.
    Battery,
    /// A screen, mount or camera is aboard.
    Electronics,
    /// It has a rudder or skeg.
    Steering,
    /// It has a lid.
    Lids,
    /// It has scuppers with plugs.
    Plugs,
    /// An anchor is aboard.
    Anchor,
    /// An inflatable aid is on the rig.
    Inflatable,
    /// A cart is on the rig.
    Cart,
    /// Rods are on the rig.
    Rods,
    /// A live well is on the rig.
    Well,
    /// A flag or mast is on the rig.
    Flag,
    /// Estuary, coast or surf.
    Sea,
    /// Its water runs.
    Runs,
    /// Its water is tidal.
    Tidal,
    /// Out through surf.
    Surf,
    /// Somebody comes along.
    Company,
    /// A gaff is aboard.
    Gaff,
}
}

impl When {
    /// Whether it applies.
    #[must_use]
    pub fn holds(self, facts: &Facts<'_>) -> bool {
        let construction = facts.hull().construction;
        let waters = facts.waters();
        let on = |all: &[Nine]| waters.iter().any(|w| all.contains(w));
        match self {
            Self::Always => true,
            Self::SitOnTop => construction == Construction::SitOnTop,
            Self::SitInside => construction == Construction::SitInside,
            Self::Drive => facts.assessment.driven().has_drive(),
            Self::Motor => facts.motor(),
            Self::Battery => facts.battery(),
            Self::Electronics => facts.electronics(),
            Self::Steering => facts.hull().tracks_straight,
            Self::Lids => facts.zones().iter().any(|z| z.opening.is_some()),
            Self::Plugs => plugged(facts),
            Self::Anchor => facts.serving(Serves::Anchor).is_some(),
            Self::Inflatable => facts.serving(Serves::InflatableAid).is_some(),
            Self::Cart => facts.serving(Serves::Cart).is_some(),
            Self::Rods => facts.serving(Serves::Rod).is_some(),
            Self::Well => facts.serving(Serves::LiveWell).is_some(),
            Self::Flag => {
                facts.serving(Serves::Flag).is_some() || facts.serving(Serves::WhiteLight).is_some()
            }
            Self::Sea => on(&[Nine::Estuary, Nine::Coast, Nine::Surf]),
            Self::Runs => waters.iter().any(|w| w.runs()),
            Self::Tidal => on(&[Nine::Marsh, Nine::Estuary, Nine::Coast, Nine::Surf]),
            Self::Surf => on(&[Nine::Surf]) || facts.brief.wishes.launch == Launch::Surf,
            Self::Company => !facts.brief.others.is_empty(),
            Self::Gaff => facts.serving(Serves::Gaff).is_some(),
        }
    }

    /// Where a line with this comes from.
    #[must_use]
    pub const fn from(self) -> From {
        match self {
            Self::Always => From::Always,
            Self::SitOnTop
            | Self::SitInside
            | Self::Drive
            | Self::Steering
            | Self::Lids
            | Self::Plugs => From::Hull,
            Self::Motor => From::Motor,
            Self::Sea | Self::Runs | Self::Tidal | Self::Surf => From::Water,
            _ => From::Rig,
        }
    }
}

/// Whether a plug is asked for, in a scupper or at hand.
fn plugged(facts: &Facts<'_>) -> bool {
    let open = facts
        .assessment
        .setup
        .scuppers
        .iter()
        .all(|s| s.state == ScupperState::Open);
    !open || facts.fitted(|f| matches!(f, FittingKind::Scupper { plug: true, .. }))
}

/// A line as the table has it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Row {
    /// Its own word.
    pub id: &'static str,
    /// Where it stands.
    pub list: List,
    /// When it applies.
    pub when: When,
    /// What to do.
    pub text: &'static str,
    /// Why.
    pub why: &'static str,
    /// Whether it is never hidden, ticked singly, red until done.
    pub hard: bool,
}

const fn line(
    id: &'static str,
    list: List,
    when: When,
    text: &'static str,
    why: &'static str,
) -> Row {
    Row {
        id,
        list,
        when,
        text,
        why,
        hard: false,
    }
}

const fn hard(
    id: &'static str,
    list: List,
    when: When,
    text: &'static str,
    why: &'static str,
) -> Row {
    Row {
        id,
        list,
        when,
        text,
        why,
        hard: true,
    }
}

/// All of them, each list in working order.
pub static ROWS: [Row; 78] = {
    use List::{Buying, Launch, Loading, Return, Surf, Trial};
    use When as W;
    [
        // Before you buy: what to look at, and what it tells.
        line(
            "bottom",
            Buying,
            W::Always,
            "Bottom, from both ends, and the keel lines",
            "steadiness, wear",
        ),
        line(
            "label",
            Buying,
            W::Always,
            "Label: what counts as load? With the plugs in?",
            "what is left for you and your kit",
        ),
        line(
            "weight",
            Buying,
            W::Always,
            "Weight on a scale: bare; then seat, drive and rudder one by one",
            "what you lift",
        ),
        line(
            "body",
            Buying,
            W::Always,
            "Tape: length, beam, depth, floor height and width, stern end",
            "stance and shape",
        ),
        line(
            "seat",
            Buying,
            W::Always,
            "Seat: height at each setting; slide; sit in it for twenty minutes and lean back; bars, straps, water beneath",
            "comfort, and how high you sit",
        ),
        line(
            "legs",
            Buying,
            W::Always,
            "Legs: your own shoes on, a full turn of the pedals or both braces",
            "whether it can be set up for you",
        ),
        line(
            "scuppers",
            Buying,
            W::SitOnTop,
            "Scuppers: count, calliper, recess, cracked tubes",
            "draining, and cart pegs",
        ),
        line(
            "hatches",
            Buying,
            W::Lids,
            "Hatches: gasket, lip, latch by one hand, reach; a hose on each for a minute",
            "how dry it keeps",
        ),
        line(
            "openings",
            Buying,
            W::Always,
            "Openings: pass your own box, battery, cart and a rod",
            "what goes in",
        ),
        line(
            "drive-well",
            Buying,
            W::Drive,
            "Drive: lifts, kicks up, locks and reverses from the seat? A cover for the well?",
            "shallows, and paddling home",
        ),
        line(
            "rudder",
            Buying,
            W::Steering,
            "Rudder or skeg: kind, by hand or foot, side, slack, lines",
            "handedness, upkeep",
        ),
        line(
            "handles",
            Buying,
            W::Always,
            "Handles: which way they face; lift at the stern and at the balance point; do they flex? Load your own car once",
            "who can move it",
        ),
        line(
            "inserts",
            Buying,
            W::Always,
            "Inserts, plates, tracks: thread, spacing, slot, recess, cable ways; does a hand go beneath?",
            "holes you need not drill",
        ),
        line(
            "deck",
            Buying,
            W::Always,
            "Deck: drop the pliers, drag a hook over it, stand on it wet",
            "noise, snags, grip",
        ),
        line(
            "used-hull",
            Buying,
            W::Always,
            "If it is used: plugged holes, dents, chalky plastic, spun inserts, water inside, which parts are still sold",
            "repairs to come",
        ),
        // Test paddle: half an hour, ballast for the kit.
        hard(
            "trial-aid",
            Trial,
            W::Always,
            "Flotation aid worn and done up",
            "nobody puts it on afloat",
        ),
        line(
            "trial-ballast",
            Trial,
            W::Always,
            "Ballast aboard for your kit, where it will lie",
            "an empty hull tells nothing of a full one",
        ),
        line(
            "trial-float",
            Trial,
            W::Always,
            "Floor to the water at three points, read and written down",
            "a float test: the surest measure there is",
        ),
        line(
            "trial-stand",
            Trial,
            W::Always,
            "In shallow water: stand, turn, sit, lean until you are wary",
            "how steady it is under you",
        ),
        line(
            "trial-way",
            Trial,
            W::Always,
            "Two hundred metres paddled, two hundred driven, a full turn, reverse, hands off",
            "how it goes",
        ),
        line(
            "trial-back",
            Trial,
            W::Always,
            "Waist-deep, a helper near: climb back in",
            "whether you can",
        ),
        // Load up.
        line(
            "off-water",
            Loading,
            W::Always,
            "Water and ice out",
            "they are kilograms",
        ),
        line(
            "off-rods",
            Loading,
            W::Rods,
            "Rods into tubes in the car",
            "they whip and snap on a roof",
        ),
        line(
            "off-screen",
            Loading,
            W::Electronics,
            "Screen, mount and camera into a padded box",
            "rattle and theft",
        ),
        hard(
            "off-battery",
            Loading,
            W::Battery,
            "Battery fixed, its terminals capped, in the shade",
            "a short on the road is a fire",
        ),
        line(
            "off-drive",
            Loading,
            W::Drive,
            "Drive out, flat on a blanket",
            "weight high up, and its shaft bends",
        ),
        line(
            "off-rudder",
            Loading,
            W::Steering,
            "Rudder up and tied",
            "it swings into the next car",
        ),
        line(
            "off-lids",
            Loading,
            W::Lids,
            "Lids latched, hooks in",
            "a lid at speed is gone",
        ),
        line(
            "off-drain",
            Loading,
            W::Always,
            "Drain open for the road",
            "heat swells a shut hull",
        ),
        hard(
            "roof-rating",
            Loading,
            W::Always,
            "Hull, bars and fittings together within the car's rating for a moving roof, not a parked one",
            "the parked figure is several times higher",
        ),
        line(
            "roof-straps",
            Loading,
            W::Always,
            "Two straps, bow and stern lines, hand-tight; again after ten minutes on the road",
            "straps settle",
        ),
        hard(
            "bed-tied",
            Loading,
            W::Always,
            "In a truck's bed: tied fore and aft; what stands over is marked as the law asks",
            "it slides out when you brake",
        ),
        hard(
            "trailer",
            Loading,
            W::Always,
            "On a trailer: lights, tyres, chain; 5 to 10 % of the mass on the hitch",
            "it sways with less",
        ),
        hard(
            "cart-pegs",
            Loading,
            W::Cart,
            "Cart: no pegs in a cracked scupper; stay uphill of it",
            "the tube tears out, and water comes in",
        ),
        line(
            "cart-axle",
            Loading,
            W::Cart,
            "Cart: the axle just behind the balance point, strapped",
            "it tips back on the ramp",
        ),
        // Launch.
        line(
            "forecast",
            Launch,
            W::Always,
            "Forecast and warnings read, turning time set",
            "wind decides whether you get back",
        ),
        line(
            "tide",
            Launch,
            W::Tidal,
            "Tide read",
            "stranded, or swept out",
        ),
        line(
            "contact",
            Launch,
            W::Always,
            "Somebody ashore knows where and until when",
            "who looks for you, and where",
        ),
        hard(
            "drain-shut",
            Launch,
            W::Always,
            "Drain shut, felt with a finger",
            "an open one fills the hull unseen",
        ),
        hard(
            "aid-on",
            Launch,
            W::Always,
            "Flotation aid worn and done up, by everybody",
            "nobody puts it on afloat",
        ),
        hard(
            "inflatable-date",
            Launch,
            W::Inflatable,
            "Inflatable aid: cylinder screwed home and weighed, head in date",
            "one past its date does not fill",
        ),
        line(
            "clothes",
            Launch,
            W::Always,
            "Dressed for the water, not the air",
            "cold water takes your hands in minutes",
        ),
        line(
            "plugs",
            Launch,
            W::Plugs,
            "Plugs in or out as planned",
            "plugs keep feet dry and water in",
        ),
        line(
            "lids-shut",
            Launch,
            W::Lids,
            "Lids locked",
            "a hatch opened or left open afloat is not dry",
        ),
        hard(
            "radio-on",
            Launch,
            W::Sea,
            "Radio on the body, tried",
            "a phone finds no signal there",
        ),
        line(
            "on-body",
            Launch,
            W::Always,
            "Whistle and knife on the body",
            "out of reach they are ballast",
        ),
        line(
            "strapped",
            Launch,
            W::Always,
            "What is heavy strapped, the rest tethered, no loops at the feet",
            "what floats drifts off; a loop holds you under",
        ),
        hard(
            "nobody-tied",
            Launch,
            W::Runs,
            "Nobody tied to the boat: no leash at ankle or waist",
            "in a current it drowns",
        ),
        line(
            "drive-set",
            Launch,
            W::Drive,
            "Drive locked; free to kick up over rocks",
            "it breaks what it is bolted to",
        ),
        line(
            "rudder-up",
            Launch,
            W::Steering,
            "Rudder up till afloat",
            "it takes the ground first",
        ),
        line(
            "spare-paddle",
            Launch,
            W::Always,
            "Paddle in reach; a spare on a driven hull",
            "drives fail",
        ),
        hard(
            "kill-cord",
            Launch,
            W::Motor,
            "Kill cord on, and it pulls free",
            "a boat that goes on without you",
        ),
        line(
            "anchor-tried",
            Launch,
            W::Anchor,
            "Anchor's release tried; bow or stern only",
            "beam on it pulls the boat under",
        ),
        line(
            "gaff-leash",
            Launch,
            W::Gaff,
            "Gaff's point covered, its leash weak enough to break",
            "it goes with the fish, or into you",
        ),
        hard(
            "company-aid",
            Launch,
            W::Company,
            "Who comes along: an aid of its own size, a seat that is fixed, no strap as a handhold",
            "a child slips out of a grown-up's aid",
        ),
        line(
            "cart-away",
            Launch,
            W::Cart,
            "Cart stowed, tethers on",
            "it floats off the ramp without you",
        ),
        // Through surf: outside the break.
        hard(
            "surf-never",
            Surf,
            W::Surf,
            "Never stripped: aid, radio, knife",
            "they are for the swim",
        ),
        hard(
            "surf-straps",
            Surf,
            W::Surf,
            "Thigh straps free when the legs straighten",
            "you must fall out of it",
        ),
        hard(
            "surf-battery",
            Surf,
            W::Battery,
            "Battery strapped, or ashore",
            "a block of kilograms in a rolling hull",
        ),
        line(
            "surf-reels",
            Surf,
            W::Rods,
            "Reels off into a dry bag, rods flat and strapped or below",
            "sand, and hooks in your face",
        ),
        line(
            "surf-screen",
            Surf,
            W::Electronics,
            "Screen, holders and cameras below",
            "the first wave takes them",
        ),
        line(
            "surf-flag",
            Surf,
            W::Flag,
            "Flag and arms down",
            "they spear who is under them",
        ),
        line(
            "surf-anchor",
            Surf,
            W::Anchor,
            "Anchor and its lines bagged",
            "a loop in surf",
        ),
        line(
            "surf-hooks",
            Surf,
            W::Surf,
            "Hooks and gaff covered",
            "you will be in the water with them",
        ),
        line(
            "surf-lids",
            Surf,
            W::Lids,
            "Lids strapped",
            "they come open under a wave",
        ),
        line(
            "surf-well",
            Surf,
            W::Well,
            "Well empty",
            "twenty kilograms that slosh",
        ),
        line(
            "surf-drive",
            Surf,
            W::Drive,
            "Drive out or locked up, transducer up",
            "the sand bends it",
        ),
        line(
            "surf-rudder",
            Surf,
            W::Steering,
            "Rudder up to land",
            "it digs in and turns you",
        ),
        line(
            "surf-helmet",
            Surf,
            W::Surf,
            "Helmet on",
            "rock, hull, sand",
        ),
        line(
            "surf-leash",
            Surf,
            W::Surf,
            "Paddle leashed to the hull, releasable; never to a limb",
            "a lost paddle is a long swim; a leash on an arm holds you",
        ),
        // Back ashore.
        hard(
            "return-plug",
            Return,
            W::Motor,
            "Motor unplugged before hands go near it",
            "it starts on a touch",
        ),
        line(
            "return-count",
            Return,
            W::Always,
            "People and kit counted",
            "what is missing is still out there",
        ),
        line(
            "return-rinse",
            Return,
            W::Always,
            "Rinsed with fresh water: drive, reels, tracks, zips",
            "salt halves their lives",
        ),
        line(
            "return-heavy",
            Return,
            W::Always,
            "Heavy? Then there is water inside: say so before two people lift it",
            "litres are kilograms, and run to the low end",
        ),
        hard(
            "return-drain",
            Return,
            W::Always,
            "Drain open, lids ajar, in the shade. Shut again before the next launch",
            "open to dry; open at launch it fills",
        ),
        line(
            "return-battery",
            Return,
            W::Battery,
            "Battery out and dry; watched while it charges; soaked, hot or swollen never again",
            "it burns",
        ),
        line(
            "return-tackle",
            Return,
            W::Rods,
            "Wet tackle kept apart",
            "rust spreads",
        ),
        line(
            "return-log",
            Return,
            W::Always,
            "Faults and unused kit written down; dry before other waters; your contact ashore told",
            "next time is decided by it",
        ),
    ]
};
