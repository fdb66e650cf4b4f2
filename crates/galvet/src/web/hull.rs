//! One hull's page, and its lines as offsets.

use super::ask::{Answered, answered, query_of};
use super::assets;
use super::moved::moved_on;
use super::reader::Reader;
use super::shared::{Shared, Trouble};
use crate::present::page::hull::{self, HullView};
use crate::present::page::sentence::{self, Sentence};
use crate::question::{Ask, Asked};
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::System;
use galvet_store::files::offsets;
use rocket::http::{ContentType, Status};
use rocket::{Route, State, get, routes};

/// A hull's page.
#[derive(Template, WebTemplate)]
#[template(path = "hull.html")]
struct HullPage {
    units: System,
    sun: bool,
    here: String,
    place: &'static str,
    query: String,
    sentence: Sentence,
    hull: HullView,
}

/// A hull page's changing part, for the script.
#[derive(Template, WebTemplate)]
#[template(path = "hull.html", block = "answer")]
struct HullPart {
    here: String,
    query: String,
    sentence: Sentence,
    hull: HullView,
}

impl HullPage {
    fn asset(&self, name: &str) -> String {
        assets::url(name)
    }
}

/// Sentence and view of one hull; `None` when there is no such hull.
async fn hull_of(
    slug: &str,
    ask: &Ask,
    reader: Reader,
    shared: &Shared,
) -> Result<Option<(Asked, Sentence, HullView)>, Trouble> {
    let shelf = shared.shelf().await?;
    let asked = ask.resolve(&shelf.catalogue)?;
    let Some(index) = shelf.hulls.iter().position(|h| h.survey.key == slug) else {
        return Ok(None);
    };
    let action = format!("/hulls/{slug}");
    let mut sentence = sentence::sentence(&asked, &shelf.catalogue, action, reader.units);
    let hull = &shelf.hulls[index];
    sentence.moved = moved_on(hull, ask, &asked, &shelf, reader, shared).await?;
    let (brief, desk) = (asked.brief.clone(), shared.desk.clone());
    let view = shared.work(reader.caller, move || {
        let afloat = desk.afloat(&shelf.hulls[index], &brief);
        let brief = desk.yardstick(&brief, &shelf.hulls);
        hull::hull(&shelf.catalogue.hulls[index], &afloat, &brief, reader.units)
    });
    Ok(Some((asked, sentence, view.await?)))
}

#[get("/hulls/<slug>")]
async fn hull_page(
    slug: &str,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<Answered<HullPage>, Status>, Trouble> {
    let Some((asked, sentence, hull)) = hull_of(slug, &ask, reader, shared).await? else {
        return Ok(Err(Status::NotFound));
    };
    let query = query_of(&ask);
    let page = HullPage {
        units: reader.units,
        sun: reader.sun,
        here: format!("/hulls/{}{query}", hull.key),
        place: "hull",
        query,
        sentence,
        hull,
    };
    Ok(Ok(answered(&asked, page)))
}

#[get("/part/hulls/<slug>")]
async fn hull_part(
    slug: &str,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<Answered<HullPart>, Status>, Trouble> {
    let Some((asked, sentence, hull)) = hull_of(slug, &ask, reader, shared).await? else {
        return Ok(Err(Status::NotFound));
    };
    let query = query_of(&ask);
    let page = HullPart {
        here: format!("/hulls/{}{query}", hull.key),
        query,
        sentence,
        hull,
    };
    Ok(Ok(answered(&asked, page)))
}

/// The lines of the middle shape, or the measured ones, as offsets.
#[get("/hulls/<slug>/offsets.csv")]
async fn hull_offsets(
    slug: &str,
    shared: &State<Shared>,
) -> Result<Result<(ContentType, String), Status>, Trouble> {
    let shelf = shared.shelf().await?;
    let Some(hull) = shelf.hulls.iter().find(|h| h.survey.key == slug).cloned() else {
        return Ok(Err(Status::NotFound));
    };
    let desk = shared.desk.clone();
    let text = rocket::tokio::task::spawn_blocking(move || {
        let shapes = desk.shapes(&hull).ok()?;
        let stations = shapes.form.stations(&shapes.middle(), &hull.survey.offsets);
        Some(offsets::write(&stations))
    });
    let text = text.await?.ok_or(Status::NotFound);
    Ok(text.map(|text| (ContentType::CSV, text)))
}

pub(super) fn routes() -> Vec<Route> {
    routes![hull_page, hull_part, hull_offsets]
}
