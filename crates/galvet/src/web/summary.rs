//! A question and its answer on one sheet, for the counter.

use super::reader::today;
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::present::columns::Deep;
use crate::present::page::ranking::RankingView;
use crate::present::page::ranking::sentence::{self, Sentence};
use askama::Template;
use askama_web::WebTemplate;
use rocket::http::Status;
use rocket::{Route, get, routes};
use std::sync::Arc;

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "summary.html")]
struct SummaryPage {
    frame: Frame,
    name: String,
    date: String,
    sentence: Sentence,
    ranking: Arc<RankingView>,
}

#[get("/summary")]
async fn page(visit: Visit<'_>) -> Result<Result<SummaryPage, Status>, Trouble> {
    let (ask, reader, shared) = (&visit.ask, visit.reader, visit.shared);
    let records = shared.records().await?;
    let asked = ask.resolve(&records.catalogue)?;
    if !asked.errors.is_empty() {
        return Ok(Err(Status::UnprocessableEntity));
    }
    let answer = shared.ranking(&asked, &records, reader.caller).await?;
    let ranking = shared.view(answer, (reader.units, Deep::default())).await?;
    let saved = asked.start.as_ref();
    let saved = saved.and_then(|key| records.catalogue.briefs.iter().find(|b| b.key == *key));
    Ok(Ok(SummaryPage {
        frame: visit.frame("ask", visit.to("/summary", &[])),
        name: saved.map_or("A question".to_owned(), |b| b.titled()),
        date: today(),
        sentence: sentence::sentence(&asked, &records.catalogue, "/".to_owned(), reader.units),
        ranking,
    }))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page]
}
