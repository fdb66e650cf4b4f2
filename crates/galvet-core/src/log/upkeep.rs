//! Service due by hours and months: handbook, chapter 8.5.
//!
//! A used drive's hours do not begin with the log. What was never noted as done is due until
//! somebody says when it was; outings whose hours nobody noted may be as long as the longest.

use super::outing::{Outing, date};
use crate::base::words;
use crate::hull::Propulsion;
use crate::papers::{CARE, Care, due};

/// Service done on a hull.
#[derive(Debug, Clone, PartialEq)]
pub struct Served {
    /// The hull's key.
    pub hull: String,
    /// Which: a word of [`CARE`].
    pub care: String,
    /// The day, ISO 8601. Of a new part the day it was bought.
    pub day: String,
}

words! {
/// How a service stands.
pub enum Standing {
    /// Its hours or months are up.
    #[strum(message = "due")]
    Due,
    /// Nobody noted when it was last done.
    #[strum(message = "not known: do it, or say when it was done")]
    NotKnown,
    /// It may be up, or nearly is.
    #[strum(message = "soon")]
    Soon,
    /// Not yet.
    #[strum(message = "not yet")]
    Later,
}
}

/// A service of a hull, and how it stands.
#[derive(Debug, Clone, PartialEq)]
pub struct Due {
    /// What is done.
    pub care: &'static Care,
    /// How it stands.
    pub standing: Standing,
    /// The day it was last done; empty where nobody noted one.
    pub last: String,
    /// Hours since, those in salt counted twice, and the limit in fresh water; `None` where
    /// hours do not count.
    pub hours: Option<(f64, f64)>,
    /// Outings since of which nobody noted its hours: they may all have been its own.
    pub not_noted: usize,
    /// Months since, and the limit: halved where it was in salt since.
    pub months: Option<(f64, f64)>,
}

/// Share of a limit from which it is told to be near. Guide value.
const NEAR: f64 = 0.8;
/// Days of a month, on the average of the Gregorian calendar.
const MONTH: f64 = 30.436_875;

/// Which hours count for a service: of the paddle, its own drive, a motor; all.
fn counts(care: &Care) -> Option<usize> {
    match care.id {
        "paddle" => Some(0),
        "rotary" | "rotary-seals" | "fin" | "fin-cables" => Some(1),
        "bow-motor" | "stern-motor" => Some(2),
        _ => None,
    }
}

/// Every service a hull asks for, what is due first. `cares` are the words of those it has,
/// `propulsion` moves it, `today` is ISO 8601.
#[must_use]
pub fn upkeep(
    (hull, propulsion): (&str, Propulsion),
    cares: &[&'static str],
    outings: &[Outing],
    served: &[Served],
    today: &str,
) -> Vec<Due> {
    let own: Vec<&Outing> = outings.iter().filter(|o| o.hull == hull).collect();
    let mut all: Vec<Due> = CARE
        .iter()
        .filter(|care| cares.contains(&care.id))
        .map(|care| {
            let done = served
                .iter()
                .filter(|s| s.hull == hull && s.care == care.id);
            let last = done.map(|s| s.day.as_str()).max().unwrap_or("");
            stands(care, propulsion, &own, (last, today))
        })
        .collect();
    all.sort_by_key(|due| due.standing);
    all
}

fn stands(
    care: &'static Care,
    propulsion: Propulsion,
    own: &[&Outing],
    (last, today): (&str, &str),
) -> Due {
    let since: Vec<&&Outing> = own.iter().filter(|o| o.day.as_str() > last).collect();
    let which = counts(care);
    // Nobody split them: all of them were made with what moves it.
    let alone = match which {
        Some(0) => propulsion == Propulsion::Paddle,
        Some(1) => matches!(propulsion, Propulsion::RotaryPedal | Propulsion::FinPedal),
        Some(_) => propulsion == Propulsion::Motor,
        None => true,
    };
    let noted = |o: &Outing| match which {
        Some(which) => o.hours_by(which, alone),
        None => o.hours,
    };
    // In salt an hour counts as that many in fresh water as its limit is shorter.
    let salted = |o: &Outing| match (due(care, o.density).0, care.hours) {
        (Some(there), Some(fresh)) if there > 0.0 => fresh / there,
        _ => 1.0,
    };
    let counted = since.iter().filter_map(|o| Some(noted(o)? * salted(o)));
    let hours = counted.fold(0.0, |sum, h| sum + h);
    // Hours nobody noted, or nobody split where something else moves it as well, may all have
    // been its own.
    let longest = own.iter().filter_map(|o| o.hours).fold(0.0, f64::max);
    let silent: Vec<&&&Outing> = since.iter().filter(|o| noted(o).is_none()).collect();
    let may = silent
        .iter()
        .fold(0.0, |sum, o| sum + o.hours.unwrap_or(longest) * salted(o));
    let (not_noted, most) = (silent.len(), hours + may);
    let densest = since.iter().map(|o| o.density).fold(0.0, f64::max);
    let limit = due(care, densest).1;
    let months = date(last).zip(date(today)).map(|(last, today)| {
        let days = (today - last).whole_days().max(0);
        (days as f64 / MONTH, limit)
    });
    let share = |of: f64| {
        let by_hours = care.hours.map_or(0.0, |limit| of / limit);
        by_hours.max(months.map_or(0.0, |(since, limit)| since / limit))
    };
    let standing = match () {
        () if share(hours) >= 1.0 => Standing::Due,
        () if last.is_empty() => Standing::NotKnown,
        () if share(most) >= NEAR => Standing::Soon,
        () => Standing::Later,
    };
    Due {
        care,
        standing,
        last: last.to_owned(),
        hours: care.hours.map(|limit| (hours, limit)),
        not_noted,
        months,
    }
}
