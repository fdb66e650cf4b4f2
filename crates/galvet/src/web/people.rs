//! The owner's page: who may come in, what they may do, where they are signed in.

use super::account::Line;
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use super::who::Names;
use crate::account::{self, AccountError, LONGEST, SHORTEST, now};
use crate::present::page::survey::record::when;
use askama::Template;
use askama_web::WebTemplate;
use galvet_store::{Person, Role, Store, StoreError};
use rocket::form::Form;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::tokio::task::spawn_blocking;
use rocket::{FromForm, Route, get, post, routes};

/// Lines of the log of accounts shown.
const LOG: u32 = 50;

/// Somebody in the list.
struct Somebody {
    id: i64,
    name: String,
    role: Role,
    since: String,
    out: Option<String>,
    /// What is to be done about a password they were given.
    lent: &'static str,
    me: bool,
    sessions: Vec<Line>,
}

/// A line of the log of accounts.
struct Noted {
    when: String,
    who: String,
    about: String,
    act: String,
}

/// Who may come in.
#[derive(Template, WebTemplate)]
#[template(path = "people.html")]
struct PeoplePage {
    frame: Frame,
    people: Vec<Somebody>,
    log: Vec<Noted>,
    trouble: String,
    name: String,
    roles: [Role; 3],
    shortest: usize,
    longest: usize,
    /// Whether whoever sits at this machine comes in without signing in.
    open: bool,
}

async fn people_page(
    visit: &Visit<'_>,
    (name, trouble): (String, String),
) -> Result<PeoplePage, Trouble> {
    let (store, hand) = (visit.shared.store.clone(), visit.reader.hand);
    let this = visit.visitor.signed().map(|me| (me.person.id, me.session));
    let look = move || -> Result<_, StoreError> {
        let names = Names::read(&store, hand)?;
        let open = store.sessions(None, now())?;
        let somebody = |person: Person| Somebody {
            id: person.id,
            role: person.role,
            since: when(person.since),
            out: person.left_at.map(when),
            lent: account::lent_words(&person, now()),
            me: this.is_some_and(|(id, _)| id == person.id),
            sessions: open
                .iter()
                .filter(|session| session.person == person.id)
                .map(|session| Line::of(session, this.map(|(_, session)| session)))
                .collect(),
            name: person.name,
        };
        let people: Vec<Somebody> = store.people()?.into_iter().map(somebody).collect();
        let log = store.account_log(LOG)?.into_iter().map(|noted| Noted {
            when: when(noted.at),
            who: names.call(&noted.who).to_owned(),
            about: names.call(&format!("person {}", noted.about)).to_owned(),
            act: noted.act,
        });
        Ok((people, log.collect()))
    };
    let (people, log) = spawn_blocking(look).await??;
    Ok(PeoplePage {
        frame: visit.frame("people", visit.to("/people", &[])),
        open: visit.visitor.signed().is_none(),
        people,
        log,
        trouble,
        name,
        roles: Role::ALL,
        shortest: SHORTEST,
        longest: LONGEST,
    })
}

#[get("/people")]
async fn page(visit: Visit<'_>) -> Result<PeoplePage, Trouble> {
    people_page(&visit, (String::new(), String::new())).await
}

/// What came of a change of accounts.
type Answer = Result<Result<Redirect, (Status, PeoplePage)>, Trouble>;

/// Changes something of accounts; what is refused is told on the page.
async fn change(
    visit: &Visit<'_>,
    typed: &str,
    make: impl FnOnce(&Store, &str) -> Result<(), AccountError> + Send + 'static,
) -> Answer {
    let (store, hand) = (visit.shared.store.clone(), visit.reader.hand);
    let why = match spawn_blocking(move || make(&store, hand.who())).await? {
        Ok(()) => return Ok(Ok(visit.go("/people", &[]))),
        Err(AccountError::Store(StoreError::Nothing(why))) => why.to_owned(),
        Err(AccountError::Store(error @ StoreError::Somebody(_))) => error.to_string(),
        Err(AccountError::Store(error)) => return Err(error.into()),
        Err(refused) => refused.to_string(),
    };
    let told = (typed.to_owned(), format!("Not done: {why}."));
    let page = people_page(visit, told).await?;
    Ok(Err((Status::UnprocessableEntity, page)))
}

#[derive(FromForm)]
struct New<'r> {
    name: &'r str,
    role: &'r str,
    password: &'r str,
}

/// The role of a word; an unknown one is refused.
fn role(word: &str) -> Result<Role, AccountError> {
    Role::from_key(word)
        .ok_or_else(|| AccountError::Refused(format!("“{word}” is no role: looker, staff, owner")))
}

/// Lets somebody in. Their password is theirs to change, but for the first owner's, who
/// typed it.
#[post("/people", data = "<form>")]
async fn add(form: Form<New<'_>>, visit: Visit<'_>) -> Answer {
    let (name, word) = (form.name.to_owned(), form.role.to_owned());
    let password = form.password.to_owned();
    change(&visit, form.name, move |store, by| {
        let lent = store.has_people()?;
        account::let_in(store, by, (&name, role(&word)?), (&password, lent))?;
        Ok(())
    })
    .await
}

#[derive(FromForm)]
struct NewRole<'r> {
    role: &'r str,
}

#[post("/people/<id>/role", data = "<form>")]
async fn set_role(id: i64, form: Form<NewRole<'_>>, visit: Visit<'_>) -> Answer {
    let word = form.role.to_owned();
    change(&visit, "", move |store, by| {
        Ok(store.set_role(by, id, role(&word)?)?)
    })
    .await
}

#[derive(FromForm)]
struct Lent<'r> {
    password: &'r str,
}

/// Gives somebody a password to come in with once.
#[post("/people/<id>/password", data = "<form>")]
async fn lend(id: i64, form: Form<Lent<'_>>, visit: Visit<'_>) -> Answer {
    let password = form.password.to_owned();
    change(&visit, "", move |store, by| {
        let mut people = store.people()?.into_iter();
        let person = people.find(|person| person.id == id);
        let person = person.ok_or(StoreError::Nothing("there is nobody of that number"))?;
        account::lend_password(store, by, &person, &password)
    })
    .await
}

#[post("/people/<id>/out")]
async fn out(id: i64, visit: Visit<'_>) -> Answer {
    change(&visit, "", move |store, by| Ok(store.shut_out(by, id)?)).await
}

#[post("/people/<id>/back")]
async fn back(id: i64, visit: Visit<'_>) -> Answer {
    change(&visit, "", move |store, by| Ok(store.let_back(by, id)?)).await
}

/// Ends anybody's session.
#[post("/people/sessions/<session>/end")]
async fn end(session: i64, visit: Visit<'_>) -> Answer {
    change(&visit, "", move |store, _| {
        store.end_listed(session, None)?;
        Ok(())
    })
    .await
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, add, set_role, lend, out, back, end]
}
