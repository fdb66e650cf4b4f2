//! The tour: four places worth a look, each in the application itself.

use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::question::Ask;
use askama::Template;
use askama_web::WebTemplate;
use rocket::{Route, get, routes};

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "tour.html")]
struct TourPage {
    frame: Frame,
    /// The hull that is first for the usual question: slug and name.
    first: (String, String),
}

#[get("/tour")]
async fn page(visit: Visit<'_>) -> Result<TourPage, Trouble> {
    let (reader, shared) = (visit.reader, visit.shared);
    let records = shared.records().await?;
    let asked = Ask::default().resolve(&records.catalogue)?;
    let answer = shared.ranking(&asked, &records, reader.caller).await?;
    let first = answer.ranking.ranked.first().ok_or(Trouble::Gone)?;
    let survey = first.survey();
    Ok(TourPage {
        frame: visit.frame("tour", "/tour".to_owned()),
        first: (survey.key.clone(), survey.name()),
    })
}

pub(super) fn routes() -> Vec<Route> {
    routes![page]
}
