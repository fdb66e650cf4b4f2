//! Who reads: the units they chose, remembered in a cookie; until they choose,
//! the installation's own.

use super::caller::Caller;
use super::shared::Shared;
use super::who::Hand;
use crate::question::{units_from_key, units_key, units_said};
use galvet_core::base::System;
use rocket::form::Form;
use rocket::http::uri::Origin;
use rocket::http::{Cookie, CookieJar, Method, SameSite, Status};
use rocket::request::{FromRequest, Outcome};
use rocket::response::Redirect;
use rocket::time::{Duration, OffsetDateTime};
use rocket::{FromForm, Request, Route, post, routes};

/// The person before the page.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Reader {
    /// The units shown: their own. What a form sends is read, and answered, in those it
    /// was shown in, which its address says.
    pub(crate) units: System,
    /// The units in which bare numbers of this request were typed; SI where nobody says.
    pub(super) typed_in: Option<System>,
    /// Whether they read in bright sun.
    pub(super) sun: bool,
    /// Where the answer goes.
    pub(super) caller: Caller,
    /// Under what name they change something.
    pub(super) hand: Hand,
}

const COOKIE: &str = "galvet-units";
/// There while the reader has chosen the sunlight look.
const SUN: &str = "galvet-sunlight";

/// A cookie that remembers a choice for a year.
fn remembered(name: &'static str, choice: &'static str) -> Cookie<'static> {
    Cookie::build((name, choice))
        .path("/")
        .same_site(SameSite::Lax)
        .http_only(true)
        .max_age(Duration::days(365))
        .build()
}

#[rocket::async_trait]
impl<'r> FromRequest<'r> for Reader {
    type Error = std::convert::Infallible;

    async fn from_request(request: &'r Request<'_>) -> Outcome<Self, Self::Error> {
        Outcome::Success(Self::of(request))
    }
}

impl Reader {
    /// Who sent a request.
    pub(super) fn of(request: &Request<'_>) -> Self {
        let own = request
            .cookies()
            .get(COOKIE)
            .and_then(|cookie| units_from_key(cookie.value()))
            .or_else(|| request.rocket().state::<Shared>().map(Shared::units))
            .unwrap_or_default();
        let said = units_said(fields(request));
        let sends = request.method() != Method::Get;
        let units = said.filter(|_| sends).unwrap_or(own);
        Self {
            units,
            typed_in: said.or(sends.then_some(units)),
            sun: request.cookies().get(SUN).is_some(),
            caller: Caller::of(request),
            hand: Hand::of(request),
        }
    }
}

/// Names and values of a request's address.
pub(super) fn fields<'r>(request: &'r Request<'_>) -> impl Iterator<Item = (&'r str, String)> {
    request.query_fields().map(|field| {
        let name = field.name.as_name().as_str();
        (name, field.value.to_owned())
    })
}

/// Today, ISO 8601: the date of figures typed now.
pub(super) fn today() -> String {
    let now = OffsetDateTime::now_utc().date();
    format!(
        "{:04}-{:02}-{:02}",
        now.year(),
        u8::from(now.month()),
        now.day()
    )
}

/// Where a form came from, to go back there: only to a page of ours, never to
/// an address with a host in it.
pub(super) fn back_to(address: &str) -> Origin<'static> {
    Origin::parse_owned(address.to_owned())
        .ok()
        .filter(|_| !address.starts_with("//"))
        .unwrap_or_else(|| Origin::const_new("/", None))
}

#[derive(FromForm)]
struct UnitsForm<'r> {
    units: &'r str,
    back: &'r str,
}

/// Switches the units and goes back to where the reader was.
#[post("/settings/units", data = "<form>")]
fn set_units(form: Form<UnitsForm<'_>>, jar: &CookieJar<'_>) -> Result<Redirect, Status> {
    let units = units_from_key(form.units).ok_or(Status::UnprocessableEntity)?;
    jar.add(remembered(COOKIE, units_key(units)));
    Ok(Redirect::to(back_to(form.back)))
}

#[derive(FromForm)]
struct SunForm<'r> {
    sunlight: &'r str,
    back: &'r str,
}

/// Switches the sunlight look on or off and goes back to where the reader was.
#[post("/settings/sunlight", data = "<form>")]
fn set_sun(form: Form<SunForm<'_>>, jar: &CookieJar<'_>) -> Redirect {
    if form.sunlight == "on" {
        jar.add(remembered(SUN, "on"));
    } else {
        jar.remove(Cookie::build(SUN).path("/"));
    }
    Redirect::to(back_to(form.back))
}

pub(super) fn routes() -> Vec<Route> {
    routes![set_units, set_sun]
}
