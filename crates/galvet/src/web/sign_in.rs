//! Signing in and out.

use super::reader::back_to;
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use super::visitor::{Door, Visitor, knock};
use crate::account::{AccountError, Knock};
use askama::Template;
use askama_web::WebTemplate;
use galvet_store::Standing;
use rocket::form::Form;
use rocket::http::{CookieJar, Header, Status};
use rocket::request::{FromRequest, Outcome};
use rocket::response::Redirect;
use rocket::tokio::task::spawn_blocking;
use rocket::{FromForm, Request, Responder, Route, State, get, post, routes};
use std::convert::Infallible;
use std::sync::Arc;

/// From where a request comes, with which browser, and what it keeps of a session.
pub(super) struct Knocks {
    pub(super) knock: Knock,
    pub(super) token: Option<String>,
}

#[rocket::async_trait]
impl<'r> FromRequest<'r> for Knocks {
    type Error = Infallible;

    async fn from_request(request: &'r Request<'_>) -> Outcome<Self, Infallible> {
        let door = request.rocket().state::<Door>();
        Outcome::Success(Self {
            knock: knock(request),
            token: door.and_then(|door| door.token(request)),
        })
    }
}

/// Who one is.
#[derive(Template, WebTemplate)]
#[template(path = "sign-in.html")]
pub(super) struct SignInPage {
    frame: Frame,
    /// Where to go then.
    back: String,
    name: String,
    trouble: String,
    /// Whether anybody has an account.
    somebody: bool,
}

/// A refusal that says when to come again.
#[derive(Responder)]
pub(super) enum Refusal<T> {
    /// Not now.
    #[response(status = 429)]
    Wait(T, Header<'static>),
    /// Not so.
    #[response(status = 422)]
    Not(T),
}

/// A page of a refusal, with its status.
pub(super) fn refusal<T>(error: &AccountError, page: T) -> Refusal<T> {
    match error {
        AccountError::Wait(wait) => {
            let seconds = (wait.as_secs() + 1).to_string();
            Refusal::Wait(page, Header::new("Retry-After", seconds))
        }
        _ => Refusal::Not(page),
    }
}

async fn sign_in_page(
    visit: &Visit<'_>,
    (back, name): (String, String),
    trouble: String,
) -> Result<SignInPage, Trouble> {
    let store = visit.shared.store.clone();
    Ok(SignInPage {
        frame: visit.frame("sign-in", "/sign-in".to_owned()),
        back,
        name,
        trouble,
        somebody: spawn_blocking(move || store.has_people()).await??,
    })
}

#[get("/sign-in?<back>")]
async fn page(back: Option<&str>, visit: Visit<'_>) -> Result<SignInPage, Trouble> {
    let back = back_to(back.unwrap_or("/")).to_string();
    sign_in_page(&visit, (back, String::new()), String::new()).await
}

#[derive(FromForm)]
struct SignIn<'r> {
    name: &'r str,
    password: &'r str,
    #[field(default = "/")]
    back: &'r str,
}

/// Opens a session, under a new key whatever the browser kept before.
#[post("/sign-in", data = "<form>")]
async fn sign_in(
    form: Form<SignIn<'_>>,
    knocks: Knocks,
    visit: Visit<'_>,
    door: &State<Door>,
    jar: &CookieJar<'_>,
) -> Result<Result<Redirect, Refusal<SignInPage>>, Trouble> {
    let accounts = door.accounts.clone();
    let (name, password) = (form.name.to_owned(), form.password.to_owned());
    let Knocks { knock, token } = knocks;
    let tried = spawn_blocking(move || {
        let opened = accounts.sign_in(&name, &password, &knock)?;
        if let Some(token) = token {
            accounts.sign_out(&token)?;
        }
        Ok::<_, AccountError>(opened)
    });
    let error = match tried.await? {
        Ok(token) => {
            jar.add(door.session(token));
            return Ok(Ok(Redirect::to(back_to(form.back))));
        }
        Err(AccountError::Store(error)) => return Err(error.into()),
        Err(error) => error,
    };
    let typed = (back_to(form.back).to_string(), form.name.to_owned());
    let page = sign_in_page(&visit, typed, error.to_string()).await?;
    Ok(Err(refusal(&error, page)))
}

/// Ends the session.
#[post("/sign-out")]
async fn sign_out(
    knocks: Knocks,
    door: &State<Door>,
    jar: &CookieJar<'_>,
) -> Result<SignedOut, Trouble> {
    let accounts = door.accounts.clone();
    if let Some(token) = knocks.token {
        spawn_blocking(move || accounts.sign_out(&token)).await??;
    }
    jar.add(door.gone());
    let forget = Header::new("Clear-Site-Data", "\"cache\"");
    Ok(SignedOut(Redirect::to("/sign-in"), forget))
}

/// The way out, with what the browser is to forget.
#[derive(Responder)]
struct SignedOut(Redirect, Header<'static>);

#[rocket::async_trait]
impl<'r> FromRequest<'r> for Visitor {
    type Error = Infallible;

    async fn from_request(request: &'r Request<'_>) -> Outcome<Self, Infallible> {
        match Self::known(request) {
            Ok(visitor) => Outcome::Success(visitor.clone()),
            Err(_) => Outcome::Forward(Status::InternalServerError),
        }
    }
}

/// Who signed in; the page is not for anybody else.
pub(super) fn signed(visitor: &Visitor) -> Result<Arc<Standing>, Trouble> {
    visitor.signed().cloned().ok_or(Trouble::Gone)
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, sign_in, sign_out]
}
