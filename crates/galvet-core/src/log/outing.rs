//! One outing, as it was and as far as somebody noted it.

use crate::base::{Bounds, Dimension, OutOfRange, words};
use crate::hull::{Aboard, Datum, Evidence, Propulsion, Scuppers};
use time::Date;
use time::macros::format_description;

words! {
/// What became of a thing that was to come along.
pub enum Fate {
    /// It was used.
    Used,
    /// It came along and was not used.
    #[strum(message = "not used")]
    Unused,
    /// It stayed ashore.
    #[strum(message = "left ashore")]
    Ashore,
    /// It is gone.
    Lost,
    /// It broke.
    Broke,
    /// It got wet that should not.
    #[strum(message = "got wet")]
    Wet,
}
}

impl Fate {
    /// Whether it was aboard.
    #[must_use]
    pub const fn was_aboard(self) -> bool {
        !matches!(self, Self::Ashore)
    }
}

/// A thing of the rig, and what became of it.
#[derive(Debug, Clone, PartialEq)]
pub struct Carried {
    /// What it is, generic.
    pub item: String,
    /// Its key on the shelf; `None` for free text.
    pub gear: Option<String>,
    /// What became of it; `None` where nobody says. It came along then, and that is all.
    pub fate: Option<Fate>,
}

/// Something that failed.
#[derive(Debug, Clone, PartialEq)]
pub struct Fault {
    /// Which part.
    pub part: String,
    /// Hours into the outing; `None` where nobody says.
    pub hour: Option<f64>,
    /// Why, as far as anybody knows.
    pub cause: String,
    /// The day it was put right; empty while it is not.
    pub mended: String,
}

/// A place of a track: degrees north and east, seconds since its start.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Fix {
    /// Latitude, °.
    pub north: f64,
    /// Longitude, °.
    pub east: f64,
    /// Seconds since the first; `None` where the track has no times.
    pub seconds: Option<f64>,
}

/// Tape held to the water, at up to three places.
#[derive(Debug, Clone, PartialEq)]
pub struct Tape {
    /// From what.
    pub datum: Datum,
    /// Share of the length from the bow, and height over the water, m.
    pub heights: Vec<(f64, f64)>,
}

/// An outing. Distances in m, speeds in m/s, masses in kg; whatever nobody noted is `None`.
#[derive(Debug, Clone, PartialEq)]
pub struct Outing {
    /// Stable key.
    pub key: String,
    /// Whether it is written to its end: one begun at the ramp is finished at home.
    pub done: bool,
    /// The day, ISO 8601.
    pub day: String,
    /// Where, in words.
    pub place: String,
    /// Key of the kind of water.
    pub water: String,
    /// Density of that water, kg/m³.
    pub density: f64,
    /// The hull's key.
    pub hull: String,
    /// How it was set up, in words; empty as it usually is.
    pub version: String,
    /// The rig's key; empty for none.
    pub rig: String,
    /// The question it was planned with, as an address's query.
    pub question: String,
    /// How many went in it.
    pub people: u16,
    /// Wind of the forecast, 10 m up.
    pub forecast: Option<f64>,
    /// Wind met at the boat, and its gusts.
    pub wind: Option<f64>,
    /// Gusts met.
    pub gust: Option<f64>,
    /// Waves met, m.
    pub wave: Option<f64>,
    /// Temperature of the water, °C.
    pub water_temperature: Option<f64>,
    /// Whether the wind turned it back.
    pub turned_back: bool,
    /// Hours on the water.
    pub hours: Option<f64>,
    /// Hours of them by paddle, its own drive, a motor.
    pub by: [Option<f64>; 3],
    /// Distance, m.
    pub distance: Option<f64>,
    /// Minutes from home to fishing.
    pub to_fishing: Option<f64>,
    /// What was aboard besides the hull while it was measured; `None` where nobody weighed
    /// or worked it out.
    pub aboard: Option<Aboard>,
    /// The scuppers meanwhile.
    pub scuppers: Scuppers,
    /// Draft or freeboard read.
    pub tape: Tape,
    /// Speed through the water kept up in calm.
    pub speed: Option<f64>,
    /// By what.
    pub speed_by: Propulsion,
    /// At what effort, W; `None`: what is kept up for hours, by guess.
    pub effort: Option<f64>,
    /// Drift side on in the wind met.
    pub drift: Option<f64>,
    /// From brim-full until the floor was clear, s.
    pub drained: Option<f64>,
    /// Fish kept.
    pub fish: Option<f64>,
    /// Share left in the battery.
    pub battery_left: Option<f64>,
    /// What it cost: fees, fuel, bait.
    pub cost: Option<f64>,
    /// The rig as carried.
    pub carried: Vec<Carried>,
    /// What was missed.
    pub missed: Vec<String>,
    /// What failed.
    pub faults: Vec<Fault>,
    /// What hurt afterwards.
    pub pains: String,
    /// Anything else.
    pub notes: String,
    /// Where it went. Its owner's; never handed on unless asked for.
    pub track: Vec<Fix>,
}

impl Outing {
    /// Accepted hours.
    pub const HOURS: Bounds = Bounds::new("hours", Dimension::Ratio, 0.1, 48.0);
    /// Accepted distances, m.
    pub const DISTANCE: Bounds = Bounds::new("the distance", Dimension::Distance, 10.0, 200_000.0);
    /// Accepted winds and gusts, m/s.
    pub const WIND: Bounds = Bounds::new("the wind", Dimension::Speed, 0.0, 40.0);
    /// Accepted waves, m.
    pub const WAVE: Bounds = Bounds::new("the wave", Dimension::ShortLength, 0.0, 4.0);
    /// Accepted temperatures of the water, °C.
    pub const TEMPERATURE: Bounds =
        Bounds::new("the water's temperature, °C", Dimension::Ratio, -2.0, 40.0);
    /// Accepted minutes to fishing.
    pub const TO_FISHING: Bounds =
        Bounds::new("minutes to fishing", Dimension::Ratio, 1.0, 1_440.0);
    /// Accepted catches, kg.
    pub const FISH: Bounds = Bounds::new("the fish kept", Dimension::Mass, 0.0, 80.0);
    /// Accepted shares left in a battery.
    pub const LEFT: Bounds = Bounds::new("what the battery had left", Dimension::Ratio, 0.0, 1.0);
    /// Accepted costs.
    pub const COST: Bounds = Bounds::new("what it cost", Dimension::Money, 0.0, 10_000.0);
    /// Most marks of a tape.
    pub const MARKS: usize = 3;

    /// An outing of which nothing is known: one in fresh water, alone, with its scuppers open.
    #[must_use]
    pub fn blank() -> Self {
        Self {
            key: String::new(),
            done: false,
            day: String::new(),
            place: String::new(),
            water: String::new(),
            density: Evidence::FRESH,
            hull: String::new(),
            version: String::new(),
            rig: String::new(),
            question: String::new(),
            people: 1,
            forecast: None,
            wind: None,
            gust: None,
            wave: None,
            water_temperature: None,
            turned_back: false,
            hours: None,
            by: [None; 3],
            distance: None,
            to_fishing: None,
            aboard: None,
            scuppers: Scuppers::Open,
            tape: Tape {
                datum: Datum::Gunwale,
                heights: Vec::new(),
            },
            speed: None,
            speed_by: Propulsion::Paddle,
            effort: None,
            drift: None,
            drained: None,
            fish: None,
            battery_left: None,
            cost: None,
            carried: Vec::new(),
            missed: Vec::new(),
            faults: Vec::new(),
            pains: String::new(),
            notes: String::new(),
            track: Vec::new(),
        }
    }

    /// Its day; `None` for text that is none.
    #[must_use]
    pub fn date(&self) -> Option<Date> {
        date(&self.day)
    }

    /// Everything that was aboard, said to be or not said.
    pub fn aboard_things(&self) -> impl Iterator<Item = &Carried> {
        self.carried
            .iter()
            .filter(|c| c.fate.is_none_or(Fate::was_aboard))
    }

    /// Hours by one of paddle, drive, motor: as noted, or the outing's where it knows no
    /// split and `alone` moves it.
    #[must_use]
    pub fn hours_by(&self, which: usize, alone: bool) -> Option<f64> {
        match self.by {
            [None, None, None] if alone => self.hours,
            [None, None, None] => None,
            // Of a split somebody began to note, what is not in it was none.
            by => Some(by[which].unwrap_or(0.0)),
        }
    }

    /// Checks every number.
    ///
    /// # Errors
    /// The first [`OutOfRange`] met.
    pub fn check(&self) -> Result<(), OutOfRange> {
        let some = |bounds: Bounds, value: Option<f64>| match value {
            Some(value) => bounds.check(value).map(|_| ()),
            None => Ok(()),
        };
        Evidence::DENSITY.check(self.density)?;
        for wind in [self.forecast, self.wind, self.gust] {
            some(Self::WIND, wind)?;
        }
        some(Self::WAVE, self.wave)?;
        some(Self::TEMPERATURE, self.water_temperature)?;
        some(Self::HOURS, self.hours)?;
        // Of three ways to go one may be none.
        let part = Bounds::new("hours by one of them", Dimension::Ratio, 0.0, 48.0);
        for hours in self.by {
            some(part, hours)?;
        }
        some(Self::DISTANCE, self.distance)?;
        some(Self::TO_FISHING, self.to_fishing)?;
        some(Self::FISH, self.fish)?;
        some(Self::LEFT, self.battery_left)?;
        some(Self::COST, self.cost)?;
        if let Some(aboard) = self.aboard {
            Evidence::MASS.check(aboard.mass)?;
            Evidence::PLACE.check(aboard.place)?;
            Evidence::HEIGHT.check(aboard.height)?;
        }
        for &(place, height) in &self.tape.heights {
            Evidence::PLACE.check(place)?;
            Evidence::HEIGHT.check(height)?;
        }
        some(Evidence::SPEED, self.speed)?;
        some(Evidence::SPEED, self.drift)?;
        some(Evidence::WATTS, self.effort)?;
        some(Evidence::DRAIN, self.drained)?;
        for fault in &self.faults {
            some(Self::HOURS, fault.hour.filter(|h| *h > 0.0))?;
        }
        for fix in &self.track {
            Bounds::new("a latitude", Dimension::Angle, -90.0, 90.0).check(fix.north)?;
            Bounds::new("a longitude", Dimension::Angle, -180.0, 180.0).check(fix.east)?;
            some(
                Bounds::new("a time of a track, s", Dimension::Time, 0.0, 1e7),
                fix.seconds,
            )?;
        }
        Ok(())
    }
}

/// A day out of its text.
pub(super) fn date(text: &str) -> Option<Date> {
    Date::parse(text, format_description!("[year]-[month]-[day]")).ok()
}
