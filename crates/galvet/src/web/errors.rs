//! Errors as pages: what happened, what to do, and nothing of the inside.

use super::{assets, guard};
use crate::web::shared::Trouble;
use askama::Template;
use askama_web::WebTemplate;
use rocket::http::Status;
use rocket::response::Responder;
use rocket::{Catcher, Request, Route, catch, catchers, get, routes};

#[derive(Template, WebTemplate)]
#[template(path = "error.html")]
struct ErrorPage {
    code: u16,
    title: &'static str,
    advice: &'static str,
}

impl ErrorPage {
    fn asset(&self, name: &str) -> String {
        assets::url(name)
    }
}

type Page = (Status, ErrorPage);

fn page(status: Status, title: &'static str, advice: &'static str) -> Page {
    (
        status,
        ErrorPage {
            code: status.code,
            title,
            advice,
        },
    )
}

/// The page for a status.
fn page_for(status: Status) -> Page {
    let (title, advice) = match status.code {
        403 => (
            "That change was not made",
            "It was asked for by another site, or by a browser that does not say who asks. Go to the page itself and try again there.",
        ),
        404 => (
            "There is nothing at this address",
            "The hull or page may have been removed, or the address was cut short. The ranking is still there.",
        ),
        413 => (
            "That was too much at once",
            "What was sent is larger than this page accepts. Nothing was changed.",
        ),
        421 => (
            "This server does not go by that name",
            "Use the address printed when Galvet started. If it should answer to another name, start it with --host NAME.",
        ),
        422 | 400 => (
            "Something in that was not understood",
            "Nothing was changed. Go back, look over what was filled in, and try again.",
        ),
        _ => (
            "Galvet could not do that",
            "The trouble is on this side and is noted where Galvet runs. Nothing was changed; try again, or start it anew.",
        ),
    };
    page(status, title, advice)
}

impl<'r> Responder<'r, 'static> for Trouble {
    fn respond_to(self, request: &'r Request<'_>) -> rocket::response::Result<'static> {
        page_for(Status::InternalServerError).respond_to(request)
    }
}

#[catch(default)]
fn any(status: Status, _: &Request<'_>) -> Page {
    page_for(status)
}

#[get("/refused/host")]
fn wrong_host() -> Page {
    page_for(Status::MisdirectedRequest)
}

#[get("/refused/origin")]
fn wrong_origin() -> Page {
    page_for(Status::Forbidden)
}

pub(super) fn catchers() -> Vec<Catcher> {
    catchers![any]
}

pub(super) fn routes() -> Vec<Route> {
    debug_assert_eq!(guard::WRONG_HOST, "/refused/host");
    debug_assert_eq!(guard::WRONG_ORIGIN, "/refused/origin");
    routes![wrong_host, wrong_origin]
}
