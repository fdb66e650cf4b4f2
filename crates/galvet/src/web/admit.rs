//! Who is let through to a page: each route is mounted behind its rule.

use super::asked::Asked;
use super::asks::asked_by;
use super::errors::{Told, told, with};
use super::reader::back_to;
use super::rules::{Rule, rule_of};
use super::shared::Shared;
use super::visitor::Visitor;
use crate::account::{is_fresh, now};
use galvet_store::Role;
use rocket::http::{Method, Status};
use rocket::response::{Redirect, Responder};
use rocket::route::{Handler, Outcome, Route};
use rocket::{Data, Request};

/// A page behind its rule.
#[derive(Clone)]
struct Behind {
    rule: Rule,
    page: Box<dyn Handler>,
}

/// A route behind the rule that stands for it.
pub(super) fn behind(mut route: Route) -> Route {
    route.handler = Box::new(Behind {
        rule: rule_of(route.method, route.uri.path()),
        page: route.handler,
    });
    route
}

/// Why somebody does not come to a page.
enum Refused {
    /// They have to do something else first.
    First(Box<Redirect>),
    Told(Box<Told>),
    /// Who they are cannot be found out.
    Trouble,
}

/// An address of a page of ours that leads back to a request.
fn and_back(page: &str, request: &Request<'_>) -> Redirect {
    let back = request.uri().to_string();
    let back: String = form_urlencoded::byte_serialize(back.as_bytes()).collect();
    Redirect::to(back_to(&format!("{page}?back={back}")))
}

/// Whether a request is for a page somebody looks at, rather than one a script asks for.
fn looks(request: &Request<'_>) -> bool {
    let dest = request.headers().get_one("Sec-Fetch-Dest");
    let part = request.uri().path().as_str().starts_with("/part/");
    request.method() == Method::Get && !part && dest.is_none_or(|dest| dest == "document")
}

fn nobody(request: &Request<'_>) -> Refused {
    if looks(request) {
        return Refused::First(and_back("/sign-in", request).into());
    }
    let why = "Nobody is signed in here any more. What you filled in stands on the page you came from: go back to it, sign in at another tab, and send it again.";
    let page = told(
        Status::Unauthorized,
        "That was not done",
        why.to_owned(),
        "/sign-in",
    );
    Refused::Told(Box::new(with(page, "Sign in")))
}

/// There is nothing there, for who asks.
fn nothing() -> Refused {
    let page = told(
        Status::NotFound,
        "There is nothing at this address",
        "It was withdrawn, or it is somebody else's.".to_owned(),
        "/",
    );
    Refused::Told(Box::new(page))
}

/// Whether a request asks what a customer asked.
async fn is_a_customers(request: &Request<'_>) -> bool {
    let Some(shared) = request.rocket().state::<Shared>() else {
        return true;
    };
    match shared.records().await {
        Ok(records) => asked_by(&records.catalogue, &request.uri().to_string()).is_some(),
        Err(_) => true,
    }
}

/// Lets a visitor through, or says why not.
async fn admit(request: &Request<'_>, rule: Rule) -> Result<(), Refused> {
    let Some(least) = rule.least() else {
        return Ok(());
    };
    // A paper handed out shows what anybody who looks on may see, and takes nothing.
    match Asked::of(request) {
        Asked::Shared | Asked::SharedOfCustomer if !rule.is_handed_out() => {
            return Err(nothing());
        }
        Asked::SharedOfCustomer => return Ok(()),
        Asked::Shared if is_a_customers(request).await => return Err(nothing()),
        Asked::Shared => return Ok(()),
        Asked::Page | Asked::File => {}
    }
    let Ok(visitor) = Visitor::of(request).await else {
        return Err(Refused::Trouble);
    };
    let Some(role) = visitor.role() else {
        return Err(nobody(request));
    };
    let lent = visitor.signed().is_some_and(|who| who.person.is_lent());
    if lent && rule != Rule::Self_ {
        return Err(Refused::First(Redirect::to("/account").into()));
    }
    if role < least {
        let why = format!(
            "It is for {}; you are signed in as {}. Nothing was changed. Ask the owner if it should be yours.",
            least.key(),
            role.key()
        );
        let page = told(Status::Forbidden, "That is not yours to do", why, "/");
        return Err(Refused::Told(Box::new(page)));
    }
    if role < Role::Staff && is_a_customers(request).await {
        return Err(nothing());
    }
    let stale = |who| !is_fresh(who, now());
    if rule.surely() && visitor.signed().is_some_and(|who| stale(who)) {
        if looks(request) {
            return Err(Refused::First(and_back("/account/prove", request).into()));
        }
        let why = "It is sensitive, and your password was given more than ten minutes ago. Give it again, then go back to the page you came from and send it once more.";
        let page = told(
            Status::Unauthorized,
            "That was not done yet",
            why.to_owned(),
            "/account/prove",
        );
        return Err(Refused::Told(Box::new(with(page, "Give the password"))));
    }
    Ok(())
}

#[rocket::async_trait]
impl Handler for Behind {
    async fn handle<'r>(&self, request: &'r Request<'_>, data: Data<'r>) -> Outcome<'r> {
        let answer = match admit(request, self.rule).await {
            Ok(()) => return self.page.handle(request, data).await,
            Err(Refused::First(elsewhere)) => elsewhere.respond_to(request),
            Err(Refused::Told(page)) => page.respond_to(request),
            Err(Refused::Trouble) => Err(Status::InternalServerError),
        };
        match answer {
            Ok(answer) => Outcome::Success(answer),
            Err(status) => Outcome::Error(status),
        }
    }
}
