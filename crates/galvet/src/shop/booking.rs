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

/// A booking as it is listed.
pub(crate) struct Booked {
    pub(crate) booking: BookingEntry,
    /// Why it cannot be kept as it stands; empty where it can.
    pub(crate) trouble: &'static str,
}

/// How many boats of a hull there are to be tried.
fn boats_of(catalogue: &Catalogue, hull: &str) -> usize {
    let mut stock = catalogue.sheets_of::<StockEntry>();
    let demo = stock.find(|s| s.key == hull && s.state == Stock::Demo);
    demo.map_or(0, |s| s.count.max(1).into())
}

/// Bookings that are not over at a moment of the shop's own clock, day by day, with what
/// became impossible since they were taken: a boat sold, one put back out of the trash.
pub(crate) fn days(catalogue: &Catalogue, now: PrimitiveDateTime) -> Vec<(String, Vec<Booked>)> {
    let all = bookings(catalogue);
    let coming = all
        .iter()
        .filter(|b| b.span().is_some_and(|(_, until)| until > now));
    let mut out: Vec<(String, Vec<Booked>)> = Vec::new();
    for booking in coming {
        let boats = boats_of(catalogue, &booking.hull);
        let others = all.iter().filter(|other| other.key != booking.key);
        let trouble = match booking.most_out(others) {
            _ if boats == 0 => "It is no demo boat any more.",
            out if out >= boats => "More are booked at once than there are.",
            _ => "",
        };
        let day = booking.from.split('T').next().unwrap_or_default();
        let booked = Booked {
            booking: booking.clone(),
            trouble,
        };
        match out.last_mut() {
            Some((last, list)) if *last == day => list.push(booked),
            _ => out.push((day.to_owned(), vec![booked])),
        }
    }
    out
}

/// Books a demo boat: not one that is out then, and not for an hour that is `over`. Whom it is for is a customer from then on.
///
/// # Errors
/// [`EditError`]; nothing is booked then.
pub(crate) fn book(
    store: &Store,
    who: &str,
    (sent, system): (&Sent, System),
    (today, over): (&str, PrimitiveDateTime),
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
    if booking.span().is_none_or(|(_, until)| until <= over) {
        let why = "that is over; what came of a trial is noted on the hull".to_owned();
        return Err(EditError::Refused(Refusal::at("day", why)));
    }
    let boats = boats_of(&catalogue, &booking.hull);
    let taken = store.write(who, &format!("{} booked", booking.name), |door| {
        // As they stand in this transaction: nobody books in between.
        let mut others = Vec::new();
        for slug in door.living(KIND)? {
            if let Some((_, Record::Sheet(sheet))) = door.read(KIND, &slug)? {
                others.extend(sheet.sheet::<BookingEntry>().cloned());
            }
        }
        if booking.most_out(others.iter()) >= boats {
            return Ok(others.into_iter().find(|b| b.collides(&booking)));
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
