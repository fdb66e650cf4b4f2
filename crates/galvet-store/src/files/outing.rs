//! An outing of the log as a document. Lengths in m, masses in kg, speeds in m/s, hours.

use super::sheet::Sheet;
use super::{check_key, keyed};
use galvet_core::base::day;
use galvet_core::hull::{Aboard, Datum, Evidence, Propulsion, Scuppers};
use galvet_core::log::{Carried, Fate, Fault, Fix, Outing, Tape};
use serde::{Deserialize, Serialize};

/// An outing.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct OutingEntry {
    /// Stable key.
    pub key: String,
    /// What it is called: its place and day where nobody called it anything.
    pub name: String,
    /// Word of the phone it was begun on, so that what is sent twice is kept once.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub once: String,
    /// Whether it is written to its end.
    #[serde(default)]
    pub done: bool,
    /// Whose it was: a customer's name; empty for one's own.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub who: String,
    /// ISO 8601.
    pub day: String,
    #[serde(default, skip_serializing_if = "String::is_empty")]
    place: String,
    #[serde(default, skip_serializing_if = "String::is_empty")]
    water: String,
    #[serde(default = "fresh")]
    density_kg_m3: f64,
    /// The hull's key.
    pub hull: String,
    #[serde(default, skip_serializing_if = "String::is_empty")]
    version: String,
    #[serde(default, skip_serializing_if = "String::is_empty")]
    rig: String,
    #[serde(default, skip_serializing_if = "String::is_empty")]
    question: String,
    #[serde(default = "one")]
    people: u16,
    #[serde(flatten)]
    met: Met,
    #[serde(flatten)]
    went: Went,
    #[serde(flatten)]
    read: ReadEntry,
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    carried: Vec<CarriedEntry>,
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    missed: Vec<String>,
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    faults: Vec<FaultEntry>,
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pains: String,
    #[serde(default, skip_serializing_if = "String::is_empty")]
    notes: String,
    /// Degrees north and east, seconds.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    track: Vec<(f64, f64, Option<f64>)>,
}

macro_rules! figures {
    ($(#[$meta:meta])* $name:ident { $($field:ident),* $(,)? }) => {
        $(#[$meta])*
        #[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize)]
        struct $name {
            $(#[serde(default, skip_serializing_if = "Option::is_none")]
            $field: Option<f64>,)*
        }
    };
}

figures! {
    /// Weather foretold and met.
    Met { forecast_mps, wind_mps, gust_mps, wave_m, water_c }
}
figures! {
    /// How it went.
    Went {
        hours, paddled_h, driven_h, motored_h, distance_m, to_fishing_min, fish_kg,
        battery_left, cost,
    }
}

/// What was measured.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
struct ReadEntry {
    #[serde(default)]
    turned_back: bool,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    aboard_kg: Option<f64>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    aboard_place: Option<f64>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    aboard_height_m: Option<f64>,
    #[serde(with = "keyed::one", default = "open")]
    scuppers: Scuppers,
    #[serde(with = "keyed::one", default = "gunwale")]
    tape_at: Datum,
    /// Share of the length, m over the water.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    tape: Vec<(f64, f64)>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    speed_mps: Option<f64>,
    #[serde(with = "keyed::one", default = "paddle")]
    speed_by: Propulsion,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    effort_w: Option<f64>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    drift_mps: Option<f64>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    drained_s: Option<f64>,
}

#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct CarriedEntry {
    item: String,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    gear: Option<String>,
    #[serde(
        with = "keyed::maybe",
        default,
        skip_serializing_if = "Option::is_none"
    )]
    fate: Option<Fate>,
}

#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct FaultEntry {
    part: String,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    hour: Option<f64>,
    #[serde(default, skip_serializing_if = "String::is_empty")]
    cause: String,
    #[serde(default, skip_serializing_if = "String::is_empty")]
    mended: String,
}

const fn fresh() -> f64 {
    Evidence::FRESH
}

const fn one() -> u16 {
    1
}

const fn open() -> Scuppers {
    Scuppers::Open
}

const fn gunwale() -> Datum {
    Datum::Gunwale
}

const fn paddle() -> Propulsion {
    Propulsion::Paddle
}

impl OutingEntry {
    /// Most things carried, faults, missed things.
    pub const MOST: usize = 300;
    /// Most places of a track.
    pub const TRACK: usize = 5_000;
    /// Longest line, characters.
    pub const LINE: usize = 300;
    /// Longest notes, characters.
    pub const NOTES: usize = 8_000;

    /// The document of an outing that is called something.
    #[must_use]
    pub fn of(o: &Outing, name: &str, (once, who): (&str, &str)) -> Self {
        Self {
            key: o.key.clone(),
            name: name.to_owned(),
            once: once.to_owned(),
            who: who.to_owned(),
            done: o.done,
            day: o.day.clone(),
            place: o.place.clone(),
            water: o.water.clone(),
            density_kg_m3: o.density,
            hull: o.hull.clone(),
            version: o.version.clone(),
            rig: o.rig.clone(),
            question: o.question.clone(),
            people: o.people,
            met: Met {
                forecast_mps: o.forecast,
                wind_mps: o.wind,
                gust_mps: o.gust,
                wave_m: o.wave,
                water_c: o.water_temperature,
            },
            went: Went {
                hours: o.hours,
                paddled_h: o.by[0],
                driven_h: o.by[1],
                motored_h: o.by[2],
                distance_m: o.distance,
                to_fishing_min: o.to_fishing,
                fish_kg: o.fish,
                battery_left: o.battery_left,
                cost: o.cost,
            },
            read: ReadEntry {
                turned_back: o.turned_back,
                aboard_kg: o.aboard.map(|a| a.mass),
                aboard_place: o.aboard.map(|a| a.place),
                aboard_height_m: o.aboard.map(|a| a.height),
                scuppers: o.scuppers,
                tape_at: o.tape.datum,
                tape: o.tape.heights.clone(),
                speed_mps: o.speed,
                speed_by: o.speed_by,
                effort_w: o.effort,
                drift_mps: o.drift,
                drained_s: o.drained,
            },
            carried: o.carried.iter().map(CarriedEntry::of).collect(),
            missed: o.missed.clone(),
            faults: o.faults.iter().map(FaultEntry::of).collect(),
            pains: o.pains.clone(),
            notes: o.notes.clone(),
            track: o
                .track
                .iter()
                .map(|f| (f.north, f.east, f.seconds))
                .collect(),
        }
    }

    /// The outing of a document.
    #[must_use]
    pub fn outing(self) -> Outing {
        let (met, went, read) = (self.met, self.went, self.read);
        let aboard = read
            .aboard_kg
            .zip(read.aboard_place)
            .zip(read.aboard_height_m);
        Outing {
            key: self.key,
            done: self.done,
            day: self.day,
            place: self.place,
            water: self.water,
            density: self.density_kg_m3,
            hull: self.hull,
            version: self.version,
            rig: self.rig,
            question: self.question,
            people: self.people,
            forecast: met.forecast_mps,
            wind: met.wind_mps,
            gust: met.gust_mps,
            wave: met.wave_m,
            water_temperature: met.water_c,
            turned_back: read.turned_back,
            hours: went.hours,
            by: [went.paddled_h, went.driven_h, went.motored_h],
            distance: went.distance_m,
            to_fishing: went.to_fishing_min,
            aboard: aboard.map(|((mass, place), height)| Aboard {
                mass,
                place,
                height,
            }),
            scuppers: read.scuppers,
            tape: Tape {
                datum: read.tape_at,
                heights: read.tape,
            },
            speed: read.speed_mps,
            speed_by: read.speed_by,
            effort: read.effort_w,
            drift: read.drift_mps,
            drained: read.drained_s,
            fish: went.fish_kg,
            battery_left: went.battery_left,
            cost: went.cost,
            carried: self
                .carried
                .into_iter()
                .map(CarriedEntry::carried)
                .collect(),
            missed: self.missed,
            faults: self.faults.into_iter().map(FaultEntry::fault).collect(),
            pains: self.pains,
            notes: self.notes,
            track: self
                .track
                .into_iter()
                .map(|(north, east, seconds)| Fix {
                    north,
                    east,
                    seconds,
                })
                .collect(),
        }
    }

    /// Whether it has a track.
    #[must_use]
    pub fn has_track(&self) -> bool {
        !self.track.is_empty()
    }
}

impl CarriedEntry {
    fn of(c: &Carried) -> Self {
        Self {
            item: c.item.clone(),
            gear: c.gear.clone(),
            fate: c.fate,
        }
    }

    fn carried(self) -> Carried {
        Carried {
            item: self.item,
            gear: self.gear,
            fate: self.fate,
        }
    }
}

impl FaultEntry {
    fn of(f: &Fault) -> Self {
        Self {
            part: f.part.clone(),
            hour: f.hour,
            cause: f.cause.clone(),
            mended: f.mended.clone(),
        }
    }

    fn fault(self) -> Fault {
        Fault {
            part: self.part,
            hour: self.hour,
            cause: self.cause,
            mended: self.mended,
        }
    }
}

impl Sheet for OutingEntry {
    const KEY: &'static str = "outing";
    const PLURAL: &'static str = "outings";
    const PRIVATE: &'static [&'static str] = &["track", "who"];

    fn slug(&self) -> &str {
        &self.key
    }

    fn name(&self) -> &str {
        &self.name
    }

    fn check(&self) -> Result<(), String> {
        check_key(&self.hull)?;
        day(&self.day).map_err(|odd| odd.to_string())?;
        let numbers = [
            self.read.aboard_kg,
            self.read.aboard_place,
            self.read.aboard_height_m,
        ];
        let some = numbers.iter().flatten().count();
        if some != 0 && some != numbers.len() {
            return Err("what was aboard has a mass, a place and a height, or none".to_owned());
        }
        self.clone()
            .outing()
            .check()
            .map_err(|odd| odd.to_string())?;
        if self.read.tape.len() > Outing::MARKS {
            return Err(format!("a tape has at most {} places", Outing::MARKS));
        }
        if !(1..=8).contains(&self.people) {
            return Err("1 to 8 people go in a kayak".to_owned());
        }
        let lists = [self.carried.len(), self.missed.len(), self.faults.len()];
        if lists.iter().any(|n| *n > Self::MOST) || self.track.len() > Self::TRACK {
            return Err(format!(
                "at most {} things, faults or missed things, and {} places of a track",
                Self::MOST,
                Self::TRACK
            ));
        }
        let long = |text: &str, most: usize| text.chars().count() > most;
        let lines = [
            &self.place,
            &self.water,
            &self.version,
            &self.rig,
            &self.once,
        ];
        let of_things = self.carried.iter().map(|c| &c.item);
        let of_faults = self.faults.iter().flat_map(|f| [&f.part, &f.cause]);
        let mut all = lines
            .into_iter()
            .chain(of_things)
            .chain(of_faults)
            .chain(&self.missed);
        if all.any(|text| long(text, Self::LINE)) {
            return Err(format!("a line longer than {} characters", Self::LINE));
        }
        if [&self.pains, &self.notes, &self.question]
            .iter()
            .any(|text| long(text, Self::NOTES))
        {
            return Err(format!("notes longer than {} characters", Self::NOTES));
        }
        for fault in &self.faults {
            if fault.part.trim().is_empty() {
                return Err("a fault says which part".to_owned());
            }
            if !fault.mended.is_empty() {
                day(&fault.mended).map_err(|odd| odd.to_string())?;
            }
        }
        Ok(())
    }
}
