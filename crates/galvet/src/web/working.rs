//! A page that takes longer than a page should: how far it is, until it is there.

use super::reader::Reader;
use super::waits::Waits;
use crate::present::page::ranking::sentence::sentence;
use crate::present::page::ranking::so_far::Best;
use askama::Template;
use askama_web::WebTemplate;
use rocket::Request;
use rocket::http::{Header, Status};
use rocket::response::{Responder, Result};

/// The page.
#[derive(Template, WebTemplate)]
#[template(path = "working.html")]
struct WorkingPage {
    /// Whether it is read in bright sun.
    sun: bool,
    /// The question as it stands in the address, and in words.
    query: String,
    said: String,
    /// Whether some of it was not understood.
    unclear: bool,
    done: usize,
    all: usize,
    passed: usize,
    best: Vec<Best>,
}

/// How far the page a request asks for is: accepted, not there yet.
pub(super) fn working(waits: &Waits, request: &Request<'_>) -> Result<'static> {
    let (reader, so_far) = (Reader::of(request), &waits.so_far);
    let query = request.uri().query();
    let here = request.uri().path().to_string();
    let catalogue = &waits.records.catalogue;
    let sentence = sentence(&waits.asked, catalogue, here, reader.units);
    let page = WorkingPage {
        sun: reader.sun,
        query: query.map_or(String::new(), |query| format!("?{query}")),
        said: sentence.said(),
        unclear: !waits.asked.errors.is_empty(),
        done: so_far.done,
        all: so_far.all,
        passed: so_far.passed,
        best: so_far.best(reader.units),
    };
    let mut response = (Status::Accepted, page).respond_to(request)?;
    // Never taken for the page itself.
    response.set_header(Header::new("Cache-Control", "no-store"));
    Ok(response)
}
