//! The log as files: table, JSON, calendar. Where anybody went is in none of them unless it
//! is asked for.

use super::Upkeep;
use crate::log;
use crate::web::reader::today;
use crate::web::trouble::Trouble;
use crate::web::visit::Visit;
use galvet_core::log::{Due, Standing};
use galvet_store::Catalogue;
use galvet_store::files::exchange;
use galvet_store::files::log::calendar::{self, Entry, When};
use galvet_store::files::log::table;
use rocket::http::{ContentType, Status};
use rocket::time::OffsetDateTime;
use rocket::{Route, get, routes};
use time::macros::format_description;
use time::{Date, Duration};

#[get("/log.csv")]
async fn csv(visit: Visit<'_>) -> Result<Result<(ContentType, String), Status>, Trouble> {
    let records = visit.shared.records().await?;
    let outings = log::as_outings(&log::outings(&records.catalogue));
    Ok(table::write(&outings)
        .map(|text| (ContentType::CSV, text))
        .map_err(|_| Status::InternalServerError))
}

/// The log as an exchange file, which comes back by Import.
#[get("/log.json?<tracks>")]
async fn json(
    tracks: Option<&str>,
    visit: Visit<'_>,
) -> Result<Result<(ContentType, String), Status>, Trouble> {
    let records = visit.shared.records().await?;
    let sheets = if tracks == Some("yes") {
        log::documents(&records.catalogue)
    } else {
        log::documents(&exchange::handed_on(&records.catalogue))
    };
    let own = Catalogue {
        sheets,
        ..Catalogue::default()
    };
    Ok(exchange::write(&own)
        .map(|text| (ContentType::JSON, text))
        .map_err(|_| Status::InternalServerError))
}

/// Outings and services as days of a calendar.
#[get("/log.ics")]
async fn ics(visit: Visit<'_>) -> Result<(ContentType, String), Trouble> {
    let records = visit.shared.records().await?;
    let asked = visit.ask.resolve(&records.catalogue)?;
    let desk = visit.shared.desk.clone();
    let made = visit.shared.work(visit.reader.caller, move || {
        let entries = log::outings(&records.catalogue);
        let outings = log::as_outings(&entries);
        let served = log::services(&records.catalogue);
        let named = records.named();
        let name = |key: &str| {
            let own = named.iter().find(|(k, _)| k == key);
            own.map_or_else(|| key.to_owned(), |(_, name)| name.clone())
        };
        let mut days: Vec<Entry> = outings
            .iter()
            .filter_map(|o| {
                Some(Entry {
                    uid: format!("outing-{}@galvet", o.key),
                    when: When::Day(o.date()?),
                    summary: format!("Outing in the {}", name(&o.hull)),
                    words: o
                        .hours
                        .map_or(String::new(), |h| format!("{h} h on the water")),
                    place: o.place.clone(),
                })
            })
            .collect();
        let upkeep = Upkeep {
            desk: &desk,
            records: &records,
            outings: &outings,
            served: &served,
            brief: &asked.brief,
            today: today(),
        };
        for (key, hull, dues) in upkeep.dues() {
            days.extend(dues.iter().filter_map(|d| service(d, (&key, &hull))));
        }
        days
    });
    let text = calendar::write(
        "Outings and service",
        &made.await?,
        OffsetDateTime::now_utc(),
    );
    Ok((ContentType::new("text", "calendar"), text))
}

/// A service as a day: today where it is due, else when its months are up. Of one nobody ever
/// noted there is no day to tell.
fn service(due: &Due, (key, hull): (&str, &str)) -> Option<Entry> {
    const MONTH: f64 = 30.436_875;
    let day = |text: &str| Date::parse(text, format_description!("[year]-[month]-[day]")).ok();
    let when = match due.standing {
        Standing::Due => day(&today())?,
        Standing::NotKnown => return None,
        Standing::Soon | Standing::Later => {
            let (_, limit) = due.months?;
            day(&due.last)?.checked_add(Duration::days((limit * MONTH) as i64))?
        }
    };
    Some(Entry {
        uid: format!("service-{}-{key}@galvet", due.care.id),
        when: When::Day(when),
        summary: format!("Service: {} of the {hull}", due.care.what),
        words: format!("{}. Tools: {}", due.care.does, due.care.tools),
        place: String::new(),
    })
}

pub(super) fn routes() -> Vec<Route> {
    routes![csv, json, ics]
}
