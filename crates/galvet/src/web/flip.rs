//! What would change the winner: looked for by ranking anew.

use super::moved::moved;
use super::shared::Trouble;
use super::visit::{Frame, Visit};
use crate::present::page::flip::{FlipView, view};
use crate::present::page::sentence::{self, Sentence};
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
}

#[get("/flip")]
async fn page(visit: Visit<'_>) -> Result<FlipPage, Trouble> {
    let (ask, reader, shared) = (&visit.ask, visit.reader, visit.shared);
    let shelf = shared.shelf().await?;
    let asked = ask.resolve(&shelf.catalogue)?;
    let answer = shared.ranking(&asked, &shelf, reader.caller).await?;
    let path = "/flip".to_owned();
    let mut sentence = sentence::sentence(&asked, &shelf.catalogue, path, reader.units);
    sentence.moved = moved(&visit, &answer, &shelf, &[]).await?;
    let name = |key: &str| {
        let hull = shelf.hulls.iter().find(|h| h.survey.key == key);
        hull.map_or(key.to_owned(), |h| h.survey.name())
    };
    let found = shared.flips(&asked, &shelf, reader.caller).await?;
    let flip = found.map(|flips| view(&flips, &asked.brief, &name, reader.units));
    Ok(FlipPage {
        frame: visit.frame("ranking", visit.to("/flip", &[])),
        sentence,
        flip,
    })
}

pub(super) fn routes() -> Vec<Route> {
    routes![page]
}
