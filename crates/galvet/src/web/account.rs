//! One's own account: who one is here, where one is signed in, one's password.

use super::errors::{Told, told};
use super::reader::back_to;
use super::sign_in::{Knocks, Refusal, refusal, signed};
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use super::visitor::Door;
use crate::account::{self, AccountError, LONGEST, SHORTEST, now};
use crate::present::page::survey::record::when;
use askama::Template;
use askama_web::WebTemplate;
use galvet_store::Session;
use rocket::form::Form;
use rocket::http::{ContentType, Status};
use rocket::response::Redirect;
use rocket::tokio::task::spawn_blocking;
use rocket::{FromForm, Route, State, get, post, routes};
use serde::Serialize;

/// A session as a list shows it.
pub(super) struct Line {
    pub(super) id: i64,
    pub(super) browser: String,
    pub(super) since: String,
    pub(super) seen: String,
    /// Whether it is the one that looks.
    pub(super) this: bool,
}

impl Line {
    pub(super) fn of(session: &Session, this: Option<i64>) -> Self {
        Self {
            id: session.id,
            browser: plainly(&session.browser),
            since: when(session.made_at),
            seen: when(session.seen_at),
            this: this == Some(session.id),
        }
    }
}

/// What a browser is, out of what it calls itself: the system in the first brackets.
fn plainly(browser: &str) -> String {
    let system = browser.split_once('(').and_then(|(_, rest)| {
        let inside = rest.split(')').next()?;
        Some(inside.split(';').take(2).collect::<Vec<_>>().join(","))
    });
    match system {
        Some(system) => format!("a browser on {}", system.trim()),
        None if browser.is_empty() => "a browser that does not say".to_owned(),
        None => browser.chars().take(60).collect(),
    }
}

/// One's own account.
#[derive(Template, WebTemplate)]
#[template(path = "account.html")]
struct AccountPage {
    frame: Frame,
    name: String,
    role: &'static str,
    /// Whether somebody else chose the password.
    lent: bool,
    owns: bool,
    sessions: Vec<Line>,
    trouble: String,
    shortest: usize,
    longest: usize,
}

async fn account_page(visit: &Visit<'_>, trouble: String) -> Result<AccountPage, Trouble> {
    let me = signed(&visit.visitor)?;
    let (store, person) = (visit.shared.store.clone(), me.person.id);
    let open = spawn_blocking(move || store.sessions(Some(person), now())).await??;
    Ok(AccountPage {
        frame: visit.frame("account", visit.to("/account", &[])),
        name: me.person.name.clone(),
        role: me.person.role.label(),
        lent: me.person.is_lent(),
        owns: me.person.role == galvet_store::Role::Owner,
        sessions: open.iter().map(|s| Line::of(s, Some(me.session))).collect(),
        trouble,
        shortest: SHORTEST,
        longest: LONGEST,
    })
}

#[get("/account")]
async fn page(visit: Visit<'_>) -> Result<AccountPage, Trouble> {
    account_page(&visit, String::new()).await
}

#[derive(FromForm)]
struct NewPassword<'r> {
    old: &'r str,
    new: &'r str,
    again: &'r str,
}

/// Changes one's own password; one's other sessions end.
#[post("/account/password", data = "<form>")]
async fn password(
    form: Form<NewPassword<'_>>,
    knocks: Knocks,
    visit: Visit<'_>,
    door: &State<Door>,
) -> Result<Result<Redirect, Refusal<AccountPage>>, Trouble> {
    let me = signed(&visit.visitor)?;
    let accounts = door.accounts.clone();
    let (old, new) = (form.old.to_owned(), form.new.to_owned());
    let same = form.new == form.again;
    let change = move || {
        if !same {
            let why = "the new password and its repetition are not the same".to_owned();
            return Err(AccountError::Refused(why));
        }
        let from = (knocks.knock.from, knocks.token.unwrap_or_default());
        accounts.change_own(&me, (&old, &new), (from.0, &from.1))
    };
    match spawn_blocking(change).await? {
        Ok(()) => Ok(Ok(visit.go("/account", &[]))),
        Err(AccountError::Store(error)) => Err(error.into()),
        Err(error) => {
            let why = match error {
                AccountError::Wrong => "the old password is another one".to_owned(),
                ref other => other.to_string(),
            };
            let page = account_page(&visit, format!("Not changed: {why}.")).await?;
            Ok(Err(refusal(&error, page)))
        }
    }
}

/// A password as it is typed, to be judged and forgotten.
#[derive(FromForm)]
struct Typed<'r> {
    password: &'r str,
    #[field(default = "")]
    name: &'r str,
}

/// How hard a password is to guess.
#[derive(Serialize)]
struct Strength {
    /// Of 4; from 3 on it will do.
    score: u8,
    words: &'static str,
}

#[post("/account/strength", data = "<form>")]
async fn strength(form: Form<Typed<'_>>) -> Result<(ContentType, String), Trouble> {
    let (password, name) = (form.password.to_owned(), form.name.to_owned());
    let judged = spawn_blocking(move || account::strength(&password, &[&name]));
    let (score, words) = judged.await?;
    let told = serde_json::to_string(&Strength { score, words }).map_err(|_| Trouble::Ours)?;
    Ok((ContentType::JSON, told))
}

/// Ends one of one's own sessions.
#[post("/account/sessions/<session>/end")]
async fn end(session: i64, visit: Visit<'_>) -> Result<Redirect, Trouble> {
    let me = signed(&visit.visitor)?;
    let store = visit.shared.store.clone();
    spawn_blocking(move || store.end_listed(session, Some(me.person.id))).await??;
    Ok(visit.go("/account", &[]))
}

/// The password, asked for again.
#[derive(Template, WebTemplate)]
#[template(path = "prove.html")]
struct ProvePage {
    frame: Frame,
    back: String,
    name: String,
    trouble: String,
}

#[get("/account/prove?<back>")]
async fn ask_again(
    back: Option<&str>,
    visit: Visit<'_>,
) -> Result<Result<ProvePage, Told>, Trouble> {
    let Some(me) = visit.visitor.signed() else {
        let why = "Nobody signs in here.".to_owned();
        return Ok(Err(told(
            Status::NotFound,
            "There is nothing to prove",
            why,
            "/",
        )));
    };
    Ok(Ok(ProvePage {
        name: me.person.name.clone(),
        frame: visit.frame("account", "/account/prove".to_owned()),
        back: back_to(back.unwrap_or("/account")).to_string(),
        trouble: String::new(),
    }))
}

#[derive(FromForm)]
struct Proof<'r> {
    password: &'r str,
    #[field(default = "/account")]
    back: &'r str,
}

#[post("/account/prove", data = "<form>")]
async fn prove(
    form: Form<Proof<'_>>,
    knocks: Knocks,
    visit: Visit<'_>,
    door: &State<Door>,
) -> Result<Result<Redirect, Refusal<ProvePage>>, Trouble> {
    let me = signed(&visit.visitor)?;
    let name = me.person.name.clone();
    let (accounts, password) = (door.accounts.clone(), form.password.to_owned());
    let done = spawn_blocking(move || accounts.prove(&me, &password, knocks.knock.from));
    match done.await? {
        Ok(()) => Ok(Ok(Redirect::to(back_to(form.back)))),
        Err(AccountError::Store(error)) => Err(error.into()),
        Err(error) => {
            let why = match error {
                AccountError::Wrong => "that is not your password".to_owned(),
                ref other => other.to_string(),
            };
            let page = ProvePage {
                frame: visit.frame("account", "/account/prove".to_owned()),
                back: back_to(form.back).to_string(),
                name,
                trouble: why,
            };
            Ok(Err(refusal(&error, page)))
        }
    }
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, password, strength, end, ask_again, prove]
}

#[cfg(test)]
mod tests {
    use super::plainly;

    #[test]
    fn a_browser_is_told_by_its_system() {
        let phone = "Mozilla/5.0 (Linux; Android 14; K) AppleWebKit/537.36";
        assert_eq!(plainly(phone), "a browser on Linux, Android 14");
        assert_eq!(plainly(""), "a browser that does not say");
        assert_eq!(plainly("curl/8"), "curl/8");
        assert_eq!(plainly("odd ("), "a browser on ");
    }
}
