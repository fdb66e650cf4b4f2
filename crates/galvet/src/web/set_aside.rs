//! Records that cannot be used: what is wrong with them, and what can be done.

use super::reader::Reader;
use super::shared::Shared;
use super::trouble::Trouble;
use super::visit::{Frame, Visit};
use askama::Template;
use askama_web::WebTemplate;
use galvet_store::{SetAside, StoreError};
use rocket::form::Form;
use rocket::http::Status;
use rocket::response::Redirect;
use rocket::{FromForm, Route, State, get, post, routes, uri};

#[derive(Template, WebTemplate)]
#[template(path = "set-aside.html")]
struct SetAsidePage {
    frame: Frame,
    records: Vec<SetAside>,
}

#[get("/set-aside")]
async fn set_aside(visit: Visit<'_>) -> Result<SetAsidePage, Trouble> {
    let shared = visit.shared;
    let records = shared.records().await?;
    Ok(SetAsidePage {
        frame: visit.frame("set-aside", visit.to("/set-aside", &[])),
        records: records.catalogue.set_aside.clone(),
    })
}

#[derive(FromForm)]
struct MendForm<'r> {
    kind: &'r str,
    id: i64,
}

/// Puts a record back to what the journal last knew of it.
#[post("/set-aside", data = "<form>")]
async fn mend(
    form: Form<MendForm<'_>>,
    reader: Reader,
    shared: &State<Shared>,
) -> Result<Result<Redirect, Status>, Trouble> {
    let records = shared.records().await?;
    let mut records = records.catalogue.set_aside.iter();
    let wanted = |r: &&SetAside| r.kind.key() == form.kind && r.known.id == form.id;
    let Some(record) = records.find(wanted).cloned() else {
        return Err(Trouble::Gone);
    };
    let store = shared.store.clone();
    let work = move || store.mend(reader.hand.who(), record.kind, record.known);
    match rocket::tokio::task::spawn_blocking(work).await? {
        // Somebody else was quicker, or it cannot be mended: the page says so.
        Ok(_) | Err(StoreError::Conflict { .. } | StoreError::Nothing(_)) => {}
        Err(StoreError::BadRecord { .. }) => return Ok(Err(Status::UnprocessableEntity)),
        Err(error) => return Err(error.into()),
    }
    Ok(Ok(Redirect::to(uri!("/set-aside"))))
}

pub(super) fn routes() -> Vec<Route> {
    routes![set_aside, mend]
}
