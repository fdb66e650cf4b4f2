//! An outing as its form takes it apart: what is typed at the ramp first, in a minute, and
//! what is finished at home.

use crate::form::{
    Draft, Field, Group, Mistakes, Table, choice, count, day, grade_of, line, lines, note, number,
    percent, pick, tick,
};
use crate::survey::FloatsIn;
use galvet_core::base::{Bounds, Dimension};
use galvet_core::hull::{Aboard, Evidence};
use galvet_core::log::{Carried, Fate, Fault, Outing};
use galvet_store::files::outing::OutingEntry;
use galvet_store::files::sheet::Sheet;

/// Places of the tape.
const MARKS: usize = Outing::MARKS;
/// Faults there is room for.
const FAULTS: usize = 3;
/// Most lines of what was missed.
const MISSED: usize = 40;

/// A thing that may have come along: its word, and what it is.
#[derive(Debug, Clone, PartialEq)]
pub(crate) struct Thing {
    /// Its key on the shelf, or its name where it is not on it.
    pub(crate) key: String,
    /// What it is.
    pub(crate) item: String,
}

impl Thing {
    /// The thing of something carried.
    pub(crate) fn of(c: &Carried) -> Self {
        Self {
            key: c.gear.clone().unwrap_or_else(|| c.item.clone()),
            item: c.item.clone(),
        }
    }
}

/// A fault as it is typed.
#[derive(Clone, Default)]
struct FaultDraft {
    part: String,
    hour: Option<f64>,
    cause: String,
    mended: String,
}

/// An outing taken apart.
#[derive(Clone)]
pub(crate) struct OutingDraft {
    outing: Outing,
    once: String,
    who: String,
    floats: FloatsIn,
    heights: [(Option<f64>, Option<f64>); MARKS],
    aboard: [Option<f64>; 3],
    /// What became of each thing by its word.
    fates: Vec<(String, Fate)>,
    faults: [FaultDraft; FAULTS],
}

impl Draft for OutingDraft {
    type Record = OutingEntry;

    fn of(entry: &OutingEntry) -> Self {
        let outing = entry.clone().outing();
        let mut heights = [0.15, 0.5, 0.85].map(|place| (Some(place), None));
        for (to, &(place, height)) in heights.iter_mut().zip(&outing.tape.heights) {
            *to = (Some(place), Some(height));
        }
        let mut faults: [FaultDraft; FAULTS] = Default::default();
        for (to, fault) in faults.iter_mut().zip(&outing.faults) {
            *to = FaultDraft {
                part: fault.part.clone(),
                hour: fault.hour,
                cause: fault.cause.clone(),
                mended: fault.mended.clone(),
            };
        }
        let fates = outing.carried.iter();
        let fates = fates.filter_map(|c| Some((Thing::of(c).key, c.fate?)));
        Self {
            fates: fates.collect(),
            floats: FloatsIn::of(outing.density),
            aboard: [
                outing.aboard.map(|a| a.mass),
                outing.aboard.map(|a| a.place),
                outing.aboard.map(|a| a.height),
            ],
            once: entry.once.clone(),
            who: entry.who.clone(),
            heights,
            faults,
            outing,
        }
    }

    fn made(self) -> Result<OutingEntry, Mistakes> {
        let mut mistakes = Mistakes::new();
        let mut outing = self.outing;
        if FloatsIn::of(outing.density) != self.floats {
            outing.density = self.floats.density();
        }
        let mut tape = Vec::new();
        for (n, &(place, height)) in (1..).zip(&self.heights) {
            match (place, height) {
                (Some(place), Some(height)) => tape.push((place, height)),
                (None, Some(_)) => {
                    let where_ = "say where the tape was held".to_owned();
                    mistakes.insert(format!("place-{n}"), where_);
                }
                // A place without a height was not read.
                (_, None) => {}
            }
        }
        outing.tape.heights = tape;
        outing.aboard = match self.aboard {
            [None, _, _] => None,
            [Some(mass), Some(place), Some(height)] => Some(Aboard {
                mass,
                place,
                height,
            }),
            [_, place, _] => {
                let which = if place.is_none() {
                    "aboard-place"
                } else {
                    "aboard-height"
                };
                let why = "a mass says something only with its place and height".to_owned();
                mistakes.insert(which.to_owned(), why);
                None
            }
        };
        for c in &mut outing.carried {
            let key = Thing::of(c).key;
            let fate = self.fates.iter().find(|(k, _)| *k == key);
            c.fate = fate.map(|(_, fate)| *fate);
        }
        let mut faults: Vec<Fault> = Vec::new();
        for (n, f) in (1..).zip(&self.faults) {
            let empty = f.part.is_empty() && f.cause.is_empty() && f.hour.is_none();
            if empty && f.mended.is_empty() {
                continue;
            }
            if f.part.is_empty() {
                mistakes.insert(format!("fault-{n}"), "say which part".to_owned());
            }
            faults.push(Fault {
                part: f.part.clone(),
                hour: f.hour,
                cause: f.cause.clone(),
                mended: f.mended.clone(),
            });
        }
        // Those there is no room for on the form stay.
        faults.extend(outing.faults.iter().skip(FAULTS).cloned());
        outing.faults = faults;
        if !mistakes.is_empty() {
            return Err(mistakes);
        }
        let entry = OutingEntry::of(&outing, &called(&outing), (&self.once, &self.who));
        let whole = |why: String| Mistakes::from([(String::new(), why)]);
        entry.check().map_err(whole)?;
        Ok(entry)
    }
}

/// What an outing is called: where and when.
fn called(outing: &Outing) -> String {
    match outing.place.as_str() {
        "" => format!("outing of {}", outing.day),
        place => format!("{place}, {}", outing.day),
    }
}

impl OutingDraft {
    fn height<const N: usize>(&mut self) -> &mut Option<f64> {
        &mut self.heights[N].1
    }

    fn place<const N: usize>(&mut self) -> &mut Option<f64> {
        &mut self.heights[N].0
    }

    fn lay<const N: usize>(&mut self) -> &mut Option<f64> {
        &mut self.aboard[N]
    }

    fn by<const N: usize>(&mut self) -> &mut Option<f64> {
        &mut self.outing.by[N]
    }
}

type D = OutingDraft;

fn mark<const N: usize>() -> [Field<D>; 2] {
    let n = N + 1;
    [
        percent(
            &format!("place-{n}"),
            &format!("{n}: held at, % from the bow"),
            Evidence::PLACE,
            D::place::<N>,
        ),
        number(
            &format!("height-{n}"),
            "above the water there",
            Evidence::HEIGHT,
            D::height::<N>,
        ),
    ]
}

fn fault<const N: usize>() -> [Field<D>; 4] {
    let n = N + 1;
    [
        line(
            &format!("fault-{n}"),
            &format!("{n}: what failed"),
            |d: &mut D| &mut d.faults[N].part,
        )
        .hint("rudder line, propeller pin, hatch"),
        number(
            &format!("fault-{n}-hour"),
            "after hours",
            Outing::HOURS,
            |d: &mut D| &mut d.faults[N].hour,
        ),
        line(&format!("fault-{n}-cause"), "why", |d: &mut D| {
            &mut d.faults[N].cause
        }),
        line(
            &format!("fault-{n}-mended"),
            "put right on (day)",
            |d: &mut D| &mut d.faults[N].mended,
        )
        .hint("empty while it is not: it stands among the known faults"),
    ]
}

fn wind(name: &'static str, label: &'static str, at: fn(&mut D) -> &mut Option<f64>) -> Field<D> {
    number(name, label, Outing::WIND, at).hint("12 kn, 20 km/h or 6 m/s")
}

fn first(waters: &[(String, String)]) -> Vec<Field<D>> {
    vec![
        day("day", "day", |d: &mut D| &mut d.outing.day),
        line("place", "where", |d: &mut D| &mut d.outing.place),
        pick("water", "kind of water", waters.to_vec(), |d: &mut D| {
            &mut d.outing.water
        }),
        count("people", "people", (1, 8, false), |d: &mut D| {
            &mut d.outing.people
        }),
        line("version", "set up as, its seat at", |d: &mut D| {
            &mut d.outing.version
        }),
        wind("wind", "wind met", |d: &mut D| &mut d.outing.wind),
        wind("gust", "gusts met", |d: &mut D| &mut d.outing.gust),
        number("wave", "waves met", Outing::WAVE, |d: &mut D| {
            &mut d.outing.wave
        }),
    ]
}

fn tape() -> Vec<Field<D>> {
    let mut all = vec![choice("tape", "tape held at", |d: &mut D| {
        &mut d.outing.tape.datum
    })];
    all.extend(mark::<0>());
    all.extend(mark::<1>());
    all.extend(mark::<2>());
    all.extend([
        number(
            "aboard",
            "weight aboard, all but the hull",
            Evidence::MASS,
            D::lay::<0>,
        )
        .hint("people and kit; from the plan where nobody weighed it"),
        percent(
            "aboard-place",
            "its place, % from the bow",
            Evidence::PLACE,
            D::lay::<1>,
        ),
        number(
            "aboard-height",
            "its centre above the floor",
            Evidence::HEIGHT,
            D::lay::<2>,
        ),
        choice("floats-in", "water", |d: &mut D| &mut d.floats),
        choice("scuppers", "scuppers", |d: &mut D| &mut d.outing.scuppers),
    ]);
    all
}

fn came_along(things: &[Thing]) -> Vec<Field<D>> {
    let one = |t: &Thing| {
        grade_of(
            format!("thing-{}", t.key),
            t.item.clone(),
            "nobody says",
            t.key.clone(),
            |d: &mut D| &mut d.fates,
        )
    };
    things.iter().map(one).collect()
}

fn went() -> Vec<Field<D>> {
    let part = Bounds::new("hours by one of them", Dimension::Ratio, 0.0, 48.0);
    vec![
        line(
            "who",
            "whose it was, where it was a customer's",
            |d: &mut D| &mut d.who,
        ),
        number("hours", "hours on the water", Outing::HOURS, |d: &mut D| {
            &mut d.outing.hours
        }),
        number("paddled", "of them by paddle", part, D::by::<0>),
        number("driven", "by its own drive", part, D::by::<1>),
        number("motored", "by motor", part, D::by::<2>),
        number("distance", "distance", Outing::DISTANCE, |d: &mut D| {
            &mut d.outing.distance
        })
        .hint("8 km or 5 mi; a track fills it in"),
        wind("forecast", "wind that was forecast", |d: &mut D| {
            &mut d.outing.forecast
        }),
        number(
            "water-temperature",
            "water, °C",
            Outing::TEMPERATURE,
            |d: &mut D| &mut d.outing.water_temperature,
        ),
        number(
            "to-fishing",
            "minutes from home to fishing",
            Outing::TO_FISHING,
            |d: &mut D| &mut d.outing.to_fishing,
        ),
        number("fish", "fish kept", Outing::FISH, |d: &mut D| {
            &mut d.outing.fish
        }),
        percent("battery", "battery left, %", Outing::LEFT, |d: &mut D| {
            &mut d.outing.battery_left
        }),
        number("cost", "what it cost", Outing::COST, |d: &mut D| {
            &mut d.outing.cost
        })
        .hint("fees, fuel, bait"),
        tick("turned-back", "the wind turned us back", |d: &mut D| {
            &mut d.outing.turned_back
        }),
    ]
}

fn moved() -> Vec<Field<D>> {
    vec![
        number(
            "speed",
            "speed kept up in calm",
            Evidence::SPEED,
            |d: &mut D| &mut d.outing.speed,
        )
        .hint("through the water: there and back, the mean of both"),
        choice("speed-by", "by", |d: &mut D| &mut d.outing.speed_by),
        number(
            "effort",
            "at an effort of, W",
            Evidence::WATTS,
            |d: &mut D| &mut d.outing.effort,
        )
        .hint("a motor's meter; left empty, what is kept up for hours"),
        number("drift", "drift side on", Evidence::SPEED, |d: &mut D| {
            &mut d.outing.drift
        })
        .hint("in the wind met, nobody paddling"),
        number(
            "drained",
            "deck clear again after",
            Evidence::DRAIN,
            |d: &mut D| &mut d.outing.drained,
        )
        .hint("from brim-full, in seconds"),
    ]
}

fn told() -> Vec<Field<D>> {
    vec![
        lines(
            "missed",
            "what was missed, one a line",
            (MISSED, 120),
            |d: &mut D| &mut d.outing.missed,
        ),
        note("pains", "what hurt", 1_000, |d: &mut D| &mut d.outing.pains),
        note("notes", "notes", OutingEntry::NOTES, |d: &mut D| {
            &mut d.outing.notes
        }),
    ]
}

const fn group(
    title: &'static str,
    hint: &'static str,
    folded: bool,
    fields: Vec<Field<D>>,
) -> Group<D> {
    Group {
        title,
        hint,
        folded,
        fields,
    }
}

/// What is typed at the ramp: the rest waits until home.
pub(crate) fn ramp_table(things: &[Thing], waters: &[(String, String)]) -> Table<D> {
    Table(vec![
        group("At the ramp", "", false, first(waters)),
        group("How deep it lies, with the tape", "", true, tape()),
        group("What comes along", "", true, came_along(things)),
        group(
            "A note",
            "",
            false,
            vec![note("notes", "notes", OutingEntry::NOTES, |d: &mut D| {
                &mut d.outing.notes
            })],
        ),
    ])
}

/// The whole outing.
pub(crate) fn outing_table(things: &[Thing], waters: &[(String, String)]) -> Table<D> {
    let mut how = went();
    how.push(tick("done", "written to its end", |d: &mut D| {
        &mut d.outing.done
    }));
    let mut failed: Vec<Field<D>> = Vec::new();
    failed.extend(fault::<0>());
    failed.extend(fault::<1>());
    failed.extend(fault::<2>());
    Table(vec![
        group("At the ramp", "", false, first(waters)),
        group("How it went", "", false, how),
        group("What came along", "", false, came_along(things)),
        group("How deep it lay, with the tape", "", true, tape()),
        group("Speed, drift, draining", "", true, moved()),
        group("What failed", "", true, failed),
        group("In words", "", false, told()),
    ])
}
