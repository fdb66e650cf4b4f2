//! The survey card, to be printed and taken along.

use super::edit;
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use super::visitor::Base;
use crate::present::draw::code::{CodeView, code};
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
    /// The hull's own address, and a code of it that a phone reads.
    address: String,
    code: Option<CodeView>,
    /// Whether that address leads nowhere but on this machine.
    here: bool,
}

#[get("/hulls/<slug>/card")]
async fn page(slug: &str, base: Base, visit: Visit<'_>) -> Result<CardPage, Trouble> {
    let (reader, shared) = (visit.reader, visit.shared);
    let (survey, lines) = edit::drawn(shared, slug).await?;
    let address = format!("{}/hulls/{slug}", base.0);
    Ok(CardPage {
        here: base.is_here(),
        code: code(&address),
        address,
        frame: visit.frame("hull", visit.to(&format!("/hulls/{slug}/card"), &[])),
        card: card::card(&survey, lines.as_ref(), reader.units),
    })
}

pub(super) fn routes() -> Vec<Route> {
    routes![page]
}
