//! The quick start: a hull from a leaflet, floated as one types.

use super::ask::query_of;
use super::assets;
use super::moved::{keep_along, moved_on};
use super::reader::{Reader, back_to, fields, today};
use super::shared::{Shared, Trouble};
use crate::answer::{Hull, Patient};
use crate::present::page::draft::{self, DraftView};
use crate::present::page::sentence::{self, Sentence};
use crate::question::Ask;
use crate::survey::{Draft, put_hull};
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::System;
use galvet_store::files::hulls::HullRecord;
use rocket::form::Form;
use rocket::http::Status;
use rocket::request::{FromRequest, Outcome, Request};
use rocket::response::Redirect;
use rocket::{Route, State, get, post, routes};
use std::collections::{BTreeMap, HashMap};
use std::convert::Infallible;
use std::sync::Arc;

/// The quick start's page.
#[derive(Template, WebTemplate)]
#[template(path = "new-hull.html")]
struct NewHullPage {
    units: System,
    sun: bool,
    here: String,
    place: &'static str,
    query: String,
    sentence: Sentence,
    draft: DraftView,
}

/// Its changing part, for the script.
#[derive(Template, WebTemplate)]
#[template(path = "new-hull.html", block = "answer")]
struct NewHullPart {
    query: String,
    sentence: Sentence,
    draft: DraftView,
}

impl NewHullPage {
    fn of(reader: Reader, query: String, sentence: Sentence, draft: DraftView) -> Self {
        Self {
            units: reader.units,
            sun: reader.sun,
            here: format!("/new-hull{query}"),
            place: "hulls",
            query,
            sentence,
            draft,
        }
    }

    fn asset(&self, name: &str) -> String {
        assets::url(name)
    }
}

#[rocket::async_trait]
impl<'r> FromRequest<'r> for Draft {
    type Error = Infallible;

    async fn from_request(request: &'r Request<'_>) -> Outcome<Self, Self::Error> {
        let Outcome::Success(reader) = request.guard::<Reader>().await else {
            return Outcome::Success(Self::default());
        };
        Outcome::Success(Self::of(fields(request), reader.typed_in))
    }
}

/// Hulls with which there is something to choose from.
const FEW: usize = 3;

/// Key of a draft while it is ranked beside those kept; no slug can be it.
const DRAFT: &str = "(draft)";

/// Sentence and view of a draft under the brief; `None` with nothing to ask.
async fn drafted(
    typed: Draft,
    ask: &Ask,
    reader: Reader,
    shared: &Shared,
) -> Result<Option<(Sentence, DraftView)>, Trouble> {
    let shelf = shared.shelf().await?;
    let asked = ask.resolve(&shelf.catalogue)?;
    let action = "/new-hull".to_owned();
    let mut sentence = sentence::sentence(&asked, &shelf.catalogue, action, reader.units);
    let mut read = typed.read(&today());
    read.survey.key = DRAFT.to_owned();
    let hull = Hull {
        known: None,
        survey: Arc::new(read.survey.clone()),
    };
    if !typed.is_empty() {
        sentence.moved = moved_on(&hull, ask, &asked, &shelf, reader, shared).await?;
    }
    // What is typed stays, whatever becomes of the question.
    keep_along(&mut sentence, &typed.pairs(), true);
    let (desk, brief) = (shared.desk.clone(), Arc::new(asked.brief));
    let view = shared.work(reader.caller, move || {
        let mut hulls = shelf.hulls.clone();
        hulls.push(hull.clone());
        let answered = desk.ranking(&brief, &hulls, &Patient).ok();
        // What the ranking floated already is not floated again.
        let afloat = match answered.as_ref().and_then(|a| a.afloat.get(DRAFT)) {
            Some(afloat) => Ok(afloat.clone()),
            None => desk.afloat(&hull, &brief),
        };
        draft::draft(&typed, &read, &afloat, answered.as_ref(), reader.units)
    });
    Ok(Some((sentence, view.await?)))
}

#[get("/new-hull")]
async fn page(
    draft: Draft,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<NewHullPage, Status>, Trouble> {
    let Some((sentence, draft)) = drafted(draft, &ask, reader, shared).await? else {
        return Ok(Err(Status::NotFound));
    };
    Ok(Ok(NewHullPage::of(reader, query_of(&ask), sentence, draft)))
}

#[get("/part/new-hull")]
async fn part(
    draft: Draft,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<NewHullPart, Status>, Trouble> {
    let Some((sentence, draft)) = drafted(draft, &ask, reader, shared).await? else {
        return Ok(Err(Status::NotFound));
    };
    Ok(Ok(NewHullPart {
        query: query_of(&ask),
        sentence,
        draft,
    }))
}

/// Keeps the draft and goes to its page; what is not understood comes back as it
/// was typed.
#[post("/new-hull", data = "<form>")]
async fn keep(
    form: Form<HashMap<String, String>>,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<Redirect, Result<(Status, NewHullPage), Status>>, Trouble> {
    let typed = Draft::of(
        form.iter()
            .map(|(name, value)| (name.as_str(), value.clone())),
        reader.typed_in,
    );
    let read = typed.read(&today());
    let query = query_of(&ask);
    if typed.is_empty() || !read.mistakes.is_empty() {
        let Some((sentence, draft)) = drafted(typed, &ask, reader, shared).await? else {
            return Ok(Err(Err(Status::NotFound)));
        };
        let page = NewHullPage::of(reader, query, sentence, draft);
        return Ok(Err(Ok((Status::UnprocessableEntity, page))));
    }
    let hull = HullRecord {
        survey: read.survey,
        extra: BTreeMap::new(),
    };
    // The first few lead on to a comparison.
    let few = shared.shelf().await?.hulls.len() + 1 < FEW;
    let store = shared.store.clone();
    let kept =
        rocket::tokio::task::spawn_blocking(move || put_hull(&store, reader.hand.who(), hull));
    let slug = kept.await??;
    let to = if few {
        format!("/{query}")
    } else {
        format!("/hulls/{slug}{query}")
    };
    Ok(Ok(Redirect::to(back_to(&to))))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, part, keep]
}
