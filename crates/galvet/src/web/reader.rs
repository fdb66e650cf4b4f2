//! Who reads: the units they chose, remembered in a cookie; until they choose,
//! the installation's own.

use super::state::Shared;
use galvet_core::units::System;
use rocket::Request;
use rocket::http::{Cookie, SameSite};
use rocket::request::{FromRequest, Outcome};
use rocket::time::Duration;

/// The person before the page.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Reader {
    pub(crate) units: System,
}

const COOKIE: &str = "galvet-units";

/// The word used in cookie and form.
pub(crate) const fn units_key(system: System) -> &'static str {
    match system {
        System::Metric => "metric",
        System::Imperial => "imperial",
    }
}

/// The system a word names.
pub(crate) fn units_from_key(key: &str) -> Option<System> {
    [System::Metric, System::Imperial]
        .into_iter()
        .find(|&s| units_key(s) == key)
}

/// A cookie that remembers the units for a year.
pub(crate) fn units_cookie(system: System) -> Cookie<'static> {
    Cookie::build((COOKIE, units_key(system)))
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
        let units = request
            .cookies()
            .get(COOKIE)
            .and_then(|cookie| units_from_key(cookie.value()))
            .or_else(|| request.rocket().state::<Shared>().map(Shared::units))
            .unwrap_or_default();
        Outcome::Success(Self { units })
    }
}
