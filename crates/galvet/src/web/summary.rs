//! A question and its answer on one sheet, for the counter.

use super::ask::query_of;
use super::assets;
use super::reader::{Reader, today};
use super::shared::{Shared, Trouble};
use crate::present::page::ranking::RankingView;
use crate::present::page::sentence::{self, Sentence};
use crate::question::Ask;
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::System;
use rocket::http::Status;
use rocket::{Route, State, get, routes};
use std::sync::Arc;

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "summary.html")]
struct SummaryPage {
    units: System,
    sun: bool,
    here: String,
    place: &'static str,
    query: String,
    name: String,
    date: String,
    sentence: Sentence,
    ranking: Arc<RankingView>,
}

impl SummaryPage {
    fn asset(&self, name: &str) -> String {
        assets::url(name)
    }
}

#[get("/summary")]
async fn page(
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<SummaryPage, Status>, Trouble> {
    let shelf = shared.shelf().await?;
    let asked = ask.resolve(&shelf.catalogue)?;
    if !asked.errors.is_empty() {
        return Ok(Err(Status::UnprocessableEntity));
    }
    let answer = shared.ranking(&asked, &shelf, reader.caller).await?;
    let ranking = shared.view(answer, reader.units).await?;
    let saved = asked.start.as_ref();
    let saved = saved.and_then(|key| shelf.catalogue.briefs.iter().find(|b| b.key == *key));
    let query = query_of(&ask);
    Ok(Ok(SummaryPage {
        units: reader.units,
        sun: reader.sun,
        here: format!("/summary{query}"),
        place: "ask",
        name: saved.map_or("A question".to_owned(), |b| b.titled()),
        date: today(),
        sentence: sentence::sentence(&asked, &shelf.catalogue, "/".to_owned(), reader.units),
        ranking,
        query,
    }))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page]
}
