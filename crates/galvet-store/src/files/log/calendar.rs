//! Outings and services as iCalendar (RFC 5545), by a kept crate.

use icalendar::{Calendar, CalendarDateTime, Component, Event, EventLike};
use time::{Date, OffsetDateTime, PrimitiveDateTime};

/// When something stands in a calendar.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum When {
    /// A whole day.
    Day(Date),
    /// From when until when, on the clock of whoever reads it.
    Hours(PrimitiveDateTime, PrimitiveDateTime),
}

/// Something in a calendar.
#[derive(Debug, Clone, PartialEq)]
pub struct Entry {
    /// Its own word, the same whenever it is written.
    pub uid: String,
    /// When.
    pub when: When,
    /// What stands there.
    pub summary: String,
    /// More of it.
    pub words: String,
    /// Where.
    pub place: String,
}

fn naive(day: Date) -> Option<chrono::NaiveDate> {
    let (month, of_month) = (u32::from(u8::from(day.month())), u32::from(day.day()));
    chrono::NaiveDate::from_ymd_opt(day.year(), month, of_month)
}

/// A time that follows the clock of whoever reads it.
fn clock(at: PrimitiveDateTime) -> Option<CalendarDateTime> {
    let (hour, minute) = (u32::from(at.hour()), u32::from(at.minute()));
    let at = naive(at.date())?.and_hms_opt(hour, minute, 0)?;
    Some(CalendarDateTime::Floating(at))
}

/// A calendar. `now` is when it is written; a day outside any calendar is left
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
        let mut event = Event::new();
        event
            .uid(&entry.uid)
            .timestamp(stamp)
            .summary(&entry.summary);
        match entry.when {
            When::Day(day) => match naive(day) {
                Some(day) => event.all_day(day),
                None => continue,
            },
            When::Hours(from, until) => match clock(from).zip(clock(until)) {
                Some((from, until)) => event.starts(from).ends(until),
                None => continue,
            },
        };
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
