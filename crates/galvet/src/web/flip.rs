//! What would change the winner: looked for by ranking anew.

use super::ask::query_of;
use super::assets;
use super::edit::address;
use super::reader::Reader;
use super::shared::{Shared, Trouble};
use crate::answer::Unwanted;
use crate::present::page::flip::{FlipView, view};
use crate::present::page::sentence::{self, Sentence};
use crate::question::Ask;
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::advise::flip::flips;
use galvet_core::base::System;
use rocket::http::Status;
use rocket::{Route, State, get, routes};
use std::sync::Arc;

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
    let Ok(asked) = ask.resolve(&shelf.catalogue, reader.units) else {
        return Ok(Err(Status::NotFound));
    };
    let answer = shared.ranking(&asked, &shelf, reader.caller).await?;
    let sentence = sentence::sentence(&asked, &shelf.catalogue, "/".to_owned(), reader.units);
    let (desk, brief) = (shared.desk.clone(), asked.brief);
    let found = shared.work_watched(reader.caller, move |watch| {
        let Some(now) = answer.ranking.ranked.first() else {
            return Ok(None);
        };
        let first = |brief: &_| -> Result<Option<String>, Unwanted> {
            let answer = desk.ranking(&Arc::new(Clone::clone(brief)), &shelf.hulls, watch)?;
            let first = answer.ranking.ranked.first();
            Ok(first.map(|r| r.survey().key.clone()))
        };
        let found = flips(&brief, &now.survey().key, &first)?;
        let name = |key: &str| {
            let hull = shelf.hulls.iter().find(|h| h.survey.key == key);
            hull.map_or(key.to_owned(), |h| h.survey.name())
        };
        Ok(Some(view(
            &now.survey().name(),
            &brief,
            found,
            &name,
            reader.units,
        )))
    });
    // Nobody is there to read why.
    let flip = found.await?.map_err(|_: Unwanted| Trouble::Busy)?;
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
