//! Methods: the formulas, and the guide values.

use super::visit::{Frame, Visit};
use crate::present::page::hulls::formula::{METHODS, Method};
use crate::present::page::reckons::{GuideSection, table};
use askama::Template;
use askama_web::WebTemplate;
use rocket::response::content::RawText;
use rocket::{Route, get, routes};

#[derive(Template, WebTemplate)]
#[template(path = "reckons.html")]
struct ReckonsPage {
    frame: Frame,
    methods: &'static [Method],
    sections: Vec<GuideSection>,
}

#[get("/reckons")]
fn reckons(visit: Visit<'_>) -> ReckonsPage {
    let (reader, shared) = (visit.reader, visit.shared);
    ReckonsPage {
        frame: visit.frame("reckons", visit.to("/reckons", &[])),
        methods: &METHODS,
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
