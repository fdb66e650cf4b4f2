//! The survey card, to be printed and taken along.

use super::edit;
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::present::page::survey::card::{self, CardView};
use askama::Template;
use askama_web::WebTemplate;
use rocket::{Route, get, routes};

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "card.html")]
struct CardPage {
    frame: Frame,
    card: CardView,
}

#[get("/hulls/<slug>/card")]
async fn page(slug: &str, visit: Visit<'_>) -> Result<CardPage, Trouble> {
    let (reader, shared) = (visit.reader, visit.shared);
    let (survey, lines) = edit::drawn(shared, slug).await?;
    Ok(CardPage {
        frame: visit.frame("hull", visit.to(&format!("/hulls/{slug}/card"), &[])),
        card: card::card(&survey, lines.as_ref(), reader.units),
    })
}

pub(super) fn routes() -> Vec<Route> {
    routes![page]
}
