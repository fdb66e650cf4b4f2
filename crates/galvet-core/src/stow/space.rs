//! The space a hull offers as it is set up, with who is in it: areas to lay
//! things in, rails and sockets to fix them to, what is kept free.
//!
//! Heights count from the cockpit floor (a board's deck), like every height of a
//! load; `x` from the bow, `y` to starboard, m.

use crate::crew::{Hand, Posture};
use crate::guide::{Guide, Guides};
use crate::hull::{
    Construction, Dryness, Fitting, FittingKind, Measure, Opening, Propulsion, Reach, Source,
    Survey, Zone, ZoneKind, fittings, zones,
};

/// Who is in it and how, as far as space goes.
#[derive(Debug, Clone, PartialEq)]
pub struct Aboard {
    /// How they fish.
    pub posture: Posture,
    /// How tall they are, m.
    pub stature: f64,
    /// The hand that casts and lands.
    pub hand: Hand,
    /// Others in seats: the seat's place from the bow and their stature, m.
    pub others: Vec<[f64; 2]>,
}

/// A part of its side that is better left clear of what stands up: not kept free,
/// but anything that finds as good a place elsewhere goes there.
#[derive(Debug, Clone, PartialEq)]
pub struct Reserve {
    /// Foremost, m from the bow.
    pub from: f64,
    /// Aftmost.
    pub to: f64,
    /// Which side: +1 to starboard.
    pub side: f64,
    /// What for.
    pub why: &'static str,
}

impl Reserve {
    /// Whether a point of its plan lies in it.
    #[must_use]
    pub fn holds(&self, x: f64, y: f64) -> bool {
        (self.from..=self.to).contains(&x) && y * self.side > 0.05
    }
}

/// A rectangle of the hull's plan that is kept free, m.
#[derive(Debug, Clone, PartialEq)]
pub struct KeepOut {
    /// Foremost.
    pub from: f64,
    /// Aftmost.
    pub to: f64,
    /// Its side to port.
    pub port: f64,
    /// Its side to starboard.
    pub starboard: f64,
    /// What for.
    pub why: &'static str,
}

/// A floor to lay things on.
#[derive(Debug, Clone, PartialEq)]
pub struct Area {
    /// What the record calls it.
    pub name: String,
    /// Its kind.
    pub kind: ZoneKind,
    /// Its foremost end.
    pub from: f64,
    /// Its aftmost end.
    pub to: f64,
    /// Its side to port.
    pub port: f64,
    /// Its side to starboard.
    pub starboard: f64,
    /// Its floor.
    pub floor: f64,
    /// Usable height; `None` where it stands open or nobody measured it.
    pub height: Option<f64>,
    /// What passes into it.
    pub opening: Option<Opening>,
    /// Whether it is shut in: a hatch, a console.
    pub enclosed: bool,
    /// Whether walls keep loose things in it.
    pub walled: bool,
    /// Whether there is something to strap to: on a deck or in a well on which
    /// nobody noted an eye, that is not known.
    pub straps: Option<bool>,
    /// Whether something may be bolted to it.
    pub drills: bool,
    /// How dry it stays.
    pub dryness: Option<Dryness>,
    /// From where the record says it is reached.
    pub reach: Option<Reach>,
    /// Whether a nut can be put on from beneath.
    pub underside: Option<bool>,
    /// Whether nobody measured it.
    pub guessed: bool,
    /// How much longer and wider a guessed one may turn out, m: away from the seat
    /// and to starboard, no further than half way to what lies there.
    pub slack: [f64; 2],
    /// What is kept free of it.
    pub kept: Vec<KeepOut>,
}

impl Area {
    /// Length, m.
    #[must_use]
    pub fn length(&self) -> f64 {
        self.to - self.from
    }

    /// Width, m.
    #[must_use]
    pub fn width(&self) -> f64 {
        self.starboard - self.port
    }

    /// Its top: where it is open above, as high as anything that is carried.
    pub(super) fn top(&self) -> f64 {
        self.floor + self.height.unwrap_or(2.0)
    }

    pub(super) fn meets(&self, other: &Self) -> bool {
        self.from < other.to
            && other.from < self.to
            && self.port < other.starboard
            && other.port < self.starboard
            && self.floor < other.top()
            && other.floor < self.top()
    }

    pub(super) fn plan(&self) -> f64 {
        self.length() * self.width()
    }

    pub(super) fn keep(&mut self, out: KeepOut) {
        let inside = out.from < self.to
            && out.to > self.from
            && out.port < self.starboard
            && out.starboard > self.port;
        if inside {
            self.kept.push(out);
        }
    }
}

/// A rail one can fix things along: a track, or the side itself, to strap to.
#[derive(Debug, Clone, PartialEq)]
pub struct Rail {
    /// What the record calls it.
    pub name: String,
    /// Its foremost end.
    pub from: f64,
    /// Its aftmost end.
    pub to: f64,
    /// Across.
    pub y: f64,
    /// Its height.
    pub z: f64,
    /// The interface it offers; empty where not known.
    pub mount: String,
    /// Whether it is a track; else the side, for what is long and thin.
    pub track: bool,
    /// Whether nobody measured it.
    pub guessed: bool,
}

impl Rail {
    /// The middle of what stands on a track, `across` m wide, on a hull of a beam:
    /// over the rail, or as far inboard as keeps it within the side.
    pub(super) fn middle(&self, across: f64, beam: f64) -> f64 {
        if !self.track {
            return self.y;
        }
        let most = (0.5 * (beam - across)).max(0.0);
        self.y.clamp(-most, most)
    }
}

/// What a socket is.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum SocketKind {
    /// A rod holder or a tube: `across` m where it is known.
    Holder {
        /// How wide a butt it takes.
        across: Option<f64>,
        /// Its angle above the level, °.
        angle: f64,
    },
    /// A cup holder.
    Cup,
    /// Threaded inserts.
    Insert,
    /// A plate that can be exchanged.
    Plate,
    /// A recess or scupper for a transducer: length and width.
    Recess(f64, f64),
}

/// One place that takes one thing.
#[derive(Debug, Clone, PartialEq)]
pub struct Socket {
    /// What the record calls it.
    pub name: String,
    /// What it is.
    pub kind: SocketKind,
    /// Along.
    pub x: f64,
    /// Across.
    pub y: f64,
    /// Its height.
    pub z: f64,
    /// The interface it offers; empty where not known.
    pub mount: String,
    /// Whether nobody measured it.
    pub guessed: bool,
}

/// Everything a hull offers.
#[derive(Debug, Clone, PartialEq)]
pub struct Space {
    /// Floors, bow to stern.
    pub areas: Vec<Area>,
    /// Rails.
    pub rails: Vec<Rail>,
    /// Sockets.
    pub sockets: Vec<Socket>,
    /// The seat's place.
    pub seat: f64,
    /// The feet's place when seated.
    pub feet: f64,
    /// The gunwale.
    pub gunwale: f64,
    /// The cockpit floor above the baseline.
    pub floor_height: f64,
    /// Length and beam.
    pub size: [f64; 2],
    /// Who is aboard.
    pub aboard: Aboard,
    /// How it is driven.
    pub propulsion: Propulsion,
    /// The standing floor: its area in m², where it has one.
    pub standing_floor: Option<f64>,
    /// Whether no fitting of its is on record: what one might be is not known.
    pub unfitted: bool,
    /// Parts of its sides better left clear.
    pub reserves: Vec<Reserve>,
}

/// Usual angle of a holder nobody measured, °.
const USUAL_ANGLE: f64 = 60.0;
/// How far beyond an area's ends a strap's eye may lie, m.
const STRAP_REACH: f64 = 0.15;

impl Space {
    /// What a hull of `length` and `beam` m offers.
    #[must_use]
    pub fn of(survey: &Survey, aboard: Aboard, [length, beam]: [f64; 2], guides: &Guides) -> Self {
        let board = survey.construction == Construction::Board;
        let depth = survey
            .value(Measure::Depth)
            .unwrap_or(match survey.construction {
                Construction::SitOnTop => guides[Guide::DepthSitOnTop],
                Construction::SitInside => guides[Guide::DepthSitInside],
                Construction::Board => guides[Guide::DepthBoard],
            });
        let floor_height = match survey.value(Measure::FloorHeight) {
            Some(measured) => measured,
            None if board => guides[Guide::FloorBoard],
            None if survey.construction == Construction::SitInside => guides[Guide::FloorSitInside],
            None => guides[Guide::FloorSitOnTop],
        };
        let seat = survey
            .value(Measure::SeatPlace)
            .unwrap_or(guides[Guide::SeatPlace])
            * length;
        let (fittings, guessed) = fittings(survey, [length, beam]);
        let braces = fittings
            .iter()
            .find(|f| matches!(f.kind, FittingKind::FootBraces { .. }));
        let leg = guides[Guide::InsideLeg] * aboard.stature;
        let mut space = Self {
            areas: Vec::new(),
            rails: Vec::new(),
            sockets: Vec::new(),
            seat,
            feet: braces.map_or(seat - leg, |f| f.x),
            gunwale: (depth - floor_height).max(0.0),
            floor_height,
            size: [length, beam],
            aboard,
            propulsion: survey.propulsion,
            unfitted: survey.fitout.fittings.is_empty(),
            standing_floor: None,
            reserves: Vec::new(),
        };
        for fitting in &fittings {
            space.put(fitting, guessed && !survey.fitout.adds(&fitting.name));
        }
        space.sides(board);
        for zone in zones(survey) {
            space.lay(&zone, &fittings, guides);
        }
        space.keep_free(guides[Guide::InsideLeg]);
        space.reserve(survey, guides);
        space.allow(guides[Guide::GuessedSlack]);
        space
    }

    /// Puts a fitting among rails or sockets.
    fn put(&mut self, fitting: &Fitting, guessed: bool) {
        let z = fitting.z.map_or(self.gunwale, |z| z - self.floor_height);
        let kind = match fitting.kind {
            FittingKind::Track { length, .. } => {
                self.rails.push(Rail {
                    name: fitting.name.clone(),
                    from: fitting.x - 0.5 * length,
                    to: fitting.x + 0.5 * length,
                    y: fitting.y,
                    z,
                    mount: fitting.mount.clone(),
                    track: true,
                    guessed,
                });
                return;
            }
            FittingKind::RodHolder { angle, .. } => SocketKind::Holder {
                across: None,
                angle: angle.unwrap_or(USUAL_ANGLE),
            },
            FittingKind::Tube { diameter, .. } => SocketKind::Holder {
                across: Some(diameter),
                angle: 0.0,
            },
            FittingKind::CupHolder { .. } => SocketKind::Cup,
            FittingKind::Insert => SocketKind::Insert,
            FittingKind::Plate => SocketKind::Plate,
            FittingKind::TransducerRecess { length, width } => SocketKind::Recess(length, width),
            _ => return,
        };
        let z = if let SocketKind::Recess(..) = kind {
            -self.floor_height
        } else {
            z
        };
        self.sockets.push(Socket {
            name: fitting.name.clone(),
            kind,
            x: fitting.x,
            y: fitting.y,
            z,
            mount: fitting.mount.clone(),
            guessed,
        });
    }

    /// The two sides, along which what is long and thin is strapped.
    fn sides(&mut self, board: bool) {
        let [length, beam] = self.size;
        for (name, side) in [("the port side", -1.0), ("the starboard side", 1.0)] {
            self.rails.push(Rail {
                name: name.to_owned(),
                from: 0.12 * length,
                to: 0.90 * length,
                y: side * 0.5 * beam,
                z: if board { 0.0 } else { self.gunwale },
                mount: String::new(),
                track: false,
                guessed: true,
            });
        }
    }

    /// Lays a zone out as an area, where things are laid in it.
    fn lay(&mut self, zone: &Zone, fittings: &[Fitting], guides: &Guides) {
        use ZoneKind as Z;
        let deck = self.gunwale;
        let inside = guides[Guide::InsideFloor] - self.floor_height;
        let (floor, enclosed, walled) = match zone.kind {
            Z::BowDeck | Z::SternDeck => (deck, false, false),
            Z::BowHatch | Z::SternHatch | Z::CentreHatch => (inside, true, true),
            Z::Console => (0.0, true, true),
            Z::CockpitFloor => (0.0, false, false),
            Z::SidePocket => (guides[Guide::PocketFloor], false, true),
            Z::UnderSeatBay => (0.0, false, true),
            Z::BesideTheSeat => (0.0, false, false),
            Z::TankWell => (guides[Guide::WellFloor], false, true),
            Z::UnderTheDeck => (inside, false, false),
            // Tubes are sockets; what moves with the seat, hangs on the drive or
            // lies in the water is no floor.
            Z::SeatBack
            | Z::SeatFrame
            | Z::RodTube
            | Z::UnderTheHull
            | Z::OnTheDrive
            | Z::OnThePerson => return,
        };
        let floor = zone.floor.map_or(floor, |z| z - self.floor_height);
        if zone.kind == Z::CockpitFloor && zone.non_slip != Some(false) {
            let plan = (zone.to - zone.from) * zone.width;
            self.standing_floor = Some(self.standing_floor.unwrap_or(0.0) + plan);
        }
        let near = |f: &&Fitting| {
            (zone.from - STRAP_REACH..=zone.to + STRAP_REACH).contains(&f.x)
                && matches!(
                    f.kind,
                    FittingKind::Bungee { .. } | FittingKind::PadEye | FittingKind::DRing
                )
        };
        let open_deck = matches!(zone.kind, Z::TankWell | Z::BowDeck | Z::SternDeck);
        let clear = floor + self.floor_height >= guides[Guide::DrillClear];
        self.areas.push(Area {
            name: zone.name.clone(),
            kind: zone.kind,
            from: zone.from,
            to: zone.to,
            port: zone.offset - 0.5 * zone.width,
            starboard: zone.offset + 0.5 * zone.width,
            floor,
            height: match (zone.height, zone.height_at_lid) {
                (Some(a), Some(b)) => Some(a.min(b)),
                (a, b) => a.or(b),
            },
            opening: zone.opening,
            enclosed,
            walled,
            straps: match fittings.iter().any(|f| near(&f)) {
                true => Some(true),
                false if enclosed => Some(true),
                false if open_deck => None,
                false => Some(false),
            },
            drills: open_deck && clear,
            dryness: zone.dryness,
            reach: zone.reach,
            underside: zone.underside_reachable,
            guessed: zone.source == Source::Guess,
            slack: [0.0; 2],
            kept: Vec::new(),
        });
    }
}
