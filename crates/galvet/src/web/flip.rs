//! What would change the winner: looked for by ranking anew.

use super::moved::moved;
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::present::page::ranking::flip::{FlipView, view};
use crate::present::page::ranking::sentence::{self, Sentence};
use askama::Template;
use askama_web::WebTemplate;
use rocket::{Route, get, routes};

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "flip.html")]
struct FlipPage {
    frame: Frame,
    sentence: Sentence,
    flip: Option<FlipView>,
    /// Whether all was looked at.
    whole: bool,
}

#[get("/flip")]
async fn page(visit: Visit<'_>) -> Result<FlipPage, Trouble> {
    let (ask, reader, shared) = (&visit.ask, visit.reader, visit.shared);
    let records = shared.records().await?;
    let asked = ask.resolve(&records.catalogue)?;
    let answer = shared.ranking(&asked, &records, reader.caller).await?;
    let path = "/flip".to_owned();
    let mut sentence = sentence::sentence(&asked, &records.catalogue, path, reader.units);
    sentence.moved = moved(&visit, &answer, &records, &[]).await?;
    let name = |key: &str| {
        let hull = records.hulls.iter().find(|h| h.survey.key == key);
        hull.map_or(key.to_owned(), |h| h.survey.name())
    };
    let told = shared.looks.flips(&asked, &records).await?;
    let flip = told
        .found
        .map(|flips| view(&flips, &asked.brief, &name, reader.units));
    Ok(FlipPage {
        frame: visit.frame("ranking", visit.to("/flip", &[])),
        sentence,
        flip,
        whole: told.whole,
    })
}

pub(super) fn routes() -> Vec<Route> {
    routes![page]
}
