//! The main page: the hulls ranked; also as JSON and as CSV.

use super::address::more;
use super::answered::{Answered, Part, answered};
use super::moved::moved;
use super::reader::fields;
use super::records::Records;
use super::shared::Shared;
use super::shortlist::Shortlist;
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::present::columns::COLUMNS;
use crate::present::json::Document;
use crate::present::page::paged::Paged;
use crate::present::page::ranking::RankingView;
use crate::present::page::ranking::sentence::{self, Sentence};
use crate::present::page::ranking::sift::{Sieve, Sifted, Wanted, sift};
use crate::shop::{Shelf, shelves};
use askama::Template;
use askama_web::WebTemplate;
use galvet_store::SavedBrief;
use rocket::http::{ContentType, Status};
use rocket::request::{FromRequest, Outcome};
use rocket::{Request, Route, get, routes};
use std::collections::BTreeMap;
use std::convert::Infallible;
use std::sync::Arc;

/// The main page.
#[derive(Template, WebTemplate)]
#[template(path = "ranking.html", blocks = ["answer"])]
struct RankingPage {
    frame: Frame,
    /// Records that cannot be used.
    set_aside: usize,
    lead: Lead,
    /// The saved question it started from.
    from: Option<SavedBrief>,
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
    fn of(records: &Records, shared: &Shared) -> Self {
        Self {
            wanted: FIRST_HULLS.saturating_sub(records.hulls.len()),
            tour: shared.simulates,
        }
    }
}

/// A column rows can be put in order by.
struct Offered {
    key: &'static str,
    label: &'static str,
    /// Whether they are; whether it breaks ties.
    by: bool,
    ties: bool,
    /// Whether it takes a while to work out.
    slow: bool,
}

/// Which rows stand there, in which order.
struct Order {
    sieve: Sieve,
    wanted: Wanted,
    /// Columns: word, label, whether rows stand in its order, whether it breaks ties.
    columns: Vec<Offered>,
    /// The shortlist's hulls that are known: slug and name.
    list: Vec<(String, String)>,
    /// This page's address with order and limits, to come back to.
    whole: String,
    /// The same without limits.
    all: String,
    /// Which of the rows are shown, and of the hulls ruled out; how to those before and
    /// the next ones.
    page: Paged,
    beside: [Option<String>; 2],
    out: Paged,
    out_beside: [Option<String>; 2],
    /// What the shop has, by hull.
    shelves: BTreeMap<String, Shelf>,
}

impl Order {
    fn of(
        ranking: &RankingView,
        (wanted, list): (Wanted, &Shortlist),
        shelves: BTreeMap<String, Shelf>,
        query: &str,
    ) -> Self {
        let rows: Vec<Sifted<'_>> = ranking
            .rows
            .iter()
            .map(|r| Sifted {
                cells: &r.columns,
                beats_next: r.beats_next,
                listed: list.has(&r.key),
                here: shelves.get(&r.key).is_some_and(|shelf| shelf.here),
            })
            .collect();
        let ranked = ranking.rows.iter().map(|r| (&r.key, &r.name));
        let known = ranked.chain(ranking.out.iter().map(|o| (&o.key, &o.name)));
        let known: BTreeMap<&String, &String> = known.collect();
        let named = |slug: &String| known.get(slug).map(|name| (slug.clone(), (*name).clone()));
        let along = |limits| format!("/{}", more(query, wanted.pairs(limits)));
        let sieve = sift(&rows, &wanted);
        let page = Paged::of(sieve.rows.len(), wanted.from);
        let out = Paged::of(ranking.out.len(), wanted.out_from);
        let at = |name: &str, from: Option<usize>, there: &str| {
            let mut pairs = wanted.pairs(true);
            pairs.push((name.to_owned(), from?.to_string()));
            Some(format!("/{}#{there}", more(query, pairs)))
        };
        Self {
            page,
            beside: page.beside().map(|from| at("from", from, "ranked")),
            out,
            out_beside: out.beside().map(|from| at("out-from", from, "below")),
            sieve,
            columns: COLUMNS
                .iter()
                .map(|c| Offered {
                    key: c.key(),
                    label: c.label,
                    by: wanted.by == c.key(),
                    ties: wanted.ties == c.key(),
                    slow: c.which.of_the_pond(),
                })
                .collect(),
            list: list.slugs().iter().filter_map(named).collect(),
            whole: along(true),
            all: along(false),
            wanted,
            shelves,
        }
    }

    /// What the shop has of a hull; `None` where nobody said.
    fn shelf(&self, slug: &str) -> Option<&Shelf> {
        self.shelves.get(slug)
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

#[rocket::async_trait]
impl<'r> FromRequest<'r> for Wanted {
    type Error = Infallible;

    async fn from_request(request: &'r Request<'_>) -> Outcome<Self, Self::Error> {
        Outcome::Success(Self::of(fields(request)))
    }
}

/// Records without hulls or waters.
#[derive(Template, WebTemplate)]
#[template(path = "empty.html")]
struct EmptyPage {
    frame: Frame,
}

/// The page; `Err` the one of an installation with nothing to ask about.
async fn ranking_page(
    wanted: Wanted,
    list: &Shortlist,
    visit: &Visit<'_>,
) -> Result<Result<Answered<RankingPage>, EmptyPage>, Trouble> {
    let (ask, reader, shared) = (&visit.ask, visit.reader, visit.shared);
    let records = shared.records().await?;
    let asked = ask.resolve(&records.catalogue)?;
    let here = visit.to("/", &[]);
    if records.hulls.is_empty() {
        let frame = visit.frame("ranking", here);
        return Ok(Err(EmptyPage { frame }));
    }
    let answer = shared.ranking(&asked, &records, reader.caller).await?;
    let mut sentence = sentence::sentence(&asked, &records.catalogue, "/".to_owned(), reader.units);
    sentence.moved = moved(visit, &answer, &records, &[]).await?;
    let ranking = shared.view(answer, (reader.units, wanted.deep())).await?;
    let page = RankingPage {
        frame: visit.frame_of("ranking", here, None).await?,
        set_aside: records.catalogue.set_aside.len(),
        lead: Lead::of(&records, shared),
        from: ask.start.as_ref().and_then(|key| {
            let mut saved = records.catalogue.briefs.iter();
            saved.find(|b| b.key == *key).cloned()
        }),
        sentence,
        order: Order::of(
            &ranking,
            (wanted, list),
            shelves(&records.catalogue, reader.units),
            &visit.query,
        ),
        ranking,
    };
    Ok(Ok(answered(&asked, page)))
}

#[get("/", rank = 1)]
async fn page(
    wanted: Wanted,
    list: Shortlist,
    visit: Visit<'_>,
) -> Result<Result<Answered<RankingPage>, EmptyPage>, Trouble> {
    ranking_page(wanted, &list, &visit).await
}

#[get("/part/ranking")]
async fn part(
    wanted: Wanted,
    list: Shortlist,
    visit: Visit<'_>,
) -> Result<Answered<Part>, Trouble> {
    let page = ranking_page(wanted, &list, &visit).await?;
    let page = page.map_err(|_| Trouble::Gone)?;
    page.part(|page| Part::of(&page.as_answer()))
}

/// The ranking of a request in another presentation; metric like all of them.
async fn presented(
    visit: &Visit<'_>,
    kind: ContentType,
    present: fn(&crate::answer::Answered) -> Option<String>,
) -> Result<Result<(ContentType, String), Status>, Trouble> {
    let (reader, shared) = (visit.reader, visit.shared);
    let records = shared.records().await?;
    let asked = visit.ask.resolve(&records.catalogue)?;
    if !asked.errors.is_empty() {
        return Ok(Err(Status::UnprocessableEntity));
    }
    let answer = shared.ranking(&asked, &records, reader.caller).await?;
    let text = shared.work(reader.caller, move || present(&answer)).await?;
    Ok(text
        .map(|text| (kind, text))
        .ok_or(Status::InternalServerError))
}

#[get("/ranking.json")]
async fn ranking_json(visit: Visit<'_>) -> Result<Result<(ContentType, String), Status>, Trouble> {
    presented(&visit, ContentType::JSON, |answer| {
        serde_json::to_string(&Document::of(answer)).ok()
    })
    .await
}

#[get("/ranking.csv")]
async fn ranking_csv(visit: Visit<'_>) -> Result<Result<(ContentType, String), Status>, Trouble> {
    presented(&visit, ContentType::CSV, |answer| {
        crate::present::csv::ranking(answer).ok()
    })
    .await
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, part, ranking_json, ranking_csv]
}
