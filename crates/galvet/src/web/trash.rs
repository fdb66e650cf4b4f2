//! The trash: what was thrown away, and out of it again with what it needs.

use super::errors::{Told, told};
use super::reader::{Reader, back_to};
use super::shared::Shared;
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use crate::present::page::survey::record::when;
use askama::Template;
use askama_web::WebTemplate;
use galvet_store::{Kind, Record, Store, StoreError, Trashed};
use rocket::form::Form;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::tokio::task::spawn_blocking;
use rocket::{FromForm, Route, State, get, post, routes};

/// A record in the trash, in words.
struct Thrown {
    kind: &'static str,
    id: i64,
    name: String,
    when: String,
    /// What it needs and lies here too.
    needs: String,
}

/// What was thrown away.
#[derive(Template, WebTemplate)]
#[template(path = "trash.html")]
struct TrashPage {
    frame: Frame,
    thrown: Vec<Thrown>,
}

/// What a record in the trash is called.
fn name_of(trashed: &Trashed) -> String {
    let record = Record::of_document(trashed.kind, trashed.document.clone());
    record.map_or_else(|_| trashed.kind.key().to_owned(), |r| r.name())
}

fn thrown(store: &Store) -> Result<Vec<Thrown>, StoreError> {
    let all = store.trash()?;
    let told = |trashed: &Trashed| {
        // What cannot be read names nothing.
        let needs = store.needed(trashed, &all).unwrap_or_default();
        let needs: Vec<String> = needs.iter().map(|t| format!("“{}”", name_of(t))).collect();
        Thrown {
            kind: match trashed.kind {
                Kind::Gear => "thing",
                Kind::Brief => "question",
                kind => kind.key(),
            },
            id: trashed.known.id,
            name: name_of(trashed),
            when: when(trashed.at),
            needs: needs.join(", "),
        }
    };
    Ok(all.iter().map(told).collect())
}

#[get("/trash")]
async fn page(visit: Visit<'_>) -> Result<TrashPage, Trouble> {
    let shared = visit.shared;
    let store = shared.store.clone();
    let thrown = spawn_blocking(move || thrown(&store)).await??;
    Ok(TrashPage {
        frame: visit.frame("hulls", visit.to("/trash", &[])),
        thrown,
    })
}

#[derive(FromForm)]
struct TakeBack<'r> {
    kind: &'r str,
    id: i64,
    back: &'r str,
}

/// Takes a record out of the trash, with what it needs of it.
#[post("/trash", data = "<form>")]
async fn take_back(
    form: Form<TakeBack<'_>>,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<Redirect, Told>, Trouble> {
    let (store, id) = (shared.store.clone(), form.id);
    let kind = match form.kind {
        "thing" => "gear".to_owned(),
        "question" => "brief".to_owned(),
        kind => kind.to_owned(),
    };
    let done = spawn_blocking(move || -> Result<(), StoreError> {
        let all = store.trash()?;
        let mut there = all.iter();
        let Some(mine) = there.find(|t| t.kind.key() == kind && t.known.id == id) else {
            return Ok(());
        };
        let mut out = store.needed(mine, &all)?;
        out.push(mine.clone());
        store.take_back(reader.hand.who(), &out)
    });
    let why = match done.await? {
        // Another page was quicker, or it is there already: the page says what is.
        Ok(()) | Err(StoreError::Conflict { .. }) => {
            return Ok(Ok(Redirect::to(back_to(form.back))));
        }
        Err(StoreError::Taken { kind, slug }) => format!(
            "By now another {} goes by “{slug}”: rename or delete that one first.",
            kind.key()
        ),
        Err(StoreError::Reference(why)) => format!("It needs what is not there any more: {why}."),
        Err(error) => return Err(error.into()),
    };
    let title = "That was not taken out of the trash";
    Ok(Err(told(Status::Conflict, title, why, form.back)))
}

pub(super) fn routes() -> Vec<Route> {
    routes![page, take_back]
}
