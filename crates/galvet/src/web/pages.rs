//! The pages.

use super::assets;
use super::reader::{Reader, units_cookie, units_from_key};
use super::state::{Shared, Trouble};
use crate::ask::{Ask, Asked};
use crate::view::hull::{self, HullView};
use crate::view::ranking::RankingView;
use crate::view::sentence::{self, Sentence};
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::units::System;
use rocket::form::Form;
use rocket::http::uri::{Origin, fmt::Query, fmt::UriDisplay};
use rocket::http::{CookieJar, Status};
use rocket::response::Redirect;
use rocket::response::Responder;
use rocket::{FromForm, Request, Route, State, get, post, routes};
use std::sync::Arc;

/// The main page.
#[derive(Template, WebTemplate)]
#[template(path = "ranking.html")]
struct RankingPage {
    units: System,
    /// This page's own address, to come back to.
    here: String,
    query: String,
    sentence: Sentence,
    ranking: Arc<RankingView>,
}

/// The main page's changing part, for the script.
#[derive(Template, WebTemplate)]
#[template(path = "ranking.html", block = "answer")]
struct RankingPart {
    query: String,
    sentence: Sentence,
    ranking: Arc<RankingView>,
}

/// A hull's page.
#[derive(Template, WebTemplate)]
#[template(path = "hull.html")]
struct HullPage {
    units: System,
    here: String,
    query: String,
    sentence: Sentence,
    hull: HullView,
}

/// A hull page's changing part, for the script.
#[derive(Template, WebTemplate)]
#[template(path = "hull.html", block = "answer")]
struct HullPart {
    query: String,
    sentence: Sentence,
    hull: HullView,
}

/// A shelf without hulls, waters or rigs.
#[derive(Template, WebTemplate)]
#[template(path = "empty.html")]
struct EmptyPage {
    units: System,
    here: String,
}

impl RankingPage {
    fn asset(&self, name: &str) -> String {
        assets::url(name)
    }
}

impl HullPage {
    fn asset(&self, name: &str) -> String {
        assets::url(name)
    }
}

impl EmptyPage {
    fn asset(&self, name: &str) -> String {
        assets::url(name)
    }
}

/// A page with the status its question deserves.
struct Answered<T> {
    status: Status,
    page: T,
}

impl<'r, T: Responder<'r, 'static>> Responder<'r, 'static> for Answered<T> {
    fn respond_to(self, request: &'r Request<'_>) -> rocket::response::Result<'static> {
        (self.status, self.page).respond_to(request)
    }
}

/// 422 when some part was not understood: the page says where.
fn answered<T>(asked: &Asked, page: T) -> Answered<T> {
    let status = if asked.errors.is_empty() {
        Status::Ok
    } else {
        Status::UnprocessableEntity
    };
    Answered { status, page }
}

/// The query of an address, led by a question mark; empty for none.
fn query_of(ask: &Ask) -> String {
    let text = format!("{}", ask as &dyn UriDisplay<Query>);
    if text.is_empty() {
        text
    } else {
        format!("?{text}")
    }
}

#[get("/?<ask..>", rank = 1)]
async fn ranking(
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<Answered<RankingPage>, EmptyPage>, Trouble> {
    let catalogue = shared.catalogue().await?;
    let query = query_of(&ask);
    let here = format!("/{query}");
    let Ok(asked) = ask.resolve(&catalogue, reader.units) else {
        let units = reader.units;
        return Ok(Err(EmptyPage { units, here }));
    };
    if catalogue.hulls.is_empty() {
        let units = reader.units;
        return Ok(Err(EmptyPage { units, here }));
    }
    let page = RankingPage {
        units: reader.units,
        here,
        query,
        sentence: sentence::sentence(&asked, &catalogue, "/".to_owned(), reader.units),
        ranking: shared.ranking(&asked, &catalogue, reader.units).await?,
    };
    Ok(Ok(answered(&asked, page)))
}

#[get("/part/ranking?<ask..>")]
async fn ranking_part(
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<Answered<RankingPart>, Status>, Trouble> {
    let catalogue = shared.catalogue().await?;
    let Ok(asked) = ask.resolve(&catalogue, reader.units) else {
        return Ok(Err(Status::NotFound));
    };
    let page = RankingPart {
        query: query_of(&ask),
        sentence: sentence::sentence(&asked, &catalogue, "/".to_owned(), reader.units),
        ranking: shared.ranking(&asked, &catalogue, reader.units).await?,
    };
    Ok(Ok(answered(&asked, page)))
}

/// Sentence and view of one hull; `None` when there is no such hull.
async fn hull_of(
    key: &str,
    ask: &Ask,
    reader: Reader,
    shared: &Shared,
) -> Result<Option<(Asked, Sentence, HullView)>, Trouble> {
    let catalogue = shared.catalogue().await?;
    let Ok(asked) = ask.resolve(&catalogue, reader.units) else {
        return Ok(None);
    };
    let Some(record) = catalogue
        .hulls
        .iter()
        .find(|h| h.survey.key == key)
        .cloned()
    else {
        return Ok(None);
    };
    let action = format!("/hulls/{}", record.survey.key);
    let sentence = sentence::sentence(&asked, &catalogue, action, reader.units);
    let brief = asked.brief.clone();
    let view =
        rocket::tokio::task::spawn_blocking(move || hull::hull(&record, &brief, reader.units))
            .await?;
    Ok(Some((asked, sentence, view)))
}

#[get("/hulls/<key>?<ask..>")]
async fn hull_page(
    key: &str,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<Answered<HullPage>, Status>, Trouble> {
    let Some((asked, sentence, hull)) = hull_of(key, &ask, reader, shared).await? else {
        return Ok(Err(Status::NotFound));
    };
    let query = query_of(&ask);
    let page = HullPage {
        units: reader.units,
        here: format!("/hulls/{}{query}", hull.key),
        query,
        sentence,
        hull,
    };
    Ok(Ok(answered(&asked, page)))
}

#[get("/part/hulls/<key>?<ask..>")]
async fn hull_part(
    key: &str,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<Answered<HullPart>, Status>, Trouble> {
    let Some((asked, sentence, hull)) = hull_of(key, &ask, reader, shared).await? else {
        return Ok(Err(Status::NotFound));
    };
    let page = HullPart {
        query: query_of(&ask),
        sentence,
        hull,
    };
    Ok(Ok(answered(&asked, page)))
}

#[derive(FromForm)]
struct UnitsForm<'r> {
    units: &'r str,
    back: &'r str,
}

/// Switches the units and goes back to where the reader was.
#[post("/settings/units", data = "<form>")]
fn set_units(form: Form<UnitsForm<'_>>, jar: &CookieJar<'_>) -> Result<Redirect, Status> {
    let units = units_from_key(form.units).ok_or(Status::UnprocessableEntity)?;
    jar.add(units_cookie(units));
    // Only to a page of ours: an address with a host in it is not followed.
    let back = Origin::parse_owned(form.back.to_owned())
        .ok()
        .filter(|_| !form.back.starts_with("//"))
        .unwrap_or_else(|| Origin::const_new("/", None));
    Ok(Redirect::to(back))
}

pub(super) fn routes() -> Vec<Route> {
    routes![ranking, ranking_part, hull_page, hull_part, set_units]
}
