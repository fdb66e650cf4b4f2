//! "How Galvet reckons": the guide values.

use super::ask::query_of;
use super::assets;
use super::reader::Reader;
use super::shared::Shared;
use crate::present::page::reckons::{GuideSection, table};
use crate::question::Ask;
use askama::Template;
use askama_web::WebTemplate;
use galvet_core::base::System;
use rocket::response::content::RawText;
use rocket::{Route, State, get, routes};

#[derive(Template, WebTemplate)]
#[template(path = "reckons.html")]
struct ReckonsPage {
    units: System,
    sun: bool,
    here: String,
    place: &'static str,
    query: String,
    sections: Vec<GuideSection>,
}

impl ReckonsPage {
    fn asset(&self, name: &str) -> String {
        assets::url(name)
    }
}

#[get("/reckons")]
fn reckons(ask: Ask, reader: Reader, shared: &State<Shared>) -> ReckonsPage {
    let query = query_of(&ask);
    ReckonsPage {
        units: reader.units,
        sun: reader.sun,
        here: format!("/reckons{query}"),
        place: "reckons",
        query,
        sections: table(shared.desk.guides(), reader.units),
    }
}

/// What the figures were held against, as the repository keeps it.
const VALIDATION: &str = include_str!("../../../../docs/validation.md");

#[get("/validation")]
const fn validation() -> RawText<&'static str> {
    RawText(VALIDATION)
}

pub(super) fn routes() -> Vec<Route> {
    routes![reckons, validation]
}
