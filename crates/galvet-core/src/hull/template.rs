//! The space of a hull nobody has walked yet: a template by construction, scaled
//! to length and beam, every zone of it a guess.
//!
//! Guide values (handbook, chapter 3), good to about 15 %: what does not fit a
//! guessed zone may not fit, and is a thing to measure.

use super::fitting::{Facing, Fitting, FittingKind};
use super::kinds::{Construction, Source};
use super::measure::Measure;
use super::survey::Survey;
use super::zone::{Dryness, Opening, Reach, Zone, ZoneKind};

/// Sizes across: of the beam, or in metres.
#[derive(Clone, Copy)]
enum Across {
    Share(f64),
    Metres(f64),
}

/// Usable height, m.
#[derive(Clone, Copy)]
enum Height {
    Of(f64),
    /// The seat's height over the floor less two centimetres.
    UnderTheSeat,
    /// Open above, or not to be said.
    Open,
}

/// A zone of the template: ends as shares of the length.
struct Row {
    name: &'static str,
    kind: ZoneKind,
    from: f64,
    to: f64,
    width: Across,
    /// Side: −1 port, 0 middle, +1 starboard.
    side: f64,
    height: Height,
    opening: Option<Opening>,
    dryness: Dryness,
    reach: Reach,
}

macro_rules! rows {
    ($($name:literal $kind:ident $from:literal..$to:literal, $width:expr, $side:literal, $height:expr, $opening:expr, $dryness:ident, $reach:ident;)*) => {
        &[$(Row {
            name: $name,
            kind: ZoneKind::$kind,
            from: $from,
            to: $to,
            width: $width,
            side: $side,
            height: $height,
            opening: $opening,
            dryness: Dryness::$dryness,
            reach: Reach::$reach,
        },)*]
    };
}

use Across::{Metres, Share};
use Height::{Of, Open as OpenAbove, UnderTheSeat};
use Opening::{Rectangle, Round};

const SIT_ON_TOP: &[Row] = rows! {
    "bow deck" BowDeck 0.02..0.09, Share(0.14), 0.0, OpenAbove, None, Open, AshoreOnly;
    "bow hatch" BowHatch 0.08..0.20, Share(0.36), 0.0, Of(0.22), Some(Rectangle(0.40, 0.26)), Splash, AshoreOnly;
    "cockpit floor" CockpitFloor 0.30..0.50, Share(0.48), 0.0, OpenAbove, None, Open, Seated;
    "centre console" Console 0.37..0.42, Metres(0.15), 0.0, Of(0.15), Some(Rectangle(0.26, 0.13)), Splash, Seated;
    "port pocket" SidePocket 0.48..0.56, Metres(0.06), -1.0, Of(0.08), None, Open, OneHanded;
    "starboard pocket" SidePocket 0.48..0.56, Metres(0.06), 1.0, Of(0.08), None, Open, OneHanded;
    "under the seat" UnderSeatBay 0.49..0.57, Share(0.45), 0.0, UnderTheSeat, None, Open, Turning;
    "tank well" TankWell 0.63..0.87, Share(0.46), 0.0, OpenAbove, None, Open, Turning;
    "stern hatch" SternHatch 0.90..0.95, Share(0.24), 0.0, Of(0.20), Some(Round(0.15)), Splash, AshoreOnly;
};

const SIT_INSIDE: &[Row] = rows! {
    "bow space" BowHatch 0.05..0.28, Share(0.45), 0.0, Of(0.22), Some(Round(0.15)), Splash, AshoreOnly;
    "cockpit floor" CockpitFloor 0.30..0.66, Share(0.60), 0.0, OpenAbove, None, Open, Seated;
    "behind the seat" BesideTheSeat 0.55..0.63, Share(0.50), 0.0, Of(0.25), None, Open, Turning;
    "stern hatch" SternHatch 0.72..0.80, Share(0.50), 0.0, Of(0.24), Some(Round(0.24)), Wave, AshoreOnly;
    "stern deck" SternDeck 0.68..0.90, Share(0.55), 0.0, OpenAbove, None, Open, Turning;
};

const BOARD: &[Row] = rows! {
    "front deck" BowDeck 0.08..0.33, Share(0.60), 0.0, OpenAbove, None, Open, Standing;
    "standing pad" CockpitFloor 0.33..0.60, Share(0.75), 0.0, OpenAbove, None, Open, Seated;
    "rear deck" SternDeck 0.62..0.92, Share(0.60), 0.0, OpenAbove, None, Open, Turning;
};

/// Hulls shorter than this have a small round bow hatch and no tracks, m.
const SMALL: f64 = 3.2;

/// The template's zones for a hull, bow to stern; `None` where length or beam
/// is not known.
#[must_use]
pub fn template(survey: &Survey) -> Option<Vec<Zone>> {
    let (length, beam) = (survey.value(Measure::Length)?, survey.value(Measure::Beam)?);
    let rows = match survey.construction {
        Construction::SitOnTop => SIT_ON_TOP,
        Construction::SitInside => SIT_INSIDE,
        Construction::Board => BOARD,
    };
    let seat = survey.seat_height(false);
    let zone = |row: &Row| {
        let width = match row.width {
            Share(share) => share * beam,
            Metres(m) => m,
        };
        let small = row.kind == ZoneKind::BowHatch && length < SMALL;
        Zone {
            // Pockets lie along the sides, inside the gunwale.
            offset: row.side * (0.40 * beam - 0.5 * width),
            height: match row.height {
                Of(m) => Some(m),
                UnderTheSeat => seat.map(|s| s - 0.02).filter(|h| *h > 0.01),
                OpenAbove => None,
            },
            opening: if small {
                row.opening.map(|_| Round(0.20))
            } else {
                let long = (row.to - row.from) * length;
                row.opening.map(|o| within(o, long, width))
            },
            dryness: Some(row.dryness),
            reach: Some(row.reach),
            ..Zone::plain(
                row.name,
                row.kind,
                [row.from * length, row.to * length, width],
            )
        }
    };
    Some(rows.iter().map(zone).collect())
}

/// An opening no larger than the place it is in: on a short hull the template's
/// console is shorter than its lid.
fn within(opening: Opening, length: f64, width: f64) -> Opening {
    match opening {
        Round(across) => Round(across.min(length).min(width)),
        Rectangle(along, across) => Rectangle(along.min(length), across.min(width)),
    }
}

/// A hull's zones, bow to stern: those on the record as it stands, and of the
/// template those of which the record has none of their name or kind and side and
/// does not say that it has none.
#[must_use]
pub fn zones(survey: &Survey) -> Vec<Zone> {
    let (delivered, known) = (&survey.fitout.zones, survey.fitout.zones_now());
    let absent = &survey.looked.absent;
    // A finger off the middle is still the middle.
    let side = |zone: &Zone| match zone.offset {
        o if o > 0.02 => 1,
        o if o < -0.02 => -1,
        _ => 0,
    };
    let same = |guess: &Zone, real: &Zone| {
        real.name == guess.name || (real.kind == guess.kind && side(real) == side(guess))
    };
    let guesses = template(survey).unwrap_or_default();
    let missing = guesses
        .into_iter()
        // What was there at delivery and has been taken out is no guess again.
        .filter(|guess| {
            let mut real = delivered.iter().chain(&known);
            !absent.contains(&guess.name) && !real.any(|real| same(guess, real))
        });
    let mut all: Vec<Zone> = missing.chain(known.iter().cloned()).collect();
    all.sort_by(|a, b| {
        a.from
            .total_cmp(&b.from)
            .then(a.offset.total_cmp(&b.offset))
    });
    all
}

/// The fittings of the record as it stands; of a hull of whose delivery none is on
/// record, those usual on one of its construction, `length` and `beam` m, and what was
/// changed since: and whether they are such guesses. What a change adds is none: see
/// [`Fitout::adds`](super::Fitout::adds).
#[must_use]
pub fn fittings(survey: &Survey, [length, beam]: [f64; 2]) -> (Vec<Fitting>, bool) {
    let known = survey.fitout.fittings_now();
    if !survey.fitout.fittings.is_empty() {
        return (known, false);
    }
    let guess = |name: String, kind, x: f64, y: f64| Fitting {
        name,
        kind,
        x,
        y,
        z: None,
        mount: String::new(),
        source: Source::Guess,
    };
    // Which, its middle as a share of the length, how long.
    let tracks: &[(&str, f64, f64)] = match survey.construction {
        Construction::SitOnTop if length >= SMALL => &[("fore", 0.415, 0.40), ("aft", 0.62, 0.30)],
        Construction::Board => &[("fore", 0.40, 0.30)],
        Construction::SitOnTop | Construction::SitInside => &[],
    };
    let mut all = Vec::new();
    for (side, y) in [("port", -0.43 * beam), ("starboard", 0.43 * beam)] {
        for (which, place, long) in tracks {
            let kind = FittingKind::Track {
                length: *long,
                slot: None,
            };
            all.push(guess(
                format!("{side} {which} track"),
                kind,
                place * length,
                y,
            ));
        }
        if survey.construction == Construction::SitOnTop {
            let kind = FittingKind::RodHolder {
                flush: true,
                angle: None,
                facing: Facing::Aft,
                reversible: false,
            };
            all.push(guess(
                format!("{side} holder"),
                kind,
                0.60 * length,
                0.9 * y,
            ));
        }
    }
    // A change of a hull takes nothing away that it does not name.
    let removed = |f: &Fitting| survey.fitout.done().any(|m| m.removes.contains(&f.name));
    all.retain(|guess| !removed(guess) && !known.iter().any(|k| k.name == guess.name));
    all.extend(known);
    (all, true)
}
