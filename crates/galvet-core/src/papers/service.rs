//! Service by hours and months, whichever comes first: handbook, chapter 8.5; guide values.
//! Salt halves them. The maker's book stands above; sealed gearboxes stay shut.

use super::facts::Facts;
use crate::gear::Serves;
use crate::hull::Propulsion;

/// What is looked after.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Care {
    /// Its own word.
    pub id: &'static str,
    /// What.
    pub what: &'static str,
    /// Due after so many hours, in fresh water; `None` where hours do not count.
    pub hours: Option<f64>,
    /// Due after so many months, in fresh water.
    pub months: f64,
    /// What is done.
    pub does: &'static str,
    /// With what.
    pub tools: &'static str,
    /// Spares carried afloat.
    pub spares: &'static str,
    /// What can be mended afloat.
    pub afloat: &'static str,
    /// Whether what is done afloat is a hard line.
    pub hard: bool,
}

const fn care(
    (id, what): (&'static str, &'static str),
    (hours, months): (Option<f64>, f64),
    (does, tools): (&'static str, &'static str),
    (spares, afloat): (&'static str, &'static str),
) -> Care {
    Care {
        id,
        what,
        hours,
        months,
        does,
        tools,
        spares,
        afloat,
        hard: false,
    }
}

/// All of them.
pub static CARE: [Care; 13] = [
    care(
        ("paddle", "paddle"),
        (Some(100.0), 12.0),
        ("joint, cracks", "cloth"),
        ("a paddle", "splint and tape"),
    ),
    care(
        ("rotary", "rotary pedal drive"),
        (Some(25.0), 3.0),
        ("line off the shaft, pin, nut, play", "keys, punch, pliers"),
        (
            "propeller, 2 pins, floating nut, latch",
            "drive on the lap, leashed: clear it, swap the pin",
        ),
    ),
    care(
        ("rotary-seals", "rotary pedal drive: seals, by its maker"),
        (Some(200.0), 12.0),
        ("seals, by its maker", "none: it stays shut"),
        ("none", "none: paddle home"),
    ),
    care(
        ("fin", "fin pedal drive"),
        (Some(25.0), 3.0),
        ("tension, play of the masts", "keys, spanner"),
        (
            "fin, mast pin, cable, screws",
            "swap the fin; a jam: fold flat and paddle",
        ),
    ),
    care(
        ("fin-cables", "fin pedal drive: cables"),
        (Some(100.0), 12.0),
        ("new cables", "keys, spanner"),
        ("cable", "fold flat and paddle"),
    ),
    Care {
        hard: true,
        ..care(
            ("bow-motor", "bow motor"),
            (Some(25.0), 3.0),
            ("bolts, lift cord, lanyard, propeller", "spanner"),
            ("pin, nut, 2 fuses", "plug out, motor aboard, then hands"),
        )
    },
    Care {
        hard: true,
        ..care(
            ("stern-motor", "stern motor"),
            (Some(25.0), 3.0),
            ("steering, kill cord, plugs, seals", "spanner"),
            (
                "pin, nut, 2 fuses, shackle",
                "plug out, motor aboard, then hands; steer by paddle",
            ),
        )
    },
    care(
        ("rudder", "rudder or skeg"),
        (Some(25.0), 6.0),
        ("lines, crimps, pivot", "keys"),
        ("3 m of line, split rings", "tie it central, or up"),
    ),
    care(
        ("hull", "hull"),
        (Some(50.0), 6.0),
        ("scupper tubes, keel, gaskets, eyes", "torch"),
        ("butyl, rag", "dry it, press butyl on, pump"),
    ),
    care(
        ("battery", "battery"),
        (None, 1.0),
        (
            "lithium half full and cool, no charge below 0 °C; lead full",
            "meter",
        ),
        (
            "fuses",
            "nothing; soaked, hot or swollen: never charge again",
        ),
    ),
    care(
        ("electronics", "electronics"),
        (None, 6.0),
        ("contacts, glands, maps", "grease"),
        ("fuse, cap", "reseat the plug"),
    ),
    care(
        ("seat", "seat"),
        (Some(50.0), 6.0),
        ("webbing, pins, bolts", "driver"),
        ("strap, pin", "lash it"),
    ),
    care(
        ("safety", "safety kit"),
        (None, 12.0),
        (
            "float the aid; an inflatable: weigh the cylinder, date of the head; flares, lights",
            "scale",
        ),
        ("light, whistle", "nothing: go home"),
    ),
];

/// What of it a hull and its rig have.
#[must_use]
pub fn service(facts: &Facts<'_>) -> Vec<&'static Care> {
    let own = facts.drive();
    let layout = facts.layout();
    let motor_ahead = layout.stowed.iter().any(|s| {
        let motor = facts
            .thing(s)
            .is_some_and(|g| g.serves_as(Serves::Motor) == crate::gear::Is::Yes);
        motor && s.x - layout.bow < 0.5 * facts.size().0
    });
    let has = |c: &&Care| match c.id {
        "rotary" | "rotary-seals" => own == Some(Propulsion::RotaryPedal),
        "fin" | "fin-cables" => own == Some(Propulsion::FinPedal),
        "bow-motor" => facts.motor() && motor_ahead,
        "stern-motor" => facts.motor() && !motor_ahead,
        "rudder" => facts.hull().tracks_straight,
        "battery" => facts.battery(),
        "electronics" => facts.electronics(),
        _ => true,
    };
    CARE.iter().filter(has).collect()
}

/// When it is due in the water asked: hours and months, halved in salt.
#[must_use]
pub fn due(care: &Care, density: f64) -> (Option<f64>, f64) {
    /// Water from which it is salt rather than fresh, kg/m³: brackish counts as salt.
    const SALT: f64 = 1005.0;
    let share = if density > SALT { 0.5 } else { 1.0 };
    (care.hours.map(|h| share * h), share * care.months)
}
