//! Demo boats booked by the hour.

use crate::customer::known_by_name;
use crate::form::{
    Draft, FormView, Mistakes, NotTaken, Refusal, Sent, Table, count, free_slug, line, pick,
    slug_of,
};
use crate::survey::EditError;
use galvet_core::base::System;
use galvet_store::files::sheet::{Document, Sheet};
use galvet_store::files::stock::{BookingEntry, Stock, StockEntry};
use galvet_store::{Catalogue, Kind, Record, Store};
use time::PrimitiveDateTime;

/// A booking's kind.
const KIND: Kind = Kind::of::<BookingEntry>();

/// A booking as its form takes it apart.
#[derive(Clone)]
pub(crate) struct BookingDraft {
    booking: BookingEntry,
    day: String,
    hour: String,
}

/// An hour as people write one: `10`, `10:30`, `9.15`.
fn hour(typed: &str) -> Result<String, String> {
    let told = || {
        format!(
            "“{}” is no hour; write it as 10:00",
            galvet_store::files::echo(typed)
        )
    };
    let (hours, minutes) = typed
        .trim()
        .split_once([':', '.'])
        .unwrap_or((typed.trim(), "0"));
    let part = |text: &str, most: u8| text.parse::<u8>().ok().filter(|n| *n <= most);
    let (hours, minutes) = part(hours, 23).zip(part(minutes, 59)).ok_or_else(told)?;
    Ok(format!("{hours:02}:{minutes:02}"))
}

impl Draft for BookingDraft {
    type Record = BookingEntry;

    fn of(booking: &BookingEntry) -> Self {
        let (day, hour) = booking.from.split_once('T').unwrap_or((&booking.from, ""));
        Self {
            day: day.to_owned(),
            hour: hour.to_owned(),
            booking: booking.clone(),
        }
    }

    fn made(self) -> Result<BookingEntry, Mistakes> {
        let mut booking = self.booking;
        let of = |field: &str, why: String| Mistakes::from([(field.to_owned(), why)]);
        let hour = hour(&self.hour).map_err(|why| of("hour", why))?;
        booking.from = format!("{}T{hour}", self.day);
        if booking.who.trim().is_empty() {
            return Err(of("who", "for whom?".to_owned()));
        }
        booking.check().map_err(|why| of("", why))?;
        Ok(booking)
    }
}

/// Demo boats: key and name.
fn boats(catalogue: &Catalogue) -> Vec<(String, String)> {
    let stock = catalogue.sheets_of::<StockEntry>();
    let demo = stock.filter(|s| s.state == Stock::Demo);
    let hull = |s: &StockEntry| {
        let mut hulls = catalogue.hulls.iter();
        let hull = hulls.find(|hull| hull.survey.key == s.key)?;
        Some((s.key.clone(), hull.survey.name()))
    };
    demo.filter_map(hull).collect()
}

/// The form of a booking.
fn table(catalogue: &Catalogue) -> Table<BookingDraft> {
    type D = BookingDraft;
    Table::plain(vec![
        pick("hull", "demo boat", boats(catalogue), |d: &mut D| {
            &mut d.booking.hull
        }),
        crate::form::day("day", "day", |d: &mut D| &mut d.day),
        line("hour", "from", |d: &mut D| &mut d.hour),
        count(
            "hours",
            "hours",
            (1, BookingEntry::LONGEST, false),
            |d: &mut D| &mut d.booking.hours,
        ),
        line("who", "for whom", |d: &mut D| &mut d.booking.who),
        line("note", "note", |d: &mut D| &mut d.booking.note),
    ])
}

/// A booking nobody has typed anything of.
pub(crate) fn usual_booking(catalogue: &Catalogue, today: &str) -> BookingEntry {
    let first = boats(catalogue).into_iter().next();
    BookingEntry {
        key: String::new(),
        name: String::new(),
        hull: first.map_or(String::new(), |(key, _)| key),
        who: String::new(),
        from: format!("{today}T10:00"),
        hours: 2,
        note: String::new(),
    }
}

/// The form of a new booking.
pub(crate) fn booking_form(
    catalogue: &Catalogue,
    usual: &BookingEntry,
    (not_taken, system): (&NotTaken, System),
) -> FormView {
    table(catalogue).form_or_new(None, || usual.clone(), not_taken, system)
}

/// All bookings, by when they begin.
pub(crate) fn bookings(catalogue: &Catalogue) -> Vec<BookingEntry> {
    let mut all: Vec<BookingEntry> = catalogue.sheets_of().cloned().collect();
    all.sort_by(|a, b| a.from.cmp(&b.from).then_with(|| a.name.cmp(&b.name)));
    all
}

/// Bookings that are not over at a moment of the shop's own clock, day by day.
pub(crate) fn days(
    all: &[BookingEntry],
    now: PrimitiveDateTime,
) -> Vec<(String, Vec<BookingEntry>)> {
    let mut out: Vec<(String, Vec<BookingEntry>)> = Vec::new();
    for booking in all {
        let Some((_, until)) = booking.span() else {
            continue;
        };
        if until <= now {
            continue;
        }
        let day = booking
            .from
            .split('T')
            .next()
            .unwrap_or_default()
            .to_owned();
        match out.last_mut() {
            Some((last, list)) if *last == day => list.push(booking.clone()),
            _ => out.push((day, vec![booking.clone()])),
        }
    }
    out
}

/// Books a demo boat: not one that is out then. Whom it is for is a customer from then on.
///
/// # Errors
/// [`EditError`]; nothing is booked then.
pub(crate) fn book(
    store: &Store,
    who: &str,
    (sent, system, today): (&Sent, System, &str),
) -> Result<(), EditError> {
    let catalogue = store.catalogue()?;
    let usual = usual_booking(&catalogue, today);
    let made = table(&catalogue).make(&usual, sent, system);
    let mut booking = made.map_err(EditError::Refused)?;
    let name = catalogue
        .hulls
        .iter()
        .find(|h| h.survey.key == booking.hull);
    let name = name.map(|hull| hull.survey.name()).ok_or_else(|| {
        EditError::Refused(Refusal::at(
            "hull",
            "choose one of those there are".to_owned(),
        ))
    })?;
    booking.name = format!("{name}, {}", booking.from.replace('T', " "));
    let boats = catalogue.sheets_of::<StockEntry>();
    let boats = boats
        .filter(|s| s.key == booking.hull)
        .map(|s| s.count.max(1))
        .max();
    let taken = store.write(who, &format!("{} booked", booking.name), |door| {
        // As they stand in this transaction: nobody books in between.
        let mut others = Vec::new();
        for slug in door.living(KIND)? {
            if let Some((_, Record::Sheet(sheet))) = door.read(KIND, &slug)? {
                others.extend(sheet.sheet::<BookingEntry>().cloned());
            }
        }
        let out: Vec<&BookingEntry> = others.iter().filter(|b| b.collides(&booking)).collect();
        if out.len() >= usize::from(boats.unwrap_or(1)) {
            return Ok(out.first().map(|b| (*b).clone()));
        }
        known_by_name(door, &catalogue, (&booking.who, today))?;
        booking.key = free_slug(door, KIND, &slug_of(&booking.name, "booking"))?;
        door.put(&Record::Sheet(Document::of(&booking)), None)?;
        Ok(None)
    })?;
    match taken {
        None => Ok(()),
        Some(other) => {
            let why = format!(
                "it is out then: {} for {} h",
                other.from.replace('T', " "),
                other.hours
            );
            Err(EditError::Refused(Refusal::at("hour", why)))
        }
    }
}

/// Takes a booking off; it can be undone.
///
/// # Errors
/// [`EditError`].
pub(crate) fn cancel(store: &Store, who: &str, key: &str) -> Result<(), EditError> {
    store.throw_away(who, (KIND, key), None)?;
    Ok(())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn an_hour_is_read_as_people_write_one() {
        for (typed, read) in [
            ("10", "10:00"),
            ("9.15", "09:15"),
            (" 7:5 ", "07:05"),
            ("23:59", "23:59"),
        ] {
            assert_eq!(hour(typed).unwrap(), read);
        }
        for odd in ["", "24:00", "10:60", "ten", "-1", "10:00:00"] {
            assert!(hour(odd).is_err(), "{odd}");
        }
    }
}
