//! What would change the winner: looked for by ranking anew.

use super::ask::query_of;
use super::assets;
use super::edit::address;
use super::moved::moved;
use super::reader::Reader;
use super::shared::{Shared, Trouble};
use crate::present::page::flip::{FlipView, view};
use crate::present::page::sentence::{self, Sentence};
use crate::question::Ask;
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::System;
use rocket::http::Status;
use rocket::{Route, State, get, routes};

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "flip.html")]
struct FlipPage {
    units: System,
    sun: bool,
    here: String,
    place: &'static str,
    query: String,
    sentence: Sentence,
    flip: Option<FlipView>,
}

impl FlipPage {
    fn asset(&self, name: &str) -> String {
        assets::url(name)
    }
}

#[get("/flip")]
async fn page(
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<FlipPage, Status>, Trouble> {
    let shelf = shared.shelf().await?;
    let asked = ask.resolve(&shelf.catalogue)?;
    let answer = shared.ranking(&asked, &shelf, reader.caller).await?;
    let path = "/flip".to_owned();
    let mut sentence = sentence::sentence(&asked, &shelf.catalogue, path, reader.units);
    sentence.moved = moved(&ask, &answer, &shelf, reader, shared, &[]).await?;
    let name = |key: &str| {
        let hull = shelf.hulls.iter().find(|h| h.survey.key == key);
        hull.map_or(key.to_owned(), |h| h.survey.name())
    };
    let found = shared.flips(&asked, &shelf, reader.caller).await?;
    let flip = found.map(|flips| view(&flips, &asked.brief, &name, reader.units));
    let query = query_of(&ask);
    Ok(Ok(FlipPage {
        units: reader.units,
        sun: reader.sun,
        here: address("/flip", &query, &[]),
        place: "ranking",
        query,
        sentence,
        flip,
    }))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page]
}
