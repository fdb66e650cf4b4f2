//! How each kind of fitting is put on: what it waits for, how it is tried, how it is taken
//! off again, the usual mistake, and minutes. Handbook, chapter 8.2; guide values.

use crate::base::words;

words! {
/// A kind of work on a hull.
pub enum Trade {
    /// A lid cut or swapped.
    #[strum(message = "hatch")]
    Hatch,
    /// A track.
    #[strum(message = "gear track")]
    Track,
    /// A holder sunk into the deck.
    #[strum(message = "flush rod holder")]
    FlushHolder,
    /// A holder clamped or on a track.
    #[strum(message = "rod holder")]
    Holder,
    /// A line along the side for the anchor.
    #[strum(message = "anchor trolley")]
    Trolley,
    /// Cleats, pad eyes, rings.
    #[strum(message = "cleat, pad eye")]
    Eye,
    /// Seat risers.
    #[strum(message = "seat risers")]
    Risers,
    /// Floats on arms.
    Outriggers,
    /// Glands and cables.
    #[strum(message = "wiring and fuse")]
    Wiring,
    /// A battery.
    Battery,
    /// A screen.
    #[strum(message = "sounder mount")]
    Sounder,
    /// A transducer in a scupper or recess.
    #[strum(message = "transducer in its recess")]
    InRecess,
    /// A transducer bolted through the hull.
    #[strum(message = "transducer through the hull")]
    ThroughHull,
    /// A transducer on an arm.
    #[strum(message = "transducer on an arm")]
    OnArm,
    /// A transducer glued inside.
    #[strum(message = "transducer glued inside")]
    Glued,
    /// A motor.
    Motor,
    /// What steers it.
    #[strum(message = "motor steering")]
    Steering,
    /// A live well.
    #[strum(message = "live well")]
    LiveWell,
    /// A light or flag.
    #[strum(message = "light or flag")]
    Light,
    /// A cart.
    #[strum(message = "cart aboard")]
    Cart,
    /// Anything strapped, tied or stood in its place.
    #[strum(message = "stowed")]
    Stowed,
    /// Anything else bolted on.
    #[strum(message = "bolted on")]
    Bolted,
}
}

/// How it is done.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct How {
    /// The work.
    pub trade: Trade,
    /// How.
    pub how: &'static str,
    /// What must be settled before: see [`super::job::GATES`], or another trade.
    pub waits: &'static [&'static str],
    /// How it is tried.
    pub test: &'static str,
    /// How it is taken off again.
    pub undo: &'static str,
    /// The usual mistake.
    pub mistake: &'static str,
    /// Tools beside drill, hand driver, spanner and tape.
    pub tools: &'static str,
    /// Minutes for the first, by an able hand.
    pub minutes: f64,
    /// Its turn in the working order.
    pub turn: u8,
}

#[expect(clippy::too_many_arguments, reason = "a row of a table")]
const fn how(
    trade: Trade,
    how: &'static str,
    waits: &'static [&'static str],
    test: &'static str,
    undo: &'static str,
    mistake: &'static str,
    tools: &'static str,
    minutes: f64,
    turn: u8,
) -> How {
    How {
        trade,
        how,
        waits,
        test,
        undo,
        mistake,
        tools,
        minutes,
        turn,
    }
}

/// One row for every trade.
pub static HOWS: [How; 22] = {
    use Trade as T;
    [
        how(
            T::Hatch,
            "cut by template with corners of 15 mm radius; a bolt every 70 mm; keep the old ring",
            &["beneath"],
            "hose on it for a minute",
            "none: a cut is for good",
            "a bent rim leaks",
            "jigsaw, file",
            90.0,
            5,
        ),
        how(
            T::Track,
            "M5 in every hole, butyl under it",
            &["dry-fit", "beneath"],
            "20 kg pull",
            "bolts as plugs",
            "it lies in the paddle's or the pedals' stroke",
            "",
            40.0,
            7,
        ),
        how(
            T::FlushHolder,
            "hole saw to the template (50 mm), a closed base, bolts",
            &["dry-fit", "beneath"],
            "10 kg on the butt",
            "a cap",
            "an open base floods the hull",
            "hole saw 50 mm",
            40.0,
            7,
        ),
        how(
            T::Holder,
            "clamp or adapter on the track",
            &["dry-fit", "track"],
            "twist it by hand",
            "lift it off",
            "it turns under a strike",
            "",
            10.0,
            7,
        ),
        how(
            T::Trolley,
            "end blocks on plates, 5 mm line, a ring, a cleat within reach, a quick release; or on the tracks",
            &["dry-fit", "beneath"],
            "ring to both ends, 40 kg pull",
            "unscrew, bolts as plugs",
            "it stops amidships, where the anchor pulls the boat over",
            "",
            75.0,
            7,
        ),
        how(
            T::Eye,
            "two M5 on a plate",
            &["dry-fit", "beneath"],
            "40 kg pull",
            "plug the holes",
            "self-tapped",
            "",
            15.0,
            7,
        ),
        how(
            T::Risers,
            "equal on both sides, captive, straps still reach",
            &["dry-fit"],
            "steadiness anew, then ten rises",
            "bolts out",
            "the cushion was not counted",
            "",
            20.0,
            7,
        ),
        how(
            T::Outriggers,
            "bolted bases, floats 20-40 mm clear of the water",
            &["dry-fit", "waterline", "beneath"],
            "lean to both sides in shallow water",
            "pins out",
            "always wet they drag",
            "",
            60.0,
            7,
        ),
        how(
            T::Wiring,
            "fuse within 0.2 m of the plus, 1.25 to 1.5 times the draw and no more than the cable carries; drip loops; glands high",
            &["dry-fit", "waterline"],
            "15 minutes at full load: nothing warm",
            "unplug",
            "the fuse at the far end",
            "crimper, heat shrink",
            75.0,
            8,
        ),
        how(
            T::Battery,
            "low, strapped both ways, terminals covered",
            &["waterline"],
            "turn the box over for 10 seconds",
            "strap off",
            "its hatch is opened afloat",
            "",
            15.0,
            9,
        ),
        how(
            T::Sounder,
            "ball on the track, a drip loop in the cable",
            &["dry-fit", "track"],
            "reach it without leaning",
            "off the ball",
            "the cable is taut when the seat slides",
            "",
            20.0,
            10,
        ),
        how(
            T::InRecess,
            "footprint checked, grommet, ties",
            &["sounder"],
            "the picture under way",
            "cut the ties",
            "it stands proud; a drain is lost",
            "",
            20.0,
            11,
        ),
        how(
            T::ThroughHull,
            "gland of 16-20 mm, high; the plug passes first",
            &["waterline", "sounder"],
            "hose on it",
            "a blank gland",
            "led through the drain",
            "step drill",
            45.0,
            11,
        ),
        how(
            T::OnArm,
            "on the track, with a lanyard",
            &["dry-fit", "sounder"],
            "swing it up",
            "lift it off",
            "weed jams it in reverse",
            "",
            30.0,
            11,
        ),
        how(
            T::Glued,
            "over a single skin; tried in a wet bag first; putty, or epoxy that cures 24 hours",
            &["trial-bag", "sounder"],
            "against a sounding line",
            "putty peels; epoxy is for good",
            "an air bubble; no side view",
            "sandpaper",
            30.0,
            11,
        ),
        how(
            T::Motor,
            "four M6 and a plate; battery off meanwhile; lift line, lanyard, kill cord",
            &["dry-fit", "waterline", "beneath"],
            "5 minutes at full thrust, moored",
            "plugs",
            "its plug is wider than the hole",
            "",
            120.0,
            12,
        ),
        how(
            T::Steering,
            "cable ordered once the seat is set; bends of 150 mm and more",
            &["dry-fit", "motor"],
            "lock to lock",
            "off",
            "ordered first, and too short",
            "",
            75.0,
            13,
        ),
        how(
            T::LiveWell,
            "pump by a scupper or over the side; overflow wider than the inlet; fuse of 3-5 A",
            &["waterline"],
            "fill, time, empty",
            "lift it out",
            "a hole under the water",
            "",
            50.0,
            9,
        ),
        how(
            T::Light,
            "light a metre up and behind the eyes; flag at 1.2 m",
            &["dry-fit"],
            "seen from all round",
            "lift it off",
            "it dazzles",
            "",
            20.0,
            14,
        ),
        how(
            T::Cart,
            "wheels off, two straps, pins on cords",
            &["dry-fit"],
            "tip the hull",
            "unstrap",
            "on a lid that is needed",
            "",
            10.0,
            14,
        ),
        how(
            T::Stowed,
            "in its place, held as named",
            &["dry-fit"],
            "shake the hull",
            "lift it out",
            "what floats drifts off: tether it",
            "",
            2.0,
            3,
        ),
        how(
            T::Bolted,
            "bolts as named, butyl under flange and shank",
            &["dry-fit", "waterline", "beneath"],
            "20 kg pull",
            "bolts as plugs",
            "no nut beneath",
            "",
            40.0,
            7,
        ),
    ]
};

impl Trade {
    /// How it is done.
    #[must_use]
    pub fn how(self) -> &'static How {
        // A test finds a trade without its row; the last stands for any.
        HOWS.iter().find(|h| h.trade == self).unwrap_or(&HOWS[21])
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::base::Keyed;

    #[test]
    fn every_trade_has_its_row_once() {
        for &trade in Trade::ALL {
            let rows = HOWS.iter().filter(|h| h.trade == trade);
            assert_eq!(rows.count(), 1, "{trade:?}");
        }
    }
}
