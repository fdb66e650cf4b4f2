//! Zones: the space a hull offers, one after the other from bow to stern.

use super::kinds::Source;
use crate::base::{Bounds, Dimension, OutOfRange, words};

words! {
/// Kinds of zones.
pub enum ZoneKind {
    /// The bow's deck.
    #[strum(message = "bow deck")]
    BowDeck,
    /// The hull's inside beneath the bow hatch.
    #[strum(message = "bow hatch")]
    BowHatch,
    /// The hull's inside beneath a hatch between the feet.
    #[strum(message = "centre hatch")]
    CentreHatch,
    /// A box between the knees.
    Console,
    /// The floor one's feet stand on.
    #[strum(message = "cockpit floor")]
    CockpitFloor,
    /// A pocket in the cockpit's side.
    #[strum(message = "side pocket")]
    SidePocket,
    /// Beside the seat.
    #[strum(message = "beside the seat")]
    BesideTheSeat,
    /// Beneath the seat.
    #[strum(message = "under seat bay")]
    UnderSeatBay,
    /// The seat's back; moves with it.
    #[strum(message = "seat back")]
    SeatBack,
    /// The seat's frame; moves with it.
    #[strum(message = "seat frame")]
    SeatFrame,
    /// The open well behind the seat.
    #[strum(message = "tank well")]
    TankWell,
    /// The hull's inside beneath the stern hatch.
    #[strum(message = "stern hatch")]
    SternHatch,
    /// The stern's deck.
    #[strum(message = "stern deck")]
    SternDeck,
    /// A tube for rods within the hull.
    #[strum(message = "rod tube")]
    RodTube,
    /// Hung beneath the deck.
    #[strum(message = "under the deck")]
    UnderTheDeck,
    /// Beneath the hull, in the water.
    #[strum(message = "under the hull")]
    UnderTheHull,
    /// On the drive.
    #[strum(message = "on the drive")]
    OnTheDrive,
    /// On the person.
    #[strum(message = "on the person")]
    OnThePerson,
}

/// How dry a place stays, or how dry a thing must lie: each grade includes
/// those before it.
pub enum Dryness {
    /// Not at all.
    #[strum(message = "stands open")]
    Open,
    /// Shut against rain.
    #[strum(message = "shut against rain")]
    Rain,
    /// Against splash.
    #[strum(message = "dry under splash")]
    Splash,
    /// Against a wave over it.
    #[strum(message = "dry under a wave over it")]
    Wave,
    /// Held under.
    #[strum(message = "dry when held under")]
    HeldUnder,
    /// Stays dry though it is opened afloat.
    #[strum(message = "dry even when opened afloat")]
    OpenedAfloat,
}

/// From where a place can be reached, easiest first.
pub enum Reach {
    /// With one hand, from the seat.
    #[strum(message = "with one hand, seated")]
    OneHanded,
    /// From the seat.
    Seated,
    /// From the seat, turning round.
    Turning,
    /// Standing.
    Standing,
    /// Sitting sideways.
    Sideways,
    /// Ashore only.
    #[strum(message = "ashore only")]
    AshoreOnly,
}
}

/// What passes through into a zone.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Opening {
    /// A round one of a diameter, m.
    Round(f64),
    /// A rectangle: along the hull and across it, m.
    Rectangle(f64, f64),
}

/// One zone. Lengths in m, `x` from the bow, `y` to starboard; what nobody has
/// looked at is `None`.
#[derive(Debug, Clone, PartialEq)]
pub struct Zone {
    /// What the record calls it; its own on this hull.
    pub name: String,
    /// Its kind.
    pub kind: ZoneKind,
    /// Its foremost end.
    pub from: f64,
    /// Its aftmost end.
    pub to: f64,
    /// Usable width.
    pub width: f64,
    /// Its middle's distance to starboard of the centreline.
    pub offset: f64,
    /// Usable height.
    pub height: Option<f64>,
    /// Usable height right beneath the lid.
    pub height_at_lid: Option<f64>,
    /// Its floor above the baseline.
    pub floor: Option<f64>,
    /// What passes; `None` for a zone that stands open or was not measured.
    pub opening: Option<Opening>,
    /// How dry it stays.
    pub dryness: Option<Dryness>,
    /// Where it can be reached from.
    pub reach: Option<Reach>,
    /// Whether a nut can be put on from beneath.
    pub underside_reachable: Option<bool>,
    /// Whether its floor gives a foot hold.
    pub non_slip: Option<bool>,
    /// Whether it is padded.
    pub padded: Option<bool>,
    /// Where these figures come from.
    pub source: Source,
    /// The day they were taken, ISO 8601; empty where not noted.
    pub date: String,
}

impl Zone {
    /// A place of which nothing is known but where it is, m from the bow, and how wide: a
    /// guess, until somebody says otherwise.
    #[must_use]
    pub fn plain(name: &str, kind: ZoneKind, [from, to, width]: [f64; 3]) -> Self {
        Self {
            name: name.to_owned(),
            kind,
            from,
            to,
            width,
            offset: 0.0,
            height: None,
            height_at_lid: None,
            floor: None,
            opening: None,
            dryness: None,
            reach: None,
            underside_reachable: None,
            non_slip: None,
            padded: None,
            source: Source::Guess,
            date: String::new(),
        }
    }

    /// Accepted places along a hull, m.
    pub const PLACE: Bounds = Bounds::new("a zone's end", Dimension::Length, -0.5, 7.5);
    /// Accepted lengths of a zone, m.
    pub const LENGTH: Bounds = Bounds::new("a zone's length", Dimension::Length, 0.02, 7.0);
    /// Accepted widths, m.
    pub const WIDTH: Bounds = Bounds::new("a zone's width", Dimension::ShortLength, 0.02, 1.5);
    /// Accepted offsets, m.
    pub const OFFSET: Bounds = Bounds::new("a zone's offset", Dimension::ShortLength, -0.8, 0.8);
    /// Accepted heights, m.
    pub const HEIGHT: Bounds = Bounds::new("a zone's height", Dimension::ShortLength, 0.01, 2.5);
    /// Accepted heights of a floor above the baseline, m.
    pub const FLOOR: Bounds = Bounds::new("a zone's floor", Dimension::ShortLength, -0.6, 0.9);
    /// Accepted openings, m.
    pub const OPENING: Bounds = Bounds::new("an opening", Dimension::ShortLength, 0.03, 2.5);

    /// Checks every number.
    ///
    /// # Errors
    /// The first [`OutOfRange`] met; also for a zone that ends before it begins.
    pub fn check(self) -> Result<Self, OutOfRange> {
        Self::PLACE.check(self.from)?;
        Self::PLACE.check(self.to)?;
        Self::LENGTH.check(self.to - self.from)?;
        Self::WIDTH.check(self.width)?;
        Self::OFFSET.check(self.offset)?;
        for height in [self.height, self.height_at_lid].into_iter().flatten() {
            Self::HEIGHT.check(height)?;
        }
        if let Some(floor) = self.floor {
            Self::FLOOR.check(floor)?;
        }
        match self.opening {
            Some(Opening::Round(across)) => {
                Self::OPENING.check(across)?;
            }
            Some(Opening::Rectangle(along, across)) => {
                Self::OPENING.check(along)?;
                Self::OPENING.check(across)?;
            }
            None => {}
        }
        Ok(self)
    }
}
