//! Hours: by hull, by drive, by month.

use super::outing::Outing;
use std::collections::BTreeMap;
use time::{Date, Month as Named};

/// Hours of one hull.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Hours {
    /// The hull's key.
    pub hull: String,
    /// Outings.
    pub outings: usize,
    /// Hours noted.
    pub noted: f64,
    /// Outings whose hours nobody noted.
    pub not_noted: usize,
    /// Hours by paddle, its own drive, a motor, as far as they were split.
    pub by: [f64; 3],
    /// Distance noted, m.
    pub distance: f64,
    /// The last day it was out.
    pub last: String,
}

/// Hours of every hull that was out, the one most out first.
#[must_use]
pub fn hours(outings: &[Outing]) -> Vec<Hours> {
    let mut all: BTreeMap<&str, Hours> = BTreeMap::new();
    for outing in outings {
        let of = all.entry(&outing.hull).or_insert_with(|| Hours {
            hull: outing.hull.clone(),
            ..Hours::default()
        });
        of.outings += 1;
        match outing.hours {
            Some(hours) => of.noted += hours,
            None => of.not_noted += 1,
        }
        for (sum, part) in of.by.iter_mut().zip(outing.by) {
            *sum += part.unwrap_or(0.0);
        }
        of.distance += outing.distance.unwrap_or(0.0);
        of.last = outing.day.clone().max(std::mem::take(&mut of.last));
    }
    let mut all: Vec<Hours> = all.into_values().collect();
    all.sort_by(|a, b| {
        let by_hours = b.noted.total_cmp(&a.noted);
        by_hours.then_with(|| a.hull.cmp(&b.hull))
    });
    all
}

/// A month of the log.
#[derive(Debug, Clone, PartialEq)]
pub struct Month {
    /// Year and month, 1-12.
    pub when: (i32, u8),
    /// Hours noted.
    pub hours: f64,
    /// Outings.
    pub outings: usize,
    /// Outings whose hours nobody noted.
    pub not_noted: usize,
}

/// Every month from the first outing's to the last one's, those without one as well.
#[must_use]
pub fn months(outings: &[Outing]) -> Vec<Month> {
    let days: Vec<(Date, &Outing)> = outings
        .iter()
        .filter_map(|o| Some((o.date()?, o)))
        .collect();
    let of = |day: &Date| (day.year(), u8::from(day.month()));
    let first = days.iter().map(|(day, _)| of(day)).min();
    let last = days.iter().map(|(day, _)| of(day)).max();
    let (Some(first), Some(last)) = (first, last) else {
        return Vec::new();
    };
    let mut all = Vec::new();
    let mut at = first;
    while at <= last {
        let here = days.iter().filter(|(day, _)| of(day) == at);
        let mut month = Month {
            when: at,
            hours: 0.0,
            outings: 0,
            not_noted: 0,
        };
        for (_, outing) in here {
            month.outings += 1;
            match outing.hours {
                Some(hours) => month.hours += hours,
                None => month.not_noted += 1,
            }
        }
        all.push(month);
        let next = Named::try_from(at.1).map(|m| u8::from(m.next()));
        let next = next.unwrap_or(1);
        at = (if next == 1 { at.0 + 1 } else { at.0 }, next);
    }
    all
}

/// What an outing cost: what was noted of them, and the price of hull and kit over all of
/// them as if it were sold for nothing. `None` without an outing.
#[must_use]
pub fn cost_per_outing(outings: &[&Outing], bought: Option<f64>) -> Option<(f64, Option<f64>)> {
    let count = outings.len() as f64;
    if outings.is_empty() {
        return None;
    }
    let noted: f64 = outings.iter().filter_map(|o| o.cost).sum();
    Some((noted / count, bought.map(|price| (noted + price) / count)))
}
