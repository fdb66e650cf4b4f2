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
    #[strum(message = "Launch")]
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
            Self::Drive => facts.drive().is_some(),
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

/// The table, a line each: list, when, its word, hard or not, what to do, why.
macro_rules! rows {
    ($($list:ident $when:ident $id:literal $kind:ident $text:literal $why:literal;)*) => {
        &[$(Row {
            id: $id,
            list: List::$list,
            when: When::$when,
            text: $text,
            why: $why,
            hard: rows!(@ $kind),
        }),*]
    };
    (@ hard) => { true };
    (@ line) => { false };
}

/// All of them, each list in working order.
pub static ROWS: &[Row] = rows! {
    // Before you buy: what to look at, and what it tells.
    Buying Always "bottom" line "Bottom, from both ends, and the keel lines"
        "steadiness, wear";
    Buying Always "label" line "Label: what counts as load? With the plugs in?"
        "what is left for you and your kit";
    Buying Always "weight" line "Weight on a scale: bare; then seat, drive and rudder one by one"
        "what you lift";
    Buying Always "body" line "Tape: length, beam, depth, floor height and width, stern end"
        "stance and shape";
    Buying Always "seat" line "Seat: height at each setting; slide; sit in it for twenty minutes and lean back; bars, straps, water beneath"
        "comfort, and how high you sit";
    Buying Always "legs" line "Legs: your own shoes on, a full turn of the pedals or both braces"
        "whether it can be set up for you";
    Buying SitOnTop "scuppers" line "Scuppers: count, calliper, recess, cracked tubes"
        "draining, and cart pegs";
    Buying Lids "hatches" line "Hatches: gasket, lip, latch by one hand, reach; a hose on each for a minute"
        "how dry it keeps";
    Buying Always "openings" line "Openings: pass your own box, battery, cart and a rod"
        "what goes in";
    Buying Drive "drive-well" line "Drive: lifts, kicks up, locks and reverses from the seat? A cover for the well?"
        "shallows, and paddling home";
    Buying Steering "rudder" line "Rudder or skeg: kind, by hand or foot, side, slack, lines"
        "handedness, upkeep";
    Buying Always "handles" line "Handles: which way they face; lift at the stern and at the balance point; do they flex? Load your own car once"
        "who can move it";
    Buying Always "inserts" line "Inserts, plates, tracks: thread, spacing, slot, recess, cable ways; does a hand go beneath?"
        "holes you need not drill";
    Buying Always "deck" line "Deck: drop the pliers, drag a hook over it, stand on it wet"
        "noise, snags, grip";
    Buying Always "used-hull" line "If it is used: plugged holes, dents, chalky plastic, spun inserts, water inside, which parts are still sold"
        "repairs to come";
    // Test paddle: half an hour, ballast for the kit.
    Trial Always "trial-aid" hard "Flotation aid worn and done up"
        "nobody puts it on afloat";
    Trial Always "trial-ballast" line "Ballast aboard for your kit, where it will lie"
        "an empty hull tells nothing of a full one";
    Trial Always "trial-float" line "Floor to the water at three points, read and written down"
        "a float test: the surest measure there is";
    Trial Always "trial-stand" line "In shallow water: stand, turn, sit, lean until you are wary"
        "how steady it is under you";
    Trial Always "trial-way" line "Two hundred metres paddled, two hundred driven, a full turn, reverse, hands off"
        "how it goes";
    Trial Always "trial-back" line "Waist-deep, a helper near: climb back in"
        "whether you can";
    // Load up.
    Loading Always "off-water" line "Water and ice out"
        "they are kilograms";
    Loading Rods "off-rods" line "Rods into tubes in the car"
        "they whip and snap on a roof";
    Loading Electronics "off-screen" line "Screen, mount and camera into a padded box"
        "rattle and theft";
    Loading Battery "off-battery" hard "Battery fixed, its terminals capped, in the shade"
        "a short on the road is a fire";
    Loading Drive "off-drive" line "Drive out, flat on a blanket"
        "weight high up, and its shaft bends";
    Loading Steering "off-rudder" line "Rudder up and tied"
        "it swings into the next car";
    Loading Lids "off-lids" line "Lids latched, hooks in"
        "a lid at speed is gone";
    Loading Always "off-drain" line "Drain open for the road"
        "heat swells a shut hull";
    Loading Always "roof-rating" hard "Hull, bars and fittings together within the car's rating for a moving roof, not a parked one"
        "the parked figure is several times higher";
    Loading Always "roof-straps" line "Two straps, bow and stern lines, hand-tight; again after ten minutes on the road"
        "straps settle";
    Loading Always "bed-tied" hard "In a truck's bed: tied fore and aft; what stands over is marked as the law asks"
        "it slides out when you brake";
    Loading Always "trailer" hard "On a trailer: lights, tyres, chain; 5 to 10 % of the mass on the hitch"
        "it sways with less";
    Loading Cart "cart-pegs" hard "Cart: no pegs in a cracked scupper; stay uphill of it"
        "the tube tears out, and water comes in";
    Loading Cart "cart-axle" line "Cart: the axle just behind the balance point, strapped"
        "it tips back on the ramp";
    // Launch.
    Launch Always "forecast" line "Forecast and warnings read, turning time set"
        "wind decides whether you get back";
    Launch Tidal "tide" line "Tide read"
        "stranded, or swept out";
    Launch Always "contact" line "Somebody ashore knows where and until when"
        "who looks for you, and where";
    Launch Always "drain-shut" hard "Drain shut, felt with a finger"
        "an open one fills the hull unseen";
    Launch Always "aid-on" hard "Flotation aid worn and done up, by everybody"
        "nobody puts it on afloat";
    Launch Inflatable "inflatable-date" hard "Inflatable aid: cylinder screwed home and weighed, head in date"
        "one past its date does not fill";
    Launch Always "clothes" line "Dressed for the water, not the air"
        "cold water takes your hands in minutes";
    Launch Plugs "plugs" line "Plugs in or out as planned"
        "plugs keep feet dry and water in";
    Launch Lids "lids-shut" line "Lids locked"
        "a hatch opened or left open afloat is not dry";
    Launch Sea "radio-on" hard "Radio on the body, tried"
        "a phone finds no signal there";
    Launch Always "on-body" line "Whistle and knife on the body"
        "out of reach they are ballast";
    Launch Always "strapped" line "What is heavy strapped, the rest tethered, no loops at the feet"
        "what floats drifts off; a loop holds you under";
    Launch Runs "nobody-tied" hard "Nobody tied to the boat: no leash at ankle or waist"
        "in a current it drowns";
    Launch Drive "drive-set" line "Drive locked; free to kick up over rocks"
        "it breaks what it is bolted to";
    Launch Steering "rudder-up" line "Rudder up till afloat"
        "it takes the ground first";
    Launch Always "spare-paddle" line "Paddle in reach; a spare on a driven hull"
        "drives fail";
    Launch Motor "kill-cord" hard "Kill cord on, and it pulls free"
        "a boat that goes on without you";
    Launch Anchor "anchor-tried" line "Anchor's release tried; bow or stern only"
        "beam on it pulls the boat under";
    Launch Gaff "gaff-leash" line "Gaff's point covered, its leash weak enough to break"
        "it goes with the fish, or into you";
    Launch Company "company-aid" hard "Who comes along: an aid of its own size, a seat that is fixed, no strap as a handhold"
        "a child slips out of a grown-up's aid";
    Launch Cart "cart-away" line "Cart stowed, tethers on"
        "it floats off the ramp without you";
    // Through surf: outside the break.
    Surf Always "surf-never" hard "Never stripped: aid, radio, knife"
        "they are for the swim";
    Surf Always "surf-straps" hard "Thigh straps free when the legs straighten"
        "you must fall out of it";
    Surf Battery "surf-battery" hard "Battery strapped, or ashore"
        "a block of kilograms in a rolling hull";
    Surf Rods "surf-reels" line "Reels off into a dry bag, rods flat and strapped or below"
        "sand, and hooks in your face";
    Surf Electronics "surf-screen" line "Screen, holders and cameras below"
        "the first wave takes them";
    Surf Flag "surf-flag" line "Flag and arms down"
        "they spear who is under them";
    Surf Anchor "surf-anchor" line "Anchor and its lines bagged"
        "a loop in surf";
    Surf Always "surf-hooks" line "Hooks and gaff covered"
        "you will be in the water with them";
    Surf Lids "surf-lids" line "Lids strapped"
        "they come open under a wave";
    Surf Well "surf-well" line "Well empty"
        "twenty kilograms that slosh";
    Surf Drive "surf-drive" line "Drive out or locked up, transducer up"
        "the sand bends it";
    Surf Steering "surf-rudder" line "Rudder up to land"
        "it digs in and turns you";
    Surf Always "surf-helmet" line "Helmet on"
        "rock, hull, sand";
    Surf Always "surf-leash" line "Paddle leashed to the hull, releasable; never to a limb"
        "a lost paddle is a long swim; a leash on an arm holds you";
    // Back ashore.
    Return Motor "return-plug" hard "Motor unplugged before hands go near it"
        "it starts on a touch";
    Return Always "return-count" line "People and kit counted"
        "what is missing is still out there";
    Return Always "return-rinse" line "Rinsed with fresh water: drive, reels, tracks, zips"
        "salt halves their lives";
    Return Always "return-heavy" line "Heavy? Then there is water inside: say so before two people lift it"
        "litres are kilograms, and run to the low end";
    Return Always "return-drain" hard "Drain open, lids ajar, in the shade. Shut again before the next launch"
        "open to dry; open at launch it fills";
    Return Battery "return-battery" line "Battery out and dry; watched while it charges; soaked, hot or swollen never again"
        "it burns";
    Return Rods "return-tackle" line "Wet tackle kept apart"
        "rust spreads";
    Return Always "return-log" line "Faults and unused kit written down; dry before other waters; your contact ashore told"
        "next time is decided by it";
};
