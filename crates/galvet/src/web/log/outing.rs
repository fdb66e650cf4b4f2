//! One outing: read against foretold, finished at home, its track and its photos.

use super::{at, sent_file, waters};
use crate::answer::Hull;
use crate::form::{FormView, NotTaken, Refusal, Sent};
use crate::log::{OutingTyped, Thing, add_evidence, edit_outing, of_outing, outing_table};
use crate::present::page::hulls::hull::evidence as evidence_words;
use crate::present::page::log::outing::{self, OutingView};
use crate::present::page::survey::afloat::{Change, changes};
use crate::survey::EditError;
use crate::web::edit::{action, came_of, kit_throw};
use crate::web::records::Records;
use crate::web::trouble::Trouble;
use crate::web::visit::{Frame, Visit};
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::Keyed;
use galvet_core::hull::{Evidence, Survey};
use galvet_core::log::{Outing, Read};
use galvet_store::files::log::gpx;
use galvet_store::files::outing::OutingEntry;
use galvet_store::files::photo::Photo;
use galvet_store::{Kind, Store};
use rocket::form::Form;
use rocket::fs::TempFile;
use rocket::http::{ContentType, Status};
use rocket::response::Redirect;
use rocket::tokio::task::spawn_blocking;
use rocket::{FromForm, Route, get, post, routes};
use std::sync::Arc;

const KIND: Kind = Kind::of::<OutingEntry>();

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "outing.html")]
struct OutingPage {
    frame: Frame,
    key: String,
    name: String,
    day: String,
    hull: (String, String),
    outing: OutingView,
    form: FormView,
    /// Photos: address, picture, name.
    photos: Vec<(String, String, String)>,
    has_track: bool,
    trouble: String,
}

fn find<'a>(records: &'a Records, key: &str) -> Result<&'a OutingEntry, Trouble> {
    let mut all = records.catalogue.sheets_of::<OutingEntry>();
    all.find(|o| o.key == key).ok_or(Trouble::Gone)
}

/// Where an outing's page is.
fn path(key: &str) -> String {
    format!("/log/outings/{key}")
}

async fn outing_page(
    visit: &Visit<'_>,
    key: &str,
    (not_taken, trouble): (&NotTaken, String),
) -> Result<OutingPage, Trouble> {
    let records = visit.shared.records().await?;
    let entry = find(&records, key)?;
    let o = entry.clone().outing();
    let things: Vec<Thing> = o.carried.iter().map(Thing::of).collect();
    let table = outing_table(&things, &waters(&records));
    let form = table.form(entry, false, not_taken, visit.reader.units);
    let hull = records
        .hulls
        .iter()
        .find(|h| h.survey.key == o.hull)
        .cloned();
    let name = hull
        .as_ref()
        .map_or_else(|| o.hull.clone(), |h| h.survey.name());
    let (desk, system, called) = (visit.shared.desk.clone(), visit.reader.units, name.clone());
    let outing_of = o.clone();
    let made = visit.shared.work(visit.reader.caller, move || {
        let readings = hull.map_or(Vec::new(), |h| of_outing(&desk, &h, &outing_of));
        outing::outing(&outing_of, &called, &readings, system)
    });
    let photos = records.catalogue.sheets_of::<Photo>();
    let photos = photos.filter(|p| p.outing == key).map(|p| {
        let href = visit.to(&format!("/hulls/{}/photos/{}", p.hull, p.key), &[]);
        (href, p.picture.clone(), p.name.clone())
    });
    Ok(OutingPage {
        frame: visit
            .frame_of("log", at(visit, &path(key)), Some((KIND, key)))
            .await?,
        key: key.to_owned(),
        name: entry.name.clone(),
        day: o.day.clone(),
        hull: (o.hull.clone(), name),
        outing: made.await?,
        form,
        photos: photos.collect(),
        has_track: entry.has_track(),
        trouble,
    })
}

#[get("/log/outings/<key>")]
async fn page(key: &str, visit: Visit<'_>) -> Result<OutingPage, Trouble> {
    outing_page(&visit, key, (&NotTaken::default(), String::new())).await
}

type Answer = Result<Result<Redirect, (Status, OutingPage)>, Trouble>;

/// What came of it: back to the page, or the page with what was refused.
async fn answer(
    visit: &Visit<'_>,
    key: &str,
    done: Result<Result<(), Refusal>, Trouble>,
    typed: Sent,
) -> Answer {
    match done? {
        Ok(()) => Ok(Ok(visit.go(&path(key), &[]))),
        Err(refusal) => {
            let trouble = refusal.0.get("").cloned().unwrap_or_default();
            let not_taken = NotTaken {
                typed,
                mistakes: refusal.0,
            };
            let page = outing_page(visit, key, (&not_taken, trouble)).await?;
            Ok(Err((Status::UnprocessableEntity, page)))
        }
    }
}

#[post("/log/outings/<key>", data = "<form>")]
async fn keep(key: &str, form: Form<Sent>, visit: Visit<'_>) -> Answer {
    let typed = form.into_inner();
    let records = visit.shared.records().await?;
    let entry = find(&records, key)?;
    let (store, hand, slug) = (
        visit.shared.store.clone(),
        visit.reader.hand,
        key.to_owned(),
    );
    if action(&typed) == "forget" {
        let done = spawn_blocking(move || kit_throw(&store, hand.who(), (KIND, &slug)));
        return match came_of(done.await?)? {
            Ok(()) => Ok(Ok(visit.go("/log", &[]))),
            Err(refusal) => answer(&visit, key, Ok(Err(refusal)), typed).await,
        };
    }
    let (waters, system, sent) = (waters(&records), visit.reader.units, typed.clone());
    let label = format!("outing “{}” changed", entry.name);
    let done = spawn_blocking(move || {
        let typed = OutingTyped {
            sent: &sent,
            waters: &waters,
            system,
        };
        edit_outing(&store, (hand.who(), &label), &slug, |entry| {
            typed.over(entry)
        })
    });
    answer(&visit, key, came_of(done.await?), typed).await
}

#[derive(FromForm)]
struct Which<'r> {
    read: &'r str,
}

/// A reading taken over as evidence of its hull.
#[post("/log/outings/<key>/evidence", data = "<form>")]
async fn take_over(key: &str, form: Form<Which<'_>>, visit: Visit<'_>) -> Answer {
    let records = visit.shared.records().await?;
    let o = find(&records, key)?.clone().outing();
    let read = Read::from_key(form.read).ok_or(Trouble::Gone)?;
    let mut all = galvet_core::log::readings(&o, visit.shared.desk.guides()).into_iter();
    let evidence = all.find(|(r, _)| *r == read).ok_or(Trouble::Gone)?.1;
    let (store, hand) = (visit.shared.store.clone(), visit.reader.hand);
    let done = spawn_blocking(move || add_evidence(&store, hand.who(), &o.hull, &evidence));
    answer(&visit, key, came_of(done.await?), Sent::new()).await
}

/// What a reading would change, or has changed, of its hull's figures.
#[derive(Template, WebTemplate)]
#[template(path = "outing-changes.html")]
struct ChangesPage {
    frame: Frame,
    key: String,
    name: String,
    hull: (String, String),
    read: &'static str,
    label: &'static str,
    words: String,
    on_record: bool,
    changes: Vec<Change>,
}

#[get("/log/outings/<key>/changes?<read>")]
async fn changes_page(key: &str, read: &str, visit: Visit<'_>) -> Result<ChangesPage, Trouble> {
    let records = visit.shared.records().await?;
    let asked = visit.ask.resolve(&records.catalogue)?;
    let entry = find(&records, key)?;
    let o = entry.clone().outing();
    let read = Read::from_key(read).ok_or(Trouble::Gone)?;
    let hull = records.hull(&o.hull)?.clone();
    let name = hull.survey.name();
    let (desk, system) = (visit.shared.desk.clone(), visit.reader.units);
    let brief = asked.brief;
    let made = visit.shared.work(visit.reader.caller, move || {
        let mut all = galvet_core::log::readings(&o, desk.guides()).into_iter();
        let evidence = all.find(|(r, _)| *r == read)?.1;
        let on_record = hull.survey.evidence.contains(&evidence);
        let of = |evidence: Vec<Evidence>| Hull {
            known: None,
            survey: Arc::new(Survey {
                evidence,
                ..(*hull.survey).clone()
            }),
        };
        let others = hull.survey.evidence.iter().filter(|e| **e != evidence);
        let mut with: Vec<Evidence> = others.cloned().collect();
        let before = desk.afloat(&of(with.clone()), &brief).ok()?;
        with.push(evidence.clone());
        let after = desk.afloat(&of(with), &brief).ok()?;
        let changes = changes(&before.assessment, &after.assessment, system);
        Some((evidence_words(&evidence, system), on_record, changes))
    });
    let (words, on_record, changes) = made.await?.ok_or(Trouble::Gone)?;
    let o_hull = entry.hull.clone();
    Ok(ChangesPage {
        frame: visit.frame("log", at(&visit, &path(key))),
        key: key.to_owned(),
        name: entry.name.clone(),
        hull: (o_hull, name),
        read: read.key(),
        label: read.label(),
        words,
        on_record,
        changes,
    })
}

#[derive(FromForm)]
struct Upload<'r> {
    track: Option<TempFile<'r>>,
    #[field(default = "keep")]
    action: &'r str,
}

/// Puts a track on an outing: where the form says no distance or hours, it tells them.
fn with_track(store: &Store, who: &str, key: &str, read: gpx::Tracked) -> Result<(), EditError> {
    edit_outing(store, (who, "track of an outing imported"), key, |entry| {
        let mut o: Outing = entry.clone().outing();
        let day = read
            .day
            .map(|d| format!("{:04}-{:02}-{:02}", d.year(), u8::from(d.month()), d.day()));
        if let Some(day) = day.filter(|d| *d != o.day) {
            let why = format!("that track is of {day}, this outing of {}", o.day);
            return Err(Refusal::from(why));
        }
        o.track = read.track;
        o.distance = o
            .distance
            .or(Some(read.distance).filter(|d| *d >= Outing::DISTANCE.lo));
        o.hours = o.hours.or(read
            .hours
            .map(|h| (h * 10.0).round() / 10.0)
            .filter(|h| *h >= 0.1));
        *entry = OutingEntry::of(&o, &entry.name, (&entry.once, &entry.who));
        Ok(())
    })
}

#[post("/log/outings/<key>/track", data = "<form>")]
async fn track(key: &str, form: Form<Upload<'_>>, visit: Visit<'_>) -> Answer {
    let records = visit.shared.records().await?;
    find(&records, key)?;
    let refused = |why: String| Ok(Err(Refusal::from(why)));
    let (store, hand, slug) = (
        visit.shared.store.clone(),
        visit.reader.hand,
        key.to_owned(),
    );
    if form.action == "forget" {
        let label = "track of an outing deleted";
        let done = spawn_blocking(move || {
            edit_outing(&store, (hand.who(), label), &slug, |entry| {
                let mut o = entry.clone().outing();
                o.track = Vec::new();
                *entry = OutingEntry::of(&o, &entry.name, (&entry.once, &entry.who));
                Ok(())
            })
        });
        return answer(&visit, key, came_of(done.await?), Sent::new()).await;
    }
    let done = match sent_file(form.track.as_ref(), gpx::LARGEST).await {
        Err(why) => refused(why),
        Ok(None) => refused("choose a track first".to_owned()),
        Ok(Some((name, bytes))) => {
            let done = spawn_blocking(move || match gpx::read(&name, &bytes) {
                Ok(read) => with_track(&store, hand.who(), &slug, read),
                Err(error) => Err(EditError::Refused(Refusal::from(error.to_string()))),
            });
            came_of(done.await?)
        }
    };
    answer(&visit, key, done, Sent::new()).await
}

/// The track as GPX. Asked for by its owner: no page, list or file hands it on by itself.
#[get("/log/outings/<key>/track.gpx")]
async fn track_out(
    key: &str,
    visit: Visit<'_>,
) -> Result<Result<(ContentType, String), Status>, Trouble> {
    let records = visit.shared.records().await?;
    let entry = find(&records, key)?;
    let name = entry.name.clone();
    let o = entry.clone().outing();
    let Some(day) = o.date().filter(|_| !o.track.is_empty()) else {
        return Ok(Err(Status::NotFound));
    };
    let text = gpx::write(&name, day, &o.track);
    let gpx = ContentType::new("application", "gpx+xml");
    Ok(text
        .map(|text| (gpx, text))
        .map_err(|_| Status::InternalServerError))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, keep, take_over, changes_page, track, track_out]
}
