//! The survey card, to be printed and taken along.

use super::ask::query_of;
use super::assets;
use super::edit::{self, address};
use super::reader::Reader;
use super::shared::{Shared, Trouble};
use crate::present::page::card::{self, CardView};
use crate::question::Ask;
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::System;
use rocket::http::Status;
use rocket::{Route, State, get, routes};

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "card.html")]
struct CardPage {
    units: System,
    sun: bool,
    here: String,
    place: &'static str,
    query: String,
    card: CardView,
}

impl CardPage {
    fn asset(&self, name: &str) -> String {
        assets::url(name)
    }
}

#[get("/hulls/<slug>/card")]
async fn page(
    slug: &str,
    ask: Ask,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<CardPage, Status>, Trouble> {
    let Some((survey, lines)) = edit::drawn(shared, slug).await? else {
        return Ok(Err(Status::NotFound));
    };
    let query = query_of(&ask);
    Ok(Ok(CardPage {
        units: reader.units,
        sun: reader.sun,
        here: address(&format!("/hulls/{slug}/card"), &query, &[]),
        place: "hull",
        query,
        card: card::card(&survey, lines.as_ref(), reader.units),
    }))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page]
}
