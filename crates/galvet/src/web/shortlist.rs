//! The shortlist: hulls a reader has put aside, remembered in a cookie like the units;
//! it stays whatever is asked.

use super::reader::back_to;
use rocket::form::Form;
use rocket::http::{Cookie, CookieJar, SameSite};
use rocket::request::{FromRequest, Outcome};
use rocket::response::Redirect;
use rocket::time::Duration;
use rocket::{FromForm, Request, Route, post, routes};
use std::convert::Infallible;

const COOKIE: &str = "galvet-shortlist";
/// Most hulls on it: a cookie holds four kilobytes.
const MOST: usize = 40;

/// Slugs of the hulls on it, in the order in which they were put there.
#[derive(Debug, Clone, Default, PartialEq)]
pub(super) struct Shortlist(Vec<String>);

impl Shortlist {
    fn of(cookie: &str) -> Self {
        let usable = |slug: &&str| {
            let plain = |c: char| c.is_ascii_alphanumeric() || c == '-';
            !slug.is_empty() && slug.len() <= 90 && slug.chars().all(plain)
        };
        let mut out = Self::default();
        for slug in cookie.split('.').filter(usable).take(MOST) {
            out.put(slug);
        }
        out
    }

    fn put(&mut self, slug: &str) {
        if !self.has(slug) && self.0.len() < MOST {
            self.0.push(slug.to_owned());
        }
    }

    /// Whether a hull is on it.
    pub(super) fn has(&self, slug: &str) -> bool {
        self.0.iter().any(|s| s == slug)
    }

    /// The hulls on it.
    pub(super) fn slugs(&self) -> &[String] {
        &self.0
    }
}

#[rocket::async_trait]
impl<'r> FromRequest<'r> for Shortlist {
    type Error = Infallible;

    async fn from_request(request: &'r Request<'_>) -> Outcome<Self, Self::Error> {
        let cookie = request.cookies().get(COOKIE);
        Outcome::Success(cookie.map_or_else(Self::default, |c| Self::of(c.value())))
    }
}

#[derive(FromForm)]
struct Change<'r> {
    /// Put on.
    on: Option<&'r str>,
    /// Take off.
    off: Option<&'r str>,
    /// Take all off.
    clear: Option<bool>,
    back: &'r str,
}

#[post("/shortlist", data = "<form>")]
fn change(form: Form<Change<'_>>, list: Shortlist, cookies: &CookieJar<'_>) -> Redirect {
    let mut list = list;
    let on = Shortlist::of(form.on.unwrap_or_default());
    for slug in on.slugs() {
        list.put(slug);
    }
    list.0.retain(|s| Some(s.as_str()) != form.off);
    if form.clear == Some(true) {
        list.0.clear();
    }
    let kept = Cookie::build((COOKIE, list.0.join(".")))
        .path("/")
        .same_site(SameSite::Lax)
        .http_only(true)
        .max_age(Duration::days(365));
    cookies.add(kept);
    // Back to the hull where the button stood.
    let (address, mark) = form.back.split_once('#').unwrap_or((form.back, ""));
    let page = back_to(address);
    match mark.strip_prefix("h-").map(Shortlist::of) {
        Some(one) if one.0.len() == 1 => Redirect::to(format!("{page}#h-{}", one.0[0])),
        _ => Redirect::to(page),
    }
}

pub(super) fn routes() -> Vec<Route> {
    routes![change]
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_cookie_somebody_wrote_by_hand_is_read_as_far_as_it_makes_sense() {
        let list = Shortlist::of("a-b..c d.<i>.a-b.e");
        assert_eq!(list.slugs(), ["a-b", "e"]);
        assert!(Shortlist::of(&"x.".repeat(500)).slugs().len() == 1);
        let many: Vec<String> = (0..100).map(|n| format!("h{n}")).collect();
        assert_eq!(Shortlist::of(&many.join(".")).slugs().len(), MOST);
    }
}
