//! The main page: the hulls ranked; also as JSON and as CSV.

use super::ask::{Answered, answered, query_of};
use super::assets;
use super::moved::moved;
use super::reader::{Reader, fields};
use super::shared::{Shared, Shelf, Trouble};
use super::shortlist::Shortlist;
use super::undo::steps;
use crate::present::columns::COLUMNS;
use crate::present::json::Document;
use crate::present::page::ranking::RankingView;
use crate::present::page::sentence::{self, Sentence};
use crate::present::page::sift::{Sieve, Sifted, Wanted, sift};
use crate::question::{Ask, Asked};
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::System;
use galvet_store::Steps;
use rocket::http::{ContentType, RawStr, Status};
use rocket::request::{FromRequest, Outcome};
use rocket::{Request, Route, State, get, routes};
use std::collections::BTreeMap;
use std::convert::Infallible;
use std::fmt::Write as _;
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
    lead: Lead,
    sentence: Sentence,
    order: Order,
    ranking: Arc<RankingView>,
}

/// What leads somebody who is new here.
#[derive(Clone, Copy)]
struct Lead {
    /// Hulls still to be put in for a first comparison.
    wanted: usize,
    /// Whether made-up hulls are shown, which a tour leads through.
    tour: bool,
}

/// Hulls of a first comparison.
const FIRST_HULLS: usize = 3;

impl Lead {
    fn of(shelf: &Shelf, shared: &Shared) -> Self {
        Self {
            wanted: FIRST_HULLS.saturating_sub(shelf.hulls.len()),
            tour: shared.simulates,
        }
    }
}

/// Which rows stand there, in which order.
struct Order {
    sieve: Sieve,
    wanted: Wanted,
    /// Columns: word, label, whether rows stand in its order, whether it breaks ties.
    columns: Vec<(&'static str, &'static str, bool, bool)>,
    /// The shortlist's hulls that are known: slug and name.
    list: Vec<(String, String)>,
    /// This page's address with order and limits, to come back to.
    whole: String,
    /// The same without limits.
    all: String,
}

impl Order {
    fn of(ranking: &RankingView, wanted: Wanted, list: &Shortlist, ask: &Ask) -> Self {
        let rows: Vec<Sifted<'_>> = ranking
            .rows
            .iter()
            .map(|r| Sifted {
                cells: &r.columns,
                beats_next: r.beats_next,
                listed: list.has(&r.key),
            })
            .collect();
        let ranked = ranking.rows.iter().map(|r| (&r.key, &r.name));
        let known = ranked.chain(ranking.out.iter().map(|o| (&o.key, &o.name)));
        let known: BTreeMap<&String, &String> = known.collect();
        let named = |slug: &String| known.get(slug).map(|name| (slug.clone(), (*name).clone()));
        let along = |limits| format!("/{}", with_more(&query_of(ask), &wanted.pairs(limits)));
        Self {
            sieve: sift(&rows, &wanted),
            columns: COLUMNS
                .iter()
                .map(|c| (c.key, c.label, wanted.by == c.key, wanted.ties == c.key))
                .collect(),
            list: list.slugs().iter().filter_map(named).collect(),
            whole: along(true),
            all: along(false),
            wanted,
        }
    }

    /// Whether rows are put in order, or ties broken, by a column.
    fn by(&self, key: &str) -> bool {
        self.wanted.by == key || self.wanted.ties == key
    }

    /// Whether a hull is on the shortlist.
    fn listed(&self, slug: &str) -> bool {
        self.list.iter().any(|(s, _)| s == slug)
    }
}

/// A query with further names and values.
fn with_more(query: &str, more: &[(String, String)]) -> String {
    let mut out = query.to_owned();
    for (name, value) in more {
        let lead = if out.is_empty() { '?' } else { '&' };
        let value = RawStr::new(value).percent_encode();
        let _ = write!(out, "{lead}{name}={value}");
    }
    out
}

#[rocket::async_trait]
impl<'r> FromRequest<'r> for Wanted {
    type Error = Infallible;

    async fn from_request(request: &'r Request<'_>) -> Outcome<Self, Self::Error> {
        Outcome::Success(Self::of(fields(request)))
    }
}

/// The main page's changing part, for the script.
#[derive(Template, WebTemplate)]
#[template(path = "ranking.html", block = "answer")]
struct RankingPart {
    query: String,
    steps: Steps,
    /// Records that cannot be used.
    set_aside: usize,
    lead: Lead,
    sentence: Sentence,
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
) -> Result<Option<(Asked, Sentence, Arc<RankingView>)>, Trouble> {
    let shelf = shared.shelf().await?;
    let asked = ask.resolve(&shelf.catalogue)?;
    if shelf.hulls.is_empty() {
        return Ok(None);
    }
    let answer = shared.ranking(&asked, &shelf, reader.caller).await?;
    let mut sentence = sentence::sentence(&asked, &shelf.catalogue, "/".to_owned(), reader.units);
    sentence.moved = moved(ask, &answer, &shelf, reader, shared, &[]).await?;
    let view = shared.view(answer, reader.units).await?;
    Ok(Some((asked, sentence, view)))
}

#[get("/", rank = 1)]
async fn ranking_page(
    wanted: Wanted,
    list: Shortlist,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<Answered<RankingPage>, EmptyPage>, Trouble> {
    let query = query_of(&ask);
    let here = format!("/{query}");
    let units = reader.units;
    let place = "ranking";
    let Some((asked, sentence, ranking)) = answer(&ask, reader, shared).await? else {
        return Ok(Err(EmptyPage {
            units,
            sun: reader.sun,
            here,
            place,
            query,
        }));
    };
    let shelf = shared.shelf().await?;
    let page = RankingPage {
        units,
        sun: reader.sun,
        here,
        place,
        query,
        steps: steps(shared, reader, None).await?,
        set_aside: shelf.catalogue.set_aside.len(),
        lead: Lead::of(&shelf, shared),
        sentence,
        order: Order::of(&ranking, wanted, &list, &ask),
        ranking,
    };
    Ok(Ok(answered(&asked, page)))
}

#[get("/part/ranking")]
async fn ranking_part(
    wanted: Wanted,
    list: Shortlist,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<Answered<RankingPart>, Status>, Trouble> {
    let Some((asked, sentence, ranking)) = answer(&ask, reader, shared).await? else {
        return Ok(Err(Status::NotFound));
    };
    let shelf = shared.shelf().await?;
    let page = RankingPart {
        query: query_of(&ask),
        steps: steps(shared, reader, None).await?,
        set_aside: shelf.catalogue.set_aside.len(),
        lead: Lead::of(&shelf, shared),
        sentence,
        order: Order::of(&ranking, wanted, &list, &ask),
        ranking,
    };
    Ok(Ok(answered(&asked, page)))
}

/// The ranking of a request in another presentation; metric like all of them.
async fn presented(
    ask: &Ask,
    reader: Reader,
    shared: &Shared,
    kind: ContentType,
    present: fn(&crate::answer::Answered) -> Option<String>,
) -> Result<Result<(ContentType, String), Status>, Trouble> {
    let shelf = shared.shelf().await?;
    let asked = ask.resolve(&shelf.catalogue)?;
    if !asked.errors.is_empty() {
        return Ok(Err(Status::UnprocessableEntity));
    }
    let answer = shared.ranking(&asked, &shelf, reader.caller).await?;
    let text = shared.work(reader.caller, move || present(&answer)).await?;
    Ok(text
        .map(|text| (kind, text))
        .ok_or(Status::InternalServerError))
}

#[get("/ranking.json")]
async fn ranking_json(
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<(ContentType, String), Status>, Trouble> {
    presented(&ask, reader, shared, ContentType::JSON, |answer| {
        serde_json::to_string(&Document::of(answer)).ok()
    })
    .await
}

#[get("/ranking.csv")]
async fn ranking_csv(
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<(ContentType, String), Status>, Trouble> {
    presented(&ask, reader, shared, ContentType::CSV, |answer| {
        crate::present::csv::ranking(answer).ok()
    })
    .await
}

pub(super) fn routes() -> Vec<Route> {
    routes![ranking_page, ranking_part, ranking_json, ranking_csv]
}
