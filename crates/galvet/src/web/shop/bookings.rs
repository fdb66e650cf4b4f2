//! Demo boats by the hour.

use crate::customer::customers;
use crate::form::{FormView, NotTaken, Sent};
use crate::shop::{Booked, book, booking_form, bookings, cancel, days, usual_booking};
use crate::web::edit::came_of;
use crate::web::reader::today;
use crate::web::trouble::Trouble;
use crate::web::visit::{Frame, Visit};
use askama::Template;
use askama_web::WebTemplate;
use galvet_store::files::log::calendar::{self, Entry, When};
use galvet_store::files::stock::BookingEntry;
use rocket::form::Form;
use rocket::http::{ContentType, Status};
use rocket::response::Redirect;
use rocket::tokio::task::spawn_blocking;
use rocket::{Route, get, post, routes};
use time::{Duration, OffsetDateTime, PrimitiveDateTime};

/// Demo boats out and to come, and one to be booked.
#[derive(Template, WebTemplate)]
#[template(path = "bookings.html")]
struct BookingsPage {
    frame: Frame,
    days: Vec<(String, Vec<Booked>)>,
    form: FormView,
    /// Names to choose from.
    customers: Vec<String>,
    /// Whether there is a demo boat at all.
    boats: bool,
}

/// Hours a shop's clock is behind Greenwich's at most, and two: what is over there may not
/// be over here, and what has just come back is still shown.
const BEHIND: i64 = 14;

/// A moment by which bookings are over on every shop's own clock.
fn long_over() -> PrimitiveDateTime {
    let then = OffsetDateTime::now_utc() - Duration::hours(BEHIND);
    PrimitiveDateTime::new(then.date(), then.time())
}

async fn bookings_page(
    visit: &Visit<'_>,
    (hull, who): (Option<&str>, Option<&str>),
    not_taken: &NotTaken,
) -> Result<BookingsPage, Trouble> {
    let records = visit.shared.records().await?;
    let catalogue = &records.catalogue;
    let mut usual = usual_booking(catalogue, &today());
    let boats = !usual.hull.is_empty();
    if let Some(hull) = hull {
        hull.clone_into(&mut usual.hull);
    }
    if let Some(who) = who {
        who.clone_into(&mut usual.who);
    }
    Ok(BookingsPage {
        frame: visit
            .frame_of("hulls", visit.to("/bookings", &[]), None)
            .await?,
        days: days(catalogue, long_over()),
        form: booking_form(catalogue, &usual, (not_taken, visit.reader.units)),
        customers: customers(catalogue).into_iter().map(|c| c.name).collect(),
        boats,
    })
}

#[get("/bookings?<hull>&<who>")]
async fn page(
    hull: Option<&str>,
    who: Option<&str>,
    visit: Visit<'_>,
) -> Result<BookingsPage, Trouble> {
    bookings_page(&visit, (hull, who), &NotTaken::default()).await
}

#[post("/bookings", data = "<form>")]
async fn add(
    form: Form<Sent>,
    visit: Visit<'_>,
) -> Result<Result<Redirect, (Status, BookingsPage)>, Trouble> {
    let (store, hand, units) = (
        visit.shared.store.clone(),
        visit.reader.hand,
        visit.reader.units,
    );
    let typed = form.into_inner();
    let sent = typed.clone();
    let done = spawn_blocking(move || {
        let when = (today(), long_over());
        book(&store, hand.who(), (&sent, units), (&when.0, when.1))
    });
    match came_of(done.await?)? {
        Ok(()) => Ok(Ok(visit.go("/bookings", &[]))),
        Err(refusal) => {
            let not_taken = NotTaken {
                typed,
                mistakes: refusal.0,
            };
            let page = bookings_page(&visit, (None, None), &not_taken).await?;
            Ok(Err((Status::UnprocessableEntity, page)))
        }
    }
}

#[post("/bookings/<key>/off")]
async fn off(key: &str, visit: Visit<'_>) -> Result<Redirect, Trouble> {
    let (store, hand, key) = (
        visit.shared.store.clone(),
        visit.reader.hand,
        key.to_owned(),
    );
    let done = spawn_blocking(move || cancel(&store, hand.who(), &key));
    // Another page was quicker, or it is done.
    let _ = came_of(done.await?)?;
    Ok(visit.go("/bookings", &[]))
}

/// Bookings as a calendar, on the shop's own clock.
#[get("/bookings.ics")]
async fn ics(visit: Visit<'_>) -> Result<(ContentType, String), Trouble> {
    let records = visit.shared.records().await?;
    let entry = |b: BookingEntry| {
        let (from, until) = b.span()?;
        Some(Entry {
            uid: format!("booking-{}@galvet", b.key),
            when: When::Hours(from, until),
            summary: format!(
                "{} for {}",
                b.name.split(',').next().unwrap_or(&b.name),
                b.who
            ),
            words: b.note,
            place: String::new(),
        })
    };
    let all: Vec<Entry> = bookings(&records.catalogue)
        .into_iter()
        .filter_map(entry)
        .collect();
    let text = calendar::write("Demo boats", &all, OffsetDateTime::now_utc());
    Ok((ContentType::new("text", "calendar"), text))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, add, off, ics]
}
