//! The catalogue, and what lies in the trash.

use super::ask::query_of;
use super::assets;
use super::moved::{keep_along, moved};
use super::reader::{Reader, back_to};
use super::shared::{Shared, Trouble};
use super::who::WHO;
use crate::present::page::catalogue::{self, CatalogueView, Filter};
use crate::present::page::record::when;
use crate::present::page::sentence::{self, Sentence};
use crate::question::Ask;
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::{Keyed, System};
use galvet_store::{Steps, StoreError, Trashed};
use rocket::form::Form;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::{FromForm, Route, State, get, post, routes};

/// The catalogue.
#[derive(Template, WebTemplate)]
#[template(path = "hulls.html")]
struct HullsPage {
    units: System,
    sun: bool,
    here: String,
    place: &'static str,
    query: String,
    steps: Steps,
    trashed: usize,
    sentence: Sentence,
    catalogue: CatalogueView,
}

/// Its changing part, for the script.
#[derive(Template, WebTemplate)]
#[template(path = "hulls.html", block = "answer")]
struct HullsPart {
    query: String,
    steps: Steps,
    trashed: usize,
    sentence: Sentence,
    catalogue: CatalogueView,
}

impl HullsPage {
    fn asset(&self, name: &str) -> String {
        assets::url(name)
    }
}

/// The filter as it comes in the address.
#[derive(FromForm)]
struct Chosen<'r> {
    #[field(name = "find", default = "")]
    find: &'r str,
    #[field(name = "build", default = "")]
    construction: &'r str,
    #[field(name = "drive", default = "")]
    propulsion: &'r str,
    #[field(name = "seats", default = "")]
    seats: &'r str,
    #[field(name = "longest", default = "")]
    longest: &'r str,
    #[field(name = "heaviest", default = "")]
    heaviest: &'r str,
    #[field(name = "dearest", default = "")]
    dearest: &'r str,
    #[field(name = "fits", default = "")]
    fits: &'r str,
    #[field(name = "sort", default = "")]
    sort: &'r str,
}

impl Chosen<'_> {
    /// As it stands in the address.
    fn pairs(&self) -> Vec<(&'static str, String)> {
        let all = [
            ("find", self.find),
            ("build", self.construction),
            ("drive", self.propulsion),
            ("seats", self.seats),
            ("longest", self.longest),
            ("heaviest", self.heaviest),
            ("dearest", self.dearest),
            ("fits", self.fits),
            ("sort", self.sort),
        ];
        let chosen = all.into_iter().filter(|(_, value)| !value.is_empty());
        chosen
            .map(|(name, value)| (name, value.to_owned()))
            .collect()
    }

    /// What is not known there counts as not chosen.
    fn filter(&self) -> Filter {
        Filter {
            find: self.find.trim().chars().take(80).collect(),
            construction: Keyed::from_key(self.construction),
            propulsion: Keyed::from_key(self.propulsion),
            seats: self.seats.parse().ok().filter(|n| (1..=3).contains(n)),
            most: [self.longest, self.heaviest, self.dearest]
                .map(|typed| typed.trim().chars().take(40).collect()),
            fits: !self.fits.is_empty(),
            sort: Keyed::from_key(self.sort).unwrap_or_default(),
        }
    }
}

async fn part_of(
    chosen: Chosen<'_>,
    ask: &Ask,
    reader: Reader,
    shared: &Shared,
) -> Result<Option<HullsPart>, Trouble> {
    let shelf = shared.shelf().await?;
    let Ok(asked) = ask.resolve(&shelf.catalogue) else {
        return Ok(None);
    };
    let answer = shared.ranking(&asked, &shelf, reader.caller).await?;
    let action = "/hulls".to_owned();
    let mut sentence = sentence::sentence(&asked, &shelf.catalogue, action, reader.units);
    sentence.moved = moved(ask, &answer, &shelf, reader, shared, &[]).await?;
    keep_along(&mut sentence, &chosen.pairs(), true);
    let filter = chosen.filter();
    let made = rocket::tokio::task::spawn_blocking(move || {
        catalogue::catalogue(&answer, &filter, reader.units)
    });
    Ok(Some(HullsPart {
        query: query_of(ask),
        steps: shared.store.steps()?,
        trashed: shared.store.trash()?.len(),
        sentence,
        catalogue: made.await?,
    }))
}

#[get("/hulls?<chosen..>")]
async fn page(
    chosen: Chosen<'_>,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<HullsPage, Status>, Trouble> {
    let Some(part) = part_of(chosen, &ask, reader, shared).await? else {
        return Ok(Err(Status::NotFound));
    };
    Ok(Ok(HullsPage {
        units: reader.units,
        sun: reader.sun,
        here: format!("/hulls{}", part.query),
        place: "hulls",
        query: part.query,
        steps: part.steps,
        trashed: part.trashed,
        sentence: part.sentence,
        catalogue: part.catalogue,
    }))
}

#[get("/part/hulls?<chosen..>")]
async fn part(
    chosen: Chosen<'_>,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<HullsPart, Status>, Trouble> {
    Ok(part_of(chosen, &ask, reader, shared)
        .await?
        .ok_or(Status::NotFound))
}

/// A record in the trash, in words.
struct Thrown {
    kind: &'static str,
    id: i64,
    name: String,
    when: String,
}

/// What was thrown away.
#[derive(Template, WebTemplate)]
#[template(path = "trash.html")]
struct TrashPage {
    units: System,
    sun: bool,
    here: String,
    place: &'static str,
    query: String,
    thrown: Vec<Thrown>,
}

impl TrashPage {
    fn asset(&self, name: &str) -> String {
        assets::url(name)
    }
}

fn thrown(trashed: &Trashed) -> Thrown {
    let text = |name: &str| {
        trashed
            .document
            .get(name)
            .and_then(|v| v.as_str())
            .unwrap_or_default()
    };
    let name = [text("maker"), text("model"), text("name")].join(" ");
    let name = name.split_whitespace().collect::<Vec<_>>().join(" ");
    Thrown {
        kind: trashed.kind.key(),
        id: trashed.known.id,
        name: if name.is_empty() {
            text("key").to_owned()
        } else {
            name
        },
        when: when(trashed.at),
    }
}

#[get("/trash")]
async fn trash(ask: Ask, reader: Reader, shared: &State<Shared>) -> Result<TrashPage, Trouble> {
    let store = shared.store.clone();
    let trashed = rocket::tokio::task::spawn_blocking(move || store.trash()).await??;
    let query = query_of(&ask);
    Ok(TrashPage {
        units: reader.units,
        sun: reader.sun,
        here: format!("/trash{query}"),
        place: "hulls",
        thrown: trashed.iter().map(thrown).collect(),
        query,
    })
}

#[derive(FromForm)]
struct TakeBack<'r> {
    kind: &'r str,
    id: i64,
    back: &'r str,
}

/// Takes a record out of the trash.
#[post("/trash", data = "<form>")]
async fn take_back(
    form: Form<TakeBack<'_>>,
    shared: &State<Shared>,
) -> Result<Result<Redirect, Status>, Trouble> {
    let store = shared.store.clone();
    let (kind, id) = (form.kind.to_owned(), form.id);
    let done = rocket::tokio::task::spawn_blocking(move || {
        let all = store.trash()?;
        let mine = all
            .iter()
            .find(|t| t.kind.key() == kind && t.known.id == id);
        mine.map(|trashed| store.take_back(WHO, trashed))
            .transpose()
    });
    match done.await? {
        // Another page was quicker, or it is there already: the page says what is.
        Ok(_) | Err(StoreError::Conflict { .. }) => Ok(Ok(Redirect::to(back_to(form.back)))),
        Err(StoreError::Taken { .. }) => Ok(Err(Status::Conflict)),
        Err(error) => Err(error.into()),
    }
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, part, trash, take_back]
}
