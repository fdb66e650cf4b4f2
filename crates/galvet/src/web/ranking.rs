//! The main page: the hulls ranked; also as JSON and as CSV.

use super::ask::{Answered, answered, query_of};
use super::assets;
use super::reader::Reader;
use super::shared::{Shared, Shelf, Trouble};
use crate::present::json::Document;
use crate::present::page::columns::{COLUMNS, in_order};
use crate::present::page::moved;
use crate::present::page::ranking::RankingView;
use crate::present::page::sentence::{self, Sentence};
use crate::question::{Ask, Asked};
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::System;
use galvet_store::Steps;
use rocket::http::{ContentType, Status};
use rocket::{Route, State, get, routes};
use std::sync::Arc;

/// The main page.
#[derive(Template, WebTemplate)]
#[template(path = "ranking.html")]
struct RankingPage {
    units: System,
    sun: bool,
    /// This page's own address, to come back to.
    here: String,
    place: &'static str,
    query: String,
    steps: Steps,
    /// Records that cannot be used.
    set_aside: usize,
    sentence: Sentence,
    moved: Moved,
    order: Order,
    ranking: Arc<RankingView>,
}

/// In which order the rows stand.
struct Order {
    rows: Vec<usize>,
    /// The column's word; empty for by place.
    by: String,
    /// Columns: word, label, chosen.
    columns: Vec<(&'static str, &'static str, bool)>,
    /// Whether rows stand close together, only their figures shown.
    close: bool,
}

impl Order {
    fn of(ranking: &RankingView, by: Option<&str>, rows: Option<&str>) -> Self {
        let close = rows == Some("close");
        let known = COLUMNS.iter().find(|c| by == Some(c.key));
        let rows = ranking.rows.iter().map(|r| r.columns.as_slice());
        Self {
            close,
            rows: in_order(rows, by),
            by: known.map_or(String::new(), |c| c.key.to_owned()),
            columns: COLUMNS
                .iter()
                .map(|c| (c.key, c.label, by == Some(c.key)))
                .collect(),
        }
    }
}

/// What a changed question moved, and the address without the change.
#[derive(Default)]
struct Moved {
    lines: Vec<String>,
    reset: String,
}

/// The main page's changing part, for the script.
#[derive(Template, WebTemplate)]
#[template(path = "ranking.html", block = "answer")]
struct RankingPart {
    query: String,
    steps: Steps,
    /// Records that cannot be used.
    set_aside: usize,
    sentence: Sentence,
    moved: Moved,
    order: Order,
    ranking: Arc<RankingView>,
}

/// A shelf without hulls or waters.
#[derive(Template, WebTemplate)]
#[template(path = "empty.html")]
struct EmptyPage {
    units: System,
    sun: bool,
    here: String,
    place: &'static str,
    query: String,
}

impl RankingPage {
    fn asset(&self, name: &str) -> String {
        assets::url(name)
    }
}

impl EmptyPage {
    fn asset(&self, name: &str) -> String {
        assets::url(name)
    }
}

/// Question, sentence and answer of a request; `None` with nothing to ask about.
async fn answer(
    ask: &Ask,
    reader: Reader,
    shared: &Shared,
) -> Result<Option<(Asked, Sentence, Moved, Arc<RankingView>)>, Trouble> {
    let shelf = shared.shelf().await?;
    let Ok(asked) = ask.resolve(&shelf.catalogue, reader.units) else {
        return Ok(None);
    };
    if shelf.hulls.is_empty() {
        return Ok(None);
    }
    let answer = shared.ranking(&asked, &shelf, reader.caller).await?;
    let sentence = sentence::sentence(&asked, &shelf.catalogue, "/".to_owned(), reader.units);
    let moved = moved(ask, &answer, &shelf, reader, shared).await?;
    let view = shared.view(answer, reader.units).await?;
    Ok(Some((asked, sentence, moved, view)))
}

/// Against the question it started from, where it was changed since.
async fn moved(
    ask: &Ask,
    now: &crate::answer::Answered,
    shelf: &Arc<Shelf>,
    reader: Reader,
    shared: &Shared,
) -> Result<Moved, Trouble> {
    let Some(start) = ask.unchanged() else {
        return Ok(Moved::default());
    };
    let Ok(asked) = start.resolve(&shelf.catalogue, reader.units) else {
        return Ok(Moved::default());
    };
    // What judging filled in was not asked.
    let mut answered = (*now.ranking.brief).clone();
    if let Some(known) = &mut answered.known {
        known.support = None;
    }
    if asked.brief == answered {
        return Ok(Moved::default());
    }
    let was = shared.ranking(&asked, shelf, reader.caller).await?;
    Ok(Moved {
        lines: moved::moved(&was.ranking, &now.ranking, reader.units),
        reset: format!("/{}", query_of(&start)),
    })
}

#[get("/?<by>&<rows>", rank = 1)]
async fn ranking_page(
    by: Option<&str>,
    rows: Option<&str>,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<Answered<RankingPage>, EmptyPage>, Trouble> {
    let query = query_of(&ask);
    let here = format!("/{query}");
    let units = reader.units;
    let place = "ranking";
    let Some((asked, sentence, moved, ranking)) = answer(&ask, reader, shared).await? else {
        return Ok(Err(EmptyPage {
            units,
            sun: reader.sun,
            here,
            place,
            query,
        }));
    };
    let page = RankingPage {
        units,
        sun: reader.sun,
        here,
        place,
        query,
        steps: shared.store.steps()?,
        set_aside: shared.shelf().await?.catalogue.set_aside.len(),
        sentence,
        moved,
        order: Order::of(&ranking, by, rows),
        ranking,
    };
    Ok(Ok(answered(&asked, page)))
}

#[get("/part/ranking?<by>&<rows>")]
async fn ranking_part(
    by: Option<&str>,
    rows: Option<&str>,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<Answered<RankingPart>, Status>, Trouble> {
    let Some((asked, sentence, moved, ranking)) = answer(&ask, reader, shared).await? else {
        return Ok(Err(Status::NotFound));
    };
    let page = RankingPart {
        query: query_of(&ask),
        steps: shared.store.steps()?,
        set_aside: shared.shelf().await?.catalogue.set_aside.len(),
        sentence,
        moved,
        order: Order::of(&ranking, by, rows),
        ranking,
    };
    Ok(Ok(answered(&asked, page)))
}

/// The ranking of a request, for other presentations; metric like all of them.
async fn ranked(
    ask: &Ask,
    reader: Reader,
    shared: &Shared,
) -> Result<Result<Arc<crate::answer::Answered>, Status>, Trouble> {
    let shelf = shared.shelf().await?;
    let Ok(asked) = ask.resolve(&shelf.catalogue, System::Metric) else {
        return Ok(Err(Status::NotFound));
    };
    if !asked.errors.is_empty() {
        return Ok(Err(Status::UnprocessableEntity));
    }
    Ok(Ok(shared.ranking(&asked, &shelf, reader.caller).await?))
}

#[get("/ranking.json")]
async fn ranking_json(
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<(ContentType, String), Status>, Trouble> {
    Ok(ranked(&ask, reader, shared).await?.and_then(|answer| {
        serde_json::to_string(&Document::of(&answer.ranking))
            .map(|text| (ContentType::JSON, text))
            .map_err(|_| Status::InternalServerError)
    }))
}

#[get("/ranking.csv")]
async fn ranking_csv(
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<(ContentType, String), Status>, Trouble> {
    Ok(ranked(&ask, reader, shared).await?.and_then(|answer| {
        crate::present::csv::ranking(&answer.ranking)
            .map(|text| (ContentType::CSV, text))
            .map_err(|_| Status::InternalServerError)
    }))
}

pub(super) fn routes() -> Vec<Route> {
    routes![ranking_page, ranking_part, ranking_json, ranking_csv]
}
