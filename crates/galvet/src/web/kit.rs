//! The shelf, and a thing on it.

use super::ask::query_of;
use super::assets;
use super::edit::{Typed, action, address, kit_throw};
use super::reader::{Reader, back_to};
use super::shared::{Shared, Trouble};
use super::undo::steps;
use crate::form::NotTaken;
use crate::kit::{ThingDraft, keep_record};
use crate::present::page::kit::{self, KitView, ThingView};
use crate::question::Ask;
use crate::survey::EditError;
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::System;
use galvet_store::files::gear_table;
use galvet_store::{Kind, Steps, Store};
use rocket::form::Form;
use rocket::http::{ContentType, Status};
use rocket::response::Redirect;
use rocket::tokio::task::spawn_blocking;
use rocket::{Route, State, get, post, routes};

/// The shelf's page.
#[derive(Template, WebTemplate)]
#[template(path = "kit.html")]
struct KitPage {
    units: System,
    sun: bool,
    here: String,
    place: &'static str,
    query: String,
    steps: Steps,
    kit: KitView,
}

impl KitPage {
    fn asset(&self, name: &str) -> String {
        assets::url(name)
    }
}

#[get("/kit?<find>")]
async fn page(
    find: Option<String>,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<KitPage, Trouble> {
    let on = shared.shelf().await?;
    let query = query_of(&ask);
    let find = find.unwrap_or_default();
    Ok(KitPage {
        units: reader.units,
        sun: reader.sun,
        here: address("/kit", &query, &[]),
        place: "kit",
        steps: steps(shared, reader, None).await?,
        query,
        kit: kit::kit(&on.catalogue.gear, &on.catalogue.rigs, &find, reader.units),
    })
}

/// The shelf as a table.
#[get("/kit.csv")]
async fn kit_csv(shared: &State<Shared>) -> Result<Result<(ContentType, String), Status>, Trouble> {
    let on = shared.shelf().await?;
    let text = spawn_blocking(move || gear_table::write(&on.catalogue.gear)).await?;
    Ok(text
        .map(|t| (ContentType::CSV, t))
        .map_err(|_| Status::InternalServerError))
}

/// A thing's page.
#[derive(Template, WebTemplate)]
#[template(path = "thing.html")]
struct ThingPage {
    units: System,
    sun: bool,
    here: String,
    place: &'static str,
    query: String,
    steps: Steps,
    /// Whether there is a simulated scale.
    simulates: bool,
    thing: ThingView,
}

impl ThingPage {
    fn asset(&self, name: &str) -> String {
        assets::url(name)
    }
}

/// In place of the key of a new thing.
const NEW: &str = "";

/// A thing's address.
fn path_of(slug: &str) -> String {
    if slug == NEW {
        "/new-thing".to_owned()
    } else {
        format!("/kit/{slug}")
    }
}

async fn look(
    slug: &str,
    ask: &Ask,
    reader: Reader,
    shared: &Shared,
    not_taken: &NotTaken,
) -> Result<Option<ThingPage>, Trouble> {
    let on = shared.shelf().await?;
    let gear = on.catalogue.gear.iter().find(|g| g.key == slug);
    if gear.is_none() && slug != NEW {
        return Ok(None);
    }
    let query = query_of(ask);
    Ok(Some(ThingPage {
        units: reader.units,
        sun: reader.sun,
        here: address(&path_of(slug), &query, &[]),
        place: "kit",
        steps: steps(shared, reader, Some((Kind::Gear, slug))).await?,
        query,
        simulates: shared.simulates,
        thing: kit::thing(gear, &on.catalogue.rigs, not_taken, reader.units),
    }))
}

#[get("/kit/<slug>")]
async fn thing(
    slug: &str,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<ThingPage, Status>, Trouble> {
    let page = look(slug, &ask, reader, shared, &NotTaken::default()).await?;
    Ok(page.ok_or(Status::NotFound))
}

#[get("/new-thing")]
async fn new_thing(
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<ThingPage, Status>, Trouble> {
    let page = look(NEW, &ask, reader, shared, &NotTaken::default()).await?;
    Ok(page.ok_or(Status::NotFound))
}

#[post("/new-thing", data = "<form>")]
async fn put_new(form: Form<Typed>, ask: Ask, reader: Reader, shared: &State<Shared>) -> Put {
    keep(NEW, form.into_inner(), ask, reader, shared).await
}

/// Does what a thing's form asks; the address to go to.
fn apply(store: &Store, slug: &str, typed: &Typed, reader: Reader) -> Result<String, EditError> {
    if action(typed) == "forget" {
        kit_throw(store, reader, (Kind::Gear, slug))?;
        return Ok("/kit".to_owned());
    }
    let who = reader.hand.who();
    let key = keep_record::<ThingDraft>(store, who, slug, typed, reader.units)?;
    Ok(format!("/kit/{key}"))
}

/// What comes of a form that was sent.
type Put = Result<Result<Redirect, (Status, Option<ThingPage>)>, Trouble>;

#[post("/kit/<slug>", data = "<form>")]
async fn put(
    slug: &str,
    form: Form<Typed>,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Put {
    keep(slug, form.into_inner(), ask, reader, shared).await
}

/// Does what a form asks, and shows what came of it.
async fn keep(slug: &str, typed: Typed, ask: Ask, reader: Reader, shared: &Shared) -> Put {
    let (store, key, sent) = (shared.store.clone(), slug.to_owned(), typed.clone());
    let done = spawn_blocking(move || apply(&store, &key, &sent, reader));
    let mistakes = match done.await? {
        Ok(to) => {
            let to = address(&to, &query_of(&ask), &[]);
            return Ok(Ok(Redirect::to(back_to(&to))));
        }
        Err(EditError::Gone) => return Ok(Err((Status::NotFound, None))),
        Err(EditError::Refused(refusal)) => refusal.0,
        Err(EditError::Store(error)) => return Err(error.into()),
    };
    let not_taken = NotTaken { typed, mistakes };
    let page = look(slug, &ask, reader, shared, &not_taken).await?;
    Ok(Err((Status::UnprocessableEntity, page)))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, kit_csv, thing, put, new_thing, put_new]
}
