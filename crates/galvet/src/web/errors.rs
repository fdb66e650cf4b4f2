//! Errors as pages: what happened, what to do, and nothing of the inside.

use super::guard;
use super::reader::back_to;
use super::rules::fits;
use super::working::working;
use crate::web::trouble::Trouble;
use askama::Template;
use askama_web::WebTemplate;
use rocket::http::{Header, Status};
use rocket::response::Responder;
use rocket::{Catcher, Request, Route, catch, catchers, get, routes};
use std::borrow::Cow;

#[derive(Template, WebTemplate)]
#[template(path = "error.html")]
pub(super) struct ErrorPage {
    code: u16,
    title: &'static str,
    advice: Cow<'static, str>,
    /// Where to go on; the ranking where nothing is named.
    back: String,
    /// What that is called.
    onward: &'static str,
    /// A form by which it is done all the same; an empty address for none.
    form: Asking,
}

/// A form of one button, and what it sends.
#[derive(Default)]
pub(super) struct Asking {
    address: &'static str,
    button: &'static str,
    fields: Vec<(&'static str, String)>,
}

/// What the way on is called where nothing else is said.
const BACK: &str = "Back to where it was asked";

type Page = (Status, ErrorPage);

fn page(status: Status, title: &'static str, advice: &'static str) -> Page {
    (
        status,
        ErrorPage {
            code: status.code,
            title,
            advice: advice.into(),
            back: String::new(),
            onward: BACK,
            form: Asking::default(),
        },
    )
}

/// A page that says why something was not done.
pub(super) type Told = Page;

/// Says why something was not done, with the way back.
pub(super) fn told(status: Status, title: &'static str, why: String, back: &str) -> Told {
    let page = ErrorPage {
        code: status.code,
        title,
        advice: why.into(),
        back: back_to(back).to_string(),
        onward: BACK,
        form: Asking::default(),
    };
    (status, page)
}

/// The same with its way on called by what it leads to.
pub(super) fn with((status, page): Told, onward: &'static str) -> Told {
    (status, ErrorPage { onward, ..page })
}

/// The same with a form by which it is done all the same.
pub(super) fn asking(
    (status, page): Told,
    address: &'static str,
    (button, fields): (&'static str, &[(&'static str, &str)]),
) -> Told {
    let fields = fields
        .iter()
        .map(|(name, value)| (*name, (*value).to_owned()));
    let form = Asking {
        address,
        button,
        fields: fields.collect(),
    };
    (status, ErrorPage { form, ..page })
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
        405 => (
            "That cannot be done at this address",
            "It shows something, or takes something, but not what was asked. Nothing was changed.",
        ),
        414 => (
            "That address is too long",
            "A question has some twenty parts of a few letters each. Nothing was changed.",
        ),
        503 => (
            "Too many ask at once",
            "Others were served first. Nothing was changed; ask again in a few seconds.",
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

/// Seconds after which to ask again.
const AGAIN: &str = "3";

impl<'r> Responder<'r, 'static> for Trouble {
    fn respond_to(self, request: &'r Request<'_>) -> rocket::response::Result<'static> {
        let status = match self {
            Self::Ours => Status::InternalServerError,
            Self::Gone => Status::NotFound,
            Self::Busy => Status::ServiceUnavailable,
            Self::NothingToAsk => {
                let why = "A question is asked of a water, and none is on record. Put one in, or take one out of the trash.";
                return told(
                    Status::Conflict,
                    "There is no water to ask about",
                    why.to_owned(),
                    "/waters",
                )
                .respond_to(request);
            }
            Self::Working(waits) => return working(&waits, request),
        };
        let mut response = page_for(status).respond_to(request)?;
        if status == Status::ServiceUnavailable {
            response.set_header(Header::new("Retry-After", AGAIN));
        }
        Ok(response)
    }
}

/// Methods at which there is something under a path.
fn methods(request: &Request<'_>) -> Vec<&'static str> {
    let path: Vec<&str> = request.uri().path().segments().collect();
    let fits = |route: &&Route| fits(route.uri.path(), &path);
    let routes = request.rocket().routes().filter(fits);
    let mut found: Vec<&str> = routes.map(|r| r.method.as_str()).collect();
    found.sort_unstable();
    found.dedup();
    found
}

/// An error page, with what else can be done at this address.
struct Refusal {
    page: Page,
    allow: Option<String>,
}

impl<'r> Responder<'r, 'static> for Refusal {
    fn respond_to(self, request: &'r Request<'_>) -> rocket::response::Result<'static> {
        let mut response = self.page.respond_to(request)?;
        if let Some(allow) = self.allow {
            response.set_header(Header::new("Allow", allow));
        }
        Ok(response)
    }
}

#[catch(default)]
fn any(status: Status, request: &Request<'_>) -> Refusal {
    let methods = methods(request);
    let here = request.method().as_str();
    let wrong = status == Status::NotFound && !methods.is_empty() && !methods.contains(&here);
    // A head is answered wherever there is a page.
    if wrong && !(here == "HEAD" && methods.contains(&"GET")) {
        return Refusal {
            page: page_for(Status::MethodNotAllowed),
            allow: Some(methods.join(", ")),
        };
    }
    Refusal {
        page: page_for(status),
        allow: None,
    }
}

#[get("/refused/host")]
fn wrong_host() -> Page {
    page_for(Status::MisdirectedRequest)
}

#[get("/refused/origin")]
fn wrong_origin() -> Page {
    page_for(Status::Forbidden)
}

#[get("/refused/proxy")]
fn through_proxy() -> Told {
    let why = "A proxy passed this on, and nobody has an account here: whoever reaches the proxy could change everything. Start Galvet with --https and --host NAME, which asks for an owner first; docs/proxy.md says how.";
    told(
        Status::MisdirectedRequest,
        "This is served to this machine only",
        why.to_owned(),
        "",
    )
}

#[get("/refused/long")]
fn too_long() -> Page {
    page_for(Status::UriTooLong)
}

pub(super) fn catchers() -> Vec<Catcher> {
    catchers![any]
}

pub(super) fn routes() -> Vec<Route> {
    debug_assert_eq!(guard::WRONG_HOST, "/refused/host");
    debug_assert_eq!(guard::WRONG_ORIGIN, "/refused/origin");
    debug_assert_eq!(guard::TOO_LONG, "/refused/long");
    debug_assert_eq!(guard::THROUGH_PROXY, "/refused/proxy");
    routes![wrong_host, wrong_origin, too_long, through_proxy]
}

#[cfg(test)]
mod tests {
    use super::*;
    use rocket::local::blocking::Client;

    #[get("/busy")]
    fn busy() -> Result<&'static str, Trouble> {
        Err(Trouble::Busy)
    }

    #[get("/ours")]
    fn ours() -> Result<&'static str, Trouble> {
        Err(Trouble::Ours)
    }

    #[test]
    fn too_many_at_once_are_asked_to_come_again() {
        let rocket = rocket::build().mount("/", rocket::routes![busy, ours]);
        let client = Client::tracked(rocket).unwrap();
        let answer = client.get("/busy").dispatch();
        assert_eq!(answer.status(), Status::ServiceUnavailable);
        assert_eq!(answer.headers().get_one("Retry-After"), Some(AGAIN));
        let page = answer.into_string().unwrap();
        assert!(page.contains("<h1") && page.contains("again"), "{page}");
        let answer = client.get("/ours").dispatch();
        assert_eq!(answer.status(), Status::InternalServerError);
        assert_eq!(answer.headers().get_one("Retry-After"), None);
    }
}
