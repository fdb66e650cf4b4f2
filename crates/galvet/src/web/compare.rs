//! Hulls side by side under the same question.

use super::ask::{Answered, answered, query_of};
use super::assets;
use super::edit::address;
use super::reader::Reader;
use super::shared::{Shared, Trouble};
use crate::answer::{Way, outcome};
use crate::present::page::sentence::{self, Sentence};
use crate::present::page::variants::{SideBySide, side_by_side};
use crate::question::{Ask, Asked};
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::System;
use rocket::http::Status;
use rocket::{Route, State, get, routes};

/// Hulls that fit side by side.
const MOST: usize = 4;

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "compare.html")]
struct ComparePage {
    units: System,
    sun: bool,
    here: String,
    place: &'static str,
    query: String,
    sentence: Sentence,
    /// Keys of the hulls, as they travel along.
    keys: Vec<String>,
    /// Hulls asked for beyond those that fit.
    left_out: usize,
    table: SideBySide,
}

/// The page's changing part, for the script.
#[derive(Template, WebTemplate)]
#[template(path = "compare.html", block = "answer")]
struct ComparePart {
    query: String,
    sentence: Sentence,
    keys: Vec<String>,
    left_out: usize,
    table: SideBySide,
}

impl ComparePage {
    fn asset(&self, name: &str) -> String {
        assets::url(name)
    }
}

async fn part_of(
    hulls: Vec<String>,
    ask: &Ask,
    reader: Reader,
    shared: &Shared,
) -> Result<Option<(Asked, ComparePart)>, Trouble> {
    let shelf = shared.shelf().await?;
    let Ok(asked) = ask.resolve(&shelf.catalogue, reader.units) else {
        return Ok(None);
    };
    let mut keys: Vec<String> = Vec::new();
    for key in hulls {
        let known = shelf.hulls.iter().any(|h| h.survey.key == key);
        if known && !keys.contains(&key) {
            keys.push(key);
        }
    }
    let left_out = keys.len().saturating_sub(MOST);
    keys.truncate(MOST);
    let answer = shared.ranking(&asked, &shelf, reader.caller).await?;
    let path = "/compare".to_owned();
    let sentence = sentence::sentence(&asked, &shelf.catalogue, path, reader.units);
    let (desk, brief, wanted) = (shared.desk.clone(), asked.brief.clone(), keys.clone());
    let made = shared.work(reader.caller, move || {
        let hulls = wanted.iter();
        let hulls = hulls.filter_map(|key| shelf.hulls.iter().find(|h| h.survey.key == *key));
        let outcomes: Vec<_> = hulls
            .map(|hull| Way {
                name: hull.survey.name(),
                hull: hull.clone(),
                seat: None,
            })
            .map(|way| outcome(&desk, way, &brief, &answer))
            .collect();
        side_by_side(&outcomes, reader.units)
    });
    let table = made.await?;
    let part = ComparePart {
        query: query_of(ask),
        sentence,
        keys,
        left_out,
        table,
    };
    Ok(Some((asked, part)))
}

#[get("/compare?<hull>")]
async fn page(
    hull: Vec<String>,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<Answered<ComparePage>, Status>, Trouble> {
    let Some((asked, part)) = part_of(hull, &ask, reader, shared).await? else {
        return Ok(Err(Status::NotFound));
    };
    let pairs: Vec<(&str, &str)> = part.keys.iter().map(|k| ("hull", k.as_str())).collect();
    let page = ComparePage {
        units: reader.units,
        sun: reader.sun,
        here: address("/compare", &part.query, &pairs),
        place: "compare",
        query: part.query,
        sentence: part.sentence,
        keys: part.keys,
        left_out: part.left_out,
        table: part.table,
    };
    Ok(Ok(answered(&asked, page)))
}

#[get("/part/compare?<hull>")]
async fn part(
    hull: Vec<String>,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<Answered<ComparePart>, Status>, Trouble> {
    let Some((asked, part)) = part_of(hull, &ask, reader, shared).await? else {
        return Ok(Err(Status::NotFound));
    };
    Ok(Ok(answered(&asked, part)))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, part]
}
