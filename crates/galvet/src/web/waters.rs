//! The waters, and a water's form.

use super::ask::query_of;
use super::assets;
use super::edit::{Typed, action, address, kit_throw};
use super::reader::{Reader, back_to};
use super::shared::{Shared, Trouble};
use super::undo::steps;
use crate::form::NotTaken;
use crate::kit::keep_record;
use crate::present::page::waters::{self, WaterLine, WaterView};
use crate::question::Ask;
use crate::survey::EditError;
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::System;
use galvet_core::question::Water;
use galvet_store::{Kind, Steps, Store};
use rocket::form::Form;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::tokio::task::spawn_blocking;
use rocket::{Route, State, get, post, routes};

/// The list.
#[derive(Template, WebTemplate)]
#[template(path = "waters.html")]
struct WatersPage {
    units: System,
    sun: bool,
    here: String,
    place: &'static str,
    query: String,
    steps: Steps,
    waters: Vec<WaterLine>,
}

impl WatersPage {
    fn asset(&self, name: &str) -> String {
        assets::url(name)
    }
}

#[get("/waters")]
async fn list(ask: Ask, reader: Reader, shared: &State<Shared>) -> Result<WatersPage, Trouble> {
    let on = shared.shelf().await?;
    let query = query_of(&ask);
    Ok(WatersPage {
        units: reader.units,
        sun: reader.sun,
        here: address("/waters", &query, &[]),
        place: "waters",
        steps: steps(shared, reader, None).await?,
        query,
        waters: waters::waters(&on.catalogue.waters, reader.units),
    })
}

/// A water's page.
#[derive(Template, WebTemplate)]
#[template(path = "water.html")]
struct WaterPage {
    units: System,
    sun: bool,
    here: String,
    place: &'static str,
    query: String,
    steps: Steps,
    water: WaterView,
}

impl WaterPage {
    fn asset(&self, name: &str) -> String {
        assets::url(name)
    }
}

/// In place of the key of a new water.
const NEW: &str = "";

/// A water's address.
fn path_of(slug: &str) -> String {
    if slug == NEW {
        "/new-water".to_owned()
    } else {
        format!("/waters/{slug}")
    }
}

async fn look(
    slug: &str,
    ask: &Ask,
    reader: Reader,
    shared: &Shared,
    not_taken: &NotTaken,
) -> Result<Option<WaterPage>, Trouble> {
    let on = shared.shelf().await?;
    let water = on.catalogue.waters.iter().find(|w| w.key == slug);
    if water.is_none() && slug != NEW {
        return Ok(None);
    }
    let query = query_of(ask);
    Ok(Some(WaterPage {
        units: reader.units,
        sun: reader.sun,
        here: address(&path_of(slug), &query, &[]),
        place: "waters",
        steps: steps(shared, reader, Some((Kind::Water, slug))).await?,
        query,
        water: waters::water(water, not_taken, reader.units),
    }))
}

#[get("/waters/<slug>")]
async fn page(
    slug: &str,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<WaterPage, Status>, Trouble> {
    let page = look(slug, &ask, reader, shared, &NotTaken::default()).await?;
    Ok(page.ok_or(Status::NotFound))
}

#[get("/new-water")]
async fn new_page(
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<WaterPage, Status>, Trouble> {
    let page = look(NEW, &ask, reader, shared, &NotTaken::default()).await?;
    Ok(page.ok_or(Status::NotFound))
}

/// Does what a water's form asks.
fn apply(store: &Store, slug: &str, typed: &Typed, reader: Reader) -> Result<(), EditError> {
    if action(typed) == "forget" {
        return kit_throw(store, reader, (Kind::Water, slug));
    }
    keep_record::<Water>(store, reader.hand.who(), slug, typed, reader.units).map(|_| ())
}

/// What comes of a form that was sent.
type Put = Result<Result<Redirect, (Status, Option<WaterPage>)>, Trouble>;

/// Does what a form asks, and shows what came of it.
async fn keep(slug: &str, typed: Typed, ask: Ask, reader: Reader, shared: &Shared) -> Put {
    let (store, key, sent) = (shared.store.clone(), slug.to_owned(), typed.clone());
    let done = spawn_blocking(move || apply(&store, &key, &sent, reader));
    let mistakes = match done.await? {
        Ok(()) => {
            let to = address("/waters", &query_of(&ask), &[]);
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

#[post("/waters/<slug>", data = "<form>")]
async fn put(
    slug: &str,
    form: Form<Typed>,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Put {
    keep(slug, form.into_inner(), ask, reader, shared).await
}

#[post("/new-water", data = "<form>")]
async fn put_new(form: Form<Typed>, ask: Ask, reader: Reader, shared: &State<Shared>) -> Put {
    keep(NEW, form.into_inner(), ask, reader, shared).await
}

pub(super) fn routes() -> Vec<Route> {
    routes![list, page, new_page, put, put_new]
}
