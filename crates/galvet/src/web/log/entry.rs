//! An outing begun at the ramp: in a minute, on a phone, with or without a connection.

use super::{at, waters};
use crate::answer::Hull;
use crate::form::{FormView, NotTaken, Sent};
use crate::log::{Thing, begin, planned, ramp_table};
use crate::question::Asked;
use crate::web::assets;
use crate::web::edit::came_of;
use crate::web::reader::today;
use crate::web::records::Records;
use crate::web::trouble::Trouble;
use crate::web::visit::{Frame, Visit};
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::log::{Carried, Fate};
use galvet_store::files::outing::OutingEntry;
use rocket::form::Form;
use rocket::http::{ContentType, Status};
use rocket::response::Redirect;
use rocket::tokio::task::spawn_blocking;
use rocket::{Route, get, post, routes};

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "log-new.html")]
struct EntryPage {
    frame: Frame,
    /// Hulls to choose from, those out last first: key, name.
    hulls: Vec<(String, String)>,
    /// The one chosen; empty for none.
    key: String,
    name: String,
    form: Option<FormView>,
}

/// What is usual of an outing in a hull today.
async fn usual(
    visit: &Visit<'_>,
    records: &Records,
    (hull, asked): (&Hull, &Asked),
) -> Result<OutingEntry, Trouble> {
    let (desk, hull) = (visit.shared.desk.clone(), hull.clone());
    let (brief, query) = (asked.brief.clone(), visit.query.clone());
    let made = visit.shared.work(visit.reader.caller, move || {
        planned(&desk, &hull, (&brief, &query), &today())
    });
    let mut outing = made.await?;
    // Where it was out last on such water, if anywhere.
    let before = crate::log::as_outings(&crate::log::outings(&records.catalogue));
    let same = |o: &&galvet_core::log::Outing| o.hull == outing.hull && o.water == outing.water;
    if let Some(last) = before.iter().find(same) {
        outing.place.clone_from(&last.place);
    }
    Ok(OutingEntry::of(&outing, "", ("", "")))
}

fn things(entry: &OutingEntry) -> Vec<Thing> {
    let carried = entry.clone().outing().carried;
    carried.iter().map(Thing::of).collect()
}

async fn entry_page(
    visit: &Visit<'_>,
    slug: &str,
    not_taken: &NotTaken,
) -> Result<EntryPage, Trouble> {
    let records = visit.shared.records().await?;
    let asked = visit.ask.resolve(&records.catalogue)?;
    let hull = records.hulls.iter().find(|h| h.survey.key == slug).cloned();
    let form = match &hull {
        None => None,
        Some(hull) => {
            let usual = usual(visit, &records, (hull, &asked)).await?;
            let table = ramp_table(&things(&usual), &waters(&records));
            Some(table.form(&usual, true, not_taken, visit.reader.units))
        }
    };
    Ok(EntryPage {
        frame: visit.frame("log", at(visit, "/log/new")),
        hulls: by_last(&records),
        key: slug.to_owned(),
        name: hull.map_or(String::new(), |h| h.survey.name()),
        form,
    })
}

/// Hulls to choose from: those out last first.
fn by_last(records: &Records) -> Vec<(String, String)> {
    let outings = crate::log::outings(&records.catalogue);
    let last = |key: &str| {
        outings
            .iter()
            .position(|o| o.hull == key)
            .unwrap_or(usize::MAX)
    };
    let mut all = records.named();
    all.sort_by_key(|(key, _)| last(key));
    all
}

#[get("/log/new?<hull>")]
async fn page(hull: Option<&str>, visit: Visit<'_>) -> Result<EntryPage, Trouble> {
    let page = entry_page(&visit, hull.unwrap_or_default(), &NotTaken::default()).await?;
    if hull.is_some() && page.form.is_none() {
        return Err(Trouble::Gone);
    }
    Ok(page)
}

/// What was carried as somebody sent it: the plan's things, and those the plan had when the
/// page was opened on a phone that has been away since.
fn with_sent(entry: &mut OutingEntry, sent: &Sent, records: &Records) {
    let mut outing = entry.clone().outing();
    for name in sent.keys() {
        let Some(key) = name.strip_prefix("thing-") else {
            continue;
        };
        if outing.carried.iter().any(|c| Thing::of(c).key == key) {
            continue;
        }
        let gear = records.catalogue.gear.iter().find(|g| g.key == key);
        outing.carried.push(Carried {
            item: gear.map_or_else(|| key.to_owned(), |g| g.name.clone()),
            gear: gear.map(|g| g.key.clone()),
            fate: None::<Fate>,
        });
    }
    *entry = OutingEntry::of(&outing, "", ("", ""));
}

/// Longest word of a phone.
const ONCE: usize = 60;

type Answer = Result<Result<Redirect, (Status, EntryPage)>, Trouble>;

/// Keeps an outing that was begun.
#[post("/log/new?<hull>", data = "<form>")]
async fn keep(hull: &str, form: Form<Sent>, visit: Visit<'_>) -> Answer {
    let mut typed = form.into_inner();
    let once = typed.remove("once").unwrap_or_default();
    let once: String = once
        .chars()
        .filter(char::is_ascii_alphanumeric)
        .take(ONCE)
        .collect();
    let records = visit.shared.records().await?;
    let asked = visit.ask.resolve(&records.catalogue)?;
    let known = records.hull(hull)?.clone();
    let mut usual = usual(&visit, &records, (&known, &asked)).await?;
    with_sent(&mut usual, &typed, &records);
    let table = ramp_table(&things(&usual), &waters(&records));
    let made = match table.make(&usual, &typed, visit.reader.units) {
        Ok(made) => made,
        Err(refusal) => {
            let not_taken = NotTaken {
                typed,
                mistakes: refusal.0,
            };
            let page = entry_page(&visit, hull, &not_taken).await?;
            return Ok(Err((Status::UnprocessableEntity, page)));
        }
    };
    let mut entry = made;
    entry.once = once;
    let (store, hand) = (visit.shared.store.clone(), visit.reader.hand);
    let done = spawn_blocking(move || begin(&store, hand.who(), entry));
    match came_of(done.await?)? {
        Ok(key) => Ok(Ok(visit.go(&format!("/log/outings/{key}"), &[]))),
        Err(refusal) => {
            let not_taken = NotTaken {
                typed,
                mistakes: refusal.0,
            };
            let page = entry_page(&visit, hull, &not_taken).await?;
            Ok(Err((Status::UnprocessableEntity, page)))
        }
    }
}

/// What keeps this page on a phone: a worker of the browser's, which must lie above it.
#[get("/log/offline.js")]
fn offline() -> Option<(ContentType, Vec<u8>)> {
    Some((ContentType::JavaScript, assets::file("js/offline.js")?))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, keep, offline]
}
