//! The tour: four places worth a look, each in the application itself.

use super::assets;
use super::reader::Reader;
use super::shared::{Shared, Trouble};
use crate::question::Ask;
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::System;
use rocket::http::Status;
use rocket::{Route, State, get, routes};

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "tour.html")]
struct TourPage {
    units: System,
    sun: bool,
    here: String,
    place: &'static str,
    query: String,
    /// The hull that is first for the usual question: slug and name.
    first: (String, String),
}

impl TourPage {
    fn asset(&self, name: &str) -> String {
        assets::url(name)
    }
}

#[get("/tour")]
async fn page(reader: Reader, shared: &State<Shared>) -> Result<Result<TourPage, Status>, Trouble> {
    let shelf = shared.shelf().await?;
    let asked = Ask::default().resolve(&shelf.catalogue)?;
    let answer = shared.ranking(&asked, &shelf, reader.caller).await?;
    let Some(first) = answer.ranking.ranked.first() else {
        return Ok(Err(Status::NotFound));
    };
    let survey = first.survey();
    Ok(Ok(TourPage {
        units: reader.units,
        sun: reader.sun,
        here: "/tour".to_owned(),
        place: "tour",
        query: String::new(),
        first: (survey.key.clone(), survey.name()),
    }))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page]
}
