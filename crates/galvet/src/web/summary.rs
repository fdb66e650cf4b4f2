//! A question and its answer on one sheet, for the counter.

use super::reader::today;
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::present::columns::Deep;
use crate::present::page::ranking::sentence::{self, Sentence};
use crate::present::page::ranking::{RankingView, Row};
use crate::shop::{Shelf, shelves};
use askama::Template;
use askama_web::WebTemplate;
use rocket::http::Status;
use rocket::{Route, get, routes};
use std::collections::BTreeMap;
use std::sync::Arc;

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "summary.html")]
struct SummaryPage {
    frame: Frame,
    name: String,
    /// For whom; empty for nobody.
    customer: String,
    date: String,
    sentence: Sentence,
    ranking: Arc<RankingView>,
    /// Rows of it on this sheet.
    three: Vec<usize>,
    /// What the shop has, by hull.
    shelves: BTreeMap<String, Shelf>,
    /// Whether only what it has is on it.
    have: bool,
}

impl SummaryPage {
    /// The rows on this sheet.
    fn rows(&self) -> impl Iterator<Item = &Row> {
        self.three.iter().map(|i| &self.ranking.rows[*i])
    }

    /// What the shop has of a hull.
    fn shelf(&self, key: &str) -> Option<&Shelf> {
        self.shelves.get(key)
    }
}

/// Hulls on the sheet.
const ON_IT: usize = 3;

#[get("/summary?<have>")]
async fn page(
    have: Option<&str>,
    visit: Visit<'_>,
) -> Result<Result<SummaryPage, Status>, Trouble> {
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
    let shelves = shelves(&records.catalogue, reader.units);
    let have = have == Some("here");
    let here = |row: &Row| shelves.get(&row.key).is_some_and(|shelf| shelf.here);
    let all = ranking.rows.iter().enumerate();
    let three = all.filter(|(_, row)| !have || here(row));
    Ok(Ok(SummaryPage {
        three: three.map(|(i, _)| i).take(ON_IT).collect(),
        shelves,
        have,
        frame: visit.frame(
            "ask",
            visit.to("/summary", if have { &[("have", "here")] } else { &[] }),
        ),
        name: saved.map_or("A question".to_owned(), |b| b.name.clone()),
        customer: saved.map_or(String::new(), |b| b.customer.clone()),
        date: today(),
        sentence: sentence::sentence(&asked, &records.catalogue, "/".to_owned(), reader.units),
        ranking,
    }))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page]
}
