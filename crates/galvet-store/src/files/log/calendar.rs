//! Outings and services as iCalendar (RFC 5545), by a kept crate.

use icalendar::{Calendar, Component, Event, EventLike};
use time::{Date, OffsetDateTime};

/// A day in a calendar.
#[derive(Debug, Clone, PartialEq)]
pub struct Entry {
    /// Its own word, the same whenever it is written.
    pub uid: String,
    /// The day.
    pub day: Date,
    /// What stands there.
    pub summary: String,
    /// More of it.
    pub words: String,
    /// Where.
    pub place: String,
}

/// A calendar of whole days. `now` is when it is written; a day outside any calendar is left
/// out.
#[must_use]
pub fn write(name: &str, entries: &[Entry], now: OffsetDateTime) -> String {
    let mut calendar = Calendar::empty();
    calendar.append_property(icalendar::Property::new("VERSION", "2.0"));
    calendar.append_property(icalendar::Property::new("PRODID", "-//Galvet//log//EN"));
    calendar.append_property(icalendar::Property::new("CALSCALE", "GREGORIAN"));
    calendar.name(name);
    let stamp = chrono::DateTime::from_timestamp(now.unix_timestamp(), 0).unwrap_or_default();
    for entry in entries {
        let (month, day) = (
            u32::from(u8::from(entry.day.month())),
            u32::from(entry.day.day()),
        );
        let Some(day) = chrono::NaiveDate::from_ymd_opt(entry.day.year(), month, day) else {
            continue;
        };
        let mut event = Event::new();
        event
            .uid(&entry.uid)
            .timestamp(stamp)
            .all_day(day)
            .summary(&entry.summary);
        if !entry.words.is_empty() {
            event.description(&entry.words);
        }
        if !entry.place.is_empty() {
            event.location(&entry.place);
        }
        calendar.push(event.done());
    }
    calendar.to_string()
}
